"""The work card: one step at a time, read at two metres, driven by keys."""

from typing import Any

from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QHideEvent, QKeyEvent, QShowEvent
from PySide6.QtWidgets import (
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from urgens.guidance.condition.holds import condition
from urgens.guidance.procedures import METHODS, Facts, Procedure, ProcedureStep
from urgens.guidance.procedures.dry_run import why_here
from urgens.guidance.procedures.facts import said
from urgens.guidance.procedures.people import Role, duties, roles, too_few
from urgens.guidance.procedures.records import title_of
from urgens.guidance.procedures.shuttle import NAME as RESET
from urgens.guidance.procedures.workshop import standing_before
from urgens.ui.session import Session
from urgens.ui.stations.bleed.awake import Awake
from urgens.ui.stations.bleed.beside import RunSidebar
from urgens.ui.stations.bleed.card_head import CardHead
from urgens.ui.stations.bleed.card_keys import act_of, letters
from urgens.ui.stations.bleed.card_state import CardState
from urgens.ui.stations.bleed.cards_out import cards_menu
from urgens.ui.stations.bleed.chooser import Chooser
from urgens.ui.stations.bleed.expected_text import expected_now, expected_text
from urgens.ui.stations.bleed.plan import BleedPlan
from urgens.ui.stations.bleed.readings import Readings
from urgens.ui.stations.bleed.run import PRESSED, CurrentRun
from urgens.ui.stations.bleed.stands_words import fitted_words
from urgens.ui.stations.bleed.start_form import StartForm
from urgens.ui.stations.bleed.stroke_counter import StrokeCounter
from urgens.ui.stations.bleed.timer import StepTimer
from urgens.ui.stations.bleed.work_buttons import Mode, WorkButtons
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.worded import wrapped


class CardPage(Page):
    """What to do now, to which wheel, who, why; what is read goes into the build for good."""

    kept = ("name", "method", "strokes", "since", "values", "people_count", "own", "paused",
            "gone_past")  # fmt: skip

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.run = CurrentRun(session)
        self.state = CardState(session, self.run)
        self._step: ProcedureStep | None = None  # that is shown
        self.method = Facts(session.build).by
        self.own: Role | None = None  # whose card is shown, None where it is everyone's
        self.strokes, self.since = 0, 0  # on this step; on these reservoirs since they were filled
        self.chooser = Chooser(lambda: session.build)
        self.form = StartForm(session)
        self.reading, self.timer = Readings(session), StepTimer()
        self.head_of = CardHead()
        self.number, self.progress = self.head_of.number, self.head_of.progress
        self.sentence, self.why = self.head_of.sentence, self.head_of.why
        self.fitted, self.counting = wrapped("fitted"), StrokeCounter()
        self.expecting = wrapped("muted")
        self.plan, self.beside = BleedPlan(), RunSidebar(self.run)
        self.setFocusProxy(self.plan)
        self.checked_by = QLineEdit()
        self.checked_by.setPlaceholderText("checked by")
        self.checked_by.setAccessibleName("Checked by")
        self.work = WorkButtons({
            "stroke": self.stroke, "again": self.again, "next": self.go_on,
            "bubbles": self.note_bubbles,
            "back": self.go_back, "trace": self.trace, "all-the-same": self.go_past,
            "leave": self.ask_to_leave, "give-up": self.give_up,
        })  # fmt: skip
        self.awake = Awake(self)
        self._lay_out()
        self._count_people()
        self.chooser.named.connect(self.choose)
        self.chooser.asked.connect(self._choose_method)
        self.form.counted.connect(self._show)
        self.beside.who.asked.connect(self.show_card_of)
        self.beside.photographs.clicked.connect(self._photograph)
        self.beside.why.clicked.connect(self._show)
        self.timer.started.connect(self.run.start_clock)
        self._take_up()

    # --- kept over a switch of theme ---------------------------------------------------------

    @property
    def name(self) -> str:
        """The procedure on the card."""
        return self.run.name

    @name.setter
    def name(self, name: str) -> None:
        self.run.name = name

    @property
    def paused(self) -> bool:
        """Whether the run is left as it stands, to go on later."""
        return self.state.paused

    @paused.setter
    def paused(self, paused: bool) -> None:
        self.state.paused = paused

    @property
    def gone_past(self) -> set[int]:
        """What has stopped the run, and a hand has gone past."""
        return self.state.gone_past

    @gone_past.setter
    def gone_past(self, places: set[int]) -> None:
        self.state.gone_past = places

    @property
    def values(self) -> dict[str, str]:
        """What is typed or chosen at this step."""
        return self.reading.values

    @values.setter
    def values(self, values: dict[str, str]) -> None:
        self.reading.values = values

    @property
    def people_count(self) -> int:
        """How many people come."""
        return self.form.count

    @people_count.setter
    def people_count(self, count: int) -> None:
        self.form.count = count

    # --- how it is laid out ------------------------------------------------------------------

    def _lay_out(self) -> None:
        card = QWidget()
        column = tight(QVBoxLayout(card), 6)
        column.addWidget(self.chooser)
        column.addWidget(self.head_of)
        column.addWidget(self.form)
        column.addWidget(self.fitted)
        column.addWidget(self.plan, 1)
        column.addWidget(self.counting)
        for one in (self.expecting, self.timer, self.reading, self.checked_by):
            column.addWidget(one)
        column.addWidget(self.work)
        self.beside.print.setMenu(
            cards_menu(
                self.beside.print,
                self.session,
                lambda: (self.run.procedure(self.method), self.form.count),
            )
        )
        self.column.addWidget(self.beside)
        self.lay_out(card)
        self.said.hide()

    @property
    def buttons(self) -> dict[str, QPushButton]:
        """The large buttons by what they do."""
        return self.work.named

    # --- what is shown ---------------------------------------------------------------------

    @property
    def summary(self) -> str:
        """Where the work is."""
        if self.run.record is None:
            return "a procedure made for this layout"
        passed = self.run.passed_over
        over = f"; {passed} passed without an answer" if passed else ""
        return f"step {self.run.number} of {len(self.run.procedure(None).steps)}{over}"

    def show_figures(self) -> None:
        """Show the card as it is now."""
        record, step = self.run.record, self.run.step
        going = record is not None
        found = self.run.procedure(self.method)
        self.state.look()
        mode = self.state.mode
        steps, number = found.steps, self.run.number
        way = self.run.shut_off if self.run.name == RESET else self.method
        method = record.method if record is not None else way
        self.chooser.show_choice(self.run.name, method, going=going)
        self.head_of.show_number(number if going else None, len(steps))
        open_ = condition(self.session.base).open_wheels
        named = ", ".join(map(said, open_))
        self._show_words(mode, step, named)
        self.form.setVisible(not going and found.allowed)
        self.form.ask(fluid=self.run.name in PRESSED, reason=self._overridable)
        self.plan.show_build(self.session.build)
        self.plan.show_steps(steps[: number - 1] if going else (), step, open_, found.begins,
                             {one.thing for one in steps if one.action == "fit"})  # fmt: skip
        self.fitted.setText(" · ".join(fitted_words(self.plan.stands)))
        self.fitted.setVisible(going and bool(self.fitted.text()))
        self._show_expected(found, step if mode is Mode.GOING else None)
        self._show_step(step if mode is Mode.GOING else None)
        self.work.show_for(
            mode, last=self.run.last, strokes=self.counts, open_=named,
            until_clear=self.run.back_to is not None,
        )  # fmt: skip
        self.buttons["next"].setEnabled(going or self._may_begin or self._overridable)
        self.beside.photographs.setVisible(going)
        self.beside.print.setEnabled(found.allowed and self._too_few is None)
        self.beside.why.setVisible(
            mode is Mode.GOING and step is not None and bool(why_here(found, number))
        )
        self.beside.show_run(
            self.session.build,
            found,
            self.form.count,
            self.own,
            self.awake.refused,
            doing=mode in (Mode.GOING, Mode.IDLE),
        )

    def _photograph(self) -> None:
        """Go to where photographs of this run are taken in, with the step that it is at."""
        self.place_asked.emit(f"photographs:records[{self.run.index}], step {self.run.number}")

    def _show_words(self, mode: Mode, step: ProcedureStep | None, open_: str) -> None:
        """Show what is to be done, or what is asked; open_: the screws that stand open."""
        if mode in (Mode.GOING, Mode.IDLE):
            self._show_doing(step)
            if open_ and mode is Mode.IDLE:
                said_of = f"A screw is open: {open_}. Shut it, and note it under As it stands."
                self.why.setText(said_of)
        else:
            self.head_of.show_words(*self.state.asked(mode, open_))
        if self.state.loose:
            self.why.setText(f"{self.state.loose} {self.why.text()}")

    def _show_doing(self, step: ProcedureStep | None) -> None:
        found = self.run.procedure(self.method)
        if step is not None:
            own = self._own_duty(found, step)
            why = self.state.first(f"All: {step.text}" if own else step.why)
            rounds = self.run.round
            why = f"Round {rounds}. {why}" if rounds > 1 else why
            told = why_here(found, self.run.number) if self.beside.why.isChecked() else ()
            self.head_of.show_words(own or step.text, " ".join([why, *told]))
            return
        refused = self.run.held or found.refused_because or self._too_few
        start = f"{title_of(self.run.name)}: {len(found.steps)} steps, made for this layout."
        why = "" if refused else "Enter begins. What is read is kept in the build."
        self.head_of.show_words(start if refused is None else f"Not so: {refused}.", why)

    def _own_duty(self, procedure: Procedure, step: ProcedureStep) -> str:
        """Return what the person whose card is shown does, empty where it is everyone's."""
        who = self._roles(procedure)
        if self.own is None or self.own not in who:
            return ""
        now = standing_before(procedure.steps, self.run.number, procedure.begins)
        return duties(who, step, now)[self.own]

    def _roles(self, procedure: Procedure) -> tuple[Role, ...]:
        return roles(procedure, self.form.count, bar=Facts(self.session.build).bar)

    def show_card_of(self, role: Role | None) -> None:
        """Show one person's card in place of everyone's; the same again shows everyone's."""
        self.own = None if role == self.own else role
        self._show()
        self.setFocus()

    def next_card(self) -> None:
        """Go on to the next person's card, behind the last to everyone's."""
        who = (None, *self._roles(self.run.procedure(self.method)))
        at = who.index(self.own) if self.own in who else 0
        self.own = who[(at + 1) % len(who)]
        self._show()

    def _show_step(self, step: ProcedureStep | None) -> None:
        """Show what a step asks for; the same step again keeps what is typed and its clock."""
        if step is not self._step or step is None:
            self._step = step
            self._take_up()
            self.timer.show_seconds(0 if step is None else step.seconds)
            passed = self.run.clock_passed()
            if step is not None and passed is not None:
                self.timer.begin(passed)
            self.reading.show_step(self.run.name, step, self.run.record)
        self.checked_by.setVisible(step is not None and self.run.last)
        self._show_counter(step)
        if step is not None and self.isVisible():
            self.awake.hold()

    def _show_expected(self, found: Procedure, step: ProcedureStep | None) -> None:
        """Show what the lines hold by the figures, and what is expected at a step."""
        now = expected_now(self.session, self.run, found)
        self.plan.show_fluid(None if now is None else now.now)
        told = ""
        if now is not None and step is not None:
            told = expected_text(self.session, self.run, found, step, now)
        self.expecting.setText(told)
        self.expecting.setVisible(bool(told))

    @property
    def _may_begin(self) -> bool:
        allowed = self.run.procedure(self.method).allowed
        allowed = allowed and self._too_few is None
        return allowed and (self.run.held is None or (self._overridable and bool(self.form.reason)))

    @property
    def _too_few(self) -> str | None:
        """Why as many as come cannot do it, None where they can."""
        return too_few(self.run.procedure(self.method), self.form.count)

    @property
    def _overridable(self) -> bool:
        """Whether what holds it may be set aside, if a reason is given."""
        return self.run.held is not None and self.run.may_be_overridden

    def _show_counter(self, step: ProcedureStep | None) -> None:
        shown = step if self.counts else None
        needed = self.beside.needed(self.session.build)
        before = self.run.strokes_before if shown is not None else 0
        self.counting.show_strokes(shown, before + self.strokes, self.since, needed)

    def _count_people(self) -> None:
        """Suppose as many people as came, or as the procedure is best with."""
        record = self.run.record
        came = 0 if record is None else len(record.people)
        self.form.count = came or self.run.procedure(self.method).people

    def _take_up(self) -> None:
        """Count on from what a run had counted when it was left."""
        record = self.run.record
        self.strokes = 0 if record is None else record.strokes
        self.since = 0 if record is None else record.since_filled

    # --- hands -----------------------------------------------------------------------------

    def look_at(self, name: str) -> None:
        """Put a procedure on the card, as `choose`."""
        self.choose(name)

    def choose(self, name: str) -> None:
        """Put another procedure on the card; a run of it that was left is there again."""
        self.run.name = name
        self.state.paused, self.state.gone_past = False, set()
        self._count_people()
        self._fresh()

    def _choose_method(self, method: str) -> None:
        if self.run.record is None and self.run.name == RESET:
            self.run.shut_off = method
        elif self.run.record is None:
            self.method = next(one for one in METHODS if one == method)
        if self.run.record is None:
            self._count_people()
        self._show()
        self.setFocus()

    def stroke(self) -> None:
        """Count one stroke."""
        self.strokes += 1
        step = self.run.step
        self.since += step is None or step.at != "bench"  # there its loops bring it back
        self.run.count(self.strokes, self.since)
        self._show_counter(self.run.step)

    def note_bubbles(self) -> None:
        """Note that bubbles still come."""
        self.reading.values["bubbles"] = "fine"
        self.counting.add(f"bubbles at stroke {self.strokes}")

    def go_on(self) -> None:
        """Begin, go on, or close after the last card; what was read is kept.

        Where the card asks something, it is what Enter answers.
        """
        match self.state.mode:
            case Mode.IDLE:
                self._begin()
            case Mode.PAUSED:
                self.paused = False
                self._fresh()
            case Mode.LEAVING:
                self.pause()
            case Mode.HALTED:
                self.once_more()
            case Mode.GOING:
                self._do_step()

    def _do_step(self) -> None:
        """Keep what was read, and go on where nothing of it stops the card."""
        step = self.run.step
        assert step is not None
        if step.press == "down" and not self.strokes:
            self.stroke()  # it is the step itself
        entries = self.reading.entries(self.strokes)
        if entries is None:  # something was typed that cannot be, and that is said
            return
        stops, checked_by = self.state.stops(entries), self.checked_by.text().strip()
        self._clear()  # what is written shows the next card
        if stops:
            self.run.note(entries)
        else:
            self._pass_step(entries, checked_by, filled=step.action == "top-up")
        self.setFocus()

    def _pass_step(
        self, entries: list[dict[str, Any]], checked_by: str = "", *, filled: bool = False
    ) -> None:
        if self.run.last:
            self.run.end(entries, checked_by)
            self.awake.let_go()
        else:
            self.run.go(1, entries, filled=filled)

    def again(self) -> None:
        """Do what is done until clear once more, from where it begins."""
        entries = self.reading.entries(self.strokes)
        if entries is None:
            return
        self._clear()
        self.run.again(entries)
        self.setFocus()

    def once_more(self) -> None:
        """Begin what was not in order once more, at its first step."""
        found = self.state.halt
        if found is not None:
            self.state.gone_past.add(found.entry)
            self.run.once_more(found.again)
            self._fresh()

    def go_past(self) -> None:
        """Go on in spite of what was read: it stays on record, and holds the vehicle."""
        found = self.state.halt
        if found is None:
            return
        self.state.gone_past.add(found.entry)
        if found.step == self.run.number:
            self._pass_step([])
        self._fresh()

    def trace(self) -> None:
        """Go to Trace, with the sign of what was read noted as seen."""
        if self.state.halt is not None:
            self.place_asked.emit(f"sign:{self.state.halt.sign}")

    def _begin(self) -> None:
        told: dict[str, Any] | None = self.form.told()
        if told is None:
            return
        if self._may_begin:
            self.run.begin(self.method, told)
            self._fresh()
        elif self._overridable:
            self.form.fields["reason"].setFocus()

    def go_back(self) -> None:
        """Go back by one card, or stay where leaving was asked for."""
        if self.state.mode is Mode.GOING:
            self.run.go(-1)
        self._fresh()

    def ask_to_leave(self) -> None:
        """Ask whether the run is paused or given up; one that did nothing is taken back at once."""
        if not self.run.begun:
            self.give_up()
            return
        self.state.leaving = True
        self._show()
        self.setFocus()

    def pause(self) -> None:
        """Leave the run as it stands: it goes on from its step, strokes and clock."""
        self.paused = True
        self.awake.let_go()
        self._fresh()

    def give_up(self) -> None:
        """Give the run up where it stands: what was read and opened stays."""
        self.paused = False
        self.run.give_up()
        self.awake.let_go()
        self._fresh()

    def _clear(self) -> None:
        """Forget what was typed at a card, and what it asked."""
        self._step, self.state.leaving = None, False
        self.reading.values = {}
        self.checked_by.clear()

    def _fresh(self) -> None:
        self._clear()
        self._show()
        self.setFocus()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        if self.run.record is not None:
            self.awake.hold()

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        self.awake.let_go()

    def event(self, event: QEvent) -> bool:
        """Take the card's own keys before the window's: B notes bubbles, it is no set-up here."""
        if (
            event.type() == QEvent.Type.ShortcutOverride
            and isinstance(event, QKeyEvent)
            and not event.modifiers()
            and Qt.Key(event.key()) in letters(self)
        ):
            event.accept()
            return True
        return super().event(event)

    @property
    def counts(self) -> bool:
        """Whether strokes are counted now: at a step of strokes that goes on."""
        step = self.run.step
        return step is not None and step.action == "stroke" and self.state.mode is Mode.GOING

    def keyPressEvent(self, event: QKeyEvent) -> None:
        act = act_of(self, Qt.Key(event.key()))
        if act is None or (event.modifiers() and event.text().isalpha()):
            event.ignore()
        else:
            act()
