"""Reading the build that a command names, and printing what came of it."""

import argparse
import json
import sys
from pathlib import Path

from urgens.cli.exits import say
from urgens.document import Build, BuildErrors, load, with_setup
from urgens.document.errors import plainly


def loaded(options: argparse.Namespace) -> Build:
    """Return the build that is named, its set-up laid over it; raises BuildErrors."""
    build = load(options.file)
    return build if options.setup is None else with_setup(build, options.setup)


def print_json(values: object) -> None:
    """Print plain values as JSON, with letters that the terminal has."""
    unicode = (sys.stdout.encoding or "").lower().startswith("utf")
    print(json.dumps(values, indent=1, ensure_ascii=not unicode))


def complain(path: Path | None, errors: BuildErrors) -> None:
    """Say what is wrong with a file, a line a problem."""
    place = f"{plainly(str(path))}: " if path is not None else ""
    count = len(errors.errors)
    head = f"urgens: {place}{count} problem{'s' if count > 1 else ''}"
    say("\n  ".join((head, *errors.lines())))
