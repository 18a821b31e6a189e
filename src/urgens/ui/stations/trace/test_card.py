"""The next test as a card: minutes, people, and what each outcome would mean."""

from functools import partial

from PySide6.QtCore import QPointF, QRectF, QSize, Signal
from PySide6.QtGui import QColor, QPaintEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QSizePolicy, QVBoxLayout

from urgens.guidance.tracing.ranking import CandidateTest
from urgens.guidance.tracing.trace import Traced
from urgens.ui.theme.paint import T, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.elided_button import ElidedButton
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.worded import worded, wrapped

HIGH = 22  # px of a stack
SHOWN = 3  # causes that stand in it by name
NOTHING = "No test is left that this layout has. What is listed first is what to look at."


class Stack(Painted):
    """Shares after an outcome, side by side: the likeliest named, the rest as one."""

    def __init__(self, shares: list[tuple[str, float]]) -> None:
        super().__init__()
        self._shares = shares
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        said = ", ".join(f"{words} {100 * share:.0f}" for words, share in shares)
        self.setAccessibleName(f"Then, of 100: {said}")

    def sizeHint(self) -> QSize:
        return self.scaled(230, HIGH)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            grounds = (T.ink, T.steel, T.metal, T.band)
            letters = (T.sheet, T.ink, T.ink, T.ink)
            left = 0.0
            for (words, share), ground, letter in zip(self._shares, grounds, letters, strict=False):
                wide = self.across * share
                painter.fillRect(QRectF(left, 0, max(wide - 1.0, 0.0), HIGH), QColor(ground))
                said = f"{words} {100 * share:.0f}"
                while said and width(said, 14, 600) > wide - 8.0:
                    said = said.rpartition(" ")[0]
                if said:
                    at = QPointF(left + 4.0, 16)
                    write(painter, said, at, size=14, weight=600, color=letter)
                left += wide


class TestCard(QFrame):
    """`told` says which outcome the test had, `started` that its procedure is wanted."""

    __test__ = False  # it is no test of ours

    told = Signal(str, str)
    started = Signal(str)
    another = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("card")
        self.asked: CandidateTest | None = None
        self.outcomes: dict[str, QPushButton] = {}
        column = spaced(QVBoxLayout(self), 6, (14, 10, 14, 12))
        head = QHBoxLayout()
        head.addWidget(worded("Next test", "caption"), 1)
        self.best = worded("", "caption")
        head.addWidget(self.best)
        column.addLayout(head)
        self.title = wrapped("sentence")
        column.addWidget(self.title)
        self.costs = wrapped("muted")
        column.addWidget(self.costs)
        self._outcomes = QVBoxLayout()
        self._outcomes.setSpacing(4)
        column.addLayout(self._outcomes)
        foot = QHBoxLayout()
        self.start, self.other = QPushButton("Its card"), QPushButton("Another test")
        for button in (self.start, self.other):
            button.setProperty("role", "quiet")
        self.start.clicked.connect(self._start)
        self.other.clicked.connect(self.another)
        foot.addWidget(self.start)
        foot.addWidget(self.other)
        foot.addStretch()
        column.addLayout(foot)

    def show_test(self, trace: Traced, place: int) -> None:
        """Show one of the tests that are left, the best first."""
        clear(self._outcomes)
        self.outcomes = {}
        tests = trace.tests
        self.asked = tests[place % len(tests)] if tests else None
        self.other.setVisible(len(tests) > 1)
        if self.asked is None:
            self.title.setText("Nothing is left to test.")
            self.costs.setText(NOTHING)
            self.best.setText("")
            self.start.hide()
            return
        test = self.asked.test
        self.best.setText(f"the best of {len(tests)}" if place % len(tests) == 0 else
                          f"{place % len(tests) + 1} of {len(tests)}")  # fmt: skip
        self.title.setText(test.words)
        people = "1 person" if test.people == 1 else f"{test.people} people"
        opens = "opens a joint" if test.opens else "opens nothing"
        self.costs.setText(f"{test.minutes} min, {people}, {opens}")
        self.start.setVisible(test.procedure is not None)
        for row, outcome in enumerate(self.asked.outcomes):
            self._add(trace, row, outcome.id, outcome.words, outcome.means)

    def _add(self, trace: Traced, row: int, name: str, words: str, means: str) -> None:
        asked = self.asked
        assert asked is not None  # its outcomes are shown
        button = ElidedButton(words)
        button.setProperty("role", "outcome")
        button.setAccessibleName(f"It showed: {words}. It means {means}")
        button.clicked.connect(partial(self.told.emit, asked.test.id, name))
        self.outcomes[name] = button
        self._outcomes.addWidget(button)
        self._outcomes.addWidget(Stack(_stacked(trace, asked, row)))
        foot = QHBoxLayout()
        foot.addWidget(wrapped("small", means), 1)
        foot.addWidget(worded(f"{100 * asked.chances[row]:.0f} of 100", "small"))
        self._outcomes.addLayout(foot)

    def _start(self) -> None:
        if self.asked is not None and self.asked.test.procedure is not None:
            self.started.emit(self.asked.test.procedure)


def _stacked(trace: Traced, test: CandidateTest, row: int) -> list[tuple[str, float]]:
    """Return the likeliest causes after an outcome, and all others as one."""
    then = test.then[row]
    order = sorted(range(len(then) - 1), key=lambda place: -then[place])[:SHOWN]
    named = [(trace.tracing.causes[place].words, float(then[place])) for place in order]
    return [*named, ("other", 1.0 - sum(share for _, share in named))]
