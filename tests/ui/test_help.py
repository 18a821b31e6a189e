"""Help inside: terms explained where they stand, the walk of the first steps, what is computed."""

import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QLabel

from tests.builds import bed
from tests.ui.conftest import LEFT, page_of
from urgens.document import Build, demo
from urgens.guidance.words.scope import COMPUTES, COMPUTES_NOT
from urgens.guidance.words.terms import Term, matching, term_in, terms
from urgens.ui.frame.dialogs import CommandFinder
from urgens.ui.frame.help_panels import ScopePanel, TermsPanel
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.term_drawing import DRAWINGS
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from urgens.ui.widgets.worded import worded

Opener = Callable[[Build], MainWindow]
NOMENCLATURE = Path(__file__).parents[2] / "docs" / "nomenclature.md"


def test_the_terms_are_those_of_the_nomenclature() -> None:
    lines = NOMENCLATURE.read_text().splitlines()
    rows = [line for line in lines if line.startswith("| ") and not line.startswith("| name |")]
    said = [tuple(cell.strip() for cell in row.strip("|").split("|", 3)) for row in rows]
    known = [(one.name, one.symbol, one.unit, one.meaning) for one in terms()]
    assert [tuple(c.strip(" |") for c in row) for row in said] == known


@pytest.mark.parametrize("term", terms(), ids=lambda term: term.name)
def test_every_term_is_found_by_its_names_and_said_in_words(term: Term) -> None:
    assert term.said
    assert len(term.meaning) > 5
    for name in term.said:
        assert term in matching(name)
        assert term_in(name) is not None
    assert term.words.startswith(f"{term.said[0]}: ")


@pytest.mark.parametrize(
    ("text", "loosely", "name"),
    [("Knee", False, "knee"), ("Rear valve's knee", True, "knee"),
     ("What the first lock takes", False, "first lock"), ("the rest of it", False, None),
     ("Shoe factor, from its shoes", False, "shoe_factor"), ("hello", True, None),
     ("", True, None)],
)  # fmt: skip
def test_a_term_is_known_in_a_text(text: str, loosely: bool, name: str | None) -> None:
    found = term_in(text, loosely=loosely)
    assert (None if found is None else found.name) == name


@pytest.mark.parametrize("name", ["knee", "slope", "shoe factor", "front adhesion"])
def test_what_is_usual_is_said_in_the_units_shown_and_drawn(open_window: Opener, name: str) -> None:
    window = open_window(bed("roadster"))
    panel = TermsPanel(window, window.session.units, term_in(name))
    panel.show()
    assert panel.usual.text().startswith("Usual: ")
    assert "{" not in panel.usual.text()
    assert "psi" not in panel.usual.text()
    assert panel.drawing.isVisible()
    bare = QImage(panel.drawing.size(), QImage.Format.Format_RGB32)
    bare.fill(panel.grab().toImage().pixelColor(2, 2))
    assert panel.drawing.grab().toImage().convertToFormat(bare.format()) != bare
    panel.list.setCurrentRow([one.said[0] for one in panel.found].index("spring preload"))
    assert not panel.drawing.isVisible()
    assert not panel.usual.isVisible()
    panel.reject()


def test_every_drawing_of_a_term_is_there() -> None:
    assert {one.drawing for one in terms() if one.drawing} == set(DRAWINGS)


def test_a_label_that_is_a_term_says_what_it_means(dressed: QApplication) -> None:
    assert worded("Pedal travel", "muted").toolTip() == "pedal travel: at the pad (x; m)"
    assert worded("Some words", "muted").toolTip() == ""


def run_dialog(window: MainWindow, act: Callable[[Any], None]) -> None:
    def later() -> None:
        dialog = QApplication.activeModalWidget()
        assert isinstance(dialog, QDialog)
        act(dialog)
        dialog.reject()

    QTimer.singleShot(50, later)
    window.commands["terms"].trigger()


def test_terms_are_searched_and_read(window: MainWindow) -> None:
    seen: list[str] = []

    def act(panel: Any) -> None:
        assert isinstance(panel, TermsPanel)
        QTest.keyClicks(panel.line, "ideal band")
        seen.append(panel.name.text())
        seen.append(panel.meaning.text())
        panel.line.setText("xyzzy")
        seen.append(panel.name.text())

    run_dialog(window, act)
    assert seen[0] == "ideal line, ideal band"
    assert seen[1].startswith("Pressures at which both axles use the same adhesion")
    assert seen[2] == "No term has these letters; try fewer of them."


def test_a_question_mark_explains_what_has_the_focus(window: MainWindow) -> None:
    page = page_of(window, "Balance", "Set")
    label = page.controls.knee.label if hasattr(page, "controls") else None
    label = label or window.station("Balance").controls.knee.label  # type: ignore[attr-defined]
    label.setFocus()
    seen: list[str] = []

    def act() -> None:
        panel = QApplication.activeModalWidget()
        assert isinstance(panel, TermsPanel)
        seen.append(panel.name.text())
        panel.reject()

    QTimer.singleShot(80, act)
    window.commands["why"].trigger()
    assert seen == ["knee"]
    window.setFocus()
    window.commands["why"].trigger()
    assert window.bench.name == "Size"


def test_what_is_computed_is_said_and_never_more(dressed: QApplication, window: MainWindow) -> None:
    panel = ScopePanel(window)
    said = " ".join(label.text() for label in panel.findChildren(QLabel))
    assert all(words in said for words in (*COMPUTES, *COMPUTES_NOT))
    assert re.search(r"\b(approved|legal|safe)\b", said) is None


def test_the_walk_goes_through_the_window_and_is_left_at_any_time(
    dressed: QApplication, open_window: Opener, tmp_path: Path
) -> None:
    window = open_window(bed("library"))
    window.help._settings = settings = Settings(tmp_path / "settings.ini")
    window.commands["walk"].trigger()
    walk = window.help.walking
    assert walk is not None
    titles = []
    while window.help.walking is not None:
        titles.append(walk.title.text())
        card, ring = walk.geometry(), walk.ring.geometry()
        assert window.centralWidget().rect().contains(card)
        assert walk.isVisible()
        assert ring.width() > 20
        QTest.keyClick(walk.on, Qt.Key.Key_Space)
    assert len(titles) == len(set(titles)) == 6
    assert settings.walked
    assert not walk.isVisible()
    window.commands["walk"].trigger()
    assert window.help.walking is not None
    QTest.keyClick(window.help.walking, Qt.Key.Key_Escape)
    assert window.help.walking is None
    window.commands["walk"].trigger()
    window.switch_theme()  # which makes everything anew
    assert window.help.walking is None


def test_the_walk_is_offered_where_a_builder_starts(open_window: Opener) -> None:
    window = open_window(demo("tractor"))
    window.show_start(first=True)
    assert window.start is not None
    QTest.mouseClick(window.start.walk, LEFT)
    assert window.session.base.name == "Bookmoor"
    assert window.help.walking is not None
    window.help.end_walk()


def test_commands_are_found_on_the_window_s_own_panel(dressed: QApplication) -> None:
    window = MainWindow(Session(bed("tender")))
    finder = CommandFinder(window.findable(), window)
    assert finder.windowFlags() & Qt.WindowType.FramelessWindowHint
    QTest.keyClicks(finder.line, "calendar pdf")
    assert finder.nothing.isVisibleTo(finder)
    finder.line.setText("terms")
    item = finder.list.topLevelItem(0)
    assert item is not None
    assert item.text(0) == "Terms explained…"
    finder.deleteLater()
    window.deleteLater()
