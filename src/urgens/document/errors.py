"""What is wrong with a build file, in words."""

import unicodedata
from collections.abc import Iterable
from dataclasses import dataclass

LONGEST = 400  # letters of one error; what a file says can be a megabyte long
SHOWN = 20  # errors that are said; a file can have thousands
_PICTURES = 0x2400  # where Unicode draws control characters


def plainly(words: str, longest: int = LONGEST) -> str:
    """Return words that cannot do anything to what they are shown on, their middle left out.

    Control characters are drawn; those that turn the direction of writing as well.
    """
    if len(words) > longest:
        half = longest // 2 - 20
        words = f"{words[:half]} … {len(words) - 2 * half} letters … {words[-half:]}"
    if words.isprintable():  # nearly all are, and this is asked for every edit
        return words
    return "".join(_drawn(letter) for letter in words)


def _drawn(letter: str) -> str:
    if letter < " ":
        return chr(_PICTURES + ord(letter))
    turns = letter in "\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069"
    return "\N{REPLACEMENT CHARACTER}" if turns or unicodedata.category(letter) == "Cc" else letter


@dataclass(frozen=True, slots=True)
class BuildError:
    """One fault of a document: where it is, what is wrong and what would be right."""

    path: str
    problem: str
    remedy: str

    def __str__(self) -> str:
        place = f"{self.path}: " if self.path else ""
        return plainly(f"{place}{self.problem}; {self.remedy}")


class BuildErrors(Exception):  # noqa: N818 - several at once, as the word says
    """All the faults found in one document, gathered."""

    def __init__(self, errors: Iterable[BuildError]) -> None:
        self.errors = tuple(errors)
        super().__init__("\n".join(self.lines()))

    def lines(self, most: int = SHOWN) -> list[str]:
        """Return the first of the errors, a line each, and how many more there are."""
        rows = [str(error) for error in self.errors[:most]]
        left = len(self.errors) - len(rows)
        return [*rows, f"… and {left} more"] if left > 0 else rows

    @classmethod
    def one(cls, path: str, problem: str, remedy: str) -> "BuildErrors":
        """Return the errors of a document with a single fault."""
        return cls([BuildError(path, problem, remedy)])
