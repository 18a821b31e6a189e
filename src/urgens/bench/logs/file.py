"""A log from its file, as text or in binary form."""

from pathlib import Path

from urgens.bench.logs.binary import READERS
from urgens.bench.logs.table import LogFile
from urgens.bench.logs.text import read_text
from urgens.document import BuildErrors

LARGEST = 2 * 1024**3  # bytes


def read_log(path: Path) -> LogFile:
    """Return the log in a file.

    path: of a CSV file, or of an MDF4 or Parquet one where their libraries are installed [text].
    Raises BuildErrors where it cannot be read, or holds no figures.
    Source: numpy.loadtxt; line by line where it gives up.
    """
    reader = READERS.get(path.suffix.lower(), read_text)
    try:
        if path.stat().st_size > LARGEST:
            raise BuildErrors.one(path.name, "is larger than 2 GB", "cut it into pieces")
        if not path.is_file():
            raise BuildErrors.one(path.name, "is no file", "name a log")
        return reader(path)
    except OSError as error:
        raise BuildErrors.one(
            path.name, f"cannot be read ({error.strerror})", "look where it lies"
        ) from None
