"""What is drawn moves to where it goes, as things do: shortly, and not where nothing is to move."""

from collections.abc import Callable

from PySide6.QtCore import QEasingCurve, QVariantAnimation
from PySide6.QtWidgets import QStyle, QWidget

LONGEST = 120  # ms


def time_to_move(widget: QWidget) -> int:
    """Return how long a motion takes [ms], 0 where the desktop wants none."""
    hint = QStyle.StyleHint.SH_Widget_Animation_Duration
    return min(widget.style().styleHint(hint, None, widget), LONGEST)


class Motion:
    """A value that a widget draws: it goes to where it is sent, and `moved` is told each step.

    A hand that drags is followed at once, and so is everything while the widget is not seen.
    """

    def __init__(self, widget: QWidget, moved: Callable[[], object]) -> None:
        self._widget, self._moved = widget, moved
        self.value = 0.0
        self._way = QVariantAnimation(widget)
        self._way.setEasingCurve(QEasingCurve.Type.OutCubic)
        self._way.valueChanged.connect(self._step)

    def go(self, value: float, *, at_once: bool = False) -> None:
        """Go to a value from where it is now."""
        self._way.stop()
        time = 0 if at_once or not self._widget.isVisible() else time_to_move(self._widget)
        if not time or value == self.value:
            self._step(value)
            return
        self._way.setDuration(time)
        self._way.setStartValue(self.value)
        self._way.setEndValue(value)
        self._way.start()

    def _step(self, value: float) -> None:
        self.value = value
        self._moved()
