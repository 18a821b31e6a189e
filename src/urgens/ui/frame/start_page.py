"""Where a builder starts: demo builds as drawings, an own vehicle, a file."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtCore import QPointF, QRectF, QSize, QSizeF, Qt, Signal
from PySide6.QtGui import QColor, QHideEvent, QKeyEvent, QPainter, QPaintEvent, QShowEvent
from PySide6.QtWidgets import (
    QAbstractButton,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from urgens.document import Build, demo, demo_names
from urgens.guidance import Severity, findings
from urgens.guidance.words.cautions import CAUTIONS
from urgens.solve import solve
from urgens.ui.theme.paint import T, face, metrics, outline, pen, width
from urgens.ui.widgets.layouts import spaced, tight, upright
from urgens.ui.widgets.marks import open_mark, severity_mark
from urgens.ui.widgets.plain import button_words, point_out
from urgens.ui.widgets.side_view import SideView
from urgens.ui.widgets.timers import again
from urgens.ui.widgets.worded import worded, wrapped

COLUMNS = 2
SIDE = 288  # px, of what stands beside the drawings
SHOWN_RECENT = 5
FOOT = 84  # px under a drawing, for its words

WHAT_IT_IS = (
    "Urgens works out a vehicle's brakes: which axle locks first on every road and with every "
    "load, by how much foot, and what to fit or set so that the front goes just before the rear. "
    "These vehicles are invented: look at them and change them as you like."
)


class BuildCard(QAbstractButton):
    """A build as a drawing, with its name, its brakes and how it stands."""

    def __init__(self, name: str, build: Build, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.name = name
        self._build, self._solution = build, solve(build)
        self.view = SideView.of(build, self._solution.system)
        self.room = self.view.extent.size()  # m, that the drawing has to hold
        self.judged = False  # once it is seen: to judge takes longer than to draw
        self._worst: Severity | None = None
        self._count = 0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(300, 200)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._name_it()
        self.setText(button_words(build.name))

    def judge(self) -> None:
        """Find out how it stands."""
        found = findings(self._solution)
        self._worst = min((one.severity for one in found), default=None)
        self._count = sum(one.severity is self._worst for one in found)
        self.judged = True
        self._name_it()
        self.update()

    def _name_it(self) -> None:
        self.setAccessibleName(f"Open {self._build.name}, {self.brakes}; {self.standing}")

    @property
    def brakes(self) -> str:
        """What is fitted, in a few words."""
        build = self._build
        kinds = (build.front.brake.kind, build.rear.brake.kind)
        both = f"{kinds[0]}s all round" if kinds[0] == kinds[1] else f"{kinds[0]} and {kinds[1]}"
        boost = "no booster" if not build.booster.fitted else f"{build.booster.kind} booster"
        return f"{both}, {build.master.kind} cylinder, {boost}"

    @property
    def standing(self) -> str:
        """How it stands, in a few words."""
        if not self.judged:
            return "being looked at"
        if self._worst is None:
            return "nothing found"
        plural = "s" if self._count > 1 and self._worst is not Severity.ADVICE else ""
        return f"{self._count} {self._worst.word}{plural}"

    def sizeHint(self) -> QSize:
        return QSize(380, 260)

    def paintEvent(self, event: QPaintEvent) -> None:
        with QPainter(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.scale(T.scale, T.scale)
            box = QRectF(2, 2, self.width() / T.scale - 4, self.height() / T.scale - 4)
            if self.underMouse() or self.hasFocus():
                painter.fillRect(box, QColor(T.paper))
            road = box.bottom() - FOOT
            room = QRectF(box.left() + 20, box.top() + 14, box.width() - 40, road - box.top() - 14)
            self.view.paint(painter, self.view.fitted(room, self.room))
            painter.setPen(pen(T.ink, 2))
            painter.drawLine(QPointF(box.left() + 8, road), QPointF(box.right() - 8, road))
            self._paint_words(painter, box, road)
            if self.hasFocus():
                outline(painter, T.front, 2)
                painter.drawRoundedRect(box.adjusted(1, 1, -1, -1), 4, 4)

    def _paint_words(self, painter: QPainter, box: QRectF, road: float) -> None:
        left, right = box.left() + 12, box.right() - 12
        painter.setPen(QColor(T.ink))
        painter.setFont(face(22, 700, condensed=False))
        painter.drawText(QPointF(left, road + 30), self._build.name)
        painter.setPen(QColor(T.muted))
        painter.setFont(face(16))
        fitting = self.brakes
        while width(fitting, 16) > right - left and ", " in fitting:
            fitting = fitting.rpartition(", ")[0]
        painter.drawText(QPointF(left, road + 52), fitting)
        if self.judged:
            severity_mark(painter, self._worst, QPointF(left + 8, road + 69), 8)
        else:
            open_mark(painter, QPointF(left + 8, road + 69), 8)
        colors = {Severity.DANGER: T.danger, Severity.WARNING: T.warn}
        color = T.good if self._worst is None else colors.get(self._worst, T.good)
        color = color if self.judged else T.muted
        painter.setPen(QColor(color))
        painter.setFont(face(15, 600))
        painter.drawText(QPointF(left + 22, road + 74), self.standing)


class StartPage(QFrame):
    """Drawings to open on the left, an own vehicle and files on the right."""

    demo_chosen = Signal(str)
    own_chosen = Signal()
    wishes_chosen = Signal()
    walk_asked = Signal()
    open_asked = Signal()
    recent_chosen = Signal(Path)
    caution_read = Signal()
    left = Signal()

    def __init__(
        self, recent: Sequence[Path] = (), *, caution: bool = False, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.caution = _Caution(self)
        self.caution.setVisible(caution)
        self.caution.read.clicked.connect(self.caution_read)
        self.caution.read.clicked.connect(self.caution.hide)
        self.setObjectName("bench")
        self.cards = [BuildCard(name, demo(name)) for name in demo_names()]
        self._judging = again(self, 0, self._judge_next)
        sizes = [card.view.extent.size() for card in self.cards]
        for card in self.cards:  # all to one scale
            card.room = QSizeF(max(s.width() for s in sizes), max(s.height() for s in sizes))
        self.own = _button("Start from your own vehicle", primary=True)
        self.own.clicked.connect(self.own_chosen)
        self.wishes = _button("Start from what it should do")
        self.wishes.clicked.connect(self.wishes_chosen)
        self.open = _button("Open a build…")
        self.open.clicked.connect(self.open_asked)
        self.back = _button("Back to the build that is open")
        self.back.clicked.connect(self.left)
        self.recent: list[QPushButton] = []
        for path in recent[:SHOWN_RECENT]:
            button = _button(metrics(16, 600).elidedText(
                path.name, Qt.TextElideMode.ElideMiddle, SIDE - 40
            ))  # fmt: skip
            point_out(button, str(path))
            button.clicked.connect(lambda _=False, file=path: self.recent_chosen.emit(file))
            self.recent.append(button)
        self._lay_out()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self._judging.start()

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        self._judging.stop()

    def _judge_next(self) -> None:
        """Judge one build that is not yet, between two events: first of all they are seen."""
        card = next((one for one in self.cards if not one.judged), None)
        if card is None:
            self._judging.stop()
        else:
            card.judge()

    def _lay_out(self) -> None:
        drawings = spaced(QGridLayout(), 16)
        for index, card in enumerate(self.cards):
            card.clicked.connect(lambda _=False, name=card.name: self.demo_chosen.emit(name))
            drawings.addWidget(card, index // COLUMNS, index % COLUMNS)
        left = spaced(QVBoxLayout(), 10)
        left.addWidget(worded("Which brakes are you working on?", "title"))
        left.addWidget(wrapped("muted", WHAT_IT_IS))
        left.addLayout(drawings, 1)
        hairline = upright()
        row = spaced(QHBoxLayout(self), 28, (32, 24, 32, 24))
        row.addLayout(left, 1)
        row.addWidget(hairline)
        row.addLayout(self._side())

    def _side(self) -> QVBoxLayout:
        side = spaced(QVBoxLayout(), 10)
        side.addWidget(worded("Your own", "title"))
        own = worded(
            "A plain car with common figures, every one marked as assumed. Replace each by what "
            "you measure; until then what is computed is no more than a guess.",
            "summary",
        )
        own.setWordWrap(True)
        own.setFixedWidth(round(SIDE * T.scale))
        side.addWidget(own)
        side.addWidget(self.own)
        side.addWidget(self.wishes)
        side.addSpacing(12)
        self.walk = _button("First steps, one minute")
        self.walk.clicked.connect(self.walk_asked)
        side.addWidget(self.walk)
        side.addSpacing(12)
        side.addWidget(worded("From a file", "heading"))
        side.addWidget(self.open)
        for button in self.recent:
            side.addWidget(button)
        side.addStretch()
        side.addWidget(self.caution)
        side.addWidget(self.back)
        return side

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self.back.isVisible():
            self.left.emit()
        else:
            super().keyPressEvent(event)


class _Caution(QFrame):
    """The cautions, until they have been read."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setFixedWidth(round(SIDE * T.scale))
        self.read = _button("I have read this")
        column = tight(QVBoxLayout(self), 8)
        column.addWidget(worded("Brakes can kill", "danger"))
        said = worded("\n\n".join(CAUTIONS), "muted")
        said.setWordWrap(True)
        column.addWidget(said)
        column.addWidget(self.read)


def _button(text: str, *, primary: bool = False) -> QPushButton:
    button = QPushButton(text)
    button.setMinimumHeight(44)
    if primary:
        button.setProperty("role", "primary")
    return button
