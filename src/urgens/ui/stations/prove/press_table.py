"""The presses of a log, one a row."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QWidget

from urgens.bench.logs.presses import Press
from urgens.quantity import FORCE, PRESSURE, Units, show
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.worded import worded

MOST = 200  # rows that are shown
HEADS = ("", "front", "rear", "foot", "knee", "g", "locks")


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
        for column, words in enumerate(HEADS):
            head = worded(words, "small")
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


def _cells(press: Press, units: Units) -> tuple[str, ...]:
    def pressure(value: float | None) -> str:
        return "" if value is None else show(value, PRESSURE, units).number

    return (
        pressure(press.front_peak),
        pressure(press.rear_peak),
        "" if press.effort is None else show(press.effort, FORCE, units).number,
        pressure(press.knee),
        "" if press.deceleration is None else f"{press.deceleration:.2f}",
        press.locked[0][0] if press.locked else "",
    )
