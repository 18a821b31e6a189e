"""The plan of a layout, laid out by itself."""

from urgens.document.circuits import Circuits
from urgens.plumbing.plan_places import grid_size, placed, size_of
from urgens.plumbing.plan_ports import with_ports
from urgens.plumbing.plan_runs import runs
from urgens.plumbing.plan_shapes import LayoutPlan

ROOMIER = 1.3  # times as much room, where there was too little


def plan_of(circuits: Circuits) -> LayoutPlan:
    """Return the plan of a layout, laid out by itself; what was drawn somewhere stays there.

    circuits: of the layout.
    """
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
