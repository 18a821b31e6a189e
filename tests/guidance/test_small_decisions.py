"""Small decisions of guidance and studies that no picture of a whole build shows by itself."""

import numpy as np
import pytest

from tests.builds import bed, gauge_run
from urgens.bench.proof_state import gauged_valve
from urgens.document import BuildErrors, with_changes
from urgens.document.circuits import circuits_of, passage
from urgens.document.layout.layout import Port
from urgens.guidance import findings
from urgens.guidance.advice.by_hand import put_in
from urgens.guidance.faults.tables import tables
from urgens.guidance.faults.way_back import way_back
from urgens.guidance.tracing.fitting import fits
from urgens.physics.valve import metering
from urgens.solve import solve
from urgens.studies.metering_line_fit import fit_metering


@pytest.mark.parametrize(("foot", "side", "end"), [("20 lbf", "below", 0), ("160 lbf", "above", 1)])
def test_a_pressure_is_below_or_above_the_window_it_misses(foot: str, side: str, end: int) -> None:
    build = with_changes(bed("bakery"), {"targets.comfortable_effort": foot})
    (one,) = [f for f in findings(solve(build)) if f.code == "pressure-outside-window"]

    shown = build.targets.pressure_window[end].text.replace("1000", "1,000")
    assert f"front outlet, {side} the {shown}" in one.message


@pytest.mark.parametrize(("has", "told"), [("rear", True), ("none", False)])
def test_a_cause_of_the_parking_brake_needs_one(has: str, told: bool) -> None:
    assert fits(with_changes(bed("bakery"), {"parking_brake": has}), ("parking-brake",)) is told


def test_readings_of_another_valve_at_the_same_place_tell_nothing_of_this_one() -> None:
    """A valve of another kind was read there before: its run stays, and counts no more."""
    points = [
        (bar * 1e5, min(bar, 26 + 0.3 * (bar - 26)) * 1e5, "rising") for bar in range(4, 80, 6)
    ]
    run = gauge_run("rear[0]", 100e5, 1.0, points).model_dump(mode="json")
    build = bed("bakery")
    kind = build.valves.rear[0].kind
    for named, counts in (("", True), (kind, True), ("limiting", False)):
        noted = with_changes(build, {"proof": {"gauges": [{**run, "kind": named}]}})
        assert (gauged_valve(noted, "rear[0]").run is not None) is counts, named


def test_a_valve_of_one_circuit_is_open_through_and_one_of_two_keeps_them_apart() -> None:
    laid = circuits_of(bed("library"))
    assert laid is not None
    part = next(one for one in laid.plumbing.parts if one.kind not in ("master", "reservoir"))
    port = next(iter(part.ports.values()))
    single = part.model_copy(update={"kind": "reducing", "ports": {"in": port, "out": port}})
    four = {f"{way}{side}": port for way in ("in", "out") for side in ("1", "2")}
    pair = part.model_copy(update={"kind": "reducing", "ports": four})

    assert passage(single, "in") == passage(single, "out")
    assert passage(pair, "in1") == passage(pair, "out1")
    assert passage(pair, "in1") != passage(pair, "in2")
    assert isinstance(port, Port)


def test_the_way_back_of_one_axle_opens_nothing_of_the_other() -> None:
    build = bed("library")
    causes = [one for one in tables().causes if one.axle in ("front", "rear")]
    opened = {one.id: (one.axle, way_back(build, one).opened) for one in causes}
    wheels = {part.id: part.wheel for part in build.plumbing.parts if part.wheel}  # type: ignore[union-attr]

    assert any(parts for _, parts in opened.values())
    for axle, parts in opened.values():
        assert all(wheels[part].startswith(axle) for part in parts if part in wheels)


def test_a_noisier_gauge_leaves_wider_limits() -> None:
    """Limits of a least squares fit go with the scatter of its readings: common practice."""
    inlet = np.linspace(1e5, 40e5, 20)
    outlet = metering(inlet, 2e5, 8e5, 25e5)
    chance = np.random.default_rng(1).normal(size=inlet.size)
    wide = []
    for noise in (1e4, 5e4):
        fit = fit_metering(inlet, outlet + noise * chance, (2e5, 8e5, 25e5), noise)
        wide.append(fit.limits[2][1] - fit.limits[2][0])

    assert wide[1] == pytest.approx(5 * wide[0], rel=0.5)


def test_a_part_that_may_not_go_there_says_why() -> None:
    with pytest.raises(BuildErrors) as refused:
        put_in(bed("library"), "nowhere", "reducing")

    assert "may not go there: it would take pressure from wheels it is not for" in str(
        refused.value
    )
