"""What can be typed after `urgens`, read without loading anything that computes."""

import argparse
import textwrap
from pathlib import Path
from typing import TypeAlias

from urgens import __version__
from urgens.cli.typed_arguments import (
    bores,
    channel,
    coefficient,
    count_of_draws,
    margin,
    moment,
    outcome,
    quantity,
    ratio,
    reading,
    seed,
    speed,
)
from urgens.data import chapter_titles, demo_names, procedure_titles
from urgens.quantity import FORCE, LENGTH

# argparse has no public name for it.
Commands: TypeAlias = "argparse._SubParsersAction[argparse.ArgumentParser]"
EXITS = (
    "Exit status: 0 done; 1 done, with a danger found (check only); 2 bad input, or output that "
    "could not be written."
)
METHODS = ("pedal", "open-stroke", "pressure", "gravity", "vacuum")


class _WholeNames(argparse.HelpFormatter):
    """Breaks no name at its hyphens, so that it can be copied."""

    def _split_lines(self, text: str, width: int) -> list[str]:
        return textwrap.wrap(" ".join(text.split()), width, break_on_hyphens=False)


def parser() -> argparse.ArgumentParser:
    """Return the parser of the command line."""
    made = argparse.ArgumentParser(
        prog="urgens",
        description="Without a command: open the window, on a build if its FILE is named.",
        epilog=EXITS,
        formatter_class=_WholeNames,
    )
    made.add_argument(
        "--version", action="version", version=f"urgens {__version__}", help="print the version"
    )
    commands = made.add_subparsers(dest="command", required=True, metavar="COMMAND")
    _add_solve(commands)
    _add_size(commands)
    _add_valves(commands)
    _add_robustness(commands)
    _add_plumb(commands)
    _add_lines(commands)

    _add_procedure(commands)
    _add_prove(commands)
    _add_trace(commands)
    sayings = _of_a_file(commands, "sayings", "try the trade's sayings on a build")
    sayings.add_argument("--json", action="store_true", help="as JSON")
    _add_plan(commands)
    _add_compare(commands)
    _add_log(commands)
    _add_drive(commands)
    _add_device(commands)

    _add_check(commands)
    _add_sheet(commands)
    _add_new(commands)
    _add(commands, "schema", "print the JSON Schema of the build file")
    _add_install(commands)
    _add_demo(commands)
    return made


def _add(commands: Commands, name: str, words: str) -> argparse.ArgumentParser:
    """Add a command; what it does stands in the list of all and above its own options."""
    return commands.add_parser(
        name, help=words, description=f"{words[0].upper()}{words[1:]}.", epilog=EXITS,
        formatter_class=_WholeNames,
    )  # fmt: skip


def _of_a_file(commands: Commands, name: str, words: str) -> argparse.ArgumentParser:
    """Add a command that reads a build."""
    made = _add(commands, name, words)
    made.add_argument("file", type=Path, metavar="FILE", help="a build, NAME.urgens.json")
    made.add_argument("--setup", metavar="NAME", help="with this set-up laid over the build")
    return made


def _add_load_case(command: argparse.ArgumentParser) -> None:
    command.add_argument(
        "--load-case", metavar="NAME", help="of this load case; the first where none is named"
    )


def _add_check(commands: Commands) -> None:
    check = _of_a_file(commands, "check", "print what there is to say about a build")
    check.add_argument("--json", action="store_true", help="as JSON, with reasons and fixes")


def _add_sheet(commands: Commands) -> None:
    sheet = _of_a_file(commands, "sheet", "write the build sheet as .pdf, .html or .csv")
    sheet.add_argument(
        "-o", "--output", type=Path, required=True, metavar="OUT",
        help="where to; its ending, .pdf, .html or .csv, chooses the form",
    )  # fmt: skip
    sheet.add_argument(
        "--chapters", metavar="NAME,…",
        help=f"only these, of {', '.join(chapter_titles())}; all that say something by default",
    )  # fmt: skip
    sheet.add_argument(
        "--paper", choices=("a4", "letter"), help="of a PDF; by the build's units by default"
    )


def _add_new(commands: Commands) -> None:
    new = _add(commands, "new", "write a small build to start from, every figure assumed")
    new.add_argument(
        "output", type=Path, metavar="OUT", help="where to, as NAME.urgens.json; none is replaced"
    )


def _add_demo(commands: Commands) -> None:
    names = demo_names()
    shipped = _add(commands, "demo", "open a shipped demo build in the window")
    shipped.add_argument(
        "name", nargs="?", default=names[0], metavar="NAME",
        help=f"{' or '.join(names)}; {names[0]} where none is named",
    )  # fmt: skip


def _add_solve(commands: Commands) -> None:
    solve = _of_a_file(commands, "solve", "print all figures of a build as JSON")
    _add_load_case(solve)
    solve.add_argument(
        "--surface", type=coefficient, metavar="MU",
        help="on a road of this tyre-road coefficient, such as 0.4; the build's own by default",
    )  # fmt: skip
    solve.add_argument(
        "--speed", type=speed, default=0.0, metavar="SPEED",
        help="at this speed, such as 60 mph; 0 by default, without downforce",
    )  # fmt: skip
    solve.add_argument(
        "--effort", type=quantity(FORCE), action="append", metavar="FORCE",
        help="pressed with this effort, such as 40 lbf; can be given several times",
    )  # fmt: skip


def _add_size(commands: Commands) -> None:
    size = _of_a_file(commands, "size", "print what every bore gives with every pedal ratio")
    _add_load_case(size)
    size.add_argument(
        "--bore", type=bores, action="append", metavar="BORE",
        help="only this bore, such as 7/8 in, or FRONT:REAR of twin cylinders; several times",
    )  # fmt: skip
    size.add_argument(
        "--ratio", type=ratio, action="append", metavar="RATIO",
        help="only this pedal ratio, such as 6; can be given several times",
    )  # fmt: skip


def _add_valves(commands: Commands) -> None:
    valves = _of_a_file(commands, "valves", "rank ways to balance a build")
    valves.add_argument(
        "--surface", type=coefficient, action="append", metavar="MU",
        help="judged on this tyre-road coefficient; several times; those of the build by default",
    )  # fmt: skip
    valves.add_argument(
        "--margin", type=margin, default=0.05, metavar="MARGIN",
        help="adhesion by which the front must lock first, 0.05 by default",
    )  # fmt: skip


def _add_robustness(commands: Commands) -> None:
    sure = _of_a_file(commands, "robustness", "print how sure the balance is under tolerances")
    _add_load_case(sure)
    sure.add_argument(
        "--draws", type=count_of_draws, default=100_000, metavar="N",
        help="how many builds to draw, 100000 by default",
    )  # fmt: skip
    sure.add_argument(
        "--seed", type=seed, default=1, metavar="N",
        help="another seed draws other builds; 1 by default",
    )  # fmt: skip


def _add_plumb(commands: Commands) -> None:
    plumb = _of_a_file(commands, "plumb", "draft and draw the layout of a build's circuits")
    wanted = plumb.add_mutually_exclusive_group()
    wanted.add_argument(
        "--draft", action="store_true",
        help="the usual layout of this cylinder with these valves, every figure assumed",
    )  # fmt: skip
    wanted.add_argument(
        "--alternatives", action="store_true",
        help="what could be laid instead: joints, parts, minutes and what is lost, as JSON",
    )  # fmt: skip
    wanted.add_argument(
        "--to", metavar="SETUP",
        help="what stays, goes, is new, plugged and lost on the way to this set-up, as JSON",
    )  # fmt: skip
    plumb.add_argument(
        "--alternative", metavar="NAME", help="with --draft: the build as this one of them has it"
    )
    plumb.add_argument(
        "-o", "--output", type=Path, metavar="OUT",
        help="write the build with it to a file, printed where none is named; ending in .svg or "
        ".png, and nothing else asked for, the plan of its layout",
    )  # fmt: skip


def _add_procedure(commands: Commands) -> None:
    steps = _of_a_file(commands, "procedure", "print how something is done on this very build")
    steps.add_argument(
        "name", metavar="NAME",
        help=f"{', '.join(procedure_titles())}, or a mend that `urgens trace` names",
    )  # fmt: skip
    steps.add_argument("--method", metavar="METHOD", help=f"of bleed: {', '.join(METHODS)}")
    steps.add_argument(
        "--opened", action="append", default=[], metavar="PART",
        help="of rebleed: a part or line of the layout that was opened; several times",
    )  # fmt: skip
    steps.add_argument(
        "--from", dest="come_from", metavar="SETUP",
        help="of rebleed: the set-up that was fitted before",
    )  # fmt: skip
    steps.add_argument("--json", action="store_true", help="as JSON")
    steps.add_argument(
        "-o", "--output", type=Path, metavar="OUT.pdf",
        help="write a checklist, and a card for each person, to a PDF file",
    )  # fmt: skip
    steps.add_argument(
        "--people", type=int, choices=(1, 2, 3), metavar="N",
        help="of -o: how many come, 1 to 3, else as many as it is best with",
    )  # fmt: skip


def _add_plan(commands: Commands) -> None:
    plan = _of_a_file(commands, "plan", "print the order of the work, and what is due")
    plan.add_argument(
        "--to", metavar="SETUP", help="the way to this set-up; what is still open where none is"
    )
    plan.add_argument(
        "--start", type=moment, metavar="DAY",
        help="from this day on, such as 2026-05-31 or 2026-05-31T17:00; from now by default",
    )  # fmt: skip
    plan.add_argument("--json", action="store_true", help="as JSON")
    plan.add_argument(
        "-o", "--output", type=Path, metavar="DUE.ics", help="write what is due as a calendar"
    )


def _add_compare(commands: Commands) -> None:
    words = "print every figure in which a build differs from another, as JSON"
    compare = _add(commands, "compare", words)
    compare.add_argument("file", type=Path, metavar="FILE", help="a build, NAME.urgens.json")
    compare.add_argument("other", type=Path, nargs="?", metavar="OTHER", help="another build")
    compare.add_argument("--setup", metavar="NAME", help="with this set-up of it instead")
    compare.add_argument(
        "--on", type=moment, metavar="DAY", help="with itself as it was at the end of this day"
    )
    compare.add_argument(
        "--from", dest="since", type=moment, metavar="DAY",
        help="as it was at the end of this day, in place of as it is now",
    )  # fmt: skip
    compare.add_argument("--words", action="store_true", help="in words, with units")


def _add_install(commands: Commands) -> None:
    install = _add(
        commands,
        "install-desktop",
        "put Urgens into the menu, with icon, file type, man page and completion",
    )
    install.add_argument(
        "--prefix", type=Path, metavar="FOLDER",
        help="below this folder, such as /usr/local; your own ~/.local by default",
    )  # fmt: skip
    install.add_argument(
        "--remove", action="store_true", help="take out what was installed and nobody changed"
    )
    _add(commands, "man", "print the manual page")
    completion = _add(
        commands, "completion", "print what completes commands and options in a shell"
    )
    completion.add_argument("shell", choices=("bash", "zsh"), help="for this shell")


def _add_lines(commands: Commands) -> None:
    lines = _of_a_file(commands, "lines", "print how the lines of a layout are bent and cut")
    lines.add_argument(
        "--stock", type=quantity(LENGTH), default="25 ft", metavar="LENGTH",
        help="cut from lengths of so much, 25 ft by default",
    )  # fmt: skip
    lines.add_argument(
        "--saw", type=quantity(LENGTH), default="1 mm", metavar="LENGTH",
        help="lost in each cut, 1 mm by default",
    )  # fmt: skip
    lines.add_argument("--json", action="store_true", help="as JSON, in SI")


def _add_prove(commands: Commands) -> None:
    prove = _of_a_file(commands, "prove", "print what has been proved of a build, and what is next")
    prove.add_argument("--json", action="store_true", help="as JSON, in SI")


def _add_trace(commands: Commands) -> None:
    words = "print what a fault may come from, and the next cheapest test"
    trace = _add(commands, "trace", words)
    trace.add_argument("file", type=Path, nargs="?", metavar="FILE", help="a build file")
    trace.add_argument("--setup", metavar="NAME", help="with this set-up laid over the build")
    _add_load_case(trace)
    trace.add_argument(
        "--list", action="store_true", help="print all signs, causes and tests, as JSON"
    )
    trace.add_argument(
        "--sign", action="append", default=[], metavar="ID", help="what is seen; several times"
    )
    trace.add_argument(
        "--not-sign", action="append", default=[], metavar="ID",
        help="what was looked for and is not seen; several times",
    )  # fmt: skip
    trace.add_argument(
        "--test", type=outcome, action="append", default=[], metavar="ID=OUTCOME",
        help="what a test showed, such as hold=sinks; several times",
    )  # fmt: skip
    trace.add_argument(
        "--reading", type=reading, action="append", default=[], metavar="NAME=VALUE@FOOT",
        help='what was read at a foot, such as travel="60 mm"@"300 N"; several times',
    )  # fmt: skip
    trace.add_argument(
        "--leave-out", action="append", default=[], metavar="NAME",
        help="what of the build's own records is not to count; several times",
    )  # fmt: skip
    trace.add_argument("--json", action="store_true", help="as JSON, in SI")


def _add_log(commands: Commands) -> None:
    log = _add(commands, "log", "print what a log says")
    log.add_argument("file", type=Path, metavar="FILE", help="a log, as .csv, .mf4 or .parquet")
    log.add_argument("--build", type=Path, metavar="FILE", help="the build it was made with")
    log.add_argument(
        "--channel", type=channel, action="append", default=[], metavar="NAME=COLUMN:UNIT",
        help="which column is which, such as front_pressure=P1:bar; several times; proposed by "
        "name, unit and range where it is not said",
    )  # fmt: skip
    log.add_argument("--against", type=Path, metavar="OTHER", help="a log to set it beside")
    log.add_argument(
        "-o", "--output", type=Path, metavar="OUT.csv", help="write it anew, in SI-derived units"
    )
    log.add_argument("--json", action="store_true", help="as JSON, in SI")


def _add_drive(commands: Commands) -> None:
    drive = _of_a_file(commands, "drive", "make one stop on the simulated test road")
    _add_load_case(drive)
    drive.add_argument(
        "--speed", type=speed, required=True, metavar="SPEED", help="from this speed, as 60 mph"
    )
    foot = drive.add_mutually_exclusive_group(required=True)
    foot.add_argument(
        "--effort", type=quantity(FORCE), metavar="FORCE", help="with this foot, held"
    )
    foot.add_argument(
        "--to-lock", action="store_true", help="with a foot that goes on until an axle locks"
    )
    drive.add_argument(
        "--surface", type=coefficient, metavar="MU",
        help="on a road of this tyre-road coefficient; the build's own by default",
    )  # fmt: skip
    drive.add_argument(
        "--seed", type=seed, metavar="N",
        help="with figures drawn from their spreads; as the build stands where none is given",
    )  # fmt: skip
    drive.add_argument(
        "-o", "--output", type=Path, metavar="LOG.csv", help="write its log to a file"
    )


def _add_device(commands: Commands) -> None:
    device = _of_a_file(commands, "device", "run a simulated gauge box on a pseudo-terminal")
    device.add_argument(
        "--seed", type=seed, default=1, metavar="N", help="another vehicle; 1 by default"
    )
    device.add_argument(
        "--valve", metavar="PLACE", help='across this valve, such as "rear[0]"; the first one else'
    )
    device.add_argument("--fault", metavar="CAUSE", help="with something wrong, by its name")
