"""Routes changed by hand and by typed bends; checked against turns in space by scipy."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from tests.plumbing.layouts import sound, with_layout
from urgens.document.layout.line_sheets import MadeLine, routed
from urgens.guidance.advice.line_steps import clears_bender, line_work
from urgens.physics.bends import RouteError, bend_sheet
from urgens.plumbing.route_edits import (
    as_written,
    moved,
    new_route,
    other_side,
    points_of,
    with_bend,
    with_new_bend,
    with_point,
    without_point,
)
from urgens.quantity import LENGTH, UnitSystem, parse

LEGS = np.array([[0, 0, 0], [0.2, 0, 0], [0.2, 0.3, 0], [0.2, 0.3, 0.25], [0.5, 0.3, 0.25]])
RADIUS = 0.013
lengths = st.floats(0.06, 1.0)


def made_of(points: np.ndarray, **more: object) -> MadeLine:
    made = sound()
    line = next(one for one in made["lines"] if one["id"] == "L1")
    line |= {"route": as_written(points, UnitSystem.METRIC), **more}
    plumbing = with_layout(made).plumbing
    assert plumbing is not None
    return next(one for one in routed(plumbing) if one.line.id == "L1")


@pytest.mark.parametrize("system", list(UnitSystem))
def test_a_route_is_written_so_that_it_can_be_read_again(system: UnitSystem) -> None:
    written = as_written(LEGS, system)
    back = np.array([[parse(one, LENGTH).value for one in point] for point in written])
    assert back == pytest.approx(LEGS, abs=3e-6)


@given(lengths, st.floats(-3.0, 3.0), st.floats(0.1, 2.8))
def test_what_is_typed_of_a_bend_is_what_its_sheet_says_then(
    feed: float, rotation: float, angle: float
) -> None:
    points = LEGS
    for figure, value in (("feed", feed), ("rotation", rotation), ("angle", angle)):
        sheet = bend_sheet(points, RADIUS)
        points = with_bend(points, sheet, 1, figure, value)  # type: ignore[arg-type]
        found = getattr(bend_sheet(points, RADIUS), figure)[1]
        assert found == pytest.approx(value, abs=1e-9)
    whole = bend_sheet(points, RADIUS)
    assert (whole.feed[1], whole.angle[1]) == pytest.approx((feed, angle))
    assert whole.feed[0] == pytest.approx(bend_sheet(LEGS, RADIUS).feed[0])


def test_a_typed_turn_swings_what_is_behind_about_the_leg_before() -> None:
    """The same by a rotation matrix of scipy about that leg."""
    sheet = bend_sheet(LEGS, RADIUS)
    by = 0.4
    found = with_bend(LEGS, sheet, 1, "rotation", float(sheet.rotation[1]) + by)
    about = Rotation.from_rotvec(by * np.array([0.0, 1.0, 0.0]))
    assert found[:3] == pytest.approx(LEGS[:3])
    assert found[3:] - LEGS[2] == pytest.approx(about.apply(LEGS[3:] - LEGS[2]))


def test_the_last_straight_is_typed_as_well() -> None:
    sheet = bend_sheet(LEGS, RADIUS)
    found = with_bend(LEGS, sheet, len(sheet.feed), "feed", 0.4)
    assert bend_sheet(found, RADIUS).last == pytest.approx(0.4)


def test_a_measured_line_is_entered_bend_by_bend() -> None:
    points = new_route()
    for feed, angle in ((0.1, 1.2), (0.2, 0.7)):
        points = with_new_bend(points, bend_sheet(points, RADIUS))
        last = len(points) - 3
        for figure, value in (("feed", feed), ("angle", angle)):
            sheet = bend_sheet(points, RADIUS)
            points = with_bend(points, sheet, last, figure, value)  # type: ignore[arg-type]
    sheet = bend_sheet(points, RADIUS)
    assert sheet.feed == pytest.approx([0.1, 0.2])
    assert sheet.angle == pytest.approx([1.2, 0.7])


def test_the_other_sides_line_is_as_long_and_turns_the_other_way() -> None:
    sheet, other = bend_sheet(LEGS, RADIUS), bend_sheet(other_side(LEGS), RADIUS)
    assert other.length == pytest.approx(sheet.length)
    assert other.rotation == pytest.approx(sheet.mirrored.rotation)


def test_points_are_put_in_moved_and_taken_out() -> None:
    more = with_point(LEGS, 1)
    assert more[2] == pytest.approx([0.2, 0.15, 0])
    assert bend_sheet(more, RADIUS).length == pytest.approx(bend_sheet(LEGS, RADIUS).length)
    assert without_point(more, 2) == pytest.approx(LEGS)
    assert with_point(LEGS, len(LEGS) - 1)[-2] == pytest.approx([0.35, 0.3, 0.25])
    assert moved(LEGS, 1, np.array([0.1, 0, 0]))[1] == pytest.approx([0.1, 0, 0])
    with pytest.raises(RouteError, match="point 2 would stand on the one beside it"):
        moved(LEGS, 1, LEGS[2])
    with pytest.raises(RouteError, match="is an end of the line"):
        without_point(new_route(), 0)


def test_a_line_without_a_route_has_no_points() -> None:
    made = sound()
    made["lines"][0].pop("route")
    plumbing = with_layout(made).plumbing
    assert plumbing is not None
    assert points_of(plumbing.lines[0]).shape == (0, 3)


def test_the_work_is_told_in_its_order() -> None:
    """Common practice: cut, deburr, slide on, flare, bend from that end, trim, flare, blow, cap."""
    made = made_of(LEGS, slide_on_first=["grommet"])
    plumbing = with_layout(sound()).plumbing
    assert plumbing is not None
    said = list(line_work(made, plumbing.bench, UnitSystem.METRIC))
    order = ["rod", "Cut square", "Slide on nut 3/8-24, grommet", "Flare the first", "Bend 1",
             "Bend 2", "Bend 3", "Trim", "Slide on nut", "Flare the second", "Blow"]  # fmt: skip
    assert len(said) == len(order)
    assert all(word in step for word, step in zip(order, said, strict=True))
    assert "feed 187.0 mm" in said[4]  # 200 mm less R tan 45°
    assert "90.0" in said[4]


def test_over_a_square_bend_the_work_stops_half_way_to_look() -> None:
    sharp = np.array([[0, 0, 0], [0.3, 0, 0], [0.1, 0.2, 0]])
    plumbing = with_layout(sound()).plumbing
    assert plumbing is not None
    (bend,) = (s for s in line_work(made_of(sharp), plumbing.bench, UnitSystem.METRIC)
               if s.startswith("Bend"))  # fmt: skip
    assert "stop half way" in bend
    square = line_work(made_of(LEGS), plumbing.bench, UnitSystem.METRIC)
    assert not any("half way" in step for step in square)


def test_bends_back_against_one_another_come_near_the_bender() -> None:
    step = np.array([[0, 0, 0], [0.2, 0, 0], [0.2, 0.05, 0], [0.4, 0.05, 0]])
    assert clears_bender(made_of(step), 0.06) == (2,)
    assert clears_bender(made_of(LEGS), 0.06) == ()
    plumbing = with_layout(sound()).plumbing
    assert plumbing is not None
    (said,) = (s for s in line_work(made_of(step), plumbing.bench, UnitSystem.METRIC)
               if "bender" in s)  # fmt: skip
    assert said.startswith("Bend 2")
