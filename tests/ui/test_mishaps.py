"""What nobody caught: a slot, a paint, a closing window; said in words, and the work goes on."""

import sys
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QEventLoop, QTimer
from PySide6.QtGui import QGuiApplication, QPainter
from PySide6.QtTest import QTest

from tests.builds import bed
from tests.ui.conftest import LEFT, page_of
from urgens.document import Build, BuildErrors, edited, load, loads
from urgens.ui.frame.mishaps import REMEDY
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.size.map_view import MapView

pytestmark = pytest.mark.qt_no_exception_capture


@pytest.fixture
def listening(
    open_window: Callable[[Build], MainWindow], monkeypatch: pytest.MonkeyPatch
) -> Iterator[MainWindow]:
    """A window that listens for what nobody caught, as one that is run does."""
    monkeypatch.setattr(sys, "excepthook", lambda *_: None)
    window = open_window(bed("library"))
    window.mishaps.listen()
    yield window
    window.mishaps.leave_off()


def rest(ms: int) -> None:
    """Let a loop of events run as the window's own does: QTest's keeps exceptions to itself."""
    loop = QEventLoop()
    QTimer.singleShot(ms, loop.quit)
    loop.exec()


def fail(*_: object) -> None:
    raise IndexError("list index out of range")


def test_a_slot_that_fails_is_said_where_it_happened(listening: MainWindow, tmp_path: Path) -> None:
    page = page_of(listening, "Prove", "Gauges")
    page._fail = fail
    listening.session.edit("notes", "typed before")
    QTimer.singleShot(0, lambda self=page: self._fail())
    rest(30)
    strip = listening.mishap_strip
    assert strip.isVisible()
    assert strip.said.text() == (
        "On Gauges, something in Urgens itself failed (IndexError: list index out of range)."
    )
    assert strip.remedy.text() == REMEDY
    QTest.mouseClick(strip.copy, LEFT)
    assert "in fail" in QGuiApplication.clipboard().text()
    QTest.mouseClick(strip.undo, LEFT)
    assert listening.session.base.notes != "typed before"
    listening.session.edit("notes", "goes on")
    listening.session.save(tmp_path / "kept.urgens.json")
    assert load(tmp_path / "kept.urgens.json").notes == "goes on"
    QTest.mouseClick(strip.close_it, LEFT)
    assert strip.isHidden()


def test_a_paint_that_fails_is_counted_and_its_painter_ended(
    listening: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Qt ends the process where a painter is still at work when its widget is gone."""
    page_of(listening, "Size", "Map")
    view = listening.findChild(MapView)
    painters: list[QPainter] = []

    def half(self: MapView, painter: QPainter) -> None:
        painters.append(painter)
        fail()

    monkeypatch.setattr(MapView, "_paint_own", half)
    for _ in range(3):
        view.update()
        rest(20)
    assert len(painters) >= 3
    assert [one.isActive() for one in painters] == [False] * len(painters)
    assert "On Map, something in Urgens itself failed (IndexError" in listening.mishaps.words
    assert listening.mishaps.count >= 3
    assert " times: On Map" in listening.mishap_strip.said.text()


def test_a_window_that_fails_to_close_stays_with_the_work_in_it(
    listening: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    listening.session.edit("notes", "not saved")
    monkeypatch.setattr(listening.files, "may_leave", fail)
    QTimer.singleShot(0, listening.close)
    rest(50)
    assert listening.isVisible()
    assert listening.mishap_strip.isVisible()
    monkeypatch.undo()
    listening.mishaps.forget()


def test_who_listened_before_is_told_and_listens_again(
    open_window: Callable[[Build], MainWindow], monkeypatch: pytest.MonkeyPatch
) -> None:
    heard: list[type[BaseException]] = []
    before = lambda kind, *_: heard.append(kind)  # noqa: E731
    monkeypatch.setattr(sys, "excepthook", before)
    window = open_window(bed("library"))
    window.mishaps.listen()
    sys.excepthook(KeyboardInterrupt, KeyboardInterrupt(), None)
    assert not window.mishaps.count  # who interrupts wants the end
    window.close()
    assert heard == [KeyboardInterrupt]
    assert sys.excepthook is before


HALF = "\ud83d"  # the first half of an emoji, as another program may paste it


@pytest.mark.parametrize(
    ("path", "value", "place"),
    [("notes", f"a{HALF}", "notes"), ("name", HALF, "name"),
     ("open_items", [{"what": HALF, "place": ""}], "open_items[0].what"),
     ("evidence", {f"pedal.{HALF}": {"state": "assumed"}}, "evidence.pedal.?")],
)  # fmt: skip
def test_half_a_character_is_refused_wherever_it_is_typed(
    path: str, value: object, place: str
) -> None:
    with pytest.raises(BuildErrors) as refused:
        edited(bed("library"), path, value)
    assert refused.value.errors[0].path == place
    assert str(refused.value.errors[0]) == (
        f"{place}: holds half a character, which no file can hold; "
        "type it anew: another program gave half of it"
    )


def test_half_a_character_in_a_file_is_named_by_its_place() -> None:
    from urgens.document import dumps

    text = dumps(bed("library")).replace('"notes": "', '"notes": "\\ud83d', 1)
    with pytest.raises(BuildErrors, match="notes: holds half a character"):
        loads(text)
