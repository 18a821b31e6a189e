"""The command line: reads arguments, prints, nothing else."""

import argparse
import json
import os
import sys
from collections.abc import Callable, Sequence
from pathlib import Path

import numpy as np

from urgens import __version__
from urgens.document import Build, BuildErrors, demo, demo_names, load, schema, with_setup
from urgens.quantity import FORCE, LENGTH, SPEED, Kind, QuantityError, parse

DONE, DANGER, BAD_INPUT = 0, 1, 2
COMMANDS = ("solve", "check", "size", "valves", "robustness", "sheet", "schema", "demo")


def _quantity(kind: Kind) -> Callable[[str], float]:
    def read(text: str) -> float:
        try:
            value = parse(text, kind).value
        except QuantityError as error:
            raise argparse.ArgumentTypeError(str(error)) from error
        if value < 0:
            raise argparse.ArgumentTypeError(f'"{text}" is negative; write zero or more')
        return value

    return read


def _coefficient(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = float("nan")
    if not 0 < value < float("inf"):
        raise argparse.ArgumentTypeError(
            f'"{text}" is no tyre-road coefficient; write a number above zero, such as 0.9'
        )
    return value


def _bores(text: str) -> tuple[float, float | None]:
    """Read a bore, or "FRONT:REAR" of twin cylinders."""
    front, colon, rear = text.partition(":")
    read = _quantity(LENGTH)
    found = read(front), read(rear) if colon else None
    if any(bore == 0 for bore in found):
        raise argparse.ArgumentTypeError(f'"{text}" is zero; write a bore such as 7/8 in')
    return found


def _ratio(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = float("nan")
    if not 1 <= value <= 20:
        raise argparse.ArgumentTypeError(f'"{text}" is no pedal ratio; write 1 to 20, such as 6')
    return value


def _margin(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = float("nan")
    if not 0 <= value < 1:
        raise argparse.ArgumentTypeError(
            f'"{text}" is no margin of adhesion; write 0 or more and less than 1, such as 0.05'
        )
    return value


def _count(text: str) -> int:
    if not text.isdecimal() or not 1 <= int(text) <= 10_000_000:
        raise argparse.ArgumentTypeError(
            f'"{text}" is no number of draws; write 1 to 10000000, such as 100000'
        )
    return int(text)


def _seed(text: str) -> int:
    if not text.isdecimal():
        raise argparse.ArgumentTypeError(f'"{text}" is no seed; write a whole number, such as 1')
    return int(text)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="urgens", description="Without a command: open the window, on FILE if one is named."
    )
    parser.add_argument("--version", action="version", version=f"urgens {__version__}")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")

    solve = commands.add_parser("solve", help="print all figures of a build as JSON")
    solve.add_argument("file", type=Path, metavar="FILE")
    solve.add_argument("--setup", metavar="NAME")
    solve.add_argument("--load-case", metavar="NAME")
    solve.add_argument("--surface", type=_coefficient, metavar="MU")
    solve.add_argument("--speed", type=_quantity(SPEED), default=0.0, metavar="SPEED")
    solve.add_argument("--effort", type=_quantity(FORCE), action="append", metavar="FORCE")

    check = commands.add_parser("check", help="print what there is to say about a build")
    check.add_argument("file", type=Path, metavar="FILE")
    check.add_argument("--setup", metavar="NAME")
    check.add_argument("--json", action="store_true")

    size = commands.add_parser("size", help="print what every bore gives with every pedal ratio")
    size.add_argument("file", type=Path, metavar="FILE")
    size.add_argument("--setup", metavar="NAME")
    size.add_argument("--load-case", metavar="NAME")
    size.add_argument("--bore", type=_bores, action="append", metavar="BORE")
    size.add_argument("--ratio", type=_ratio, action="append", metavar="RATIO")

    valves = commands.add_parser("valves", help="rank ways to balance a build")
    valves.add_argument("file", type=Path, metavar="FILE")
    valves.add_argument("--setup", metavar="NAME")
    valves.add_argument("--surface", type=_coefficient, action="append", metavar="MU")
    valves.add_argument("--margin", type=_margin, default=0.05, metavar="MARGIN")

    sure = commands.add_parser("robustness", help="print how sure the balance is under tolerances")
    sure.add_argument("file", type=Path, metavar="FILE")
    sure.add_argument("--setup", metavar="NAME")
    sure.add_argument("--load-case", metavar="NAME")
    sure.add_argument("--draws", type=_count, default=100_000, metavar="N")
    sure.add_argument("--seed", type=_seed, default=1, metavar="N")

    sheet = commands.add_parser("sheet", help="write the build sheet as .pdf or .html")
    sheet.add_argument("file", type=Path, metavar="FILE")
    sheet.add_argument("--setup", metavar="NAME")
    sheet.add_argument("-o", "--output", type=Path, required=True, metavar="OUT")

    commands.add_parser("schema", help="print the JSON Schema of the build file")

    shipped = commands.add_parser("demo", help="open a shipped demo build")
    shipped.add_argument("name", nargs="?", default=demo_names()[0], metavar="NAME")
    return parser


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line; returns the exit code: 0 done, 1 danger found, 2 bad input."""
    given = list(sys.argv[1:] if arguments is None else arguments)
    opens = not given or (given[0] not in COMMANDS and not given[0].startswith("-"))
    if opens and len(given) <= 1:
        return _window(Path(given[0]) if given else None)
    options = _parser().parse_args(given)
    try:
        code = int(_RUN[options.command](options))
        sys.stdout.flush()
    except BrokenPipeError:  # whoever read has read enough
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return DONE
    except BuildErrors as errors:
        _complain(getattr(options, "file", None), errors)
        return BAD_INPUT
    return code


def _loaded(options: argparse.Namespace) -> Build:
    build = load(options.file)
    return build if options.setup is None else with_setup(build, options.setup)


def _solve(options: argparse.Namespace) -> int:
    from urgens.guidance import findings
    from urgens.printed.solution import printed_solution
    from urgens.solve import solve

    solution = solve(
        _loaded(options),
        load_case=options.load_case,
        surface=options.surface,
        speed=options.speed,
        efforts=None if options.effort is None else np.array(options.effort),
    )
    found = [finding.printed() for finding in findings(solution)]
    _print({**printed_solution(solution), "findings": found})
    return DONE


def _check(options: argparse.Namespace) -> int:
    from urgens.guidance import Severity, findings
    from urgens.solve import solve

    found = findings(solve(_loaded(options)))
    if options.json:
        rows = [finding.printed() for finding in found]
        _print(rows)
    else:
        for finding in found:
            print(f"{finding.severity.word}  {finding.code}  {finding.message} {finding.why}")
    return DANGER if any(f.severity is Severity.DANGER for f in found) else DONE


def _size(options: argparse.Namespace) -> int:
    from urgens.document.bores import sold_bores
    from urgens.printed.sizing import printed_sizing
    from urgens.solve.solution import case_index
    from urgens.studies.sizing import RATIOS, rear_bores_of, sizing_map

    build = _loaded(options)
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
    from urgens.studies.valve_choice import candidates, judged_surfaces

    build = _loaded(options)
    surfaces = tuple(dict.fromkeys(options.surface or judged_surfaces(build)))
    found = candidates(build, surfaces, options.margin)
    _print(printed_choice(build, found, surfaces))
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


def _sheet(options: argparse.Namespace) -> int:
    from urgens.sheet import write

    write(_loaded(options), options.output)
    return DONE


def _schema(options: argparse.Namespace) -> int:
    print(json.dumps(schema(), indent=2, ensure_ascii=False))
    return DONE


def _demo(options: argparse.Namespace) -> int:
    build = demo(options.name)
    from urgens.ui.application import run

    return run(build, None)


def _window(path: Path | None) -> int:
    build = None
    if path is not None:
        try:
            build = load(path)
        except BuildErrors as errors:
            _complain(path, errors)
            return BAD_INPUT
    from urgens.ui.application import run

    return run(build, path)


def _print(values: object) -> None:
    print(json.dumps(values, indent=1, ensure_ascii=False))


def _complain(path: Path | None, errors: BuildErrors) -> None:
    place = f"{path}: " if path is not None else ""
    count = len(errors.errors)
    print(f"urgens: {place}{count} problem{'s' if count > 1 else ''}", file=sys.stderr)
    for error in errors.errors:
        print(f"  {error}", file=sys.stderr)


_RUN = {
    "solve": _solve,
    "check": _check,
    "size": _size,
    "valves": _valves,
    "robustness": _robustness,
    "sheet": _sheet,
    "schema": _schema,
    "demo": _demo,
}
