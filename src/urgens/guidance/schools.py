"""Where the trade disagrees about valves, with this build's own figures."""

from dataclasses import dataclass, replace

import numpy as np

from urgens.build import Build
from urgens.build.valves import Metering
from urgens.build.wheel import Drum
from urgens.quantity import PRESSURE, Units, UnitSystem, parse, show
from urgens.solve import Solution
from urgens.solve.choice import Candidate
from urgens.solve.circuit import MeteringLaw, at_rest
from urgens.solve.lines import forces_at, line_pressures
from urgens.solve.system import System

LIGHT = parse("100 psi", PRESSURE).value  # a light press, where a metering valve still holds


@dataclass(frozen=True)
class School:
    """One question, what the schools say, and what this build says."""

    question: str
    schools: str
    here: str


def schools(
    solution: Solution, found: tuple[Candidate, ...], units: Units | UnitSystem
) -> tuple[School, ...]:
    """Return the questions that stand at the choice of a valve."""
    build = solution.build
    return (
        School(
            "Is a rear valve needed?",
            "One school always fits one after a disc conversion, one only if the car shows it.",
            _needed(found),
        ),
        School(
            "What does it do?",
            "“It slows the fluid”, “it splits 60 to 40”: neither. At a held pedal nothing flows "
            "and the gauge still shows the difference.",
            _does(solution, units),
        ),
        School(
            "Why a metering valve?",
            "Less front on ice, the rear shoes first, both ends together, less dive.",
            _metering(build, solution, units),
        ),
    )


def _needed(found: tuple[Candidate, ...]) -> str:
    none = next(one for one in found if one.kind == "none")
    best = found[0]
    if best.kind == "none":
        return "Here: none is needed; prove it on the road."
    rear = len(none.verdict.rear_first)
    without = (
        f"without one the rear is first {rear} time{'s' if rear != 1 else ''}"
        if rear
        else f"without one the margin is missed {none.verdict.missed} times"
    )
    return f"Here: {without}; with the best, never. The road decides."


def _does(solution: Solution, units: Units | UnitSystem) -> str:
    pressed = solution.press(np.array([solution.build.targets.max_effort.value]))
    front, rear = float(pressed.master_rear[0]), float(pressed.rear_pressure[0])
    if abs(front - rear) < 1.0:
        return "Here: nothing reduces the rear, the gauges agree."
    return (
        f"Here, pressed as hard as can be: {show(front, PRESSURE, units)} in, "
        f"{show(rear, PRESSURE, units)} out, for as long as the foot stays."
    )


def _metering(build: Build, solution: Solution, units: Units | UnitSystem) -> str:
    """Compare the front's share at a light press with and without what holds it off."""
    made = solution.system
    bare = replace(
        made, front_valves=tuple(v for v in made.front_valves if not isinstance(v, MeteringLaw))
    )
    metering = Metering(kind="metering")
    law = MeteringLaw(metering.close.value, metering.open.value, metering.full_pressure)
    held = replace(bare, front_valves=(law, *bare.front_valves))
    without, with_it = (_front_share(one, solution) for one in (bare, held))
    keep = (
        "keep it with rear drums"
        if isinstance(build.rear.brake, Drum)
        else ("leave it out with rear discs")
    )
    return (
        f"Here at {show(LIGHT, PRESSURE, units)}: {with_it} of the braking in front with one, "
        f"{without} without; {keep} (common practice)."
    )


def _front_share(made: System, solution: Solution) -> str:
    area, preload = made.front_cylinder.area, made.front_cylinder.spring_preload
    output = np.asarray(LIGHT * area / made.front_cylinder.efficiency + preload)
    lines = line_pressures(made, output / made.front_cylinder.share, at_rest(solution.standing))
    front, rear = (float(force) for force in forces_at(made, lines))
    return f"{100 * front / (front + rear):.0f} %" if front + rear > 0 else "none"
