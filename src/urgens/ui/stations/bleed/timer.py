"""Seconds that a step takes, counted down; and how long it has been under way."""

import time

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QWidget

from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.timers import again
from urgens.ui.widgets.worded import worded

TICK = 200  # ms
WORDS = "Start the clock  T"


class StepTimer(QWidget):
    """Begun by a button or its key; what is over says so, and counts on.

    `started` tells that a hand has begun it.
    """

    started = Signal()

    def __init__(self) -> None:
        super().__init__()
        self._wanted = 0
        self._since: float | None = None
        self.left = worded("", "counter")
        self.said = worded("", "muted")
        self.start = push_button(WORDS, "quiet", self.start_now)
        row = tight(QHBoxLayout(self))
        row.addWidget(self.left)
        row.addWidget(self.said, 1)
        row.addWidget(self.start)
        self._tick = again(self, TICK, self._show)

    def show_seconds(self, seconds: int) -> None:
        """Stand ready for a step of so many seconds; none has no clock."""
        self._wanted, self._since = seconds, None
        self._tick.stop()
        self.setVisible(seconds > 0)
        self._show()

    def start_now(self) -> None:
        """Begin to count by hand."""
        self.begin()
        self.started.emit()

    def begin(self, passed: float = 0.0) -> None:
        """Begin to count, or go on with what has passed already [s]."""
        if self._wanted:
            self._since = time.monotonic() - passed
            self._tick.start()
            self._show()

    @property
    def passed(self) -> float:
        """Seconds since it was begun."""
        return 0.0 if self._since is None else time.monotonic() - self._since

    def _show(self) -> None:
        left = self._wanted - self.passed
        self.left.setText(f"{max(left, 0.0):.0f} s")
        over = self._since is not None and left <= 0
        running = "go on holding" if self._since is not None else "to be held"
        self.said.setText(f"done, {-left:.0f} s over" if over else running)
        self.setAccessibleName(f"{self.left.text()}, {self.said.text()}")
