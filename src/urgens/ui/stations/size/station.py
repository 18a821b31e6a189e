"""The Size station: bore, pedal ratio, booster, travel and feel, a page each."""

from collections.abc import Mapping
from typing import ClassVar

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.size import PAGES
from urgens.ui.widgets.paged import Need, Needs, PagedStation
from urgens.ui.widgets.plain import point_out
from urgens.ui.widgets.setup_menu import COMPARED


class SizeStation(PagedStation):
    """Every real bore against every ratio, and what the choice means for the foot."""

    title, kinds, seldom = "Size", PAGES, ("Why?", "Heat", "Set-ups", "Two cylinders")
    # where findings point that stand on no drawing
    sections: ClassVar[Mapping[str, str]] = {
        "vehicle.launch": "Launch", "booster": "Booster", "master": "Map"
    }  # fmt: skip
    needs: ClassVar[Needs] = {
        "Booster": Need("booster", lambda build: build.booster.fitted),
        "Launch": Need("vehicle.launch", lambda build: build.vehicle.launch is not None),
    }

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, parent)
        point_out(self.choose[list(PAGES).index("Why?")], "?")

    def go_to(self, where: str) -> bool:
        """Show the page of a part, not of a figure of it; tell whether it has one."""
        if where == COMPARED:
            self.show_page_named("Set-ups")
            return True
        return where in self.sections and super().go_to(where)
