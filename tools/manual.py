"""Make the manual page and the scripts of completion that Urgens ships, from its parser.

`make manual` runs it when what can be typed has changed; `tests/test_installing.py` says when.
"""

import argparse
import hashlib
from collections.abc import Iterator
from pathlib import Path

from urgens import __date__, __version__
from urgens.cli.arguments import METHODS, parser
from urgens.data import FOLDER, chapter_titles, demo_names, procedure_titles, trace_table

SECTIONS = (
    ("files", "NAME.urgens.json is a build, NAME.urgens.json.bak the one before it was last "
     "saved."),
    ("exit status", "0 done; 1 done, with a danger found (check only); 2 bad input, or output "
     "that could not be written."),
)  # fmt: skip


def subparsers(made: argparse.ArgumentParser) -> dict[str, argparse.ArgumentParser]:
    """Return the parsers of the commands, by their names."""
    (commands,) = (one for one in made._actions if isinstance(one, argparse._SubParsersAction))
    return dict(commands.choices)


def signature() -> str:
    """Return a digest of all that can be typed and of what is said of it, on any Python alike."""

    def said() -> Iterator[str]:
        yield f"{__version__} {__date__}"
        whole = parser()
        for name, made in (("", whole), *subparsers(whole).items()):
            yield f"{name} {made.description} {made.epilog}"
            for one in made._actions:
                if isinstance(one, (argparse._HelpAction, argparse._SubParsersAction)):
                    continue  # Python's own words
                yield f"{one.option_strings} {one.dest} {one.nargs} {one.metavar} {one.help}"
                yield f"{tuple(one.choices or ())}"

    return hashlib.sha256("\n".join(said()).encode()).hexdigest()


def manual_page() -> str:
    """Return the manual page, by argparse-manpage."""
    from build_manpages.manpage import Manpage

    made = Manpage(parser())
    made.date, made.source, made.manual = __date__, f"Urgens {__version__}", "User commands"
    made.description = "a workbench for the brakes of one vehicle"
    for heading, words in SECTIONS:
        made.add_section(heading, ">", words)
    return str(made)


def proposed() -> dict[tuple[str, str], tuple[str, ...]]:
    """Return names that completion proposes, and that Urgens itself reads, by command and value."""
    mends = [one["id"] for one in trace_table("mends")["mends"]]
    return {
        ("demo", "name"): demo_names(),
        ("procedure", "name"): (*procedure_titles(), *mends),
        ("procedure", "method"): METHODS,
        ("sheet", "chapters"): tuple(chapter_titles()),
    }


def completion(shell: str) -> str:
    """Return what completes commands, options, their values and names of files, by shtab."""
    import shtab

    made = parser()
    names = proposed()
    for name, command in subparsers(made).items():
        for one in command._actions:
            if one.type is Path:
                one.complete = shtab.FILE  # type: ignore[attr-defined]
            one.choices = names.get((name, one.dest), one.choices)
    return str(shtab.complete(made, shell=shell))


def main() -> None:
    folder, own = FOLDER / "manual", f"made from {signature()}\n"
    (folder / "urgens.1").write_text(f'.\\" {own}{manual_page()}', encoding="utf-8")
    bash = f"# {own}{completion('bash')}\n"
    (folder / "bash").write_text(bash, encoding="utf-8")
    first, _, rest = completion("zsh").partition("\n")  # "#compdef urgens", which stands first
    (folder / "zsh").write_text(f"{first}\n# {own}{rest}\n", encoding="utf-8")


if __name__ == "__main__":
    main()
