"""Two set-ups, two dates or two builds in every figure that differs, better and worse said."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from functools import partial
from pathlib import Path
from typing import ClassVar

from PySide6.QtCore import Qt
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import (
    QFileDialog,
    QMenu,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.document import SUFFIX, Build, BuildErrors, load, with_setup
from urgens.document.history import HistoryEntry
from urgens.document.past import as_of
from urgens.guidance.compared import REAR_FIRST, Compared, compared
from urgens.ui.session import Session
from urgens.ui.stations.sheet.compare_table import CompareTable
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.choices import Choices
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.worded import wrapped

SIDE = 220  # px of the column
SHOWN = {
    "judged": "better or worse",
    "computed": "worked out",
    "typed": "fitted and set",
    "all": "all",
}
MINUTE = timedelta(minutes=1)
LONGEST = 64  # letters of what is chosen
NONE = (
    "There is nothing to compare with yet: no set-up, no change in the history. Another build's "
    "file can be chosen."
)
NOTHING: tuple[object, ...] = ()  # is shown yet
SAME = "No figure differs."


@dataclass(frozen=True)
class Other:
    """What the build is compared with: its name, at length and in short, and how it is made."""

    name: str
    short: str
    make: Callable[[Build], tuple[Build, tuple[str, ...]]]


class ComparePage(Page):
    """What it is compared with is chosen above; figures in a table; the count beside."""

    kept: ClassVar[tuple[str, ...]] = ("shown", "_file")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.shown = "judged"
        self.rows: tuple[Compared, ...] = ()
        self._chosen: Other | None = None
        self._file: Path | None = None
        self._of: tuple[object, ...] = NOTHING
        self.table = CompareTable(session)
        self.with_what = QToolButton()
        self.with_what.setProperty("role", "kind")
        self.with_what.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.with_what.setMenu(QMenu(self.with_what))
        self.kinds = Choices(Qt.Orientation.Vertical)
        self.kinds.chosen.connect(self._look_at)
        self.words, self.unknown = wrapped("sentence"), wrapped("danger")
        self.file = QPushButton("Another file…")
        self.file.setProperty("role", "quiet")
        self.file.clicked.connect(self.ask_for_file)
        self._work = Background(self)
        self._work.ended.connect(self._show_found)
        self._work.failed.connect(self._say)
        self.head("Figures")
        self.column.addWidget(self.kinds)
        self.column.addWidget(self.file)
        self.column.addStretch()
        self.lay_out(self._drawing(), side=SIDE)
        self.said.hide()

    def _drawing(self) -> QWidget:
        whole = QWidget()
        column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(self.words)
        column.addWidget(self.with_what)
        column.addWidget(self.unknown)
        self.unknown.hide()
        column.addWidget(self.table, 1)
        return whole

    @property
    def summary(self) -> str:
        """How many figures differ."""
        return f"{len(self.rows)} figures differ" if self.rows else "no figure differs"

    # --- what with -------------------------------------------------------------------------

    @property
    def others(self) -> list[Other]:
        """What there is to compare the build with."""
        base = self.session.base
        names = [one.name for one in base.setups if one.name != self.session.setup]
        found = [Other(name, name, partial(_with_setup, name)) for name in names]
        if self.session.setup is not None:
            found.insert(0, Other("as it is, no set-up", "as it is", lambda build: (build, ())))
        changes = [one for one in base.history if one.changes]
        for entry in sorted(changes, key=lambda one: one.at, reverse=True):
            short = f"before {entry.at.day} {entry.at:%b %Y}"
            found.append(Other(_before_words(entry), short, partial(_before, entry)))
        if self._file is not None:
            name = self._file.name
            found.append(Other(name, name, partial(_of_file, self._file)))
        return found

    def compare_with(self, name: str) -> None:
        """Compare with one of `others`, by its name."""
        self._chosen = next(one for one in self.others if one.name == name)
        self._of = NOTHING
        self._show()

    def compare_before(self, entry: object) -> None:
        """Compare with the build before an entry of its history."""
        assert isinstance(entry, HistoryEntry)  # what the history gives
        self.compare_with(_before_words(entry))

    def ask_for_file(self) -> None:
        """Ask for another build and compare with it."""
        start = str(self.session.path.parent if self.session.path else Path.home())
        name, _ = QFileDialog.getOpenFileName(
            self, "Compare with another build", start, f"Urgens builds (*{SUFFIX});;All files (*)"
        )
        if name:
            self.compare_file(Path(name))

    def compare_file(self, path: Path) -> None:
        """Compare with the build in a file."""
        self._file = path
        self.compare_with(path.name)

    # --- what differs ----------------------------------------------------------------------

    def hideEvent(self, event: QHideEvent) -> None:
        if self._work.busy:  # to be done when it is seen again
            self._work.stop()
            self._of = NOTHING
            self.seen.forget()

    def show_figures(self) -> None:
        """Compare the build as it is looked at; away from the hand, since both are solved."""
        others = self.others
        known = {one.name for one in others}
        if self._chosen is None or self._chosen.name not in known:
            self._chosen = others[0] if others else None
        menu = self.with_what.menu()
        menu.clear()
        for one in others:
            menu.addAction(button_words(one.name), partial(self.compare_with, one.name))
        self.with_what.setVisible(bool(others))
        self.kinds.show_choices(SHOWN, self.shown)
        if self._chosen is None:
            self.rows = ()
            self.words.setText(NONE)
            self.table.show_rows((), ("", ""))
            return
        self.with_what.setText(button_words(shortened_line(f"Beside {self._chosen.name}")))
        session = self.session
        surface = None if session.surface_is_own else session.solution.surface
        key = (session.build, session.base, self._chosen.name, session.view.load_case, surface)
        if key == self._of:
            self._show_rows()
            return
        self._of = key
        make, build, base, case = self._chosen.make, session.build, session.base, key[3]

        def work(progress: Callable[[float], bool]) -> object:
            other, unknown = make(base)
            return compared(build, other, case, surface), unknown

        self._work.run(work, SOON)

    def _show_found(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        self.rows, unknown = found
        self.unknown.setText(
            f"The history names what this build has not: {', '.join(unknown)}. That is left out."
        )
        self.unknown.setVisible(bool(unknown))
        self._show_rows()
        self.say()

    def _say(self, words: str) -> None:
        self.rows = ()
        self.unknown.setText(words)
        self.unknown.show()
        self.words.setText("This cannot be compared.")
        self.table.show_rows((), ("", ""))

    def _look_at(self, kind: object) -> None:
        self.shown = str(kind)
        self._show()

    def _show_rows(self) -> None:
        assert self._chosen is not None
        here = self.session.setup or "as it is"
        self.words.setText(_claim(self.rows, here))
        if not any(_is_shown(one, self.shown) for one in self.rows):
            self.shown = "all"
            self.kinds.show_choices(SHOWN, self.shown)
        rows = tuple(one for one in self.rows if _is_shown(one, self.shown))
        self.table.show_rows(rows, (here, self._chosen.short))


def shortened_line(words: str) -> str:
    """Return words of a button, cut where a history has worded them at length."""
    return words if len(words) <= LONGEST else f"{words[: LONGEST - 1]}…"


def _with_setup(name: str, base: Build) -> tuple[Build, tuple[str, ...]]:
    return with_setup(base, name), ()


def _before(entry: HistoryEntry, base: Build) -> tuple[Build, tuple[str, ...]]:
    """Return the build before an entry: as of the minute before it."""
    once = as_of(base, entry.at.replace(second=0, microsecond=0) - MINUTE)
    return once.build, once.unknown


def _of_file(path: Path, base: Build) -> tuple[Build, tuple[str, ...]]:
    try:
        return load(path), ()
    except BuildErrors as errors:
        first = errors.errors[0]
        raise BuildErrors.one(path.name, first.problem, first.remedy) from None


def _is_shown(one: Compared, kind: str) -> bool:
    if kind == "judged":
        return bool(one.better)
    if kind == "typed":
        return bool(one.path)
    return kind == "all" or not one.path


def _before_words(entry: HistoryEntry) -> str:
    return f"before {entry.at:%Y-%m-%d}: {entry.what}"


def _claim(rows: tuple[Compared, ...], here: str) -> str:
    """Return what it comes to, as one claim."""
    if not rows:
        return SAME
    better = sum(one.better == "here" for one in rows)
    worse = sum(one.better == "other" for one in rows)
    figures = "figure" if better == 1 else "figures"
    words = f"{here}: better in {better} {figures}, worse in {worse}"
    rear = next((one for one in rows if one.name == REAR_FIRST), None)
    if rear is not None:  # which outweighs the others
        words += f"; the rear locks first on {rear.here:g} loads and roads, beside {rear.other:g}"
    return f"{words[:1].upper()}{words[1:]}"
