"""Two gauges across a valve: dials, plot, fit, what to read next, and the standing proofs."""

from typing import ClassVar

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QHideEvent, QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.bench.gauges.as_measured import as_measured
from urgens.bench.proof_state import Gauged, gauged
from urgens.bench.sentences import verdict_words
from urgens.document import BuildChange, BuildErrors
from urgens.guidance.condition.proofs import standing_proofs
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import PRESSURE, retype
from urgens.studies.expected_pressures import gauged_valves, place_of
from urgens.studies.valve_verdict import rising
from urgens.ui.session import Session
from urgens.ui.stations.prove.box_bar import BoxBar
from urgens.ui.stations.prove.dials import Dials
from urgens.ui.stations.prove.dials_shown import dials_shown, usual
from urgens.ui.stations.prove.gauge_plane import GaugePlane
from urgens.ui.stations.prove.gauge_scale import GaugeScale, in_use
from urgens.ui.stations.prove.lever_panel import LeverPanel
from urgens.ui.stations.prove.measured import (
    add_lever,
    add_reading,
    begin_anew,
    drop_lever,
    drop_reading,
)
from urgens.ui.stations.prove.proofs_list import ProofsList
from urgens.ui.stations.prove.readings_table import ReadingsTable
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.worded import worded, wrapped

NO_VALVE = (
    "No valve is fitted that gauges could read: nothing takes pressure off between the cylinder "
    "and the brakes. Prove the rest standing, then on the road."
)
FALLS = 0.03  # of the gauges' scale under the highest reading: the pedal is coming up
SIDE = 300


class GaugesPage(Page):
    """One valve at a time; a reading is typed, or taken from a box that speaks."""

    kept: ClassVar[tuple[str, ...]] = ("valve",)
    log_written = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.valve = ""
        self.found: Gauged | None = None
        self.bar = BoxBar(session)
        self.bar.changed.connect(self._follow_box)
        self.bar.log_written.connect(self.log_written)
        self.bar.started_anew.connect(self._another_stand_in)
        self.dials, self.plane = Dials(), GaugePlane(session)
        self.verdict, self.beneath = wrapped("sentence"), wrapped("muted")
        self.empty, self.state = wrapped("muted", NO_VALVE), wrapped("small")
        self.state.hide()
        self.bar.said.connect(self._say)
        self.proofs, self.table = ProofsList(), ReadingsTable(session)
        self.proofs.asked.connect(self._ask_card)
        self.lever = LeverPanel(session)
        self.lever.moved.connect(self._move_lever)
        self.lever.typed.connect(self._lever_typed)
        self.lever.asked.connect(self._read_lever)
        self.lever.dropped.connect(self._lever_dropped)
        self.table.typed.connect(self._typed)
        self.table.dropped.connect(self._dropped)
        self.valves, self.scale = SegmentRow(), GaugeScale(session)
        self.valves.chosen.connect(self.choose)
        self.fit_one = QPushButton("Choose a valve…")
        self.take, self.measure, self.again = (QPushButton() for _ in range(3))
        self._beside()
        self.lay_out(self._drawing(), side=SIDE)
        self.said.hide()
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        session.press_changed.connect(self._show_dials)

    def _drawing(self) -> QWidget:
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 4)
        head = QHBoxLayout()
        head.addWidget(self.valves)
        head.addStretch()
        head.addWidget(self.bar)
        column.addLayout(head)
        column.addWidget(self.empty)
        self.fit_one.setProperty("role", "quiet")
        self.fit_one.clicked.connect(lambda: self.place_asked.emit("valves.rear"))
        column.addWidget(self.fit_one, 0, Qt.AlignmentFlag.AlignLeft)
        self.sample = Sample(self.session, "gauges")
        column.addWidget(self.sample)
        column.addWidget(self.dials)
        self.axes = worded("", "heading"), worded("", "heading")
        column.addWidget(self.axes[0])
        column.addWidget(self.plane, 1)
        self.axes[1].setAlignment(Qt.AlignmentFlag.AlignRight)
        column.addWidget(self.axes[1])
        column.addWidget(self.verdict)
        column.addWidget(self.beneath)
        column.addLayout(self._work())
        column.addStretch()  # takes the room where the plot does not
        return whole

    def _work(self) -> QHBoxLayout:
        row = QHBoxLayout()
        for button, words, act, main in (
            (self.take, "Take this reading\nSpace: foot held still", self.take_reading, True),
            (self.measure, "Take as measured\nEnter: into the build", self.take_measured, False),
            (self.again, "Again\nfrom 0", self.begin_again, False),
        ):
            button.setText(words)
            button.setAccessibleName(words.replace("\n", ", "))
            button.setProperty("role", "work")
            button.setProperty("main", "true" if main else "false")
            button.clicked.connect(act)
            row.addWidget(button, 2 if button is not self.again else 1)
        return row

    def _beside(self) -> None:
        self.column.addWidget(self.state)
        self.head("Standing proofs")
        self.count = worded("", "small")
        self.column.addWidget(self.count)
        self.column.addWidget(self.proofs)
        self.table_head = self.head("Into it and out of it")
        self.column.addWidget(self.table)
        self.column.addWidget(self.lever)
        self.column.addWidget(self.scale)
        self.column.addStretch()

    # --- what is shown -----------------------------------------------------------------------

    @property
    def summary(self) -> str:
        """How far the proofs are."""
        return f"standing proofs: {self.proofs.words}"

    def show_figures(self) -> None:
        """Show the valve chosen as it is read so far, and the proofs."""
        build = self.session.build
        valves = gauged_valves(build)
        if self.valve not in valves:
            self.valve = valves[-1] if valves else ""
        self.bar.valve = self.valve
        self.valves.show_choices({one: self._name(one) for one in valves}, self.valve)
        read = gauged(build)
        self.proofs.show_proofs(standing_proofs(build))
        self.count.setText(self.proofs.words)
        there = bool(self.valve)
        shown = (self.dials, self.plane, self.verdict, self.beneath, self.table_head, self.table,
                 self.lever)  # fmt: skip
        actions = (self.take, self.measure, self.again, self.bar)
        for widget in (*shown, *self.axes, *actions):
            widget.setVisible(there)
        self.empty.setVisible(not there)
        self.fit_one.setVisible(not there)
        self.sample.setVisible(not there)
        self.found = next((one for one in read if one.valve == self.valve), None)
        if self.found is not None:
            self._show_found(self.found)

    def _name(self, valve: str) -> str:
        axle, place = place_of(valve)
        several = sum(one.startswith(axle) for one in gauged_valves(self.session.build)) > 1
        return f"{axle.capitalize()} valve" + (f" {place + 1}" if several else "")

    def _show_found(self, gauged: Gauged) -> None:
        self.plane.show_read(gauged)
        out, into = self.plane.axes
        self.axes[0].setText(out)
        self.axes[1].setText(into)
        self.table.show_read(gauged)
        self.lever.show_read(gauged, self.bar.box.simulated)
        words = FigureWords(self.session.units)
        if gauged.read is None:
            asked = "" if gauged.next is None else words.pressure(gauged.next)
            self.verdict.setText("Nothing read yet")
            self.beneath.setText(
                f"Fit a gauge before and one behind it, bleed both; begin at {asked}. Type what "
                "they show beside the pressures, or let a box speak."
            )
        else:
            verdict, beneath = verdict_words(gauged.read, words)
            self.verdict.setText(verdict)
            told = f"{beneath} {self._readings(gauged)}"
            if gauged.run is not None and gauged.run.source == "simulated":
                told = f"Simulated: it proves nothing, and is not taken as measured. {told}"
            self.beneath.setText(told)
        change = self._change()
        self.measure.setEnabled(change is not None)
        self.again.setEnabled(gauged.run is not None)
        self.scale.show_found(gauged)
        self._show_dials()

    def _readings(self, gauged: Gauged) -> str:
        assert gauged.run is not None  # something was read
        up = sum(way == "rising" for _, _, way in gauged.run.points)
        down = len(gauged.run.points) - up
        words = FigureWords(self.session.units)
        more = "" if gauged.next is None else f" {words.pressure(gauged.next)} next."
        return f"{up} readings up, {down} down.{more}"

    def _show_dials(self) -> None:
        found = self.found
        if found is None or not self.isVisible():
            return
        live = self.bar.box.now if self.bar.box.open else None
        self.dials.show_pressures(dials_shown(found, live, self.session), self.session.units)
        pair = None
        if live is not None and live.inlet is not None and live.outlet is not None:
            pair = live.inlet, live.outlet
        self.plane.show_live(pair)
        self.take.setEnabled(self.bar.box.open)

    def _follow_box(self) -> None:
        """Show what the box says now; a lever is moved on the stand-in alone."""
        self._show_dials()
        if self.found is not None and self.lever.live != self.bar.box.simulated:
            self.lever.show_read(self.found, self.bar.box.simulated)

    # --- what is done ------------------------------------------------------------------------

    def choose(self, valve: str) -> None:
        """Look at another valve; the stand-in goes along."""
        simulated = self.bar.box.simulated
        self.bar.close_box()
        self.valve = self.bar.valve = valve
        self._show()
        if simulated:
            self.bar.start(True)

    def _say(self, words: str) -> None:
        self.state.setText(words)
        self.state.setVisible(bool(words))

    def _ask_card(self, name: str) -> None:
        self.place_asked.emit(f"procedure:{name}")

    def _typed(self, into: str, out: str) -> None:
        found = self.found
        if found is not None:
            self._add((into, out, "rising"))

    def _add(self, point: tuple[str, str, str]) -> None:
        found = self.found
        assert found is not None  # there is a valve
        add_reading(self.session, found.valve, self._index, point, self._gauge)
        self._show()

    @property
    def _gauge(self) -> dict[str, object]:
        """The gauges that are read, and whether a stand-in speaks for them."""
        return {**in_use(self.found, self.session), **self.bar.source}

    @property
    def _index(self) -> int | None:
        """The run that a reading belongs to: one of a stand-in never joins one of gauges."""
        found = self.found
        if found is None or found.run is None:
            return None
        same = (found.run.source == "simulated") == self.bar.box.simulated
        return found.index if same else None

    def _move_lever(self, place: object) -> None:
        """Move the lever of the stand-in; None puts its link on again."""
        self.bar.box.lever = place if isinstance(place, float) else None

    def _lever_typed(self, place: float, into: str, out: str) -> None:
        found = self.found
        if found is not None:
            point = (place, into, out)
            add_lever(self.session, found.valve, self._index, point, self._gauge)
            self._show()

    def _read_lever(self) -> None:
        """Take what the gauges show with the lever where it stands."""
        pair = self._steady()
        if pair is not None:
            units = self.session.units
            texts = [retype(max(one, 0.0), PRESSURE, units) for one in pair]
            self._lever_typed(self.lever.at, texts[0], texts[1])

    def _lever_dropped(self, place: int) -> None:
        if self.found is not None and self.found.index is not None:
            drop_lever(self.session, self.found.index, place)
            self._show()

    def _steady(self) -> tuple[float, float] | None:
        """Return what both gauges show, None where that cannot be said; why is told."""
        try:
            return self.bar.box.steady()
        except BuildErrors as errors:
            problem, remedy = errors.errors[0].problem, errors.errors[0].remedy
            self.beneath.setText(f"{problem.rstrip('.')}; {remedy}.")
            return None

    def _dropped(self, place: int) -> None:
        if self.found is not None and self.found.index is not None:
            drop_reading(self.session, self.found.index, place)
            self._show()

    def take_reading(self) -> None:
        """Take what both gauges show while the foot is held still."""
        found = self.found
        if found is None or not self.bar.box.open:
            return
        pair = self._steady()
        if pair is None:
            return
        into, out = pair
        highest, full = 0.0, usual(self.session)
        if found.run is not None:
            highest, full = float(rising(found.run)[0].max(initial=0.0)), found.run.full_scale.value
        way = "falling" if into < highest - FALLS * full else "rising"
        units = self.session.units
        self._add((retype(into, PRESSURE, units), retype(max(out, 0.0), PRESSURE, units), way))

    def _change(self) -> BuildChange | None:
        found = self.found
        if found is None or found.read is None or found.run is None:
            return None
        if found.run.source == "simulated":  # it says nothing of the vehicle
            return None
        return as_measured(self.session.build, found.read, self.session.units, found.run)

    def take_measured(self) -> None:
        """Take knee and slope into the build as measured."""
        change = self._change()
        if change is not None:
            self.session.make(change)

    def begin_again(self) -> None:
        """Begin a run of readings anew; those before stay on record and no longer count."""
        found = self.found
        if found is None or found.index is None:
            return
        begin_anew(self.session, found.valve, found.index, self._gauge)
        self._show()

    def _another_stand_in(self) -> None:
        """Begin anew where a stand-in was read: what it showed says nothing of another one."""
        run = None if self.found is None else self.found.run
        if run is not None and run.source == "simulated":
            self.begin_again()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Space and self.bar.box.open:
            self.take_reading()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.measure.isEnabled():
            self.take_measured()
        else:
            super().keyPressEvent(event)

    def hideEvent(self, event: QHideEvent) -> None:
        self.bar.close_box()
        super().hideEvent(event)
