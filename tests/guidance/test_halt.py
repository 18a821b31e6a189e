"""What stops a card: told by hand from what was read, with what to do and where it begins again."""

from typing import Any

import pytest

from tests.builds import bed, with_changes
from urgens.document import Build
from urgens.document.ledger.records import ProcedureRun
from urgens.guidance.condition.halt import Halt, first_of, halt
from urgens.guidance.condition.limits import limits_of
from urgens.guidance.faults.tables import tables
from urgens.guidance.procedures import NAMES, procedure
from urgens.guidance.procedures.opening import is_opening
from urgens.guidance.procedures.records import records

AT = "2026-05-02T14:00"


def stopped(name: str, *entries: dict[str, Any], build: Build | None = None, step: int = 1) -> Any:
    """What stops a run of the bakery's van in which so much was read."""
    build = bed("bakery") if build is None else build
    steps = procedure(build, name).steps
    first = next(n for n, one in enumerate(steps, 1) if not is_opening(one))
    run = {"procedure": name, "started": AT, "step": step,
           "entries": [{"at": AT, "step": first, **one} for one in entries]}  # fmt: skip
    return halt(build, ProcedureRun.model_validate(run), steps)


def number_of(name: str, words: str, build: Build | None = None) -> int:
    steps = procedure(bed("bakery") if build is None else build, name).steps
    return next(n for n, one in enumerate(steps, 1) if one.text.startswith(words))


def test_a_yes_stops_nothing_and_a_no_says_what_to_do_and_which_sign_it_is() -> None:
    assert stopped("leak-test", {"field": "ok", "value": True}) is None
    found = stopped("leak-test", {"field": "ok", "value": False})
    assert isinstance(found, Halt)
    at = number_of("leak-test", "Block and bleeder away")
    assert (found.step, found.read, found.sign, found.again) == (at, "answered no", "sinks", at)
    assert "dry everywhere is the cylinder" in found.words


def test_the_latest_answer_counts() -> None:
    no, yes = ({"field": "ok", "value": value} for value in (False, True))
    assert stopped("leak-test", no, yes) is None
    found = stopped("leak-test", yes, no)
    assert found.entry == 1


def test_what_is_only_noted_stops_nothing() -> None:
    assert stopped("leak-test", {"field": "note", "value": "a drop under the bench"}) is None


def test_bubbles_where_they_are_asked_for_begin_the_wheel_again() -> None:
    """Behind the hose, which is still on: press, open, shut, let come up, and look again."""
    build = bed("bakery")
    steps = procedure(build, "bleed", "pedal").steps
    fields = ["" if one.record is None else one.record.field for one in steps]
    asked = fields.index("bubbles") + 1
    read = {"step": asked, "field": "bubbles", "wheel": "rear-right", "value": "large"}
    found = stopped("bleed", read, step=asked)
    again = steps[found.again - 1]
    assert again.wheels == steps[asked - 1].wheels
    assert steps[found.again - 2].action == "fit"
    assert found.again < asked
    assert found.read == "right rear: bubbles large"
    assert stopped("bleed", {**read, "value": "none"}, step=asked) is None


def test_one_half_lost_far_off_is_made_again_from_its_own_hose_once_that_is_off() -> None:
    at = number_of("half-lost-test", "Press and hold: the pedal falls")
    read = {"step": at, "field": "travel", "value": 5.0}  # no pedal goes so short with a half lost
    found = stopped("half-lost-test", read, step=at)
    assert found.sign == "floor"
    hose = number_of("half-lost-test", "Hose from a front screw")
    assert found.again == hose + 1  # the hose is on
    assert stopped("half-lost-test", read, step=at + 4).again == hose


@pytest.mark.parametrize(("strokes", "stops"), [(1.0, True), (2.0, False)])
def test_two_assisted_strokes_are_enough(strokes: float, stops: bool) -> None:
    """A check valve that holds leaves two at least: common practice, from memory."""
    boosted = with_changes(bed("bakery"), {"booster": {
        "kind": "vacuum", "diaphragm_diameters": ["8 in"], "vacuum": "18 inHg", "gain": 3.0,
    }})  # fmt: skip
    at = number_of("booster-test", "Stop the engine", boosted)
    read = {"step": at, "field": "strokes", "value": strokes}
    found = stopped("booster-test", read, build=boosted, step=at)
    assert (found is not None) is stops
    assert found is None or found.sign == "hard-weak"


def test_a_pedal_that_goes_too_far_stops_the_bleeding() -> None:
    build = bed("bakery")
    at = number_of("bleed", "Read the pedal's travel")
    travel = {"step": at, "field": "travel", "effort": "60 lbf", "when": "now",
              "booster": "working"}  # fmt: skip
    foot = ProcedureRun.model_validate({
        "procedure": "bleed", "started": AT, "entries": [{"at": AT, "value": 1.0, **travel}],
    })  # fmt: skip
    computed = limits_of(build).computed_travel(foot.entries[0])
    assert computed is not None
    near, far = 1e3 * computed + 4.0, 1e3 * computed + 30.0
    assert stopped("bleed", {**travel, "value": near}, step=at) is None
    found = stopped("bleed", {**travel, "value": far}, step=at)
    assert found.read == "the pedal goes 30 mm (1.2 in) further than computed"
    assert found.sign == "spongy"


def test_the_switch_s_rear_is_tried_again_by_itself() -> None:
    build = with_changes(bed("bakery"), {"warning_switch": "warns"})
    steps = procedure(build, "switch-test").steps
    rear = number_of("switch-test", "Crack a rear screw", build)
    again = first_of(steps, rear, rear + 2)
    assert {one.wheels for one in steps[again - 1 : rear]} <= {(), ("rear-left",)}


def test_every_sign_that_a_step_names_is_one_of_tracing() -> None:
    known = {one.id for one in tables().signs} | {""}
    assert {step.sign for record in records().values() for step in record.steps} <= known


@pytest.mark.parametrize("name", NAMES)
def test_a_no_anywhere_stops_its_run_with_words(name: str) -> None:
    build = bed("roadster")
    for number, step in enumerate(procedure(build, name).steps, start=1):
        if step.record is not None and step.record.field in ("ok", "lamp"):
            read = {"step": number, "field": step.record.field, "value": False}
            found = stopped(name, read, build=build, step=number)
            assert found.step == number
            assert 1 <= found.again <= number
            assert found.words
