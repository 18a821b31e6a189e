"""The command that prints a procedure."""

import argparse
from typing import Any

from urgens.cli.exits import BAD_INPUT, DONE, say
from urgens.cli.printing import loaded, print_json
from urgens.document import Build, BuildErrors, load, with_setup
from urgens.guidance.condition.proofs import procedure_now
from urgens.guidance.procedures import Facts, Procedure
from urgens.guidance.procedures.people import duties, roles, too_few
from urgens.guidance.procedures.rebleed import opened_by
from urgens.guidance.procedures.shuttle import NAME as RESET
from urgens.guidance.procedures.workshop import at_first


def _procedure(options: argparse.Namespace) -> int:
    build = loaded(options)
    opened = tuple(options.opened)
    if options.come_from is not None:
        opened += opened_by(with_setup(load(options.file), options.come_from), build)
    if options.end is not None and options.name != RESET:
        told = f'"{options.name}" has no end'
        raise BuildErrors.one("--end", told, f"leave it out, or ask for {RESET}")
    made = procedure_now(build, options.name, options.end or options.method, opened)
    found = made.spelt(Facts(build).figures(build.natural_units))
    people = options.people or found.people
    refused = found.refused_because or too_few(found, people)
    if options.json:
        print_json(_printed(build, found, people))
    if refused is not None and options.output is not None:
        say(f"urgens: not so, and nothing is written: {refused}")
        return BAD_INPUT
    if options.json and options.output is None:
        return DONE
    if refused is not None:
        print(f"Not so: {refused}.")
        return DONE
    if options.output is not None:
        from urgens.sheet.cards import write_cards

        write_cards(build, found, options.output, people)
        return DONE
    for caution in found.cautions:
        print(f"Caution: {caution}")
    print(f"People: {found.people}. Tools: {', '.join(found.tools) or 'none'}.")
    for number, step in enumerate(found.steps, start=1):
        print(f"{number}. {step.text} {step.why}".rstrip())
    return DONE


def _printed(build: Build, found: Procedure, people: int) -> dict[str, Any]:
    """Return a procedure as plain JSON values, each step with what is said and what stands then."""
    who, now = roles(found, people, bar=Facts(build).bar), at_first(found.begins)
    whole = found.printed()
    for number, (step, row) in enumerate(zip(found.steps, whole["steps"], strict=True), start=1):
        said, now = duties(who, step, now), now.after(step)
        row |= {"thing": step.thing or None, "says": dict(said), "after": now.printed(step)}
        back_to = found.back_to(number)
        if back_to is not None:
            row["loop"] = {"back_to": back_to}
    return whole


RUN = {"procedure": _procedure}
