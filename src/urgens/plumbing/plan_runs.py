"""The way of each line on a plan: at right angles, round parts, seldom over other lines."""

from collections.abc import Iterable, Mapping
from functools import lru_cache
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from urgens.document.layout.layout import BrakeLine
from urgens.physics.arrays import Array
from urgens.plumbing.plan_shapes import PlanPart, PlanPort, PlanRun, Spot

STEP = 1.0  # what a step of the grid costs
# Steps that a corner, and hopping over a line, are worth
BEND = 5.0
CROSSING = 25.0
BESIDE = 0.6  # more for a step close by a part: lines keep off where there is room
IN_THE_WAY = 400.0  # steps that going through a part, or along in another line, is worth
AROUND = 8  # steps looked at round a line
ROUND = 8  # to whole numbers of so many
NOWHERE = -9999  # what scipy calls the spot before where there is none


class _Net(NamedTuple):
    """A grid as a graph: every spot twice, once for going level and once for going upright.

    `edges` tells which edge an entry of the sparse graph is: the level ones first, then the upright
    ones, then the turns.
    """

    edges: Array
    indices: Array
    starts: Array
    spots: int


@lru_cache(maxsize=128)
def _net(down: int, across: int) -> _Net:
    """Return the graph of a grid of so many spots."""
    from scipy.sparse import csr_array

    spots = np.arange(down * across).reshape(down, across)
    level, upright = spots, spots + spots.size
    pairs = ((level[:, :-1], level[:, 1:]), (upright[:-1, :], upright[1:, :]), (level, upright))
    one, other = (np.concatenate([pair[end].ravel() for pair in pairs]) for end in (0, 1))
    both = np.concatenate((one, other)), np.concatenate((other, one))
    numbers = np.tile(np.arange(1, one.size + 1), 2)  # an entry of nought would be none
    graph = csr_array((numbers, both), shape=(2 * spots.size,) * 2)
    return _Net(graph.data - 1, graph.indices, graph.indptr, spots.size)


class Ways:
    """What it costs to go along the grid of a plan, and the cheapest ways through it."""

    def __init__(self, size: Spot, parts: Iterable[PlanPart]) -> None:
        across, down = size[0] + 1, size[1] + 1
        self.shape = down, across
        # What going along costs between two spots, and what turning costs at one.
        self.level = np.full((down, across - 1), STEP)
        self.upright = np.full((down - 1, across), STEP)
        self.turn = np.full((down, across), BEND)
        for part in parts:
            self._bar(part)

    def _bar(self, part: PlanPart) -> None:
        (x, y), (wide, high) = part.at, part.size
        for margin, cost in ((1, BESIDE), (0, IN_THE_WAY)):
            rows = slice(max(y - margin, 0), y + high + margin + 1)
            columns = slice(max(x - margin, 0), x + wide + margin + 1)
            self.level[rows, max(x - margin - 1, 0) : x + wide + margin + 1] += cost
            self.upright[max(y - margin - 1, 0) : y + high + margin + 1, columns] += cost
            self.turn[rows, columns] += cost

    def between(self, start: PlanPort, end: PlanPort) -> tuple[Spot, ...]:
        """Return the corners of the cheapest way from port to port.

        start, end: ports [steps].
        Near the two first; everywhere where near them something is in the way.
        Source: Dijkstra's shortest path (scipy).
        """
        boxes = [
            (max(min(a, b) - AROUND, 0) // ROUND * ROUND,
             min(-(-(max(a, b) + AROUND) // ROUND) * ROUND, most) + 1)
            for a, b, most in zip(start.outside, end.outside, self._last, strict=True)
        ]  # fmt: skip
        cost, way = self._within(start, end, *boxes)
        if cost >= IN_THE_WAY:
            way = self._within(start, end, *((0, most + 1) for most in self._last))[1]
        return _corners([start.at, *way, end.at])

    @property
    def _last(self) -> Spot:
        return self.shape[1] - 1, self.shape[0] - 1

    def _within(
        self, start: PlanPort, end: PlanPort, across: Spot, down: Spot
    ) -> tuple[float, list[Spot]]:
        """Return the cost of the cheapest way inside a box, and its spots."""
        from scipy.sparse import csr_array
        from scipy.sparse.csgraph import dijkstra

        (left, right), (top, foot) = across, down
        wide = right - left
        net = _net(foot - top, wide)
        costs = np.concatenate((
            self.level[top:foot, left : right - 1].ravel(),
            self.upright[top : foot - 1, left:right].ravel(),
            self.turn[top:foot, left:right].ravel(),
        ))  # fmt: skip
        graph = csr_array((costs[net.edges], net.indices, net.starts), shape=(2 * net.spots,) * 2)
        first, last = (
            (min(max(y, top), foot - 1) - top) * wide
            + min(max(x, left), right - 1) - left
            + (net.spots if upright else 0)
            for (x, y), upright in ((p.outside, p.side.upright) for p in (start, end))
        )  # fmt: skip
        far, before = dijkstra(graph, indices=first, return_predecessors=True)
        at, found = last, [last]
        while before[at] != NOWHERE:
            at = int(before[at])
            found.append(at)
        spots = (node % net.spots for node in reversed(found))
        return float(far[last]), [(spot % wide + left, spot // wide + top) for spot in spots]

    def lay(self, corners: tuple[Spot, ...]) -> None:
        """Let what comes later know that a line runs here; corners: of it [steps]."""
        for (x1, y1), (x2, y2) in pairwise(corners):
            left, right, top, foot = min(x1, x2), max(x1, x2), min(y1, y2), max(y1, y2)
            self.turn[top : foot + 1, left : right + 1] += IN_THE_WAY
            if y1 == y2:
                self.level[y1, left:right] += IN_THE_WAY
                # Half of it into the spot and half out of it.
                self.upright[max(y1 - 1, 0) : y1 + 1, left : right + 1] += CROSSING / 2
            else:
                self.upright[top:foot, x1] += IN_THE_WAY
                self.level[top : foot + 1, max(x1 - 1, 0) : x1 + 1] += CROSSING / 2


def _corners(way: list[Spot]) -> tuple[Spot, ...]:
    """Return the spots of a way at which it turns, and its ends."""
    way = [here for here, before in zip(way, [None, *way], strict=False) if here != before]
    inner = zip(way, way[1:], way[2:], strict=False)
    turns = [here for one, here, two in inner if one[0] != two[0] and one[1] != two[1]]
    return way[0], *turns, way[-1]


def runs(
    lines: Iterable[BrakeLine], parts: Mapping[str, PlanPart], size: Spot
) -> dict[str, PlanRun]:
    """Return the way of each line, by its id.

    lines: of the layout; parts: with their ports, by id [steps]; size: of the plan
    [steps].
    Short ones are laid first: they have the least choice.
    """
    ends = {}
    for line in lines:
        one, other = (name.partition(".") for name in (line.start, str(line.to)))
        ends[line.id] = parts[one[0]].ports[one[2]], parts[other[0]].ports[other[2]]

    def far(name: str) -> int:
        (x1, y1), (x2, y2) = (port.at for port in ends[name])
        return abs(x1 - x2) + abs(y1 - y2)

    ways, laid = Ways(size, parts.values()), {}
    for name in sorted(ends, key=far):
        corners = ways.between(*ends[name])
        ways.lay(corners)
        laid[name] = corners
    hops = _hops(laid)
    return {name: PlanRun(name, laid[name], tuple(hops.get(name, ()))) for name in ends}


def _hops(laid: Mapping[str, tuple[Spot, ...]]) -> dict[str, list[Spot]]:
    """Return where level stretches of lines go over upright ones of others."""
    level, upright = [], []
    for index, corners in enumerate(laid.values()):
        for (x1, y1), (x2, y2) in pairwise(corners):
            if y1 == y2:
                level.append((index, y1, min(x1, x2), max(x1, x2)))
            else:
                upright.append((index, x1, min(y1, y2), max(y1, y2)))
    if not level or not upright:
        return {}
    own, y, left, right = (column[:, None] for column in np.array(level).T)
    other, x, top, foot = (column[None, :] for column in np.array(upright).T)
    over: Array = (own != other) & (left < x) & (x < right) & (top < y) & (y < foot)
    names = tuple(laid)
    found: dict[str, list[Spot]] = {}
    for one, two in np.argwhere(over):
        spot = int(x[0, two]), int(y[one, 0])
        found.setdefault(names[int(own[one, 0])], []).append(spot)
    return found
