"""Small sums at the bench: which bore it is, the foot that closes a switch, room and reach."""

from collections.abc import Iterator
from math import pi

import numpy as np

from urgens.document.kinds.bores import sold_bores
from urgens.quantity import FORCE, LENGTH, PRESSURE, Units, UnitSystem, show
from urgens.solve import Solution
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines

POINTS = 2001
ARM = 0.6  # m from a belted shoulder to what is turned without looking; common practice


def bore_words(
    solution: Solution, reading: float, doubt: float, units: Units | UnitSystem
) -> Iterator[str]:
    """Yield which sold bores a caliper reading may be, and what the doubt means in pressure.

    reading: of the bore [m]; doubt: of it, to both sides [m].

    Source: the shipped bores; pressure is force over area at the comfortable foot.
    """
    effort = solution.build.targets.comfortable_effort.value
    made = solution.system
    lines = rolling_lines(made, pushrod_force(made, effort), solution.standing)
    force = float(lines.master_front) * float(made.cylinders.front.area)
    foot = show(effort, FORCE, units)
    near = sorted(sold_bores(), key=lambda bore: abs(bore.value - reading))
    within = [bore for bore in near if abs(bore.value - reading) <= doubt]
    if not within:
        off = show(abs(near[0].value - reading), LENGTH, units)
        yield f"No bore that is sold is so near; {near[0].text} is the next, {off} off."
        within = near[:1]
    else:
        yield f"Sold so: {', '.join(bore.text for bore in within)}."
    pressures = [force / (pi / 4.0 * bore.value**2) for bore in within]
    for bore, pressure in zip(within, pressures, strict=True):
        yield f"{bore.text}: {show(pressure, PRESSURE, units)} at {foot} of foot."
    if len(within) > 1:
        apart = show(max(pressures) - min(pressures), PRESSURE, units)
        yield f"The doubt is worth {apart}: measure again, or look for the size on the casting."


def switch_words(solution: Solution, closes: float, units: Units | UnitSystem) -> str:
    """Return at which foot a hydraulic brake-light switch closes, in words.

    closes: its pressure [Pa].

    The pressure at the cylinder over the foot's force.
    """
    made = solution.system
    most = float(np.max(made.max_effort))
    efforts = np.linspace(0.0, most, POINTS)
    lines = rolling_lines(made, pushrod_force(made, efforts), solution.standing)
    pressure = np.broadcast_to(lines.master_front, efforts.shape)
    if float(pressure[-1]) < closes:
        return f"It does not close up to {show(most, FORCE, units)} of foot."
    effort = float(efforts[np.argmax(pressure >= closes)])
    comfortable = solution.build.targets.comfortable_effort.value
    said = f"It closes at {show(effort, FORCE, units)} of foot"
    if effort > comfortable / 4.0:
        return (
            f"{said}: that is a good part of a stop, and who follows sees it late. A switch at "
            "the pedal closes before anything brakes."
        )
    return f"{said}, before the vehicle slows by much."


def room_words(needed: float, there: float, what: str, units: Units | UnitSystem) -> str:
    """Return whether something has room, in words.

    needed: of it [m]; there: what there is [m]; what: that is meant [text].
    Source: subtraction.
    """
    left = there - needed
    if left < 0:
        return f"{what}: {show(-left, LENGTH, units)} too long for the room."
    return f"{what}: {show(left, LENGTH, units)} left."


def reach_words(away: float, units: Units | UnitSystem) -> str:
    """Return whether a valve in the cabin is within reach, in words.

    away: from the belted shoulder [m].
    Source: common practice.
    """
    arm = show(ARM, LENGTH, units)
    if away > ARM:
        over = show(away - ARM, LENGTH, units)
        return f"{over} further than {arm}: belted it is not reached without leaning and looking."
    return f"Within {arm} of the belted shoulder: reached without looking (common practice)."
