"""A station of several pages, one of them seen."""

import pkgutil
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import partial
from typing import ClassVar, cast

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

from urgens.document import Build
from urgens.document.edits.setups import is_under
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.buttons import menu_button
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.seen import WhenSeen
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.station import Kept, Station
from urgens.ui.widgets.worded import elided, worded

MOST_IN_SIGHT = 6  # pages; the rest folds
EDGE = 18  # px beside the page
MOST_BESIDE = 4  # pages beside which there is room for the summary


@dataclass(frozen=True)
class Need:
    """What a page is for: a `section` of the build, and whether a build has it."""

    section: str
    met: Callable[[Build], bool]


Needs = Mapping[str, Need]


class PagedStation(Station):
    """Title, a button for each page, and the page; from far away a menu instead of buttons.

    `kinds` are their names, each with `module:Class` in the station's package: a page is loaded,
    and made, when it is first looked at. At most six are in sight: what neither the build nor one
    of its set-ups needs, by `needs`, and then what is read `seldom`, the first of them first, folds
    under one button. So none wanders when another set-up is looked at.
    `sections` name the page of a place by what its path begins with, `named` that of a word which
    stands alone, or before a colon and what is to be looked at.
    """

    title: ClassVar[str]
    kinds: ClassVar[Mapping[str, str]]
    needs: ClassVar[Needs] = {}
    seldom: ClassVar[tuple[str, ...]] = ()
    sections: ClassVar[Mapping[str, str]] = {}
    named: ClassVar[Mapping[str, str]] = {}

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self._names = tuple(self.kinds)
        self.pages = QStackedWidget()
        self.choose: list[QToolButton] = []
        self._made: dict[int, Page] = {}
        self._kept: dict[str, Kept] = {}  # of pages that were made in another theme
        self.index = 0
        self._summary = elided("summary")
        group = QButtonGroup(self)
        self.menu = menu_button()
        self.menu.setMenu(QMenu(self.menu))
        for index, words in enumerate(self._names):
            button = segment(words)
            button.setProperty("narrow", "true")
            button.clicked.connect(lambda _=False, page=index: self._choose(page))
            group.addButton(button)
            self.choose.append(button)
            self.menu.menu().addAction(words, lambda page=index: self.show_page(page))
        self.more = segment("More")
        self.more.setProperty("narrow", "true")
        self.more.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.more.setMenu(QMenu(self.more))
        self._folded: tuple[str, ...] = ()
        self._lay_out()
        self._fold()
        self._seen = WhenSeen(self, self._show)
        self.show_page(0)
        session.solution_changed.connect(self._seen.ask)

    def _lay_out(self) -> None:
        head = spaced(QHBoxLayout(), 12)
        head.addWidget(worded(self.title, "title"))
        head.addWidget(self.menu)
        row = spaced(QHBoxLayout(), 2)
        for button in self.choose:
            row.addWidget(button)
        row.addWidget(self.more)
        head.addLayout(row)
        beside = T.stands_back or len(self.kinds) <= MOST_BESIDE
        head.addWidget(self._summary, 1)
        if not beside:
            head.addStretch()
            self._summary.hide()
        if not T.stands_back:
            self.menu.hide()
        column = spaced(QVBoxLayout(self), 8, (EDGE, 12, EDGE, 8))
        column.addLayout(head)
        column.addWidget(self.pages, 1)
        self.pages.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)

    def _fold(self) -> None:
        """Fold what this build does not need, and what is read seldom, until six are in sight."""
        base = self._session.base
        seen = [n for n in self._names if n not in self.needs or self._needed(n, base)]
        for name in self.seldom:
            if len(seen) > MOST_IN_SIGHT and name in seen:
                seen.remove(name)
        folded = tuple(name for name in self._names if name not in seen)
        for name, button in zip(self._names, self.choose, strict=True):
            button.setVisible(name in seen and not T.stands_back)
        self.more.setVisible(bool(folded) and not T.stands_back)
        if folded != self._folded:
            self._folded = folded
            menu = self.more.menu()
            menu.clear()
            for name in folded:
                menu.addAction(name, partial(self.show_page_named, name))
        self._name_more()

    def _needed(self, name: str, base: Build) -> bool:
        """Tell whether the build needs a page, or a set-up brings or changes what it is for."""
        need = self.needs[name]
        return need.met(base) or any(
            is_under(path, need.section) or is_under(need.section, path)
            for setup in base.setups
            for path in setup.changes
        )

    def _name_more(self) -> None:
        """Let the last button say which folded page is shown."""
        here = self._names[self.index]
        self.more.setText(f"More: {here}" if here in self._folded else "More")
        self.more.setChecked(here in self._folded)

    @property
    def page(self) -> Page:
        """The page that is shown."""
        return self.page_at(self.index)

    def page_at(self, index: int) -> Page:
        """Return a page by its place."""
        if index not in self._made:
            package = type(self).__module__.rpartition(".")[0]
            kind = pkgutil.resolve_name(f"{package}.{self.kinds[self._names[index]]}")
            page = self._made[index] = kind(self._session)
            self.pages.addWidget(page)
            page.spoke.connect(self._speak)
            page.place_asked.connect(self.place_asked)
            page.command_requested.connect(self.command_requested)
            self.made(page)
            if self._names[index] in self._kept:
                page.give_back(self._kept.pop(self._names[index]))
        return self._made[index]

    def made(self, page: Page) -> None:
        """Join a page that was just made to the others."""

    def go_to(self, where: str) -> bool:
        """Show the page of a place; tell whether it is here."""
        word, _, rest = where.partition(":")
        if word in self.named:
            self.show_page_named(self.named[word])
            self.page.look_at(rest)
            return True
        for section, name in self.sections.items():
            if where.startswith(section):
                self.show_page_named(name)
                return True
        return False

    def take_focus(self) -> None:
        """Let the page that is shown have the keys."""
        self.page.setFocus()

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

    def _choose(self, index: int) -> None:
        """Show the page that was chosen by hand, which has the keys from then on."""
        self.show_page(index)
        self.take_focus()

    def show_page(self, index: int) -> None:
        """Show one of the pages."""
        self.index = index
        self.choose[index].setChecked(True)
        self.menu.setText(self._names[index])
        self._name_more()
        self._seen.ask()
        self.page_shown.emit()

    def _show(self) -> None:
        """Bring the page that is chosen, and let it say its one line."""
        self._fold()
        self.pages.setCurrentWidget(self.page)
        self.page.refresh()
        self._speak()

    def _speak(self) -> None:
        self._summary.setText(self.page.summary)
