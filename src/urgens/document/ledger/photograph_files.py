"""Photographs as files: put beside the build, each under a name of its own."""

import hashlib
import re
from pathlib import Path

from urgens.data import SUFFIX
from urgens.document.whole_file import NotRegularError, content, write_whole

FOLDER = "photographs"
LONGEST = 200  # bytes of a name; file systems take 255
UNFIT = re.compile(r"[\x00-\x1f\x7f/\\]|[\ud800-\udfff]")  # of a name that a build can hold


def put_beside(photograph: Path, build_file: Path) -> tuple[str, str]:
    """Put a photograph beside a build's file; return its name from there, and its digest.

    photograph: where it is; build_file: of the build. What lies there already under a
    name that a build can hold stays where it is; anything else is copied, and nothing of the same
    name is written over.
    Raises OSError where it cannot be read or written. Source: SHA-256 (FIPS 180-4).
    """
    raw = content(photograph)
    digest = hashlib.sha256(raw).hexdigest()
    folder = build_file.resolve().parent
    there = photograph.resolve()
    if there.is_relative_to(folder):
        parts = there.relative_to(folder).parts
        if not any(UNFIT.search(part) for part in parts):
            return "/".join(parts), digest
    own = folder / f"{build_file.name.removesuffix(SUFFIX)}-{FOLDER}"
    own.mkdir(exist_ok=True)
    target = _free(own / _fit(photograph.name), digest)
    if not target.exists():
        write_whole(target, raw)
    return target.relative_to(folder).as_posix(), digest


def _fit(name: str) -> str:
    """Return a name that is one line of text, and no longer than file systems take."""
    stem, dot, ending = UNFIT.sub("-", name).rpartition(".")
    whole = stem.encode()[: LONGEST - len(ending.encode()) - 1].decode(errors="ignore")
    return f"{whole}{dot}{ending}" if len(ending) < LONGEST // 2 else whole or "photograph"


def _free(wanted: Path, digest: str) -> Path:
    """Return a name that is free, or that holds the very same photograph."""
    number, path = 1, wanted
    while path.is_symlink() or (path.exists() and _digest(path) != digest):
        number += 1
        path = wanted.with_name(f"{wanted.stem}-{number}{wanted.suffix}")
    return path


def _digest(path: Path) -> str:
    """Return a file's digest, nothing where it is no file; raises OSError."""
    try:
        return hashlib.sha256(content(path)).hexdigest()
    except (NotRegularError, IsADirectoryError):
        return ""
