"""Every joint of a layout, how far each is made, and what may not be done before it is."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, get_args

from urgens.document import Build, BuildChange
from urgens.document.circuits import circuits_of
from urgens.document.edits.edit import dumped
from urgens.document.ledger.records import Joint, State
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.guidance.words.parts import joint_called, joint_name
from urgens.solve import Solution

STATES: tuple[State, ...] = get_args(State)
IN_WORDS: dict[State, str] = {
    "capped": "capped",
    "started": "started by hand",
    "tight": "tight",
    "dry": "dry under pressure",
    "checked": "looked at again",
}
LOOSE = ("capped", "started")
OPENED = ("capped", "started", "tight")  # states of a joint that was open and is not proved since
BLED = ("bleed", "rebleed")
PRESSED = ("strokes", "pressure", "travel")  # readings that a press was made for


@dataclass(frozen=True)
class MadeJoint:
    """One joint: its name in the build, where it is, what is recorded of it.

    `where` is empty where the layout does not have it any more.
    """

    name: str
    where: str
    recorded: Joint | None

    @property
    def state(self) -> State | None:
        """How far it is made, None where nobody has said."""
        return None if self.recorded is None else self.recorded.state


def joints(build: Build) -> tuple[MadeJoint, ...]:
    """Return the joints of the layout in its own order, then what is recorded of joints it lost.

    Each end of a line, and each pair of parts screwed into each other.
    """
    recorded = {joint.joint: joint for joint in build.joints}
    there = dict(_there(build))
    return (
        *(MadeJoint(name, where, recorded.get(name)) for name, where in there.items()),
        *(MadeJoint(name, "", one) for name, one in recorded.items() if name not in there),
    )


def _there(build: Build) -> Iterator[tuple[str, str]]:
    laid = circuits_of(build)
    for line in () if laid is None else laid.plumbing.lines:
        assert laid is not None
        if line.direct:
            yield str(line.to), joint_name(laid, line, 1)
            continue
        yield f"{line.id}.a", joint_name(laid, line, 0)
        yield f"{line.id}.b", joint_name(laid, line, 1)


def joints_to(build: Build, wheel: str) -> tuple[MadeJoint, ...]:
    """Return the joints on the way to a wheel that the build has a line for, cylinder's first.

    wheel: its name [text].

    The lines that only lead there, or there among others.
    """
    laid = circuits_of(build)
    if laid is None:
        return ()
    lines = {line.id for line in laid.plumbing.lines if wheel in laid.wheels_behind(line.id)}
    ports = {str(line.to) for line in laid.plumbing.lines if line.direct and line.id in lines}
    return tuple(
        one
        for one in joints(build)
        if one.where and (one.name in ports or one.name.rpartition(".")[0] in lines)
    )


def held_by_joints(build: Build) -> str | None:
    """Return why nothing is to be bled yet, None where no joint stands against it.

    Source: common practice: a joint that is only started draws air and spits fluid.
    """
    loose = [one for one in joints(build) if one.where and one.state in LOOSE]
    if not loose:
        return None
    named = ", ".join(f"{one.where} is {IN_WORDS[one.state]}" for one in loose[:2] if one.state)
    more = f", and {len(loose) - 2} more" if len(loose) > 2 else ""
    return f"{named}{more}; tighten every joint first"


def opened_since_bled(build: Build) -> tuple[str, ...]:
    """Return the lines and parts whose joints were noted anew since the last bleeding ended.

    What was capped, started or tightened after it was open in between.
    """
    ends = [one.ended for one in build.records if one.procedure in BLED and one.ended is not None]
    last = max(ends, default=None)
    found: dict[str, None] = {}
    for one in joints(build):
        noted = one.recorded
        if not one.where or noted is None or noted.state not in OPENED:
            continue
        if last is None or noted.at is None or noted.at > last:
            found.setdefault(one.name.partition(".")[0])
    return tuple(found)


def with_state(build: Build, names: tuple[str, ...], state: State, at: str) -> BuildChange:
    """Return the edit that records how far joints are made.

    names: of joints [text]; state: of them; at: the time [text].
    """
    rows: list[dict[str, Any]] = dumped(build).get("joints", [])
    kept = [row for row in rows if row["joint"] not in names]
    made = [{"joint": name, "state": state, "at": at} for name in names]
    what = joint_called(circuits_of(build), names[0]) if len(names) == 1 else f"{len(names)} joints"
    return BuildChange(f"{what} {IN_WORDS[state]}", {"joints": [*kept, *made]})


@rule("joint-not-tight", Severity.DANGER)
def joint_not_tight(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of joints that were only started when the pedal was pressed after."""
    build = solution.build
    presses = [
        entry.at
        for record in build.records
        for entry in record.entries
        if entry.field in PRESSED and entry.value
    ]
    presses += [stop.at for stop in (() if build.proof is None else build.proof.stops)]
    for index, joint in enumerate(build.joints):
        after = [at for at in presses if joint.at is None or at > joint.at]
        if joint.state != "started" or not after:
            continue
        called = joint_called(circuits_of(build), joint.joint)
        yield Remark(
            message=f"The joint “{called}” is recorded as started by hand, and the pedal was "
            f"pressed after, on {max(after):%Y-%m-%d at %H:%M}.",
            why="A nut that only holds by hand draws air as the pedal comes up, and may let go "
            "under a hard foot: that circuit is lost then.",
            where=f"joints[{index}]",
            fixes=(Fix(f"Note that it is tight now: {called}", f"joints[{index}].state", "tight"),),
        )
