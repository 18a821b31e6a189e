"""Who does what at a step: the foot, the screws, the reservoir; and a card for each person."""

from collections.abc import Mapping
from typing import Literal

from urgens.guidance.procedures.facts import both
from urgens.guidance.procedures.step import Procedure, ProcedureStep
from urgens.guidance.procedures.workshop import BLEEDER, CAPS, Workshop, at_first, is_joint

Role = Literal["alone", "pedal", "screws", "front", "rear", "reservoir", "spare"]
Who = tuple[Role, ...]
ALONE: Who = ("alone",)
TWO: Who = ("pedal", "screws")
WITH_BAR: Who = ("pedal", "front", "rear", "reservoir")
WITHOUT: Who = ("pedal", "screws", "reservoir", "spare")
MOST = 4  # people that there are lines for
IN_WORDS: dict[Role, str] = {
    "alone": "you", "pedal": "at the pedal", "screws": "at the screws",
    "front": "at the front screw", "rear": "at the rear screw", "reservoir": "at the reservoir",
    "spare": "to spare",
}  # fmt: skip
STANDS_BY = "Stands by."
FOOT_OFF = "Foot off the pedal."
HOLDS = "Holds it down."
_AT_SCREW = {
    "open": "opens the screw one full turn and says so.",
    "close": "shuts the screw and says so.",
    "stroke": "hose end under fluid; says what comes.",
    "look": "hose end under fluid; says what comes.",
    "fit": "hose on, its end under clean fluid.",
    "remove": "hose off, cap on.",
    "record": "says bubbles and colour.",
    "hold": "hand on the spanner, waits for the call.",
    "release": "screw shut; says what came.",
    "check": "looks that the hose end is under fluid.",
}
_PRESSES = {
    "light": "Presses lightly, and lets go slowly.",
    "usual": "Presses as usual, and holds until it is read.",
    "hard": "Presses hard, holds, and says when it sinks.",
}
_READS = {
    "travel": "Reads the pedal's travel.", "pressure": "Reads the gauges.",
    "lamp": "Looks at the lamp.", "strokes": "Counts them, and keeps the time.",
}  # fmt: skip
_AT_RESERVOIR = (CAPS, BLEEDER)
_TWO_HANDS = ("open", "close", "loosen", "tighten")


def roles(procedure: Procedure, people: int, *, bar: bool) -> Who:
    """Return who there is, as many as come; more than four are no more lines.

    procedure: the procedure; people: how many come [-]; bar: whether both ends are bled
    together [bool]. Source: common practice.
    """
    if people <= 1:
        return ALONE
    if people == len(TWO):
        return TWO
    return (WITH_BAR if bar else WITHOUT)[: min(people, MOST)]


def too_few(procedure: Procedure, people: int) -> str | None:
    """Return why so many people cannot do it, None where they can; people: how many come [-].

    Source: common practice: a foot that holds the pedal is not at the screw.
    """
    now = at_first(procedure.begins)
    for step in procedure.steps if people < len(TWO) else ():
        hands = step.action in _TWO_HANDS[:2] or is_joint(step.thing)
        if now.held and step.action in _TWO_HANDS and hands:
            bleeds = procedure.name in ("bleed", "rebleed")
            alone = "; pressure, gravity and vacuum go alone" if bleeds else ""
            return f"one holds the pedal while another is at screw or joint: it takes two{alone}"
        now = now.after(step)
    return None


def duties(who: Who, step: ProcedureStep, now: Workshop) -> Mapping[Role, str]:
    """Return what each person does at a step; who: those there are [text]; now: before it.

    One presses at most; what is to be done is done by one. Source: common practice.
    """
    found = {role: _duty(role, step, now, who) for role in who}
    if step.only:
        return {role: f"{step.only} {words}" for role, words in found.items()}
    return found


def _duty(role: Role, step: ProcedureStep, now: Workshop, who: Who) -> str:
    if role == "alone":
        return step.text
    if role == "pedal":
        return _at_pedal(step, now)
    mine = [w for w in step.wheels if role == "screws" or w.startswith(role)]
    if mine and step.action in _AT_SCREW:
        reads = step.action == "hold" and step.record is not None
        does = "hand on the spanner; reads what is asked." if reads else _AT_SCREW[step.action]
        return f"{both(tuple(mine)).capitalize()}: {does}"
    if role == _doer(step, who):
        return _at_work(step)
    if step.press == "hard":
        return "Looks at every joint and wheel."
    if role == "reservoir":
        return _at_reservoir(step)
    its = [w for w in now.wheels if role == "screws" or w.startswith(role)]
    return "Keeps the hose end under fluid." if its else STANDS_BY


def _doer(step: ProcedureStep, who: Who) -> Role | None:
    """Return who does what is at no wheel, or reads what is pressed; None: the foot does it."""
    if step.wheels and not step.press and step.action != "look":
        return None
    if step.action in ("hold", "stroke", "release") and step.thing not in _AT_RESERVOIR:
        return None
    at_reservoir = step.action == "top-up" or step.thing in _AT_RESERVOIR or step.press == "light"
    if at_reservoir and "reservoir" in who:
        return "reservoir"
    return "rear" if "rear" in who else "screws"


def _at_work(step: ProcedureStep) -> str:
    """Return what is done by who does it; where the foot presses, what is read or looked at."""
    field = "" if step.record is None else step.record.field
    if step.press in ("usual", "hard", "full"):
        return _READS.get(field, "Looks at every joint and wheel.")
    if step.press == "light":
        return _READS.get(field, "Watches, and says what moves.")
    return step.text


def _at_pedal(step: ProcedureStep, now: Workshop) -> str:
    if step.action == "hold":
        return f"Presses {'hard' if step.press == 'hard' else 'slowly'}, holds, and calls it."
    if step.press in _PRESSES:
        return _PRESSES[step.press]
    if step.action == "stroke" or step.press == "full":
        if step.press == "down":
            return "Lets it go down, and holds it there."
        return "Full slow strokes, down and back, calling each one."
    if step.action == "release" and not step.thing:
        return "Lets it come up slowly, and calls it."
    return HOLDS if now.held else FOOT_OFF


def _at_reservoir(step: ProcedureStep) -> str:
    if step.action in ("stroke", "look"):
        return "Watches the levels; calls before they are low."
    return STANDS_BY


def card_of(role: Role, procedure: Procedure, who: Who) -> tuple[tuple[int, str], ...]:
    """Return the steps at which one person has something to do, with what it is.

    role: whose card [text]; procedure: the procedure; who: all there are [text].
    """
    found, now, before = [], at_first(procedure.begins), ""
    for number, step in enumerate(procedure.steps, start=1):
        words = duties(who, step, now)[role]
        if words not in (STANDS_BY, before):
            found.append((number, words))
        before, now = words, now.after(step)
    return tuple(found)
