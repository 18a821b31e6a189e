"""Whether foot, lever, booster and bore go together."""

from collections.abc import Iterator
from math import sqrt

from urgens.build.booster import VacuumBooster
from urgens.build.master import TwinMaster
from urgens.guidance.finding import Finding, Fix, Severity
from urgens.guidance.practice import (
    BOOSTED_RATIO,
    BORES_IN,
    HIGHEST_BOOSTED_RATIO,
    LOWEST_MANUAL_RATIO,
    MANUAL_RATIO,
)
from urgens.guidance.registry import rule
from urgens.guidance.words import COMMON_PRACTICE, Words
from urgens.quantity import LENGTH, parse
from urgens.solve import Solution
from urgens.solve.press import pushrod_force, rolling_lines


@rule("pressure-outside-window")
def pressure_outside_window(solution: Solution, words: Words) -> Iterator[Finding]:
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
    yield Finding(
        code="pressure-outside-window",
        severity=Severity.WARNING,
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
    if isinstance(master, TwinMaster) or pressure <= 0:
        return
    wanted = master.bore.value * sqrt(pressure / ((low + high) / 2))
    bores = [parse(f"{text} in", LENGTH) for text in BORES_IN]
    nearest = min(bores, key=lambda bore: abs(bore.value - wanted))
    if low <= pressure * (master.bore.value / nearest.value) ** 2 <= high:
        yield Fix(f"Take a bore of {nearest.text}", "master.bore", nearest.text)


def _pin_fix(solution: Solution, words: Words, ratio: float) -> Fix:
    pin = words.typed_length(solution.build.pedal.pivot_to_pad.value / ratio)
    return Fix(f"Move the pushrod pin to {pin}, about {ratio:g}:1", "pedal.pivot_to_pushrod", pin)


def _boosted(solution: Solution) -> bool:
    booster = solution.build.booster
    return isinstance(booster, VacuumBooster) and booster.working


@rule("boosted-ratio-without-booster")
def boosted_ratio_without_booster(solution: Solution, words: Words) -> Iterator[Finding]:
    """Tell of no working booster, and the pushrod in the hole meant for one."""
    ratio = solution.system.pedal_ratio
    if _boosted(solution) or ratio >= LOWEST_MANUAL_RATIO:
        return
    yield Finding(
        code="boosted-ratio-without-booster",
        severity=Severity.DANGER,
        message=f"The pedal ratio is {ratio:.1f}:1 and no booster works.",
        why="That hole is meant for a booster: alone the leg has to supply its share as well, and "
        "the brakes seem to do nothing.",
        basis=f"{COMMON_PRACTICE}: manual pedals 6:1 to 7:1, boosted about 4:1",
        where="pedal.pivot_to_pushrod",
        fixes=(_pin_fix(solution, words, MANUAL_RATIO),),
    )


@rule("manual-ratio-with-booster")
def manual_ratio_with_booster(solution: Solution, words: Words) -> Iterator[Finding]:
    """Tell of a working booster behind a manual pedal ratio."""
    ratio = solution.system.pedal_ratio
    if not _boosted(solution) or ratio <= HIGHEST_BOOSTED_RATIO:
        return
    yield Finding(
        code="manual-ratio-with-booster",
        severity=Severity.WARNING,
        message=f"The pedal ratio is {ratio:.1f}:1 with a working booster.",
        why="Assist on top of a manual ratio makes a pedal that is too light to dose and travels "
        "too far.",
        basis=f"{COMMON_PRACTICE}: manual pedals 6:1 to 7:1, boosted about 4:1",
        where="pedal.pivot_to_pushrod",
        fixes=(_pin_fix(solution, words, BOOSTED_RATIO),),
    )
