"""Valves put in, taken out and moved; each drawn as it stands now, with its loop and knees."""

from functools import partial
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QVBoxLayout, QWidget

from urgens.document.valves import LoadSensing
from urgens.guidance.new_valves import NEW_NAMES, is_by_lever
from urgens.guidance.valve_words import NAMES, NOTHING, TYPICAL, WHAT, pair_words
from urgens.quantity import ANGLE, FORCE, LENGTH, LOAD, PRESSURE, SPRING_RATE, unit_shown
from urgens.ui.session import Session
from urgens.ui.stations.balance import valve_edits
from urgens.ui.stations.balance.circuit_view import CIRCUITS, CircuitView, Place
from urgens.ui.stations.balance.knee_plane import KneePlane
from urgens.ui.stations.balance.lever_board import LeverBoard
from urgens.ui.stations.balance.loop_plane import LoopPlane
from urgens.ui.stations.balance.valve_setting import TURN_STEP
from urgens.ui.widgets.figure_column import FigureColumn, Pair
from urgens.ui.widgets.figure_label import Figure
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.worded import worded, wrapped


def figures_of(circuit: str, index: int, step: float) -> list[Figure | Pair]:
    """Return the figures any valve may have; those it has not are left out."""
    place = f"valves.{circuit}[{index}]"
    lever = f"{place}.lever"
    return [
        Figure(f"{place}.knee", "Knee", PRESSURE, 19),
        Figure(f"{place}.slope", "Slope after it", size=19),
        Figure(f"{place}.turns", "Setting", size=19, step=step),
        Figure(f"{place}.close", "Shuts at", PRESSURE, 19),
        Figure(f"{place}.open", "Opens at", PRESSURE, 19),
        Figure(f"{place}.full", "Passes all from", PRESSURE, 19, optional=True),
        *(_point(f"{place}.points[{row}]", name) for row, name in enumerate(("Light", "Heavy"))),
        Figure(f"{lever}.arm", "Pivot to spring", LENGTH, 19),
        Figure(f"{lever}.piston_arm", "Pivot to piston", LENGTH, 19),
        Figure(f"{lever}.piston_diameter", "Piston", LENGTH, 19),
        Figure(f"{lever}.spring_rate", "Its spring", SPRING_RATE, 19),
        Figure(f"{lever}.preload", "Its force as set", FORCE, 19),
        Figure(f"{lever}.at_load", "Rear load then", LOAD, 19),
        Figure(f"{lever}.suspension_rate", "Suspension", SPRING_RATE, 19),
        Figure(f"{lever}.bump", "Up to the stop", LENGTH, 19, optional=True),
        Figure(f"{lever}.droop", "Down to the stop", LENGTH, 19, optional=True),
        Figure(f"{place}.ball_angle", "Ramp of the ball", ANGLE, 19),
        Figure(f"{place}.pressure", "Keeps", PRESSURE, 19),
    ]


def _point(place: str, name: str) -> Pair:
    """Return one calibrated point: a rear load and its knee."""
    load, knee = (
        Figure(f"{place}[{i}]", words, kind, 19)
        for i, (words, kind) in enumerate(((f"{name} load", LOAD), (f"{name} knee", PRESSURE)))
    )
    return Pair(f"{name}: load, knee", (load, knee))


class ValvesPage(Page):
    """Valves put in, taken out and moved; each drawn as it stands now."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.place: Place | None = None
        self.view, self.plane = CircuitView(session), LoopPlane(session)
        self.knees, self.lever = KneePlane(session), LeverBoard(session)
        self.view.chosen.connect(self.choose)
        self.axes = (worded("", "muted"), worded("", "muted"))
        self.shaded = worded("shaded ±5 %, slope ±0.03", "small")
        self.knee_axes = (worded("", "muted"), worded("", "muted"))
        self.name, self.what, self.usual = wrapped("heading"), wrapped(), wrapped()
        self.figures: FigureColumn | None = None
        self._shown_figures: object = None  # whose they are
        self.pair, self.follows = wrapped("muted"), wrapped()
        self.out, self.earlier = QPushButton("Take it out"), QPushButton("Move it forward")
        self.against = QPushButton()
        self.plug, self.other_way = QPushButton("Plug its metering part"), QPushButton()
        self._acts = {
            self.against: self._turn_axis,
            self.other_way: self._redescribe,
            self.earlier: self._move,
            self.plug: self._plug,
            self.out: self._take_out,
        }
        for button, act in self._acts.items():
            button.setProperty("role", "quiet")
            button.clicked.connect(act)
        self.add = {circuit: self._adder(circuit) for circuit in CIRCUITS}
        self._holder = QVBoxLayout()
        self._lay_out()

    def _lay_out(self) -> None:
        drawing = QWidget()
        column = QVBoxLayout(drawing)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        row = QHBoxLayout()
        row.setSpacing(10)
        row.addWidget(self.view, 1)
        row.addWidget(self.lever)
        column.addLayout(row)
        column.addLayout(self._planes(), 1)
        column.addStretch()  # where there is no valve nothing is drawn of one
        for widget in (self.name, self.what, self.usual, self.follows, self.pair):
            self.column.addWidget(widget)
        self.column.addLayout(self._holder)
        for button in self._acts:
            self.column.addWidget(button)
        self.column.addSpacing(10)
        adds = QHBoxLayout()
        adds.setSpacing(0)  # both fit beside a scroll bar
        for adder in self.add.values():
            adds.addWidget(adder)
        self.column.addLayout(adds)
        self.column.addWidget(wrapped("muted", NOTHING))
        self.column.addStretch()
        self.lay_out(drawing)
        self.said.hide()

    def _planes(self) -> QHBoxLayout:
        """Put the loop, and beside it the knees of a valve that feels the load."""
        row = QHBoxLayout()
        row.setSpacing(18)
        cells = []
        for plane, (up, across) in ((self.plane, self.axes), (self.knees, self.knee_axes)):
            cell = QWidget()
            column = QVBoxLayout(cell)
            column.setContentsMargins(0, 0, 0, 0)
            column.setSpacing(0)
            head = QHBoxLayout()
            head.addWidget(up)
            head.addStretch()
            if plane is self.plane:
                head.addWidget(self.shaded)
            column.addLayout(head)
            column.addWidget(plane, 1)
            across.setAlignment(Qt.AlignmentFlag.AlignRight)
            column.addWidget(across)
            row.addWidget(cell, 1)
            cells.append(cell)
        self.loop_cell, self.knee_cell = cells
        self.knee_cell.hide()
        return row

    def _adder(self, circuit: str) -> QToolButton:
        """Return the button whose menu adds a valve at the end of a circuit."""
        button = QToolButton()
        button.setText(f"Add to the {circuit}")
        button.setProperty("role", "kind")
        button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(button)
        for kind, name in NEW_NAMES.items():
            menu.addAction(name, partial(self._add, circuit, kind))
        button.setMenu(menu)
        return button

    @property
    def summary(self) -> str:
        """How many there are."""
        valves = self.session.build.valves
        said = [f"{c} {len(getattr(valves, c)) or 'none'}" for c in CIRCUITS]
        return ", ".join(said)

    def choose(self, circuit: str, index: int) -> None:
        """Look at one valve."""
        self.place = (circuit, index)
        self.show_figures()

    def _part(self) -> Any:
        if self.place is None:
            return None
        valves = getattr(self.session.build.valves, self.place[0])
        return valves[self.place[1]] if self.place[1] < len(valves) else None

    def show_figures(self) -> None:
        """Show the build as it is now."""
        if self._part() is None:
            valves = self.session.build.valves
            self.place = ("rear", 0) if valves.rear else ("front", 0) if valves.front else None
        unit = unit_shown(PRESSURE, self.session.units)
        self.axes[0].setText(f"Out of it, {unit}")
        self.axes[1].setText(f"Into it, {unit}")
        self.view.place = self.place
        self.view.update()
        self.plane.show_valve(self.place)
        self.loop_cell.setVisible(self.place is not None)
        knees = self.knees.show_valve(self.place)
        for widget in (self.knee_cell, self.follows):
            widget.setVisible(knees is not None)
        self.shaded.setVisible(self.plane.has_tolerance)
        if knees is not None:
            self.knee_axes[0].setText(f"Knee, {unit}")
            self.knee_axes[1].setText(self.knees.axis(knees))
            self.follows.setText(self.knees.in_words(knees))
        part = self._part()
        self.lever.show_valve(part)
        for widget in (self.what, self.usual, self.pair, *self._acts):
            widget.setVisible(part is not None)
        if part is None:
            self.name.setText("No valve in either circuit")
        else:
            place = self.place
            assert place is not None
            body = f", in the {part.body}" if part.body else ""
            self.name.setText(f"{NAMES[part.kind]}, {place[0]}{body}")
            self.what.setText(WHAT[part.kind])
            self.usual.setText(f"{TYPICAL[part.kind].capitalize()} (common practice).")
            self.earlier.setVisible(place[1] > 0)
            self.plug.setVisible(valve_edits.metering_of(self.session, place) is not None)
            self.out.setVisible(not (self.plug.isVisible() and part.kind == "metering"))
            self.other_way.setVisible(isinstance(part, LoadSensing))
            self.against.setVisible(self.knees.has_travel)
            other = "load" if self.knees.by_travel else "the axle's travel"
            self.against.setText(f"Knees against {other}")
            ways = ("Describe it by lever and spring", "Describe it by two points")
            self.other_way.setText(ways[is_by_lever(part)])
            self._say_pair(place)
        self._show_column()

    def _say_pair(self, place: Place) -> None:
        """In a diagonal split there are two of each."""
        words = pair_words(self.session.solution, self.session.presses, place, self.session.units)
        self.pair.setVisible(bool(words))
        self.pair.setText(words)

    def _show_column(self) -> None:
        shown = None if self._part() is None else (self.place, self._part().kind)
        if self.figures is not None and self._shown_figures != shown:
            self.figures.hide()
            self.figures.deleteLater()
            self.figures = None
        if self.place is not None and self.figures is None:
            notched = getattr(self._part(), "counted", "turns") == "notches"
            self.figures = FigureColumn(
                self.session, figures_of(*self.place, 1.0 if notched else TURN_STEP)
            )
            self._holder.addWidget(self.figures)
            self._shown_figures = shown
        if self.figures is not None:
            self.figures.refresh()

    def _take_out(self) -> None:
        assert self.place is not None
        valve_edits.take_out(self.session, self.place)

    def _move(self) -> None:
        assert self.place is not None
        circuit, index = self.place
        self.place = (circuit, index - 1)
        valve_edits.move_forward(self.session, (circuit, index))

    def _add(self, circuit: str, kind: str) -> None:
        self.place = (circuit, len(getattr(self.session.build.valves, circuit)))
        valve_edits.add(self.session, circuit, kind)

    def _plug(self) -> None:
        assert self.place is not None
        metering = valve_edits.metering_of(self.session, self.place)
        assert metering is not None
        if metering == self.place:
            self.place = None
        valve_edits.take_out(self.session, metering)

    def _turn_axis(self) -> None:
        """Show a lever's knees against the suspension's travel, or against the load."""
        self.knees.by_travel = not self.knees.by_travel
        self.show_figures()

    def _redescribe(self) -> None:
        assert self.place is not None
        valve_edits.redescribe(self.session, self.place)
