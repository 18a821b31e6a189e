"""Small copies of photographs, for a sheet or a page: kept while the file is as it was.

Pictures come from anybody. Only formats that are dots are read, told by how the file begins, never
more of them than a camera makes, and only files that lie below the build's own folder.
"""

import hashlib
from pathlib import Path
from threading import Lock
from typing import NamedTuple

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QSize, Qt
from PySide6.QtGui import QImage, QImageReader

from urgens.document import Build
from urgens.document.ledger.photographs import Photograph
from urgens.document.whole_file import LARGEST, NotRegularError, content
from urgens.sheet.blocks import Picture

# px of a small copy
WIDE = 300
HIGH = 225
MOST_DOTS = 120_000_000  # of a photograph; the largest cameras make about as many
KEPT = 400  # small copies, of some 100 kB each
# How a file of each format begins; from what it is called a file's format is never taken.
BEGINS = {
    "jpeg": (b"\xff\xd8\xff",),
    "png": (b"\x89PNG\r\n\x1a\n",),
    "webp": (b"RIFF",),
    "gif": (b"GIF87a", b"GIF89a"),
    "bmp": (b"BM",),
}
ENDINGS = ("jpg", "jpeg", "png", "webp", "gif", "bmp")  # that are offered
NO_FILE = "its build has no file yet, so that nothing lies beside it"


class UnreadPhotographError(Exception):
    """A photograph that cannot be shown; the words say why."""


class _Copy(NamedTuple):
    """A small copy as PNG, its size in px, the digest of the photograph; or why there is none."""

    png: bytes = b""
    wide: int = 0
    high: int = 0
    sha256: str = ""
    why_not: str = ""


class _Stamp(NamedTuple):
    """What tells that a file is another than it was: where it is, its inode, size and time."""

    path: str
    inode: int
    size: int
    changed: int  # ns


def small_copies(build: Build, folder: Path | None) -> tuple[tuple[Picture, ...], tuple[str, ...]]:
    """Return small copies of a build's photographs, and words for those that cannot be shown.

    folder: where its file lies.
    """
    found, missing = [], []
    for one in build.photographs:
        try:
            found.append(small_copy(one, folder))
        except UnreadPhotographError as error:
            missing.append(f"{one.file}: {error}.")
    return tuple(found), tuple(missing)


def small_copy(photograph: Photograph, folder: Path | None) -> Picture:
    """Return a small copy of one photograph, the right way up.

    photograph: of a build; folder: where its file lies.
    Raises UnreadPhotographError with the reason.
    """
    copy = _copied(_stamp_of(photograph, folder))
    if copy.why_not:
        raise UnreadPhotographError(copy.why_not)
    changed = bool(photograph.sha256) and copy.sha256 != photograph.sha256
    words = [photograph.of, photograph.note, "another file than was taken in" if changed else ""]
    when = "" if photograph.at is None else f"{photograph.at:%Y-%m-%d}"
    said = ", ".join(word for word in (*words, when) if word) or photograph.file
    return Picture(copy.png, copy.wide, copy.high, said)


def is_at_hand(photograph: Photograph, folder: Path | None) -> bool:
    """Tell whether a small copy, or why there is none, is known without reading a picture.

    photograph: of a build; folder: where its file lies.
    """
    try:
        return _stamp_of(photograph, folder) in _kept
    except UnreadPhotographError:
        return True


def check_photograph(path: Path) -> None:
    """Raise UnreadPhotographError where a file is no photograph; path: of it."""
    why = _copied(_stamp(path)).why_not
    if why:
        raise UnreadPhotographError(why)


def _stamp_of(photograph: Photograph, folder: Path | None) -> _Stamp:
    """Return what tells the file of a photograph; it lies below the build's folder itself."""
    if folder is None:
        raise UnreadPhotographError(NO_FILE)
    path = folder / photograph.file
    try:
        beside = path.resolve().is_relative_to(folder.resolve())
    except OSError as error:  # links that lead round in a ring
        raise UnreadPhotographError(f"cannot be read ({error.strerror})") from None
    if not beside:
        raise UnreadPhotographError("is a link that leads away from the build's folder")
    return _stamp(path)


def _stamp(path: Path) -> _Stamp:
    try:
        found = path.stat()
    except FileNotFoundError:
        raise UnreadPhotographError("is not there any more") from None
    except (OSError, ValueError) as error:  # a NUL in a path is no value
        why = getattr(error, "strerror", None) or error
        raise UnreadPhotographError(f"cannot be read ({why})") from None
    return _Stamp(str(path), found.st_ino, found.st_size, found.st_mtime_ns)


_kept: dict[_Stamp, _Copy] = {}
_keeping = Lock()  # pages and tasks make copies


def _copied(stamp: _Stamp) -> _Copy:
    """Return the small copy of a file, made where none is kept."""
    found = _kept.get(stamp)
    if found is None:
        found = _made(stamp)
        with _keeping:
            while len(_kept) >= KEPT:
                del _kept[next(iter(_kept))]
            _kept[stamp] = found
    return found


def _made(stamp: _Stamp) -> _Copy:
    try:
        raw = _content(stamp)
        image = _decoded(raw)
    except UnreadPhotographError as error:
        return _Copy(why_not=str(error))
    out = QBuffer()
    out.open(QIODevice.OpenModeFlag.WriteOnly)
    image.save(out, "PNG")  # type: ignore[call-overload]
    digest = hashlib.sha256(raw).hexdigest()
    return _Copy(bytes(out.data().data()), image.width(), image.height(), digest)


def _content(stamp: _Stamp) -> bytes:
    try:
        raw = content(Path(stamp.path))
    except (NotRegularError, IsADirectoryError):
        raise UnreadPhotographError("is no file") from None
    except OSError as error:
        raise UnreadPhotographError(f"cannot be read ({error.strerror})") from None
    if len(raw) > LARGEST:
        raise UnreadPhotographError(f"is larger than {LARGEST // 1024**2} MiB")
    return raw


def _decoded(raw: bytes) -> QImage:
    """Return a picture in the size of a small copy; raises UnreadPhotographError."""
    form = next((name for name, heads in BEGINS.items() if raw.startswith(heads)), None)
    if form is None:
        kinds = ", ".join(name.upper() for name in BEGINS)
        raise UnreadPhotographError(f"is no picture that can be read: {kinds} are")
    buffer = QBuffer()
    buffer.setData(QByteArray(raw))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    reader = QImageReader(buffer, QByteArray(form.encode()))
    reader.setAutoDetectImageFormat(False)
    reader.setAutoTransform(True)
    size, box = reader.size(), QSize(WIDE, HIGH)
    if size.isValid():  # a large one is never whole in memory
        if size.width() * size.height() > MOST_DOTS:
            raise UnreadPhotographError(
                f"has {size.width()} × {size.height()} dots; {MOST_DOTS:,} are the most"
            )
        reader.setScaledSize(size.scaled(box, Qt.AspectRatioMode.KeepAspectRatio))
    image = reader.read()
    if image.isNull():
        raise UnreadPhotographError(f"is no picture that can be read ({reader.errorString()})")
    return image.scaled(
        box, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
    )
