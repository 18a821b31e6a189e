"""Events against the condition they come to, by hand: reference of the condition, its tables."""

from datetime import datetime
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from urgens.document import Build, with_changes
from urgens.guidance.condition.deeds import shown
from urgens.guidance.condition.holds import Condition, condition
from urgens.guidance.procedures import procedure

LATER = datetime(2026, 12, 1, 12, 0)
CLEAN: dict[str, Any] = {
    "records": [], "joints": [], "history": [], "traces": [], "noted": [], "open_items": [],
    "proof": None, "warning_switch": "none",
}  # fmt: skip
READ: dict[str, Any] = {
    "bubbles": "none", "strokes": 8.0, "travel": 40.0, "note": "seen", "pressure": 20.0, "gap": 1.0,
    "clicks": 3.0,
}  # fmt: skip
WHEELS = ("rear-right", "rear-left", "front-right", "front-left")


def at(minute: int, day: int = 1) -> str:
    return f"2026-06-{day:02d}T{8 + minute // 60:02d}:{minute % 60:02d}"


def vehicle(**sections: Any) -> Build:
    """The library's van with nothing on record, but for what is given."""
    return with_changes(bed("library"), CLEAN | sections)


def kept(build: Build, name: str) -> list[dict[str, Any]]:
    """The steps of a procedure as a run of today keeps them."""
    steps = shown(procedure(build, name).steps)
    return [one.model_dump(mode="json", exclude_defaults=True) for one in steps]


def run(name: str, day: int = 1, **more: Any) -> dict[str, Any]:
    """A finished run of a procedure on the van, every asking step answered yes or with a figure."""
    steps = kept(vehicle(), name)
    entries = []
    for number, step in enumerate(steps, start=1):
        if "asks" not in step:
            continue
        for wheel in step.get("wheels", [None]):
            value = READ.get(step["asks"], True)
            one = {"at": at(number, day), "step": number, "field": step["asks"], "value": value}
            entries.append(one if wheel is None else one | {"wheel": wheel})
    ended = at(len(steps) + 1, day)
    base = {"procedure": name, "started": at(0, day), "ended": ended, "outcome": "finished",
            "step": len(steps), "steps": steps, "entries": entries}  # fmt: skip
    return base | more


def stands(build: Build, when: datetime = LATER) -> Condition:
    return condition(build, when)


def codes(found: Condition) -> set[str]:
    return {one.code for one in found.holds}


def proofs(found: Condition) -> dict[str, str]:
    return {one.name: one.state for one in found.standing.proofs}


def test_nothing_on_record_is_neither_yes_nor_no() -> None:
    found = stands(vehicle())
    assert found.may_move is None
    assert found.holds == ()
    assert set(found.standing.wheels.values()) == {"unknown"}


def test_a_change_on_paper_holds_nothing() -> None:
    change = {"at": at(0), "what": "Another knee", "changes": {"valves.rear[0].knee": ["a", "b"]}}
    assert stands(vehicle(history=[change])).may_move is None


def test_bleeding_that_ran_clear_bleeds_every_wheel() -> None:
    found = stands(vehicle(records=[run("bleed")]))
    assert found.standing.wheels == dict.fromkeys(WHEELS, "bled")
    assert found.may_move is False  # nothing is proved yet
    assert "wheel-not-bled" not in codes(found)


def test_one_wheel_of_four_is_not_bled() -> None:
    whole = run("bleed")
    first = next(n for n, s in enumerate(whole["steps"], 1) if s["action"] == "close")
    there = whole["steps"][first - 1]["wheels"][0]
    noted = next(n for n, s in enumerate(whole["steps"], 1) if s.get("asks") == "bubbles")
    given_up = whole | {"outcome": "given-up", "step": noted + 1,
                        "entries": [e for e in whole["entries"] if e["step"] <= noted]}  # fmt: skip
    found = stands(vehicle(records=[given_up]))
    assert found.standing.wheels[there] == "bled"
    assert sorted(found.standing.wheels.values()).count("bled") == 1
    assert "tool-fitted" in codes(found)  # block, hose or bleeder are still there


def test_given_up_with_a_screw_open_it_stays_open_until_it_is_noted() -> None:
    whole = run("bleed")
    opened = next(n for n, s in enumerate(whole["steps"], 1) if s["action"] == "open")
    wheel = whole["steps"][opened - 1]["wheels"][0]
    left = whole | {"outcome": "given-up", "step": opened, "entries": []}
    found = stands(vehicle(records=[left]))
    assert found.standing.wheels[wheel] == "open"
    assert "screw-open" in codes(found)
    note = {"at": at(300), "what": "shut", "place": wheel, "thing": "bleed screw"}
    after = stands(vehicle(records=[left], noted=[note]))
    assert "screw-open" not in codes(after)
    assert after.standing.wheels[wheel] == "not-clear"


def test_a_run_that_goes_on_says_what_stands_open() -> None:
    whole = run("bleed")
    opened = next(n for n, s in enumerate(whole["steps"], 1) if s["action"] == "open")
    going = {k: v for k, v in whole.items() if k not in ("ended", "outcome")}
    found = stands(vehicle(records=[going | {"step": opened + 1, "entries": []}]))
    assert "screw-open" in codes(found)
    (outcome,) = found.standing.runs
    assert (outcome.outcome, outcome.answered) == ("going-on", 0)


@pytest.mark.parametrize("state", ["capped", "started", "tight", "dry"])
def test_a_joint_holds_until_it_is_dry(state: str) -> None:
    joint = {"joint": "L6.b", "state": state, "at": at(0, 2)}
    found = stands(vehicle(records=[run("bleed")], joints=[joint]))
    wanted = {"capped": "joint-open", "started": "joint-open", "tight": "joint-not-dry"}.get(state)
    assert (wanted in codes(found)) == (wanted is not None)
    opened = state != "dry"
    assert ("dry" in found.standing.wheels.values()) == opened


def test_a_yes_to_each_step_proves_and_a_passed_one_does_not() -> None:
    assert proofs(stands(vehicle(records=[run("leak-test")])))["leak-test"] == "done"
    passed = run("leak-test", entries=[])
    assert proofs(stands(vehicle(records=[passed])))["leak-test"] == "begun"


def test_all_standing_proofs_with_one_yes_of_many_prove_nothing() -> None:
    whole = run("prove-standing")
    one = whole | {"entries": whole["entries"][:1]}
    states = proofs(stands(vehicle(records=[one])))
    assert "done" not in {s for n, s in states.items() if n not in ("leak-test", "gauge-valve")}
    none = whole | {"entries": []}
    assert "done" not in proofs(stands(vehicle(records=[none]))).values()


def test_a_no_fails_the_proof_and_holds_until_it_is_yes() -> None:
    no = run("leak-test")
    no["entries"] = [e | {"value": False} for e in no["entries"]]
    found = stands(vehicle(records=[no]))
    assert proofs(found)["leak-test"] == "failed"
    assert {"leak", "proof-failed"} <= codes(found)
    again = stands(vehicle(records=[no, run("leak-test", 2)]))
    assert proofs(again)["leak-test"] == "done"
    assert "leak" not in codes(again)


def test_what_is_opened_later_lapses_the_proofs_of_before() -> None:
    proved = [run("leak-test"), run("three-strokes")]
    found = stands(vehicle(records=[*proved, run("bleed", 20)]))
    assert proofs(found)["leak-test"] == "lapsed"
    assert proofs(found)["three-strokes"] == "lapsed"
    assert "proof-lapsed" in codes(found)
    assert (
        proofs(stands(vehicle(records=[run("bleed"), run("leak-test", 2)])))["leak-test"] == "done"
    )


def test_half_lost_by_far_is_outside_and_fails() -> None:
    def read(travel: float) -> str:
        half = run("half-lost-test")
        half["entries"] = [
            e | {"value": travel} if e["field"] == "travel" else e for e in half["entries"]
        ]
        return proofs(stands(vehicle(records=[half])))["half-lost-test"]

    halves = stands(vehicle()).standing.limits.solution.half_failed
    computed = [float(one.pedal_travel[0]) * 1e3 for one in halves]
    if all(abs(computed[0] - c) < 9 for c in computed):
        assert read(computed[0]) == "done"
    assert read(5.0) == "failed"


def test_the_pedal_that_is_long_holds_until_it_is_read_good() -> None:
    long = {"at": at(0, 3), "step": 1, "field": "travel", "value": 95.0, "effort": "300 N",
            "booster": "working", "when": "now"}  # fmt: skip
    bled = run("bleed")
    found = stands(vehicle(records=[bled, run("bleed", 3, entries=[long])]))
    assert "pedal-long" in codes(found)
    unknown = {k: v for k, v in long.items() if k != "booster"}
    assert "pedal-long" not in codes(stands(vehicle(records=[run("bleed", 3, entries=[unknown])])))


def test_air_that_shows_in_the_morning_holds() -> None:
    now = {"at": at(0, 3), "step": 1, "field": "travel", "value": 40.0, "effort": "300 N",
           "when": "now"}  # fmt: skip
    morning = now | {"at": at(0, 4), "when": "morning", "value": 73.0}
    held = stands(vehicle(records=[run("bleed", 3, entries=[now, morning])]))
    assert "air-shows-late" in codes(held)
    same = stands(vehicle(records=[run("bleed", 3, entries=[now, morning | {"value": 41.0}])]))
    assert "air-shows-late" not in codes(same)


def test_a_simulated_reading_proves_nothing() -> None:
    points = [[f"{p} psi", f"{min(p, 400 + (p - 400) * 0.35):.0f} psi", "rising"]
              for p in range(100, 1100, 100)]  # fmt: skip
    gauges = {"at": at(0), "valve": "rear[0]", "full_scale": "1500 psi", "points": points}
    real = stands(vehicle(proof={"gauges": [gauges]}))
    assert proofs(real)["gauge-valve"] in ("done", "failed")
    stand_in = stands(vehicle(proof={"gauges": [gauges | {"source": "simulated"}]}))
    assert proofs(stand_in)["gauge-valve"] == "open"


@pytest.mark.parametrize(("share", "state"), [(1.0, "failed"), (0.0, "failed")])
def test_a_valve_that_does_not_reduce_or_is_blocked_has_failed(share: float, state: str) -> None:
    points = [[f"{p} psi", f"{p * share:.0f} psi", "rising"] for p in range(100, 1100, 100)]
    gauges = {"at": at(0), "valve": "rear[0]", "full_scale": "1500 psi", "points": points}
    assert proofs(stands(vehicle(proof={"gauges": [gauges]})))["gauge-valve"] == state


def test_a_mended_fault_holds_until_its_way_back_is_gone() -> None:
    fault = {"started": at(0, 5), "ended": at(30, 5), "cause": "air-rear", "mended": True,
             "signs": [{"at": at(1, 5), "sign": "spongy"}]}  # fmt: skip
    before = run("leak-test"), run("three-strokes")
    found = stands(vehicle(records=list(before), traces=[fault]))
    assert "fault-mended-unproved" in codes(found)
    assert found.standing.wheels["rear-left"] == "dry"
    after = [*before, run("bleed", 6), run("leak-test", 7), run("three-strokes", 7)]
    assert "fault-mended-unproved" not in codes(stands(vehicle(records=after, traces=[fault])))


def test_a_reason_lifts_an_open_proof_and_never_a_failed_one() -> None:
    lift = {"at": at(0, 9), "what": "lifted", "hold": "proof-open", "place": "ports-test",
            "reason": "the ports were seen on the bench"}  # fmt: skip
    found = stands(vehicle(records=[run("bleed")], noted=[lift]))
    assert "ports-test" not in {one.place for one in found.holds}
    no = run("ports-test", 8)
    no["entries"] = [e | {"value": False} for e in no["entries"]]
    failed = stands(vehicle(records=[no], noted=[lift | {"hold": "proof-failed"}]))
    assert "proof-failed" in codes(failed)


def test_times_that_are_not_yet_prove_nothing_and_are_named() -> None:
    early = datetime(2026, 5, 1)
    found = stands(vehicle(records=[run("leak-test")]), early)
    assert proofs(found)["leak-test"] == "open"
    assert found.standing.future == ("records[0]",)


def test_an_item_that_holds_is_ended_by_its_tick() -> None:
    item = {"what": "Hose of the rear left renewed", "holds_vehicle": True}
    assert codes(stands(vehicle(open_items=[item]))) == {"open-item"}
    assert codes(stands(vehicle(open_items=[item | {"done": "2026-06-01"}]))) == set()


def test_older_records_count_by_what_was_read() -> None:
    """Without steps and outcome: entries count by field, wheel and time."""
    old = {"procedure": "bleed", "started": at(0), "ended": at(60), "step": 9, "entries": [
        {"at": at(n), "step": 5, "field": field, "wheel": wheel, "value": value}
        for n, wheel in enumerate(WHEELS)
        for field, value in (("strokes", 9.0), ("bubbles", "none"))
    ]}  # fmt: skip
    assert set(stands(vehicle(records=[old])).standing.wheels.values()) == {"bled"}
    bare = {"procedure": "prove-standing", "started": at(0), "ended": at(60)}
    assert "done" not in proofs(stands(vehicle(records=[bare]))).values()


# --- invariants ------------------------------------------------------------------------------

RUNS = ("bleed", "leak-test", "ports-test", "three-strokes", "half-lost-test")
HAPPENED = st.lists(
    st.tuples(st.sampled_from([*RUNS, "joint", "given-up", "no"]), st.integers(0, 6)), max_size=6
)


def told(happened: list[tuple[str, int]]) -> Build:
    """A vehicle to which things happened, a day each."""
    records, joints = [], {}
    for day, (what, pick) in enumerate(happened, start=1):
        if what == "joint":
            name = ("L6.b", "L1.a", "L7.b")[pick % 3]
            state = ("tight", "dry")[pick % 2]
            joints[name] = {"joint": name, "state": state, "at": at(0, day)}
        elif what == "given-up":
            whole = run("bleed", day)
            records.append(whole | {"outcome": "given-up", "step": 3 * pick + 1})
        elif what == "no":
            no = run("leak-test", day)
            no["entries"] = [e | {"value": False} for e in no["entries"]]
            records.append(no)
        else:
            records.append(run(what, day))
    return vehicle(records=records, joints=list(joints.values()))


@settings(max_examples=12, deadline=None)
@given(HAPPENED)
def test_the_order_of_the_file_does_not_matter_where_times_differ(
    happened: list[tuple[str, int]],
) -> None:
    build = told(happened)
    turned = build.model_copy(update={"records": build.records[::-1], "joints": build.joints[::-1]})
    one, other = stands(build), stands(turned)
    assert one.standing.wheels == other.standing.wheels
    assert proofs(one) == proofs(other)
    assert codes(one) == codes(other)


@settings(max_examples=12, deadline=None)
@given(HAPPENED)
def test_a_hold_never_ends_without_something_that_happened(happened: list[tuple[str, int]]) -> None:
    """Between the deeds of two days nothing comes and nothing goes."""
    build = told(happened)
    for day in range(1, len(happened) + 1):
        night, morning = datetime(2026, 6, day, 23, 0), datetime(2026, 6, day + 1, 7, 0)
        held = [{(h.code, h.place) for h in stands(build, when).holds} for when in (night, morning)]
        assert held[0] == held[1]


@settings(max_examples=12, deadline=None)
@given(HAPPENED)
def test_a_proof_is_never_done_with_a_step_unanswered(happened: list[tuple[str, int]]) -> None:
    build = told(happened)
    emptied = build.model_copy(update={
        "records": tuple(one.model_copy(update={"entries": ()}) for one in build.records)
    })  # fmt: skip
    assert "done" not in proofs(stands(emptied)).values()
