"""Photographs taken in, worded and taken out again; what is no picture, or is gone, is said."""

import gzip
import os
import struct
import threading
import zlib
from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QImage
from PySide6.QtTest import QTest

from tests.builds import bed
from tests.ui.conftest import LEFT, page_of, words
from tests.waiting import rest
from urgens.document import Build, demo, load
from urgens.document.ledger.photograph_files import put_beside
from urgens.document.ledger.photographs import Photograph
from urgens.sheet import small_copies as small_copies_module
from urgens.sheet.small_copies import UnreadPhotographError, check_photograph, small_copy
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.background import wait_for_all

STATION = "Sheet"  # that its windows open at

Opener = Callable[[Build], MainWindow]


def picture(path: Path, color: str = "#A64B00") -> Path:
    image = QImage(640, 480, QImage.Format.Format_RGB32)
    image.fill(QColor(color))
    assert image.save(str(path))
    return path


def test_a_photograph_is_taken_in_worded_and_taken_out(open_window: Opener, tmp_path: Path) -> None:
    window = open_window(bed("library"))
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
    page.cards[0][1].setFocus()
    QTest.keyClick(page.cards[0][1], Qt.Key.Key_Return)
    assert window.session.base.photographs[0].note == "as found"
    window.session.save(file)
    assert load(file).photographs[0].note == "as found"
    QTest.mouseClick(page.cards[0][2], LEFT)
    assert window.session.base.photographs == ()
    assert (tmp_path / "builds" / one.file).exists()  # a file is never thrown away


def test_what_is_no_picture_or_gone_is_said(open_window: Opener, tmp_path: Path) -> None:
    window = open_window(bed("tender"))
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
    assert any(words.startswith("Joint cylinder to ") for words in said)
    assert len(said) == len(set(said))


def test_the_card_of_a_run_leads_to_its_photographs(open_window: Opener) -> None:
    window = open_window(bed("library"))
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


SVG = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10">'
    '<rect width="9" height="9"/></svg>'
)


def test_only_pictures_of_dots_are_read_whatever_they_are_called(
    open_window: Opener, tmp_path: Path
) -> None:
    """An SVG can hang who draws it, and draw other files of the disk."""
    window = open_window(bed("tender"))
    window.session.save(tmp_path / "tender.urgens.json")
    page = page_of(window, "Sheet", "Photographs")
    drawing = tmp_path / "drawing.png"
    drawing.write_text(SVG)
    page.take(drawing)
    assert page.refused.text() == (
        "drawing.png is no picture that can be read: JPEG, PNG, WEBP, GIF, BMP are; "
        "choose another one."
    )
    packed = tmp_path / "packed.jpg"
    packed.write_bytes(gzip.compress(SVG.encode()))
    page.take(packed)
    assert "packed.jpg is no picture that can be read" in page.refused.text()
    pipe = tmp_path / "pipe.png"
    os.mkfifo(pipe)
    page.take(pipe)
    assert page.refused.text() == "pipe.png is no file; choose another one."


def test_a_picture_of_too_many_dots_is_not_unpacked(dressed: object, tmp_path: Path) -> None:
    """A PNG of a few hundred bytes that says it is 60,000 by 60,000."""
    huge = tmp_path / "huge.png"
    head = struct.pack(">IIBBBBB", 60_000, 60_000, 8, 2, 0, 0, 0)
    chunks = ((b"IHDR", head), (b"IDAT", zlib.compress(bytes(1000))), (b"IEND", b""))
    huge.write_bytes(b"\x89PNG\r\n\x1a\n" + b"".join(
        struct.pack(">I", len(held)) + name + held + struct.pack(">I", zlib.crc32(name + held))
        for name, held in chunks
    ))  # fmt: skip
    with pytest.raises(UnreadPhotographError) as refused:
        check_photograph(huge)
    assert str(refused.value) == "has 60000 × 60000 dots; 120,000,000 are the most"


def test_a_link_never_leads_out_of_the_builds_folder(dressed: object, tmp_path: Path) -> None:
    (tmp_path / "builds").mkdir()
    (tmp_path / "builds" / "here.png").symlink_to(picture(tmp_path / "private.png"))
    with pytest.raises(UnreadPhotographError) as refused:
        small_copy(Photograph(file="here.png"), tmp_path / "builds")
    assert str(refused.value) == "is a link that leads away from the build's folder"


@pytest.mark.parametrize("name", [b"a\nb.png", b"caf\xe9.png", b"x" * 240 + b".png", b"tab\t.png"])
def test_whatever_a_photograph_is_called_it_gets_a_name_that_a_build_holds(
    open_window: Opener, tmp_path: Path, name: bytes
) -> None:
    window = open_window(bed("tender"))
    window.session.save(tmp_path / "tender.urgens.json")
    page = page_of(window, "Sheet", "Photographs")
    shot = tmp_path / os.fsdecode(name)
    shot.write_bytes(picture(tmp_path / "plain.png").read_bytes())
    page.take(shot)
    assert page.refused.text() == ""
    (one,) = window.session.base.photographs
    assert one.file.isprintable()
    assert (tmp_path / one.file).read_bytes() == shot.read_bytes()
    window.session.save(tmp_path / "tender.urgens.json")
    assert load(tmp_path / "tender.urgens.json").photographs == (one,)


def test_what_lies_in_their_folder_is_never_waited_for(dressed: object, tmp_path: Path) -> None:
    """A pipe, a folder and a link of the wanted name: another name is taken."""
    own = tmp_path / "van-photographs"
    (own / "a-2.png").mkdir(parents=True)
    os.mkfifo(own / "a.png")
    (own / "a-3.png").symlink_to(tmp_path / "nowhere")
    (tmp_path / "camera").mkdir()
    shot = picture(tmp_path / "camera" / "a.png")
    build_file = tmp_path / "van.urgens.json"
    elsewhere = tmp_path.with_name(f"{tmp_path.name}-camera")
    elsewhere.mkdir()
    name, _ = put_beside(shot.rename(elsewhere / "a.png"), build_file)
    assert name == "van-photographs/a-4.png"


def test_pictures_are_read_away_from_the_hand_and_once(
    open_window: Opener, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    window = open_window(bed("tender"))
    window.session.save(tmp_path / "tender.urgens.json")
    page = page_of(window, "Sheet", "Photographs")
    for number in range(3):
        page.take(picture(tmp_path / f"{number}.png", f"#{number}{number}{number}"))
    read: list[str] = []
    plain = small_copies_module._decoded
    monkeypatch.setattr(
        small_copies_module, "_decoded",
        lambda raw: (read.append(threading.current_thread().name), plain(raw))[1],
    )  # fmt: skip
    small_copies_module._kept.clear()
    page._shown = ()
    page._show()
    assert page.cards[0][0].text() == "is being read…"
    page.cards[0][1].setText("typed meanwhile")
    wait_for_all(10.0)
    rest(100)
    assert not page.cards[0][0].pixmap().isNull()
    assert page.cards[0][1].text() == "typed meanwhile"
    page._word(1, "worded")
    wait_for_all(10.0)
    assert len(read) == 3
    assert threading.main_thread().name not in read
