"""The schools of plumbing: each laid for each build passes every check; joints by hand."""

import pytest

from tests.builds import bed
from urgens.document import Build, changed, demo, demo_names, edited, own_vehicle, value_at
from urgens.guidance import area_of, findings
from urgens.guidance.advice.layouts import SCHOOLS, alternatives
from urgens.solve import solve

PLUMBING = ("line_limits", "threads", "feeding")
WITHOUT_LAMP = {"old-block", "banjo"}


@pytest.mark.parametrize(
    "build", [own_vehicle(), bed("bakery"), *map(demo, demo_names())], ids=lambda b: b.name
)
def test_each_alternative_passes_every_check(build: Build) -> None:
    found = list(alternatives(build))
    assert {one.school.name for one in found} == {one.name for one in SCHOOLS}
    for one in found:
        laid = changed(build, one.change)
        said = {f.code for f in findings(solve(laid)) if area_of(f.code) in PLUMBING}
        lacks = {"switch-absent"} if one.school.name in WITHOUT_LAMP else set()
        assert said == lacks, one.school.name


def test_each_says_what_it_loses_and_takes() -> None:
    found = {one.school.name: one for one in alternatives(own_vehicle())}
    assert all(one.school.loses for one in found.values())
    # By hand: cylinder to block, block to two front hoses and the rear hose, tee to two wheels:
    # six lines of two flares, and three hoses screwed into caliper, caliper and tee.
    assert found["block"].joints == 6 * 2 + 3
    assert found["all-three"].joints > found["combination"].joints
    assert found["banjo"].minutes < found["diagonal"].minutes
    joints = [one.joints for one in alternatives(own_vehicle())]
    assert joints == sorted(joints)


def test_what_a_school_does_not_touch_stays() -> None:
    build = bed("library")
    made = next(one for one in alternatives(build) if one.school.name == "load-sensing")
    laid = changed(build, made.change)

    assert [valve.kind for valve in laid.valves.rear] == ["load-sensing"]
    assert laid.master == build.master
    assert laid.front == build.front
    assert laid.evidence["plumbing.lines[0].tube"].state == "planned"
    assert laid.evidence["valves.rear[0].slope"].state == "planned"


def test_what_was_known_of_a_valve_that_stays_is_still_known() -> None:
    """Under the floor residual valves come first; the reducing valve behind them is the old one."""
    known = {"valves.rear[0].knee": {"state": "measured"}}
    build = edited(bed("bakery"), "evidence", known)
    made = next(one for one in alternatives(build) if one.school.name == "under-floor")
    laid = changed(build, made.change)

    assert [valve.kind for valve in laid.valves.rear] == ["residual", "reducing"]
    assert laid.evidence["valves.rear[0].pressure"].state == "planned"
    assert laid.evidence["valves.rear[1].knee"].state == "measured"


def test_the_metering_valve_is_the_tee_and_the_second_outlet_is_plugged() -> None:
    """As plumbing has it: metering may be the tee for the two front lines."""
    build = own_vehicle()
    made = next(one for one in alternatives(build) if one.school.name == "switch-metering")
    laid = changed(build, made.change)
    kinds = [part["kind"] for part in _json(laid, "plumbing.parts")]

    assert kinds.count("plug") == 1
    assert "ft" not in [part["id"] for part in _json(laid, "plumbing.parts")]


def _json(build: Build, path: str) -> list[dict[str, object]]:
    return [part.model_dump(mode="json") for part in value_at(build, path)]
