"""The bends of a line as rows of feed, rotation and angle; each figure can be typed."""

from collections.abc import Callable
from functools import partial

import numpy as np
from PySide6.QtWidgets import QGridLayout, QWidget

from urgens.document.layout.line_sheets import MadeLine
from urgens.plumbing.route_edits import Figure
from urgens.quantity import (
    ANGLE,
    LENGTH,
    QuantityError,
    ShownFigure,
    Units,
    completed,
    parse,
    show,
    unit_shown,
)
from urgens.quantity.quantity import Quantity
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded

HEADS = ("", "feed", "turn", "bend")
READ = 21  # px: at arm's length, beside the bender
Typed = Callable[[int, Figure, float], None]


class BendRows(QWidget):
    """A row for each bend, and one for the last straight."""

    def __init__(self, typed: Typed) -> None:
        super().__init__()
        self._typed = typed
        self._grid = tight(QGridLayout(self))
        self._grid.setHorizontalSpacing(6)
        self._grid.setVerticalSpacing(0)
        self._grid.setColumnStretch(1, 1)
        self._units: Units | None = None
        self._made: tuple[int, Units | None] = (-1, None)
        self.labels: dict[tuple[int, Figure], DimensionLabel] = {}

    def show_sheet(self, line: MadeLine | None, units: Units) -> None:
        """Show the bends of a line, nothing of one that cannot be bent."""
        self._units = units
        sheet = None if line is None else line.sheet
        rows = -1 if sheet is None else len(sheet.angle)
        if (rows, units) != self._made:
            self._made = rows, units
            self._rebuild(rows)
        if sheet is None:
            return
        figures: tuple[tuple[Figure, np.ndarray], ...] = (
            ("feed", sheet.straights), ("rotation", sheet.rotation), ("angle", sheet.angle),
        )  # fmt: skip
        for name, values in figures:
            kind = LENGTH if name == "feed" else ANGLE
            for bend, value in enumerate(values):
                if (bend, name) in self.labels:
                    found = show(float(value), kind, units)
                    self.labels[bend, name].set_value(ShownFigure(found.number, ""), str(found))

    def _rebuild(self, rows: int) -> None:
        clear(self._grid)
        self.labels = {}
        if rows < 0:
            return
        for column, head in enumerate(HEADS):
            unit = "" if not head or self._units is None else (
                f", {unit_shown(LENGTH if head == 'feed' else ANGLE, self._units)}"
            )  # fmt: skip
            self._grid.addWidget(worded(f"{head}{unit}", "small"), 0, column)
        for bend in range(rows + 1):
            name = str(bend + 1) if bend < rows else "last"
            self._grid.addWidget(worded(name, "heading"), bend + 1, 0)
            figures: tuple[Figure, ...] = ("feed", "rotation", "angle")
            for column, figure in enumerate(figures, start=1):
                if figure != "feed" and (bend == rows or (figure == "rotation" and bend == 0)):
                    continue
                said = "Last straight" if bend == rows else f"Bend {bend + 1}, {HEADS[column]}"
                label = DimensionLabel(said, partial(self._take, bend, figure), size=READ)
                self.labels[bend, figure] = label
                self._grid.addWidget(label, bend + 1, column)

    def _take(self, bend: int, figure: Figure, typed: str) -> None:
        """Take what is typed; raises QuantityError where it is no such figure."""
        assert self._units is not None
        kind = LENGTH if figure == "feed" else ANGLE
        quantity: Quantity = parse(completed(typed, kind, self._units), kind)
        if figure == "feed" and quantity.value < 0:
            raise QuantityError(f'"{typed}" is negative', "write it without the minus")
        if figure == "angle" and not 0 < quantity.value < np.pi:
            raise QuantityError(f'"{typed}" is no bend', "write an angle between 0 and 180 degrees")
        self._typed(bend, figure, quantity.value)
