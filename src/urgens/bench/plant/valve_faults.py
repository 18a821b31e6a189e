"""What can be wrong with valves, laid over the numbers of a build."""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from urgens.document import BuildErrors
from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import Axle, Pair
from urgens.physics.valve_law import (
    Felt,
    LoadSensingLaw,
    MeteringLaw,
    ReducingLaw,
    ResidualLaw,
    ValveLaw,
)
from urgens.solve.system import System, WheelEnd

# Of a knee that is off
HIGH = 1.4
LOW = 0.65
SECOND = 1.15, 0.5  # valve that somebody left in the line: knee over the first one's, slope
# Of a brake that bites or that has faded
MORE = 1.35
LESS = 0.65
STUCK = 3e5  # Pa that are kept in behind a valve that is stuck
PASSES_NOTHING = ReducingLaw(0.0, 0.0)
PASSES_ALL = ResidualLaw(0.0)


@dataclass(frozen=True)
class InSeries:
    """Two valves that sit in one body, or that somebody took for one."""

    first: ValveLaw
    second: ValveLaw

    @property
    def feels_load(self) -> bool:
        """Whether either moves with the rear axle's load."""
        return self.first.feels_load or self.second.feels_load

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: of the vehicle.

        Source: the outlet of one is the inlet of the next.
        """
        return self.second.outlet(self.first.outlet(inlet, felt), felt)

    def release(self, inlet: Floats, peak: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: falling [Pa]; peak: [Pa]."""
        return self.second.release(inlet, peak)

    def inlet(self, outlet: Floats, felt: Felt) -> Array:
        """Return inlet pressure [Pa]; outlet: [Pa]; felt: of the vehicle."""
        return self.first.inlet(self.second.inlet(outlet, felt), felt)

    def bends(self, felt: Felt) -> tuple[Floats, ...]:
        """Return where either bends [Pa]; felt: of the vehicle."""
        behind = (self.first.inlet(at, felt) for at in self.second.bends(felt))
        return (*self.first.bends(felt), *behind)

    def knee(self, felt: Felt) -> Array | None:
        """Return the first one's knee [Pa]; felt: of the vehicle."""
        return self.first.knee(felt)

    def tolerance(self, felt: Felt) -> None:
        """Return nothing: nobody made the two as one; felt: of the vehicle."""


@dataclass(frozen=True)
class InjectedFault:
    """One thing that is wrong: its name, what it is in words, what it does to the numbers.

    `fits` tells whether a build has what it needs.
    """

    name: str
    words: str
    laid: Callable[[System], System]
    fits: Callable[[System], bool]


def _knee(law: ValveLaw) -> bool:
    return isinstance(law, ReducingLaw | LoadSensingLaw)


def _meters(law: ValveLaw) -> bool:
    return isinstance(law, MeteringLaw)


def _valves(change: Callable[[ValveLaw], ValveLaw]) -> Callable[[System], System]:
    def laid(system: System) -> System:
        return replace(system, valves=Pair(*(tuple(map(change, each)) for each in system.valves)))

    return laid


def _open(law: ValveLaw) -> ValveLaw:
    return PASSES_ALL if _knee(law) else law


def _blocked(law: ValveLaw) -> ValveLaw:
    return PASSES_NOTHING if _knee(law) else law


def _stuck(law: ValveLaw) -> ValveLaw:
    return ReducingLaw(STUCK, 0.0) if _knee(law) else law


def _limiting(law: ValveLaw) -> ValveLaw:
    return replace(law, slope=0.0) if isinstance(law, ReducingLaw | LoadSensingLaw) else law


def _twice(law: ValveLaw) -> ValveLaw:
    if isinstance(law, ReducingLaw):
        return InSeries(law, ReducingLaw(np.multiply(law.at, SECOND[0]), SECOND[1]))
    if isinstance(law, LoadSensingLaw):
        return InSeries(law, ReducingLaw(np.multiply(law.light_knee, SECOND[0]), SECOND[1]))
    return law


def _moved(share: float) -> Callable[[ValveLaw], ValveLaw]:
    def moved(law: ValveLaw) -> ValveLaw:
        if isinstance(law, ReducingLaw):
            return replace(law, at=np.multiply(law.at, share))
        if isinstance(law, LoadSensingLaw):
            knees = np.multiply(law.light_knee, share), np.multiply(law.heavy_knee, share)
            return replace(law, light_knee=knees[0], heavy_knee=knees[1])
        return law

    return moved


def _held_shut(law: ValveLaw) -> ValveLaw:
    return ReducingLaw(law.closing, 0.0) if isinstance(law, MeteringLaw) else law


def _held_open(law: ValveLaw) -> ValveLaw:
    return PASSES_ALL if _meters(law) else law


def _bites(axle: Axle, share: float) -> Callable[[System], System]:
    def laid(system: System) -> System:
        ends = [
            _scaled(end, share) if at == axle else end
            for at, end in zip(Axle, system.ends, strict=True)
        ]
        return replace(system, ends=Pair(*ends))

    return laid


def _scaled(end: WheelEnd, share: float) -> WheelEnd:
    return replace(end, torque_per_pressure=np.multiply(end.torque_per_pressure, share))


def _has(kind: Callable[[ValveLaw], bool]) -> Callable[[System], bool]:
    return lambda made: any(kind(law) for law in made.all_valves)


def _always(system: System) -> bool:
    return True


CAUSES = (
    InjectedFault("valve-stuck-open", "the valve passes all", _valves(_open), _has(_knee)),
    InjectedFault(
        "valve-blocked", "nothing comes through the valve", _valves(_blocked), _has(_knee)
    ),
    InjectedFault("valve-stuck", "its outlet stays at a few bar", _valves(_stuck), _has(_knee)),
    InjectedFault(
        "valve-limits", "nothing more passes above its knee", _valves(_limiting), _has(_knee)
    ),
    InjectedFault("second-valve", "another valve sits behind it", _valves(_twice), _has(_knee)),
    InjectedFault("knee-high", "its knee is too high", _valves(_moved(HIGH)), _has(_knee)),
    InjectedFault("knee-low", "its knee is too low", _valves(_moved(LOW)), _has(_knee)),
    InjectedFault(
        "metering-shut", "the metering valve stays shut", _valves(_held_shut), _has(_meters)
    ),
    InjectedFault(
        "metering-open", "the metering valve never shuts", _valves(_held_open), _has(_meters)
    ),
    InjectedFault("rear-bites", "the rear brakes bite", _bites(Axle.REAR, MORE), _always),
    InjectedFault("rear-faded", "the rear brakes have faded", _bites(Axle.REAR, LESS), _always),
    InjectedFault("front-faded", "the front brakes have faded", _bites(Axle.FRONT, LESS), _always),
)


def fitting(system: System) -> tuple[InjectedFault, ...]:
    """Return what can be wrong on a vehicle; system: of its build. Source: what is fitted."""
    return tuple(one for one in CAUSES if one.fits(system))


def cause(name: str) -> InjectedFault:
    """Return the cause of a name; name: of it [text].

    Raises BuildErrors with those there are.
    """
    for one in CAUSES:
        if one.name == name:
            return one
    known = ", ".join(one.name for one in CAUSES)
    raise BuildErrors.one("--fault", f'there is no "{name}"', f"choose one of {known}")
