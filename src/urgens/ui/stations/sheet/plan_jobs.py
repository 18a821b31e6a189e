"""The jobs of a plan in their order, in two columns; one of them is chosen."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import (
    QColor,
    QGuiApplication,
    QKeyEvent,
    QKeySequence,
    QMouseEvent,
    QPainter,
    QPaintEvent,
)
from PySide6.QtWidgets import QSizePolicy

from urgens.guidance.planning.job import Job
from urgens.guidance.planning.plan import WorkPlan
from urgens.ui.theme.paint import T, metrics, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.painted import Painted, ring

ROW = 48.0  # px
BETWEEN, NUMBER = 16.0, 26.0  # px between the columns, of a number
NARROW = 420.0  # px below which there is one column


class PlanJobs(Painted):
    """Two lines a job; arrow keys go from one to the next, Enter opens its procedure."""

    def __init__(self) -> None:
        super().__init__()
        self._plan: WorkPlan | None = None
        self.chosen = 0
        self.chose: Callable[[int], None] = self.choose
        self.entered: Callable[[int], None] = self.choose
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    @property
    def jobs(self) -> tuple[Job, ...]:
        """The jobs that are shown."""
        return () if self._plan is None else self._plan.jobs

    def show_plan(self, plan: WorkPlan) -> None:
        """Show the jobs of a plan."""
        self._plan = plan
        self.choose(min(self.chosen, max(len(plan.jobs) - 1, 0)))
        self._fit()

    def choose(self, job: int) -> None:
        """Let one job stand out, and say it to who listens."""
        self.chosen = job
        if self.jobs:
            self.setAccessibleName(f"Job {job + 1} of {len(self.jobs)}: {words(self.jobs[job])}")
        else:
            self.setAccessibleName("No job is open")
        self.update()

    @property
    def _columns(self) -> int:
        return 2 if self.across > NARROW and len(self.jobs) > 3 else 1

    @property
    def _rows(self) -> int:
        return max(-(-len(self.jobs) // self._columns), 1)

    def _fit(self) -> None:
        self.setFixedHeight(round(ROW * self._rows * self.scale) + 2)
        self.update()

    def resizeEvent(self, event: object) -> None:
        self._fit()

    def sizeHint(self) -> QSize:
        return self.scaled(420, ROW * self._rows)

    def box(self, job: int) -> QRectF:
        """Return where a job is [px]."""
        column, row = divmod(job, self._rows)
        wide = (self.across - BETWEEN * (self._columns - 1)) / self._columns
        return QRectF(column * (wide + BETWEEN), row * ROW, wide, ROW)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if self.hasFocus() and not self.jobs:
                ring(painter, self)
            for at, job in enumerate(self.jobs):
                box = self.box(at)
                if at == self.chosen:
                    painter.fillRect(box.adjusted(0, 1, 0, -1), QColor(T.paper))
                    if self.hasFocus():
                        painter.setPen(pen(T.front, 2))
                        painter.setBrush(Qt.BrushStyle.NoBrush)
                        painter.drawRect(box.adjusted(1, 2, -1, -2))
                painter.setPen(pen(T.hair, 1))
                painter.drawLine(box.bottomLeft(), box.bottomRight())
                self._draw(painter, at, job, box)

    def _draw(self, painter: QPainter, at: int, job: Job, box: QRectF) -> None:
        first, second = box.top() + 20, box.top() + 39
        write(painter, str(at + 1), QPointF(box.left() + NUMBER - 8, first), size=17, weight=700,
              side="right")  # fmt: skip
        unit = width("min", 14) + 4
        write(painter, "min", QPointF(box.right() - 4, first), size=14, side="right")
        right = box.right() - unit - 4
        write(painter, str(job.minutes), QPointF(right, first), size=17, weight=700, color=T.ink,
              side="right")  # fmt: skip
        room = right - width(str(job.minutes), 17, 700) - 8 - box.left() - NUMBER
        name = _cut(job.name, 17, 600, room)
        write(painter, name, QPointF(box.left() + NUMBER, first), size=17, weight=600, color=T.ink)
        people = "1 person" if job.people == 1 else f"{job.people} people"
        weight, color = (400, T.muted) if job.people == 1 else (700, T.ink)
        write(painter, people, QPointF(box.right() - 4, second), size=14, weight=weight,
              color=color, side="right")  # fmt: skip
        left = box.left() + NUMBER
        for circuit in job.opens or job.bleeds:
            mark = {"front": disc, "rear": square}.get(circuit)
            if mark is not None:
                mark(painter, QPointF(left + 5, second - 5), 4.5)
                left += 15
        room = box.right() - 4 - width(people, 14, weight) - 8 - left
        write(painter, _cut(job.why, 14, 400, room), QPointF(left, second), size=14)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for at in range(len(self.jobs)):
            if self.box(at).contains(self.spot(event)):
                self.chose(at)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self.entered(self.chosen)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy) and self.jobs:
            QGuiApplication.clipboard().setText(words(self.jobs[self.chosen]))
            return
        rows = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1, Qt.Key.Key_Left: -self._rows,
                Qt.Key.Key_Right: self._rows}  # fmt: skip
        step = rows.get(Qt.Key(event.key()))
        if step is not None and self.jobs:
            self.chose(min(max(self.chosen + step, 0), len(self.jobs) - 1))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.jobs:
            self.entered(self.chosen)
        else:
            event.ignore()


def words(job: Job) -> str:
    """Return a job in a line, for who listens."""
    people = "" if job.people == 1 else f", {job.people} people"
    opens = f", opens {' and '.join(job.opens)}" if job.opens else ""
    return f"{job.name}, {job.minutes} min{people}{opens}; {job.why}"


def _cut(text: str, size: int, weight: int, room: float) -> str:
    """Return text with its end left out where it does not fit."""
    return metrics(size, weight).elidedText(text, Qt.TextElideMode.ElideRight, room)
