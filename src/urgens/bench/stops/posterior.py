"""What stops on the road say: how much each axle's brakes do, and what the road gives."""

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from urgens.bench.stops.adjusters import adjuster, set_as
from urgens.document import Build
from urgens.document.ledger.proof import MeasuredStop
from urgens.physics import vehicle
from urgens.physics.arrays import Array, Floats
from urgens.physics.atmosphere import GRAVITY
from urgens.physics.axle import Pair
from urgens.physics.vehicle import Path, StaticVehicle
from urgens.physics.wheel import turning_share
from urgens.solve.achieved import achieved_at
from urgens.solve.line_pressure import forces_at, pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System, system
from urgens.studies.draws import drawn, laid, spreads

SEEN_WITHIN = 0.03  # of the road's coefficient: how surely it is seen who locked (assumed)
READ_WITHIN = 0.03  # g, of a deceleration (assumed)
ROAD_SPREAD = 0.1  # of the road's coefficient, standard deviation (assumed)
LEAST_SPREAD = 0.02  # of a factor: nothing is known better before it was tried
AXLE_STEPS = 41
ROAD_STEPS = 31
REACH = 3.5  # standard deviations that the grid covers
PRIOR_DRAWS = 2000
PRIOR_SEED = 1
EFFORTS = 64  # that a foot nobody has read is looked for at
LIFTED = 1e3  # coefficient that an axle without a load needs
SPEED_SHARE = 0.6  # of the first speed: where downforce of a whole stop is taken (assumed)
SURE = (0.025, 0.975)


@dataclass(frozen=True)
class Posterior:
    """How likely factors on the front and the rear brake force are, and each road's coefficient.

    `weights` (front, rear) sum to 1. `roads` holds, for each coefficient that was typed, the places
    and how likely each is. `counted` tells how many stops were counted; `left_out` why others were
    not, each in words.
    """

    front: Array
    rear: Array
    weights: Array
    roads: dict[float, tuple[Array, Array]]
    counted: int
    left_out: tuple[str, ...]

    @cached_property
    def of_front(self) -> tuple[float, tuple[float, float]]:
        """The mean factor on the front brake force, and its limits of 95 %."""
        return summed_up(self.front, self.weights.sum(axis=1))

    @cached_property
    def of_rear(self) -> tuple[float, tuple[float, float]]:
        """The mean factor on the rear brake force, and its limits of 95 %."""
        return summed_up(self.rear, self.weights.sum(axis=0))

    def draws(self, count: int, seed: int = 1) -> tuple[Array, Array]:
        """Return pairs of factors drawn from it, shape (count,); count, seed: of the draws [-].

        Source: inverse of the cumulated weights, spread over each cell.
        """
        chance = np.random.default_rng(seed)
        flat = np.cumsum(self.weights.ravel())
        cells = np.searchsorted(flat, chance.random(count) * flat[-1])
        rows, columns = np.unravel_index(np.minimum(cells, flat.size - 1), self.weights.shape)
        steps = self.front[1] - self.front[0], self.rear[1] - self.rear[0]
        shifts = chance.random((2, count)) - 0.5
        return (
            np.asarray(self.front[rows] + steps[0] * shifts[0]),
            np.asarray(self.rear[columns] + steps[1] * shifts[1]),
        )


def summed_up(places: Array, weights: Array) -> tuple[float, tuple[float, float]]:
    """Return mean and limits of 95 %; places, weights: shape (n,) [any, -].

    Source: the weights as a density, even within each cell.
    """
    whole = weights / weights.sum()
    step = places[1] - places[0]
    edges = np.append(places - step / 2.0, places[-1] + step / 2.0)
    reached = np.append(0.0, np.cumsum(whole))
    low, high = np.interp(SURE, reached, edges)
    return float(whole @ places), (float(low), float(high))


@dataclass(frozen=True)
class Prior:
    """Means and covariance of the factors on front and rear brake force."""

    mean: Array
    covariance: Array

    def log_density(self, front: Array, rear: Array) -> Array:
        """Return the logarithm of how likely factors are, but for a constant.

        front, rear: factors, of shapes that broadcast [-]. Source: a normal in two dimensions.
        """
        inverse = np.linalg.inv(self.covariance)
        a, b = front - self.mean[0], rear - self.mean[1]
        square = inverse[0, 0] * a * a + 2.0 * inverse[0, 1] * a * b + inverse[1, 1] * b * b
        return np.asarray(-0.5 * square)


def prior(build: Build) -> Prior:
    """Return what is known of the brakes before any stop.

    Source: draws from the evidence: how far both axles' forces are off at the hard stop's foot.
    """
    figures = spreads(build, 0)
    effort = 0.8 * build.targets.max_effort.value
    nominal = _forces(system(build), effort)
    if not figures:
        return Prior(np.ones(2), np.diag([LEAST_SPREAD**2] * 2))
    values = drawn(build, figures, PRIOR_DRAWS, np.random.default_rng(PRIOR_SEED))
    made = system(build, over=laid(build, figures, values[:, :, None]))
    ratios = [
        np.broadcast_to(force / whole.item(), (PRIOR_DRAWS, 1)).ravel()
        for force, whole in zip(_forces(made, effort), nominal, strict=True)
    ]
    covariance = np.cov(np.array(ratios)) + np.diag([LEAST_SPREAD**2] * 2)
    return Prior(np.ones(2), covariance)


def _forces(system: System, effort: float) -> tuple[Array, Array]:
    standing = StaticVehicle(*(np.asarray(v)[..., 0] for v in system.standing))
    front, rear = forces_at(system, rolling_lines(system, pushrod_force(system, effort), standing))
    return np.maximum(front, 1.0), np.maximum(rear, 1.0)


def deceleration_of(stop: MeasuredStop, reaction: float) -> tuple[float, float] | None:
    """Return a stop's mean deceleration and how far it may be off [g], None where none was read.

    stop: as typed; reaction: time before the brakes act [s].
    Source: kinematics: z = v²/(2 g (s − v t)); a distance's error as typed.
    """
    if stop.deceleration is not None:
        return stop.deceleration, READ_WITHIN
    if stop.distance is None or stop.speed is None:
        return None
    speed = stop.speed.value
    way = stop.distance.value - speed * reaction
    if way <= 0.0:
        return None
    z = speed**2 / (2.0 * GRAVITY * way)
    if stop.distance_error is None:
        return z, READ_WITHIN
    return z, max(z * stop.distance_error.value / 2.0 / way, 0.2 * READ_WITHIN)


def why_not_counted(build: Build, stop: MeasuredStop) -> str | None:
    """Return why a stop says nothing of the build as it is, None where it counts.

    stop: as typed. Source: by definition.
    """
    if not stop.counts:
        return "left out by hand"
    if stop.load_case not in {case.name for case in build.vehicle.load_cases}:
        return f"the load case “{stop.load_case}” is not in this build"
    turned = adjuster(build)
    if turned is not None and turned.path not in stop.setting:
        return "its setting is not noted"
    says_who = stop.locked != "unknown"
    if stop.effort is None and not says_who:
        return "neither foot nor who locked is noted"
    reaction = build.proof.reaction if build.proof is not None else 0.0
    if not says_who and deceleration_of(stop, reaction) is None:
        return "neither deceleration nor who locked is noted"
    return None


def _why_left(build: Build, stop: MeasuredStop) -> str | None:
    """Return why a stop tells no more, or nothing: what is in the build must not count twice."""
    why = why_not_counted(build, stop)
    return "taken into the build as measured" if why is None and stop.taken else why


def stop_system(build: Build, stop: MeasuredStop) -> tuple[System, StaticVehicle]:
    """Return the numbers of a build as it was set at a stop, and its loads then.

    stop: one that counts.
    """
    speed = 0.0 if stop.speed is None else stop.speed.value * SPEED_SHARE
    made = system(build, speed=speed, over=set_as(build, stop.setting))
    return made, made.case(made.case_names.index(stop.load_case))


def axle_turns(system: System, standing: StaticVehicle) -> tuple[Array, Array]:
    """Return what the wheels of either axle add to the vehicle's mass while they roll [-].

    system: the system; standing: load cases [N, -]. What is read of a stop has it in.
    """
    front, rear = (turning_share(standing.weight, end.rolling_radius) for end in system.ends)
    return front, rear


def scaled(system: System, front: Floats, rear: Floats) -> System:
    """Return a system whose brakes do more or less; system: the system; front, rear: factors [-].

    Source: by definition of the factors.
    """
    factors = (front, rear)
    ends = (
        replace(end, torque_per_pressure=np.multiply(end.torque_per_pressure, factor))
        for end, factor in zip(system.ends, factors, strict=True)
    )
    return replace(system, ends=Pair(*ends))


def posterior(
    build: Build,
    stops: tuple[MeasuredStop, ...],
    known: Prior | None = None,
    steps: tuple[int, int] = (AXLE_STEPS, ROAD_STEPS),
) -> Posterior:
    """Return what stops say of the brakes and the road.

    stops: as typed; known: of the brakes before, the build's own
    where none is given; steps: places of each factor, and of each road [-].
    Source: Bayes' rule on a grid: Gelman and others, Bayesian Data Analysis (from memory).
    """
    known = prior(build) if known is None else known
    reasons = [(number, _why_left(build, stop)) for number, stop in enumerate(stops, 1)]
    counted = [s for s, (_, why) in zip(stops, reasons, strict=True) if why is None]
    spread = np.sqrt(np.diag(known.covariance))
    axes = [
        np.linspace(max(mean - REACH * sd, 0.05), mean + REACH * sd, steps[0])
        for mean, sd in zip(known.mean, spread, strict=True)
    ]
    front, rear = axes[0][:, None, None], axes[1][:, None]
    logs = np.broadcast_to(known.log_density(front[..., 0], axes[1]), (steps[0], steps[0])).copy()
    by_road = [_on_road(build, mu, counted, (front, rear), steps[1]) for mu in _roads(counted)]
    for _, _, likely in by_road:
        top = likely.max(axis=2)
        logs += top + np.log(np.exp(likely - top[..., None]).sum(axis=2))
    weights = np.exp(logs - logs.max())
    weights /= weights.sum()
    roads = {mu: (places, _of_road(likely, weights)) for mu, places, likely in by_road}
    left = tuple(f"Stop {number}: {why}" for number, why in reasons if why is not None)
    return Posterior(axes[0], axes[1], weights, roads, len(counted), left)


def _roads(stops: list[MeasuredStop]) -> tuple[float, ...]:
    return tuple(dict.fromkeys(stop.surface for stop in stops))


def _of_road(likely: Array, weights: Array) -> Array:
    """Return how likely each place of a road is, over all factors."""
    within = np.exp(likely - likely.max(axis=2, keepdims=True))
    within /= within.sum(axis=2, keepdims=True)
    return np.asarray(np.einsum("ab,abm->m", weights, within))


def _on_road(
    build: Build,
    surface: float,
    stops: list[MeasuredStop],
    factors: tuple[Array, Array],
    steps: int,
) -> tuple[float, Array, Array]:
    """Return a road's places, and how likely its stops are there: shape (front, rear, places)."""
    low = max(surface - REACH * ROAD_SPREAD, 0.02)
    places = np.linspace(low, surface + REACH * ROAD_SPREAD, steps)
    found = -0.5 * np.square((places - surface) / ROAD_SPREAD)
    reaction = build.proof.reaction if build.proof is not None else 0.0
    shape = (factors[0].shape[0], factors[1].shape[0], steps)
    likely = np.broadcast_to(found, shape).copy()
    for stop in (stop for stop in stops if stop.surface == surface):
        likely += _Tried(build, stop, factors, places, deceleration_of(stop, reaction)).log_likely()
    return surface, places, likely


class _Tried:
    """One stop, tried with every pair of factors on every road."""

    def __init__(
        self,
        build: Build,
        stop: MeasuredStop,
        factors: tuple[Array, Array],
        roads: Array,
        read: tuple[float, float] | None,
    ) -> None:
        plain, self._standing = stop_system(build, stop)
        self._made = scaled(plain, *factors)
        self._stop, self._roads, self._read = stop, roads, read

    def log_likely(self) -> Array:
        """Return the logarithm of how likely it is, shape (front, rear, roads)."""
        z: Array | None
        if self._stop.effort is None:
            used, z = self._unknown_foot()
        else:
            effort = self._stop.effort.value
            used, z = self._pressed(np.asarray(effort)), self._achieved(effort)
        found = self._who(*used)
        if self._read is not None and z is not None:
            found = found - 0.5 * np.square((z - self._read[0]) / self._read[1])
        return found

    def _achieved(self, effort: float) -> Array:
        """Return the deceleration [g] that the foot comes to on each road."""
        front, rear, need = self._way(effort)
        roads = np.broadcast_to(self._roads, (*self._shape, self._roads.size))
        rear_first = _at(need, rear, roads) > _at(need, front, roads)
        path = Path(need[..., -1:] >= self._roads, rear_first)
        made, standing = self._made, self._standing
        found = achieved_at(made, effort, standing, self._roads, known=path)
        front, rear = self._turns()
        turns = np.where(found.front_locked, 0.0, front) + np.where(found.rear_locked, 0.0, rear)
        return np.asarray(found.deceleration / (1.0 + turns))

    def _way(self, effort: float) -> tuple[Array, Array, Array]:
        """Return what each axle needs on the way to an effort, and the most that was needed."""
        used = self._pressed(np.linspace(effort / EFFORTS, effort, EFFORTS))
        front, rear = (np.broadcast_to(each, (*self._shape, EFFORTS)) for each in used)
        return front, rear, np.maximum.accumulate(np.maximum(front, rear), axis=-1)

    def _pressed(self, effort: Array) -> tuple[Array, Array]:
        """Return the coefficient [-] that each axle needs."""
        made, standing = self._made, self._standing
        pushrod = pushrod_force(made, effort)
        forces = forces_at(made, rolling_lines(made, pushrod, standing))
        loads = vehicle.axle_loads(standing, vehicle.demand(*forces, standing))
        front, rear = vehicle.road_used(forces, loads, standing)
        return front, np.where(np.isnan(rear), LIFTED, rear)

    def _unknown_foot(self) -> tuple[tuple[Array, Array], Array | None]:
        """Return what each axle needs and the deceleration at a foot that nobody has read.

        Where an axle locked it is the foot of the first lock, else that of the deceleration read.
        """
        most = float(self._made.max_effort) * 1.5
        efforts = np.linspace(most / EFFORTS, most, EFFORTS)
        front, rear, need = self._way(most)
        if self._stop.locked == "none":
            if self._read is None:
                return (front[..., :1], rear[..., :1]), None
            demand = self._demand(efforts)
            at = np.broadcast_to(self._read[0], (*self._shape, 1))
            return (_at(demand, front, at), _at(demand, rear, at)), None
        roads = np.broadcast_to(self._roads, (*self._shape, self._roads.size))
        z = _at(need, self._demand(efforts), roads)
        return (_at(need, front, roads), _at(need, rear, roads)), z

    @property
    def _shape(self) -> tuple[int, int]:
        ends = self._made.ends
        return np.shape(ends.front.torque_per_pressure)[0], np.shape(ends.rear.torque_per_pressure)[
            0
        ]

    def _demand(self, efforts: Array) -> Array:
        """Return the deceleration that is read while all wheels roll [g]."""
        made, standing = self._made, self._standing
        forces = forces_at(made, rolling_lines(made, pushrod_force(made, efforts), standing))
        z = vehicle.demand(*forces, standing) / (1.0 + sum(self._turns()))
        return np.broadcast_to(z, (*self._shape, EFFORTS))

    def _turns(self) -> tuple[Array, Array]:
        """Return what either axle's wheels take of the brakes while they roll [-]."""
        return axle_turns(self._made, self._standing)

    def _who(self, front: Array, rear: Array) -> Array:
        """Return the logarithm of how likely it is that these axles were seen to lock."""
        from scipy.special import log_ndtr

        def beyond(need: Array, limit: Floats) -> Array:
            return np.asarray(log_ndtr((need - limit) / SEEN_WITHIN))

        def first(one: Array, other: Array) -> Array:
            return np.asarray(log_ndtr((one - other) / SEEN_WITHIN))

        roads = self._roads
        match self._stop.locked:
            case "none":
                return np.asarray(log_ndtr((roads - np.maximum(front, rear)) / SEEN_WITHIN))
            case "front":
                return np.asarray(first(front, rear) + beyond(front, roads))
            case "rear":
                return np.asarray(first(rear, front) + beyond(rear, roads))
            case "both":
                return np.asarray(beyond(front, roads) + beyond(rear, roads))
        return np.zeros(roads.size)


def _at(rising: Array, values: Array, wanted: Array) -> Array:
    """Return values where another one reaches what is wanted, along the last axis of each."""
    flat = zip(
        rising.reshape(-1, rising.shape[-1]),
        values.reshape(-1, values.shape[-1]),
        wanted.reshape(-1, wanted.shape[-1]),
        strict=True,
    )
    found = [np.interp(at, up, value) for up, value, at in flat]
    return np.array(found).reshape(wanted.shape)
