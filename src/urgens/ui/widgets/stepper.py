"""A captioned figure between a minus and a plus."""

from collections.abc import Callable

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QToolButton, QVBoxLayout, QWidget

from urgens.quantity import ShownFigure
from urgens.ui.theme.icons import icon
from urgens.ui.theme.paint import T
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.plain import plain_label


class Stepper(QWidget):
    """Steps by button, wheel or arrow keys; the figure can be typed as well."""

    stepped = Signal(int)

    def __init__(
        self,
        caption: str,
        accept: Callable[[str], None],
        *,
        color: str | None = None,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(parent)
        self._caption = plain_label(caption)
        self._caption.setProperty("role", "caption")
        self.label = DimensionLabel(caption, accept, size=24, color=color)
        self.label.stepped.connect(self.stepped)
        row = tight(QHBoxLayout(), 8)
        self.less = self._button("minus", f"{caption}: less", -1)
        self.more = self._button("plus", f"{caption}: more", 1)
        row.addWidget(self.less)
        row.addWidget(self.label, 0, Qt.AlignmentFlag.AlignVCenter)
        row.addWidget(self.more)
        row.addStretch()
        column = tight(QVBoxLayout(self), 4)
        column.addWidget(self._caption)
        column.addLayout(row)

    def _button(self, name: str, words: str, step: int) -> QToolButton:
        button = QToolButton()
        button.setProperty("role", "step")
        size = round(20 * T.scale)
        button.setIcon(icon(name, size))
        button.setIconSize(QSize(size, size))
        button.setAccessibleName(words)
        button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        button.setAutoRepeat(True)
        button.clicked.connect(lambda: self.stepped.emit(step))
        return button

    def show_buttons(self, shown: bool) -> None:
        """Show or hide minus and plus; keys, wheel and typing stay."""
        self.less.setVisible(shown)
        self.more.setVisible(shown)

    def set_caption(self, caption: str) -> None:
        """Name the figure."""
        self._caption.setText(caption)

    def set_value(self, figure: ShownFigure, typed: str) -> None:
        """Show a figure; `typed` is what typing starts with."""
        self.label.set_value(figure, typed)
