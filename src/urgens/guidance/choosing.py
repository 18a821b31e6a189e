"""Ways to balance a build in words: what each is, and why it stands where it does."""

import math
from collections.abc import Sequence
from typing import Any, cast

from urgens.document import Build
from urgens.quantity import LENGTH, PRESSURE, Units, UnitSystem, parse, show
from urgens.studies.valve_choice import Candidate, Verdict


def what(one: Candidate, units: Units | UnitSystem) -> str:
    """Return a candidate's name with its figures.

    one: the candidate [object]; units: to show in [object].
    Source: the candidate.
    """
    knee = "" if one.knee is None else str(show(one.knee, PRESSURE, units))
    size = "" if one.size is None else one.size.text
    match one.kind:
        case "none":
            return "No valve"
        case "reducing":
            return f"Reducing valve, knee {knee}, slope {one.slope:.2f}"
        case "limiting":
            return f"Limiting valve, {knee}"
        case "load-sensing":
            return f"Load-sensing valve, {knee} light, {_heavy(one, units)}, slope {one.slope:.2f}"
        case "bar":
            assert one.bar_offset is not None
            way = "front" if one.bar_offset >= 0 else "rear"
            return f"Balance bar {show(abs(one.bar_offset), LENGTH, units)} towards the {way}"
        case "bores":
            return f"Rear cylinder of {size}"
        case "pistons":
            return f"Rear pistons of {size}"


def _heavy(one: Candidate, units: Units | UnitSystem) -> str:
    """Return the knee a load-sensing valve would have with the heaviest load."""
    (valve,) = cast(list[dict[str, Any]], one.changes["valves.rear"])
    heavy = parse(valve["points"][1][1], PRESSURE).value
    return f"{show(heavy, PRESSURE, units)} laden"


def why(build: Build, one: Candidate, surfaces: Sequence[float], units: Units | UnitSystem) -> str:
    """Return why a candidate stands where it does, in one sentence.

    build: the document [object]; one: the candidate [object]; surfaces: that were looked at [-];
    units: to show in [object].
    Source: its verdict.
    """
    return f"{what(one, units)}: {why_of(build, one.verdict, surfaces)}"


def why_of(build: Build, verdict: Verdict, surfaces: Sequence[float]) -> str:
    """Return what a verdict comes to, as the end of a sentence.

    build: the document [object]; verdict: of it [object]; surfaces: that were looked at [-].
    Source: the verdict.
    """
    if verdict.rear_first:
        case, road = verdict.rear_first[0]
        name = build.vehicle.load_cases[case].name
        more = len(verdict.rear_first) - 1
        rest = f" and {more} more" if more else ""
        return f"the rear is first with “{name}” on {surfaces[road]:g}{rest}."
    if math.isnan(verdict.mean_efficiency):
        return "nothing locks up to the hardest foot."
    margin = (
        "margin kept"
        if not verdict.missed
        else f"margin missed {verdict.missed} time{'s' if verdict.missed > 1 else ''}"
    )
    return (
        f"front first everywhere, {margin}; "
        f"{100 * verdict.mean_efficiency:.0f} % of the grip used on average, "
        f"{100 * verdict.worst_efficiency:.0f} % at worst."
    )
