"""A log from its file to its presses: read, mapped, looked through."""

import hashlib
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path

from urgens.bench.logs.channels import Mapped, Signals, propose, signals
from urgens.bench.logs.faults import LogFault, faults_of, rising
from urgens.bench.logs.file import read_log
from urgens.bench.logs.presses import Press, presses
from urgens.bench.logs.table import LogFile
from urgens.data import logs_folder
from urgens.document.ledger.proof import Log


@dataclass(frozen=True)
class ReadLog:
    """All that one log says: its file, channels, what to ask of each, faults, signals, presses."""

    file: LogFile
    channels: Mapping[str, Mapped]
    questions: Mapping[str, str]
    faults: tuple[LogFault, ...]
    signals: Signals
    presses: tuple[Press, ...]


def look_through(
    file: LogFile, mapped: Mapping[str, Mapped], left_out: tuple[str, ...] = ()
) -> ReadLog:
    """Return what a log says.

    file: as read; mapped: channels that somebody has named, the others are proposed; left_out:
    channels that no column is [text].
    Raises BuildErrors where a channel does not fit, or no time is there.
    """
    proposed = propose(file)
    taken = {one.column for one in mapped.values()}
    more = {
        name: one
        for name, one in proposed.channels.items()
        if name not in mapped and name not in left_out and one.column not in taken
    }
    channels = {**more, **mapped}
    asked = {name: said for name, said in proposed.questions.items() if name in more}
    found, clock = rising(signals(file, channels))
    return ReadLog(file, channels, asked, (*clock, *faults_of(file, found)), found, presses(found))


def read_through(path: Path, mapped: Mapping[str, Mapped]) -> ReadLog:
    """Return what the log in a file says; path: of it [text]; mapped: as in `look_through`.

    Raises BuildErrors.
    """
    return look_through(read_log(path), mapped)


def digest(path: Path) -> str:
    """Return the SHA-256 of a file; path: of it [text]. Raises OSError. Source: FIPS 180-4."""
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def lies(log: Log, own: Path | None) -> Path | None:
    """Return where a file lies, beside the build's own or among the shipped ones; or None.

    log: as noted; own: the build's file, None where it has none.
    """
    places = [] if own is None else [own.parent / log.file]
    found = (path for path in (*places, logs_folder() / log.file) if path.is_file())
    return next(found, None)


def told_by(log: Log) -> dict[str, Mapped]:
    """Return the channels that a build has of a log; log: as typed."""
    return {name: Mapped(one.column, one.unit) for name, one in log.channels.items()}
