"""The bench: the station that is worked at, the others waiting as they were left."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QStackedWidget, QWidget
from shiboken6 import delete

from urgens.ui.session import Session
from urgens.ui.widgets.station import Kept, Station, StationKind


class StationStack(QStackedWidget):
    """Makes a station when it is first asked for, and goes from one to another."""

    shown = Signal(str)
    command_requested = Signal(str)
    place_asked = Signal(str)

    def __init__(self, session: Session, kinds: tuple[StationKind, ...]) -> None:
        super().__init__()
        self.setObjectName("bench")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._session = session
        self._kinds = {kind.name: kind for kind in kinds}
        self._made: dict[str, Station] = {}
        self._kept: dict[str, Kept] = {}  # of stations that were made in another theme
        self.name = kinds[0].name
        self._asked_from: tuple[str, str] | None = None  # station and page before a visit

    def station(self, name: str) -> Station:
        """Return a station; raises KeyError where there is none of that name."""
        if name not in self._made:
            made = self._made[name] = self._kinds[name].make(self._session)
            made.command_requested.connect(self.command_requested)
            made.place_asked.connect(self.place_asked)
            made.page_shown.connect(self._page_shown)
            self.addWidget(made)
            if name in self._kept:
                made.give_back(self._kept.pop(name))
        return self._made[name]

    def begin_at(self, name: str) -> None:
        """Bring a station once the bench is seen: whoever starts elsewhere waits less."""
        self.name = name

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        if self.name not in self._made:
            self.show_station(self.name)

    def show_station(self, name: str) -> None:
        """Bring a station."""
        station = self.station(name)
        self.name = name
        self.setCurrentWidget(station)
        self.shown.emit(name)

    @property
    def standing(self) -> bool:
        """Whether the vehicle does not move at the page that is shown."""
        return self.station(self.name).page_name in self._kinds[self.name].standing

    def _page_shown(self) -> None:
        if self.sender() is self._made.get(self.name):
            self.shown.emit(self.name)

    def visit(self, name: str, page: str) -> None:
        """Look at a page of a station; asked again there, go back to where it was asked."""
        station = self.station(name)
        if (self.name, station.page_name) == (name, page):
            back, its_page = self._asked_from or (name, self._kinds[name].pages[0])
            station.show_page_named(its_page)
            self.show_station(back)
            return
        self._asked_from = (self.name, station.page_name)
        station.show_page_named(page)
        self.show_station(name)

    def go_to(self, where: str) -> bool:
        """Bring what a finding points at; tell whether a station has it."""
        for name in self._kinds:
            if self.station(name).go_to(where):
                self.show_station(name)
                self.station(name).go_to(where)  # again, now that it can take the focus
                return True
        return False

    def current(self) -> QWidget:
        """Return the station that is shown."""
        return self.station(self.name)

    def keep(self) -> tuple[str, dict[str, Kept], tuple[str, str] | None]:
        """Return what is shown, and what every station keeps."""
        kept = {**self._kept, **{name: made.keep() for name, made in self._made.items()}}
        return self.name, kept, self._asked_from

    def forget_unseen(self) -> None:
        """Let go of what is not shown, so that it is not restyled only to be made anew."""
        for name in [name for name in self._made if name != self.name]:
            delete(self._made.pop(name))
        if self.name in self._made:
            self._made[self.name].forget_unseen()

    def give_back(self, kept: tuple[str, dict[str, Kept], tuple[str, str] | None]) -> None:
        """Show what another bench has shown, every station as it was left."""
        name, self._kept, self._asked_from = kept
        self.show_station(name)
