"""How often the rear locks first under the spread of all figures, with any load on any road."""

import os
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array, Bools
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.rear_first import rear_first_anywhere
from urgens.solve.roads import every_road
from urgens.solve.system import system
from urgens.studies.draws import Spread, Streams, drawn, laid, spreads

DRAWS = 20_000
SEED = 1
CHUNK = 1_000  # draws solved at a time
WORKERS = min(os.cpu_count() or 1, 4)

Progress = Callable[[float], bool]


def rear_first_chances(
    builds: Sequence[Build],
    draws: int = DRAWS,
    seed: int = SEED,
    progress: Progress | None = None,
) -> tuple[float, ...]:
    """Return for each build the share of draws in which the rear locks first [-].

    With any load case on any road from ice to the target's. Every figure has a stream of draws of
    its own, by its path, so that builds which share figures share their draws.
    draws: how many [-]; seed: of them [-]; progress: told the share done, answers whether to go on
    [callable]; none at all where it was told to stop.
    Raises BuildErrors where spreads leave hardly a build that could be.
    Source: Monte Carlo with common random numbers; `solve.rear_first`; JCGM 101 (from memory).
    """
    found: list[float] = []
    for number, build in enumerate(builds):
        if progress is not None and not progress(number / len(builds)):
            return ()
        found.append(_chance(build, draws, seed))
    return tuple(found)


def _chance(build: Build, draws: int, seed: int) -> float:
    figures = spreads(build)
    values = drawn(build, figures, draws, Streams(seed))
    parts = [slice(start, start + CHUNK) for start in range(0, draws, CHUNK)]
    with ThreadPoolExecutor(WORKERS) as pool:  # NumPy lets go of the interpreter in its loops
        rear = [*pool.map(lambda part: _rear_first(build, figures, values[:, part]), parts)]
    return float(np.concatenate(rear).mean())


def _rear_first(build: Build, figures: tuple[Spread, ...], values: Array) -> Bools:
    """Return draw by draw whether the rear is first anywhere (n,)."""
    roads, count = every_road(build), values.shape[1]
    made = system(build, over=laid(build, figures, values[:, :, None]))
    # Draws go down, load cases across: what spreads of them comes with an axis between.
    across = (np.asarray(one) for one in made.standing)
    standing = StaticVehicle(*(one[:, 0] if one.ndim > 2 else one for one in across))
    rear = rear_first_anywhere(replace(made, standing=standing), standing, roads[0], roads[-1])
    shape = (count, len(build.vehicle.load_cases))
    return np.asarray(np.broadcast_to(rear, shape).any(axis=-1))
