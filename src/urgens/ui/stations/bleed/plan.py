"""Who is open now: the vehicle from above, its cylinder, lines, screws, hoses and bottles."""

from collections.abc import Collection, Iterable, Mapping
from types import MappingProxyType

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPaintEvent

from urgens.document import Build
from urgens.guidance.condition.joints import LOOSE, MadeJoint, joints_to
from urgens.guidance.procedures import Facts, ProcedureStep
from urgens.guidance.procedures.bled_vehicle import BledVehicle
from urgens.guidance.procedures.facts import FARTHEST, said
from urgens.guidance.procedures.step import Press, Wheel
from urgens.guidance.procedures.workshop import Workshop, at_first
from urgens.ui.stations.bleed.assembly_art import draw_assembly
from urgens.ui.stations.bleed.bench_art import draw_bench
from urgens.ui.stations.bleed.exploded import draw_exploded
from urgens.ui.stations.bleed.stands_words import Shares, contents
from urgens.ui.theme.paint import T, ink, outline, pen
from urgens.ui.widgets.board import arrow, write
from urgens.ui.widgets.painted import Painted

WHEEL = (84.0, 32.0)  # px
BOTTLE = (40.0, 54.0)  # px
EDGE = 84.0  # px beside the body, for bottles
SCREW = 19.0  # px: radius of what shows a screw
PLAIN_EDGE = 8.0  # px
LEAST = 118.0  # px high: at least
ROOMY = 230.0  # px high: from where all words have room
# px, from where it grows, and by how much at most
USUAL = (520.0, 320.0)
LARGEST = 1.8
PIPE = 9.0  # px
DOT = 5.0  # px: radius of a joint
DONE = ("dry", "checked")
NOW = {"hold": "press, and hold", "release": "let it come up"}
PRESSES = {"light": "lightly", "usual": "as usual", "hard": "hard"}
PARTS = 24  # of a stretch of line, as it is drawn
HALF = 0.5  # of air, from where a stretch is drawn hollow


class BleedPlan(Painted):
    """Wheels at their corners, the front on the left; what is open is large and says so.

    A `plain` one has no bottles and no words: it only shows how far the joints are, which the
    others do not.
    """

    def __init__(self, *, plain: bool = False) -> None:
        super().__init__()
        self._plain = plain
        self.open: dict[str, str] = {}  # by wheel, which screw
        self.hosed: set[str] = set()
        self.now: tuple[str, ...] = ()
        self.held = self.moves = self._bar = False
        self._press: Press = ""
        self.contents: dict[Wheel, Shares] = {}
        self.on_bench = self.apart = self._boosted = False
        self.assembled: tuple[frozenset[str], str] | None = None  # what is on, what goes on now
        self._chambers = 1
        self._foot = ""  # what it begins to do now
        self.stands: Workshop = at_first({})
        self.joints: dict[Wheel, tuple[MadeJoint, ...]] = {}
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)  # the card's keys come in here
        self.setMinimumHeight(self.scaled(10, LEAST).height())

    @property
    def joints_too(self) -> bool:
        """Whether it shows how far the joints are: a plan of steps has bubbles where they are."""
        return self._plain

    def show_build(self, build: Build) -> None:
        """Show the cylinders of a build and the joints on the way to each wheel."""
        self._boosted = build.booster.fitted
        facts = Facts(build)
        self._chambers = facts.chambers
        joints = {w: joints_to(build, w) for w in FARTHEST} if self.joints_too else {}
        shown = facts.bar, joints
        if shown != (self._bar, self.joints):
            self._bar, self.joints = shown
            self.update()

    def show_steps(
        self,
        done: tuple[ProcedureStep, ...],
        now: ProcedureStep | None,
        open_: Iterable[str],
        begins: Mapping[str, str] = MappingProxyType({}),
        lasting: Collection[str] = (),
    ) -> None:
        """Show what is open after the steps that are done, and whose turn it is.

        `open_` are the wheels whose screws stand open, by whatever run they were opened; `begins`
        is what of the workshop stood otherwise than usual at the beginning, `lasting` are the
        parts that go on for good: with lines among them it is an assembly.
        """
        shown = self._shown
        stands = at_first(begins)
        for step in done:
            stands = stands.after(step)
        self.open = {str(wheel): str(screw) for wheel, screw in stands.open_}
        self.open |= {wheel: "" for wheel in open_ if wheel not in self.open}
        self.stands, self.held = stands, stands.held
        self.hosed = {str(wheel) for wheel in stands.hosed}
        self.moves = now is not None and now.action == "stroke"
        self._press = "" if now is None else now.press
        self.assembled = None
        if "lines" in lasting and now is not None and now.at != "bench":
            there = {thing for thing, _ in stands.fitted} | (
                {"cylinder"} if stands.states["cylinder"] == "vehicle" else set()
            )
            self.assembled = frozenset(there), now.thing
        self.apart = ("pistons", ()) in stands.away or (now is not None and now.thing == "pistons")
        self.on_bench = stands.states["cylinder"] == "bench" and (now is None or now.at == "bench")
        self._foot = "" if now is None or now.thing else NOW.get(now.action, "")
        self.now = () if now is None else now.wheels
        told = ", ".join(said(wheel) for wheel in self.open) or "none"
        where = "The cylinder on the bench. " if self.on_bench else ""
        self.setAccessibleName(f"{where}Open now: {told}. {self.foot}.")
        if self._shown != shown:
            self.update()

    def show_fluid(self, now: BledVehicle | None) -> None:
        """Show what the lines hold by the figures; None where they are not drawn."""
        held = {} if now is None else {wheel: contents(now, wheel) for wheel in FARTHEST}
        if held != self.contents:
            self.contents = held
            self.update()

    @property
    def _shown(self) -> tuple[object, ...]:
        """What is drawn of the steps."""
        return self.open, self.hosed, self.now, self.foot, (
            self.on_bench, self.apart, self.assembled, self.stands
        )  # fmt: skip

    @property
    def foot(self) -> str:
        """What the foot does."""
        if self.moves:
            return "foot goes down" if self._press == "down" else "down and back"
        if self._foot:
            return self._foot
        if self._press in PRESSES:
            return f"presses {PRESSES[self._press]}"
        return "pedal held down" if self.held else "pedal up"

    @property
    def _larger(self) -> float:
        """How much larger than usual everything is drawn where there is room for it."""
        return min(max(min(self.down / USUAL[1], self.across / USUAL[0]), 1.0), LARGEST)

    # --- painting --------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        larger = self._larger
        with self.begin() as painter:
            painter.scale(larger, larger)
            wide, high = self.across / larger, self.down / larger
            edge = PLAIN_EDGE if self._plain else EDGE
            if self.on_bench and self.apart:
                draw_exploded(painter, QRectF(0, 0, wide, high), self._chambers)
                self._draw_focus(painter, wide, high)
                return
            if self.assembled is not None:
                there, thing = self.assembled
                draw_assembly(painter, QPointF(wide / 2, high / 2), there, thing,
                              boosted=self._boosted)  # fmt: skip
                self._draw_focus(painter, wide, high)
                return
            if self.on_bench:
                draw_bench(painter, QPointF(wide / 2, high / 2), self.stands, self._chambers,
                           pushed=self.moves)  # fmt: skip
                self._draw_focus(painter, wide, high)
                return
            body = QRectF(edge, 26, wide - 2 * edge, high - 52)
            ink(painter, pen(T.hair, 1.5), QColor(T.paper))
            painter.drawRoundedRect(body, 30, 30)
            cylinder = QRectF(body.center().x() - 70, body.center().y() - 22, 82, 44)
            for wheel in FARTHEST:
                self._draw_way(painter, wheel, body, cylinder)
            self._draw_cylinder(painter, cylinder)
            for wheel in FARTHEST:
                self._draw_wheel(painter, wheel, body)
            at = QPointF(body.left() + 12, body.center().y() + 5)
            ink(painter, pen(T.muted, 2), QColor(T.muted))
            painter.drawLine(at + QPointF(2, -5), at + QPointF(20, -5))
            arrow(painter, at + QPointF(0, -5), QPointF(1, 0), 4)
            if not self._plain:
                write(painter, "front", at + QPointF(26, 0), size=14)
            self._draw_focus(painter, wide, high)

    def _draw_focus(self, painter: QPainter, wide: float, high: float) -> None:
        if self.hasFocus():
            outline(painter, T.front, 2)
            painter.drawRect(QRectF(1, 1, wide - 2, high - 2))

    @staticmethod
    def _middle(wheel: str, body: QRectF) -> QPointF:
        x = body.left() + 46 if wheel.startswith("front") else body.right() - 46
        return QPointF(x, body.bottom() if wheel.endswith("left") else body.top())

    def _draw_way(self, painter: QPainter, wheel: Wheel, body: QRectF, cylinder: QRectF) -> None:
        """Draw the line to a wheel, filled where its screw is open, with its joints."""
        end, front = self._middle(wheel, body), wheel.startswith("front")
        side = -1 if wheel.endswith("right") else 1
        x = cylinder.left() + (22 if front else 60)
        start = QPointF(x, cylinder.center().y() + side * 20)
        y = cylinder.center().y() + side * (38 if front else 30)
        path = QPainterPath(start)
        for corner in (QPointF(x, y), QPointF(end.x(), y), end):
            path.lineTo(corner)
        live = wheel in self.open
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(pen(T.hair, PIPE))
        if live:
            outline(painter, T.front if front else T.rear, PIPE + 3)
        painter.drawPath(path)
        if live:
            painter.setPen(pen(T.fluid[2], PIPE - 2))
            painter.drawPath(path)
        self._draw_contents(painter, wheel, path, live=live)
        found = self.joints.get(wheel, ())  # none beside fluid, where they look as bubbles
        for place, joint in enumerate(found, start=1):
            self._draw_joint(painter, path.pointAtPercent(0.12 + 0.76 * place / (len(found) + 1)),
                             joint)  # fmt: skip

    def _draw_contents(
        self, painter: QPainter, wheel: Wheel, path: QPainterPath, *, live: bool
    ) -> None:
        """Draw what a way holds, from the cylinder on: fluid full, air as a hollow with dots."""
        start = 0.0
        for share, air in self.contents.get(wheel, ()):
            end = min(start + share, 1.0)
            points = [path.pointAtPercent(start + (end - start) * n / PARTS)
                      for n in range(PARTS + 1)]  # fmt: skip
            hollow = air > HALF
            fluid = T.fluid[2] if live else T.fluid[1]
            painter.setPen(pen(T.sheet if hollow else fluid, PIPE - 2))
            painter.drawPolyline(points)
            if hollow:
                painter.setPen(pen(T.muted, 3, Qt.PenStyle.DotLine))
                painter.drawPolyline(points)
            start = end

    def _draw_joint(self, painter: QPainter, at: QPointF, joint: MadeJoint) -> None:
        """Draw a joint: a ring where nobody has said, full where it is dry, a cross where loose."""
        color = T.muted
        if joint.state in LOOSE:
            color = T.danger
        elif joint.state in DONE:
            color = T.good
        ink(painter, pen(color, 2), QColor(color if joint.state in DONE else T.sheet))
        painter.drawEllipse(at, DOT, DOT)
        if joint.state in LOOSE:
            painter.drawLine(at - QPointF(3, 3), at + QPointF(3, 3))
            painter.drawLine(at + QPointF(-3, 3), at + QPointF(3, -3))
        elif joint.state == "tight":
            painter.setBrush(QColor(color))
            painter.drawPie(QRectF(at.x() - DOT, at.y() - DOT, 2 * DOT, 2 * DOT), 90 * 16, 180 * 16)

    def _draw_cylinder(self, painter: QPainter, box: QRectF) -> None:
        """Draw one cylinder, or two with their bar, and which way the foot goes."""
        count = 2 if self._bar else 1
        tall = box.height() / count - (4 if self._bar else 10)
        depth = 0.62 if self.held or self.moves else 0.9
        for index in range(count):
            top = box.top() + (index + 0.5) * box.height() / count - tall / 2
            own = QRectF(box.left(), top, box.width(), tall)
            ink(painter, pen(T.ink, 2), QColor(T.steel))
            painter.drawRoundedRect(own, 3, 3)
            inside = own.adjusted(5, 4, -4, -4)
            inside.setWidth(inside.width() * depth)
            ink(painter, Qt.PenStyle.NoPen, QColor(T.fluid[1]))
            painter.drawRect(inside)
            painter.setPen(pen(T.ink, 4))
            middle = own.center().y()
            painter.drawLine(QPointF(inside.right(), middle), QPointF(box.right() + 18, middle))
        x = box.right() + 18
        painter.setPen(pen(T.ink, 6))
        if self._bar:
            painter.drawLine(QPointF(x, box.top() + 4), QPointF(x, box.bottom() - 4))
        at = QPointF(x + 16, box.center().y())
        if not self._plain:
            write(painter, self.foot, at + QPointF(10, 6), size=17, weight=600, color=T.ink)
        ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
        if self.moves or self.held:
            arrow(painter, at - QPointF(6, 0), QPointF(1, 0), 6)

    def _draw_wheel(self, painter: QPainter, wheel: str, body: QRectF) -> None:
        front = wheel.startswith("front")
        middle = self._middle(wheel, body)
        x, y = middle.x(), middle.y()
        box = QRectF(x - WHEEL[0] / 2, y - WHEEL[1] / 2, *WHEEL)
        color = T.front if front else T.rear
        ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
        painter.drawRoundedRect(box, 8, 8)
        own, open_ = wheel in self.now, wheel in self.open
        if wheel in self.hosed:
            self._draw_bottle(painter, middle, -1 if front else 1, open_=open_)
        ink(painter, pen(color, 4 if own or open_ else 2), QColor(T.sheet))
        painter.drawEllipse(middle, SCREW, SCREW)
        turn = 7.0
        painter.setPen(pen(color if open_ else T.muted, 3))
        if open_:
            painter.drawArc(QRectF(x - 10, y - 10, 20, 20), 30 * 16, 280 * 16)
        else:
            painter.drawLine(middle - QPointF(turn, turn), middle + QPointF(turn, turn))
            painter.drawLine(middle + QPointF(-turn, turn), middle + QPointF(turn, -turn))
        if not self._plain and self.down >= ROOMY:  # else the sentence says it alone
            self._name_wheel(painter, wheel, middle)

    def _name_wheel(self, painter: QPainter, wheel: str, middle: QPointF) -> None:
        """Write under a wheel whether its screw is open, and what it is called."""
        front, open_ = wheel.startswith("front"), wheel in self.open
        color = T.front if front else T.rear
        side = 1 if front else -1
        inward = 34 if wheel.endswith("right") else -40
        at = middle + QPointF(side * 15, inward)
        words = f"OPEN {self.open[wheel]}".strip() if open_ else "shut"
        align = "left" if front else "right"
        ground = QRectF(at.x() - (0 if front else 92), at.y() - 16, 92, 38)
        painter.fillRect(ground, QColor(T.paper))
        write(painter, words, at, size=17, weight=700 if open_ else 500,
              color=color if open_ else T.muted, side=align)  # type: ignore[arg-type]  # fmt: skip
        color = T.ink if wheel in self.now else T.muted
        write(painter, said(wheel), at + QPointF(0, 17), size=14, color=color, side=align)  # type: ignore[arg-type]  # fmt: skip

    def _draw_bottle(self, painter: QPainter, wheel: QPointF, side: int, *, open_: bool) -> None:
        """Draw a bottle outside of the wheel, the hose's end under its fluid."""
        top = min(max(wheel.y() - BOTTLE[1] / 2, 18.0), self.down / self._larger - BOTTLE[1] - 4)
        left = wheel.x() + side * (WHEEL[0] / 2 + 46) - BOTTLE[0] / 2
        box = QRectF(left, top, *BOTTLE)
        ink(painter, pen(T.ink, 2), QColor(T.sheet))
        painter.drawRoundedRect(box, 6, 6)
        painter.fillRect(box.adjusted(2, 20, -2, -2), QColor(T.fluid[1]))
        hose = QPainterPath(wheel)
        over = QPointF(box.center().x(), box.top() - 12)
        hose.cubicTo(
            wheel + QPointF(side * 50, -30), over, QPointF(box.center().x(), box.top() + 6)
        )
        hose.lineTo(QPointF(box.center().x(), box.bottom() - 10))
        outline(painter, T.ink, 6)
        painter.drawPath(hose)
        painter.setPen(pen(T.fluid[2] if open_ else T.sheet, 3))
        painter.drawPath(hose)
