"""Reading and writing build files, without ever losing one."""

import errno
import json
import math
from collections.abc import Iterator
from pathlib import Path

from urgens.document.build import FORMAT, VERSION, Build
from urgens.document.edits import minus  # noqa: F401 - registers its step
from urgens.document.edits.edit import dumped
from urgens.document.edits.migrate import migrated
from urgens.document.edits.setups import whole
from urgens.document.errors import BuildError, BuildErrors
from urgens.document.model import in_words
from urgens.document.validation import HALF, validated
from urgens.document.whole_file import LARGEST, NotRegularError, content, write_whole


def load(path: Path) -> Build:
    """Return the build in the file at `path`.

    Raises BuildErrors, also where the file cannot be read.
    """
    return loads(_text(path))


def loads(text: str) -> Build:
    """Return the build written in `text`, the content of a build file; raises BuildErrors."""
    document = _parsed(text)
    if not isinstance(document, dict):
        raise BuildErrors.one("", "the file holds no JSON object", _START)
    if document.get("format") != FORMAT:
        raise BuildErrors.one("format", f'is not "{FORMAT}"', _START)
    version = document.get("version")
    if version is not None and type(version) is not int:  # true and 1.0 count as 1 elsewhere
        raise BuildErrors.one("version", f"is {in_words(version)}", f"write {VERSION}")
    if version is not None and version > VERSION:
        raise BuildErrors.one(
            "version",
            f"the file is of version {version}, made by a newer Urgens; this one reads "
            f"version {VERSION}",
            "open it with the newer Urgens; nothing in it was changed",
        )
    build = validated(migrated(document, VERSION))
    return whole(build)


def read_json(path: Path) -> object:
    """Return the JSON in the file at `path`; raises BuildErrors, naming the line."""
    return _parsed(_text(path))


def dumps(build: Build) -> str:
    """Return the content of the file of `build`: what was given, as it was typed."""
    return json.dumps(dumped(build), indent=2, ensure_ascii=False) + "\n"


def save(build: Build, path: Path) -> None:
    """Write `build` to `path` so that a whole file is there at every moment.

    The file before it is kept beside it with `.bak` added. Raises OSError.
    """
    target = path.resolve()
    if target.exists() and is_read_only(target):
        raise PermissionError(errno.EACCES, "the file is marked read-only", str(target))
    try:
        text = dumps(build).encode()
    except UnicodeEncodeError:
        raise OSError(errno.EILSEQ, f"a text in it {HALF}; take that out", str(target)) from None
    write_whole(path, text, keep=True)


def is_read_only(path: Path) -> bool:
    """Tell whether nobody may write the file, whatever the rights of who asks. Raises OSError."""
    return not path.stat().st_mode & 0o222


_START = f'a build file starts {{"format": "{FORMAT}", "version": {VERSION}, …'


def _text(path: Path) -> str:
    try:
        raw = content(path)
    except IsADirectoryError:
        raise BuildErrors.one("", "it is a directory", "name a file in it") from None
    except NotRegularError:
        raise BuildErrors.one("", "it is no file", "name one that is stored on a disk") from None
    except FileNotFoundError:
        raise BuildErrors.one("", "there is no such file", "check the name and folder") from None
    except OSError as error:
        raise BuildErrors.one(
            "", f"it cannot be read ({error.strerror})", "check its permissions and the disk"
        ) from None
    if len(raw) > LARGEST:
        raise BuildErrors.one(
            "", f"it is larger than {LARGEST // 1024**2} MiB", "a build file is far smaller"
        )
    try:
        return raw.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BuildErrors.one(
            "", f"byte {error.start + 1} is not UTF-8 text", "save it as UTF-8"
        ) from None


def _parsed(text: str) -> object:
    if not text.strip():
        raise BuildErrors.one("", "the file is empty", _START)
    try:
        found = json.loads(text, object_pairs_hook=_without_twins)
    except json.JSONDecodeError as error:
        place = f"line {error.lineno}, column {error.colno}"
        words = error.msg[0].lower() + error.msg[1:]
        if error.pos >= len(text.rstrip()) or words.startswith("unterminated"):
            raise BuildErrors.one(
                place, f"the file ends too early ({words})", "it may be cut off: look for its .bak"
            ) from None
        raise BuildErrors.one(
            place, f"it is not JSON ({words})", "mend it there, or open its .bak"
        ) from None
    except RecursionError:
        raise BuildErrors.one(
            "", "brackets are nested too deeply", "a build is nested eight deep at most"
        ) from None
    except ValueError as error:  # an integer of thousands of digits
        raise BuildErrors.one("", f"a number cannot be read ({error})", "shorten it") from None
    endless = list(_endless(found, ""))
    if endless:
        raise BuildErrors(endless)
    return found


def _without_twins(pairs: list[tuple[str, object]]) -> dict[str, object]:
    fields = dict(pairs)
    if len(fields) < len(pairs):
        names = [name for name, _ in pairs]
        twin = next(name for name in names if names.count(name) > 1)
        raise BuildErrors.one(twin, "is given twice in one object", "keep one of the two")
    return fields


def _endless(value: object, place: str) -> Iterator[BuildError]:
    """Yield the places at which no finite number stands: NaN, Infinity, or one too large."""
    if isinstance(value, dict):
        for name, inside in value.items():
            yield from _endless(inside, f"{place}.{name}" if place else name)
    elif isinstance(value, list):
        for index, inside in enumerate(value):
            yield from _endless(inside, f"{place}[{index}]")
    elif isinstance(value, float) and not math.isfinite(value):
        name = {"nan": "NaN", "inf": "Infinity", "-inf": "-Infinity"}[str(value)]
        yield BuildError(place, f"{name} is not a figure", "write a finite number or a quantity")
