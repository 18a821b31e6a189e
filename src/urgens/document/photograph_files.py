"""Photographs as files: put beside the build, each under a name of its own."""

import hashlib
from pathlib import Path

from urgens.data import SUFFIX
from urgens.document.whole_file import write_whole

FOLDER = "photographs"


def put_beside(photograph: Path, build_file: Path) -> tuple[str, str]:
    """Put a photograph beside a build's file; return its name from there, and its digest.

    photograph: where it is; build_file: of the build [objects]. What lies there already stays
    where it is; anything else is copied, and nothing of the same name is written over.
    Raises OSError where it cannot be read or written. Source: SHA-256 (FIPS 180-4).
    """
    raw = photograph.read_bytes()
    digest = hashlib.sha256(raw).hexdigest()
    folder = build_file.resolve().parent
    there = photograph.resolve()
    if there.is_relative_to(folder):
        return there.relative_to(folder).as_posix(), digest
    own = folder / f"{build_file.name.removesuffix(SUFFIX)}-{FOLDER}"
    own.mkdir(exist_ok=True)
    target = _free(own / photograph.name, digest)
    if not target.exists():
        write_whole(target, raw)
    return target.relative_to(folder).as_posix(), digest


def _free(wanted: Path, digest: str) -> Path:
    """Return a name that is free, or that holds the very same photograph."""
    number, path = 1, wanted
    while path.exists() and hashlib.sha256(path.read_bytes()).hexdigest() != digest:
        number += 1
        path = wanted.with_name(f"{wanted.stem}-{number}{wanted.suffix}")
    return path
