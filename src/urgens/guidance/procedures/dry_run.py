"""The dry run: a procedure carried out against the rules of the workshop before anybody sees it."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

from urgens.guidance.procedures.step import Procedure, ProcedureStep
from urgens.guidance.procedures.workshop import (
    Rule,
    Workshop,
    at_first,
    deeds_of,
    is_joint,
    sets_of,
    workshop,
)

PRESSES = ("hold", "stroke")
FOOT = ("pedal", "open-stroke")  # methods in which the foot pushes


@dataclass(frozen=True)
class Broken:
    """A rule that a step breaks: its id and sentence, the step's number from 1; 0: at the end."""

    rule: str
    sentence: str
    number: int
    step: str

    @property
    def words(self) -> str:
        """What is said of it, once it is refused."""
        where = f'step {self.number}, "{self.step}"' if self.number else "its end"
        return f"{where} breaks a rule of the workshop. {self.sentence}"


@dataclass(frozen=True)
class _Check:
    """A rule that no table can tell."""

    id: str
    sentence: str
    breaks: Callable[[Workshop, ProcedureStep, str | None], bool]


def _foot_up(now: Workshop, step: ProcedureStep, method: str | None) -> bool:
    return "release foot" in deeds_of(step) and bool(now.open_ or now.joints)


def _onto_pressure(now: Workshop, step: ProcedureStep, method: str | None) -> bool:
    return method == "pedal" and step.action == "open" and not now.held


def _back_open(now: Workshop, step: ProcedureStep, method: str | None) -> bool:
    """Tell whether the foot comes back with a screw open that has no hose, or by another method."""
    back = step.action == "stroke" and step.press == "full" and bool(now.open_)
    return back and (method != "open-stroke" or not now.wheels <= now.hosed)


def _hose_on(now: Workshop, step: ProcedureStep, method: str | None) -> bool:
    return step.action == "open" and not set(step.wheels) <= now.hosed


def _hose_off(now: Workshop, step: ProcedureStep, method: str | None) -> bool:
    return "remove hose and bottle" in deeds_of(step) and bool(now.wheels & set(step.wheels))


def _tight(now: Workshop, step: ProcedureStep, method: str | None) -> bool:
    """Tell whether it is pressed on an open joint, or hard on an open screw."""
    presses = step.action in PRESSES or step.press != ""
    going_down = step.action == "stroke" and step.press == "down"
    if presses and now.joints and not going_down:
        return True
    return step.press == "hard" and bool(now.open_)


def _one_joint(now: Workshop, step: ProcedureStep, method: str | None) -> bool:
    return "crack joint" in deeds_of(step) and (not now.held or bool(now.joints))


def _twice(now: Workshop, step: ProcedureStep, method: str | None) -> bool:
    placed, deeds = (step.thing, step.wheels), deeds_of(step)
    screws = {(wheel, step.screw) for wheel in step.wheels}
    states, tool = now.states, step.thing in workshop().things.tools
    return any((
        step.action == "top-up" and states["level"] == "full",
        step.action == "hold" and now.held,
        "release foot" in deeds and not now.held,
        bool(step.press) and step.action != "stroke" and now.held,
        step.action == "fit" and placed in now.fitted,
        step.action == "remove" and placed in now.away,
        step.action == "remove" and tool and placed not in now.fitted,
        step.action == "open" and bool(screws & now.open_),
        step.action == "close" and not screws <= now.open_,
        step.action == "loosen" and step.thing in now.joints,
        "check caps" in deeds and states["caps"] == "loose",
        "fit caps" in deeds and states["caps"] == "on",
        "release pressure bleeder" in deeds and states["bleeder"] != "pressed",
        "check stands" in deeds and states["stands"] == "yes",
        "check cover" in deeds and states["covered"] == "yes",
    ))  # fmt: skip


CHECKS = (
    _Check(
        "shut-before-up",
        "Every screw and joint is shut before the foot comes up: on the way back it draws air.",
        _foot_up,
    ),
    _Check(
        "onto-pressure",
        "With hold and crack a screw is opened onto a foot that holds, and shut before it rises.",
        _onto_pressure,
    ),
    _Check(
        "back-with-hoses",
        "The foot comes back on open screws only with open strokes, every hose end under fluid.",
        _back_open,
    ),
    _Check(
        "hose-on",
        "A screw is opened with its hose on, the end under fluid in its bottle.",
        _hose_on,
    ),
    _Check("hose-stays", "A hose comes off when its screw is shut.", _hose_off),
    _Check(
        "tight",
        "Every joint is tight before there is pressure, but the one that a step cracks.",
        _tight,
    ),
    _Check(
        "one-joint",
        "One joint is cracked at a time, onto a foot that holds.",
        _one_joint,
    ),
    _Check("not-twice", "Nothing is done twice to the same end.", _twice),
)
PUT_BACK = "What was fitted comes off, what came off goes back, and the foot is off the pedal."


def dry_run(procedure: Procedure, begins: Mapping[str, str]) -> tuple[Broken, ...]:
    """Return the rules that a procedure breaks, in the order of its steps.

    begins: what of the workshop stands otherwise than usual at its beginning.
    Source: common practice, as the table of the workshop says.
    """
    return tuple(_broken(procedure, begins))


def _broken(procedure: Procedure, begins: Mapping[str, str]) -> Iterator[Broken]:
    now = at_first(begins)
    for number, step in enumerate(procedure.steps, start=1):
        for rule in broken_by(now, step, procedure.method):
            yield Broken(rule.id, rule.sentence, number, step.text)
        now = now.after(step)
    if procedure.steps and not _is_put_back(now, begins):
        yield Broken("put-back", PUT_BACK, 0, "")


def broken_by(now: Workshop, step: ProcedureStep, method: str | None) -> Iterator[Rule | _Check]:
    """Yield the rules that a step breaks where something stands; method: of bleeding [text]."""
    deeds = deeds_of(step)
    for rule in workshop().rules:
        if any(deed in deeds for deed in rule.before) and not all(
            now.states[name] in needed for name, needed in rule.needs.items()
        ):
            yield rule
    for check in CHECKS:
        if check.breaks(now, step, method):
            yield check


def why_here(procedure: Procedure, number: int) -> tuple[str, ...]:
    """Return the sentences of the rules that say why a step stands where it does.

    number: of the step, from 1 [-]. Only of what this procedure fits, moves or opens.
    """
    step = procedure.steps[number - 1]
    deeds, moved = deeds_of(step), {name for one in procedure.steps for name in sets_of(one)}
    told = [
        rule.sentence for rule in workshop().rules
        if any(deed in deeds for deed in rule.before) and moved & rule.needs.keys()
    ]  # fmt: skip
    by_action = {
        "release": ("shut-before-up",),
        "open": ("hose-on", *(("onto-pressure",) if procedure.method == "pedal" else ())),
        "close": ("shut-before-up",),
        "loosen": ("one-joint",) if is_joint(step.thing) else (),
        "tighten": ("shut-before-up",) if is_joint(step.thing) else (),
    }  # fmt: skip
    named = by_action.get(step.action, ()) if step.action != "release" or not step.thing else ()
    told += [check.sentence for check in CHECKS if check.id in named]
    if step.press == "full" and step.action == "stroke":
        told += [check.sentence for check in CHECKS if check.id == "back-with-hoses"]
    return tuple(told)


def _is_put_back(now: Workshop, begins: Mapping[str, str]) -> bool:
    things = workshop().things
    fitted = any(thing in things.tools for thing, _ in now.fitted)
    at_end = all(now.states[name] == begins.get(name, workshop().state[name])
                 for name in ("foot", "caps", "bleeder", "block", "holder"))  # fmt: skip
    return at_end and not (fitted or now.away or now.open_ or now.joints or now.hosed)
