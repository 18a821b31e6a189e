"""The command that prints a procedure."""

import argparse

from urgens.cli.exits import BAD_INPUT, DONE, say
from urgens.cli.printing import loaded, print_json
from urgens.document import load, with_setup
from urgens.guidance.condition.proofs import procedure_now
from urgens.guidance.procedures import Facts
from urgens.guidance.procedures.rebleed import opened_by


def _procedure(options: argparse.Namespace) -> int:
    build = loaded(options)
    opened = tuple(options.opened)
    if options.come_from is not None:
        opened += opened_by(with_setup(load(options.file), options.come_from), build)
    made = procedure_now(build, options.name, options.method, opened)
    found = made.spelt(Facts(build).figures(build.natural_units))
    if options.json:
        print_json(found.printed())
        if options.output is None:
            return DONE
    if not found.allowed:
        if options.output is not None:
            say(f"urgens: not so, and nothing is written: {found.refused_because}")
            return BAD_INPUT
        print(f"Not so: {found.refused_because}.")
        return DONE
    if options.output is not None:
        from urgens.sheet.cards import write_cards

        write_cards(build, found, options.output, options.people or found.people)
        return DONE
    for caution in found.cautions:
        print(f"Caution: {caution}")
    print(f"People: {found.people}. Tools: {', '.join(found.tools) or 'none'}.")
    for number, step in enumerate(found.steps, start=1):
        print(f"{number}. {step.text} {step.why}".rstrip())
    return DONE


RUN = {"procedure": _procedure}
