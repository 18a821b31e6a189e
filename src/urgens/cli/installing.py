"""Putting Urgens among the other applications: menu entry, icon, file type, man page, completion.

Everything goes below one folder, the user's own by default, and is taken out again the same way:
a receipt says what was written, so that only that is taken out, and only where nobody changed it.
"""

import hashlib
import json
import shutil
import subprocess
import sys
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from urgens import __date__, __version__
from urgens.data import DESKTOP_ID as ID
from urgens.data import FOLDER, manual_text
from urgens.document import BuildErrors
from urgens.document.whole_file import content, write_whole, written_to

# What is told once files have come or gone, and what is not known before.
TOLD = (
    (("update-mime-database",), "share/mime", "file managers learn of *.urgens.json"),
    (("update-desktop-database",), "share/applications", "menus learn of it"),
    (("gtk-update-icon-cache", "-q", "-t", "-f"), "share/icons/hicolor", "its icon is found"),
)
# What those write, and leave behind when nothing else is left to tell of.
CACHES = {
    "share/mime": frozenset((
        "XMLnamespaces", "aliases", "application", "generic-icons", "globs", "globs2", "icons",
        "magic", "mime.cache", "subclasses", "treemagic", "types", "version",
    )),
    "share/applications": frozenset(("mimeinfo.cache",)),
    "share/icons/hicolor": frozenset(("icon-theme.cache",)),
}  # fmt: skip
FORMAT = "urgens.installed"
RECEIPT = "share/urgens/installed.json"
RESERVED = set(" \t\n\"'\\><~|&;$*?#()`%")  # of an Exec line


@dataclass(frozen=True)
class Placed:
    """A file and what is to stand in it; its place is below a folder such as /usr/local."""

    place: str
    content: bytes


def files(command: str) -> tuple[Placed, ...]:
    """Return what is installed; command: that starts Urgens, as an Exec line has it [text].

    Source: Desktop Entry 1.5, shared-mime-info 0.21, AppStream 1.0, icon theme 0.13.
    """
    shipped = FOLDER / "desktop"
    entry = (shipped / f"{ID}.desktop").read_text(encoding="utf-8")
    about = (shipped / f"{ID}.metainfo.xml").read_text(encoding="utf-8")
    about = about.replace("@VERSION@", __version__).replace("@DATE@", __date__)
    return (
        Placed(f"share/applications/{ID}.desktop", entry.replace("@EXEC@", command).encode()),
        Placed(f"share/metainfo/{ID}.metainfo.xml", about.encode()),
        Placed(f"share/mime/packages/{ID}.xml", (shipped / f"{ID}.xml").read_bytes()),
        Placed(f"share/icons/hicolor/scalable/apps/{ID}.svg", (shipped / f"{ID}.svg").read_bytes()),
        Placed("share/man/man1/urgens.1", manual_text("urgens.1").encode()),
        Placed("share/bash-completion/completions/urgens", manual_text("bash").encode()),
        Placed("share/zsh/site-functions/_urgens", manual_text("zsh").encode()),
    )


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


@dataclass(frozen=True)
class Receipt:
    """What was installed below a folder: digests of files by their place, and folders made."""

    files: dict[str, str]
    folders: tuple[str, ...]

    def written(self) -> bytes:
        """Return the receipt as it stands in its file."""
        told = {"format": FORMAT, "folders": self.folders, "files": self.files}
        return (json.dumps(told, indent=1) + "\n").encode()


def install(folder: Path) -> Iterator[str]:
    """Install below a folder; yields what was done, a line each.

    All that is written is made before the first file is, and nothing is written where a link leads.
    Raises BuildErrors where a file cannot be written.
    """
    wanted = files(started_by())
    _no_link(folder, RECEIPT)
    before = _receipt(folder) or Receipt({}, ())
    for one in wanted:
        _may_be_written(folder, one, before)
    places = (*(one.place for one in wanted), RECEIPT)
    folders = tuple(dict.fromkeys((*before.folders, *_missing_folders(folder, places))))
    receipt = Receipt({one.place: _digest(one.content) for one in wanted}, folders)
    # The receipt comes first: who is stopped here can still take out what was written.
    for one in (Placed(RECEIPT, receipt.written()), *wanted):
        path = folder / one.place
        with written_to(path, "name another --prefix"):
            path.parent.mkdir(parents=True, exist_ok=True)
            write_whole(path, one.content)
        if one.place != RECEIPT:
            yield f"written: {path}"
    yield from _tell(folder)


def _digest(held: bytes) -> str:
    return hashlib.sha256(held).hexdigest()


def _receipt(folder: Path) -> Receipt | None:
    """Return what was installed below a folder, None where nothing was; raises BuildErrors."""
    path = folder / RECEIPT
    try:
        found = json.loads(content(path))
        if found["format"] != FORMAT:
            raise ValueError(f"it is no {FORMAT}")
        receipt = Receipt(
            {str(place): str(digest) for place, digest in found["files"].items()},
            tuple(str(one) for one in found["folders"]),
        )
    except (FileNotFoundError, NotADirectoryError):
        return None
    except (OSError, ValueError, KeyError, TypeError, AttributeError) as error:
        raise BuildErrors.one(
            str(path), f"cannot be read ({error})", "remove by hand what it lists, and it last"
        ) from None
    for place in (*receipt.files, *receipt.folders):
        if Path(place).is_absolute() or ".." in Path(place).parts:
            raise BuildErrors.one(
                str(path), f'names "{place}", which is not below it', "remove it by hand"
            )
    return receipt


def _missing_folders(folder: Path, places: tuple[str, ...]) -> Iterator[str]:
    """Yield the folders below `folder` that are still to be made, the outer ones first."""
    for place in places:
        for one in reversed(Path(place).parents[:-1]):
            if not (folder / one).exists():
                yield str(one)


def _no_link(folder: Path, place: str) -> None:
    """Raise BuildErrors where a link stands on the way to a place below a folder."""
    for part in (*reversed(Path(place).parents[:-1]), Path(place)):
        at = folder / part
        if at.is_symlink():
            raise BuildErrors.one(
                str(at), f"is a link to {at.readlink()}", "remove it, or name another --prefix"
            )


def _may_be_written(folder: Path, wanted: Placed, before: Receipt) -> None:
    """Raise BuildErrors where a link stands in the way, or a file that Urgens did not write so."""
    _no_link(folder, wanted.place)
    at = folder / wanted.place
    try:
        there = _digest(content(at))
    except FileNotFoundError:
        return
    except OSError as error:
        raise BuildErrors.one(
            str(at), f"cannot be written ({error.strerror})", "name another --prefix"
        ) from None
    if there not in (before.files.get(wanted.place), _digest(wanted.content)):
        raise BuildErrors.one(
            str(at), "is there already, not as Urgens wrote it", "move it away, then try again"
        )


def remove(folder: Path) -> Iterator[str]:
    """Take out what was installed below a folder; yields what was done, a line each.

    What somebody changed since stays, and is named. Raises BuildErrors where a file cannot be
    removed.
    """
    receipt = _receipt(folder)
    if receipt is None:
        yield f"nothing of Urgens is installed below {folder}"
        return
    for place, digest in receipt.files.items():
        path = folder / place
        try:
            yield from _taken_out(path, digest)
        except OSError as error:
            raise BuildErrors.one(
                str(path), f"cannot be removed ({error.strerror})", "remove it as its owner"
            ) from None
    (folder / RECEIPT).unlink()
    yield from _tell(folder)
    for place in reversed(receipt.folders):
        _tidy(folder, place)


def _taken_out(path: Path, digest: str) -> Iterator[str]:
    """Take out a file that is as it was written, and say so; raises OSError."""
    if path.is_symlink():
        yield f"left: {path}, which is a link now"
    elif not path.exists():
        return
    elif _digest(content(path)) != digest:
        yield f"left: {path}, which was changed since"
    else:
        path.unlink()
        yield f"removed: {path}"


def _tidy(folder: Path, place: str) -> None:
    """Remove a folder that installing made where it holds nothing but caches."""
    path = folder / place
    if path.is_dir() and not path.is_symlink():
        left = list(path.iterdir())
        if {one.name for one in left} <= CACHES.get(place, frozenset()):
            for one in left:
                shutil.rmtree(one) if one.is_dir() else one.unlink()
            path.rmdir()


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
