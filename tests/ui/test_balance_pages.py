"""Balance beyond setting: ways ranked and tried, how sure it is; away from the hand."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.builds import bed, unproved
from tests.ui.conftest import type_into
from tests.waiting import rest
from urgens.document import Build, demo_names, with_changes
from urgens.guidance import Severity
from urgens.guidance.advice.ranked_ways import ranked_ways
from urgens.quantity import PRESSURE, in_units
from urgens.solve.first_rise import AxleName
from urgens.studies.balance_verdict import MARGIN
from urgens.studies.robustness import DRAWS, robustness
from urgens.studies.twin_way import twin_way
from urgens.studies.valve_choice import candidates
from urgens.studies.vehicle_changes import CHANGES, changed
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.balance.choice_card import _Mark
from urgens.ui.stations.balance.waiting_card import WaitingCard

Opener = Callable[[Build], MainWindow]
LEFT = Qt.MouseButton.LeftButton


def page(window: MainWindow, index: str) -> Any:
    window.show_station("Balance")
    window.station("Balance").show_page_named(index)
    return window.station("Balance").page


def ranked(qtbot: Any, window: MainWindow) -> Any:
    """The page of ways, once they are worked out for the build as it is."""
    shown = page(window, "Choose")
    qtbot.waitUntil(lambda: shown.sure and not shown.work.busy, timeout=60_000)
    return shown


def without_evidence(build: Build) -> Build:
    """The build without what is known of its figures: what is tried is planned."""
    return build.model_copy(update={"evidence": {}})


@pytest.mark.parametrize("name", demo_names())
def test_ways_are_those_of_the_core_best_first(open_window: Opener, qtbot: Any, name: str) -> None:
    window = open_window(bed(name))
    shown = ranked(qtbot, window)

    build = bed(name)
    twin = twin_way(build, MARGIN)
    ways = ranked_ways(build, twin=True)
    assert ways is not None
    assert shown.found == ways.found
    core = [one for one in shown.found if twin is None or one.fitted != twin.fitted]
    assert {one.fitted.kind: one for one in core} == {one.kind: one for one in candidates(build)}
    bad = [(bool(one.to_take[1].rear_first), brings.danger, not brings.is_worth_it)
           for one, brings in zip(ways.found, ways.brings, strict=True)]  # fmt: skip
    assert bad == sorted(bad)  # what makes something worse stands behind
    twins = [one for one in shown.found if twin is not None and one.fitted == twin.fitted]
    assert bool(twins) == (build.master.kind != "twin")  # side by side with what is there
    assert len(shown.cards) == len(shown.found)
    for card, one in zip(shown.cards, shown.found, strict=True):
        assert (card.figure.text() == "rear first") == bool(one.verdict.rear_first)
    assert "best over all loads" in shown.summary
    assert all(here.text().startswith("Here") for _, _, here in shown.questions)


def test_cards_in_grey_stand_until_ways_are_known(open_window: Opener, qtbot: Any) -> None:
    window = open_window(bed("bakery"))
    window.show_station("Balance")
    window.station("Balance").show_page_named("Choose")
    rest(1)
    shown = window.station("Balance").page
    assert shown.cards == []
    assert len(shown.waiting) == 4
    assert all(one.isVisible() and one.accessibleName() for one in shown.waiting)
    qtbot.waitUntil(lambda: bool(shown.cards), timeout=60_000)
    assert shown.waiting == []
    assert not any(one.isVisible() for one in shown.findChildren(WaitingCard))


def test_a_way_is_tried_with_one_key_and_taken_back(open_window: Opener, qtbot: Any) -> None:
    window = open_window(bed("bakery"))
    shown, before = ranked(qtbot, window), window.session.build
    wanted = with_changes(before, shown.found[1].to_take[0].changes)
    assert "reducing valve, knee 375 psi, slope 0.30" in shown.fitted.name.text()
    assert shown.fitted.figure.text() == "rear first"
    place = shown._list.indexOf(shown.fitted)  # worse than all that keep the front first
    assert place == sum(not one.verdict.rear_first for one in shown.found)
    shown.setFocus()
    QTest.keyClick(shown, Qt.Key.Key_2)
    assert without_evidence(window.session.build) == without_evidence(wanted)
    chosen = [path for path in window.session.build.evidence if path.startswith("valves.rear")]
    assert set(map(window.session.said_of, chosen)) == {"planned"}
    assert window.session.undo_stack.count() == 1
    assert not any(finding.code == "rear-locks-first" for finding in window.session.findings)
    qtbot.waitUntil(lambda: shown.sure and not shown.work.busy, timeout=60_000)
    fitted = [card.rank for card in shown.cards if card.button.text() == "fitted"]
    assert fitted == [2]
    assert shown.fitted is None
    window.session.undo_stack.undo()
    assert window.session.build == before


def test_no_tick_stands_before_it_is_known_how_sure_a_way_is(
    open_window: Opener, qtbot: Any
) -> None:
    """A way that leaves the front first by its figures may leave it in few builds."""
    window = open_window(bed("bakery"))
    shown = page(window, "Choose")
    qtbot.waitUntil(lambda: bool(shown.found), timeout=60_000)
    assert not shown.sure
    assert "is being drawn" in shown.now.text()
    assert not any(mark._known for card in shown.cards for mark in card.findChildren(_Mark))
    ranked(qtbot, window)
    assert "is being drawn" not in shown.now.text()
    for card, one in zip(shown.cards, shown.found, strict=True):
        (mark,) = card.findChildren(_Mark)
        doubted = one.chance > 0.05 or one.to_take[1].missed > 0
        wanted = Severity.DANGER if one.to_take[1].rear_first else Severity.WARNING
        assert mark._known
        assert mark._severity == (wanted if doubted or one.to_take[1].rear_first else None)


def test_ways_are_shown_where_a_set_up_does_not_go_with_one(
    open_window: Opener, qtbot: Any
) -> None:
    """A bore where the way has two: what the set-up changes there is left out, and said."""
    small = {"name": "small bore", "changes": {"master.bore": "15/16 in"}}
    window = open_window(with_changes(bed("bakery"), {"setups": [small]}))
    shown = ranked(qtbot, window)
    assert len(shown.cards) == len(shown.found)
    rank = next(n for n, one in enumerate(shown.found, 1) if one.fitted.kind == "bar")
    shown.take(rank)
    assert window.session.build.master.kind == "twin"
    assert "left out: master.bore" in window.session.undo_stack.undoText()


def test_a_button_and_enter_try_as_well(open_window: Opener, qtbot: Any) -> None:
    window = open_window(unproved("roadster"))
    shown = ranked(qtbot, window)
    first = with_changes(window.session.build, shown.found[0].to_take[0].changes)
    QTest.mouseClick(shown.cards[0].button, LEFT)
    now = window.session.build
    assert (now.valves, now.master, now.rear) == (first.valves, first.master, first.rear)
    placed = {part.valve for part in now.plumbing.parts} - {None}  # it goes into the layout as well
    assert placed == {f"rear[{at}]" for at in range(len(now.valves.rear))}
    qtbot.waitUntil(lambda: shown.sure and not shown.work.busy, timeout=60_000)
    last = len(shown.cards) - 1
    wanted = with_changes(window.session.build, shown.found[last].to_take[0].changes)
    shown.cards[last].setFocus()
    QTest.keyClick(shown.cards[last], Qt.Key.Key_Return)
    now = window.session.build
    assert (now.valves, now.master, now.rear) == (wanted.valves, wanted.master, wanted.rear)


def test_a_wanted_margin_ranks_anew(open_window: Opener, qtbot: Any) -> None:
    window = open_window(bed("bakery"))
    shown = ranked(qtbot, window)
    type_into(shown.wanted, "0.15")
    qtbot.waitUntil(lambda: shown.sure and not shown.work.busy, timeout=60_000)
    twin = twin_way(bed("bakery"), 0.15)
    ranked_anew = candidates(bed("bakery"), margin=0.15)
    assert twin is not None
    assert tuple(one for one in shown.found if one.fitted != twin.fitted) == ranked_anew
    type_into(shown.wanted, "wide")
    assert "is no margin" in shown.wanted.error


def test_work_that_is_not_looked_at_is_dropped_and_begun_again(
    open_window: Opener, qtbot: Any
) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Choose")
    window.show_station("Measure")
    assert not shown.work.busy
    assert ranked(qtbot, window).found


def sure(qtbot: Any, window: MainWindow) -> Any:
    shown = page(window, "How sure")
    qtbot.waitUntil(lambda: all_drawn(shown), timeout=60_000)
    return shown


def all_drawn(shown: Any) -> bool:
    found = shown.view.found
    return found is not None and found.draws == DRAWS and not shown.work.busy


def test_how_sure_it_is_is_that_of_the_core(open_window: Opener, qtbot: Any) -> None:
    window = open_window(bed("sprint"))
    shown = sure(qtbot, window)

    assert shown.view.found == robustness(bed("sprint"))
    assert "rear is first in" in shown.summary
    assert "draws" in shown.view.accessibleName()
    assert "of 100 such builds" in shown.words.text()
    before = shown.view.found
    QTest.mouseClick(shown.again, LEFT)
    qtbot.waitUntil(lambda: shown.view.found.draws < DRAWS, timeout=60_000)
    assert "vehicles so far" in shown.words.text()  # a few are shown at once
    qtbot.waitUntil(lambda: all_drawn(shown), timeout=60_000)
    assert shown.view.found != before
    assert shown.view.found.rear_first == pytest.approx(before.rear_first, abs=0.01)


def test_drawing_is_stopped_and_says_so(open_window: Opener, qtbot: Any) -> None:
    window = open_window(bed("sprint"))
    shown = sure(qtbot, window)
    before = shown.view.found
    QTest.mouseClick(shown.again, LEFT)
    QTest.mouseClick(shown.stop, LEFT)

    assert not shown.work.busy
    assert shown.view.found == before
    assert "Stopped" in shown.words.text()


@pytest.mark.parametrize("name", demo_names())
def test_planes_show_the_build_in_four_ways(open_window: Opener, name: str) -> None:
    window = open_window(bed(name))
    shown, session = page(window, "Planes"), window.session
    solution = session.solution
    weight = float(solution.standing.weight)
    pressed = session.presses
    x, y = shown.forces.actual.points
    front, rear = float(pressed.front_force) / weight, float(pressed.rear_force) / weight
    assert np.interp(front, x, y) == pytest.approx(rear, abs=4e-3)
    assert "these brakes" in {words for words, _ in shown.forces.notes()}
    share = shown.share.share.points[1]
    at = float(pressed.master_front) / in_units(PRESSURE, session.units)
    found = np.interp(at, shown.share.share.points[0], share)
    assert found == pytest.approx(100 * front / (front + rear), abs=0.6)
    for case, curve in enumerate(shown.roads.whole[: len(solution.system.case_names)]):
        for road, surface in enumerate(solution.surfaces):
            efficiency = float(solution.lock.efficiency[case, road])
            if solution.lock.axle[case, road] != AxleName.NONE and surface >= 0.2:
                drawn = np.interp(surface, *curve.points)
                assert drawn == pytest.approx(100 * efficiency, abs=1.0)


def test_a_metering_valve_is_seen_to_hold_the_front_off(open_window: Opener) -> None:
    """Common practice: closed from about 10 to 130 psi."""
    window = open_window(bed("bakery"))
    shown = page(window, "Planes")
    x, y = shown.low.front.points

    assert np.interp(60.0, x, y) == pytest.approx(10.0, abs=0.5)
    assert np.interp(129.0, x, y) == pytest.approx(10.0, abs=0.5)
    assert np.interp(200.0, x, y) > 100
    assert shown.share.bare.isVisible()
    assert not page(open_window(bed("sprint")), "Planes").share.bare.isVisible()


def test_the_planes_follow_load_and_press(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Planes")
    before = shown.forces.ideal.points[1].copy()
    window.session.set_load_case("Full load")
    assert not np.allclose(shown.forces.ideal.points[1], before)
    window.session.set_effort(0.0)
    assert shown.summary.startswith("Full load")


def test_a_corner_has_curves_of_its_own(open_window: Opener, roadster: Build) -> None:
    """sqrt(μ² − a²) of the road is left for braking (Pythagoras); of 0.9 of its grip, over 0.9."""
    corner = {"targets.corner": 0.4, "rear.tyre.grip": 0.9, "targets.surface": 1.1}
    window = open_window(with_changes(roadster, corner))
    plane = window.station("Balance").adhesion
    front, rear = plane._left
    left = (1.1**2 - 0.4**2) ** 0.5, (0.99**2 - 0.4**2) ** 0.5 / 0.9
    assert list(front.points[1]) == pytest.approx([left[0]] * 2)
    assert list(rear.points[1]) == pytest.approx([left[1]] * 2)
    words = f"left with 0.4 g to the side: front {left[0]:.2f}, rear {left[1]:.2f}"
    assert words in {said for said, _ in plane.notes()}
    shown = page(window, "Planes")
    planes = (*shown.forces.corner, shown.roads.corner[0])
    assert all(curve.isVisible() and curve.points[0].size for curve in planes)
    window.session.look_at(window.session.solution.case_name, 0.4)  # a road too slippery for it
    assert not any(curve.isVisible() for curve in shown.forces.corner)
    window.session.edit("targets.corner", 0.0)
    assert not any(curve.isVisible() for curve in planes)
    page(window, "Set")
    assert not any(curve.isVisible() for curve in (front, rear))


# --- valves ---


def test_valves_stand_in_flow_order_and_are_chosen(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    shown = page(window, "Valves")
    assert shown.place == ("rear", 0)
    assert "Reducing valve, rear" in shown.name.text()
    at = shown.view.mapFromScene(shown.view.middle("front", 0))
    QTest.mouseClick(shown.view.viewport(), LEFT, pos=at)
    assert shown.place == ("front", 0)
    assert "Metering valve" in shown.name.text()
    assert "valves.front[0].open" in shown.figures.labels
    shown.view.setFocus()
    QTest.keyClick(shown.view, Qt.Key.Key_Right)
    assert shown.place == ("rear", 0)
    type_into(shown.figures.labels["valves.rear[0].knee"], "250 psi")
    assert window.session.build.valves.rear[0].knee.text == "250 psi"  # type: ignore[union-attr]


def test_the_loop_is_wider_on_the_way_back(open_window: Opener) -> None:
    """Hysteresis: letting go, the outlet stays until the inlet has fallen to it."""
    window = open_window(bed("bakery"))
    shown = page(window, "Valves")
    plane = shown.plane
    up, down = plane.up.points[1], plane.down.points[1]

    assert (down >= up - 1e-9).all()
    assert (down > up + 1).any()
    assert down[-1] == pytest.approx(up[-1])
    assert down[0] == 0.0
    assert shown.shaded.isVisible()
    shown.choose("front", 0)
    assert not shown.shaded.isVisible()


def test_valves_are_added_moved_and_taken_out(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    shown, session = page(window, "Valves"), window.session
    before = session.build
    actions = {a.text(): a for a in shown.add["rear"].menu().actions()}
    actions["Reducing valve"].trigger()
    assert [v.kind for v in session.build.valves.rear] == ["adjustable", "reducing"]
    assert "two-reducing-in-series" in {finding.code for finding in session.findings}
    assert shown.place == ("rear", 1)
    QTest.mouseClick(shown.earlier, LEFT)
    assert [v.kind for v in session.build.valves.rear] == ["reducing", "adjustable"]
    assert shown.place == ("rear", 0)
    QTest.mouseClick(shown.out, LEFT)
    assert [v.kind for v in session.build.valves.rear] == ["adjustable"]
    assert session.build.valves.rear == before.valves.rear
    assert session.undo_stack.count() == 3


def test_many_valves_still_fit_and_none_is_said(open_window: Opener) -> None:
    window = open_window(bed("sprint"))
    shown = page(window, "Valves")
    assert shown.name.text() == "No valve in either circuit"
    assert not shown.loop_cell.isVisible()
    actions = {a.text(): a for a in shown.add["rear"].menu().actions()}
    for name in ("Reducing valve", "Limiting valve", "Residual valve", "Adjustable valve"):
        actions[name].trigger()
    last = shown.view.middle("rear", 3).x() * shown.view._shrunk

    assert len(window.session.build.valves.rear) == 4
    assert last < shown.view.across - 40


# --- what changed ---


def test_changes_are_typed_and_change_no_build(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    shown, build = page(window, "What changed?"), window.session.build
    for change in CHANGES:
        assert shown.after[change.key] == changed(build, change, change.amount)
    pads = next(change for change in CHANGES if change.key == "rear-pads")
    type_into(shown.labels["rear-pads"], "25 %")
    assert shown.after["rear-pads"] == changed(build, pads, 25.0)
    type_into(shown.labels["rear-pads"], "a lot")
    assert "is no share" in shown.labels["rear-pads"].error
    type_into(shown.labels["rear-ballast"], "100 kg")
    assert shown.labels["rear-ballast"].text == "100 kg"
    label = shown.labels["front-tyres"]
    label.setFocus()
    QTest.keyClick(label, Qt.Key.Key_Up)
    assert label.text == "+6 %"
    assert window.session.build == build
    assert window.session.undo_stack.count() == 0
    QTest.keyClick(window, Qt.Key.Key_U)
    assert "nothing here changes the build" in shown.summary


# --- the bar ---


def test_a_remote_adjuster_moves_the_bar_by_its_thread(open_window: Opener) -> None:
    """The bearing moves by turns times pitch: physics section 1."""
    build = with_changes(bed("roadster"), {"master.bar_thread_pitch": "1.25 mm"})
    window = open_window(build)
    window.show_station("Balance")
    bar = window.station("Balance").controls.bar
    QTest.mouseClick(bar.more, LEFT)
    QTest.mouseClick(bar.more, LEFT)
    offset = window.session.build.master.bar_offset.value  # type: ignore[union-attr]

    assert offset == pytest.approx(3.2e-3 + 2 * 1.25e-3)
    for _ in range(40):
        QTest.mouseClick(bar.more, LEFT)
    offset = window.session.build.master.bar_offset.value  # type: ignore[union-attr]
    assert offset < 31e-3  # never at a rod
