"""What holds the vehicle is planned: a job for each hold, told by hand."""

from typing import Any

import pytest

from tests.builds import bed, on_record, with_changes
from urgens.document import Build, demo
from urgens.guidance.condition.holds import condition
from urgens.guidance.planning.plan import plan

DAY, LATER = "2026-05-02", "2026-05-03"


def after(**more: Any) -> Build:
    """The demo's van, bled and proved, and what came the day after."""
    build = bed("library")
    whole = on_record(build)
    records = [*whole["records"], *more.pop("records", [])]
    return with_changes(build, {**whole, "records": records, **more})


def a_no(name: str, step: int, field: str = "ok") -> dict[str, Any]:
    return {"procedure": name, "started": f"{LATER}T10:00", "ended": f"{LATER}T10:10",
            "entries": [
                {"at": f"{LATER}T10:05", "step": step, "field": field, "value": False},
            ]}  # fmt: skip


OPEN_SCREW: dict[str, Any] = {
    "procedure": "bleed", "method": "pedal", "started": f"{LATER}T10:00", "ended": f"{LATER}T10:10",
    "outcome": "given-up", "step": 2, "done": [1], "steps": [
        {"action": "fit", "thing": "hose and bottle", "wheels": ["rear-right"]},
        {"action": "open", "thing": "bleed screw", "wheels": ["rear-right"]},
    ],
}  # fmt: skip
SHUT_SCREW = {
    **OPEN_SCREW, "outcome": "finished", "step": 3, "done": [1, 2, 3], "steps": [
        *OPEN_SCREW["steps"], {"action": "close", "thing": "bleed screw", "wheels": ["rear-right"]},
    ],
}  # fmt: skip
STOPS = {"started": f"{LATER}T10:00", "signs": [
    {"at": f"{LATER}T10:00", "sign": "floor", "seen": True},
]}  # fmt: skip
MENDED = {**STOPS, "ended": f"{LATER}T12:00", "cause": "primary-cup", "mended": True}


@pytest.mark.parametrize(
    ("build", "code", "job"),
    [
        (after(records=[OPEN_SCREW]), "screw-open", "Shut the screw: right rear"),
        (after(records=[OPEN_SCREW]), "tool-fitted", "Off or back: hose and bottle"),
        (after(records=[SHUT_SCREW]), "wheel-not-bled", "Fill and bleed rear"),
        (after(records=[a_no("leak-test", 1)]), "leak", "Find what leaks, make it tight"),
        (after(records=[a_no("pedal-height", 2)]), "check-no", "Put right what was answered no"),
        (after(joints=[{"joint": "L1.b", "state": "tight", "at": f"{LATER}T10:00"}]),
         "joint-not-dry", "Joints looked at under a pressed pedal"),
        (after(joints=[{"joint": "L1.b", "state": "started", "at": f"{LATER}T10:00"}]),
         "joint-open", "Joints tight"),
        (after(traces=[STOPS]), "fault-stops", "Follow the fault to its cause"),
        (after(traces=[MENDED]), "fault-mended-unproved", "Prove standing"),
        (after(open_items=[{"what": "Clip", "holds_vehicle": True}]), "open-item", "Clip"),
    ],
)  # fmt: skip
def test_each_hold_has_its_job(build: Build, code: str, job: str) -> None:
    found = plan(build)
    holds = condition(build).holds
    assert code in {one.code for one in holds}
    assert job in {one.name for one in found.jobs}
    assert job in {held.job for hold, held in zip(holds, found.holds, strict=True)
                   if hold.code == code}  # fmt: skip


@pytest.mark.parametrize("records", [[OPEN_SCREW], [a_no("leak-test", 1)]])
def test_none_that_is_begun_is_without_a_job(records: list[dict[str, Any]]) -> None:
    assert all(held.job for held in plan(after(records=records)).holds)


def test_where_nothing_holds_nothing_is_planned_for_it() -> None:
    assert plan(after()).holds == ()


def test_a_bleeding_that_goes_on_ends_what_it_fitted_and_bleeds_what_it_has_not_come_to() -> None:
    """The van as it ships: its caps, tools and hose come off with its own last cards."""
    found = plan(demo("library"))
    names = [job.name for job in found.jobs]
    assert names[:2] == ["Joints tight", "Fill and bleed both"]
    assert not any(name.startswith(("Off or back", "Tighten")) for name in names)
    ended = {held.what: held.job for held in found.holds}
    assert ended["caps: taken off and not back"] == "Fill and bleed both"
    assert ended["hose and bottle at left rear is still fitted"] == "Fill and bleed both"
