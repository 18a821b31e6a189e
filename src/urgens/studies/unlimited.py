"""What a build gives where neither the foot nor the floor ends it: to tell changes by."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from urgens.document import Build
from urgens.document.numeric import NOTHING, Laid
from urgens.physics import vehicle
from urgens.physics.arrays import Array, Floats
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.bracket import first_rise
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rear_first import Sweep, swept
from urgens.solve.roads import ICE
from urgens.solve.rolling_forces import axle_forces, rolling_lines
from urgens.solve.system import System, system
from urgens.solve.travel import travel

SCANNED = 400  # steps of effort for the wanted deceleration
LARGER = 2.0  # times the foot, until the front has locked on the best road
MOST_TIMES = 10  # that it is made so
INSIDE = np.linspace(0.0, 1.0, 17).reshape(-1, 1, 1, 1)  # places on each stretch


@dataclass(frozen=True)
class UnlimitedFigures:
    """Margin [-], effort [N] and pad travel [m], a row for each mixture (m,); NaN where none is.

    The margin is the least 1 − (f_r/γ_r)/μ at the front's first lock, over all loads and roads:
    negative where the rear leads.
    """

    margin: Array
    effort: Array
    travel: Array


def unlimited(build: Build, over: Laid = NOTHING, rows: int = 1) -> UnlimitedFigures:
    """Return the figures of a build, or of it with others laid over.

    over: by path, numbers or rows of them (m,) [SI]; rows: m [-].
    Source: first lock of the front by each axle's need of the road; continuity of each chamber.
    """
    columns = {path: np.asarray(values).reshape(-1, 1) for path, values in over.items()}
    made = system(build, over=columns)
    across = (np.asarray(one) for one in made.standing)
    standing = StaticVehicle(*(one[:, 0] if one.ndim > 2 else one for one in across))
    made = replace(made, standing=standing)
    targets = build.targets
    road = _laid(columns, "targets.surface", targets.surface)
    margin, hardest = margin_of(made, standing, road)
    one = StaticVehicle(*(np.asarray(values)[..., :1] for values in standing))
    wanted = _laid(columns, "targets.deceleration", targets.deceleration)
    effort, pad = _wanted(made, one, wanted, hardest)
    return UnlimitedFigures(*(np.broadcast_to(each, (rows,)) for each in (margin, effort, pad)))


def _laid(columns: Mapping[str, Array], path: str, own: float) -> Floats:
    return columns.get(path, own)


def margin_of(made: System, standing: StaticVehicle, road: Floats) -> tuple[Array, float]:
    """Return the margin (m,) [-], and a foot with which the front locks on every road [N].

    made: of rows (m, 1); standing: load cases (c,) or (m, c) [N, -]; road: the best one's
    coefficient, which may be a column (m, 1) [-].
    Source: as `unlimited`.
    """
    foot = float(np.max(made.max_effort))
    high = np.maximum(road, ICE)
    for _ in range(MOST_TIMES):
        found = swept(replace(made, max_effort=foot), standing)
        need = _need(found.front, found.held[0])
        if bool(np.all(np.nanmax(need, axis=0) >= high)):
            break
        foot *= LARGER
    apart = np.stack([_inside(found, ICE, high), *(_at(found, end) for end in (ICE, high))])
    known = np.isfinite(apart).any(axis=0)
    least = np.min(np.where(np.isfinite(apart), apart, np.inf), axis=0)
    least = np.where(known, least, np.nan).reshape(-1, np.shape(least)[-1])
    return np.where(np.isnan(least).any(axis=1), np.nan, np.min(least, axis=1)), foot


def _need(force: Array, held: Array) -> Array:
    """Return the coefficient that an axle needs [-], inf where nothing presses on it."""
    carries = held > 0.0
    return np.where(carries, force / np.where(carries, held, 1.0), np.inf)


def _inside(found: Sweep, low: float, high: Floats) -> Array:
    """Return the least margin at places inside the stretches, load by load."""
    (front, front_held), (rear, rear_held) = (
        [_between(each) for each in pair]
        for pair in ((found.front, found.held[0]), (found.rear, found.held[1]))
    )
    need = _need(front, front_held)
    first = need >= np.maximum.accumulate(need, axis=0) * (1.0 - 1e-12)
    asked = first & (need >= low) & (need <= high) & (need > 0.0)
    share = _need(rear, rear_held) / np.where(need > 0.0, need, 1.0)
    return np.asarray(np.min(np.where(asked, 1.0 - share, np.inf), axis=0))


def _between(values: Array) -> Array:
    """Return values at places inside each stretch, one after another (e, m, c)."""
    shape = (-1, 1, 1, 1)[: values.ndim + 1]
    inside = values[:-1] + INSIDE.reshape(shape) * (values[1:] - values[:-1])
    return np.moveaxis(inside, 0, 1).reshape(-1, *values.shape[1:])


def _at(found: Sweep, road: Floats) -> Array:
    """Return the margin where the front first needs all that one road gives, load by load."""
    short = found.front - road * found.held[0]
    reached = short >= 0.0
    place = np.maximum(np.argmax(reached, axis=0), 1)[np.newaxis]

    def pair(values: Array) -> tuple[Array, Array]:
        below, above = (np.take_along_axis(values, place - back, axis=0)[0] for back in (1, 0))
        return below, above

    below, above = pair(short)
    rises = above > below
    share = np.where(rises, -below / np.where(rises, above - below, 1.0), 1.0)

    def there(values: Array) -> Array:
        start, end = pair(values)
        return np.asarray(start + share * (end - start))

    need = _need(there(found.rear), there(found.held[1]))
    return np.where(reached.any(axis=0), 1.0 - need / road, np.nan)


def _wanted(
    made: System, standing: StaticVehicle, wanted: Floats, hardest: float
) -> tuple[Array, Array]:
    """Return the foot (m,) [N] for a deceleration (m, 1) [g], and the pad's travel (m,) [m]."""
    rolls = rolling(made, standing)

    def excess(effort: Array) -> Array:
        forces = axle_forces(rolls, pushrod_force(rolls, effort), standing)
        return np.asarray(vehicle.demand(*forces, standing) - wanted)

    efforts = np.linspace(0.0, hardest, SCANNED + 1)
    over = excess(efforts[:, None, None])
    reached = over[-1] >= 0.0
    effort = np.where(reached, first_rise(excess, efforts, over, reached), np.nan)
    lines = rolling_lines(made, pushrod_force(made, effort), standing)
    pad = travel(made, effort, lines.front, lines.rear).pad
    return effort[:, 0], np.where(reached, pad, np.nan)[:, 0]
