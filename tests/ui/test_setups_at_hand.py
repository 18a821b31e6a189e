"""Set-ups are added, copied, renamed, taken out and compared where they are seen."""

from collections.abc import Callable

import pytest
from PySide6.QtCore import QEvent, Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.builds import bed
from tests.waiting import rest
from urgens.document import Build, BuildChange, BuildErrors, demo, with_changes, with_setup
from urgens.document.edits.change import changed
from urgens.document.edits.setup_list import renamed, setup_line, taken_out
from urgens.ui.frame.toast import Toast
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.setup_menu import NameQuestion, SetupMenu

Opener = Callable[[Build], MainWindow]


def offered(menu: SetupMenu) -> list[str]:
    menu.fill()
    return [one.text() for one in menu.menu().actions() if one.isVisible() and one.text()]


def do(menu: SetupMenu, words: str, *typed: str) -> list[str]:
    """Choose what can be done; type a name after the other; return what was said of each."""
    said = []

    def answer() -> None:
        dialog = QApplication.activeModalWidget()
        assert isinstance(dialog, NameQuestion)
        for name in typed:
            dialog.name.selectAll()
            QTest.keyClicks(dialog.name, name)
            QTest.keyClick(dialog.name, Qt.Key.Key_Return)
            said.append(dialog.refused.text())
        dialog.reject()

    menu.fill()
    if typed:
        QTimer.singleShot(0, answer)
    next(one for one in menu.menu().actions() if one.text() == words).trigger()
    return said


def test_what_was_tried_becomes_a_set_up_from_the_top_bar_and_says_what_it_changed(
    open_window: Opener,
) -> None:
    window = open_window(with_changes(bed("bakery"), {"setups": []}))
    menu = window.top.setup_menu
    assert offered(menu) == ["New set-up…"]
    window.session.edit("targets.comfortable_effort", "70 lbf")
    do(menu, "New set-up…", "lighter foot")
    assert [one.name for one in window.session.base.setups] == ["lighter foot"]
    assert window.session.setup == "lighter foot"
    assert window.toast.isVisible()
    assert window.toast.text().startswith("“lighter foot” changes: ")
    assert "70 lbf" in window.toast.text()
    assert offered(menu) == [
        "Copy “lighter foot”…", "Rename “lighter foot”…", "Take “lighter foot” out",
        "Compare them",
    ]  # fmt: skip


def test_a_name_that_is_empty_or_taken_is_said_where_it_is_typed(open_window: Opener) -> None:
    window = open_window(demo("library"))
    name = window.session.base.setups[0].name
    window.session.set_setup(name)
    said = do(window.top.setup_menu, f"Copy “{name}”…", " ", name)
    assert "Give it a name" in said[0]
    assert said[1]
    assert len(window.session.base.setups) == len(demo("library").setups)


def test_another_s_name_is_refused_where_it_is_typed_and_changes_nothing(
    open_window: Opener,
) -> None:
    two = [{"name": "one", "changes": {}}, {"name": "other", "changes": {}}]
    window = open_window(with_changes(bed("bakery"), {"setups": two}))
    before = window.session.base
    window.session.set_setup("one")
    (said,) = do(window.top.setup_menu, "Rename “one”…", "other")
    assert "other" in said
    assert window.session.base is before
    assert window.session.setup == "one"
    assert window.session.undo_stack.count() == 0


def test_lines_over_the_bench_are_not_left_behind_by_a_switch_of_theme(
    open_window: Opener,
) -> None:
    window = open_window(bed("bakery"))
    for _ in range(3):
        window.commands["theme"].trigger()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
    assert window.findChildren(Toast) == [window.toast]


def test_it_is_renamed_taken_out_and_an_undo_brings_it_back(open_window: Opener) -> None:
    window = open_window(demo("library"))
    session, menu = window.session, window.top.setup_menu
    before = [one.name for one in session.base.setups]
    session.set_setup(before[0])
    do(menu, f"Rename “{before[0]}”…", "another")
    assert [one.name for one in session.base.setups] == ["another", *before[1:]]
    assert session.setup == "another"
    do(menu, "Take “another” out")
    assert [one.name for one in session.base.setups] == before[1:]
    assert session.setup is None
    window.top.undo.click()
    assert [one.name for one in session.base.setups] == ["another", *before[1:]]
    assert window.toast.text() == "Taken back: Set-up another taken out"
    window.top.redo.click()
    assert window.toast.text() == "Done again: Set-up another taken out"


def test_compare_them_leads_to_where_they_stand_side_by_side(open_window: Opener) -> None:
    window = open_window(demo("library"))
    do(window.top.setup_menu, "Compare them")
    assert window.bench.name == "Size"
    assert window.station("Size").page_name == "Set-ups"


def test_adding_one_on_size_says_what_goes_with_it(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    window.show_station("Size")
    window.station("Size").show_page_named("Set-ups")
    page = window.station("Size").page
    page.add["boosted"].click()
    assert page.told.text().startswith("“boosted” changes: ")


def test_the_toast_takes_no_focus_and_goes_by_a_click(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    held = window.focusWidget()
    window.toast.say("Something happened elsewhere")
    assert window.focusWidget() is held
    QTest.mouseClick(window.toast, Qt.MouseButton.LeftButton)
    assert not window.toast.isVisible()


# --- the core --------------------------------------------------------------------------------


RUN = {"procedure": "bleed", "method": "open-stroke", "started": "2026-05-02T14:10"}


def test_a_record_keeps_to_its_set_up_under_another_name() -> None:
    build = demo("library")
    name = build.setups[0].name
    build = with_changes(build, {"records": [{**RUN, "setup": name}, RUN]})
    made = changed(build, renamed(build, name, "another"))
    assert [run.setup for run in made.records] == ["another", None]
    assert with_setup(made, "another").valves == with_setup(build, name).valves
    with pytest.raises(BuildErrors):
        with_setup(made, name)
    assert [one.name for one in changed(made, taken_out(made, "another")).setups] == [
        one.name for one in build.setups[1:]
    ]


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        ({}, "“x” changes nothing yet."),
        ({"targets.stroke_reserve": 0.1, "valves.rear": []},
         "“x” changes: rear reducing valve out; Share of the stroke kept in reserve 0.1, new."),
        ({"targets.comfortable_effort": "70 lbf"},
         "“x” changes: Comfortable foot 60 lbf → 70 lbf."),
    ],
)  # fmt: skip
def test_what_a_set_up_takes_out_is_said_first(changes: dict[str, object], said: str) -> None:
    build = with_changes(bed("bakery"), {"setups": [{"name": "x", "changes": changes}]})
    assert setup_line(build, "x") == said


def tabs_in_sight(window: MainWindow, station: str) -> list[str]:
    window.show_station(station)
    rest(20)
    return [button.text() for button in window.station(station).choose if button.isVisible()]


def test_tabs_stay_where_they_are_whichever_set_up_is_looked_at(open_window: Opener) -> None:
    """A set-up without the booster, and the build with it: one row of tabs."""
    library = demo("library")
    plain = {"name": "by foot alone", "changes": {"booster": {"kind": "none"}}}
    window = open_window(with_changes(library, {"setups": [plain]}))
    with_booster = tabs_in_sight(window, "Size")
    assert "Booster" in with_booster
    window.session.set_setup("by foot alone")
    assert not window.session.build.booster.fitted
    assert tabs_in_sight(window, "Size") == with_booster
    window.session.set_setup(None)
    window.session.make(BuildChange("Without set-ups", {"setups": []}), in_setup=False)
    assert tabs_in_sight(window, "Size") == with_booster
    window.session.edit("booster", {"kind": "none"}, "Without a booster")
    assert "Booster" not in tabs_in_sight(window, "Size")  # nobody needs it any more
