"""Lines that are there already: tried on a route, or found again among those of the layout."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from urgens.document.layout.layout import BrakeLine, LineEnd
from urgens.document.layout.line_sheets import MadeLine
from urgens.physics.bends import BendSheet
from urgens.quantity import LENGTH, QuantityError, Units, UnitSystem, show

# M, rad: what the hand takes up when it is fitted
NEAR = 0.004
ASKEW = np.radians(4.0)
SQUARE = float(np.pi / 2.0)
TIGHT = 1e-9  # m
# What a doubt costs beside a metre of wrong length; common practice.
PER_BEND = 0.10
PER_END = 0.15
SAME_MARK = 10.0


@dataclass(frozen=True)
class OldLine:
    """A line in the hand: its length without flares [m], its bends, its ends, its marking.

    `bends` None where only their number `count` is known.
    """

    length: float
    bends: BendSheet | None = None
    count: int | None = None
    ends: tuple[LineEnd, ...] = ()
    marking: str = ""


@dataclass(frozen=True)
class OldLineFit:
    """How an old line does on a route: fits, after which bends are made anew, short by so much [m].

    `turned` where it goes in with its other end first; `other_nuts` where the nuts do not fit.
    """

    fits: bool
    rebend: tuple[int, ...]
    short: float
    turned: bool
    other_nuts: bool


@dataclass(frozen=True)
class OldBend:
    """One bend of a line in the hand: where it begins from the first end [m], turn, angle [rad].

    One that was `folded` for the parcel is no bend of the line: it is straightened.
    """

    at: float
    turn: float = 0.0
    angle: float = SQUARE
    folded: bool = False


def sheet_in_hand(bends: Sequence[OldBend], length: float, radius: float) -> BendSheet:
    """Return the bends of a line in the hand as a sheet, without those it was folded by.

    bends: in any order; length: of the line, without flares [m]; radius: of the bends [m].
    Raises QuantityError naming the bend that has no room.
    Source: by definition.
    """
    row = sorted((one for one in bends if not one.folded), key=lambda one: one.at)
    feed, end = [], 0.0
    for number, one in enumerate(row, start=1):
        if one.at < end - TIGHT or one.at + radius * one.angle > length + TIGHT:
            raise QuantityError(f"bend {number} has no room", "move it, or make it smaller")
        feed.append(max(one.at - end, 0.0))
        end = one.at + radius * one.angle
    turns = [0.0 if place == 0 else one.turn for place, one in enumerate(row)]
    angles = np.array([one.angle for one in row])
    return BendSheet(np.array(feed), np.array(turns), angles, max(length - end, 0.0), radius)


def turned(sheet: BendSheet) -> BendSheet:
    """Return the bends of the same line from its other end; sheet: of it.

    Straights and angles in the other order; a turn is the same about either way.
    """
    rotation = np.append(0.0, sheet.rotation[:0:-1]) if sheet.rotation.size else sheet.rotation
    straights = sheet.straights[::-1]
    return BendSheet(
        straights[:-1], rotation, sheet.angle[::-1], float(straights[-1]), sheet.radius
    )


def tried(old: OldLine, line: MadeLine) -> OldLineFit | None:
    """Return how an old line does on the route of a line, None where that cannot be bent.

    old: in the hand; line: the line of the layout.
    Either end first, whichever has less to be made anew.
    Source: compared bend by bend, within what the hand takes up.
    """
    wanted = line.sheet
    if wanted is None:
        return None
    ways = [_tried_one(old, line.line, wanted, other=False)]
    other = replace(old, bends=None if old.bends is None else turned(old.bends))
    ways.append(_tried_one(other, line.line, wanted, other=True))
    return min(ways, key=lambda one: (one.short, len(one.rebend), one.other_nuts, one.turned))


def _tried_one(old: OldLine, line: BrakeLine, wanted: BendSheet, *, other: bool) -> OldLineFit:
    length = old.length if old.bends is None else old.bends.length
    short = max(wanted.length - length - NEAR, 0.0)
    short = short + NEAR if short else 0.0
    rebend = _differing(old.bends, wanted)
    ends = old.ends[::-1] if other else old.ends
    other_nuts = bool(ends) and bool(line.ends) and ends != line.ends
    fits = not short and not rebend and not other_nuts
    return OldLineFit(fits, rebend, short, other, other_nuts)


def _differing(bends: BendSheet | None, wanted: BendSheet) -> tuple[int, ...]:
    """Return the bends, from 1 on, that are others than wanted; all of another number of them."""
    every = tuple(range(1, len(wanted.angle) + 1))
    if bends is None or len(bends.angle) != len(wanted.angle):
        return every
    far = np.abs(bends.feed - wanted.feed) > NEAR
    turn = np.angle(np.exp(1j * (bends.rotation - wanted.rotation)))
    askew = (np.abs(turn) > ASKEW) | (np.abs(bends.angle - wanted.angle) > ASKEW)
    return tuple(int(place) + 1 for place in np.flatnonzero(far | askew))


def ranked(old: OldLine, lines: Sequence[MadeLine]) -> tuple[tuple[MadeLine, float], ...]:
    """Return the layout's lines, the likeliest to be an unlabelled one first, with what is against.

    old: in the hand; lines: lines of the layout. What is against counts as a
    wrong length of so much [m].
    Source: length, number of bends, ends, marking; common practice.
    """
    found = [(one, _against(old, one)) for one in lines if one.sheet is not None]
    return tuple(sorted(found, key=lambda pair: pair[1]))


def _against(old: OldLine, line: MadeLine) -> float:
    sheet = line.sheet
    assert sheet is not None
    length = old.length if old.bends is None else old.bends.length
    count = old.count if old.bends is None else len(old.bends.angle)
    against = abs(sheet.length - length)
    if count is not None:
        against += PER_BEND * abs(len(sheet.angle) - count)
    if old.ends and line.line.ends:
        pairs = (old.ends, old.ends[::-1])
        against += PER_END * min(
            sum(one != end for one, end in zip(ends, line.line.ends, strict=False))
            for ends in pairs
        )
    marks = old.marking.strip().casefold(), line.line.marking.strip().casefold()
    if all(marks):
        against += -SAME_MARK if marks[0] == marks[1] else PER_END
    return float(against)


def tried_words(fit: OldLineFit, units: Units | UnitSystem) -> Iterator[str]:
    """Yield how an old line does, in words.

    fit: of it.
    """
    way = ", its other end first" if fit.turned else ""
    if fit.short:
        yield f"too short by {show(fit.short, LENGTH, units)}"
    elif fit.rebend:
        bends = ", ".join(str(bend) for bend in fit.rebend)
        yield f"fits after bend{'s' if len(fit.rebend) > 1 else ''} {bends} made anew{way}"
    else:
        yield f"fits{way}"
    if fit.other_nuts and not fit.short:
        yield "with other nuts"
