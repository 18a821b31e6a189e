"""A page of a station: one drawing, and a column beside it."""

from collections.abc import Mapping
from typing import ClassVar

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.layouts import tight, upright
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.seen import WhenSeen
from urgens.ui.widgets.worded import worded, wrapped

SIDE = 292  # px of the column


class Page(QWidget):
    """Follows the session while it is seen; a subclass fills it and says its one line."""

    spoke = Signal()
    place_asked = Signal(str)  # of another station
    command_requested = Signal(str)  # of the window
    kept: ClassVar[tuple[str, ...]] = ()  # what is typed or chosen here, beside the build

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        self.column = tight(QVBoxLayout(), 6)
        self.said = wrapped("heading")
        self.said.setParent(self)
        self.said.hide()
        self.seen = WhenSeen(self, self._show)
        session.solution_changed.connect(self.seen.ask)

    @property
    def summary(self) -> str:
        """What the page comes to, in one line."""
        raise TypeError(f"{type(self).__name__} says nothing")

    def show_figures(self) -> None:
        """Show the build as it is now."""
        raise TypeError(f"{type(self).__name__} shows nothing")

    def look_at(self, name: str) -> None:
        """Show something of the page by its name, empty for what it would show by itself."""
        raise TypeError(f"{type(self).__name__} has nothing that is called {name}")

    def lay_out(self, drawing: QWidget, *, side: int = SIDE) -> None:
        """Put the drawing beside the column of so many px.

        It is alone where there is none, and where it is read from far away.
        """
        body = tight(QHBoxLayout(self), 16)
        body.addWidget(drawing, 1)
        if not side:
            return
        self.column.insertWidget(0, self.said)
        self.said.show()
        inner = QWidget()
        inner.setLayout(self.column)
        beside = rolled(inner)  # in a low window nothing is cut
        beside.setFixedWidth(side)
        if T.stands_back:
            beside.setParent(self)
            beside.hide()
            return
        body.addWidget(upright())
        body.addWidget(beside)

    def head(self, words: str) -> QLabel:
        """Put a heading into the column; return it."""
        if self.column.count():
            self.column.addSpacing(8)
        heading = worded(words, "heading")
        self.column.addWidget(heading)
        return heading

    def refresh(self) -> None:
        """Show the build as it is now, if that is not what is shown."""
        self.seen.if_stale()

    def _show(self) -> None:
        self.show_figures()
        self.say()

    def keep(self) -> dict[str, object]:
        """Return what was typed or chosen here and is no part of the build."""
        return {name: getattr(self, name) for name in self.kept}

    def give_back(self, kept: Mapping[str, object]) -> None:
        """Take what another page of this kind has kept."""
        for name, value in kept.items():
            setattr(self, name, value)

    def say(self) -> None:
        """Say the summary, which may come later than the figures."""
        self.said.setText(self.summary[:1].upper() + self.summary[1:])
        self.spoke.emit()
