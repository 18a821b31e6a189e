"""Both circuits in flow order: cylinder, valves as cross-sections, brakes."""

from PySide6.QtCore import QPointF, QRect, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QResizeEvent

from urgens.document.kinds.valves import Valve, kind_of
from urgens.guidance.words.valves import state
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import PRESSURE, show
from urgens.studies.valve_stages import Stage, stages
from urgens.ui.session import Session
from urgens.ui.stations.balance import valve_art
from urgens.ui.theme.paint import T, ink, outline, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.schematic import Schematic, SchematicPart, SchematicView
from urgens.ui.widgets.seen import WhenSeen

ROW = 152.0  # px of a circuit
LEFT = 84.0
STEP = 180.0
Place = tuple[Axle, int]  # circuit, and place in flow order


def place_of(circuit: Axle, index: int) -> str:
    """Return where a valve stands in the build."""
    return f"valves.{circuit}[{index}]"


class CircuitView(SchematicView):
    """Cylinder, valves, brakes; a click or the arrow keys choose a valve."""

    picked = Signal(object, int)  # an axle, which Qt would make a text

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Valves of both circuits")
        self._session = session
        self._stages: dict[str, tuple[Valve, Stage, float]] = {}  # by place, with the hardest press
        self.setFixedHeight(round(2 * ROW * T.scale))
        self.chosen.connect(self._pick)
        session.press_changed.connect(WhenSeen(self, self._read, stale=False).ask)

    @property
    def place(self) -> Place | None:
        """Circuit and place of the valve that is chosen."""
        valves = self._session.build.valves.placed()
        return next(((c, i) for c, i, _ in valves if place_of(c, i) == self.where), None)

    def _pick(self) -> None:
        if self.place is not None:
            self.picked.emit(*self.place)

    def show_valves(self, chosen: Place | None) -> None:
        """Show the valves of the build as it is now, one of them chosen."""
        self._read()
        parts = tuple(
            SchematicPart(
                where=place_of(circuit, index),
                name=kind_of(valve).name,
                at=self.middle(circuit, index).toTuple(),
                size=(valve_art.WIDE, valve_art.TALL),
            )
            for circuit, index, valve in self._session.build.valves.placed()
        )
        self.show_schematic(Schematic(parts), self._shrunk)
        self.mark(place_of(*chosen) if chosen is not None else "")

    def _read(self) -> None:
        """Work out once a press what each valve does."""
        session = self._session
        found = {axle: stages(session.solution, session.presses, axle) for axle in AXLES}
        most = {axle: max(float(session.hardest.master(axle)), 1.0) for axle in AXLES}
        self._stages = {
            place_of(axle, index): (valve, found[axle][index], most[axle])
            for axle, index, valve in session.build.valves.placed()
        }
        self.viewport().update()

    def middle(self, circuit: Axle, index: int) -> QPointF:
        """Return where the middle of a valve is."""
        return QPointF(
            LEFT + 62 + index * STEP, AXLES.index(circuit) * ROW + 24 + valve_art.TALL / 2
        )

    @property
    def across(self) -> float:
        """Its width in px of the usual scale."""
        return self.width() / T.scale

    @property
    def _diagonal(self) -> bool:
        return self._session.build.split == "diagonal"

    @property
    def _shrunk(self) -> float:
        """By how much the drawing is shrunk, so that the longer circuit fits across."""
        valves = self._session.build.valves
        most = max(len(valves.front), len(valves.rear))
        return min(1.0, self.across / (LEFT + most * STEP + 90))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.show_valves(self.place)

    def drawBackground(self, painter: QPainter, rect: QRectF | QRect) -> None:
        """Paint what is not chosen: cylinder, pipes, brakes, and what is one casting."""
        super().drawBackground(painter, rect)
        if self._diagonal:
            words = "One of two circuits alike: a front wheel, and the rear wheel across"
            write(painter, words, QPointF(22, 2 * ROW - 6), size=14, color=T.muted)
            top, foot = (self.middle(circuit, 0).y() for circuit in AXLES)
            painter.setPen(pen(T.ink, 9))
            painter.drawLine(QPointF(6, top), QPointF(6, foot))
            painter.setPen(pen(T.metal, 5))
            painter.drawLine(QPointF(6, top), QPointF(6, foot))
        for circuit in AXLES:
            self._draw_circuit(painter, circuit)
        self._draw_bodies(painter)

    def _draw_bodies(self, painter: QPainter) -> None:
        """Bracket what sits in one casting: a part in front and a part behind."""
        valves = self._session.build.valves
        for index, front in enumerate(valves.front):
            for other, rear in enumerate(valves.rear):
                if not front.body or front.body != rear.body:
                    continue
                ends = self.middle(Axle.FRONT, index), self.middle(Axle.REAR, other)
                x = min(end.x() for end in ends) - valve_art.WIDE / 2 - 9
                painter.setPen(pen(T.muted, 1.5, Qt.PenStyle.DashLine))
                top, foot = ends[0].y() + 16, ends[1].y() - 16
                painter.drawLine(QPointF(x, top), QPointF(x, foot))
                for end, y in zip(ends, (top, foot), strict=True):
                    painter.drawLine(QPointF(x, y), QPointF(end.x() - valve_art.WIDE / 2, y))
                said = f"one body: {front.body}"
                write(painter, said, QPointF(x + 6, ROW - 9), size=14, color=T.muted)

    def _draw_circuit(self, painter: QPainter, circuit: Axle) -> None:
        found = self._session.build.valves.of(circuit)
        y, end = self.middle(circuit, 0).y(), LEFT + len(found) * STEP + 10
        self._draw_pipe(painter, circuit, end + 20)
        self._draw_brake(painter, circuit, QPointF(end + 50, y))
        if not found:
            words = "no valve: the brakes get what the cylinder makes"
            room = self.across / self._shrunk - end - 90
            said = words if width(words, 15) < room else words.partition(":")[0]
            write(painter, said, QPointF(end + 90, y + 5), size=15)

    def _draw_pipe(self, painter: QPainter, circuit: Axle, end: float) -> None:
        """Draw the line to the brakes, and what the cylinder makes in it."""
        session, y = self._session, self.middle(circuit, 0).y()
        color = T.front if circuit == Axle.FRONT else T.rear
        aside = 10.0 if self._diagonal else 0.0  # clear of the pipe that joins them
        (disc if circuit == Axle.FRONT else square)(painter, QPointF(9 + aside, y - 32), 6)
        name = QPointF(22 + aside, y - 26)
        write(painter, circuit, name, size=16, weight=700, color=color)
        made = str(show(float(session.presses.master(circuit)), PRESSURE, session.units))
        write(painter, made, QPointF(2 + aside, y + 24), size=15, weight=600, color=T.ink)
        for line, wide in ((T.ink, 9), (color, 5)):
            painter.setPen(pen(line, wide))
            painter.drawLine(QPointF(2, y), QPointF(end, y))

    def draw_part(self, painter: QPainter, part: SchematicPart) -> None:
        """Draw one valve with its name, what it does and what leaves it."""
        units, at = self._session.units, QPointF()
        valve, stage, most = self._stages[part.where]
        shares, own = (stage.inlet / most, stage.outlet / most), self.is_chosen(part.where)
        box = valve_art.valve(
            painter, kind_of(valve).drawing, at, shares, chosen=own, pair=self._diagonal
        )
        if own and self.hasFocus():
            outline(painter, T.front, 2)
            painter.drawRoundedRect(box.adjusted(-5, -5, 5, 5), 6, 6)
        behind = valve_art.BEHIND if self._diagonal else 0.0
        name = QPointF(box.left(), box.top() - 6 - behind)
        write(painter, kind_of(valve).name, name, size=15, weight=600, color=T.ink)
        below = 24 if "lever" in kind_of(valve).drawing else 17  # clear of its lever
        said = state(valve, stage.inlet, stage.outlet, units)
        write(painter, said, QPointF(box.left(), box.bottom() + below), size=14)
        after = QPointF(box.right() + 3 + behind, at.y() + 24)
        out = str(show(stage.outlet, PRESSURE, units))
        write(painter, out, after, size=14, weight=600, color=T.ink)

    def _draw_brake(self, painter: QPainter, circuit: Axle, at: QPointF) -> None:
        """Draw a disc with its caliper, or a drum with its shoes."""
        brake = self._session.build.axle(circuit).brake
        ink(painter, pen(T.ink, 2), QColor(T.metal))
        painter.drawEllipse(at, 26, 26)
        painter.setBrush(QColor(T.sheet))
        painter.drawEllipse(at, 9, 9)
        if brake.has_pads:
            painter.setBrush(QColor(T.ink))
            painter.drawRoundedRect(QRectF(at.x() - 32, at.y() - 14, 16, 28), 4, 4)
        else:
            painter.setPen(pen(T.ink, 5))
            around = QRectF(at.x() - 19, at.y() - 19, 38, 38)
            painter.drawArc(around, 110 * 16, 140 * 16)
            painter.drawArc(around, -70 * 16, 140 * 16)
        write(painter, brake.kind, at + QPointF(-14, 46), size=14)
