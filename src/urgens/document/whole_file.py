"""Files as wholes: read where they end, written so that a whole one is there at every moment."""

import contextlib
import errno
import os
import shutil
import stat
import tempfile
from collections.abc import Iterator
from pathlib import Path

from urgens.document.errors import BuildErrors

SHOWN = 40  # letters of a file's name in that of what is written aside
LARGEST = 64 * 1024 * 1024  # bytes; a build is a few hundred kilobytes at most


class NotRegularError(OSError):
    """What a path leads to is a pipe or a device, which may never end."""


def content(path: Path) -> bytes:
    """Return what is in a file, a byte more than the largest at most; raises OSError."""
    handle = os.open(path, os.O_RDONLY | os.O_NONBLOCK)  # a pipe would be waited for
    try:
        kind = os.fstat(handle).st_mode
        if stat.S_ISDIR(kind):
            raise IsADirectoryError(errno.EISDIR, "it is a directory", str(path))
        if not stat.S_ISREG(kind):
            raise NotRegularError(errno.ENODEV, "it is no file", str(path))
        with os.fdopen(handle, "rb", closefd=False) as file:
            return file.read(LARGEST + 1)
    finally:
        os.close(handle)


@contextlib.contextmanager
def written_to(path: Path, remedy: str = "choose another place") -> Iterator[None]:
    """Say in words, with the remedy, that a path cannot be written to; raises BuildErrors then."""
    try:
        yield
    except OSError as error:
        said = f"cannot be written ({error.strerror})"
        raise BuildErrors.one(str(path), said, remedy) from None


def write_whole(path: Path, content: bytes, *, keep: bool = False) -> None:
    """Write a file so that the one before or the new one is there whole at every moment.

    `keep`: the one before stays beside it with `.bak` added. What is no file, such as a terminal,
    is written through to, unless one is to be kept. Raises OSError.
    """
    target = path.resolve()
    if target.exists() and not stat.S_ISREG(target.stat().st_mode):
        if keep or target.is_dir():
            raise NotRegularError(errno.EISDIR, "it is no file", str(target))
        target.write_bytes(content)
        return
    handle, name = tempfile.mkstemp(
        prefix=f".{target.name[:SHOWN]}.", suffix=".tmp", dir=target.parent
    )
    aside = Path(name)
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        if target.exists():
            shutil.copymode(target, aside)
            if keep:
                _keep(target)
        else:
            aside.chmod(0o666 & ~_umask())
        aside.replace(target)
    except BaseException:
        aside.unlink(missing_ok=True)
        raise
    _sync_directory(target.parent)


def _keep(target: Path) -> None:
    """Make `target` also reachable as its `.bak`, replacing an older one in one step."""
    backup = target.with_name(target.name + ".bak")
    fresh = target.with_name(f".{target.name}.bak.tmp")
    fresh.unlink(missing_ok=True)
    try:
        os.link(target, fresh)
    except OSError:  # file systems without hard links
        shutil.copy2(target, fresh)
    fresh.replace(backup)


def _umask() -> int:
    mask = os.umask(0)
    os.umask(mask)
    return mask


def _sync_directory(directory: Path) -> None:
    with contextlib.suppress(OSError):  # not every file system syncs directories
        handle = os.open(directory, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)
