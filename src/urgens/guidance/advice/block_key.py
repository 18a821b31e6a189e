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
# What each kind shows; what is left out may be either. Common practice.
LOOKS: dict[str, Mapping[str, tuple[Seen, ...]]] = {
    "block": {**PLAIN, "outs": (2, 3), "through": (True,)},
    "union": {**PLAIN, "through": (True,), "inline": (True, False)},
    "tee": {**PLAIN, "outs": (2,), "through": (True,)},
    "switch": {**PLAIN, "ins": (2,), "outs": (2, 3), "wire": (True,)},
    "combination": {**PLAIN, "ins": (2,), "outs": (3,), "wire": (True,), "stem": (True,)},
    **{record.kind: record.looks for record in VALVES if record.looks is not None},
}  # fmt: skip
WHY = {
    "block": "open from port to port: it only shares out, there is no valve in it",
    "union": "open, one in and one out: it only joins two lines",
    "tee": "open, one in and two out: it only shares out",
    "switch": "two in and a wire: a shuttle between the circuits that lights a lamp",
    "combination": "two in, three out, a wire and a stem: metering, switch and reducing in one",
    **{record.kind: record.seen_by for record in VALVES},
}
GAUGES = (
    "That cannot be told by looking. Two gauges tell it: one before and one behind, the pedal "
    "pressed slowly. Behind a reducing valve the second rises more slowly from its knee on, behind "
    "a limiting valve no more; with neither knee both read the same."
)


def possible(answers: Answers) -> tuple[str, ...]:
    """Return the kinds of parts that look so; answers: by question.

    Source: `LOOKS`, common practice.
    """
    return tuple(
        kind
        for kind, looks in LOOKS.items()
        if all(seen in looks.get(name, (seen,)) for name, seen in answers.items())
    )


def next_question(answers: Answers, skipped: frozenset[str] = frozenset()) -> Question | None:
    """Return what to look at next, None where nothing more can be told by looking.

    answers: so far, by question; skipped: questions that could not be answered [text].

    The one whose answers divide what is possible into the most even parts.
    """
    left = possible(answers)
    open_ = [q for q in QUESTIONS if q.name not in answers and q.name not in skipped]
    told = [(q, _told(q, left)) for q in open_]
    useful = [(q, bits) for q, bits in told if bits > 0.0]
    return max(useful, key=lambda one: one[1])[0] if len(left) > 1 and useful else None


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
    for kind in found:
        yield f"{KINDS[kind]}: {WHY[kind]}."
    if set(found) <= {"reducing", "limiting"}:
        yield GAUGES
