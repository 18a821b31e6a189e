"""What happened to the vehicle, and what each change asks to be done again."""

from collections.abc import Iterable, Iterator
from datetime import datetime
from typing import Any, ClassVar

from PySide6.QtCore import Signal
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from urgens.document import Build, BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.edits.past import figure_words, undone
from urgens.document.frozen import thawed
from urgens.document.ledger.history import HistoryEntry
from urgens.guidance.condition.consequences import Consequences, asked_by
from urgens.guidance.condition.holds import Condition, condition
from urgens.guidance.procedures.records import title_of
from urgens.guidance.tracing.chronicle import Happened, chronicle
from urgens.ui.session import Session
from urgens.ui.stations.sheet.history_form import HistoryForm
from urgens.ui.stations.sheet.history_line import MarginLine
from urgens.ui.stations.sheet.history_list import HistoryList, KindLegend
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.worded import worded, wrapped

MOST = 12  # figures of a change that are told here
SIDE = 330  # px of the column
WITHOUT, WITH = "Press without it", "Press with it again"
SINCE = "have changed again since: they stay."
CHANGED_SINCE = "All of it has changed again since: there is nothing to undo alone."
EMPTY = (
    "Saving a build with changes writes them here by itself, in one entry; what else happens to "
    "the vehicle is noted beside."
)


class HistoryPage(Page):
    """The list; beside it what is chosen, its words, and a form for what happens else."""

    compare_asked = Signal(object)  # the time before a change
    kept: ClassVar[tuple[str, ...]] = ("chosen",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.chosen = 0
        self.list = HistoryList()
        self.list.chose.connect(self.choose)
        self.empty = wrapped("muted", EMPTY)
        self.title, self.figures, self.asks = (
            wrapped("heading"), wrapped("muted"), wrapped("muted"),
        )  # fmt: skip
        self.what, self.why = QLineEdit(), QLineEdit()
        for field, words in ((self.what, "Its words"), (self.why, "Why it was done")):
            field.setAccessibleName(words)
            field.setPlaceholderText(words.lower())
            field.editingFinished.connect(self._word)
        self.before, self.show_it = QPushButton("Compare with before it"), QPushButton("Show it")
        self.drop = QPushButton("Take it out")
        self.without = QPushButton(WITHOUT)
        self.without.setCheckable(True)
        self.without.clicked.connect(self._try_without)
        self.undo = QPushButton("Undo only that one")
        self.undo.clicked.connect(self._undo_it)
        self.stays = wrapped("muted")  # why nothing of it can be undone alone
        self.before.clicked.connect(self._compare)
        self.show_it.clicked.connect(self._show_place)
        self.drop.clicked.connect(self._drop)
        for widget in (
            self.title, self.what, self.why, self.figures, self.asks, (self.without, self.undo),
            self.stays, (self.before, self.drop), self.show_it,
        ):  # fmt: skip
            if isinstance(widget, tuple):
                row = spaced(QHBoxLayout(), 6)
                for button in widget:
                    button.setProperty("role", "quiet")
                    row.addWidget(button)
                self.column.addLayout(row)
                continue
            if isinstance(widget, QPushButton):
                widget.setProperty("role", "quiet")
            self.column.addWidget(widget)
        self.form = HistoryForm()
        self.form.made.connect(self._add)
        self.column.addSpacing(8)
        self.column.addWidget(worded("Note by hand", "heading"))
        self.column.addWidget(self.form)
        self.column.addStretch()
        whole = QWidget()
        rows = tight(QVBoxLayout(whole))
        rows.addWidget(self.empty)
        rows.addWidget(KindLegend())
        rows.addWidget(self.list, 1)
        self.line = MarginLine(session)
        rows.addWidget(self.line)
        self.sample = Sample(session, "history")
        rows.addWidget(self.sample)
        rows.addStretch()
        self.lay_out(whole, side=SIDE)
        self.said.hide()
        session.file_changed.connect(self.seen.ask)  # saving adds to it

    @property
    def rows(self) -> tuple[Happened, ...]:
        """What is shown."""
        return self.list.rows

    @property
    def summary(self) -> str:
        """How much is on record."""
        count = len(self.rows)
        if not count:
            return "nothing is on record yet"
        return f"{count} entries, the latest first" if count > 1 else "one entry"

    def show_figures(self) -> None:
        """Show the history as it is now."""
        rows = chronicle(self.session.base)
        for widget in (self.empty, self.sample):
            widget.setVisible(not rows)
        self.list.setVisible(bool(rows))
        self.list.show_happened(rows)
        self.line.show_build(rows)
        self.list.choose(self.chosen)
        self.choose(self.list.chosen)

    def choose(self, row: int) -> None:
        """Show one of them with what it changed and what that asks for."""
        self.chosen = row
        self.list.choose(row)
        one = self.rows[row] if self.rows else None
        entry = None if one is None else one.entry
        self.title.setVisible(one is not None)
        for widget in (self.what, self.why, self.drop):
            widget.setVisible(entry is not None)
        self.before.setVisible(entry is not None and bool(entry.changes))
        self.show_it.setVisible(one is not None and entry is None)
        self.figures.setVisible(entry is not None and bool(entry.changes))
        self._offer_without(entry)
        self.asks.setVisible(False)
        if one is None:
            return
        self.title.setText(one.what if entry is None else f"{one.kind}, {one.at:%Y-%m-%d %H:%M}")
        if entry is None:
            return
        for field, words in ((self.what, entry.what), (self.why, entry.why)):
            field.setText(words)
            field.setCursorPosition(0)
        base = self.session.base
        self.figures.setText("\n".join(_figures(base, entry.changes)))
        asked = asked_by(base, entry.changes) if one.kind == "change" else None
        if asked is not None and asked.anything:
            lines = [*_asked(asked), *_since(condition(base), entry.at, asked.proves)]
            self.asks.setText("\n".join(lines))
            self.asks.setVisible(True)

    # --- without one change ----------------------------------------------------------------

    def hideEvent(self, event: QHideEvent) -> None:
        self._let_go()
        self.line.stop()

    def _let_go(self) -> None:
        """Let the press show the build again."""
        if self.without.isChecked():
            self.without.setChecked(False)
            self.without.setText(WITHOUT)
            self.session.consider(None)

    def _offer_without(self, entry: HistoryEntry | None) -> None:
        """Offer to try the build without a change, as far as nothing has changed it since."""
        self._let_go()
        changes = entry is not None and bool(entry.changes)
        back = {} if entry is None else undone(self.session.base, entry)
        for button in (self.without, self.undo):
            button.setVisible(changes and bool(back))
        left = 0 if entry is None else len(entry.changes) - len(back)
        self.stays.setVisible(changes and left > 0)
        self.stays.setText(CHANGED_SINCE if not back else f"{left} of its figures {SINCE}")

    def _change_back(self) -> BuildChange | None:
        entry = self.rows[self.chosen].entry if self.rows else None
        if entry is None:
            return None
        return BuildChange(f"without: {entry.what}", undone(self.session.base, entry))

    def _try_without(self) -> None:
        """Let the press show the build without the change that is chosen."""
        without = self.without.isChecked()
        self.without.setText(WITH if without else WITHOUT)
        self.session.consider(self._change_back() if without else None)

    def _undo_it(self) -> None:
        """Take that change back, and none that came after it."""
        change = self._change_back()
        if change is not None:
            self._let_go()
            self.session.make(change, in_setup=False)

    # --- into the build --------------------------------------------------------------------

    def _entries(self) -> list[dict[str, Any]]:
        entries: list[dict[str, Any]] = dumped(self.session.base).get("history", [])
        return entries

    def _put(self, entries: list[dict[str, Any]], label: str) -> None:
        self.session.make(BuildChange(label, {"history": entries}), in_setup=False)
        self._show()

    def _place(self) -> int | None:
        """Return which entry of the build is chosen."""
        entry = self.rows[self.chosen].entry if self.rows else None
        return None if entry is None else self.session.base.history.index(entry)

    def _word(self) -> None:
        """Take the words as the builder puts them."""
        place = self._place()
        if place is None:
            return
        entries = self._entries()
        was = entries[place]["what"], entries[place].get("why", "")
        now = self.what.text().strip() or was[0], self.why.text().strip()
        if now != was:
            entries[place].update(what=now[0], why=now[1])
            self._put(entries, f"{now[0]}, worded")

    def _add(self, entry: dict[str, Any]) -> None:
        self._put([*self._entries(), entry], f"{entry['kind']}: {entry['what']}")
        at = datetime.fromisoformat(entry["at"])
        for place, one in enumerate(self.rows):  # it is not there where the edit was refused
            if (one.at, one.what) == (at, entry["what"]):
                self.choose(place)
                return

    def _drop(self) -> None:
        place = self._place()
        if place is not None:
            entries = self._entries()
            gone = entries.pop(place)
            self._put(entries, f"{gone['what']}, taken out")

    def _compare(self) -> None:
        entry = self.rows[self.chosen].entry
        if entry is not None:
            self.compare_asked.emit(entry)

    def _show_place(self) -> None:
        self.place_asked.emit(self.rows[self.chosen].place)


def _figures(build: Build, changes: Any) -> Iterator[str]:
    rows = [f"{name}: {words}" for name, words in figure_words((build,), thawed(changes))]
    yield from rows[:MOST]
    if len(rows) > MOST:
        yield f"… and {len(rows) - MOST} more"


def _since(found: Condition, at: datetime, proofs: Iterable[str]) -> Iterator[str]:
    """Yield which proofs that a change asks for were made since, and which are not.

    at: of the change; proofs: their names.
    """
    known = {one.name: one for one in found.standing.proofs}
    wanted = [known[name] for name in proofs if name in known]
    made = [one for one in wanted if one.state == "done" and one.at is not None and one.at >= at]
    if wanted and len(made) == len(wanted):
        last = max(one.at for one in made if one.at)
        yield f"All of it proved standing since, by {last:%Y-%m-%d}."
    elif wanted:
        left = ", ".join(title_of(one.name).lower() for one in wanted if one not in made)
        yield f"Not proved since: {left}."


def _asked(consequences: Consequences) -> Iterator[str]:
    """Yield what a change asks for, a line each."""
    if consequences.works:
        yield f"Worked out again: {'; '.join(consequences.works)}."
    if consequences.opens:
        named = {"all": "every circuit", "layout": "what was opened"}
        circuits = ", ".join(named.get(name, name) for name in consequences.opens)
        yield f"Bled again: {circuits}."
    proofs = [title_of(name).lower() for name in consequences.proves]
    proofs += ["moving"] if consequences.moves else []
    if proofs:
        yield f"Proved again: {', '.join(proofs)}."
