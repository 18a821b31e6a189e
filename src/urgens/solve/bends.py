"""Where the way from the foot to the road bends: efforts that a scan must not step over."""

from collections.abc import Sequence

import numpy as np

from urgens.physics import booster, vehicle
from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import AXLES, Axle
from urgens.physics.valve_law import Felt, LoadSensingLaw, at_rest, back_through
from urgens.physics.vehicle import Standing
from urgens.solve.bracket import first_rise
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.system import System

SCANNED = 60  # steps of effort in which a dynamic valve's own knee is bracketed


def bends(made: System, standing: Standing, columns: int, felt: Felt | None = None) -> Array:
    """Return the efforts [N] at which a law bends, along a first axis; inf where none does.

    made: the system, its ball closed where it has one; standing: load cases [N, -]; columns: axes
    behind the first, as many as figures and loads have at most [-]; felt: what valves feel where
    that is known already, else they feel the vehicle roll [object].
    Knees, a metering valve's three pressures, thresholds and preloads, the booster's crack, jump
    and run-out. A dynamic valve's knee is where the pressure meets the knee of the load that the
    vehicle has then, the valve still open.
    Source: each law of the chain from foot to road, solved for the foot.
    """
    rolls, felt = felt is None, at_rest(standing) if felt is None else felt
    if made.closing is not None:
        felt = felt._replace(closing=made.closing)
    found = [_rows(_of_booster(made), columns)]
    pressures: dict[Axle, list[Floats]] = {axle: [0.0] for axle in AXLES}
    for axle in AXLES:
        laws = made.valves.of(axle)
        for index, law in enumerate(laws):
            if rolls and law.feels_load:
                found.append(_rows([_dynamic_knee(made, standing, axle, index)], columns))
                continue
            before = laws[:index]
            pressures[axle] += [back_through(before, bend, felt) for bend in law.bends(felt)]
        pressures[axle].append(back_through(laws, made.ends.of(axle).threshold, felt))
    if made.cylinders.front is made.cylinders.rear:  # one bore makes both
        of_both = _rows([p for each in pressures.values() for p in each], columns)
        found.append(_efforts_for(made, Axle.FRONT, of_both))
    else:
        found += [_efforts_for(made, axle, _rows(pressures[axle], columns)) for axle in AXLES]
    shape = np.broadcast_shapes(*(each.shape[1:] for each in found))
    return np.concatenate([np.broadcast_to(each, (len(each), *shape)) for each in found])


def _rows(values: Sequence[Floats], columns: int) -> Array:
    """Return values along a first axis, with so many axes behind it."""
    stacked = np.stack(np.broadcast_arrays(*values)).astype(float)
    missing = columns + 1 - stacked.ndim
    return stacked.reshape(len(stacked), *(1 for _ in range(missing)), *stacked.shape[1:])


def _of_booster(made: System) -> list[Floats]:
    """Return the efforts at which the booster cracks, and from which it helps no more."""
    assist, per_newton = made.booster, made.pedal_ratio * made.pedal_efficiency
    end = booster.run_out(assist.crack_force, assist.jump_in, assist.gain, assist.assist_limit)
    return [np.divide(assist.crack_force, per_newton), np.divide(end, per_newton)]


def _efforts_for(made: System, axle: Axle, pressure: Array) -> Array:
    """Return the smallest efforts [N] that make pressures [Pa] at an axle's cylinder."""
    part, assist = made.cylinders.of(axle), made.booster
    force = (pressure * np.divide(part.area, part.efficiency) + part.spring_preload) / part.share
    pushrod = booster.input_force(
        force,
        crack_force=assist.crack_force,
        jump_in=assist.jump_in,
        gain=assist.gain,
        assist_limit=assist.assist_limit,
    )
    return np.asarray(pushrod / (made.pedal_ratio * made.pedal_efficiency))


def _dynamic_knee(made: System, standing: Standing, axle: Axle, index: int) -> Array:
    """Return the effort [N] at which a valve that feels the load begins to reduce."""
    laws = made.valves.of(axle)
    law = laws[index]
    assert isinstance(law, LoadSensingLaw)

    def over_at(effort: Array) -> Array:
        output = booster_output(made, pushrod_force(made, effort))
        felt = Felt(np.inf, standing.rear_weight, np.inf if made.closing is None else made.closing)
        lines = line_pressures(made, output, felt)
        z = vehicle.demand(*forces_at(made, lines), standing)
        inlet = lines.master_front if axle == Axle.FRONT else lines.master_rear
        for before in laws[:index]:
            inlet = before.outlet(inlet, felt)
        return np.asarray(inlet - law.knee_at(vehicle.axle_loads(standing, z)[1]))

    shape = np.shape(over_at(np.asarray(0.0)))
    tried = np.linspace(0.0, 1.0, SCANNED + 1).reshape(-1, *(1 for _ in shape)) * made.max_effort
    over = over_at(tried)
    reached = over[-1] >= 0.0
    return np.where(reached, first_rise(over_at, tried, over, reached), np.inf)


def scan_of_efforts(
    made: System, standing: Standing, steps: int, columns: int, felt: Felt | None = None
) -> Array:
    """Return rising efforts [N] that step over no bend, along an axis before `columns` others.

    made: the system, its ball closed where it has one; standing: load cases [N, -]; steps: even
    ones up to the hardest [-]; columns: axes of what is looked at for each effort [-]; felt: as in
    `bends` [object].
    Source: even steps and `bends`, in order.
    """
    even = np.linspace(0.0, 1.0, steps + 1).reshape(-1, *(1 for _ in range(columns)))
    even = even * np.reshape(made.max_effort, np.shape(made.max_effort) or (1,) * columns)
    bent = np.minimum(bends(made, standing, columns, felt), made.max_effort)
    shape = np.broadcast_shapes(even.shape[1:], bent.shape[1:])
    rows = [np.broadcast_to(one, (len(one), *shape)) for one in (even, bent)]
    return np.sort(np.concatenate(rows), axis=0)
