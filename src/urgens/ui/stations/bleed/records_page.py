"""What was done before: each run with its date, its method and what was read, by wheel."""

from PySide6.QtWidgets import QVBoxLayout, QWidget

from urgens.document.records import Record
from urgens.guidance.procedures.facts import said
from urgens.guidance.travel_read import travel_words
from urgens.guidance.words import Words
from urgens.ui.session import Session
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import worded, wrapped

NONE = "Nothing has been done yet: the card keeps every run here, in the build's own file."


class RecordsPage(Page):
    """The runs, the latest first."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._list = QVBoxLayout()
        inner = QWidget()
        inner.setLayout(self._list)
        self.lay_out(scrolled(inner, "What was done"), side=0)

    @property
    def summary(self) -> str:
        """How many there are."""
        kept = len(self.session.base.records)
        return "one run kept in the build" if kept == 1 else f"{kept} runs kept in the build"

    def show_figures(self) -> None:
        """Show the runs as they are now."""
        clear(self._list)
        records = self.session.base.records
        if not records:
            self._list.addWidget(wrapped("muted", NONE))
        for record in reversed(records):
            self._list.addWidget(worded(_title(record), "heading"))
            self._list.addWidget(wrapped("muted", self._told(record)))
        self._list.addStretch()

    def _told(self, record: Record) -> str:
        """Return what was read, wheel by wheel, and what a travel tells."""
        found: dict[str, list[str]] = {}
        words = Words(self.session.units)
        for entry in record.entries:
            place = "" if entry.wheel is None else said(entry.wheel)
            unit = " mm" if entry.field == "travel" else ""
            read = f"{entry.field} {_in_words(entry.value)}{unit}"
            tells = travel_words(self.session.solution, entry, words)
            found.setdefault(place, []).append(f"{read} ({tells})" if tells else read)
        lines = [f"{place or 'All'}: {', '.join(read)}" for place, read in found.items()]
        if record.fluid is not None:
            lines.insert(0, f"Fluid {record.fluid.grade}")
        if record.note:
            lines.append(record.note)
        return "\n".join(lines) or "nothing was read"


def _title(record: Record) -> str:
    day = record.started.isoformat(sep=" ", timespec="minutes")
    how = f", {record.method}" if record.method else ""
    left = "" if record.ended is not None else f", at step {record.step}"
    return f"{day}  {record.procedure}{how}{left}"


def _in_words(value: float | str | bool) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:g}" if isinstance(value, float) else value
