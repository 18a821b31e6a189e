"""Every bore against every ratio: where each fails, where it fits, and what is chosen."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QHideEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPixmap,
    QPolygonF,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from urgens.quantity import LENGTH, show
from urgens.studies.sizing_windows import MissedWindow
from urgens.ui.session import Session
from urgens.ui.stations.size.choices import HIGHEST, LOWEST, RATIOS, BoreRatioGrid
from urgens.ui.stations.size.map_picture import WORDS, MapPicture
from urgens.ui.theme.paint import T, ink, outline, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.drag import PaintedDrag
from urgens.ui.widgets.label_placer import Box, Label, place
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.plain import point_out

WIDER_LEFT = 116.0  # px for the names of pairs
# px around the cells
LEFT = 74.0
RIGHT = 10.0
TOP = 6.0
FOOT = 44.0
GRIP = 22.0  # px around the choice that take hold of it


@dataclass(frozen=True)
class _Marked:
    """A place on the map [px], what is said of it, how it is painted."""

    at: QPointF
    words: str
    mark: Callable[[QPainter, QPointF], None]
    color: str = ""

    def paint(self, painter: QPainter) -> None:
        """Paint its mark."""
        self.mark(painter, self.at)


def _diamond(painter: QPainter, at: QPointF) -> None:
    corners = ((0, -10.0), (10.0, 0), (0, 10.0), (-10.0, 0))
    painter.drawPolygon(QPolygonF([at + QPointF(*corner) for corner in corners]))


def _paint_best(painter: QPainter, at: QPointF) -> None:
    outline(painter, T.good, 2.5)
    painter.drawEllipse(at, 8, 8)


def _paint_own_place(painter: QPainter, at: QPointF) -> None:
    ink(painter, pen(T.ink, 2.5), QColor(T.fluid[1]))
    _diamond(painter, at)


def _paint_held(painter: QPainter, at: QPointF) -> None:
    outline(painter, T.front, 2)
    painter.drawEllipse(at, GRIP - 4, GRIP - 4)
    _paint_own_place(painter, at)


def _paint_candidate(painter: QPainter, at: QPointF) -> None:
    """Paint what is looked at, which is not fitted."""
    ink(painter, pen(T.ink, 2.5, Qt.PenStyle.DashLine), QColor(T.sheet))
    _diamond(painter, at)


class MapView(Painted):
    """Paints the map. A click or the arrow keys only look; Enter or a second click takes it.

    The choice itself is dragged.
    """

    looked = Signal()

    STEPS: ClassVar = {
        Qt.Key.Key_Left: (0, -0.1),
        Qt.Key.Key_Right: (0, 0.1),
        Qt.Key.Key_Up: (-1, 0.0),
        Qt.Key.Key_Down: (1, 0.0),
    }

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self._choices: BoreRatioGrid | None = None
        self._before: BoreRatioGrid | None = None
        self._still: tuple[object, QPixmap] | None = None
        self._words: list[Box] = []  # of its regions [px]
        self.candidate: tuple[int, float] | None = None  # row and ratio that are looked at
        self.drag = PaintedDrag(self, session, taken=self._taken, moved=self._pull)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(self.scaled(280, 300))
        self.setMouseTracking(True)

    @property
    def choices(self) -> BoreRatioGrid:
        """The map of the build as it is now."""
        if self._choices is None:
            self._choices = BoreRatioGrid(self._session, self._before)
        return self._choices

    def refresh(self) -> None:
        """Show the build as it is now; what is drawn stays where the map does."""
        self._before, self._choices = self._choices or self._before, None
        self.candidate = None
        own, ratio = self.choices.bores[self.choices.own], self.choices.ratio
        verdict = MissedWindow(int(self.choices.map.verdict[self.own_cell]))
        self.setAccessibleName(
            f"Bores against pedal ratios; chosen {own.text} at {ratio:.2f}: {WORDS[verdict]}"
        )
        self.update()

    @property
    def own_cell(self) -> tuple[int, int]:
        """Row and column of what is chosen."""
        return self.choices.own, self.choices.column(self.choices.ratio)

    # --- places ----------------------------------------------------------------------------

    @property
    def _cells(self) -> QRectF:
        left = WIDER_LEFT if self._twin else LEFT
        return QRectF(left, TOP, self.across - left - RIGHT, self.down - TOP - FOOT)

    @property
    def _picture(self) -> MapPicture:
        rows = range(len(self.choices.bores))
        caption = "front : rear bore" if self._twin else "bore"
        return MapPicture(self.choices, self._cells, [self._named(row) for row in rows], caption)

    def point(self, row: int, ratio: float) -> QPointF:
        """Return where a bore and a ratio are, in px of the usual scale."""
        return self._picture.point(row, ratio)

    def _at(self, point: QPointF) -> tuple[int, float]:
        box, count = self._cells, len(self.choices.bores)
        row = int(np.clip((point.y() - box.top()) / box.height() * count, 0, count - 1))
        share = (point.x() - box.left()) / box.width()
        ratio = LOWEST + min(max(share, 0.0), 1.0) * (HIGHEST - LOWEST)
        return row, round(ratio / 0.05) * 0.05

    # --- painting --------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        key = (
            self.size(),
            self.devicePixelRatioF(),
            id(self.choices.map),
            T.dark,
            self._session.units,
        )
        if self._still is None or self._still[0] != key:
            pixmap = QPixmap(self.size() * self.devicePixelRatioF())
            pixmap.setDevicePixelRatio(self.devicePixelRatioF())
            pixmap.fill(QColor(T.sheet))
            with QPainter(pixmap) as painter:
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
                painter.scale(self.scale, self.scale)
                picture = self._picture
                picture.paint(painter)
            self._still, self._words = (key, pixmap), picture.words
        with QPainter(self) as painter:
            painter.drawPixmap(0, 0, self._still[1])
        with self.begin() as painter:
            self._paint_own(painter)
            for marked in self._marked():
                marked.paint(painter)
            self._paint_labels(painter)

    def _named(self, row: int) -> str:
        """Return what a row is called: a bore, of twin cylinders both."""
        front = self.choices.bores[row].text
        if not self._twin:
            return front
        rear = show(float(self.choices.map.rear_bores[row]), LENGTH, self._session.units)
        return f"{front} : {rear.number}"

    @property
    def _twin(self) -> bool:
        return self._session.build.master.has_bar

    def _paint_own(self, painter: QPainter) -> None:
        """Write the chosen bore anew, in bold, over what the map says."""
        own, box = self.choices.own, self._cells
        tall = box.height() / len(self.choices.bores)
        top = box.top() + own * tall
        painter.fillRect(QRectF(0, top, box.left() - 1, tall), QColor(T.sheet))
        at = QPointF(box.left() - 8, top + tall / 2 + 5)
        write(painter, self._named(own), at, size=14, weight=700, color=T.ink, side="right")

    def _marked(self) -> list[_Marked]:
        """Return what is marked on the map, what is painted over others last."""
        choices, ranked = self.choices, self.choices.map.ranked()
        own = self.point(choices.own, min(max(choices.ratio, LOWEST), HIGHEST))
        marked = []
        if ranked:
            row, column = ranked[0]
            best = self.point(row, float(RATIOS[column]))
            far = (best - own).manhattanLength() > 60
            marked.append(_Marked(best, "best" if far else "", _paint_best, T.good))
        held = self.hasFocus() or self.drag.held
        words = f"{choices.bores[choices.own].text} at {choices.ratio:.2f}"
        marked.append(_Marked(own, words, _paint_held if held else _paint_own_place))
        if self.candidate is not None:
            row, ratio = self.candidate
            words = f"{choices.bores[row].text} at {ratio:.2f}, Enter takes it"
            marked.append(_Marked(self.point(row, ratio), words, _paint_candidate))
        return marked

    def placed(self) -> list[tuple[_Marked, Box | None]]:
        """Return what has words, what is looked at first, and where they stand [px]."""
        marked = self._marked()[::-1]
        said = [one for one in marked if one.words]
        labels = [
            Label(one.words, (one.at.x(), one.at.y()), (width(one.words, 15, 700) + 8, 20.0))
            for one in said
        ]
        reach, box = GRIP - 4, self._cells
        marks = [(one.at.x() - reach, one.at.y() - reach, 2 * reach, 2 * reach) for one in marked]
        bounds = (box.left(), box.top(), box.width(), box.height())
        return list(zip(said, place(labels, bounds, handles=[*marks, *self._words]), strict=True))

    def _paint_labels(self, painter: QPainter) -> None:
        """Write what is marked, clear of each other and of the words of regions where it can be."""
        ground = QColor(T.sheet)
        ground.setAlphaF(0.85)
        for one, box in self.placed():
            if box is None:
                continue
            painter.fillRect(QRectF(*box), ground)
            at = QPointF(box[0] + 4, box[1] + 15)
            write(painter, one.words, at, weight=700, color=one.color or T.ink)

    # --- the hand --------------------------------------------------------------------------

    def _taken(self, spot: QPointF) -> bool:
        own = self.point(self.choices.own, self.choices.ratio)
        return (own - spot).manhattanLength() <= GRIP

    def _pull(self, spot: QPointF) -> None:
        self.choices.choose(*self._at(spot))

    def look_at(self, candidate: tuple[int, float] | None) -> None:
        """Look at a bore and a ratio, which the press then shows; None looks at the build again."""
        self.candidate = candidate
        if candidate is None:
            self._session.consider(None)
        else:
            self.choices.look_at(*candidate)
            if not self._session.considered:  # it is what is fitted, or was refused
                self.candidate = None
        self.looked.emit()
        self.update()

    def take(self) -> None:
        """Put what is looked at into the build."""
        if self.candidate is not None:
            self.choices.choose(*self.candidate)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self._cells.contains(self.spot(event)):
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self.look_at(self._at(self.spot(event)))

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self.take()

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        if self.candidate is not None:
            self.look_at(None)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        spot = self.spot(event)
        row, ratio = self._at(spot)
        if event.buttons() & Qt.MouseButton.LeftButton and self.candidate is not None:
            self.look_at((row, ratio))
        if self._cells.contains(spot):
            kind = self.choices.regions.at(row, ratio)
            point_out(self, f"{self.choices.bores[row].text} at {ratio:.2f}: {WORDS[kind]}")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = self.STEPS.get(Qt.Key(event.key()))
        if step is not None:
            row, ratio = self.candidate or (self.choices.own, round(self.choices.ratio, 2))
            row = min(max(row + step[0], 0), len(self.choices.bores) - 1)
            self.look_at((row, min(max(ratio + step[1], LOWEST), HIGHEST)))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.take()
        elif event.key() == Qt.Key.Key_Escape and self.candidate is not None:
            self.look_at(None)
        else:
            event.ignore()
