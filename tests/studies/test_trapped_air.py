"""Air worked back from a pedal's travel: travel comes from the second way of computing it."""

import json
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from tests.solve import second_way
from tests.strategies import documents
from urgens.document import loads, with_changes
from urgens.physics.axle import Axle
from urgens.physics.valve_law import at_rest
from urgens.solve import Solution, solve
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.studies.trapped_air import READ_WITHIN, trapped_air

WITHIN = 0.05  # of the air that was put in: what is asked for


def at_rest_pressures(solution: Solution, effort: float) -> tuple[float, float]:
    made = solution.system
    output = booster_output(made, pushrod_force(made, effort))
    lines = line_pressures(made, output, at_rest(solution.standing))
    return float(lines.front), float(lines.rear)


@settings(max_examples=60)
@given(
    documents(), st.sampled_from(["front", "rear"]), st.floats(0.2, 20.0), st.floats(60.0, 400.0)
)
def test_air_that_was_put_in_is_found_again(
    document: dict[str, Any], end: str, millilitres: float, effort: float
) -> None:
    build = loads(json.dumps(document))
    solution = solve(build)
    pressures = at_rest_pressures(solution, effort)
    field = f"trapped_air_{end}"
    there = getattr(build.lines, field)
    more = replace(there, value=there.value + millilitres * 1e-6)
    spongy = build.model_copy(update={"lines": build.lines.model_copy(update={field: more})})
    pad = second_way.travel(spongy, *pressures)

    found = trapped_air(solution.system, solution.standing, effort, pad)
    air = float(found.air.of(Axle(end)))

    firm = second_way.travel(build, *pressures)
    if build.master.kind == "stepped" and pad == pytest.approx(firm, rel=1e-9):
        return  # what its large bore gives beside what is needed fills the air as well
    if pressures[end == "rear"] < 1e3:  # nothing reaches it: no travel tells of its air
        assert np.isnan(air) or air == pytest.approx(millilitres * 1e-6, rel=WITHIN)
        return
    assert air == pytest.approx(millilitres * 1e-6, rel=WITHIN)
    assert float(found.error.of(Axle(end))) > 0.0


def test_a_firm_pedal_tells_of_no_air_and_the_error_is_what_a_rule_reads() -> None:
    """By hand: one bore for both, so that air anywhere moves the pad by ratio over area."""
    build = with_changes(bed("bakery"), {"setups": [], "circuits": "single",
        "master": {"kind": "single", "bore": "1 in"}})  # fmt: skip
    solution = solve(build)
    pressures = at_rest_pressures(solution, 300.0)
    pad = second_way.travel(build, *pressures)
    found = trapped_air(solution.system, solution.standing, 300.0, pad)

    assert float(found.extra) == pytest.approx(0.0, abs=1e-6)
    for axle, pressure in zip(Axle, pressures, strict=True):
        shrinks = 1 - 101325 / (101325 + pressure)
        ratio = build.pedal.pivot_to_pad.value / build.pedal.pivot_to_pushrod.value
        per_air = ratio * shrinks / (np.pi / 4 * 0.0254**2)
        assert float(found.error.of(axle)) == pytest.approx(READ_WITHIN / per_air, rel=1e-6)


def test_many_readings_are_worked_back_at_once() -> None:
    solution = solve(bed("roadster"))
    found = trapped_air(solution.system, solution.standing, [100.0, 200.0, 300.0], 0.08)

    assert found.air.front.shape == (3,)
    assert np.all(np.diff(found.computed) > 0)
    assert np.all(np.diff(found.air.front) < 0)  # a harder foot makes less of the same travel
