"""Files in the window: recent, dropped, read-only, changed by others, and work kept from a kill."""

import json
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.builds import bed
from tests.ui.conftest import label
from tests.waiting import rest
from urgens.data import logs_folder
from urgens.document import (
    Build,
    changed,
    demo_names,
    dumps,
    edited,
    load,
    save,
    value_at,
)
from urgens.document.edits.borrow import PARTS, borrowed
from urgens.ui.frame.files import file_name
from urgens.ui.frame.recovery import Recovery, found
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from urgens.ui.widgets.figure_label import FigureLabel
from urgens.ui.widgets.file_chooser import FileChooser

Answer = Callable[[str], list[str]]
Opener = Callable[[Build], MainWindow]
NEITHER = Qt.KeyboardModifier.NoModifier


# --- files ---


def test_recent_files_are_remembered_the_latest_first(tmp_path: Path) -> None:
    settings = Settings(tmp_path / "settings.ini")
    files = [tmp_path / f"{n}.urgens.json" for n in range(10)]
    for path in files:
        save(bed("roadster"), path)
        settings.add_recent(path)
    settings.add_recent(files[3])
    files[9].unlink()

    recent = Settings(tmp_path / "settings.ini").recent

    assert recent[:2] == (files[3], files[8])
    assert len(recent) == 7
    settings.set_dark(True)
    assert Settings(tmp_path / "settings.ini").dark


def test_a_file_is_dropped_on_the_window(window: MainWindow, tmp_path: Path) -> None:
    path = tmp_path / "dropped.urgens.json"
    save(bed("mailvan"), path)
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    action, left = Qt.DropAction.CopyAction, Qt.MouseButton.LeftButton

    window.dropEvent(QDropEvent(QPointF(400, 300), action, data, left, NEITHER))

    assert window.session.build.name == "Larkhill"


def test_a_log_that_is_dropped_on_the_window_opens_among_the_logs(
    window: MainWindow, qtbot: Any
) -> None:
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(logs_folder() / "tarn-1-turn.csv"))])
    action, left = Qt.DropAction.CopyAction, Qt.MouseButton.LeftButton

    window.dropEvent(QDropEvent(QPointF(400, 300), action, data, left, NEITHER))

    station = window.station("Prove")
    assert window.bench.currentWidget() is station
    assert station.page_name == "Logs"
    qtbot.waitUntil(lambda: station.page.log is not None, timeout=20_000)
    assert window.session.build.proof.logs[-1].file == "tarn-1-turn.csv"
    assert window.session.build.name == "Wexcombe"  # no other build was opened


def test_a_read_only_file_is_not_written(
    window: MainWindow, tmp_path: Path, answer: Answer
) -> None:
    path = tmp_path / "locked.urgens.json"
    save(window.session.base, path)
    path.chmod(0o444)
    window.session.open_file(path)
    assert "read-only" in window.windowTitle()
    window.session.edit("name", "Changed")
    said = answer("Not now")

    assert not window.files.save()
    assert "the file is marked read-only" in said[0]
    assert load(path).name == "Wexcombe"
    assert window.session.modified


@pytest.mark.parametrize(
    ("button", "name"), [("Read it again", "Other"), ("Keep what is here", "Wexcombe")]
)
def test_a_file_changed_by_another_program_is_asked_about_once(
    window: MainWindow, tmp_path: Path, answer: Answer, button: str, name: str
) -> None:
    path = tmp_path / "shared.urgens.json"
    save(window.session.base, path)
    window.session.open_file(path)
    window.files.look_at_disk()  # nothing to ask
    save(edited(window.session.base, "name", "Other"), path)
    said = answer(button)

    window.files.look_at_disk()

    assert said[0] == "shared.urgens.json was changed by another program."
    assert window.session.build.name == name
    window.files.look_at_disk()  # not a second time


def test_saving_over_another_program_s_change_is_asked_first(
    window: MainWindow, tmp_path: Path, answer: Answer
) -> None:
    path = tmp_path / "shared.urgens.json"
    save(window.session.base, path)
    window.session.open_file(path)
    window.session.edit("name", "Mine")
    save(bed("roadster"), path)
    answer("Do not save")
    assert not window.files.save()
    assert load(path).name == "Tarn"

    answer("Save over it")
    assert window.files.save()
    assert load(path).name == "Mine"


@pytest.mark.parametrize(
    ("typed", "written"),
    [
        ("truck", "truck.urgens.json"),
        ("truck v1.2", "truck v1.2.urgens.json"),
        ("truck.urgens", "truck.urgens.json"),
        ("truck.json", "truck.json"),
        ("truck.urgens.json", "truck.urgens.json"),
    ],
)
def test_a_name_that_is_typed_gets_its_ending(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, typed: str, written: str
) -> None:
    chosen = [str(tmp_path / typed)]
    monkeypatch.setattr(FileChooser, "ask", lambda *_: chosen)

    assert window.files.save_as()
    assert [path.name for path in tmp_path.iterdir()] == [written]
    assert window.session.path == tmp_path / written


def test_nothing_is_written_over_unasked(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, answer: Answer
) -> None:
    """The dialog asks about the name that is typed; the ending comes after it."""
    there = tmp_path / "truck.urgens.json"
    save(bed("roadster"), there)
    sheet = tmp_path / "truck.pdf"
    sheet.write_bytes(b"mine")
    chosen = [str(tmp_path / "truck")]
    monkeypatch.setattr(FileChooser, "ask", lambda *_: chosen)
    said = answer("Do not write")
    assert not window.files.save_as()
    assert said[0] == "truck.urgens.json is there already."
    assert load(there).name == "Tarn"

    answer("Do not write")
    window.files.write_sheet("pdf")
    assert sheet.read_bytes() == b"mine"
    answer("Write over it")
    assert window.files.save_as()
    assert load(there).name == "Wexcombe"


@pytest.mark.parametrize(
    ("name", "file"),
    [("Wexcombe", "wexcombe"), ("../../etc/x", "etc-x"), ("A/B  C", "a-b-c"), ("…", "build")],
)
def test_a_build_s_name_gives_a_file_s_name(name: str, file: str) -> None:
    assert file_name(name) == file


def test_a_file_that_is_gone_is_said_once_and_saved_elsewhere(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, answer: Answer
) -> None:
    path, other = tmp_path / "there.urgens.json", tmp_path / "elsewhere.urgens.json"
    save(window.session.base, path)
    window.session.open_file(path)
    path.unlink()
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(other)])
    said = answer("Save it elsewhere")
    window.files.look_at_disk()

    assert said[0].startswith("there.urgens.json is no longer there to read.")
    assert window.session.path == other
    assert load(other).name == "Wexcombe"
    other.unlink()
    answer("Not now")
    window.files.look_at_disk()
    window.files.look_at_disk()  # not a second time
    assert window.files.save()  # where it was, without a question
    assert load(other).name == "Wexcombe"


def test_a_file_that_became_a_pipe_is_not_waited_for(
    window: MainWindow, tmp_path: Path, answer: Answer
) -> None:
    path = tmp_path / "there.urgens.json"
    save(window.session.base, path)
    window.session.open_file(path)
    path.unlink()
    os.mkfifo(path)
    said = answer("Not now")
    window.files.look_at_disk()

    assert said[0].startswith("there.urgens.json is no longer there to read.")


def test_a_folder_that_cannot_be_written_is_said_and_another_asked_for(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, answer: Answer
) -> None:
    path, other = tmp_path / "gone" / "mine.urgens.json", tmp_path / "other.urgens.json"
    path.parent.mkdir()
    save(window.session.base, path)
    window.session.open_file(path)
    window.session.edit("name", "Changed")
    path.unlink()
    path.parent.rmdir()
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(other)])
    said = answer("Save elsewhere")

    assert window.files.save()
    assert said[0].startswith("mine.urgens.json was not saved: No such file or directory.")
    assert load(other).name == "Changed"


# --- what is typed and not entered ---


def typing(window: MainWindow, text: str) -> FigureLabel:
    window.show_station("Measure")
    target = label(window, "vehicle.wheelbase")
    target.setFocus()
    QTest.keyClick(target, Qt.Key.Key_Return)
    assert target.editor is not None
    QTest.keyClicks(target.editor, text)
    return target


def test_saving_by_key_enters_what_is_typed(window: MainWindow, tmp_path: Path) -> None:
    path = tmp_path / "truck.urgens.json"
    save(window.session.base, path)
    window.session.open_file(path)
    target = typing(window, "120 in")
    assert target.editor is not None
    QTest.keyClick(target.editor, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)

    assert load(path).vehicle.wheelbase.text == "120 in"
    assert not window.session.modified


def test_what_cannot_be_entered_is_said_and_not_saved_without_it(
    window: MainWindow, tmp_path: Path
) -> None:
    path = tmp_path / "truck.urgens.json"
    save(window.session.base, path)
    window.session.open_file(path)
    target = typing(window, "long")

    assert not window.files.save()
    assert '"long" is not a figure' in target.error
    assert target.editor is not None
    assert target.editor.text() == "long"
    QTest.keyClick(target.editor, Qt.Key.Key_Escape)


def test_closing_enters_what_is_typed_and_asks_about_it(window: MainWindow, answer: Answer) -> None:
    typing(window, "120 in")
    said = answer("Stay here")
    window.close()

    assert said[0] == "Wexcombe has changes that are not saved."
    assert window.session.build.vehicle.wheelbase.text == "120 in"
    assert window.isVisible()


@pytest.mark.parametrize(("button", "closed"), [("Stay here", False), ("Leave it out", True)])
def test_closing_asks_about_what_cannot_be_entered(
    window: MainWindow, answer: Answer, button: str, *, closed: bool
) -> None:
    target = typing(window, "long")
    said = answer(button)
    window.close()

    assert said[0].startswith('Wheelbase is typed and cannot be entered: "long" is not a figure;')
    assert window.isVisible() is not closed
    if not closed:
        assert target.editor is not None
        QTest.keyClick(target.editor, Qt.Key.Key_Escape)


# --- parts of other builds ---


@pytest.mark.parametrize("part", PARTS)
@pytest.mark.parametrize("mine", demo_names())
@pytest.mark.parametrize("theirs", demo_names())
def test_any_part_is_taken_over_between_any_builds(mine: str, theirs: str, part: str) -> None:
    build, other = bed(mine), bed(theirs)
    if mine == "tractor" and part == "vehicle":
        build = edited(build, "setups", [])  # its set-up speaks of a launch others have not
    taken = changed(build, borrowed(other, part))
    place = PARTS[part][0]

    assert value_at(taken, place) == value_at(other, place)
    unlike = {"front brakes": "rear.brake"}.get(part, "front.brake")
    assert value_at(taken, unlike) == value_at(build, unlike)


def test_brakes_are_taken_from_a_file_as_one_step(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    donor = edited(bed("mailvan"), "name", "Donor")
    file = tmp_path / "donor.urgens.json"
    save(donor, file)
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(file)])
    before = window.session.build
    window.commands["borrow-1"].trigger()
    build = window.session.build

    assert build.rear.brake == donor.rear.brake
    assert build.evidence["rear.brake.shoe_factor"].state == "assumed"  # as it is there
    assert build.front == before.front
    assert window.session.undo_stack.undoText() == "The rear brakes of Donor"
    window.session.undo_stack.undo()
    assert window.session.build == before


def test_a_broken_donor_is_said_and_changes_nothing(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, answer: Answer
) -> None:
    file = tmp_path / "donor.urgens.json"
    file.write_text("{", encoding="utf-8")
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(file)])
    before = window.session.build
    said = answer("OK")
    window.commands["borrow-0"].trigger()

    assert said[0] == "donor.urgens.json was not read"
    assert window.session.build is before


# --- recovery ---


def test_unsaved_work_is_kept_aside_and_forgotten_once_it_is_saved(
    dressed: QApplication, tmp_path: Path, qtbot: Any
) -> None:
    session = Session(bed("bakery"))
    recovery = Recovery(session, tmp_path)
    session.edit("name", "Half done")
    qtbot.waitUntil(recovery.file.exists, timeout=3000)

    assert "Half done" in json.loads(recovery.file.read_text(encoding="utf-8"))["build"]
    assert found(tmp_path) == ((), ())  # this window is still there
    session.save(tmp_path / "saved.urgens.json")
    assert not recovery.file.exists()


def test_work_survives_a_kill(
    open_window: Opener, bakery: Build, tmp_path: Path, answer: Answer
) -> None:
    """A window in another process is killed; the next one offers its work."""
    path = tmp_path / "truck.urgens.json"
    save(bakery, path)
    folder = tmp_path / "recovery"
    code = (
        "import sys; from pathlib import Path; from PySide6.QtWidgets import QApplication; "
        "from urgens.document import load; from urgens.ui.application import dress; "
        "from urgens.ui.session import Session; from urgens.ui.frame.window import MainWindow; "
        "app = QApplication([]); dress(app); p = Path(sys.argv[1]); "
        "w = MainWindow(Session(load(p), p), None, Path(sys.argv[2])); w.show(); "
        "w.session.edit('name', 'Nearly lost'); w.session.edit('targets.surface', 0.8); "
        "w.session.edit('targets.surface', 0.7); app.exec()"
    )
    run = subprocess.Popen([sys.executable, "-c", code, str(path), str(folder)])
    until = time.monotonic() + 30
    while not list(folder.glob("*.json")) and time.monotonic() < until:
        time.sleep(0.1)
    run.send_signal(signal.SIGKILL)
    run.wait()
    assert load(path).name == "Wexcombe"

    window = open_window(bakery)
    window._recovery_folder = folder
    said = answer("Take it up again")
    window.offer_recovery()

    assert said[0].startswith("Urgens was ended before Nearly lost of truck.urgens.json was saved.")
    assert window.session.build.name == "Nearly lost"
    assert window.session.path == path
    assert window.session.modified
    window.session.save(path)
    (entry,) = load(path).history  # the whole run of edits, from what its file had
    assert dict(entry.changes) == {"targets.surface": (bakery.targets.surface, 0.7)}
    window.session.undo_stack.undo()
    assert window.session.build.name == "Wexcombe"
    assert window.session.build.history == (entry,)


def test_work_is_offered_where_the_number_of_a_dead_process_is_in_use_again(
    tmp_path: Path, bakery: Build
) -> None:
    kept = json.dumps({"path": None, "build": dumps(bakery)})
    (tmp_path / f"{os.getpid()}-1.json").write_text(kept, encoding="utf-8")

    ((left,), unread) = found(tmp_path)

    assert (left.build, left.path, unread) == (bakery, None, ())
    left.forget()
    assert found(tmp_path) == ((), ())


def test_edits_without_a_pause_are_kept_every_two_seconds(
    dressed: QApplication, tmp_path: Path
) -> None:
    """Each edit puts the quiet moment off, but never beyond two seconds from the first."""
    session = Session(bed("bakery"))
    recovery = Recovery(session, tmp_path / "kept")
    number, waits = 0, list[int]()
    while not recovery.file.exists() and number < 20:
        number += 1
        session.edit("name", f"Number {number}")
        waits.append(recovery._timer.interval())
        rest(300)

    assert recovery.file.exists()  # else it would wait for a pause, which never comes
    assert waits == sorted(waits, reverse=True)
    assert waits[0] == 700 > waits[-1]
    kept = json.loads(json.loads(recovery.file.read_text(encoding="utf-8"))["build"])["name"]
    assert kept.startswith("Number ")
    recovery.clear()


def test_what_is_kept_is_for_its_owner_only_and_of_an_absolute_path(
    dressed: QApplication, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    save(bed("bakery"), tmp_path / "truck.urgens.json")
    monkeypatch.chdir(tmp_path)
    session = Session(bed("bakery"), Path("truck.urgens.json"))
    recovery = Recovery(session, tmp_path / "kept")
    session.edit("name", "Half done")
    recovery.keep()

    held = [recovery.file, recovery.file.with_suffix(".lock")]
    assert [oct(path.stat().st_mode & 0o777) for path in held] == ["0o600", "0o600"]
    assert oct(recovery.file.parent.stat().st_mode & 0o777) == "0o700"
    kept = json.loads(recovery.file.read_text(encoding="utf-8"))
    assert kept["path"] == str(tmp_path / "truck.urgens.json")
    recovery.clear()


@pytest.mark.parametrize(
    ("button", "left"),
    [("Throw it away", False), ("Leave it for later", True)],
)
def test_what_is_left_can_be_thrown_away_for_good(
    window: MainWindow, tmp_path: Path, answer: Answer, button: str, *, left: bool
) -> None:
    kept = json.dumps({"path": None, "build": dumps(bed("roadster"))})
    (tmp_path / "0.json").write_text(kept, encoding="utf-8")
    window._recovery_folder = tmp_path
    answer(button)
    window.offer_recovery()

    assert window.session.build.name == "Wexcombe"
    assert bool(found(tmp_path)[0]) is left


def test_junk_among_what_is_kept_is_named_in_one_box_and_passed_over(
    window: MainWindow, tmp_path: Path, answer: Answer
) -> None:
    (tmp_path / "folder.json").mkdir()
    os.mkfifo(tmp_path / "pipe.json")
    (tmp_path / "bytes.json").write_bytes(b"\xff\x00")
    (tmp_path / "list.json").write_text("[]", encoding="utf-8")
    (tmp_path / "notes.txt").write_text("mine", encoding="utf-8")
    (tmp_path / "half.tmp").write_text("{", encoding="utf-8")
    (tmp_path / "gone.lock").write_text("", encoding="utf-8")
    (tmp_path / "list.lock").mkdir()
    window._recovery_folder = tmp_path
    said = answer("OK")
    window.offer_recovery()

    names = ("bytes", "folder", "list", "pipe")
    rows = [str(tmp_path / f"{name}.unread") for name in names]
    assert said[1].splitlines() == ["It is still there:", *rows]
    left = sorted(path.name for path in tmp_path.iterdir())
    assert left == [
        "bytes.unread", "folder.unread", "list.lock", "list.unread", "notes.txt", "pipe.unread",
    ]  # fmt: skip


def test_two_windows_on_one_file_keep_their_own_work(dressed: QApplication, tmp_path: Path) -> None:
    path = tmp_path / "truck.urgens.json"
    save(bed("bakery"), path)
    kept = [Recovery(Session(bed("bakery"), path), tmp_path / "kept") for _ in range(2)]
    for number, recovery in enumerate(kept):
        recovery._session.edit("name", f"Window {number}")
        recovery.keep()
    assert len(list((tmp_path / "kept").glob("*.json"))) == 2
    assert found(tmp_path / "kept") == ((), ())  # both windows are there
    kept[0].clear()
    assert [f.name for f in (tmp_path / "kept").glob("*.json")] == [kept[1].file.name]
    kept[1].clear()
    assert list((tmp_path / "kept").iterdir()) == []


def test_what_cannot_be_kept_aside_is_said_once(dressed: QApplication, tmp_path: Path) -> None:
    folder = tmp_path / "file, not folder"
    folder.write_text("", encoding="utf-8")
    recovery = Recovery(Session(bed("bakery")), folder)
    said: list[str] = []
    recovery.failed.connect(said.append)
    recovery._session.edit("name", "Half done")
    recovery.keep()
    recovery.keep()

    assert said == ["File exists"]


def test_what_is_kept_and_cannot_be_read_is_said_and_left_there(
    window: MainWindow, tmp_path: Path, answer: Answer
) -> None:
    broken = tmp_path / "0.json"
    broken.write_text('{"path": null, "build": "{', encoding="utf-8")
    window._recovery_folder = tmp_path
    said = answer("OK")
    window.offer_recovery()

    assert said == [
        "Work kept aside cannot be read",
        f"It is still there:\n{tmp_path / '0.unread'}",
    ]
    assert (tmp_path / "0.unread").exists()
    assert found(tmp_path) == ((), ())
