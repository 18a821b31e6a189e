"""Sayings about who stops shorter, and who locks first."""

import math

import numpy as np

from urgens.guidance.sayings.saying import (
    Answer,
    SayingTrial,
    SayingVerdict,
    bars,
    not_computed,
    rear_first,
    saying,
)
from urgens.physics.axle import AXLES
from urgens.solve import AxleName, Solution

EARLY = 0.75  # of what the road gives: a front that locks below it gives much away
LOWER = 0.05  # m


def _first(solution: Solution) -> tuple[str, float, float]:
    """Return the axle that locks first, the deceleration and the share of the road's then."""
    lock, case, road = solution.lock, solution.case, solution.road
    axle = AxleName(int(lock.axle[case, road])).name.lower()
    return axle, float(lock.z[case, road]), float(lock.efficiency[case, road])


def _locks(solution: Solution) -> bool:
    return not math.isnan(_first(solution)[1])


@saying("front-never-first", "The front must never lock first")
def front_never_first(trial: SayingTrial) -> Answer:
    """Try it: the rear must not; a front that locks far too early gives braking away."""
    axle, z, share = _first(trial.solution)
    if math.isnan(z):
        return not_computed("Nothing locks on this road at the hardest foot.")
    told = bars(
        ("the road gives", trial.solution.surface, f"{trial.solution.surface:.2f}"),
        ("at the first lock", z, f"{z:.2f} g"),
    )
    here = f"The {axle} locks first here, at {z:.2f} g: {100 * share:.0f} % of what the road gives."
    if axle == "rear":
        return Answer(SayingVerdict.NOT, here, "It is the rear that must not: it spins.", told)
    if share < EARLY:
        return Answer(
            SayingVerdict.WITHIN, here, "Straight on, but so early it gives much away.", told
        )
    return Answer(
        SayingVerdict.NOT,
        here,
        "A front that locks goes straight on; a rear that does, spins.",
        told,
    )


@saying("drilled", "Drilled rotors stop shorter")
def drilled(trial: SayingTrial) -> Answer:
    """Try it: not where tyres set the limit; beyond that the model has no holes in it."""
    if not _locks(trial.solution):
        return not_computed(
            "Brakes, not tyres, set the limit here; what holes do to linings is not in the model."
        )
    axle, z, _ = _first(trial.solution)
    return Answer(
        SayingVerdict.NOT,
        f"Tyres set the limit: the {axle} locks at {z:.2f} g with these rotors.",
        "Holes take iron away that holds heat.",
    )


@saying("four-discs", "Four-wheel discs stop shorter")
def four_discs(trial: SayingTrial) -> Answer:
    """Try it: one stop is set by tyres where the brakes can lock them; many are set by heat."""
    if not any(trial.build.axle(axle).brake.has_shoes for axle in AXLES):
        return not_computed("There are discs all round already.")
    axle, z, _ = _first(trial.solution)
    if math.isnan(z):
        return Answer(
            SayingVerdict.WITHIN,
            "The hardest foot locks nothing: more brake would stop it shorter.",
            "Whether by discs or by other cylinders.",
        )
    return Answer(
        SayingVerdict.NOT,
        f"With its drums the {axle} locks at {z:.2f} g: tyres set the limit.",
        "Stop after stop heat sets it: look at Size, Heat.",
    )


@saying("lower-car", "Lower the car and it brakes better")
def lower_car(trial: SayingTrial) -> Answer:
    """Try it: less load moves forward: good or bad for the first lock, as the split is."""
    changes: dict[str, object] = {}
    for place, case in enumerate(trial.build.vehicle.load_cases):
        height = case.cg_height.value - LOWER
        changes[f"vehicle.load_cases[{place}].cg_height"] = f"{height * 1e3:.2f} mm"
    other = trial.other(changes)
    if other is None:
        return not_computed("The centre of gravity cannot lie that much lower.")
    before, after = _first(trial.solution), _first(other)
    if math.isnan(before[1]) or math.isnan(after[1]):
        return not_computed("Nothing locks on this road at the hardest foot.")
    much = trial.words.length(LOWER)
    told = bars(
        ("as it stands", before[1], f"{before[1]:.2f} g"),
        (f"{much} lower", after[1], f"{after[1]:.2f} g"),
    )
    here = (
        f"{much} lower, the {after[0]} locks first at {after[1]:.2f} g, "
        f"not the {before[0]} at {before[1]:.2f} g."
    )
    if rear_first(other) and not rear_first(trial.solution):
        return Answer(SayingVerdict.NOT, here, "The rear locks first on some road then.", told)
    if after[1] > before[1] + 5e-3:
        return Answer(SayingVerdict.TRUE, here, "With the split that it has.", told)
    return Answer(SayingVerdict.NOT, here, "The split would have to follow.", told)


@saying("mostly-front", "Most of the braking is done by the front")
def most_by_front(trial: SayingTrial) -> Answer:
    """Try it: the front's share of the force at the first lock."""
    z = _first(trial.solution)[1]
    if math.isnan(z):
        return not_computed("Nothing locks on this road at the hardest foot.")
    effort = float(trial.solution.lock.effort[trial.solution.case, trial.solution.road])
    pressed = trial.solution.press(np.array([effort]))
    front, rear = float(pressed.front_force[0]), float(pressed.rear_force[0])
    share = front / (front + rear)
    told = bars(("front", front, trial.words.force(front)), ("rear", rear, trial.words.force(rear)))
    here = f"At the first lock, {z:.2f} g, the front does {100 * share:.0f} % of it."
    verdict = SayingVerdict.TRUE if share > 0.5 else SayingVerdict.NOT
    return Answer(verdict, here, "On this road and with this load.", told)
