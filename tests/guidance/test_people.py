"""Who does what: at every step somebody, and the same work whoever shares it."""

import pytest

from tests.guidance.test_procedures import layouts
from urgens.document import Build
from urgens.guidance.procedures import METHODS, NAMES, Facts, procedure
from urgens.guidance.procedures.closing import closing
from urgens.guidance.procedures.people import HOLDS, STANDS_BY, card_of, duties, roles
from urgens.guidance.procedures.workshop import at_first, standing_before

BUILDS = list(layouts())


@pytest.mark.parametrize(("name", "build"), BUILDS, ids=[name for name, _ in BUILDS])
def test_at_every_step_somebody_has_something_to_do(name: str, build: Build) -> None:
    facts = Facts(build)
    for method in METHODS:
        made = procedure(build, "bleed", method)
        for people in (1, 2, 3, 4):
            who = roles(made, people, bar=facts.bar)
            now = at_first(made.begins)
            for step in made.steps:
                said = duties(who, step, now)
                assert any(one != STANDS_BY for one in said.values()), step.text
                if now.open_ and step.action == "stroke" and people > 1:
                    hoses = sum("under fluid" in one for one in said.values())
                    assert hoses == (len(now.open_) if facts.bar and people > 2 else 1)
                now = now.after(step)


def test_a_foot_that_holds_is_told_to_go_on_holding() -> None:
    build = dict(BUILDS)["tandem, none, 1, none"]
    made = procedure(build, "bleed", "pedal")
    number = next(n for n, step in enumerate(made.steps, 1) if step.action == "open")
    now = standing_before(made.steps, number, made.begins)
    assert now.held
    assert duties(("pedal", "screws"), made.steps[number - 1], now)["pedal"] == HOLDS


def test_a_persons_card_names_steps_in_order_and_leaves_out_standing_by() -> None:
    build = dict(BUILDS)["twin, none, 2, none"]
    made = procedure(build, "bleed", "open-stroke")
    who = roles(made, 3, bar=True)
    for role in who:
        card = card_of(role, made, who)
        numbers = [number for number, _ in card]
        assert numbers == sorted(set(numbers))
        assert all(words != STANDS_BY for _, words in card)
    assert any("opens" in words for _, words in card_of("front", made, who))
    assert not any("opens" in words for _, words in card_of("pedal", made, who))


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
        taken = {step.thing for step in before if step.action == "remove" and not step.for_good}
        for thing in taken:
            assert thing in last.text
        assert "qualified person" in last.why
