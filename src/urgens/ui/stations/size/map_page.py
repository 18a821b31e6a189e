"""The map beside the pedal and the windows: where bore and ratio are chosen."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QSizePolicy, QToolButton

from urgens.studies.sizing import SizingMap
from urgens.studies.sizing_windows import MissedWindow
from urgens.ui.session import Session
from urgens.ui.stations.size.choices import RATIOS
from urgens.ui.stations.size.linkage_board import LinkageBoard
from urgens.ui.stations.size.map_picture import WORDS
from urgens.ui.stations.size.map_view import MapView
from urgens.ui.stations.size.windows_board import WindowsBoard, presets
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import point_out
from urgens.ui.widgets.worded import worded

BEST = 4  # bores offered


class MapPage(Page):
    """Every real bore against every ratio, and what the choice gives."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.map = MapView(session)
        self.pedal = LinkageBoard(session)
        self.windows = WindowsBoard(session, self._chosen)
        self.best = QPushButton()
        self.best.setProperty("role", "primary")
        # What it says must not widen the column: windows would move under the hand.
        self.best.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.best.clicked.connect(self._take)
        self.map.looked.connect(self._show_looked)
        self.offers: list[tuple[int, float]] = []
        self.others, self.usual = QToolButton(), QToolButton()
        for button, words in ((self.others, "Others"), (self.usual, "Usual windows")):
            button.setText(words)
            button.setProperty("role", "kind")
            button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
            button.setMenu(QMenu(button))
        self.usual.menu().aboutToShow.connect(self._list_usual)
        point_out(self.usual, "Common practice, no published source")
        lines = 2 * self.said.fontMetrics().lineSpacing() + 2
        self.said.setFixedHeight(lines)  # so that nothing moves under the hand that drags
        self.said.setAlignment(Qt.AlignmentFlag.AlignTop)
        row = spaced(QHBoxLayout(), 4)
        row.addWidget(self.best, 1)
        row.addWidget(self.others)
        self.column.addLayout(row)
        self.column.addWidget(self.pedal, 1)
        wanted = QHBoxLayout()
        wanted.addWidget(worded("What is wanted", "heading"), 1)
        wanted.addWidget(self.usual)
        self.column.addLayout(wanted)
        self.column.addWidget(self.windows)
        self.lay_out(self.map)

    def _chosen(self) -> tuple[SizingMap, tuple[int, int]]:
        if self.map.candidate is not None:
            return self.map.choices.one(*self.map.candidate), (0, 0)
        return self.map.choices.own_map, (0, 0)

    def _take(self) -> None:
        """Take what is looked at, else what fits best."""
        if self.map.candidate is not None:
            self.map.take()
        elif self.offers:
            self.map.choices.choose(*self.offers[0])

    def _show_looked(self) -> None:
        """Let heading, windows and button speak of what is looked at."""
        self.windows.seen.now()
        self._name_take()
        self.say()

    def _name_take(self) -> None:
        choices, candidate = self.map.choices, self.map.candidate
        offer = candidate or (self.offers[0] if self.offers else None)
        self.best.setEnabled(offer is not None)
        if offer is None:
            self.best.setText("Nothing fits")
        else:
            self.best.setText(f"Take {choices.bores[offer[0]].text} at {offer[1]:.2f}")
            best = "What fits best, marked on the map" if candidate is None else "What is looked at"
            point_out(self.best, best)

    @property
    def summary(self) -> str:
        """The choice, or what is looked at, and the first window it misses."""
        choices = self.map.choices
        row, ratio = self.map.candidate or (choices.own, choices.ratio)
        found, at = self._chosen()
        kind = MissedWindow(int(found.verdict[at]))
        looked = "" if self.map.candidate is None else "looked at, not fitted: "
        return f"{looked}{choices.bores[row].text} at {ratio:.2f} : 1: {WORDS[kind]}"

    def show_figures(self) -> None:
        """Work out the map of the build as it is now."""
        self.map.refresh()
        self.windows.seen.now()
        choices, seen = self.map.choices, dict[int, float]()
        for row, column in choices.map.ranked():
            seen.setdefault(row, float(RATIOS[column]))
        self.offers = list(seen.items())[:BEST]
        words = [f"{choices.bores[row].text} at {ratio:.2f}" for row, ratio in self.offers]
        self._name_take()
        self.others.setVisible(len(words) > 1)
        menu = self.others.menu()
        menu.clear()
        for said, offer in zip(words[1:], self.offers[1:], strict=True):
            menu.addAction(said, lambda o=offer: self.map.choices.choose(*o))

    def _list_usual(self) -> None:
        menu = self.usual.menu()
        menu.clear()
        for words, take in presets(self.session):
            menu.addAction(words, take)
        menu.addAction("common practice, no published source").setEnabled(False)
