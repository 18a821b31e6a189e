"""What is fitted, as typed, part by part."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.document.boosters import booster_kind
from urgens.document.brakes import brake_kind
from urgens.document.cylinders import cylinder_kind
from urgens.document.valves import Valve, kind_of
from urgens.physics.axle import Axle
from urgens.quantity import Units, UnitSystem

Row = tuple[str, str]


def fitted(build: Build, units: UnitSystem | Units) -> tuple[tuple[str, tuple[Row, ...]], ...]:
    """Return the parts of `build` by place, each with its figures as typed."""
    return (
        ("Vehicle", tuple(_vehicle(build))),
        ("Pedal and cylinder", tuple(_pedal(build))),
        ("Front", tuple(_axle(build, Axle.FRONT, units))),
        ("Rear", tuple(_axle(build, Axle.REAR, units))),
    )


def _vehicle(build: Build) -> Iterator[Row]:
    yield "Wheelbase", build.vehicle.wheelbase.text
    for case in build.vehicle.load_cases:
        loads = f"{case.front_axle.text} / {case.rear_axle.text}"
        yield case.name, f"{loads}, centre of gravity {case.cg_height.text} high"


def _pedal(build: Build) -> Iterator[Row]:
    pedal, master = build.pedal, build.master
    ratio = pedal.pivot_to_pad.value / pedal.pivot_to_pushrod.value
    yield "Pedal", f"{pedal.pivot_to_pad.text} to {pedal.pivot_to_pushrod.text} ({ratio:.2f}:1)"
    yield "Booster", booster_kind(build.booster).row(build.booster)
    yield from cylinder_kind(master).rows(master)
    yield "Circuits", build.split


def _axle(build: Build, axle: Axle, units: UnitSystem | Units) -> Iterator[Row]:
    tyre, brake = build.axle(axle).tyre, build.axle(axle).brake
    radius = tyre.rolling_radius
    yield "Tyre", tyre.size or "" if radius is None else f"rolling radius {radius.text}"
    yield from brake_kind(brake).rows(brake)
    valves = build.valves.of(axle)
    for valve in valves:
        yield valve.kind.capitalize(), valve_words(valve, units)
    if not valves:
        yield "Valve", "none"


def valve_words(valve: Valve, units: UnitSystem | Units) -> str:
    """Return a valve's setting in words."""
    body = f" (in {valve.body})" if valve.body else ""
    return kind_of(valve).setting(valve, units) + body
