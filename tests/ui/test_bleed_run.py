"""A run in the build: killed at any step it is there again, and what was open is bled again."""

from typing import Any

import pytest

from tests.builds import bed
from urgens.document import BuildChange, dumps, edited, loads, with_changes
from urgens.guidance.condition.holds import condition
from urgens.guidance.procedures import NAMES
from urgens.ui.session import Session
from urgens.ui.stations.bleed.run import CurrentRun


@pytest.mark.parametrize("name", ["bleed", "prove-standing", "assemble"])
@pytest.mark.parametrize("build", ["roadster", "library"])
def test_killed_at_any_step_it_is_resumed_there(qapp: Any, name: str, build: str) -> None:
    session = Session(bed(build))
    run = CurrentRun(session)
    run.name = name
    run.begin("pedal" if build == "library" else "open-stroke")
    for number, step in enumerate(run.procedure(None).steps, start=1):
        left = Session(loads(dumps(session.base)))  # what is kept aside after every edit
        again = CurrentRun(left)
        assert again.name == name
        assert again.number == number
        assert again.step is not None
        assert again.step.text == step.text
        assert condition(left.base).holds == condition(session.base).holds
        run.go(1, [{"field": "note", "value": f"at {number}"}])
    assert run.record is not None
    assert len(run.record.entries) == len(run.procedure(None).steps)


def test_what_a_set_up_changes_is_bled_again(qapp: Any) -> None:
    session = Session(bed("library"))
    run = CurrentRun(session)
    run.name = "rebleed"
    assert run.held is not None
    session.set_setup("load-sensing")
    assert run.held is None
    wheels = {wheel for step in run.procedure(None).steps for wheel in step.wheels}
    assert {"rear-left", "rear-right"} <= wheels


def test_a_joint_noted_before_the_last_bleeding_is_not_bled_again(qapp: Any) -> None:
    bled = {"procedure": "bleed", "started": "2026-05-02T14:00", "ended": "2026-05-02T15:00"}
    joint = {"joint": "L6.b", "state": "tight", "at": "2026-05-02T13:00"}
    build = with_changes(bed("library"), {"records": [bled], "joints": [joint]})
    run = CurrentRun(Session(build))
    run.name = "rebleed"
    assert run.held is not None
    later = edited(build, "joints", [{**joint, "at": "2026-05-02T16:00"}])
    run = CurrentRun(Session(later))
    run.name = "rebleed"
    assert run.held is None


def test_the_last_begun_is_on_the_card_and_names_are_those_there_are(qapp: Any) -> None:
    rows = [{"procedure": "bleed", "started": "2026-05-02T14:00"},
            {"procedure": "ports-test", "started": "2026-05-02T15:00"}]  # fmt: skip
    assert CurrentRun(Session(edited(bed("library"), "records", rows))).name == "ports-test"
    assert CurrentRun(Session(bed("library"))).name in NAMES


def test_strokes_and_the_clock_go_on_where_they_were(qapp: Any) -> None:
    """A power cut after the seventh stroke, and in the middle of thirty seconds."""
    session = Session(bed("library"))
    times = iter([f"2026-05-02T14:00:{second:02d}" for second in range(60)])
    run = CurrentRun(session, lambda to="minutes": next(times)[: 19 if to == "seconds" else 16])
    run.begin("pedal")
    while run.step is not None and run.step.action != "stroke":
        run.go(1)
    steps = session.undo_stack.count()
    for stroke in range(1, 8):
        run.count(stroke, stroke)
    assert session.undo_stack.count() == steps + 1  # counting is one step to undo
    again = CurrentRun(Session(loads(dumps(session.base))))
    assert again.record is not None
    assert (again.record.strokes, again.record.since_filled) == (7, 7)
    run.go(1)
    assert run.record is not None
    assert (run.record.strokes, run.record.since_filled) == (0, 7)
    run.start_clock()
    next(times)
    assert run.clock_passed() == 2.0


def test_a_count_that_was_undone_counts_anew_as_a_step_of_its_own(qapp: Any) -> None:
    session = Session(bed("library"))
    run = CurrentRun(session)
    run.begin("pedal")
    run.count(1, 1)
    run.count(2, 2)
    session.undo_stack.undo()
    assert run.record is not None
    assert run.record.strokes == 0
    run.count(1, 1)
    session.undo_stack.undo()
    assert run.record.strokes == 0


def test_what_is_done_once_more_is_done_twice_and_what_is_taken_back_is_not(qapp: Any) -> None:
    session = Session(bed("library"))
    run = CurrentRun(session)
    run.begin("pedal")
    steps = run.procedure(None).steps
    shut = next(n for n, one in enumerate(steps, 1) if one.action == "close")
    for _ in range(shut):
        run.go(1)
    assert run.record is not None
    assert run.record.done == tuple(range(1, shut + 1))
    run.go(-1)  # the screw was not shut after all
    assert run.record.done == tuple(range(1, shut))
    assert condition(session.base).open_wheels == ("rear-right",)
    opened = next(n for n, one in enumerate(steps, 1) if one.action == "open")
    while run.number > opened:
        run.go(-1)
    assert opened in run.record.done  # what may be open counts as open
    assert condition(session.base).open_wheels == ("rear-right",)
    run.once_more(opened)
    for _ in range(shut + 1 - opened):
        run.go(1)
    assert run.record.done.count(opened) == 2
    assert condition(session.base).open_wheels == ()


def test_a_build_that_changes_makes_no_run_another_until_it_is_opened_again(qapp: Any) -> None:
    session = Session(bed("library"))
    run = CurrentRun(session)
    run.name = "prove-standing"
    run.begin("pedal")
    run.go(1)
    at = run.step
    session.make(BuildChange("", {"booster": {"kind": "none"}, "warning_switch": "none",
                                  "valves.front": [], "valves.rear": []}))  # fmt: skip
    assert run.step == at
    assert not run.stale
    again = CurrentRun(Session(loads(dumps(session.base))))
    assert again.stale
    again.give_up()
    assert again.record is None
    assert condition(again._session.base).standing.runs[-1].outcome == "given-up"
