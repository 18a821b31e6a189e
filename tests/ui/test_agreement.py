"""The pages of the window say what the core says: each figure read where a builder reads it."""

import math
from collections.abc import Callable
from typing import Any

import numpy as np
import pytest

from tests.agreement.surfaces import (
    FITS,
    G_LEFT,
    PEDAL_LEFT,
    REAR_FIRST,
    WANTED,
    solved,
)
from tests.agreement.surfaces import sized as sized_at
from tests.builds import bed
from urgens.document import Build, demo_names, with_changes
from urgens.guidance import Severity
from urgens.guidance.words.setups import ON_FLOOR
from urgens.printed.sizing import printed_sizing
from urgens.solve.first_rise import AxleName
from urgens.studies.sizing_windows import MissedWindow
from urgens.ui.frame.window import MainWindow

Opener = Callable[[Build], MainWindow]


def page(window: MainWindow, station: str, name: str) -> Any:
    window.show_station(station)
    window.station(station).show_page_named(name)
    return window.station(station).page


@pytest.mark.parametrize("name", demo_names())
def test_size_says_what_is_solved(open_window: Opener, name: str) -> None:
    window = open_window(bed(name))
    solution = window.session.solution
    told = solved(bed(name), solution)
    board = page(window, "Size", "Map").windows
    by_name = {row.name: row for row in board._rows}
    assert by_name["Foot for"].value == pytest.approx(told[WANTED], nan_ok=True)
    assert by_name["Foot for"].met == (told[WANTED] is not None)
    missed = [row.name for row in board._rows if not row.met]
    assert bool(missed) == (sized_at(bed(name), solution)[FITS] != MissedWindow.FITS.word)
    lock = float(solution.lock.z[solution.case, solution.road])
    early = lock < bed(name).targets.deceleration  # then no tick stands by the foot alone
    assert bool(by_name["Foot for"].note) == early
    if bed(name).split == "single":
        return
    halves = page(window, "Size", "Half lost").board.halves
    travels = [half.travel for half in halves]
    floor = bed(name).pedal.travel_available.value
    if told[PEDAL_LEFT] is None:
        assert any(map(math.isnan, travels))
    else:
        assert floor - max(travels) == pytest.approx(told[PEDAL_LEFT])
    table = page(window, "Size", "Set-ups").table
    shown = {row.field: table.shown(row, 0) for row in table.rows}
    assert (shown["half_lost"].number == ON_FLOOR) == (told[G_LEFT] is None)
    assert (shown["half_lost_pedal"].number == ON_FLOOR) == (told[PEDAL_LEFT] is None)


@pytest.mark.parametrize("name", demo_names())
def test_balance_says_who_is_first(open_window: Opener, name: str) -> None:
    window = open_window(bed(name))
    told = solved(bed(name), window.session.solution)
    shown_first = window.finding_line.finding
    codes = [one.code for one in window.session.findings]
    assert ("rear-locks-first" in codes) == told[REAR_FIRST]
    if told[REAR_FIRST]:
        assert shown_first is not None
        assert shown_first.severity is Severity.DANGER
    lock = window.session.solution.lock
    shown = lock.axle[:, list(window.session.solution.shown)]
    assert bool(np.any(shown == AxleName.REAR)) == told[REAR_FIRST]  # seen in the table as well


def test_what_locks_before_the_wanted_deceleration_is_said_with_it(open_window: Opener) -> None:
    """On a road of 0.5 nothing gives 0.9 g: the foot for it is by demand alone."""
    slippery = with_changes(bed("bakery"), {"targets.surface": 0.5, "targets.deceleration": 0.9})
    window = open_window(slippery)
    before = window.session.solution.locks_before_wanted
    assert before is not None
    axle, effort, z = before
    assert z < 0.55
    board = page(window, "Size", "Map").windows
    foot = next(row for row in board._rows if row.name == "Foot for")
    assert foot.note.startswith(f"{axle.name.lower()} locks first, at ")
    assert f"{z:.2f} g" in foot.note
    table = page(window, "Size", "Set-ups").table
    (row,) = (row for row in table.rows if row.field == "locks_before")
    assert row.values[0] == f"{axle.name.lower()}, at {z:.2f} g"
    told = printed_sizing(slippery, 0, board._source()[0])["locks_before"]
    assert told == {"axle": axle.name.lower(), "effort": effort, "z": z}
