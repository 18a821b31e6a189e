"""Hoses and lines as drawn count in fluid and travel, by hand: bore, length, what swells."""

from math import pi
from typing import Any

import pytest

from tests.builds import bed
from tests.plumbing.layouts import sound, with_layout
from urgens.document import Build, with_changes
from urgens.document.catalogue import counting
from urgens.document.laid_fluid import laid_fluid, replaced
from urgens.solve import solve

HOSES = {"hfl": "300 mm", "hfr": "320 mm", "hr": "400 mm"}
# Two legs of 200 and 300 mm, one square bend of 13 mm to the tube's middle, two inverted flares.
LENGTH = 0.5 - 2 * 0.013 + 0.013 * pi / 2 + 2 * 0.005
AREA = pi / 4 * 0.0033**2  # of a 3/16 in tube, 3.3 mm bore about


def drawn(**more: Any) -> Build:
    made = sound()
    for part in made["parts"]:
        if part["kind"] == "hose":
            part |= {"free_length": HOSES[part["id"]], "bore": "3.2 mm", **more}
    return with_layout(made)


def test_hoses_are_summed_by_the_wheels_they_feed() -> None:
    laid = laid_fluid(drawn())
    assert laid.front.hose_length == pytest.approx(0.62)
    assert laid.rear.hose_length == pytest.approx(0.4)
    assert (laid.front.plain, laid.front.swells) == pytest.approx((0.62, 0.0))
    own = laid_fluid(drawn(expansion="0.1 cm^3/m/MPa"))
    assert own.rear.swells == pytest.approx(0.4 * 0.1e-12)
    assert own.rear.plain == 0.0


def test_lines_hold_what_their_bore_and_their_developed_length_hold() -> None:
    laid = laid_fluid(drawn())
    hose = pi / 4 * 0.0032**2
    assert laid.front.fluid == pytest.approx(3 * AREA * LENGTH + hose * 0.62)
    assert laid.rear.fluid == pytest.approx(4 * AREA * LENGTH + hose * 0.4)


def test_a_line_before_both_axles_counts_half_for_each() -> None:
    made = sound()
    for part in made["parts"]:
        if part["kind"] == "hose":
            part |= {"free_length": HOSES[part["id"]]}
        if part["id"] == "cv":
            part["kind"] = "block"
    made["lines"] = [line for line in made["lines"] if line["id"] != "L2"]
    single = {"circuits": "single", "master": {"kind": "single", "bore": "1 in"}}
    found = laid_fluid(with_changes(bed("bakery"), {**single, "plumbing": made}))
    assert found.front.fluid == pytest.approx((0.5 + 2) * AREA * LENGTH)
    assert found.rear.fluid == pytest.approx((0.5 + 3) * AREA * LENGTH)


def test_solve_uses_what_is_drawn_and_typed_totals_where_nothing_is() -> None:
    typed, plain = solve(bed("bakery")), solve(with_layout(sound()))
    assert plain.presses.pedal_travel == pytest.approx(typed.presses.pedal_travel, nan_ok=True)
    axles = solve(drawn()).system.volumes.axles
    assert axles.front.hose_length == pytest.approx(0.62)
    assert axles.rear.fluid_volume == laid_fluid(drawn()).rear.fluid
    longer = solve(drawn(expansion="0.4 cm^3/m/MPa")).presses.pedal_travel[0]
    assert longer > solve(drawn(expansion="0.1 cm^3/m/MPa")).presses.pedal_travel[0]


def test_a_total_that_is_drawn_is_no_open_figure_any_more() -> None:
    assert replaced(bed("bakery")) == frozenset()
    paths = {figure.path for figure in counting(drawn())}
    assert not {"lines.front_hose_length", "lines.rear_hose_length", "lines.fluid_volume"} & paths
    assert "lines.hose_expansion" in paths  # of hoses that have none of their own
    own = {figure.path for figure in counting(drawn(expansion="0.1 cm^3/m/MPa"))}
    assert "lines.hose_expansion" not in own


def test_one_hose_without_a_length_leaves_the_typed_totals() -> None:
    made = sound()
    for part in made["parts"]:
        if part["id"] in ("hfl", "hr"):
            part["free_length"] = "300 mm"
    found = laid_fluid(with_layout(made))
    assert (found.front.hose_length, found.rear.fluid) == (None, None)
