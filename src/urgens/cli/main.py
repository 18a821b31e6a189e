"""The command line: reads arguments, runs the command, says what keeps it from its end.

What a command computes with is imported once it is clear which one is to be run.
"""

import argparse
import errno
import gc
import io
import os
import sys
from collections.abc import Callable, Sequence
from importlib import import_module
from pathlib import Path
from typing import TextIO

from urgens.cli.arguments import parser
from urgens.cli.exits import BAD_INPUT, DONE, say

# The file of this folder that each command stands in.
MODULE_OF = {
    "solve": "judging",
    "check": "judging",
    "size": "studies",
    "valves": "studies",
    "robustness": "studies",
    "wish": "studies",
    "plumb": "layout",
    "lines": "layout",
    "procedure": "procedures",
    "prove": "proofs",
    "log": "proofs",
    "drive": "proofs",
    "device": "proofs",
    "trace": "tracing",
    "sayings": "tracing",
    "plan": "records",
    "compare": "records",
    "sheet": "records",
    "new": "files",
    "schema": "files",
    "install-desktop": "installed",
    "man": "installed",
    "completion": "installed",
    "demo": "window",
}
PRINT = (
    "solve", "check", "size", "valves", "robustness", "schema", "prove", "log", "drive", "trace",
    "sayings", "plan", "compare", "wish", "man", "completion",
)  # fmt: skip
REMEDIES = {
    errno.ENOSPC: "make room",
    errno.EDQUOT: "make room",
    errno.ENAMETOOLONG: "choose a shorter name",
}


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line; returns the exit code: 0 done, 1 danger found, 2 bad input."""
    given = list(sys.argv[1:] if arguments is None else arguments)
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):  # what it has no letter for is spelt out
            stream.reconfigure(errors="backslashreplace")
    opens = not given or (given[0] not in MODULE_OF and not given[0].startswith("-"))
    if opens and len(given) <= 1:
        from urgens.cli.window import open_window

        return open_window(Path(given[0]) if given else None)
    try:
        return _finished(given)
    except BrokenPipeError:  # whoever read has read enough
        _drop(sys.stdout)
        return DONE
    except OSError as error:
        _drop(sys.stdout)
        remedy = REMEDIES.get(error.errno or 0, "look where it goes, and who may write there")
        say(f"urgens: cannot be written ({error.strerror}); {remedy}")
        return BAD_INPUT
    finally:
        _let_words_go()


def _finished(given: Sequence[str]) -> int:
    """Run a command; what keeps it from its end is said in words. Raises OSError of the output."""
    gc.disable()  # hardly anything of what is loaded goes again
    try:
        options = parser(given[0]).parse_args(given)
    except SystemExit as ended:  # help was asked for, or something was typed wrongly
        if sys.stdout is not None:
            sys.stdout.flush()
        return int(ended.code or DONE)
    if sys.stdout is None and options.command in PRINT:
        say("urgens: there is nowhere to print to: standard output is closed; leave it open")
        return BAD_INPUT
    from urgens.cli.printing import complain
    from urgens.document import BuildErrors

    try:
        run = _command(options.command)
        gc.enable()
        code = int(run(options))
    except BuildErrors as errors:
        complain(getattr(options, "file", None), errors)
        return BAD_INPUT
    except ImportError as error:
        from urgens.cli.window import without_library

        return without_library(error)
    if sys.stdout is not None:
        sys.stdout.flush()
    return code


def _drop(stream: TextIO | None) -> None:
    """Let what is still to be printed go nowhere, so that no more is said of it at the end."""
    if stream is not None:
        os.dup2(os.open(os.devnull, os.O_WRONLY), stream.fileno())


def _let_words_go() -> None:
    """Print what was said; where it cannot be, the exit code says what there is to say.

    Python itself would end with another one, if words were left for it to print.
    """
    if sys.stderr is not None:
        try:
            sys.stderr.flush()
        except OSError:
            _drop(sys.stderr)


def _command(name: str) -> Callable[[argparse.Namespace], int]:
    """Return the function that runs a command, out of its file."""
    return import_module(f"urgens.cli.{MODULE_OF[name]}").RUN[name]  # type: ignore[no-any-return]
