"""Cutting lines out of the lengths in which tube is sold."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

TIGHT = 1e-9  # m; what is longer than its stock by less fits it


class TooLongError(ValueError):
    """A piece that no stock length gives."""

    def __init__(self, name: str, length: float, stock: float) -> None:
        super().__init__(f"{name} is longer than the stock it is cut from")
        self.name, self.length, self.stock = name, length, stock


@dataclass(frozen=True)
class Stick:
    """One stock length: pieces cut from it, by name and length [m], and what is left [m]."""

    pieces: tuple[tuple[str, float], ...]
    left: float


def nested(pieces: Sequence[tuple[str, float]], stock: float, saw: float) -> tuple[Stick, ...]:
    """Return from which stock length each piece is cut.

    pieces: names and lengths [m]; stock: length that is sold [m]; saw: lost in each cut [m].
    Raises TooLongError where a piece is longer than the stock.

    First fit, the longest piece first; in the order given where that takes fewer.
    """
    for name, length in pieces:
        if length > stock + TIGHT:
            raise TooLongError(name, length, stock)
    longest_first = sorted(pieces, key=lambda piece: -piece[1])
    return min(_first_fit(longest_first, stock, saw), _first_fit(pieces, stock, saw), key=len)


def _first_fit(pieces: Sequence[tuple[str, float]], stock: float, saw: float) -> tuple[Stick, ...]:
    """Return the sticks, each piece from the first that still has it; the last needs no cut."""
    room: list[float] = []
    cut: list[list[tuple[str, float]]] = []
    for piece in pieces:
        needed = piece[1] + saw
        fits = (place for place, left in enumerate(room) if left + saw + TIGHT >= needed)
        place = next(fits, len(room))
        if place == len(room):
            room.append(stock)
            cut.append([])
        room[place] -= needed
        cut[place].append(piece)
    return tuple(Stick(tuple(held), max(left, 0.0)) for held, left in zip(cut, room, strict=True))


def to_buy(sticks: Sequence[Stick], stock: float, spare: float) -> int:
    """Return how many stock lengths to buy.

    sticks: of one tube; stock: length that is sold [m]; spare: share more than is cut
    [-].
    Source: common practice: a tenth more, since a line is spoilt now and then.
    """
    cut = sum(length for stick in sticks for _, length in stick.pieces)
    return max(len(sticks), int(np.ceil(cut * (1.0 + spare) / stock - TIGHT)))
