"""The stepped cylinder: two bores one after another, in force, fluid, half lost and sizes."""

import json
from math import pi

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.builds import bed, bed_text
from tests.solve import second_way
from urgens.document import Build, BuildErrors, dumps, loads, with_changes
from urgens.document.kinds.cylinders import cylinder_kind
from urgens.physics.cylinder import Cylinder, Step, bore_area, force_for, pressure
from urgens.quantity import LENGTH, parse
from urgens.solve import solve
from urgens.solve.travel import travel
from urgens.studies.sizing import sizing_map

TANDEM = {"kind": "tandem", "bore": "22 mm", "stroke": "120 mm", "port_travel": "1.5 mm"}
STEPPED = {
    "kind": "stepped", "large_bore": "32 mm", "small_bore": "22 mm", "relief_pressure": "5 bar",
    "stroke": "120 mm", "port_travel": "1.5 mm",
}  # fmt: skip
PLENTY = {"pedal.travel_available": "900 mm", "valves": {"front": [], "rear": []}}


def with_master(master: dict[str, str], **more: object) -> Build:
    return with_changes(bed("bakery"), {**PLENTY, "master": master, **more})


def area(millimetres: float) -> float:
    return pi * (millimetres / 1000) ** 2 / 4


@pytest.mark.parametrize(("force", "bar"), [(360.0, 4.48), (2400.0, 57.6), (402.1, 5.0)])
def test_force_to_pressure_by_hand(force: float, bar: float) -> None:
    """32 mm and 22 mm, relief 5 bar: 360/8.042e-4; (2400 - 5e5 × 4.241e-4)/3.801e-4."""
    step = Step(bore_area(0.032), 5e5)

    assert pressure(force, bore_area(0.022), step=step) / 1e5 == pytest.approx(bar, abs=0.05)


@given(st.floats(0.0, 300e5), st.floats(0.1e5, 20e5), st.floats(1.01, 2.0), st.floats(0.7, 1.0))
def test_a_force_gives_the_pressure_back(
    wanted: float, relief: float, wider: float, efficiency: float
) -> None:
    """Solved for the force and pressed with it again: source, the balance of forces itself."""
    small = float(bore_area(0.02))
    part = Cylinder(1.0, small, 25.0, efficiency, Step(small * wider**2, relief))

    again = pressure(force_for(part, wanted), small, 25.0, efficiency, part.step)

    assert float(again) == pytest.approx(wanted, rel=1e-9, abs=1e-3)


def test_first_touch_is_the_large_bores_and_then_the_small_ones() -> None:
    """Fluid over bore area: all of both circuits by the large bore up to its relief, then small."""
    made = solve(with_master(STEPPED)).system
    gap, port = float(made.volumes.pushrod_clearance), 1.5e-3
    build = with_master(STEPPED)

    def taken(bar: float) -> float:
        return sum(second_way.taken(build, end, bar * 1e5) for end in ("front", "rear"))

    for bar in (2.0, 5.0, 40.0):
        lines = np.array(bar * 1e5)
        found = travel(made, np.array(300.0), lines, lines)
        first = taken(min(bar, 5.0))
        rod = gap + 2 * port + first / area(32) + (taken(bar) - first) / area(22)
        # The far piston cannot go farther than the rod, to which it is caged.
        far = second_way.taken(build, "rear", bar * 1e5) / area(22)
        rod = max(rod, gap + 2 * port + far)
        assert float(found.pad) == pytest.approx(float(made.pedal_ratio) * rod, rel=1e-9)


def test_nothing_jumps_where_the_relief_opens() -> None:
    """Pressure and travel are continuous in the foot; the pedal grows hard there."""
    solution = solve(with_master(STEPPED), efforts=np.linspace(1.0, 400.0, 2000))
    run = solution.presses

    assert np.max(np.abs(np.diff(run.master_front))) < 2e5
    assert np.all(np.diff(run.master_front) >= 0.0)


def test_with_the_stepped_chamber_lost_the_far_piston_is_an_ordinary_one() -> None:
    """The rod pushes it directly: what is left is that of a tandem of its bore."""
    stepped = solve(with_master(STEPPED)).half_failed[0]
    plain = solve(with_master(TANDEM)).half_failed[0]

    assert stepped.dead == plain.dead == "front"
    assert stepped.z == pytest.approx(plain.z, rel=1e-9)
    assert stepped.pedal_travel == pytest.approx(plain.pedal_travel, rel=1e-9)


def test_with_the_far_circuit_lost_the_large_bore_fills_its_own() -> None:
    """The far piston's whole stroke, then the near chamber's fluid by large and small bore."""
    build = with_master(STEPPED)
    solution = solve(build)
    rear_lost = solution.half_failed[1]
    made = solution.system
    force = second_way.cylinder_force(build, build.targets.max_effort.value)
    at_front = (force - 5e5 * (area(32) - area(22))) / area(22)

    first = second_way.taken(build, "front", 5e5)
    rest = second_way.taken(build, "front", at_front) - first
    rod = float(made.volumes.pushrod_clearance) + 0.06 + 1.5e-3
    expected = float(made.pedal_ratio) * (rod + first / area(32) + rest / area(22))

    assert rear_lost.dead == "rear"
    live = np.isfinite(rear_lost.pedal_travel)
    assert live.all()
    assert rear_lost.pedal_travel[live] == pytest.approx(expected, rel=1e-9)


@pytest.mark.parametrize("circuits", ["front-rear", "diagonal"])
@pytest.mark.parametrize("feeds", ["front", "rear"])
def test_a_step_that_is_hardly_one_is_a_tandem(circuits: str, feeds: str) -> None:
    hardly = {**STEPPED, "large_bore": "22.000001 mm", "primary_feeds": feeds}
    plain = {**TANDEM, "primary_feeds": feeds}
    one, other = (solve(with_master(m, circuits=circuits)) for m in (hardly, plain))

    assert one.lock.effort == pytest.approx(other.lock.effort, rel=1e-5)
    for half, same in zip(one.half_failed, other.half_failed, strict=True):
        assert half.z == pytest.approx(same.z, rel=1e-5)
        assert half.pedal_travel == pytest.approx(same.pedal_travel, rel=1e-5, nan_ok=True)
    assert one.press(200.0).pedal_travel == pytest.approx(other.press(200.0).pedal_travel, rel=1e-5)


def test_the_map_keeps_the_step_and_says_what_the_build_does() -> None:
    """Each small bore with its large one in proportion, taken into the build and solved."""
    build = with_master(STEPPED)
    ratio = np.array([float(solve(build).system.pedal_ratio)])
    for size in ("19 mm", "22 mm", "25 mm"):
        bore = parse(size, LENGTH)
        at = np.array([bore.value])
        found = sizing_map(build, 0, at, at, ratio)
        changes = {f"master.{name}": text for name, text in build.master.of_bore(bore).items()}
        assert changes["master.large_bore"] == f"{bore.value * 32 / 22 * 1e3:.6g} mm"
        taken = solve(with_changes(build, changes))
        assert found.effort[0, 0] == pytest.approx(taken.wanted_effort, rel=1e-4, nan_ok=True)


def test_a_relief_pressure_that_is_given_is_kept_in_the_file() -> None:
    build = with_master({**STEPPED, "relief_pressure": "80 psi", "secondary_bore": "7/8 in"})

    again = json.loads(dumps(loads(dumps(build))))["master"]

    assert again["relief_pressure"] == "80 psi"
    assert again["secondary_bore"] == "7/8 in"
    assert cylinder_kind(build.master).name == "Stepped cylinder (quick take-up)"


def test_a_large_bore_that_is_no_larger_is_refused_in_words() -> None:
    document = json.loads(bed_text("bakery"))
    document["master"] = {**STEPPED, "large_bore": "22 mm"}

    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps(document))

    assert [str(one) for one in refused.value.errors] == [
        'master.large_bore: "22 mm" is not larger than the small bore "22 mm"; '
        "write the bore next to the rod, or take a tandem cylinder"
    ]
