"""Valve by valve: stages, loops and tolerance."""

import numpy as np
import pytest

from tests.builds import bakery_with, bed
from urgens.document import edited, with_changes
from urgens.solve import solve
from urgens.studies.valve_stages import loop, stages

PSI = 6894.757293


def test_two_valves_in_series_pass_on_what_the_first_leaves() -> None:
    """Common practice: knee 275 psi, slope one half, 500 psi in: 387.5 psi; again behind it."""
    reducing = {"kind": "reducing", "knee": "275 psi", "slope": 0.5}
    build = bakery_with({"valves.rear": [reducing, reducing], "booster": {"kind": "none"}})
    area = build.master.bore.value**2 * np.pi / 4  # type: ignore[union-attr]
    effort = 500 * PSI * area / 4.0
    solution = solve(build, efforts=np.array([effort]))
    first, second = stages(solution, solution.presses.at(0), "rear")

    assert first.inlet == pytest.approx(500 * PSI)
    assert first.outlet == second.inlet == pytest.approx(387.5 * PSI)
    assert second.outlet == pytest.approx((275 + 0.5 * 112.5) * PSI)
    assert float(solution.presses.rear_pressure[0]) == pytest.approx(second.outlet)


@pytest.mark.parametrize("kind", ["reducing", "limiting", "load-sensing"])
def test_a_loop_lies_inside_its_tolerance_and_above_itself_let_go(kind: str) -> None:
    valve: dict[str, object] = {"kind": kind, "knee": "300 psi", "slope": 0.4}
    if kind == "limiting":
        del valve["slope"]
    if kind == "load-sensing":
        del valve["knee"]
        valve |= {"points": [["1500 lb", "200 psi"], ["2800 lb", "500 psi"]], "follows": "static"}
    solution = solve(bakery_with({"valves.rear": [valve]}))
    pressed = solution.presses.at(0)
    (stage,) = stages(solution, pressed, "rear")
    found = loop(solution, pressed, stage.law, 900 * PSI)
    assert found.low is not None
    assert found.high is not None

    assert (found.low <= found.up + 1e-6).all()
    assert (found.high >= found.up - 1e-6).all()
    assert (found.down >= found.up - 1e-6).all()
    assert (found.high - found.low).max() > 10 * PSI


def test_a_metering_or_a_residual_valve_has_no_knee_to_be_off() -> None:
    solution = solve(bed("bakery"))
    pressed = solution.presses.at(0)
    (metering,) = stages(solution, pressed, "front")
    found = loop(solution, pressed, metering.law, 500 * PSI)

    assert found.low is None
    assert (found.up <= found.inlet + 1e-6).all()


def test_a_combination_with_its_metering_out_is_its_reducing_part_alone() -> None:
    """Rear pressures do not know what the front is held back by."""
    whole = solve(bed("bakery"), efforts=np.linspace(0, 400, 41))
    bare = solve(edited(bed("bakery"), "valves.front", []), efforts=np.linspace(0, 400, 41))
    alone = with_changes(bed("bakery"), {"valves.front": [], "valves.rear[0].body": ""})

    assert whole.presses.rear_pressure == pytest.approx(bare.presses.rear_pressure)
    found = solve(alone, efforts=np.linspace(0, 400, 41))
    assert found.presses.rear_pressure == pytest.approx(bare.presses.rear_pressure)
    assert found.presses.front_pressure == pytest.approx(found.presses.master_front)
