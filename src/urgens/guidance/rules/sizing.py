"""Whether foot, lever, booster and bore go together."""

from collections.abc import Iterator
from dataclasses import replace
from math import sqrt

from urgens.document.kinds.boosters.kind import FittedBooster
from urgens.document.kinds.boosters.none import NoBooster
from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.document.kinds.bores import sold_bores
from urgens.document.kinds.cylinders.kind import OneBore
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.thresholds import (
    BOOSTED_RATIO,
    HIGHEST_BOOSTED_RATIO,
    LOWEST_MANUAL_RATIO,
    LOWEST_VACUUM,
    MANUAL_RATIO,
)
from urgens.guidance.words.figures import COMMON_PRACTICE, FigureWords
from urgens.physics.vehicle import demand
from urgens.solve import Solution
from urgens.solve.effort import run_out_effort
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.press import axle_forces, rolling_lines


@rule("pressure-outside-window", Severity.WARNING)
def pressure_outside_window(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when the front outlet's pressure at the comfortable effort is outside the window."""
    targets = solution.build.targets
    low, high = (pressure.value for pressure in targets.pressure_window)
    effort = targets.comfortable_effort.value
    made = solution.system
    lines = rolling_lines(made, pushrod_force(made, effort), solution.standing)
    pressure = float(lines.master_front)
    if low <= pressure <= high:
        return
    side, end = ("below", low) if pressure < low else ("above", high)
    yield Remark(
        message=f"{words.force(effort)} of foot makes {words.pressure(pressure)} at the cylinder's "
        f"front outlet, {side} the {words.pressure(end)} the build asks for.",
        why="Pressure is pushrod force over bore area: a smaller bore gives more pressure and "
        "more travel, a larger one less of both.",
        basis="the build's own window; the presets are common practice",
        where="master",
        fixes=tuple(_other_bore(solution, pressure, low, high)),
    )


def _other_bore(solution: Solution, pressure: float, low: float, high: float) -> Iterator[Fix]:
    """Yield the bore, of those that are made, whose pressure is nearest the window's middle."""
    master = solution.build.master
    if not isinstance(master, OneBore) or pressure <= 0:
        return
    wanted = master.bore.value * sqrt(pressure / ((low + high) / 2))
    bores = [bore for bore in sold_bores() if bore.text.endswith("in")]
    nearest = min(bores, key=lambda bore: abs(bore.value - wanted))
    if low <= pressure * (master.bore.value / nearest.value) ** 2 <= high:
        yield Fix(f"Take a bore of {nearest.text}", "master.bore", nearest.text)


def _pin_fix(solution: Solution, words: FigureWords, ratio: float) -> Fix:
    pin = words.typed_length(solution.build.pedal.pivot_to_pad.value / ratio)
    return Fix(f"Move the pushrod pin to {pin}, about {ratio:g}:1", "pedal.pivot_to_pushrod", pin)


def _boosted(solution: Solution) -> bool:
    booster = solution.build.booster
    return booster.works and not isinstance(booster, NoBooster)


@rule("boosted-ratio-without-booster", Severity.DANGER)
def boosted_ratio_without_booster(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of no working booster, and the pushrod in the hole meant for one."""
    ratio = solution.system.pedal_ratio
    if _boosted(solution) or ratio >= LOWEST_MANUAL_RATIO:
        return
    yield Remark(
        message=f"The pedal ratio is {ratio:.1f}:1 and no booster works.",
        why="That hole is meant for a booster: alone the leg has to supply its share as well, and "
        "the brakes seem to do nothing.",
        basis=f"{COMMON_PRACTICE}: manual pedals 6:1 to 7:1, boosted about 4:1",
        where="pedal.pivot_to_pushrod",
        fixes=(_pin_fix(solution, words, MANUAL_RATIO),),
    )


@rule("manual-ratio-with-booster", Severity.WARNING)
def manual_ratio_with_booster(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a working booster behind a manual pedal ratio."""
    ratio = solution.system.pedal_ratio
    if not _boosted(solution) or ratio <= HIGHEST_BOOSTED_RATIO:
        return
    yield Remark(
        message=f"The pedal ratio is {ratio:.1f}:1 with a working booster.",
        why="Assist on top of a manual ratio makes a pedal that is too light to dose and travels "
        "too far.",
        basis=f"{COMMON_PRACTICE}: manual pedals 6:1 to 7:1, boosted about 4:1",
        where="pedal.pivot_to_pushrod",
        fixes=(_pin_fix(solution, words, BOOSTED_RATIO),),
    )


@rule("vacuum-low", Severity.WARNING)
def vacuum_low(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a vacuum booster with too little vacuum."""
    booster = solution.build.booster
    if not isinstance(booster, VacuumBooster) or booster.vacuum.value >= LOWEST_VACUUM:
        return
    yield Remark(
        message=f"The booster has {booster.vacuum.text} of vacuum; about 15 to 22 inHg is usual.",
        why="Assist is vacuum times diaphragm area: with little it runs out early. A hot camshaft "
        "is the usual cause; a reservoir, a pump or a hydraulic booster the usual cure.",
        where="booster.vacuum",
    )


@rule("booster-does-not-fit", Severity.WARNING)
def booster_does_not_fit(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a booster whose shell is larger than the room there is."""
    fitted = solution.build.booster
    if not isinstance(fitted, FittedBooster) or fitted.envelope is None or fitted.room is None:
        return
    over = {
        "across": fitted.envelope.diameter.value - fitted.room.diameter.value,
        "along": fitted.envelope.length.value - fitted.room.length.value,
    }
    short = [f"{words.length(by)} too large {way}" for way, by in over.items() if by > 0]
    if not short:
        return
    yield Remark(
        message=f"The booster's shell is {' and '.join(short)} for the room there is.",
        why="It moves with the firewall, the engine moves towards it: a shell that touches wears "
        "through. Two small diaphragms in line, a hydraulic booster or a manual set-up need less.",
        basis="the build's own measures",
        where="booster",
    )


@rule("booster-runs-out", Severity.WARNING)
def booster_runs_out(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when the assist is at its limit before the wanted deceleration."""
    if not _boosted(solution):
        return
    wanted, effort = solution.wanted_effort, run_out_effort(solution.system)
    if not effort < wanted:
        return
    yield Remark(
        message=f"From {words.force(effort)} of foot on the booster helps no more; "
        f"{solution.build.targets.deceleration:.2f} g takes {words.force(wanted)}.",
        why="Past run-out each pound comes from the leg alone, and the pedal turns hard.",
        basis="booster characteristic",
        where="booster",
    )


@rule("booster-lost-weak", Severity.WARNING)
def booster_lost_weak(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when too little is left without the booster."""
    if not _boosted(solution):
        return
    lost = replace(solution.system, booster=replace(solution.system.booster, assist_limit=0.0))
    standing = lost.case(0)
    forces = axle_forces(lost, pushrod_force(lost, lost.max_effort), standing)
    left = float(demand(*forces, standing))
    asks = lost.rule.failed
    if left >= asks.z:
        return
    yield Remark(
        message=f"With the booster lost, {words.force(solution.max_effort)} of foot asks for "
        f"{left:.2f} g; {asks.z:.2f} g is what the rule keeps.",
        why="The pedal ratio and the bore were chosen for assist that is then gone.",
        basis=asks.basis,
        where="booster",
    )


@rule("hold-short", Severity.WARNING)
def hold_short(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell when the launch is not held."""
    held = solution.hold
    if held is None or held.holds:
        return
    yield Remark(
        message=f"{words.force(solution.max_effort)} of foot does not hold "
        f"{words.torque(held.driven_torque)} at the driven axle: the {held.limited_by} end first.",
        why="The driven brakes and what the road passes from the other axle hold the stalled "
        "driveline together.",
        basis="moments about the driven hubs",
        where="vehicle.launch",
    )
