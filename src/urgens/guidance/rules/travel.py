"""What ends the pedal's travel, whole or with one half lost."""

from collections.abc import Iterator

import numpy as np

from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.cylinders.stepped import SteppedMaster
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.physics.axle import AXLES
from urgens.solve import Solution
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.travel import Travel, bar_tilt, travel

CONTINUITY = "fluid volumes of the build; compliance and hoses as typed"


def _at_the_wanted(solution: Solution) -> tuple[float, Travel]:
    """Return the effort [N] for the wanted deceleration, else the comfortable one, and travel."""
    made, targets = solution.system, solution.build.targets
    effort = solution.wanted_effort
    if np.isnan(effort):
        effort = targets.comfortable_effort.value
    lines = rolling_lines(made, pushrod_force(made, effort), made.case(0))
    return effort, travel(made, np.asarray(effort), lines.front, lines.rear)


@rule("travel-ends", Severity.DANGER)
def travel_ends(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when the floor comes first."""
    effort, found = _at_the_wanted(solution)
    if not found.floor_ends:
        return
    floor = float(solution.system.volumes.floor)
    yield Remark(
        message=f"{words.force(effort)} of foot takes {words.length(float(found.pad))} of pedal, "
        f"and the floor is at {words.length(floor)}.",
        why="Travel is fluid over bore area times pedal ratio: too small a bore, too high a ratio "
        "or too much that swells puts the pedal on the floor.",
        basis=CONTINUITY,
        where="pedal.travel_available",
    )


@rule("stroke-ends", Severity.DANGER)
def stroke_ends(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when a chamber's stroke ends first."""
    effort, found = _at_the_wanted(solution)
    if not found.stroke_ends:
        return
    yield Remark(
        message=f"At {words.force(effort)} of foot a chamber of the cylinder needs more stroke "
        "than it has.",
        why="A piston that bottoms makes no more pressure, however hard the foot presses.",
        basis=CONTINUITY,
        where="master",
    )


@rule("take-up", Severity.ADVICE)
def take_up(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell where seals that draw pistons far back have no large bore to fill that, or the reverse.

    Source: common practice: a stepped cylinder and seals that roll back are made for each other.
    """
    build, stepped = solution.build, isinstance(solution.build.master, SteppedMaster)
    for axle in AXLES:
        brake = build.axle(axle).brake
        if not isinstance(brake, Disc) or brake.seal != ("square" if stepped else "rolled-back"):
            continue
        volume = float(np.max(solution.system.volumes.axles.of(axle).clearance_volume))
        bore = solution.system.volumes.chambers[0].first_area
        pad = words.length(float(solution.system.pedal_ratio * volume / bore))
        if stepped:
            yield Remark(
                message=f"The large bore has little to take up at the {axle}: {pad} of pedal.",
                why="Square seals draw the pistons back by a hair. A tandem cylinder of the small "
                "bore would do, and its pedal is longer by what the large bore fills.",
                basis="clearance of the pads, as typed or assumed; common practice",
                where="master",
            )
        else:
            yield Remark(
                message=f"{pad} of pedal go before the {axle} pads touch: their seals draw the "
                "pistons far back.",
                why="Calipers whose seals roll back are made for a stepped cylinder, whose large "
                "bore takes that up. With one bore the pedal starts low.",
                basis="clearance of the pads, as typed or assumed; common practice",
                where="master",
            )


@rule("half-failed-weak", Severity.WARNING)
def half_failed_weak(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when one half lost leaves too little, or the pedal on the floor."""
    made = solution.system
    if made.split == "single":
        return
    weak = [
        (bool(half.reached[case]), float(half.z[case]), name, half.dead)
        for case, name in enumerate(made.case_names)
        for half in solution.half_failed
        if not half.meets_rule[case]
    ]
    if not weak:
        return
    reached, z, name, dead = min(weak)  # what reaches nothing before what leaves little
    left = f"leaves {z:.2f} g" if reached else "finds no hold: the pedal is on the floor"
    yield Remark(
        message=f"“{name}”, {dead} circuit lost: {words.force(solution.max_effort)} of foot "
        f"{left}.",
        why="The dead chamber's stroke is used up first: the pedal falls, then the live half "
        "holds alone.",
        basis=made.rule.failed.basis,
        where="master",
    )


@rule("bar-angle", Severity.WARNING)
def bar_angle(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when the bar tilts beyond what it allows."""
    master, made = solution.build.master, solution.system
    if not isinstance(master, TwinMaster) or master.bar_max_angle is None:
        return
    efforts = np.linspace(0.0, made.max_effort, 101)
    lines = rolling_lines(made, pushrod_force(made, efforts), made.case(0))
    tilt = np.abs(bar_tilt(made, lines.front, lines.rear))
    if tilt.max() <= master.bar_max_angle.value:
        return
    effort = float(efforts[int(np.argmax(tilt > master.bar_max_angle.value))])
    yield Remark(
        message=f"From {words.force(effort)} of foot on the bar tilts beyond "
        f"{master.bar_max_angle.text}.",
        why="The two cylinders take different strokes; at its stop the bar no longer shares the "
        "force as it is set.",
        basis="the bar's own limit",
        where="master.bar_max_angle",
    )
