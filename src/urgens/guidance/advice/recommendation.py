"""What is recommended where the rear locks first: the one way that Choose ranks first."""

from collections.abc import Callable
from dataclasses import replace

from urgens.document import Build, BuildChange
from urgens.guidance.advice.ranked_ways import ranked_ways
from urgens.guidance.advice.valve_choice import fitting
from urgens.guidance.rules.finding import Finding, Fix
from urgens.quantity import Units, UnitSystem
from urgens.studies.valve_choice import candidates
from urgens.studies.valve_fits import FittedWay

REAR = "valves.rear"


def recommended(
    build: Build, units: Units | UnitSystem, progress: Callable[[float], bool] | None = None
) -> Fix | None:
    """Return the edit that fits the best way that makes nothing worse, None where there is none.

    units: of its name; progress: as in `candidates`.
    """
    ways = ranked_ways(build, progress=progress)
    best = None if ways is None else ways.recommended
    return None if best is None else _fix(build, best.to_take[0], units)


def _fix(build: Build, way: FittedWay, units: Units | UnitSystem) -> Fix:
    """Return a way as the fix of a finding: the valves it leaves first, else its only edit."""
    change = fitting(build, way, units)
    label = f"Fit: {change.label[:1].lower()}{change.label[1:]}"
    order = change.orders.get(REAR)
    if order is not None:
        return Fix(label, REAR, way.changes[REAR], tuple(order), tuple(change.values.items()))
    (path, value), *more = change.values.items()
    return Fix(label, path, value, more=tuple(more))


def best_reducing(build: Build, units: Units | UnitSystem) -> BuildChange:
    """Return the step that fits the reducing valve that does best, of those that are sold.

    units: of its name.
    """
    best = next(one for one in candidates(build, sure=False) if one.kind == "reducing")
    return fitting(build, best.to_take[0], units)


def with_recommended(build: Build, findings: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Return findings, those that a choice of valve mends with the one that ranks first.

    findings: about it.
    """
    if not any(finding.chosen for finding in findings):
        return findings
    fix = recommended(build, build.natural_units)
    fixes = () if fix is None else (fix,)
    return tuple(replace(one, fixes=fixes) if one.chosen else one for one in findings)
