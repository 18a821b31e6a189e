"""A run in the build: killed at any step it is there again, and what was open is bled again."""

from typing import Any

import pytest

from urgens.document import demo, dumps, edited, loads, with_changes
from urgens.guidance.procedures import NAMES
from urgens.ui.session import Session
from urgens.ui.stations.bleed.run import CurrentRun


@pytest.mark.parametrize("name", ["bleed", "prove-standing", "assemble"])
@pytest.mark.parametrize("build", ["roadster", "library"])
def test_killed_at_any_step_it_is_resumed_there(qapp: Any, name: str, build: str) -> None:
    session = Session(demo(build))
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
        run.go(1, [{"field": "note", "value": f"at {number}"}])
    assert run.record is not None
    assert len(run.record.entries) == len(run.procedure(None).steps)


def test_what_a_set_up_changes_is_bled_again(qapp: Any) -> None:
    session = Session(demo("library"))
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
    build = with_changes(demo("library"), {"records": [bled], "joints": [joint]})
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
    assert CurrentRun(Session(edited(demo("library"), "records", rows))).name == "ports-test"
    assert CurrentRun(Session(demo("library"))).name in NAMES
