"""What stops found of the brakes, taken into the build: friction of both axles, as measured."""

from typing import Any

import numpy as np

from urgens.bench.stops.posterior import Posterior
from urgens.document import Build, BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.kinds.brakes import brake_kind
from urgens.document.numeric import NumericBuild
from urgens.document.paths import value_at
from urgens.physics.axle import AXLES, Axle

LEAST_STOPS = 3  # that have to count
STEPS = 60  # of bisection
REACH = 2.5  # times a friction that is looked for


def brakes_as_measured(build: Build, posterior: Posterior) -> BuildChange | None:
    """Return the edit that takes what stops said into the build, None where too few of them count.

    posterior: what the stops say.
    Source: the friction that makes each axle's torque by its factor more or less, with the limits
    of 95 % as spread; the stops are marked as taken, so that they do not count twice.
    """
    if posterior.counted < LEAST_STOPS:
        return None
    values: dict[str, object] = {}
    evidence: dict[str, object] = {}
    for axle, (mean, (low, high)) in zip(
        AXLES, (posterior.of_front, posterior.of_rear), strict=True
    ):
        path = friction_path(build, axle)
        found = _friction(build, axle, mean)
        if found is None:
            continue
        ends = [_friction(build, axle, end) or found for end in (low, high)]
        off = max(abs(end - found) for end in ends)
        values[path] = round(found, 4)
        evidence[path] = {
            "state": "measured",
            "spread": f"{max(off, 1e-4):.4f}",
            "note": f"{posterior.counted} stops on the road",
        }
    proof: dict[str, Any] = dumped(build)["proof"]
    for stop in proof["stops"]:
        stop["taken"] = True
    return BuildChange("Brakes as measured", {**values, "proof": proof}, evidence)


def friction_path(build: Build, axle: Axle) -> str:
    """Return the path of the figure that grips at an axle; axle: which [-]."""
    brake = build.axle(axle).brake
    return f"{axle}.brake.{brake_kind(brake).friction(brake)}"


def _friction(build: Build, axle: Axle, factor: float) -> float | None:
    """Return the friction that makes the torque so many times what it is, None where none does."""
    brake, path = build.axle(axle).brake, friction_path(build, axle)
    kind, now = brake_kind(brake), float(value_at(build, path))
    name = path.removeprefix(f"{axle}.brake.")

    def torque(friction: float) -> float:
        return float(kind.torque_per_pressure(NumericBuild(brake, {name: friction})))

    wanted, low, high = factor * torque(now), now / REACH, now * REACH
    if not torque(low) <= wanted:
        return None
    for _ in range(STEPS):
        middle = 0.5 * (low + high)
        reached = torque(middle)
        if np.isfinite(reached) and 0.0 < reached <= wanted:
            low = middle
        else:
            high = middle
    return 0.5 * (low + high)
