"""The line of a metering valve, fitted to pairs of pressures."""

from dataclasses import dataclass
from itertools import product

import numpy as np

from urgens.physics.arrays import Array
from urgens.physics.valve import metering

STARTS = (0.7, 1.0, 1.4)  # of each pressure that is expected
TRIED = 3  # of the starts, the nearest ones
DISTINCT = 0.05  # of a valve's full pressure: closer to each other its three are one


@dataclass(frozen=True)
class MeteringFit:
    """Closing, opening and full pressure [Pa], with limits of 95 %, and the gauges' offset [Pa]."""

    at: tuple[float, float, float]
    limits: tuple[tuple[float, float], ...]
    offset: float
    squares: float

    def outlet(self, inlet: Array) -> Array:
        """Return the fitted outlet pressure [Pa]; inlet: any shape [Pa]."""
        return np.asarray(metering(inlet, *self.at) - self.offset)


def fit_metering(
    inlet: Array, outlet: Array, expected: tuple[float, float, float], least_scatter: float
) -> MeteringFit:
    """Return the metering valve that fits pairs of pressures best.

    inlet, outlet: shape (n,), n of 6 or more [Pa]; expected: closing, opening and full pressure to
    start from [Pa]; least_scatter: of one reading [Pa].
    Source: least squares from several starts; limits from the Jacobian with Student's t.
    """
    from scipy.optimize import least_squares
    from scipy.special import stdtrit

    scale = expected[2]

    def opened(given: Array) -> tuple[float, float, float]:
        closing, gap, rise = np.exp(np.minimum(given[:3], 50.0)) * scale
        return closing, closing + gap, closing + gap + rise

    def apart(given: Array) -> Array:
        return np.asarray((metering(inlet, *opened(given)) - given[3] * scale - outlet) / scale)

    def start(shares: tuple[float, ...]) -> Array:
        closing, opening, full = (at * share for at, share in zip(expected, shares, strict=True))
        steps = closing, max(opening - closing, DISTINCT * scale), full - opening
        return np.append(np.log(np.maximum(steps, DISTINCT * scale) / scale), 0.0)

    starts = [start(shares) for shares in product(STARTS, repeat=3)]
    nearest = sorted(starts, key=lambda given: float(np.square(apart(given)).sum()))[:TRIED]
    best = min((least_squares(apart, one) for one in nearest), key=lambda one: float(one.cost))
    freedom = max(inlet.size - 4, 1)
    scatter = max(np.sqrt(2.0 * best.cost / freedom), least_scatter / scale)
    spread = np.linalg.pinv(best.jac.T @ best.jac) * scatter**2
    steps = np.exp(best.x[:3]) * scale
    turned = np.tril(np.ones((3, 3))) * steps  # from logarithms of steps to pressures
    half = float(stdtrit(freedom, 0.975)) * np.sqrt(np.diag(turned @ spread[:3, :3] @ turned.T))
    at = opened(best.x)
    limits = tuple((float(a - h), float(a + h)) for a, h in zip(at, half, strict=True))
    found = tuple(float(a) for a in at)
    return MeteringFit((found[0], found[1], found[2]), limits, float(best.x[3]) * scale,
                       2.0 * float(best.cost) * scale**2)  # fmt: skip
