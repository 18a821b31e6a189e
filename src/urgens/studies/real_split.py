"""The real split of the braking between the axles, from wear and from heat."""

import math
from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.document.heat import Heat
from urgens.document.kinds.brakes import brake_kind
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.brakes.drum import Drum
from urgens.document.ledger.proof import Wear
from urgens.physics import vehicle
from urgens.physics.arrays import Array
from urgens.physics.axle import AXLES, Axle, Pair
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.line_pressure import brake_forces_at, pushrod_force
from urgens.solve.rolling_forces import axle_forces, rolling_lines
from urgens.solve.solution import Solution
from urgens.solve.system import System, system
from urgens.studies.draws import drawn, laid, spreads
from urgens.studies.heat import COOLING_TIMES, mass_heated

WEAR_SPREAD = 0.3  # of the ratio of specific wear, where it is not known: assumed
AREA_SPREAD = 0.05  # of each lining's area: assumed
THERMOMETER = 15.0  # K, of a contact thermometer on a hot rotor: assumed
COOLING_SPREAD = 0.25  # of what cooled away between stops: assumed
STEPS = 31  # of the usual decelerations
EFFORTS = 400  # that are looked at
DRAWS = 400
SEED = 1


@dataclass(frozen=True)
class Split:
    """The rear's share of the work, how far it may be off both ways [-], and what it is from."""

    rear_share: float
    error: float
    source: str

    @property
    def limits(self) -> tuple[float, float]:
        """Its limits [-]."""
        return max(self.rear_share - self.error, 0.0), min(self.rear_share + self.error, 1.0)


@dataclass(frozen=True)
class Computed:
    """The rear's share that the build computes over its usual stops, and how far it spreads [-]."""

    rear_share: float
    spread: float


def _share(ratio: float, relative: float) -> tuple[float, float]:
    """Return the rear's share of a front-to-rear ratio, and its error; relative: of the ratio.

    First-order propagation: d(1/(1+r)) = r/(1+r)² · dr/r.
    """
    share = 1.0 / (1.0 + ratio)
    return share, ratio / (1.0 + ratio) ** 2 * relative


def lining_area(build: Build, axle: Axle) -> float | None:
    """Return the face of one pad or lining [m²], None where it is not given.

    axle: which [-].
    """
    brake = build.axle(axle).brake
    if isinstance(brake, Disc):
        return None if brake.pad_area is None else brake.pad_area.value
    assert isinstance(brake, Drum)  # there are two kinds
    return None if brake.lining_area is None else brake.lining_area.value


def split_by_wear(build: Build, wear: Wear) -> Split | str:
    """Return the split that wear tells, or why it tells none, in words.

    wear: what linings lost.
    Source: work follows worn volume: E_f/E_r = w V_f/V_r, w of the linings; errors by first order.
    """
    areas = [lining_area(build, axle) for axle in AXLES]
    if areas[0] is None or areas[1] is None:
        missing = AXLES[areas.index(None)]
        return f"the area of the {missing} linings is not given: Measure asks for it"
    lost = [float(np.mean([one.value for one in each])) for each in (wear.front, wear.rear)]
    if min(lost) <= 0.0:
        return "an axle has lost nothing yet: measure again after more miles"
    known = wear.specific_wear
    ratio = areas[0] * lost[0] / (areas[1] * lost[1]) / (known or 1.0)
    counts = (len(wear.front), len(wear.rear))
    read = [wear.error.value / one / math.sqrt(n) for one, n in zip(lost, counts, strict=True)]
    own = 0.0 if known is not None else WEAR_SPREAD
    relative = math.sqrt(sum(e * e for e in read) + own**2 + 2.0 * AREA_SPREAD**2)
    return Split(*_share(ratio, relative), "wear")


def split_by_heat(solution: Solution) -> Split | str:
    """Return the split that temperatures tell, or why they tell none, in words.

    solution: of a build whose rotors or drums were measured at the end of a series.
    Source: E ∝ m c ΔT, made up for what cooled away as `studies.heat` has it; errors by first
    order.
    """
    build = solution.build
    series = build.heat or Heat()
    works = []
    for axle in AXLES:
        measured, mass = series.measured(axle), mass_heated(build, axle)
        if measured is None:
            return f"no temperature of the {axle} is given: measure it after a series of stops"
        if mass is None:
            return f"the mass of the {axle} rotor or drum is not given: Measure asks for it"
        rise = measured.value - series.air.value
        if rise <= 2.0 * THERMOMETER:
            return f"the {axle} is hardly warmer than the air: more stops are wanted"
        works.append(_work(solution, axle, rise, mass))
    (front, front_off), (rear, rear_off) = works
    relative = math.hypot(front_off, rear_off)
    return Split(*_share(front / rear, relative), "heat")


def _work(solution: Solution, axle: Axle, rise: float, mass: float) -> tuple[float, float]:
    """Return one axle's work in units that both share, and its relative error.

    Of what several stops heated, the share that had cooled away by the last is made up for.
    """
    series = solution.build.heat or Heat()
    brake = solution.build.axle(axle).brake
    usual = brake_kind(brake).cooling_time
    cooling = COOLING_TIMES[brake.cooling] if brake.cooling is not None else usual
    left = math.exp(-series.between.value / series.speed.value / cooling)
    kept = (1.0 - left**series.stops) / (1.0 - left) / series.stops
    return mass * rise / kept, math.hypot(THERMOMETER / rise, COOLING_SPREAD * (1.0 - kept))


def computed_split(solution: Solution, usual: tuple[float, float]) -> Computed:
    """Return the rear's share over usual stops; usual: from and to [g].

    Source: forces at the road at evenly many decelerations; its spread of 95 % by draws of what is
    known of each figure.
    """
    build, made = solution.build, solution.system
    efforts = np.linspace(0.0, float(made.max_effort), EFFORTS)
    forces = axle_forces(made, pushrod_force(made, efforts), made.case(0))
    reached = np.maximum.accumulate(vehicle.demand(*forces, made.case(0)))
    wanted = np.linspace(*usual, STEPS)
    at = np.interp(wanted, reached, efforts)
    share = _mean_share(made, at)
    figures = spreads(build, 0)
    if not figures:
        return Computed(float(share), 0.0)
    values = drawn(build, figures, DRAWS, np.random.default_rng(SEED))
    off = _mean_share(system(build, over=laid(build, figures, values[:, :, None])), at)
    return Computed(float(share), 2.0 * float(np.std(off)))


def _forces(system: System, efforts: Array) -> tuple[Array, Array]:
    """Return what the brakes of either axle do by themselves [N]."""
    standing = StaticVehicle(*(np.asarray(value)[..., 0] for value in system.standing))
    lines = rolling_lines(system, pushrod_force(system, efforts), standing)
    front, rear = brake_forces_at(system, lines)
    shape = np.broadcast_shapes(front.shape, rear.shape)
    return np.broadcast_to(front, shape), np.broadcast_to(rear, shape)


def _mean_share(system: System, efforts: Array) -> Array:
    """Return the rear's mean share of the force over efforts, along the last axis [-]."""
    front, rear = _forces(system, efforts)
    whole = front + rear
    share = np.divide(rear, whole, out=np.zeros_like(whole), where=whole > 0.0)
    return np.asarray(share.mean(axis=-1))


def splits(solution: Solution) -> Pair[Split | str]:
    """Return what wear and what heat tell, or why they tell nothing.

    Source: the last wear that counts; the temperatures of the build's series.
    """
    proof = solution.build.proof
    worn = [one for one in (() if proof is None else proof.wear) if one.counts]
    wear: Split | str = "no wear has been measured"
    if worn:
        wear = split_by_wear(solution.build, worn[-1])
    return Pair(wear, split_by_heat(solution))
