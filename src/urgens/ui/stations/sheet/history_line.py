"""The margin after each change of the history, as a line, with symptoms and services on it."""

from collections.abc import Callable
from datetime import datetime

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.guidance.tracing.chronicle import Happened
from urgens.guidance.words.change_parts import figure_words
from urgens.studies.margins import DatedMargin, margins
from urgens.ui.session import Session
from urgens.ui.stations.sheet.history_list import kind_mark
from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

HIGH = 128.0  # px
LEFT, RIGHT = 62.0, 20.0  # px beside the line
TOP, BOTTOM = 40.0, 26.0  # px over and under it
LEAST = 0.05  # of margin that the scale shows at least, either way
TITLE = "Margin behind the front, worst load and road"


class MarginLine(Painted):
    """Steps from change to change; under zero the rear leads somewhere."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.found: tuple[DatedMargin, ...] = ()
        self._events: tuple[Happened, ...] = ()
        self._work = Background(self)
        self._work.ended.connect(self._show_found)
        self._work.failed.connect(self._fail)
        self.setAccessibleName(TITLE)

    def sizeHint(self) -> QSize:
        return self.scaled(420, HIGH)

    def show_build(self, events: tuple[Happened, ...]) -> None:
        """Work out the line of the build; events: what happened to it, of every kind."""
        self._events = tuple(one for one in events if one.kind in ("symptom", "service"))
        base = self._session.base
        self.setVisible(any(one.changes for one in base.history))
        if self.isHidden():
            self.found = ()
            return

        def work(progress: Callable[[float], bool]) -> object:
            return margins(base, progress)

        self._work.run(work, SOON)

    def stop(self) -> None:
        """Let what is under way go."""
        self._work.stop()

    @property
    def busy(self) -> bool:
        """Whether it is still worked out."""
        return self._work.busy

    def _show_found(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        self.found = found
        units = self._session.units
        told = "; ".join(
            f"{'before' if one.at is None else f'{one.at:%Y-%m-%d}'} "
            f"{figure_words('margin', one.margin if np.isfinite(one.margin) else None, units)}"
            for one in self.found
        )
        self.setAccessibleName(f"{TITLE}: {told}")
        self.update()

    def _fail(self, words: str) -> None:
        self.found = ()
        self.setAccessibleName(f"{TITLE}: {words}")
        self.update()

    def _times(self) -> tuple[float, float]:
        """Return the first and the last time that are drawn."""
        times = [one.at for one in self.found if one.at is not None]
        times += [one.at for one in self._events]
        first, last = min(times).timestamp(), max(times).timestamp()
        day = 86_400.0
        return first - max((last - first) * 0.08, day), last + max((last - first) * 0.04, day)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            write(painter, TITLE, QPointF(2, 16), size=15, weight=600, color=T.ink)
            known = [one.margin for one in self.found if np.isfinite(one.margin)]
            if not known:
                return
            box = QRectF(LEFT, TOP, self.across - LEFT - RIGHT, self.down - TOP - BOTTOM)
            low, high = min(*known, -LEAST), max(*known, LEAST)
            start, end = self._times()

            def at(time: datetime) -> float:
                return box.left() + (time.timestamp() - start) / (end - start) * box.width()

            def level(margin: float) -> float:
                return box.bottom() - (margin - low) / (high - low) * box.height()

            self._scale(painter, box, level(0.0))
            self._line(painter, box, at, level)
            for one in self._events:
                kind_mark(painter, one.kind, QPointF(at(one.at), box.bottom() + 14), 6)

    def _scale(self, painter: QPainter, box: QRectF, zero: float) -> None:
        ink(painter, Qt.PenStyle.NoPen, QColor(T.danger_ground))
        painter.drawRect(QRectF(box.left(), zero, box.width(), box.bottom() - zero))
        painter.setPen(pen(T.muted, 1))
        painter.drawLine(QPointF(box.left(), zero), QPointF(box.right(), zero))
        write(painter, "front", QPointF(box.left() - 8, zero - 5), size=13, side="right")
        if box.bottom() - zero > 14:
            write(painter, "rear", QPointF(box.left() - 8, zero + 14), size=13, side="right")

    def _line(
        self,
        painter: QPainter,
        box: QRectF,
        at: Callable[[datetime], float],
        level: Callable[[float], float],
    ) -> None:
        x, before = box.left(), None
        for place, one in enumerate(self.found):
            following = self.found[place + 1].at if place + 1 < len(self.found) else None
            end = box.right() if following is None else at(following)
            if np.isfinite(one.margin):
                y = level(one.margin)
                painter.setPen(pen(T.front if one.margin >= 0.0 else T.rear, 3))
                painter.drawLine(QPointF(x, y), QPointF(end, y))
                if before is not None:
                    painter.setPen(pen(T.ink, 1))
                    painter.drawLine(QPointF(x, before), QPointF(x, y))
                before = y
            x = end
        last = self.found[-1].margin
        if np.isfinite(last):
            words = figure_words("margin", last, self._session.units)
            write(painter, words, QPointF(box.right(), level(last) - 8), size=14,
                  weight=600, color=T.ink, side="right")  # fmt: skip
