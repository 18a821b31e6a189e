"""Every field on every page, typed into with what is wrong, empty, huge or of another unit."""

import random
from collections.abc import Callable, Iterator

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QApplication,
    QComboBox,
    QDialog,
    QDoubleSpinBox,
    QLineEdit,
    QPlainTextEdit,
    QPushButton,
    QSpinBox,
    QTextEdit,
    QWidget,
)
from shiboken6 import isValid

from tests.builds import bed
from tests.fuzzing import MINUTES, fuzzed
from tests.ui.conftest import every_page
from tests.ui.test_monkey import Monkey
from tests.waiting import rest
from urgens.document import Build, demo_names, dumps, loads
from urgens.ui.frame.dialogs import CommandFinder
from urgens.ui.frame.help_panels import TermsPanel
from urgens.ui.frame.units_dialog import UnitsDialog
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.measure.loading import AddLoad, CornerWeights
from urgens.ui.stations.measure.mark_dialog import MarkDialog
from urgens.ui.stations.measure.raised_axle import RaisedAxle
from urgens.ui.stations.measure.shoes import ShoeDialog
from urgens.ui.widgets.background import wait_for_all
from urgens.ui.widgets.dimension_label import DimensionLabel

SHARE = 1.0 if MINUTES else 0.3  # of the fields, others with every seed

WRONG = [
    "", " ", "x", "1/0", "0/0", "60 mph", "12 psi", "25 mm", "-5", "-5 in", "0", "1e308",
    "1e308 in", "5e-324", "9" * 5_000, "²", "1²", "½", "1,2", "1.2.3", "nan", "inf", "-inf",
    "NaN in", "٣", "\ud83d", "\ud83d\ude00", "a\x00b", "\x1b[31m", "<b>x</b>", "&x", "=1+1",
    "<img src=/dev/zero>", "10 in in", "300 psi; 200", "1 2 3", "15/16", "9'7\"", "2026-13-45",
    "9999-12-31", "1e400", "\u202eabc", "é" * 3_000, "--help", "a\nb", "🛞",
]  # fmt: skip


def fields(page: QWidget) -> list[QWidget]:
    """All that takes what is typed and can be reached now."""
    kinds = (DimensionLabel, QLineEdit, QPlainTextEdit, QTextEdit, QComboBox, QSpinBox,
             QDoubleSpinBox)  # fmt: skip
    return [one for kind in kinds for one in page.findChildren(kind)
            if one.isVisible() and one.isEnabled()]  # fmt: skip


def type_over(field: QWidget, text: str) -> None:
    """Type over what stands in a field and enter it, as a hand or a paste would."""
    field.setFocus()
    if isinstance(field, DimensionLabel):
        QTest.keyClick(field, Qt.Key.Key_Return)
        if field.editor is None:  # what is computed is not typed
            return
        field.editor.setText(text)
        QTest.keyClick(field.editor, Qt.Key.Key_Return)
        if field.editor is not None:
            QTest.keyClick(field.editor, Qt.Key.Key_Escape)
    elif isinstance(field, QComboBox):
        QTest.keyClick(field, Qt.Key.Key_Down)
    elif isinstance(field, QPlainTextEdit | QTextEdit):
        field.setPlainText(text)
        QTest.keyClick(field, Qt.Key.Key_Tab)
    elif isinstance(field, QSpinBox | QDoubleSpinBox):
        field.lineEdit().setText(text)
        QTest.keyClick(field, Qt.Key.Key_Return)
    else:
        assert isinstance(field, QLineEdit)
        field.setText(text)
        QTest.keyClick(field, Qt.Key.Key_Return)


DIALOGS: dict[str, Callable[[MainWindow], QDialog]] = {
    "raised axle": lambda window: RaisedAxle(window.session, window),
    "corners": lambda window: CornerWeights(window.session, window),
    "people and cargo": lambda window: AddLoad(window.session, window),
    "many figures": lambda window: MarkDialog(window.session, window),
    "shoes": lambda window: ShoeDialog(window.session, "rear", window),
    "units": lambda window: UnitsDialog(window.session.units, window),
    "commands": lambda window: CommandFinder([], window),
    "terms": lambda window: TermsPanel(window, window.session.units),
}


def places(window: MainWindow) -> Iterator[tuple[str, QWidget]]:
    """Every page in turn, and the bars around it."""
    for station, page in every_page(window, ms=5):
        yield f"{station} {page}", window.bench
    yield "press", window.press
    yield "top", window.top


@pytest.mark.fuzz
@pytest.mark.parametrize("name", ["library", "roadster"])  # between them every kind of field
def test_what_is_typed_anywhere_is_taken_or_refused_in_words(
    name: str, open_window: Callable[[Build], MainWindow], no_dialogs: None
) -> None:
    """No slot raises (pytest-qt tells), the build stays whole, and all of it is taken back."""
    for seed in fuzzed(sum(map(ord, name))):
        _type_everywhere(open_window(bed(name)), seed)


def _type_everywhere(window: MainWindow, seed: int) -> None:
    session, chance, text = window.session, random.Random(seed), dumps(window.session.base)
    monkey = Monkey(window, seed)  # puts boxes away
    typed = 0
    for _, place in places(window):
        for field in fields(place):
            if chance.random() < SHARE and isValid(field) and field.isVisible():
                type_over(field, chance.choice(WRONG))
                typed += 1
                rest(0)
        assert loads(dumps(session.base)) == session.base
    monkey.stop()
    QTest.keyClick(QApplication.focusWidget() or window, Qt.Key.Key_Escape)
    while session.undo_stack.canUndo():
        session.undo_stack.undo()
    wait_for_all(5.0)

    assert typed > 100 * SHARE
    assert dumps(session.base) == text or session.base.name != loads(text).name


@pytest.mark.fuzz
@pytest.mark.parametrize("name", DIALOGS)
def test_what_is_typed_in_a_dialog_is_taken_or_refused_in_words(
    name: str, open_window: Callable[[Build], MainWindow], no_dialogs: None
) -> None:
    for seed in fuzzed(sum(map(ord, name))):
        window, chance = open_window(with_drums()), random.Random(seed)
        monkey = Monkey(window, seed)
        for text in chance.sample(WRONG, 12):
            dialog = DIALOGS[name](window)
            dialog.show()
            for field in fields(dialog):
                if isValid(field):
                    type_over(field, chance.choice((text, "300 kg", "0.4", "25 mm")))
            for button in dialog.findChildren(QPushButton):
                if isValid(button) and button.isVisible() and button.isEnabled():
                    button.click()
            rest(1)
            dialog.close()
            dialog.deleteLater()
        monkey.stop()
        assert loads(dumps(window.session.base)) == window.session.base


def with_drums() -> Build:
    """A build whose rear drums have a shoe factor."""
    return next(
        build for build in map(bed, demo_names()) if getattr(build.rear.brake, "shoe_factor", None)
    )
