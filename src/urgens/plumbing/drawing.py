"""The plan of a layout, laid out by itself."""

from collections.abc import Hashable
from dataclasses import dataclass

from urgens.document.circuits import Circuits
from urgens.plumbing.plan_places import grid_size, placed, size_of
from urgens.plumbing.plan_ports import with_ports
from urgens.plumbing.plan_runs import runs
from urgens.plumbing.plan_shapes import LayoutPlan

ROOMIER = 1.3  # times as much room, where there was too little
KEPT = 8  # layouts whose plan is kept: an undo comes back to one


@dataclass(frozen=True)
class _Shape:
    """What a plan is laid out by: nothing of threads, nuts or figures."""

    parts: tuple[Hashable, ...]
    lines: tuple[Hashable, ...]
    outlets: tuple[Hashable, ...]


_plans: dict[_Shape, LayoutPlan] = {}


def plan_of(circuits: Circuits) -> LayoutPlan:
    """Return the plan of a layout, laid out by itself; what was drawn somewhere stays there.

    circuits: of the layout. Those of the last layouts are kept.
    """
    shape = _Shape(
        tuple((part.id, part.kind, tuple(part.ports), part.wheel, part.drawn_at)
              for part in circuits.plumbing.parts),
        tuple((line.id, line.start, str(line.to), line.direct) for line in circuits.plumbing.lines),
        tuple(circuits.outlets.items()),
    )  # fmt: skip
    found = _plans.pop(shape, None) or _laid_out(circuits)
    _plans[shape] = found  # the last one used is the last to go
    while len(_plans) > KEPT:
        del _plans[next(iter(_plans))]
    return found


def _laid_out(circuits: Circuits) -> LayoutPlan:
    sizes = {part.id: size_of(part) for part in circuits.plumbing.parts}
    roomier = 1.0
    while True:
        size = grid_size(len(sizes), roomier)
        corners = placed(circuits, sizes, size)
        if corners is not None:
            break
        roomier *= ROOMIER
    parts = with_ports(circuits, corners, sizes, size[1])
    return LayoutPlan(size, parts, runs(circuits.plumbing.lines, parts, size))
