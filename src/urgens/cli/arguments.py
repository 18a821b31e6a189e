"""What can be typed after `urgens`, from its table, read without loading anything that computes."""

import argparse
import textwrap
from functools import cache
from pathlib import Path
from typing import Any

from urgens import __version__
from urgens.cli import typed_arguments
from urgens.data import chapter_titles, command_table, demo_names, procedure_titles

EXITS = (
    "Exit status: 0 done; 1 done, with a danger found (check only); 2 bad input, or output that "
    "could not be written."
)
METHODS = ("pedal", "open-stroke", "pressure", "gravity", "vacuum")
_PLAIN = {"path": Path, "int": int}  # what is read as it is; the rest by `typed_arguments`


class _WholeNames(argparse.HelpFormatter):
    """Breaks no name at its hyphens, so that it can be copied."""

    def _split_lines(self, text: str, width: int) -> list[str]:
        return textwrap.wrap(" ".join(text.split()), width, break_on_hyphens=False)


def parser(wanted: str = "") -> argparse.ArgumentParser:
    """Return the parser of the command line; `wanted`: the only command whose options are read."""
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
    table = command_table()
    for row in table["commands"]:
        words = row["help"]
        command = commands.add_parser(
            row["name"], help=words, description=f"{words[0].upper()}{words[1:]}.", epilog=EXITS,
            formatter_class=_WholeNames,
        )  # fmt: skip
        if wanted in ("", row["name"]):
            _add_options(command, [table["shared"].get(one, one) if isinstance(one, str) else one
                                   for one in row.get("options", ())])  # fmt: skip
    return made


def _add_options(command: argparse.ArgumentParser, options: list[dict[str, Any]]) -> None:
    """Add the options of a command; those of which one alone is given share a group."""
    group: Any = None
    names = _names()
    for option in options:
        one = option.get("one")
        if one and group is None:
            group = command.add_mutually_exclusive_group(required=one == "wanted")
        flags = [option["short"]] if "short" in option else []
        (group if one else command).add_argument(*flags, option["name"], **_meant(option, names))


@cache
def _names() -> dict[str, str]:
    """Return what stands in the words of the table by a name in braces."""
    demos = demo_names()
    return {
        "demos": " or ".join(demos), "first_demo": demos[0], "methods": ", ".join(METHODS),
        "chapters": ", ".join(chapter_titles()), "procedures": ", ".join(procedure_titles()),
    }  # fmt: skip


def _meant(option: dict[str, Any], names: dict[str, str]) -> dict[str, Any]:
    """Return what argparse is told of an option."""
    told: dict[str, Any] = {
        key: option[key] for key in ("dest", "metavar", "choices", "required") if key in option
    }
    told["help"] = option["help"].format(**names)
    if option.get("flag"):
        return told | {"action": "store_true"}
    if "default" in option:
        default = option["default"]
        told["default"] = default.format(**names) if isinstance(default, str) else default
    if option.get("several"):
        told["action"] = "append"
    if option.get("optional"):
        told["nargs"] = "?"
    if "type" in option:
        kind = option["type"]
        told["type"] = _PLAIN.get(kind) or getattr(typed_arguments, kind)
    return told
