"""Residual valves: behind the cylinder's own seats, and in the circuits."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.document.brakes.disc import Disc
from urgens.document.outlets import residual_valves
from urgens.guidance.finding import Finding, Fix, Severity
from urgens.guidance.practice import DISC_RESIDUAL
from urgens.guidance.refit import taken_out
from urgens.guidance.registry import rule
from urgens.guidance.words import COMMON_PRACTICE, Words
from urgens.physics.axle import AXLES, Axle
from urgens.solve import Solution


@rule("residual-in-disc-circuit")
def residual_in_disc_circuit(solution: Solution, words: Words) -> Iterator[Finding]:
    """Tell of a residual valve that keeps discs pressed."""
    build, said = solution.build, set()
    for axle in AXLES:
        if not isinstance(build.axle(axle).brake, Disc):
            continue
        for path, kept in residual_valves(build, axle):
            if kept.value <= DISC_RESIDUAL or path in said:
                continue
            said.add(path)
            seat = " by a valve behind the cylinder's seat" if _behind_seat(path) else ""
            yield Finding(
                code="residual-in-disc-circuit",
                severity=Severity.WARNING,
                message=f"The {axle} circuit keeps {words.pressure(kept.value)} on its discs{seat} "
                "when the pedal is let go.",
                why="Pads have no springs to pull them back: they drag, heat up and wear.",
                basis=COMMON_PRACTICE,
                where=path,
                fixes=(
                    _out(build, axle, path, f"Take the residual valve out of the {axle} circuit"),
                ),
            )


@rule("residual-twice")
def residual_twice(solution: Solution, words: Words) -> Iterator[Finding]:
    """Tell of two residual valves in one circuit."""
    build = solution.build
    for axle in AXLES:
        found = [path for path, _ in residual_valves(build, axle)]
        if len(found) < 2:
            continue
        yield Finding(
            code="residual-twice",
            severity=Severity.WARNING,
            message=f"The {axle} circuit has {len(found)} residual valves.",
            why="One is often behind the cylinder's seat already; a second holds fluid between "
            "them that nothing lets go.",
            basis=COMMON_PRACTICE,
            where=found[1],
            fixes=(_out(build, axle, found[1], "Take the second one out"),),
        )


def _behind_seat(path: str) -> bool:
    return path.startswith("master.outlets")


def _out(build: Build, axle: Axle, path: str, label: str) -> Fix:
    """Return the fix that takes a residual valve out, from behind a seat or out of a circuit."""
    if _behind_seat(path):
        return Fix(label, path, "0 psi")
    return taken_out(build, axle, int(path.partition("[")[2].removesuffix("]")), label)
