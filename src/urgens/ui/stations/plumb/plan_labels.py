"""What stands on a plan in words: names, threads and seats at the ends, wheels, circuits."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import hypot

import numpy as np

from urgens.document.circuits import Circuits
from urgens.guidance.words.parts import CIRCUITS, ON_PLAN, part_name
from urgens.plumbing.branches import bad_joins
from urgens.plumbing.plan_shapes import LayoutPlan, Side
from urgens.ui.stations.plumb.plan_art import TAG, tag_width
from urgens.ui.theme.paint import T, metrics, width
from urgens.ui.widgets.label_placer import DIRECTIONS, Box, Label, overlap, place
from urgens.ui.widgets.schematic.model import Spot

SAMPLED = 5.0  # px between two spots of a line that labels keep clear of
NUMBER = 12.0  # px: half of a line's number
NEAR = 26.0  # px from its end that a tag is at most: further off it could be any other's
AROUND = 6.0  # px round a line that no tag stands on


@dataclass(frozen=True)
class PlanLabel:
    """Words at a box; of a tag the sign of its `seat`."""

    text: str
    box: Box
    color: str
    size: int = 14
    weight: int = 500
    seat: str | None = None
    bad: bool = False


@dataclass(frozen=True)
class _Wish:
    text: str
    anchor: Spot
    color: str
    sides: Sequence[tuple[int, int]] = DIRECTIONS
    size: int = 14
    weight: int = 500
    seat: str | None = None
    bad: bool = False
    must: bool = False  # else it is left out where it would stand on a line

    @property
    def extent(self) -> Spot:
        if self.seat is not None:
            return tag_width(self.text), TAG
        return width(self.text, self.size, self.weight), metrics(self.size, self.weight).height()


@dataclass(frozen=True)
class LabelGround:
    """What labels keep clear of: bodies, lines and their numbers [px]; and where they may be."""

    bounds: Box
    bodies: Mapping[str, Box]  # by part
    lines: Sequence[Sequence[Spot]]
    taken: Sequence[Box]

    def sampled(self) -> list[np.ndarray]:
        """Return spots along the lines."""
        found = []
        for corners in self.lines:
            for (x1, y1), (x2, y2) in pairwise(corners):
                steps = max(int(max(abs(x2 - x1), abs(y2 - y1)) / SAMPLED), 1) + 1
                found.append(
                    np.column_stack((np.linspace(x1, x2, steps), np.linspace(y1, y2, steps)))
                )
        return found


def labels(
    circuits: Circuits, plan: LayoutPlan, pitch: float, origin: Spot, ground: LabelGround
) -> list[PlanLabel]:
    """Return the words of a plan, what matters most first; what has no room is left out.

    Those of the last plan are kept: most edits change no word of it.
    """
    global _last
    wishes = [*_bad(circuits, plan), *_circuits(circuits, plan), *_tags(circuits, plan)]
    named = tuple(part_name(circuits, part) for part in circuits.plumbing.parts)
    key = (tuple(wishes), named, pitch, origin, ground.bounds, tuple(ground.bodies.items()),
           tuple(map(tuple, ground.lines)), tuple(ground.taken), T.tokens)  # fmt: skip
    if _last is None or _last[0] != key:
        _last = key, _placed(circuits, wishes, pitch, origin, ground)
    return list(_last[1])


_last: tuple[object, list[PlanLabel]] | None = None


def _placed(
    circuits: Circuits, wishes: list[_Wish], pitch: float, origin: Spot, ground: LabelGround
) -> list[PlanLabel]:

    def px(spot: Spot) -> Spot:
        return origin[0] + spot[0] * pitch, origin[1] + spot[1] * pitch

    wanted = [Label(w.text, px(w.anchor), w.extent, w.sides) for w in wishes]
    lines = ground.sampled()
    every = np.concatenate(lines) if lines else np.empty((0, 2))
    found = names(circuits, ground, every)
    taken = (*ground.taken, *(words.box for words in found))
    boxes = place(wanted, ground.bounds, lines, [*ground.bodies.values()], taken)
    for wish, box in zip(wishes, boxes, strict=True):
        if box is None:
            continue
        near = _away(box, px(wish.anchor)) < NEAR
        if wish.must or (near and _clear(box, every, ground)):
            found.append(PlanLabel(wish.text, box, wish.color, wish.size, wish.weight, wish.seat,
                                   wish.bad))  # fmt: skip
    return found


def _away(box: Box, at: Spot) -> float:
    """Return how far a box is from a spot."""
    across = max(box[0] - at[0], at[0] - box[0] - box[2], 0.0)
    return hypot(across, max(box[1] - at[1], at[1] - box[1] - box[3], 0.0))


def _clear(box: Box, spots: np.ndarray, ground: LabelGround) -> bool:
    """Tell whether nothing of a line and no body is where a box is."""
    left, top, wide, high = box
    x, y = spots[:, 0], spots[:, 1]
    inside = (x > left - AROUND) & (x < left + wide + AROUND) & (y > top - AROUND)
    on_line = bool(np.any(inside & (y < top + high + AROUND)))
    return not on_line and not any(overlap(box, body) for body in ground.bodies.values())


def _bad(circuits: Circuits, plan: LayoutPlan) -> Iterator[_Wish]:
    """Yield what is screwed where it does not belong."""
    for bad in bad_joins(circuits.plumbing):
        part, _, port = bad.port.partition(".")
        at = plan.parts[part].ports[port].outside
        thread, _, seat = bad.given.partition(" ")
        yield _Wish(thread, at, T.danger, seat=seat or "inverted", bad=True, must=True)


def names(circuits: Circuits, ground: LabelGround, spots: np.ndarray) -> list[PlanLabel]:
    """Return the names of parts, each close by its own: below, above, or beside it."""
    found: list[PlanLabel] = []
    for part in circuits.plumbing.parts:
        if part.wheel is not None or part.kind == "plug":
            continue  # a wheel's stands with its pressure
        name = ON_PLAN[part.kind] if part.kind != "hose" else part_name(circuits, part)
        for box in _close_by(ground.bodies[part.id], _Wish(name, (0, 0), T.ink, size=15).extent):
            taken = (*ground.taken, *(words.box for words in found))
            if (
                _clear(box, spots, ground)
                and not any(overlap(box, other) for other in taken)
                and _inside(box, ground.bounds)
            ):
                found.append(PlanLabel(name, box, T.ink, 15, 600))
                break
    return found


def _close_by(body: Box, extent: Spot) -> Iterator[Box]:
    """Yield boxes of a size close by a body, the best first."""
    left, top, wide, high = body
    across, down = extent
    middle = left + (wide - across) / 2
    for x in (middle, left, left + wide - across):
        yield x, top + high + 4, across, down
        yield x, top - down - 4, across, down
    for y in (top + (high - down) / 2, top + high - down, top):
        yield left + wide + 7, y, across, down
        yield left - across - 7, y, across, down
    for x in (left + wide + 7, left - across - 7):
        for y in (top + high, top - down):
            yield x, y, across, down


def _inside(box: Box, bounds: Box) -> bool:
    left, top, wide, high = box
    right, foot = bounds[0] + bounds[2], bounds[1] + bounds[3]
    return left >= bounds[0] and top >= bounds[1] and left + wide <= right and top + high <= foot


def _circuits(circuits: Circuits, plan: LayoutPlan) -> Iterator[_Wish]:
    """Yield the circuit's name at each outlet of a cylinder."""
    colors = {"front": T.front, "rear": T.rear}
    for outlet, circuit in circuits.outlets.items():
        port = plan.parts[outlet.part].ports.get(outlet.side)
        if port is not None:
            color = colors.get(circuit, T.ink)
            yield _Wish(CIRCUITS[circuit], port.outside, color, _beside(port.side), weight=600)


def _tags(circuits: Circuits, plan: LayoutPlan) -> Iterator[_Wish]:
    """Yield thread and seat of every end of a line, once where both ends of a port say the same."""
    bad = {one.port for one in bad_joins(circuits.plumbing)}
    for line in circuits.plumbing.lines:
        for end, name in zip(line.ends, (line.start, str(line.to)), strict=False):
            part, _, port = name.partition(".")
            if name not in bad:
                at = plan.parts[part].ports[port]
                yield _Wish(end.nut, at.outside, T.ink, _beside(at.side), seat=end.flare)


def _beside(side: Side) -> tuple[tuple[int, int], ...]:
    """Return the sides of a spot that are beside a line which leaves a part on a side."""
    if side.upright:
        return (1, 0), (-1, 0), (1, -1), (-1, -1), (1, 1), (-1, 1)
    return (0, -1), (0, 1), (1, -1), (-1, -1), (1, 1), (-1, 1)
