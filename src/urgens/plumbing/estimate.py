"""How long lines will be that nobody has routed: by the drawing's corners and the wheelbase."""

from itertools import pairwise
from math import hypot

from urgens.document.circuits import Circuits
from urgens.document.layout.layout import Plumbing
from urgens.plumbing.drawing import plan_of
from urgens.plumbing.plan_shapes import LayoutPlan, Spot

TRACK = 0.58  # of the wheelbase, from the middle of one wheel to the other's; common practice
UP_AND_DOWN = 1.25  # times: a line goes round things, and up and down, which no plan shows
LEAST = 0.15  # m


def estimated_lengths(circuits: Circuits, plan: LayoutPlan | None = None) -> dict[str, float]:
    """Return about how long each line of tube will be that has no route [m], by its id.

    circuits: of the layout; plan: of it, else it is laid out.
    None of a layout whose plan has no two axles. Those of the last layout are kept.
    Source: corners of the plan, to the scale of wheelbase and track, a quarter more for what goes
    round things; common practice.
    """
    global _last
    base = circuits.build.vehicle.wheelbase.value
    last = _last
    if last is None or last[0] is not circuits.plumbing or last[1] != base:
        last = _last = circuits.plumbing, base, _estimated(circuits, plan)
    return last[2]


_last: tuple[Plumbing, float, dict[str, float]] | None = None


def _estimated(circuits: Circuits, plan: LayoutPlan | None) -> dict[str, float]:
    wanted = [line for line in circuits.plumbing.lines if not line.direct and len(line.route) < 2]
    if not wanted:
        return {}
    plan = plan_of(circuits) if plan is None else plan
    scale = _scale(circuits, plan)
    if scale is None:
        return {}
    return {
        line.id: max(_along(plan.runs[line.id].corners, scale) * UP_AND_DOWN, LEAST)
        for line in wanted
    }


def _along(corners: tuple[Spot, ...], scale: tuple[float, float]) -> float:
    return sum(
        hypot((x1 - x0) * scale[0], (y1 - y0) * scale[1])
        for (x0, y0), (x1, y1) in pairwise(corners)
    )


def _scale(circuits: Circuits, plan: LayoutPlan) -> tuple[float, float] | None:
    """Return metres a step of the plan, along and across; None where wheels are missing."""
    at = {wheel: plan.parts[part.id].middle for wheel, part in circuits.wheels.items()}
    fronts = [spot for wheel, spot in at.items() if wheel.startswith("front")]
    rears = [spot for wheel, spot in at.items() if wheel.startswith("rear")]
    lefts = [spot for wheel, spot in at.items() if wheel.endswith("left")]
    rights = [spot for wheel, spot in at.items() if wheel.endswith("right")]
    if not (fronts and rears and lefts and rights):
        return None
    along = _mean(rears, 0) - _mean(fronts, 0)
    across = abs(_mean(lefts, 1) - _mean(rights, 1))
    if along <= 0 or across <= 0:
        return None
    base = circuits.build.vehicle.wheelbase.value
    return base / along, TRACK * base / across


def _mean(spots: list[tuple[float, float]], axis: int) -> float:
    return sum(spot[axis] for spot in spots) / len(spots)
