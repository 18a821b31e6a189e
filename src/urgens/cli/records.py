"""The command line of the record: the plan, what is due, two builds compared, the sheet."""

import argparse
import sys
from datetime import datetime, time, timedelta
from pathlib import Path
from typing import Any

from urgens.cli.exits import DONE
from urgens.cli.printing import loaded, print_json
from urgens.document import Build, BuildError, BuildErrors, load, with_setup
from urgens.document.edits.past import as_of
from urgens.guidance.advice.build_comparison import ComparedFigure, compared
from urgens.guidance.planning.due import Due, due
from urgens.guidance.planning.plan import WorkPlan, plan
from urgens.guidance.planning.schedule import Hours, Schedule, scheduled
from urgens.guidance.words.change_parts import NAMES, claim
from urgens.guidance.words.change_parts import rows as parts_in_words
from urgens.printed.comparing import printed_comparison, printed_parts
from urgens.printed.planning import printed_plan
from urgens.quantity import UnitSystem, show, written
from urgens.sheet.calendar import write_calendar
from urgens.sheet.files import SheetRequest, write_solution
from urgens.solve import solve
from urgens.studies.attribution import Attribution, attributed
from urgens.studies.mixtures import Mixtures, of_figures, of_history

DAY = timedelta(days=1)


def _plan(options: argparse.Namespace) -> int:
    now = loaded(options)
    then = None if options.to is None else with_setup(load(options.file), options.to)
    found = plan(now, then)
    start = options.start or datetime.now().replace(second=0, microsecond=0)
    when = scheduled(found.jobs, start, Hours(), found.work.begun)
    end = None if when.end is None else when.end.date()
    coming = due(found.work.build, start.date(), end, renewed=found.renews)
    if options.output is not None:
        name = found.work.build.name
        held = write_calendar(name, found.jobs, when, coming, options.output)
        print(f"urgens: written: {held.words}", file=sys.stderr)
    if options.json or options.output is None:
        _say_plan(found, when, coming, as_json=options.json)
    return DONE


def _say_plan(plan: WorkPlan, when: Schedule, coming: tuple[Due, ...], *, as_json: bool) -> None:
    if as_json:
        print_json(printed_plan(plan, when, coming))
        return
    if plan.work.supposed:
        print(plan.work.supposed)
    if not plan.jobs:
        print("Nothing is open.")
    starts = {slot.job: slot.start for slot in reversed(when.slots)}
    for at, job in enumerate(plan.jobs):
        people = "" if job.people == 1 else f", {job.people} people"
        opens = f"; opens {', '.join(job.opens)}" if job.opens else ""
        print(
            f"{at + 1}. {starts[at]:%a %d %b %H:%M}  {job.name}, {job.minutes} min{people}{opens}"
        )
    print(f"Bleeds: {plan.order.bleeds}, one by one {plan.order.one_by_one}.")
    for one in plan.missing:
        print(f"Not here yet: {one.count} × {one.what}, for {one.job}")
    for held in plan.holds:
        print(f"Holds the vehicle: {held.what}")
    for row in coming:
        print(f"Due {row.when or 'without a day'}: {row.what}. {row.why}.")


def _compare(options: argparse.Namespace) -> int:
    here = load(options.file)
    other, names, unknown = _other(options, here)
    if options.since is not None:
        once = as_of(here, _end(options.since))
        names = (f"on {options.since:%Y-%m-%d}", names[1])
        here, unknown = once.build, tuple(dict.fromkeys((*once.unknown, *unknown)))
    why = attributed(_between(options, here, other), chance=True) if options.why else None
    if not options.words:
        told = {} if why is None else printed_parts(why)
        print_json(printed_comparison(here, other, names, unknown) | told)
        return DONE
    for path in unknown:
        print(f"urgens: the history names {path}, which this build has not", file=sys.stderr)
    rows = compared(here, other)
    if not rows:
        print("No figure differs.")
    for one in rows:
        print(_row_words(one, here.natural_units, names))
    if why is not None:
        _say_parts(why, here.natural_units, names)
    return DONE


def _between(options: argparse.Namespace, here: Build, other: Build) -> Mixtures:
    """Return the changes from the other build to this one, by the history where it tells them."""
    if options.on is None or options.since is not None:
        return of_figures(other, here)
    return of_history(here, other, _end(options.on))


def _say_parts(found: Attribution, units: UnitSystem, names: tuple[str, str]) -> None:
    """Print each change's own part of every figure."""
    for name, called in NAMES.items():
        print(f"{called[:1].upper()}{called[1:]}, {names[1]} to {names[0]}: "
              f"{claim(found, name, units)}")  # fmt: skip
        for row in parts_in_words(found, name, units, names[::-1]):
            when = f", {row.when}" if row.when else ""
            print(f"  {row.words:>12} {row.error}  {row.what}{when}".rstrip())


def _other(
    options: argparse.Namespace, here: Build
) -> tuple[Build, tuple[str, str], tuple[str, ...]]:
    """Return what is compared with, what both are called, and paths that lead nowhere."""
    given = [options.other, options.setup, options.on]
    if sum(one is not None for one in given) != 1:
        raise BuildErrors.one(
            "compare",
            "it is compared with one thing",
            "name another file, --setup or --on, one of them",
        )
    if options.setup is not None:
        return with_setup(here, options.setup), ("as it is", options.setup), ()
    if options.on is not None:
        once = as_of(here, _end(options.on))
        return once.build, ("now", f"on {options.on:%Y-%m-%d}"), once.unknown
    path: Path = options.other
    try:
        return load(path), (options.file.name, path.name), ()
    except BuildErrors as errors:  # which are those of the other file
        raise BuildErrors(
            BuildError(f"{path.name} {one.path}".rstrip(), one.problem, one.remedy)
            for one in errors.errors
        ) from None


def _end(day: datetime) -> datetime:
    """Return a time; a day without one is meant to its end."""
    return day + DAY if day.time() == time() else day


def _row_words(figure: ComparedFigure, units: UnitSystem, names: tuple[str, str]) -> str:
    values = []
    for value in (figure.here, figure.other):
        if isinstance(value, str):
            values.append(value)
        elif figure.kind is not None:
            values.append(str(show(value, figure.kind, units)))
        else:
            values.append(f"{written(value, figure.decimals)} {figure.unit}".strip())
    better = {"here": names[0], "other": names[1], "": ""}[figure.better]
    said = f"  (better {better}: {figure.why})" if better else ""
    return f"{figure.name}: {values[0]} → {values[1]}{said}"


def _sheet(options: argparse.Namespace) -> int:
    """Write the sheet; what only the interface can draw is drawn first, without a screen."""
    build = loaded(options)
    chapters = tuple(options.chapters.split(",")) if options.chapters else None
    drawings, application = {}, None
    drawn = options.output.suffix.lower() in (".pdf", ".html")
    if drawn and build.plumbing is not None and (chapters is None or "layout" in chapters):
        from urgens.ui.application import offscreen
        from urgens.ui.stations.plumb.plan_file import drawing

        application = offscreen()  # kept until the sheet is written
        drawings["layout"] = drawing(build)
    base, folder = load(options.file), options.file.resolve().parent
    asked = SheetRequest(chapters, options.paper, folder, drawings, base)
    write_solution(solve(build), options.output, build.natural_units, asked)
    del application
    return DONE


RUN: dict[str, Any] = {"plan": _plan, "compare": _compare, "sheet": _sheet}
