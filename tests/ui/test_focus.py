"""Whoever works by keys sees where the focus is: on every control of every page, in both themes."""

from collections.abc import Callable, Iterator

import numpy as np
import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QGraphicsView, QLineEdit, QToolTip, QWidget
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import every_page
from urgens.document import Build, demo
from urgens.ui.frame.focus_tips import FocusTips
from urgens.ui.frame.window import MainWindow
from urgens.ui.theme.switch import use_theme
from urgens.ui.widgets.painted import Painted

SEEN, PIXELS = 60, 20  # change of a channel that is seen, of 255; how many pixels make a ring


def by_tab(window: MainWindow) -> Iterator[QWidget]:
    """What Tab stops at, of what is seen without scrolling."""
    one = window.nextInFocusChain()
    while one is not window:
        stops = one.focusPolicy() & Qt.FocusPolicy.TabFocus and one.isEnabled()
        if stops and one.isVisible() and one.window() is window and shown(window, one):
            yield one
        one = one.nextInFocusChain()


def drawings_without_a_name(window: MainWindow) -> Iterator[str]:
    """What is painted, plotted or typed into, and says nothing to who listens."""
    for widget in window.findChildren(QWidget):
        drawn = isinstance(widget, Painted | QGraphicsView | QLineEdit)
        if drawn and widget.isVisible() and not widget.accessibleName():
            yield type(widget).__name__


def shown(window: MainWindow, widget: QWidget) -> bool:
    """Whether no area that scrolls hides it."""
    place, parent = where(window, widget), widget.parentWidget()
    while parent is not None and parent is not window:
        if not where(window, parent).intersects(place):
            return False
        parent = parent.parentWidget()
    return True


def where(window: MainWindow, widget: QWidget) -> QRect:
    return QRect(widget.mapTo(window, QPoint()), widget.size())


def pixels(window: MainWindow, box: QRect) -> np.ndarray:
    image = window.grab(box).toImage().convertToFormat(QImage.Format.Format_RGB32)
    found = np.frombuffer(image.constBits(), np.uint8).reshape(image.height(), image.width(), 4)
    return found[..., :3].astype(int)


def test_keys_that_rest_on_a_figure_are_told_what_it_is(
    open_window: Callable[[Build], MainWindow], dressed: QApplication, qtbot: QtBot
) -> None:
    window = open_window(bed("library"))
    tips = FocusTips(dressed)
    try:
        window.show_station("Measure")
        label = window.station("Measure").side.labels["vehicle.wheelbase"]
        label.setFocus(Qt.FocusReason.TabFocusReason)
        qtbot.waitUntil(lambda: QToolTip.text() == label.toolTip(), timeout=3000)
        assert "wheel centre" in QToolTip.text()
        QTest.keyClick(label, Qt.Key.Key_Tab)
        qtbot.waitUntil(lambda: QToolTip.text() != label.toolTip(), timeout=3000)
    finally:
        tips.deleteLater()
        QToolTip.hideText()
        qtbot.waitUntil(lambda: not QToolTip.isVisible(), timeout=3000)


@pytest.mark.parametrize(("name", "dark"), [("library", True)])
def test_every_control_shows_that_it_has_the_focus(
    open_window: Callable[[Build], MainWindow], dressed: QApplication, name: str, dark: bool
) -> None:
    use_theme(dressed, dark=dark)
    window = open_window(demo(name))
    window.resize(1280, 800)
    unseen, nameless, count = [], set(), 0
    for station, page in every_page(window, ms=20):
        nameless |= {(station, page, kind) for kind in drawings_without_a_name(window)}
        looks = set()
        for control in by_tab(window):
            look = (type(control), control.property("role"), control.property("narrow"))
            if look in looks:  # another of these was looked at on this page
                continue
            looks.add(look)
            control.setFocus(Qt.FocusReason.TabFocusReason)
            box = where(window, control).adjusted(-3, -3, 3, 3).intersected(window.rect())
            with_focus = pixels(window, box)
            control.clearFocus()
            changed = np.abs(with_focus - pixels(window, box)).max(axis=2) > SEEN
            count += 1
            if changed.sum() < PIXELS:
                unseen.append((station, page, type(control).__name__, control.accessibleName()))

    assert unseen == []
    assert nameless == set()
    assert count > 150
