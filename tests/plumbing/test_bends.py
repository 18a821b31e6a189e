"""Bends of a line against rotation matrices, by hand, and there and back again."""

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from urgens.physics.bends import (
    BendSheet,
    Frame,
    RouteError,
    bend_sheet,
    middle_line,
    route,
    start_frame,
)

RADIUS = 0.013
angles = st.floats(0.05, 2.6)
feeds = st.floats(0.02, 1.5)
turns = st.floats(-3.1, 3.1)
rows = st.lists(st.tuples(feeds, turns, angles), min_size=1, max_size=9)


def sheet_of(rows: list[tuple[float, float, float]], last: float = 0.1) -> BendSheet:
    feed, rotation, angle = (np.array(column) for column in zip(*rows, strict=True))
    rotation[0] = 0.0
    return BendSheet(feed, rotation, angle, last, RADIUS)


def test_one_square_bend_by_hand() -> None:
    """200 mm, then 100 mm up: each leg less the radius, and a quarter of the circle between."""
    sheet = bend_sheet(np.array([[0, 0, 0], [0.2, 0, 0], [0.2, 0, 0.1]]), RADIUS)

    assert sheet.feed == pytest.approx([0.187])
    assert sheet.last == pytest.approx(0.087)
    assert sheet.angle == pytest.approx([np.pi / 2])
    assert sheet.length == pytest.approx(0.187 + 0.013 * np.pi / 2 + 0.087)


def test_the_second_plane_is_a_quarter_turn_right_handed_along_the_feed() -> None:
    """Forward, then left, then up: the first bend turns about up, the second about forward.

    Looking left, along the feed, up is turned into forward by a quarter right-handed turn, since
    left × up is forward.
    """
    points = np.array([[0, 0, 0], [0.2, 0, 0], [0.2, 0.2, 0], [0.2, 0.2, 0.2]])
    sheet = bend_sheet(points, RADIUS)

    assert sheet.rotation == pytest.approx([0.0, np.pi / 2])
    down = points * [1, 1, -1]
    assert bend_sheet(down, RADIUS).rotation == pytest.approx([0.0, -np.pi / 2])


@given(rows)
def test_a_sheet_comes_back_from_its_route(rows: list[tuple[float, float, float]]) -> None:
    sheet = sheet_of(rows)
    found = bend_sheet(route(sheet), RADIUS)

    assert found.feed == pytest.approx(sheet.feed, abs=1e-9)
    assert found.angle == pytest.approx(sheet.angle, abs=1e-9)
    assert found.rotation == pytest.approx(sheet.rotation, abs=1e-9)
    assert found.last == pytest.approx(sheet.last, abs=1e-9)


@given(st.lists(st.tuples(*[st.floats(-1.0, 1.0)] * 3), min_size=3, max_size=8))
def test_a_route_comes_back_from_its_sheet(corners: list[tuple[float, ...]]) -> None:
    points = np.array(corners)
    legs = np.diff(points, axis=0)
    assume((np.linalg.norm(legs, axis=1) > 0.05).all())
    legs = legs / np.linalg.norm(legs, axis=1)[:, None]
    turned = np.arccos(np.clip(np.einsum("ij,ij->i", legs[:-1], legs[1:]), -1, 1))
    assume((turned > 0.01).all())
    assume((turned < 3.0).all())

    found = route(bend_sheet(points, RADIUS), start_frame(points))
    assert found == pytest.approx(points, abs=1e-9)


@given(rows, st.tuples(*[st.floats(-3, 3)] * 3))
def test_a_route_is_made_of_rotation_matrices(
    rows: list[tuple[float, float, float]], turned: tuple[float, float, float]
) -> None:
    """As a bender works: feed along x, turn the tube about x, bend about z; matrices by SciPy."""
    sheet = sheet_of(rows)
    whole = Rotation.from_rotvec(turned)
    at, frame = np.array([0.3, -0.2, 0.1]), whole
    corners = [at]
    before = 0.0
    for feed, rotation, angle in zip(sheet.feed, sheet.rotation, sheet.angle, strict=True):
        tangent = RADIUS * np.tan(angle / 2)
        at = at + frame.apply([before + feed + tangent, 0, 0])
        corners.append(at)
        frame = frame * Rotation.from_rotvec([rotation, 0, 0]) * Rotation.from_rotvec([0, 0, angle])
        before = tangent
    corners.append(at + frame.apply([before + sheet.last, 0, 0]))

    start = Frame(corners[0], whole.apply([1, 0, 0]), whole.apply([0, 0, 1]))
    assert route(sheet, start) == pytest.approx(np.array(corners), abs=1e-9)


@given(rows, st.tuples(*[st.floats(-3, 3)] * 3), st.tuples(*[st.floats(-5, 5)] * 3))
def test_a_line_is_the_same_wherever_it_is_held(
    rows: list[tuple[float, float, float]],
    turned: tuple[float, ...],
    moved: tuple[float, ...],
) -> None:
    points = route(sheet_of(rows))
    held = Rotation.from_rotvec(turned).apply(points) + moved
    one, other = bend_sheet(points, RADIUS), bend_sheet(held, RADIUS)

    assert other.feed == pytest.approx(one.feed, abs=1e-8)
    assert other.angle == pytest.approx(one.angle, abs=1e-8)
    assert np.cos(other.rotation - one.rotation) == pytest.approx(1.0)
    assert other.length == pytest.approx(one.length)


@given(rows)
def test_the_other_sides_line_is_its_mirror_image(rows: list[tuple[float, float, float]]) -> None:
    sheet = sheet_of(rows)
    seen = bend_sheet(route(sheet) * [1, -1, 1], RADIUS)

    assert np.cos(seen.rotation - sheet.mirrored.rotation) == pytest.approx(1.0)
    assert seen.feed == pytest.approx(sheet.mirrored.feed, abs=1e-9)
    assert sheet.mirrored.mirrored.rotation == pytest.approx(sheet.rotation)


@given(rows)
def test_the_middle_line_is_as_long_as_the_sheet_says(
    rows: list[tuple[float, float, float]],
) -> None:
    """Chords of an arc are shorter than it by angle² / 24 of each step (Archimedes)."""
    sheet = sheet_of(rows)
    line = middle_line(route(sheet), RADIUS, steps=60)
    long = np.linalg.norm(np.diff(line, axis=0), axis=1).sum()

    assert long == pytest.approx(sheet.length, rel=1e-4)


def test_a_corner_on_a_straight_makes_no_bend() -> None:
    points = np.array([[0, 0, 0], [0.1, 0, 0], [0.3, 0, 0], [0.3, 0.2, 0]])
    sheet = bend_sheet(points, RADIUS)

    assert sheet.feed == pytest.approx([0.287])
    assert bend_sheet(points[:3], RADIUS).length == pytest.approx(0.3)
    assert len(bend_sheet(points[:3], RADIUS).angle) == 0


def test_a_bend_longer_than_its_leg_comes_out_below_zero() -> None:
    sheet = bend_sheet(np.array([[0, 0, 0], [0.01, 0, 0], [0.01, 0.2, 0]]), RADIUS)
    assert sheet.straights[0] == pytest.approx(-0.003)


@pytest.mark.parametrize(
    ("points", "words"),
    [
        ([[0, 0, 0]], "point 1 is the only one"),
        ([[0, 0, 0], [0.1, 0, 0], [0.1, 0, 0]], "point 3 stands on the one before"),
        ([[0, 0, 0], [0.1, 0, 0], [0.02, 0, 0]], "point 2 folds the line back on itself"),
    ],
)
def test_what_no_tube_does_is_said(points: list[list[float]], words: str) -> None:
    with pytest.raises(RouteError, match=words):
        bend_sheet(np.array(points), RADIUS)
