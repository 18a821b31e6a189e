"""Valves put in, taken out and moved; each drawn as it stands now, with its loop and knees."""

import re
from collections.abc import Mapping
from functools import partial
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QVBoxLayout, QWidget

from urgens.document import Build
from urgens.document.catalogue import places
from urgens.document.kinds.valves import Valve, kind_of
from urgens.guidance.rules.starting_valves import NEW_NAMES, is_by_lever
from urgens.guidance.words.valves import NOTHING, pair_words
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import PRESSURE, in_words, unit_shown
from urgens.ui.session import Session
from urgens.ui.stations.balance import valve_edits
from urgens.ui.stations.balance.circuit_view import CircuitView, Place
from urgens.ui.stations.balance.knee_plane import KneePlane
from urgens.ui.stations.balance.lever_board import LeverBoard
from urgens.ui.stations.balance.loop_plane import LoopPlane
from urgens.ui.widgets.figure_column import AdjacentFigures, FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.worded import worded, wrapped

_POINT = re.compile(r"(.*\.points\[\d\])\[(\d)\]")


def spots_of(build: Build, circuit: Axle, index: int) -> list[Spot | AdjacentFigures]:
    """Return where a valve's figures stand; those of a calibrated point stand beside each other."""
    found: list[Spot | AdjacentFigures] = []
    for path in places(build, f"valves.{circuit}[{index}]"):
        point = _POINT.match(path)
        if ".table[" in path or (point is not None and point[2] == "1"):
            continue
        if point is None:
            found.append(Spot(path, 19))
        else:
            load, knee = Spot(path, 19), Spot(f"{point[1]}[1]", 19)
            name = ("Light", "Heavy")[path.endswith("points[1][0]")]
            found.append(AdjacentFigures(f"{name}: load, knee", (load, knee)))
    return found


class ValvesPage(Page):
    """Valves put in, taken out and moved; each drawn as it stands now."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.place: Place | None = None
        self.view, self.plane = CircuitView(session), LoopPlane(session)
        self.knees, self.lever = KneePlane(session), LeverBoard(session)
        self.view.picked.connect(self.choose)
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
        self.add = {circuit: self._adder(circuit) for circuit in AXLES}
        self._holder = QVBoxLayout()
        self._lay_out()

    def _lay_out(self) -> None:
        drawing = QWidget()
        column = tight(QVBoxLayout(drawing), 0)
        row = spaced(QHBoxLayout(), 10)
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

    def keep(self) -> dict[str, object]:
        """Return the valve that is looked at, and against what its knees are drawn."""
        return {"place": self.place, "by_travel": self.knees.by_travel}

    def give_back(self, kept: Mapping[str, Any]) -> None:
        """Look at it again."""
        self.place, self.knees.by_travel = kept["place"], kept["by_travel"]

    def _planes(self) -> QHBoxLayout:
        """Put the loop, and beside it the knees of a valve that feels the load."""
        row = spaced(QHBoxLayout(), 18)
        cells = []
        for plane, (up, across) in ((self.plane, self.axes), (self.knees, self.knee_axes)):
            cell = QWidget()
            column = tight(QVBoxLayout(cell), 0)
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

    def _adder(self, circuit: Axle) -> QToolButton:
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
        said = [f"{c} {len(valves.of(c)) or 'none'}" for c in AXLES]
        return ", ".join(said)

    def choose(self, circuit: Axle, index: int) -> None:
        """Look at one valve."""
        self.place = (circuit, index)
        self.show_figures()

    def _part(self) -> Valve | None:
        if self.place is None:
            return None
        valves = self.session.build.valves.of(self.place[0])
        return valves[self.place[1]] if self.place[1] < len(valves) else None

    def show_figures(self) -> None:
        """Show the build as it is now."""
        if self._part() is None:
            valves = self.session.build.valves
            first = next(valves.placed(), None) if not valves.rear else (Axle.REAR, 0, None)
            self.place = None if first is None else first[:2]
        unit = unit_shown(PRESSURE, self.session.units)
        self.axes[0].setText(f"Out of it, {unit}")
        self.axes[1].setText(f"Into it, {unit}")
        self.view.show_valves(self.place)
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
            self.name.setText(f"{kind_of(part).name}, {place[0]}{body}")
            self.what.setText(kind_of(part).what)
            usual = in_words(kind_of(part).typical, PRESSURE, self.session.units)
            self.usual.setText(f"{usual[:1].upper()}{usual[1:]} (common practice).")
            self.earlier.setVisible(place[1] > 0)
            self.plug.setVisible(valve_edits.metering_of(self.session, place) is not None)
            self.out.setVisible(not (self.plug.isVisible() and part.holds_front_back))
            self.other_way.setVisible(part.feels_load)
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
        part = self._part()
        shown = None if part is None else (self.place, part.kind, is_by_lever(part))
        if self.figures is not None and self._shown_figures != shown:
            self.figures.hide()
            self.figures.deleteLater()
            self.figures = None
        if self.place is not None and self.figures is None:
            spots = spots_of(self.session.build, *self.place)
            self.figures = FigureColumn(self.session, spots)
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

    def _add(self, circuit: Axle, kind: str) -> None:
        self.place = (circuit, len(self.session.build.valves.of(circuit)))
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
