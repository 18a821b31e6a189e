"""An unmarked body, drawn as it has been told so far."""

from collections.abc import Mapping

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.document.kinds.valves.kind import Seen
from urgens.ui.theme.paint import T, ink, outline, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

BODY = (170.0, 110.0)  # px


class BlockDrawing(Painted):
    """The body as it has been told: ports, wire, stem, knob, lever; what is asked is ringed."""

    def __init__(self) -> None:
        super().__init__()
        self.answers: Mapping[str, Seen] = {}
        self.asked = ""
        self.setMinimumHeight(self.scaled(10, 260).height())

    def show_answers(self, answers: Mapping[str, Seen], question: str) -> None:
        """Show what has been answered, and what is asked now."""
        self.answers, self.asked = dict(answers), question
        told = ", ".join(f"{name} {seen}" for name, seen in answers.items()) or "nothing yet"
        self.setAccessibleName(f"The body as it is told: {told}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            middle = QPointF(self.across / 2, self.down / 2 + 6)
            wide, high = BODY
            box = QRectF(middle.x() - wide / 2, middle.y() - high / 2, wide, high)
            self._draw_ports(painter, box)
            ink(painter, pen(T.ink, 2), QColor(T.steel))
            painter.drawRoundedRect(box, 8, 8)
            if self.answers.get("through") is True:
                painter.setPen(pen(T.muted, 2, Qt.PenStyle.DashLine))
                painter.drawLine(QPointF(box.left(), middle.y()), QPointF(box.right(), middle.y()))
            self._draw_extras(painter, box)
            self._ring(painter, box)

    def _draw_ports(self, painter: QPainter, box: QRectF) -> None:
        """Draw lines in on the right and out on the left, as the cylinder is behind."""
        for name, side, word in (("ins", 1, "in"), ("outs", -1, "out")):
            count = self.answers.get(name)
            known = isinstance(count, int) and not isinstance(count, bool)
            number = count if known and isinstance(count, int) else 1
            for index in range(number):
                y = box.top() + box.height() * (index + 1) / (number + 1)
                start = box.right() if side > 0 else box.left()
                style = Qt.PenStyle.SolidLine if known else Qt.PenStyle.DotLine
                painter.setPen(pen(T.ink, 9 if known else 3, style))
                painter.drawLine(QPointF(start, y), QPointF(start + side * 74, y))
                if known:
                    painter.setPen(pen(T.fluid[1], 5))
                    painter.drawLine(QPointF(start, y), QPointF(start + side * 74, y))
            at = QPointF(
                (box.right() if side > 0 else box.left()) + side * 80, box.center().y() + 5
            )
            words = f"{number if known else '?'} {word}"
            write(painter, words, at, size=15, side="left" if side > 0 else "right")

    def _draw_extras(self, painter: QPainter, box: QRectF) -> None:
        middle = box.center()
        painter.setPen(pen(T.ink, 2))
        if self.answers.get("wire") is True:
            foot, turn = QPointF(middle.x(), box.top()), QPointF(middle.x(), box.top() - 22)
            painter.drawLine(foot, turn)
            painter.drawLine(turn, turn + QPointF(70, -18))
            write(painter, "wire", turn + QPointF(76, -14), size=15)
        painter.setBrush(QColor(T.metal))
        if self.answers.get("stem") is True:
            painter.drawRect(QRectF(box.left() + 16, box.bottom(), 14, 22))
            write(painter, "stem", QPointF(box.left() + 40, box.bottom() + 20), size=15)
        if self.answers.get("knob") is True:
            painter.drawEllipse(QPointF(middle.x(), box.bottom() + 22), 20, 20)
            write(painter, "knob", QPointF(middle.x() + 28, box.bottom() + 30), size=15)
        if self.answers.get("lever") is True:
            painter.setPen(pen(T.ink, 5))
            start = QPointF(box.right() - 26, box.bottom())
            painter.drawLine(start, start + QPointF(70, 40))
            write(painter, "lever to the axle", start + QPointF(-20, 58), size=15)

    def _ring(self, painter: QPainter, box: QRectF) -> None:
        """Ring the place that is asked about."""
        spots = {
            "ins": QPointF(box.right(), box.center().y()),
            "outs": QPointF(box.left(), box.center().y()),
            "wire": QPointF(box.center().x(), box.top()), "through": box.center(),
            "stem": QPointF(box.left() + 22, box.bottom()),
            "knob": QPointF(box.center().x(), box.bottom()),
            "lever": QPointF(box.right() - 22, box.bottom()), "inline": box.center(),
        }  # fmt: skip
        if self.asked in spots:
            outline(painter, T.front, 3)
            painter.drawEllipse(spots[self.asked], 26, 26)
