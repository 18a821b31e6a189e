"""Roots of many brackets at once."""

from collections.abc import Callable

import numpy as np

from urgens.physics.arrays import Array

MOST_STEPS = 200
PATIENT = 16  # steps; what is not found by then is a jump, and halving follows it fastest
EXACT = 1e-9  # of the bracket's first span of values; closer than that is a root

NARROW = 4.0 * np.finfo(float).eps  # of the larger end; a jump is followed as far as this


def crossing(
    function: Callable[[Array], Array], low: Array, high: Array, below: Array, above: Array
) -> Array:
    """Return where `function` rises through zero, one root for each bracket.

    function: of arrays of the brackets' shape [any].
    low: lower ends, any shape [any]; high: upper ends [any].
    below: values at `low`, negative [any]; above: values at `high`, zero or more [any].
    At a jump the upper side of the jump is returned.
    Raises ArithmeticError where a bracket does not close.
    Source: regula falsi (Illinois), with a bisection each fourth step and in the end.
    """
    low, high = np.array(low, dtype=float), np.array(high, dtype=float)
    near = EXACT * (above - below)
    narrow = NARROW * np.maximum(np.abs(low), np.abs(high))
    rose = np.zeros(low.shape, dtype=np.int8)  # which end moved last: 1 high, -1 low, 0 none yet
    for step in range(MOST_STEPS):
        open_ = (above > near) & (high - low > narrow)
        if not open_.any():
            return high
        halves = step % 4 == 3 or step > PATIENT
        share = 0.5 if halves else above / np.where(open_, above - below, 1.0)
        probe = np.where(open_, high - share * (high - low), high)
        value = function(probe)
        if (np.abs(value) <= near)[open_].all():
            return probe
        rises = value >= -near
        # An end that stays twice is halved, so that a curved function does not pin it (Illinois).
        below = np.where(rises, np.where(rose == 1, below * 0.5, below), value)
        above = np.where(rises, value, np.where(rose == -1, above * 0.5, above))
        low, high = np.where(rises, low, probe), np.where(rises, probe, high)
        rose = np.where(rises, 1, -1)
    raise ArithmeticError("a bracket did not close")
