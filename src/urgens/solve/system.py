"""A frozen, numeric picture of a build, which is all that solving sees."""

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from urgens.document import Build
from urgens.document.booster import HydraulicBooster, VacuumBooster
from urgens.document.master import SingleMaster, TandemMaster, TwinMaster
from urgens.document.wheel import Axle, Disc, Drum, Tyre
from urgens.physics import booster, cylinder, disc, drum, pedal, tyre, vehicle
from urgens.physics.arrays import Array, Floats, figure
from urgens.physics.vehicle import Standing
from urgens.physics.volume import CLEARANCE_PRESSURE
from urgens.quantity import Quantity
from urgens.solve.valve_law import InertiaSensingLaw, LoadSensingLaw, ValveLaw, law


@dataclass(frozen=True)
class Booster:
    """Crack force [N], jump-in [N], gain [-] and assist limit [N]; the defaults pass force on."""

    crack_force: Floats = 0.0
    jump_in: Floats = 0.0
    gain: Floats = 1.0
    assist_limit: Floats = 0.0


@dataclass(frozen=True)
class Cylinder:
    """What makes one circuit's pressure: share of the force [-], bore [m²], preload [N]."""

    share: Floats
    area: Floats
    spring_preload: Floats
    efficiency: Floats


@dataclass(frozen=True)
class WheelEnd:
    """One axle's brakes: torque per pressure [m³], threshold [Pa], rolling radius [m]."""

    torque_per_pressure: Floats
    threshold: Floats
    rolling_radius: Floats


@dataclass(frozen=True)
class AxleFluid:
    """What takes fluid on one axle, both wheels: [m³], [m³/Pa], [Pa], [m], [m³]."""

    clearance_volume: Floats
    compliance: Floats
    take_up: Floats
    hose_length: Floats
    trapped_air: Floats


@dataclass(frozen=True)
class Chamber:
    """One chamber of the cylinder: share of each axle it feeds [-], bore [m²], stroke [m].

    `lever` is how much of its stroke the pushrod moves [-].
    """

    front_part: float
    rear_part: float
    area: Floats
    stroke: Floats
    lever: Floats


@dataclass(frozen=True)
class Volumes:
    """What decides pedal travel."""

    front: AxleFluid
    rear: AxleFluid
    chambers: tuple[Chamber, ...]
    hose_expansion: Floats  # m³/(m·Pa)
    fluid_volume: Floats  # m³ an axle
    bulk_modulus: Floats  # Pa
    port_travel: Floats  # m
    pushrod_clearance: Floats  # m
    floor: Floats  # m of pad travel
    shuttle: Floats | None = None  # m³ that shut a dead line, where a switch block does


@dataclass(frozen=True)
class System:
    """The numbers of one build; `standing` holds all load cases along its one axis."""

    pedal_ratio: float
    pedal_efficiency: Floats
    booster: Booster
    front_cylinder: Cylinder
    rear_cylinder: Cylinder
    front_valves: tuple[ValveLaw, ...]
    rear_valves: tuple[ValveLaw, ...]
    front: WheelEnd
    rear: WheelEnd
    volumes: Volumes
    bar_length: float | None  # m, of twin cylinders
    bar_max_angle: float | None  # rad, where given
    split: str  # front-rear, diagonal or single
    front_drag: Floats  # N at the road, of the engine through the front axle
    rear_drag: Floats
    standing: Standing
    case_names: tuple[str, ...]
    max_effort: float  # N
    closing: Floats | None = None  # Pa in front of a ball valve, once it is known: solve.ball

    @property
    def feels_load(self) -> bool:
        """Whether a valve moves with the rear axle's load at the same press."""
        valves = (*self.front_valves, *self.rear_valves)
        return any(isinstance(v, LoadSensingLaw) and v.dynamic for v in valves)

    @property
    def ball(self) -> InertiaSensingLaw | None:
        """The valve whose ball feels the deceleration, None where there is none."""
        valves = (*self.front_valves, *self.rear_valves)
        return next((v for v in valves if isinstance(v, InertiaSensingLaw)), None)

    def with_shares(self, front: Floats, rear: Floats) -> "System":
        """Return the system with other shares of the bar.

        front: share of the force on the front cylinder [-]; rear: on the rear one [-].
        Source: a bar against its stop passes everything to one rod.
        """
        return replace(
            self,
            front_cylinder=replace(self.front_cylinder, share=front),
            rear_cylinder=replace(self.rear_cylinder, share=rear),
        )

    def case(self, index: int) -> Standing:
        """Return one load case's loads; index: of the case [-]. Source: the document."""
        return Standing(*(np.asarray(value)[..., index] for value in self.standing))


def system(build: Build, speed: float = 0.0) -> System:
    """Return the numbers of `build`.

    build: the document [object]; speed: for downforce [m/s].
    Where the build holds arrays for figures (`variants.varied`), so does the system, load cases
    along the last axis of `standing`.
    Source: physics, one function per part.
    """
    made = build.pedal
    ratio = figure(pedal.ratio(made.pivot_to_pad.value, made.pivot_to_pushrod.value))
    front_cylinder, rear_cylinder = _cylinders(build)
    front_drag, rear_drag = _drag(build)
    twin = build.master if isinstance(build.master, TwinMaster) else None
    angle = twin.bar_max_angle if twin is not None else None
    return System(
        pedal_ratio=ratio,
        pedal_efficiency=made.efficiency,
        booster=_booster(build),
        front_cylinder=front_cylinder,
        rear_cylinder=rear_cylinder,
        front_valves=tuple(law(valve) for valve in build.valves.front),
        rear_valves=tuple(law(valve) for valve in build.valves.rear),
        front=_wheel_end(build.front),
        rear=_wheel_end(build.rear),
        volumes=_volumes(build),
        bar_length=twin.bar_length.value if twin is not None else None,
        bar_max_angle=None if angle is None else angle.value,
        split=build.split,
        front_drag=front_drag,
        rear_drag=rear_drag,
        standing=_standing(build, speed),
        case_names=tuple(case.name for case in build.vehicle.load_cases),
        max_effort=build.targets.max_effort.value,
    )


def _drag(build: Build) -> tuple[float, float]:
    """Return the engine's drag at the road of the front and the rear axle [N].

    Which axle is driven is known from the launch figures; without them it is taken as the rear.
    """
    torque = build.vehicle.engine_drag.value
    launch = build.vehicle.launch
    if launch is not None and launch.driven == "front":
        return torque / rolling_radius(build.front.tyre), 0.0
    return 0.0, torque / rolling_radius(build.rear.tyre)


def _booster(build: Build) -> Booster:
    fitted = build.booster
    if isinstance(fitted, VacuumBooster):
        diameters = _last([d.value for d in fitted.diaphragm_diameters])
        limit = figure(booster.vacuum_assist_limit(diameters, fitted.depression))
    elif isinstance(fitted, HydraulicBooster):
        limit = fitted.max_assist.value
    else:
        return Booster()
    return Booster(
        fitted.crack_force.value,
        fitted.jump_in.value,
        fitted.gain,
        limit if fitted.working else 0.0,
    )


def _cylinders(build: Build) -> tuple[Cylinder, Cylinder]:
    master = build.master
    preload, efficiency = master.spring_preload.value, master.efficiency
    if isinstance(master, TwinMaster):
        shares = cylinder.bar_shares(master.bar_length.value, master.bar_offset.value)
        areas = (_area(master.front_bore.value), _area(master.rear_bore.value))
        front, rear = (
            Cylinder(figure(share), area, preload, efficiency)
            for share, area in zip(shares, areas, strict=True)
        )
        return front, rear
    both = Cylinder(1.0, _area(master.bore.value), preload, efficiency)
    return both, both


def _last(values: list[Any]) -> Array:
    """Return values beside each other along a last axis."""
    return np.stack(np.broadcast_arrays(*values), axis=-1).astype(float)


def _area(diameter: float) -> float:
    return figure(cylinder.bore_area(diameter))


def rolling_radius(fitted: Tyre) -> float:
    """Return the rolling radius [m]; fitted: tyre of the document [object]. Source: physics.tyre.

    A measured radius counts before the size code.
    """
    if fitted.rolling_radius is not None:
        return fitted.rolling_radius.value
    return figure(tyre.rolling_radius(*tyre.size_code(fitted.size or "")))


def disc_radius(fitted: Disc) -> float:
    """Return the effective radius [m]; fitted: disc of the document [object].

    A given radius counts before the pad's own two, and those before rotor and pad.
    Source: physics.disc.
    """
    if fitted.effective_radius is not None:
        return fitted.effective_radius.value
    if fitted.pad_inner_radius is not None and fitted.pad_outer_radius is not None:
        pad = fitted.pad_inner_radius.value, fitted.pad_outer_radius.value
        worn = fitted.pad_pressure == "uniform-wear"
        return figure(disc.effective_radius(*pad) if worn else disc.even_pressure_radius(*pad))
    assert fitted.rotor_outer_diameter is not None
    assert fitted.pad_height is not None
    outer = fitted.rotor_outer_diameter.value / 2
    return figure(disc.effective_radius(outer - fitted.pad_height.value, outer))


def shoe_factor(fitted: Drum) -> float:
    """Return the shoe factor C* [-]; fitted: drum of the document [object].

    A given factor counts before the shoes' geometry.
    Source: physics.drum.
    """
    if fitted.shoe_factor is not None:
        return fitted.shoe_factor
    shoe = fitted.shoe
    assert shoe is not None
    return figure(
        drum.pinned_shoe_factor(
            shoe.lining_friction,
            fitted.drum_diameter.value / 2,
            shoe.hinge_distance.value,
            shoe.arm.value,
            shoe.heel_angle.value,
            shoe.toe_angle.value,
            two_leading=fitted.layout == "two-leading",
        )
    )


def self_locking_friction(fitted: Drum) -> float | None:
    """Return the lining friction [-] from which the leading shoe grabs by itself.

    fitted: drum of the document [object]; None where its shoes are not described, or never grab.
    Source: physics.drum; the friction moment is proportional to the friction.
    """
    shoe = fitted.shoe
    if shoe is None:
        return None
    friction_moment, normal_moment = drum.shoe_moments(
        1.0,
        fitted.drum_diameter.value / 2,
        shoe.hinge_distance.value,
        shoe.heel_angle.value,
        shoe.toe_angle.value,
    )
    return float(normal_moment / friction_moment) if friction_moment > 0 else None


def piston_area(fitted: Disc | Drum) -> float:
    """Return the piston area [m²] that presses at one wheel; fitted: brake [object].

    All pistons of one side of a disc, or one piston of a wheel cylinder.
    Source: geometry.
    """
    if isinstance(fitted, Drum):
        return _area(fitted.cylinder_diameter.value)
    return sum(_area(diameter.value) for diameter in fitted.piston_diameters)


def _wheel_end(axle: Axle) -> WheelEnd:
    brake, area = axle.brake, piston_area(axle.brake)
    if isinstance(brake, Disc):
        gain = disc.torque_per_pressure(
            area, brake.pad_friction, disc_radius(brake), brake.efficiency
        )
    else:
        gain = drum.torque_per_pressure(
            area, shoe_factor(brake), brake.drum_diameter.value / 2, brake.efficiency
        )
    return WheelEnd(figure(gain), brake.threshold.value, rolling_radius(axle.tyre))


def _volumes(build: Build) -> Volumes:
    lines = build.lines
    return Volumes(
        front=_axle_fluid(build.front, lines.front_hose_length, lines.trapped_air_front),
        rear=_axle_fluid(build.rear, lines.rear_hose_length, lines.trapped_air_rear),
        chambers=_chambers(build),
        hose_expansion=lines.hose_expansion.value,
        fluid_volume=lines.fluid_volume.value,
        bulk_modulus=lines.fluid_bulk_modulus.value,
        port_travel=build.master.port_travel.value,
        pushrod_clearance=build.pedal.pushrod_clearance.value,
        floor=build.pedal.travel_available.value,
        shuttle=_shuttle(build),
    )


def _shuttle(build: Build) -> float | None:
    if build.warning_switch != "shuts" or build.shuttle_volume is None:
        return None
    return build.shuttle_volume.value


def _axle_fluid(axle: Axle, hose_length: Quantity, trapped_air: Quantity) -> AxleFluid:
    brake = axle.brake
    take_up = CLEARANCE_PRESSURE
    if isinstance(brake, Drum):
        take_up = figure(np.maximum(take_up, brake.threshold.value))
    return AxleFluid(
        clearance_volume=2 * 2.0 * piston_area(brake) * brake.clearance.value,
        compliance=2 * brake.compliance.value,
        take_up=take_up,
        hose_length=hose_length.value,
        trapped_air=trapped_air.value,
    )


def _chambers(build: Build) -> tuple[Chamber, ...]:
    master = build.master
    front, rear = _cylinders(build)
    match master:
        case SingleMaster():
            return (Chamber(1.0, 1.0, front.area, master.stroke.value, 1.0),)
        case TandemMaster():
            primary, secondary = master.chamber_strokes
            if build.split == "diagonal":  # each chamber feeds half of each axle
                return tuple(Chamber(0.5, 0.5, front.area, s, 1.0) for s in (primary, secondary))
            front_stroke, rear_stroke = (
                (primary, secondary) if master.primary_feeds == "front" else (secondary, primary)
            )
            return (
                Chamber(1.0, 0.0, front.area, front_stroke, 1.0),
                Chamber(0.0, 1.0, rear.area, rear_stroke, 1.0),
            )
        case TwinMaster():
            stroke = master.stroke.value
            return (
                Chamber(1.0, 0.0, front.area, stroke, front.share),
                Chamber(0.0, 1.0, rear.area, stroke, rear.share),
            )


def _standing(build: Build, speed: float) -> Standing:
    cases = build.vehicle.load_cases
    wheelbase = build.vehicle.wheelbase.value
    press: list[Any] = [0.0, 0.0]
    if build.vehicle.downforce is not None:
        areas = build.vehicle.downforce
        press = [
            vehicle.downforce(speed, area.value)
            for area in (areas.front_cl_area, areas.rear_cl_area)
        ]
    return Standing(
        front_weight=_last([case.front_axle.value for case in cases]),
        rear_weight=_last([case.rear_axle.value for case in cases]),
        transfer=_last([np.divide(case.cg_height.value, wheelbase) for case in cases]),
        front_press=_last([press[0] for _ in cases]),
        rear_press=_last([press[1] for _ in cases]),
    )
