"""The press a second way: scalar, one plain equation after the other."""

from itertools import pairwise
from math import pi
from typing import Any

from scipy.optimize import brentq

from urgens.build import Build
from urgens.build.booster import VacuumBooster
from urgens.build.master import TwinMaster

G = 9.80665


def cylinder_pressures(build: Build, effort: float) -> tuple[float, float]:
    pedal, master, booster = build.pedal, build.master, build.booster
    rod = pedal.efficiency * effort * pedal.pivot_to_pad.value / pedal.pivot_to_pushrod.value
    force = rod
    if isinstance(booster, VacuumBooster):
        crack, limit = booster.crack_force.value, 0.0
        if booster.working:
            limit = sum(pi * d.value**2 / 4 for d in booster.diaphragm_diameters)
            limit *= booster.vacuum.value
        if rod <= crack:
            force = 0.0
        else:
            assist = booster.jump_in.value + (booster.gain - 1) * (rod - crack)
            force = rod - crack + min(assist, limit)

    def pressure(share: float, bore: float) -> float:
        pushed = max(share * force - master.spring_preload.value, 0.0)
        return master.efficiency * pushed / (pi * bore**2 / 4)

    if isinstance(master, TwinMaster):
        lean = master.bar_offset.value / master.bar_length.value
        front = pressure(0.5 + lean, master.front_bore.value)
        return front, pressure(0.5 - lean, master.rear_bore.value)
    return (pressure(1.0, master.bore.value),) * 2


def behind(valves: Any, pressure: float) -> float:
    for valve in valves:
        if valve.kind == "metering":
            close, start, full = valve.close.value, valve.open.value, valve.full_pressure
            if close < pressure <= start:
                pressure = close
            elif start < pressure < full:
                pressure = close + (full - close) * (pressure - start) / (full - start)
            continue
        knee = _knee(valve) if valve.kind == "adjustable" else valve.knee.value
        if pressure > knee:
            pressure = knee + valve.slope * (pressure - knee)
    return pressure


def _knee(valve: Any) -> float:
    rows = [(turns, knee.value) for turns, knee in valve.table]
    if valve.turns <= rows[0][0]:
        return rows[0][1]
    for (t0, k0), (t1, k1) in pairwise(rows):
        if valve.turns <= t1:
            return k0 + (k1 - k0) * (valve.turns - t0) / (t1 - t0)
    return rows[-1][1]


def axle_force(axle: Any, pressure: float) -> float:
    brake = axle.brake
    pushing = max(pressure - brake.threshold.value, 0.0)
    if brake.kind == "disc":
        area = sum(pi * d.value**2 / 4 for d in brake.piston_diameters)
        torque = 2 * brake.pad_friction * pushing * area * brake.effective_radius.value
    else:
        area = pi * brake.cylinder_diameter.value**2 / 4
        torque = brake.shoe_factor * pushing * area * brake.drum_diameter.value / 2
    return 2 * torque * brake.efficiency / axle.tyre.rolling_radius.value


def axle_forces(build: Build, effort: float) -> tuple[float, float]:
    front, rear = cylinder_pressures(build, effort)
    return (
        axle_force(build.front, behind(build.valves.front, front)),
        axle_force(build.rear, behind(build.valves.rear, rear)),
    )


def loads(build: Build, case: int, z: float) -> tuple[float, float]:
    stands = build.vehicle.load_cases[case]
    front, rear = stands.front_axle.value, stands.rear_axle.value
    shift = z * (front + rear) * stands.cg_height.value / build.vehicle.wheelbase.value
    return front + shift, rear - shift


def achieved(build: Build, case: int, effort: float, mu: float) -> float:
    """Root of z W = min(F_f, μ N_f) + min(F_r, μ N_r⁺), by scipy; lifted: W in front."""
    front, rear = axle_forces(build, effort)
    weight = sum(loads(build, case, 0.0))

    def excess(z: float) -> float:
        on_front, on_rear = loads(build, case, z)
        on_front = min(on_front, weight)
        return min(front, mu * on_front) + min(rear, mu * max(on_rear, 0.0)) - z * weight

    return float(brentq(excess, 0.0, 5.0, xtol=1e-14, rtol=1e-14))


def over(build: Build, case: int, forces: tuple[float, float], mu: float) -> float:
    """How far [N] the nearer axle is over what the surface passes, both still rolling."""
    front, rear = forces
    z = (front + rear) / sum(loads(build, case, 0.0))
    on_front, on_rear = loads(build, case, z)
    return max(front - mu * on_front, rear - mu * on_rear)
