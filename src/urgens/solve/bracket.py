"""Roots of many brackets at once."""

from collections.abc import Callable

import numpy as np
import numpy.typing as npt

from urgens.physics.arrays import Array, Bools

Places = npt.NDArray[np.intp]

MOST_STEPS = 200
PATIENT = 16  # steps; what is not found by then is a jump, and halving follows it fastest
EXACT = 1e-11  # of the bracket's first span of values; closer than that is a root

NARROW = 4.0 * np.finfo(float).eps  # of the larger end; a jump is followed as far as this


def crossing(
    function: Callable[[Array], Array],
    low: Array,
    high: Array,
    below: Array,
    above: Array,
    exact: float = EXACT,
) -> Array:
    """Return where `function` rises through zero, one root for each bracket.

    function: of arrays of the brackets' shape [any].
    low: lower ends, any shape [any]; high: upper ends [any].
    below: values at `low`, negative [any]; above: values at `high`, zero or more [any].
    exact: what counts as a root, as a share of the bracket's first span of values [-].
    At a jump the upper side of the jump is returned.
    Raises ArithmeticError where a bracket does not close.
    Source: regula falsi (Illinois), with a bisection each fourth step and in the end.
    """
    low, high = np.asarray(low, dtype=float), np.asarray(high, dtype=float)
    near = exact * (above - below)
    narrow = NARROW * np.maximum(np.abs(low), np.abs(high))
    if exact > EXACT:
        narrow = narrow + (exact - EXACT) * (high - low)
    rose = np.zeros(low.shape, dtype=np.int8)  # which end moved last: 1 high, -1 low, 0 none yet
    for step in range(MOST_STEPS):
        width = high - low
        open_ = (above > near) & (width > narrow)
        if not open_.any():
            return high
        halves = step % 4 == 3 or step > PATIENT
        # Ends of a closed bracket may have come to the same value.
        share = 0.5 if halves else above / np.where(open_, above - below, 1.0)
        probe = high - np.where(open_, share * width, 0.0)
        value = function(probe)
        if not (open_ & (np.abs(value) > near)).any():
            return probe
        rises = value >= -near
        # An end that stays twice is halved, so that a curved function does not pin it (Illinois).
        below = np.where(rises, np.where(rose == 1, below * 0.5, below), value)
        above = np.where(rises, value, np.where(rose == -1, above * 0.5, above))
        low, high = np.where(rises, low, probe), np.where(rises, probe, high)
        rose = np.where(rises, 1, -1)
    raise ArithmeticError("a bracket did not close")


def straight_rise(tried: Array, values: tuple[Array, ...]) -> Array:
    """Return where the first of some functions rises through zero, each straight between steps.

    tried: rising, shape (n,), or of columns that broadcast, (n, *c) [any]; values: of each function
    at those, shape (n, *columns) [any].
    Where none rises the result means nothing. Source: by definition, in the first bracket.
    """
    over = np.maximum.reduce(np.broadcast_arrays(*values))
    first = np.maximum(np.argmax(over >= 0.0, axis=0), 1)[np.newaxis]

    def at(rows: Array, step: Places) -> Array:
        return np.asarray(np.take_along_axis(np.broadcast_to(rows, over.shape), step, axis=0)[0])

    if tried.ndim == 1:
        tried = tried.reshape(-1, *(1,) * (over.ndim - 1))
    share = np.ones(over.shape[1:])
    for one in values:
        below, above = at(one, first - 1), at(one, first)
        rises = (above >= 0.0) & (above > below)
        way = np.where(rises, above - below, 1.0)
        share = np.minimum(share, np.where(rises, np.maximum(-below, 0.0) / way, 1.0))
    start, end = at(tried, first - 1), at(tried, first)
    return np.asarray(start + share * (end - start))


def first_rise(
    function: Callable[[Array], Array],
    tried: Array,
    values: Array,
    rises: Bools,
    exact: float = EXACT,
) -> Array:
    """Return where `function` first rises through zero, for each of its columns.

    function: of arrays of the columns' shape [any]; tried: rising, shape (n,), or of columns that
    broadcast, (n, *c) [any]; values: of the function at those, shape (n, *columns) [any]; rises:
    which columns do at all (c,) [-]; exact: as in `crossing` [-].
    Elsewhere the result means nothing.
    """
    shape, columns = values.shape[1:], values.reshape(len(tried), -1)
    column, first = np.arange(columns.shape[1]), np.maximum(np.argmax(columns >= 0.0, axis=0), 1)
    below, above = columns[first - 1, column].reshape(shape), columns[first, column].reshape(shape)
    if tried.ndim == 1:
        start, end = tried[first - 1].reshape(shape), tried[first].reshape(shape)
    else:
        tried = np.broadcast_to(tried, values.shape).reshape(len(tried), -1)
        start, end = (tried[at, column].reshape(shape) for at in (first - 1, first))
    idle = ~rises | (below >= 0.0)  # nothing to find, or found at the first value already
    if not idle.any():
        return crossing(function, start, end, below, above, exact)
    return crossing(
        lambda value: np.where(idle, 0.0, function(value)),
        *(start, np.where(idle, start, end)),
        *(np.where(idle, -1.0, below), np.where(idle, 0.0, above)),
        exact,
    )
