"""The Size station: bore, pedal ratio, booster, travel and feel, a page each."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QMenu,
    QSizePolicy,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.ui.session import Session
from urgens.ui.stations.size.booster_page import BoosterPage
from urgens.ui.stations.size.feel_page import FeelPage
from urgens.ui.stations.size.half_page import HalfPage
from urgens.ui.stations.size.heat_page import HeatPage
from urgens.ui.stations.size.launch_page import LaunchPage
from urgens.ui.stations.size.map_page import MapPage
from urgens.ui.stations.size.page import Page
from urgens.ui.stations.size.pedal_page import PedalPage
from urgens.ui.stations.size.setups_page import SetUpsPage
from urgens.ui.stations.size.why_page import WhyPage
from urgens.ui.theme.paint import T
from urgens.ui.widgets.worded import elided, worded

PAGES: tuple[tuple[str, Callable[[Session], Page]], ...] = (
    ("Map", MapPage),
    ("Pedal", PedalPage),
    ("Booster", BoosterPage),
    ("Feel", FeelPage),
    ("Half lost", HalfPage),
    ("Launch", LaunchPage),
    ("Heat", HeatPage),
    ("Set-ups", SetUpsPage),
    ("Why?", WhyPage),
)
MAP, PEDAL, BOOSTER, FEEL, HALF, LAUNCH, HEAT, SETUPS, WHY = range(len(PAGES))


class SizeStation(QWidget):
    """Every real bore against every ratio, and what the choice means for the foot."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.pages = QStackedWidget()
        self.choose: list[QToolButton] = []
        self._made: dict[int, Page] = {}  # a page is made when it is first looked at
        self.index = MAP
        self._summary = elided("summary")
        group = QButtonGroup(self)
        for index, (words, _) in enumerate(PAGES):
            button = QToolButton()
            button.setText(words)
            button.setCheckable(True)
            button.setProperty("segment", "true")
            button.setProperty("narrow", "true")
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(lambda _=False, page=index: self.show_page(page))
            group.addButton(button)
            self.choose.append(button)
        self.choose[WHY].setToolTip("?")
        head = QHBoxLayout()
        head.setSpacing(12)
        head.addWidget(worded("Size", "title"))
        self.menu = QToolButton()
        self.menu.setProperty("role", "kind")
        self.menu.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.menu.setMenu(QMenu(self.menu))
        for index, (words, _) in enumerate(PAGES):
            self.menu.menu().addAction(words, lambda page=index: self.show_page(page))
        head.addWidget(self.menu)
        head.addWidget(self._summary, 1, Qt.AlignmentFlag.AlignBottom)
        for button in self.choose:
            head.addWidget(button)
        head.addStretch()
        for widget in self.choose if T.stands_back else (self.menu, self._summary):
            widget.hide()
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 12, 24, 8)
        column.setSpacing(8)
        column.addLayout(head)
        column.addWidget(self.pages, 1)
        self.pages.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.show_page(MAP)
        session.solution_changed.connect(self._changed)

    @property
    def page(self) -> Page:
        """The page that is shown."""
        return self.page_at(self.index)

    def page_at(self, index: int) -> Page:
        """Return a page; index: MAP, PEDAL and so on."""
        if index not in self._made:
            page = self._made[index] = PAGES[index][1](self._session)
            self.pages.addWidget(page)
        return self._made[index]

    def show_page(self, index: int) -> None:
        """Show one of the pages."""
        self.index = index
        if self.isVisible():
            self.pages.setCurrentWidget(self.page)
        self.choose[index].setChecked(True)
        self.menu.setText(PAGES[index][0])
        self._say()

    def showEvent(self, event: QShowEvent) -> None:
        self.pages.setCurrentWidget(self.page)
        self._say()

    def _changed(self) -> None:
        if self.isVisible():
            self._say()

    def _say(self) -> None:
        if not self.isVisible():
            return
        self.page.refresh()
        self._summary.setText(self.page.summary)
