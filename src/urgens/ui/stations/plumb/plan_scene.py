"""What of a layout is where on its plan: parts, lines, words, gauges, at the size of the view."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import pairwise
from math import hypot

from PySide6.QtCore import Qt

from urgens.guidance import Severity
from urgens.guidance.words.parts import line_called, part_name
from urgens.physics.axle import Axle
from urgens.plumbing.plan_shapes import LayoutPlan, PlanPort
from urgens.ui.session import Session
from urgens.ui.stations.plumb import plan_art
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.stations.plumb.placing import Placing
from urgens.ui.stations.plumb.plan_labels import NUMBER, LabelGround, PlanLabel, labels
from urgens.ui.theme.paint import T, width
from urgens.ui.widgets.label_placer import Box, overlap
from urgens.ui.widgets.schematic import (
    Schematic,
    SchematicLine,
    SchematicPart,
    SchematicPort,
    SchematicView,
)
from urgens.ui.widgets.schematic.model import Spot
from urgens.ui.widgets.seen import WhenSeen

LEAST = 11.0  # px of a step of the grid: below it lines touch
MOST = 26.0  # px of a step of the grid: above it is only air
PAD = 14.0  # px round the plan
ZOOMS = (1.0, 1.25, 1.6, 2.0, 2.6, 3.4)
ROD = 22.0  # px of the pushrod that stands out of a cylinder
FIGURE = 70.0  # px of the figure beside a gauge
DIAL_AWAY = 34.0  # px from a port to its gauge
APART = 8.0  # px between a wheel's words and what is beside them
LEAST_WORDS = 60.0  # px of a wheel's words, which hold a pressure as well
WORDS_MOVED = (0.0, -14.0, 14.0, -28.0, 28.0, -42.0, 42.0, -56.0, 56.0)  # px, tried in turn
MANY = 30  # parts; of more the words follow a little later
MARK = 10.0  # px: half of the mark of what is found


class PlanScene(SchematicView):
    """Works out where everything is, and follows the press; a subclass draws it and has hands."""

    def __init__(self, session: Session, laid: Laid) -> None:
        super().__init__(session, "Plan of the layout")
        self._session, self._laid = session, laid
        self.gauges: tuple[str, ...] = ()
        self.words: list[PlanLabel] = []
        self.numbers: dict[str, Spot] = {}  # where the number of each line stands
        self.marks: Mapping[str, Severity] = {}  # the worst that is found, by part or line
        self.placing = Placing()  # a part in the hand
        self._zoom, self._due = 0, False
        self._drawn: tuple[LayoutPlan, object] | None = None  # what is drawn, and how
        self._pressures: dict[str, float] = {}
        self._hardest = 1.0
        session.press_changed.connect(WhenSeen(self, self._read, stale=False).ask)

    # --- what is shown ---------------------------------------------------------------------

    def show_layout(self) -> None:
        """Show the layout as it is now."""
        self._scale()
        self._read_pressures()
        schematic = Schematic(self._parts(), self._lines())
        looks = schematic, self.size(), self._shown_gauges, self.marks, self._laid.circuits.outlets
        if (
            self._drawn is not None
            and self._drawn[0] is self._laid.plan
            and self._drawn[1] == looks
        ):
            self.viewport().update()  # only pressures are others
            return
        self._drawn = self._laid.plan, looks
        self.show_schematic(schematic)
        across, down = self.extent
        self.setSceneRect(0, 0, across, down)
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        policy = Qt.ScrollBarPolicy.ScrollBarAsNeeded
        if not self._zoom:
            policy = Qt.ScrollBarPolicy.ScrollBarAlwaysOff
        self.setHorizontalScrollBarPolicy(policy)
        self.setVerticalScrollBarPolicy(policy)
        if self._session.telling and len(schematic.parts) > MANY and self.words:
            self._due = True  # words of a large plan follow once it is painted
        else:
            self._write()

    def write_due(self) -> None:
        """Place the words that a large plan still waits for."""
        if self._due:
            self._write()
            self.viewport().update()

    def show_schematic(self, schematic: Schematic, shrunk: float = 1.0) -> None:
        super().show_schematic(schematic, shrunk * self._shrunk)

    def _scale(self) -> None:
        """Find how wide a step is, so that the plan fills the view; a large one shrinks."""
        (across, down), room = self._laid.plan.size, self.viewport().size()
        wide, high = (
            max(along / T.scale - 2 * PAD, 50.0) for along in (room.width(), room.height())
        )
        fits = min(wide / across, high / down)
        self.pitch = min(max(fits, LEAST), MOST) * ZOOMS[self._zoom]
        self._shrunk = min(1.0, fits / LEAST) if not self._zoom else 1.0
        self.step = self.pitch
        self.origin = (PAD, PAD)

    @property
    def extent(self) -> Spot:
        """Width and height of the plan [px]."""
        across, down = self._laid.plan.size
        return across * self.pitch + 2 * PAD, down * self.pitch + 2 * PAD

    def _px(self, spot: Spot) -> Spot:
        return self.origin[0] + spot[0] * self.pitch, self.origin[1] + spot[1] * self.pitch

    def _parts(self) -> tuple[SchematicPart, ...]:
        found = []
        for part in self._laid.plumbing.parts:
            made = self._laid.plan.parts[part.id]
            middle = self._px(made.middle)
            ports = tuple(
                SchematicPort(name, (x - middle[0], y - middle[1]))
                for name, port in made.ports.items()
                for x, y in (self._px(port.at),)
            )
            size = made.size[0] * self.pitch, made.size[1] * self.pitch
            name = part_name(self._laid.circuits, part)
            found.append(SchematicPart(part.id, name, middle, size, ports, movable=self._laid.own))
        return tuple(found)

    def _lines(self) -> tuple[SchematicLine, ...]:
        found = []
        for line in self._laid.plumbing.lines:
            run = self._laid.plan.runs[line.id]
            ends = (name.partition(".") for name in (line.start, str(line.to)))
            start, end = ((part, port) for part, _, port in ends)
            name = line_called(self._laid.circuits, line)
            corners = tuple(self._px(corner) for corner in run.corners)
            hops = tuple(self._px(hop) for hop in run.hops)
            found.append(SchematicLine(line.id, name, start, end, corners=corners, hops=hops))
        return tuple(found)

    def _read(self) -> None:
        """Follow the press: only colours and figures change."""
        self._read_pressures()
        self.viewport().update()

    def _read_pressures(self) -> None:
        self._pressures = self._laid.pressures
        hardest = self._session.hardest
        self._hardest = max(*(float(hardest.master(axle)) for axle in Axle), 1.0)

    def _write(self) -> None:
        """Place the words anew."""
        self._due = False
        bodies = {part.where: self._ground_of(part) for part in self.schematic.parts}
        self.numbers = numbers_of(self._numbered(), bodies.values())
        taken = [self._box(at, NUMBER) for at in self.numbers.values()]
        taken += [self._wheel_words(part)[0] for part in self._wheels()]
        taken += [self._gauge_box(name) for name in self._shown_gauges]
        taken += [self._box(self._mark_at(part), MARK) for part in self._marked()]
        taken.append((PAD, self.extent[1] / 2 - 12, 64.0, 24.0))  # which way is the front
        lines = [line.corners for line in self.schematic.lines]
        bounds = (0.0, 0.0, *self.extent)
        ground = LabelGround(bounds, bodies, lines, taken)
        self.words = labels(self._laid.circuits, self._laid.plan, self.pitch, self.origin, ground)

    @staticmethod
    def _box(at: Spot, half: float) -> Box:
        return at[0] - half, at[1] - half, 2 * half, 2 * half

    @staticmethod
    def _body(part: SchematicPart) -> Box:
        return part.at[0] - part.size[0] / 2, part.at[1] - part.size[1] / 2, *part.size

    def _ground_of(self, part: SchematicPart) -> Box:
        """Return what no word stands on: a body, and a cylinder's pushrod."""
        left, top, wide, high = self._body(part)
        rod = ROD if self._laid.circuits.parts[part.where].kind == "master" else 0.0
        return left, top, wide + rod, high

    def _marked(self) -> list[SchematicPart]:
        """Return the parts of which there is something to say beside advice."""
        said = {where for where, mark in self.marks.items() if mark is not Severity.ADVICE}
        return [part for part in self.schematic.parts if part.where in said]

    @staticmethod
    def _mark_at(part: SchematicPart) -> Spot:
        return part.at[0] + part.size[0] / 2, part.at[1] - part.size[1] / 2

    def _numbered(self) -> list[SchematicLine]:
        rigid = {line.id for line in self._laid.plumbing.lines if not line.direct}
        return [line for line in self.schematic.lines if line.where in rigid]

    @staticmethod
    def _middle(line: SchematicLine) -> Spot:
        """Return the middle of the longest stretch of a line."""
        stretches = pairwise(line.corners)
        (x1, y1), (x2, y2) = max(
            stretches, key=lambda s: abs(s[0][0] - s[1][0]) + abs(s[0][1] - s[1][1])
        )
        return (x1 + x2) / 2, (y1 + y2) / 2

    # --- gauges ----------------------------------------------------------------------------

    @property
    def _shown_gauges(self) -> list[str]:
        return [name for name in self.gauges if self._port(name) is not None]

    def _port(self, name: str) -> PlanPort | None:
        part, _, port = name.partition(".")
        made = self._laid.plan.parts.get(part)
        return None if made is None else made.ports.get(port)

    def _gauge_at(self, name: str) -> Spot:
        """Return where the gauge of a port is: aside of the line that leaves it."""
        port = self._port(name)
        assert port is not None
        x, y = self._px(port.outside)
        away = (DIAL_AWAY, 0.0) if port.side.upright else (0.0, -DIAL_AWAY)
        return x + away[0], y + away[1]

    def _gauge_box(self, name: str) -> Box:
        """Return the box of a gauge with its figure."""
        left, top, wide, high = self._box(self._gauge_at(name), plan_art.DIAL + 2)
        return left, top, wide + FIGURE, high

    def set_gauges(self, names: tuple[str, ...]) -> None:
        """Put gauges on these ports, and on no others."""
        self.gauges = names
        self._write()
        self.viewport().update()

    # --- wheels ----------------------------------------------------------------------------

    def _wheels(self) -> list[SchematicPart]:
        named = {part.id for part in self._laid.plumbing.parts if part.wheel is not None}
        return [part for part in self.schematic.parts if part.where in named]

    def _wheel_words(self, part: SchematicPart) -> tuple[Box, bool]:
        """Return where a wheel's words are, and whether they are on its right.

        Level with the wheel, else the least bit above or below at which they stand on no body.
        """
        right = part.at[0] < self.extent[0] / 2
        wide = max(width(part.name, 15, 600), LEAST_WORDS) + APART
        edge = part.at[0] + (part.size[0] / 2 + 8) * (1 if right else -1)
        x = edge if right else edge - wide
        bodies = [self._ground_of(one) for one in self.schematic.parts if one is not part]
        boxes = [
            (x, part.at[1] - 18 + moved, wide, 36.0)
            for moved in WORDS_MOVED
            if 0 <= part.at[1] - 18 + moved <= self.extent[1] - 36
        ]
        free = (box for box in boxes if not any(overlap(box, body) for body in bodies))
        return next(free, boxes[0]), right

    def _at(self, port: str) -> float | None:
        for line in self._laid.plumbing.lines:
            if port in (line.start, line.to) and line.id in self._pressures:
                return self._pressures[line.id]
        return None


def numbers_of(lines: Sequence[SchematicLine], bodies: Iterable[Box]) -> dict[str, Spot]:
    """Return where the number of each line stands: on it, and on no other number, nor on a body.

    The longest stretches first; where a line is too short for its number it stands beside it.
    """
    found: dict[str, Spot] = {}
    ground = [(x - NUMBER, y - NUMBER, w + 2 * NUMBER, h + 2 * NUMBER) for x, y, w, h in bodies]
    for line in sorted(lines, key=_length):  # short ones have the fewest places
        spots = list(_spots(line))
        free = (at for at in spots if _is_free(at, found.values(), ground))
        apart = (at for at in spots if _is_free(at, found.values(), ()))
        found[line.where] = next(free, None) or next(apart, spots[0])
    return found


def _length(line: SchematicLine) -> float:
    return sum(abs(x1 - x2) + abs(y1 - y2) for (x1, y1), (x2, y2) in pairwise(line.corners))


def _spots(line: SchematicLine) -> Iterator[Spot]:
    """Yield spots on a line, the middle of its longest stretch first, then spots beside it."""
    stretches = sorted(
        pairwise(line.corners),
        key=lambda s: -(abs(s[0][0] - s[1][0]) + abs(s[0][1] - s[1][1])),
    )
    for share in (0.5, 0.35, 0.65, 0.2, 0.8):
        for (x1, y1), (x2, y2) in stretches:
            yield x1 + share * (x2 - x1), y1 + share * (y2 - y1)
    for off in (16.0, -16.0, 28.0, -28.0, 40.0, -40.0):
        for (x1, y1), (x2, y2) in stretches:
            upright = abs(x1 - x2) < abs(y1 - y2)
            across = (off, 0.0) if upright else (0.0, off)
            yield (x1 + x2) / 2 + across[0], (y1 + y2) / 2 + across[1]


def _is_free(at: Spot, others: Iterable[Spot], bodies: Iterable[Box]) -> bool:
    """Tell whether a number at a spot touches no other number and no body."""
    if any(hypot(at[0] - x, at[1] - y) < 2 * NUMBER for x, y in others):
        return False
    return not any(x < at[0] < x + w and y < at[1] < y + h for x, y, w, h in bodies)
