"""Putting Urgens among the other applications: menu entry, icon, file type, man page, completion.

Everything goes below one folder, the user's own by default, and is taken out again the same way.
"""

import shutil
import subprocess
import sys
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from urgens import __date__, __version__
from urgens.arguments import parser
from urgens.data import DESKTOP_ID as ID
from urgens.data import FOLDER
from urgens.document import BuildErrors
from urgens.document.whole_file import write_whole

# What is told once files have come or gone, and what is not known before.
TOLD = (
    (("update-mime-database",), "share/mime", "file managers learn of *.urgens.json"),
    (("update-desktop-database",), "share/applications", "menus learn of it"),
    (("gtk-update-icon-cache", "-q", "-t", "-f"), "share/icons/hicolor", "its icon is found"),
)
SECTIONS = (
    ("files", "NAME.urgens.json is a build, NAME.urgens.json.bak the one before it was last "
     "saved."),
    ("exit status", "0 done; 1 done, with a danger found (check only); 2 bad input, or output "
     "that could not be written."),
)  # fmt: skip
RESERVED = set(" \t\n\"'\\><~|&;$*?#()`%")  # of an Exec line


@dataclass(frozen=True)
class Placed:
    """A file and what is to stand in it; its place is below a folder such as /usr/local."""

    place: str
    content: bytes


def files(command: str) -> Iterator[Placed]:
    """Yield what is installed; command: that starts Urgens, as an Exec line has it [text].

    Source: Desktop Entry 1.5, shared-mime-info 0.21, AppStream 1.0, icon theme 0.13.
    """
    shipped = FOLDER / "desktop"
    entry = (shipped / f"{ID}.desktop").read_text(encoding="utf-8")
    yield Placed(f"share/applications/{ID}.desktop", entry.replace("@EXEC@", command).encode())
    told = (shipped / f"{ID}.metainfo.xml").read_text(encoding="utf-8")
    told = told.replace("@VERSION@", __version__).replace("@DATE@", __date__)
    yield Placed(f"share/metainfo/{ID}.metainfo.xml", told.encode())
    for name, place in (
        (f"{ID}.xml", "share/mime/packages"), (f"{ID}.svg", "share/icons/hicolor/scalable/apps"),
    ):  # fmt: skip
        yield Placed(f"{place}/{name}", (shipped / name).read_bytes())
    yield Placed("share/man/man1/urgens.1", man_page().encode())
    yield Placed("share/bash-completion/completions/urgens", completion("bash").encode())
    yield Placed("share/zsh/site-functions/_urgens", completion("zsh").encode())


def man_page() -> str:
    """Return the manual page. Source: the argument parser, by argparse-manpage."""
    from build_manpages.manpage import Manpage

    made = Manpage(parser())
    made.date, made.source, made.manual = __date__, f"Urgens {__version__}", "User commands"
    made.description = "a workbench for the brakes of one vehicle"
    for heading, words in SECTIONS:
        made.add_section(heading, ">", words)
    return str(made)


def completion(shell: str) -> str:
    """Return what completes commands and options in a shell; shell: bash or zsh [text].

    Source: the argument parser, by shtab.
    """
    import shtab

    return str(shtab.complete(parser(), shell=shell))


def started_by() -> str:
    """Return the command that starts this Urgens, quoted for an Exec line.

    Source: Desktop Entry 1.5, The Exec key.
    """
    beside = Path(sys.executable).with_name("urgens")
    if beside.exists():
        return _quoted(str(beside))
    return f"{_quoted(sys.executable)} -m urgens"


def _quoted(argument: str) -> str:
    if not RESERVED & set(argument):
        return argument
    escaped = "".join(f"\\\\{letter}" if letter in '"`$\\' else letter for letter in argument)
    return f'"{escaped.replace("%", "%%")}"'


def install(folder: Path) -> Iterator[str]:
    """Install below a folder; yields what was done, a line each.

    Raises BuildErrors where a file cannot be written. Source: `files`.
    """
    for one in files(started_by()):
        path = folder / one.place
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            write_whole(path, one.content)
        except OSError as error:
            raise BuildErrors.one(
                str(path), f"cannot be written ({error.strerror})", "name another --prefix"
            ) from None
        yield f"written: {path}"
    yield from _tell(folder)


def remove(folder: Path) -> Iterator[str]:
    """Take out what was installed below a folder; yields what was done, a line each.

    Raises BuildErrors where a file cannot be removed. Source: `files`.
    """
    for one in files(started_by()):
        path = folder / one.place
        if not path.exists():
            continue
        try:
            path.unlink()
        except OSError as error:
            raise BuildErrors.one(
                str(path), f"cannot be removed ({error.strerror})", "remove it as its owner"
            ) from None
        yield f"removed: {path}"
    yield from _tell(folder)


def _tell(folder: Path) -> Iterator[str]:
    """Tell the desktop; what is not there to be told is said."""
    for command, place, words in TOLD:
        if not (folder / place).is_dir():
            continue
        if shutil.which(command[0]) is None:
            yield f"{command[0]} is not here to be run: it may take a new login until {words}"
            continue
        run = subprocess.run(
            [*command, str(folder / place)], capture_output=True, text=True, check=False
        )
        if run.returncode:
            said = (run.stderr or run.stdout).strip().splitlines()
            yield f"{command[0]} failed: {said[-1] if said else run.returncode}"
