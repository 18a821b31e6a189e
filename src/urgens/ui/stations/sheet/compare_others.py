"""What a build is compared with: its set-ups, itself before a change, another file."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from functools import partial
from pathlib import Path

from urgens.document import Build, BuildErrors, load, with_setup
from urgens.document.edits.past import as_of
from urgens.document.ledger.history import HistoryEntry

MINUTE = timedelta(minutes=1)
LONGEST = 52  # letters of what is chosen


@dataclass(frozen=True)
class Other:
    """What the build is compared with: its name, at length and in short, and how it is made.

    `entry` is that of the history before which it was, None where it is another.
    """

    name: str
    short: str
    make: Callable[[Build], tuple[Build, tuple[str, ...]]]
    entry: HistoryEntry | None = None


def others(base: Build, setup: str | None, file: Path | None) -> list[Other]:
    """Return what there is to compare with, beside what is looked at."""
    names = [one.name for one in base.setups if one.name != setup]
    found = [Other(name, name, partial(_with_setup, name)) for name in names]
    if setup is not None:
        found.insert(0, Other("as it is, no set-up", "as it is", lambda build: (build, ())))
    changes = [one for one in base.history if one.changes]
    for entry in sorted(changes, key=lambda one: one.at, reverse=True):
        short = f"before {entry.at.day} {entry.at:%b %Y}"
        found.append(Other(before_words(entry), short, partial(_before, entry), entry))
    if file is not None:
        found.append(Other(file.name, file.name, partial(_of_file, file)))
    return found


def before_words(entry: HistoryEntry) -> str:
    """Return what the build before an entry is called."""
    return f"before {entry.at:%Y-%m-%d}: {entry.what}"


def shortened_line(words: str) -> str:
    """Return words of a button, cut where a history has worded them at length."""
    return words if len(words) <= LONGEST else f"{words[: LONGEST - 1]}…"


def _with_setup(name: str, base: Build) -> tuple[Build, tuple[str, ...]]:
    return with_setup(base, name), ()


def _before(entry: HistoryEntry, base: Build) -> tuple[Build, tuple[str, ...]]:
    """Return the build before an entry: as of the minute before it."""
    once = as_of(base, entry.at.replace(second=0, microsecond=0) - MINUTE)
    return once.build, once.unknown


def _of_file(path: Path, base: Build) -> tuple[Build, tuple[str, ...]]:
    try:
        return load(path), ()
    except BuildErrors as errors:
        first = errors.errors[0]
        raise BuildErrors.one(path.name, first.problem, first.remedy) from None
