"""What holds the vehicle: common practice, every proof standing before it moves."""

from typing import Any

import pytest

from tests.builds import bed, on_record, unproved, whole_run
from tests.plumbing.layouts import sound
from urgens.document import Build, with_changes
from urgens.guidance import findings
from urgens.guidance.condition.proofs import OPEN, held_from_moving, standing_proofs
from urgens.solve import solve


def open_proofs(build: Build) -> tuple[str, ...]:
    return tuple(one.name for one in standing_proofs(build) if one.state in OPEN)


def recorded(*but: str, **more: Any) -> Build:
    """Everything proved, but for these."""
    return with_changes(bed("bakery"), {**on_record(bed("bakery"), 2, *but), **more})


def test_proofs_are_those_that_the_layout_needs() -> None:
    needed = open_proofs(bed("bakery"))
    assert "metering-test" in needed  # its combination body has one
    assert "booster-test" in needed
    assert "load-sensing-test" not in needed
    assert "booster-test" not in open_proofs(bed("roadster"))


def test_a_switch_that_is_laid_out_is_proved_before_anybody_told_its_kind() -> None:
    """Common practice: a shuttle in the lines is proved whichever kind it is."""
    pipes = bed("roadster").plumbing
    assert pipes is not None
    assert "switch" in {part.kind for part in pipes.parts}
    for told in (None, "warns"):
        build = with_changes(unproved("roadster"), {"warning_switch": told})
        assert "switch-test" in open_proofs(build)
    bare = with_changes(unproved("roadster"), {"plumbing": None, "warning_switch": None})
    assert "switch-test" not in open_proofs(bare)


def test_each_proof_counts_by_itself() -> None:
    for name in open_proofs(bed("bakery")):
        assert open_proofs(recorded(name)) == (name,)
    assert open_proofs(recorded()) == ()


def test_a_proof_that_was_left_half_way_does_not_count() -> None:
    half = with_changes(
        bed("bakery"), {"records": [{"procedure": "prove-standing", "started": "2026-05-02T14:00"}]}
    )
    assert open_proofs(half) == open_proofs(bed("bakery"))
    one_yes = whole_run(bed("bakery"), "prove-standing")
    one_yes["entries"] = one_yes["entries"][:1]
    assert "ports-test" in open_proofs(with_changes(bed("bakery"), {"records": [one_yes]}))


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ({"open_items": [{"what": "stand-in hose", "holds_vehicle": True}]}, "stand-in hose"),
        (
            {
                "plumbing": sound(),
                "joints": [{"joint": "L1.a", "state": "tight"}],
            },
            "is tight",
        ),
    ],
)
def test_open_items_and_joints_hold_the_vehicle(more: dict[str, Any], said: str) -> None:
    assert held_from_moving(recorded()) == ()
    assert any(said in reason for reason in held_from_moving(recorded(**more)))


@pytest.mark.parametrize(
    "item",
    [
        {"what": "wash it", "holds_vehicle": False},
        {"what": "stand-in hose", "holds_vehicle": True, "done": "2026-05-01"},
    ],
)
def test_what_is_done_or_only_for_later_holds_nothing(item: dict[str, Any]) -> None:
    assert held_from_moving(recorded(open_items=[item])) == ()


def test_a_vehicle_moved_for_a_reason_is_told_with_it() -> None:
    moved = {"procedure": "prove-moving", "started": "2026-05-03T09:00",
             "moved_without_proof": "off the ramp"}  # fmt: skip
    build = with_changes(bed("bakery"), {"records": [moved]})
    (finding,) = [one for one in findings(solve(build)) if one.code == "proof-open"]
    assert finding.message.endswith("The reason that was given: off the ramp.")
