"""The jobs of a plan in their order, in two columns; one of them is chosen."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QResizeEvent
from PySide6.QtWidgets import QSizePolicy

from urgens.guidance.planning.job import Job
from urgens.guidance.planning.plan import WorkPlan
from urgens.ui.theme.paint import T, metrics, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.row_list import RowList

ROW = 48.0  # px
BETWEEN = 16.0  # px between the columns
NUMBER = 26.0  # of a number
NARROW = 420.0  # px below which there is one column


class PlanJobs(RowList):
    """Two lines a job, in two columns where there is room; Enter opens its procedure."""

    def __init__(self) -> None:
        self.jobs: tuple[Job, ...] = ()
        super().__init__("Jobs", "No job is open", lambda _: ROW, self._draw)
        self.setFlow(RowList.Flow.TopToBottom)
        self.setWrapping(True)
        self.setResizeMode(RowList.ResizeMode.Adjust)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_plan(self, plan: WorkPlan) -> None:
        """Show the jobs of a plan."""
        self.jobs = plan.jobs
        self.show_rows([words(job) for job in plan.jobs])
        self._fit()

    @property
    def _columns(self) -> int:
        return 2 if self.width() / T.scale > NARROW and len(self.jobs) > 3 else 1

    @property
    def _rows(self) -> int:
        return max(-(-len(self.jobs) // self._columns), 1)

    def _fit(self) -> None:
        across = self.viewport().width() // self._columns
        self.setGridSize(QSize(across, round(ROW * T.scale)))
        self.setFixedHeight(round(ROW * T.scale) * self._rows + 2 * self.frameWidth() + 2)

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._fit()
        super().resizeEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Home, Qt.Key.Key_End):
            event.ignore()  # the foot has them
        else:
            super().keyPressEvent(event)

    def _draw(self, painter: QPainter, cell: QRectF, at: int) -> None:
        job, box = self.jobs[at], cell
        if self._columns > 1:
            on_left = at < self._rows
            box = cell.adjusted(0 if on_left else BETWEEN / 2, 0, -BETWEEN / 2 if on_left else 0, 0)
        if at == self.chosen:
            painter.fillRect(box.adjusted(0, 1, 0, -1), QColor(T.paper))
        painter.setPen(pen(T.hair, 1))
        painter.drawLine(box.bottomLeft(), box.bottomRight())
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


def words(job: Job) -> str:
    """Return a job in a line, for who listens."""
    people = "" if job.people == 1 else f", {job.people} people"
    opens = f", opens {' and '.join(job.opens)}" if job.opens else ""
    return f"{job.name}, {job.minutes} min{people}{opens}; {job.why}"


def _cut(text: str, size: int, weight: int, room: float) -> str:
    """Return text with its end left out where it does not fit."""
    return metrics(size, weight).elidedText(text, Qt.TextElideMode.ElideRight, room)
