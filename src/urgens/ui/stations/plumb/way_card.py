"""A card of one way to lay a build, or of one conversion: looked at, and laid by its button."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout

from urgens.ui.theme.paint import T
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.worded import wrapped

WIDE = 96  # px of the button


class WayCard(QFrame):
    """Its name, what is lost with it, what it takes; chosen to be looked at, or laid."""

    chosen = Signal()
    laid = Signal()

    def __init__(self, name: str, loses: str, takes: str, *, action: str, done: str = "") -> None:
        super().__init__()
        self.setObjectName("card")
        self.setProperty("fitted", "true" if done else "false")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(f"{name}. {loses} {takes}")
        words = spaced(QVBoxLayout(), 1)
        self.name = wrapped("heading", name)
        words.addWidget(self.name)
        words.addWidget(wrapped("muted", loses))
        words.addWidget(wrapped("small", takes))
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 6, 8, 6)
        row.addLayout(words, 1)
        self.button = QPushButton(done or action)
        self.button.setFixedWidth(round(WIDE * T.scale))
        self.button.setEnabled(not done)
        self.button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.button.clicked.connect(self.laid)
        row.addWidget(self.button)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus(Qt.FocusReason.MouseFocusReason)

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.chosen.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if Qt.Key(event.key()) in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.button.isEnabled():
            self.laid.emit()
        else:
            event.ignore()
