"""What nobody else caught: said in words in the window, once, with what to do; the work goes on.

Qt hands every exception of a slot, a paint or an event to `sys.excepthook`. Painters are used in a
`with` everywhere, so that one which failed is ended before Qt looks for it.
"""

import sys
import traceback
from collections.abc import Callable
from types import TracebackType

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget
from shiboken6 import isValid

from urgens.ui.session import Session
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.station import Station
from urgens.ui.widgets.worded import elided

REMEDY = "The build is whole: save it. Then take back the last change, or go on elsewhere."
LONGEST = 80  # letters of what Python says of it
HEIGHT = 36  # px of its buttons


class Mishaps(QObject):
    """Listens for exceptions that nobody caught; the same one again is only counted."""

    happened = Signal()

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.words, self.details, self.count = "", "", 0
        self._last: tuple[object, ...] = ()
        self._before = sys.excepthook

    def listen(self) -> None:
        """From here on say what nobody else caught; what listened before is told as well."""
        self._before, sys.excepthook = sys.excepthook, self._caught

    def leave_off(self) -> None:
        """Let what listened before listen again."""
        sys.excepthook = self._before

    def forget(self) -> None:
        """Say nothing more of what happened: it is read."""
        self.words, self.details, self.count, self._last = "", "", 0, ()
        self.happened.emit()

    def _caught(
        self, kind: type[BaseException], error: BaseException, trace: TracebackType | None
    ) -> None:
        self._before(kind, error, trace)
        if not issubclass(kind, Exception) or not isValid(self):
            return  # who interrupts wants the end
        frames = traceback.extract_tb(trace)
        here = (kind, *((one.filename, one.lineno) for one in frames[-1:]))
        self.count = self.count + 1 if here == self._last else 1
        self._last = here
        said = str(error).splitlines()[:1] or [""]
        what = f"{kind.__name__}: {said[0][:LONGEST]}" if said[0] else kind.__name__
        self.words = f"{_place(trace)}something in Urgens itself failed ({what})."
        self.details = "".join(traceback.format_exception(kind, error, trace))
        traceback.clear_frames(trace)  # what they hold goes: painters and widgets among it
        self.happened.emit()


def _place(trace: TracebackType | None) -> str:
    """Return where it happened, as a builder calls it: the page or the window it is in."""
    found = ""
    while trace is not None:
        own = trace.tb_frame.f_locals.get("self")
        if isinstance(own, QWidget) and isValid(own):
            found = _page_of(own) or found
        trace = trace.tb_next
    return found


def _page_of(widget: QWidget) -> str:
    here: QWidget | None = widget
    page: Page | None = None
    while here is not None:
        if isinstance(here, Page):
            page = here
        if isinstance(here, Station):
            name = here.page_name if page is not None else ""
            return f"On {name or here.accessibleName() or type(here).__name__}, "
        here = here.parentWidget()
    title = widget.window().windowTitle()
    return f"In “{title}”, " if widget.window().isModal() and title else ""


class MishapStrip(QWidget):
    """Says the last mishap over the bench, with what can be done about it."""

    save_asked = Signal()

    def __init__(self, mishaps: Mishaps, session: Session) -> None:
        super().__init__()
        self.setObjectName("mishap")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._mishaps, self._session = mishaps, session
        self.said, self.remedy = elided("mishap"), elided("muted")
        self.remedy.setText(REMEDY)
        self.save = self._button("Save", self.save_asked.emit)
        self.undo = self._button("Take it back", session.undo_stack.undo)
        self.copy = self._button("Copy details", self._copy)
        self.close_it = self._button("Close", mishaps.forget)
        row = spaced(QHBoxLayout(self), 8, (24, 6, 24, 6))
        words = spaced(QVBoxLayout(), 0)
        words.addWidget(self.said)
        words.addWidget(self.remedy)
        row.addLayout(words, 1)
        for button in (self.save, self.undo, self.copy, self.close_it):
            row.addWidget(button)
        mishaps.happened.connect(self.refresh)
        self.refresh()

    @staticmethod
    def _button(words: str, do: Callable[[], object]) -> QPushButton:
        made = QPushButton(words)
        made.setMinimumHeight(HEIGHT)
        made.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        made.clicked.connect(lambda: do())
        return made

    def refresh(self) -> None:
        """Say what happened, if anything did."""
        mishaps = self._mishaps
        self.setVisible(bool(mishaps.count))
        if mishaps.count:
            often = f"{mishaps.count} times: " if mishaps.count > 1 else ""
            self.said.setText(f"{often}{mishaps.words}")
            self.said.setAccessibleName(f"{self.said.text()} {REMEDY}")
            self.undo.setEnabled(self._session.undo_stack.canUndo())

    def _copy(self) -> None:
        QGuiApplication.clipboard().setText(self._mishaps.details)
