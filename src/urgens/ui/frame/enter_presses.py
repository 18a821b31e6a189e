"""Enter presses the button that has the focus, as Space does, where the page does not take it."""

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QAbstractButton, QApplication, QWidget

ENTER = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


class EnterPresses(QObject):
    """Knows to which button of a window a key has gone first.

    The key then goes to the page, which may go on with it (a card does), and to the window last.
    """

    def __init__(self, window: QWidget) -> None:
        super().__init__(window)
        self._window = window
        self._given: QAbstractButton | None = None  # what an Enter has gone to
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.focusChanged.connect(self._follow)

    def _follow(self, before: QWidget | None, now: QWidget | None) -> None:
        if isinstance(before, QAbstractButton):
            before.removeEventFilter(self)
        if isinstance(now, QAbstractButton) and now.window() is self._window:
            now.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QKeyEvent) and event.type() is QEvent.Type.KeyPress:
            given = event.key() in ENTER and isinstance(watched, QAbstractButton)
            self._given = watched if given else None  # type: ignore[assignment]
        return False

    def took(self, event: QKeyEvent) -> bool:
        """Press the button that an Enter has gone to and nobody has taken; tell whether it was."""
        given, self._given = self._given, None
        if given is None or event.key() not in ENTER:
            return False
        given.click()
        return True
