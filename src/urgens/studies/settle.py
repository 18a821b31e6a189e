"""Which figures are still to settle: those whose spread moves the balance most come first."""

from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.document.evidence import KnownFigure, open_figures
from urgens.physics.arrays import Array, Floats
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.lock import FirstLock, first_lock
from urgens.solve.press import Presses, press
from urgens.solve.roads import every_road
from urgens.solve.system import System, system


@dataclass(frozen=True)
class Settled:
    """An open figure and how far its spread moves the margin at first lock [-]."""

    figure: KnownFigure
    moves: float
    low: float  # the smallest margin at either end, in the worst load case and road


def at_both_ends(build: Build, figures: tuple[KnownFigure, ...], surfaces: Array) -> FirstLock:
    """Return the first lock with each figure at the low, then at the high end of its spread.

    figures: one or more of it; surfaces: tyre-road
    coefficients (s,) [-]. The arrays have the shape (2 figures, load cases, s): all low ends,
    then all high ends.
    """
    made, standing = _variants(build, figures, columns=2)
    return _of_each(first_lock(made, standing, surfaces), len(figures))


def _of_each(lock: FirstLock, figures: int) -> FirstLock:
    """Return a lock without its first row, which is the build as it stands."""
    arrays = {name: np.asarray(getattr(lock, name)) for name in lock.__dataclass_fields__}
    shape = (2 * figures + 1, *arrays["axle"].shape[-2:])
    return FirstLock(**{name: np.broadcast_to(a, shape)[1:] for name, a in arrays.items()})


def _variants(
    build: Build, figures: tuple[KnownFigure, ...], columns: int
) -> tuple[System, StaticVehicle]:
    """Return one system: the build, each figure at its low end, then each at its high end.

    Variants go down the first axis; load cases and whatever else have `columns` more.
    """
    count = 2 * len(figures) + 1
    over: dict[str, Floats] = {}
    for place, one in enumerate(figures):
        values = np.full(count, one.value)
        values[1 + place] = one.figure.inside(one.value - one.half_width)
        values[1 + len(figures) + place] = one.figure.inside(one.value + one.half_width)
        over[one.path] = values.reshape(count, *(1 for _ in range(columns)))
    made = system(build, over=over)
    return made, StaticVehicle(
        *(_cases_down(np.asarray(value), columns) for value in made.standing)
    )


def _cases_down(value: Array, columns: int) -> Array:
    """Return loads, their load cases along the axis after the variants'."""
    if value.ndim == 1:
        return value.reshape(1, -1, *(1 for _ in range(columns - 1)))
    return np.moveaxis(value, -1, 1).reshape(len(value), -1, *(1 for _ in range(columns - 1)))


def still_to_settle(
    build: Build, figures: tuple[KnownFigure, ...] | None = None
) -> tuple[Settled, ...]:
    """Return the open figures, the one that moves the balance most first.

    figures: its open ones, where they are known already.
    The margin is what the front uses above the rear at first lock, as a share of the road's
    coefficient, in each load case on every judged road; a figure moves it as far as the worse of
    its two ends does in the worst of them.
    Source: one-at-a-time variation over the spread of each figure.
    """
    figures = open_figures(build) if figures is None else figures
    if not figures:
        return ()
    roads = np.array(every_road(build))
    lock = first_lock(*_variants(build, figures, columns=2), roads)
    shape = (2 * len(figures) + 1, len(build.vehicle.load_cases), len(roads))
    apart = np.asarray((lock.front_used - lock.rear_used) / roads)
    margin = np.broadcast_to(apart, shape).reshape(len(apart), -1)
    now, by_end = margin[:1], margin[1:].reshape(2, len(figures), -1)
    moved = np.abs(by_end - now)
    known = np.isfinite(moved)
    moves = np.where(known, moved, 0.0).max(axis=(0, 2))
    low = np.where(np.isfinite(by_end), by_end, np.inf).min(axis=(0, 2))
    order = np.argsort(-moves, kind="stable")
    return tuple(Settled(figures[i], float(moves[i]), float(low[i])) for i in order)


def presses_at_both_ends(
    build: Build, figures: tuple[KnownFigure, ...], case: int, efforts: Array, surface: float
) -> Presses:
    """Return presses with each figure at the low, then at the high end of its spread.

    figures: one or more of it; case: place of the load
    case [-]; efforts: foot forces (m,) [N]; surface: tyre-road coefficient [-].
    The arrays have the shape (2 figures, m).
    """
    made, standing = _variants(build, figures, columns=1)
    chosen = StaticVehicle(*(np.asarray(value)[:, case : case + 1] for value in standing))
    found = press(made, efforts, chosen, surface)
    shape = (2 * len(figures) + 1, efforts.size)
    arrays = {name: getattr(found, name) for name in Presses.__dataclass_fields__}
    return Presses(**{name: np.broadcast_to(a, shape)[1:] for name, a in arrays.items()})
