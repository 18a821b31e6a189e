"""Conversions: set-ups with their layout; to and back leaves what was there."""

from typing import Any

import pytest

from tests.builds import BEDS, bed
from tests.plumbing.layouts import sound, with_layout
from urgens.document import Build, demo, demo_names, with_changes, with_setup
from urgens.guidance import Severity, findings
from urgens.guidance.advice.conversions import CONVERSIONS, conversions
from urgens.plumbing.conversion import conversion, layout_of
from urgens.plumbing.draft import drafted
from urgens.plumbing.kit import buying_list
from urgens.solve import solve

THERE_AND_BACK = [("two circuits", "one circuit"), ("manual", "boosted"), ("twin", "tandem"),
                  ("rear discs", "rear drums"), ("front discs", "front drums")]  # fmt: skip
FEEDING = {"wheel-not-fed", "wheel-fed-twice", "circuits-joined", "outlet-feeds-other-axle",
           "port-joined-twice", "port-open", "loop", "hose-missing"}  # fmt: skip


def with_own_layout(build: Build) -> Build:
    bare = with_changes(build, {"setups": []})
    return with_changes(bare, {"plumbing": drafted(bare)}) if bare.plumbing is None else bare


def made(build: Build, name: str) -> Build | None:
    """The build as its set-up of a conversion has it, as a build of its own."""
    for way, changes in conversions(build):
        if way.name == name:
            setup = {"name": name, "changes": changes}
            whole = with_setup(with_changes(build, {"setups": [setup]}), name)
            return with_changes(whole, {"setups": []})
    return None


def joins(build: Build) -> set[Any]:
    return {(frozenset((line.start, str(line.to))), line.direct, line.tube, line.ends)
            for line in layout_of(build).lines}  # fmt: skip


def kinds(build: Build) -> set[Any]:
    return {(part.id, part.kind, part.valve) for part in layout_of(build).parts}


@pytest.mark.parametrize("name", [*BEDS, *demo_names()])
def test_each_is_a_set_up_whose_layout_feeds_every_wheel(name: str) -> None:
    build = with_own_layout(bed(name) if name in BEDS else demo(name))
    before = {one.code for one in findings(solve(build))} & FEEDING
    found = list(conversions(build))
    assert found
    for way, _ in found:
        then = made(build, way.name)
        assert then is not None
        after = {one.code for one in findings(solve(then))} & FEEDING
        assert after <= before, way.name
        there, back = conversion(build, then), conversion(then, build)
        plugs = {part.id for one in (build, then) for part in layout_of(one).parts
                 if part.kind == "plug"}  # fmt: skip
        new, goes = set(there.new) - plugs, set(there.goes) - plugs
        assert (new, goes) == (set(back.goes) - plugs, set(back.new) - plugs), way.name
        assert buying_list(then, 7.62, before=build).rows or way.name == "metering out"


@pytest.mark.parametrize("pair", [*THERE_AND_BACK, *((b, a) for a, b in THERE_AND_BACK)])
@pytest.mark.parametrize("name", ["bakery", "mailvan", "roadster"])
def test_to_and_back_leaves_the_same_layout(name: str, pair: tuple[str, str]) -> None:
    build = with_own_layout(bed(name))
    then = made(build, pair[0])
    if then is None:
        return
    back = made(then, pair[1])
    assert back is not None
    if back.valves == build.valves and back.warning_switch == build.warning_switch:
        assert (kinds(back), joins(back)) == (kinds(build), joins(build))
    assert {part.wheel for part in layout_of(back).parts} == {
        part.wheel for part in layout_of(build).parts
    }


def test_what_stays_keeps_its_routes_and_its_own_ports() -> None:
    build = with_own_layout(with_layout(sound()))
    then = made(build, "one circuit")
    assert then is not None
    found = conversion(build, then)
    assert {"fl", "fr", "rl", "rr", "hfl", "hfr", "hr", "rt"} <= set(found.stays)
    routes = {line.id: line.route for line in layout_of(build).lines}
    kept = [line for line in layout_of(then).lines if line.route]
    assert {line.id for line in kept} == {"L6", "L7"}  # behind the rear hose nothing changes
    assert all(routes[line.id] == line.route for line in kept)
    assert "the lamp that warns of a lost circuit" in found.lost


def test_metering_out_of_a_body_takes_its_plug() -> None:
    build = with_layout(sound())
    then = made(with_changes(build, {"setups": []}), "metering out")
    assert then is not None
    found = conversion(build, then)
    assert found.plugged == ("cv.front-metering",)
    assert not any(valve.holds_front_back for valve in then.valves.front)
    assert found.lost == ("metering: drums behind before discs in front",)
    assert next(row.item for row in buying_list(then, 7.62, before=build).rows) == "plug"


def test_rear_discs_take_metering_and_the_drums_residual_valve_out() -> None:
    build = with_own_layout(with_changes(bed("bakery"), {"setups": [], "valves": {
        "front": [{"kind": "metering"}],
        "rear": [{"kind": "residual", "pressure": "10 psi"},
                 {"kind": "reducing", "knee": "300 psi", "slope": 0.3}]}}))  # fmt: skip
    then = made(build, "rear discs")
    assert then is not None
    assert then.valves.front == ()
    assert [valve.kind for valve in then.valves.rear] == ["reducing"]
    left = {part.kind: part.valve for part in layout_of(then).parts if part.valve}
    assert left == {"reducing": "rear[0]"}
    codes = {one.code for one in findings(solve(then))}
    assert not codes & {"metering-with-rear-discs", "residual-in-disc-circuit",
                        "valve-not-in-layout", "valve-not-in-build"}  # fmt: skip


def test_a_conversion_that_the_build_has_already_is_not_offered() -> None:
    names = {way.name for way, _ in conversions(with_own_layout(bed("bakery")))}
    assert "two circuits" not in names
    assert "one circuit" in names
    assert len({way.name for way in CONVERSIONS}) == len(CONVERSIONS)


def test_what_is_lost_is_told() -> None:
    build = with_changes(with_layout(sound()), {"setups": []})
    then = made(build, "manual")
    assert then is not None
    assert any("help" in words for words in conversion(build, then).lost)
    assert all(one.severity in Severity for one in findings(solve(then)))
