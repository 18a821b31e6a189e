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
from urgens.document import Build, demo_names
from urgens.guidance import Severity
from urgens.guidance.words.setups import ON_FLOOR
from urgens.solve.lock import AxleName
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
