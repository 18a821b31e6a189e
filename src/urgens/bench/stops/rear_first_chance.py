"""How likely the rear locks first at a setting, over what stops have said."""

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from urgens.bench.stops.adjusters import Adjuster
from urgens.bench.stops.posterior import Posterior, scaled
from urgens.document import Build
from urgens.physics import vehicle
from urgens.physics.arrays import Array, Bools
from urgens.physics.valve_law import Felt
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.bends import bends
from urgens.solve.first_rise import first_rise_of_either
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.roads import every_road
from urgens.solve.system import System, system

EFFORTS = 400
MOST, HALVINGS = 8.0, 24  # factor that is looked at, and how often the way to it is halved
STRICTLY = 1e-9  # N from one effort to the next, so that a force has one


def least_rear_factor(
    system: System, standing: StaticVehicle, surfaces: Array, front: Array
) -> Array:
    """Return the factor on the rear brake force from which the rear locks first [-].

    system: the system; standing: one load case [N, -]; surfaces: tyre-road coefficients (s,) [-];
    front: factors on the front brake force (a,) [-]. Shape (a, s); inf where the hardest foot
    locks no rear wheel.
    Both axles lock at the same foot where each has what the road gives at the deceleration of
    both: that fixes the foot by the front, and then the factor by the rear. Where a valve feels
    the load as it moves, every foot before that is looked at as well; a ball closes where brakes
    that do so much make its deceleration.
    Source: force balance at the point where both axles are at their limit: Limpert, Brake Design
    and Safety (from memory); brake forces that rise with the foot.
    """
    if system.ball is not None and system.feels_load:
        return _by_first_lock(system, standing, surfaces, front)
    bare, system = system, rolling(system, standing)
    at_limit = vehicle.attainable(standing, surfaces)
    most, rest = vehicle.grip(standing, at_limit, surfaces)
    load = np.maximum(vehicle.axle_loads(standing, at_limit)[1], 0.0)
    efforts = _efforts(system, standing)
    ahead, behind = _bare_forces(system, efforts, Felt(load[:, None], standing.rear_weight))
    found = np.empty((surfaces.size, front.size))
    for place, mu in enumerate(surfaces):
        needed = (most[place] - system.drag.front) / front
        effort = np.interp(needed, ahead[place], efforts, right=np.inf)
        reached = np.isfinite(effort)
        own = np.interp(np.where(reached, effort, efforts[-1]), efforts, behind[place])
        hardest = front * ahead[place, -1] + system.drag.front
        alone = vehicle.rear_lock_line(standing, mu, hardest)
        wanted = np.maximum(np.where(reached, rest[place], alone) - system.drag.rear, 0.0)
        found[place] = np.divide(wanted, own, out=np.full(own.shape, np.inf), where=own > 0.0)
        if bare.ball is not None:
            at = Press(np.where(reached, effort, efforts[-1]), wanted, load[place])
            found[place] = _with_ball(bare, standing, front, at)
        if system.feels_load:  # where the front locks at no foot, the one below has looked already
            found[place, ~reached] = np.inf
    if system.feels_load:
        found = np.minimum(found, _before_the_front(system, standing, surfaces, front, most))
    return found.T


class Press(NamedTuple):
    """A foot (a,) [N], the rear force wanted there (a,) and the rear load [N]."""

    effort: Array
    wanted: Array
    load: float


def _with_ball(system: System, standing: StaticVehicle, front: Array, at: Press) -> Array:
    """Return the rear factors that make a force, the ball closing by what both axles do (a,) [-].

    By halving: more of the rear closes the ball at less pressure, and is more all the same.
    """
    output = booster_output(system, pushrod_force(system, at.effort))
    felt = Felt(at.load, standing.rear_weight)

    def enough(rear: Array) -> Bools:
        made = rolling(scaled(system, front, rear), standing)
        own = forces_at(made, line_pressures(made, output, felt))[1] - system.drag.rear
        return np.asarray(own >= at.wanted)

    return _least(enough, front.shape)


def _by_first_lock(system: System, standing: StaticVehicle, surfaces: Array, front: Array) -> Array:
    """Return the factors where a ball and the load both move what is behind; as asked above.

    By halving on the first lock itself, which is slower.
    """

    def first(rear: Array) -> Bools:
        found = first_rise_of_either(scaled(system, front[:, None], rear), standing, surfaces)
        return np.asarray(found.locks & found.rear_first)

    return _least(first, (front.size, surfaces.size))


def _least(enough: Callable[[Array], Bools], shape: tuple[int, ...]) -> Array:
    """Return the least factors that are enough [-]; inf where none is."""
    low, high = np.zeros(shape), np.full(shape, MOST)
    some = enough(high)
    for _ in range(HALVINGS):
        middle = (low + high) / 2.0
        over = enough(middle)
        low, high = np.where(over, low, middle), np.where(over, middle, high)
    return np.where(some, high, np.inf)


def _before_the_front(
    system: System, standing: StaticVehicle, surfaces: Array, front: Array, limits: Array
) -> Array:
    """Return the least rear factor that locks the rear at a foot which leaves the front rolling.

    surfaces: of the roads (s,) [-]; front: factors (a,) [-]; limits: front axle force that locks
    it on each road (s,) [N].
    Shape (s, a) [-].

    Rear_lock_line at each foot, the valve feeling the load at that lock.
    """
    efforts = _efforts(system, standing)
    ahead, _ = _bare_forces(system, efforts, Felt(standing.rear_weight, standing.rear_weight))
    ahead = front[:, None] * ahead + system.drag.front
    mu = surfaces[:, None, None]
    alone = vehicle.rear_lock_line(standing, mu, ahead)
    felt = Felt(alone / np.multiply(mu, standing.rear_grip), standing.rear_weight)
    _, own = _bare_forces(system, efforts, felt)
    possible = (own > 0.0) & (ahead <= limits[:, None, None])
    wanted = np.maximum(alone - system.drag.rear, 0.0)
    factors = np.divide(wanted, own, out=np.full(own.shape, np.inf), where=possible)
    return np.asarray(factors.min(axis=-1))


def _efforts(system: System, standing: StaticVehicle) -> Array:
    """Return even foot forces [N], and those at which something bends."""
    most = float(system.max_effort)
    bent = np.ravel(bends(system, standing, 1))
    return np.sort(np.concatenate([np.linspace(0.0, most, EFFORTS), bent[bent < most]]))


def _bare_forces(system: System, efforts: Array, felt: Felt) -> tuple[Array, Array]:
    """Return both axles' forces on each road without the engine's drag [N], the front's rising."""
    output = booster_output(system, pushrod_force(system, efforts))
    front, rear = forces_at(system, line_pressures(system, output, felt))
    shape = np.broadcast_shapes(np.shape(felt.now), efforts.shape)
    front, rear = (np.broadcast_to(force, shape) for force in (front, rear))
    rising = np.maximum.accumulate(front - system.drag.front, axis=-1)
    return rising + STRICTLY * np.arange(efforts.size), rear - system.drag.rear


def least_factors(build: Build, turned: Adjuster, front: Array) -> Array:
    """Return the rear factor from which the rear locks first in some load case on some road [-].

    turned: what is turned; front: factors on the front brake force
    (a,) [-].
    Shape (settings, a).
    """
    roads = np.array(every_road(build))
    found = np.full((len(turned.values), front.size), np.inf)
    for place, setting in enumerate(turned.values):
        made = system(build, over={turned.path: setting})
        for case in range(len(made.case_names)):
            needed = least_rear_factor(made, made.case(case), roads, front)
            found[place] = np.minimum(found[place], needed.min(axis=1))
    return found


def chances(posterior: Posterior, least: Array) -> Array:
    """Return how likely the rear locks first at every setting, shape (settings,) [-].

    posterior: of the brakes; least: rear factors of `least_factors`, at the posterior's
    front ones [-].
    Source: the posterior's weight beyond them, of the cell that is cut in proportion.
    """
    step = posterior.rear[1] - posterior.rear[0]
    upper = posterior.rear + step / 2.0
    beyond = np.clip((upper - least[..., None]) / step, 0.0, 1.0)
    return np.asarray(np.einsum("ab,sab->s", posterior.weights, beyond))
