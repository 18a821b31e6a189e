"""A row of a list beside a drawing: a mark, words, and a figure at the end."""

from PySide6.QtCore import QPointF, QSize
from PySide6.QtGui import QPaintEvent
from PySide6.QtWidgets import QGridLayout, QSizePolicy

from urgens.guidance import Severity
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.worded import worded, wrapped

SIZE = 20.0  # px


class SeverityMark(Painted):
    """The mark of a severity: octagon, triangle, or round tick."""

    def __init__(self, severity: Severity | None) -> None:
        super().__init__()
        self._severity = severity
        self.setAccessibleName("good" if severity is None else severity.word)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return self.scaled(SIZE, SIZE)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            severity_mark(painter, self._severity, QPointF(SIZE / 2, SIZE / 2), 8)


def marked_row(
    grid: QGridLayout, row: int, severity: Severity | None, words: str, figure: str
) -> None:
    """Put a row into a grid of three columns."""
    grid.addWidget(SeverityMark(severity), row, 0)
    grid.addWidget(wrapped("muted", words), row, 1)
    grid.addWidget(worded(figure, "heading"), row, 2)
