"""Who does what at a step: the foot, the screws, the reservoir; and a card for each person."""

from dataclasses import dataclass
from typing import Literal

from urgens.guidance.procedures.facts import both
from urgens.guidance.procedures.step import Procedure, ProcedureStep

Role = Literal["alone", "pedal", "screws", "front", "rear", "reservoir"]
ALONE: tuple[Role, ...] = ("alone",)
TWO: tuple[Role, ...] = ("pedal", "screws")
WITH_BAR: tuple[Role, ...] = ("pedal", "front", "rear")
THREE: tuple[Role, ...] = ("pedal", "screws", "reservoir")
IN_WORDS: dict[Role, str] = {
    "alone": "you", "pedal": "at the pedal", "screws": "at the screws",
    "front": "at the front screw", "rear": "at the rear screw", "reservoir": "at the reservoir",
}  # fmt: skip
STANDS_BY = "Stands by."
_AT_SCREW = {
    "open": "opens the screw one full turn and says so.",
    "close": "shuts the screw and says so.",
    "stroke": "hose end under fluid; says what comes.",
    "look": "hose end under fluid; says what comes.",
    "fit": "hose on, its end under clean fluid.",
    "remove": "hose off, cap on.",
    "record": "says bubbles and colour.",
    "hold": "hand on the spanner, waits for the call.",
    "check": "looks that the hose end is under fluid.",
}


@dataclass(frozen=True)
class State:
    """What stands before a step: whether the foot holds the pedal, and which wheels are open."""

    held: bool = False
    open_: frozenset[str] = frozenset()

    def after(self, step: ProcedureStep) -> "State":
        """Return the state when a step is done."""
        held = {"hold": True, "release": False}.get(step.action, self.held)
        wheels = set(self.open_)
        if step.action == "open":
            wheels |= set(step.wheels)
        elif step.action == "close":
            wheels -= set(step.wheels)
        return State(held, frozenset(wheels))


def state_before(steps: tuple[ProcedureStep, ...], number: int) -> State:
    """Return what stands before a step; number: of the step, from 1 [-]."""
    found = State()
    for step in steps[: number - 1]:
        found = found.after(step)
    return found


def roles(procedure: Procedure, people: int, *, bar: bool) -> tuple[Role, ...]:
    """Return who there is.

    procedure: the procedure; people: how many come [-]; bar: whether both ends are bled
    together [bool]. Source: common practice.
    """
    if people <= 1 or not any(
        step.action in ("stroke", "hold", "open") for step in procedure.steps
    ):
        return ALONE
    if people == len(TWO):
        return TWO
    return WITH_BAR if bar else THREE


def duty(role: Role, step: ProcedureStep, state: State) -> str:
    """Return what one person does at a step.

    role: who [text]; state: before it. Source: common practice.
    """
    if role == "alone":
        return step.text
    if role == "pedal":
        return _at_pedal(step, state)
    if role == "reservoir":
        return _at_reservoir(step)
    mine = [w for w in step.wheels if role == "screws" or w.startswith(role)]
    if mine and step.action in _AT_SCREW:
        return f"{both(tuple(mine)).capitalize()}: {_AT_SCREW[step.action]}"
    if role in ("screws", "rear") and step.action in ("top-up", "loosen", "tighten", "fit",
                                                       "remove", "check"):  # fmt: skip
        return step.text
    its = [w for w in state.open_ if role == "screws" or w.startswith(role)]
    return "Keeps the hose end under fluid." if its else STANDS_BY


def _at_pedal(step: ProcedureStep, state: State) -> str:
    said = {
        "stroke": "Slow full strokes, calling each one.",
        "hold": "Presses, holds, and calls it.",
        "release": "Lets it come up slowly, and calls it.",
    }.get(step.action)
    if said is None and step.action == "check" and step.seconds:
        said = step.text
    return said or ("Holds it down." if state.held else "Foot off the pedal.")


def _at_reservoir(step: ProcedureStep) -> str:
    if step.action in ("stroke", "look"):
        return "Watches the levels; calls before they are low."
    if step.action in ("top-up", "loosen", "tighten"):
        return step.text
    return STANDS_BY


def card_of(role: Role, procedure: Procedure) -> tuple[tuple[int, str], ...]:
    """Return the steps at which one person has something to do, with what it is.

    role: who [text]; procedure: the procedure.
    """
    found, state, before = [], State(), ""
    for number, step in enumerate(procedure.steps, start=1):
        words = duty(role, step, state)
        if words not in (STANDS_BY, before):
            found.append((number, words))
        before, state = words, state.after(step)
    return tuple(found)
