"""Who does what: at every step somebody, and the same work whoever shares it."""

import pytest

from tests.guidance.test_procedures import layouts
from urgens.document import Build
from urgens.guidance.procedures import METHODS, NAMES, Facts, procedure
from urgens.guidance.procedures.closing import closing
from urgens.guidance.procedures.people import (
    STANDS_BY,
    State,
    card_of,
    duty,
    roles,
    state_before,
)

BUILDS = list(layouts())


@pytest.mark.parametrize(("name", "build"), BUILDS, ids=[name for name, _ in BUILDS])
def test_at_every_step_somebody_has_something_to_do(name: str, build: Build) -> None:
    facts = Facts(build)
    for method in METHODS:
        made = procedure(build, "bleed", method)
        for people in (1, 2, 3):
            who = roles(made, people, bar=facts.bar)
            assert len(who) in (1, people)
            state = State()
            for step in made.steps:
                said = [duty(role, step, state) for role in who]
                assert any(one != STANDS_BY for one in said), step.text
                if step.action in ("open", "close") and people > 1:
                    at_screws = [r for r in who if r not in ("pedal", "reservoir")]
                    busy = [r for r in at_screws if "screw" in duty(r, step, state)]
                    assert len(busy) == 1  # each screw has one hand
                if state.open_ and step.action == "stroke":
                    assert sum("under fluid" in one for one in said) == (
                        0 if people == 1 else len(state.open_) if facts.bar and people == 3 else 1
                    )
                state = state.after(step)
            assert not state.open_
            assert not state.held


def test_a_foot_that_holds_is_told_to_go_on_holding() -> None:
    build = dict(BUILDS)["tandem, none, 1, none"]
    made = procedure(build, "bleed", "pedal")
    number = next(n for n, step in enumerate(made.steps, 1) if step.action == "open")
    state = state_before(made.steps, number)
    assert state.held
    assert duty("pedal", made.steps[number - 1], state) == "Holds it down."


def test_a_persons_card_names_steps_in_order_and_leaves_out_standing_by() -> None:
    build = dict(BUILDS)["twin, none, 2, none"]
    made = procedure(build, "bleed", "open-stroke")
    for role in roles(made, 3, bar=True):
        card = card_of(role, made)
        numbers = [number for number, _ in card]
        assert numbers == sorted(set(numbers))
        assert all(words != STANDS_BY for _, words in card)
    assert any("opens" in words for _, words in card_of("front", made))
    assert not any("opens" in words for _, words in card_of("pedal", made))


@pytest.mark.parametrize("name", NAMES)
def test_the_last_card_names_what_goes_back_and_what_comes_off(name: str) -> None:
    """What was fitted is off again, what was taken off is back; common practice."""
    for _, build in BUILDS[::7]:
        made = procedure(build, name)
        if not made.allowed:
            continue
        before = made.steps[:-1]
        last = closing(before)
        if last is None:
            continue
        assert made.steps[-1] == last
        for thing in {step.thing for step in before if step.action == "loosen"}:
            assert thing in last.text.partition("Off again")[0]
        for thing in {step.thing for step in before if step.action == "remove"}:
            assert thing in last.text
        assert "qualified person" in last.why
