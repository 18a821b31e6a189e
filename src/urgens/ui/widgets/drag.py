"""The one way a hand drags: taken hold of, drawn along, let go of, or put back with Esc."""

from collections.abc import Callable
from typing import Protocol

from PySide6.QtCore import QEvent, QObject, QPointF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QWidget

from urgens.ui.widgets.painted import Painted


class Steps(Protocol):
    """What is changed by dragging, such as the session: all of one drag is one step."""

    def begin_drag(self) -> None: ...
    def end_drag(self) -> None: ...
    def cancel_drag(self) -> None: ...


class WidgetDrag(QObject):
    """One drag at a time on a widget; all that it does is one step.

    Who takes hold says so by `begin`, `move` and `end`. A widget that is hidden is let go of.
    """

    def __init__(
        self,
        widget: QWidget,
        steps: Steps,
        *,
        moved: Callable[[QPointF], None],
        left: Callable[[], None] | None = None,
    ) -> None:
        super().__init__(widget)
        self.held = False
        self._widget, self._steps = widget, steps
        self._moved, self._left = moved, left or widget.update
        widget.installEventFilter(self)

    def begin(self) -> None:
        """Take hold."""
        self.held = True
        self._steps.begin_drag()
        self._widget.update()

    def move(self, spot: QPointF) -> None:
        """Draw along, unless it was put back meanwhile."""
        if self.held:
            self._moved(spot)

    def end(self) -> None:
        """Let go: what was done is one step."""
        if self.held:
            self.held = False
            self._steps.end_drag()
            self._left()

    def cancel(self) -> None:
        """Put back what was done; what the mouse does until its button is up no longer counts."""
        if self.held:
            self.held = False
            self._steps.cancel_drag()
            self._left()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if not self.held:
            return False
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            if event.key() == Qt.Key.Key_Escape:
                self.cancel()
                return True
        elif event.type() == QEvent.Type.Hide:
            self.end()
        return False


class PaintedDrag(WidgetDrag):
    """The drag of something that a widget paints.

    `taken` tells whether a spot takes hold of it; `begun` does what the press itself does.
    """

    def __init__(
        self,
        widget: Painted,
        steps: Steps,
        *,
        taken: Callable[[QPointF], bool],
        begun: Callable[[QPointF], None] | None = None,
        moved: Callable[[QPointF], None],
        left: Callable[[], None] | None = None,
    ) -> None:
        super().__init__(widget, steps, moved=moved, left=left)
        self._painted, self._taken, self._begun = widget, taken, begun

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QMouseEvent):
            return self._mouse(event)
        return super().eventFilter(watched, event)

    def _mouse(self, event: QMouseEvent) -> bool:
        """Follow the mouse; tell whether what it did belongs to the drag."""
        spot, kind = self._painted.spot(event), event.type()
        left = event.button() == Qt.MouseButton.LeftButton
        if kind == QEvent.Type.MouseButtonPress and left and self._taken(spot):
            self._painted.setFocus(Qt.FocusReason.MouseFocusReason)
            self.begin()
            if self._begun is not None:
                self._begun(spot)
            return True
        if not self.held:
            return False
        if kind == QEvent.Type.MouseMove:
            self.move(spot)
        elif kind == QEvent.Type.MouseButtonRelease and left:
            self.end()
        return True
