"""Work that waits until it is looked at."""

from collections.abc import Callable

from PySide6.QtCore import QEvent, QObject
from PySide6.QtWidgets import QWidget


class WhenSeen(QObject):
    """Refreshes a widget at once where it is seen, else once when it is seen again."""

    def __init__(self, widget: QWidget, refresh: Callable[[], None]) -> None:
        super().__init__(widget)
        self._widget, self._refresh = widget, refresh
        self._stale = False
        widget.installEventFilter(self)

    def ask(self) -> None:
        """Refresh all of it."""
        self.ask_for(self._refresh)

    def ask_for(self, part: Callable[[], None]) -> None:
        """Refresh a part of it; of what is not seen everything is refreshed later."""
        if self._widget.isVisible():
            part()
        else:
            self._stale = True

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if self._stale and event.type() == QEvent.Type.Show:
            self._stale = False
            self._refresh()
        return False
