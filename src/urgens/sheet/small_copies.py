"""Small copies of photographs, for a sheet or a page."""

import hashlib
from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QSize, Qt
from PySide6.QtGui import QImageReader

from urgens.document import Build
from urgens.document.photographs import Photograph
from urgens.sheet.blocks import Picture

WIDE, HIGH = 300, 225  # px of a small copy
LARGEST = 64 * 1024 * 1024  # bytes of a photograph
NO_FILE = "its build has no file yet, so that nothing lies beside it"


class UnreadPhotographError(Exception):
    """A photograph that cannot be shown; the words say why."""


def small_copies(build: Build, folder: Path | None) -> tuple[tuple[Picture, ...], tuple[str, ...]]:
    """Return small copies of a build's photographs, and words for those that cannot be shown.

    build: the document [object]; folder: where its file lies [object]. Source: the files.
    """
    found, missing = [], []
    for one in build.photographs:
        try:
            found.append(small_copy(one, folder))
        except UnreadPhotographError as error:
            missing.append(f"{one.file}: {error}.")
    return tuple(found), tuple(missing)


def small_copy(one: Photograph, folder: Path | None) -> Picture:
    """Return a small copy of one photograph, the right way up.

    one: of a build; folder: where its file lies [objects].
    Raises UnreadPhotographError with the reason. Source: the file.
    """
    if folder is None:
        raise UnreadPhotographError(NO_FILE)
    raw = read_photograph(folder / one.file)
    buffer = QBuffer()
    buffer.setData(QByteArray(raw))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    reader = QImageReader(buffer)
    reader.setAutoTransform(True)
    size = reader.size()
    if size.isValid():  # a large one is never whole in memory
        reader.setScaledSize(size.scaled(QSize(WIDE, HIGH), Qt.AspectRatioMode.KeepAspectRatio))
    image = reader.read()
    if image.isNull():
        raise UnreadPhotographError(f"is no picture that can be read ({reader.errorString()})")
    image = image.scaled(WIDE, HIGH, Qt.AspectRatioMode.KeepAspectRatio,
                         Qt.TransformationMode.SmoothTransformation)  # fmt: skip
    out = QBuffer()
    out.open(QIODevice.OpenModeFlag.WriteOnly)
    image.save(out, "PNG")  # type: ignore[call-overload]
    changed = bool(one.sha256) and hashlib.sha256(raw).hexdigest() != one.sha256
    words = [one.of, one.note, "another file than was taken in" if changed else ""]
    when = "" if one.at is None else f"{one.at:%Y-%m-%d}"
    said = ", ".join(word for word in (*words, when) if word) or one.file
    return Picture(bytes(out.data().data()), image.width(), image.height(), said)


def read_photograph(path: Path) -> bytes:
    """Return the content of a photograph's file; path: of it [object].

    Raises UnreadPhotographError with the reason. Source: the file.
    """
    try:
        if path.stat().st_size > LARGEST:
            raise UnreadPhotographError(f"is larger than {LARGEST // 1024**2} MiB")
        if not path.is_file():
            raise UnreadPhotographError("is no file")
        return path.read_bytes()
    except FileNotFoundError:
        raise UnreadPhotographError("is not there any more") from None
    except OSError as error:
        raise UnreadPhotographError(f"cannot be read ({error.strerror})") from None
