"""Front and rear: the two axles, and what there is once for each."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Generic, TypeVar

T = TypeVar("T")
S = TypeVar("S")


class Axle(StrEnum):
    """One of the two axles; the value is its name in the build file."""

    FRONT = "front"
    REAR = "rear"

    @property
    def other(self) -> "Axle":
        """The axle that this one is not."""
        return Axle.REAR if self == Axle.FRONT else Axle.FRONT


AXLES = (Axle.FRONT, Axle.REAR)


@dataclass(frozen=True, slots=True)
class Pair(Generic[T]):
    """One thing in front, one at the rear."""

    front: T
    rear: T

    def of(self, axle: Axle) -> T:
        """Return what is at one axle; axle: which [-]."""
        return self.front if axle == Axle.FRONT else self.rear

    def __iter__(self) -> Iterator[T]:
        return iter((self.front, self.rear))

    def each(self, function: Callable[[T], S]) -> "Pair[S]":
        """Return what a function makes of both; function: of one of them [callable]."""
        return Pair(function(self.front), function(self.rear))
