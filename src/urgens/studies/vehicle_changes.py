"""What a change to the vehicle does to the balance, and what it does not."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from urgens.document import Build, with_changes
from urgens.document.catalogue import figure
from urgens.document.kinds.brakes import brake_kind
from urgens.document.kinds.valves.load_sensing import Lever, LoadSensing
from urgens.physics.axle import Axle
from urgens.quantity import LENGTH, LOAD, QuantityKind
from urgens.solve.first_rise import AxleName
from urgens.solve.lock import first_lock
from urgens.solve.rear_first import judged_roads
from urgens.solve.system import system


@dataclass(frozen=True)
class VehicleChange:
    """One change: its key, its usual amount, and how it is laid over a build.

    `kind` None is a share in percent; `lay` None changes nothing that a steady stop feels, as does
    one that lays nothing over the build it is given.
    """

    key: str
    amount: float  # SI, or percent
    kind: QuantityKind | None
    lay: Callable[[Build, float], dict[str, object]] | None


@dataclass(frozen=True)
class ChangeOutcome:
    """The worst load case and road: how often the rear is first, margin [-], effort [N], road [-].

    The margin is what the front uses above the rear at first lock, of the road's coefficient; NaN
    where nothing locks.
    """

    rear_first: int
    margin: float
    effort: float
    road: float


def outcome(build: Build) -> ChangeOutcome:
    """Return how a build's balance stands on every judged road.

    Source: first lock in every load case.
    """
    made = system(build)
    roads = np.array(judged_roads(build, made))
    lock = first_lock(made, made.cases, roads)
    apart = (lock.front_used - lock.rear_used) / roads
    known = np.isfinite(apart)
    if not known.any():
        return ChangeOutcome(0, float("nan"), float("nan"), float("nan"))
    worst = np.unravel_index(int(np.argmin(np.where(known, apart, np.inf))), apart.shape)
    rear = int((lock.axle == AxleName.REAR).sum())
    return ChangeOutcome(
        rear, float(apart[worst]), float(lock.effort[worst]), float(roads[worst[1]])
    )


def changed(build: Build, change: VehicleChange, amount: float) -> ChangeOutcome:
    """Return how the balance stands after a change.

    change: which; amount: of it [SI, or percent].
    Raises BuildErrors where no such build can be.
    """
    if change.lay is None:
        return outcome(build)
    return outcome(with_changes(build, change.lay(build, amount)))


def _tyre(axle: Axle) -> Callable[[Build, float], dict[str, object]]:
    def lay(build: Build, percent: float) -> dict[str, object]:
        radius = build.axle(axle).tyre.radius * (1.0 + percent / 100.0)
        return {f"{axle}.tyre.rolling_radius": f"{radius:.9g} m"}

    return lay


def _grip(axle: Axle) -> Callable[[Build, float], dict[str, object]]:
    def lay(build: Build, percent: float) -> dict[str, object]:
        return {f"{axle}.tyre.grip": build.axle(axle).tyre.grip * (1.0 + percent / 100.0)}

    return lay


def _friction(axle: Axle) -> Callable[[Build, float], dict[str, object]]:
    def lay(build: Build, percent: float) -> dict[str, object]:
        brake = build.axle(axle).brake
        path = f"{axle}.brake.{brake_kind(brake).friction(brake)}"
        return {path: figure(build, path).number * (1.0 + percent / 100.0)}

    return lay


def _height(build: Build, metres: float) -> dict[str, object]:
    """Lay another height over the body, which also moves what a lever's spring is set to."""
    lower: dict[str, object] = {
        f"vehicle.load_cases[{i}].cg_height": f"{case.cg_height.value + metres:.9g} m"
        for i, case in enumerate(build.vehicle.load_cases)
    }
    for place, lever in _levers(build):
        force = max(lever.preload.value - lever.spring_rate.value * metres, 1.0)
        lower[f"{place}.preload"] = f"{force:.9g} N"
    return lower


def _springs(build: Build, percent: float) -> dict[str, object]:
    """Lay a stiffer suspension over the levers that feel it; nothing else knows of it."""
    return {
        f"{place}.suspension_rate": f"{lever.suspension_rate.value * (1 + percent / 100):.9g} N/m"
        for place, lever in _levers(build)
    }


def _levers(build: Build) -> Iterator[tuple[str, Lever]]:
    for circuit, index, valve in build.valves.placed():
        if isinstance(valve, LoadSensing) and valve.lever is not None:
            yield f"valves.{circuit}[{index}].lever", valve.lever


def lays(build: Build, change: VehicleChange) -> bool:
    """Tell whether a change is felt by a build in a steady stop at all.

    change: which.
    """
    return change.lay is not None and bool(change.lay(build, change.amount))


def _ballast(axle: Axle) -> Callable[[Build, float], dict[str, object]]:
    def lay(build: Build, newtons: float) -> dict[str, object]:
        return {
            f"vehicle.load_cases[{i}].{axle}_axle": (f"{case.load(axle).value + newtons:.9g} N")
            for i, case in enumerate(build.vehicle.load_cases)
        }

    return lay


HUNDREDWEIGHT = 50.0 * 9.80665  # N
CHANGES = (
    VehicleChange("front-tyres", 5.0, None, _tyre(Axle.FRONT)),
    VehicleChange("rear-tyres", 5.0, None, _tyre(Axle.REAR)),
    VehicleChange("front-grip", 10.0, None, _grip(Axle.FRONT)),
    VehicleChange("rear-grip", 10.0, None, _grip(Axle.REAR)),
    VehicleChange("height", -0.0254, LENGTH, _height),
    VehicleChange("front-pads", 10.0, None, _friction(Axle.FRONT)),
    VehicleChange("rear-pads", 10.0, None, _friction(Axle.REAR)),
    VehicleChange("front-ballast", HUNDREDWEIGHT, LOAD, _ballast(Axle.FRONT)),
    VehicleChange("rear-ballast", HUNDREDWEIGHT, LOAD, _ballast(Axle.REAR)),
    VehicleChange("springs", 30.0, None, _springs),
    VehicleChange("wheels", 20.0, None, None),
)
