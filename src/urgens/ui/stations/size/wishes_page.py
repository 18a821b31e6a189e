"""Wishes: what the vehicle should do and what may change, and whole systems to choose from."""

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any, ClassVar

from PySide6.QtCore import Qt
from PySide6.QtGui import QHideEvent, QKeyEvent
from PySide6.QtWidgets import QLineEdit, QPushButton, QVBoxLayout, QWidget

from urgens.document import BuildChange, BuildErrors, with_changes
from urgens.document.frozen import thawed
from urgens.guidance.advice.wish_cards import (
    WishCard,
    as_setup,
    claim,
    offered,
    system_words,
    why_not,
)
from urgens.quantity.spelling import items_of
from urgens.studies.wishes.freedom import MAY
from urgens.studies.wishes.relaxing import WishAnswer
from urgens.studies.wishes.systems import search
from urgens.studies.wishes.wanted import KINDS, SENSE, Wishes, usual_wishes, wished
from urgens.ui.session import Session
from urgens.ui.stations.size.wish_card import SystemCard, SystemPlane
from urgens.ui.stations.size.wish_rows import MayRows, WishRow, connected
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.worded import wrapped

SIDE = 330  # px of the column
RELAX = "Wish for that instead"
ROOM = 1.002  # of what a wish gives way: what is shown rounded lets the system in as well
OPTIONAL = ("travel", "unboosted", "hold")  # wishes that need not be
ASKED = "bore 7/8 in; ratio 5.5"
WORKING = "Working out every combination"
NOTHING_NEW = "That is what is there: there is nothing to make a set-up of."
STOPPED = "Stopped. Change a wish, or press Work it out."
# Between what a slider goes [SI]: what is met on vehicles; what is typed may be more or less.
SPANS: dict[str, tuple[float, float]] = {
    "effort": (50.0, 700.0), "deceleration": (0.3, 1.2), "travel": (0.02, 0.15),
    "floor": (0.0, 0.1), "half-lost": (0.1, 0.6), "unboosted": (0.1, 0.9),
    "rear-first-chance": (0.0, 0.3), "hold": (50.0, 900.0),
}  # fmt: skip


class WishesPage(Page):
    """Cards and where they lie on the left; wishes, and what may change, beside them."""

    kept: ClassVar[tuple[str, ...]] = ("typed", "unwanted", "shelf")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.typed: dict[str, str] = {}  # wishes that are not the build's own
        self.unwanted: set[str] = set()
        self.shelf: dict[str, tuple[bool, str]] = {}  # what may change, where it is not as usual
        self.answer: WishAnswer | None = None
        self.found: list[WishCard] = []
        self.cards: list[SystemCard] = []
        self._looked = 0
        self._of: tuple[object, ...] = ()
        self.work = Background(self)
        self.work.ended.connect(self._take)
        self.work.failed.connect(self._fail)
        self.work.progressed.connect(self._tell)
        self.answering = Background(self)
        self.answering.ended.connect(self._say_why)
        self.answering.failed.connect(self._say_why)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        self.claim = wrapped("heading", WORKING)
        self.plane = SystemPlane(session)
        self.again = QPushButton("Stop")
        self.again.setProperty("role", "quiet")
        self.again.clicked.connect(self._stop_or_go)
        self.relax = QPushButton(RELAX)
        self.relax.setProperty("role", "quiet")
        self.relax.clicked.connect(self.wish_for_less)
        self.relax.hide()
        self._list = spaced(QVBoxLayout(), 6)
        self.lay_out(self._drawing(), side=SIDE)
        self.said.hide()
        self.rows = {name: WishRow(name, session.units, SPANS[name]) for name in KINDS}
        self.may = MayRows()
        self.head("What is wanted")
        for row in self.rows.values():
            self.column.addWidget(row)
        self.head("What may change")
        self.column.addWidget(self.may)
        self.head("Why not …?")
        self.asked, self.because = QLineEdit(), wrapped("muted")
        self.asked.setAccessibleName("Why not this part or figure")
        self.asked.setPlaceholderText(ASKED)
        self.asked.returnPressed.connect(self.ask_why_not)
        self.column.addWidget(self.asked)
        self.column.addWidget(self.because)
        self.column.addStretch()
        connected([*self.rows.values()], self.may, self._wish)

    def _drawing(self) -> QWidget:
        inner = QWidget()
        column = spaced(QVBoxLayout(inner), 8, (0, 0, 6, 0))
        column.addLayout(self._list)
        column.addStretch()
        whole = QWidget()
        rows = tight(QVBoxLayout(whole), 6)
        rows.addWidget(self.claim)
        for button in (self.again, self.relax):
            rows.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)
        rows.addWidget(self.plane)
        rows.addWidget(rolled(inner), 1)
        self.plane.hide()
        return whole

    @property
    def summary(self) -> str:
        """What came of the wishes."""
        return f"{len(self.found)} systems to choose from" if self.found else "no system yet"

    def give_back(self, kept: Mapping[str, object]) -> None:
        """Take the wishes of the page before, and what may change."""
        super().give_back(kept)
        for row in self.rows.values():
            row.value = None  # what is typed is read again
        self._of = ()
        self.seen.ask()

    # --- what is wanted --------------------------------------------------------------------

    def show_figures(self) -> None:
        """Show the wishes, and work out what keeps them where it is another build."""
        self.may.put(self.shelf)
        try:
            wishes = self._wishes()
        except BuildErrors:  # which stands over the cards; what is typed is the builder's to mend
            wishes = usual_wishes(self.session.build)
        for name, row in self.rows.items():
            mine = name in self.typed and row.value is not None
            row.put(row.value if mine else wishes.of(name), self.session.units)
        launch = self.session.build.vehicle.launch is not None
        self.rows["hold"].setVisible(launch)
        self.rows["unboosted"].setVisible(self.session.build.booster.fitted)
        key = (self.session.build, self.session.units)
        if key != self._of:
            self._of = key
            self._go()

    def _wish(self) -> None:
        """Take the wishes that differ from the build's own, and work them out anew."""
        usual = usual_wishes(self.session.build)
        self.typed, self.unwanted = {}, set()
        for name, row in self.rows.items():
            text = row.text
            if text is None and name in OPTIONAL:
                self.unwanted.add(name)
            elif text is None:  # a window of the build's own, which is not let go
                row.put(usual.of(name), self.session.units)
            elif row.value != usual.of(name):
                self.typed[name] = text
        self.shelf = self.may.state
        self._go()

    def _wishes(self) -> Wishes:
        """Return the wishes; raises BuildErrors."""
        found = wished(self.session.build, self.typed)
        unwanted: dict[str, Any] = dict.fromkeys(self.unwanted)
        return replace(found, **unwanted)

    def _go(self) -> None:
        """Work it out away from the hand; what was under way is let go."""
        self._let_go()
        build, units = self.session.build, self.session.units
        try:
            wishes = self._wishes()
        except BuildErrors as errors:
            self.work.stop()
            self._fail(str(errors))
            return
        choices = self.may.choices

        def work(progress: Callable[[float], bool]) -> object:
            answer = search(build, wishes, choices, lambda share: progress(0.8 * share))
            if answer is None:
                return None
            last = lambda share: progress(0.8 + 0.2 * share)  # noqa: E731 - the rest of the way
            offer = offered(build, wishes, answer.systems, units, last)
            return None if offer is None else (answer, offer)

        self.claim.setText(f"{WORKING}.")
        self.relax.hide()
        self.again.setText("Stop")
        self.again.show()
        self.work.run(work, SOON)

    def wish_for_less(self) -> None:
        """Let the wishes that are in the way give way, by no more than lets a system in."""
        assert self.answer is not None  # else there is nothing to press
        for one in self.answer.relax:
            more = ROOM if SENSE[one.want] > 0.0 else 1.0 / ROOM
            self.rows[one.want].put(one.end * more, self.session.units)
        self._wish()

    def _tell(self, share: float) -> None:
        self.claim.setText(f"{WORKING}: {100.0 * share:.0f} %.")

    def _stop_or_go(self) -> None:
        if self.work.busy:
            self.work.stop()
            self.claim.setText(STOPPED)
            self.again.setText("Work it out")
        else:
            self._go()

    def hideEvent(self, event: QHideEvent) -> None:
        self._let_go()
        if self.work.busy:  # begun again when it is seen again
            self.work.stop()
            self._of = ()
            self.seen.forget()

    # --- what came of it -------------------------------------------------------------------

    def _take(self, found: Any) -> None:
        if found is None:
            return
        self.answer, offer = found
        self.found = list(offer.cards)
        self.again.hide()
        self.relax.setVisible(bool(self.answer.relax))
        self.claim.setText(claim(self.answer, offer, self.session.units))
        self._show_cards()
        refused = {one.words for one, _ in offer.refused}
        kept = [one for one in self.answer.systems if one.words not in refused]
        self.plane.show_systems(kept, self.found)
        self.say()

    def _fail(self, words: str) -> None:
        self.answer, self.found = None, []
        self.again.hide()
        self.relax.hide()
        self.claim.setText(words)
        self._show_cards()
        self.plane.show_systems((), ())

    def _show_cards(self) -> None:
        for card in self.cards:
            card.hide()
            self._list.removeWidget(card)
            card.deleteLater()
        build = self.session.build
        self.cards = [
            SystemCard(rank, card, self.session, with_changes(build, card.system.changes))
            for rank, card in enumerate(self.found, start=1)
        ]
        for shown in self.cards:
            shown.looked.connect(self.look)
            shown.taken.connect(self.take)
            self._list.addWidget(shown)

    def look(self, rank: int) -> None:
        """Let the press show a system, or the build again where it is looked at already."""
        if not 1 <= rank <= len(self.found):
            return
        if self._looked == rank:
            self._let_go()
            return
        self._let_go()
        one = self.found[rank - 1].system
        self._looked = rank
        self.cards[rank - 1].look.setText("Let it go")
        words = system_words(one, self.session.units)
        self.session.consider(BuildChange(words, one.changes))

    def _let_go(self) -> None:
        if self._looked:
            if self._looked <= len(self.cards):
                self.cards[self._looked - 1].look.setText(f"Look ({self._looked})")
            self._looked = 0
            self.session.consider(None)

    def take(self, rank: int) -> None:
        """Make a system a set-up with its layout, all of it planned, and look at that."""
        if not 1 <= rank <= len(self.found):
            return
        self._let_go()
        one, base = self.found[rank - 1].system, self.session.base
        if not one.changes:
            self.claim.setText(NOTHING_NEW)
            return
        taken = {setup.name for setup in base.setups}
        name = next(
            words
            for words in (f"Wish {number}" for number in range(1, len(taken) + 2))
            if words not in taken
        )
        try:
            changes = as_setup(base, one, self._looked_through())
        except BuildErrors as errors:
            self.claim.setText(f"{errors} It is not made a set-up.")
            return
        setup = {"name": name, "changes": changes}
        change = BuildChange(
            f"Set-up “{name}”: {one.words}",
            orders={"setups": [*range(len(base.setups)), setup]},
        )
        self.session.make(change, in_setup=False)
        if any(each.name == name for each in self.session.base.setups):
            self.session.set_setup(name)

    # --- why not ---------------------------------------------------------------------------

    def ask_why_not(self) -> None:
        """Answer what keeps a part or figure that is typed from being a card."""
        build, units = self.session.build, self.session.units
        typed = {}
        for item in items_of(self.asked.text()):
            name, _, value = item.partition(" ")
            typed[name.strip(":=").lower()] = value.strip(" :=")
        unknown = [name for name, value in typed.items() if name not in MAY or not value]
        if unknown or not typed:
            known = ", ".join(MAY)
            self.because.setText(f"Write what and which, such as: {ASKED}. There are {known}.")
            return
        try:
            wishes = self._wishes()
        except BuildErrors as errors:
            self.because.setText(str(errors))
            return
        self.because.setText("Working it out.")
        self.answering.run(lambda progress: why_not(build, wishes, typed, units))

    def _say_why(self, words: object) -> None:
        self.because.setText(str(words))

    def _looked_through(self) -> dict[str, Any]:
        """Return the changes of the set-up that is looked at, on which the system stands."""
        name = self.session.setup
        found = (setup for setup in self.session.base.setups if setup.name == name)
        return {path: thawed(value) for setup in found for path, value in setup.changes.items()}

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.text() and event.text() in "12345":
            self.look(int(event.text()))
        elif self._looked and Qt.Key(event.key()) in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.take(self._looked)
        else:
            super().keyPressEvent(event)
