"""The pages of Size besides the map, driven: pedal, booster, what-ifs, half lost, launch, heat."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest

from tests.builds import bed
from tests.ui.conftest import drag, type_into
from tests.ui.test_size import page
from tests.waiting import rest
from urgens.document import Build, demo_names, edited, with_changes, with_setup
from urgens.solve import solve
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.size import PAGES

STATION = "Size"  # that its windows open at

Opener = Callable[[Build], MainWindow]
LEFT = Qt.MouseButton.LeftButton


def texts(shown: Any) -> str:
    """All that a page's column says."""
    from PySide6.QtWidgets import QLabel

    return " ".join(label.text() for label in shown.findChildren(QLabel) if label.isVisible())


@pytest.mark.parametrize("name", [*demo_names(), "bare"])
def test_every_page_shows_every_build(open_window: Opener, name: str) -> None:
    """Also one that gives nothing but what it has to."""
    bare = {
        "pedal": {"pivot_to_pad": "12 in", "pivot_to_pushrod": "2 in"},
        "booster": {"kind": "none"},
        "master": {"kind": "single", "bore": "1 in"},
        "circuits": "single",
        "setups": [],
        "heat": None,
        "fluid": None,
    }
    build = with_changes(bed("bakery"), bare) if name == "bare" else bed(name)
    window = open_window(build)
    for index in PAGES:
        shown = page(window, index)

        assert window.station("Size").page is shown
        assert shown.isVisible()
        assert shown.summary
        QTest.keyClick(window, Qt.Key.Key_U)
        window.session.set_effort(0.0)
        window.session.set_effort(window.session.most_effort)
        assert not shown.grab().isNull()


# --- the pedal ---


@pytest.mark.parametrize("name", ["bakery", "roadster"])
@pytest.mark.parametrize("index", ["Map", "Pedal"])
def test_the_pin_is_dragged_along_the_arm(open_window: Opener, name: str, index: int) -> None:
    window = open_window(bed(name))
    shown = page(window, index)
    board = shown.pedal if index == "Map" else shown.board
    before, session = window.session.build, window.session
    towards_pivot = board.pin + (board.pivot - board.pin) * 0.3
    drag(board, board.pin.toPoint(), towards_pivot.toPoint(), release=False)

    pin = session.build.pedal.pivot_to_pushrod.value
    assert pin == pytest.approx(0.7 * before.pedal.pivot_to_pushrod.value, rel=0.08)
    assert session.build.pedal.pivot_to_pad == before.pedal.pivot_to_pad
    ratio = before.pedal.pivot_to_pad.value / pin
    assert float(session.solution.system.pedal_ratio) == pytest.approx(ratio)
    QTest.mouseRelease(board, LEFT, pos=towards_pivot.toPoint())
    assert session.undo_stack.count() == 1
    session.undo_stack.undo()
    assert session.build == before


def test_escape_puts_the_pin_back_and_keys_move_it(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    board, before = page(window, "Pedal").board, window.session.build
    drag(board, board.pin.toPoint(), (board.pin - QPointF(0, 20)).toPoint(), release=False)
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Escape)
    assert window.session.build == before
    QTest.mouseRelease(board, LEFT, pos=board.pin.toPoint())
    QTest.keyClick(board, Qt.Key.Key_Up)

    assert window.session.build.pedal.pivot_to_pushrod.value == pytest.approx(
        before.pedal.pivot_to_pushrod.value - 0.0254 / 16, abs=1e-4
    )


def test_a_hole_that_is_there_catches_the_pin(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    board = page(window, "Pedal").board
    share = 2.5 / 3.375
    near = board.pivot + (board.pin - board.pivot) * (share + 0.02)
    drag(board, board.pin.toPoint(), near.toPoint())

    assert window.session.build.pedal.pivot_to_pushrod.text == "2-1/2 in"


def test_a_ratio_is_asked_for_and_drilled(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Pedal")
    assert "nothing else moves" in texts(shown)
    type_into(shown.asked, "5.5")
    assert "2.45 in" in shown.drill.text()
    assert "Too near" in shown.caution.text()  # a hair from the hole at 2-1/2 in
    type_into(shown.asked, "9")
    assert "metal stay" in shown.caution.text()
    QTest.mouseClick(shown.drill, LEFT)

    assert float(window.session.solution.system.pedal_ratio) == pytest.approx(9, abs=0.01)
    said = texts(shown)
    assert "brake-light switch" in said
    assert "the pad rests" in said
    QTest.mouseClick(shown.hole, LEFT)
    assert len(window.session.build.pedal.holes) == 3
    type_into(shown.asked, "steep")
    assert "is no ratio" in shown.asked.error


def test_angles_that_are_not_known_are_given_as_assumed(open_window: Opener) -> None:
    window = open_window(bed("sprint"))
    shown = page(window, "Pedal")
    assert shown.angles.isVisible()
    QTest.mouseClick(shown.angles, LEFT)
    build = window.session.build

    assert build.pedal.angles is not None
    assert build.evidence["pedal.angles.pad"].state == "assumed"
    assert not shown.angles.isVisible()
    type_into(shown.figures.labels["pedal.angles.pushrod"], "-5 deg")
    assert window.session.build.pedal.angles.pushrod.value < 0  # type: ignore[union-attr]


# --- the booster ---


def test_the_booster_is_lost_and_works_again(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Booster")
    assert "2 stops" in shown.reserve.words
    with_it = float(window.session.presses.booster_output)
    QTest.mouseClick(shown.lost, LEFT)
    assert float(window.session.presses.booster_output) < with_it / 2
    assert "lost" in shown.summary
    QTest.mouseClick(shown.lost, LEFT)
    assert float(window.session.presses.booster_output) == pytest.approx(with_it)


def test_a_reservoir_and_a_room_are_given_as_assumed(open_window: Opener) -> None:
    booster = {"kind": "vacuum", "diaphragm_diameters": ["8 in"], "vacuum": "14 inHg", "gain": 3}
    window = open_window(edited(bed("sprint"), "booster", booster))
    shown = page(window, "Booster")
    assert "Under 15 inHg" in texts(shown)
    QTest.mouseClick(shown.reservoir, LEFT)
    QTest.mouseClick(shown.room, LEFT)
    build = window.session.build

    assert build.evidence["booster.reservoir.volume"].state == "assumed"
    assert shown.reserve.isVisible()
    type_into(shown.figures.labels["booster.room.diameter"], "9 in")
    assert "does not go in" in shown.fits.text()
    type_into(shown.figures.labels["booster.pump"], "20 inHg")
    assert "Under 15 inHg" not in texts(shown)


def test_thin_air_and_a_swapped_cylinder_are_told(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Booster")
    type_into(shown.figures.labels["vehicle.altitude"], "2000 m")
    assert "11.6 inHg" in shown.words.text()  # ISO 2533: 21.8 kPa less
    assert "1.44 times" in shown.swap.text()
    type_into(shown.other, "1 in")
    assert "1.27 times" in shown.swap.text()


# --- the feel ---


def test_what_if_does_not_change_the_build(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown, before = page(window, "Feel"), window.session.build
    sound = shown.plane.whole.points[0].copy()
    QTest.mouseClick(shown.steppers["air"].more, LEFT)
    QTest.mouseClick(shown.steppers["knock_back"].more, LEFT)
    QTest.mouseClick(shown.axles["front"], LEFT)
    type_into(shown.steppers["brake"].label, "3")
    worse = shown.plane.faulty.points[0]

    assert window.session.build == before
    assert shown.plane.faulty.isVisible()
    assert shown.plane.whole.points[0] == pytest.approx(sound)
    assert worse[20] > sound[20]
    assert "what if" in {words for words, _ in shown.plane.notes()}
    QTest.mouseClick(shown.sound, LEFT)
    assert not shown.plane.faulty.isVisible()


def test_what_if_steps_stop_at_nought_and_bad_words_are_said(open_window: Opener) -> None:
    shown = page(open_window(bed("bakery")), "Feel")
    QTest.mouseClick(shown.steppers["air"].less, LEFT)
    assert shown.steppers["air"].label.text == "0 in³"
    type_into(shown.steppers["hose"].label, "soft")
    assert "is no number" in shown.steppers["hose"].label.error


def test_what_is_supposed_takes_the_unit_shown(open_window: Opener) -> None:
    """A bare number is in inches there, and stays the same way of the pistons in millimetres."""
    window = open_window(bed("bakery"))
    shown = page(window, "Feel")
    type_into(shown.steppers["knock_back"].label, "0.02")
    assert shown.steppers["knock_back"].label.text == "0.02 in"
    QTest.mouseClick(shown.steppers["knock_back"].more, LEFT)
    assert shown.steppers["knock_back"].label.text == "0.025 in"
    QTest.keyClick(window, Qt.Key.Key_U)
    assert shown.steppers["knock_back"].label.text == "0.635 mm"
    type_into(shown.steppers["air"].label, "900")
    assert shown.steppers["air"].label.text == "50 cm³"  # the most there can be


def test_reservoir_and_cold_line_are_told(open_window: Opener) -> None:
    shown = page(open_window(bed("bakery")), "Feel")
    assert "it holds them" in shown.reservoir.text()
    assert "comes late" in shown.cold.text()
    type_into(shown.line[1], "6 mm")
    type_into(shown.line[2], "2 s")
    assert "holds the rear back by" in shown.cold.text()


# --- half lost ---


def test_which_chamber_feeds_which_axle_is_asked(open_window: Opener) -> None:
    document = bed("sprint")
    window = open_window(document)
    shown = page(window, "Half lost")
    assert "Not asked yet" in shown.asked.text()
    before = [h.steps[0] for h in shown.board.halves]
    QTest.mouseClick(shown.feeds["rear"], LEFT)

    assert window.session.build.master.primary_feeds == "rear"  # type: ignore[union-attr]
    assert shown.asked.text() == "As you said."
    assert [h.steps[0] for h in shown.board.halves] == before[::-1]


def test_a_switch_that_shuts_shows_both_heights(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Half lost")
    assert shown.board.halves[0].shut_travel is None
    QTest.mouseClick(shown.switch["shuts"], LEFT)
    half = shown.board.halves[0]

    assert window.session.build.evidence["shuttle_volume"].state == "assumed"
    assert half.shut_travel is not None
    assert half.shut_travel < half.travel
    assert shown.shuttle.isVisible()


def test_a_single_circuit_leaves_nothing(open_window: Opener) -> None:
    shown = page(open_window(bed("mailvan")), "Half lost")

    assert shown.board.halves == ()
    assert "nothing is left" in shown.summary


# --- launch and heat ---


def test_a_driveline_is_given_and_typed(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Launch")
    assert "nothing to hold" in shown.summary
    QTest.mouseClick(shown.give, LEFT)
    assert window.session.build.evidence["vehicle.launch.stall_torque"].state == "assumed"
    assert "holds" in shown.summary or "hold" in shown.summary
    type_into(shown.figures.labels["vehicle.launch.stall_torque"], "900 lbf.ft")
    assert "end first" in shown.summary
    QTest.mouseClick(shown.driven["front"], LEFT)
    assert window.session.build.vehicle.launch.driven == "front"  # type: ignore[union-attr]


def test_a_finding_of_the_launch_leads_to_it(open_window: Opener) -> None:
    window = open_window(edited(bed("sprint"), "vehicle.launch.stall_torque", "900 lbf.ft"))
    window.show_station("Balance")
    codes = [finding.code for finding in window.session.findings]
    window.finding_line.go_to(codes.index("hold-short"))
    window.finding_line.show_asked.emit("vehicle.launch")

    assert window.bench.name == "Size"
    assert window.station("Size").page_name == "Launch"


def test_heat_is_an_estimate_until_it_is_measured(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Heat")
    assert "assumed" in shown.words.text()
    assert "an estimate" in shown.summary
    assert "to spare dry" in shown.fluid.text()
    hot = shown.iron.axles["front"].points[1][-1]
    type_into(shown.figures.labels["heat.front_measured"], "350 °F")
    assert "as measured" in shown.words.text()
    assert shown.iron.axles["front"].points[1][-1] == pytest.approx(350, abs=0.5)
    assert hot > 400
    type_into(shown.figures.labels["heat.front_measured"], "2000 °F")
    assert "No cooling explains" in shown.words.text()


def test_iron_that_is_not_weighed_is_said(open_window: Opener) -> None:
    window = open_window(bed("mailvan"))
    shown = page(window, "Heat")
    assert "weigh" in shown.summary
    QTest.mouseClick(shown.give, LEFT)
    type_into(shown.figures.labels["front.brake.drum_mass"], "8 kg")

    assert "The rear iron is not weighed" in shown.words.text()
    assert "class is not given" in shown.fluid.text()


# --- set-ups and reasons ---


def test_set_ups_stand_side_by_side_and_are_chosen(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    table = page(window, "Set-ups").table
    assert table.names == ["as it is", "manual"]
    rows = {row.name: row.values for row in table.rows}
    manual = solve(with_setup(bed("bakery"), "manual"))
    assert rows["Foot at first lock"][1] == pytest.approx(float(manual.lock.effort[0, manual.road]))
    assert rows["Pedal ratio"] == pytest.approx((4.0, 5.4))
    assert rows["Booster"] == ("vacuum", "none")
    table.setFocus()
    QTest.keyClick(table, Qt.Key.Key_Right)
    assert window.session.setup == "manual"
    QTest.mouseClick(table, LEFT, pos=QPoint(300, 200))
    assert window.session.setup is None


def test_a_manual_or_boosted_set_up_is_added(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    shown = page(window, "Set-ups")
    assert shown.add["boosted"].isVisible()
    assert not shown.add["manual"].isVisible()
    QTest.mouseClick(shown.add["boosted"], LEFT)

    assert [setup.name for setup in window.session.base.setups] == ["boosted"]
    assert shown.table.names == ["as it is", "boosted"]
    assert window.session.undo_stack.count() == 1


def test_why_is_one_key_away_and_back(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    window.show_station("Balance")
    QTest.keyClick(window, Qt.Key.Key_Question)
    assert window.bench.name == "Size"
    assert window.station("Size").page_name == "Why?"
    view = window.station("Size").page.view  # type: ignore[attr-defined]
    pressures = np.array([row.pressure for row in view.rows])
    bores = np.array([row.bore for row in view.rows])
    assert pressures * bores**2 == pytest.approx(pressures[0] * bores[0] ** 2)  # one force
    (own,) = [row for row in view.rows if row.own]
    assert own.pressure == pytest.approx(float(window.session.presses.master_front))
    QTest.keyClick(window, Qt.Key.Key_Question)
    assert window.bench.name == "Balance"


def test_what_is_supposed_or_typed_belongs_to_one_build_and_its_units(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Feel")
    QTest.mouseClick(shown.steppers["air"].more, LEFT)
    assert shown.line[1].text == "0.13 in"
    QTest.keyClick(window, Qt.Key.Key_U)
    assert shown.line[1].text == "3.3 mm"
    window.session.open(bed("sprint"), None)
    rest(10)
    assert not shown.plane.faulty.isVisible()
    assert shown.steppers["air"].label.text == "0 in³"


def test_a_window_keeps_its_scale_under_the_hand(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    board = page(window, "Map").windows
    start = board.edge("targets.max_effort").toPoint()
    end = start - QPoint(40, 0)
    drag(board, start, end, release=False)
    assert abs(board.edge("targets.max_effort").x() - end.x()) < 4
    QTest.mouseRelease(board, LEFT, pos=end)
    assert abs(board.edge("targets.max_effort").x() - start.x()) < 4  # the scale follows it


def test_a_hose_is_taken_from_the_published_limits(open_window: Opener) -> None:
    """49 CFR 571.106 (from memory): 0.33 cm³ a foot at 1,000 psi."""
    window = open_window(bed("bakery"))
    shown = page(window, "Feel")
    before = float(window.session.presses.pedal_travel)
    actions = {a.text(): a for a in shown.hoses.menu().actions()}
    (low,) = [a for words, a in actions.items() if words.startswith("1/8 in low")]
    low.trigger()
    swelling = window.session.build.lines.hose_expansion.value * 0.3048 * 1000 * 6894.757

    assert swelling == pytest.approx(0.33e-6, rel=5e-3)
    assert float(window.session.presses.pedal_travel) < before
    assert any("FMVSS 106" in words for words in actions)
    assert window.session.undo_stack.count() == 1
