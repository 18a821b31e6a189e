"""The picture of the fault, and beside it what a foreman would say of it."""

from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QBoxLayout, QVBoxLayout, QWidget

from urgens.guidance.tracing.fault_places import FaultPlace
from urgens.guidance.tracing.foreman import sentences
from urgens.guidance.tracing.trace import Traced
from urgens.ui.stations.trace.fault_picture import FaultPicture, told
from urgens.ui.theme.paint import T
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded, wrapped

BESIDE = 480  # px from which the words stand beside the picture


class FaultWhere(QWidget):
    """Picture, three sentences, and the place that is looked at with its causes."""

    def __init__(self) -> None:
        super().__init__()
        self.picture = FaultPicture()
        self.picture.chosen.connect(self._show_place)
        self.said = tuple(wrapped("heading" if one == 0 else "muted") for one in range(3))
        self.place = wrapped("small")
        self._words: dict[str, str] = {}  # of causes
        self._row = tight(QBoxLayout(QBoxLayout.Direction.TopToBottom, self), 14)
        drawn, told_ = QWidget(), QWidget()
        left, right = tight(QVBoxLayout(drawn), 4), tight(QVBoxLayout(told_), 6)
        left.addWidget(worded("Where it may sit, of 100", "heading"))
        left.addWidget(self.picture)
        left.addWidget(self.place)
        for one in self.said:
            right.addWidget(one)
        right.addStretch()
        self._row.addWidget(drawn, 6)
        self._row.addWidget(told_, 5)

    def show_found(self, trace: Traced, places: tuple[FaultPlace, ...]) -> None:
        """Show where a fault may sit, and what follows."""
        self._words = {one.id: one.words for one in trace.tracing.causes}
        self.picture.show_places(places, crossed=trace.tracing.build.split == "diagonal")
        for label, words in zip(self.said, sentences(trace, places), strict=True):
            label.setText(words)
        self._show_place()

    def _show_place(self, _: str = "") -> None:
        """Say what is at the place that is looked at."""
        place = self.picture.place
        if place is None:
            return
        causes = [self._words[one] for one in place.causes[:2]]
        of = f" ({'; '.join(causes)})" if causes and not place.out else ""
        self.place.setText(f"{told(place)}{of}.")

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        wide = self.width() / T.scale >= BESIDE
        way = QBoxLayout.Direction.LeftToRight if wide else QBoxLayout.Direction.TopToBottom
        if self._row.direction() != way:
            self._row.setDirection(way)
