"""A vehicle that is bled on the stand-in: against hand sums, and whatever is done with it."""

import json
from math import ceil, pi
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from urgens.document import Build, demo, demo_names, dumps, loads, with_changes
from urgens.document.ledger.records import ProcedureRun
from urgens.guidance.procedures import procedure
from urgens.guidance.procedures.amounts import swept
from urgens.guidance.procedures.bled_run import expected_bleeding
from urgens.guidance.procedures.bled_vehicle import BledVehicle, dry, with_air
from urgens.guidance.procedures.bled_words import (
    bleeding_words,
    minutes_until_clear,
    travel_with_air,
    travel_words,
)
from urgens.guidance.procedures.facts import FARTHEST
from urgens.guidance.procedures.ways import Ways, ways_of
from urgens.guidance.words.figures import FigureWords
from urgens.physics.axle import Pair
from urgens.physics.purge import volume_of
from urgens.quantity import UnitSystem
from urgens.solve import solve
from urgens.studies.trapped_air import trapped_air

MM = FigureWords(UnitSystem.METRIC)
BORE, PIPE = 3.3e-3, 6e-3  # m: of the roadster's tube; what its flares take of a line
AT = "2026-05-02T14:00"


def straight(metres: float) -> Build:
    """The roadster with all its pipes as long and straight."""
    document: dict[str, Any] = json.loads(dumps(demo("roadster")))
    for line in document["plumbing"]["lines"]:
        if not line.get("direct"):
            line["route"] = [["0 m", "0 m", "0 m"], [f"{metres} m", "0 m", "0 m"]]
    return with_changes(loads(json.dumps(document)), {"records": [], "joints": []})


def ways(build: Build) -> Ways:
    found = ways_of(build)
    assert found is not None
    return found


def test_a_way_holds_its_tubes_hoses_and_what_is_assumed_in_bodies_and_brakes() -> None:
    """Three pipes of 1 m and their flares, 300 mm of 3 mm hose, a switch and a tee of 0.5 ml each.

    The brake: 5 mm behind four pistons of 36 mm, by hand.
    """
    build = straight(1.0)
    brake = build.front.brake
    pistons = [one.value for one in brake.piston_diameters]  # type: ignore[union-attr]
    sides = 2.0 if brake.caliper == "opposed" else 1.0  # type: ignore[union-attr]
    wanted = (
        3 * (1.0 + PIPE) * pi / 4.0 * BORE**2 + 0.3 * pi / 4.0 * 3e-3**2 + 2 * 0.5e-6
        + 5e-3 * sides * sum(pi / 4.0 * one**2 for one in pistons)
    )  # fmt: skip
    assert ways(build).volume("front-left") == pytest.approx(wanted, rel=1e-3)


def test_strokes_of_a_plain_way_are_its_volume_over_bore_area_times_stroke() -> None:
    build = straight(2.0)
    found = ways(build)
    now = dry(found, FARTHEST)
    area, stroke = pi / 4.0 * 19.05e-3**2, 25e-3  # of the roadster's front cylinder
    each = swept(build, "front-left")
    assert each == pytest.approx(area * stroke, rel=1e-6)
    wanted = ceil(found.volume("front-left") / (area * stroke))
    assert now.strokes_until_clear("front-left", each) == wanted
    for left in range(wanted, 0, -1):
        assert now.strokes_until_clear("front-left", each) == left
        now, _ = now.given("front-left", each)
    assert now.air_to("front-left") == 0.0
    assert now.strokes_until_clear("front-left", each) == 0


@settings(max_examples=60)
@given(
    name=st.sampled_from(demo_names()),
    given_=st.lists(
        st.tuples(st.sampled_from(FARTHEST), st.floats(0.0, 40e-6)), min_size=1, max_size=12
    ),
)
def test_nothing_is_made_or_lost_and_more_strokes_never_leave_more_air(
    name: str, given_: list[tuple[Any, float]]
) -> None:
    found = ways(demo(name))
    now = dry(found, FARTHEST)
    whole = {part: volume_of(slugs) for part, slugs in now.held.items()}
    for wheel, volume in given_:
        before = sum(now.air())
        then, came = now.given(wheel, volume)
        assert came.fluid + came.air == pytest.approx(volume, rel=1e-9, abs=1e-18)
        assert came.air >= -1e-18
        assert before - sum(then.air()) == pytest.approx(came.air, rel=1e-6, abs=1e-15)
        assert {part: pytest.approx(volume_of(slugs), rel=1e-9)
                for part, slugs in then.held.items()} == whole  # fmt: skip
        now = then


def test_what_is_shared_is_bled_by_the_first_wheel_of_its_circuit() -> None:
    """The farthest first: its way takes the shared lines with it; common practice."""
    build = straight(1.0)
    found = ways(build)
    now = dry(found, FARTHEST)
    alone = now.until_clear("rear-left")
    first, _ = now.given("rear-right", found.volume("rear-right"))
    assert first.air_to("rear-left") < now.air_to("rear-left")
    assert first.air_to("front-left") == now.air_to("front-left")
    assert 0.0 < first.until_clear("rear-left") < alone


def test_a_screw_that_is_not_at_the_top_keeps_air_whatever_is_pushed() -> None:
    document: dict[str, Any] = json.loads(dumps(demo("roadster")))
    part = next(one for one in document["plumbing"]["parts"] if one.get("wheel") == "rear-left")
    part["bleeder_at_top"] = False
    build = loads(json.dumps(document))
    now, _ = dry(ways(build), FARTHEST).given("rear-left", 1e-3)
    assert now.air_to("rear-left") == 0.0
    assert now.kept["rear-left"] > 0.0
    assert now.air().rear > now.kept["rear-left"] * 0.999
    told = expected_words(build, now)
    assert "screw that is not at the top" in told


def expected_words(build: Build, now: BledVehicle) -> str:
    steps = procedure(build, "bleed", "pressure").steps
    found = expected_bleeding(build, steps, None)
    assert found is not None
    noted = next(
        step
        for step in steps
        if step.wheels == ("rear-right",)
        or (
            step.record is not None
            and step.record.field == "bubbles"
            and "rear-left" in step.wheels
        )
    )
    asked = next(step for step in steps if step.record is not None
                 and step.record.field == "bubbles" and "rear-left" in step.wheels)  # fmt: skip
    assert noted is not None
    return bleeding_words(type(found)(now, found.swept), asked, "pressure", MM)


def test_the_travel_tells_of_the_air_that_is_left_as_trapped_air_reads_it() -> None:
    """What the pedal goes further by, read back, is the air that was put in (Boyle's law)."""
    build = straight(1.0)
    solution = solve(build)
    air = Pair(2e-6, 0.0)
    system, effort = solution.system, 200.0
    more = with_air(system, air)
    assert np.ptp([0.0, float(more.volumes.axles.front.trapped_air)]) > 0.0
    found = expected_bleeding(build, procedure(build, "bleed").steps, None)
    assert found is not None
    told = trapped_air(system, solution.standing, effort, 0.0)
    longer = trapped_air(more, solution.standing, effort, 0.0)
    extra = float(longer.computed - told.computed)
    back = trapped_air(system, solution.standing, effort, float(told.computed) + extra)
    assert float(back.air.front) == pytest.approx(2e-6, rel=0.02)


def run(build: Build, method: str, done: int, entries: list[dict[str, Any]]) -> ProcedureRun:
    rows = [{"at": AT, **entry} for entry in entries]
    return ProcedureRun.model_validate({
        "procedure": "bleed", "method": method, "started": AT, "step": done + 1,
        "done": list(range(1, done + 1)), "entries": rows,
    })  # fmt: skip


def test_a_run_moves_what_its_strokes_move_and_says_what_is_left() -> None:
    build = with_changes(demo("library"), {"records": [], "joints": []})
    steps = procedure(build, "bleed", "pedal").steps
    at = next(n for n, step in enumerate(steps, 1) if step.action == "stroke")
    words = []
    for strokes in range(4):
        entries = [{"step": at, "field": "strokes", "value": float(strokes),
                    "wheel": "rear-right"}]  # fmt: skip
        found = expected_bleeding(build, steps, run(build, "pedal", at, entries))
        assert found is not None
        words.append(found.strokes("rear-right"))
    assert words == [words[0] - n for n in range(4)]
    begun = expected_bleeding(build, steps, None)
    assert begun is not None
    assert f"about {words[0]} strokes until no air comes" in bleeding_words(
        begun, steps[at - 1], "pedal", MM
    )
    assert "of air are left: the pedal goes" in travel_words(solve(build), begun, 250.0, MM)


@pytest.mark.parametrize("method", ["pedal", "open-stroke", "pressure"])
def test_a_bleeding_that_is_done_as_it_is_expected_leaves_no_air(method: str) -> None:
    build = with_changes(demo("library"), {"records": [], "joints": []})
    steps = procedure(build, "bleed", method).steps
    entries = [
        {"step": n, "field": "strokes", "value": 12.0, "wheel": step.wheels[0]}
        for n, step in enumerate(steps, 1) if step.action == "stroke"
    ]  # fmt: skip
    found = expected_bleeding(build, steps, run(build, method, len(steps) - 1, entries))
    assert found is not None
    assert sum(found.now.air()) == 0.0
    assert travel_words(solve(build), found, 250.0, MM) == ""
    noted = next(step for step in steps if step.record and step.record.field == "bubbles")
    assert "by the figures no air is left" in bleeding_words(found, noted, method, MM)


@given(left=st.integers(1, 40), rounds=st.integers(0, 3))
@settings(max_examples=25)
def test_pausing_anywhere_changes_nothing(left: int, rounds: int) -> None:
    """What a run has come to follows from its record alone."""
    build = demo("library")
    steps = procedure(build, "bleed", "pedal").steps
    at = next(n for n, step in enumerate(steps, 1) if step.action == "stroke")
    done = [*range(1, at + 1), *[n for _ in range(rounds) for n in range(at - 2, at + 1)]]
    record = run(build, "pedal", at, []).model_copy(update={"done": tuple(done)})
    again = ProcedureRun.model_validate(json.loads(record.model_dump_json()))
    one, other = (expected_bleeding(build, steps, each) for each in (record, again))
    assert one is not None
    assert other is not None
    assert one.now.air() == other.now.air()
    assert one.strokes("rear-right") == max(one.strokes("rear-right"), 0)
    assert left > 0


def test_gravity_runs_faster_under_pressure_and_by_the_law() -> None:
    """1 bar over half a metre of fluid: the ratio of both pressures, Hagen–Poiseuille."""
    build = straight(1.0)
    found = expected_bleeding(build, procedure(build, "bleed").steps, None)
    assert found is not None
    slow, fast = (minutes_until_clear(found, "front-left", how) for how in ("gravity", "pressure"))
    assert slow is not None
    assert fast is not None
    assert slow / fast == pytest.approx(1e5 / (1060.0 * 9.81 * 0.5), rel=1e-6)
    assert minutes_until_clear(found, "front-left", "vacuum") is None


def test_without_drawn_lines_nothing_is_expected() -> None:
    build = with_changes(bed("bakery"), {"plumbing": None})
    assert ways_of(build) is None
    assert expected_bleeding(build, procedure(build, "bleed").steps, None) is None
    assert np.isfinite(travel_of(straight(1.0)))


def travel_of(build: Build) -> float:
    found = expected_bleeding(build, procedure(build, "bleed").steps, None)
    assert found is not None
    done = type(found)(dry(found.now.ways, ()), found.swept)
    return travel_with_air(solve(build), done, 200.0)


def test_what_was_bled_before_begins_full() -> None:
    """A flush of a bled vehicle: no air comes, only old fluid."""
    build = demo("library")
    steps = procedure(build, "bleed", "pedal").steps
    found = expected_bleeding(build, steps, None, ("rear-left", "rear-right"))
    assert found is not None
    assert found.strokes("rear-left") == 0
    assert found.strokes("front-left") > 0
    stroke = next(step for step in steps if step.action == "stroke")
    assert "no air comes any more" in bleeding_words(found, stroke, "pedal", MM)


def test_what_runs_by_itself_is_said_in_the_units_shown() -> None:
    build = with_changes(demo("library"), {"records": [], "joints": [], "valves.rear": []})
    steps = procedure(build, "bleed", "gravity").steps
    found = expected_bleeding(build, steps, None)
    assert found is not None
    flows = next(step for step in steps if step.action == "look")
    told = {units: bleeding_words(found, flows, "gravity", FigureWords(units))
            for units in UnitSystem}  # fmt: skip
    assert "500 mm above" in told[UnitSystem.METRIC]
    assert "20 in above" in told[UnitSystem.INCH]
    assert not any("°" in words for words in told.values())
