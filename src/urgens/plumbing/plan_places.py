"""Where the parts of a layout stand on its plan: wheels at the corners, the rest between them."""

from collections.abc import Iterable
from math import ceil, sqrt

import numpy as np

from urgens.document.circuits import WHEELS, Circuits
from urgens.document.kinds.valves import LAID
from urgens.document.layout.layout import FittedPart
from urgens.plumbing.plan_shapes import Spot

# Steps of the usual plan, and the parts there is room for on it
ACROSS = 38
DOWN = 42
MOST = 24
MARGIN = 2  # steps kept free round a part, for lines
EDGE = 1  # steps kept free at the edge of the plan
# How much nearer what is screwed together stands than what is piped
SCREWED = 12.0
PIPED = 1.0
CLINGS = 4  # times as much as where it is wanted counts, in a crowd, what a part is joined to
SIZES: dict[str, Spot] = {
    "wheel-brake": (6, 2), "master": (8, 3), "combination": (4, 6), "switch": (4, 4),
    "block": (4, 3), "reservoir": (3, 3), "hose": (2, 2),
    **dict.fromkeys(LAID, (4, 3)),
}  # fmt: skip
SMALL: Spot = (2, 2)  # of any other kind
BESIDE = ("plug", "gauge", "sensor", "light-switch", "reservoir")  # stand by what they are in


def grid_size(parts: int, roomier: float = 1.0) -> Spot:
    """Return the size of a plan [steps]; parts: how many [-]; roomier: times as much room [-]."""
    wider = sqrt(max(parts / MOST, 1.0) * roomier)
    return ceil(ACROSS * wider), ceil(DOWN * wider)


def size_of(part: FittedPart) -> Spot:
    """Return how large a part is drawn [steps]; part: of the layout.

    Its kind, and room for all its ports along two of its sides.
    """
    wide, high = SIZES.get(part.kind, SMALL)
    along = ceil(len(part.ports) / 2)
    return max(wide, along + 1), max(high, along + 1 if part.kind != "wheel-brake" else 0)


def wanted(circuits: Circuits, size: Spot) -> dict[str, tuple[float, float]]:
    """Return where the middle of each part is wanted [steps].

    circuits: of the layout; size: of the plan [steps].
    What has been drawn somewhere stays there; else wheels are at their corners, the cylinder on
    the driver's side, what is piped to a rear wheel without a hose on the rear axle, and every
    other part amid those that it is joined to.
    Source: Tutte, How to Draw a Graph (1963): each free part at the mean of its neighbours.
    """
    anchors = _anchors(circuits, size)
    names = [name for name in circuits.parts if name not in anchors]
    place = {name: index for index, name in enumerate(names)}
    left, right = np.zeros((len(names), len(names))), np.zeros((len(names), 2))
    for one, other, weight in _joints(circuits):
        for here, there in ((one, other), (other, one)):
            if here not in place:
                continue
            left[place[here], place[here]] += weight
            if there in place:
                left[place[here], place[there]] -= weight
            else:
                right[place[here]] += weight * np.array(anchors[there])
    # What nothing holds drifts to the middle; all else hardly feels it.
    left[np.diag_indices(len(names))] += 1e-6
    right += 1e-6 * np.array(size) / 2.0
    found = np.linalg.solve(left, right)
    spots = {name: (float(x), float(y)) for name, (x, y) in zip(names, found, strict=True)}
    return {**_on_axles(circuits, size, spots), **anchors}


def _joints(circuits: Circuits) -> Iterable[tuple[str, str, float]]:
    for line in circuits.plumbing.lines:
        one, other = (name.partition(".")[0] for name in (line.start, line.to))
        if one != other:
            yield one, other, SCREWED if line.direct else PIPED


def _neighbours(circuits: Circuits) -> dict[str, set[str]]:
    """Return the parts that each part is joined to."""
    found: dict[str, set[str]] = {name: set() for name in circuits.parts}
    for one, other, _ in _joints(circuits):
        found[one].add(other)
        found[other].add(one)
    return found


def _anchors(circuits: Circuits, size: Spot) -> dict[str, tuple[float, float]]:
    """Return the middles that are known: what was drawn, wheels and cylinders."""
    across, down = size
    corners = dict(zip(WHEELS, ((0.12, 0.96), (0.12, 0.04), (0.88, 0.96), (0.88, 0.04)),
                       strict=True))  # fmt: skip
    found = {}
    taken: dict[str, int] = {}
    for part in circuits.plumbing.parts:
        spot = part.drawn_at
        if spot is None and part.wheel is not None:
            spot = corners[part.wheel]
        elif spot is None and part.kind == "master":
            taken["master"] = taken.get("master", -1) + 1
            spot = (0.42, 0.78 - 0.16 * taken["master"])
        if spot is not None:
            found[part.id] = (spot[0] * across, spot[1] * down)
    return found


def _on_axles(
    circuits: Circuits, size: Spot, spots: dict[str, tuple[float, float]]
) -> dict[str, tuple[float, float]]:
    """Return spots with what moves with the rear axle on it: piped to its wheels without a hose."""
    wheels = {w: p for w, p in circuits.wheels.items() if w.startswith("rear")}
    on_axle = 0.88 * size[0]
    found = dict(spots)
    for part in wheels.values():
        for name in _without_hoses(circuits, part.id):
            kind = circuits.parts[name].kind
            if name in found and kind in ("tee", "union", "block", "adapter"):
                found[name] = (on_axle, found[name][1])
    return found


def _without_hoses(circuits: Circuits, start: str) -> set[str]:
    """Return the parts that lines alone reach from a part, stopped by hoses and cylinders."""
    neighbours = _neighbours(circuits)
    found, waiting = {start}, [start]
    hose = False
    while waiting:
        for there in neighbours[waiting.pop()] - found:
            if circuits.parts[there].kind == "hose":
                hose = True
            elif circuits.parts[there].kind in ("master", "switch", "combination"):
                return set()  # no hose before the body: nothing here moves with the axle
            else:
                found.add(there)
                waiting.append(there)
    return found if hose else set()


class PlanGround:
    """What is taken of a plan, part by part."""

    def __init__(self, size: Spot) -> None:
        across, down = size
        # A rim of the margin's width is free, so that a window may reach over the edge of the plan.
        self._taken = np.zeros((down + 1 + 2 * MARGIN, across + 1 + 2 * MARGIN), dtype=np.int32)
        self._sums = np.zeros((down + 2 + 2 * MARGIN, across + 2 + 2 * MARGIN), dtype=np.int32)
        self._down, self._across = np.ogrid[: down + 1, : across + 1]

    def take(self, at: Spot, size: Spot) -> None:
        """Take the ground of a part; at: its upper left corner, size: its own [steps].

        Source: by definition.
        """
        (x, y), (wide, high) = at, size
        rows = slice(y + MARGIN, y + MARGIN + high + 1)
        self._taken[rows, x + MARGIN : x + MARGIN + wide + 1] = 1

    def nearest(self, middle: tuple[float, float], size: Spot) -> Spot | None:
        """Return the upper left corner nearest to a wanted middle, None where there is no room.

        middle: wanted [steps]; size: of the part [steps]. The margin is kept free round it.

        Sums over every window of the ground, from its running sums.
        """
        wide, high = (along + 1 + 2 * MARGIN for along in size)
        sums = self._sums
        self._taken.cumsum(0, out=sums[1:, 1:]).cumsum(1, out=sums[1:, 1:])
        if len(sums) <= high or len(sums.T) <= wide:
            return None
        taken = (
            sums[high:, wide:] - sums[:-high, wide:] - sums[high:, :-wide] + sums[:-high, :-wide]
        )[EDGE:-EDGE, EDGE:-EDGE]
        rows, columns = len(taken), len(taken.T)
        if not taken.size or taken.min() > 0:
            return None
        x, y = self._across[:, EDGE : EDGE + columns], self._down[EDGE : EDGE + rows]
        left, top = middle[0] - size[0] / 2, middle[1] - size[1] / 2
        away = np.where(taken == 0, np.square(x - left) + np.square(y - top), np.inf)
        best = int(np.argmin(away))
        return best % columns + EDGE, best // columns + EDGE


def placed(circuits: Circuits, sizes: dict[str, Spot], size: Spot) -> dict[str, Spot] | None:
    """Return the upper left corner of each part [steps], None where there is no room.

    circuits: of the layout; sizes: of its parts [steps]; size: of the plan [steps].

    Each as near as there is room to where `wanted` has it: what is held first, then the largest. Of
    many, each beside the one that it is fed by, so that a crowd stays in its order.
    """
    spots, ground = wanted(circuits, size), PlanGround(size)
    held = set(_anchors(circuits, size))
    crowd = _in_order(circuits) if len(sizes) > MOST else {}
    beside = _neighbours(circuits)

    def turn(name: str) -> tuple[bool, bool, int, int]:
        part = circuits.parts[name]
        area = sizes[name][0] * sizes[name][1]
        return name not in held, part.kind in BESIDE, crowd.get(name, 0), -area

    found: dict[str, Spot] = {}
    for name in sorted(circuits.parts, key=turn):
        middle = spots[name]
        near = [_middle(found[one], sizes[one]) for one in beside[name] if one in found]
        if crowd and near and name not in held:
            middle = _mean([*near * CLINGS, middle])
        at = ground.nearest(middle, sizes[name])
        if at is None:
            return None
        ground.take(at, sizes[name])
        found[name] = at
    return found


def _in_order(circuits: Circuits) -> dict[str, int]:
    """Return how many lines each part is from a cylinder, those not reached last."""
    beside = _neighbours(circuits)
    waiting = [name for name, part in circuits.parts.items() if part.kind == "master"]
    found = dict.fromkeys(waiting, 0)
    for name in waiting:
        for there in sorted(beside[name] - set(found)):
            found[there] = found[name] + 1
            waiting.append(there)
    return {name: found.get(name, len(circuits.parts)) for name in circuits.parts}


def _middle(at: Spot, size: Spot) -> tuple[float, float]:
    return at[0] + size[0] / 2, at[1] + size[1] / 2


def _mean(spots: list[tuple[float, float]]) -> tuple[float, float]:
    return sum(x for x, _ in spots) / len(spots), sum(y for _, y in spots) / len(spots)
