"""Hands that know nothing: seeded, a few hundred of them for each demo build, over every page."""

import random
from collections.abc import Callable

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt, QTimer
from PySide6.QtGui import QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit, QWidget

from tests.builds import bed
from tests.fuzzing import fuzzed
from tests.waiting import rest
from urgens.document import Build, dumps, loads
from urgens.ui.frame.stations import STATIONS
from urgens.ui.frame.window import MainWindow

ACTIONS = 90
KEYS = [Qt.Key.Key_Return, Qt.Key.Key_Escape, Qt.Key.Key_Tab, Qt.Key.Key_Up, Qt.Key.Key_Down,
        Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Space, Qt.Key.Key_Home, Qt.Key.Key_End,
        Qt.Key.Key_PageUp, Qt.Key.Key_Delete, Qt.Key.Key_F, Qt.Key.Key_L, Qt.Key.Key_N]  # fmt: skip
TYPED = ["0", "-1", "7/8", "1-1/16 in", "300 psi", "1e9", "25 mm", "x", "90 lbf", "0.4"]
CTRL, SHIFT, NONE = (
    Qt.KeyboardModifier.ControlModifier,
    Qt.KeyboardModifier.ShiftModifier,
    Qt.KeyboardModifier.NoModifier,
)
UNDO = [Qt.Key.Key_Z, Qt.Key.Key_Y]


class Monkey:
    """Does one thing at a time to whatever is there; boxes and menus are put away."""

    def __init__(self, window: MainWindow, seed: int) -> None:
        self.window, self.chance = window, random.Random(seed)
        self._putter = QTimer(window)
        self._putter.setInterval(5)
        self._putter.timeout.connect(self._put_away)
        self._putter.start()

    def stop(self) -> None:
        self._putter.stop()

    def _put_away(self) -> None:
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        for one in (application.activeModalWidget(), application.activePopupWidget()):
            if one is not None:
                one.close()

    def act(self) -> None:
        kind = self.chance.choices(
            (self._page, self._click, self._drag, self._key, self._type, self._wheel, self._undo,
             self._look),
            (2, 4, 5, 5, 3, 1, 2, 1),
        )[0]  # fmt: skip
        kind()
        rest(1)

    def _target(self) -> tuple[QWidget, QPoint]:
        spot = QPoint(
            self.chance.randrange(self.window.width()), self.chance.randrange(self.window.height())
        )
        widget = self.window.childAt(spot) or self.window
        return widget, widget.mapFrom(self.window, spot)

    def _page(self) -> None:
        kind = self.chance.choice(STATIONS)
        self.window.show_station(kind.name)
        if kind.pages:
            self.window.station(kind.name).show_page_named(self.chance.choice(kind.pages))

    def _click(self) -> None:
        widget, spot = self._target()
        button = self.chance.choice([Qt.MouseButton.LeftButton] * 5 + [Qt.MouseButton.RightButton])
        QTest.mouseClick(widget, button, NONE, spot)

    def _drag(self) -> None:
        widget, spot = self._target()
        QTest.mousePress(widget, Qt.MouseButton.LeftButton, NONE, spot)
        for _ in range(self.chance.randrange(1, 5)):
            spot += QPoint(self.chance.randrange(-120, 121), self.chance.randrange(-120, 121))
            QTest.mouseMove(widget, spot)
            rest(1)
            if self.chance.random() < 0.1:
                QTest.keyClick(self._focus(), Qt.Key.Key_Escape)
        QTest.mouseRelease(widget, Qt.MouseButton.LeftButton, NONE, spot)

    def _focus(self) -> QWidget:
        return QApplication.focusWidget() or self.window

    def _key(self) -> None:
        modifier = SHIFT if self.chance.random() < 0.2 else NONE
        QTest.keyClick(self._focus(), self.chance.choice(KEYS), modifier)

    def _type(self) -> None:
        focus = self._focus()
        if not isinstance(focus, QLineEdit):
            QTest.keyClick(focus, Qt.Key.Key_Return)
            focus = self._focus()
        if isinstance(focus, QLineEdit):
            focus.clear()
            QTest.keyClicks(focus, self.chance.choice(TYPED))
            QTest.keyClick(focus, self.chance.choice([Qt.Key.Key_Return, Qt.Key.Key_Tab]))

    def _wheel(self) -> None:
        widget, spot = self._target()
        event = QWheelEvent(
            QPointF(spot), QPointF(widget.mapToGlobal(spot)), QPoint(),
            QPoint(0, self.chance.choice([-120, 120])), Qt.MouseButton.NoButton,
            self.chance.choice([NONE, CTRL]), Qt.ScrollPhase.NoScrollPhase, False,
        )  # fmt: skip
        QApplication.sendEvent(widget, event)

    def _undo(self) -> None:
        stack = self.window.session.undo_stack
        self.chance.choice([stack.undo, stack.redo])()

    def _look(self) -> None:
        session, chance = self.window.session, self.chance
        names = [None, *(setup.name for setup in session.base.setups)]
        chance.choice(
            [
                lambda: session.set_setup(chance.choice(names)),
                lambda: session.set_surface(chance.choice([None, 0.15, 0.5, 2.0])),
                lambda: session.set_load_case(chance.choice(session.solution.system.case_names)),
                lambda: session.set_effort(chance.choice([0.0, 50.0, 1e9])),
                lambda: self.window.resize(chance.choice([1200, 1280, 1920]), 800),
                self.window.switch_theme,
            ]
        )()


@pytest.mark.fuzz
@pytest.mark.parametrize("name", ["library", "roadster"])
def test_a_monkey_breaks_nothing(
    name: str, open_window: Callable[[Build], MainWindow], no_dialogs: None
) -> None:
    """No slot raises (pytest-qt tells), every build on the way is whole, and all comes back."""
    for seed in fuzzed(sum(map(ord, name))):
        _act_on(open_window(bed(name)), seed, name)


def _act_on(window: MainWindow, seed: int, name: str) -> None:
    session, text = window.session, dumps(bed(name))
    monkey = Monkey(window, seed)
    for _ in range(ACTIONS):
        monkey.act()
        assert session.document.drag is None
        if session.undo_stack.count() == 0 and not session.modified:
            assert session.path is None
    assert loads(dumps(session.base)) == session.base
    monkey.stop()
    QTest.keyClick(QApplication.focusWidget() or window, Qt.Key.Key_Escape)
    while session.undo_stack.canUndo():
        session.undo_stack.undo()
    rest(600)

    assert dumps(session.base) == text or session.base.name != bed(name).name
    assert not session.modified
