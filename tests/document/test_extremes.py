"""Absurd figures, one at a time: refused in words or solved, never a warning or a traceback."""

import copy
import json
import re
from collections import Counter
from collections.abc import Iterator
from typing import Any

import pytest

from tests.builds import bed_text
from urgens.document import BuildErrors, demo_names, loads
from urgens.guidance import findings
from urgens.printed.solution import printed_solution
from urgens.solve import solve

POWERS = (-300, -9, -6, -3, 3, 6, 9, 300)
OF_A_KIND = 2


def figures(here: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[tuple[Any, ...], Any]]:
    """Yield the path and value of every figure of a document."""
    if isinstance(here, dict | list):
        for key, value in here.items() if isinstance(here, dict) else enumerate(here):
            yield from figures(value, (*path, key))
    elif (isinstance(here, str) and re.match(r"[\d./ -]+\S", here)) or isinstance(here, float):
        yield path, here


def of_each_kind(part: Any, section: str) -> Iterator[tuple[tuple[Any, ...], Any]]:
    """Yield the first figures at each place: a point of a route stands for the other points."""
    seen: Counter[tuple[Any, ...]] = Counter()
    for path, figure in figures(part, (section,)):
        kind = tuple("each" if isinstance(step, int) else step for step in path)
        seen[kind] += 1
        if seen[kind] <= OF_A_KIND:
            yield path, figure


def absurd(figure: Any, turn: int, apart: int) -> list[Any]:
    """What is absurd; of many figures each has a part of it, the next another part."""
    if isinstance(figure, str):
        return [f"1e{power} {figure.split()[-1]}" for power in POWERS][turn % apart :: apart]
    return [0.0, *(10.0**power for power in POWERS)][turn % apart :: apart]


SECTIONS = [
    (name, section)
    for name in demo_names()
    for section, part in json.loads(bed_text(name)).items()
    if any(figures(part)) and section != "records"  # times and words
]


@pytest.mark.parametrize(("name", "section"), SECTIONS)
def test_any_absurd_figure_is_refused_or_solved(name: str, section: str) -> None:
    document = json.loads(bed_text(name))
    refused = solved = 0
    places = list(of_each_kind(document[section], section))
    apart = 12 if len(places) > 8 else 2
    for turn, (path, figure) in enumerate(places):
        for value in absurd(figure, turn, apart):
            changed = copy.deepcopy(document)
            here = changed
            for step in path[:-1]:
                here = here[step]
            here[path[-1]] = value
            try:
                build = loads(json.dumps(changed))
            except BuildErrors:
                refused += 1
                continue
            solution = solve(build)
            findings(solution)
            json.dumps(printed_solution(solution), allow_nan=False)
            solved += 1

    assert refused
    assert solved
