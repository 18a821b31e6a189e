"""The centre of gravity's height by raising one axle: drawn, computed, taken over."""

import math

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPolygonF, QShowEvent, QTransform
from PySide6.QtWidgets import (
    QDialog,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.document import BuildChange
from urgens.document.readings import HeightEstimate, Lifting, RaisedAxleReadings
from urgens.document.vehicle import LoadCase
from urgens.physics import raised_axle
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import LENGTH, LOAD, UnitSystem, parse, retype, show
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, hatch, ink, pen
from urgens.ui.widgets.board import measure, write
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import spaced, tab_by_eye
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.plain import plain_label
from urgens.ui.widgets.side_view import SideView
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded

MOST_LIFTINGS = 4
WANTED = 0.0254  # m; how exact the height should be for the balance
CAUTIONS = (
    "Level ground, chocks at the axle that stays down, nobody in or under the vehicle. Raise it by "
    "a hub or the axle, never by the body, and stand it on stands. Brakes off and gear out so that "
    "the wheels turn; suspension blocked at its ride height; tanks full or empty."
)
ERRORS = {UnitSystem.INCH: ("2 lb", "1/8 in"), UnitSystem.METRIC: ("1 kg", "3 mm")}


class TiltView(Painted):
    """The vehicle with one axle raised, as far as was typed."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.lift = 0.0  # m
        self.raised = Axle.FRONT
        self.setMinimumSize(self.scaled(440, 260))
        self.setAccessibleName("The vehicle with one axle raised")

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            solution = self._session.solution
            view = SideView.of(solution.build, solution.system)
            road = self.down - 30
            room = QRectF(24, 30, self.across - 48, road - 30)
            high = view.extent.height() + 0.35 * view.wheelbase
            scale = min(room.width() / view.extent.width(), room.height() / high)
            left = room.center().x() - scale * view.extent.center().x()
            level = QTransform(scale, 0, 0, -scale, left, road)
            front_up = self.raised is Axle.FRONT
            stays, radius = (
                (view.wheelbase, view.rear_radius) if front_up else (0.0, view.front_radius)
            )
            turn = math.degrees(math.asin(min(self.lift / view.wheelbase, 0.9)))
            about = QTransform.fromTranslate(-stays, -radius)
            about *= QTransform().rotate(-turn if front_up else turn)
            about *= QTransform.fromTranslate(stays, radius)
            tilted = about * level
            painter.setPen(pen(T.ink, 2))
            painter.drawLine(QPointF(0, road), QPointF(self.across, road))
            view.paint(painter, tilted)
            raised = QPointF(0.0 if front_up else view.wheelbase, 0.0)
            foot = tilted.map(raised)
            self._paint_stand(painter, foot, road)
            down = level.map(QPointF(stays, 0.0))
            ink(painter, pen(T.ink, 2), QColor(T.metal))
            painter.drawRect(QRectF(down.x() - 30, road, 60, 10))
            write(painter, "scales", QPointF(down.x(), road + 25), side="middle")

    def _paint_stand(self, painter: QPainter, foot: QPointF, road: float) -> None:
        if self.lift <= 0:
            return
        ink(painter, pen(T.ink, 1.5), hatch(T.muted))
        top, wide = foot.y(), 26.0
        painter.drawPolygon(
            QPolygonF(
                [
                    QPointF(foot.x() - 8, top),
                    QPointF(foot.x() + 8, top),
                    QPointF(foot.x() + wide, road),
                    QPointF(foot.x() - wide, road),
                ]
            )
        )
        painter.setBrush(Qt.BrushStyle.NoBrush)
        side = -44 if self.raised is Axle.FRONT else 44
        measure(painter, QPointF(foot.x() + side, top), QPointF(foot.x() + side, road))
        words = str(show(self.lift, LENGTH, self._session.units))
        at = QPointF(foot.x() + side * 1.15, (top + road) / 2 + 5)
        write(painter, words, at, color=T.ink, side="right" if side < 0 else "left")


class RaisedAxle(QDialog):
    """Asks for liftings and what the scales read; takes the height over into the load case."""

    taken = Signal()

    def __init__(self, session: Session, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Height of the centre of gravity, by raising one axle")
        self._session = session
        self.view = TiltView(session)
        self.raised: dict[Axle, QToolButton] = {}
        self.liftings: list[tuple[TypedLabel, TypedLabel]] = []
        self._rows = QGridLayout()
        scale, tape = ERRORS[session.units.system]
        self.scale_error = self._typed("Scales are off by", LOAD, scale)
        self.lift_error = self._typed("The lift is off by", LENGTH, tape)
        self.said = worded("", "heading")
        self.said.setWordWrap(True)
        self.advice = plain_label()
        self.advice.setProperty("role", "muted")
        self.advice.setWordWrap(True)
        self.more = push_button("One more lifting", "", self.add_lifting)
        self.take = QPushButton()
        self.take.setProperty("role", "primary")
        self.take.clicked.connect(self._take)
        self._lay_out()
        self.add_lifting()
        self._recall()

    def _typed(self, name: str, kind: object, start: str = "") -> TypedLabel:
        units = self._session.units
        return TypedLabel(name, kind, units, self.refresh, start=start, parent=self)  # type: ignore[arg-type]

    def _lay_out(self) -> None:
        which = QHBoxLayout()
        which.addWidget(worded("Raise the", "muted"))
        for axle in AXLES:
            button = QToolButton()
            button.setText(axle)
            button.setCheckable(True)
            button.setProperty("segment", "true")
            button.clicked.connect(lambda _=False, a=axle: self.raise_axle(a))
            which.addWidget(button)
            self.raised[axle] = button
        which.addStretch()
        errors = QGridLayout()
        for row, label in enumerate((self.scale_error, self.lift_error)):
            words = "Scales, each reading, ±" if row == 0 else "Lift, ±"
            errors.addWidget(worded(words, "muted"), row, 0)
            errors.addWidget(label, row, 1)
        right = spaced(QVBoxLayout(), 10)
        right.addLayout(which)
        right.addLayout(self._rows)
        right.addWidget(self.more)
        right.addLayout(errors)
        right.addWidget(self.said)
        right.addWidget(self.advice)
        right.addStretch()
        close = push_button("Close", "", self.reject)
        feet = QHBoxLayout()
        feet.addWidget(close)
        feet.addWidget(self.take, 1)
        right.addLayout(feet)
        caution = worded(CAUTIONS, "muted")
        caution.setWordWrap(True)
        left = QVBoxLayout()
        left.addWidget(self.view, 1)
        left.addWidget(caution)
        both = spaced(QHBoxLayout(self), 24)
        both.addLayout(left, 1)
        both.addLayout(right)
        self.resize(940, 560)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.layout().activate()  # type: ignore[union-attr]  # it has one
        tab_by_eye(self)
        self.liftings[0][0].setFocus()

    def raise_axle(self, axle: Axle) -> None:
        """Raise the front or the rear axle."""
        self.view.raised = axle
        self.refresh()

    def add_lifting(self) -> None:
        """Ask for one more lift and reading."""
        row = len(self.liftings) + 1
        if row == 1:
            self._rows.addWidget(worded("hubs raised by", "muted"), 0, 0)
            self._rows.addWidget(worded("the other axle reads", "muted"), 0, 1)
        pair = self._typed(f"Lift {row}", LENGTH), self._typed(f"Reading {row}", LOAD)
        self.liftings.append(pair)
        for column, label in enumerate(pair):
            self._rows.addWidget(label, row, column)
            label.show()
        self.more.setEnabled(row < MOST_LIFTINGS)
        self.refresh()
        if self.isVisible():
            self.layout().activate()  # type: ignore[union-attr]  # it has one
            tab_by_eye(self)
            pair[0].setFocus()

    # --- what comes out ----------------------------------------------------------------------

    @property
    def _case(self) -> LoadCase:
        return self._session.build.vehicle.load_cases[self._session.solution.case]

    @property
    def _path(self) -> str:
        return f"vehicle.load_cases[{self._session.solution.case}].cg_height"

    @property
    def _radii(self) -> tuple[float, float]:
        build = self._session.build
        return build.front.tyre.radius, build.rear.tyre.radius

    def readings(self) -> RaisedAxleReadings | None:
        """Return what was read, None while there is no whole lifting."""
        whole = tuple(
            Lifting.model_construct(lift=lift.quantity, load=read.quantity)
            for lift, read in self.liftings
            if lift.quantity is not None and read.quantity is not None and lift.value
        )
        if not whole:
            return None
        nothing = parse("0 kg", LOAD), parse("0 mm", LENGTH)
        return RaisedAxleReadings.model_construct(
            kind="raised-axle", raised=self.view.raised,
            front_axle=self._case.front_axle, rear_axle=self._case.rear_axle, liftings=whole,
            scale_error=self.scale_error.quantity or nothing[0],
            lift_error=self.lift_error.quantity or nothing[1],
        )  # fmt: skip

    def found(self) -> HeightEstimate | str | None:
        """Return the height, or what is wrong with the readings, or None while there are none."""
        readings = self.readings()
        if readings is None:
            return None
        try:
            return readings.height(self._session.build.vehicle.wheelbase.value, self._radii)
        except ValueError as error:
            return str(error)

    def _recall(self) -> None:
        """Show again what the height was worked out from, if that is kept."""
        known = self._session.build.evidence.get(self._path)
        if known is None or not isinstance(known.readings, RaisedAxleReadings):
            return
        kept = known.readings
        self.view.raised = kept.raised
        self.scale_error.set_text(kept.scale_error.text)
        self.lift_error.set_text(kept.lift_error.text)
        for index, one in enumerate(kept.liftings[:MOST_LIFTINGS]):
            if index == len(self.liftings):
                self.add_lifting()
            lift, read = self.liftings[index]
            lift.set_text(one.lift.text)
            read.set_text(one.load.text)

    def refresh(self) -> None:
        """Show what the readings say."""
        for axle, button in self.raised.items():
            button.setChecked(axle == self.view.raised)
        if not self.liftings:
            return
        lifts = [lift.value for lift, _ in self.liftings if lift.value is not None]
        self.view.lift = lifts[-1] if lifts else 0.0
        self.view.update()
        found, units = self.found(), self._session.units
        self.take.setEnabled(isinstance(found, HeightEstimate))
        self.take.setText("Take it")
        if isinstance(found, HeightEstimate):
            high, error = (show(v, LENGTH, units) for v in (found.height, found.error))
            self.said.setText(f"{high} above the road, ±{error}")
            self.take.setText(f"Take {high}")
        else:
            self.said.setText(found or "Type how far the hubs are raised, and the reading.")
        self.advice.setText(self._advice(found))

    def _advice(self, found: HeightEstimate | str | None) -> str:
        """Return how high to lift, at the scale and tape that were typed."""
        case, wheelbase = self._case, self._session.build.vehicle.wheelbase.value
        weight = case.front_axle.value + case.rear_axle.value
        share = case.rear_axle.value / weight
        radius = self._radii[0] * (1.0 - share) + self._radii[1] * share
        high = found.height if isinstance(found, HeightEstimate) else case.cg_height.value
        scale, tape = self.scale_error.value or 0.0, self.lift_error.value or 0.0
        least = raised_axle.least_lift(weight, wheelbase, high - radius, scale, tape, WANTED)
        wanted = show(WANTED, LENGTH, self._session.units)
        if math.isnan(least):
            return f"With these scales no lift is enough for ±{wanted}."
        return f"For ±{wanted} raise it by {show(least, LENGTH, self._session.units)} or more."

    def _take(self) -> None:
        found, readings, session = self.found(), self.readings(), self._session
        if not isinstance(found, HeightEstimate) or readings is None:
            return
        plural = "s" if found.count > 1 else ""
        known = {
            "state": "measured",
            "spread": retype(found.error, LENGTH, session.units),
            "note": f"{self.view.raised} axle raised, {found.count} lifting{plural}",
            "readings": readings.model_dump(mode="json"),
        }
        typed = retype(found.height, LENGTH, session.units)
        session.make(
            BuildChange(f"Height {typed}, measured", {self._path: typed}, {self._path: known})
        )
        self.accept()
