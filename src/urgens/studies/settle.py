"""Which figures are still to settle: those whose spread moves the balance most come first."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from urgens.document import Build, value_at
from urgens.document.facts import half_width
from urgens.document.valves import KNEED, InertiaSensing, Limiting, Reducing
from urgens.document.wheel import Disc
from urgens.physics.arrays import Array
from urgens.physics.vehicle import Standing
from urgens.quantity import Quantity
from urgens.solve.lock import FirstLock, first_lock
from urgens.solve.press import Presses, press
from urgens.solve.system import System, system
from urgens.studies.spread import default_spread
from urgens.studies.variants import stacked, varied

LEAST_SHARE = 1e-3  # of a figure that its lower end keeps: sizes stay above zero
HIGHEST_SLOPE = 0.999


@dataclass(frozen=True)
class OpenFigure:
    """A figure nobody has measured: its place, what stands there, and how far it may be off.

    `state` is what the build says of it; `spread` None means that nothing says how far off it is.
    """

    path: str
    value: float  # SI
    text: str
    state: Literal["assumed", "as typed"]
    spread: str | None
    half_width: float  # SI


@dataclass(frozen=True)
class Settled:
    """An open figure and how far its spread moves the margin at first lock [-]."""

    figure: OpenFigure
    moves: float
    low: float  # the smallest margin at either end, in the worst load case


def open_figures(build: Build) -> tuple[OpenFigure, ...]:
    """Return the figures that are assumed, or of which nothing is said and which usually spread.

    build: the document [object].
    Source: build-file contract, evidence.
    """
    paths = [path for path, known in build.evidence.items() if known.state == "assumed"]
    paths += [path for path in usually_spread(build) if path not in build.evidence]
    found = []
    for path in paths:
        value = value_at(build, path)
        if isinstance(value, bool) or not isinstance(value, Quantity | float | int):
            continue
        known = build.evidence.get(path)
        spread = (known.spread if known is not None else None) or default_spread(build, path)
        found.append(
            OpenFigure(
                path,
                value.value if isinstance(value, Quantity) else float(value),
                value.text if isinstance(value, Quantity) else f"{value:g}",
                "as typed" if known is None else "assumed",
                spread,
                half_width(spread, value) if spread is not None else 0.0,
            )
        )
    return tuple(found)


def usually_spread(build: Build) -> list[str]:
    """Return the paths that spread where the build says nothing.

    build: the document. Source: build-file contract, evidence.
    """
    paths = []
    for axle in ("front", "rear"):
        brake = getattr(build, axle).brake
        if isinstance(brake, Disc):
            paths.append(f"{axle}.brake.pad_friction")
        elif brake.shoe_factor is not None:
            paths.append(f"{axle}.brake.shoe_factor")
        else:
            paths.append(f"{axle}.brake.shoe.lining_friction")
    for index in range(len(build.vehicle.load_cases)):
        place = f"vehicle.load_cases[{index}]"
        paths += [f"{place}.cg_height", f"{place}.front_axle", f"{place}.rear_axle"]
    for circuit in ("front", "rear"):
        for index, valve in enumerate(getattr(build.valves, circuit)):
            place = f"valves.{circuit}[{index}]"
            if isinstance(valve, Reducing | Limiting):
                paths.append(f"{place}.knee")
            if isinstance(valve, InertiaSensing):
                paths.append(f"{place}.ball_angle")
            if isinstance(valve, KNEED) and not isinstance(valve, Limiting):
                paths.append(f"{place}.slope")
    return paths


def at_both_ends(build: Build, figures: tuple[OpenFigure, ...], surfaces: Array) -> FirstLock:
    """Return the first lock with each figure at the low, then at the high end of its spread.

    build: the document [object]; figures: one or more of it [objects]; surfaces: tyre-road
    coefficients (s,) [-]. The arrays have the shape (2 figures, load cases, s): all low ends,
    then all high ends.
    Source: `first_lock`, once for all variants.
    """
    whole = stacked(_both_ends(build, figures))
    return first_lock(whole, whole.standing, surfaces)


def _both_ends(build: Build, figures: tuple[OpenFigure, ...]) -> list[System]:
    """Return a system for each figure at its low end, then for each at its high end."""
    return [system(varied(build, f.path, _end(f, sign))) for sign in (-1.0, 1.0) for f in figures]


def _end(figure: OpenFigure, sign: float) -> float:
    """Return one end of a figure's spread [SI], still a figure that could be."""
    moved = figure.value + sign * figure.half_width
    if figure.path.endswith(".slope"):
        return min(max(moved, 0.0), HIGHEST_SLOPE)
    return max(moved, LEAST_SHARE * figure.value) if figure.value > 0 else moved


def still_to_settle(build: Build, surface: float) -> tuple[Settled, ...]:
    """Return the open figures, the one that moves the balance most first.

    build: the document [object]; surface: tyre-road coefficient [-].
    The margin is the adhesion the front uses above the rear's at first lock, in each load case;
    a figure moves it as far as the worse of its two ends does in the worst load case.
    Source: one-at-a-time variation over the spread of each figure.
    """
    figures = open_figures(build)
    if not figures:
        return ()
    whole = stacked([system(build), *_both_ends(build, figures)])
    lock = first_lock(whole, whole.standing, np.array([surface]))
    margin = np.asarray(lock.front_used - lock.rear_used)
    now, ends = margin[:1], margin[1:]
    by_end = ends.reshape(2, len(figures), -1)
    moved = np.abs(by_end - now.reshape(1, 1, -1))
    known = np.isfinite(moved)
    moves = np.where(known, moved, 0.0).max(axis=(0, 2))
    low = np.where(np.isfinite(by_end), by_end, np.inf).min(axis=(0, 2))
    order = np.argsort(-moves, kind="stable")
    return tuple(Settled(figures[i], float(moves[i]), float(low[i])) for i in order)


def presses_at_both_ends(
    build: Build, figures: tuple[OpenFigure, ...], case: int, efforts: Array, surface: float
) -> Presses:
    """Return presses with each figure at the low, then at the high end of its spread.

    build: the document [object]; figures: one or more of it [objects]; case: place of the load
    case [-]; efforts: foot forces (m,) [N]; surface: tyre-road coefficient [-].
    The arrays have the shape (2 figures, m), or what broadcasts to it.
    Source: `press`, once for all variants.
    """
    whole = stacked(_both_ends(build, figures))
    standing = Standing(*(np.asarray(value)[:, case : case + 1] for value in whole.standing))
    return press(whole, efforts, standing, surface)
