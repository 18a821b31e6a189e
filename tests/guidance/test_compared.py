"""Two builds compared: nothing of itself, everything of another, better and worse."""

import pytest

from tests.builds import bed
from urgens.document import Build, demo, demo_names, with_changes, with_setup
from urgens.guidance.advice.build_comparison import (
    AT_LOCK,
    FRONT_FIRST,
    JUDGED,
    ComparedFigure,
    compared,
)
from urgens.guidance.words import setups


@pytest.fixture(scope="module")
def van() -> Build:
    return bed("library")


def rows(here: Build, other: Build) -> dict[str, ComparedFigure]:
    return {one.name: one for one in compared(here, other)}


@pytest.mark.parametrize("name", demo_names())
def test_a_build_differs_from_itself_in_nothing(name: str) -> None:
    assert compared(demo(name), demo(name)) == ()


def test_what_is_better_one_way_is_worse_the_other(van: Build) -> None:
    other = with_setup(van, "load-sensing")
    there, back = rows(van, other), rows(other, van)
    assert there.keys() == back.keys()
    turned = {"here": "other", "other": "here", "": ""}
    for name, one in there.items():
        assert (one.here, one.other) == (back[name].other, back[name].here)
        assert turned[one.better] == back[name].better


def test_a_rear_that_no_longer_locks_first_is_better(van: Build) -> None:
    found = rows(van, with_setup(van, "load-sensing"))
    assert found["Locks first"].better == "other"
    assert (found["Locks first"].here, found["Locks first"].other) == ("rear", "front")
    assert found["Loads and roads with the rear first"].better == "other"


def test_a_smaller_bore_gives_more_pressure_and_takes_more_pedal(van: Build) -> None:
    """Force over area, and volume over area: handbooks, common practice."""
    found = rows(van, with_changes(van, {"master.bore": "7/8 in"}))
    assert float(found["Pressure at the comfortable foot"].other) > float(
        found["Pressure at the comfortable foot"].here
    )
    travel = found["Pedal travel at the comfortable foot"]
    assert travel.better == "here"


def test_grip_used_by_another_axle_is_not_judged(van: Build) -> None:
    found = rows(van, with_setup(van, "load-sensing"))
    assert found["First lock, Bare shell, μ 0.50, grip used"].better == ""


def test_figures_are_named_by_the_build_that_has_them() -> None:
    found = rows(bed("library"), demo("roadster"))
    assert found["Rear wheel cylinder"].other == "none"
    assert found["How many"].here == "8"
    assert found["Rear cup expanders"].here == "yes"


def test_a_load_case_of_only_one_of_them_is_left_out(van: Build) -> None:
    renamed = with_changes(van, {"vehicle.load_cases[0].name": "Empty"})
    assert not [name for name in rows(van, renamed) if name.startswith("First lock, Bare")]


def test_what_is_judged_is_a_figure_of_the_columns() -> None:
    fields = {field for field, *_ in setups._FIGURES}

    assert {*JUDGED, *AT_LOCK, *FRONT_FIRST} <= fields
