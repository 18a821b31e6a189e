"""Who is open now: the four wheels from above, their screws, hoses and bottles."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.guidance.procedures import Step
from urgens.guidance.procedures.facts import FARTHEST, said
from urgens.ui.theme.paint import T, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

WHEEL = (96.0, 34.0)  # px
BOTTLE = 56.0  # px: middle of a bottle outside of the body
SCREW = 20.0  # px: radius of what shows a screw


class BleedPlan(Painted):
    """Wheels at their corners, the front on the left; what is open is large and says so."""

    def __init__(self) -> None:
        super().__init__()
        self.open: dict[str, str] = {}  # by wheel, which screw
        self.hosed: set[str] = set()
        self.now: tuple[str, ...] = ()
        self.held = self.moves = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)  # the card's keys come in here
        self.setMinimumHeight(self.scaled(10, 200).height())

    def show_steps(self, done: tuple[Step, ...], now: Step | None) -> None:
        """Show what is open after the steps that are done, and whose turn it is."""
        self.open, self.hosed, self.held = {}, set(), False
        for step in done:
            for wheel in step.wheels:
                if step.action == "open":
                    self.open[wheel] = step.screw
                elif step.action == "close":
                    self.open.pop(wheel, None)
                elif step.thing == "hose and bottle":
                    (self.hosed.add if step.action == "fit" else self.hosed.discard)(wheel)
            if step.action in ("hold", "release"):
                self.held = step.action == "hold"
        self.moves = now is not None and now.action == "stroke"
        self.now = () if now is None else now.wheels
        told = ", ".join(said(wheel) for wheel in self.open) or "none"
        self.setAccessibleName(f"Open now: {told}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = self.begin()
        wide, high = self.across, self.down
        edge = max(0.14 * wide, BOTTLE + 20)
        body = QRectF(edge, 30, wide - 2 * edge, high - 60)
        painter.setPen(pen(T.hair, 1.5))
        painter.setBrush(QColor(T.paper))
        painter.drawRoundedRect(body, 30, 30)
        write(painter, "front", QPointF(body.left() + 14, body.center().y() + 5), size=15)
        foot = "foot moves" if self.moves else "pedal held" if self.held else "pedal up"
        write(painter, foot, body.center() + QPointF(0, 6), size=18, weight=600, color=T.ink,
              side="middle")  # fmt: skip
        for wheel in FARTHEST:
            self._draw_wheel(painter, wheel, body)
        if self.hasFocus():
            painter.setPen(pen(T.front, 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(1, 1, wide - 2, high - 2))

    def _draw_wheel(self, painter: QPainter, wheel: str, body: QRectF) -> None:
        front, left = wheel.startswith("front"), wheel.endswith("left")
        x = body.left() + 60 if front else body.right() - 60
        y = body.bottom() if left else body.top()
        middle = QPointF(x, y)
        box = QRectF(x - WHEEL[0] / 2, y - WHEEL[1] / 2, *WHEEL)
        color = T.front if front else T.rear
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(T.ink))
        painter.drawRoundedRect(box, 8, 8)
        own, open_ = wheel in self.now, wheel in self.open
        painter.setPen(pen(color, 4 if own or open_ else 2))
        painter.setBrush(QColor(T.sheet))
        painter.drawEllipse(middle, SCREW, SCREW)
        turn = 7.0
        painter.setPen(pen(color if open_ else T.muted, 3))
        if open_:
            arc = QRectF(x - 10, y - 10, 20, 20)
            painter.drawArc(arc, 30 * 16, 280 * 16)
        else:
            painter.drawLine(middle - QPointF(turn, turn), middle + QPointF(turn, turn))
            painter.drawLine(middle + QPointF(-turn, turn), middle + QPointF(turn, -turn))
        side = 1 if front else -1
        at = QPointF(x + side * (WHEEL[0] / 2 + 10), y - 2)
        screw = self.open.get(wheel, "")
        words = f"OPEN {screw}".strip() if open_ else "shut"
        align = "left" if front else "right"
        write(painter, words, at, size=17, weight=700 if open_ else 500,
              color=color if open_ else T.muted, side=align)  # type: ignore[arg-type]  # fmt: skip
        write(painter, said(wheel), at + QPointF(0, 18), size=15,
              color=T.ink if own else T.muted, side=align)  # type: ignore[arg-type]  # fmt: skip
        if wheel in self.hosed:
            self._draw_bottle(painter, middle, side)

    @staticmethod
    def _draw_bottle(painter: QPainter, wheel: QPointF, side: int) -> None:
        """Draw a bottle outside of the wheel, a hose into it."""
        at = wheel - QPointF(side * (60 + BOTTLE), 26)
        box = QRectF(at.x() - 15, at.y(), 30, 46)
        painter.setPen(pen(T.ink, 2))
        painter.setBrush(QColor(T.sheet))
        painter.drawRoundedRect(box, 5, 5)
        painter.fillRect(box.adjusted(2, 18, -2, -2), QColor(T.fluid[1]))
        painter.setPen(pen(T.ink, 4))
        painter.drawLine(wheel - QPointF(side * WHEEL[0] / 2, 0), at + QPointF(0, 30))
