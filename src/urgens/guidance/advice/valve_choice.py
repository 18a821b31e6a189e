"""Ways to balance a build in words: what each is, and why it stands where it does."""

import math
from typing import Any, cast

from urgens.document import Build, BuildChange, value_at
from urgens.guidance.advice.fitting_setups import with_fitting_setups
from urgens.guidance.advice.laid_too import laid_too
from urgens.guidance.words.figures import listed
from urgens.quantity import LENGTH, PRESSURE, Units, UnitSystem, parse, show
from urgens.studies.balance_verdict import BalanceVerdict
from urgens.studies.valve_choice import Candidate
from urgens.studies.valve_fits import FittedWay

HALF_OF_100 = 0.005  # below it a share of a hundred comes to none
LOST = {
    "deceleration": "the deceleration you want is out of reach of the foot",
    "half-failed": "with one half lost, too little is left",
    "travel": "the pedal or a piston meets its end",
}


def what(build: Build, one: FittedWay, units: Units | UnitSystem) -> str:
    """Return a way's name with its figures.

    one: the way.
    """
    knee = "" if one.knee is None else str(show(one.knee, PRESSURE, units))
    size = "" if one.size is None else one.size.text
    match one.kind:
        case "none":
            return "No valve"
        case "reducing":
            return f"{_reducing(build, one)}, knee {knee}, slope {one.slope:.2f}"
        case "limiting":
            return f"Limiting valve, {knee}"
        case "load-sensing":
            return f"Load-sensing valve, {knee} light, {_heavy(one, units)}, slope {one.slope:.2f}"
        case "bar":
            assert one.bar_offset is not None
            way = "front" if one.bar_offset >= 0 else "rear"
            if one.size is not None:
                lean = show(abs(one.bar_offset), LENGTH, units)
                return f"Twin cylinders of {size}, their bar {lean} towards the {way}"
            return f"Balance bar {show(abs(one.bar_offset), LENGTH, units)} towards the {way}"
        case "bores":
            return f"Rear cylinder of {size}"
        case "pistons":
            return f"Rear pistons of {size}"


def _reducing(build: Build, way: FittedWay) -> str:
    """Return what a reducing valve is: the adjustable one that is there, one to buy, or fixed."""
    ((path, value),) = way.changes.items()
    if path.endswith(".turns"):
        valve = value_at(build, path.removesuffix(".turns"))
        return f"Your adjustable valve at {value:g} {valve.counted}"
    (*_, valve) = cast(list[dict[str, Any]], way.changes["valves.rear"])
    if valve["kind"] == "adjustable":
        return f"Adjustable valve at {valve['turns']:g} turns"
    return "Reducing valve"


def _heavy(way: FittedWay, units: Units | UnitSystem) -> str:
    """Return the knee a load-sensing valve would have with the heaviest load."""
    (*_, valve) = cast(list[dict[str, Any]], way.changes["valves.rear"])
    heavy = parse(valve["points"][1][1], PRESSURE).value
    return f"{show(heavy, PRESSURE, units)} laden"


def why(build: Build, candidate: Candidate, units: Units | UnitSystem) -> str:
    """Return why a candidate stands where it does, in a sentence or two.

    candidate: the candidate.
    """
    way, verdict = candidate.to_take
    said = f"{what(build, way, units)}: {why_of(build, verdict)}"
    if candidate.chance is not None:
        said += f" {how_sure(candidate.chance)}"
    if candidate.lost:
        said += f" It loses: {listed([LOST[lost] for lost in candidate.lost])}."
    if way is not candidate.fitted:
        gained = 100 * (candidate.verdict.mean_efficiency - verdict.mean_efficiency)
        knee = show(candidate.fitted.knee or 0.0, PRESSURE, units)
        slope = f"{candidate.fitted.slope:.2f}"
        said += (
            f" That is as such valves are sold; a free choice, {knee} and {slope}, "
            f"would use {max(gained, 0.0):.1f} % more."
        )
    return said


def how_sure(chance: float) -> str:
    """Return in how many of a hundred such builds the rear is first; chance: of that [-]."""
    many = f"{100 * chance:.0f} of 100 such builds"
    if chance == 0.0:
        many = "no such build that was drawn"
    elif chance < HALF_OF_100:
        many = "under 1 of 100 such builds"
    return f"As its figures are known, the rear is first somewhere in {many}."


def why_of(build: Build, verdict: BalanceVerdict) -> str:
    """Return what a verdict comes to, as the end of a sentence; verdict: of it."""
    if verdict.rear_first:
        case, road = verdict.rear_first[0]
        name = build.vehicle.load_cases[case].name
        more = len(verdict.rear_first) - 1
        rest = f" and {more} more" if more else ""
        return f"the rear is first with “{name}” on {shown_road(road)}{rest}."
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


def shown_road(road: float) -> str:
    """Return a road's coefficient with the digits that tell it; road: [-]."""
    return f"{road:.3f}".rstrip("0").rstrip(".")


def fitting(build: Build, way: FittedWay, units: Units | UnitSystem) -> BuildChange:
    """Return the step that fits a way; valves that stay keep what is known of them.

    The layout goes with it, and what set-ups change that it leaves no place for goes out, which its
    label says. way: to fit; units: of its name.
    """
    return laid_too(build, with_fitting_setups(build, _fitting(build, way, units)))


def _fitting(build: Build, way: FittedWay, units: Units | UnitSystem) -> BuildChange:
    values = dict(way.changes)
    rear = cast(list[dict[str, Any]] | None, values.pop("valves.rear", None))
    if rear is not None:
        kept = [i for i, valve in enumerate(build.valves.rear) if valve.keeps_pressure]
        orders: dict[str, list[int | dict[str, Any]]] = {"valves.rear": [*kept, *rear[len(kept) :]]}
        new = {f"valves.rear[{i}]": one for i, one in enumerate(rear) if i >= len(kept)}
        return BuildChange(
            what(build, way, units), values, orders=orders, planned={**values, **new}
        )
    return BuildChange.planning(what(build, way, units), values)
