"""Who locks first, and whether the deceleration wanted is there."""

from collections.abc import Iterator

import numpy as np

from urgens.document.kinds.valves import kind_of
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.thresholds import IDLE_REAR
from urgens.guidance.words.figures import FigureWords, state, states
from urgens.physics.arrays import Bools
from urgens.physics.valve_law import at_rest, through
from urgens.physics.vehicle import attainable, demand
from urgens.solve import AxleName, Solution, ideal_pressures
from urgens.solve.adhesion_curve import LOWEST, whole_line
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import axle_forces, rolling_lines

FORCE_BALANCE = "force and moment balance of the braked vehicle"
KNEE_STEP = 2e5 / 6  # Pa, about 5 psi: finer than such valves are set


@rule("rear-locks-first", Severity.DANGER)
def rear_locks_first(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell where the first lock is the rear axle, on any road from ice to the target's."""
    lock, roads = solution.lock, list(solution.roads)
    first = lock.axle[:, roads] == AxleName.REAR
    if not first.any():
        return
    lead = np.where(first, lock.rear_used[:, roads] - lock.front_used[:, roads], -np.inf)
    case, place = divmod(int(np.argmax(np.where(np.isnan(lead), np.inf, lead))), len(roads))
    mu = roads[place]
    first[case, place] = False  # said by itself
    also = f" Likewise {_places(solution, first)}." if first.any() else ""
    yield Remark(
        message=f"{state(solution.system.case_names[case], solution.surfaces[mu])}: the rear "
        f"wheels lock first, at {words.force(lock.effort[case, mu])} of foot and "
        f"{lock.z[case, mu]:.2f} g.{also}",
        why="A locked wheel holds no line: with the front still rolling the vehicle spins.",
        basis=FORCE_BALANCE,
        where="valves.rear",
        chosen=True,
    )


def _places(solution: Solution, marked: Bools) -> str:
    """Name the marked roads of the first load case that has some, and count the other cases."""
    case, *rest = np.flatnonzero(marked.any(axis=1))
    runs: list[list[float]] = []
    for index in np.flatnonzero(marked[case]):
        surface = solution.surfaces[solution.roads[index]]
        if index and marked[case, index - 1]:
            runs[-1].append(surface)
        else:
            runs.append([surface])
    named = states(solution.system.case_names[case], runs)
    return f"{named} and {len(rest)} more of the load cases" if rest else named


def highest_knee(solution: Solution, slope: float) -> float:
    """Return the highest knee [Pa] with which the rear stays below the front, NaN if none is.

    slope: of its reducing valve [-].
    At the deceleration a road allows, the rear pressure must not pass its ideal value.

    The valve's law and the ideal forces, solved for the knee on each load case and judged road.
    """
    made = solution.system
    surfaces = np.array([solution.surfaces[road] for road in solution.roads])
    cases = made.cases
    front_ideal, rear_ideal = ideal_pressures(made, cases, attainable(cases, surfaces))
    efforts = np.linspace(0.0, made.max_effort, 401)
    lines = rolling_lines(made, pushrod_force(made, efforts), solution.standing)
    others = [
        law
        for law, valve in zip(made.valves.rear, solution.build.valves.rear, strict=True)
        if not kind_of(valve).has_knee
    ]
    arriving = through(others, lines.master_rear, at_rest(solution.standing))
    inlet = np.interp(front_ideal, lines.front, arriving, right=np.nan)
    reachable = np.isfinite(inlet)
    knees = (rear_ideal - slope * inlet) / (1.0 - slope)
    needed = knees[reachable & (knees < inlet)]
    if not needed.size:
        return float("nan")
    return float(np.floor(needed.min() / KNEE_STEP - 0.5) * KNEE_STEP)


@rule("rear-lifts", Severity.DANGER)
def rear_lifts(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell where the rear load is not positive at a deceleration the surface allows."""
    cases = solution.system.cases
    surfaces = np.array([solution.surfaces[road] for road in solution.roads])
    lifts = np.asarray(cases.lifts)[:, 0]
    lifted = attainable(cases, surfaces) >= lifts[:, None]
    if not lifted.any():
        return
    case = int(np.argmax(lifted.any(axis=1)))
    mu = surfaces[lifted[case]].min()
    name = solution.system.case_names[case]
    yield Remark(
        message=f"{state(name, mu)}: the rear wheels leave the ground at {lifts[case]:.2f} g.",
        why="Deceleration times centre-of-gravity height over wheelbase takes all the rear load.",
        basis=FORCE_BALANCE,
        where=f"vehicle.load_cases[{case}].cg_height",
    )


@rule("deceleration-not-reached", Severity.WARNING)
def deceleration_not_reached(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when demand at the comfortable effort is below the deceleration wanted."""
    targets, made = solution.build.targets, solution.system
    comfortable, most = targets.comfortable_effort.value, float(made.max_effort)
    efforts = np.array([comfortable, max(comfortable, most)])
    forces = axle_forces(made, pushrod_force(made, efforts), made.case(0))
    reached = demand(*forces, made.case(0))
    if reached[0] >= targets.deceleration:
        return
    hopeless = reached[1] < targets.deceleration
    with_most = f"even {words.force(most)} gives" if hopeless else f"{words.force(most)} would give"
    yield Remark(
        message=f"“{made.case_names[0]}”: {words.force(comfortable)} of foot asks for "
        f"{reached[0]:.2f} g where {targets.deceleration:.2f} g is wanted; {with_most} "
        f"{reached[1]:.2f} g.",
        why="Foot times pedal ratio and booster, over the bore, times pistons, friction and "
        "radius makes too little force at the tyres.",
        basis="the build's own targets",
        where="targets.deceleration",
        severity=Severity.DANGER if hopeless else None,
    )


@rule("rear-overtakes", Severity.WARNING)
def rear_overtakes(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell where the rear uses more adhesion than the front though it does not lock first."""
    if (solution.lock.axle[:, list(solution.roads)] == AxleName.REAR).any():
        return
    made, target = solution.system, solution.build.targets.surface
    points = whole_line(made, made.cases)
    above = (points.lead > 0.0) & (points.z >= LOWEST) & (points.z <= target)
    for case in np.flatnonzero(above.any(axis=1)):
        name, z = made.case_names[case], points.z[case][above[case]]
        yield Remark(
            message=f"“{name}”: from {z.min():.2f} to {z.max():.2f} g the rear uses more grip "
            "than the front.",
            why="Pressed harder than the foot may, on a road that holds so much, the rear would "
            "lock first.",
            basis=FORCE_BALANCE,
            where="valves.rear",
            fixes=(),
        )
        return


@rule("rear-idle", Severity.WARNING)
def rear_idle(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when the rear hardly works at the front's lock on the target road."""
    lock, target = solution.lock, solution.build.targets.surface
    at = (0, solution.surfaces.index(target))
    if lock.axle[at] != AxleName.FRONT:
        return
    share = float(lock.rear_used[at] / lock.front_used[at])
    if share >= IDLE_REAR:
        return
    yield Remark(
        message=f"{state(solution.system.case_names[0], target)}: when the front locks the rear "
        f"uses {share * 100:.0f} % of the grip the front does, and {lock.z[at]:.2f} g is reached.",
        why="A rear that does little leaves the front to do all, so it locks early and the stop "
        "is longer than the road allows.",
        where="valves.rear",
    )


@rule("adhesion-limit", Severity.ADVICE)
def adhesion_limit(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when an axle uses more adhesion than the rule draws its line at."""
    if solution.regulation.adhesion_limit:
        return
    rule_ = solution.system.rule
    yield Remark(
        message=f"“{solution.case_name}”: an axle uses more grip than z ≥ 0.1 + "
        f"{rule_.steepness:g} (k − 0.2) leaves, for k from 0.2 to 0.8.",
        why="One axle does much more than its share, so a slippery road is used badly.",
        basis=f"{rule_.text}, for your own comparison",
        where="valves.rear",
    )
