"""Photographs taken in, worded and taken out again; what is no picture, or is gone, is said."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QImage
from PySide6.QtTest import QTest

from tests.ui.conftest import LEFT, page_of, words
from urgens.document import Build, demo, load
from urgens.document.photograph_files import put_beside
from urgens.ui.frame.window import Window

Opener = Callable[[Build], Window]


def picture(path: Path, color: str = "#A64B00") -> Path:
    image = QImage(640, 480, QImage.Format.Format_RGB32)
    image.fill(QColor(color))
    assert image.save(str(path))
    return path


def test_a_photograph_is_taken_in_worded_and_taken_out(open_window: Opener, tmp_path: Path) -> None:
    window = open_window(demo("library"))
    page = page_of(window, "Sheet", "Photographs")
    (tmp_path / "camera").mkdir()
    shot = picture(tmp_path / "camera" / "valve.png")
    QTest.mouseClick(page.add, LEFT)
    assert page.refused.text() == "Save the build first: photographs lie beside its file."
    (tmp_path / "builds").mkdir()
    file = tmp_path / "builds" / "van.urgens.json"
    window.session.save(file)
    next(a for a in page.what.menu().actions() if a.text() == "Combination valve").trigger()
    page.note.setText("marked Q-417")
    page.take(shot)
    (one,) = window.session.base.photographs
    assert (one.file, one.of, one.note) == ("van-photographs/valve.png", "cv", "marked Q-417")
    assert (tmp_path / "builds" / one.file).read_bytes() == shot.read_bytes()
    assert page.cards[0][0].accessibleName() == "Photograph of Combination valve: marked Q-417"
    page.cards[0][1].setText("as found")
    QTest.keyClick(page.cards[0][1], Qt.Key.Key_Return)
    assert window.session.base.photographs[0].note == "as found"
    window.session.save(file)
    assert load(file).photographs[0].note == "as found"
    QTest.mouseClick(page.cards[0][2], LEFT)
    assert window.session.base.photographs == ()
    assert (tmp_path / "builds" / one.file).exists()  # a file is never thrown away


def test_what_is_no_picture_or_gone_is_said(open_window: Opener, tmp_path: Path) -> None:
    window = open_window(demo("tender"))
    file = tmp_path / "tender.urgens.json"
    window.session.save(file)
    page = page_of(window, "Sheet", "Photographs")
    assert "Take some before anything comes off" in words(page)
    story = tmp_path / "story.jpg"
    story.write_text("no picture")
    page.take(story)
    assert "story.jpg is no picture that can be read" in page.refused.text()
    page.take(tmp_path / "nowhere.jpg")
    assert page.refused.text() == "nowhere.jpg is not there any more; choose another one."
    shot = picture(tmp_path / "here.png")
    page.take(shot)
    assert window.session.base.photographs[0].file == "here.png"  # beside it already
    shot.unlink()
    page = page_of(window, "Sheet", "Plan")
    window.session.edit("notes", "x")
    page = page_of(window, "Sheet", "Photographs")
    assert "here.png: is not there any more." in words(page)


def test_nothing_of_the_same_name_is_written_over(dressed: object, tmp_path: Path) -> None:
    (tmp_path / "one").mkdir()
    (tmp_path / "two").mkdir()
    (tmp_path / "builds").mkdir()
    first, second = (
        picture(tmp_path / "one" / "a.png"), picture(tmp_path / "two" / "a.png", "#174A86"),
    )  # fmt: skip
    file = tmp_path / "builds" / "van.urgens.json"
    names = [put_beside(path, file)[0] for path in (first, second, first)]
    assert names == ["van-photographs/a.png", "van-photographs/a-2.png", "van-photographs/a.png"]


@pytest.mark.parametrize("name", ["library", "tender"])
def test_all_that_is_laid_can_be_photographed(open_window: Opener, name: str) -> None:
    window = open_window(demo(name))
    page = page_of(window, "Sheet", "Photographs")
    said = [action.text() for action in page.what.menu().actions()]
    assert said[0] == "the whole vehicle"
    assert any(words.startswith("Joint L1 at ") for words in said)
    assert len(said) == len(set(said))


def test_the_card_of_a_run_leads_to_its_photographs(open_window: Opener) -> None:
    window = open_window(demo("library"))
    card = page_of(window, "Bleed", "Card")
    card.choose("strip-record")
    assert not card.beside.photographs.isVisible()
    QTest.mouseClick(card.buttons["next"], LEFT)
    assert card.run.record is not None
    QTest.mouseClick(card.beside.photographs, LEFT)
    page = window.station("Sheet").page  # type: ignore[attr-defined]
    assert window.bench.name == "Sheet"
    assert page.of == "records[0]"
    assert page.what.text().startswith("Record before taking apart, ")
