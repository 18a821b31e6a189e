"""Two set-ups, two dates or two builds in every figure that differs, better and worse said."""

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import ClassVar

from PySide6.QtCore import Qt
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QMenu, QToolButton, QVBoxLayout, QWidget

from urgens.document.ledger.history import HistoryEntry
from urgens.guidance.advice.build_comparison import REAR_FIRST, ComparedFigure, compared
from urgens.studies.mixtures import Mixtures, of_figures, of_history
from urgens.ui.session import Session
from urgens.ui.stations.sheet.compare_others import Other, before_words, others, shortened_line
from urgens.ui.stations.sheet.compare_table import CompareTable
from urgens.ui.stations.sheet.compare_why import WhyView
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.buttons import menu_button, push_button
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.file_choice import BUILDS, file_to_read
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.worded import wrapped

SIDE = 220  # px of the column
WHY = "why"  # in place of the figures
SHOWN = {
    "judged": "better or worse",
    "computed": "worked out",
    "typed": "fitted and set",
    "all": "all",
    WHY: "which change did it",
}
LOOKED_AT = "what is looked at now"
NONE = (
    "There is nothing to compare with yet: no set-up, no change in the history. Another build's "
    "file can be chosen."
)
NOTHING: tuple[object, ...] = ()  # is shown yet
SAME = "No figure differs."


class ComparePage(Page):
    """What it is compared with is chosen above; figures in a table; the count beside."""

    kept: ClassVar[tuple[str, ...]] = ("shown", "_file")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.shown = "judged"
        self.rows: tuple[ComparedFigure, ...] = ()
        self._here: Other | None = None  # what is looked at, where it is none of the others
        self._chosen: Other | None = None
        self._file: Path | None = None
        self._of: tuple[object, ...] = NOTHING
        self._why_of: tuple[object, ...] = NOTHING
        self.table, self.why = CompareTable(session), WhyView(session)
        self.of_what, self.with_what = _menu_button(), _menu_button()
        self.kinds = SegmentRow(Qt.Orientation.Vertical)
        self.kinds.chosen.connect(self._look_at)
        self.words, self.unknown = wrapped("sentence"), wrapped("danger")
        self.file = push_button("Another file…", "quiet", self.ask_for_file)
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
        column = tight(QVBoxLayout(whole), 6)
        column.addWidget(self.words)
        for button in (self.of_what, self.with_what):
            column.addWidget(button)
        column.addWidget(self.unknown)
        self.unknown.hide()
        column.addWidget(self.table, 1)
        column.addWidget(self.why, 1)
        self.sample = Sample(self.session, "compare")
        column.addWidget(self.sample)
        column.addStretch()
        return whole

    @property
    def summary(self) -> str:
        """How many figures differ."""
        return f"{len(self.rows)} figures differ" if self.rows else "no figure differs"

    # --- what with -------------------------------------------------------------------------

    @property
    def others(self) -> list[Other]:
        """What there is to compare with."""
        return others(self.session.base, self.session.setup, self._file)

    def look_from(self, name: str) -> None:
        """Put one of `others` in the place of what is looked at; any other name puts that back."""
        self._here = next((one for one in self.others if one.name == name), None)
        self._of = NOTHING
        self._show()

    def compare_with(self, name: str) -> None:
        """Compare with one of `others`, by its name."""
        self._chosen = next(one for one in self.others if one.name == name)
        self._of = NOTHING
        self._show()

    def compare_before(self, entry: object) -> None:
        """Compare with the build before an entry of its history."""
        assert isinstance(entry, HistoryEntry)  # what the history gives
        self.compare_with(before_words(entry))

    def ask_for_file(self) -> None:
        """Ask for another build and compare with it."""
        folder = self.session.path.parent if self.session.path else None
        path = file_to_read(self, "Compare with another build", folder, BUILDS)
        if path is not None:
            self.compare_file(path)

    def compare_file(self, path: Path) -> None:
        """Compare with the build in a file."""
        self._file = path
        self.compare_with(path.name)

    # --- what differs ----------------------------------------------------------------------

    def hideEvent(self, event: QHideEvent) -> None:
        if self._work.busy or self.why.busy:  # to be done when it is seen again
            self._work.stop()
            self.why.stop()
            self._of = self._why_of = NOTHING
            self.seen.forget()

    def show_figures(self) -> None:
        """Compare the build as it is looked at; away from the hand, since both are solved."""
        there = self.others
        known = {one.name for one in there}
        if self._chosen is None or self._chosen.name not in known:
            self._chosen = there[0] if there else None
        if self._here is not None and self._here.name not in known:
            self._here = None
        self._fill_menus(there)
        self.kinds.show_choices(SHOWN, self.shown)
        self.sample.setVisible(self._chosen is None)
        why = self.shown == WHY
        self.table.setVisible(self._chosen is not None and not why)
        self.why.setVisible(self._chosen is not None and why)
        if self._chosen is None:
            self.rows = ()
            self.words.show()
            self.words.setText(NONE)
            self.table.show_rows((), ("", ""))
            return
        session = self.session
        surface = None if session.surface_is_own else session.solution.surface
        case, chosen, here = session.view.load_case, self._chosen, self._here
        name = None if here is None else here.name
        key = (session.build, session.base, name, chosen.name, case, surface)
        if key == self._of:
            self._show_rows()
            return
        self._of = key
        build, base = session.build, session.base

        def work(progress: Callable[[float], bool]) -> object:
            one, lost = (build, ()) if here is None else here.make(base)
            other, unknown = chosen.make(base)
            return compared(one, other, case, surface), tuple(dict.fromkeys((*lost, *unknown)))

        self._work.run(work, SOON)

    def _fill_menus(self, offered: list[Other]) -> None:
        """Offer what there is on both sides, and say what is chosen."""
        menu, left = self.with_what.menu(), self.of_what.menu()
        menu.clear()
        left.clear()
        left.addAction(button_words(LOOKED_AT), partial(self.look_from, ""))
        for one in offered:
            menu.addAction(button_words(one.name), partial(self.compare_with, one.name))
            left.addAction(button_words(one.name), partial(self.look_from, one.name))
        for button in (self.of_what, self.with_what):
            button.setVisible(bool(offered))
        here = LOOKED_AT if self._here is None else self._here.name
        there = "" if self._chosen is None else self._chosen.name
        self.of_what.setText(button_words(shortened_line(here[:1].upper() + here[1:])))
        self.with_what.setText(button_words(shortened_line(f"beside {there}")))

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
        self.words.show()
        self.unknown.setText(words)
        self.unknown.show()
        self.words.setText("This cannot be compared.")
        self.table.show_rows((), ("", ""))

    def _look_at(self, kind: object) -> None:
        self.shown = str(kind)
        self._show()

    def _show_rows(self) -> None:
        assert self._chosen is not None
        here = self.session.setup or "as it is" if self._here is None else self._here.short
        self.words.setText(_claim(self.rows, here))
        self.words.setVisible(self.shown != WHY)
        if self.shown == WHY:
            self.kinds.show_choices(SHOWN, WHY)
            self._tell_why(here)
            return
        judged = any(_is_shown(one, self.shown) for one in self.rows)
        shown = self.shown if judged else "all"  # rather than nothing
        self.kinds.show_choices(SHOWN, shown)
        rows = tuple(one for one in self.rows if _is_shown(one, shown))
        self.table.show_rows(rows, (here, self._chosen.short))

    def _tell_why(self, here: str) -> None:
        """Tell the changes that lead from the other to what is looked at apart."""
        chosen, left, base, build = self._chosen, self._here, self.session.base, self.session.build
        assert chosen is not None
        if self._why_of == self._of and (self.why.busy or self.why.found is not None):
            return
        self._why_of = self._of

        def between() -> Mixtures:
            now = build if left is None else left.make(base)[0]
            once, _ = chosen.make(base)
            if chosen.entry is not None and left is None:
                return of_history(now, once, chosen.entry)
            return of_figures(once, now)

        self.why.show_between(between, (chosen.short, here))


def _menu_button() -> QToolButton:
    button = menu_button()
    button.setMenu(QMenu(button))
    return button


def _is_shown(figure: ComparedFigure, kind: str) -> bool:
    if kind == "judged":
        return bool(figure.better)
    if kind == "typed":
        return bool(figure.path)
    return kind == "all" or not figure.path


def _claim(rows: tuple[ComparedFigure, ...], here: str) -> str:
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
