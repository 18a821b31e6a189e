"""The state of the workshop: what each step of a procedure changes in it."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache

from pydantic import Field

from urgens.data import workshop_table
from urgens.document.model import TableRow
from urgens.document.practice import practice
from urgens.guidance.procedures.step import ProcedureStep, Screw, Wheel

Opened = tuple[Wheel, Screw]
Placed = tuple[str, tuple[Wheel, ...]]  # a thing, at which wheels
HOSE, BLEEDER, CAPS = "hose and bottle", "pressure bleeder", "caps"
HELD = "held"


class Effect(TableRow):
    """What deeds change: each an action, or an action with its thing."""

    deeds: tuple[str, ...]
    sets: dict[str, str]


class Rule(TableRow):
    """What has to stand before deeds, and why, in a sentence."""

    id: str
    sentence: str
    before: tuple[str, ...] = ()
    needs: dict[str, tuple[str, ...]] = Field(default_factory=dict)


class Things(TableRow):
    """Tools come off again; what is kept goes back."""

    tools: tuple[str, ...]
    kept: tuple[str, ...]


class WorkshopTable(TableRow):
    """All of it; a rule or an effect that names what the state has not is refused."""

    source: str
    state: dict[str, str]
    things: Things
    effects: tuple[Effect, ...]
    rules: tuple[Rule, ...]


@lru_cache(maxsize=1)
def workshop() -> WorkshopTable:
    """Return the table of the workshop.

    Raises ValueError where it names a part of the state that there is not. Source: common practice.
    """
    found = WorkshopTable.model_validate(workshop_table())
    named = [name for one in found.effects for name in one.sets]
    named += [name for one in found.rules for name in one.needs]
    unknown = [name for name in named if name not in found.state]
    if unknown:
        raise ValueError(f"the workshop has no {unknown[0]}")
    return found


def is_joint(thing: str) -> bool:
    """Return whether fluid gets out where a thing is loosened; thing: of a step [text]."""
    return thing.startswith("joint") or thing.endswith("lines")


def deeds_of(step: ProcedureStep) -> tuple[str, ...]:
    """Return what a step does as effects and rules name it."""
    found: list[str] = [step.action]
    if step.thing:
        found.append(f"{step.action} {step.thing}")
    elif step.action == "release":
        found.append("release foot")
    if step.action == "loosen" and is_joint(step.thing):
        found.append("crack joint")
    if step.press:
        found.append(f"{'stroke' if step.action == 'stroke' else 'press'} {step.press}")
    if step.at:
        found.append(f"at {step.at}")
    return tuple(found)


def sets_of(step: ProcedureStep) -> dict[str, str]:
    """Return which named states a step sets, and to what; step: of a procedure."""
    by_deed, found = _by_deed(), dict[str, str]()
    for deed in deeds_of(step):
        found |= by_deed.get(deed, {})
    return found


@lru_cache(maxsize=1)
def _by_deed() -> Mapping[str, dict[str, str]]:
    """Return what each deed sets: it is asked for at every step of every procedure."""
    return {deed: effect.sets for effect in workshop().effects for deed in effect.deeds}


@dataclass(frozen=True)
class Workshop:
    """What stands: named states, screws open, hoses in their bottles, joints open, what is fitted.

    `away` is what was taken off and is not back.
    """

    states: Mapping[str, str]
    open_: frozenset[Opened] = field(default_factory=frozenset)
    hosed: frozenset[Wheel] = field(default_factory=frozenset)
    joints: frozenset[str] = field(default_factory=frozenset)
    fitted: frozenset[Placed] = field(default_factory=frozenset)
    away: frozenset[Placed] = field(default_factory=frozenset)

    @property
    def held(self) -> bool:
        """Whether the foot holds the pedal."""
        return self.states["foot"] == HELD

    @property
    def wheels(self) -> frozenset[Wheel]:
        """The wheels with a screw open."""
        return frozenset(wheel for wheel, _ in self.open_)

    def after(self, step: ProcedureStep) -> "Workshop":
        """Return what stands once a step is done. Source: the table of the workshop."""
        return replace(self._moved(step), states={**self.states, **sets_of(step)})

    def _moved(self, step: ProcedureStep) -> "Workshop":
        """Return it with what the action itself opens, shuts, fits or takes off."""
        placed = step.thing, step.wheels
        screws = frozenset((wheel, step.screw) for wheel in step.wheels)
        match step.action:
            case "open":
                return replace(self, open_=self.open_ | screws)
            case "close":
                return replace(self, open_=self.open_ - screws)
            case "loosen" if is_joint(step.thing):
                return replace(self, joints=self.joints | {step.thing})
            case "loosen":
                return replace(self, away=self.away | {placed})
            case "tighten":
                joints, away = self.joints - {step.thing}, self.away - {placed}
                return replace(self, joints=joints, away=away)
            case "fit":
                on = self if placed in self.away else replace(self, fitted=self.fitted | {placed})
                return replace(on, away=self.away - {placed}, hosed=self._hoses(step, fitted=True))
            case "remove":
                off = (
                    self
                    if placed in self.fitted or step.for_good
                    else replace(self, away=self.away | {placed})
                )
                fitted = self.fitted - {placed}
                return replace(off, fitted=fitted, hosed=self._hoses(step, fitted=False))
            case _:
                return self

    def _hoses(self, step: ProcedureStep, *, fitted: bool) -> frozenset[Wheel]:
        if step.thing != HOSE:
            return self.hosed
        return self.hosed | set(step.wheels) if fitted else self.hosed - set(step.wheels)

    def printed(self, step: ProcedureStep) -> dict[str, object]:
        """Return it as plain JSON values, once a step is done; the names are the contract's."""
        names = sorted(f"{wheel}.{screw}".rstrip(".") for wheel, screw in self.open_)
        pressed = self.states["bleeder"] == "pressed"
        foot = "stroking" if step.action == "stroke" else "pressing" if step.press else "off"
        return {
            "pressure": practice()["bleeder_pressure"].value if pressed else 0.0,
            "block": self.states["block"] == "in",
            "caps": self.states["caps"],
            "foot": HELD if self.held else foot,
            "open": names,
            "fitted": sorted({thing for thing, _ in self.fitted}),
        }


def at_first(begins: Mapping[str, str]) -> Workshop:
    """Return what stands before a procedure; begins: what is otherwise than usual.

    Raises ValueError where it names what the workshop has not.
    """
    states = workshop().state
    unknown = begins.keys() - states.keys()
    if unknown:
        raise ValueError(f"the workshop has no {min(unknown)}")
    return Workshop({**states, **begins})


def standing_before(
    steps: tuple[ProcedureStep, ...], number: int, begins: Mapping[str, str]
) -> Workshop:
    """Return what stands before a step; number: of it, from 1 [-]; begins: as in `at_first`."""
    found = at_first(begins)
    for step in steps[: number - 1]:
        found = found.after(step)
    return found
