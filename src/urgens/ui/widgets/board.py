"""A drawing with figures standing on it."""

from collections.abc import Sequence
from typing import Literal

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from urgens.solve import Presses
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, face, ink, laid_out, metrics, pen, width
from urgens.ui.widgets.figure_label import FigureLabel, Spot
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.seen import WhenSeen

ARROW = 5.0  # px, half as wide as it is long


class Board(Painted):
    """Paints itself, and keeps the labels of its figures where they belong.

    A subclass says which figures there are, where they stand, and what is drawn behind them, all
    in px of the usual scale.
    """

    follows = True  # the session, by itself
    said = ""  # what the drawing is, to who listens; its figures say themselves

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        if self.said:
            self.setAccessibleName(self.said)
        self.labels: dict[str, FigureLabel] = {}
        self._spots: tuple[Spot, ...] = ()
        self.seen = WhenSeen(self, self._show)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        if self.follows:
            session.solution_changed.connect(self.seen.ask)
        self._painted: Presses | None = None  # the press that is shown
        session.press_changed.connect(self._follow_press)

    def spots(self) -> Sequence[Spot]:
        """Return the figures that stand on it now, in the order of Tab."""
        raise TypeError(f"{type(self).__name__} has no figures")

    def place(self) -> None:
        """Put every label where it belongs."""
        raise TypeError(f"{type(self).__name__} places nothing")

    def draw(self, painter: QPainter) -> None:
        """Paint what is behind the figures."""
        raise TypeError(f"{type(self).__name__} draws nothing")

    def read(self) -> None:
        """Take from the session what is drawn; come to before the labels are placed."""

    def refresh(self) -> None:
        """Show the build as it is now, if it does not yet."""
        self.seen.if_stale()

    def _show(self) -> None:
        self.read()
        wanted = tuple(self.spots())
        if wanted != self._spots:
            self._spots = wanted
            for label in self.labels.values():
                label.hide()
                label.deleteLater()
            self.labels = {s.path: FigureLabel(self.session, s, self) for s in wanted}
            for label in self.labels.values():
                label.show()
        for label in self.labels.values():
            label.refresh()
        self.place()
        self.update()

    def put(
        self, path: str, x: float, y: float, side: Literal["left", "middle", "right"] = "left"
    ) -> None:
        """Put a label with its left, middle or right at x and its top at y."""
        label = self.labels[path]
        label.resize(label.sizeHint())
        share = {"left": 0.0, "middle": 0.5, "right": 1.0}[side]
        left = round(x * self.scale - share * label.width())
        left = max(0, min(left, self.width() - label.width()))  # never cut by the edge
        label.move(left, round(y * self.scale))

    def box(self, path: str) -> QRectF:
        """Return where a label is."""
        rect = self.labels[path].geometry()
        return QRectF(
            rect.x() / self.scale,
            rect.y() / self.scale,
            rect.width() / self.scale,
            rect.height() / self.scale,
        )

    def resizeEvent(self, event: QResizeEvent) -> None:
        if not self.seen.stale:  # else the labels are yet to come
            self.place()

    def _follow_press(self) -> None:
        if self.session.presses is not self._painted:
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        self._painted = self.session.presses
        with self.begin() as painter:
            self.draw(painter)


def write(
    painter: QPainter,
    words: str,
    at: QPointF,
    *,
    size: int = 15,
    weight: int = 400,
    color: str | None = None,
    side: Literal["left", "middle", "right"] = "left",
) -> None:
    """Write words with their baseline at a point, to its right, over it, or to its left."""
    painter.setFont(face(size, weight))
    painter.setPen(pen(color or T.muted))
    share = {"left": 0.0, "middle": 0.5, "right": 1.0}[side]
    corner = QPointF(share * width(words, size, weight), metrics(size, weight).ascent())
    painter.drawStaticText(at - corner, laid_out(words, size, weight))


def measure(painter: QPainter, start: QPointF, end: QPointF, color: str | None = None) -> None:
    """Draw a dimension line with an arrow at both ends, level or upright."""
    painter.setPen(pen(color or T.ink, 1))
    painter.drawLine(start, end)
    ink(painter, Qt.PenStyle.NoPen, QColor(color or T.ink))
    way = end - start
    length = max((way.x() ** 2 + way.y() ** 2) ** 0.5, 1e-9)
    along = way / length
    for tip, inward in ((start, along), (end, -along)):
        arrow(painter, tip, inward)


def arrow(painter: QPainter, tip: QPointF, inward: QPointF, size: float = ARROW) -> None:
    """Fill an arrow's head with the brush in use; inward points from its tip to its foot."""
    foot = tip + inward * (2 * size)
    across = QPointF(-inward.y(), inward.x()) * (0.6 * size)
    painter.drawPolygon([tip, foot + across, foot - across])
