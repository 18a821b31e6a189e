"""A load-sensing valve's lever moved by hand: where it stands, what goes in, what comes out."""

from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QGridLayout, QPushButton, QSlider, QVBoxLayout, QWidget

from urgens.bench.proof_state import Gauged
from urgens.physics.valve_law import LoadSensingLaw
from urgens.quantity import PRESSURE
from urgens.studies.lever_verdict import LeverRead, LeverVerdict, read_lever
from urgens.ui.session import Session
from urgens.ui.stations.prove.number_label import NumberLabel
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped

WHOLE = 100  # of the slider: 0 is droop, 100 bump
WHAT = (
    "Link off, inlet held. Move the lever from droop to bump and back, and read on the way; then "
    "link back as it was."
)
WORDS = {
    LeverVerdict.FOLLOWS: "It follows both ways",
    LeverVerdict.STICKS: "It sticks: not the same on both ways",
    LeverVerdict.SEIZED: "Seized: the outlet does not move",
    LeverVerdict.TOO_FEW: "Too few readings to tell",
}


class LeverPanel(QWidget):
    """Shown for a load-sensing valve alone.

    `moved` tells where the lever is [-], None with the link on; `typed` a reading; `asked` that one
    is to be taken from the gauges; `dropped` the place of one that goes.
    """

    moved = Signal(object)
    typed = Signal(float, str, str)
    asked = Signal()
    dropped = Signal(int)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.live = False  # whether a stand-in's lever is moved
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setRange(0, WHOLE)
        self.slider.setAccessibleName("Lever, from droop to bump")
        self.slider.valueChanged.connect(self._slid)
        self.read, self.link = QPushButton("Read here"), QPushButton("Link on")
        self.verdict = wrapped("heading")
        self.place = NumberLabel("Lever at", "%", (0.0, 100.0), size=18, step=5.0)
        self.into = TypedLabel("Into it", PRESSURE, session.units, self._nothing, size=18)
        self.out = TypedLabel("Out of it", PRESSURE, session.units, self._nothing, size=18)
        self.add = QPushButton("Add it")
        self._rows = QGridLayout()
        self.gone: list[QPushButton] = []
        self._lay_out()

    def _nothing(self) -> None:
        """Typing moves nothing else here."""

    def _lay_out(self) -> None:
        column = tight(QVBoxLayout(self))
        column.addWidget(worded("Lever, by hand", "heading"))
        column.addWidget(wrapped("small", WHAT))
        column.addWidget(self.slider)
        grid = QGridLayout()
        for place, (button, act) in enumerate(
            ((self.read, self.asked.emit), (self.link, self._link), (self.add, self._add))
        ):
            button.setProperty("role", "small")
            button.clicked.connect(partial(act))
            if button is not self.add:
                grid.addWidget(button, 0, place)
        for place, label in enumerate((self.place, self.into, self.out)):
            grid.addWidget(worded(label.name, "small"), 1, place)
            grid.addWidget(label, 2, place)
        grid.addWidget(self.add, 2, 3)
        column.addLayout(grid)
        column.addLayout(self._rows)
        column.addWidget(self.verdict)

    def show_read(self, gauged: Gauged, live: bool) -> None:
        """Show what was read of a valve's lever."""
        self.live = live
        self.setVisible(isinstance(gauged.wanted.law, LoadSensingLaw))
        for widget in (self.slider, self.read, self.link):
            widget.setVisible(live)
        for label in (self.into, self.out):
            label.show_in(self._session.units)
        clear(self._rows)
        self.gone = []
        run = gauged.run
        for row, (place, into, out) in enumerate(() if run is None else run.lever):
            words = f"{100 * place:.0f} %: {into.text} in, {out.text} out"
            self._rows.addWidget(worded(words, "small"), row, 0)
            button = push_button("×", "small")
            button.setAccessibleName(f"Take the reading at {100 * place:.0f} % out")
            button.clicked.connect(partial(self.dropped.emit, row))
            self.gone.append(button)
            self._rows.addWidget(button, row, 1)
        read = None if run is None else read_lever(run, gauged.wanted)
        self.verdict.setText("" if read is None else lever_words(read))

    @property
    def at(self) -> float:
        """Where the slider has the lever [-]."""
        return self.slider.value() / WHOLE

    def _slid(self, value: int) -> None:
        self.moved.emit(value / WHOLE)

    def _link(self) -> None:
        self.moved.emit(None)

    def _add(self) -> None:
        into, out, place = self.into.quantity, self.out.quantity, self.place.value
        if into is not None and out is not None and place is not None:
            self.typed.emit(place / WHOLE, into.text, out.text)


def lever_words(read: LeverRead) -> str:
    """Return what a sweep says, and what was expected."""
    words = f"{WORDS[read.verdict]}: from {100 * read.least:.0f} to {100 * read.most:.0f} % of it"
    if read.expected is not None:
        low, high = (100 * one for one in read.expected)
        words += f"; in the build {low:.0f} to {high:.0f} %"
    return words + "."
