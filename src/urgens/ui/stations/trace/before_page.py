"""Faults that were followed before, and what they came to."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QVBoxLayout, QWidget

from urgens.document.ledger.traces import TraceRun
from urgens.guidance.faults.tables import tables
from urgens.ui.session import Session
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import worded, wrapped

EMPTY = "No fault has been followed to its end yet."


class BeforePage(Page):
    """One paragraph a fault, the last first."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        inner = QWidget()
        self._rows = QVBoxLayout(inner)
        self._rows.setContentsMargins(0, 0, 8, 0)
        self.lay_out(scrolled(inner, "Faults before"), side=0)
        self.said.hide()

    @property
    def summary(self) -> str:
        """How many there are."""
        count = len(self._ended)
        return f"{count} fault{'s' if count != 1 else ''} before"

    @property
    def _ended(self) -> list[TraceRun]:
        return [one for one in self.session.base.traces if one.ended is not None]

    def show_figures(self) -> None:
        """Show the faults with their ends."""
        clear(self._rows)
        for run in reversed(self._ended):
            self._rows.addWidget(worded(_title(run), "heading"))
            self._rows.addWidget(wrapped("muted", _told(run)))
        if not self._ended:
            self._rows.addWidget(wrapped("muted", EMPTY))
            follow = push_button("Follow a fault", "quiet", lambda: self.place_asked.emit("traces"))
            self._rows.addWidget(follow, 0, Qt.AlignmentFlag.AlignLeft)
            self._rows.addWidget(Sample(self.session, "before"))
        self._rows.addStretch()


def _title(run: TraceRun) -> str:
    causes = {one.id: one.words for one in tables().causes}
    words = causes.get(run.cause, run.cause) or "no cause was found"
    mended = ", mended" if run.mended else ""
    return f"{run.started:%Y-%m-%d}: {words}{mended}"


def _told(run: TraceRun) -> str:
    signs = {one.id: one.words for one in tables().signs}
    tests = {one.id: one for one in tables().tests}
    seen = [signs.get(one.sign, one.sign).lower() for one in run.signs if one.seen]
    done = [tests[one.test].words.lower() if one.test in tests else one.test for one in run.tests]
    said = f"Seen: {'; '.join(seen) or 'nothing noted'}."
    return f"{said} Tested: {'; '.join(done) or 'nothing'}."
