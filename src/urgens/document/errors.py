"""What is wrong with a build file, in words."""

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class BuildError:
    """One fault of a document: where it is, what is wrong and what would be right."""

    path: str
    problem: str
    remedy: str

    def __str__(self) -> str:
        place = f"{self.path}: " if self.path else ""
        return f"{place}{self.problem}; {self.remedy}"


class BuildErrors(Exception):  # noqa: N818 - several at once, as the word says
    """All the faults found in one document, gathered."""

    def __init__(self, errors: Iterable[BuildError]) -> None:
        self.errors = tuple(errors)
        super().__init__("\n".join(str(error) for error in self.errors))

    @classmethod
    def one(cls, path: str, problem: str, remedy: str) -> "BuildErrors":
        """Return the errors of a document with a single fault."""
        return cls([BuildError(path, problem, remedy)])
