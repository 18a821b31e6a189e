"""Figures of the build one under the other, each with its name."""

from collections.abc import Sequence
from dataclasses import dataclass

from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QWidget

from urgens.document import BuildErrors
from urgens.document.catalogue import column_name, figure, named
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.figure_label import FigureLabel, Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded

FIGURE = 84  # px for a figure


@dataclass(frozen=True)
class AdjacentFigures:
    """Figures that stand beside each other under one name."""

    name: str
    spots: tuple[Spot, ...]


class FigureColumn(QWidget):
    """Names to the left, figures to the right; those the build has no place for are left out.

    Figures `of_one_part` are called as beside it, others as beside all figures of the build.
    """

    def __init__(
        self,
        session: Session,
        spots: Sequence[Spot | AdjacentFigures],
        parent: QWidget | None = None,
        *,
        of_one_part: bool = True,
    ) -> None:
        super().__init__(parent)
        self._session = session
        self._rows = [
            s if isinstance(s, AdjacentFigures) else AdjacentFigures("", (s,)) for s in spots
        ]
        self._name = column_name if of_one_part else named
        self.labels: dict[str, FigureLabel] = {}
        self._grid = tight(QGridLayout(self))
        self._grid.setVerticalSpacing(0)
        self._grid.setColumnStretch(0, 1)
        self._grid.setColumnMinimumWidth(1, round(FIGURE * T.scale))  # so that nothing moves
        self.refresh()

    def refresh(self) -> None:
        """Show the figures as they are now."""
        there = [
            AdjacentFigures(row.name, tuple(s for s in row.spots if self._has(s.path)))
            for row in self._rows
        ]
        there = [row for row in there if row.spots]
        if [s.path for row in there for s in row.spots] != list(self.labels):
            self._rebuild(there)
        for label in self.labels.values():
            label.refresh()

    def _has(self, path: str) -> bool:
        try:
            figure(self._session.build, path)
        except BuildErrors:
            return False
        return True

    def _rebuild(self, rows: Sequence[AdjacentFigures]) -> None:
        clear(self._grid)
        self.labels = {}
        for index, row in enumerate(rows):
            name = row.name or self._name(self._session.build, row.spots[0].path)
            self._grid.addWidget(worded(name, "muted"), index, 0)
            beside = QWidget()
            line = tight(QHBoxLayout(beside), 8)
            for spot in row.spots:
                label = FigureLabel(self._session, spot, beside)
                self.labels[spot.path] = label
                line.addWidget(label)
            line.addStretch()
            self._grid.addWidget(beside, index, 1)
