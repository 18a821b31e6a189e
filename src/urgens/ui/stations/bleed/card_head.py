"""The top of the card: how far the run is, the number of the step, what is to be done, and why."""

from PySide6.QtWidgets import QHBoxLayout, QProgressBar, QVBoxLayout, QWidget

from urgens.ui.theme.paint import T
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded, wrapped

NUMBER = 96  # px of the number of a step
GAP = 16  # px between the number and what it says


class CardHead(QWidget):
    """Read at two metres."""

    def __init__(self) -> None:
        super().__init__()
        self.number, self.of = worded("", "step"), worded("", "muted")
        self.sentence, self.why = wrapped("sentence"), wrapped("muted")
        self.progress = QProgressBar()
        self.progress.setTextVisible(False)
        self.progress.setFixedHeight(8)
        head, left, words = QHBoxLayout(), QVBoxLayout(), QVBoxLayout()
        head.setSpacing(GAP)
        left.setSpacing(0)
        self.number.setMinimumHeight(round(NUMBER * T.scale))
        self.number.setMinimumWidth(round(NUMBER * T.scale))
        for widget in (self.number, self.of):
            left.addWidget(widget)
        left.addStretch()
        for widget in (self.sentence, self.why):
            words.addWidget(widget)
        words.addStretch()
        head.addLayout(left)
        head.addLayout(words, 1)
        column = tight(QVBoxLayout(self), 6)
        column.addWidget(self.progress)
        column.addLayout(head)

    def show_number(self, number: int | None, count: int) -> None:
        """Show which step of how many it is; None: none is under way."""
        going = number is not None
        self._show_progress(number - 1 if number is not None else 0, max(count, 1))
        self.number.setText(str(number) if going else "")
        self.number.setVisible(going)
        self.of.setText(f"of {count}" if going else "")

    def _show_progress(self, done: int, count: int) -> None:
        if (self.progress.value(), self.progress.maximum()) == (done, count):
            return
        self.progress.setUpdatesEnabled(False)  # else it is painted at once, before all the rest
        self.progress.setMaximum(count)
        self.progress.setValue(done)
        self.progress.setUpdatesEnabled(True)

    def show_words(self, sentence: str, why: str) -> None:
        """Show what is to be done, and why."""
        self.sentence.setText(sentence)
        self.why.setText(why)
