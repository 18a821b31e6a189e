"""Logs by mouse and keys: opened, mapped, gone, beside the model."""

from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from tests.ui.conftest import words
from tests.ui.proving import (
    SLOW,
    Opener,
    a_log,
    fresh,
    logged,
    shown,
)
from urgens.document import demo
from urgens.ui.stations.prove.logs_page import LogsPage
from urgens.ui.widgets.background import any_running

STATION = "Prove"  # that its windows open at


def test_the_demo_s_logs_are_read_beside_the_model(open_window: Opener, qtbot: QtBot) -> None:
    page = shown(open_window(demo("roadster")), "Logs")
    log = logged(page, qtbot)
    assert len(log.presses) == 2
    assert page.said_model.text() == "As the build computes it, within both spreads."
    page.setting.set_number(6.0)
    page._set()
    qtbot.waitUntil(lambda: "Differs" in page.said_model.text(), timeout=SLOW)
    page.choose_other(1)
    qtbot.waitUntil(lambda: "tarn-3-turns.csv" in page.said_beside.text(), timeout=SLOW)


def test_a_log_is_opened_mapped_and_lies_beside_the_build(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    session, page = window.session, shown(window, "Logs")
    assert "No log yet" in words(page)
    page.open_file(a_log(tmp_path, session.build))
    logged(page, qtbot)
    noted = session.build.proof.logs[0]
    assert noted.file == "run.csv"
    assert noted.channels["front_pressure"].unit == "bar"
    page.map_unit("front_pressure", "psi")
    qtbot.waitUntil(lambda: "psi" in page.map.units["front_pressure"].text(), timeout=SLOW)
    page.map_column("foot", "none")
    assert "foot" not in session.build.proof.logs[0].channels
    assert "Save the build first" in page.files.copy_beside(session.build.proof.logs[0])
    folder = tmp_path / "build"
    folder.mkdir()
    session.save(folder / "own.urgens.json")
    page._copy()
    assert (folder / "run.csv").is_file()
    assert "lies beside" in page.state.text()


def test_a_log_that_is_gone_or_changed_is_said_and_kept(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    session, page = window.session, shown(window, "Logs")
    path = a_log(tmp_path, session.build)
    page.open_file(path)
    logged(page, qtbot)
    path.write_text(path.read_text() + "9.99,0,0,0,0,0,0,0\n")
    page.choose(0)
    qtbot.waitUntil(lambda: "another one than was noted" in page.state.text(), timeout=SLOW)
    path.unlink()
    page.choose(0)
    qtbot.waitUntil(lambda: "is gone" in page.state.text(), timeout=SLOW)
    assert len(session.build.proof.logs) == 1


def test_what_is_no_log_is_refused_where_it_was_opened(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    page = shown(window, "Logs")
    bad = tmp_path / "bad.csv"
    bad.write_text("nothing but words\n")
    page.open_file(bad)
    assert page.state.text() == "Reading bad.csv…"
    qtbot.waitUntil(lambda: "no line of figures" in page.state.text(), timeout=SLOW)
    page.open_file(tmp_path / "gone.csv")
    qtbot.waitUntil(lambda: "cannot be read" in page.state.text(), timeout=SLOW)
    assert window.session.build.proof is None


def test_logs_opened_at_once_are_read_one_after_another(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    page = shown(window, "Logs")
    first = a_log(tmp_path, window.session.build)
    second = first.with_name("again.csv")
    second.write_text(first.read_text() + "# made anew\n")
    page.open_file(first)
    page.open_file(second)
    logged(page, qtbot)
    assert [one.file for one in window.session.build.proof.logs] == ["run.csv", "again.csv"]
    assert [place for place, one in page.which.buttons.items() if one.isChecked()] == [1]


def test_a_log_read_for_another_build_is_dropped(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    page = shown(window, "Logs")
    page.open_file(a_log(tmp_path, window.session.build))
    window.session.open(fresh(), None)
    qtbot.waitUntil(lambda: not any_running(), timeout=SLOW)
    assert window.session.build.proof is None


def test_a_unit_that_cannot_be_is_asked_on_the_page(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    page = shown(open_window(fresh()), "Logs")
    rows = "\n".join(f"{0.01 * k:.2f},{min(10 * k, 800)},{min(8 * k, 600)}" for k in range(200))
    path = tmp_path / "psi.csv"
    path.write_text(f"time [s],front pressure [bar],rear pressure [bar]\n{rows}\n")
    page.open_file(path)
    logged(page, qtbot)
    assert "is it in psi?" in page.map.questions["front_pressure"].text()
    page.map_unit("front_pressure", "psi")
    qtbot.waitUntil(lambda: "front_pressure" not in page.map.questions, timeout=SLOW)
    assert page.log.signals.channels["front_pressure"].max() == pytest.approx(800 * 6894.757)


def test_the_road_s_log_opens_like_a_real_one(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    page = shown(window, "Test road")
    qtbot.waitUntil(lambda: len(page.drives) == 1, timeout=SLOW)
    page.write_log(tmp_path / "no" / "where.csv")
    assert "could not be written" in page.beneath.text()
    page.write_log(tmp_path / "road.csv")
    opened = window.station("Prove").page
    assert isinstance(opened, LogsPage)
    log = logged(opened, qtbot)
    assert len(log.presses) == 1
    noted = window.session.build.proof.logs[0]
    assert (noted.file, noted.source) == ("road.csv", "simulated")
    assert opened.state.isVisible()
    assert "says nothing of the vehicle" in opened.state.text()


def test_a_unit_is_chosen_from_its_menu(open_window: Opener, qtbot: QtBot, tmp_path: Path) -> None:
    window = open_window(fresh())
    page = shown(window, "Logs")
    page.open_file(a_log(tmp_path, window.session.build))
    logged(page, qtbot)
    [psi] = [one for one in page.map.units["rear_pressure"].menu().actions() if one.text() == "psi"]
    psi.trigger()
    assert window.session.build.proof.logs[0].channels["rear_pressure"].unit == "psi"
    qtbot.waitUntil(lambda: page.map.units["rear_pressure"].text() == "psi", timeout=SLOW)
    [none] = [one for one in page.map.columns["foot"].menu().actions() if one.text() == "none"]
    none.trigger()
    assert "foot" in window.session.build.proof.logs[0].left_out
