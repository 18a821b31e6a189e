"""Strokes on this step, and how many are left until a reservoir is low."""

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from urgens.guidance.procedures import ProcedureStep
from urgens.guidance.procedures.amounts import Amounts
from urgens.guidance.procedures.facts import both
from urgens.ui.widgets.worded import worded, wrapped

WARNED = 3  # strokes before the reservoir is low
GAP = 16  # px


class StrokeCounter(QWidget):
    """A large figure, and words beside it; what runs low is said before it does."""

    def __init__(self) -> None:
        super().__init__()
        self.count, self.words, self.low = worded("", "counter"), wrapped(), wrapped("danger")
        row, beside = QHBoxLayout(self), QVBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(GAP)
        beside.setSpacing(0)
        beside.addWidget(self.words)
        beside.addWidget(self.low)
        row.addWidget(self.count)
        row.addLayout(beside, 1)

    def show_strokes(
        self, step: ProcedureStep | None, strokes: int, since: int, needed: Amounts
    ) -> None:
        """Show the strokes of a step, None where none are counted.

        since: strokes on these reservoirs since they were filled; needed: what bleeding takes.
        """
        self.setVisible(step is not None)
        if step is None:
            return
        self.count.setText(str(strokes))
        known = [one for wheel in step.wheels if (one := needed.strokes.get(wheel)) is not None]
        told = [f"strokes at {both(step.wheels)}" if step.wheels else "strokes"]
        if known:
            told.append(f"about {max(known)} until it runs clear")
        if step.at == "bench":
            self.words.setText("strokes; the loops bring back what is pushed out")
            self.low.hide()
            return
        left = None if needed.until_low is None else max(needed.until_low - since, 0)
        if left is None:
            told.append("the reservoir is not measured: watch its level")
        elif left > WARNED:
            told.append(f"{left} left until the reservoir is low")
        self.words.setText("; ".join(told))
        self.low.setVisible(left is not None and left <= WARNED)
        self.low.setText(f"{left} left until the reservoir is low" if left else
                         "THE RESERVOIR IS LOW: top up now")  # fmt: skip

    def add(self, words: str) -> None:
        """Say one thing more of this step."""
        self.words.setText(f"{self.words.text()}; {words}")
