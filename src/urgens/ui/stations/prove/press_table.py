"""The presses of a log, one a row."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QWidget

from urgens.bench.logs.presses import Press
from urgens.quantity import FORCE, PRESSURE, Units, show, unit_shown
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.worded import worded

MOST = 200  # rows that are shown
HEADS = ("", "front", "rear", "foot", "knee", "late", "g", "locks")
QUICK = "too quick"


class PressTable(QWidget):
    """Peaks, knee and what locked, in the build's own units."""

    def __init__(self) -> None:
        super().__init__()
        self._rows = QGridLayout(self)

    def show_presses(self, presses: tuple[Press, ...], units: Units) -> None:
        """Show the first of them; how many more there are is said."""
        clear(self._rows)
        if not presses:
            return
        pressure, force = (unit_shown(kind, units) for kind in (PRESSURE, FORCE))
        in_units = {"front": pressure, "rear": pressure, "knee": pressure, "foot": force,
                    "late": "ms"}  # fmt: skip
        for column, words in enumerate(HEADS):
            unit = in_units.get(words)
            head = worded(f"{words}, {unit}" if unit else words, "small")
            head.setAlignment(Qt.AlignmentFlag.AlignRight)
            self._rows.addWidget(head, 0, column)
        for row, press in enumerate(presses[:MOST], start=1):
            for column, words in enumerate((f"{row}", *_cells(press, units))):
                label = worded(words, "small")
                label.setAlignment(Qt.AlignmentFlag.AlignRight)
                self._rows.addWidget(label, row, column)
        if len(presses) > MOST:
            more = worded(f"{len(presses) - MOST} more", "small")
            self._rows.addWidget(more, MOST + 1, 0, 1, 4)
        self._rows.setRowStretch(MOST + 2, 1)


def _knee(press: Press, units: Units) -> str:
    """Return the knee with how far it may be off, nothing where none shows."""
    if press.fit is None or not press.fit.bends:
        return ""
    knee, off = (show(one, PRESSURE, units).number for one in (press.fit.knee, press.fit.knee_off))
    return f"{knee} ± {off}"


def _cells(press: Press, units: Units) -> tuple[str, ...]:
    def pressure(value: float | None) -> str:
        return "" if value is None else show(value, PRESSURE, units).number

    return (
        pressure(press.front_peak),
        pressure(press.rear_peak),
        "" if press.effort is None else show(press.effort, FORCE, units).number,
        QUICK if press.quick else _knee(press, units),
        "" if press.rear_delay is None else f"{press.rear_delay * 1e3:.0f}",
        "" if press.deceleration is None else f"{press.deceleration:.2f}",
        press.locked[0][0] if press.locked else "",
    )
