"""What carries the brake lights' switch, what can be swapped, and bodies nobody has told yet."""

from collections.abc import Iterator
from datetime import date

from urgens.document.build import Build
from urgens.document.circuits import Circuits, circuits_of
from urgens.document.layout.layout import FittedPart
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.thresholds import HOSE_YEARS
from urgens.guidance.words.block_key import named_bodies, telling_test
from urgens.guidance.words.figures import FigureWords
from urgens.guidance.words.parts import thing_called
from urgens.physics.axle import AXLES
from urgens.plumbing.sinks import with_sink_near_cylinder
from urgens.solve import Solution

LIGHT_SWITCH = "light-switch"
CLOSED_COURSE = ("track", "drag")
YEAR = 365.25  # days


def _wanted(build: Build) -> bool:
    return build.brake_light_switch == "hydraulic"


def _carried(laid: Circuits) -> list[str]:
    return [part.id for part in laid.plumbing.parts if part.kind == LIGHT_SWITCH]


@rule("light-switch-no-port", Severity.DANGER)
def light_switch_no_port(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a switch for the brake lights that pressure closes, and nothing that carries it."""
    laid, build = circuits_of(solution.build), solution.build
    if laid is None or not _wanted(build) or _carried(laid):
        return
    if build.brake_light_switch_part is not None:
        return  # that one is lost: told by itself
    road = None if build.vehicle.use not in CLOSED_COURSE else Severity.WARNING
    yield Remark(
        message="The brake lights' switch is closed by pressure, and no part of the layout "
        "carries it.",
        why="Without it who drives behind does not see the vehicle stop: a tee with its thread, "
        "or a switch at the pedal.",
        where="brake_light_switch",
        fixes=_carrying(build),
        severity=road,
    )


@rule("light-switch-lost", Severity.WARNING)
def light_switch_lost(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a brake-light switch whose part is in the layout no longer."""
    laid, build = circuits_of(solution.build), solution.build
    named = build.brake_light_switch_part
    if laid is None or not _wanted(build) or named is None or named in _carried(laid):
        return
    yield Remark(
        message="The part that carries the brake lights' switch is not in this layout: the "
        "brake lights are lost with it.",
        why="The port it was in went with what was taken out.",
        where="brake_light_switch_part",
        fixes=_carrying(build),
    )


def _carrying(build: Build) -> tuple[Fix, ...]:
    """Return the fixes: a tee with the switch behind the cylinder, or one at the pedal."""
    named = build.brake_light_switch_part is not None
    none = (("brake_light_switch_part", None),) if named else ()
    pedal = Fix("A pedal switch is fitted", "brake_light_switch", "pedal", None, none)
    made = with_sink_near_cylinder(build, LIGHT_SWITCH)
    if made is None:
        return (pedal,)
    section, name = made
    extra = (("brake_light_switch_part", name),)
    return (Fix("Put the switch on a tee behind the cylinder", "plumbing", section, None, extra),
            pedal)  # fmt: skip


@rule("outlets-alike", Severity.ADVICE)
def outlets_alike(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of two outlets that take the same nut: their lines can be swapped."""
    laid = circuits_of(solution.build)
    if laid is None or laid.build.master.has_bar or len(laid.outlets) != len(AXLES):
        return
    ports = [laid.parts[outlet.part].ports.get(outlet.side) for outlet in laid.outlets]
    faces = {(port.thread, port.seat) for port in ports if port is not None and port.thread}
    if len(faces) != 1 or None in ports:
        return
    thread, _ = next(iter(faces))
    yield Remark(
        message=f"Both outlets of the cylinder take the same nut, {thread}: front and rear can "
        "be swapped.",
        why="Swapped lines turn the balance and the half that is lost about, and nothing shows "
        "it: mark both before they come off, and look where each goes before they are tight.",
        where=next(iter(laid.outlets)).part,
    )


@rule("body-open", Severity.WARNING)
def body_open(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of bodies of the layout that may be one of several."""
    laid = circuits_of(solution.build)
    for part in () if laid is None else laid.plumbing.parts:
        if part.may_be:
            yield Remark(
                message=f"A body in the layout may be: {named_bodies(part.may_be)}. Open until "
                "gauged.",
                why=telling_test(part.may_be),
                where=part.id,
            )


@rule("hose-old", Severity.ADVICE)
def hose_old(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of hoses that are old, and are not said to go."""
    laid = circuits_of(solution.build)
    for part in () if laid is None else laid.plumbing.parts:
        age = _years(part)
        if laid is not None and age is not None and age > HOSE_YEARS:
            stays = ", and stays" if part.stays else ""
            yield Remark(
                message=f"The {thing_called(laid, part.id)} is {age:.0f} years old{stays}.",
                why="Rubber ages from inside: it swells shut or lets go, and looks well outside.",
                where=part.id,
            )


def _years(part: FittedPart) -> float | None:
    if part.kind != "hose" or part.since is None or part.stays is False:
        return None
    return (date.today() - part.since).days / YEAR
