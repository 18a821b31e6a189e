"""What a control is, said to who comes to it by keys as to who points at it."""

from PySide6.QtCore import QObject, QPoint
from PySide6.QtWidgets import QApplication, QToolTip, QWidget

from urgens.ui.widgets.timers import once

REST = 700  # ms on a control until its tip is shown, as long as under the pointer


class FocusTips(QObject):
    """Shows the tool tip of what has the focus, once the keys rest there; the next key ends it."""

    def __init__(self, application: QApplication) -> None:
        super().__init__(application)
        self._rest = once(self, REST, self._say)
        application.focusChanged.connect(self._moved)

    def _moved(self, _before: QWidget | None, now: QWidget | None) -> None:
        if QToolTip.isVisible():
            QToolTip.hideText()
        self._rest.stop()
        # Under the pointer the tip comes by itself, and who has just clicked knows what is there.
        if now is not None and now.toolTip() and not now.underMouse():
            self._rest.start()

    def _say(self) -> None:
        control = QApplication.focusWidget()
        if control is None or not control.isVisible():
            return
        below = control.mapToGlobal(QPoint(0, control.height() + 2))
        QToolTip.showText(below, control.toolTip(), control)
