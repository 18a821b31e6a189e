"""The plumbing section: read, written, edited, and what is wrong with it named by part and line."""

import json
from typing import Any

import pytest

from tests.plumbing.layouts import LEGS, layout, line, wheel, with_layout
from urgens.document import BuildErrors, edited, loads, schema
from urgens.document.catalogue import named
from urgens.document.edits.edit import dumped


def test_a_layout_comes_back_as_it_was_written() -> None:
    build = with_layout(layout())
    written = dumped(build)

    assert written["plumbing"] == layout()
    assert loads(json.dumps(written)) == build
    assert build.plumbing is not None
    assert build.plumbing.lines[0].start == "mc.front"


def test_one_figure_of_it_is_edited_by_its_path() -> None:
    build = edited(with_layout(layout()), "plumbing.lines[1].from", "mc.front")
    assert build.plumbing is not None
    assert build.plumbing.lines[1].start == "mc.front"
    build = edited(build, "plumbing.lines[0].route[1][0]", "9 in")
    assert build.plumbing is not None
    assert build.plumbing.lines[0].route[1][0].text == "9 in"


def test_figures_of_lines_are_told_apart_by_name() -> None:
    build = with_layout(layout())
    names = [named(build, f"plumbing.lines[{place}].tube") for place in (0, 1)]
    assert names == ["L1: tube", "L2: tube"]


def test_the_schema_knows_it() -> None:
    made = schema()
    line_of = made["$defs"]["BrakeLine"]
    assert {"from", "to", "id"} <= set(line_of["required"])


def damaged(place: str, value: Any) -> dict[str, Any]:
    made = layout()
    match place:
        case "to" | "from" | "route" | "id" | "ends":
            made["lines"][0][place] = value
        case "wheel":
            made["parts"][1].pop("wheel")
        case "part":
            made["parts"].append(value)
        case "ports":
            made["parts"][0]["ports"] = value
    return made


@pytest.mark.parametrize(
    ("place", "value", "words"),
    [
        ("to", "fl.out", 'lines[0].to: line "L1": part "fl" has no port "out"; choose one of "in"'),
        ("to", "fr.in", 'line "L1": there is no part "fr"; choose one of "mc", "fl", "rl"'),
        ("from", "mcfront", 'lines[0].from: "mcfront" names no port; write part and port'),
        ("to", "mc.front", 'lines[0].to: "L1" ends where it begins'),
        ("route", LEGS[:1], 'lines[0].route: "L1" has one point'),
        ("route", [*LEGS, LEGS[-1]], 'route[3]: point 4 of "L1" stands on the one before'),
        ("id", "fl", 'lines[0].id: "fl" is also the id of parts[1]'),
        ("id", "a line", '"a line" has a dot or a space'),
        ("ends", [{"nut": "3/8-24", "flare": "inverted"}], '"L1" has one end'),
        ("wheel", None, 'parts[1].wheel: "fl" is a wheel brake without a wheel'),
        ("part", {**wheel("fl"), "id": "t", "kind": "tee"}, '"t" is at a wheel and no wheel brake'),
        ("ports", {"front left": {}}, '"front left" has a dot or a space'),
    ],
)
def test_what_is_wrong_names_part_and_line(place: str, value: Any, words: str) -> None:
    with pytest.raises(BuildErrors) as refused:
        with_layout(damaged(place, value))
    assert words in str(refused.value)
    assert "[key]" not in str(refused.value)


def test_a_second_line_of_the_same_id_is_refused() -> None:
    made = layout()
    made["lines"].append(line("L1", "mc.front", "rl.in"))
    with pytest.raises(BuildErrors, match=r'"L1" is also the id of lines\[0\]'):
        with_layout(made)
