"""Old lines on new routes and unlabelled ones, by what was done to them."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plumbing.layouts import FLARE, sound, with_layout
from tests.plumbing.test_route_edits import LEGS, RADIUS, made_of
from urgens.document.layout.layout import LineEnd
from urgens.document.layout.line_sheets import routed
from urgens.physics.bends import BendSheet, bend_sheet
from urgens.plumbing.old_lines import (
    OldBend,
    OldLine,
    ranked,
    sheet_in_hand,
    tried,
    tried_words,
    turned,
)
from urgens.quantity import QuantityError, UnitSystem

END = LineEnd.model_validate(FLARE)
SHEET = bend_sheet(LEGS, RADIUS)


def old(sheet: BendSheet = SHEET, **more: object) -> OldLine:
    return OldLine(sheet.length, sheet, ends=(END, END), **more)  # type: ignore[arg-type]


def test_the_line_itself_fits_either_way_round() -> None:
    made = made_of(LEGS)
    found = tried(old(), made)
    assert found is not None
    assert (found.fits, found.turned, found.short) == (True, False, 0.0)
    back = tried(old(bend_sheet(LEGS[::-1], RADIUS)), made)
    assert back is not None
    assert (back.fits, back.turned) == (True, True)
    assert list(tried_words(back, UnitSystem.METRIC)) == ["fits, its other end first"]


def test_its_ends_are_turned_with_it() -> None:
    """Two nuts that differ: the other end first, they stand the other way round."""
    other = END.model_copy(update={"nut": "M12x1.0"})
    made = made_of(LEGS)
    line = replace(made, line=made.line.model_copy(update={"ends": (END, other)}))
    back = tried(OldLine(SHEET.length, bend_sheet(LEGS[::-1], RADIUS), ends=(other, END)), line)
    wrong = tried(OldLine(SHEET.length, SHEET, ends=(other, END)), line)

    assert back is not None
    assert wrong is not None
    assert (back.fits, back.turned, back.other_nuts) == (True, True, False)
    assert wrong.other_nuts


@given(st.floats(0.05, 0.6), st.floats(-3.0, 3.0), st.floats(0.1, 2.5))
def test_a_sheet_turned_is_that_of_the_route_walked_the_other_way(
    feed: float, rotation: float, angle: float
) -> None:
    """A second way: the corners in the other order, bent anew."""
    from urgens.physics.bends import route

    sheet = BendSheet(np.array([0.2, feed, 0.3]), np.array([0.0, rotation, 0.7]),
                      np.array([0.6, angle, 1.2]), 0.25, RADIUS)  # fmt: skip
    again, other = turned(sheet), bend_sheet(route(sheet)[::-1], RADIUS)
    assert again.feed == pytest.approx(other.feed, abs=1e-9)
    assert np.exp(1j * again.rotation) == pytest.approx(np.exp(1j * other.rotation), abs=1e-6)
    assert again.angle == pytest.approx(other.angle, abs=1e-9)


def test_one_bend_that_differs_is_named() -> None:
    angle = SHEET.angle.copy()
    angle[1] += np.radians(20)
    found = tried(old(replace(SHEET, angle=angle)), made_of(LEGS))
    assert found is not None
    assert (found.fits, found.rebend) == (False, (2,))
    assert next(tried_words(found, UnitSystem.METRIC)) == "fits after bend 2 made anew"


def test_a_short_one_says_by_how_much() -> None:
    found = tried(old(replace(SHEET, last=SHEET.last - 0.05)), made_of(LEGS))
    assert found is not None
    assert found.short == pytest.approx(0.05)
    assert next(tried_words(found, UnitSystem.METRIC)) == "too short by 50.0 mm"


def test_other_nuts_are_said() -> None:
    other = LineEnd.model_validate({"nut": "M10x1.0", "flare": "bubble"})
    found = tried(replace(old(), ends=(other, END)), made_of(LEGS))
    assert found is not None
    assert list(tried_words(found, UnitSystem.METRIC))[-1] == "with other nuts"


def test_an_unlabelled_line_is_found_by_length_bends_ends_and_marking() -> None:
    made = sound()
    zero = "0 mm"
    for line, length in zip(made["lines"][:3], ("600 mm", "900 mm", "900 mm"), strict=True):
        line["route"] = [[zero, zero, zero], [length, zero, zero]]
    bend = [["500 mm", zero, zero], ["500 mm", "420 mm", zero]]
    made["lines"][2]["route"] = [[zero, zero, zero], *bend]
    made["lines"][3]["marking"] = "RF 7"
    plumbing = with_layout(made).plumbing
    assert plumbing is not None
    lines = routed(plumbing)

    def first(**known: object) -> str:
        return ranked(OldLine(**known), lines)[0][0].line.id  # type: ignore[arg-type]

    assert first(length=0.61) == "L1"
    assert first(length=0.9, count=0) == "L2"
    assert first(length=0.9, count=1) == "L3"
    assert first(length=0.9, marking="rf 7") == "L4"


def test_bends_along_a_tape_are_the_sheet_and_one_without_room_is_named() -> None:
    """Feeds are what is straight between: by hand, a square bend takes its quarter circle."""
    arc = RADIUS * np.pi / 2
    found = sheet_in_hand([OldBend(0.3, np.radians(45)), OldBend(0.1)], 0.5, RADIUS)
    assert found.feed == pytest.approx([0.1, 0.2 - arc])
    assert found.rotation == pytest.approx([0.0, np.radians(45)])  # the first has none
    assert found.last == pytest.approx(0.2 - arc)
    assert found.length == pytest.approx(0.5)
    with pytest.raises(QuantityError, match="bend 2 has no room"):
        sheet_in_hand([OldBend(0.1), OldBend(0.1 + arc / 2)], 0.5, RADIUS)
    with pytest.raises(QuantityError, match="bend 1 has no room"):
        sheet_in_hand([OldBend(0.495)], 0.5, RADIUS)


def test_a_fold_for_the_parcel_is_no_bend_of_the_line() -> None:
    folded = sheet_in_hand([OldBend(0.1), OldBend(0.3, folded=True)], 0.5, RADIUS)
    without = sheet_in_hand([OldBend(0.1)], 0.5, RADIUS)
    assert folded.feed == pytest.approx(without.feed)
    assert folded.last == pytest.approx(without.last)
