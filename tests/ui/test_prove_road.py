"""The test road and the real split by mouse and keys."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import LEFT
from tests.ui.proving import (
    SLOW,
    Opener,
    fresh,
    shown,
    type_into,
    worked,
)
from tests.waiting import rest
from urgens.document import demo, edited, save

STATION = "Prove"  # that its windows open at


def test_two_set_ups_are_driven_side_by_side(open_window: Opener, qtbot: QtBot) -> None:
    setups = [{"name": "to the rear", "changes": {"valves.rear": [], "master.bar_offset": "-6 mm"}}]
    page = shown(open_window(fresh(setups=setups)), "Test road")
    qtbot.waitUntil(lambda: len(page.drives) == 1, timeout=SLOW)
    assert "front locks first" in page.result.text()
    QTest.mouseClick(page.others.buttons["to the rear"], LEFT)
    qtbot.waitUntil(lambda: len(page.drives) == 2, timeout=SLOW)
    assert page.drives[1].locked[0][0] == "rear"
    assert "spins" in page.above.accessibleName()
    QTest.mouseClick(page.feet.buttons["press"], LEFT)
    qtbot.waitUntil(lambda: not page._work.busy and page.drives[0].foot.max() < 301, timeout=SLOW)


def test_it_plays_and_stops_by_a_key(open_window: Opener, qtbot: QtBot) -> None:
    page = shown(open_window(fresh()), "Test road")
    qtbot.waitUntil(lambda: len(page.drives) == 1, timeout=SLOW)
    QTest.mouseClick(page.player.rates["2"], LEFT)
    page.setFocus()
    QTest.keyClick(page, Qt.Key.Key_P)
    qtbot.waitUntil(lambda: 0 < page.player.slider.value() < 900, timeout=SLOW)
    assert page.above.moment is not None
    QTest.keyClick(page, Qt.Key.Key_P)
    at = page.player.slider.value()
    rest(120)
    assert page.player.slider.value() == at


def test_a_foot_is_typed_and_another_file_s_build_goes_beside(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    path = tmp_path / "other.urgens.json"
    save(edited(bed("library"), "name", "the other one"), path)
    page = shown(open_window(fresh()), "Test road")
    qtbot.waitUntil(lambda: len(page.drives) == 1, timeout=SLOW)
    QTest.mouseClick(page.feet.buttons["typed"], LEFT)
    assert page.effort.isVisible()
    type_into(page.effort, "150 N")
    qtbot.waitUntil(
        lambda: page.drives[0].foot.max() == pytest.approx(150.0, abs=0.5), timeout=SLOW
    )
    page.set_beside(path)
    qtbot.waitUntil(lambda: len(page.drives) == 2, timeout=SLOW)
    assert page.other == "the other one"
    assert "The other one:" in page.beneath.text()
    (tmp_path / "broken.urgens.json").write_text("{")
    page.set_beside(tmp_path / "broken.urgens.json")
    assert "broken.urgens.json" in page.beneath.text()


def test_wear_is_typed_and_set_beside_the_computed_split(open_window: Opener) -> None:
    areas = {"front.brake.pad_area": "38 cm^2", "rear.brake.pad_area": "38 cm^2"}
    window = open_window(fresh(**areas))
    session, page = window.session, shown(window, "Real split")
    assert "only computed" in page.verdict.text()
    QTest.keyClicks(page.fields["front"], "1.0, 1.0")
    QTest.keyClicks(page.fields["rear"], "2.5, 2.5")
    QTest.keyClick(page.fields["rear"], Qt.Key.Key_Return)
    assert session.build.proof is not None
    assert [one.text for one in session.build.proof.wear[0].front] == ["1.0 mm", "1.0 mm"]
    assert "rear does more than computed" in page.verdict.text()
    assert any(one.code == "real-split-rearward" for one in session.findings)
    QTest.mouseClick(page.gone[0], LEFT)
    assert session.build.proof.wear == ()


@pytest.mark.parametrize(
    ("typed", "said"),
    [({"front": "", "rear": "1"}, "nothing is typed"), ({"front": "x", "rear": "1"}, "x"),
     ({"front": "1", "rear": "1", "since": "spring"}, "year-month-day")],
)  # fmt: skip
def test_wear_that_cannot_be_is_refused(
    open_window: Opener, typed: dict[str, str], said: str
) -> None:
    window = open_window(fresh())
    page = shown(window, "Real split")
    for name, text in typed.items():
        page.fields[name].setText(text)
    QTest.mouseClick(page.add, LEFT)
    assert said in page.refused.text()
    assert window.session.build.proof is None


def test_all_of_it_is_there_again_from_the_file(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    path = tmp_path / "tarn.urgens.json"
    save(demo("roadster"), path)
    window = open_window(fresh())
    window.session.open_file(path)
    page = shown(window, "Stops")
    worked(page, qtbot)
    assert len(page.cards.cards) == 5
    for name in ("Gauges", "Logs", "Test road", "Real split"):
        assert shown(window, name).summary
