"""Unmarked bodies told by what is seen; the facts are common practice."""

from itertools import product

import pytest

from urgens.guidance.advice.block_key import (
    GAUGES,
    LOOKS,
    QUESTIONS,
    next_question,
    possible,
    verdict,
)


@pytest.mark.parametrize(
    ("answers", "kind"),
    [
        ({"ins": 1, "outs": 3, "wire": False}, "block"),
        ({"ins": 2, "outs": 3, "wire": True, "stem": True}, "combination"),
        ({"ins": 2, "outs": 2, "wire": True}, "switch"),
        ({"ins": 1, "stem": True}, "metering"),
        ({"knob": True}, "adjustable"),
        ({"lever": True}, "load-sensing"),
        ({"inline": True, "through": False}, "residual"),
    ],
)
def test_what_the_trade_tells_by_looking(answers: dict[str, int | bool], kind: str) -> None:
    assert possible(answers) == (kind,)
    (said,) = verdict(answers)
    assert len(said) > 20


def test_reducing_and_limiting_are_told_by_gauges_only() -> None:
    answers = {"ins": 1, "outs": 1, "through": False, "stem": False, "knob": False,
               "lever": False, "inline": False, "wire": False}  # fmt: skip
    assert possible(answers) == ("reducing", "limiting")
    assert next_question(answers) is None
    assert list(verdict(answers))[-1] == GAUGES


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
