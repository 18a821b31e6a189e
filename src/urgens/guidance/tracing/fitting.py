"""What of the tables a build's layout can have: no booster, no booster's faults."""

from collections.abc import Callable, Iterable

from urgens.document import Build
from urgens.document.circuits import warned
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.brakes.drum import Drum
from urgens.document.kinds.valves import Valve
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.document.kinds.valves.metering import Metering
from urgens.document.kinds.valves.residual import Residual
from urgens.document.residual_valves import residual_valves
from urgens.guidance.faults.tables import Need
from urgens.physics.axle import AXLES, Axle


def valve_fits(valve: Valve, need: Need) -> bool:
    """Return whether a need is about this valve; valve: of a build; need: of a cause [text]."""
    asks = _VALVES.get(need)
    return asks is not None and asks(valve)


_VALVES: dict[Need, Callable[[Valve], bool]] = {
    "reducing": lambda valve: valve.reduces,
    "adjustable": lambda valve: isinstance(valve, Adjustable),
    "load-sensing": lambda valve: isinstance(valve, LoadSensing),
    "metering": lambda valve: isinstance(valve, Metering),
    "residual": lambda valve: isinstance(valve, Residual),
    "front-residual": lambda valve: isinstance(valve, Residual),
    "rear-residual": lambda valve: isinstance(valve, Residual),
}


def _reduces(build: Build) -> bool:
    return any(valve.reduces for valve in build.valves.rear)


def _has(build: Build, need: Need) -> bool:
    return any(valve_fits(valve, need) for valve in (*build.valves.front, *build.valves.rear))


def _residual(build: Build, axles: Iterable[Axle]) -> bool:
    return any(True for axle in axles for _ in residual_valves(build, axle))


def _brake(build: Build, kind: type, axles: Iterable[Axle]) -> bool:
    return any(isinstance(build.axle(axle).brake, kind) for axle in axles)


_NEEDS: dict[Need, Callable[[Build], bool]] = {
    "two-circuits": lambda b: b.split != "single",
    "axle-circuits": lambda b: b.split == "front-rear",
    "diagonal-circuits": lambda b: b.split == "diagonal",
    "booster": lambda b: b.booster.fitted,
    "vacuum-booster": lambda b: b.booster.by_vacuum,
    "no-booster": lambda b: not b.booster.fitted,
    "front-disc": lambda b: _brake(b, Disc, (Axle.FRONT,)),
    "rear-disc": lambda b: _brake(b, Disc, (Axle.REAR,)),
    "front-drum": lambda b: _brake(b, Drum, (Axle.FRONT,)),
    "rear-drum": lambda b: _brake(b, Drum, (Axle.REAR,)),
    "discs": lambda b: _brake(b, Disc, AXLES),
    "drums": lambda b: _brake(b, Drum, AXLES),
    "reducing": _reduces,
    "no-reducing": lambda b: not _reduces(b),
    "adjustable": lambda b: _has(b, "adjustable"),
    "load-sensing": lambda b: _has(b, "load-sensing"),
    "metering": lambda b: _has(b, "metering"),
    "no-metering": lambda b: not _has(b, "metering"),
    "residual": lambda b: _residual(b, AXLES),
    "no-residual": lambda b: not _residual(b, (Axle.REAR,)),
    "front-residual": lambda b: _residual(b, (Axle.FRONT,)),
    "rear-residual": lambda b: _residual(b, (Axle.REAR,)),
    "switch": warned,
    "light-switch": lambda b: b.brake_light_switch != "none",
    "parking-brake": lambda b: b.parking_brake != "none",
}


def fits(build: Build, needs: Iterable[Need]) -> bool:
    """Return whether a build has all of this.

    needs: of a cause, a test or an outcome [text].

    The layout; what nobody has said of a switch or a parking brake may be there.
    """
    return all(_NEEDS[need](build) for need in needs)
