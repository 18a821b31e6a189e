"""Small sums at the bench: which bore it is, the foot that closes a switch, room and reach."""

from collections.abc import Iterator

import numpy as np

from urgens.document import Build
from urgens.document.kinds.bores import met_bores, sold_bores
from urgens.document.practice import USUAL_THREADS, turns_of
from urgens.physics.cylinder import bore_area
from urgens.quantity import FORCE, LENGTH, PRESSURE, Quantity, Units, UnitSystem, show, unit_shown
from urgens.quantity.units import INCH
from urgens.solve import Solution
from urgens.solve.line_pressure import booster_output, cylinder_pressure, pushrod_force
from urgens.solve.rolling_forces import rolling_lines

POINTS = 2001
JAWS = 0.1e-3  # m by which inside jaws read small at most; common practice
CLOSE = 1e-7  # m; what is typed to a figure is that figure
JAWS_READ_SMALL = (
    "Inside jaws read small, by up to {by}: turn them for the largest reading, or take a "
    "telescopic gauge."
)
ARM = 0.6  # m from a belted shoulder to what is turned without looking; common practice


def bore_words(
    solution: Solution, reading: float, doubt: float, units: Units | UnitSystem
) -> Iterator[str]:
    """Yield which bores a caliper reading may be, and what the doubt means in pressure.

    reading: of the bore [m]; doubt: of it, to both sides [m].

    Source: the shipped bores; pressure is force over area at the comfortable foot.
    """
    effort = solution.build.targets.comfortable_effort.value
    made = solution.system
    output = booster_output(made, pushrod_force(made, effort))
    part = made.cylinders.front
    foot = show(effort, FORCE, units)
    within = possible_bores(reading, doubt)
    told = within or _nearest(reading)
    if not within:
        near = ", ".join(f"{bore.text}, {_off(bore.value, reading, units)}" for bore in told)
        yield f"No bore that is met is so near. The next ones: {near}."
    else:
        yield f"It may be: {', '.join(bore.text for bore in within)}."
        yield JAWS_READ_SMALL.format(by=_fine(JAWS, units))
    sold = {bore.value for bore in sold_bores()}
    areas = bore_area(np.array([bore.value for bore in told]))
    pressures = [float(one) for one in cylinder_pressure(part.sized(areas / part.area), output)]
    for bore, pressure in zip(told, pressures, strict=True):
        rare = "" if bore.value in sold else "; met on vehicles, hardly sold new"
        yield (
            f"{bore.text} ({_fine(bore.value, units)}): "
            f"{show(pressure, PRESSURE, units)} at {foot} of foot{rare}."
        )
    if len(within) > 1:
        apart = show(max(pressures) - min(pressures), PRESSURE, units)
        yield f"The doubt is worth {apart}: measure again, or look for the size on the casting."


def possible_bores(reading: float, doubt: float) -> tuple[Quantity, ...]:
    """Return the bores, inch and metric, that a caliper reading may be, the nearest first.

    reading: of the bore [m]; doubt: of it, to both sides [m].
    Inside jaws are flat and read small, so that a bore above counts a little further.
    Source: common practice.
    """
    found = (
        bore for bore in met_bores()
        if -doubt - CLOSE <= bore.value - reading <= doubt + JAWS + CLOSE
    )  # fmt: skip
    return tuple(sorted(found, key=lambda bore: abs(bore.value - reading)))


def _nearest(reading: float) -> tuple[Quantity, ...]:
    """Return the next bore in inches and the next in millimetres."""
    bores = sorted(met_bores(), key=lambda bore: abs(bore.value - reading))
    inch = next(bore for bore in bores if bore.text.endswith("in"))
    metric = next(bore for bore in bores if bore.text.endswith("mm"))
    return inch, metric


def _off(bore: float, reading: float, units: Units | UnitSystem) -> str:
    way = "larger" if bore > reading else "smaller"
    return f"{_fine(abs(bore - reading), units)} {way}"


def _fine(length: float, units: Units | UnitSystem) -> str:
    """Return a length as a caliper reads it: thousandths of an inch, hundredths of a mm."""
    if unit_shown(LENGTH, units) == "in":
        return f"{length / INCH:.3f} in"
    return f"{length * 1e3:.2f} mm"


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


def rod_words(build: Build, gap: float, units: Units | UnitSystem) -> str:
    """Return what a gap at the pushrod is at the pad, and in turns of the rod's thread, in words.

    build: with its pedal; gap: between rod and piston [m]. Source: the ratio; a turn is a pitch.
    """
    pedal = build.pedal
    play = gap * pedal.pivot_to_pad.value / pedal.pivot_to_pushrod.value
    threads = USUAL_THREADS if pedal.pushrod_thread is None else (pedal.pushrod_thread,)
    turns = " or ".join(turns_of(gap, thread) for thread in threads) if gap > 0 else "no turn"
    known = "" if pedal.pushrod_thread is not None else "; the rod's own thread is not given"
    return f"{show(play, LENGTH, units)} of play at the pad; {turns}{known}."


def hose_words(bent: float, least: float | None, units: Units | UnitSystem) -> str:
    """Return whether a hose bends too sharply, in words.

    bent: the least radius of its curve [m]; least: that it may have, None where it is not typed
    [m]. Source: a comparison.
    """
    if bent == float("inf"):
        return "It lies straight: nothing is left for travel or lock."
    said = f"Its least bend is {show(bent, LENGTH, units)} of radius"
    if least is None:
        return f"{said}: compare it with what its maker gives."
    if bent < least:
        return f"{said}, sharper than {show(least, LENGTH, units)}: it kinks or cracks there."
    return f"{said}; {show(least, LENGTH, units)} is the least it may have."


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
