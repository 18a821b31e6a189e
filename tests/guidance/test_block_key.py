"""Unmarked bodies told by what is seen; the facts are common practice."""

from itertools import product

import pytest

from tests.plumbing.layouts import part_of, sound, with_layout
from urgens.document import BuildErrors
from urgens.guidance.words.block_key import (
    GAUGES,
    LAID_AS,
    LOOK_THROUGH,
    LOOKS,
    NAMED,
    QUESTIONS,
    REAR_GAUGE,
    Answers,
    laid_as,
    next_question,
    possible,
    told_for_sure,
    verdict,
)
from urgens.guidance.words.parts import KINDS

OPEN = {"block", "block-light-switch", "union", "tee"}
# By hand: lines in, lines out, wire, and what else is on it: every body that looks so where nothing
# was said of blowing through it. What stands in no row looks like nothing that is known.
BARE, STEM, KNOB, LEVER, INLINE = ("", "stem", "knob", "lever", "inline")
TABLE: dict[tuple[int, int, bool, str], set[str]] = {
    (1, 1, False, BARE): {"union", "reducing", "limiting"},
    (1, 1, False, INLINE): {"union", "residual"},
    (1, 1, False, STEM): {"metering"},
    (1, 1, False, KNOB): {"adjustable"},
    (1, 1, False, LEVER): {"load-sensing"},
    (1, 2, False, BARE): {"block", "tee"},
    (1, 2, False, STEM): {"metering"},
    (1, 2, False, LEVER): {"load-sensing"},
    (1, 2, True, BARE): {"block-light-switch"},
    (1, 3, False, BARE): {"block"},
    (1, 3, True, BARE): {"block-light-switch"},
    (2, 1, False, LEVER): {"load-sensing"},
    (2, 2, False, BARE): {"reducing-pair"},
    (2, 2, False, LEVER): {"load-sensing"},
    (2, 2, True, BARE): {"switch", "switch-reducing"},
    (2, 3, True, BARE): {"switch", "switch-reducing", "combination"},
    (2, 3, True, STEM): {"combination"},
}
EXTRAS = (STEM, KNOB, LEVER, INLINE)


@pytest.mark.parametrize("ins", [1, 2])
@pytest.mark.parametrize("outs", [1, 2, 3])
@pytest.mark.parametrize("wire", [False, True])
def test_every_combination_leaves_every_body_that_looks_so(
    ins: int, outs: int, *, wire: bool
) -> None:
    for seen in product((False, True), repeat=len(EXTRAS)):
        on_it = [name for name, there in zip(EXTRAS, seen, strict=True) if there]
        answers = {"ins": ins, "outs": outs, "wire": wire, **dict(zip(EXTRAS, seen, strict=True))}
        wanted = set() if len(on_it) > 1 else TABLE.get(
            (ins, outs, wire, on_it[0] if on_it else BARE), set()
        )  # fmt: skip
        assert set(possible(answers)) == wanted, answers
        blown = set(possible({**answers, "through": True}))
        assert blown == {body for body in wanted if body in OPEN or (ins == 2 and not on_it)
                         or body in ("switch", "switch-reducing", "combination")}  # fmt: skip
        assert set(possible({**answers, "through": False})) == wanted - OPEN


@pytest.mark.parametrize(
    ("answers", "body"),
    [
        ({"ins": 1, "outs": 3, "wire": False, "through": True}, "block"),
        ({"ins": 1, "outs": 3, "wire": True, "through": True}, "block-light-switch"),
        ({"ins": 2, "outs": 3, "wire": True, "stem": True}, "combination"),
        ({"ins": 2, "outs": 2, "wire": False, "lever": False}, "reducing-pair"),
        ({"ins": 1, "stem": True}, "metering"),
        ({"knob": True}, "adjustable"),
        ({"lever": True}, "load-sensing"),
        ({"inline": True, "through": False}, "residual"),
    ],
)
def test_what_the_trade_tells_by_looking(answers: Answers, body: str) -> None:
    assert told_for_sure(answers) == body
    (said,) = verdict(answers)
    assert len(said) > 20


@pytest.mark.parametrize(
    ("answers", "test"),
    [
        ({"ins": 2, "outs": 3, "wire": True, "stem": False}, REAR_GAUGE),
        ({"ins": 2, "outs": 2, "wire": True}, REAR_GAUGE),
        ({"ins": 1, "outs": 3, "wire": False}, LOOK_THROUGH),
        ({"ins": 1, "outs": 1, "through": False, "stem": False, "knob": False, "lever": False,
          "inline": False, "wire": False}, GAUGES),
    ],
)  # fmt: skip
def test_what_looking_does_not_tell_names_its_test_and_is_never_sure(
    answers: Answers, test: str
) -> None:
    assert told_for_sure(answers) is None
    assert list(verdict(answers))[-1] == test


def test_a_body_that_is_open_until_gauged_stands_as_the_most_there_may_be() -> None:
    assert laid_as(("switch", "switch-reducing", "combination")) == "combination"
    assert laid_as(("switch", "switch-reducing")) == "combination"
    assert laid_as(("switch",)) == "switch"
    assert laid_as(("block-light-switch",)) == "block"
    assert {LAID_AS.get(body, body) for body in LOOKS} <= set(KINDS)
    assert set(LOOKS) <= set(NAMED)


@pytest.mark.parametrize("kind", LOOKS)
def test_every_kind_is_found_by_answering_what_is_asked(kind: str) -> None:
    """Whatever an ambiguous feature shows, the key ends at a set that holds the kind."""
    free = [q for q in QUESTIONS if len(LOOKS[kind].get(q.name, ())) != 1]
    for chosen in product(*(LOOKS[kind].get(q.name, [s for _, s in q.choices]) for q in free)):
        shows = {q.name: LOOKS[kind][q.name][0] for q in QUESTIONS if q not in free}
        shows |= dict(zip((q.name for q in free), chosen, strict=True))
        answers: dict[str, int | bool | str] = {}
        while (question := next_question(answers)) is not None:
            answers[question.name] = shows[question.name]
        assert kind in possible(answers)
        assert len(answers) <= len(QUESTIONS)


def test_what_has_no_valve_in_it_is_asked_to_be_looked_through_first() -> None:
    question = next_question({"ins": 1, "outs": 3, "wire": False})
    assert question is not None
    assert question.name == "through"
    assert next_question({"ins": 1, "outs": 3, "wire": False}, frozenset({"through"})) is None


def test_a_question_that_is_skipped_is_not_asked_again() -> None:
    first = next_question({})
    assert first is not None
    other = next_question({}, frozenset({first.name}))
    assert other is not None
    assert other.name != first.name
    assert next_question({}, frozenset(q.name for q in QUESTIONS)) is None


def test_what_nothing_looks_like_is_said() -> None:
    (said,) = verdict({"knob": True, "lever": True})
    assert "Nothing known here looks like that" in said


def test_every_body_of_the_key_can_stand_in_a_file_and_nothing_else() -> None:
    for body in LOOKS:
        made = sound()
        part_of(made, "cv")["may_be"] = [body]
        assert with_layout(made).plumbing is not None
    part_of(made, "cv")["may_be"] = ["gearbox"]
    with pytest.raises(BuildErrors, match="gearbox"):
        with_layout(made)
