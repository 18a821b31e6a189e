"""What causes do to this build's figures: all of them, at every size, in one solve.

A cause is rows of factors and sums over the numbers of the system; each row is the same build with
that one thing wrong.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache, lru_cache
from typing import NamedTuple

import numpy as np

from urgens.document import Build
from urgens.guidance.faults.tables import tables
from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import AXLES, Pair
from urgens.physics.valve_law import (
    InertiaSensingLaw,
    LoadSensingLaw,
    MeteringLaw,
    ReducingLaw,
    ValveLaw,
    at_rest,
)
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.half_failed import half_lost_travel
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.rolling_forces import axle_forces, rolling_lines
from urgens.solve.system import AxleFluid, System, WheelEnd, system
from urgens.solve.travel import travel

SIZES = 15  # of each cause, evenly from its least to its most
HALF = 0.5  # of each axle's wheels, of crossed circuits
PASSES = 1e12  # Pa: a knee that nothing reaches
LEFT = (1.0, 0.4, 0.15)  # of a clearance at strokes 1 to 3: the first ones take it up; assumed
PUMPED = (1.0, 0.9, 0.85)  # of air at strokes 1 to 3: assumed

WARMER = 150.0  # K, of brakes that are hot: assumed
_BOTH = ("front", "rear")
# What a cause can change, and the value that changes nothing.
_NEUTRAL: Mapping[str, float] = {
    **{f"{name}_{axle}": value for axle in _BOTH for name, value in (
        ("air", 0.0), ("hose", 1.0), ("compliance", 1.0), ("clearance", 1.0), ("friction", 1.0),
        ("lost", 0.0), ("blocked", 0.0))},
    "rod": 0.0, "area": 1.0, "ratio": 1.0, "assist": 1.0, "passes": 0.0, "knee": 1.0,
    "second": 1.0, "unmetered": 0.0, "front_shut": 0.0, "half": 0.0,
}  # fmt: skip


class HowRead(NamedTuple):
    """How the vehicle was as something was read: moving, its engine running, its brakes hot."""

    moving: bool = False
    engine: bool = True
    hot: bool = False


AT_REST = HowRead()


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


@cache
def effects() -> Mapping[str, Mapping[str, tuple[float, float]]]:
    """Return what each simulated cause changes, from the least size to the most, by its id.

    Raises ValueError where a cause changes what there is not. Source: assumed, as the table says.
    """
    found = {one.id: one.effect for one in tables().causes if one.effect is not None}
    for cause, effect in found.items():
        unknown = set(effect) - set(_NEUTRAL)
        if unknown:
            raise ValueError(f"{cause} changes {', '.join(sorted(unknown))}, which is no figure")
    return found


@dataclass(frozen=True)
class Simulated:
    """One row a cause and size: the causes of the rows (r,), and the changes, each (r, 1).

    `cold` are the changes while the brakes are cold: what is there only when hot does nothing.
    """

    causes: tuple[str, ...]
    changes: Mapping[str, Array]
    cold: Mapping[str, Array]


def rows_of(causes: Sequence[str]) -> Simulated:
    """Return the rows of causes, the build as it is first; causes: by id [text].

    effects; a cause that does nothing to a figure is one row of the build as it is.
    """
    return _rows_of(tuple(causes))


@lru_cache(maxsize=32)
def _rows_of(causes: tuple[str, ...]) -> Simulated:
    names, changes = [""], [dict(_NEUTRAL)]
    for cause in causes:
        effect = effects().get(cause, {})
        for share in np.linspace(0.0, 1.0, SIZES if effect else 1).tolist():
            names.append(cause)
            sized = {key: least + share * (most - least) for key, (least, most) in effect.items()}
            changes.append({**_NEUTRAL, **sized})
    hot = {one.id for one in tables().causes if one.hot}
    cold = [_NEUTRAL if name in hot else row for name, row in zip(names, changes, strict=True)]
    return Simulated(tuple(names), _stacked(changes), _stacked(cold))


def _stacked(rows: Sequence[Mapping[str, float]]) -> Mapping[str, Array]:
    return {key: np.array([row[key] for row in rows])[:, None] for key in _NEUTRAL}


def figures(
    build: Build,
    rows: Simulated,
    efforts: Array,
    case: int,
    stroke: int = 1,
    how: HowRead = AT_REST,
) -> Figures:
    """Return the figures of every row at every foot.

    rows: of causes; efforts: of the foot (e,) [N]; case: place of
    the load case [-]; stroke: which one of them, 1 to 3 [-]; how: the vehicle was.
    Source: `solve`, once for all rows; what a stroke takes up is assumed.
    """
    made = as_read(system(build), build, how)
    standing = made.case(case)
    changes = rows.changes if how.hot else rows.cold
    wrong = _laid(made, changes, stroke)
    there = [_there(changes, axle) for axle in _BOTH]
    found = at_feet(wrong, standing, efforts, *there, moving=how.moving)
    travels = found.travel.copy()
    for dead, change in enumerate((*(f"lost_{axle}" for axle in _BOTH), "half")):
        lost = changes[change][:, 0] > 0.0
        if lost.any() and len(made.volumes.chambers) > 1:
            pad = half_lost_travel(made, efforts, standing, build.targets.surface, dead % 2)
            travels[lost] = np.where(np.isnan(pad), made.volumes.floor, pad)
    return found._replace(travel=travels)


def as_read(system: System, build: Build, how: HowRead) -> System:
    """Return a system as it was while something was read.

    system: as built; build: of it; how: the vehicle was.
    Without the engine the vacuum is pumped out; a hot drum is larger, its shoes stay where they
    were. What heat does to friction nobody has told: it is in the error of what is read hot.
    """
    if not how.engine:
        off = replace(system.booster, assist_limit=system.booster.assist_limit * 0.0,
                      jump_in=system.booster.jump_in * 0.0)  # fmt: skip
        system = replace(system, booster=off)
    if not how.hot:
        return system
    axles = (
        replace(
            fluid, clearance_volume=fluid.clearance_volume * build.axle(axle).brake.grown(WARMER)
        )
        for fluid, axle in zip(system.volumes.axles, AXLES, strict=True)
    )
    return replace(system, volumes=replace(system.volumes, axles=Pair(*axles)))


def _there(changes: Mapping[str, Array], axle: str) -> Array:
    """Return what of the pressure reaches an axle's brakes [-]."""
    return np.asarray((1.0 - changes[f"lost_{axle}"]) * (1.0 - changes[f"blocked_{axle}"]))


def at_feet(
    system: System,
    standing: StaticVehicle,
    efforts: Array,
    front: Floats = 1.0,
    rear: Floats = 1.0,
    *,
    moving: bool = False,
) -> Figures:
    """Return the figures of a system at every foot, the pad at the floor at most.

    system: the system, its numbers (r, 1) or plain; standing: one load case [N, -]; efforts: (e,)
    [N]; front, rear: share of the pressure that reaches the brakes [-]; moving: whether the vehicle
    was, as travel and pressures were read.
    Forces and deceleration are those of a vehicle that moves: a valve that feels the load, or a
    ball, does another thing then. Source: how each is read.
    """
    pushrod = pushrod_force(system, efforts)
    reached = zip(system.ends, (front, rear), strict=True)
    rolls = replace(system, ends=Pair(*(_end(end, share) for end, share in reached)))
    lines = line_pressures(system, booster_output(system, pushrod), at_rest(standing))
    if moving:
        lines = rolling_lines(rolls, pushrod, standing)
    pressures = lines.front * front, lines.rear * rear
    forces = axle_forces(rolls, pushrod, standing)
    z = (forces[0] + forces[1]) / (standing.front_weight + standing.rear_weight)
    pad = np.minimum(travel(system, efforts, *pressures).pad, system.volumes.floor)
    flows = (_swept(system, axle) * share for axle, share in zip(_BOTH, (front, rear), strict=True))
    return Figures(*np.broadcast_arrays(pad, *pressures, *forces, z, *flows))


def _swept(system: System, axle: str) -> Array:
    """Return what a full stroke of the chambers that feed an axle moves [m³]."""
    fed = [one for one in system.volumes.chambers
           if (one.front_part if axle == "front" else one.rear_part) > 0.0]  # fmt: skip
    return np.asarray(sum(one.first_area * one.stroke for one in fed))


def _laid(system: System, wrong: Mapping[str, Array], stroke: int) -> System:
    """Return a system of all rows at once, each with its own thing wrong."""
    cylinders = Pair(*(one.sized(wrong["area"]) for one in system.cylinders))
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
            chambers=tuple(one.sized(wrong["area"]) for one in fluid.chambers),
            pushrod_clearance=fluid.pushrod_clearance + wrong["rod"],
        ),
    )


def _end(end: WheelEnd, friction: Floats) -> WheelEnd:
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
    if isinstance(law, InertiaSensingLaw):  # its knee is where its ball rolls
        return replace(law, slope=np.where(wrong["passes"] > 0.0, 1.0, law.slope * wrong["second"]))
    return law


def _metering(law: ValveLaw, wrong: Mapping[str, Array]) -> ValveLaw:
    if not isinstance(law, MeteringLaw):
        return law
    held, shut = 1.0 - wrong["unmetered"], wrong["front_shut"] * PASSES
    return replace(
        law, closing=law.closing * held, opening=law.opening * held + shut,
        full=law.full + 2.0 * shut,
    )  # fmt: skip
