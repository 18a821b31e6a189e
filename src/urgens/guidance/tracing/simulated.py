"""What causes do to this build's figures: all of them, at every size, in one solve.

A cause is rows of factors and sums over the numbers of the system; each row is the same build with
that one thing wrong.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import Pair
from urgens.physics.valve_law import Felt, LoadSensingLaw, MeteringLaw, ReducingLaw, ValveLaw
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.half_failed import half_lost_travel
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.system import AxleFluid, System, WheelEnd, system
from urgens.solve.travel import travel

SIZES = 15  # of each cause, evenly from its least to its most
HALF = 0.5  # of each axle's wheels, of crossed circuits
PASSES = 1e12  # Pa: a knee that nothing reaches
LEFT = (1.0, 0.4, 0.15)  # of a clearance at strokes 1 to 3: the first ones take it up; assumed
PUMPED = (1.0, 0.9, 0.85)  # of air at strokes 1 to 3: assumed

Change = Mapping[str, tuple[float, float]]  # what is changed, from the least size to the most

ML = 1e-6  # m³
_BOTH = ("front", "rear")


def _each(name: str, change: str, least: float, most: float) -> dict[str, Change]:
    return {f"{name}-{axle}": {f"{change}_{axle}": (least, most)} for axle in _BOTH}


# All sizes are common practice, or assumed.
EFFECTS: Mapping[str, Change] = {
    **_each("air", "air", 2.0 * ML, 20.0 * ML),
    **_each("hose-soft", "hose", 2.0, 4.0),
    **_each("caliper-flexes", "compliance", 2.0, 4.0),
    **_each("shoes-far", "clearance", 2.0, 6.0),
    **_each("knock-back", "clearance", 3.0, 8.0),
    **_each("glazed", "friction", 0.5, 0.8),
    **_each("lost", "lost", 1.0, 1.0),
    "lost-half": {"half": (1.0, 1.0)},
    **_each("hose-blocked", "blocked", 1.0, 1.0),
    "fluid-boils": {"air_front": (5.0 * ML, 30.0 * ML), "air_rear": (5.0 * ML, 30.0 * ML)},
    "no-residual": {"air_rear": (1.0 * ML, 6.0 * ML)},
    "rod-short": {"rod": (1e-3, 4e-3)},
    "bore-big": {"area": (1.13, 1.4)},
    "bore-small": {"area": (0.7, 0.88)},
    "ratio-hole": {"ratio": (0.55, 0.75)},
    "booster-dead": {"assist": (0.0, 0.0)},
    "booster-valve": {"assist": (0.0, 0.3)},
    "vacuum-low": {"assist": (0.4, 0.8)},
    "valve-open": {"passes": (1.0, 1.0)},
    "valve-missing": {},
    "knee-high": {"knee": (1.25, 1.8)},
    "knee-low": {"knee": (0.4, 0.8)},
    "adjustable-open": {"knee": (1.3, 2.0)},
    "load-sensing-high": {"knee": (1.4, 2.2)},
    "load-sensing-low": {"knee": (0.1, 0.5)},
    "second-valve": {"second": (0.4, 0.6)},
    "metering-open": {"unmetered": (1.0, 1.0)},
    "metering-shut": {"front_shut": (1.0, 1.0)},
    "shuttle-across": {"blocked_rear": (1.0, 1.0)},
    "drums-grab": {"friction_rear": (1.25, 1.6)},
    "side-air": {"air_front": (1.0 * ML, 8.0 * ML)},
    "side-seized": {"friction_front": (0.5, 0.7)},
    "side-wet": {"friction_front": (0.5, 0.8)},
    "hose-blocked-side": {"friction_front": (0.5, 0.6)},
}
_NEUTRAL: Mapping[str, float] = {
    **{f"{name}_{axle}": value for axle in _BOTH for name, value in (
        ("air", 0.0), ("hose", 1.0), ("compliance", 1.0), ("clearance", 1.0), ("friction", 1.0),
        ("lost", 0.0), ("blocked", 0.0))},
    "rod": 0.0, "area": 1.0, "ratio": 1.0, "assist": 1.0, "passes": 0.0, "knee": 1.0,
    "second": 1.0, "unmetered": 0.0, "front_shut": 0.0, "half": 0.0,
}  # fmt: skip


class Figures(NamedTuple):
    """Figures of rows of causes over feet, shape (r, e): [m], [Pa], [Pa], [N], [N], [g], [m³] × 2.

    The flows are what a full stroke brings at an open screw of each axle.
    """

    travel: Array
    front: Array
    rear: Array
    front_force: Array
    rear_force: Array
    deceleration: Array
    front_flow: Array
    rear_flow: Array


@dataclass(frozen=True)
class Simulated:
    """One row a cause and size: the causes of the rows (r,), and the changes, each (r, 1)."""

    causes: tuple[str, ...]
    changes: Mapping[str, Array]


def rows_of(causes: Sequence[str]) -> Simulated:
    """Return the rows of causes, the build as it is first; causes: by id [text].

    EFFECTS; a cause that does nothing to a figure is one row of the build as it is.
    """
    names, changes = [""], [dict(_NEUTRAL)]
    for cause in causes:
        effect = EFFECTS.get(cause, {})
        for share in np.linspace(0.0, 1.0, SIZES if effect else 1).tolist():
            names.append(cause)
            sized = {key: least + share * (most - least) for key, (least, most) in effect.items()}
            changes.append({**_NEUTRAL, **sized})
    return Simulated(
        tuple(names), {key: np.array([row[key] for row in changes])[:, None] for key in _NEUTRAL}
    )


def figures(build: Build, rows: Simulated, efforts: Array, case: int, stroke: int = 1) -> Figures:
    """Return the figures of every row at every foot.

    rows: of causes; efforts: of the foot (e,) [N]; case: place of
    the load case [-]; stroke: which one of them, 1 to 3 [-].
    Source: `solve`, once for all rows; what a stroke takes up is assumed.
    """
    made = system(build)
    standing = made.case(case)
    wrong, changes = _laid(rolling(made, standing), rows.changes, stroke), rows.changes
    there = [_there(changes, axle) for axle in _BOTH]
    found = at_feet(wrong, standing, efforts, *there)
    travels = found.travel.copy()
    for dead, change in enumerate((*(f"lost_{axle}" for axle in _BOTH), "half")):
        lost = changes[change][:, 0] > 0.0
        if lost.any() and len(made.volumes.chambers) > 1:
            pad = half_lost_travel(made, efforts, standing, build.targets.surface, dead % 2)
            travels[lost] = np.where(np.isnan(pad), made.volumes.floor, pad)
    return found._replace(travel=travels)


def _there(changes: Mapping[str, Array], axle: str) -> Array:
    """Return what of the pressure reaches an axle's brakes [-]."""
    return np.asarray((1.0 - changes[f"lost_{axle}"]) * (1.0 - changes[f"blocked_{axle}"]))


def at_feet(
    system: System, standing: StaticVehicle, efforts: Array, front: Floats = 1.0, rear: Floats = 1.0
) -> Figures:
    """Return the figures of a system at every foot, the pad at the floor at most.

    system: the system, its numbers (r, 1) or plain; standing: one load case [N, -]; efforts: (e,)
    [N]; front, rear: share of the pressure that reaches the brakes [-].
    """
    felt = Felt(standing.rear_weight, standing.rear_weight)
    lines = line_pressures(system, booster_output(system, pushrod_force(system, efforts)), felt)
    pressures = lines.front * front, lines.rear * rear
    forces = forces_at(system, lines._replace(front=pressures[0], rear=pressures[1]))
    z = (forces[0] + forces[1]) / (standing.front_weight + standing.rear_weight)
    pad = np.minimum(travel(system, efforts, *pressures).pad, system.volumes.floor)
    flows = (_swept(system, axle) * share for axle, share in zip(_BOTH, (front, rear), strict=True))
    return Figures(*np.broadcast_arrays(pad, *pressures, *forces, z, *flows))


def _swept(system: System, axle: str) -> Array:
    """Return what a full stroke of the chambers that feed an axle moves [m³]."""
    fed = [one for one in system.volumes.chambers
           if (one.front_part if axle == "front" else one.rear_part) > 0.0]  # fmt: skip
    return np.asarray(sum(one.area * one.stroke for one in fed))


def _laid(system: System, wrong: Mapping[str, Array], stroke: int) -> System:
    """Return a system of all rows at once, each with its own thing wrong."""
    cylinders = Pair(*(replace(one, area=one.area * wrong["area"]) for one in system.cylinders))
    same = system.cylinders.front is system.cylinders.rear
    fluid = system.volumes
    left = 1.0 - HALF * wrong["half"]  # of both axles, where their halves cross
    ends = (
        _end(end, left * wrong[f"friction_{axle}"])
        for axle, end in zip(_BOTH, system.ends, strict=True)
    )
    axles = (_fluid(one, axle, wrong, stroke) for axle, one in zip(_BOTH, fluid.axles, strict=True))
    booster = replace(
        system.booster,
        assist_limit=system.booster.assist_limit * wrong["assist"],
        jump_in=system.booster.jump_in * np.minimum(wrong["assist"] * PASSES, 1.0),
    )
    return replace(
        system,
        pedal_ratio=system.pedal_ratio * wrong["ratio"],
        booster=booster,
        cylinders=Pair(cylinders.front, cylinders.front) if same else cylinders,
        ends=Pair(*ends),
        valves=Pair(
            tuple(_metering(law, wrong) for law in system.valves.front),
            tuple(_reducing(law, wrong) for law in system.valves.rear),
        ),
        volumes=replace(
            fluid,
            axles=Pair(*axles),
            chambers=tuple(replace(one, area=one.area * wrong["area"]) for one in fluid.chambers),
            pushrod_clearance=fluid.pushrod_clearance + wrong["rod"],
        ),
    )


def _end(end: WheelEnd, friction: Array) -> WheelEnd:
    return replace(end, torque_per_pressure=end.torque_per_pressure * friction)


def _fluid(fluid: AxleFluid, axle: str, wrong: Mapping[str, Array], stroke: int) -> AxleFluid:
    place = min(max(stroke, 1), len(LEFT)) - 1
    further = (wrong[f"clearance_{axle}"] - 1.0) * LEFT[place]
    return replace(
        fluid,
        clearance_volume=fluid.clearance_volume * (1.0 + further),
        compliance=fluid.compliance * wrong[f"compliance_{axle}"],
        hose_expansion=fluid.hose_expansion * wrong[f"hose_{axle}"],
        trapped_air=fluid.trapped_air + wrong[f"air_{axle}"] * PUMPED[place],
    )


def _reducing(law: ValveLaw, wrong: Mapping[str, Array]) -> ValveLaw:
    knee = np.where(wrong["passes"] > 0.0, PASSES, wrong["knee"])
    if isinstance(law, ReducingLaw):
        return replace(law, at=law.at * knee, slope=law.slope * wrong["second"])
    if isinstance(law, LoadSensingLaw):
        knees = law.light_knee * knee, law.heavy_knee * knee
        return replace(
            law, light_knee=knees[0], heavy_knee=knees[1], slope=law.slope * wrong["second"]
        )
    return law


def _metering(law: ValveLaw, wrong: Mapping[str, Array]) -> ValveLaw:
    if not isinstance(law, MeteringLaw):
        return law
    held, shut = 1.0 - wrong["unmetered"], wrong["front_shut"] * PASSES
    return replace(
        law, closing=law.closing * held, opening=law.opening * held + shut,
        full=law.full + 2.0 * shut,
    )  # fmt: skip
