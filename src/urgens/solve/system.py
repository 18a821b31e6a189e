"""A frozen, numeric picture of a build, which is all that solving sees."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from urgens.document import Build
from urgens.document.edits.edit import same_figures
from urgens.document.engine_drag import drag_at_road, driven_axle
from urgens.document.kinds.boosters import assist
from urgens.document.kinds.brakes import brake_kind
from urgens.document.kinds.cylinders import cylinder_kind
from urgens.document.kinds.cylinders.kind import Split
from urgens.document.kinds.valves import kind_of
from urgens.document.laid_fluid import laid_fluid
from urgens.document.numeric import NOTHING, Laid, NumericBuild
from urgens.document.residual_valves import behind_outlets
from urgens.document.wheel_ends import rolling_radius
from urgens.physics import pedal, vehicle
from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import Axle, Pair
from urgens.physics.booster import Assist
from urgens.physics.cylinder import Chamber, Cylinder
from urgens.physics.standards import CARS, TRUCKS, AdhesionRule
from urgens.physics.valve_law import InertiaSensingLaw, ResidualLaw, ValveLaw
from urgens.physics.vehicle import StaticVehicle

WHEELS = 2
PADS = 2.0


@dataclass(frozen=True)
class WheelEnd:
    """One axle's brakes: torque per pressure [m³], threshold [Pa], rolling radius [m]."""

    torque_per_pressure: Floats
    threshold: Floats
    rolling_radius: Floats


@dataclass(frozen=True)
class AxleFluid:
    """What takes fluid on one axle, both wheels: [m³], [m³/Pa], [Pa], [m], [m³] and as marked."""

    clearance_volume: Floats
    compliance: Floats
    take_up: Floats
    hose_length: Floats
    trapped_air: Floats
    hose_expansion: Floats  # m³/(m·Pa)
    fluid_volume: Floats  # m³


@dataclass(frozen=True)
class Volumes:
    """What decides pedal travel."""

    axles: Pair[AxleFluid]
    chambers: tuple[Chamber, ...]
    bulk_modulus: Floats  # Pa
    port_travel: Floats  # m
    pushrod_clearance: Floats  # m
    floor: Floats  # m of pad travel
    shuttle: Floats | None = None  # m³ that shut a dead line, where a switch block does


@dataclass(frozen=True)
class System:
    """The numbers of one build; `standing` holds all load cases along its one axis.

    Of draws and variants, whose figures are arrays, the load cases are the last axis.
    """

    pedal_ratio: Floats
    pedal_efficiency: Floats
    booster: Assist
    cylinders: Pair[Cylinder]
    valves: Pair[tuple[ValveLaw, ...]]
    ends: Pair[WheelEnd]
    volumes: Volumes
    bar_length: Floats | None  # m, of twin cylinders
    bar_max_angle: Floats | None  # rad, where given
    split: Split
    drag: Pair[Floats]  # N at the road, of the engine through an axle
    outlets: Pair[tuple[ValveLaw, ...]]  # what is behind the cylinder's own seats
    standing: StaticVehicle
    case_names: tuple[str, ...]
    max_effort: Floats  # N
    locked_grip: Floats = 1.0  # share of its coefficient that a locked axle keeps [-]
    rule: AdhesionRule = CARS  # that the vehicle is compared with
    closing: Floats | None = None  # Pa in front of a ball valve, once it is known: solve.ball
    at_closing: tuple[Array, Array] | None = None  # N of both axles then

    @property
    def all_valves(self) -> tuple[ValveLaw, ...]:
        """The valves of both circuits."""
        return (*self.valves.front, *self.valves.rear)

    @property
    def feels_load(self) -> bool:
        """Whether a valve moves with the rear axle's load at the same press."""
        return any(valve.feels_load for valve in self.all_valves)

    @property
    def ball(self) -> InertiaSensingLaw | None:
        """The valve whose ball feels the deceleration, None where there is none."""
        return next((v for v in self.all_valves if isinstance(v, InertiaSensingLaw)), None)

    def with_shares(self, front: Floats, rear: Floats) -> "System":
        """Return the system with other shares of the bar.

        front: share of the force on the front cylinder [-]; rear: on the rear one [-].

        A bar against its stop passes everything to one rod.
        """
        shares = Pair(front, rear)
        made = (
            replace(one, share=share) for one, share in zip(self.cylinders, shares, strict=True)
        )
        return replace(self, cylinders=Pair(*made))

    def with_rear_valves(self, *laws: ValveLaw) -> "System":
        """Return the system with other valves behind.

        laws: in flow order. Source: the outlet of one is the inlet of the next.
        """
        return replace(self, valves=Pair(self.valves.front, laws))

    def case(self, index: int) -> StaticVehicle:
        """Return one load case's loads; index: of the case [-]."""
        return StaticVehicle(*(np.asarray(value)[..., index] for value in self.standing))

    @property
    def cases(self) -> StaticVehicle:
        """All load cases down an axis, beside which surfaces have the last one."""
        return StaticVehicle(*(np.asarray(value)[..., None] for value in self.standing))


def same_figures_solved(one: Build, other: Build) -> bool:
    """Tell whether two builds have one solution: no figure differs that is worked out.

    one, other: the builds. Of a layout only what its hoses and lines hold and stretch by counts.
    Source: by definition.
    """
    if one.plumbing is not other.plumbing:
        if laid_fluid(one) != laid_fluid(other):
            return False
        one = one.model_copy(update={"plumbing": other.plumbing})
    return same_figures(one, other)


def system(build: Build, speed: float = 0.0, over: Laid = NOTHING) -> System:
    """Return the numbers of `build`.

    speed: for downforce [m/s]; over: figures laid over its own for a
    moment, by path: numbers, or arrays of shapes that broadcast, as those of draws [SI].
    """
    reading = NumericBuild(build, over)
    made, master, bar = reading.of("pedal"), reading.of("master"), build.master.has_bar
    kind = cylinder_kind(build.master)
    return System(
        pedal_ratio=_number(pedal.ratio(made["pivot_to_pad"], made["pivot_to_pushrod"])),
        pedal_efficiency=made["efficiency"],
        booster=assist(reading.of("booster")),
        cylinders=kind.cylinders(master),
        valves=Pair(*(_laws(reading.of("valves").each(axle)) for axle in Axle)),
        ends=Pair(*(_wheel_end(reading.of(axle)) for axle in Axle)),
        volumes=_volumes(reading),
        bar_length=master["bar_length"] if bar else None,
        bar_max_angle=master.get("bar_max_angle") if bar else None,
        split=build.split,
        drag=_drag(reading),
        standing=_standing(reading, speed),
        case_names=tuple(case.name for case in build.vehicle.load_cases),
        max_effort=reading.of("targets")["max_effort"],
        locked_grip=reading.of("targets")["locked_grip"],
        rule=rule_for(build),
        outlets=Pair(*(_outlets(build, axle) for axle in Axle)),
    )


def _number(value: Array) -> Floats:
    """Return a figure as a plain number, where it is one."""
    return float(value) if value.ndim == 0 else value


def _laws(valves: Sequence[NumericBuild]) -> tuple[ValveLaw, ...]:
    return tuple(kind_of(valve.part).law(valve) for valve in valves)


def rule_for(build: Build) -> AdhesionRule:
    """Return the rule a vehicle is compared with."""
    return TRUCKS if build.vehicle.use == "truck" else CARS


def _outlets(build: Build, axle: Axle) -> tuple[ValveLaw, ...]:
    return tuple(ResidualLaw(kept.value) for _, kept in behind_outlets(build, axle))


def _drag(reading: NumericBuild) -> Pair[Floats]:
    """Return the engine's drag at the road of the front and the rear axle [N]."""
    driven, force = driven_axle(reading.part.vehicle), drag_at_road(reading)
    return Pair(*(_number(np.asarray(force)) if axle == driven else 0.0 for axle in Axle))


def _wheel_end(axle: NumericBuild) -> WheelEnd:
    brake = axle.of("brake")
    gain = brake_kind(brake.part).torque_per_pressure(brake)
    return WheelEnd(_number(gain), brake["threshold"], rolling_radius(axle.of("tyre")))


def _volumes(reading: NumericBuild) -> Volumes:
    build, lines = reading.part, reading.of("lines")
    master = reading.of("master")
    shut = build.warning_switch == "shuts"
    return Volumes(
        axles=Pair(*(_axle_fluid(reading, lines, axle) for axle in Axle)),
        chambers=cylinder_kind(build.master).chambers(master, build.split),
        bulk_modulus=lines["fluid_bulk_modulus"],
        port_travel=master["port_travel"],
        pushrod_clearance=reading.of("pedal")["pushrod_clearance"],
        floor=reading.of("pedal")["travel_available"],
        shuttle=reading.get("shuttle_volume") if shut else None,
    )


def _axle_fluid(reading: NumericBuild, lines: NumericBuild, axle: Axle) -> AxleFluid:
    """Return what takes fluid; hoses and lines of the layout count before typed totals."""
    brake, laid = reading.of(axle).of("brake"), laid_fluid(reading.part).of(axle)
    kind, swelling = brake_kind(brake.part), lines["hose_expansion"]
    length = lines[f"{axle}_hose_length"]
    if laid.hose_length is not None:
        length = laid.hose_length
        taken = laid.swells + laid.plain * swelling
        swelling = taken / length if length else swelling
    return AxleFluid(
        clearance_volume=WHEELS * PADS * kind.piston_area(brake) * brake["clearance"],
        compliance=WHEELS * brake["compliance"],
        take_up=kind.take_up(brake),
        hose_length=length,
        trapped_air=lines[f"trapped_air_{axle}"],
        hose_expansion=swelling,
        fluid_volume=lines["fluid_volume"] if laid.fluid is None else laid.fluid,
    )


def _standing(reading: NumericBuild, speed: float) -> StaticVehicle:
    vehicle_ = reading.of("vehicle")
    cases, wheelbase = vehicle_.each("load_cases"), vehicle_["wheelbase"]
    press: list[Any] = [0.0, 0.0]
    if vehicle_.part.downforce is not None:
        wings = vehicle_.of("downforce")
        press = [vehicle.downforce(speed, wings[f"{axle}_cl_area"]) for axle in Axle]
    grips = [reading.of(axle).of("tyre")["grip"] for axle in Axle]
    return StaticVehicle(
        front_weight=_last([case["front_axle"] for case in cases]),
        rear_weight=_last([case["rear_axle"] for case in cases]),
        transfer=_last([np.divide(case["cg_height"], wheelbase) for case in cases]),
        front_press=_last([press[0] for _ in cases]),
        rear_press=_last([press[1] for _ in cases]),
        front_grip=_last([grips[0] for _ in cases]),
        rear_grip=_last([grips[1] for _ in cases]),
    )


def _last(values: Sequence[Floats]) -> Array:
    """Return values beside each other along a last axis."""
    return np.stack(np.broadcast_arrays(*values), axis=-1).astype(float)
