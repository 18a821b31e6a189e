"""Parts put into lines and taken out again; which circuit feeds a line."""

import json
from collections.abc import Iterator
from typing import Any

import pytest

from tests.plumbing.layouts import sound, with_layout
from urgens.document import BuildErrors, demo_names, loads, with_changes
from urgens.document.circuits import Circuits
from urgens.document.demo import demo_text
from urgens.document.layout.layout import Plumbing
from urgens.guidance import findings
from urgens.plumbing.edits import INSERTED, drawn, laid_anew, with_part_in, without_part
from urgens.solve import solve


def layout() -> Plumbing:
    found = with_layout(sound()).plumbing
    assert found is not None
    return found


@pytest.mark.parametrize("kind", INSERTED)
def test_a_part_goes_into_a_line_with_ends_that_fit(kind: str) -> None:
    made, name = with_part_in(layout(), "L5", kind)
    build = with_layout(made)
    codes = {one.code for one in findings(solve(build))}
    assert not codes & {"thread-mismatch", "seat-mismatch", "wheel-not-fed", "loop"}
    assert ("port-open" in codes) == (kind == "tee")  # its branch
    assert build.plumbing is not None
    joined = [line for line in build.plumbing.lines if f"{name}." in f"{line.start} {line.to}"]
    assert next(line.id for line in joined) == "L5"
    assert len(joined) == 2


@pytest.mark.parametrize("kind", ["union", "hose", "reducing"])
def test_taken_out_again_the_line_is_as_it_was_but_for_its_route(kind: str) -> None:
    before = {line.id: (line.start, line.to, line.ends, line.tube) for line in layout().lines}
    made, name = with_part_in(layout(), "L5", kind)
    put_in = with_layout(made).plumbing
    assert put_in is not None
    out = with_layout(without_part(put_in, name)).plumbing
    assert out is not None
    assert {line.id: (line.start, line.to, line.ends, line.tube) for line in out.lines} == before
    assert {part.id for part in out.parts} == {part.id for part in layout().parts}


def test_a_hose_between_a_line_and_a_screwed_part_leaves_one_line_with_both_ends() -> None:
    out = with_layout(without_part(layout(), "hr")).plumbing
    assert out is not None
    line = next(one for one in out.lines if one.id == "L5")
    assert (line.start, line.to, line.direct) == ("cv.rear-out", "rt.in", False)
    assert len(line.ends) == 2


def test_a_part_that_joins_three_lines_stays_and_says_why() -> None:
    with pytest.raises(BuildErrors, match=r"rt.*joins 3 lines"):
        without_part(layout(), "rt")


@pytest.mark.parametrize("demo", demo_names())
def test_a_layout_of_which_a_key_is_left_out_is_refused_or_has_its_findings(demo: str) -> None:
    document = json.loads(demo_text(demo))
    section = document["plumbing"]
    gone = {(): section, **{(rows, i, *which): row for rows in ("parts", "lines")
            for i, row in enumerate(section[rows]) for which, row in nested(row)}}  # fmt: skip
    kinds = {}
    for way, row in gone.items():
        for key in row:
            kinds.setdefault((way[:1], way[2:], key, row.get("kind")), (row, key))
    said = []
    for row, key in kinds.values():
        kept = dict(row)
        del row[key]
        said.append(refusal(document))
        row.clear()
        row.update(kept)
    assert said.count("") >= len(kinds) // 5
    assert not [one for one in said if one and "; " not in one]


def refusal(document: dict[str, Any]) -> str:
    try:
        findings(solve(loads(json.dumps(document))))
    except BuildErrors as refused:
        return str(refused)
    return ""


def nested(row: dict[str, Any]) -> Iterator[tuple[tuple[str, ...], dict[str, Any]]]:
    yield (), row
    yield from (((key,), value) for key, value in row.items() if isinstance(value, dict))


def test_what_is_not_there_is_said() -> None:
    with pytest.raises(BuildErrors, match=r"nothing.*no line"):
        with_part_in(layout(), "nothing", "tee")
    with pytest.raises(BuildErrors, match="no part"):
        without_part(layout(), "nothing")


def test_a_layout_drawn_elsewhere_is_laid_anew() -> None:
    moved = with_changes(with_layout(sound()), drawn(layout(), {"cv": (0.25, 0.75)})).plumbing
    assert moved is not None
    assert next(p for p in moved.parts if p.id == "cv").drawn_at == (0.25, 0.75)
    again = with_layout(laid_anew(moved)).plumbing
    assert again == layout()


def test_every_line_knows_the_circuit_that_feeds_it() -> None:
    build = with_layout(sound())
    assert build.plumbing is not None
    fed = Circuits(build, build.plumbing).fed
    front, rear = frozenset({"front"}), frozenset({"rear"})
    assert fed == {
        "L1": front, "L3": front, "L4": front, "D1": front, "D2": front,
        "L2": rear, "L5": rear, "L6": rear, "L7": rear, "D3": rear,
    }  # fmt: skip
    cut = sound()
    cut["lines"] = [line for line in cut["lines"] if line["id"] != "L5"]
    build = with_layout(cut)
    assert build.plumbing is not None
    assert Circuits(build, build.plumbing).fed["L6"] == frozenset()


@pytest.mark.parametrize("place", [("parts", "ports", "in", "thread"), ("lines", "ends", 0, "nut")])
def test_a_thread_of_spaces_is_refused_and_not_written_empty(place: tuple[Any, ...]) -> None:
    made = sound()
    row: Any = next(one for one in made[place[0]] if place[1] in one and (
        place[1] == "ends" or "in" in one["ports"]))  # fmt: skip
    for step in place[1:-1]:
        row = row[step]
    row[place[-1]] = "  "
    with pytest.raises(BuildErrors, match="is empty; write a name"):
        with_layout(made)
