"""What an unmarked body is, by what can be seen of it: guided questions, one at a time."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from math import log2

from urgens.document.kinds.valves import VALVES
from urgens.document.kinds.valves.kind import PLAIN, Seen
from urgens.guidance.words.parts import KINDS

Answers = Mapping[str, Seen]


@dataclass(frozen=True)
class Question:
    """One thing to look for: its name, what is asked, how to look, and what can be seen."""

    name: str
    asks: str
    how: str
    choices: tuple[tuple[str, Seen], ...]


YES_NO: tuple[tuple[str, Seen], ...] = (("Yes", True), ("No", False))
QUESTIONS = (
    Question("ins", "How many lines come in from the cylinder?",
             "Follow each pipe back; count ports, plugged ones too.", (("One", 1), ("Two", 2))),
    Question("outs", "How many lines go out to the brakes?",
             "Count ports, plugged ones too.", (("One", 1), ("Two", 2), ("Three", 3))),
    Question("wire", "Is there a wire, or a terminal for one?",
             "A plastic cap with a pin, often on the side.", YES_NO),
    Question("through", "Can you look through it, or blow through it freely both ways?",
             "With the lines off, from each port to each other.", YES_NO),
    Question("stem", "Does a small stem move while somebody presses the pedal?",
             "Under a rubber cap at one end; keep fingers off it.", YES_NO),
    Question("knob", "Is there a knob, or a lever with notches, to turn by hand?",
             "It has a scale or clicks.", YES_NO),
    Question("lever", "Does a lever or spring go from it to the axle?",
             "Look underneath, near the rear axle.", YES_NO),
    Question("inline", "Is it hardly thicker than a tube nut, with an arrow or a colour?",
             "Screwed straight into a line or an outlet.", YES_NO),
)  # fmt: skip
# Of a body for two circuits: each side is open in itself, and blowing tells nothing of the other.
TWO = {name: seen for name, seen in PLAIN.items() if name != "through"} | {"ins": (2,)}
# What each body shows; what is left out may be either. Common practice.
LOOKS: dict[str, Mapping[str, tuple[Seen, ...]]] = {
    "block": {**PLAIN, "outs": (2, 3), "through": (True,)},
    "block-light-switch": {**PLAIN, "outs": (2, 3), "through": (True,), "wire": (True,)},
    "union": {**PLAIN, "through": (True,), "inline": (True, False)},
    "tee": {**PLAIN, "outs": (2,), "through": (True,)},
    "switch": {**TWO, "outs": (2, 3), "wire": (True,)},
    "switch-reducing": {**TWO, "outs": (2, 3), "wire": (True,)},
    "combination": {**TWO, "outs": (3,), "wire": (True,), "stem": (True, False)},
    "reducing-pair": {**TWO, "outs": (2,)},
    **{record.kind: record.looks for record in VALVES if record.looks is not None},
}  # fmt: skip
WHY = {
    "block": "open from port to port: it only shares out, there is no valve in it",
    "block-light-switch": "one in, open from port to port, and a wire: it shares out, and pressure "
    "closes the brake lights' switch in it",
    "union": "open, one in and one out: it only joins two lines",
    "tee": "open, one in and two out: it only shares out",
    "switch": "two in and a wire: a shuttle between the circuits that lights a lamp",
    "switch-reducing": "two in and a wire: the shuttle with its lamp, and a reducing part to the "
    "rear",
    "combination": "two in, three out and a wire: metering, switch and reducing in one",
    "reducing-pair": "two in, two out and closed: a reducing valve for each of two lines, side by "
    "side",
    **{record.kind: record.seen_by for record in VALVES},
}
NAMED = {**KINDS, "block-light-switch": "Distribution block with a brake-light switch",
         "switch-reducing": "Switch with a reducing part",
         "reducing-pair": "Pair of reducing valves"}  # fmt: skip
# As what a body stands in a layout, where it is no kind of its own there.
LAID_AS = {"block-light-switch": "block", "switch-reducing": "combination",
           "reducing-pair": "reducing"}  # fmt: skip
SHUTTLES = frozenset({"switch", "switch-reducing", "combination"})
GAUGES = (
    "That cannot be told by looking. Two gauges tell it: one before and one behind, the pedal "
    "pressed slowly. Behind a reducing valve the second rises more slowly from its knee on, behind "
    "a limiting valve no more; with neither knee both read the same."
)
REAR_GAUGE = (
    "That cannot be told by looking. A gauge at the rear outlet and one before tell it: both alike "
    "up to a hard press is a switch alone; the rear behind from a knee on is a reducing part. One "
    "at a front outlet that waits under a light foot, and then follows, tells of metering."
)
LOOK_THROUGH = (
    "Nobody has looked or blown through it: whether there is a valve in it is open until then."
)


def possible(answers: Answers) -> tuple[str, ...]:
    """Return the bodies that look so; answers: by question.

    Source: `LOOKS`, common practice.
    """
    return tuple(
        kind
        for kind, looks in LOOKS.items()
        if all(seen in looks.get(name, (seen,)) for name, seen in answers.items())
    )


def told_for_sure(answers: Answers) -> str | None:
    """Return the one body that looks so, None where there are more, or it may have a valve in it.

    answers: by question. "No valve in it" is only said of what was looked or blown through.
    Source: common practice.
    """
    found = possible(answers)
    if len(found) != 1 or (_is_open(found[0]) and answers.get("through") is not True):
        return None
    return found[0]


def _is_open(body: str) -> bool:
    return LOOKS[body].get("through") == (True,)


def laid_as(bodies: tuple[str, ...]) -> str:
    """Return the kind of part that stands in a layout for what may be any of some bodies.

    bodies: of `LOOKS`, one or more [text]. The most there may be in it, so that a card spares
    nothing that the body may want.
    """
    several = len(bodies) > 1 and SHUTTLES.issuperset(bodies)
    last = "combination" if several else bodies[0]
    return LAID_AS.get(last, last)


def next_question(answers: Answers, skipped: frozenset[str] = frozenset()) -> Question | None:
    """Return what to look at next, None where nothing more can be told by looking.

    answers: so far, by question; skipped: questions that could not be answered [text].

    The one whose answers divide what is possible into the most even parts.
    """
    left = possible(answers)
    open_ = [q for q in QUESTIONS if q.name not in answers and q.name not in skipped]
    told = [(q, _told(q, left)) for q in open_]
    useful = [(q, bits) for q, bits in told if bits > 0.0]
    if len(left) > 1 and useful:
        return max(useful, key=lambda one: one[1])[0]
    through = next((q for q in open_ if q.name == "through"), None)
    return through if any(_is_open(body) for body in left) else None


def _told(question: Question, left: tuple[str, ...]) -> float:
    """Return how much an answer tells, in bits, each kind as likely as the others."""
    parts = [
        sum(seen in LOOKS[kind].get(question.name, (seen,)) for kind in left)
        for _, seen in question.choices
    ]
    if sum(count == len(left) for count in parts) == len(parts):
        return 0.0
    whole = sum(parts) or 1
    return -sum(count / whole * log2(count / whole) for count in parts if count)


def verdict(answers: Answers) -> Iterator[str]:
    """Yield what the body may be, in sentences; answers: by question.

    Source: `WHY`, common practice.
    """
    found = possible(answers)
    if not found:
        yield (
            "Nothing known here looks like that: look again, or take it for what two gauges and "
            "a lamp show."
        )
        return
    for body in found:
        yield f"{NAMED[body]}: {WHY[body]}."
    test = test_wanted(answers)
    if test:
        yield test


def named_bodies(bodies: tuple[str, ...]) -> str:
    """Return what a body may be, in words; bodies: of `LOOKS` [text]."""
    names = [NAMED.get(body, body) for body in bodies]
    return " or ".join(f"{name[:1].lower()}{name[1:]}" for name in names)


def telling_test(bodies: tuple[str, ...]) -> str:
    """Return the test that tells some bodies from each other; bodies: of `LOOKS` [text].

    Source: common practice.
    """
    found = set(bodies)
    if found <= SHUTTLES:
        return REAR_GAUGE
    return LOOK_THROUGH if all(body in LOOKS and _is_open(body) for body in found) else GAUGES


def test_wanted(answers: Answers) -> str:
    """Return the test that tells what looking does not, empty where nothing is left to tell.

    answers: by question. Source: common practice.
    """
    found = set(possible(answers))
    if len(found) > 1 and found <= {"reducing", "limiting"}:
        return GAUGES
    if len(found) > 1 and found <= SHUTTLES:
        return REAR_GAUGE
    if found and all(map(_is_open, found)) and "through" not in answers:
        return LOOK_THROUGH
    return ""
