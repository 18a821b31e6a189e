"""A station of several pages, one of them seen."""

import pkgutil
from collections.abc import Mapping
from typing import cast

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
from shiboken6 import delete

from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.seen import WhenSeen
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.station import Kept, Station
from urgens.ui.widgets.worded import elided, worded

MOST_BESIDE = 6  # pages beside which there is room for the summary


class PagedStation(Station):
    """Title, a button for each page, and the page; from far away a menu instead of buttons.

    `pages` are their names, each with `module:Class` in `package`: a page is loaded, and made, when
    it is first looked at.
    """

    def __init__(
        self,
        session: Session,
        title: str,
        package: str,
        pages: Mapping[str, str],
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(parent)
        self._session, self._package = session, package
        self._names, self._kinds = tuple(pages), tuple(pages.values())
        self.pages = QStackedWidget()
        self.choose: list[QToolButton] = []
        self._made: dict[int, Page] = {}
        self._kept: dict[str, Kept] = {}  # of pages that were made in another theme
        self.index = 0
        self._summary = elided("summary")
        group = QButtonGroup(self)
        self.menu = QToolButton()
        self.menu.setProperty("role", "kind")
        self.menu.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.menu.setMenu(QMenu(self.menu))
        for index, words in enumerate(self._names):
            button = segment(words)
            button.setProperty("narrow", "true")
            button.clicked.connect(lambda _=False, page=index: self.show_page(page))
            group.addButton(button)
            self.choose.append(button)
            self.menu.menu().addAction(words, lambda page=index: self.show_page(page))
        self._lay_out(title)
        self._seen = WhenSeen(self, self._show)
        self.show_page(0)
        session.solution_changed.connect(self._seen.ask)

    def _lay_out(self, title: str) -> None:
        head = QHBoxLayout()
        head.setSpacing(12)
        head.addWidget(worded(title, "title"))
        head.addWidget(self.menu)
        row = QHBoxLayout()
        row.setSpacing(2)
        for button in self.choose:
            row.addWidget(button)
        head.addLayout(row)
        beside = T.stands_back or len(self._kinds) <= MOST_BESIDE
        head.addWidget(self._summary, 1)
        if not beside:
            head.addStretch()
            self._summary.hide()
        for widget in self.choose if T.stands_back else (self.menu,):
            widget.hide()
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 12, 24, 8)
        column.setSpacing(8)
        column.addLayout(head)
        column.addWidget(self.pages, 1)
        self.pages.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)

    @property
    def page(self) -> Page:
        """The page that is shown."""
        return self.page_at(self.index)

    def page_at(self, index: int) -> Page:
        """Return a page by its place."""
        if index not in self._made:
            kind = pkgutil.resolve_name(f"{self._package}.{self._kinds[index]}")
            page = self._made[index] = kind(self._session)
            self.pages.addWidget(page)
            page.spoke.connect(self._speak)
            if self._names[index] in self._kept:
                page.give_back(self._kept.pop(self._names[index]))
        return self._made[index]

    def show_page_named(self, name: str) -> None:
        """Show one of the pages by its name."""
        self.show_page(self._names.index(name))

    @property
    def page_name(self) -> str:
        """The name of the page that is shown."""
        return self._names[self.index]

    def forget_unseen(self) -> None:
        for index in [index for index in self._made if index != self.index]:
            delete(self._made.pop(index))

    def keep(self) -> Kept:
        """Return the page that is shown, and what each page keeps."""
        made = {self._names[index]: page.keep() for index, page in self._made.items()}
        return {"page": self.page_name, "pages": {**self._kept, **made}}

    def give_back(self, kept: Kept) -> None:
        """Show the page that was shown, and give each page what it kept, once it is looked at."""
        self._kept = dict(cast(dict[str, Kept], kept.get("pages", {})))
        for index, page in self._made.items():
            page.give_back(self._kept.pop(self._names[index], {}))
        if "page" in kept:
            self.show_page_named(str(kept["page"]))

    def show_page(self, index: int) -> None:
        """Show one of the pages."""
        self.index = index
        self.choose[index].setChecked(True)
        self.menu.setText(self._names[index])
        self._seen.ask()

    def _show(self) -> None:
        """Bring the page that is chosen, and let it say its one line."""
        self.pages.setCurrentWidget(self.page)
        self.page.refresh()
        self._speak()

    def _speak(self) -> None:
        self._summary.setText(self.page.summary)
