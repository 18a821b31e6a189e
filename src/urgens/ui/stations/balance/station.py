"""The Balance station: valves set, chosen and trusted, a page each."""

import re
from typing import ClassVar

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from urgens.document import Build
from urgens.ui.session import Session
from urgens.ui.stations.balance import PAGES
from urgens.ui.stations.balance.set_page import SetPage
from urgens.ui.widgets.paged import Need, Needs, PagedStation

# Of the press, of Bleed, and of Prove.
_ELSEWHERE = (
    "targets",
    "pedal",
    "master",
    "joints",
    "records",
    "proof",
    "traces",
    "plumbing",
    "history",
    "photographs",
)


class BalanceStation(PagedStation):
    """Pressures and what sets them, what else could be fitted, how sure it is."""

    title, kinds, seldom = "Balance", PAGES, ("What changed?",)
    needs: ClassVar[Needs] = {
        "Speed": Need("vehicle.downforce", lambda build: build.vehicle.downforce is not None)
    }

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, parent)
        page = self.page_at(0)
        assert isinstance(page, SetPage)
        self.pressures, self.adhesion = page.pressures, page.adhesion
        self.controls, self.locks = page.controls, page.locks
        self.view, self.fitted = page.view, page.fitted

    def go_to(self, where: str) -> bool:
        """Focus what sets the rear, or the pressures; tell whether the place is here."""
        section = re.match(r"\w*", where)
        own = section is not None and section[0] in Build.model_fields  # else a part of the layout
        if not own or where.startswith(_ELSEWHERE):
            return False
        self.show_page(0)
        knee, fit = self.controls.knee.label, self.controls.fit
        rear = knee if not self.controls.knee.isHidden() else fit
        target: QWidget = rear if where.startswith("valves.rear") else self.pressures
        target.setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True
