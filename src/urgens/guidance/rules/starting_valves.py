"""Valves as they are first put in, every figure assumed; and the two ways to describe one."""

import math
from typing import Any

from urgens.document import Build
from urgens.document.kinds.valves import VALVES, kind_of
from urgens.document.kinds.valves.adjustable import by_notches
from urgens.document.kinds.valves.kind import Loads
from urgens.document.kinds.valves.load_sensing import LOAD_SENSING, Lever, LoadSensing
from urgens.document.kinds.valves.metering import METERING
from urgens.document.kinds.valves.reducing import REDUCING
from urgens.document.numeric import NumericBuild
from urgens.physics.axle import Axle
from urgens.physics.valve_law import LoadSensingLaw
from urgens.quantity import FORCE, LENGTH, LOAD, PRESSURE, SPRING_RATE, QuantityKind, parse

COMBINATION = "combination"
NOTCHED = "notched"
NEW_NAMES = {record.kind: record.name for record in VALVES} | {
    NOTCHED: "Adjustable valve, by notches",
    COMBINATION: "Combination valve, in both circuits",
}
BODY = "combination valve"
# A lever as one may be: arms, piston and suspension are assumed, spring and preload follow.
ARM, PISTON_ARM, PISTON = (parse(text, LENGTH) for text in ("6 in", "1 in", "5/8 in"))
SUSPENSION = parse("300 lbf/in", SPRING_RATE)
LEAST_SPREAD = 0.2  # of the load, between the two points where all load cases are alike


def new_valve(build: Build, circuit: Axle, kind: str) -> dict[Axle, tuple[dict[str, Any], ...]]:
    """Return what a new valve puts at the end of each circuit's list.

    circuit: the axle it feeds [-]; kind: of NEW_NAMES [text].
    A combination valve goes into both circuits, whichever is asked.
    Source: common practice.
    """
    loads = _loads(build)
    if kind == COMBINATION:
        parts = {Axle.FRONT: METERING, Axle.REAR: REDUCING}
        return {place: ({**one.new(loads), "body": BODY},) for place, one in parts.items()}
    if kind == NOTCHED:
        return {circuit: (by_notches(loads),)}
    return {circuit: (kind_of(kind).new(loads),)}


def _loads(build: Build) -> Loads:
    """Return the lightest and the heaviest rear axle load, apart by something."""
    loads = [case.rear_axle for case in build.vehicle.load_cases]
    light, heavy = (end(loads, key=lambda q: q.value) for end in (min, max))
    if heavy.value > light.value:
        return Loads(light.text, heavy.text)
    return Loads(light.text, _typed(light.value * (1.0 + LEAST_SPREAD), LOAD))


def by_lever(valve: LoadSensing) -> dict[str, Any]:
    """Return a load-sensing valve with a lever that has the knees of its two points.

    valve: described by points. Arms, piston and suspension are assumed.
    """
    made = LOAD_SENSING.law(NumericBuild(valve))
    assert isinstance(made, LoadSensingLaw)
    area = math.pi / 4 * PISTON.value**2
    # N of the spring per Pa of knee
    push = area * (1.0 - valve.slope) * PISTON_ARM.value / ARM.value
    middle, half = (made.heavy + made.light) / 2, (made.heavy - made.light) / 2
    knee, steep = made.knee_at(middle), (made.heavy_knee - made.light_knee) / (2 * half)  # Pa, Pa/N
    stop = _typed(float(half / SUSPENSION.value), LENGTH)
    lever = {
        "arm": ARM.text,
        "piston_arm": PISTON_ARM.text,
        "piston_diameter": PISTON.text,
        "spring_rate": _typed(max(float(steep * push * SUSPENSION.value), 1.0), SPRING_RATE),
        "preload": _typed(float(knee * push), FORCE),
        "at_load": _typed(float(middle), LOAD),
        "suspension_rate": SUSPENSION.text,
        "bump": stop,
        "droop": stop,
    }
    return _described(valve, lever=lever)


def by_points(valve: LoadSensing, build: Build) -> dict[str, Any]:
    """Return a load-sensing valve by its knees at the lightest and the heaviest rear load.

    valve: described by a lever.
    """
    made = LOAD_SENSING.law(NumericBuild(valve))
    assert isinstance(made, LoadSensingLaw)
    points = []
    for text in _loads(build):
        knee = max(float(made.knee_at(parse(text, LOAD).value)), 1.0)
        points.append([text, _typed(knee, PRESSURE)])
    return _described(valve, points=points)


def _described(valve: LoadSensing, **way: object) -> dict[str, Any]:
    kept = valve.model_dump(mode="json", exclude_unset=True, exclude={"points", "lever"})
    return {**kept, **way}


def _typed(value: float, kind: QuantityKind) -> str:
    return f"{value:.4g} {kind.si}"


def is_by_lever(valve: object) -> bool:
    """Tell whether a valve is described by its lever; valve: of the document."""
    return isinstance(valve, LoadSensing) and isinstance(valve.lever, Lever)
