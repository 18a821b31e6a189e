"""What to bleed again: after joints were opened, or between two set-ups."""

from collections.abc import Iterator
from dataclasses import replace

from urgens.document import Build, BuildErrors
from urgens.document.circuits import Circuits, circuits_of
from urgens.guidance.procedures.bleed import bleed
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.making import maker
from urgens.guidance.procedures.step import Procedure, ProcedureStep
from urgens.plumbing.conversion import conversion, layout_of

CYLINDER = "master"


def opened_by(now: Build, then: Build) -> tuple[str, ...]:
    """Return the parts whose joints are opened between two builds.

    What is new and plugged, and what was joined to what goes.
    """
    needed, before, after = conversion(now, then), layout_of(now), layout_of(then)
    there = {part.id for part in after.parts}
    found = {*needed.new, *(port.partition(".")[0] for port in needed.plugged)}
    for line in before.lines:
        ends = {name.partition(".")[0] for name in (line.start, str(line.to))}
        if ends & set(needed.goes):
            found |= ends
    return tuple(sorted(found & there))


@maker("rebleed")
def rebleed(facts: Facts) -> Procedure:
    """Return what is bled again once parts or lines were opened.

    facts: of the build, and the ids of what was opened.
    Raises BuildErrors where there is none of a name.

    A circuit that was open has air; an open cylinder is bled first, then every wheel.
    """
    build = facts.build
    circuits = circuits_of(build) or Circuits(build, layout_of(build))
    known = set(circuits.parts) | {line.id for line in circuits.plumbing.lines} | {"booster"}
    names = facts.opened
    for name in names:
        if name not in known:
            raise BuildErrors.one(
                "--opened", f'there is no part or line "{name}"', "name one of the layout"
            )
    wheels = {wheel for name in names for wheel in _behind(circuits, name)}
    cylinder = any(
        name in circuits.parts and circuits.parts[name].kind == CYLINDER for name in names
    )
    whole = bleed(facts)
    if not whole.allowed:
        return replace(whole, name="rebleed")
    others = {end.thing for end in facts.dead_ends if not set(end.wheels) & wheels}
    steps = _only(whole.steps, wheels, others) if not cylinder else list(whole.steps)
    if cylinder:
        steps.insert(
            0,
            ProcedureStep(
                "Bench-bleed the cylinder first, or crack its lines on the car and stroke.",
                "Air in it goes round and round.",
                "check",
            ),
        )
    if not wheels and not cylinder:
        return Procedure("rebleed", refused_because="nothing that holds fluid was opened")
    return Procedure(
        "rebleed", whole.method, None, whole.people, whole.tools, whole.cautions, tuple(steps)
    )


def _only(
    steps: tuple[ProcedureStep, ...], wheels: set[str], others: set[str]
) -> list[ProcedureStep]:
    """Return the steps of some wheels; others: dead ends that are left alone [text].

    Of two fillings with nothing between the second goes, and what is pressed for a dead end with
    it.
    """
    found: list[ProcedureStep] = []
    skipping = False
    for step in steps:
        if step.thing in others or (skipping and step.action == "release"):
            skipping = step.action != "release"
            continue
        at = not step.wheels or set(step.wheels) & wheels
        again = step.action == "top-up" and not any(_uses(one) for one in _since_filled(found))
        if at and not (again and found and any(one.action == "top-up" for one in found)):
            found.append(step)
    return found


def _since_filled(steps: list[ProcedureStep]) -> Iterator[ProcedureStep]:
    """Yield the steps since the reservoir was last filled, the last first."""
    for step in reversed(steps):
        if step.action == "top-up":
            return
        yield step


def _uses(step: ProcedureStep) -> bool:
    return step.action in ("open", "stroke", "loosen")


def _behind(circuits: Circuits, name: str) -> set[str]:
    """Return the wheels of every circuit that a part or a line belongs to."""
    lines = [
        line.id
        for line in circuits.plumbing.lines
        if name in (line.id, line.start.partition(".")[0], str(line.to).partition(".")[0])
    ]
    fed = {circuit for line in lines for circuit in circuits.fed[line]}
    return {wheel for wheel, part in circuits.wheels.items() if circuits.fed_by(part) & fed}
