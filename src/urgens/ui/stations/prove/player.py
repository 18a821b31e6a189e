"""Plays a stop at a rate, or stands where it is slid to."""

from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QSlider, QToolButton, QWidget

from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.timers import again

TICK = 40  # ms
RATES = {"0.25": 0.25, "0.5": 0.5, "1": 1.0, "2": 2.0}  # times as fast as it is
STEPS = 1000  # of the slider
PLAY = "Play  P"
STOP = "Stop  P"


class Player(QWidget):
    """`moved` tells how much of the stop has gone by [-]."""

    moved = Signal(float)

    def __init__(self) -> None:
        super().__init__()
        self.play, self.rate = QPushButton(PLAY), "1"
        self.longest = 0.1  # s, of what is played
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setRange(0, STEPS)
        self.slider.setAccessibleName("How far the stop has got")
        self.slider.valueChanged.connect(self._slid)
        self.play.setProperty("role", "quiet")
        self.play.clicked.connect(self.start_or_stop)
        self._timer = again(self, TICK, self._go_on)
        row = tight(QHBoxLayout(self))
        row.addWidget(self.play)
        row.addWidget(self.slider, 1)
        group = QButtonGroup(self)
        self.rates: dict[str, QToolButton] = {}
        for words in RATES:
            button = segment(f"{words}×")
            button.setProperty("narrow", "true")
            button.setChecked(words == self.rate)
            button.clicked.connect(partial(self._set_rate, words))
            group.addButton(button)
            self.rates[words] = button
            row.addWidget(button)

    def show_end(self, longest: float) -> None:
        """Stand at the end of a stop that takes so many seconds."""
        self.longest = max(longest, 0.1)
        if self.slider.value() == STEPS:
            self._slid(STEPS)  # of another stop
        self.slider.setValue(STEPS)

    def start_or_stop(self) -> None:
        """Play from the start, or stop where it is."""
        if self._timer.isActive():
            self._halt()
            return
        if self.slider.value() >= STEPS:
            self.slider.setValue(0)
        self.play.setText(STOP)
        self._timer.start()

    def _halt(self) -> None:
        self._timer.stop()
        self.play.setText(PLAY)

    def _set_rate(self, rate: str) -> None:
        self.rate = rate

    def _go_on(self) -> None:
        ahead = TICK / 1000.0 * RATES[self.rate] / self.longest * STEPS
        value = self.slider.value() + max(round(ahead), 1)
        self.slider.setValue(min(value, STEPS))
        if value >= STEPS:
            self._halt()

    def _slid(self, value: int) -> None:
        self.moved.emit(value / STEPS)

    def hideEvent(self, event: QHideEvent) -> None:
        self._halt()
        super().hideEvent(event)
