"""The command line: reads arguments, prints, nothing else.

What computes is imported once it is clear that something is to be computed.
"""

import argparse
import errno
import gc
import io
import json
import os
import sys
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager, suppress
from importlib import import_module
from pathlib import Path
from typing import TYPE_CHECKING, TextIO

from urgens.arguments import parser

if TYPE_CHECKING:
    from urgens.document import Build, BuildErrors

DONE, DANGER, BAD_INPUT = 0, 1, 2
PRINT = (
    "solve", "check", "size", "valves", "robustness", "schema", "prove", "log", "drive", "trace",
    "sayings", "plan", "compare", "man", "completion",
)  # fmt: skip
REMEDIES = {
    errno.ENOSPC: "make room",
    errno.EDQUOT: "make room",
    errno.ENAMETOOLONG: "choose a shorter name",
}
NO_LIBRARY = "cannot open shared object file"  # of the loader, in the language of C


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line; returns the exit code: 0 done, 1 danger found, 2 bad input."""
    given = list(sys.argv[1:] if arguments is None else arguments)
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):  # what it has no letter for is spelt out
            stream.reconfigure(errors="backslashreplace")
    opens = not given or (given[0] not in _RUN and not given[0].startswith("-"))
    if opens and len(given) <= 1:
        return _window(Path(given[0]) if given else None)
    try:
        return _finished(given)
    except BrokenPipeError:  # whoever read has read enough
        _drop(sys.stdout)
        return DONE
    except OSError as error:
        _drop(sys.stdout)
        remedy = REMEDIES.get(error.errno or 0, "look where it goes, and who may write there")
        _say(f"urgens: cannot be written ({error.strerror}); {remedy}")
        return BAD_INPUT
    finally:
        _let_words_go()


def _finished(given: Sequence[str]) -> int:
    """Run a command; what keeps it from its end is said in words. Raises OSError of the output."""
    try:
        options = parser().parse_args(given)
    except SystemExit as ended:  # help was asked for, or something was typed wrongly
        if sys.stdout is not None:
            sys.stdout.flush()
        return int(ended.code or DONE)
    if sys.stdout is None and options.command in PRINT:
        _say("urgens: there is nowhere to print to: standard output is closed; leave it open")
        return BAD_INPUT
    from urgens.document import BuildErrors

    try:
        code = int(_RUN[options.command](options))
    except BuildErrors as errors:
        _complain(getattr(options, "file", None), errors)
        return BAD_INPUT
    except ImportError as error:
        return _without_library(error)
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


def _say(words: str) -> None:
    """Say something is wrong, if there is anywhere to say it."""
    if sys.stderr is not None:
        with suppress(OSError):
            print(words, file=sys.stderr, flush=True)


def _without_library(error: ImportError) -> int:
    """Say which library of the system is missing; raises what has another cause."""
    if NO_LIBRARY not in str(error):
        raise error
    from urgens.missing_libraries import how_to_install

    _say(f"urgens: Qt cannot be loaded here ({error})\n  {how_to_install()}")
    return BAD_INPUT


def _loaded(options: argparse.Namespace) -> "Build":
    from urgens.document import load, with_setup

    build = load(options.file)
    return build if options.setup is None else with_setup(build, options.setup)


def _solve(options: argparse.Namespace) -> int:
    import numpy as np

    from urgens.guidance import findings
    from urgens.guidance.recommending import with_recommended
    from urgens.printed.solution import printed_solution
    from urgens.solve import solve

    build = _loaded(options)
    solution = solve(
        build,
        load_case=options.load_case,
        surface=options.surface,
        speed=options.speed,
        efforts=None if options.effort is None else np.array(options.effort),
    )
    found = [finding.printed() for finding in with_recommended(build, findings(solution))]
    _print({**printed_solution(solution), "findings": found})
    return DONE


def _check(options: argparse.Namespace) -> int:
    from urgens.guidance import Severity, findings
    from urgens.guidance.recommending import with_recommended
    from urgens.solve import solve

    build = _loaded(options)
    found = findings(solve(build))
    if options.json:
        rows = [finding.printed() for finding in with_recommended(build, found)]
        _print(rows)
    else:
        if not found:
            print("nothing found: no rule known here has anything to say about this build")
        for finding in found:
            print(f"{finding.severity.word}  {finding.code}  {finding.message} {finding.why}")
    return DANGER if any(f.severity is Severity.DANGER for f in found) else DONE


def _size(options: argparse.Namespace) -> int:
    import numpy as np

    from urgens.document import BuildErrors
    from urgens.document.bores import sold_bores
    from urgens.printed.sizing import printed_sizing
    from urgens.solve.solution import case_index
    from urgens.studies.sizing import RATIOS, rear_bores_of, sizing_map

    build = _loaded(options)
    if build.master.kind != "twin" and any(rear is not None for _, rear in options.bore or ()):
        raise BuildErrors.one(
            "--bore",
            f"names a front and a rear bore, and this build has one {build.master.kind} cylinder",
            "write one bore, such as 19 mm; FRONT:REAR goes with twin cylinders",
        )
    given = options.bore or [(bore.value, None) for bore in sold_bores()]
    bores = np.array([front for front, _ in given])
    apart = rear_bores_of(build, bores)
    named = np.array([np.nan if rear is None else rear for _, rear in given])
    rears = np.where(np.isnan(named), apart, named)
    kept = rears > 0
    ratios = RATIOS if options.ratio is None else np.array(sorted(set(options.ratio)))
    case = case_index(build, options.load_case)
    found = sizing_map(build, case, bores[kept], rears[kept], ratios)
    _print(printed_sizing(build, found))
    return DONE


def _valves(options: argparse.Namespace) -> int:
    from urgens.printed.valve_choice import printed_choice
    from urgens.solve import every_road
    from urgens.studies.valve_choice import candidates

    build = _loaded(options)
    surfaces = tuple(dict.fromkeys(options.surface or every_road(build)))
    found = candidates(build, surfaces, options.margin)
    _print(printed_choice(build, found, surfaces))
    return DONE


def _plumb(options: argparse.Namespace) -> int:
    from urgens.document import BuildErrors, Change, changed, dumps, save
    from urgens.guidance.alternatives import alternatives
    from urgens.plumbing.draft import drafted
    from urgens.printed.lines import printed_alternatives

    build = _loaded(options)
    if options.to is not None:
        from dataclasses import asdict

        from urgens.document import load, with_setup
        from urgens.plumbing.conversion import conversion

        _print(asdict(conversion(build, with_setup(load(options.file), options.to))))
        return DONE
    if options.alternatives:
        prices = {} if build.plumbing is None else build.plumbing.prices
        asked = {str(kind): price for kind, price in prices.items()}
        _print(printed_alternatives(alternatives(build), asked))
        return DONE
    if not options.draft:
        return _draw_plan(build, options.output)
    change = Change.assuming("The usual layout", {"plumbing": drafted(build)})
    if options.alternative is not None:
        known = {one.school.name: one.change for one in alternatives(build)}
        if options.alternative not in known:
            raise BuildErrors.one(
                "--alternative",
                f'there is no way "{options.alternative}" for this build',
                f"choose one of {', '.join(known)}",
            )
        change = known[options.alternative]
    laid = changed(build, change)
    if options.output is None:
        print(dumps(laid), end="")
    else:
        save(laid, options.output)
    return DONE


def _draw_plan(build: "Build", output: Path | None) -> int:
    """Write the plan of a build's layout, or say what else there is to ask for."""
    from urgens.document import BuildErrors

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


def _procedure(options: argparse.Namespace) -> int:
    from urgens.guidance.procedures import procedure

    build = _loaded(options)
    opened = tuple(options.opened)
    if options.come_from is not None:
        from urgens.document import load, with_setup
        from urgens.guidance.procedures.rebleed import opened_by

        opened += opened_by(with_setup(load(options.file), options.come_from), build)
    found = procedure(build, options.name, options.method, opened)
    if options.json:
        _print(found.printed())
        if options.output is None:
            return DONE
    if not found.allowed:
        if options.output is not None:
            _say(f"urgens: not so, and nothing is written: {found.refused_because}")
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


def _elsewhere(module: str, name: str) -> Callable[[argparse.Namespace], int]:
    """Return the command of a name in another module, which is loaded when it is run."""

    def run(options: argparse.Namespace) -> int:
        return int(import_module(f"urgens.{module}").RUN[name](options))

    return run


def _lines(options: argparse.Namespace) -> int:
    from urgens.document import BuildErrors
    from urgens.document.line_sheets import routed
    from urgens.guidance import findings
    from urgens.plumbing.cut_list import TooLongError
    from urgens.plumbing.shopping import cut_from
    from urgens.printed.lines import bend_words, printed_lines
    from urgens.quantity import Units
    from urgens.solve import solve

    build = _loaded(options)
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
        _print(printed_lines(build.plumbing, made, cut, found))
        return DONE
    for words in bend_words(made, Units(build.natural_units)):
        print(words)
    for finding in found:
        if finding.where in {one.line.id for one in made}:
            print(f"{finding.severity.word}  {finding.code}  {finding.message} {finding.why}")
    return DONE


def _robustness(options: argparse.Namespace) -> int:
    from urgens.printed.robustness import printed_robustness
    from urgens.solve.solution import case_index
    from urgens.studies.robustness import robustness

    build = _loaded(options)
    case = case_index(build, options.load_case)
    found = robustness(build, case, options.draws, options.seed)
    assert found is not None  # nobody tells it to stop
    _print(printed_robustness(found))
    return DONE


def _new(options: argparse.Namespace) -> int:
    from urgens.document import BuildErrors
    from urgens.document.demo import own_vehicle_text
    from urgens.document.whole_file import write_whole

    path: Path = options.output
    if path.exists() or path.is_symlink():
        raise BuildErrors.one(str(path), "is there already", "name a file that is not there yet")
    try:
        write_whole(path, own_vehicle_text().encode())
    except OSError as error:
        raise BuildErrors.one(
            str(path), f"cannot be written ({error.strerror})", "name another place"
        ) from None
    _say(f"urgens: written: {path}; every figure in it is assumed: write in what you measure")
    return DONE


def _schema(options: argparse.Namespace) -> int:
    from urgens.document import schema

    _print(schema())
    return DONE


def _demo(options: argparse.Namespace) -> int:
    with _uncollected():
        from urgens.document import demo

        build = demo(options.name)
        _load_core()
        from urgens.ui.application import run

        return run(build, None)


def _window(path: Path | None) -> int:
    with _uncollected():
        from urgens.document import BuildErrors, load

        try:
            build = load(path) if path is not None else None
            _load_core()
            from urgens.ui.application import run
        except BuildErrors as errors:
            _complain(path, errors)
            return BAD_INPUT
        except ImportError as error:
            return _without_library(error)
        return run(build, path)


@contextmanager
def _uncollected() -> Iterator[None]:
    """Look for no garbage until the window stands, which then allows it itself.

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


def _print(values: object) -> None:
    unicode = (sys.stdout.encoding or "").lower().startswith("utf")
    print(json.dumps(values, indent=1, ensure_ascii=not unicode))


def _complain(path: Path | None, errors: "BuildErrors") -> None:
    from urgens.document.errors import plainly

    place = f"{plainly(str(path))}: " if path is not None else ""
    count = len(errors.errors)
    head = f"urgens: {place}{count} problem{'s' if count > 1 else ''}"
    _say("\n  ".join((head, *errors.lines())))


_RUN = {
    "solve": _solve,
    "check": _check,
    "size": _size,
    "valves": _valves,
    "robustness": _robustness,
    "plumb": _plumb,
    "lines": _lines,
    "procedure": _procedure,
    "prove": _elsewhere("cli_bench", "prove"),
    "log": _elsewhere("cli_bench", "log"),
    "drive": _elsewhere("cli_bench", "drive"),
    "device": _elsewhere("cli_bench", "device"),
    "trace": _elsewhere("cli_trace", "trace"),
    "sayings": _elsewhere("cli_trace", "sayings"),
    "plan": _elsewhere("cli_record", "plan"),
    "compare": _elsewhere("cli_record", "compare"),
    "sheet": _elsewhere("cli_record", "sheet"),
    "new": _new,
    "schema": _schema,
    "install-desktop": _elsewhere("cli_install", "install-desktop"),
    "man": _elsewhere("cli_install", "man"),
    "completion": _elsewhere("cli_install", "completion"),
    "demo": _demo,
}
