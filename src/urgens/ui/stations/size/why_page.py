"""Why: three sayings of the trade, drawn with this build's own figures."""

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from urgens.document.kinds.bores import sold_bores
from urgens.guidance.words.reasons import BoreRow, bore_rows, clamp
from urgens.physics.axle import Axle
from urgens.quantity import AREA, FORCE, LENGTH, PRESSURE, UnitSystem, show
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, face, ink, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.seen import WhenSeen

BORES = ("5/8 in", "3/4 in", "7/8 in", "1 in", "1-1/8 in", "1-1/4 in")
GAP = 26.0  # px between two reasons


class WhyView(Painted):
    """Three drawings beside each other, each with its sentence."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.rows: tuple[BoreRow, ...] = ()
        self.setMinimumSize(self.scaled(560, 420))
        session.press_changed.connect(WhenSeen(self, self.refresh, stale=False).ask)

    def refresh(self) -> None:
        """Work out the reasons for the build and the press as they are now."""
        texts = {bore.text: bore.value for bore in sold_bores()}
        solution, effort = self._session.solution, self._session.effort
        self.rows = bore_rows(solution, effort, [(text, texts[text]) for text in BORES])
        self.setAccessibleName("; ".join((self.smaller, self.biggest, self.clamped)))
        self.update()

    @property
    def smaller(self) -> str:
        """Why a smaller bore gives more pressure."""
        return (
            "Pressure is the force on the piston over its area. The foot and the lever give the "
            "force; a smaller piston spreads it over less, so every bit of it carries more."
        )

    @property
    def biggest(self) -> str:
        """Why the biggest bore is a myth."""
        return (
            "A big bore moves more fluid with less travel and hides air and a flexing caliper, and "
            "it is paid for by the leg: the same deceleration takes more foot. Cure the air."
        )

    @property
    def clamped(self) -> str:
        """Why a clamp is a force."""
        inch = self._session.units.system is UnitSystem.INCH
        return (
            "Pressure times piston area is a force. Pounds per square inch times square inches "
            "are pounds: a clamp is never given in psi."
            if inch
            else "Pressure times piston area is a force. Bar times square centimetres come to tens "
            "of newtons: a clamp is never given in bar."
        )

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            wide = (self.across - 2 * GAP) / 3
            for index, (title, words, draw) in enumerate(
                (
                    ("A smaller bore gives more pressure", self.smaller, self._draw_pressure),
                    ("The biggest bore is a myth", self.biggest, self._draw_cost),
                    ("Force is not pressure", self.clamped, self._draw_clamp),
                )
            ):
                painter.save()
                painter.translate(index * (wide + GAP), 0)
                painter.setPen(pen(T.ink))
                painter.setFont(face(18, 700))
                flags = Qt.TextFlag.TextWordWrap
                painter.drawText(QRectF(0, 0, wide, 50), flags, title)
                draw(painter, QRectF(0, 56, wide, self.down - 56 - 150))
                painter.setFont(face(16))
                painter.setPen(QColor(T.ink))
                foot = QRectF(0, self.down - 140, wide, 140)
                painter.drawText(foot, flags, words)
                painter.restore()

    def _row(self, box: QRectF, index: int) -> tuple[float, float]:
        """Return top and height of one bore's row."""
        tall = min((box.height() - 24) / len(self.rows), 62.0)
        return box.top() + 24 + index * tall, tall

    def _draw_pressure(self, painter: QPainter, box: QRectF) -> None:
        """Draw each bore as the disc it is, and the pressure it makes as a bar."""
        units = self._session.units
        force = float(self._session.presses.booster_output)
        said = f"{show(force, FORCE, units)} on the piston"
        write(painter, said, QPointF(0, box.top() + 12), size=15)
        largest = max(row.bore for row in self.rows)
        most = max(max(row.pressure for row in self.rows), 1.0)
        for index, row in enumerate(self.rows):
            top, tall = self._row(box, index)
            radius = 0.42 * tall * row.bore / largest
            color = T.front if row.own else T.ink
            ink(painter, pen(T.ink, 1.5), QColor(T.fluid[1]))
            painter.drawEllipse(QPointF(26, top + tall / 2), radius, radius)
            weight = 700 if row.own else 500
            write(painter, row.text, QPointF(58, top + tall / 2 + 5), size=15, weight=weight,
                  color=color)  # fmt: skip
            left = 118.0
            length = (box.width() - left - 68) * row.pressure / most
            painter.fillRect(QRectF(left, top + tall / 2 - 7, length, 14), QColor(T.fluid[1]))
            figure = str(show(row.pressure, PRESSURE, units))
            write(painter, figure, QPointF(left + length + 5, top + tall / 2 + 5), size=15,
                  weight=weight, color=color)  # fmt: skip

    def _draw_cost(self, painter: QPainter, box: QRectF) -> None:
        """Draw the foot each bore asks for the same deceleration, and the travel it takes."""
        units = self._session.units
        wanted = self._session.build.targets.deceleration
        write(painter, f"foot for {wanted:g} g, and travel", QPointF(0, box.top() + 12), size=15)
        efforts = [row.effort for row in self.rows if np.isfinite(row.effort)]
        most, floor = max(efforts, default=1.0), self._session.solution.system.volumes.floor
        left = max(62.0, 6.0 + max(width(row.text, 15, 700) for row in self.rows))
        for index, row in enumerate(self.rows):
            top, tall = self._row(box, index)
            middle = top + tall / 2
            color, weight = (T.front, 700) if row.own else (T.ink, 500)
            write(painter, row.text, QPointF(0, middle + 5), size=15, weight=weight, color=color)
            room = box.width() - left - 62
            if not np.isfinite(row.effort):
                write(painter, "out of reach", QPointF(left, middle + 5), size=15, color=T.danger)
                continue
            painter.fillRect(QRectF(left, middle - 14, room * row.effort / most, 12),
                             QColor(T.metal))  # fmt: skip
            figure = str(show(row.effort, FORCE, units))
            write(painter, figure, QPointF(left + room * row.effort / most + 5, middle - 3),
                  size=15, weight=weight, color=color)  # fmt: skip
            share = min(row.travel / float(floor), 1.0)
            painter.fillRect(QRectF(left, middle + 3, room * share, 8), QColor(T.fluid[1]))
            past = row.travel > float(floor)
            travel = "floor" if past else str(show(row.travel, LENGTH, units))
            write(painter, travel, QPointF(left + room * share + 5, middle + 13), size=14,
                  color=T.danger if past else T.muted)  # fmt: skip

    def _draw_clamp(self, painter: QPainter, box: QRectF) -> None:
        """Draw area times pressure for the brakes of each axle."""
        units, y = self._session.units, box.top() + 12
        for one in clamp(self._session.solution, self._session.presses):
            color = T.front if one.axle is Axle.FRONT else T.rear
            write(
                painter, f"{one.axle} {one.part}", QPointF(0, y), size=16, weight=700, color=color
            )
            rows = (
                ("pressure", show(one.pressure, PRESSURE, units), ""),
                ("piston area", show(one.area, AREA, units), "×"),
                (one.gives, show(one.force, FORCE, units), "="),
            )
            for number, (name, figure, sign) in enumerate(rows):
                at = y + 28 + number * 30
                bold = number == 2
                write(painter, sign, QPointF(0, at), size=18, weight=700)
                write(painter, name, QPointF(20, at), size=15)
                size, weight = (22, 700) if bold else (18, 500)
                write(painter, figure.number, QPointF(box.width() - 52, at), size=size,
                      weight=weight, color=T.ink, side="right")  # fmt: skip
                write(painter, figure.unit, QPointF(box.width() - 46, at), size=15)
                if number == 1:
                    painter.setPen(pen(T.ink, 1.5))
                    painter.drawLine(QPointF(0, at + 8), QPointF(box.width() - 10, at + 8))
            y += 150


class WhyPage(Page):
    """One key away from every other page."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = WhyView(session)
        self.more = push_button(
            "What else is said, tried on this build",
            "quiet",
            lambda: self.place_asked.emit("sayings:"),
        )
        whole = QWidget()
        column = tight(QVBoxLayout(whole))
        column.addWidget(self.view, 1)
        column.addWidget(self.more, 0, Qt.AlignmentFlag.AlignLeft)
        self.lay_out(whole, side=0)

    @property
    def summary(self) -> str:
        """What the page is for."""
        return "with this build, at this press; ? goes back"

    def show_figures(self) -> None:
        """Draw the reasons."""
        self.view.refresh()
