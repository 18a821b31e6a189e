"""The session alone, without a window: what is looked at, what is kept, what is taken back."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PySide6.QtWidgets import QApplication

from tests.builds import bed
from urgens.cli.main import main
from urgens.document import BuildChange, dumps, loads, with_changes
from urgens.ui.session import Session

pytestmark = pytest.mark.usefixtures("dressed")


# --- what is looked at ---


def cases(session: Session) -> list[str]:
    return [case.name for case in session.build.vehicle.load_cases]


def test_a_load_case_that_goes_is_no_longer_looked_at() -> None:
    session = Session(bed("bakery"))
    first, second, *_ = cases(session)
    session.set_load_case(second)
    kept = [index for index, name in enumerate(cases(session)) if name != second]
    session.make(BuildChange("out", orders={"vehicle.load_cases": kept}))

    assert second not in cases(session)
    assert session.view.load_case is None
    assert session.solution.case_name == first


def test_a_load_case_that_is_renamed_is_still_looked_at(dressed: QApplication) -> None:
    session = Session(bed("bakery"))
    second = cases(session)[1]
    session.set_load_case(second)
    session.edit("vehicle.load_cases[1].name", "With the trailer")

    assert session.view.load_case == session.solution.case_name == "With the trailer"


# --- undo ---


STEPS: list[tuple[str, Callable[[Session, Any], None]]] = [
    ("bore", lambda session, n: session.edit("master.bore", f"{(11 + n) / 16:.4f} in")),
    ("knee", lambda session, n: session.edit("valves.rear[0].knee", f"{200 + 25 * n} psi")),
    ("cylinder", lambda session, n: session.edit("master", TANDEM | {"stroke": f"1.{n} in"})),
    ("no valve", lambda session, n: session.make(BuildChange("out", orders={"valves.rear": []}))),
    ("case", lambda session, n: session.edit("vehicle.load_cases[1].cg_height", f"{20 + n} in")),
    ("cases", lambda session, n: session.make(ROUND[n % 2])),
    ("known", lambda session, n: session.settle("front.brake.pad_friction", STATES[n % 2])),
    ("refused", lambda session, n: session.edit("master.bore", "-1 in")),
    ("set-up", lambda session, n: session.set_setup("manual" if n % 2 else None)),
    ("set-ups", lambda session, n: add_setup(session, n)),
    ("dragged", lambda session, n: dragged(session, n)),
]  # fmt: skip
TANDEM = {"kind": "tandem", "bore": "7/8 in", "stroke": "1.4 in"}
ROUND = [BuildChange("turned", orders={"vehicle.load_cases": [2, 0, 1]}),
         BuildChange("one gone", orders={"vehicle.load_cases": [0, 2]})]  # fmt: skip
STATES = ("measured", "assumed")


def add_setup(session: Session, number: int) -> None:
    kept = range(len(session.base.setups))
    setup = {"name": f"set-up {number}", "changes": {"targets.surface": 0.5 + number / 100}}
    session.make(BuildChange("set-up", orders={"setups": [*kept, setup]}), in_setup=False)


def dragged(session: Session, number: int) -> None:
    session.begin_drag()
    for step in range(3):
        session.edit("pedal.pivot_to_pushrod", f"{2.5 + 0.05 * (number + step)} in")
    if number % 3:
        session.end_drag()
    else:
        session.cancel_drag()


@given(st.lists(st.tuples(st.integers(0, len(STEPS) - 1), st.integers(0, 9)), max_size=14))
def test_as_many_undos_as_edits_give_the_same_bytes(steps: list[tuple[int, int]]) -> None:
    """With a set-up chosen or not; the builds on the way are what they were, and come again."""
    session = Session(bed("bakery"))
    text = dumps(session.base)
    states, builds = [text], [session.base]
    for index, number in steps:
        STEPS[index][1](session, number)
        if session.undo_stack.index() >= len(states):
            states.append(dumps(session.base))
            builds.append(session.base)
    assert [dumps(build) for build in builds] == states
    for state in reversed(states[:-1]):
        assert session.modified
        session.undo_stack.undo()
        assert dumps(session.base) == state

    assert dumps(session.base) == text
    assert not session.modified
    for state in states[1:]:
        session.undo_stack.redo()
        assert dumps(session.base) == state


def test_an_edit_in_a_set_up_is_undone(dressed: QApplication) -> None:
    session = Session(bed("bakery"))
    text, before = dumps(session.base), bed("bakery").setups[0].changes
    session.set_setup("manual")
    session.edit("master.bore", "3/4 in")
    assert session.modified
    session.undo_stack.undo()

    assert session.build.master.bore.text == "1 in"  # type: ignore[union-attr]
    assert session.base.setups[0].changes == before
    assert dumps(session.base) == text
    assert not session.modified


# --- a set-up that has another part ---


DISC = {
    "kind": "disc",
    "caliper": "sliding",
    "piston_diameters": ["40 mm"],
    "effective_radius": "110 mm",
    "pad_friction": 0.4,
}
KNOWN_DRUM = {
    "evidence": {"rear.brake.shoe_factor": {"state": "measured", "spread": "3 %"}},
    "setups": [
        {"name": "discs", "changes": {"rear.brake": DISC}},
        {"name": "manual", "changes": {"booster": {"kind": "none"}}},
    ],
}


def test_a_set_up_with_another_part_is_drawn_settled_and_looked_at(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    """What is known of a drum's shoes is no reason to refuse discs instead."""
    build = with_changes(bed("bakery"), KNOWN_DRUM)
    session, said = Session(build), list[str]()
    session.refused.connect(said.append)
    session.set_setup("discs")
    path = tmp_path / "truck.urgens.json"
    path.write_text(dumps(build), encoding="utf-8")

    assert session.build.rear.brake.kind == "disc"
    assert [one.path for one in session.open_figures if one.path.startswith("rear.brake")] == [
        "rear.brake.pad_friction"
    ]
    assert main(["robustness", str(path), "--setup", "discs", "--draws", "50"]) == 0
    assert "shoe_factor" not in capsys.readouterr().out
    assert said == []
    session.set_setup(None)
    assert session.build.evidence["rear.brake.shoe_factor"].state == "measured"


def test_a_part_is_replaced_while_a_set_up_is_chosen() -> None:
    session, said = Session(with_changes(bed("bakery"), KNOWN_DRUM)), list[str]()
    session.refused.connect(said.append)
    session.set_setup("manual")
    session.make(BuildChange.assuming("Disc brakes instead", {"rear.brake": DISC}))

    assert said == []
    assert session.build.rear.brake.kind == "disc"
    assert session.base.rear.brake.kind == "drum"
    assert set(session.base.evidence) == {"rear.brake.shoe_factor"}
    assert "rear.brake.shoe_factor" not in session.build.evidence
    assert session.build.evidence["rear.brake.pad_friction"].state == "assumed"


def test_what_is_done_last_in_a_set_up_counts() -> None:
    session = Session(bed("bakery"))
    session.set_setup("manual")
    session.edit("master.bore", "3/4 in")
    session.edit("master", TANDEM)
    assert session.build.master.bore.text == "7/8 in"  # type: ignore[union-attr]
    session.edit("master.bore", "15/16 in")

    assert session.build.master.bore.text == "15/16 in"  # type: ignore[union-attr]
    assert loads(dumps(session.base)) == session.base


def test_the_press_is_solved_with_the_foot_that_is_on_it() -> None:
    session = Session(bed("bakery"))
    session.set_effort(120.0)
    session.edit("valves.rear[0].slope", 0.25)

    assert float(session.presses.effort) == 120.0
    assert float(session.hardest.effort) == session.most_effort == 500.0


def test_a_case_chosen_that_was_never_there_is_let_go() -> None:
    """A set-up's own case of as many: the base's first is looked at, not the one in its place."""
    changes = {"vehicle.load_cases[1].name": "Towing"}
    build = with_changes(bed("bakery"), {"setups": [{"name": "tow", "changes": changes}]})
    session = Session(build)
    session.set_setup("tow")
    session.set_load_case("Towing")
    session.set_setup(None)

    assert session.solution.case_name == cases(session)[1]


def test_what_is_let_go_frees_its_steps_while_it_is_whole(qapp: Any) -> None:
    """Else the collector may free one of them, and the stack that holds it does so again."""
    session = Session(bed("bakery"))
    for knee in ("210 psi", "220 psi"):
        session.edit("valves.rear[0].knee", knee)
    told: list[int] = []
    stack, document = session.undo_stack, session.document
    stack.indexChanged.connect(told.append)
    assert stack.count() == 2
    document.__del__()
    assert stack.count() == 0
    assert told == []  # nobody is told of what is gone
    document.__del__()  # as the collector does it once more
