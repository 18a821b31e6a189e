"""The line of a valve that reduces, fitted to pairs of pressures: exact, no start value."""

from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array

SURE = 0.95  # of limits
FINE = 1500  # places of the knee that limits are looked for at
BENDS = 160  # places of the bend of two lines
EDGE = 0.05  # share of the ends where none is
BORES = (
    0.3,
    3.0,
)  # of one line's pressure over the other's below its knee: no bores are farther apart
PAIRS = 32  # places of each of two knees
CLOSER = 3  # rounds closer in
FEW = 9  # places then


def _off(value: float, limits: tuple[float, float]) -> float:
    return max(value - limits[0], limits[1] - value)


@dataclass(frozen=True)
class Hinge:
    """out = in − offset up to the knee, then rising with `slope`.

    Knee and offset [Pa], slope [-]; limits of 95 %; `scatter` of one reading [Pa]; `squares` left
    over [Pa²]; how many `points`.
    """

    knee: float
    slope: float
    offset: float
    knee_limits: tuple[float, float]
    slope_limits: tuple[float, float]
    scatter: float
    squares: float
    points: int

    @property
    def knee_off(self) -> float:
        """How far the knee may be off, the wider of both ways [Pa]."""
        return _off(self.knee, self.knee_limits)

    def outlet(self, inlet: Array) -> Array:
        """Return the fitted outlet pressure [Pa]; inlet: any shape [Pa]."""
        above = np.maximum(inlet - self.knee, 0.0)
        return np.asarray(np.minimum(inlet, self.knee) - self.offset + self.slope * above)


def fit_hinge(inlet: Array, outlet: Array, least_scatter: float = 0.0) -> Hinge:
    """Return the hinge that fits pairs of pressures best.

    inlet, outlet: shape (n,), n of 4 or more [Pa]; least_scatter: of one reading, where fewer
    points agree better by chance [Pa].
    Raises ValueError for fewer points, or where all inlets are the same.
    Source: segmented regression, least squares over all splits: D. J. Hudson, Fitting segmented
    curves whose join points have to be estimated (1966); limits by profile likelihood (from
    memory).
    """
    if inlet.size < 4 or np.ptp(inlet) <= 0.0:
        raise ValueError("four readings at different pressures are needed")
    knees = _candidates(inlet, outlet)
    squares = _Over(inlet, outlet, knees)
    best = int(np.argmin(squares.least))
    knee, slope, least = knees[best], squares.slope[best], float(squares.least[best])
    freedom = max(inlet.size - 3, 1)
    scatter = max(np.sqrt(least / freedom), least_scatter)
    limit = least + (_student(freedom) * scatter) ** 2
    grid = np.union1d(np.linspace(inlet.min(), inlet.max(), FINE), knees)
    inside = _Over(inlet, outlet, grid)
    return Hinge(
        knee=float(knee),
        slope=float(slope),
        offset=float(-squares.start[best]),
        knee_limits=_where_below(grid, inside.least, limit),
        slope_limits=inside.slopes_within(limit),
        scatter=float(scatter),
        squares=least,
        points=inlet.size,
    )


def _student(freedom: int) -> float:
    from scipy.special import stdtrit

    return float(stdtrit(freedom, 0.5 + SURE / 2.0))


class _Over:
    """What is left over at each of many knees, with offset and slope the best for it."""

    def __init__(self, inlet: Array, outlet: Array, knees: Array) -> None:
        at = knees[:, None]
        above = np.maximum(inlet - at, 0.0)
        rest = outlet - np.minimum(inlet, at)
        middle, height = above.mean(axis=1), rest.mean(axis=1)
        above, rest = above - middle[:, None], rest - height[:, None]
        self._apart = np.square(above).sum(axis=1)
        together, whole = (above * rest).sum(axis=1), np.square(rest).sum(axis=1)
        bends = self._apart > 1e-12 * max(float(np.square(inlet).sum()), 1.0)
        self.slope = np.where(bends, together / np.where(bends, self._apart, 1.0), 1.0)
        self.least = np.maximum(whole - np.where(bends, self.slope * together, 0.0), 0.0)
        self.start = height - self.slope * middle
        self._bends = bends

    def slopes_within(self, limit: float) -> tuple[float, float]:
        """Return the slopes between which some knee leaves no more than `limit` [Pa²] over."""
        near = self._bends & (self.least <= limit)
        half = np.sqrt((limit - self.least[near]) / self._apart[near])
        if not near.any():
            return (-np.inf, np.inf)
        return float((self.slope[near] - half).min()), float((self.slope[near] + half).max())


def _candidates(inlet: Array, outlet: Array) -> Array:
    """Return the knees among which the best one is: one of each split, and each reading."""
    x = np.unique(inlet)
    left = inlet <= x[:-2, None]  # one reading at least below, two above
    n, m = left.sum(axis=1), (~left).sum(axis=1)
    offset = np.where(left, inlet - outlet, 0.0).sum(axis=1) / n

    def mean(values: Array) -> Array:
        return np.asarray(np.where(left, 0.0, values).sum(axis=1) / m)

    middle, height = mean(inlet), mean(outlet)
    apart = mean(np.square(inlet)) - middle**2
    slope = (mean(inlet * outlet) - middle * height) / np.where(apart > 0.0, apart, np.inf)
    with np.errstate(divide="ignore", invalid="ignore"):
        knee = (height - slope * middle + offset) / (1.0 - slope)
    inside = (knee >= x[:-2]) & (knee <= x[1:-1])
    return np.union1d(knee[inside], x[:-1])


def _where_below(places: Array, values: Array, limit: float) -> tuple[float, float]:
    """Return between which places values are below a limit, straight between two places."""
    inside = np.flatnonzero(values <= limit)
    first, last = int(inside[0]), int(inside[-1])
    low, high = places[first], places[last]
    if first > 0:
        low = np.interp(limit, [values[first], values[first - 1]], [low, places[first - 1]])
    if last + 1 < places.size:
        high = np.interp(limit, [values[last], values[last + 1]], [high, places[last + 1]])
    return float(low), float(high)


@dataclass(frozen=True)
class TwoHinges:
    """Two knees [Pa], the slope after each [-], and what is left over [Pa²]."""

    knees: tuple[float, float]
    slopes: tuple[float, float]
    squares: float


def fit_two_hinges(inlet: Array, outlet: Array) -> TwoHinges:
    """Return the line of three pieces that fits best.

    inlet, outlet: shape (n,), n of 6 or more [Pa].
    Source: least squares at every pair of knees of a grid.
    """
    step = float(np.ptp(inlet)) / (PAIRS + 1)
    places = inlet.min() + step * np.arange(1, PAIRS + 1)
    best = _best_pair(inlet, outlet, places, places)
    for _ in range(CLOSER):
        around = step * np.linspace(-1.0, 1.0, FEW)
        best = _best_pair(inlet, outlet, best.knees[0] + around, best.knees[1] + around)
        step /= FEW // 2
    return best


def _best_pair(inlet: Array, outlet: Array, firsts: Array, seconds: Array) -> TwoHinges:
    """Return the best of all pairs of knees in which the second comes after the first."""
    first, second = (grid.ravel() for grid in np.meshgrid(firsts, seconds, indexing="ij"))
    after = first < second
    first, second = first[after, None], second[after, None]
    one, two = np.maximum(inlet - first, 0.0), np.maximum(inlet - second, 0.0)
    rest = outlet - np.minimum(inlet, first)
    one, two, rest = (each - each.mean(axis=1, keepdims=True) for each in (one, two, rest))
    a, b, c = (one * one).sum(1), (one * two).sum(1), (two * two).sum(1)
    p, q = (one * rest).sum(1), (two * rest).sum(1)
    determinant = a * c - b * b
    apart = determinant > 1e-9 * a * c
    safe = np.where(apart, determinant, 1.0)
    rise, change = (c * p - b * q) / safe, (a * q - b * p) / safe
    left = np.where(apart, (rest * rest).sum(1) - rise * p - change * q, np.inf)
    best = int(np.argmin(left))
    slopes = float(rise[best]), float(rise[best] + change[best])
    knees = float(first[best, 0]), float(second[best, 0])
    return TwoHinges(knees, slopes, max(float(left[best]), 0.0))


@dataclass(frozen=True)
class Bend:
    """A line that bends once: the height of the bend [Pa], the slope after it over the one before.

    `start` slope before it [-], `at` the inlet of the bend [Pa]; limits of 95 %.
    """

    at: float
    knee: float
    slope: float
    start: float
    knee_limits: tuple[float, float]
    slope_limits: tuple[float, float]

    @property
    def bends(self) -> bool:
        """Whether it bends down by more than chance."""
        return self.slope_limits[1] < 1.0

    @property
    def knee_off(self) -> float:
        """How far the knee may be off, the wider of both ways [Pa]."""
        return _off(self.knee, self.knee_limits)


def fit_bends(
    inlets: Array, outlet: Array, bends: int = BENDS, alike: float = 1.0
) -> tuple[Bend, int]:
    """Return the bend that fits pairs of pressures of two lines best, whatever their bores.

    And the place of the inlets that fit best, of which one is right [-]. Below its knee a valve
    passes all, so that the outlet at the bend is the pressure at which it reduces.

    inlets: the same line shifted by one delay each, shape (delays, n), n of 8 or more [Pa]; outlet:
    (n,) [Pa]; bends: how many places of it are tried [-]; alike: how many neighbouring readings
    share an error [-].
    Raises ValueError for fewer points, where all inlets are the same, or nothing follows them.
    Source: least squares at every delay and every bend of a fine grid; limits by profile
    likelihood over both (from memory).
    """
    if outlet.size < 8 or np.ptp(inlets) <= 0.0:
        raise ValueError("eight readings at different pressures are needed")
    over = _Bends(inlets, outlet, bends)
    place, best = np.unravel_index(int(np.argmin(over.left)), over.left.shape)
    least = float(over.left[place, best])
    if not np.isfinite(least):
        raise ValueError("the outlet does not follow")
    freedom = max(outlet.size - 5, 1)
    limit = least + alike * _student(freedom) ** 2 * max(least, 0.0) / freedom
    inside = over.left <= limit
    half = np.sqrt(limit - over.left[inside]) * over.per_error[inside]
    heights, ratios = over.heights[inside], over.ratios[inside]
    between = 0.25 * over.step * float(over.starts[place, best])  # to the next that is tried
    fit = Bend(
        at=float(over.knees[best]),
        knee=float(over.heights[place, best]),
        slope=float(over.ratios[place, best]),
        start=float(over.starts[place, best]),
        knee_limits=(float(heights.min() - between), float(heights.max() + between)),
        slope_limits=(float((ratios - half).min()), float((ratios + half).max())),
    )
    return fit, int(place)


class _Bends:
    """What is left over at every delay and every bend, with both slopes the best for it.

    All of shape (delays, bends): `left` [Pa²], `heights` of the bend [Pa], `starts` and `ratios` of
    slopes [-], `per_error` by how much a ratio is off for a reading's error [1/Pa].
    """

    def __init__(self, inlets: Array, outlet: Array, bends: int) -> None:
        edge = inlets.min() + EDGE * np.ptp(inlets), inlets.max() - EDGE * np.ptp(inlets)
        knees = np.linspace(*edge, bends)
        self.knees, self.step = knees, float(knees[1] - knees[0])  # Pa
        means = inlets.mean(axis=1, keepdims=True)
        middle = inlets - means
        rest = outlet - outlet.mean()
        above = np.maximum(inlets[:, None, :] - knees[:, None], 0.0)
        raised = above.mean(axis=2)
        above -= raised[:, :, None]
        a = np.square(middle).sum(axis=1, keepdims=True)
        b = np.einsum("dkn,dn->dk", above, middle)
        c = np.einsum("dkn,dkn->dk", above, above)
        p, q = (middle @ rest)[:, None], above @ rest
        determinant = a * c - b * b
        apart = determinant > 1e-9 * a * np.maximum(c, 1e-300)
        safe = np.where(apart, determinant, 1.0)
        start, change = (c * p - b * q) / safe, (a * q - b * p) / safe
        left = np.where(apart & (start > 0.0), float(rest @ rest) - start * p - change * q, np.inf)
        self.left = np.maximum(left, 0.0)
        self.starts = np.where(np.abs(start) > 1e-9, start, 1e-9)
        share = change / self.starts
        self.ratios = 1.0 + share
        self.heights = outlet.mean() + start * (knees - means) - change * raised
        # var(change / start), from the inverse of the normal equations
        self.per_error = np.sqrt(
            np.maximum(a + 2.0 * share * b + share**2 * c, 0.0) / safe
        ) / np.abs(self.starts)
