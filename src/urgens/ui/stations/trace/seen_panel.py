"""What is seen: signs as chips, one question at a time, when it came, what is on record."""

from datetime import datetime
from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import (
    QCheckBox,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QMenu,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.bench.evidence_on_record import RecordedEvidence
from urgens.document.ledger.history import HistoryEntry
from urgens.document.ledger.traces import TraceRun
from urgens.guidance.faults.tables import TraceAsk, TraceSign
from urgens.guidance.tracing.readings import HOW
from urgens.guidance.tracing.trace import Traced
from urgens.quantity.day import time_ago
from urgens.ui.theme.paint import width
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.elided_button import ElidedButton
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.worded import passing, worded, wrapped

OLDEST = 30  # of what is older, that are offered
ROOM = 226.0  # px: answers that fit stand beside their question, others below
PAD = 30.0
WHEN = {"slowly": "Slowly", "after-work": "After work", "at-once": "At once"}


class SeenPanel(QWidget):
    """`answered` says a sign and whether it is seen, `taken_back` one that no longer counts."""

    answered = Signal(str, bool)
    told = Signal(str, str, str)  # sign, ask, answer
    began = Signal(object)  # when, None where nobody knows
    taken_back = Signal(str)
    left_out = Signal(str, bool, bool)  # its name, whether it is out, whether it is older
    unread = Signal(int)
    skipped = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.asked: TraceSign | None = None
        self.chips: dict[str, QPushButton] = {}
        self.known: dict[str, QCheckBox] = {}
        self.rows: dict[tuple[str, str], SegmentRow] = {}  # by sign and what it asks
        self.menus: dict[tuple[str, str], QToolButton] = {}
        self._skipped: set[str] = set()
        self.count = worded("", "small")
        self._chips, self._known = QVBoxLayout(), QVBoxLayout()
        self._chips.setSpacing(2)
        self.question, self.look = wrapped("heading"), wrapped("small")
        self.yes, self.no, self.skip = QPushButton("Yes"), QPushButton("No"), QPushButton("Skip")
        self.when, self.changed = SegmentRow(), wrapped("small")
        self.when.chosen.connect(self._choose_when)
        self.add, self.older = QToolButton(), QToolButton()
        self.since, self.since_said = QLineEdit(), passing("error")
        self._followed: datetime | None = None
        self.since.returnPressed.connect(self._begin)
        self._readings, self._worked = QVBoxLayout(), QVBoxLayout()
        self._lay_out()

    def _lay_out(self) -> None:
        column = tight(QVBoxLayout(self), 6)
        head = QHBoxLayout()
        head.addWidget(worded("What is seen", "heading"), 1)
        head.addWidget(self.count)
        column.addLayout(head)
        column.addLayout(self._chips)
        for opens, words in ((self.add, "Add a sign"), (self.older, "Take in an older record")):
            opens.setText(words)
            opens.setProperty("role", "kind")
            opens.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
            opens.setMenu(QMenu(opens))
        column.addWidget(self.add)
        self.asks = QWidget()
        asks = QGridLayout(self.asks)
        asks.setContentsMargins(0, 6, 0, 0)
        asks.addWidget(worded("Asked next", "caption"), 0, 0, 1, 3)
        asks.addWidget(self.question, 1, 0, 1, 3)
        asks.addWidget(self.look, 2, 0, 1, 3)
        for place, (button, act) in enumerate(
            ((self.yes, self._say_yes), (self.no, self._say_no), (self.skip, self._skip))
        ):
            button.setProperty("role", "quiet")
            button.clicked.connect(act)
            asks.addWidget(button, 3, place)
        column.addWidget(self.asks)
        self.when_word = worded("When did it come?", "heading")
        column.addWidget(self.when_word)
        column.addWidget(self.when)
        column.addLayout(self._worked)
        column.addWidget(self.changed)
        self.since.setAccessibleName("Since when")
        self.since.setPlaceholderText("since: Sunday, 3 days ago, 2026-05-31")
        column.addWidget(self.since)
        column.addWidget(self.since_said)
        column.addLayout(self._readings)
        self.known_word = worded("On record since it began", "heading")
        column.addWidget(self.known_word)
        column.addLayout(self._known)
        column.addWidget(self.older)

    def show_run(
        self, run: TraceRun | None, trace: Traced, evidence: tuple[RecordedEvidence, ...],
        counted: tuple[RecordedEvidence, ...], change: HistoryEntry | None,
    ) -> None:  # fmt: skip
        """Show what is known of a fault; `evidence` is on record, `counted` what of it counts."""
        self.rows, self.menus = {}, {}
        signs = {one.sign: one.seen for one in run.signs} if run is not None else {}
        seen = sum(signs.values())
        self.count.setText(f"{seen} sign{'s' if seen != 1 else ''}" if seen else "")
        self._show_chips(trace, signs)
        self._show_menu(trace, signs)
        self._show_question(trace)
        self.when_word.setVisible(bool(signs))
        self.when.setVisible(bool(signs))
        chosen = next((name for name in WHEN if signs.get(name)), None)
        self.when.show_choices(WHEN, chosen)
        self.changed.setText("" if change is None else f"Last changed: {change.what}, "
                             f"{change.at:%Y-%m-%d}")  # fmt: skip
        self.changed.setVisible(change is not None and bool(signs))
        self._show_since(run)
        clear(self._worked)
        for name in (name for name in WHEN if signs.get(name)):
            self._show_asks(trace, name, self._worked)
        self._show_readings(run)
        self._show_known(run, evidence, counted)

    def _show_chips(self, trace: Traced, signs: dict[str, bool]) -> None:
        clear(self._chips)
        self.chips = {}
        words = {one.id: one for one in trace.tracing.signs}
        for name, seen in signs.items():
            if name in WHEN:
                continue
            sign = words.get(name)
            said = sign.words if sign is not None else f"{name}: not of this layout"
            chip = ElidedButton(f"× {said if seen else f'Not: {said.lower()}'}")
            chip.setProperty("role", "chip" if seen else "unseen")
            chip.setAccessibleName(f"{said}: {'seen' if seen else 'not seen'}; take it back")
            chip.clicked.connect(partial(self.taken_back.emit, name))
            self.chips[name] = chip
            self._chips.addWidget(chip)
            if sign is not None and seen:
                self._chips.addWidget(wrapped("small", sign.look))
                self._show_asks(trace, name, self._chips)

    def _show_asks(self, trace: Traced, name: str, into: QVBoxLayout) -> None:
        """Show what a sign asks besides, where an answer tells something."""
        sign = next((one for one in trace.tracing.signs if one.id == name), None)
        if sign is None:
            return
        given = trace.evidence.answers.get(name, ())
        for ask in trace.asks(sign):
            words = sign.asked.get(ask.id, ask.words)
            across = sum(PAD + width(one.words, 16) for one in ask.answers)
            chosen = next((one.id for one in ask.answers if one.id in given), None)
            if across > ROOM:
                into.addWidget(self._menu(name, ask, words, chosen))
                continue
            row = SegmentRow()
            row.setAccessibleName(words)
            row.show_choices({one.id: one.words for one in ask.answers}, chosen)
            row.chosen.connect(partial(self._tell, name, ask.id))
            line = QHBoxLayout() if across + width(words, 14) < ROOM else QVBoxLayout()
            line.setSpacing(2)
            line.addWidget(worded(words, "small"), 1)
            line.addWidget(row)
            into.addLayout(line)
            self.rows[name, ask.id] = row

    def _menu(self, sign: str, ask: TraceAsk, words: str, chosen: str | None) -> QToolButton:
        """Return a button whose menu has the answers, where they are too many to stand in a row."""
        button = QToolButton()
        said = {one.id: one.words for one in ask.answers}
        button.setText(words if chosen is None else f"{words} {said[chosen]}")
        button.setProperty("role", "kind")
        button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(button)
        for one in ask.answers:
            menu.addAction(button_words(one.words), partial(self._tell, sign, ask.id, one.id))
        button.setMenu(menu)
        self.menus[sign, ask.id] = button
        return button

    def _tell(self, sign: str, ask: str, answer: object) -> None:
        self.told.emit(sign, ask, str(answer))

    def _show_menu(self, trace: Traced, signs: dict[str, bool]) -> None:
        menu = self.add.menu()
        menu.clear()
        for sign in trace.tracing.signs:
            if sign.id not in signs and not sign.when:
                menu.addAction(button_words(sign.words), partial(self.answered.emit, sign.id, True))

    def _show_question(self, trace: Traced) -> None:
        self.asked = trace.question(frozenset(self._skipped)) if trace.evidence.signs else None
        self.asks.setVisible(self.asked is not None)
        if self.asked is not None:
            self.question.setText(f"{self.asked.words}?")
            self.look.setText(self.asked.look)

    def _show_readings(self, run: TraceRun | None) -> None:
        clear(self._readings)
        for place, one in enumerate(() if run is None else run.readings):
            row = QHBoxLayout()
            how = "".join(f", {HOW[each]}" for each in one.how if each in HOW)
            row.addWidget(wrapped("small", f"{one.reading}: {one.value} at {one.effort}{how}"), 1)
            button = push_button("×", "small")
            button.setAccessibleName(f"Take back: {one.reading} {one.value}")
            button.clicked.connect(partial(self.unread.emit, place))
            row.addWidget(button)
            self._readings.addLayout(row)

    def _show_since(self, run: TraceRun | None) -> None:
        self._followed = None if run is None else run.started
        shown = run is not None and bool(run.signs)
        self.since.setVisible(shown)
        if run is not None and not self.since.isModified():
            self.since.setText("" if run.since is None else f"{run.since:%Y-%m-%d %H:%M}")

    def _begin(self) -> None:
        """Take when it began as it is typed; what is no time stays, and is said."""
        typed = self.since.text().strip()
        try:
            at = time_ago(typed, datetime.now()) if typed else None
        except ValueError as error:
            self.since_said.setText(f"{error}.")
            return
        if at is not None and self._followed is not None and at > self._followed:
            words = f"It is followed since {self._followed:%Y-%m-%d %H:%M}: it began before that."
            self.since_said.setText(words)
            return
        self.since_said.setText("")
        self.since.setModified(False)
        self.began.emit(at)

    def _show_known(
        self,
        run: TraceRun | None,
        evidence: tuple[RecordedEvidence, ...],
        counted: tuple[RecordedEvidence, ...],
    ) -> None:
        """Show what counts or could since the fault began; what is older is taken in by hand."""
        clear(self._known)
        self.known = {}
        began = None if run is None else run.began
        late = [one for one in evidence if began is not None and one.at >= began]
        shown = [one for one in evidence if one in late or one in counted]
        self.known_word.setVisible(bool(shown))
        for one in shown:
            box = QCheckBox(button_words(f"{one.words}, {one.at:%Y-%m-%d}"))
            box.setChecked(one in counted)
            older = one not in late
            box.toggled.connect(
                lambda on, name=one.name, older=older: self.left_out.emit(name, not on, older)
            )
            self.known[one.name] = box
            self._known.addWidget(box)
        rest = [one for one in reversed(evidence) if one not in shown][:OLDEST]
        self.older.setVisible(bool(rest) and run is not None)
        menu = self.older.menu()
        menu.clear()
        for one in rest:
            words = button_words(f"{one.at:%Y-%m-%d}  {one.words}")
            menu.addAction(words, partial(self.left_out.emit, one.name, False, True))

    def _say_yes(self) -> None:
        if self.asked is not None:
            self.answered.emit(self.asked.id, True)

    def _say_no(self) -> None:
        if self.asked is not None:
            self.answered.emit(self.asked.id, False)

    def _skip(self) -> None:
        """Ask another question; this one comes again with the next fault."""
        if self.asked is not None:
            self._skipped.add(self.asked.id)
            self.skipped.emit()

    def _choose_when(self, name: object) -> None:
        if isinstance(name, str):
            self.answered.emit(name, True)
