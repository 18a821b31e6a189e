"""What is this block? Guided questions, a drawing that follows the answers, and what it may be."""

from functools import partial
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.document.circuits import TWO_SIDED
from urgens.document.kinds.valves.kind import Seen
from urgens.guidance.advice.by_hand import PlacesFor, places_for, put_in
from urgens.guidance.words.block_key import (
    QUESTIONS,
    Question,
    laid_as,
    named_bodies,
    next_question,
    possible,
    told_for_sure,
    verdict,
)
from urgens.guidance.words.parts import part_name, thing_called
from urgens.plumbing.edits import INSERTED, index_of, section_of
from urgens.plumbing.valve_mends import with_switch_instead
from urgens.ui.session import Session
from urgens.ui.stations.plumb.block_drawing import BlockDrawing
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.worded import worded, wrapped

SKIP = "Cannot tell"
SWITCH = "switch"  # as what a body of two sides is put in
OPEN = "It goes into the layout as open until gauged."
HINT = "No layout yet: take one on the page Layout, and the answer goes into it."


class KeyPage(Page):
    """One question at a time; what is answered can be taken back."""

    kept = ("answers", "skipped")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.answers: dict[str, Seen] = {}
        self.skipped: frozenset[str] = frozenset()
        self.laid = Laid(session)
        self.drawing = BlockDrawing()
        self.asks, self.how = wrapped("title"), wrapped("muted")
        self.choices: dict[str, QPushButton] = {}
        self._buttons = QHBoxLayout()
        self._told = QVBoxLayout()
        self.told: dict[str, QPushButton] = {}
        self.verdict = wrapped()
        self.put = self._menu("Put it into a line")
        self.call = self._menu("A part of the layout is this")
        self.again = push_button("Begin again", "quiet", self._begin_again)
        self.hint = wrapped("muted", HINT)
        self.open = wrapped("", OPEN)
        self._lay_out()

    @staticmethod
    def _menu(words: str) -> QToolButton:
        button = QToolButton()
        button.setText(words)
        button.setProperty("role", "kind")
        button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        button.setMenu(QMenu(button))
        return button

    def _lay_out(self) -> None:
        left = QWidget()
        column = tight(QVBoxLayout(left))
        self.drawing.setMaximumHeight(self.drawing.scaled(10, 340).height())
        column.addWidget(self.drawing, 1)
        column.addWidget(self.asks)
        column.addWidget(self.how)
        column.addLayout(self._buttons)
        column.addStretch()
        self.column.addWidget(worded("It may be", "heading"))
        for widget in (self.verdict, self.hint, self.open, self.put, self.call):
            self.column.addWidget(widget)
        self.head("What you saw")
        self.column.addLayout(self._told)
        self.column.addWidget(self.again)
        self.column.addStretch()
        self.lay_out(left)
        self.said.hide()

    @property
    def summary(self) -> str:
        """What it may be, in one line."""
        sure = told_for_sure(self.answers)
        if sure is not None:
            name = named_bodies((sure,))
            return f"it is {'an' if name[0] in 'aeiou' else 'a'} {name}, by what you saw"
        return "what an unmarked body is, by what can be seen of it"

    # --- what is shown ---------------------------------------------------------------------

    @property
    def question(self) -> Question | None:
        """What is asked now."""
        return next_question(self.answers, self.skipped)

    def show_figures(self) -> None:
        """Show the question, the drawing and what it may be."""
        question = self.question
        self.drawing.show_answers(self.answers, "" if question is None else question.name)
        self.asks.setText("No more to look for" if question is None else question.asks)
        self.how.setText("" if question is None else question.how)
        clear(self._buttons)
        self.choices = {}
        if question is not None:
            for words, seen in (*question.choices, (SKIP, None)):
                button = QPushButton(words)
                button.setMinimumHeight(44)
                button.clicked.connect(partial(self.answer, question.name, seen))
                self.choices[words] = button
                self._buttons.addWidget(button)
        self._show_told()
        self.verdict.setText("\n".join(verdict(self.answers)))
        self._show_actions()

    def _show_told(self) -> None:
        clear(self._told)
        self.told = {}
        for question in QUESTIONS:
            if question.name not in self.answers:
                continue
            seen = next(w for w, s in question.choices if s == self.answers[question.name])
            button = push_button(f"{_short(question)}: {seen.lower()}  ×", "small")
            button.setAccessibleName(f"Take back: {question.asks} {seen}")
            button.clicked.connect(partial(self._take_back, question.name))
            self.told[question.name] = button
            self._told.addWidget(button)

    @property
    def bodies(self) -> tuple[str, ...]:
        """What it may be; none while there is more to look for that would tell."""
        found = possible(self.answers)
        return found if told_for_sure(self.answers) or self.question is None else ()

    def _show_actions(self) -> None:
        """Offer to take what it is, or may be, into the layout."""
        bodies = self.bodies
        there = bool(bodies) and self.laid.own
        kind = laid_as(bodies) if bodies else ""
        self.hint.setVisible(bool(bodies) and not self.laid.own)
        self.open.setVisible(there and told_for_sure(self.answers) is None)
        places = PlacesFor()
        if there and kind in (*INSERTED, *TWO_SIDED):
            places = places_for(self.session.build, SWITCH if kind in TWO_SIDED else kind)
        self.put.setVisible(bool(places.every))
        self.call.setVisible(there)
        if not there:
            return
        self.put.menu().clear()
        for line in places.lines:
            name = button_words(thing_called(self.laid.circuits, line))
            self.put.menu().addAction(name, partial(self._put_in, line, bodies))
        if places.ports:  # of two sides: behind both outlets at once
            take = partial(self._put_in, places.ports[0], bodies)
            self.put.menu().addAction("behind the cylinder", take)
        self.call.menu().clear()
        for part in self.laid.plumbing.parts:
            if part.wheel is None and part.kind not in ("master", "hose", "plug"):
                name = button_words(part_name(self.laid.circuits, part))
                self.call.menu().addAction(name, partial(self._call, part.id, bodies))

    # --- answers ---------------------------------------------------------------------------

    def answer(self, name: str, seen: Seen | None) -> None:
        """Take an answer, or that it cannot be told."""
        if seen is None:
            self.skipped = self.skipped | {name}
        else:
            self.answers = {**self.answers, name: seen}
        self._show()

    def _take_back(self, name: str) -> None:
        self.answers = {other: seen for other, seen in self.answers.items() if other != name}
        self._show()

    def _begin_again(self) -> None:
        self.answers, self.skipped = {}, frozenset()
        self._show()

    def _put_in(self, line: str, bodies: tuple[str, ...]) -> None:
        kind = laid_as(bodies)
        if kind not in TWO_SIDED:
            change, name = put_in(self.session.build, line, kind)
        else:
            change, name = put_in(self.session.build, line, SWITCH)
            section: Any = change.values["plumbing"]
            section["parts"][index_of(section["parts"], name, "part")]["kind"] = kind
        self.session.make(self._open(change, name, bodies))

    def _call(self, where: str, bodies: tuple[str, ...]) -> None:
        """Let a part of the layout be what was told, or open between what it may be."""
        section: dict[str, Any] = section_of(self.laid.plumbing)
        kind = laid_as(bodies)
        if kind in TWO_SIDED and self.laid.circuits.parts[where].kind not in TWO_SIDED:
            section = with_switch_instead(self.laid.circuits.build, where)
        row = section["parts"][index_of(section["parts"], where, "part")]
        row["kind"] = kind
        row.pop("may_be", None)
        called = thing_called(self.laid.circuits, where)
        told = f"{called} may be: {named_bodies(bodies)}" if len(bodies) > 1 else (
            f"{called} is a {named_bodies(bodies)}"
        )  # fmt: skip
        change = BuildChange(told, {"plumbing": section})
        self.session.make(self._open(change, where, bodies))

    @staticmethod
    def _open(change: BuildChange, name: str, bodies: tuple[str, ...]) -> BuildChange:
        """Write with a part what it may be, open until it is gauged."""
        if len(bodies) == 1:
            return change
        section: Any = change.values["plumbing"]
        row = section["parts"][index_of(section["parts"], name, "part")]
        row["may_be"] = list(bodies)
        return change


def _short(question: Question) -> str:
    names = {"ins": "Lines in", "outs": "Lines out", "through": "Open through"}
    return names.get(question.name, question.name.capitalize())
