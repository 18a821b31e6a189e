"""Both circuits in flow order: each valve as a cross-section, its loop and its tolerance."""

from functools import partial
from typing import Any

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QVBoxLayout, QWidget

from urgens.guidance.valve_words import NAMES, NEW, NOTHING, TYPICAL, WHAT, state
from urgens.quantity import PRESSURE, in_units, show, unit_shown
from urgens.solve.stages import loop, stages
from urgens.ui.session import Session
from urgens.ui.stations.balance import valve_art
from urgens.ui.theme.paint import T, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.curve import Area
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Figure
from urgens.ui.widgets.markers import Marker, Shape
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.worded import worded, wrapped

CIRCUITS = ("front", "rear")
ROW = 152.0  # px of a circuit
LEFT, STEP = 84.0, 158.0  # px from the cylinder to the first valve's middle, between two
Place = tuple[str, int]  # circuit, and place in flow order


class CircuitView(Painted):
    """Cylinder, valves, brakes; a click or the arrow keys choose a valve."""

    chosen = Signal(str, int)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.place: Place | None = None
        self.setFixedHeight(round(2 * ROW * self.scale))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        session.press_changed.connect(self.update)

    def middle(self, circuit: str, index: int) -> QPointF:
        """Return where the middle of a valve is."""
        return QPointF(
            LEFT + 62 + index * STEP, CIRCUITS.index(circuit) * ROW + 24 + valve_art.TALL / 2
        )

    @property
    def _shrunk(self) -> float:
        """By how much the drawing is shrunk, so that the longer circuit fits across."""
        valves = self._session.build.valves
        most = max(len(valves.front), len(valves.rear))
        return min(1.0, self.across / (LEFT + most * STEP + 90))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = self.begin()
        painter.scale(self._shrunk, self._shrunk)
        for circuit in CIRCUITS:
            self._draw_circuit(painter, circuit)

    def _draw_circuit(self, painter: QPainter, circuit: str) -> None:
        session, units = self._session, self._session.units
        color = T.front if circuit == "front" else T.rear
        found = stages(session.solution, session.presses, circuit)
        most = max(float(getattr(session.hardest, f"master_{circuit}")), 1.0)
        y = self.middle(circuit, 0).y()
        pressure = float(getattr(session.presses, f"master_{circuit}"))
        (disc if circuit == "front" else square)(painter, QPointF(9, y - 32), 6)
        write(painter, circuit, QPointF(22, y - 26), size=16, weight=700, color=color)
        write(painter, str(show(pressure, PRESSURE, units)), QPointF(2, y + 24), size=15,
              weight=600, color=T.ink)  # fmt: skip
        end = LEFT + len(found) * STEP + 10
        painter.setPen(pen(T.ink, 9))
        painter.drawLine(QPointF(2, y), QPointF(end + 20, y))
        painter.setPen(pen(color, 5))
        painter.drawLine(QPointF(2, y), QPointF(end + 20, y))
        valves = getattr(session.build.valves, circuit)
        for index, (stage, part) in enumerate(zip(found, valves, strict=True)):
            at = self.middle(circuit, index)
            shares = stage.inlet / most, stage.outlet / most
            own = self.place == (circuit, index)
            box = valve_art.valve(painter, part.kind, at, shares, chosen=own)
            if own and self.hasFocus():
                painter.setPen(pen(T.front, 2))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRoundedRect(box.adjusted(-5, -5, 5, 5), 6, 6)
            write(painter, NAMES[part.kind], QPointF(box.left(), box.top() - 6), size=15,
                  weight=600, color=T.ink)  # fmt: skip
            said = state(part, stage.inlet, stage.outlet, units)
            write(painter, said, QPointF(box.left(), box.bottom() + 17), size=14)
            out = str(show(stage.outlet, PRESSURE, units))
            write(painter, out, QPointF(box.right() + 3, y + 24), size=14, weight=600, color=T.ink)
        self._draw_brake(painter, circuit, QPointF(end + 50, y))
        if not found:
            words = "no valve: the brakes get what the cylinder makes"
            write(painter, words, QPointF(end + 90, y + 5), size=15)

    def _draw_brake(self, painter: QPainter, circuit: str, at: QPointF) -> None:
        """Draw a disc with its caliper, or a drum with its shoes."""
        brake = getattr(self._session.build, circuit).brake
        painter.setPen(pen(T.ink, 2))
        painter.setBrush(QColor(T.metal))
        painter.drawEllipse(at, 26, 26)
        painter.setBrush(QColor(T.sheet))
        painter.drawEllipse(at, 9, 9)
        if brake.kind == "disc":
            painter.setBrush(QColor(T.ink))
            painter.drawRoundedRect(QRectF(at.x() - 32, at.y() - 14, 16, 28), 4, 4)
        else:
            painter.setPen(pen(T.ink, 5))
            around = QRectF(at.x() - 19, at.y() - 19, 38, 38)
            painter.drawArc(around, 110 * 16, 140 * 16)
            painter.drawArc(around, -70 * 16, 140 * 16)
        write(painter, brake.kind, at + QPointF(-14, 46), size=14)

    # --- the hand --------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        spot = self.spot(event) * (1.0 / self._shrunk)
        for circuit in CIRCUITS:
            for index in range(len(getattr(self._session.build.valves, circuit))):
                at = self.middle(circuit, index)
                half = QPointF(valve_art.WIDE / 2, valve_art.TALL / 2)
                if QRectF(at - half, at + half).contains(spot):
                    self.chosen.emit(circuit, index)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        every = [
            (circuit, index)
            for circuit in CIRCUITS
            for index in range(len(getattr(self._session.build.valves, circuit)))
        ]
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}
        step = steps.get(Qt.Key(event.key()))
        if step is None or not every:
            event.ignore()
            return
        now = every.index(self.place) if self.place in every else -step
        self.chosen.emit(*every[min(max(now + step, 0), len(every) - 1)])


class LoopPlane(Plane):
    """One valve: outlet over inlet, pressed and let go, and its production tolerance."""

    def __init__(self, session: Session) -> None:
        super().__init__("Outlet against inlet pressure of the valve chosen")
        self._session = session
        self.place: Place | None = None
        self.band = Area(T.band)
        self.band.setZValue(-50)
        self.plotItem.addItem(self.band, ignoreBounds=True)
        self.even = self.add_curve(T.hair, 1)
        self.down = self.add_curve(T.muted, 2, Qt.PenStyle.DashLine)
        self.up = self.add_curve(T.ink, 3)
        session.press_changed.connect(self._pressed)

    def _pressed(self) -> None:
        if self.isVisible():
            self.show_press()

    def show_valve(self, place: Place | None) -> None:
        """Draw a valve's loop up to the hardest press."""
        self.place = place
        for curve in (self.band, self.even, self.down, self.up):
            curve.setVisible(place is not None)
        if place is None:
            self.set_notes([], [], [])
            self.set_markers([])
            return
        circuit, index = place
        session, solution = self._session, self._session.solution
        scale = in_units(PRESSURE, session.units)
        hardest = stages(solution, session.hardest, circuit)[index]
        most = max(hardest.inlet, scale)
        found = loop(solution, session.presses, hardest.law, most)
        x = found.inlet / scale
        self.even.set_points(np.array([0.0, most / scale]), np.array([0.0, most / scale]))
        self.up.set_points(x, found.up / scale)
        self.down.set_points(x, found.down / scale)
        low = found.up if found.low is None else found.low
        high = found.up if found.high is None else found.high
        self.band.set_between(x, low / scale, high / scale)
        self.set_range((0.0, 1.03 * most / scale), (0.0, 1.03 * most / scale))
        middle = x.size // 2
        notes = [
            Note("pressed", (float(x[-8]), float(found.up[-8] / scale)), T.ink, weight=600),
            Note("let go", (float(x[middle]), float(found.down[middle] / scale)), T.muted),
        ]
        if found.low is not None:
            at = (float(x[-30]), float(low[-30] / scale))
            notes.append(Note("tolerance: knee ±5 %, slope ±0.03", at, T.muted, size=13))
        self.set_notes(notes, [(x, found.up / scale), (x, found.down / scale)], [])
        self.show_press()

    def show_press(self) -> None:
        """Mark where the press is."""
        if self.place is None:
            return
        circuit, index = self.place
        found = stages(self._session.solution, self._session.presses, circuit)
        if index < len(found):
            scale = in_units(PRESSURE, self._session.units)
            at = (found[index].inlet / scale, found[index].outlet / scale)
            self.set_markers([Marker(Shape.FOOT, at)])


def figures_of(circuit: str, index: int) -> list[Figure]:
    """Return the figures any valve may have; those it has not are left out."""
    place = f"valves.{circuit}[{index}]"
    return [
        Figure(f"{place}.knee", "Knee", PRESSURE, 19),
        Figure(f"{place}.slope", "Slope after it", size=19),
        Figure(f"{place}.turns", "Turns", size=19),
        Figure(f"{place}.close", "Shuts at", PRESSURE, 19),
        Figure(f"{place}.open", "Opens at", PRESSURE, 19),
        Figure(f"{place}.full", "Passes all from", PRESSURE, 19, optional=True),
        Figure(f"{place}.points[0][1]", "Knee when light", PRESSURE, 19),
        Figure(f"{place}.points[1][1]", "Knee when heavy", PRESSURE, 19),
        Figure(f"{place}.pressure", "Keeps", PRESSURE, 19),
    ]


class ValvesPage(Page):
    """Valves put in, taken out and moved; each drawn as it stands now."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.place: Place | None = None
        self.view, self.plane = CircuitView(session), LoopPlane(session)
        self.view.chosen.connect(self.choose)
        self.axes = (worded("", "muted"), worded("", "muted"))
        self.name, self.what, self.usual = wrapped("heading"), wrapped(), wrapped()
        self.figures: FigureColumn | None = None
        self._place_of_figures: Place | None = None
        self.out, self.earlier = QPushButton("Take it out"), QPushButton("Move it forward")
        for button, act in ((self.out, self._take_out), (self.earlier, self._move)):
            button.setProperty("role", "quiet")
            button.clicked.connect(act)
        self.add: dict[str, QToolButton] = {}
        adds = QHBoxLayout()
        for circuit in CIRCUITS:
            self.add[circuit] = self._adder(circuit)
            adds.addWidget(self.add[circuit])
        drawing = QWidget()
        column = QVBoxLayout(drawing)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.view)
        column.addWidget(self.axes[0])
        column.addWidget(self.plane, 1)
        self.axes[1].setAlignment(Qt.AlignmentFlag.AlignRight)
        column.addWidget(self.axes[1])
        self._holder = QVBoxLayout()
        for widget in (self.name, self.what, self.usual):
            self.column.addWidget(widget)
        self.column.addLayout(self._holder)
        self.column.addWidget(self.earlier)
        self.column.addWidget(self.out)
        self.column.addSpacing(10)
        self.column.addLayout(adds)
        self.column.addWidget(wrapped("muted", NOTHING))
        self.column.addStretch()
        self.lay_out(drawing)
        self.said.hide()

    def _adder(self, circuit: str) -> QToolButton:
        """Return the button whose menu adds a valve at the end of a circuit."""
        button = QToolButton()
        button.setText(f"Add to the {circuit}")
        button.setProperty("role", "kind")
        button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(button)
        for kind in NEW:
            menu.addAction(NAMES[kind], partial(self._add, circuit, kind))
        button.setMenu(menu)
        return button

    @property
    def summary(self) -> str:
        """How many there are."""
        valves = self.session.build.valves
        said = [f"{len(getattr(valves, c)) or 'none'} in the {c}" for c in CIRCUITS]
        return f"in flow order from the cylinder: {', '.join(said)}"

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
        part = self._part()
        for widget in (self.what, self.usual, self.out, self.earlier):
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
            self.earlier.setEnabled(place[1] > 0)
        self._show_column()

    def _show_column(self) -> None:
        if self.figures is not None and self._place_of_figures != self.place:
            self.figures.hide()
            self.figures.deleteLater()
            self.figures = None
        if self.place is not None and self.figures is None:
            self.figures = FigureColumn(self.session, figures_of(*self.place))
            self._holder.addWidget(self.figures)
            self._place_of_figures = self.place
        if self.figures is not None:
            self.figures.refresh()

    def _parts(self, circuit: str) -> list[Any]:
        valves = getattr(self.session.build.valves, circuit)
        return [valve.model_dump(mode="json", exclude_unset=True) for valve in valves]

    def _edit(self, circuit: str, parts: list[Any], label: str) -> None:
        """Put other valves into a circuit; what was known of their figures no longer holds."""
        path = f"valves.{circuit}"
        changes = {path: parts, "evidence": self.session.known_but(path)}
        self.session.try_all(changes, label)

    def _take_out(self) -> None:
        assert self.place is not None
        circuit, index = self.place
        parts = self._parts(circuit)
        name = NAMES[parts.pop(index)["kind"]]
        self._edit(circuit, parts, f"{name} taken out")

    def _move(self) -> None:
        assert self.place is not None
        circuit, index = self.place
        parts = self._parts(circuit)
        parts.insert(index - 1, parts.pop(index))
        self.place = (circuit, index - 1)
        self._edit(circuit, parts, "Valve moved forward")

    def _add(self, circuit: str, kind: str) -> None:
        parts = self._parts(circuit)
        self.place = (circuit, len(parts))
        self._edit(circuit, [*parts, dict(NEW[kind])], f"{NAMES[kind]} in the {circuit}")
