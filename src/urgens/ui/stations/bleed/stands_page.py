"""As it stands: may it move, what holds it and where, and what ends each; read first."""

from typing import Any

from PySide6.QtWidgets import QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.document.edits.edit import dumped
from urgens.guidance.condition.holds import Condition, condition
from urgens.ui.session import Session
from urgens.ui.stations.bleed.holds_list import HoldsList
from urgens.ui.stations.bleed.open_items import OpenItems
from urgens.ui.stations.bleed.run import now
from urgens.ui.stations.bleed.standing_plan import StandingPlan
from urgens.ui.theme.paint import T
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.timers import once
from urgens.ui.widgets.worded import wrapped

UNLIMITED = 16_777_215  # px, Qt's own: the picture may take all the room
FREE = "Nothing on record holds it."
UNKNOWN = "It is neither bled nor proved here."
FIRST = "Local rules and a look by a qualified person come first."
NOTHING = "Nothing is on record yet."
LEAST = 250  # px high: at least
PLAN = 300  # px high, beside rows of what holds the vehicle


class StandsPage(Page):
    """One line, one picture, and a row for each hold; what is noted as open beside."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.verdict, self.first = wrapped("sentence"), wrapped("muted")
        self.plan, self.list, self.items = StandingPlan(), HoldsList(), OpenItems(session)
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 6)
        for widget in (self.verdict, self.first):
            column.addWidget(widget)
        column.addWidget(self.plan, 1)
        self.rows = scrolled(self.list, "What holds the vehicle")
        column.addWidget(self.rows, 1)
        self.plan.setMinimumHeight(round(LEAST * T.scale))
        self.head("Noted as open")
        self.column.addWidget(self.items)
        self.column.addStretch()
        self.lay_out(whole)
        self.said.hide()
        self.list.noted.connect(self._note)
        self.list.lifted.connect(self._lift)
        self.list.asked.connect(self.place_asked)
        self._later = once(self, 0, self._show_field)  # once it has its place
        self.list.typing.connect(lambda _: self._later.start())

    @property
    def summary(self) -> str:
        """Whether it may move, and how much is noted as open."""
        left = sum(one.done is None for one in self.session.base.open_items)
        noted = f"; {left} noted as open" if left else ""
        return f"{verdict(condition(self.session.base)).rstrip('.').lower()}{noted}"

    def show_figures(self) -> None:
        """Show the vehicle as it stands now."""
        found = condition(self.session.base)
        self.verdict.setText(verdict(found))
        stands = found.standing.fold.lifted
        lifted = [f"Lifted by you, {one.place or one.hold}: {one.reason}."
                  for one in self.session.base.noted
                  if one.what == "lifted" and (one.hold, one.place) in stands]  # fmt: skip
        self.first.setText(
            " ".join([*([UNKNOWN] if found.may_move is None else []), FIRST, *lifted])
        )
        self.plan.show_standing(self.session.base, found)
        self.list.show_holds(found)
        self.rows.setVisible(bool(found.holds))
        self.plan.setMaximumHeight(round(PLAN * T.scale) if found.holds else UNLIMITED)
        self.items.show_items()

    def _show_field(self) -> None:
        if self.list.reason is not None:
            self.rows.ensureWidgetVisible(self.list.reason)

    # --- into the build --------------------------------------------------------------------

    def _note(self, noted: dict[str, str], words: str) -> None:
        self._add(noted, f"Noted: {words}")

    def _lift(self, code: str, place: str, reason: str) -> None:
        lifted = {"what": "lifted", "hold": code, "place": place, "reason": reason}
        self._add(lifted, f"Lifted: {reason}")

    def _add(self, noted: dict[str, str], label: str) -> None:
        rows: list[dict[str, Any]] = dumped(self.session.base).get("noted", [])
        change = BuildChange(label, {"noted": [*rows, {"at": now(), **noted}]})
        self.session.make(change, in_setup=False)


def verdict(found: Condition) -> str:
    """Return in one line whether a vehicle may move."""
    if found.may_move is None:
        return NOTHING
    if found.may_move:
        return FREE
    count = len(found.holds)
    return f"Do not move it: {count} thing{'s' if count > 1 else ''} hold{'s' * (count == 1)} it."
