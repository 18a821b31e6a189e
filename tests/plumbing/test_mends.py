"""What mends a layout: on layouts damaged at random, and at single joins."""

import copy
import json

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.plumbing.layouts import PORT, line, line_of, part_of, sound, with_layout
from urgens.document import Build, BuildErrors, changed, demo_names, edited
from urgens.document.demo import demo
from urgens.document.layout.layout import Plumbing
from urgens.guidance import findings
from urgens.guidance.rules.finding import Finding
from urgens.plumbing.adapters import adapters
from urgens.plumbing.edits import section_of
from urgens.plumbing.mends import with_tee_at, with_wheel_joined, without_line
from urgens.plumbing.valve_mends import with_switch
from urgens.solve import solve

LAID = {
    "thread-mismatch", "seat-mismatch", "taper-in-flare-port", "nut-does-not-fit-tube", "port-open",
    "port-joined-twice", "wheel-not-fed", "wheel-fed-twice", "circuits-joined", "loop",
    "outlet-feeds-other-axle", "valve-feeds-both-axles", "hose-missing", "switch-absent",
    "valve-not-in-layout", "valve-not-in-build",
}  # fmt: skip
DEMOS = {name: section_of(demo(name).plumbing) for name in demo_names() if demo(name).plumbing}
BUBBLE = {"thread": "M10x1.0", "seat": "bubble"}


DAMAGES = st.tuples(
    st.sampled_from(["gone", "end", "more", "face", "kind"]),
    st.integers(0, 99),
    st.integers(0, 99),
)
KINDS = ("block", "union", "reducing", "switch")


def damaged(name: str, damages: list[tuple[str, int, int]]) -> Build:
    """A demo build with things of its layout damaged, each by two numbers drawn."""
    made = copy.deepcopy(DEMOS[name])
    ports = [f"{part['id']}.{port}" for part in made["parts"] for port in part["ports"]]
    for time, (how, one, other) in enumerate(damages):
        row, port = made["lines"][one % len(made["lines"])], ports[other % len(ports)]
        match how:
            case "gone":
                made["lines"].remove(row)
            case "end" if row["from"] != port:
                row["to"] = port
            case "more" if ports[one % len(ports)] != port:
                made["lines"].append(line(f"X{time}", ports[one % len(ports)], port))
            case "face":
                part, _, name_of_port = port.partition(".")
                part_of(made, part)["ports"][name_of_port] = (PORT, {}, BUBBLE)[one % 3]
            case "kind":
                fixed = ("master", "hose", "plug", "wheel-brake")
                free = [part for part in made["parts"] if part["kind"] not in fixed]
                free[one % len(free)]["kind"] = KINDS[other % len(KINDS)]
    return edited(demo(name), "plumbing", made)


def told(build: Build) -> dict[tuple[str, str, str], Finding]:
    return {(f.code, f.where, f.message): f for f in findings(solve(build)) if f.code in LAID}


@settings(max_examples=12, suppress_health_check=[HealthCheck.too_slow], deadline=None)
@given(st.sampled_from(sorted(DEMOS)), st.lists(DAMAGES, min_size=1, max_size=3))
def test_every_fix_of_a_damaged_layout_can_be_made_and_takes_its_finding_away(
    name: str, damages: list[tuple[str, int, int]]
) -> None:
    build = damaged(name, damages)
    for (code, where, message), finding in told(build).items():
        for fix in finding.fixes:
            after = told(changed(build, fix.change))
            assert (code, where, message) not in after, (fix.label, message)


def test_a_line_taken_out_leaves_plugs_and_no_open_port() -> None:
    laid = with_layout(sound()).plumbing
    assert laid is not None
    made = without_line(laid, "L6")
    plugs = [part["id"] for part in made["parts"] if part["kind"] == "plug"]
    assert len(plugs) == 2
    assert "port-open" not in {one.code for one in findings(solve(with_layout(made)))}


def test_what_is_not_there_is_said() -> None:
    laid = with_layout(sound()).plumbing
    assert laid is not None
    with pytest.raises(BuildErrors, match="there is no line of that name"):
        without_line(laid, "L99")


def test_two_lines_in_one_port_get_a_tee_with_a_branch_for_each() -> None:
    made = sound()
    line_of(made, "L7")["from"] = "rt.left"
    mended = with_tee_at(Plumbing.model_validate(made), "rt.left")
    tee = next(
        part for part in mended["parts"] if part["id"] not in {p["id"] for p in made["parts"]}
    )
    assert tee["kind"] == "tee"
    assert {line_of(mended, one)["from"] for one in ("L6", "L7")} == {
        f"{tee['id']}.branch-1", f"{tee['id']}.branch-2"}  # fmt: skip


@pytest.mark.parametrize("wheel", ["front-left", "front-right", "rear-left", "rear-right"])
def test_a_wheel_that_is_not_in_the_layout_is_put_in_and_fed(wheel: str) -> None:
    made = sound()
    gone = next(part["id"] for part in made["parts"] if part.get("wheel") == wheel)
    made["parts"] = [part for part in made["parts"] if part["id"] != gone]
    made["lines"] = [
        row for row in made["lines"]
        if gone not in {row[key].partition(".")[0] for key in ("from", "to")}
    ]  # fmt: skip
    mended = with_wheel_joined(with_layout(made), wheel)
    assert mended is not None
    codes = {(one.code, one.where) for one in findings(solve(with_layout(mended)))}
    assert not {code for code, _ in codes} & {"wheel-not-fed", "wheel-fed-twice", "circuits-joined"}


def test_a_sensor_comes_into_a_flare_port_by_an_adapter_that_is_sold() -> None:
    """A taper thread needs an adapter in a flare port; common practice."""
    steps = adapters(("1/8-27 NPT", "taper"), ("3/8-24", "inverted"))
    assert steps is not None
    assert [(step.into, step.face) for step in steps] == [
        (("3/8-24", "inverted"), ("1/8-27 NPT", "taper"))
    ]
    assert adapters(("1/8-27 NPT", "taper"), ("9/16-18", "37-degree")) is None


def test_the_fixes_are_printed_as_json() -> None:
    made = sound()
    made["lines"].remove(line_of(made, "L7"))
    for finding in findings(solve(with_layout(made))):
        json.dumps(finding.printed(), allow_nan=False)
    assert any(f.fixes for f in told(with_layout(made)).values())


@pytest.mark.parametrize("turned", [False, True])
def test_a_switch_goes_in_whichever_way_the_lines_were_written(turned: bool) -> None:
    """Ports have the nuts of the lines that are cut for it, also where they differ."""
    made = sound()
    part_of(made, "cv")["kind"] = "union"
    nut = {"nut": "7/16-24", "flare": "inverted"}
    for name in ("L1", "L2"):
        row = line_of(made, name)
        row["ends"][0] = nut
        part_of(made, "mc")["ports"][row["from"].partition(".")[2]] = {
            "thread": "7/16-24", "seat": "inverted"}  # fmt: skip
        if turned:
            row["from"], row["to"] = row["to"], row["from"]
            row["ends"].reverse()
    mended = with_switch(with_layout(made))
    assert mended is not None
    codes = {one.code for one in findings(solve(with_layout(mended)))}
    assert not codes & {"switch-absent", "thread-mismatch", "port-open", "nut-does-not-fit-tube"}
