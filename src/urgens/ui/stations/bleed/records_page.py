"""What was done before: run by run or wheel by wheel, and what the readings tell."""

from collections.abc import Iterator
from functools import partial

from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QToolButton, QVBoxLayout, QWidget

from urgens.document import Build
from urgens.document.ledger.records import ProcedureRun, RecordEntry
from urgens.guidance.advice.travel_reading import (
    MORE,
    flow_words,
    later_words,
    strokes_words,
    travel_words,
)
from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.limits import limits_of
from urgens.guidance.condition.standing import outcome_of
from urgens.guidance.procedures.amounts import swept
from urgens.guidance.procedures.facts import FARTHEST, said
from urgens.guidance.procedures.records import title_of
from urgens.guidance.procedures.step import Wheel
from urgens.guidance.procedures.step_readings import shown_reading
from urgens.guidance.words.figures import FigureWords
from urgens.ui.session import Session
from urgens.ui.stations.bleed.travel_form import TIMES, TravelForm
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import worded, wrapped

NONE = "Nothing has been done yet: the card keeps every run here, in the build's own file."
NOT_YET = "It has a time that is not yet by this machine's clock: that proves nothing."
NO_WHEEL = "Nothing was read at this wheel."
LATER = (
    "Air hides behind a firm pedal and shows low after hours; clearance goes on the first strokes, "
    "air stays."
)
VIEWS = {"run": "Run by run", "wheel": "Wheel by wheel"}


class RecordsPage(Page):
    """The runs, the latest first, or the history of each wheel."""

    kept = ("view",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._view = "run"
        self.views: dict[str, QToolButton] = {}
        self._list = QVBoxLayout()
        inner = QWidget()
        inner.setLayout(self._list)
        whole = QWidget()
        column = tight(QVBoxLayout(whole))
        column.addLayout(self._switch())
        column.addWidget(scrolled(inner, "What was done"), 1)
        self.travel = TravelForm(session)
        self.head("Read the pedal again")
        self.column.addWidget(self.travel)
        self.column.addWidget(wrapped("muted", LATER))
        self.column.addStretch()
        self.lay_out(whole)
        self.said.hide()

    def _switch(self) -> QHBoxLayout:
        row, group = QHBoxLayout(), QButtonGroup(self)
        row.setSpacing(2)
        for view, words in VIEWS.items():
            button = segment(words)
            button.setProperty("narrow", "true")
            button.clicked.connect(partial(self._choose, view))
            group.addButton(button)
            self.views[view] = button
            row.addWidget(button)
        row.addStretch()
        return row

    @property
    def view(self) -> str:
        """Whether it is told run by run or wheel by wheel."""
        return self._view

    @view.setter
    def view(self, view: str) -> None:
        self._view = view
        self._show()

    def _choose(self, view: str) -> None:
        self.view = view

    @property
    def summary(self) -> str:
        """How many there are."""
        kept = len(self.session.base.records)
        return "one run kept in the build" if kept == 1 else f"{kept} runs kept in the build"

    def show_figures(self) -> None:
        """Show the runs as they are now."""
        clear(self._list)
        for view, button in self.views.items():
            button.setChecked(view == self._view)
        records = self.session.base.records
        if not records:
            self._list.addWidget(wrapped("muted", NONE))
        told = self._by_run(records) if self._view == "run" else self._by_wheel(records)
        for title, words in told if records else ():
            self._list.addWidget(worded(title, "heading"))
            self._list.addWidget(wrapped("muted", words))
        self._list.addStretch()
        self.travel.show_press()

    # --- in words --------------------------------------------------------------------------

    def _by_run(self, records: tuple[ProcedureRun, ...]) -> Iterator[tuple[str, str]]:
        later = condition(self.session.base).standing.future
        for index, record in reversed(tuple(enumerate(records))):
            lines = [*([NOT_YET] if f"records[{index}]" in later else []), *self._lines(record)]
            yield _title(self.session.base, record), "\n".join(lines) or "nothing was read"

    def _lines(self, record: ProcedureRun) -> Iterator[str]:
        """Yield what is told of a run: who, which fluid, each wheel, and what it means."""
        words = FigureWords(self.session.units)
        if record.people:
            yield f"By {', '.join(record.people)}"
        if record.fluid is not None:
            batch = f", batch {record.fluid.batch}" if record.fluid.batch else ""
            opened = f", opened {record.fluid.opened}" if record.fluid.opened else ""
            yield f"Fluid {record.fluid.grade}{batch}{opened}"
        for wheel in FARTHEST:
            yield from self._at(record, wheel)
        for entry in record.entries:
            if entry.wheel is None:
                read = self._read(entry)
                yield f"{read[:1].upper()}{read[1:]}"
        yield from filter(None, (strokes_words(record, words), later_words(record, words)))
        if any(one.field == "travel" for one in record.entries):
            yield MORE
        if record.checked_by:
            yield f"Checked by {record.checked_by}"
        if record.moved_without_proof:
            yield f"Moved without every proof, because: {record.moved_without_proof}"
        if record.note:
            yield record.note

    def _at(self, record: ProcedureRun, wheel: Wheel) -> Iterator[str]:
        """Yield what was read at a wheel, and what the fluid caught there tells."""
        found = [self._read(one) for one in record.entries if one.wheel == wheel]
        if found:
            yield f"{said(wheel).capitalize()}: {', '.join(found)}"
        flow = flow_words(record, wheel, swept(self.session.build, wheel))
        if flow:
            yield f"    {flow}"

    def _read(self, entry: RecordEntry) -> str:
        when = "" if entry.when in (None, "now") else f" {TIMES[str(entry.when)]}"
        read = f"{entry.field}{when} {shown_reading(entry.field, entry.value, self.session.units)}"
        read += f", booster {entry.booster}" if entry.booster else ""
        tells = travel_words(limits_of(self.session.build), entry, FigureWords(self.session.units))
        return f"{read}: {tells}" if tells else read

    def _by_wheel(self, records: tuple[ProcedureRun, ...]) -> Iterator[tuple[str, str]]:
        for wheel in FARTHEST:
            lines = []
            for record in reversed(records):
                found = [self._read(one) for one in record.entries if one.wheel == wheel]
                if found:
                    lines.append(f"{record.started:%Y-%m-%d}  {', '.join(found)}")
            yield said(wheel).capitalize(), "\n".join(lines) or NO_WHEEL


def _title(build: Build, record: ProcedureRun) -> str:
    day = record.started.isoformat(sep=" ", timespec="minutes")
    how = f", {record.method}" if record.method else ""
    told = outcome_of(build, record).words
    left = f", {told}" if told else ""
    return f"{day}  {title_of(record.procedure)}{how}{left}"
