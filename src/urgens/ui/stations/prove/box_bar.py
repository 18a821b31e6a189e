"""Which box is read: none, a port, or the simulated one; and what it says, recorded."""

import random
from functools import partial
from pathlib import Path

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QWidget

from urgens.bench.gauges.box_reader import ports
from urgens.bench.gauges.box_recording import as_log
from urgens.bench.logs.channels import Signals
from urgens.bench.logs.write import write_csv
from urgens.bench.plant.valve_faults import InjectedFault, fitting
from urgens.document import BuildErrors
from urgens.solve.system import system
from urgens.ui.session import Session
from urgens.ui.stations.prove.live_box import LiveBox
from urgens.ui.widgets.file_choice import CSV, file_to_write
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.plain import button_words

SIMULATED = "Simulated: an invented vehicle near this build; pull the press."
UNWRITTEN = "What was recorded is in no file yet: the menu of the box writes it."
LIVE = "Live, 100 a second."


class BoxBar(QWidget):
    """Opens and closes a box; `changed` when it said something or has another state.

    `said` is what the builder is to read of it; `log_written` where a record was written to.
    """

    changed = Signal()
    said = Signal(str)
    log_written = Signal(object)
    started_anew = Signal()  # another stand-in is read from here on

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.valve = ""
        self.unwritten: Signals | None = None  # what was recorded and is in no file yet
        self._of = "gauge box"  # what was recorded: a stand-in says that it is one
        self.box = LiveBox(session, self)
        self.box.spoke.connect(self._spoke)
        self.box.ended.connect(self._ended)
        self.fault: InjectedFault | None = None  # that the stand-in has
        self.hidden = False  # whether it is not told, for practice
        self.ports, self.simulate = QToolButton(), QPushButton("Simulated box")
        self.record = QPushButton("Record")
        self.ports.setProperty("role", "kind")
        self.ports.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self.ports)
        menu.aboutToShow.connect(self._offer)
        self.ports.setMenu(menu)
        row = tight(QHBoxLayout(self))
        row.addWidget(self.ports)
        for button, act in ((self.simulate, self.start), (self.record, self._record)):
            button.setProperty("role", "quiet")
            button.setCheckable(True)
            button.clicked.connect(act)
            row.addWidget(button)
        self.show_state()

    def show_state(self) -> None:
        """Show whether a box is read, and which."""
        box = self.box
        self.record.setEnabled(box.open)
        self.record.setChecked(box.recorded is not None)
        self.simulate.setChecked(box.simulated)
        words = "Simulated" if box.simulated else "Box" if box.open else "No box"
        self.ports.setText(words)
        self.ports.setAccessibleName(f"Gauge box: {words}")

    def _offer_faults(self, menu: QMenu) -> None:
        """Offer what can be wrong with the stand-in, one of them untold, for practice."""
        if self.hidden and self.fault is not None:
            menu.addAction("Tell what is wrong", self.tell)
        menu.addAction("As built", partial(self.choose_fault, None))
        menu.addAction("One of them, untold", self.choose_untold)
        for one in fitting(system(self._session.build)):
            words = button_words(f"{one.words[:1].upper()}{one.words[1:]}")
            menu.addAction(words, partial(self.choose_fault, one))

    def choose_fault(self, fault: InjectedFault | None, *, hidden: bool = False) -> None:
        """Let the stand-in have this wrong; readings of another one are begun anew."""
        self.fault, self.hidden = fault, hidden
        self.started_anew.emit()
        self.start(True)

    def choose_untold(self) -> None:
        """Let the stand-in have one thing wrong that is not told."""
        self.choose_fault(random.choice(fitting(system(self._session.build))), hidden=True)

    def tell(self) -> None:
        """Tell what is wrong with the stand-in."""
        assert self.fault is not None  # it was offered
        self.hidden = False
        self.show_state()
        self.said.emit(f"Simulated: {self.fault.words}.")

    def _spoke(self) -> None:
        box = self.box
        if box.recorded is None:
            skipped = f" {box.skipped} lines skipped: {box.said}" if box.skipped else ""
            self.said.emit((self._simulated if box.simulated else LIVE) + skipped)
        self.changed.emit()

    @property
    def _simulated(self) -> str:
        """What the stand-in is, and what is wrong with it as far as that is told."""
        if self.fault is None:
            return SIMULATED
        wrong = "something is wrong with it" if self.hidden else self.fault.words
        return f"{SIMULATED[:-1]}; {wrong}."

    def _ended(self, words: str) -> None:
        """Say that the port went away; what was recorded until then can be written at once."""
        self._set_aside()
        self.said.emit(words[:1].upper() + words[1:])
        self.show_state()
        self.changed.emit()
        if self.unwritten is not None:
            self.write_unwritten()

    def _set_aside(self) -> None:
        """End the recording, and keep what it holds until it is written, or another begins."""
        kept, self.box.recorded = self.box.recorded, None
        found = None if kept is None else as_log(kept)
        if found is not None:
            self.unwritten = found
            self._of = "simulated gauge box" if self.box.simulated else "gauge box"

    def write_unwritten(self) -> None:
        """Ask where what was recorded goes; it stays at hand where nobody says."""
        if self.unwritten is None:
            return
        path = file_to_write(self, "Write what was recorded", "gauges", ".csv", CSV)
        if path is not None:
            self.write_record(path, self.unwritten)
        else:
            self.said.emit(UNWRITTEN)

    def _offer(self) -> None:
        menu = self.ports.menu()
        menu.clear()
        found = ports()
        for port in found:
            menu.addAction(port, partial(self.listen, port))
        if not found:
            menu.addAction("No serial port here").setEnabled(False)
        if self.box.simulated:
            self._offer_faults(menu.addMenu("What is wrong with it"))
        if self.box.open:
            menu.addAction("Let go of it", self.close_box)
        if self.unwritten is not None:
            menu.addAction("Write what was recorded…", self.write_unwritten)

    def listen(self, port: str) -> None:
        """Read a port; what keeps it from being read is said."""
        try:
            self.box.listen(port)
        except BuildErrors as errors:
            self.said.emit(str(errors.errors[0]))
        self.show_state()
        self.changed.emit()

    def start(self, on: bool) -> None:
        """Start the stand-in across the valve, or let go of it."""
        if not on:
            self.close_box()
            return
        if self.fault is not None and not self.fault.fits(system(self._session.build)):
            self.fault, self.hidden = None, False  # its valve is gone
        self.box.simulate(self.valve, self.fault)
        self.show_state()
        self.changed.emit()

    def close_box(self) -> None:
        """Let go of the box; what it was recorded to say stays at hand."""
        self._set_aside()
        self.box.close()
        self.said.emit("" if self.unwritten is None else UNWRITTEN)
        self.show_state()
        self.changed.emit()

    def _record(self, on: bool) -> None:
        """Keep all that the box says until it is asked again, then write it to a file."""
        if on:
            self.box.recorded, self.unwritten = [], None
            self.said.emit("Recording: press, let go, and press Record again to write it.")
            return
        self._set_aside()
        if self.unwritten is None:
            self.said.emit("Nothing was recorded: the box said nothing meanwhile.")
            return
        self.write_unwritten()

    @property
    def source(self) -> dict[str, object]:
        """Where a reading comes from, as a run of gauges has it: nothing where it is typed."""
        if self.box.simulated:
            return {"source": "simulated"}
        return {"source": "box"} if self.box.open else {}

    def write_record(self, path: Path, signals: Signals) -> None:
        """Write what was recorded; what keeps it from being written is said."""
        try:
            write_csv(path, signals, (f"{self._of}, {self._session.base.name}",))
        except OSError as error:
            self.said.emit(f"It could not be written ({error.strerror}).")
            return
        self.unwritten = None
        self.said.emit(f"Written to {path.name}; it is among the logs.")
        self.log_written.emit(path)
