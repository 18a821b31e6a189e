"""Draws of a build's figures, as what is known of each says."""

import math
import re
import zlib
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.random import Generator

from urgens.document import Build, BuildErrors
from urgens.document.evidence import known_figures
from urgens.document.kinds.valves import kind_of
from urgens.document.numeric import NumericBuild
from urgens.document.possible import possible
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.valve_law import KNEE_TOLERANCE

ALIKE = 0.5  # correlation of front and rear friction: one box of pads, one temperature
FRICTIONS = "friction"  # what the frictions have in common has a stream of its own
MOST_ROUNDS = 200  # of drawing anew what could not be
FRICTION = re.compile(r"(front|rear)\.brake\.(pad_friction|shoe\.lining_friction)")
_CASE = re.compile(r"vehicle\.load_cases\[(\d+)\]\.")


@dataclass(frozen=True)
class Spread:
    """One figure that spreads: its place, value, half its width, and its limits [SI].

    That of a whole table of knees is a share of each.
    """

    path: str
    value: float
    half_width: float
    low: float = 0.0
    high: float = np.inf
    closed: tuple[bool, bool] = (False, False)

    def outside(self, drawn: Array) -> Bools:
        """Return which draws could not be; drawn: of the figure, (n,) [SI]."""
        under = drawn < self.low if self.closed[0] else drawn <= self.low
        over = drawn > self.high if self.closed[1] else drawn >= self.high
        return np.asarray(under | over)


def spreads(build: Build, case: int | None = None) -> tuple[Spread, ...]:
    """Return the figures that spread: what evidence says, and what usually does.

    case: place of the load case whose figures alone count, None for all of them [-].
    Source: JCGM 101, draws of input quantities (from memory).
    """
    found = []
    for one in known_figures(build):
        other = _CASE.match(one.path)
        if one.half_width > 0 and (case is None or other is None or int(other[1]) == case):
            figure = one.figure
            limits = (figure.low, figure.high, figure.closed)
            found.append(Spread(one.path, one.value, one.half_width, *limits))
    return (*found, *_whole_tables(build))


def _whole_tables(build: Build) -> Iterator[Spread]:
    """Yield the valves whose knees stand in a table: all of one valve are off together."""
    for circuit, index, valve in build.valves.placed():
        together = kind_of(valve).together
        if together is None or getattr(valve, together) is None:
            continue
        place = f"valves.{circuit}[{index}].{together}"
        knees = [f"{place}[{row}][1]" for row in range(len(getattr(valve, together)))]
        if not all(_is_measured(build, knee) for knee in knees):
            yield Spread(place, 1.0, KNEE_TOLERANCE)


def _is_measured(build: Build, path: str) -> bool:
    """Tell whether a knee spreads by what was measured of it, and no more by what is usual."""
    known = build.evidence.get(path)
    return known is not None and known.state == "measured" and known.spread is not None


class Streams:
    """A stream of draws for each figure, by its path: builds that share figures share draws."""

    def __init__(self, seed: int) -> None:
        self._seed = seed
        self._streams: dict[str, Generator] = {}

    def of(self, path: str) -> Generator:
        """Return the stream of a figure; path: of it [text]."""
        if path not in self._streams:
            key = [self._seed, zlib.crc32(path.encode())]
            self._streams[path] = np.random.default_rng(key)
        return self._streams[path]


def drawn(
    build: Build, figures: tuple[Spread, ...], draws: int, chance: Generator | Streams
) -> Array:
    """Return draws of figures, shape (figures, draws) [SI].

    figures: that spread; draws: how many [-]; chance: to draw with, one for all of them or one for
    each.
    Raises BuildErrors where a spread leaves hardly a figure that could be.
    Source: normal, standard deviation half the spread, drawn anew until they could be, alone and
    together; friction front and rear correlated, the rest independent.
    """
    found = _drawn_once(figures, draws, chance)
    for _ in range(MOST_ROUNDS):
        whole = np.broadcast_to(
            possible(NumericBuild(build, laid(build, figures, found))), (draws,)
        )
        if whole.all():
            return found
        found[:, ~whole] = _drawn_once(figures, int((~whole).sum()), chance)
    raise BuildErrors.one(
        "evidence", "its spreads leave hardly a build that could be", "write smaller spreads"
    )


def _drawn_once(figures: tuple[Spread, ...], draws: int, chance: Generator | Streams) -> Array:
    """Return draws that could be each by itself."""

    def stream(path: str) -> Generator:
        return chance.of(path) if isinstance(chance, Streams) else chance

    each = [stream(figure.path).standard_normal(draws) for figure in figures]
    normal = np.array(each).reshape(len(figures), draws)
    common = stream(FRICTIONS).standard_normal(draws)
    found = np.empty_like(normal)
    for row, figure in enumerate(figures):
        if FRICTION.fullmatch(figure.path):
            normal[row] = math.sqrt(ALIKE) * common + math.sqrt(1.0 - ALIKE) * normal[row]
        deviation = figure.half_width / 2.0
        found[row] = figure.value + deviation * normal[row]
        out = figure.outside(found[row])
        for _ in range(MOST_ROUNDS):
            if not out.any():
                break
            anew = stream(figure.path).standard_normal(int(out.sum()))
            found[row, out] = figure.value + deviation * anew
            out = figure.outside(found[row])
        else:
            raise BuildErrors.one(
                f'evidence["{figure.path}"].spread',
                "leaves hardly a figure that could be",
                "write a smaller spread",
            )
    return found


def laid(build: Build, figures: tuple[Spread, ...], values: Array) -> dict[str, Floats]:
    """Return draws by the path they lie over.

    figures: that were drawn (f,); values: of them, shape
    (f, ...) [SI].
    """
    over: dict[str, Floats] = {}
    for figure, row in zip(figures, values, strict=True):
        if not figure.path.endswith((".table", ".points")):
            over[figure.path] = row
            continue
        for place, knee in _knees(build, figure.path):
            over[place] = over.get(place, knee) * row
    return over


def _knees(build: Build, table: str) -> Iterator[tuple[str, float]]:
    """Yield the knees of a valve's table with their paths [Pa]."""
    for circuit, index, valve in build.valves.placed():
        place = f"valves.{circuit}[{index}]."
        if table.startswith(place):
            for row, (_, knee) in enumerate(getattr(valve, table.removeprefix(place))):
                yield f"{table}[{row}][1]", knee.value
