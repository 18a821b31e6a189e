"""What the gauges are to show and what they showed, pressure by pressure."""

from functools import partial

import numpy as np
from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QGridLayout, QToolButton, QWidget

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
        self._grid = tight(QGridLayout(self))
        self._grid.setHorizontalSpacing(14)
        self._grid.setVerticalSpacing(0)

    def show_read(self, gauged: Gauged) -> None:
        """Show one valve's readings beside what was expected."""
        session = self._session
        unit = in_units(PRESSURE, session.units)
        full = usual_scale(unit) if gauged.run is None else gauged.run.full_scale.value
        at = schedule(gauged.wanted, full, unit)
        clear(self._grid)
        self.labels, self.out, self._at = [], [], tuple(at.tolist())
        name = unit_shown(PRESSURE, session.units)
        for column, words in enumerate((f"into, {name}", "build", "read", "off")):
            self._grid.addWidget(worded(words, "small"), 0, column)
        points = () if gauged.run is None else gauged.run.points
        step = at[0] if at.size else 1.0
        for row, into in enumerate(self._at, start=1):
            near = [
                index
                for index, (one, _, way) in enumerate(points)
                if way == "rising" and abs(one.value - into) < SAME * step
            ]
            self._row(row, into, gauged, near[-1] if near else None)
        self._grid.setColumnStretch(4, 1)

    def _row(self, row: int, into: float, gauged: Gauged, place: int | None) -> None:
        session = self._session
        wanted = float(gauged.wanted.outlet(np.asarray(into)))
        is_next = gauged.next is not None and abs(gauged.next - into) < 1.0
        role = "heading" if is_next else "body"
        for column, value in enumerate((into, wanted)):
            told = worded(show(value, PRESSURE, session.units).number, role)
            told.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            self._grid.addWidget(told, row, column)
        words = str(show(into, PRESSURE, session.units))
        start = ""
        if place is not None and gauged.run is not None:
            start = gauged.run.points[place][1].text
        label = TypedLabel(
            f"Out at {words}", PRESSURE, session.units, partial(self._take, row - 1),
            start=start, size=16,
        )  # fmt: skip
        self.labels.append(label)
        self._grid.addWidget(label, row, 2)
        if place is None or gauged.run is None:
            self._grid.addWidget(worded("next" if is_next else "", "heading"), row, 3)
            return
        off = gauged.run.points[place][1].value - wanted
        words_off = show(abs(off), PRESSURE, session.units).number
        self._grid.addWidget(worded(f"{'−' if off < 0.0 else '+'}{words_off}", "muted"), row, 3)
        gone = QToolButton()
        gone.setText("×")
        gone.setProperty("role", "kind")
        gone.setAccessibleName(f"Take the reading at {words} out")
        gone.clicked.connect(partial(self.dropped.emit, place))
        self.out.append(gone)
        self._grid.addWidget(gone, row, 4)

    def _take(self, index: int) -> None:
        label = self.labels[index]
        if label.quantity is not None:
            into = retype(self._at[index], PRESSURE, self._session.units)
            self.typed.emit(into, label.quantity.text)
