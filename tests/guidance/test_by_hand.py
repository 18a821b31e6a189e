"""Parts put in and taken out by hand: wherever they may go the layout stays sound, and back."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from tests.plumbing.layouts import sound, with_layout
from urgens.document import (
    Build,
    BuildErrors,
    changed,
    demo,
    demo_names,
    dumps,
    loads,
    with_changes,
)
from urgens.document.circuits import Circuits
from urgens.document.layout.layout import Plumbing
from urgens.document.part_catalogue import shipped_parts
from urgens.guidance import Severity, findings
from urgens.guidance.advice.by_hand import OFFERED, places_for, put_in, taken_out
from urgens.plumbing.draft import drafted
from urgens.plumbing.sinks import (
    with_banjo_at,
    with_reservoir_at,
    with_sink_near_cylinder,
    with_sink_on_line,
)
from urgens.solve import solve

METRIC = {"thread": "M10x1.0", "seat": "inverted"}
BRANCH = ("tee", "port-open")  # a tee has a branch that nothing goes on from yet


def bakery() -> Build:
    return with_layout(sound())


def dangers(build: Build) -> set[str]:
    return {one.code for one in findings(solve(build)) if one.severity is Severity.DANGER
            and one.where and not one.where.startswith("vehicle")}  # fmt: skip


def joins(build: Build) -> set[tuple[str, str, bool]]:
    assert build.plumbing is not None
    return {(line.start, str(line.to), line.direct) for line in build.plumbing.lines}


@pytest.mark.parametrize("kind", OFFERED)
def test_wherever_a_part_may_go_it_brings_no_danger_and_comes_out_again(kind: str) -> None:
    build = bakery()
    before = dangers(build)
    places = places_for(build, kind)
    assert places.every or places.why
    for place in places.every:
        change, name = put_in(build, place, kind)
        made = changed(build, change)
        assert made.plumbing is not None
        part = next(one for one in made.plumbing.parts if one.id == name)
        assert part.kind == kind
        new = dangers(made) - before
        assert new <= {"rear-locks-first", "two-reducing-in-series"}, (kind, place, new)
        if kind in ("switch", "banjo", "tee"):
            continue  # it joins three lines or more
        back = changed(made, taken_out(made, name))
        assert joins(back) == joins(build)
        assert back.valves == build.valves


@pytest.mark.parametrize("name", demo_names())
def test_no_demo_refuses_what_it_shows_as_a_place(name: str) -> None:
    build = demo(name)
    for kind in OFFERED:
        for place in places_for(build, kind).every[:2]:
            change, _ = put_in(build, place, kind)
            assert changed(build, change).plumbing is not None


def test_a_sensor_on_a_metric_line_of_an_inch_car_takes_one_common_adapter() -> None:
    """M10x1.0 inverted to 1/8-27 NPT is one ordinary part: common practice."""
    made = sound()
    for line in made["lines"]:
        if line["id"] == "L5":
            line["ends"] = [{"nut": "M10x1.0", "flare": "inverted"}] * 2
    for part, port in (("cv", "rear-out"), ("hr", "a")):
        row = next(one for one in made["parts"] if one["id"] == part)
        row["ports"][port] = METRIC
    build = with_layout(made)
    sensor = next(p for p in shipped_parts().parts if p.name == "Pressure sensor 1/8-27 NPT")
    change, name = put_in(build, "L5", "sensor", sensor)
    laid = changed(build, change).plumbing
    assert laid is not None
    adapters = [part for part in laid.parts if part.kind == "adapter"]
    assert [{port: (f.thread, f.seat) for port, f in one.ports.items()} for one in adapters] == [
        {"out": ("M10x1.0", "inverted"), "in": ("1/8-27 NPT", "taper")}
    ]
    own = next(part for part in laid.parts if part.id == name)
    assert own.attitude == "hangs"
    assert "taper-in-flare-port" not in dangers(changed(build, change))


@pytest.mark.parametrize("turned", [False, True])
def test_a_joint_is_mended_from_whichever_end_it_is_written(*, turned: bool) -> None:
    made: dict[str, Any] = sound()
    port = {"thread": "3/8-24", "seat": "inverted"}
    made["parts"].append({"id": "t", "kind": "tee", "ports": dict.fromkeys("abc", port)})
    npt = {"thread": "1/8-27 NPT", "seat": "taper"}
    made["parts"].append({"id": "se", "kind": "sensor", "ports": {"in": npt}})
    ends = ("t.c", "se.in") if turned else ("se.in", "t.c")
    made["lines"].append({"id": "D9", "from": ends[0], "to": ends[1], "direct": True})
    build = with_layout(made)
    found = next(one for one in findings(solve(build)) if one.code == "taper-in-flare-port")
    assert "adapter 3/8-24 inverted to 1/8-27 NPT taper" in found.message
    after = changed(build, found.fixes[0].change)
    assert "taper-in-flare-port" not in dangers(after)


def test_a_valve_is_counted_where_fluid_comes_to_it_and_the_others_are_named_anew() -> None:
    build = bakery()
    for place, wanted in (("L5", ["reducing", "residual"]),):
        change, _ = put_in(build, place, "residual")
        made = changed(build, change)
        assert [valve.kind for valve in made.valves.rear] == wanted
    assert made.evidence["valves.rear[1].pressure"].state == "assumed"
    assert made.plumbing is not None
    assert {part.valve for part in made.plumbing.parts if part.valve} == {"rear[1]"}


def test_what_may_not_go_there_says_why() -> None:
    with pytest.raises(BuildErrors, match="may not go there"):
        put_in(bakery(), "L3", "reducing")  # to a front wheel
    with pytest.raises(BuildErrors, match="comes with the vehicle"):
        taken_out(bakery(), "mc")
    assert places_for(bakery(), "switch").why


def test_a_light_switch_names_its_part_and_is_lost_with_it() -> None:
    build = bakery()
    change, name = put_in(build, "L1", "light-switch")
    made = changed(build, change)
    assert (made.brake_light_switch, made.brake_light_switch_part) == ("hydraulic", name)
    assert made.plumbing is not None
    parts = [p.model_dump(mode="json", exclude_unset=True) for p in made.plumbing.parts]
    gone = changed(made, taken_out(made, name))
    assert "light-switch-no-port" in dangers(gone)
    del parts


def test_of_a_pair_for_a_diagonal_split_both_halves_are_one_valve_of_the_build() -> None:
    base = with_changes(bed("bakery"), {"setups": [], "valves": {}, "circuits": "diagonal"})
    build = with_changes(base, {"plumbing": drafted(base)})
    laid = build.plumbing
    assert laid is not None
    circuits = Circuits(build, laid)
    lines = {side: next(line.id for line in laid.lines if not line.direct
                        and circuits.wheels_behind(line.id) == {f"rear-{side}"})
             for side in ("left", "right")}  # fmt: skip
    change, one = put_in(build, lines["left"], "reducing")
    half = changed(build, change)
    change, other = put_in(half, lines["right"], "reducing")
    both = changed(half, change)
    assert [valve.kind for valve in both.valves.rear] == ["reducing"]
    assert both.plumbing is not None
    assert {part.valve for part in both.plumbing.parts if part.id in (one, other)} == {"rear[0]"}
    left = changed(both, taken_out(both, one))
    assert len(left.valves.rear) == 1
    assert changed(left, taken_out(left, other)).valves.rear == ()


BROUGHT = {"valve-not-in-layout", "valve-not-in-build", "wheel-not-fed", "wheel-fed-twice",
           "circuits-joined", "port-joined-twice", "outlet-feeds-other-axle"}  # fmt: skip


@settings(max_examples=25, deadline=None)
@given(st.data())
def test_whatever_is_put_in_and_taken_out_layout_and_build_stay_one(data: st.DataObject) -> None:
    """A row of hands: each part goes where it may, or comes out; nothing of the two comes apart."""
    build = demo(data.draw(st.sampled_from(("library", "tender", "roadster"))))
    before = {one.code for one in findings(solve(build))} & BROUGHT
    there: list[str] = []
    refused: list[str] = []
    for _ in range(data.draw(st.integers(2, 6))):
        if there and data.draw(st.booleans()):
            name = there.pop(data.draw(st.integers(0, len(there) - 1)))
            try:
                change = taken_out(build, name)
            except BuildErrors as errors:
                refused.append(str(errors))
                continue
            build = changed(build, change)
        else:
            kind = data.draw(st.sampled_from(OFFERED))
            places = places_for(build, kind).every
            if not places:
                continue
            change, name = put_in(build, data.draw(st.sampled_from(places)), kind)
            build = changed(build, change)
            there.append(name)
        assert build.plumbing is not None
        there = [one for one in there if any(part.id == one for part in build.plumbing.parts)]
    assert all("lines" in one for one in refused)  # three or more hang on it
    assert {one.code for one in findings(solve(build))} & BROUGHT <= before
    assert loads(dumps(build)) == build


def test_what_has_no_room_for_a_part_of_its_kind_is_said() -> None:
    plumbing = bakery().plumbing
    assert plumbing is not None
    with pytest.raises(BuildErrors, match="no line that could be cut"):
        with_sink_on_line(plumbing, "D1", "gauge")
    with pytest.raises(BuildErrors, match="no line of tube in it"):
        with_banjo_at(plumbing, "fl.in")  # a hose is screwed into it
    section, _ = with_reservoir_at(plumbing, "mc")
    with pytest.raises(BuildErrors, match="reservoir there already"):
        with_reservoir_at(Plumbing.model_validate(section), "mc")
    assert with_sink_near_cylinder(with_changes(bed("bakery"), {}), "gauge") is None
