"""What the gauges are to show and what they showed, pressure by pressure."""

from functools import partial

import numpy as np
from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtWidgets import QGridLayout, QLabel, QToolButton, QWidget

from urgens.bench.proof_state import Gauged
from urgens.quantity import PRESSURE, in_units, retype, show, unit_shown
from urgens.studies.expected_pressures import schedule, usual_scale
from urgens.ui.session import Session
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded

SAME = 0.25  # of a step: a reading there belongs to the row


class ReadingsTable(QWidget):
    """A row for each round pressure; what is read is typed where it stands.

    `typed` tells inlet and outlet as typed; `dropped` the place of a reading that is taken out.
    """

    typed = Signal(str, str)
    dropped = Signal(int)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.labels: list[TypedLabel] = []
        self.out: list[QToolButton] = []
        self._at: tuple[float, ...] = ()
        self._wanted: list[QLabel] = []
        self._off: list[QLabel] = []
        self._made_for: tuple[object, ...] = ()  # what its rows are, whatever their figures
        self._grid = tight(QGridLayout(self))
        self._grid.setHorizontalSpacing(14)
        self._grid.setVerticalSpacing(0)

    def show_read(self, gauged: Gauged) -> None:
        """Show one valve's readings beside what was expected."""
        session = self._session
        unit = in_units(PRESSURE, session.units)
        full = usual_scale(unit) if gauged.run is None else gauged.run.full_scale.value
        at = schedule(gauged.wanted, full, unit)
        points = () if gauged.run is None else gauged.run.points
        step = float(at[0]) if at.size else 1.0
        self._at = rows_at(at.tolist(), gauged, SAME * step)
        places: list[int | None] = []
        for into in self._at:
            near = [
                index
                for index, (one, _, way) in enumerate(points)
                if way == "rising" and abs(one.value - into) < SAME * step
            ]
            places.append(near[-1] if near else None)
        ahead = [one == _nearest(self._at, gauged.next) for one in self._at]
        rows = gauged.valve, session.units, self._at, places, ahead
        if rows != self._made_for:  # else only figures are others: what is typed in stays
            self._made_for = rows
            self._make_rows(places, ahead)
        self._fill(gauged, places)

    def _make_rows(self, places: list[int | None], ahead: list[bool]) -> None:
        clear(self._grid)
        self.labels, self.out, self._wanted, self._off = [], [], [], []
        name = unit_shown(PRESSURE, self._session.units)
        for column, words in enumerate((f"into, {name}", "build", "read", "off")):
            self._grid.addWidget(worded(words, "small"), 0, column)
        for row, (place, is_next) in enumerate(zip(places, ahead, strict=True)):
            self._row(row, place, is_next)
        self._grid.setColumnStretch(4, 1)

    def _row(self, row: int, place: int | None, is_next: bool) -> None:
        units, into = self._session.units, self._at[row]
        inlet, wanted = (worded("", "heading" if is_next else "body") for _ in range(2))
        inlet.setText(show(into, PRESSURE, units).number)
        words = str(show(into, PRESSURE, units))
        label = TypedLabel(f"Out at {words}", PRESSURE, units, partial(self._take, row), size=16)
        off = worded("", "heading") if place is None else worded("", "muted")
        if is_next and place is None:
            off.setText("next")
        for column, widget in enumerate((inlet, wanted, label, off)):
            self._grid.addWidget(widget, row + 1, column)
        for told in (inlet, wanted):
            told.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.labels.append(label)
        self._wanted.append(wanted)
        self._off.append(off)
        if place is None:
            return
        gone = QToolButton()
        gone.setText("×")
        gone.setProperty("role", "kind")
        gone.setAccessibleName(f"Take the reading at {words} out")
        gone.clicked.connect(partial(self.dropped.emit, place))
        self.out.append(gone)
        self._grid.addWidget(gone, row + 1, 4)

    def _fill(self, gauged: Gauged, places: list[int | None]) -> None:
        """Put the figures into the rows."""
        units = self._session.units
        for row, (into, place) in enumerate(zip(self._at, places, strict=True)):
            wanted = float(gauged.wanted.outlet(np.asarray(into)))
            self._wanted[row].setText(show(wanted, PRESSURE, units).number)
            if place is None or gauged.run is None:
                continue
            inlet, read, _ = gauged.run.points[place]
            if self.labels[row].quantity != read:
                self.labels[row].show_quantity(read)
            off = read.value - float(gauged.wanted.outlet(np.asarray(inlet.value)))
            words = show(abs(off), PRESSURE, units).number
            self._off[row].setText(f"{'−' if off < 0.0 else '+'}{words}")

    def _take(self, index: int) -> None:
        label = self.labels[index]
        if label.quantity is not None:
            at = self._at[index]
            self.typed.emit(retype(at, PRESSURE, self._session.units), label.quantity.text)
            QTimer.singleShot(0, self, partial(self._stay, at))  # once its field is shut

    def _stay(self, at: float) -> None:
        """Keep the focus in the row that was typed in, though its rows were made anew."""
        if at in self._at and self.isVisible():
            self.labels[self._at.index(at)].setFocus()


def rows_at(schedule: list[float], gauged: Gauged, near: float) -> tuple[float, ...]:
    """Return the pressures that have a row [Pa]: round ones, those read, and the one to read next.

    near: how close a reading belongs to a round one [Pa].
    """
    found = list(schedule)
    points = () if gauged.run is None else gauged.run.points
    others = [into.value for into, _, way in points if way == "rising"]
    for one in (*others, *(() if gauged.next is None else (gauged.next,))):
        if all(abs(one - row) >= near for row in found):
            found.append(one)
    return tuple(sorted(found))


def _nearest(rows: tuple[float, ...], wanted: float | None) -> float | None:
    return None if wanted is None else min(rows, key=lambda one: abs(one - wanted), default=None)
