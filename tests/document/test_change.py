"""Lists put in another order, parts replaced: what hangs on them goes along, or goes with them."""

import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from urgens.document import (
    Build,
    BuildChange,
    BuildErrors,
    changed,
    dumps,
    loads,
    with_changes,
    with_setup,
)
from urgens.document.build import Build as Whole
from urgens.document.edits.edit import dumped
from urgens.document.edits.setups import whole

CASE = {"front_axle": "300 kg", "rear_axle": "300 kg", "cg_height": "0.5 m"}


def laden(build: Build) -> Build:
    """Three load cases of which something is known, and a set-up that changes one of each."""
    cases = [{"name": f"case {i}", **CASE} for i in range(3)]
    known = {
        f"vehicle.load_cases[{i}].front_axle": {"state": "measured", "note": f"case {i}"}
        for i in range(3)
    }
    heights = {f"vehicle.load_cases[{i}].cg_height": f"0.{4 + i} m" for i in range(3)}
    document = json.loads(dumps(build))
    document["vehicle"]["load_cases"] = cases
    document["evidence"] = known
    document["setups"] = [
        {"name": "low", "changes": heights},
        {"name": "other", "changes": {"booster": {"kind": "none"}}},
    ]
    return loads(json.dumps(document))


def meant(build: Build) -> dict[str, Any]:
    """What each reference says, by the name of what it says it of."""
    names = [case.name for case in build.vehicle.load_cases]
    notes = {path: known.note for path, known in build.evidence.items()}
    for path, note in notes.items():
        assert names[int(path.partition("[")[2].partition("]")[0])] == note
    return notes


def heights(build: Build, setup: str) -> dict[str, str]:
    """The heights a set-up has, by load case."""
    made = with_setup(build, setup)
    return {case.name: case.cg_height.text for case in made.vehicle.load_cases}


orders = st.lists(
    st.tuples(st.sampled_from(["insert", "remove", "move"]), st.integers(0, 9), st.integers(0, 9)),
    max_size=6,
)


def moved(count: int, act: tuple[str, int, int], fresh: int) -> list[Any]:
    """An order of `count` entries after one act: a new one in, one out, one elsewhere."""
    order: list[Any] = list(range(count))
    kind, first, second = act
    if kind == "insert":
        order.insert(first % (count + 1), {"name": f"new {fresh}", **CASE})
    elif kind == "remove" and count > 1:
        del order[first % count]
    elif kind == "move":
        order.insert(second % count, order.pop(first % count))
    return order


@settings(max_examples=25)
@given(orders, st.data())
def test_every_reference_means_the_same_or_is_gone(
    acts: list[tuple[str, int, int]], data: st.DataObject
) -> None:
    """After any inserts, removals and moves, in the build itself and in its set-ups."""
    build = laden(bed("bakery"))
    at_first = {f"case {i}": f"0.{4 + i} m" for i in range(3)}
    for fresh, act in enumerate(acts):
        setup = data.draw(st.sampled_from([None, "low", "other"]))
        seen = build if setup is None else with_setup(build, setup)
        order = moved(len(seen.vehicle.load_cases), act, fresh)
        build = changed(build, BuildChange("moved", orders={"vehicle.load_cases": order}), setup)

        meant(build)
        for name in ("low", "other"):
            meant(with_setup(build, name))
        for case, height in heights(build, "low").items():
            assert height == at_first.get(case, "0.5 m")
        for case, height in heights(build, "other").items():
            assert height == "0.5 m", case
        assert loads(dumps(build)) == build  # nothing hangs on a place that is gone


def test_what_a_set_up_changes_leaves_the_build_as_it_was() -> None:
    build = laden(bed("bakery"))
    order = BuildChange("up", orders={"vehicle.load_cases": [1, 0, 2]})
    made = changed(build, order, "low")

    assert made.vehicle == build.vehicle
    assert made.evidence == build.evidence
    assert [case.name for case in with_setup(made, "low").vehicle.load_cases] == [
        "case 1", "case 0", "case 2",
    ]  # fmt: skip
    assert meant(with_setup(made, "low")) == {
        "vehicle.load_cases[1].front_axle": "case 0",
        "vehicle.load_cases[0].front_axle": "case 1",
        "vehicle.load_cases[2].front_axle": "case 2",
    }


def test_a_replaced_part_takes_what_was_known_of_it_along() -> None:
    """Kept where the same figure still stands there, gone where it is another."""
    build = bed("bakery")
    document = json.loads(dumps(build))
    document["evidence"] = {
        "rear.brake.shoe_factor": {"state": "measured"},
        "front.brake.pad_friction": {"state": "stamped"},
        "front.brake.piston_diameters[0]": {"state": "measured"},
    }
    build = loads(json.dumps(document))
    front = {**document["front"]["brake"], "pad_friction": 0.5}
    disc = {"kind": "disc", "caliper": "sliding", "piston_diameters": ["2 in"],
            "pad_friction": 0.4, "effective_radius": "5 in"}  # fmt: skip
    made = changed(build, BuildChange("other brakes", {"front.brake": front, "rear.brake": disc}))

    assert set(made.evidence) == {"front.brake.piston_diameters[0]"}


def test_in_a_set_up_the_last_word_on_a_part_counts() -> None:
    """A bore that is typed, then a cylinder put in its place: the cylinder's own bore counts."""
    build = changed(
        bed("bakery"), BuildChange("b", orders={"setups": [{"name": "b", "changes": {}}]})
    )
    build = changed(build, BuildChange("bore", {"master.bore": "3/4 in"}), "b")
    other = {"kind": "tandem", "bore": "1 in", "stroke": "1.2 in"}
    build = changed(build, BuildChange("cylinder", {"master": other}), "b")

    assert with_setup(build, "b").master.main_bore.text == "1 in"
    build = changed(build, BuildChange("bore", {"master.bore": "7/8 in"}), "b")
    assert with_setup(build, "b").master.main_bore.text == "7/8 in"
    assert build.master == bed("bakery").master


def test_what_is_said_of_a_set_ups_own_part_stays_with_it() -> None:
    build = changed(
        bed("bakery"), BuildChange("b", orders={"setups": [{"name": "b", "changes": {}}]})
    )
    disc = {"kind": "disc", "caliper": "sliding", "piston_diameters": ["2 in"],
            "pad_friction": 0.4, "effective_radius": "5 in"}  # fmt: skip
    build = changed(build, BuildChange.assuming("discs", {"rear.brake": disc}), "b")
    build = changed(
        build, BuildChange("w", known={"vehicle.wheelbase": {"state": "measured"}}), "b"
    )

    assert "rear.brake.pad_friction" not in build.evidence
    assert with_setup(build, "b").evidence["rear.brake.pad_friction"].state == "assumed"
    assert build.evidence["vehicle.wheelbase"].state == "measured"


def test_a_refused_change_changes_nothing_and_says_where() -> None:
    build = laden(bed("bakery"))
    before = dumps(build)
    for change, words in (
        (
            BuildChange("none left", orders={"vehicle.load_cases": []}),
            "vehicle.load_cases: is empty",
        ),
        (BuildChange("no such", orders={"valves.rear": [0, 7]}), "valves.rear: has no such entry"),
        (BuildChange("too good", {"pedal.efficiency": 1.2}), "pedal.efficiency: is the number 1.2"),
    ):
        for setup in (None, "low"):
            with pytest.raises(BuildErrors, match=words.replace(".", r"\.")):
                changed(build, change, setup)
    assert dumps(build) == before


@settings(max_examples=30)
@given(
    st.lists(st.sampled_from(["3/4 in", "7/8 in", "1 in"]), min_size=1, max_size=5), st.booleans()
)
def test_no_build_that_was_there_before_is_touched(bores: list[str], in_setup: bool) -> None:
    """A set-up that holds a whole part: its own text is never written into."""
    master = {"kind": "tandem", "bore": "1-1/8 in"}
    first = {"name": "manual", "changes": {"master": master}}
    build: Whole = changed(bed("bakery"), BuildChange("set-up", orders={"setups": [first]}))
    setup = "manual" if in_setup else None
    seen = [(build, dumps(build))]
    for bore in bores:
        build = changed(build, BuildChange(bore, {"master.bore": bore}), setup)
        seen.append((build, dumps(build)))

    assert all(dumps(made) == text for made, text in seen)
    assert all(whole(made) == made for made, _ in seen)


RUNS = [{"procedure": "leak-test", "started": f"2026-05-0{day}T10:00"} for day in (1, 2, 3)]


def test_what_an_edit_leaves_as_it_is_is_not_read_again() -> None:
    """A drag beside two thousand entries is as quick as beside none."""
    build = with_changes(bed("bakery"), {"records": RUNS})
    made = changed(build, BuildChange("", {"master.bore": "20 mm"}))
    assert all(new is old for new, old in zip(made.records, build.records, strict=True))
    rows = [*dumped(build)["records"], RUNS[0]]
    made = changed(build, BuildChange("", {"records": rows}))
    assert [one is old for one, old in zip(made.records, build.records, strict=False)] == [True] * 3
    assert dumped(made)["records"] == [*rows[:3], dumped(build)["records"][0]]


def test_an_entry_that_is_written_in_place_is_another_one() -> None:
    build = with_changes(bed("bakery"), {"records": RUNS})
    made = changed(build, BuildChange("", {"records[1].step": 2}))
    assert [one.step for one in made.records] == [1, 2, 1]
    assert [one.step for one in build.records] == [1, 1, 1]


def test_a_wrong_new_entry_is_named_by_its_place_among_all() -> None:
    build = with_changes(bed("bakery"), {"records": RUNS})
    rows = [*dumped(build)["records"], {"procedure": "bleed", "started": "once"}]
    with pytest.raises(BuildErrors, match=r"records\[3\]\.started"):
        changed(build, BuildChange("", {"records": rows}))


def test_what_is_known_beside_a_record_is_kept() -> None:
    """One step that writes a list and says something of a figure, and one that only says it."""
    build = with_changes(bed("bakery"), {"records": RUNS, "evidence": {}})
    known = {"master.bore": {"state": "measured"}}
    for values in ({"records": RUNS[:1]}, {}):
        made = changed(build, BuildChange("", values, known))
        assert made.evidence["master.bore"].state == "measured"
