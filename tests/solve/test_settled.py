"""A valve that feels the load: closed form against a bracket, and the way between its bends."""

import json
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tests.builds import bakery_with
from tests.strategies import documents
from urgens.document import loads
from urgens.physics.valve_law import Felt, LoadSensingLaw
from urgens.solve import settled, system
from urgens.solve.achieved import slid
from urgens.solve.ball import rolling
from urgens.solve.bends import scan_of_efforts
from urgens.solve.line_pressure import booster_output, pushrod_force
from urgens.solve.rolling_forces import axle_forces, rolling_lines

EFFORTS = np.linspace(0.0, 900.0, 31)
DYNAMIC = {
    "kind": "load-sensing",
    "points": [["250 kg", "9 bar"], ["800 kg", "55 bar"]],
    "slope": 0.25,
    "follows": "dynamic",
}


@given(
    documents(),
    st.sampled_from([0.2, 0.55, 0.95]),
    st.sampled_from([settled.WHOLE, settled.HALF, settled.FRONT_ALONE, settled.REAR_ALONE]),
)
def test_the_closed_form_is_the_root_that_a_bracket_finds(
    document: dict[str, Any], road: float, left: settled.Left
) -> None:
    document["valves"]["rear"] = [DYNAMIC]
    build = loads(json.dumps(document))
    made = system(build)
    standing = made.case(0)
    output = booster_output(made, pushrod_force(made, EFFORTS))
    lines = rolling_lines(made, pushrod_force(made, EFFORTS), standing)
    reached = slid(made, output, standing, road, left)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(settled, "_slope", lambda *_: None)
        bracketed = rolling_lines(made, pushrod_force(made, EFFORTS), standing)
        found = slid(made, output, standing, road, left)

    assert lines.rear == pytest.approx(bracketed.rear, rel=1e-7, abs=1.0)
    assert reached.deceleration == pytest.approx(found.deceleration, rel=1e-7, abs=1e-9)


@given(documents())
def test_forces_go_straight_between_the_bends(document: dict[str, Any]) -> None:
    """What a first lock relies on: no bend is between two efforts of its scan."""
    document["valves"]["rear"] = [DYNAMIC]
    made = system(loads(json.dumps(document)))
    standing = made.case(0)
    efforts = scan_of_efforts(rolling(made, standing), standing, 0)
    apart = np.diff(efforts) > 1e-3 * float(made.max_effort)
    assume(apart.any())
    # The bends themselves are found to a millionth, so just beside them it is straight.
    low, high = efforts[:-1][apart], efforts[1:][apart]
    low, high = low + 0.01 * (high - low), high - 0.01 * (high - low)
    (left, middle, right) = (
        np.stack(axle_forces(made, pushrod_force(made, at), standing))
        for at in (low, (low + high) / 2.0, high)
    )

    assert middle == pytest.approx((left + right) / 2.0, rel=1e-7, abs=1e-3)


def test_the_slanted_part_is_the_line_of_the_outlet() -> None:
    """By hand: knee 50 bar half way between 20 and 80, slope 0.25 from there on."""
    law = LoadSensingLaw(2000.0, 6000.0, 20e5, 80e5, 0.25, feels_load=True)
    at_none, rise = law.slanted(90e5)

    assert at_none + rise * 4000.0 == pytest.approx(50e5 + 0.25 * 40e5)
    assert law.outlet(90e5, Felt(4000.0, 0.0)) == pytest.approx(60e5)


def test_a_valve_behind_one_that_feels_the_load_is_reckoned_with() -> None:
    """A limit at 12 bar behind it: no more than that passes, however heavy the load."""
    limit = {"kind": "limiting", "knee": "12 bar"}
    made = system(bakery_with({"valves.rear": [DYNAMIC, limit]}))
    lines = rolling_lines(made, pushrod_force(made, EFFORTS), made.case(0))

    assert lines.rear.max() == pytest.approx(12e5)
    assert lines.master_rear.max() > 30e5
