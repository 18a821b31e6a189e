"""What is left when one half of the brakes is lost."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cache

import numpy as np

from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.atmosphere import GRAVITY
from urgens.physics.axle import Pair
from urgens.physics.standards import FailedRule
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.achieved import achieved_at
from urgens.solve.ball import sliding
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.settled import FRONT_ALONE, HALF, REAR_ALONE, felt_at
from urgens.solve.system import System
from urgens.solve.travel import strokes


@dataclass(frozen=True)
class HalfFailed:
    """One half lost: what is dead, deceleration left [g], pad travel [m], NaN out of reach.

    `shut_travel` is the pad's where a shuttle shuts the dead line before its chamber bottoms,
    None where none does. All arrays have the shape of the load cases. `asks` is the rule's part.
    """

    dead: str
    z: Array
    pedal_travel: Array
    asks: FailedRule
    shut_travel: Array | None = None

    @property
    def reached(self) -> Bools:
        """Where the pedal holds before the floor or the live chamber's end."""
        return np.isfinite(self.pedal_travel)

    @property
    def meets_rule(self) -> Bools:
        """Where the pedal holds, and as much is left as the rule keeps."""
        return np.asarray(self.reached & (self.z * GRAVITY >= self.asks.deceleration))


def worst_half(halves: tuple[HalfFailed, ...], case: int) -> HalfFailed:
    """Return the half whose loss is worst: what reaches nothing first, then what leaves least.

    halves: of one build; case: place of the load case [-].
    Source: common practice: a pedal on the floor is no brake, whatever its pressure would give.
    """
    return min(halves, key=lambda half: (bool(half.reached[case]), float(half.z[case])))


def half_failed(system: System, standing: StaticVehicle, surface: Floats) -> tuple[HalfFailed, ...]:
    """Return what each half lost leaves at the largest effort.

    system: the system; standing: load cases, any shape [N, -]; surface: tyre-road coefficient [-].
    Source: Limpert, Brake Design and Safety, partial failure (from memory).
    """
    shape = np.shape(standing.front_weight)
    if system.split == "single":
        return (HalfFailed("all", np.zeros(shape), np.full(shape, np.nan), system.rule.failed),)
    halves = [_half(system, system.max_effort, standing, surface, dead) for dead in (0, 1)]
    names = ("diagonal", "diagonal") if system.split == "diagonal" else ("front", "rear")
    return tuple(
        HalfFailed(
            name,
            np.broadcast_to(half.left(), np.broadcast_shapes(shape, np.shape(half.left()))),
            _within_reach(system, half, shape),
            system.rule.failed,
            _shut_travel(system, half, shape),
        )
        for name, half in zip(names, halves, strict=True)
    )


def half_lost_travel(
    system: System, effort: Array, standing: StaticVehicle, surface: float, dead: int
) -> Array:
    """Return pad travel [m] with one half lost, NaN where nothing holds; 0 at no effort.

    system: the system, of two chambers; effort: foot forces (m,) [N]; standing: one load case
    [N, -]; surface: tyre-road coefficient [-]; dead: 0 the front or primary half, 1 the other [-].
    Source: Limpert, Brake Design and Safety, partial failure (from memory).
    """
    half = _half(system, effort, standing, surface, dead)
    return np.where(effort > 0.0, _within_reach(system, half, np.shape(effort)), 0.0)


def half_failed_strokes(
    system: System, standing: StaticVehicle, surface: float, dead: int
) -> tuple[Array, Array]:
    """Return the strokes of the dead and of the live chamber at the largest effort [m].

    system: the system, of two chambers; standing: load cases, any shape [N, -]; surface: tyre-road
    coefficient [-]; dead: 0 the front or primary half, 1 the other [-].
    Source: Limpert, Brake Design and Safety, partial failure (from memory).
    """
    half = _half(system, system.max_effort, standing, surface, dead)
    swing = _swing(system, half.live_stroke)
    return np.minimum(swing, system.volumes.chambers[dead].stroke), half.live_stroke


@dataclass(frozen=True)
class _Half:
    """One half lost: what is dead, the live stroke and the pad's way [m].

    `left` works out the deceleration left [g], which not everyone asks for.
    """

    dead: int
    left: Callable[[], Array]
    live_stroke: Array
    pad: Array


def _half(
    system: System, effort: Floats, standing: StaticVehicle, surface: Floats, dead: int
) -> _Half:
    """Return what one half lost does: its chamber's stroke is used up, then the live one holds."""
    system = _without_step(system, dead)
    left, live_stroke = _left(system, effort, standing, surface, dead)
    one = _with_one_rod(system, live_stroke, dead)
    if one is not system:
        left, live_stroke = _left(one, effort, standing, surface, dead)
    dead_stroke = np.minimum(_swing(system, live_stroke), system.volumes.chambers[dead].stroke)
    return _Half(dead, left, live_stroke, _pad(system, dead, dead_stroke, live_stroke))


def _without_step(system: System, dead: int) -> System:
    """Return the system as it is pushed where a stepped cylinder has lost a half.

    Without pressure in the stepped chamber its piston pushes the far one, an ordinary one; with the
    far circuit lost the large bore fills the stepped chamber's own.
    """
    chambers = system.volumes.chambers
    if all(chamber.step is None for chamber in chambers):
        return system
    made, live = system, chambers[1 - dead]
    if chambers[dead].step is not None:
        plain = replace(system.cylinders.front, area=live.area, step=None)
        made = replace(system, cylinders=Pair(plain, plain))
    kept = tuple(
        replace(one, step=None) if i == dead else replace(one, fills_all=False)
        for i, one in enumerate(chambers)
    )
    return replace(made, volumes=replace(made.volumes, chambers=kept))


def _left(
    system: System, effort: Floats, standing: StaticVehicle, surface: Floats, dead: int
) -> tuple[Callable[[], Array], Array]:
    """Return what works out the deceleration left [g], and the live chamber's stroke [m].

    Valves feel the vehicle as it is then, in the force and in the fluid that is taken.
    """
    brakes = HALF if system.split == "diagonal" else (FRONT_ALONE, REAR_ALONE)[dead == 0]
    one = sliding(system, standing, surface, brakes)
    left = cache(lambda: achieved_at(system, effort, standing, surface, brakes).deceleration)
    felt = felt_at(standing, left()) if one.feels_load else at_rest(standing)
    lines = line_pressures(one, booster_output(system, pushrod_force(system, effort)), felt)
    return left, strokes(one, lines.front, lines.rear)[1 - dead]


def _swing(system: System, live_stroke: Array) -> Array:
    """Return the dead rod's stroke [m] at which the bar meets its stop; inf without a stop."""
    if system.bar_max_angle is None or system.bar_length is None:
        return np.full(np.shape(live_stroke), np.inf)
    return np.asarray(live_stroke + system.bar_length * system.bar_max_angle)


def _with_one_rod(system: System, live_stroke: Array, dead: int) -> System:
    """Return the system as the force reaches the live rod: all of it where the bar's stop holds."""
    if system.bar_max_angle is None:
        return system
    stops = _swing(system, live_stroke) < system.volumes.chambers[dead].stroke
    if not np.any(stops):
        return system
    ends = (0.0, 1.0) if dead == 0 else (1.0, 0.0)
    shares = (system.cylinders.front.share, system.cylinders.rear.share)
    front, rear = (np.where(stops, end, share) for end, share in zip(ends, shares, strict=True))
    return system.with_shares(front, rear)


def _pad(system: System, dead: int, dead_stroke: Array, live_stroke: Array) -> Array:
    figures = system.volumes
    levers = figures.chambers[dead].lever, figures.chambers[1 - dead].lever
    rod = levers[0] * dead_stroke + levers[1] * live_stroke
    return np.asarray(system.pedal_ratio * (figures.pushrod_clearance + rod))


def _within_reach(system: System, half: _Half, shape: tuple[int, ...]) -> Array:
    """Return the pad's travel [m], NaN where the live chamber or the floor ends first."""
    out = half.live_stroke > system.volumes.chambers[1 - half.dead].stroke
    out = out | (half.pad > system.volumes.floor)
    return np.broadcast_to(np.where(out, np.nan, half.pad), shape)


def _shut_travel(system: System, half: _Half, shape: tuple[int, ...]) -> Array | None:
    """Return the pad's travel [m] where a shuttle shuts the dead line, None where none does."""
    figures = system.volumes
    if figures.shuttle is None or system.bar_length is not None:
        return None
    chamber = figures.chambers[half.dead]
    moved = np.minimum(figures.port_travel + figures.shuttle / chamber.first_area, chamber.stroke)
    pad = _pad(system, half.dead, np.asarray(moved), half.live_stroke)
    shut = replace(half, pad=pad)
    return _within_reach(system, shut, shape)
