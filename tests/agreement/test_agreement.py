"""One question has one answer: every surface is asked, of many builds and their set-ups."""

import json
from collections import defaultdict
from typing import Any

import pytest
from hypothesis import given, settings
from PySide6.QtWidgets import QApplication

from tests.agreement.surfaces import (
    FIRST,
    G_LEFT,
    ON_PAPER,
    PEDAL_LEFT,
    REAR_FIRST,
    SURFACES,
    Surface,
    answers,
    sheet_csv,
    solved,
)
from tests.builds import bed
from tests.fuzzing import MINUTES
from tests.strategies import documents
from urgens.document import Build, demo, demo_names, loads, with_changes, with_setup

EXACT = 1e-6  # of a figure, and of an SI unit of it


def agree(build: Build, surfaces: tuple[Surface, ...] = SURFACES) -> dict[str, Any]:
    """What all surfaces say of a build; fails where two of them say otherwise."""
    said = defaultdict[str, dict[str, Any]](dict)
    for surface, question, answer in answers(build, surfaces):
        said[question][surface] = answer
    for question, told in said.items():
        first = next(iter(told.values()))
        for answer in told.values():
            same = answer == first
            if isinstance(first, float) and isinstance(answer, float):
                same = answer == pytest.approx(first, rel=EXACT, abs=EXACT)
            assert same, (question, told)
    return {question: next(iter(told.values())) for question, told in said.items()}


DRAWN = 300 if MINUTES else 40  # builds; the suite draws others each time


@pytest.mark.fuzz
@pytest.mark.parametrize("half", range(2))  # one for each worker
@settings(max_examples=DRAWN // 2)
@given(document=documents())
def test_every_surface_says_the_same_of_drawn_builds(half: int, document: dict[str, Any]) -> None:
    build = loads(json.dumps(document))
    for one in (build, *(with_setup(build, setup.name) for setup in build.setups)):
        agree(one)


@pytest.mark.parametrize("name", demo_names())
def test_paper_says_the_same(dressed: QApplication, name: str) -> None:
    build = demo(name)
    for one in (build, *(with_setup(build, setup.name) for setup in build.setups)):
        assert FIRST in agree(one, (solved, sheet_csv, *ON_PAPER))


@pytest.mark.parametrize("name", demo_names())
def test_every_surface_says_the_same_of_the_demos(name: str) -> None:
    for build in (demo(name), bed(name)):
        for one in (build, *(with_setup(build, setup.name) for setup in build.setups)):
            assert REAR_FIRST in agree(one)


def test_a_half_that_reaches_nothing_is_nowhere_a_figure() -> None:
    """By hand: a floor nearer than the dead chamber's stroke lets the pad go."""
    near = with_changes(bed("bakery"), {"pedal.travel_available": "70 mm"})
    told = agree(near)
    assert told[PEDAL_LEFT] is None
    assert told[G_LEFT] is None
