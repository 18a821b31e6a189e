"""Figures of the build one under the other, each with its name."""

from collections.abc import Sequence
from dataclasses import dataclass

from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QWidget

from urgens.document import BuildErrors, value_at
from urgens.ui.session import Session
from urgens.ui.widgets.figure_label import Figure, FigureLabel
from urgens.ui.widgets.worded import worded


@dataclass(frozen=True)
class Pair:
    """Figures that stand beside each other under one name."""

    name: str
    figures: tuple[Figure, ...]


class FigureColumn(QWidget):
    """Names to the left, figures to the right; those the build has no place for are left out."""

    def __init__(
        self, session: Session, figures: Sequence[Figure | Pair], parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._session = session
        self._rows = [f if isinstance(f, Pair) else Pair(f.name, (f,)) for f in figures]
        self.labels: dict[str, FigureLabel] = {}
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setVerticalSpacing(0)
        self._grid.setColumnStretch(0, 1)
        self.refresh()

    def refresh(self) -> None:
        """Show the figures as they are now."""
        there = [
            Pair(row.name, tuple(f for f in row.figures if self._has(f.path))) for row in self._rows
        ]
        there = [row for row in there if row.figures]
        if [f.path for row in there for f in row.figures] != list(self.labels):
            self._rebuild(there)
        for label in self.labels.values():
            label.refresh()

    def _has(self, path: str) -> bool:
        try:
            value_at(self._session.build, path)
        except BuildErrors:
            return False
        return True

    def _rebuild(self, rows: Sequence[Pair]) -> None:
        while (item := self._grid.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        self.labels = {}
        for index, row in enumerate(rows):
            self._grid.addWidget(worded(row.name, "muted"), index, 0)
            beside = QWidget()
            line = QHBoxLayout(beside)
            line.setContentsMargins(0, 0, 0, 0)
            line.setSpacing(8)
            for figure in row.figures:
                label = FigureLabel(self._session, figure, beside)
                self.labels[figure.path] = label
                line.addWidget(label)
            line.addStretch()
            self._grid.addWidget(beside, index, 1)
