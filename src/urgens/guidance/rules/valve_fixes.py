"""Fixes that put valves into a circuit, or take them out of it."""

from typing import Any

from urgens.document import Build
from urgens.guidance.rules.finding import Fix
from urgens.physics.axle import Axle


def refitted(build: Build, axle: Axle, order: list[int | dict[str, Any]], label: str) -> Fix:
    """Return the fix that leaves a circuit with valves it has, by place, and new ones."""
    now = [valve.model_dump(mode="json", exclude_unset=True) for valve in build.valves.of(axle)]
    value = [now[one] if isinstance(one, int) else one for one in order]
    return Fix(label, f"valves.{axle}", value, tuple(order))


def taken_out(build: Build, axle: Axle, index: int, label: str) -> Fix:
    """Return the fix that takes one valve out of a circuit."""
    kept: list[int | dict[str, Any]] = [
        place for place in range(len(build.valves.of(axle))) if place != index
    ]
    return refitted(build, axle, kept, label)


def put_in(build: Build, axle: Axle, part: dict[str, Any], label: str, *, first: bool) -> Fix:
    """Return the fix that puts a valve into a circuit, at the cylinder or at the brakes."""
    now: list[int | dict[str, Any]] = list(range(len(build.valves.of(axle))))
    return refitted(build, axle, [part, *now] if first else [*now, part], label)
