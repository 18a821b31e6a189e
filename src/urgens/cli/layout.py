"""Commands of the layout: drafts, other ways, drawings, lines."""

import argparse
from dataclasses import asdict
from pathlib import Path
from typing import Any

from urgens.cli.exits import DONE
from urgens.cli.printing import loaded, print_json
from urgens.document import Build, BuildChange, BuildErrors, changed, dumps, load, save, with_setup
from urgens.document.layout.line_sheets import routed
from urgens.guidance import findings
from urgens.guidance.advice.conversions import conversions
from urgens.guidance.advice.layouts import alternatives
from urgens.plumbing.conversion import conversion
from urgens.plumbing.cut_list import TooLongError
from urgens.plumbing.draft import drafted
from urgens.plumbing.kit import BuyingList, buying_list
from urgens.plumbing.shopping import SAW, STOCK, cut_from
from urgens.printed.lines import bend_words, printed_alternatives, printed_lines
from urgens.quantity import Units
from urgens.solve import solve


def _plumb(options: argparse.Namespace) -> int:
    build = loaded(options)
    if options.to is not None:
        _print_conversion(build, with_setup(load(options.file), options.to))
        return DONE
    if options.convert is not None:
        _write(_converted(load(options.file), options.convert), options.output)
        return DONE
    if options.alternatives:
        prices = {} if build.plumbing is None else build.plumbing.prices
        asked = {str(kind): price for kind, price in prices.items()}
        print_json(printed_alternatives(alternatives(build), asked))
        return DONE
    if not options.draft:
        return _draw_plan(build, options.output)
    change = BuildChange.laying("The usual layout", drafted(build))
    if options.alternative is not None:
        known = {one.school.name: one.change for one in alternatives(build)}
        if options.alternative not in known:
            raise BuildErrors.one(
                "--alternative",
                f'there is no way "{options.alternative}" for this build',
                f"choose one of {', '.join(known)}",
            )
        change = known[options.alternative]
    _write(changed(build, change), options.output)
    return DONE


def _write(build: Build, output: Path | None) -> None:
    """Print a build, or write it to a file."""
    if output is None:
        print(dumps(build), end="")
    else:
        save(build, output)


def _print_conversion(now: Build, then: Build) -> None:
    """Print what it takes from one build to another, and what is bought for it."""
    found: dict[str, Any] = asdict(conversion(now, then))
    try:
        bought = BuyingList(()) if then.plumbing is None else buying_list(
            then, STOCK.value, SAW.value, before=now
        )  # fmt: skip
    except TooLongError as error:
        raise BuildErrors.one(error.name, str(error), "route it in two lines") from None
    found["buy"] = [
        {"item": row.item, "count": row.count, "unit": row.unit, "where": row.shelf,
         "check": row.check, "why": row.why} for row in bought.rows
    ]  # fmt: skip
    found["not_counted"] = list(bought.not_counted)
    print_json(found)


def _converted(build: Build, name: str) -> Build:
    """Return a build with a conversion as a set-up; raises BuildErrors where there is none."""
    known = {way.name: changes for way, changes in conversions(build)}
    if name not in known:
        told = ", ".join(known) or "none"
        raise BuildErrors.one("--convert", f'there is no "{name}" for this build',
                              f"choose one of: {told}")  # fmt: skip
    setup = {"name": name, "changes": known[name]}
    kept = range(len(build.setups))
    return changed(build, BuildChange(f"Set-up “{name}”", orders={"setups": [*kept, setup]}))


def _draw_plan(build: Build, output: Path | None) -> int:
    """Write the plan of a build's layout, or say what else there is to ask for."""
    if output is None:
        raise BuildErrors.one(
            "plumb",
            "nothing is asked for",
            "add --draft, --alternatives or --to, or -o with a drawing's name",
        )
    from urgens.ui.application import offscreen
    from urgens.ui.stations.plumb.plan_file import write_drawing

    application = offscreen()  # kept until it is drawn
    write_drawing(build, output)
    del application
    return DONE


def _lines(options: argparse.Namespace) -> int:
    build = loaded(options)
    if build.plumbing is None:
        remedy = "draw its layout first: parts, and the lines between them"
        raise BuildErrors.one("plumbing", "this build has no layout", remedy)
    made = routed(build.plumbing)
    try:
        cut = cut_from(made, options.stock, options.saw)
    except TooLongError as error:
        raise BuildErrors.one(error.name, str(error), "name a longer --stock") from None
    found = findings(solve(build))
    if options.json:
        print_json(printed_lines(build.plumbing, made, cut, found))
        return DONE
    for words in bend_words(made, Units(build.natural_units)):
        print(words)
    for finding in found:
        if finding.where in {one.line.id for one in made}:
            print(f"{finding.severity.word}  {finding.code}  {finding.message} {finding.why}")
    return DONE


RUN = {"plumb": _plumb, "lines": _lines}
