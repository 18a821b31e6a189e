"""Opening the window, and saying what keeps it from opening."""

import argparse
import gc
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from urgens.cli.exits import BAD_INPUT, say
from urgens.missing_libraries import how_to_install

NO_LIBRARY = "cannot open shared object file"  # of the loader, in the language of C


def _demo(options: argparse.Namespace) -> int:
    with _uncollected():
        from urgens.document import demo

        build = demo(options.name)
        _load_core()
        from urgens.ui.application import run

        return run(build, None)


def open_window(path: Path | None) -> int:
    """Open the window on a file, or on none; returns the exit code."""
    with _uncollected():
        from urgens.cli.printing import complain
        from urgens.document import BuildErrors, load

        try:
            build = load(path) if path is not None else None
            _load_core()
            from urgens.ui.application import run
        except BuildErrors as errors:
            complain(path, errors)
            return BAD_INPUT
        except ImportError as error:
            return without_library(error)
        return run(build, path)


@contextmanager
def _uncollected() -> Iterator[None]:
    """Look for no garbage until the window stands, which then does so between its events.

    Hardly anything of what is made goes before it does.
    """
    gc.disable()
    try:
        yield
    finally:
        gc.enable()


def _load_core() -> None:
    """Load what computes before Qt is, whose loader reads the source of all that comes after it."""
    import urgens.guidance
    import urgens.studies.balance_curves
    import urgens.studies.valve_choice  # noqa: F401


def without_library(error: ImportError) -> int:
    """Say which library of the system is missing; raises what has another cause."""
    if NO_LIBRARY not in str(error):
        raise error
    say(f"urgens: Qt cannot be loaded here ({error})\n  {how_to_install()}")
    return BAD_INPUT


RUN = {"demo": _demo}
