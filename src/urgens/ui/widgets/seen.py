"""Work that waits until it is looked at: the one way a widget follows what changes."""

from collections.abc import Callable

from PySide6.QtCore import QEvent, QObject
from PySide6.QtWidgets import QWidget


class WhenSeen(QObject):
    """Refreshes a widget at once where it is seen, else once when it is seen again."""

    def __init__(self, widget: QWidget, refresh: Callable[[], None], *, stale: bool = True) -> None:
        super().__init__(widget)
        self._widget, self._refresh = widget, refresh
        self._stale = stale  # at first nothing is shown yet, unless it is said otherwise
        widget.installEventFilter(self)

    @property
    def stale(self) -> bool:
        """Whether what is shown is out of date."""
        return self._stale

    def ask(self) -> None:
        """Refresh all of it."""
        self.ask_for(self.now)

    def ask_for(self, part: Callable[[], None]) -> None:
        """Refresh a part of it; of what is not seen everything is refreshed later."""
        if self._widget.isVisible():
            part()
        else:
            self._stale = True

    def now(self) -> None:
        """Refresh all of it, seen or not."""
        self._stale = False
        self._refresh()

    def if_stale(self) -> None:
        """Refresh all of it if that is not what it shows."""
        if self._stale:
            self.now()

    def forget(self) -> None:
        """Let what is shown count as out of date, so that it is refreshed when seen again."""
        self._stale = True

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.Show:
            self.if_stale()
        return False
