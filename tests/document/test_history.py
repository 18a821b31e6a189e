"""What saving writes into the history, and going back in it."""

from datetime import datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from urgens.document import Build, BuildChange, BuildErrors, changed, loads, with_changes
from urgens.document.edits.difference import difference
from urgens.document.edits.edit import dumped
from urgens.document.edits.past import as_of, change_words, changes_between, with_history
from urgens.document.paths import path_of, steps
from urgens.guidance.condition.consequences import asked_by

NOW = datetime(2026, 5, 2, 14, 10)
FRICTION, KNEE = "front.brake.pad_friction", "valves.rear[0].knee"


@pytest.fixture
def van() -> Build:
    return bed("library")


def saved(before: Build, after: Build, at: datetime = NOW) -> Build:
    return with_history(before, after, at)


def test_a_saving_with_a_change_is_one_entry_with_old_and_new(van: Build) -> None:
    made = saved(van, with_changes(van, {"pedal.pivot_to_pad": "14 in"}))
    (entry,) = made.history[len(van.history) :]
    assert entry.kind == "change"
    assert entry.at == NOW
    assert dict(entry.changes) == {"pedal.pivot_to_pad": (van.pedal.pivot_to_pad.text, "14 in")}
    assert entry.what == f"Pivot to pad {van.pedal.pivot_to_pad.text} → 14 in"


def test_a_saving_without_a_change_adds_nothing(van: Build) -> None:
    assert saved(van, van) is van
    noted = with_changes(van, {"notes": "painted", "name": "Another"})
    assert saved(van, noted) is noted


def test_what_is_changed_again_is_one_change_and_what_is_not_keeps_its_date(van: Build) -> None:
    first = {"pedal.pivot_to_pad": "14 in", "targets.deceleration": 0.7}
    one = saved(van, with_changes(van, first))
    later = NOW + timedelta(minutes=30)
    again = {"pedal.pivot_to_pad": "15 in", "targets.surface": 0.8}
    two = saved(one, with_changes(one, again), later)
    stays, moves = two.history[len(van.history) :]
    assert (stays.at, moves.at) == (NOW, later)
    assert dict(stays.changes) == {"targets.deceleration": (van.targets.deceleration, 0.7)}
    assert dict(moves.changes) == {
        "pedal.pivot_to_pad": (van.pedal.pivot_to_pad.text, "15 in"),
        "targets.surface": (van.targets.surface, 0.8),
    }
    assert not changes_between(as_of(two, NOW).build, with_changes(van, {
        "targets.deceleration": 0.7}))  # fmt: skip
    assert not changes_between(as_of(two, NOW - timedelta(minutes=1)).build, van)


def test_many_savings_never_carry_the_first_change_along(van: Build) -> None:
    """A change of nine o'clock stays one, though something else is saved every hour."""
    build = saved(van, with_changes(van, {"targets.surface": 0.8}))
    for hour in range(1, 6):
        pad = with_changes(build, {"pedal.pivot_to_pad": f"{12 + hour} in"})
        build = saved(build, pad, NOW + timedelta(hours=hour))
    assert {one.at: tuple(one.changes) for one in build.history[len(van.history) :]} == {
        NOW: ("targets.surface",), NOW + timedelta(hours=5): ("pedal.pivot_to_pad",),
    }  # fmt: skip


def test_what_was_recorded_in_between_keeps_both_changes(van: Build) -> None:
    """A proof of half past two was made with the first value: it is not to stand for the old."""
    one = saved(van, with_changes(van, {"pedal.pivot_to_pad": "14 in"}))
    run = {"procedure": "three-strokes", "started": "2026-05-02T14:30", "ended": "2026-05-02T14:40"}
    proved = with_changes(one, {"records": [*dumped(one).get("records", []), run]})
    assert saved(one, proved) is proved  # what is recorded is no change of the vehicle
    back = with_changes(proved, {"pedal.pivot_to_pad": van.pedal.pivot_to_pad.text})
    made = saved(proved, back, NOW + timedelta(hours=1)).history[len(van.history) :]
    assert [dict(one.changes)["pedal.pivot_to_pad"][1] for one in made] == [
        "14 in", van.pedal.pivot_to_pad.text,
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("item", "entries"),
    [({"what": "Clip", "done": "2026-05-02"}, 2), ({"what": "Clip", "due": "2027-05-02"}, 0)],
)
def test_what_was_done_that_day_keeps_both_changes_and_what_is_due_later_does_not(
    van: Build, item: dict[str, str], entries: int
) -> None:
    """Of a day without a time nobody knows whether it was before or after."""
    one = saved(van, with_changes(van, {"targets.surface": 0.7, "open_items": [item]}))
    back = with_changes(one, {"targets.surface": van.targets.surface})
    made = saved(one, back, NOW + timedelta(minutes=30))
    assert len(made.history) == len(van.history) + entries


def test_what_is_taken_back_in_the_same_run_leaves_no_entry(van: Build) -> None:
    one = saved(van, with_changes(van, {"targets.surface": 0.7}))
    back = with_changes(one, {"targets.surface": van.targets.surface})
    assert saved(one, back, NOW + timedelta(minutes=5)).history == van.history


def test_later_or_worded_savings_are_entries_of_their_own(van: Build) -> None:
    one = saved(van, with_changes(van, {"targets.surface": 0.7}))
    late = saved(one, with_changes(one, {"targets.surface": 0.6}), NOW + timedelta(hours=3))
    assert len(late.history) == len(van.history) + 2
    worded = with_changes(one, {f"history[{len(van.history)}].why": "wet season"})
    more = saved(worded, with_changes(worded, {"targets.surface": 0.6}), NOW + timedelta(hours=1))
    assert len(more.history) == len(van.history) + 2


def test_a_figure_that_was_only_assumed_and_is_measured_is_a_note(van: Build) -> None:
    guessed = with_changes(van, {"evidence": {FRICTION: {"state": "assumed"}}})
    made = saved(guessed, changed(guessed, BuildChange("", {FRICTION: 0.41})))
    assert made.history[-1].kind == "note"
    assert made.history[-1].what == f"Front pad friction {van.front.brake.pad_friction} → 0.41"  # type: ignore[union-attr]


def test_a_note_and_a_change_of_one_hour_are_two_entries(van: Build) -> None:
    """What was found out is no change of the vehicle: neither is laid into the other."""
    guessed = with_changes(van, {"evidence": {FRICTION: {"state": "assumed"}}})
    note = saved(guessed, changed(guessed, BuildChange("", {FRICTION: 0.41})))
    change = saved(note, with_changes(note, {"targets.surface": 0.7}), NOW + timedelta(minutes=9))

    assert [one.kind for one in change.history[-2:]] == ["note", "change"]


def test_many_figures_are_counted_and_named_by_place(van: Build) -> None:
    changes = {
        "pedal.pivot_to_pad": "14 in", "pedal.pivot_to_pushrod": "2.5 in", "targets.surface": 0.8,
        "master.bore": "1 in",
    }  # fmt: skip
    words = change_words(van, changes_between(van, with_changes(van, changes)))
    assert words == "4 figures: master, pedal, targets"


def test_a_run_that_cannot_be_gone_back_in_is_left_as_it_stands(van: Build) -> None:
    """Saving never fails for what an older entry says: it becomes an entry of its own."""
    for changes in ({"targets.surface": ["wet", 0.85]}, {"front.paint": ["red", "blue"]}):
        entry = {"at": "2026-05-02T14:00", "what": change_words(van, changes), "changes": changes}
        old = with_changes(van, {"history": [entry]})
        made = saved(old, with_changes(old, {"pedal.pivot_to_pad": "14 in"}))
        assert len(made.history) == 2


def test_notes_of_many_lines_make_one_line_of_words(van: Build) -> None:
    noted = with_changes(van, {"plumbing.parts[0].marking": "as found\n" + "very long " * 90})
    what = saved(van, noted).history[-1].what
    assert "\n" not in what
    assert len(what) == 200
    assert what.endswith("…")


@pytest.mark.parametrize("path", ["Front Brake!", "", "[3]", "x..y", "valves[", "ärger", "a b.c"])
def test_whatever_a_hand_writes_as_a_path_is_named_and_left_out(van: Build, path: str) -> None:
    entry = {"at": "2026-05-02T10:00", "what": "By hand", "changes": {path: [1, 2]}}
    old = with_changes(van, {"history": [entry]})
    once = as_of(old, datetime(2026, 5, 1))
    assert once.unknown == (path,)
    assert not changes_between(once.build, van)
    assert change_words(old, {path: [1, 2]}).endswith("1 → 2")
    assert change_words(old, {key: [1, 2] for key in (path, "a", "b", "c")})
    assert asked_by(old, [path]).works == ()


def test_undoing_a_change_of_entries_leaves_what_saving_added(van: Build) -> None:
    typed = {"at": "2026-05-01T09:00", "what": "Pulls to the left", "kind": "symptom"}
    noted = with_changes(van, {"history": [*dumped(van).get("history", []), typed]})
    step = difference(van, noted)
    after = saved(noted, with_changes(noted, {"targets.surface": 0.7}))
    undone = step.back(after)
    assert [one.what for one in undone.history[len(van.history) :]] == [after.history[-1].what]
    assert step.forward(undone).history == after.history


def test_the_build_as_it_was_on_a_day_comes_back(van: Build) -> None:
    one = saved(van, with_changes(van, {"targets.surface": 0.7, "booster": {"kind": "none"}}))
    valves = {"valves.rear": [], "setups": []}
    two = saved(one, with_changes(one, valves), NOW + timedelta(days=2))
    between = as_of(two, NOW + timedelta(days=1))
    assert not between.unknown
    assert not changes_between(between.build, one)
    first = as_of(two, NOW - timedelta(days=1))
    assert not changes_between(first.build, van)


def test_paths_of_another_vehicle_are_named_and_the_rest_is_gone_back(van: Build) -> None:
    entry = {
        "at": "2026-05-01T09:00", "what": "By hand",
        "changes": {"front.brake.paint[3].red": [1, 2], "targets.surface": [0.6, 0.9]},
    }  # fmt: skip
    once = as_of(with_changes(van, {"history": [entry]}), datetime(2026, 4, 1))
    assert once.unknown == ("front.brake.paint[3].red",)
    assert once.build.targets.surface == 0.6


def test_what_was_before_and_is_no_build_is_said(van: Build) -> None:
    entry = {
        "at": "2026-05-01T09:00", "what": "By hand", "changes": {"targets.surface": ["wet", 0.9]},
    }  # fmt: skip
    with pytest.raises(BuildErrors, match=r"targets\.surface"):
        as_of(with_changes(van, {"history": [entry]}), datetime(2026, 4, 1))


@settings(max_examples=25, deadline=None)
@given(
    st.lists(
        st.tuples(
            st.sampled_from([FRICTION, "targets.surface", "targets.deceleration"]),
            st.floats(0.3, 0.6).map(lambda x: round(x, 2)),
        ),
        min_size=1,
        max_size=6,
    ),
    st.lists(st.integers(1, 300), min_size=6, max_size=6),
)
def test_whatever_is_saved_in_steps_leads_back_to_the_beginning(
    edits: list[tuple[str, float]], minutes: list[int]
) -> None:
    begun = bed("library")
    build, at = begun, NOW
    for (path, value), later in zip(edits, minutes, strict=False):
        at += timedelta(minutes=later)
        build = with_history(build, with_changes(build, {path: value}), at)
    assert not changes_between(as_of(build, NOW - timedelta(days=1)).build, begun)


@given(st.lists(st.one_of(st.integers(0, 99), st.sampled_from(["front", "a b", "x.y"])), min_size=1)
       .filter(lambda way: isinstance(way[0], str)))  # fmt: skip
def test_a_path_is_read_back_as_it_was_written(way: list[str | int]) -> None:
    assert steps(path_of(way)) == way


@pytest.mark.parametrize("at", ["2026-02-30T10:00", "yesterday", 7])
def test_a_date_that_cannot_be_is_said_with_its_place(van: Build, at: object) -> None:
    with pytest.raises(BuildErrors) as raised:
        with_changes(van, {"history": [{"at": at, "what": "x"}]})
    assert "history[0].at: is" in str(raised.value)
    assert 'write day and time: "2026-05-31T14:10"' in str(raised.value)


def test_a_field_nobody_knows_is_refused(van: Build) -> None:
    text = '{"format": "urgens.build", "version": 1, "history": [{"att": "x"}]}'
    with pytest.raises(BuildErrors, match=r"history\[0\]"):
        loads(text)
