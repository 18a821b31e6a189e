"""The press panel: effort and travel on top, then pedal, pressures, deceleration, grip, verdict."""

import math

from PySide6.QtCore import QPointF, QSize
from PySide6.QtGui import QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.quantity import (
    FORCE,
    LENGTH,
    QuantityError,
    Units,
    UnitSystem,
    completed,
    parse,
    places,
    retype,
    show,
)
from urgens.ui.press.pedal import PedalView
from urgens.ui.press.readings import Deceleration, Grip, LinePressures, VerdictView
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.board import write
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.plain import plain_label, point_out

HINT = "drag the pad  ·  ↑ ↓  ·  type"
ROOMY = 620  # px of height, from which there is room for a hint
FAR_ROOMY = 900  # px of height, from which there is room for the pedal when standing back
FAR_TIGHT = 700  # px of height, from which there is room for pressures when standing back
STEP = {UnitSystem.INCH: parse("1 lbf", FORCE).value, UnitSystem.METRIC: 5.0}  # N


def _read_off(units: Units) -> int:
    """Return the places of a travel as a hand reads it off: one fewer than what is measured has."""
    return max(places(LENGTH, units) - 1, 0)


class TravelView(Painted):
    """Pedal travel now, and how far the floor is."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        session.press_changed.connect(self._refresh)
        self._refresh()

    def sizeHint(self) -> QSize:
        return self.scaled(116, 74)

    def _refresh(self) -> None:
        self.setAccessibleName(f"Pedal travel {self.text}")
        self.update()

    @property
    def text(self) -> str:
        """The travel as shown."""
        travel, units = float(self._session.pressed.pedal_travel), self._session.units
        if math.isnan(travel):
            return "no more"
        return str(show(travel, LENGTH, units, _read_off(units)))

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            units = self._session.units
            floor = float(self._session.pressed_solution.system.volumes.floor)
            ended = math.isnan(float(self._session.pressed.pedal_travel))
            to_floor = show(floor, LENGTH, units, _read_off(units))
            color = T.danger if ended else T.ink
            left = "stroke or floor" if ended else f"of {to_floor.number} to the floor"
            for words, size, weight, ink, y in (
                ("Pedal travel", 15, 400, T.muted, 16.0),
                (self.text, 26, 600, color, 46.0),
                (left, 14, 400, T.danger if ended else T.muted, 67.0),
            ):
                at = QPointF(self.across, y)
                write(painter, words, at, size=size, weight=weight, color=ink, side="right")


class PressPanel(QFrame):
    """Everything the press shows, always there."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("press")
        self._session = session
        self.effort = DimensionLabel("Foot", self._accept_effort, size=46)
        self.effort.stepped.connect(self.step)
        self.pedal = PedalView(session)
        self.pedal.effort_dragged.connect(session.set_effort)
        self.travel = TravelView(session)
        self.line_pressures = LinePressures(session)
        self.deceleration = Deceleration(session)
        self.grip = Grip(session)
        self.verdict = VerdictView(session)
        self.nearer = QPushButton("Come nearer  =")
        point_out(self.nearer, "As large as before, with bar, stations and reasons")
        if not T.stands_back:
            self.nearer.hide()
        self._lay_out()
        session.press_changed.connect(self._refresh)
        self._refresh()

    def _lay_out(self) -> None:
        foot = plain_label("Foot")
        foot.setProperty("role", "caption")
        left = spaced(QVBoxLayout(), 0)
        left.addWidget(foot)
        left.addWidget(self.effort)
        left.addStretch()
        head = spaced(QHBoxLayout(), 4)
        head.addLayout(left)
        head.addStretch()
        head.addWidget(self.travel)
        self.hint = plain_label(HINT)
        self.hint.setParent(self)  # also where no layout has it: else it would be a window
        self.hint.setWordWrap(True)
        self.hint.setProperty("role", "caption")
        foot_side, figures = QVBoxLayout(), QVBoxLayout()
        foot_side.addLayout(head)
        foot_side.addWidget(self.pedal, 1)
        if not T.stands_back:
            foot_side.addWidget(self.hint)
        for reading in (self.line_pressures, self.deceleration, self.grip, self.verdict):
            figures.addWidget(reading)
        whole = spaced(QVBoxLayout(self), 6, (20, 10, 20, 8))
        whole.addLayout(foot_side, 1)
        whole.addLayout(figures)
        for column in (foot_side, figures):
            column.setSpacing(0)
        if T.stands_back:
            foot_side.addStretch()
            whole.addWidget(self.nearer)

    def stand(self, *, stands: bool) -> None:
        """Dim what the road does while the vehicle stands, or show it plainly again."""
        for reading in (self.deceleration, self.grip, self.verdict):
            reading.dimmed = stands
            reading.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._say_considered()
        if T.stands_back:
            # The figures come first: arrows and typing press as well as the pad, and a plot of
            # pressures shows them too.
            self.pedal.setVisible(self.height() >= FAR_ROOMY)
            self.line_pressures.setVisible(self.height() >= FAR_TIGHT)

    def _say_considered(self) -> None:
        """Say that what is shown is not fitted, where that is so."""
        looking = self._session.considered
        self.hint.setText(f"not fitted: {looking}" if looking else HINT)
        self.hint.setStyleSheet(f"color: {T.warn}; font-weight: 600" if looking else "")
        self.hint.setVisible(not T.stands_back and (bool(looking) or self.height() >= ROOMY))

    def _refresh(self) -> None:
        self._say_considered()
        effort, units = self._session.effort, self._session.units
        self.effort.set_value(show(effort, FORCE, units), retype(effort, FORCE, units))

    def _accept_effort(self, typed: str) -> None:
        """Take a typed effort; a bare number is in the units shown."""
        effort = parse(completed(typed, FORCE, self._session.units), FORCE).value
        most = self._session.most_effort
        if effort < 0:
            raise QuantityError(f'"{typed}" is negative', "a foot only presses")
        if effort > most:
            shown = show(most, FORCE, self._session.units)
            raise QuantityError(
                f'"{typed}" is more than the {shown} this build allows for',
                "press less, or raise targets.max_effort",
            )
        self._session.set_effort(effort)

    def step(self, steps: int) -> None:
        """Press harder or softer by natural steps."""
        self._session.set_effort(self._session.effort + steps * STEP[self._session.units.system])
