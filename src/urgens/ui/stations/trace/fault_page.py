"""One fault: what is seen, what it may come from, and the next cheapest test."""

from datetime import datetime
from typing import ClassVar

from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from urgens.bench.evidence_on_record import (
    RecordedEvidence,
    already_known,
    counting,
    evidence_of,
    of_logs,
    of_run,
)
from urgens.document import BuildErrors
from urgens.document.circuits import circuits_of
from urgens.guidance.faults.tables import tables
from urgens.guidance.faults.way_back import WayBack, lit, way_back
from urgens.guidance.procedures.records import title_of
from urgens.guidance.tracing.fault_places import fault_places
from urgens.guidance.tracing.ranking import TraceEvidence
from urgens.guidance.tracing.trace import Traced, last_change, traced
from urgens.guidance.words.figures import FigureWords
from urgens.guidance.words.parts import part_name
from urgens.ui.session import Session
from urgens.ui.stations.trace.cause_rows import CauseRows
from urgens.ui.stations.trace.done_list import DoneList
from urgens.ui.stations.trace.fault_run import FaultRun
from urgens.ui.stations.trace.fault_where import FaultWhere
from urgens.ui.stations.trace.first_signs import FirstSigns
from urgens.ui.stations.trace.reading_form import ReadingForm
from urgens.ui.stations.trace.seen_panel import WHEN, SeenPanel
from urgens.ui.stations.trace.test_card import TestCard
from urgens.ui.theme.paint import T
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import worded, wrapped

# px of the outer columns
LEFT = 262
RIGHT = 280


class FaultPage(Page):
    """Three columns under what stops the vehicle; every answer is an edit that can be undone."""

    kept: ClassVar[tuple[str, ...]] = ("cause",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.found: Traced | None = None
        self.run = FaultRun(session)
        self.cause, self._at = "", 0
        self._logged: tuple[RecordedEvidence, ...] = ()
        self._unread: tuple[str, ...] = ()
        self._wanted: tuple[object, ...] = ()
        self._work = Background(self)
        self._work.ended.connect(self._show_logs)
        self.seen_panel, self.causes, self.card = SeenPanel(), CauseRows(), TestCard()
        self.done, self.form, self.first = DoneList(), ReadingForm(), FirstSigns()
        self.where = FaultWhere()
        self.first_area = scrolled(self.first, "Signs")
        self.danger, self.unlike = QFrame(), wrapped("warned")
        self.danger_words = wrapped("danger")
        self.mend, self.mend_words = QFrame(), wrapped("muted")
        self.mend_title = wrapped("heading")
        self.mend_card, self.close_run, self.back = (QPushButton() for _ in range(3))
        self.lay_out(self._columns(), side=0)
        self.said.hide()
        self._connect()

    def _connect(self) -> None:
        self.first.seen.connect(lambda sign: self._answer(sign, True))
        self.seen_panel.answered.connect(self._answer)
        self.seen_panel.told.connect(self._tell_more)
        self.seen_panel.began.connect(self._begin_at)
        self.seen_panel.taken_back.connect(self.run.unsee)
        self.seen_panel.skipped.connect(self._show)
        self.seen_panel.left_out.connect(self.run.leave_out)
        self.seen_panel.unread.connect(self.run.unread)
        self.form.typed.connect(self.run.read)
        self.causes.chosen.connect(self.choose)
        self.causes.placed.connect(self._show_place)
        self.card.told.connect(self._tell)
        self.card.started.connect(lambda name: self.place_asked.emit(f"procedure:{name}"))
        self.card.another.connect(self._another)
        self.done.taken_back.connect(self.run.untell)

    def _columns(self) -> QWidget:
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 8)
        self.danger.setProperty("role", "stop")
        strip = QHBoxLayout(self.danger)
        strip.setContentsMargins(12, 7, 12, 7)
        strip.addWidget(self.danger_words, 1)
        column.addWidget(self.danger)
        column.addWidget(self.unlike)
        column.addWidget(self.first_area, 1)
        self.columns = QWidget()
        row = tight(QHBoxLayout(self.columns), 12)
        left = QWidget()
        into = QVBoxLayout(left)
        into.setContentsMargins(0, 0, 8, 0)
        into.addWidget(self.seen_panel)
        into.addWidget(self.form)
        into.addStretch()
        for one in (_column(left, "What is seen", LEFT), _line()):
            row.addWidget(one)
            if T.stands_back:  # it is answered from near
                one.hide()
        beside = QWidget()
        known = tight(QVBoxLayout(beside), 8)
        known.addWidget(self.where)
        below = tight(QHBoxLayout(), 12)
        below.addWidget(scrolled(self.causes, "Causes"), 1)
        below.addWidget(_line())
        self.tests_area = self._tests()
        below.addWidget(self.tests_area)
        known.addLayout(below, 1)
        row.addWidget(beside, 1)
        column.addWidget(self.columns, 1)
        return whole

    def _tests(self) -> QScrollArea:
        """Return the way back, the next test and what was tested, to be scrolled."""
        right = QWidget()
        tests = QVBoxLayout(right)
        tests.setContentsMargins(0, 0, 8, 0)
        for part in (self._mending(), self.card, self.done):
            tests.addWidget(part)
        tests.addStretch()
        return _column(right, "Tests", RIGHT)

    def _mending(self) -> QFrame:
        self.mend.setObjectName("card")
        column = QVBoxLayout(self.mend)
        column.setContentsMargins(14, 10, 14, 12)
        column.addWidget(worded("The way back", "caption"))
        column.addWidget(self.mend_title)
        column.addWidget(self.mend_words)
        for button, act in (
            (self.mend_card, self._start_mend),
            (self.close_run, self._end),
            (self.back, self._unchoose),
        ):
            button.setProperty("role", "quiet")
            button.clicked.connect(act)
            column.addWidget(button)
        self.close_run.setText("It is mended: close this fault")
        self.back.setText("Back to the tests")
        return self.mend

    # --- what is shown -----------------------------------------------------------------------

    @property
    def summary(self) -> str:
        """What it most likely is."""
        if self.found is None or not self.found.evidence.signs:
            return "no fault is followed"
        first = self.found.ranked[0]
        return f"{first.cause.words.lower()}: {100 * first.share:.0f} of 100"

    def show_figures(self) -> None:
        """Show what is known of the fault, and what it comes to."""
        build, session, run = self.session.build, self.session, self.run.run
        on_record = (*already_known(build), *self._logged)
        self._read_logs()
        counted: tuple[RecordedEvidence, ...] = ()
        if run is not None:
            counted = counting(on_record, run.began, run.left_out, run.taken_in)
        own, broken = TraceEvidence(), ""
        try:
            own = TraceEvidence() if run is None else of_run(run)
            found = traced(build, evidence_of(build, own, counted), session.solution.case)
        except BuildErrors as errors:  # of a file that was written by hand
            broken = "; ".join(f"{e.path}: {e.problem}" for e in errors.errors)
            found = traced(build, TraceEvidence())
        self.found = found
        self.form.show_in(session.units, boosted=build.booster.fitted)
        self.seen_panel.show_run(run, found, on_record, counted, last_change(build))
        begun = run is not None and bool(run.signs or run.tests or run.readings)
        self.first.show_signs(found.tracing.signs)
        self.first_area.setVisible(not begun)
        self.columns.setVisible(begun)
        if begun:
            self.where.show_found(found, fault_places(build, found))
        self.causes.show_found(found, FigureWords(session.units), self._places(found))
        self.card.show_test(found, self._at)
        self.card.setVisible(not self.cause)
        self.done.show_run(run)
        self._show_danger(found, broken)
        self._show_mend(found)

    def _read_logs(self) -> None:
        """Read the logs, away from the hand, where they are others than before."""
        proof, session = self.session.build.proof, self.session
        logs = () if proof is None else proof.logs
        wanted = (logs, session.path)
        if wanted == self._wanted or self.run.run is None:
            return
        self._wanted = wanted
        if not logs:
            self._logged, self._unread = (), ()
            return
        build, path = session.build, session.path
        self._work.run(lambda progress: of_logs(build, path), SOON)

    def _show_logs(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        self._logged, self._unread = found
        self._show()

    def _places(self, trace: Traced) -> dict[str, str]:
        """Return where the likeliest causes sit, by their ids."""
        circuits = circuits_of(self.session.build)
        said = {}
        for one in trace.ranked[:6]:
            parts = lit(self.session.build, one.cause)
            if circuits is None or not parts:
                continue
            first = part_name(circuits, circuits.parts[parts[0]])
            said[one.cause.id] = first if len(parts) == 1 else f"{len(parts)} places"
        return said

    def _show_danger(self, trace: Traced, broken: str) -> None:
        stops = trace.stops
        self.danger.setVisible(bool(stops))
        self.danger_words.setText(f"Do not drive. {stops[0]}" if stops else "")
        said = [f"One of the two is not so: {line}" for line in trace.contradictions]
        said += [f"Left out: {line}." for line in (*self._unread, broken) if line]
        self.unlike.setText("\n".join(said))
        self.unlike.setVisible(bool(said))

    def _show_mend(self, trace: Traced) -> None:
        cause = next((one.cause for one in trace.ranked if one.cause.id == self.cause), None)
        self.mend.setVisible(cause is not None)
        if cause is None:
            self.cause = ""
            return
        back = way_back(self.session.build, cause)
        self.mend_title.setText(cause.words)
        self.mend_words.setText(_back_words(back, self._names(back.opened)))
        self.mend_card.setText(f"Card: {title_of(back.mend)}")
        self.close_run.setEnabled(self.run.run is not None)

    def _names(self, parts: tuple[str, ...]) -> str:
        """Return parts of the layout as a builder says them."""
        circuits = circuits_of(self.session.build)
        if circuits is None:
            return ""
        return ", ".join(part_name(circuits, circuits.parts[one]).lower() for one in parts)

    # --- what is done ------------------------------------------------------------------------

    def _answer(self, sign: str, seen: bool) -> None:
        assert self.found is not None  # it is shown
        words = self.found.tracing.sign(sign).words
        self._at = 0
        instead = WHEN if sign in WHEN else ()  # it came in one way
        self.run.see(sign, seen, words if seen else f"Not: {words.lower()}", instead)

    def look_at(self, name: str) -> None:
        """Follow a sign that was seen elsewhere, where the layout can have it and it is not yet."""
        self._show()
        assert self.found is not None  # it is shown
        known = {one.id for one in self.found.tracing.signs}
        if name in known and name not in self.found.evidence.signs:
            self._answer(name, True)

    def _tell(self, test: str, outcome: str) -> None:
        assert self.found is not None  # it is shown
        asked = self.found.tracing.test(test)
        words = self.found.tracing.outcome(asked, outcome).words
        self._at = 0
        self.run.tell(test, outcome, f"{asked.words}: {words.lower()}")
        self.tests_area.verticalScrollBar().setValue(0)  # what is next begins with its title
        next(iter(self.card.outcomes.values()), self.card.other).setFocus()

    def _tell_more(self, sign: str, ask: str, answer: str) -> None:
        """Note an answer to what a sign asks besides."""
        assert self.found is not None  # it is shown
        words = self.found.tracing.sign(sign).words
        answers = {one.id: one.words for one in tables().ask(ask).answers}
        self.run.answer(sign, answer, answers, f"{words}: {answers[answer].lower()}")

    def _begin_at(self, since: object) -> None:
        assert since is None or isinstance(since, datetime)
        self.run.begin_at(since, "It began" if since is None else f"It began {since:%Y-%m-%d}")

    def _another(self) -> None:
        """Show the test that is next best."""
        self._at += 1
        if self.found is not None:
            self.card.show_test(self.found, self._at)

    def choose(self, cause: str) -> None:
        """Look at what mends a cause, and what follows."""
        self.cause = cause
        self._show()

    def _unchoose(self) -> None:
        self.choose("")

    def _show_place(self, cause: str) -> None:
        """Show where a cause sits, on the layout."""
        assert self.found is not None  # it is shown
        found = next(one.cause for one in self.found.ranked if one.cause.id == cause)
        self.place_asked.emit(lit(self.session.build, found)[0])

    def _start_mend(self) -> None:
        assert self.found is not None  # it is shown
        cause = next(one.cause for one in self.found.ranked if one.cause.id == self.cause)
        self.place_asked.emit(f"procedure:{cause.mend}")

    def _end(self) -> None:
        cause, self.cause, self._at = self.cause, "", 0
        self.run.end(cause, True, "Fault closed: mended")


def _back_words(back: WayBack, opened: str) -> str:
    said = []
    if back.bleeds:
        said.append(f"It opens a circuit{f': {opened}' if opened else ''}.")
        said.append("Bleed again what was open.")
    else:
        said.append("It opens no circuit: nothing to bleed.")
    if back.proves:
        said.append(f"Prove again: {', '.join(title_of(one).lower() for one in back.proves)}.")
    said.append("Have it looked at by somebody qualified before it is driven.")
    return " ".join(said)


def _column(inner: QWidget, name: str, across: int) -> QScrollArea:
    area = scrolled(inner, name)
    area.setFixedWidth(round(across * T.scale))
    return area


def _line() -> QFrame:
    line = QFrame()
    line.setFixedWidth(1)
    line.setProperty("role", "hairline")
    return line
