"""Commands that write what a builder starts from."""

import argparse
from pathlib import Path

from urgens.cli.exits import DONE, say
from urgens.cli.printing import print_json
from urgens.document import BuildErrors, schema
from urgens.document.demo import own_vehicle_text
from urgens.document.whole_file import write_whole, written_to


def _new(options: argparse.Namespace) -> int:
    path: Path = options.output
    if path.exists() or path.is_symlink():
        raise BuildErrors.one(str(path), "is there already", "name a file that is not there yet")
    with written_to(path, "name another place"):
        write_whole(path, own_vehicle_text().encode())
    say(f"urgens: written: {path}; every figure in it is assumed: write in what you measure")
    return DONE


def _schema(options: argparse.Namespace) -> int:
    print_json(schema())
    return DONE


RUN = {"new": _new, "schema": _schema}
