"""Residual valves: those behind a cylinder's own seats, and those in a circuit."""

from collections.abc import Iterator

from urgens.document.build import Build
from urgens.document.kinds.cylinders.tandem import TwoChambers
from urgens.document.kinds.valves.residual import Residual
from urgens.physics.axle import Axle
from urgens.quantity import Quantity


def behind_outlets(build: Build, axle: Axle) -> Iterator[tuple[str, Quantity]]:
    """Yield the residual valves behind the cylinder's seats that an axle's fluid passes.

    Each by the path of what it keeps. An outlet of a diagonal split passes half of both axles.
    """
    for index, outlet in enumerate(build.master.outlets):
        kept = outlet.residual
        if kept is not None and kept.value > 0 and axle in _fed(build, outlet.circuit):
            yield f"master.outlets[{index}].residual", kept


def _fed(build: Build, circuit: str) -> tuple[Axle, ...]:
    """Return the axles that an outlet feeds."""
    if circuit in ("front", "rear"):
        return (Axle(circuit),)
    master = build.master
    if build.split == "diagonal" or not isinstance(master, TwoChambers):
        return tuple(Axle)
    primary = Axle(master.primary_feeds)
    other = Axle.REAR if primary == Axle.FRONT else Axle.FRONT
    return (primary if circuit == "primary" else other,)


def residual_valves(build: Build, axle: Axle) -> Iterator[tuple[str, Quantity]]:
    """Yield all residual valves of an axle's circuit, those at the cylinder first.

    Each by the path of its outlet's figure or of the valve, with what it keeps.
    """
    yield from behind_outlets(build, axle)
    for index, valve in enumerate(build.valves.of(axle)):
        if isinstance(valve, Residual):
            yield f"valves.{axle}[{index}]", valve.pressure
