"""The press a second way: scalar, one plain equation after the other."""

from collections.abc import Sequence
from itertools import pairwise
from math import cos, inf, pi, sin, tan
from typing import Any, NamedTuple

import numpy as np
from scipy.integrate import quad
from scipy.optimize import brentq

from urgens.document import Build, with_changes
from urgens.document.kinds.boosters.none import NoBooster
from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.document.kinds.cylinders.stepped import SteppedMaster
from urgens.document.kinds.cylinders.twin import TwinMaster

G = 9.80665
HARDEST = 1e6  # N of foot
WAY = 160  # steps of the foot from rest


def cylinder_pressures(build: Build, effort: float) -> tuple[float, float]:
    return pressures_of(build, cylinder_force(build, effort))


def cylinder_force(build: Build, effort: float) -> float:
    pedal, booster = build.pedal, build.booster
    rod = pedal.efficiency * effort * pedal.pivot_to_pad.value / pedal.pivot_to_pushrod.value
    force = rod
    if not isinstance(booster, NoBooster):
        crack, limit = booster.crack_force.value, 0.0
        if booster.working and isinstance(booster, VacuumBooster):
            limit = sum(pi * d.value**2 / 4 for d in booster.diaphragm_diameters)
            limit *= booster.vacuum.value
        elif booster.working:
            limit = booster.max_assist.value
        if rod <= crack:
            force = 0.0
        else:
            assist = booster.jump_in.value + (booster.gain - 1) * (rod - crack)
            force = rod - crack + min(assist, limit)
    return force


def pressures_of(build: Build, force: float) -> tuple[float, float]:
    master = build.master

    def pressure(share: float, bore: float) -> float:
        pushed = max(share * force - master.spring_preload.value, 0.0)
        return master.efficiency * pushed / (pi * bore**2 / 4)

    if isinstance(master, TwinMaster):
        lean = master.bar_offset.value / master.bar_length.value
        front = pressure(0.5 + lean, master.front_bore.value)
        return front, pressure(0.5 - lean, master.rear_bore.value)
    if isinstance(master, SteppedMaster):
        large = pressure(1.0, master.large_bore.value)
        relief = master.relief_pressure.value
        if large > relief:  # what goes back to the reservoir pushes against the ring
            pushed = master.efficiency * max(force - master.spring_preload.value, 0.0)
            bores = (pi * b.value**2 / 4 for b in (master.large_bore, master.small_bore))
            wide, narrow = bores
            large = (pushed - relief * (wide - narrow)) / narrow
        return large, large
    return (pressure(1.0, master.bore.value),) * 2


def behind(
    valves: Any, pressure: float, rear_load: float, still_load: float, closing: float = inf
) -> float:
    """Pressure behind valves in flow order; loads on the rear axle now and at rest [N].

    `closing` is the pressure in front of a ball valve at which its ball rolled [Pa].
    """
    for valve in valves:
        if valve.kind == "residual":
            continue
        if valve.kind == "metering":
            close, start, full = valve.close.value, valve.open.value, valve.full_pressure
            if close < pressure <= start:
                pressure = close
            elif start < pressure < full:
                pressure = close + (full - close) * (pressure - start) / (full - start)
            continue
        slope = 0.0 if valve.kind == "limiting" else valve.slope
        if valve.kind == "adjustable":
            knee = _knee(valve)
        elif valve.kind == "load-sensing":
            felt = rear_load if valve.follows == "dynamic" else still_load
            knee = _load_sensed(valve, felt)
        elif valve.kind == "inertia-sensing":
            knee = closing
        else:
            knee = valve.knee.value
        if pressure > knee:
            pressure = knee + slope * (pressure - knee)
    return pressure


def _load_sensed(valve: Any, load: float) -> float:
    if valve.lever is not None:
        return _lever(valve.lever, valve.slope, load)
    points = valve.points
    (light, low), (heavy, high) = ((a.value, b.value) for a, b in points)
    if load <= light:
        return low
    if load >= heavy:
        return high
    return low + (high - low) * (load - light) / (heavy - light)


def _lever(lever: Any, slope: float, load: float) -> float:
    """Travel of the axle between its stops, then the spring, the lever and the stepped piston."""
    up = (load - lever.at_load.value) / lever.suspension_rate.value
    up = min(up, lever.bump.value) if lever.bump is not None else min(up, 1.0)
    up = max(up, -lever.droop.value) if lever.droop is not None else up
    pull = max(lever.preload.value + lever.spring_rate.value * up, 0.0)
    push = pull * lever.arm.value / lever.piston_arm.value
    outlet_end = pi * lever.piston_diameter.value**2 / 4
    return push / (outlet_end - slope * outlet_end)


def _knee(valve: Any) -> float:
    rows = [(turns, knee.value) for turns, knee in valve.table]
    if valve.turns <= rows[0][0]:
        return rows[0][1]
    for (t0, k0), (t1, k1) in pairwise(rows):
        if valve.turns <= t1:
            return k0 + (k1 - k0) * (valve.turns - t0) / (t1 - t0)
    return rows[-1][1]


def pinned_shoes(brake: Any) -> float:
    """C* by numeric quadrature of the pressure over the lining."""
    shoe, radius = brake.shoe, brake.drum_diameter.value / 2
    a, c = shoe.hinge_distance.value, shoe.arm.value
    heel, toe = shoe.heel_angle.value, shoe.toe_angle.value
    mu, top = shoe.lining_friction, sin(toe) if toe < pi / 2 else 1.0
    friction = quad(lambda t: mu * radius / top * sin(t) * (radius - a * cos(t)), heel, toe)[0]
    normal = quad(lambda t: radius * a / top * sin(t) ** 2, heel, toe)[0]
    drag = quad(lambda t: mu * radius**2 / top * sin(t), heel, toe)[0]
    leading, trailing = (drag * c / ((normal + s * friction) * radius) for s in (-1, 1))
    return 2 * leading if brake.layout == "two-leading" else leading + trailing


def axle_force(axle: Any, pressure: float) -> float:
    brake = axle.brake
    pushing = max(pressure - brake.threshold.value, 0.0)
    if brake.kind == "disc":
        area = sum(pi * d.value**2 / 4 for d in brake.piston_diameters)
        if brake.effective_radius is not None:
            radius = brake.effective_radius.value
        else:
            radius = brake.rotor_outer_diameter.value / 2 - brake.pad_height.value / 2
        torque = 2 * brake.pad_friction * pushing * area * radius
    else:
        area = pi * brake.cylinder_diameter.value**2 / 4
        factor = brake.shoe_factor if brake.shoe_factor is not None else pinned_shoes(brake)
        torque = factor * pushing * area * brake.drum_diameter.value / 2
    return 2 * torque * brake.efficiency / rolling_radius(axle.tyre)


def rolling_radius(tyre: Any) -> float:
    """As measured, else 0.97 of what the size code comes to."""
    if tyre.rolling_radius is not None:
        return float(tyre.rolling_radius.value)
    wide, rest = tyre.size.split("/")
    high, rim = rest.split("R")
    return 0.97 * 0.5 * (25.4 * float(rim) + 2.0 * float(wide) * float(high) / 100.0) * 1e-3


def forces_of(
    build: Build, case: int, force: float, z: float, speed: float, closing: float = inf
) -> tuple[float, float]:
    """Axle forces with the rear loaded as at a deceleration; the engine drags the rear."""
    front, rear = pressures_of(build, force)
    now, still = loads(build, case, z, speed)[1], loads(build, case, 0.0, 0.0)[1]
    drag = 0.0
    if build.vehicle.engine_drag.value:
        drag = build.vehicle.engine_drag.value / rolling_radius(build.rear.tyre)
    return (
        axle_force(build.front, behind(build.valves.front, front, now, still)),
        axle_force(build.rear, behind(build.valves.rear, rear, now, still, closing)) + drag,
    )


def closing_pressure(build: Build, case: int, speed: float, reached: Any) -> float:
    """Pressure in front of the ball valve where `reached(force, valve open)` is its tangent."""
    valves = build.valves.rear
    index = next((i for i, v in enumerate(valves) if v.kind == "inertia-sensing"), None)
    if index is None:
        return inf
    wanted = tan(valves[index].ball_angle.value)

    def over(force: float) -> float:
        return float(reached(force) - wanted)

    if over(HARDEST) < 0:
        return inf
    force = float(brentq(over, 0.0, HARDEST, xtol=1e-10, rtol=1e-14)) if over(0.0) < 0 else 0.0
    now, still = loads(build, case, wanted, speed)[1], loads(build, case, 0.0, 0.0)[1]
    return behind(valves[:index], pressures_of(build, force)[1], now, still)


def rolling(
    build: Build, case: int, force: float, speed: float = 0.0, closing: float = inf
) -> float:
    """Deceleration while all wheels roll, the valves settled with it."""
    weight = sum(loads(build, case, 0.0, 0.0))

    def excess(z: float) -> float:
        return z - sum(forces_of(build, case, force, z, speed, closing)) / weight

    return float(brentq(excess, -1.0, 1e5, xtol=1e-14, rtol=1e-14))


def rolling_closing(build: Build, case: int, speed: float = 0.0) -> float:
    return closing_pressure(build, case, speed, lambda force: rolling(build, case, force, speed))


def axle_forces(
    build: Build, case: int, effort: float, speed: float = 0.0, closing: float | None = None
) -> tuple[float, float, float]:
    """Axle forces and deceleration while all wheels roll; `closing` where it is known already."""
    closing = rolling_closing(build, case, speed) if closing is None else closing
    force = cylinder_force(build, effort)
    z = rolling(build, case, force, speed, closing)
    return (*forces_of(build, case, force, z, speed, closing), z)


def loads(build: Build, case: int, z: float, speed: float) -> tuple[float, float]:
    stands = build.vehicle.load_cases[case]
    front, rear = stands.front_axle.value, stands.rear_axle.value
    shift = z * (front + rear) * stands.cg_height.value / build.vehicle.wheelbase.value
    wings = build.vehicle.downforce
    press = 0.5 * 1.225 * speed**2
    if wings is not None:
        front += press * wings.front_cl_area.value
        rear += press * wings.rear_cl_area.value
    return front + shift, rear - shift


def achieved(
    build: Build, case: int, effort: float, mu: float, speed: float = 0.0, part: float = 1.0
) -> float:
    """Deceleration that a foot comes to at an effort, each axle limited to its own tyres' grip."""
    [(z, _)] = followed(build, case, [effort], mu, speed, part)
    return z


def followed(
    build: Build,
    case: int,
    efforts: Sequence[float],
    mu: float,
    speed: float = 0.0,
    part: float = 1.0,
) -> list[tuple[float, tuple[bool, bool]]]:
    """Decelerations at rising efforts and which axles slide there, the foot followed from rest.

    Small steps; an axle that rolls locks at all that its tyres hold, one that slides rolls again
    below what they keep then.
    """
    left, kept = ((part, part), part), build.targets.locked_grip
    closing = closing_pressure(
        build, case, speed, lambda force: slid(build, case, force, mu, speed, left, kept=1.0)
    )
    lift = lifts(build, case, speed)

    def over(effort: float, slides: tuple[bool, bool]) -> tuple[float, list[float]]:
        at = Pressed(build, case, cylinder_force(build, effort), mu, speed, left, closing)
        z = state(at, kept, slides)
        asked = balance(at, z)
        return z, [own / most if most > 0.0 else inf for own, most in zip(*asked, strict=True)]

    def first(low: float, high: float) -> tuple[bool, bool]:
        """Which of two that lock in one step does so first."""
        for _ in range(60):
            middle = (low + high) / 2.0
            shares = over(middle, (False, False))[1]
            low, high = (low, middle) if max(shares) >= 1.0 else (middle, high)
        shares = over(high, (False, False))[1]
        return shares[0] >= shares[1], shares[0] < shares[1]

    steps = sorted({*np.linspace(0.0, max(efforts), WAY).tolist(), *efforts})
    slides, before, found = (False, False), 0.0, []
    for effort in steps:
        for _ in range(4):
            z, shares = over(effort, slides)
            limits = [kept if slid_ else 1.0 for slid_ in slides]
            now = [share >= limit for share, limit in zip(shares, limits, strict=True)]
            if now == [True, True] and not any(slides):
                now = list(first(before, effort))
            if tuple(now) == slides:
                break
            slides = (now[0], now[1])
        before = effort
        if effort in efforts:
            found.append((min(z, lift), slides))
    return found


class Pressed(NamedTuple):
    """A force on the cylinder, on a road at a speed, with what is left of brakes and grip."""

    build: Build
    case: int
    force: float
    mu: float
    speed: float
    left: Any
    closing: float


def balance(at: Pressed, z: float) -> tuple[tuple[float, float], tuple[float, float]]:
    """What both axles' brakes ask for at a deceleration, and what both axles' tyres pass [N]."""
    build, (parts, grip) = at.build, at.left
    front, rear = forces_of(build, at.case, at.force, z, at.speed, at.closing)
    on_front, on_rear = loads(build, at.case, z, at.speed)
    pressed = sum(loads(build, at.case, 0.0, at.speed))
    mus = [grip * at.mu * end.tyre.grip for end in (build.front, build.rear)]
    passed = mus[0] * min(on_front, pressed), mus[1] * max(on_rear, 0.0)
    return (parts[0] * front, parts[1] * rear), passed


def state(at: Pressed, kept: float, slides: tuple[bool, bool]) -> float:
    """Deceleration with the axles that slide passing what they keep, the others what they ask."""
    weight = sum(loads(at.build, at.case, 0.0, 0.0))

    def excess(z: float) -> float:
        held = zip(*balance(at, z), slides, strict=True)
        return z * weight - sum(kept * most if slid_ else own for own, most, slid_ in held)

    return float(brentq(excess, -1.0, 1e5, xtol=1e-14, rtol=1e-14))


def slid(
    build: Build,
    case: int,
    force: float,
    mu: float,
    speed: float,
    left: Any,
    closing: float = inf,
    kept: float | None = None,
) -> float:
    """Deceleration with what is `left` of both axles' brakes, and of the grip.

    One state after the other: all roll, the front slides alone, the rear alone, both. What slides
    keeps its share of the grip. The rear in the air ends it.
    """
    kept = build.targets.locked_grip if kept is None else kept
    pressed = Pressed(build, case, force, mu, speed, left, closing)

    def at(front: bool, rear: bool) -> tuple[float, Any, Any]:
        z = state(pressed, kept, (front, rear))
        return z, *balance(pressed, z)

    lift = lifts(build, case, speed)
    rolls, asked, held = at(False, False)
    if asked[0] < held[0] and asked[1] < held[1]:
        return min(rolls, lift)
    slides, beside, passed = at(True, False)
    if asked[0] >= held[0] and beside[1] < passed[1]:
        return min(slides, lift)
    slides, beside, passed = at(False, True)
    if asked[1] >= held[1] and beside[0] < passed[0]:
        return min(slides, lift)
    return min(at(True, True)[0], lift)


def lifts(build: Build, case: int, speed: float) -> float:
    """Deceleration at which the rear wheels leave the ground."""
    return float(brentq(lambda z: loads(build, case, z, speed)[1], -100.0, 100.0))


def one_axle(build: Build, case: int, effort: float, mu: float, live: str) -> float:
    """Deceleration with one axle's brakes alone; the ball rolls when that is enough for it."""
    build = pushed_by_the_rod(build, live)
    left = ((1.0, 0.0) if live == "front" else (0.0, 1.0), 1.0)
    closing = closing_pressure(
        build, case, 0.0, lambda force: slid(build, case, force, mu, 0.0, left, kept=1.0)
    )
    return slid(build, case, cylinder_force(build, effort), mu, 0.0, left, closing)


def over(build: Build, case: int, forces: tuple[float, float, float], mu: float) -> float:
    """How far [N] the nearer axle is over what its tyres pass, both still rolling."""
    front, rear, z = forces
    on_front, on_rear = loads(build, case, z, 0.0)
    mus = mu * build.front.tyre.grip, mu * build.rear.tyre.grip
    return max(front - mus[0] * on_front, rear - mus[1] * on_rear)


def taken(build: Build, end: str, p: float) -> float:
    """Fluid [m³] that both brakes of an axle and their lines take at a pressure."""
    lines, brake = build.lines, getattr(build, end).brake
    if brake.kind == "disc":
        area = sum(pi * d.value**2 / 4 for d in brake.piston_diameters)
        take_up = 50e3
    else:
        area = pi * brake.cylinder_diameter.value**2 / 4
        take_up = max(50e3, brake.threshold.value)
    wheel = min(p / take_up, 1.0) * 2 * area * brake.clearance.value
    wheel += brake.compliance.value * p
    hose = getattr(lines, f"{end}_hose_length").value * lines.hose_expansion.value * p
    air = getattr(lines, f"trapped_air_{end}").value * (1 - 101325 / (101325 + p))
    fluid = lines.fluid_volume.value * p / lines.fluid_bulk_modulus.value
    return 2 * wheel + hose + fluid + air


def pushed_by_the_rod(build: Build, live: str) -> Build:
    """The build as a stepped cylinder works whose near chamber is lost: its far piston alone."""
    master = build.master
    if not isinstance(master, SteppedMaster) or live == master.primary_feeds:
        return build
    far = master.secondary_bore or master.small_bore
    plain = {
        name: getattr(master, name).text
        for name in ("stroke", "port_travel", "spring_preload")
    }  # fmt: skip
    plain |= {"kind": "tandem", "bore": far.text, "primary_feeds": master.primary_feeds}
    return with_changes(build, {"master": {**plain, "efficiency": master.efficiency}})


def half_travel(build: Build, case: int, effort: float, mu: float, live: str) -> float:
    """Pad travel [m] of a tandem with one axle lost: the dead stroke, then what the live takes."""
    master, pedal = build.master, build.pedal
    z = one_axle(build, case, effort, mu, live)
    left = ((1.0, 0.0) if live == "front" else (0.0, 1.0), 1.0)
    closing = closing_pressure(
        build, case, 0.0, lambda force: slid(build, case, force, mu, 0.0, left, kept=1.0)
    )
    force = cylinder_force(build, effort)
    at_master = pressures_of(build, force)[live == "rear"]
    load = loads(build, case, z, 0.0)[1]
    still = build.vehicle.load_cases[case].rear_axle.value
    pressure = behind(getattr(build.valves, live), at_master, load, still, closing)
    primary, secondary = master.chamber_strokes
    front_stroke, rear_stroke = (
        (primary, secondary) if master.primary_feeds == "front" else (secondary, primary)
    )
    dead = rear_stroke if live == "front" else front_stroke
    stroke = master.port_travel.value + taken(build, live, pressure) / (
        pi * master.bore.value**2 / 4
    )
    ratio = pedal.pivot_to_pad.value / pedal.pivot_to_pushrod.value
    return ratio * (pedal.pushrod_clearance.value + dead + stroke)


def travel(build: Build, front: float, rear: float) -> float:
    """Pad travel [m] for pressures at the brakes [Pa], chamber by chamber, no limits."""
    master, pedal = build.master, build.pedal
    ratio = pedal.pivot_to_pad.value / pedal.pivot_to_pushrod.value
    both = {end: taken(build, end, p) for end, p in (("front", front), ("rear", rear))}
    port, gap = master.port_travel.value, pedal.pushrod_clearance.value
    if master.kind == "single":
        return ratio * (gap + port + sum(both.values()) / (pi * master.bore.value**2 / 4))
    if master.kind == "tandem":
        area = pi * master.bore.value**2 / 4
        halves = [sum(both.values()) / 2] * 2 if build.split == "diagonal" else both.values()
        return ratio * (gap + sum(port + volume / area for volume in halves))
    if master.kind == "stepped":
        relief = master.relief_pressure.value
        first = [taken(build, end, min(p, relief)) for end, p in (("front", front), ("rear", rear))]
        wide, narrow = (pi * b.value**2 / 4 for b in (master.large_bore, master.small_bore))
        rod = sum(first) / wide + (sum(both.values()) - sum(first)) / narrow
        far = both["rear" if master.primary_feeds == "front" else "front"]
        if build.split == "diagonal":
            far = sum(both.values()) / 2
        return ratio * (gap + 2 * port + max(rod, far / narrow))
    lean = master.bar_offset.value / master.bar_length.value
    front_stroke = port + both["front"] / (pi * master.front_bore.value**2 / 4)
    rear_stroke = port + both["rear"] / (pi * master.rear_bore.value**2 / 4)
    return ratio * (gap + front_stroke * (0.5 + lean) + rear_stroke * (0.5 - lean))
