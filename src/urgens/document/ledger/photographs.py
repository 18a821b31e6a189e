"""Photographs: files beside the build that say what they show."""

from collections.abc import Iterator
from pathlib import PurePosixPath

from urgens.document.ledger.history import At
from urgens.document.model import DocumentModel, Name, PartFault, Text

HEX = "0123456789abcdef"  # of a digest
LONG = 64  # SHA-256


class Photograph(DocumentModel):
    """One photograph: its file beside the build, when it was taken in, and what it shows.

    `of` is a part, a line or a joint of the layout, a record ("records[0]") or a path of the build;
    empty where it is of the whole. `sha256` tells a file that is another one now.
    """

    file: Name
    at: At | None = None
    of: Text = ""
    sha256: Text = ""
    note: Text = ""

    def rules(self) -> Iterator[PartFault]:
        """Check that the file lies beside the build or below it, and the digest is one."""
        way = PurePosixPath(self.file)
        if way.is_absolute() or ".." in way.parts:
            yield PartFault(
                "file", f'"{self.file}" lies elsewhere', "put it beside the build's file"
            )
        if self.sha256 and (len(self.sha256) != LONG or set(self.sha256) - set(HEX)):
            yield PartFault("sha256", "is no digest", "write 64 hexadecimal digits, or nothing")
