"""What is fitted, as typed, part by part."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.document.booster import HydraulicBooster, VacuumBooster
from urgens.document.master import TwinMaster
from urgens.document.valves import (
    Adjustable,
    InertiaSensing,
    Lever,
    Limiting,
    LoadSensing,
    Metering,
    Reducing,
    Residual,
    Valve,
)
from urgens.document.wheel import Axle, Disc
from urgens.physics.valve import ball_closes
from urgens.quantity import PRESSURE, Quantity, Units, UnitSystem, show
from urgens.solve.system import shoe_factor
from urgens.solve.valve_law import ReducingLaw, law

Row = tuple[str, str]


def fitted(build: Build, units: UnitSystem | Units) -> tuple[tuple[str, tuple[Row, ...]], ...]:
    """Return the parts of `build` by place, each with its figures as typed."""
    return (
        ("Vehicle", tuple(_vehicle(build))),
        ("Pedal and cylinder", tuple(_pedal(build))),
        ("Front", tuple(_axle(build.front, build.valves.front, units))),
        ("Rear", tuple(_axle(build.rear, build.valves.rear, units))),
    )


def _typed(*quantities: Quantity) -> str:
    return ", ".join(quantity.text for quantity in quantities)


def _vehicle(build: Build) -> Iterator[Row]:
    yield "Wheelbase", build.vehicle.wheelbase.text
    for case in build.vehicle.load_cases:
        loads = f"{case.front_axle.text} / {case.rear_axle.text}"
        yield case.name, f"{loads}, centre of gravity {case.cg_height.text} high"


def _pedal(build: Build) -> Iterator[Row]:
    pedal, master = build.pedal, build.master
    ratio = pedal.pivot_to_pad.value / pedal.pivot_to_pushrod.value
    yield "Pedal", f"{pedal.pivot_to_pad.text} to {pedal.pivot_to_pushrod.text} ({ratio:.2f}:1)"
    if isinstance(build.booster, VacuumBooster):
        state = "" if build.booster.working else ", not working"
        size = _typed(*build.booster.diaphragm_diameters)
        yield "Booster", f"vacuum, {size}, {build.booster.vacuum.text}{state}"
    elif isinstance(build.booster, HydraulicBooster):
        state = "" if build.booster.working else ", not working"
        yield "Booster", f"hydraulic, up to {build.booster.max_assist.text}{state}"
    else:
        yield "Booster", "none"
    if isinstance(master, TwinMaster):
        yield "Cylinders", f"twin, front {master.front_bore.text}, rear {master.rear_bore.text}"
        yield "Balance bar", f"{master.bar_length.text} long, {master.bar_offset.text} to the front"
    else:
        yield "Cylinder", f"{master.kind}, {master.bore.text} bore, {master.stroke.text} stroke"
    yield "Circuits", build.split


def _axle(axle: Axle, valves: tuple[Valve, ...], units: UnitSystem | Units) -> Iterator[Row]:
    tyre, brake = axle.tyre, axle.brake
    radius = tyre.rolling_radius
    yield "Tyre", tyre.size or "" if radius is None else f"rolling radius {radius.text}"
    if isinstance(brake, Disc):
        pistons = _typed(*brake.piston_diameters)
        yield "Disc brake", f"{brake.caliper} caliper, pistons {pistons} a side"
        if brake.effective_radius is not None:
            yield "Effective radius", brake.effective_radius.text
        elif brake.pad_inner_radius is not None and brake.pad_outer_radius is not None:
            spread = f"{brake.pad_inner_radius.text} to {brake.pad_outer_radius.text}"
            yield "Pad, from the axle", f"{spread}, {brake.pad_pressure.replace('-', ' ')}"
        elif brake.rotor_outer_diameter is not None and brake.pad_height is not None:
            yield "Rotor, pad", f"{brake.rotor_outer_diameter.text}, {brake.pad_height.text} high"
        yield "Pad friction", f"{brake.pad_friction:g}"
    else:
        yield "Drum brake", f"{brake.layout}, drum {brake.drum_diameter.text}"
        yield "Wheel cylinder", brake.cylinder_diameter.text
        source = "" if brake.shoe_factor is not None else " from its shoes"
        factor = f"{shoe_factor(brake):.3g}{source}"
        yield "Shoe factor", f"{factor}, shoes move at {brake.threshold.text}"
    for valve in valves:
        yield valve.kind.capitalize(), valve_words(valve, units)
    if not valves:
        yield "Valve", "none"


def valve_words(valve: Valve, units: UnitSystem | Units) -> str:
    """Return a valve's setting in words."""
    body = f" (in {valve.body})" if valve.body else ""
    match valve:
        case Reducing():
            return f"knee {valve.knee.text}, slope {valve.slope:g}{body}"
        case Adjustable():
            setting = law(valve)
            assert isinstance(setting, ReducingLaw)
            knee = show(float(setting.knee), PRESSURE, units)
            return f"{valve.turns:g} {valve.counted}: knee {knee}, slope {valve.slope:g}{body}"
        case Limiting():
            return f"limits at {valve.knee.text}{body}"
        case LoadSensing(lever=Lever() as lever):
            spring = f"{lever.preload.text} at {lever.at_load.text}, {lever.spring_rate.text}"
            return f"{valve.follows}, by its lever: {spring}, slope {valve.slope:g}{body}"
        case LoadSensing():
            assert valve.points is not None
            (light, low), (heavy, high) = valve.points
            knees = f"{low.text} at {light.text}, {high.text} at {heavy.text}"
            return f"{valve.follows}, knee {knees}, slope {valve.slope:g}{body}"
        case InertiaSensing():
            closes = ball_closes(valve.ball_angle.value)
            angle = f"ball on {valve.ball_angle.text}"
            return f"{angle}: shuts at {closes:.2f} g, slope {valve.slope:g}{body}"
        case Residual():
            return f"keeps {valve.pressure.text}{body}"
        case Metering():
            return f"shuts at {valve.close.text}, opens at {valve.open.text}{body}"
