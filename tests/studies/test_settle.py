"""Which figures to settle first, against one variant after the other."""

import numpy as np
import pytest
from hypothesis import given, settings

from tests.builds import bed
from tests.strategies import documents
from urgens.document import Build, demo_names, edited, own_vehicle
from urgens.document.catalogue import figures
from urgens.document.evidence import open_figures
from urgens.document.validation import validated
from urgens.physics.vehicle import StaticVehicle
from urgens.solve import first_lock, press, system
from urgens.studies.settle import (
    at_both_ends,
    presses_at_both_ends,
    still_to_settle,
)

SURFACES = np.array([0.15, 0.5, 0.9])


def one_after_the_other(build: Build) -> list[np.ndarray]:
    """First lock of every variant, each solved alone through the checked way of change."""
    rows = []
    for sign in (-1.0, 1.0):
        for figure in open_figures(build):
            value = max(figure.value + sign * figure.half_width, 1e-3 * figure.value)
            kind = getattr(_at(build, figure.path), "kind", None)
            typed = value if kind is None else f"{value:.12g} {kind.si}"
            made = system(edited(build, figure.path, typed))
            cases = StaticVehicle(*(np.asarray(v)[:, None] for v in made.standing))
            rows.append(first_lock(made, cases, SURFACES).effort)
    return rows


def _at(build: Build, path: str) -> object:
    from urgens.document import value_at

    return value_at(build, path)


@pytest.mark.parametrize("name", demo_names())
def test_all_variants_at_once_are_each_of_them_alone(name: str) -> None:
    build = bed(name)
    lock = at_both_ends(build, open_figures(build), SURFACES)
    alone = np.stack(one_after_the_other(build))

    assert lock.effort == pytest.approx(alone, rel=1e-6, nan_ok=True)


@settings(max_examples=25)
@given(documents())
def test_variants_of_any_build_solve(document: dict[str, object]) -> None:
    build = validated(document)
    found = still_to_settle(build)

    assert [row.moves for row in found] == sorted((row.moves for row in found), reverse=True)
    assert all(np.isfinite(row.moves) for row in found)
    assert {row.figure.path for row in found} == {f.path for f in open_figures(build)}


def test_what_drum_brakes_are_unsure_of_comes_first() -> None:
    """Common practice: the shoe factor of a duo-servo brake is the least sure figure of a car."""
    found = still_to_settle(bed("bakery"))

    assert found[0].figure.path == "rear.brake.shoe_factor"
    assert found[0].figure.spread == "30 %"
    assert found[0].moves > 2 * found[1].moves


def test_what_is_measured_is_settled() -> None:
    known = {"rear.brake.shoe_factor": {"state": "measured"}}
    build = edited(bed("bakery"), "evidence", known)

    assert "rear.brake.shoe_factor" not in {f.path for f in open_figures(build)}


def test_an_assumed_figure_without_a_spread_stays_open_and_moves_nothing() -> None:
    found = {row.figure.path: row for row in still_to_settle(own_vehicle())}

    assert found["vehicle.wheelbase"].figure.spread is None
    assert found["vehicle.wheelbase"].moves == 0.0
    assert found["vehicle.wheelbase"].figure.state == "assumed"


def test_presses_of_all_variants_are_each_of_them_alone() -> None:
    build, efforts = bed("bakery"), np.array([0.0, 150.0, 350.0])
    spread = open_figures(build)
    found = presses_at_both_ends(build, spread, 1, efforts, 0.9)
    high = edited(build, "rear.brake.shoe_factor", 4.5 * 1.3)
    index = len(spread) + [f.path for f in spread].index("rear.brake.shoe_factor")
    alone = press(system(high), efforts, system(high).case(1), 0.9)

    assert found.rear_adhesion.reshape(-1, 3)[index] == pytest.approx(alone.rear_adhesion)
    assert found.demand_z.reshape(-1, 3)[index] == pytest.approx(alone.demand_z)


@pytest.mark.parametrize("name", demo_names())
def test_any_figure_there_is_may_spread(name: str) -> None:
    """None of them only counts as one number: the rest of the press is as without its spread."""
    build, efforts = bed(name), np.array([0.0, 120.0, 300.0])
    paths = [one.path for one in figures(build) if one.kind != "text"]
    known = edited(build, "evidence", {p: {"state": "assumed", "spread": "4 %"} for p in paths})
    spread = tuple(one for one in open_figures(known) if one.half_width > 0)
    found = presses_at_both_ends(known, spread, 0, efforts, 0.6)
    alone = press(system(build), efforts, system(build).case(0), 0.6)

    assert len(spread) > 30
    shape = (2 * len(spread), efforts.size)
    for name_of, value in vars(alone).items():
        drawn = np.broadcast_to(getattr(found, name_of), shape)
        same = np.isclose(drawn, value, equal_nan=True).all(axis=1)
        assert same.any(), name_of  # most figures do not move it at all
