"""Demo builds with a few figures changed."""

import json
import math
from collections.abc import Mapping
from pathlib import Path
from typing import Any

import numpy as np

from urgens.document import Build, demo_text, loads, with_changes
from urgens.document.catalogue import figures
from urgens.document.edits.edit import dumped
from urgens.document.ledger.proof import GaugeRun
from urgens.guidance.condition.deeds import shown
from urgens.guidance.procedures import procedure
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.proving import PROOFS
from urgens.guidance.procedures.records import records
from urgens.solve import solve
from urgens.studies.expected_pressures import expected

# parts of nearly every kind, on one vehicle
EVERYTHING = {
    "booster": {
        "kind": "vacuum", "diaphragm_diameters": ["8 in", "7 in"], "vacuum": "18 inHg",
        "pump": "20 inHg", "gain": 3.0,
        "reservoir": {"volume": "5 l", "swept": "0.9 l"},
        "envelope": {"diameter": "9 in", "length": "6 in"},
        "room": {"diameter": "10 in", "length": "8 in"},
    },
    "vehicle.downforce": {"front_cl_area": "0.1 m^2", "rear_cl_area": "0.2 m^2"},
    "vehicle.launch": {
        "stall_torque": "250 lbf.ft", "gear_ratio": 2.0, "final_drive": 4.0, "driven": "rear",
    },
    "warning_switch": "shuts",
    "shuttle_volume": "0.5 cm^3",
    "rear.brake": {
        "kind": "drum", "layout": "two-leading", "cylinder_diameter": "20 mm",
        "drum_diameter": "250 mm",
        "shoe": {
            "lining_friction": 0.35, "hinge_distance": "100 mm", "arm": "200 mm",
            "heel_angle": "15 deg", "toe_angle": "110 deg",
        },
    },
    "valves.front": [
        {"kind": "metering", "full": "300 psi"},
        {"kind": "residual", "pressure": "2 psi"},
    ],
    "valves.rear": [
        {"kind": "limiting", "knee": "60 bar"},
        {
            "kind": "load-sensing", "slope": 0.3, "follows": "dynamic",
            "lever": {
                "arm": "150 mm", "piston_arm": "25 mm", "piston_diameter": "15 mm",
                "spring_rate": "4 N/mm", "preload": "150 N", "at_load": "800 kg",
                "suspension_rate": "50 N/mm", "bump": "80 mm", "droop": "80 mm",
            },
        },
        {"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.4},
    ],
}  # fmt: skip


BEDS = ("sprint", "bakery", "roadster", "mailvan")  # whose figures tests know
IN_THE_MIDDLE, DONE = ("library", "tender"), ("records", "joints", "noted")
_FOLDER = Path(__file__).parent / "beds"


def bed_text(name: str) -> str:
    """The file of a vehicle that stands here, or ships; of the latter what was done on some goes.

    Those are in the middle of a story, which tests tell of their own.
    """
    path = _FOLDER / f"{name}.urgens.json"
    if path.exists():
        return path.read_text(encoding="utf-8")
    if name not in IN_THE_MIDDLE:
        return demo_text(name)
    document = {part: one for part, one in json.loads(demo_text(name)).items() if part not in DONE}
    return json.dumps(document, ensure_ascii=False, indent=2)


def bed(name: str) -> Build:
    """A vehicle that stands here, or ships."""
    return loads(bed_text(name))


def unproved(name: str) -> Build:
    """Return a demo build as if nothing had been done or measured on it yet."""
    return with_changes(bed(name), {"records": [], "proof": None})


def bakery_with(changes: Mapping[str, object]) -> Build:
    """The bakery after changes {path: value}."""
    return with_changes(bed("bakery"), changes)


def largest() -> Build:
    """A build as large as any: 60 load cases, 20 set-ups, something known of 200 figures."""
    bakery = bed("bakery")
    case = bakery.model_dump(mode="json", exclude_unset=True)["vehicle"]["load_cases"][0]
    cases = [
        case | {"name": f"Load {index}", "cg_height": f"{24 + index / 10:g} in"}
        for index in range(60)
    ]
    setups = [
        {
            "name": f"Set-up {index}",
            "changes": {
                "booster": {"kind": "none"},
                "pedal.pivot_to_pushrod": f"{2.2 + index / 100:.2f} in",
                "valves.rear[0].knee": f"{300 + index} psi",
            },
        }
        for index in range(20)
    ]
    build = with_changes(bakery, {"vehicle.load_cases": cases, "setups": setups})
    paths = [one.path for one in figures(build) if one.kind != "text"][:200]
    known = {path: {"state": "assumed", "spread": "4 %", "note": "from a tape"} for path in paths}
    return with_changes(build, {"evidence": known})


def gauge_run(
    valve: str, full_scale: float, grade: float, points: list[tuple[float, float, str]]
) -> GaugeRun:
    """Return readings as a run of the build; valve: its place [text]; full_scale: [Pa]; grade: [%].

    points: into it, out of it [Pa], and which way. Source: by definition.
    """
    rows = [[f"{i / 1e5:.3f} bar", f"{o / 1e5:.3f} bar", way] for i, o, way in points]
    given = {"at": "2026-01-01T12:00", "valve": valve, "full_scale": f"{full_scale / 1e5:.3f} bar"}
    return GaugeRun.model_validate({**given, "class": grade, "points": rows})


READ: dict[str, Any] = {
    "bubbles": "none", "strokes": 8.0, "travel": 40.0, "note": "seen", "pressure": 20.0, "gap": 1.0,
    "clicks": 3.0, "temperature": 60.0, "amount": 30.0,
}  # fmt: skip


def whole_run(build: Build, name: str, day: int = 2, start: int = 0, **more: Any) -> dict[str, Any]:
    """A run in May 2026, begun so many minutes after six, each step answered: yes, or a figure."""

    def at(minute: int) -> str:
        whole = 6 * 60 + start + minute
        return f"2026-05-{day:02d}T{whole // 60:02d}:{whole % 60:02d}"

    method = "bleed" if name == "bleed" else None
    made = shown(procedure(build, name).steps)
    steps = [one.model_dump(mode="json", exclude_defaults=True) for one in made]
    entries = []
    for number, step in enumerate(steps, start=1):
        for wheel in step.get("wheels", [None]) if "asks" in step else ():
            value = READ.get(step["asks"], True)
            if step.get("proof", name) == "half-lost-test" and step["asks"] == "travel":
                value = _half_lost(build, wheel)
            one = {"at": at(number), "step": number, "field": step["asks"], "value": value}
            entries.append(one if wheel is None else one | {"wheel": wheel})
    base = {"procedure": name, "started": at(0), "ended": at(len(steps) + 1), "step": len(steps),
            "outcome": "finished", "steps": steps, "entries": entries}  # fmt: skip
    return (base if method is None else base | {"method": procedure(build, name).method}) | more


def _half_lost(build: Build, wheel: str) -> float:
    """The travel that is computed with that half lost [mm], as near as a rule is read."""
    solution = solve(build)
    half = solution.half_failed[0 if wheel.startswith("front") else 1]
    travel = float(half.pedal_travel[solution.case]) * 1e3
    return round(travel) if math.isfinite(travel) else 100.0


def proved(build: Build, day: int = 2, *but: str) -> list[dict[str, Any]]:
    """Runs of one day that bleed a vehicle and prove all of it, so that nothing lapses."""
    late, facts = ("leak-test", "three-strokes"), Facts(build)
    first = [one for one in PROOFS if one not in late and records()[one].refusal(facts) is None]
    runs: list[dict[str, Any]] = []
    minutes = 0
    for name in (*first, "bleed", *late):
        if name not in but:
            runs.append(whole_run(build, name, day, minutes))
            minutes += len(runs[-1]["steps"]) + 2
    return runs


def on_record(build: Build, day: int = 2, *but: str) -> dict[str, Any]:
    """The sections of a vehicle that is bled and proved on a day, its valves read with gauges."""
    proof: dict[str, Any] = dict(dumped(build).get("proof") or {})
    read = [] if "gauge-valve" in but else [_gauges(build, one, day) for one in _reducing(build)]
    proof["gauges"] = [*proof.get("gauges", []), *read]
    return {"records": proved(build, day, *but), "proof": proof}


def _reducing(build: Build) -> list[str]:
    placed = build.valves.placed()
    return [f"rear[{at}]" for axle, at, valve in placed if axle == "rear" and valve.reduces]


def _gauges(build: Build, valve: str, day: int) -> dict[str, Any]:
    """What gauges would show of a valve that is as the build has it."""
    wanted, points = expected(build, valve), []
    for pressure in np.linspace(4e5, 100e5, 33):
        out = float(wanted.law.outlet(pressure, wanted.felt))
        points.append([f"{pressure / 1e5:.2f} bar", f"{out / 1e5:.2f} bar", "rising"])
    return {"at": f"2026-05-{day:02d}T05:30", "valve": valve, "full_scale": "160 bar",
            "points": points}  # fmt: skip
