"""What is offered against a finding: what makes nothing worse, of valves what Choose ranks."""

from collections.abc import Callable
from dataclasses import replace

from urgens.document import Build, BuildChange, BuildErrors
from urgens.guidance.advice.brought import brought
from urgens.guidance.advice.ranked_ways import ranked_ways
from urgens.guidance.advice.valve_choice import fitting
from urgens.guidance.rules.finding import Finding, Fix
from urgens.guidance.rules.registry import findings
from urgens.quantity import Units, UnitSystem
from urgens.solve import solve
from urgens.studies.valve_choice import candidates
from urgens.studies.valve_fits import FittedWay, Kind

REAR = "valves.rear"
REDUCING: Kind = "reducing"


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


def best_reducing(
    build: Build, units: Units | UnitSystem, progress: Callable[[float], bool] | None = None
) -> BuildChange | None:
    """Return the step that fits the reducing valve of Choose's card, of those that are sold.

    units: of its name; progress: as in `candidates`. None where it was told to stop.
    """
    found = candidates(build, progress=progress, kinds=(REDUCING,))
    best = next((one for one in found if one.kind == REDUCING), None)
    return None if best is None else fitting(build, best.to_take[0], units)


def offered(
    build: Build,
    finding: Finding,
    units: Units | UnitSystem,
    progress: Callable[[float], bool] | None = None,
    before: tuple[Finding, ...] | None = None,
) -> tuple[Fix, ...]:
    """Return what is offered against a finding: of its fixes those that make nothing worse.

    finding: about it; units: of names; progress: as in `candidates`; before: all that is found,
    where that is known.
    """
    if finding.chosen:
        fix = recommended(build, units, progress)
        return () if fix is None else (fix,)
    if not finding.fixes:
        return ()
    found = findings(solve(build)) if before is None else before
    return tuple(fix for fix in finding.fixes if _is_worth_it(build, fix, found))


def _is_worth_it(build: Build, fix: Fix, before: tuple[Finding, ...]) -> bool:
    try:
        found = brought(build, fix.change, before)
    except BuildErrors:  # another edit of the build, or a set-up of it, stands against it
        return False
    return found.is_worth_it and found.leaves_less


def with_offers(build: Build, found: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Return findings with what is offered against each; found: all that there are about it."""
    units = build.natural_units
    return tuple(
        replace(one, fixes=offered(build, one, units, before=found)) if one.chosen or one.fixes
        else one for one in found
    )  # fmt: skip
