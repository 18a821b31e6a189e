"""Set-ups as a ladder: from what is least to what is most, each with when it is enough."""

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QLineEdit, QPushButton, QVBoxLayout, QWidget

from urgens.document import BuildChange, BuildErrors
from urgens.document.edits.setup_list import setups_of, taken_out
from urgens.document.price_list import price_of
from urgens.guidance.advice.setup_ladder import Rung, ladder
from urgens.quantity import QuantityError
from urgens.ui.session import Session
from urgens.ui.stations.sheet.rung_card import RungCard
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.setup_menu import NO_NAME, keep_as_setup, tried_words
from urgens.ui.widgets.worded import passing, wrapped

EMPTY = (
    "No set-up yet. Try something on any station, then keep it here under a name: the build "
    "itself goes back to what was saved, and both stand beside each other."
)
STEP = {"Up": -1, "Down": 1}


NOTHING: tuple[object, ...] = ()  # is shown yet


class LadderPage(Page):
    """A card for each rung; a name for what is tried now beside."""

    plan_asked = Signal(str)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        inner = QWidget()
        self._rows = tight(QVBoxLayout(inner))
        self.cards: dict[str, RungCard] = {}
        self.found: tuple[Rung, ...] = ()
        self._of: tuple[object, ...] = NOTHING
        self.name, self.keep_it = QLineEdit(), QPushButton("Save as set-up")
        self.tried, self.refused = wrapped("muted"), passing()
        self.name.setAccessibleName("Name of the new set-up")
        self.name.setPlaceholderText("its name")
        self.name.returnPressed.connect(self.take)
        self.keep_it.setProperty("role", "primary")
        self.keep_it.clicked.connect(self.take)
        self._work = Background(self)
        self._work.ended.connect(self._show_found)
        self._work.failed.connect(self.refused.setText)
        self.head("Save as set-up")
        for widget in (self.tried, self.name, self.keep_it, self.refused):
            self.column.addWidget(widget)
        self.column.addStretch()
        self.lay_out(scrolled(inner, "Set-ups"))
        self.said.hide()
        session.file_changed.connect(self.seen.ask)

    @property
    def summary(self) -> str:
        """How many there are, and how many are proved."""
        count = len(self.session.base.setups)
        done = sum(one.done for one in self.found)
        return f"{count} set-up{'s' if count != 1 else ''}, {done} proved" if count else "no set-up"

    def hideEvent(self, event: QHideEvent) -> None:
        if self._work.busy:  # to be done when it is seen again
            self._work.stop()
            self._of = NOTHING
            self.seen.forget()

    def show_figures(self) -> None:
        """Judge every set-up away from the hand, and say what a new one would hold."""
        session = self.session
        self.tried.setText(tried_words(session))
        base = session.base
        if self._of == (base, session.setup):
            return
        self._of = (base, session.setup)
        if not base.setups:
            self._show_found(())
            return

        def work(progress: Callable[[float], bool]) -> object:
            return ladder(base)

        self._work.run(work, SOON)

    def _show_found(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        self.found = found
        clear(self._rows)
        self.cards = {}
        if not found:
            self._rows.addWidget(wrapped("muted", EMPTY))
            self._rows.addWidget(Sample(self.session, "ladder"))
        for place, rung in enumerate(found, start=1):
            card = RungCard(place, rung, chosen=rung.name == self.session.setup)
            card.asked.connect(self.do)
            card.typed.connect(self.type)
            card.buttons["Up"].setEnabled(place > 1)
            card.buttons["Down"].setEnabled(place < len(found))
            self.cards[rung.name] = card
            self._rows.addWidget(card)
        self._rows.addStretch()
        self.say()

    # --- into the build --------------------------------------------------------------------

    def _put(self, setups: list[dict[str, Any]], label: str) -> None:
        self.session.make(BuildChange(label, {"setups": setups}), in_setup=False)

    def do(self, name: str, action: str) -> None:
        """Do what a card's button says with its set-up."""
        session = self.session
        if action == "Look at it":
            session.set_setup(None if session.setup == name else name)
            return
        if action == "Plan it":
            self.plan_asked.emit(name)
            return
        setups = setups_of(self.session.base)
        place = [one["name"] for one in setups].index(name)
        if action == "Take it out":
            session.make(taken_out(session.base, name), in_setup=False)
            return
        setups.insert(place + STEP[action], setups.pop(place))
        self._put(setups, f"Set-up {name} {action.lower()}")

    def type(self, name: str, field: str, text: str) -> None:
        """Take a price, or when a set-up is enough."""
        setups = setups_of(self.session.base)
        own = next((one for one in setups if one["name"] == name), None)
        if own is None:  # it was taken out while something stood in its field
            return
        value: object = text.strip()
        if field == "price":
            try:
                value = price_of(text)
            except QuantityError as error:
                self.refused.setText(str(error))
                return
        self.refused.setText("")
        if value != own.get(field, None if field == "price" else ""):
            own[field] = value
            self._put(setups, f"{name}: {field.replace('_', ' ')}")

    def take(self) -> None:
        """Make a set-up of what is looked at, or was tried since the build was saved."""
        name = self.name.text().strip()
        session = self.session
        if not name:
            self.refused.setText(NO_NAME)
            self.name.setFocus()
            return
        try:
            keep_as_setup(session, name)
        except BuildErrors as errors:
            self.refused.setText("\n".join(str(one) for one in errors.errors))
            return
        self.refused.setText("")
        self.name.clear()
