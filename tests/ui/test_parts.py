"""Parts on the drawings: other kinds, tyres, pads, shoes, facts, load cases."""

from collections.abc import Callable

import numpy as np
import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QInputDialog

from tests.builds import bed
from tests.ui.conftest import choose, label, type_into
from tests.waiting import rest
from urgens.document import Build
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.measure.shoes import ShoeDialog
from urgens.ui.widgets.dimension_label import Knowledge

STATION = "Measure"  # that its windows open at

Opener = Callable[[Build], MainWindow]
LEFT = Qt.MouseButton.LeftButton


def test_drums_become_discs_as_one_step_with_every_figure_planned(measuring: MainWindow) -> None:
    before = measuring.session.build
    choose(measuring.station("Measure").heads[1], "Disc brakes instead (usual figures)")
    build = measuring.session.build

    assert build.rear.brake.kind == "disc"
    assert build.evidence["rear.brake.effective_radius"].state == "planned"
    assert measuring.station("Measure").heads[1].words == "sliding, 1 piston"
    choose(measuring.station("Measure").heads[1], "Opposed caliper")
    choose(measuring.station("Measure").heads[1], "One more piston")
    assert "rear.brake.piston_diameters[1]" in measuring.station("Measure").rear.labels
    assert measuring.station("Measure").heads[1].words == "opposed, 4 pistons"
    choose(measuring.station("Measure").heads[1], "One piston fewer")
    for _ in range(4):
        measuring.session.undo_stack.undo()
    assert measuring.session.build == before
    assert "rear.brake.shoe_factor" in measuring.station("Measure").rear.labels


def test_every_kind_that_is_offered_gives_a_build(measuring: MainWindow) -> None:
    for head in measuring.station("Measure").heads:
        head.fill()
        offered = [action.text() for action in head.menu().actions()]
        assert offered
        for words in offered:
            if words.endswith("…"):
                continue  # a dialog, tried below
            before = measuring.session.build
            choose(head, words)
            assert measuring.session.build != before, words
            rest(5)
            measuring.session.undo_stack.undo()
            assert measuring.session.build == before


def test_a_kind_that_cannot_be_is_said_and_changes_nothing(
    measuring: MainWindow, answer: Callable[[str], list[str]]
) -> None:
    knee = {"name": "low", "changes": {"rear.brake.shoe_factor": 4.0}}
    measuring.session.edit("setups", [knee])
    before = measuring.session.build
    said = answer("OK")
    choose(measuring.station("Measure").heads[1], "Disc brakes instead (usual figures)")

    assert said[0] == "Nothing was changed"
    assert "setups[0]" in said[1]
    assert measuring.session.build == before


def test_load_cases_are_copied_named_moved_and_taken_out(measuring: MainWindow) -> None:
    cases, session = measuring.station("Measure").cases, measuring.session
    session.settle("vehicle.load_cases[2].cg_height", "measured")
    QTest.mouseClick(cases.copy, LEFT)
    assert session.solution.case_name == "Empty, driver, copy"
    type_into(cases.name, "Empty, two up")
    assert session.solution.case_name == "Empty, two up"
    QTest.mouseClick(cases.earlier, LEFT)
    names = [case.name for case in session.build.vehicle.load_cases]
    assert names == ["Empty, driver", "Half load", "Empty, two up", "Full load"]
    assert session.build.evidence["vehicle.load_cases[3].cg_height"].state == "measured"
    QTest.mouseClick(cases.remove, LEFT)
    assert session.build.evidence["vehicle.load_cases[2].cg_height"].state == "measured"
    assert [case.name for case in session.build.vehicle.load_cases] == [
        "Empty, driver",
        "Half load",
        "Full load",
    ]


def test_two_load_cases_of_one_name_are_refused_at_the_label(measuring: MainWindow) -> None:
    name = measuring.station("Measure").cases.name
    type_into(name, "Half load")

    assert "is also the name of load case" in name.error


def test_a_friction_code_is_its_middle_with_its_width_as_spread(measuring: MainWindow) -> None:
    """SAE J866 (from memory): F is 0.35 to 0.45, E 0.25 to 0.35."""
    friction = label(measuring, "front.brake.pad_friction")
    type_into(friction, "fe")
    known = measuring.session.build.evidence["front.brake.pad_friction"]

    assert friction.text == "0.35"
    assert (known.state, known.spread) == ("stamped", "0.1")
    type_into(friction, "HH")
    assert "only that it is above 0.55" in friction.error
    QTest.keyClick(friction.editor, Qt.Key.Key_Escape)
    QTest.keyClick(measuring, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert friction.text == "0.38"
    assert "front.brake.pad_friction" not in measuring.session.build.evidence


def test_a_tyre_is_a_size_a_radius_or_a_roll_out(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    window.show_station("Measure")
    size = label(window, "front.tyre.size")
    type_into(size, "195/50R15")
    assert window.session.build.front.tyre.size == "195/50R15"
    type_into(label(window, "front.tyre.size"), "2 turns 3.58 m")
    build = window.session.build
    assert build.front.tyre.rolling_radius is not None
    assert build.front.tyre.rolling_radius.value == pytest.approx(3.58 / (4 * 3.14159265), abs=1e-4)
    assert build.evidence["front.tyre.rolling_radius"].note == "rolled out: 2 turns 3.58 m"
    type_into(label(window, "front.tyre.rolling_radius"), "28x10.50-15")
    assert window.session.build.front.tyre.rolling_radius is None
    assert window.session.build.evidence == {}
    type_into(label(window, "front.tyre.size"), "11.4 in")
    assert window.session.build.front.tyre.rolling_radius is not None
    rear = label(window, "rear.tyre.size")
    type_into(rear, "6.50-16")
    assert "how high its section is" in rear.error
    QTest.keyClick(rear.editor, Qt.Key.Key_Escape)
    type_into(rear, "round")
    assert "is not a figure" in rear.error or "not a tyre size" in rear.error


def test_facts_that_lack_are_missing_and_can_be_typed(measuring: MainWindow) -> None:
    measuring.station("Measure").show_part(1)
    socket = label(measuring, "master.socket_depth")
    assert (socket.text, socket.known) == ("—", Knowledge.MISSING)
    type_into(socket, "1-1/8 in")

    assert (socket.text, socket.known) == ("1-1/8 in", Knowledge.YES)
    choose(measuring.station("Measure").heads[2], "Pushrod held by a retainer")
    assert measuring.session.build.master.pushrod_held_by == "retainer"
    choose(measuring.station("Measure").heads[2], "Front outlet on the left")
    choose(measuring.station("Measure").heads[2], "Rear outlet at the end")
    choose(measuring.station("Measure").heads[2], "Front outlet on the right")
    outlets = measuring.session.build.master.outlets
    assert [(o.circuit, o.position) for o in outlets] == [("rear", "end"), ("front", "right")]


def test_a_pad_is_described_by_its_radii_about_where_it_was(measuring: MainWindow) -> None:
    before = float(measuring.session.solution.system.ends.front.torque_per_pressure)
    choose(measuring.station("Measure").heads[0], "Pad by its two radii")
    inner, outer = (label(measuring, f"front.brake.pad_{end}_radius") for end in ("inner", "outer"))
    after = float(measuring.session.solution.system.ends.front.torque_per_pressure)

    assert after == pytest.approx(before, rel=2e-3)
    assert inner.known is outer.known is Knowledge.ASSUMED
    choose(measuring.station("Measure").heads[0], "Pressure even over the pad: new")
    assert float(measuring.session.solution.system.ends.front.torque_per_pressure) > after


def test_a_rotor_has_a_mass_once_it_is_weighed(measuring: MainWindow) -> None:
    measuring.session.edit("front.brake.rotor_mass", None)
    mass = label(measuring, "front.brake.rotor_mass")
    assert mass.known is Knowledge.MISSING
    type_into(mass, "9.5 kg")

    assert mass.text == "9.5 kg"  # in the unit that was typed, beside pounds
    assert measuring.session.build.front.brake.rotor_mass.text == "9.5 kg"  # type: ignore[union-attr]
    QTest.keyClick(mass, Qt.Key.Key_U, Qt.KeyboardModifier.ShiftModifier)
    assert mass.text == "20.9 lb"


def test_vacuum_is_read_as_its_gauge_shows_it(measuring: MainWindow) -> None:
    measuring.station("Measure").show_part(1)
    vacuum = label(measuring, "booster.vacuum")
    assert vacuum.text == "18 inHg"
    QTest.keyClick(measuring, Qt.Key.Key_U)

    assert vacuum.text == "610 mbar"


def test_the_factor_against_friction_and_the_shoes_it_comes_from(open_window: Opener) -> None:
    window = open_window(bed("mailvan"))
    session = window.session
    dialog = ShoeDialog(session, "rear", window)
    dialog.show()
    friction, low, high = dialog.plane.lines(session.build.rear.brake)  # type: ignore[arg-type]
    at = np.argmin(abs(friction - 0.38))
    assert low[at] == pytest.approx(1.89, rel=0.03)  # the factor that was typed
    assert (high >= low)[friction > 0.38].all()
    QTest.mouseClick(dialog.change, LEFT)

    assert session.build.rear.brake.shoe_factor is None  # type: ignore[union-attr]
    assert session.build.evidence["rear.brake.shoe.arm"].state == "assumed"
    lining = dialog.labels["rear.brake.shoe.lining_friction"]
    before = [words for words, _ in dialog.plane.notes()]
    type_into(lining, "0.30")
    assert [words for words, _ in dialog.plane.notes()] != before
    type_into(lining, "0.95")
    assert "grab" in lining.error
    QTest.keyClick(lining.editor, Qt.Key.Key_Escape)
    QTest.mouseClick(dialog.change, LEFT)
    assert session.build.rear.brake.shoe_factor is not None  # type: ignore[union-attr]
    assert list(dialog.labels) == ["rear.brake.shoe_factor"]
    dialog.reject()


def test_outline_use_and_name_are_chosen(
    measuring: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    body = measuring.station("Measure").body
    assert body.text() == "van"
    actions = {action.text(): action for action in body.menu().actions()}
    actions["Drawn as a dragster"].trigger()
    actions["Used for drag"].trigger()
    monkeypatch.setattr(QInputDialog, "getText", lambda *_, **__: ("  Long one ", True))
    QTest.keyClick(measuring, Qt.Key.Key_F2)
    build = measuring.session.build

    assert (build.vehicle.body, build.vehicle.use, build.name) == ("dragster", "drag", "Long one")
    assert body.text() == "dragster"
    assert measuring.session.undo_stack.count() == 3
