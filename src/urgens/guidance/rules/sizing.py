"""Whether foot, lever, booster and bore go together."""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from urgens.document.kinds.boosters.kind import FittedBooster
from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.document.kinds.bores import sold_bores
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.thresholds import (
    LOWEST_VACUUM,
)
from urgens.guidance.words.figures import COMMON_PRACTICE, FigureWords
from urgens.physics.vehicle import demand
from urgens.solve import Solution
from urgens.solve.effort import run_out_effort
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import axle_forces, rolling_lines
from urgens.studies.sizing import RATIOS, sizing_map
from urgens.studies.sizing_windows import (
    HIGHEST_BOOSTED,
    LOWEST_MANUAL,
    MissedWindow,
    boosted,
)


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
        fixes=_size_fixes(solution, words, MissedWindow.PRESSURE),
    )


def _size_fixes(solution: Solution, words: FigureWords, kind: MissedWindow) -> tuple[Fix, ...]:
    """Return the fix that takes the best bore and ratio of the map that keep a window.

    None where none does without missing one that is kept now.
    """
    build, master = solution.build, solution.build.master
    if master.has_bar:
        return ()
    own = master.main_bore
    sold = {bore.value: bore for bore in sold_bores()} | {own.value: own}
    bores = [sold[value] for value in sorted(sold)]
    values, mine = np.array([bore.value for bore in bores]), sorted(sold).index(own.value)
    here = np.array([own.value])
    ratio = np.array([float(solution.system.pedal_ratio)])
    now = int(sizing_map(build, solution.case, here, here, ratio).misses[0, 0])
    found = sizing_map(build, solution.case, values, values, RATIOS)
    best = found.better(kind, now, mine)
    if best is None:
        return ()
    row, wanted = best[0], float(RATIOS[best[1]])
    pin = words.typed_length(build.pedal.pivot_to_pad.value / wanted)
    label = f"Move the pushrod pin to {pin}, about {wanted:.2f}:1"
    if row == mine:
        return (Fix(label, "pedal.pivot_to_pushrod", pin),)
    label = f"Take a bore of {bores[row].text}, and {label[:1].lower()}{label[1:]}"
    more = tuple((f"master.{name}", text) for name, text in master.of_bore(bores[row]).items())
    return (Fix(label, "pedal.pivot_to_pushrod", pin, more=more),)


@rule("boosted-ratio-without-booster", Severity.DANGER)
def boosted_ratio_without_booster(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of no working booster, and the pushrod in the hole meant for one."""
    ratio = solution.system.pedal_ratio
    if boosted(solution.build) or ratio >= LOWEST_MANUAL:
        return
    comfortable, wanted = solution.build.targets.comfortable_effort.value, solution.wanted_effort
    if wanted <= comfortable:
        yield Remark(
            message=f"The pedal ratio is {ratio:.2f}:1 and no booster works; "
            f"{words.force(wanted)} of foot for {solution.build.targets.deceleration:.2f} g is no "
            "more than the comfortable one all the same.",
            why="A small bore goes with a short pedal: less travel for the same foot.",
            basis=f"{COMMON_PRACTICE}: manual pedals 6:1 to 7:1, boosted about 4:1",
            where="pedal.pivot_to_pushrod",
            severity=Severity.ADVICE,
        )
        return
    most = solution.build.targets.max_effort.value
    reached = bool(wanted <= most)  # not where it is NaN
    foot = f"{words.force(wanted)} of foot" if reached else f"more than {words.force(most)} of foot"
    yield Remark(
        message=f"The pedal ratio is {ratio:.2f}:1 and no booster works: {foot} for "
        f"{solution.build.targets.deceleration:.2f} g, {words.force(comfortable)} are comfortable.",
        why="That hole is meant for a booster: alone the leg has to supply its share as well"
        + ("." if reached else ", and the brakes seem to do nothing."),
        basis=f"{COMMON_PRACTICE}: manual pedals 6:1 to 7:1, boosted about 4:1",
        where="pedal.pivot_to_pushrod",
        fixes=_size_fixes(solution, words, MissedWindow.RATIO),
        severity=Severity.WARNING if reached else None,
    )


@rule("manual-ratio-with-booster", Severity.WARNING)
def manual_ratio_with_booster(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a working booster behind a manual pedal ratio."""
    ratio = solution.system.pedal_ratio
    if not boosted(solution.build) or ratio <= HIGHEST_BOOSTED:
        return
    yield Remark(
        message=f"The pedal ratio is {ratio:.2f}:1 with a working booster.",
        why="Assist on top of a manual ratio makes a pedal that is too light to dose and travels "
        "too far.",
        basis=f"{COMMON_PRACTICE}: manual pedals 6:1 to 7:1, boosted about 4:1",
        where="pedal.pivot_to_pushrod",
        fixes=_size_fixes(solution, words, MissedWindow.RATIO),
    )


@rule("vacuum-low", Severity.WARNING)
def vacuum_low(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a vacuum booster with too little vacuum."""
    booster = solution.build.booster
    if not isinstance(booster, VacuumBooster) or booster.vacuum.value >= LOWEST_VACUUM:
        return
    yield Remark(
        message=f"The booster has {words.vacuum(booster.vacuum.value)} of vacuum; about "
        f"{words.practice('vacuum_at_idle_range')} is usual.",
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
    if not boosted(solution.build):
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
    if not boosted(solution.build):
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
