"""Valves as they are first put in, every figure assumed; and the two ways to describe one."""

import math
from typing import Any

from urgens.document import Build
from urgens.document.valves import Lever, LoadSensing
from urgens.guidance.valve_words import NAMES
from urgens.quantity import FORCE, LENGTH, LOAD, PRESSURE, SPRING_RATE, Kind, parse
from urgens.solve.valve_law import LoadSensingLaw, law

COMBINATION, NOTCHED = "combination", "notched"
NEW_NAMES = {  # in the order of the menu
    **{kind: NAMES[kind] for kind in ("reducing", "limiting", "adjustable")},
    NOTCHED: "Adjustable valve, by notches",
    **{kind: NAMES[kind] for kind in ("load-sensing", "inertia-sensing", "metering", "residual")},
    COMBINATION: "Combination valve, in both circuits",
}
BODY = "combination valve"
REDUCING: dict[str, Any] = {"kind": "reducing", "knee": "300 psi", "slope": 0.5}
_NEW: dict[str, dict[str, Any]] = {
    "reducing": REDUCING,
    "limiting": {"kind": "limiting", "knee": "450 psi"},
    "adjustable": {
        "kind": "adjustable",
        "table": [[0, "150 psi"], [2, "250 psi"], [4, "350 psi"], [6, "450 psi"]],
        "slope": 0.4,
        "turns": 3,
    },
    NOTCHED: {
        "kind": "adjustable",
        "table": [[notch, f"{100 + 75 * notch} psi"] for notch in range(1, 8)],
        "slope": 0.4,
        "turns": 4,
        "counted": "notches",
    },
    "inertia-sensing": {"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.4},
    "metering": {"kind": "metering"},
    "residual": {"kind": "residual", "pressure": "15 psi"},
}
LIGHT_KNEE, HEAVY_KNEE = "200 psi", "500 psi"
# A lever as one may be: arms, piston and suspension are assumed, spring and preload follow.
ARM, PISTON_ARM, PISTON = (parse(text, LENGTH) for text in ("6 in", "1 in", "5/8 in"))
SUSPENSION = parse("300 lbf/in", SPRING_RATE)
LEAST_SPREAD = 0.2  # of the load, between the two points where all load cases are alike


def new_valve(build: Build, circuit: str, kind: str) -> dict[str, tuple[dict[str, Any], ...]]:
    """Return what a new valve puts at the end of each circuit's list.

    build: the document [object]; circuit: "front" or "rear" [text]; kind: of NEW_NAMES [text].
    A combination valve goes into both circuits, whichever is asked.
    Source: common practice.
    """
    if kind == COMBINATION:
        parts = {"front": {"kind": "metering"}, "rear": REDUCING}
        return {place: ({**part, "body": BODY},) for place, part in parts.items()}
    if kind == "load-sensing":
        return {circuit: (_two_points(build),)}
    return {circuit: (dict(_NEW[kind]),)}


def _two_points(build: Build) -> dict[str, Any]:
    light, heavy = _loads(build)
    points = [[light, LIGHT_KNEE], [heavy, HEAVY_KNEE]]
    return {"kind": "load-sensing", "points": points, "slope": 0.4, "follows": "dynamic"}


def _loads(build: Build) -> tuple[str, str]:
    """Return the lightest and the heaviest rear axle load, apart by something."""
    loads = [case.rear_axle for case in build.vehicle.load_cases]
    light, heavy = (end(loads, key=lambda q: q.value) for end in (min, max))
    if heavy.value > light.value:
        return light.text, heavy.text
    return light.text, _typed(light.value * (1.0 + LEAST_SPREAD), LOAD)


def by_lever(valve: LoadSensing) -> dict[str, Any]:
    """Return a load-sensing valve with a lever that has the knees of its two points.

    valve: described by points [object]. Arms, piston and suspension are assumed.
    Source: physics.valve, lever_knee, turned round.
    """
    made = law(valve)
    assert isinstance(made, LoadSensingLaw)
    area = math.pi / 4 * PISTON.value**2
    # N of the spring per Pa of knee
    push = area * (1.0 - valve.slope) * PISTON_ARM.value / ARM.value
    middle, half = (made.heavy + made.light) / 2, (made.heavy - made.light) / 2
    knee, steep = made.knee(middle), (made.heavy_knee - made.light_knee) / (2 * half)  # Pa, Pa/N
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

    valve: described by a lever [object]; build: the document [object].
    Source: physics.valve, lever_knee.
    """
    made = law(valve)
    assert isinstance(made, LoadSensingLaw)
    points = []
    for text in _loads(build):
        knee = max(float(made.knee(parse(text, LOAD).value)), 1.0)
        points.append([text, _typed(knee, PRESSURE)])
    return _described(valve, points=points)


def _described(valve: LoadSensing, **way: object) -> dict[str, Any]:
    kept = valve.model_dump(mode="json", exclude_unset=True, exclude={"points", "lever"})
    return {**kept, **way}


def _typed(value: float, kind: Kind) -> str:
    return f"{value:.4g} {kind.si}"


def is_by_lever(valve: object) -> bool:
    """Tell whether a valve is described by its lever; valve: of the document [object]."""
    return isinstance(valve, LoadSensing) and isinstance(valve.lever, Lever)
