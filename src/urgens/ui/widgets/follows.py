"""How a plot follows the session: curves at once, words when there is time, the press by itself."""

from collections.abc import Callable

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QWidget

from urgens.solve import Presses
from urgens.ui.session import Session
from urgens.ui.widgets.seen import WhenSeen


class Follows(QObject):
    """Calls what shows each part of a plot; one that is not seen waits until it is.

    `curves` and `press` are called with every change, `words` only once a drag pauses.
    """

    def __init__(
        self,
        plot: QWidget,
        session: Session,
        *,
        curves: Callable[[], None],
        words: Callable[[], None],
        press: Callable[[], None],
    ) -> None:
        super().__init__(plot)
        self._session = session
        self._curves, self._words, self._press = curves, words, press
        self._pressed_last: Presses | None = None
        self._seen = WhenSeen(plot, self.show_all)
        session.solution_changed.connect(self._changed)
        session.told.connect(self._told)
        session.press_changed.connect(self._pressed)

    def show_all(self) -> None:
        """Show everything as it is now."""
        self._show_curves()
        self._words()

    def _show_curves(self) -> None:
        self._curves()
        self._show_press()

    def _show_press(self) -> None:
        self._pressed_last = self._session.presses
        self._press()

    def _changed(self) -> None:
        self._seen.ask_for(self._show_curves)

    def _told(self) -> None:
        self._seen.ask_for(self._words)

    def _pressed(self) -> None:
        if self._pressed_last is not self._session.presses:  # else shown with the solution
            self._seen.ask_for(self._show_press)
