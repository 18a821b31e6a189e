"""Residual valves: behind the cylinder's own seats, and in the circuits."""

from collections.abc import Iterator
from dataclasses import replace

from urgens.document import Build
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.brakes.drum import Drum
from urgens.document.residual_valves import residual_valves
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.rules.valve_fixes import put_in, taken_out
from urgens.guidance.thresholds import DISC_RESIDUAL, DRUM_RESIDUAL, UNDER_FLOOR_RESIDUAL
from urgens.guidance.words.figures import FigureWords
from urgens.physics.axle import AXLES, Axle
from urgens.plumbing.valve_mends import with_valve
from urgens.quantity import PRESSURE, parse
from urgens.solve import Solution


@rule("residual-in-disc-circuit", Severity.WARNING)
def residual_in_disc_circuit(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a residual valve that keeps discs pressed."""
    build, said = solution.build, set()
    for axle in AXLES:
        if not build.axle(axle).brake.has_pads:
            continue
        for path, kept in residual_valves(build, axle):
            if kept.value <= DISC_RESIDUAL or path in said:
                continue
            said.add(path)
            seat = " by a valve behind the cylinder's seat" if _behind_seat(path) else ""
            yield Remark(
                message=f"The {axle} circuit keeps {words.pressure(kept.value)} on its discs{seat} "
                "when the pedal is let go.",
                why="Pads have no springs to pull them back: they drag, heat up and wear.",
                where=path,
                fixes=(
                    _out(build, axle, path, f"Take the residual valve out of the {axle} circuit"),
                ),
            )


@rule("residual-twice", Severity.WARNING)
def residual_twice(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of two residual valves in one circuit."""
    build = solution.build
    for axle in AXLES:
        found = [path for path, _ in residual_valves(build, axle)]
        if len(found) < 2:
            continue
        yield Remark(
            message=f"The {axle} circuit has {len(found)} residual valves.",
            why="One is often behind the cylinder's seat already; a second holds fluid between "
            "them that nothing lets go.",
            where=found[1],
            fixes=(_out(build, axle, found[1], "Take the second one out"),),
        )


@rule("residual-missing", Severity.ADVICE)
def residual_missing(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of cups that nothing keeps open, and of discs above their cylinder."""
    build = solution.build
    for axle in AXLES:
        brake = build.axle(axle).brake
        if any(kept.value > 0.0 for _, kept in residual_valves(build, axle)):
            continue
        if isinstance(brake, Disc):
            if build.master.mounting == "under-floor":
                yield _missing(build, axle, UNDER_FLOOR_RESIDUAL, _BELOW, words)
        elif isinstance(brake, Drum) and not brake.cup_expanders:
            yield _missing(build, axle, DRUM_RESIDUAL, _CUPS, words)


_CUPS = (
    "and nobody has said that its wheel cylinders have cup expanders",
    "Let go quickly, their cups draw air past their lips: a little pressure, or a spring in each "
    "cylinder, keeps the lips out.",
)
_BELOW = (
    "and the cylinder sits below its calipers",
    "Fluid runs back from the calipers to the reservoir, and the next stroke has to bring it up "
    "again.",
)


def _missing(
    build: Build, axle: Axle, typed: str, said: tuple[str, str], words: FigureWords
) -> Remark:
    """Return what is to be said of an axle's circuit that keeps nothing."""
    kept = words.pressure(parse(typed, PRESSURE).value)
    part = {"kind": "residual", "pressure": typed}
    label = f"Put a residual valve of {kept} into the {axle} circuit"
    fix = put_in(build, axle, part, label, first=False)
    count = len(build.valves.of(axle))
    section = None
    if build.plumbing is not None:
        section = with_valve(build, axle, count, "residual")
    more = () if section is None else (("plumbing", section),)
    fixes: tuple[Fix, ...] = (replace(fix, more=more),)
    if typed == DRUM_RESIDUAL:
        there = Fix("Their wheel cylinders have cup expanders", f"{axle}.brake.cup_expanders", True)
        fixes = (*fixes, there)
    return Remark(
        message=f"The {axle} circuit has no residual valve, {said[0]}.",
        why=said[1],
        where=f"{axle}.brake.cup_expanders" if typed == DRUM_RESIDUAL else "master.mounting",
        fixes=fixes,
    )


def _behind_seat(path: str) -> bool:
    return path.startswith("master.outlets")


def _out(build: Build, axle: Axle, path: str, label: str) -> Fix:
    """Return the fix that takes a residual valve out, from behind a seat or out of a circuit."""
    if _behind_seat(path):
        return Fix(label, path, "0 psi")
    return taken_out(build, axle, int(path.partition("[")[2].removesuffix("]")), label)
