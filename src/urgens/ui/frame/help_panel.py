"""Help inside the window: terms, keys, what is computed, and the walk of the first steps."""

from collections.abc import Sequence
from typing import Protocol

from PySide6.QtWidgets import QApplication, QMainWindow, QWidget

from urgens.guidance.words.terms import Term, term_in
from urgens.ui.frame.bench import StationStack
from urgens.ui.frame.dialogs import KeyList
from urgens.ui.frame.first_steps import stops
from urgens.ui.frame.help_panels import ScopePanel, TermsPanel, explained
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.stations import WHY
from urgens.ui.frame.walk import Walk
from urgens.ui.session import Session


class Walkable(Protocol):
    """The parts of a window that help speaks of."""

    bench: StationStack
    rail: QWidget
    press: QWidget
    strip: QWidget
    finding_line: QWidget
    top: QWidget


class HelpPanel:
    """Explains what has the focus, and goes through the window."""

    def __init__(
        self, window: QMainWindow, session: Session, settings: Settings | None = None
    ) -> None:
        self._window, self._session, self._settings = window, session, settings
        self.walking: Walk | None = None

    def show_keys(self, keys: Sequence[tuple[str, str]]) -> None:
        """Show the list of keys, each with what it does."""
        KeyList(list(keys), self._window).exec()

    def show_terms(self) -> None:
        """Show all terms, at that of what has the focus."""
        term = term_in(explained(QApplication.focusWidget()), loosely=True)
        TermsPanel(self._window, self._session.units, term).exec()

    def show_term(self, term: Term) -> None:
        """Show one term among all."""
        TermsPanel(self._window, self._session.units, term).exec()

    def show_scope(self) -> None:
        """Show what is computed and what is not."""
        ScopePanel(self._window).exec()

    def explain(self) -> None:
        """Explain the term of what has the focus; where that has none, show reasons drawn."""
        here = QApplication.focusWidget()
        told = here is not None and here is not self._window
        if told and term_in(explained(here), loosely=True) is not None:
            self.show_terms()
        else:
            self._parts.bench.visit(*WHY)

    @property
    def _parts(self) -> Walkable:
        window: Walkable = self._window  # type: ignore[assignment]
        return window

    # --- the first steps -------------------------------------------------------------------

    def walk(self) -> None:
        """Go through the window in a minute."""
        self.end_walk()
        parts = self._parts

        def press() -> QWidget:  # the strip stands for it in a narrow window
            return parts.strip if parts.press.isHidden() else parts.press

        central = self._window.centralWidget()
        made = Walk(central, stops(parts.bench, press, parts.rail, parts.finding_line, parts.top))
        made.ended.connect(self._walked)
        self.walking = made

    def end_walk(self) -> None:
        """Leave the walk, if there is one."""
        if self.walking is not None:
            self.walking.end()

    def _walked(self) -> None:
        self.walking = None
        if self._settings is not None:
            self._settings.set_walked()
        self._window.setFocus()
