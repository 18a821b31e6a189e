"""The formulas of a solve in bare NumPy, for one shape of build: what the structure costs.

The bakery: vacuum booster, tandem cylinder, metering in front, reducing behind, disc and drum.
Grids, scans and refinements are those of the solver; there are no objects, names or checks.
"""

import numpy as np
from numpy.typing import NDArray

from urgens.solve import System

Array = NDArray[np.float64]


class Bare:
    """Plain numbers of one build."""

    def __init__(self, made: System) -> None:
        assist, cylinder = made.booster, made.cylinders.front
        self.ratio = made.pedal_ratio
        self.crack, self.jump = assist.crack_force, assist.jump_in
        self.gain, self.limit = assist.gain, assist.assist_limit
        self.area, self.preload = cylinder.area, cylinder.spring_preload
        metering, reducing = made.valves.front[0], made.valves.rear[0]
        self.closing, self.opening, self.full = metering.closing, metering.opening, metering.full
        self.knee, self.slope = reducing.at, reducing.slope
        self.front = 2 * made.ends.front.torque_per_pressure / made.ends.front.rolling_radius
        self.rear = 2 * made.ends.rear.torque_per_pressure / made.ends.rear.rolling_radius
        self.front_threshold, self.rear_threshold = (
            made.ends.front.threshold,
            made.ends.rear.threshold,
        )
        self.weights = np.asarray(made.standing.front_weight), np.asarray(made.standing.rear_weight)
        self.transfer = np.asarray(made.standing.transfer)
        self.most, self.kept = made.max_effort, made.locked_grip
        self.volumes = made.volumes

    def forces(self, rod: Array) -> tuple[Array, Array]:
        above = np.maximum(rod - self.crack, 0.0)
        assist = np.minimum(self.jump + (self.gain - 1) * above, self.limit)
        output = np.where(above > 0, above + assist, 0.0)
        pressure = np.maximum(output - self.preload, 0.0) / self.area
        rate = (self.full - self.closing) / (self.full - self.opening)
        front = np.minimum(
            pressure, np.maximum(self.closing, self.closing + rate * (pressure - self.opening))
        )
        rear = np.minimum(pressure, self.knee + self.slope * (pressure - self.knee))
        return (
            self.front * np.maximum(front - self.front_threshold, 0.0),
            self.rear * np.maximum(rear - self.rear_threshold, 0.0),
        )

    def sweep(self, efforts: Array, surface: float) -> tuple[Array, ...]:
        """Forces, deceleration, loads, adhesion and the achieved deceleration of one load case."""
        front, rear = self.forces(self.ratio * efforts)
        front_weight, rear_weight = self.weights[0][0], self.weights[1][0]
        weight, transfer = front_weight + rear_weight, self.transfer[0]
        z = (front + rear) / weight
        front_load, rear_load = (
            front_weight + z * weight * transfer,
            rear_weight - z * weight * transfer,
        )
        used = front / front_load, rear / np.where(rear_load > 0, rear_load, np.nan)
        kept = self.kept * surface
        front_only = (kept * front_weight + rear) / (weight * (1 - kept * transfer))
        rear_only = (front + kept * rear_weight) / (weight * (1 + kept * transfer))
        over = (
            front >= surface * np.minimum(front_load, weight),
            rear >= surface * np.maximum(rear_load, 0),
        )
        either = over[0] | over[1]
        first = int(np.argmax(either))
        if over[0][first] or not either.any():
            beside = surface * np.maximum(rear_weight - front_only * weight * transfer, 0)
            one, both = front_only, rear >= beside
        else:
            moved = front_weight + rear_only * weight * transfer
            one, both = rear_only, front >= surface * np.minimum(moved, weight)
        rolls = ~either.any() | (np.arange(efforts.size) < first)
        achieved = np.where(rolls, z, np.where(both, kept, one))
        return front, rear, z, front_load, rear_load, *used, achieved, self.travel(front, rear)

    def travel(self, front: Array, rear: Array) -> Array:
        """Pad travel from axle forces, back through the brakes' own pressures."""
        figures = self.volumes
        rod = figures.pushrod_clearance
        for force, gain, threshold, axle, chamber in (
            (front, self.front, self.front_threshold, figures.axles.front, figures.chambers[0]),
            (rear, self.rear, self.rear_threshold, figures.axles.rear, figures.chambers[1]),
        ):
            p = threshold + force / gain
            taken = np.minimum(p / axle.take_up, 1.0) * axle.clearance_volume + axle.compliance * p
            taken = taken + axle.hose_expansion * axle.hose_length * p
            taken = taken + axle.fluid_volume / figures.bulk_modulus * p
            taken = taken + axle.trapped_air * (1 - 101325.0 / (101325.0 + p))
            stroke = figures.port_travel + taken / chamber.area
            rod = rod + np.where(stroke > chamber.stroke, np.nan, stroke)
        pad = self.ratio * rod
        return np.where(pad > figures.floor, np.nan, pad)

    def sizing(
        self, bores: Array, ratios: Array, window: tuple[float, float, float, float]
    ) -> tuple[Array, ...]:
        """Every bore with every ratio: pressure, effort, travel, stroke, halves, score.

        window: comfortable effort, wanted deceleration, lowest and highest pressure.
        """
        comfortable, wanted, low, high = window
        areas = np.pi / 4 * bores[:, None] ** 2
        weight = self.weights[0][0] + self.weights[1][0]
        rods = np.linspace(0.0, self.most * float(ratios.max()), 601)

        def demand(rod: Array) -> Array:
            front, rear = self._forces_with(rod, areas)
            return (front + rear) / weight - wanted

        over = demand(rods[:, None, None])[..., 0]
        first = np.maximum(np.argmax(over >= 0, axis=0), 1)
        rows = np.arange(bores.size)
        below, above = over[first - 1, rows], over[first, rows]
        rod = rods[first - 1] - below / (above - below) * (rods[first] - rods[first - 1])
        for _ in range(4):  # as many evaluations as a bracket takes that a knee may lie in
            rod = rod - demand(rod[:, None])[:, 0] / ((above - below) / (rods[1] - rods[0]))
        effort = rod[:, None] / ratios
        effort = np.where(effort <= self.most, effort, np.nan)
        pressed = np.where(np.isnan(effort), comfortable, effort)
        at_comfort = self._pressure(ratios * comfortable, areas)
        strokes = self._strokes(self._pressure(ratios * pressed, areas), areas)
        pad = ratios * (self.volumes.pushrod_clearance + strokes[0] + strokes[1])
        chambers = self.volumes.chambers
        used = np.maximum(strokes[0] / chambers[0].stroke, strokes[1] / chambers[1].stroke)
        hardest = self._strokes(self._pressure(ratios * self.most, areas), areas)
        halves = [
            ratios * (self.volumes.pushrod_clearance + chambers[dead].stroke + hardest[1 - dead])
            for dead in (0, 1)
        ]
        floor = self.volumes.floor
        inside = [
            ~np.isnan(effort), (at_comfort >= low) & (at_comfort <= high), pad <= floor, used <= 1,
            np.maximum(*halves) <= floor,
        ]  # fmt: skip
        scores = [
            1 - effort / self.most, 1 - np.abs(at_comfort - (low + high) / 2) / (high - low) * 2,
            1 - pad / floor, 1 - used, 1 - np.maximum(*halves) / floor,
        ]  # fmt: skip
        verdict = np.argmax([*np.logical_not(inside), np.ones(pad.shape, bool)], axis=0)
        score = np.mean([np.clip(np.nan_to_num(s), 0.0, 1.0) for s in scores], axis=0)
        return at_comfort, effort, pad, used, *halves, verdict, score

    def _pressure(self, rod: Array, areas: Array) -> Array:
        above = np.maximum(rod - self.crack, 0.0)
        assist = np.minimum(self.jump + (self.gain - 1) * above, self.limit)
        output = np.where(above > 0, above + assist, 0.0)
        return np.maximum(output - self.preload, 0.0) / areas

    def _behind(self, pressure: Array) -> tuple[Array, Array]:
        rate = (self.full - self.closing) / (self.full - self.opening)
        held = np.maximum(self.closing, self.closing + rate * (pressure - self.opening))
        front = np.minimum(pressure, held)
        return front, np.minimum(pressure, self.knee + self.slope * (pressure - self.knee))

    def _forces_with(self, rod: Array, areas: Array) -> tuple[Array, Array]:
        front, rear = self._behind(self._pressure(rod, areas))
        return (
            self.front * np.maximum(front - self.front_threshold, 0.0),
            self.rear * np.maximum(rear - self.rear_threshold, 0.0),
        )

    def _strokes(self, pressure: Array, areas: Array) -> tuple[Array, ...]:
        figures = self.volumes
        strokes = []
        for axle, p in zip(
            (figures.axles.front, figures.axles.rear), self._behind(pressure), strict=True
        ):
            taken = np.minimum(p / axle.take_up, 1.0) * axle.clearance_volume + axle.compliance * p
            taken = taken + axle.hose_expansion * axle.hose_length * p
            taken = taken + axle.fluid_volume / figures.bulk_modulus * p
            taken = taken + axle.trapped_air * (1 - 101325.0 / (101325.0 + p))
            strokes.append(figures.port_travel + taken / areas)
        return tuple(strokes)

    def solve(self, surfaces: Array) -> tuple[Array, ...]:
        """One press, the whole line with its crossings and rules, the first lock everywhere."""
        pressed = self.sweep(np.array([250.0]), 0.9)
        front_weight, rear_weight = (w[:, None] for w in self.weights)
        weight = front_weight + rear_weight
        efforts = np.linspace(0.0, self.most, 401)
        front, rear = self.forces(self.ratio * efforts)
        over = self._over(
            front, rear, front_weight[..., None], weight[..., None], self.transfer[:, None, None],
            surfaces[:, None],
        )  # fmt: skip
        index = np.maximum(np.argmax(over >= 0, axis=-1), 1)
        low, high = efforts[index - 1], efforts[index]
        below = np.take_along_axis(over, (index - 1)[..., None], -1)[..., 0]
        above = np.take_along_axis(over, index[..., None], -1)[..., 0]
        lock = high - above / (above - below) * (high - low)
        for _ in range(2):  # to the root, and to see that it is one
            at = self._over(
                *self.forces(self.ratio * lock),
                front_weight,
                weight,
                self.transfer[:, None],
                surfaces,
            )
        second = high - above / (above - below) * (high - low)
        for _ in range(2):
            self._over(
                *self.forces(self.ratio * second),
                front_weight,
                weight,
                self.transfer[:, None],
                surfaces,
            )
        rods = np.linspace(0.0, 4096.0, 801)
        lead = self._lead(rods)
        turns = np.flatnonzero((lead[1:] > 0) != (lead[:-1] > 0))
        found = rods[turns]
        for _ in range(8):
            self._lead(found)
        efforts = np.linspace(0.0, self.most, 201)
        for tried in (efforts, efforts[90:91], efforts[90:91]):  # the effort that is wanted
            z = sum(self.forces(self.ratio * tried)) / (self.weights[0][0] + self.weights[1][0])
        return (*pressed, lock, at, second, found, z, *self.halves(0.9))

    def halves(self, surface: float) -> tuple[Array, ...]:
        """Deceleration and travel with the front, then the rear lost, for all load cases."""
        front, rear = self.forces(self.ratio * np.array(self.most))
        front_weight, rear_weight = self.weights
        weight = front_weight + rear_weight
        behind = np.minimum(
            rear / weight, surface * rear_weight / (weight * (1 + surface * self.transfer))
        )
        ahead = np.minimum(
            front / weight, surface * front_weight / (weight * (1 - surface * self.transfer))
        )
        return behind, ahead, self.travel(front, rear), self.travel(front, rear)

    @staticmethod
    def _over(
        front: Array, rear: Array, front_weight: Array, weight: Array, transfer: Array, mu: Array
    ) -> Array:
        shift = (front + rear) * transfer
        return np.maximum(
            front - mu * (front_weight + shift), rear - mu * (weight - front_weight - shift)
        )

    def _lead(self, rods: Array) -> Array:
        front, rear = self.forces(rods)
        shift = (front + rear) * self.transfer[0]
        return rear * (self.weights[0][0] + shift) - front * (self.weights[1][0] - shift)
