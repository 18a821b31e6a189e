"""The plan of a layout, seen from above, front on the left: parts, ports, lines at right angles.

All spots are whole steps of a square grid, x to the right (backward), y down (to the left side).
"""

from dataclasses import dataclass
from enum import StrEnum

Spot = tuple[int, int]  # steps of the grid


class Side(StrEnum):
    """The side of a part that a port is on."""

    LEFT = "left"
    RIGHT = "right"
    TOP = "top"
    FOOT = "foot"

    @property
    def way(self) -> Spot:
        """One step out of the part."""
        return {"left": (-1, 0), "right": (1, 0), "top": (0, -1), "foot": (0, 1)}[self]

    @property
    def upright(self) -> bool:
        """Whether a line leaves it up or down."""
        return self in (Side.TOP, Side.FOOT)


@dataclass(frozen=True)
class PlanPort:
    """A port on the edge of a part: where it is on the plan, and which side."""

    name: str
    at: Spot
    side: Side

    @property
    def outside(self) -> Spot:
        """The first spot outside the part."""
        (x, y), (dx, dy) = self.at, self.side.way
        return x + dx, y + dy


@dataclass(frozen=True)
class PlanPart:
    """A part: its upper left corner, its width and height, its ports by name."""

    id: str
    at: Spot
    size: Spot
    ports: dict[str, PlanPort]

    @property
    def middle(self) -> tuple[float, float]:
        """The middle of it [steps]."""
        return self.at[0] + self.size[0] / 2, self.at[1] + self.size[1] / 2


@dataclass(frozen=True)
class PlanRun:
    """A line on the plan: its corners, ends among them, and where it hops over others."""

    id: str
    corners: tuple[Spot, ...]
    hops: tuple[Spot, ...] = ()


@dataclass(frozen=True)
class LayoutPlan:
    """Where everything is; `size` in steps of the grid."""

    size: Spot
    parts: dict[str, PlanPart]
    runs: dict[str, PlanRun]

    @property
    def crossings(self) -> int:
        """How often a line goes over another."""
        return sum(len(run.hops) for run in self.runs.values())
