"""Figures of the build one under the other, each with its name."""

from collections.abc import Sequence

from PySide6.QtWidgets import QGridLayout, QWidget

from urgens.build import BuildErrors, value_at
from urgens.ui.session import Session
from urgens.ui.widgets.figure_label import Figure, FigureLabel
from urgens.ui.widgets.worded import worded


class FigureColumn(QWidget):
    """Names to the left, figures to the right; those the build has no place for are left out."""

    def __init__(
        self, session: Session, figures: Sequence[Figure], parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._session = session
        self._wanted = tuple(figures)
        self.labels: dict[str, FigureLabel] = {}
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setVerticalSpacing(2)
        self._grid.setColumnStretch(0, 1)
        self.refresh()

    def refresh(self) -> None:
        """Show the figures as they are now."""
        there = [figure for figure in self._wanted if self._has(figure.path)]
        if [figure.path for figure in there] != list(self.labels):
            self._rebuild(there)
        for label in self.labels.values():
            label.refresh()

    def _has(self, path: str) -> bool:
        try:
            value_at(self._session.build, path)
        except BuildErrors:
            return False
        return True

    def _rebuild(self, figures: Sequence[Figure]) -> None:
        while (item := self._grid.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        self.labels = {}
        for row, figure in enumerate(figures):
            label = FigureLabel(self._session, figure, self)
            self.labels[figure.path] = label
            self._grid.addWidget(worded(figure.name, "muted"), row, 0)
            self._grid.addWidget(label, row, 1)
