"""A way to balance the build as a card: how good, how sure, what it brings."""

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPaintEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout

from urgens.guidance import Severity
from urgens.guidance.advice.brought import Brought
from urgens.ui.theme.paint import T
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.marks import open_mark, severity_mark
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.worded import worded, wrapped

MARK = 26.0  # px


class _Mark(Painted):
    """An octagon where the rear is first, a triangle where that is not sure, else a tick.

    A ring as long as nobody knows how sure it is.
    """

    def __init__(self, severity: Severity | None, *, known: bool) -> None:
        super().__init__()
        self._severity, self._known = severity, known
        self.setFixedSize(self.scaled(MARK, MARK))

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            middle = QPointF(MARK / 2, MARK / 2)
            if self._known or self._severity is not None:
                severity_mark(painter, self._severity, middle, 10)
            else:
                open_mark(painter, middle, 10)


class ChoiceCard(QFrame):
    """One way: rank, name, reason, what it brings, figure, and a button that tries it.

    A danger that it brings stands there at once; what else it brings is counted, and told by a
    press.
    """

    tried = Signal(int)

    def __init__(
        self, rank: int, name: str, reason: str, figure: str, brings: Brought, *, fitted: bool
    ) -> None:
        super().__init__()
        self.rank, self.fitted = rank, fitted
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(f"{rank}: {name}. {reason} {brings.words}".rstrip())
        self.setObjectName("card")
        self.setProperty("fitted", "true" if fitted else "false")
        self.name, self.reason = wrapped("heading", name), wrapped("muted", reason)
        self.figure = worded(figure, "title")
        self.button = QPushButton("fitted" if fitted else f"Try ({rank})")
        self.button.setFixedWidth(round(84 * T.scale))
        self.button.setEnabled(not fitted)
        self.button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.button.clicked.connect(lambda: self.tried.emit(rank))
        self.row = QHBoxLayout(self)
        self.row.setContentsMargins(8, 6, 8, 6)
        self.row.setSpacing(12)
        words = spaced(QVBoxLayout(), 1)
        words.addWidget(self.name)
        words.addWidget(self.reason)
        self._add_brought(words, brings)
        self.row.addLayout(words, 1)
        self.row.addWidget(self.figure)
        self.row.addWidget(self.button)

    def _add_brought(self, words: QVBoxLayout, brings: Brought) -> None:
        """Count what the way brings, under a button that tells it."""
        self.brings = push_button(f"It brings {brings.counted}", "small")
        self.brings.setCheckable(True)
        self.brings.setChecked(brings.danger)
        self.told = wrapped("muted", "\n".join(one.message for one in brings.new))
        # Nothing is shown before it stands in the card: it would be a window of its own.
        if not brings.new:
            self.brings.hide()
        if not brings.danger:
            self.told.hide()
        self.brings.toggled.connect(self.told.setVisible)
        words.addWidget(self.brings, 0, Qt.AlignmentFlag.AlignLeft)
        words.addWidget(self.told)

    def put_mark(self, severity: Severity | None, *, known: bool) -> None:
        """Show how bad it is at the left end; known: whether how sure it is has been asked."""
        self.row.insertWidget(0, _Mark(severity, known=known))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if Qt.Key(event.key()) in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.tried.emit(self.rank)
        else:
            event.ignore()
