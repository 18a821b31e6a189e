"""Where the trade disagrees about valves, with this build's own figures."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from urgens.document.kinds.brakes.drum import Drum
from urgens.document.kinds.valves.reducing import Reducing
from urgens.guidance.rules.balance import highest_knee
from urgens.guidance.rules.light_press import LIGHT, front_shares
from urgens.guidance.thresholds import USUAL_SHOES
from urgens.physics.vehicle import axle_loads
from urgens.quantity import FORCE, PRESSURE, Units, UnitSystem, show
from urgens.solve import AxleName, Solution
from urgens.studies.valve_choice import Candidate

SCANNED = 801  # efforts


Found = tuple[Candidate, ...]


@dataclass(frozen=True)
class Disagreement:
    """One question, what the schools say, and what this build says."""

    question: str
    schools: str
    here: str


def schools(
    solution: Solution, candidates: tuple[Candidate, ...], units: Units | UnitSystem
) -> tuple[Disagreement, ...]:
    """Return the questions that stand at the choice of a valve, those a build raises.

    candidates: ways to balance it, ranked; units: to show figures
    in.

    Where the trade disagrees; the build's own figures.
    """
    answered = ((*asked, answer(solution, candidates, units)) for *asked, answer in _ASKED)
    return tuple(Disagreement(question, said, here) for question, said, here in answered if here)


def _why_at_all(solution: Solution, estimate: Found, units: Units | UnitSystem) -> str:
    """Part what the load asks for from what drums add."""
    standing, build = solution.standing, solution.build
    z = min(build.targets.deceleration, solution.surface)
    still, moved = (
        float(rear / (front + rear))
        for front, rear in (axle_loads(standing, 0.0), axle_loads(standing, z))
    )
    said = f"Here: {100 * still:.0f} % of the load is behind, {100 * moved:.0f} % at {z:.2g} g. "
    brake = build.rear.brake
    if not isinstance(brake, Drum):
        return said + "Rear discs do not grab: it is the load."
    *_, least, most = USUAL_SHOES[brake.layout]
    return (
        said + f"And with a tenth more friction {brake.layout} drums give {10 * least:.0f} to "
        f"{10 * most:.0f} % more, discs 10 % (common practice)."
    )


def _first(solution: Solution, estimate: Found, units: Units | UnitSystem) -> str:
    """Say what bites first and what locks first."""
    efforts = np.linspace(0.0, solution.build.targets.max_effort.value, SCANNED)
    presses = solution.press(efforts)
    bites = {
        axle: float(efforts[int(np.argmax(torque > 0.0))]) if np.any(torque > 0.0) else np.inf
        for axle, torque in (
            ("front", presses.front_wheel_torque),
            ("rear", presses.rear_wheel_torque),
        )
    }
    early, late = sorted(bites, key=lambda axle: bites[axle])
    step = efforts[1]
    if not np.isfinite(bites[late]):
        bite = f"only the {early} ever bites"
    elif bites[late] <= step:
        bite = "both bite at the first touch"
    elif bites[late] - bites[early] <= step:
        bite = f"both bite at {show(bites[early], FORCE, units)} of foot"
    else:
        bite = (
            f"the {early} bites at {show(bites[early], FORCE, units)} of foot, the {late} at "
            f"{show(bites[late], FORCE, units)}"
        )
    axle = AxleName(int(solution.lock.axle[solution.case, solution.road]))
    lock = "nothing locks" if axle is AxleName.NONE else f"the {axle.name.lower()} locks first"
    return f"Here: {bite}; on this road {lock}."


def _reducing_half(solution: Solution, estimate: Found, units: Units | UnitSystem) -> str:
    """Compare the knee of a valve made for drums with what these rear discs allow."""
    valve = next((v for v in solution.build.valves.rear if v.body), None)
    if valve is None or not solution.build.rear.brake.has_pads:
        return ""
    if not isinstance(valve, Reducing):
        return f"Here: its {valve.kind} part is no reducing half."
    highest = highest_knee(solution, valve.slope)
    knee = show(valve.knee.value, PRESSURE, units)
    if not np.isfinite(highest):
        return f"Here: these rear brakes ask for no knee; its own, {knee}, only takes away."
    fits = "is not above that" if valve.knee.value <= highest else "is above that"
    return (
        f"Here: at its slope of {valve.slope:g} these rear discs take a knee of up to "
        f"{show(highest, PRESSURE, units)}; its own, {knee}, {fits}."
    )


def _needed(solution: Solution, estimate: Found, units: Units | UnitSystem) -> str:
    none = next(one for one in estimate if one.kind == "none")
    best = estimate[0]
    if best.kind == "none":
        return "Here: none is needed; prove it on the road."
    rear = len(none.verdict.rear_first)
    best, missed = estimate[0], none.verdict.missed
    if rear:
        without = f"without one the rear is first {rear} time{'s' if rear != 1 else ''}"
    elif missed > best.to_take[1].missed:
        without = f"without one the margin is missed {missed} times"
    elif none.chance is not None and best.chance is not None:
        return (
            f"Here: without one the front is first, and the rear in {100 * none.chance:.0f} of "
            f"100 such builds, with the best in {100 * best.chance:.0f}. Measuring tells more."
        )
    else:
        return "Here: without one the front is first as well; with the best a little more is used."
    return f"Here: {without}; with the best, never. The road decides."


def _does(solution: Solution, estimate: Found, units: Units | UnitSystem) -> str:
    pressed = solution.press(np.array([solution.build.targets.max_effort.value]))
    front, rear = float(pressed.master_rear[0]), float(pressed.rear_pressure[0])
    if abs(front - rear) < 1.0:
        return "Here: nothing reduces the rear, the gauges agree."
    return (
        f"Here, pressed as hard as can be: {show(front, PRESSURE, units)} in, "
        f"{show(rear, PRESSURE, units)} out, for as long as the foot stays."
    )


def _metering(solution: Solution, estimate: Found, units: Units | UnitSystem) -> str:
    """Compare the front's share at a light press with and without what holds it off."""
    with_it, without = (
        "none" if np.isnan(share) else f"{100 * share:.0f} %" for share in front_shares(solution)
    )
    keep = (
        "keep it with rear drums"
        if solution.build.rear.brake.has_shoes
        else "leave it out with rear discs"
    )
    return (
        f"Here at {show(LIGHT, PRESSURE, units)}: {with_it} of the braking in front with one, "
        f"{without} without; {keep} (common practice)."
    )


def _fixed_or_adjustable(solution: Solution, estimate: Found, units: Units | UnitSystem) -> str:
    """Say what a fixed valve would have to be, which an adjustable one has to reach."""
    fixed = next((one.fitted for one in estimate if one.kind == "reducing"), None)
    if fixed is None or fixed.knee is None:
        return ""
    return (
        f"Here: the fixed one to look for has a knee of {show(fixed.knee, PRESSURE, units)} and a "
        f"slope of {fixed.slope:.2f}; an adjustable one has to reach that with some turns left "
        "both ways."
    )


def _anti_lock(solution: Solution, estimate: Found, units: Units | UnitSystem) -> str:
    return (
        "Here: it passes pressure one to one and lies outside what is computed. No reducing valve "
        "behind it without its maker's leave."
    )


Answer = Callable[[Solution, Found, Units | UnitSystem], str]  # nothing where it is not asked
_ASKED: tuple[tuple[str, str, Answer], ...] = (
    (
        "Is a rear valve needed?",
        "One school always fits one after a disc conversion, one only if the car shows it.",
        _needed,
    ),
    (
        "Why one at all?",
        "“Drums grab”, “the load moves forward”: both, each to its own part.",
        _why_at_all,
    ),
    (
        "What does it do?",
        "“It slows the fluid”, “it splits 60 to 40”: neither. At a held pedal nothing flows and "
        "the gauge still shows the difference.",
        _does,
    ),
    (
        "Which end should act first?",
        "Rear first, for stability; front first. Bite and lock are two things: whatever bites "
        "first, the front has to lock first.",
        _first,
    ),
    (
        "Why a metering valve?",
        "Less front on ice, the rear shoes first, both ends together, less dive.",
        _metering,
    ),
    (
        "A fixed valve, or a plain block and an adjustable one?",
        "Either. The fixed body keeps lamp and shuttle; an adjustable one is set on the road and "
        "brings two joints, and with the old block's rear port plugged its lamp and shuttle are "
        "lost.",
        _fixed_or_adjustable,
    ),
    (
        "Rear discs behind a disc and drum valve?",
        "Keep its reducing half; fit another.",
        _reducing_half,
    ),
    ("An anti-lock unit in the system?", "“It balances by itself”; keep the valve.", _anti_lock),
)
