"""What the press does to the car: line pressures, deceleration, grip, verdict."""

import math

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from urgens.guidance import Severity
from urgens.physics.vehicle import attainable, stopping_distance
from urgens.quantity import DISTANCE, PRESSURE, SPEED, UnitSystem, parse, show
from urgens.ui.press.verdict import PressState, verdict
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, face, fluid, laid_out, metrics, pen, width
from urgens.ui.widgets.marks import disc, severity_mark, square
from urgens.ui.widgets.painted import Painted

FROM_SPEED = {UnitSystem.INCH: "60 mph", UnitSystem.METRIC: "100 km/h"}
DIM = 0.42  # of what the road does, where the vehicle stands
_LEFT = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
_RIGHT = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter


class PressReadout(Painted):
    """A painted part of the press that follows the session."""

    def __init__(self, session: Session, height: int, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self._height = height
        self.dimmed = False  # where the vehicle stands
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        session.press_changed.connect(self._refresh)
        self._refresh()

    def sizeHint(self) -> QSize:
        return self.scaled(232, self._height)

    def _refresh(self) -> None:
        self.setAccessibleName(self.words())
        self.update()

    def words(self) -> str:
        """Return what it shows, in words."""
        raise TypeError(f"{type(self).__name__} says nothing")

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            painter.setPen(pen(T.hair))
            painter.drawLine(QPointF(0, 0), QPointF(self.across, 0))
            if self.dimmed:
                painter.setOpacity(DIM)
            self.draw(painter)

    def draw(self, painter: QPainter) -> None:
        """Paint below the hairline."""
        raise TypeError(f"{type(self).__name__} draws nothing")


def _text(
    painter: QPainter,
    box: QRectF,
    words: str,
    size: int,
    color: str,
    weight: int = 400,
    align: Qt.AlignmentFlag = _LEFT,
    *,
    condensed: bool = True,
) -> None:
    painter.setFont(face(size, weight, condensed=condensed))
    painter.setPen(pen(color))
    room = box.width() - width(words, size, weight, condensed=condensed)
    share = 0.0 if align & Qt.AlignmentFlag.AlignLeft else 1.0
    share = 0.5 if align & Qt.AlignmentFlag.AlignHCenter else share
    high = metrics(size, weight, condensed=condensed).height()
    corner = box.topLeft() + QPointF(share * room, (box.height() - high) / 2.0)
    painter.drawStaticText(corner, laid_out(words, size, weight, condensed=condensed))


SIZES = (36, 32, 28, 24, 1)  # px: as large as a figure of so many digits fits


class LinePressures(PressReadout):
    """Front and rear line pressure, large, over a bar of fluid."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, 92, parent)

    def words(self) -> str:
        front, rear = self._shown()
        return f"Front line {front}, rear line {rear}"

    def _shown(self) -> tuple[str, str]:
        pressed, units = self._session.pressed, self._session.units
        front = str(show(float(pressed.front_pressure), PRESSURE, units))
        return front, str(show(float(pressed.rear_pressure), PRESSURE, units))

    def draw(self, painter: QPainter) -> None:
        session = self._session
        most = float(session.hardest.front_pressure)
        half = self.across / 2
        pressed = session.pressed
        columns = (
            ("Front line", float(pressed.front_pressure), T.front, disc),
            ("Rear line", float(pressed.rear_pressure), T.rear, square),
        )
        for index, (name, pressure, color, mark) in enumerate(columns):
            left = index * (half + 4)
            mark(painter, QPointF(left + 6, 19), 6)
            _text(painter, QRectF(left + 18, 8, half, 22), name, 15, color, 600)
            shown = show(pressure, PRESSURE, session.units)
            room = half - 14 - width(shown.unit, 16)
            size = next(s for s in SIZES if width(shown.number, s, 600, condensed=False) <= room)
            _text(
                painter, QRectF(left, 30, half, 44), shown.number, size, color, 600,
                condensed=False,
            )  # fmt: skip
            wide = width(shown.number, size, 600, condensed=False)
            _text(painter, QRectF(left + wide + 5, 40, 40, 32), shown.unit, 16, T.muted)
            bar = QRectF(left, 78, half - 12, 7)
            painter.fillRect(bar, QColor(T.band))
            share = min(pressure / most, 1.0) if most else 0.0
            painter.fillRect(
                QRectF(bar.left(), bar.top(), bar.width() * share, 7), fluid(0.4 + 0.6 * share)
            )


class Deceleration(PressReadout):
    """Deceleration, and what the road gives; distance to a stop."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, 70, parent)

    def words(self) -> str:
        return f"Deceleration {self._number()} g; {self._road()}; {self._distance()}"

    def _number(self) -> str:
        return f"{float(self._session.pressed.achieved_z):.2f}"

    def _road(self) -> str:
        solution = self._session.pressed_solution
        standing = solution.standing
        most = min(float(attainable(standing, solution.surface)), float(standing.lifts))
        return f"road gives {most:.2f} g"

    def _distance(self) -> str:
        units = self._session.units
        start = parse(FROM_SPEED[units.system], SPEED).value
        speed = show(start, SPEED, units)
        distance = float(stopping_distance(start, float(self._session.pressed.achieved_z)))
        if not math.isfinite(distance) or distance > 5000:
            return f"no stop from {speed}"
        return f"{show(distance, DISTANCE, units)} from {speed}"

    def draw(self, painter: QPainter) -> None:
        number = self._number()
        _text(painter, QRectF(0, 8, 130, 54), number, 40, T.ink, 700, condensed=False)
        wide = width(number, 40, 700, condensed=False)
        _text(painter, QRectF(wide + 5, 22, 24, 36), "g", 22, T.muted)
        _text(painter, QRectF(90, 12, self.across - 90, 22), self._road(), 15, T.muted, 400, _RIGHT)
        _text(
            painter,
            QRectF(90, 34, self.across - 90, 22),
            self._distance(),
            15,
            T.muted,
            400,
            _RIGHT,
        )


class Grip(PressReadout):
    """How near each axle is to locking."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, 106, parent)

    def _rows(self) -> tuple[tuple[str, str, float, str], ...]:
        pressed, surface = self._session.pressed, self._session.pressed_solution.surface
        rows = []
        for name, color, used, locked in (
            ("Front", T.front, float(pressed.front_used), bool(pressed.front_locked)),
            ("Rear", T.rear, float(pressed.rear_used), bool(pressed.rear_locked)),
        ):
            lifted = math.isnan(used)
            share = 1.0 if lifted or locked else min(used / surface, 1.0)
            word = "lifted" if lifted else "locked" if locked else f"{share * 100:.0f} %"
            rows.append((name, color, share, word))
        return tuple(rows)

    def words(self) -> str:
        return "Grip used: " + ", ".join(f"{name} {word}" for name, _, _, word in self._rows())

    def draw(self, painter: QPainter) -> None:
        _text(painter, QRectF(0, 8, 120, 20), "Grip used", 15, T.muted)
        _text(
            painter, QRectF(100, 8, self.across - 100, 20), "wheels lock", 15, T.danger, 600, _RIGHT
        )
        left, right = 52.0, self.across - 2.0
        for index, (name, color, share, word) in enumerate(self._rows()):
            top = 32 + index * 34
            _text(painter, QRectF(0, top, left, 26), name, 16, color, 600)
            painter.fillRect(QRectF(left, top, right - left, 26), QColor(T.band))
            bar = QRectF(left, top, (right - left) * share, 26)
            painter.fillRect(bar, QColor(color))
            if name == "Rear":
                _stripes(painter, bar)
            self._paint_word(painter, bar, word, right)
            painter.setPen(pen(T.danger, 3))
            painter.drawLine(QPointF(right, top - 3), QPointF(right, top + 29))

    def _paint_word(self, painter: QPainter, bar: QRectF, word: str, right: float) -> None:
        stuck = not word.endswith("%")
        wide = width(word, 16, 600) + 14
        if stuck or bar.width() > wide + 4:
            box = QRectF(min(bar.right(), right) - wide - 3, bar.top() + 2, wide, 22)
            ground = T.danger if stuck else (T.front if "Front" in word else None)
            if stuck:
                painter.fillRect(box, QColor(ground))
            elif bar.top() > 50:
                painter.fillRect(box, QColor(T.rear))
            _text(painter, box, word, 16, T.sheet, 600, Qt.AlignmentFlag.AlignCenter)
        else:
            _text(painter, QRectF(bar.right() + 6, bar.top(), wide, 26), word, 16, T.ink, 600)


def _stripes(painter: QPainter, bar: QRectF) -> None:
    """Hatch the rear's bar, so that it is told from the front's without colour."""
    painter.save()
    painter.setClipRect(bar)
    painter.setPen(pen(T.sheet, 1.5))
    x = bar.left() - bar.height()
    while x < bar.right():
        painter.drawLine(QPointF(x, bar.bottom()), QPointF(x + 14, bar.top()))
        x += 9
    painter.restore()


class VerdictView(PressReadout):
    """Which axle locks first, in words, with the margin in effort."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, 64, parent)

    def words(self) -> str:
        said = verdict(self._session.pressed_solution, self._session.pressed, self._session.units)
        return f"{said.heading}: {said.detail}"

    def draw(self, painter: QPainter) -> None:
        said = verdict(self._session.pressed_solution, self._session.pressed, self._session.units)
        bad = said.outcome in (PressState.REAR_FIRST, PressState.REAR_LOCKED)
        color = T.danger if bad else T.ink if said.outcome is PressState.NOTHING else T.front
        center = QPointF(9, 22)
        if bad:
            severity_mark(painter, Severity.DANGER, center, 10)
        elif said.outcome is PressState.NOTHING:
            severity_mark(painter, None, center, 8)
        else:
            disc(painter, center, 7)
        _text(painter, QRectF(26, 10, self.across - 26, 24), said.heading, 18, color, 600)
        _text(painter, QRectF(0, 36, self.across, 22), said.detail, 16, T.ink, 500)
