"""What is not earned stands nowhere: a tick that nothing carries, a hold that nothing ended.

By hand; common practice, from memory, where no other source is named.
"""

from datetime import datetime
from typing import Any

import pytest

from tests.builds import on_record, unproved, whole_run
from tests.guidance.test_condition import at, codes, kept, proofs, run, stands, vehicle
from urgens.document import Build, with_changes
from urgens.guidance.condition.bleeding import bleeding
from urgens.guidance.condition.limits import Limits

FAR, FOOT = 95.0, "300 N"  # mm, beyond what any pedal of these does at that foot
SEEN = {"started": at(0, 5), "signs": [{"at": at(1, 5), "sign": "sinks"}]}


def travel(value: float, when: str = "now", day: int = 3, **more: Any) -> dict[str, Any]:
    return {"at": at(0, day), "step": 1, "field": "travel", "value": value, "effort": FOOT,
            "when": when, "booster": "working", **more}  # fmt: skip


def read(*entries: dict[str, Any]) -> Build:
    return vehicle(records=[run("three-strokes", 3, entries=list(entries), steps=[])])


def bled(*entries: dict[str, Any], no_leak: bool = True) -> Build:
    """A van that ran clear at each wheel, with what was read after it."""
    whole = run("bleed")
    rest = [one for one in whole["entries"] if one["field"] not in ("travel", "ok")]
    leaks = next(n for n, step in enumerate(whole["steps"], 1) if step.get("hold") == "leak")
    entries = tuple(one | {"step": leaks + 1} for one in entries)
    looked = {"at": at(leaks), "step": leaks, "field": "ok", "value": True}
    found = [*rest, *([looked] if no_leak else []), *entries]
    return vehicle(records=[whole | {"entries": found}])


# --- travels -----------------------------------------------------------------------------------


def test_a_travel_with_one_half_lost_is_none_of_the_whole_vehicle() -> None:
    half = run("half-lost-test")
    half["entries"] = [
        one | {"value": FAR, "effort": FOOT, "when": "now", "booster": "working"}
        if one["field"] == "travel" else one for one in half["entries"]
    ]  # fmt: skip
    assert "pedal-long" not in codes(stands(vehicle(records=[half])))


@pytest.mark.parametrize(
    "later", [{"booster": None}, {"effort": ""}, {"effort": "a kick"}, {"when": "stroke-1"}]
)
def test_a_later_travel_that_cannot_be_judged_ends_no_long_pedal(later: dict[str, Any]) -> None:
    told = [travel(FAR), travel(20.0, day=4, **later)]
    assert "pedal-long" in codes(stands(read(*told)))
    assert "pedal-long" not in codes(stands(read(*told, travel(20.0, day=5))))


def test_a_booster_that_is_out_is_judged_without_its_help() -> None:
    """The same foot without help makes less pressure, and so less travel: continuity."""
    limits = Limits(vehicle())
    entries = [travel(40.0, booster=help_) for help_ in ("working", "out")]
    found = stands(read(*entries)).standing.fold.travels
    working, out = (limits.computed_travel(one.entry) for one in found if one.entry)
    assert working is not None
    assert out is not None
    assert out < working


def test_the_first_stroke_may_take_what_the_clearance_is_computed_to() -> None:
    """Running clearance is taken up by the first stroke; by hand, over the limit of 3 mm."""
    usual = Limits(vehicle()).clearance_travel(stands(read(travel(40.0))).standing.fold.travels[0]
                                               .entry)  # fmt: skip
    assert usual > 0.0
    within, over = usual * 1e3 + 2.0, usual * 1e3 + 8.0
    for more, held in ((within, False), (over, True)):
        three = [travel(30.0 + more, "stroke-1"), travel(30.0, "stroke-3")]
        assert ("clearance" in codes(stands(read(*three)))) == held


# --- wheels and bleeding -----------------------------------------------------------------------


def test_a_note_at_a_wheel_whose_screw_was_never_open_bleeds_nothing() -> None:
    steps = [{"action": "record", "wheels": ["rear-left"], "asks": "bubbles"}]
    note = {"at": at(1), "step": 1, "field": "bubbles", "wheel": "rear-left", "value": "none"}
    found = stands(vehicle(records=[run("bleed", steps=steps, step=1, entries=[note])]))
    assert found.standing.wheels["rear-left"] == "unknown"


def test_what_is_read_again_the_day_after_dates_no_step_anew() -> None:
    whole = run("bleed")
    strokes = next(n for n, step in enumerate(whole["steps"], 1) if step.get("asks") == "strokes")
    again = {"at": at(0, 2), "step": strokes, "field": "note", "value": "one more was seen"}
    found = stands(vehicle(records=[whole | {"entries": [*whole["entries"], again]}]))
    assert set(found.standing.wheels.values()) == {"bled"}


@pytest.mark.parametrize(
    ("build", "words"),
    [
        (vehicle(), "not yet"),
        (bled(travel(20.0), no_leak=False), "no leak check"),
        (bled(), "travel not read"),
        (bled(travel(20.0, booster=None)), "travel not judged"),
        (bled(travel(FAR)), "travel long"),
        (bled(travel(20.0)), "bled"),
    ],
)
def test_bled_is_every_wheel_a_leak_check_and_a_travel(build: Build, words: str) -> None:
    found = bleeding(stands(build))
    assert (found.words, found.done) == (words, words == "bled")


def test_what_was_bled_is_not_once_a_screw_was_open_again() -> None:
    whole = bled(travel(20.0))
    again = run("bleed", 10, outcome="given-up", step=14)
    again["entries"] = [one for one in again["entries"] if one["step"] < 14]
    assert not bleeding(stands(with_changes(whole, {"records": [
        *whole.model_dump(mode="json", exclude_unset=True, by_alias=True)["records"], again,
    ]}))).done  # fmt: skip


# --- checks answered no ------------------------------------------------------------------------


def leaking(name: str, day: int, value: bool) -> dict[str, Any]:
    """A run whose check for leaks is answered, and nothing else of it."""
    whole = run(name, day)
    number = next(n for n, step in enumerate(whole["steps"], 1) if step.get("hold") == "leak")
    one = {"at": at(number, day), "step": number, "field": "ok", "value": value}
    return whole | {"entries": [one]}


@pytest.mark.parametrize("name", ["bleed", "leak-test", "prove-standing"])
def test_a_leak_ends_by_any_check_for_leaks_that_says_yes(name: str) -> None:
    no = leaking("bleed", 3, value=False)
    assert "leak" in codes(stands(vehicle(records=[no])))
    assert "leak" not in codes(stands(vehicle(records=[no, leaking(name, 4, value=True)])))


def test_a_leak_is_there_still_when_the_proof_has_lapsed() -> None:
    no = leaking("leak-test", 3, value=False)
    opened = run("bleed", 4)
    opened["entries"] = [one for one in opened["entries"] if one["field"] != "ok"]
    assert "leak" in codes(stands(vehicle(records=[no, opened])))


def test_a_no_on_the_last_card_of_bleeding_is_no_leak() -> None:
    whole = run("bleed")
    last = len(whole["steps"])
    whole["entries"] = [
        one | {"value": False} if one["step"] == last else one for one in whole["entries"]
    ]
    found = codes(stands(vehicle(records=[whole])))
    assert "check-no" in found
    assert "leak" not in found


# --- proofs ------------------------------------------------------------------------------------


def test_a_valve_is_not_gauged_by_answers_alone() -> None:
    records = [run("gauge-valve")]
    assert proofs(stands(vehicle(records=records)))["gauge-valve"] == "begun"
    whole = on_record(unproved("roadster"))
    proved = with_changes(unproved("roadster"), whole)
    assert proofs(stands(proved))["gauge-valve"] == "done"


def test_a_proof_is_judged_by_the_steps_that_it_was_shown() -> None:
    """A procedure that is made differently later changes no history, either way."""
    whole = run("ports-test")
    caps = len(whole["steps"]) - 1
    fewer = whole | {"steps": [*whole["steps"][:caps], {"action": "look"}]}
    fewer["entries"] = [one for one in whole["entries"] if one["step"] <= caps]
    assert proofs(stands(vehicle(records=[fewer])))["ports-test"] == "done"
    more = whole | {"steps": [*whole["steps"], {"action": "check", "asks": "lamp"}]}
    assert proofs(stands(vehicle(records=[more])))["ports-test"] == "begun"


def test_the_steps_that_are_shown_name_their_checks_for_leaks() -> None:
    for name in ("bleed", "leak-test", "prove-standing"):
        assert "leak" in [one.get("hold") for one in kept(vehicle(), name)]


# --- faults, and what begins -------------------------------------------------------------------


def test_a_fault_that_stops_is_no_unknown_and_no_yes() -> None:
    found = stands(vehicle(traces=[SEEN]))
    assert "fault-stops" in codes(found)
    assert found.may_move is False
    assert stands(vehicle(traces=[{"started": at(0, 5)}])).may_move is False  # followed: begun
    lifted = {"at": at(0), "what": "lifted", "hold": "proof-open", "place": "leak-test",
              "reason": "seen on the bench"}  # fmt: skip
    assert stands(vehicle(noted=[lifted])).may_move is None


def test_what_stopped_it_stops_it_until_it_is_mended() -> None:
    left = SEEN | {"ended": at(9, 5)}
    assert "fault-stops" in codes(stands(vehicle(traces=[left])))
    later = {"started": at(0, 6), "ended": at(9, 6), "cause": "cup-swollen", "mended": True,
             "signs": [{"at": at(1, 6), "sign": "sinks"}]}  # fmt: skip
    assert "fault-stops" not in codes(stands(vehicle(traces=[left, later])))
    other = later | {"signs": [{"at": at(1, 6), "sign": "spongy"}]}
    assert "fault-stops" in codes(stands(vehicle(traces=[left, other])))
    unseen = {"at": at(2, 5), "sign": "sinks", "seen": False}
    taken_back = SEEN | {"signs": [*SEEN["signs"], unseen]}
    assert "fault-stops" not in codes(stands(vehicle(traces=[taken_back])))


@pytest.mark.parametrize("cause", ["", "something of my own"])
def test_a_mend_of_what_no_table_has_is_proved_as_any_opening(cause: str) -> None:
    mended = SEEN | {"ended": at(9, 5), "cause": cause, "mended": True}
    before = [run("leak-test"), run("three-strokes")]
    found = stands(vehicle(records=before, traces=[mended]))
    assert "fault-mended-unproved" in codes(found)
    assert proofs(found)["leak-test"] == "lapsed"
    after = [*before, run("leak-test", 6), run("three-strokes", 6)]
    assert "fault-mended-unproved" not in codes(stands(vehicle(records=after, traces=[mended])))


def test_what_is_asked_again_of_the_same_build_is_not_worked_out_again() -> None:
    build = with_changes(
        unproved("roadster"), {"records": [whole_run(unproved("roadster"), "bleed")]}
    )
    first, other = datetime(2026, 6, 1), datetime(2026, 7, 1)
    found = stands(build, first)
    stands(build, other)
    assert stands(build, first) is found


@pytest.mark.parametrize("ended", [True, False])
def test_what_a_run_opened_ends_by_going_on_only_while_it_goes_on(ended: bool) -> None:
    whole = run("bleed")
    opened = next(n for n, step in enumerate(whole["steps"], 1) if step["action"] == "open")
    left = {name: one for name, one in whole.items() if name not in ("ended", "outcome", "entries")}
    left |= {"step": opened + 1, "done": list(range(1, opened + 1))}
    left |= {"ended": whole["ended"], "outcome": "given-up"} if ended else {}
    holds = stands(vehicle(records=[left])).holds
    hands = [one for one in holds if one.code in ("screw-open", "joint-open", "tool-fitted")]
    assert len(hands) >= 3  # screw, caps, hose
    assert {one.ends_by.endswith(", or go on with the run") for one in hands} == {not ended}
