"""Each half lost, drawn: where the pistons end, how far the pedal falls, what is left."""

from typing import Literal

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QResizeEvent

from urgens.document.kinds.cylinders.tandem import TwoChambers
from urgens.guidance.words.half_lost import LostHalf, dead_is_primary, lost_halves
from urgens.guidance.words.setups import ON_FLOOR
from urgens.physics.axle import AXLES, Axle
from urgens.physics.vehicle import StaticVehicle
from urgens.quantity import LENGTH, show
from urgens.solve import Solution, System
from urgens.solve.half_failed import half_failed_strokes
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, face, ink, metrics, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.painted import Painted

GAP = 28.0  # px between the two halves
STEPS = 168.0  # px: from where the steps are told
FOOT = 198.0  # px under them, for pedal and deceleration
ONE_CIRCUIT = ("One circuit: one leak anywhere takes all braking away.", "Nothing is left.")
MOST_Z = 0.8  # g at the end of its bar


def _at(solution: Solution) -> tuple[System, StaticVehicle, float]:
    """Return what one half lost is looked at for: the load case chosen, on the target road."""
    return solution.system, solution.standing, solution.build.targets.surface


class HalfBoard(Painted):
    """Two columns, one a half."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.halves: tuple[LostHalf, ...] = ()
        self.setMinimumSize(self.scaled(400, 420))

    def refresh(self) -> None:
        """Show the build as it is now."""
        self.halves = lost_halves(self._session.solution, self._session.units)
        self.setAccessibleName("; ".join(f"{h.name}: {h.steps[-1]}" for h in self.halves))
        self._make_room()
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._make_room()

    def _make_room(self) -> None:
        """Be as high as its words want, so that a low window scrolls and cuts none."""
        wide = max((self.across - GAP) / 2 - 22, 40.0)
        tall = [sum(_tall(step, wide) for step in half.steps) for half in self.halves]
        self.setMinimumHeight(self.scaled(0, STEPS + max(tall, default=0.0) + FOOT).height())

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if not self.halves:
                for row, words in enumerate(ONE_CIRCUIT):
                    at = QPointF(0, 40 + 26 * row)
                    write(painter, words, at, size=18, weight=600, color=T.danger)
                return
            wide = (self.across - GAP) / 2
            for index, half in enumerate(self.halves):
                painter.save()
                painter.translate(index * (wide + GAP), 0)
                self._draw_half(painter, half, index, wide)
                painter.restore()
            painter.setPen(pen(T.hair, 1))
            x = wide + GAP / 2
            painter.drawLine(QPointF(x, 0), QPointF(x, self.down))

    def _draw_half(self, painter: QPainter, half: LostHalf, index: int, wide: float) -> None:
        if self._session.solution.system.split != "diagonal":
            (disc if index == 0 else square)(painter, QPointF(8, 12), 7)
        write(painter, half.name, QPointF(22, 18), size=18, weight=700, color=T.ink)
        if self._session.build.master.in_halves:
            self._draw_tandem(painter, index, QRectF(0, 36, wide, 92))
        else:
            self._draw_twin(painter, index, QRectF(0, 36, wide, 92))
        y = STEPS
        for number, step in enumerate(half.steps, start=1):
            write(painter, str(number), QPointF(0, y + 17), size=20, weight=700, color=T.muted)
            painter.setFont(face(17))
            painter.setPen(QColor(T.ink))
            box = QRectF(22, y, wide - 22, 120)
            wrapping = Qt.TextFlag.TextWordWrap
            painter.drawText(box, wrapping, step)
            y += _tall(step, box.width())
        foot = max(y + 8, self.down - FOOT + 8)
        self._draw_pedal(painter, half, QRectF(0, foot, wide, 74))
        self._draw_left(painter, half, QRectF(0, foot + 100, wide, 74))

    def _draw_tandem(self, painter: QPainter, index: int, box: QRectF) -> None:
        """Paint the cylinder with its pistons where they end; the pushrod comes from the right."""
        solution = self._session.solution
        primary_dead = dead_is_primary(solution, index)
        strokes = half_failed_strokes(*_at(solution), index)
        dead, live = (float(s) for s in strokes)
        primary, secondary = (dead, live) if primary_dead else (live, dead)
        chambers = solution.system.volumes.chambers
        lengths = [float(c.stroke) for c in (chambers[index], chambers[1 - index])]
        first, far = lengths if primary_dead else lengths[::-1]
        body = QRectF(box.left() + 2, box.top() + 18, box.width() - 74, 46)
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        painter.drawRoundedRect(body, 4, 4)
        bore = body.adjusted(8, 9, 0, -9)
        per = (bore.width() - 44) / (1.12 * (first + far))
        far_at = bore.left() + (1.06 * far - min(secondary, far)) * per
        near_at = far_at + 14 + (first - min(primary, first)) * per + 0.06 * far * per
        for start, end, is_dead in (
            (bore.left(), far_at, not primary_dead),
            (far_at + 14, near_at, primary_dead),
        ):
            chamber = QRectF(start, bore.top(), max(end - start, 0.0), bore.height())
            painter.fillRect(chamber, QColor(T.danger_ground if is_dead else T.fluid[1]))
        ink(painter, pen(T.ink, 1.5), QColor(T.metal))
        for x in (far_at, near_at):
            painter.drawRect(QRectF(x, bore.top(), 14, bore.height()))
        painter.setPen(pen(T.ink, 4))
        middle = body.center().y()
        painter.drawLine(QPointF(near_at + 14, middle), QPointF(box.right() - 6, middle))
        write(painter, "pushrod", QPointF(box.right() - 4, middle + 22), size=14, side="right")
        sides: tuple[tuple[float, Literal["left", "right"], str, bool], ...] = (
            (box.left(), "left", "secondary", not primary_dead),
            (body.right() + 60, "right", "primary", primary_dead),
        )
        for x, side, word, is_dead in sides:
            color = T.danger if is_dead else T.ink
            state = "lost" if is_dead else "holds"
            write(painter, f"{word} {state}", QPointF(x, box.top() + 12), size=15, weight=600,
                  color=color, side=side)  # fmt: skip
        for line, words in enumerate(self._feeds()):
            write(painter, words, QPointF(box.left(), box.bottom() - 4 + 19 * line), size=15)

    def _feeds(self) -> tuple[str, ...]:
        solution = self._session.solution
        if solution.system.split == "diagonal":
            return ("each chamber feeds one front", "and one rear wheel")
        master = solution.build.master
        assert isinstance(master, TwoChambers)
        other = Axle(master.primary_feeds).other
        return (f"primary feeds the {master.primary_feeds},", f"secondary the {other}")

    def _draw_twin(self, painter: QPainter, index: int, box: QRectF) -> None:
        """Paint both cylinders and the bar as it tips."""
        solution = self._session.solution
        dead, live = (float(s) for s in half_failed_strokes(*_at(solution), index))
        taken = (dead, live) if index == 0 else (live, dead)
        stroke = float(solution.system.volumes.chambers[index].stroke)
        ends = []
        for row, (run, name) in enumerate(zip(taken, AXLES, strict=True)):
            y = box.top() + 8 + row * 44
            body = QRectF(box.left() + 44, y, box.width() - 150, 30)
            ink(painter, pen(T.ink, 2), QColor(T.steel))
            painter.drawRoundedRect(body, 4, 4)
            bore = body.adjusted(6, 6, 0, -6)
            share = 1.0 - min(run / stroke, 1.0)
            at = bore.left() + (bore.width() - 26) * share + 4
            lost = row == index
            ground = T.danger_ground if lost else T.fluid[1]
            painter.fillRect(QRectF(bore.left(), bore.top(), at - bore.left(), 18), QColor(ground))
            ink(painter, pen(T.ink, 1.5), QColor(T.metal))
            painter.drawRect(QRectF(at, bore.top(), 12, 18))
            end = QPointF(at + 12 + 60, body.center().y())
            painter.setPen(pen(T.ink, 4))
            painter.drawLine(QPointF(at + 12, body.center().y()), end)
            color = T.danger if lost else T.ink
            write(painter, name, QPointF(box.left(), y + 20), size=15, weight=600, color=color)
            ends.append(end)
        painter.setPen(pen(T.ink, 5))
        painter.drawLine(*ends)

    def _draw_pedal(self, painter: QPainter, half: LostHalf, box: QRectF) -> None:
        units = self._session.units
        floor = float(self._session.solution.system.volumes.floor)
        gone = np.isnan(half.travel)
        words = ON_FLOOR if gone else str(show(floor - half.travel, LENGTH, units))
        write(painter, "Pedal left", QPointF(box.left(), box.top() + 16), size=16, color=T.ink)
        write(painter, words, QPointF(box.right(), box.top() + 18), size=22, weight=700,
              color=T.danger if gone else T.ink, side="right")  # fmt: skip
        bar = QRectF(box.left(), box.top() + 28, box.width(), 14)
        painter.fillRect(bar, QColor(T.band))
        used = bar.width() * (1.0 if gone else half.travel / floor)
        painter.fillRect(
            QRectF(bar.left(), bar.top(), used, 14), QColor(T.danger if gone else T.fluid[1])
        )
        said = "travel used, to the floor"
        if half.shut_travel is not None and np.isfinite(half.shut_travel):
            x = bar.left() + bar.width() * half.shut_travel / floor
            painter.setPen(pen(T.ink, 3))
            painter.drawLine(QPointF(x, bar.top() - 4), QPointF(x, bar.bottom() + 4))
            left = show(floor - half.shut_travel, LENGTH, units)
            said = f"line shut by the shuttle: {left} left"
        write(painter, said, QPointF(box.left(), box.top() + 60), size=15)

    def _draw_left(self, painter: QPainter, half: LostHalf, box: QRectF) -> None:
        good = half.meets_rule
        color = T.ink if good else T.danger
        write(painter, "Deceleration left", QPointF(box.left(), box.top() + 16), size=16,
              color=T.ink)  # fmt: skip
        write(painter, f"{half.left:.2f} g", QPointF(box.right(), box.top() + 18), size=22,
              weight=700, color=color, side="right")  # fmt: skip
        bar = QRectF(box.left(), box.top() + 28, box.width(), 14)
        painter.fillRect(bar, QColor(T.band))
        share = min(half.left / MOST_Z, 1.0)
        painter.fillRect(
            QRectF(bar.left(), bar.top(), bar.width() * share, 14),
            QColor(T.good if good else T.danger),
        )
        rule = self._session.solution.system.rule
        x = bar.left() + bar.width() * rule.failed.z / MOST_Z
        painter.setPen(pen(T.ink, 3))
        painter.drawLine(QPointF(x, bar.top() - 4), QPointF(x, bar.bottom() + 4))
        asked = f"{rule.failed.z:.2f} asked by {rule.name}"
        at = QPointF(min(x - 2, box.right() - width(asked, 15)), box.top() + 60)
        write(painter, asked, at, size=15)
        if np.isnan(half.travel):
            words = "had the pedal not met the floor"
            below = QPointF(box.left(), at.y() + 19)
            write(painter, words, below, size=15, color=T.danger)


def _tall(step: str, wide: float) -> float:
    """Return how high a step is in so many px, with the room below it [px]."""
    box, wrapping = QRectF(0, 0, wide, 400), Qt.TextFlag.TextWordWrap
    return metrics(17).boundingRect(box, wrapping, step).height() + 10
