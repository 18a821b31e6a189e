"""Which change did it: each change's own part of what differs between two builds."""

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array, Bools
from urgens.studies.mixtures import MOST_EXACT, Mixtures, OneChange
from urgens.studies.rear_first_chance import rear_first_chances

ORDERS = 200  # that are drawn where there are too many changes to try each
SEED = 1
FEW_DRAWS = 500  # of each mixture; the ends are drawn in full
FIGURES = ("margin", "effort", "travel")
CHANCE = "rear_first_chance"

Worth = Callable[[Bools], Array]
Progress = Callable[[float], bool]


@dataclass(frozen=True)
class ChangePart:
    """What one change does by itself: of each figure its part, None where it has no value.

    Parts of `margin` and `rear_first_chance` are numbers [-], of `effort` [N], of `travel` [m].
    `errors` are standard errors, 0 where every order was tried.
    """

    change: OneChange
    parts: dict[str, float | None]
    errors: dict[str, float]


@dataclass(frozen=True)
class Attribution:
    """Figures before and after all changes, each change's part, and which crossed the line.

    `crossed` is the place of the last change with whose part, in the order of time, the margin went
    below zero or came above it, None where none did. `exact`: every order was tried. `missing` says
    which mixture has no value, by figure.
    """

    before: dict[str, float | None]
    after: dict[str, float | None]
    changes: tuple[ChangePart, ...]
    exact: bool
    crossed: int | None
    missing: dict[str, str]


def attributed(
    found: Mixtures, *, chance: bool = False, progress: Progress | None = None
) -> Attribution | None:
    """Return each change's own part; None where it was told to stop.

    found: what is between two builds; chance: whether that of the rear first is told as well;
    progress: told the share done, answers whether to go on [callable].
    Raises BuildErrors where spreads leave hardly a build that could be.
    Source: Shapley, A Value for n-Person Games (1953), of the changes as players (from memory).
    """
    count = len(found.changes)
    exact = count <= MOST_EXACT
    taken, shares, spread = _exact(count) if exact else _drawn(count)
    rows = {name: getattr(found.figures(taken), name) for name in FIGURES}
    if chance:
        drawn = _chances(found, taken, progress)
        if drawn is None:
            return None
        rows[CHANCE] = drawn
    missing = {
        name: _mixture_words(found, taken[int(np.argmax(np.isnan(values)))])
        for name, values in rows.items()
        if np.isnan(values).any()
    }
    parts = {name: _given(shares @ values) for name, values in rows.items()}
    errors = {name: spread(values) for name, values in rows.items()}
    changes = tuple(
        ChangePart(
            one,
            {name: parts[name][place] for name in rows},
            {name: float(errors[name][place]) for name in rows},
        )
        for place, one in enumerate(found.changes)
    )
    first, last = _ends(taken)
    before = {name: _number(values[first]) for name, values in rows.items()}
    after = {name: _number(values[last]) for name, values in rows.items()}
    return Attribution(before, after, changes, exact, _crossed(before, changes), missing)


def _number(value: float) -> float | None:
    return float(value) if math.isfinite(value) else None


def _given(parts: Array) -> list[float | None]:
    return [_number(part) for part in parts]


def _ends(taken: Bools) -> tuple[int, int]:
    """Return the rows of no change and of all of them."""
    return int(np.argmax(~taken.any(axis=1))), int(np.argmax(taken.all(axis=1)))


def _exact(count: int) -> tuple[Bools, Array, Callable[[Array], Array]]:
    """Return all mixtures (m, n), what each counts in a part (n, m), and parts' errors: none."""
    masks = np.arange(1 << count)
    taken = np.asarray((masks[:, None] >> np.arange(count)) & 1, dtype=bool)
    sizes = taken.sum(axis=1)
    weight = np.array([
        math.factorial(size) * math.factorial(max(count - size - 1, 0)) / math.factorial(count)
        for size in range(count + 1)
    ])  # fmt: skip
    shares = np.where(taken, weight[np.maximum(sizes - 1, 0)][:, None], -weight[sizes][:, None])
    return taken, shares.T, lambda values: np.zeros(count)


def _drawn(count: int) -> tuple[Bools, Array, Callable[[Array], Array]]:
    """Return mixtures along drawn orders, each with its reverse, as `_exact` does."""
    chance = np.random.default_rng(SEED)
    half = [chance.permutation(count) for _ in range(ORDERS // 2)]
    orders = np.array([*half, *(one[::-1] for one in half)])
    place = np.argsort(orders, axis=1)  # of each change in each order
    along = place[:, None, :] < np.arange(count + 1)[None, :, None]
    taken, where = np.unique(along.reshape(-1, count), axis=0, return_inverse=True)
    rows = where.reshape(len(orders), count + 1)

    def of_each(values: Array) -> Array:
        steps = np.diff(values[rows], axis=1)
        return np.take_along_axis(steps, place, axis=1)

    shares = np.zeros((count, len(taken)))
    before = np.take_along_axis(rows, place, axis=1)
    after = np.take_along_axis(rows, place + 1, axis=1)
    for change in range(count):
        np.add.at(shares[change], after[:, change], 1.0 / len(orders))
        np.add.at(shares[change], before[:, change], -1.0 / len(orders))

    def errors(values: Array) -> Array:
        pairs = of_each(values).reshape(2, -1, count).mean(axis=0)  # an order and its reverse
        return np.asarray(pairs.std(axis=0, ddof=1) / math.sqrt(len(pairs)))

    return taken, shares, errors


def _chances(found: Mixtures, taken: Bools, progress: Progress | None) -> Array | None:
    """Return the chance of the rear first of each mixture (m,) [-], None where it was stopped.

    Common draws, few of each; the ends in full, and what lies between is scaled to them.
    """
    builds = [found.build(np.flatnonzero(row)) for row in taken]
    few = rear_first_chances(builds, FEW_DRAWS, progress=progress)
    if not few:
        return None
    values, (first, last) = np.array(few), _ends(taken)
    none, whole = rear_first_chances([found.before, found.after])
    span = values[last] - values[first]
    share = taken.sum(axis=1) / max(len(found.changes), 1)
    if abs(span) < 1.0 / FEW_DRAWS:  # no scale: what is between goes by the size of the ends
        scaled = none + (values - values[first]) + (whole - none - span) * share
    else:
        scaled = none + (values - values[first]) * (whole - none) / span
    return np.asarray(scaled)


def _crossed(before: dict[str, float | None], changes: tuple[ChangePart, ...]) -> int | None:
    margin, crossed = before["margin"], None
    for place, one in enumerate(changes):
        part = one.parts["margin"]
        if margin is None or part is None:
            return None
        if (margin < 0.0) != (margin + part < 0.0):
            crossed = place
        margin += part
    return crossed


def _mixture_words(found: Mixtures, taken: Bools) -> str:
    """Return which changes are in a mixture, in words."""
    names = [one.what for one, on in zip(found.changes, taken, strict=True) if on]
    return f"with {'; '.join(names)} alone" if names else "before all changes"
