"""Where the way from the foot to the road bends: efforts that a scan must not step over."""

from collections.abc import Sequence

import numpy as np

from urgens.physics import booster, cylinder
from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import AXLES, Axle
from urgens.physics.valve_law import Felt, LoadSensingLaw, ValveLaw, at_rest, back_through, through
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import first_rise
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.rolling_forces import felt_rolling
from urgens.solve.system import System

CURVED = 4  # even steps beside every bend where a valve feels the load; else all goes straight
OWN = 3  # bends of a valve that feels the load: its knee and both its points
NEAR = 1e-6  # how near the bends of a valve that feels the load are found, of a step's change


def bends(system: System, standing: StaticVehicle, columns: int, felt: Felt | None = None) -> Array:
    """Return the efforts [N] at which a law bends, along a first axis; inf where none does.

    system: the system, its ball closed where it has one; standing: load cases [N, -]; columns: axes
    behind the first, as many as figures and loads have at most [-]; felt: what valves feel where
    that is known already, else they feel the vehicle roll.
    Knees, a metering valve's three pressures, thresholds and preloads, the booster's crack, jump
    and run-out; of a valve that feels the load, where its knee leaves and comes to either point.
    Source: each law of the chain from foot to road, solved for the foot.
    """
    rolls, felt = felt is None, at_rest(standing) if felt is None else felt
    if system.closing is not None:
        felt = felt._replace(closing=system.closing)
    found = [_rows(_of_booster(system), columns)]
    pressures: dict[Axle, list[Floats]] = {
        axle: [0.0] if (step := system.cylinders.of(axle).step) is None else [0.0, step.relief]
        for axle in AXLES
    }
    feeling: list[tuple[Axle, int]] = []
    for axle in AXLES:
        laws = system.valves.of(axle)
        for index, law in enumerate(laws):
            if rolls and law.feels_load:
                feeling.append((axle, index))
                break  # what is behind it is asked at the pressures that it passes
            pressures[axle] += [back_through(laws[:index], bend, felt) for bend in law.bends(felt)]
        else:
            pressures[axle].append(back_through(laws, system.ends.of(axle).threshold, felt))
    if system.cylinders.front is system.cylinders.rear:  # one bore makes both
        of_both = _rows([p for each in pressures.values() for p in each], columns)
        found.append(_efforts_for(system, Axle.FRONT, of_both))
    else:
        found += [_efforts_for(system, axle, _rows(pressures[axle], columns)) for axle in AXLES]
    known = _together(found)
    of_load = [_of_load(system, standing, *one, _scan(system, known, columns)) for one in feeling]
    return _together([known, *of_load])


def _together(arraies: Sequence[Array]) -> Array:
    """Return rows of one shape behind the first axis, one after another."""
    shape = np.broadcast_shapes(*(each.shape[1:] for each in arraies))
    return np.concatenate([np.broadcast_to(each, (len(each), *shape)) for each in arraies])


def _rows(values: Sequence[Floats], columns: int) -> Array:
    """Return values along a first axis, with so many axes behind it."""
    stacked = np.stack(np.broadcast_arrays(*values)).astype(float)
    missing = columns + 1 - stacked.ndim
    return stacked.reshape(len(stacked), *(1 for _ in range(missing)), *stacked.shape[1:])


def _of_booster(system: System) -> list[Floats]:
    """Return the efforts at which the booster cracks, and from which it helps no more."""
    assist, per_newton = system.booster, system.pedal_ratio * system.pedal_efficiency
    end = booster.run_out(assist.crack_force, assist.jump_in, assist.gain, assist.assist_limit)
    return [np.divide(assist.crack_force, per_newton), np.divide(end, per_newton)]


def _efforts_for(system: System, axle: Axle, pressure: Array) -> Array:
    """Return the smallest efforts [N] that make pressures [Pa] at an axle's cylinder."""
    part, assist = system.cylinders.of(axle), system.booster
    force = cylinder.force_for(part, pressure) / part.share
    pushrod = booster.input_force(
        force,
        crack_force=assist.crack_force,
        jump_in=assist.jump_in,
        gain=assist.gain,
        assist_limit=assist.assist_limit,
    )
    return np.asarray(pushrod / (system.pedal_ratio * system.pedal_efficiency))


def _of_load(
    system: System, standing: StaticVehicle, axle: Axle, index: int, efforts: Array
) -> Array:
    """Return the efforts [N] at which a valve that feels the load bends, or what is behind it.

    `efforts`: rising, over all other bends. What the valve passes may fall again, as the load
    does, so that what is behind it is looked for from both ends.
    """
    laws, threshold = system.valves.of(axle), system.ends.of(axle).threshold
    law, ahead, behind = laws[index], laws[:index], laws[index + 1 :]

    def over(effort: Array) -> Array:
        output = booster_output(system, pushrod_force(system, effort))
        felt = felt_rolling(system, output, standing)
        lines = line_pressures(system, output, felt)
        made = lines.master_front if axle == Axle.FRONT else lines.master_rear
        inlet = through(ahead, made, felt)
        passed = law.outlet(inlet, felt)
        later: list[Floats] = []
        for one in behind:  # which may feel the load as well
            later += [passed - bend for bend in one.bends(felt)]
            later += _of_points(one, felt) if one.feels_load else []
            passed = one.outlet(passed, felt)
        later.append(passed - threshold)
        own = [*(inlet - bend for bend in law.bends(felt)), *_of_points(law, felt)]
        return np.stack(np.broadcast_arrays(*own, *later, *later))

    tried = over(efforts)
    rows = np.arange(len(tried))
    turned = -((len(tried) - OWN) // 2)  # rows from here on: from the hardest press down
    values, signed = np.moveaxis(tried, 0, 1), np.stack([efforts] * len(tried), axis=1)
    values[:, turned:], signed[:, turned:] = values[::-1, turned:], -signed[::-1, turned:]
    reached = np.any(values >= 0.0, axis=0)
    found = first_rise(lambda at: over(np.abs(at))[rows, rows], signed, values, reached, NEAR)
    return np.where(reached, np.abs(found), np.inf)


def _of_points(law: ValveLaw, felt: Felt) -> list[Floats]:
    """Return how far the load has left either point of a valve that feels it [N]."""
    assert isinstance(law, LoadSensingLaw)
    return [law.heavy - felt.now, law.light - felt.now]


def scan_of_efforts(
    system: System,
    standing: StaticVehicle,
    columns: int,
    felt: Felt | None = None,
    curved: int = CURVED,
) -> Array:
    """Return rising efforts [N] that step over no bend, along an axis before `columns` others.

    system: the system, its ball closed where it has one; standing: load cases [N, -]; columns: axes
    of what is looked at for each effort [-]; felt: as in `bends`; curved: how many even steps
    there are where a valve feels the load [-].
    Source: even steps and `bends`, in order.
    """
    return _scan(system, bends(system, standing, columns, felt), columns, curved)


def _scan(system: System, bent: Array, columns: int, curved: int = CURVED) -> Array:
    even = curved if system.feels_load else 1
    steps = np.linspace(0.0, 1.0, even + 1).reshape(-1, *(1 for _ in range(columns)))
    steps = steps * np.reshape(system.max_effort, np.shape(system.max_effort) or (1,) * columns)
    efforts = np.sort(_together([steps, np.minimum(bent, system.max_effort)]), axis=0)
    risen = np.any(efforts[1:] > efforts[:-1], axis=tuple(range(1, efforts.ndim)))
    return np.concatenate((efforts[:1], efforts[1:][risen]))  # laws that are not there bend at one
