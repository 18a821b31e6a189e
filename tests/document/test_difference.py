"""What undo keeps: a difference leads from one build to another and back, byte for byte."""

import json
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from tests.strategies import documents
from urgens.document import BuildChange, BuildErrors, changed, demo_names, dumps, edited
from urgens.document.edits.difference import difference
from urgens.document.edits.edit import dumped
from urgens.document.validation import validated

CHANGES = (
    BuildChange("bore", {"master.bore": "3/4 in"}),
    BuildChange("booster gone", {"booster": {"kind": "none"}}),
    BuildChange("known", known={"vehicle.wheelbase": {"state": "measured"}}),
    BuildChange("wheelbase", {"vehicle.wheelbase": "3 m"}),
    BuildChange("case", orders={"vehicle.load_cases": [2, 0]}),
    BuildChange("valves", orders={"valves.rear": [{"kind": "limiting", "knee": "20 bar"}]}),
    BuildChange("notes", {"notes": "changed"}),
    BuildChange("brake", {"rear.brake.threshold": "60 psi"}),
    BuildChange("set-up", orders={"setups": [{"name": "x", "changes": {"notes": "in it"}}]}),
)


@settings(max_examples=60)
@given(
    st.lists(st.sampled_from(CHANGES), min_size=1, max_size=6), st.sampled_from([None, "manual"])
)
def test_as_many_steps_back_give_the_same_bytes(
    steps: list[BuildChange], setup: str | None
) -> None:
    build = bed("bakery")
    builds, kept = [build], []
    for step in steps:
        if step.label == "set-up" and setup is not None:
            continue
        try:
            made = changed(builds[-1], step, setup)
        except BuildErrors:
            continue  # a case that is gone already
        kept.append(difference(builds[-1], made))
        builds.append(made)
    now = builds[-1]
    for one, before in zip(reversed(kept), reversed(builds[:-1]), strict=True):
        now = one.back(now)
        assert dumps(now) == dumps(before)
    for one, after in zip(kept, builds[1:], strict=True):
        now = one.forward(now)
        assert dumps(now) == dumps(after)


@settings(max_examples=30)
@given(documents(), documents())
def test_any_build_is_reached_from_any_other(one: dict[str, Any], other: dict[str, Any]) -> None:
    first, second = validated(one), validated(other)
    between = difference(first, second)

    assert dumps(between.forward(first)) == dumps(second)
    assert dumps(between.back(second)) == dumps(first)


def test_a_step_is_as_small_as_what_it_changes() -> None:
    for name in demo_names():
        build = bed(name)
        made = changed(build, BuildChange("wheelbase", {"vehicle.wheelbase": "3 m"}))
        (step,) = difference(build, made).steps

        assert step.way == ("vehicle", "wheelbase")
        assert (step.before, step.after) == (build.vehicle.wheelbase.text, "3 m")
        assert len(json.dumps(step.after)) < 10
    assert difference(build, build).steps == ()


def test_names_that_a_builder_gave_come_back_in_their_order() -> None:
    """Prices by kind of part: a mapping in the middle of a build."""
    before = edited(
        bed("library"), "plumbing.prices", {"tee": 6.0, "hose": 11.5, "combination": 64.0}
    )
    after = edited(before, "plumbing.prices", {"combination": 64.0, "tee": 7.0, "hose": 11.5})
    found = difference(before, after)
    assert dumps(found.forward(before)) == dumps(after)
    assert dumps(found.back(after)) == dumps(before)


def test_a_history_that_was_not_there_leaves_no_empty_one() -> None:
    before = bed("library")
    entry = {"at": "2026-05-02T10:00", "what": "noted", "kind": "note"}
    after = edited(before, "history", [*(dumped(before).get("history") or []), entry])
    assert dumps(difference(before, after).back(after)) == dumps(before)
