"""Brake torque in time: what the foot makes of it through the build's own system."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array
from urgens.physics.valve_law import Felt
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.system import System

BUILD_UP = 0.15  # s, of the pressures at the wheels: assumed
GRID = 5e-3  # s between two places the torque is worked out at
RAMP = 0.6  # s in which a foot gets where it holds: the load needs that time to arrive
LOADS = 17  # places of the rear load, where a valve feels it


@dataclass(frozen=True)
class Foot:
    """A foot in time: times rising (t,) [s], efforts (t,) [N], held at both ends."""

    times: Array
    efforts: Array

    @property
    def ramp(self) -> float:
        """How long it takes to get where it holds [s]."""
        return float(self.times[-1])

    def at(self, time: Array) -> Array:
        """Return the effort [N]; time: any shape [s]."""
        return np.asarray(np.interp(time, self.times, self.efforts))


def hold(effort: float, ramp: float = RAMP) -> Foot:
    """Return a foot that is held; effort: [N]; ramp: time to get there [s]. Source: by definition.

    Without a ramp it stamps: it is there before the load is, and overloads the front.
    """
    if ramp <= 0.0:
        return Foot(np.array([0.0]), np.array([effort]))
    return Foot(np.array([0.0, ramp]), np.array([0.0, effort]))


@dataclass(frozen=True)
class Pressed:
    """One stop's brakes in time, at rising rear loads: times (t,), loads (k,) [N].

    `torque` (2, k, t) of both wheels of each axle [N·m]; `lines` (2, k, t) pressures at the brakes
    and `cylinders` (2, t) at the cylinder [Pa]; `foot` (t,) [N].
    """

    times: Array
    loads: Array
    torque: Array
    lines: Array
    cylinders: Array
    foot: Array


def pressed(system: System, standing: StaticVehicle, foot: Foot, longest: float) -> Pressed:
    """Return what a foot makes of a system's brakes in time.

    system: the system; standing: one load case [N, -]; foot: in time; longest: how long
    [s].
    """
    system = rolling(system, standing)
    times = np.arange(0.0, longest + 2.0 * GRID, GRID)
    efforts = foot.at(times)
    output = booster_output(system, pushrod_force(system, efforts))
    rear = float(standing.rear_weight + standing.rear_press)
    loads = np.linspace(0.0, 1.2 * rear, LOADS) if system.feels_load else np.array([rear])
    felt = Felt(loads[:, None] if system.feels_load else standing.rear_weight, standing.rear_weight)
    found = line_pressures(system, output, felt)
    shape = (loads.size, times.size)
    lines = np.stack([np.broadcast_to(each, shape) for each in (found.front, found.rear)])
    forces = forces_at(system, found)
    radii = [float(end.rolling_radius) for end in system.ends]
    torque = np.stack([
        np.broadcast_to(force * radius, shape)
        for force, radius in zip(forces, radii, strict=True)
    ])  # fmt: skip
    cylinders = np.stack([np.broadcast_to(p, times.shape) for p in found[:2]])
    return Pressed(times, loads, _built_up(torque), _built_up(lines), cylinders, efforts)


def _built_up(values: Array) -> Array:
    """Return values that follow evenly over the build-up's time, from none at the start."""
    width = round(BUILD_UP / GRID)
    before = np.zeros((*values.shape[:-1], width))
    sums = np.cumsum(np.concatenate((before, values), axis=-1), axis=-1)
    sums = np.concatenate((np.zeros((*values.shape[:-1], 1)), sums), axis=-1)
    # the mean of the last `width` cells, each the mean of its ends
    inner = 0.5 * (sums[..., width + 1 :] + sums[..., width:-1])
    outer = 0.5 * (sums[..., 1:-width] + sums[..., : -width - 1])
    return np.asarray((inner - outer)[..., : values.shape[-1]] / width)


class Torques:
    """Brake torques of many stops at any time: (n, 2) [N·m]."""

    def __init__(self, stops: list[Pressed], standings: list[StaticVehicle]) -> None:
        """Take stops of the same times, and their loads at rest."""
        self._feels = any(one.loads.size > 1 for one in stops)
        count = max(one.loads.size for one in stops)
        tables = [
            np.broadcast_to(one.torque, (2, count, one.times.size))
            if one.loads.size == 1
            else one.torque
            for one in stops
        ]
        # time, loads, stops, axles
        self._table = np.ascontiguousarray(np.array(tables).transpose(3, 2, 0, 1))
        self._highest = np.array([one.loads[-1] for one in stops])
        self._rest = np.array([float(one.rear_weight + one.rear_press) for one in standings])
        self._moves = np.array([float(one.weight * one.transfer) for one in standings])
        self._columns = np.arange(len(stops))

    def at(self, time: float, deceleration: Array) -> Array:
        """Return both axles' torque of each stop [N·m]; time: [s]; deceleration: (n,) [g].

        Straight between the places it was worked out at.
        """
        place = time / GRID
        step = int(place)
        table = self._table
        row = table[step] + (place - step) * (table[step + 1] - table[step])
        if not self._feels:
            return np.asarray(row[0])
        return self._by_load(row, deceleration)

    def alone(self, stop: int) -> Callable[[float, float], tuple[float, float]]:
        """Return what does for one stop what `at` does, in plain numbers; stop: its place [-]."""
        table = self._table[:, :, stop].tolist()  # time, loads, axles
        highest, rest, moves = (
            float(one[stop]) for one in (self._highest, self._rest, self._moves)
        )
        most = len(table[0]) - 1

        def at(time: float, deceleration: float) -> tuple[float, float]:
            place = time / GRID
            step = int(place)
            lower, part = 0, 0.0
            if most:
                load = min(max(rest - moves * deceleration, 0.0), highest) / highest * most
                lower = min(int(load), most - 1)
                part = load - lower
            now, later = (_between(row, lower, part) for row in table[step : step + 2])
            return _part(now, later, place - step)

        return at

    def _by_load(self, row: Array, deceleration: Array) -> Array:
        """Return torques at the rear load there is; row: at all loads (k, n, 2)."""
        load = np.clip(self._rest - self._moves * deceleration, 0.0, self._highest)
        most = len(row) - 1
        place = load / self._highest * most
        lower = np.minimum(place.astype(int), most - 1)
        low, high = row[lower, self._columns], row[lower + 1, self._columns]
        return np.asarray(low + (place - lower)[:, None] * (high - low))


def _between(row: list[tuple[float, float]], lower: int, part: float) -> tuple[float, float]:
    """Return a row's pair between two of its places."""
    return _part(row[lower], row[lower + 1], part) if part else row[lower]


def _part(one: tuple[float, float], other: tuple[float, float], part: float) -> tuple[float, float]:
    """Return a pair so far on the way from one to the other."""
    return one[0] + part * (other[0] - one[0]), one[1] + part * (other[1] - one[1])
