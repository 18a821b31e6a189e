"""When each job is done: lanes for bench, car and waiting, and how long each circuit is open."""

from collections.abc import Callable
from datetime import timedelta

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy

from urgens.guidance import Severity
from urgens.guidance.planning.job import Job
from urgens.guidance.planning.plan import WorkPlan
from urgens.guidance.planning.schedule import Hours, OpenInterval, Schedule, Slot
from urgens.ui.stations.sheet.plan_axis import Axis, axis
from urgens.ui.theme.paint import T, hatch, ink, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import disc, severity_mark, square
from urgens.ui.widgets.painted import Painted

NAMES = 74.0  # px of the lanes' names
HEAD = 44.0  # px
LANE = 42.0  # px
BAR = 26.0  # px
BOX = 32.0  # px
LANES = ("bench", "car", "waiting")
HOUR = timedelta(hours=1)
TICK = 46.0  # px at least between two hours that are written
COLORS = {"front": "front", "rear": "rear"}


class PlanRibbon(Painted):
    """A box for each job, by its number; what is chosen stands out."""

    def __init__(self) -> None:
        super().__init__()
        self._plan: WorkPlan | None = None
        self._when = Schedule((), (), ())
        self._hours = Hours()
        self.chosen = 0
        self.boxes: dict[int, QRectF] = {}
        self.pressed: Callable[[int], None] = self.choose  # what a click on a job does
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_plan(self, plan: WorkPlan, when: Schedule, hours: Hours) -> None:
        """Show a plan and its times."""
        self._plan, self._when, self._hours = plan, when, hours
        self.setAccessibleName("When each job is done")
        self.setAccessibleDescription("; ".join(_slot_words(plan, slot) for slot in when.slots))
        self.setVisible(bool(when.slots))
        self.setFixedHeight(self.sizeHint().height())  # no lane is ever squeezed
        self.update()

    def sizeHint(self) -> QSize:
        bars = len({one.circuit for one in self._when.standing})
        return self.scaled(420, HEAD + LANE * len(LANES) + BAR * bars + 6)

    def choose(self, job: int) -> None:
        """Let one job stand out."""
        self.chosen = job
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        spot = self.spot(event)
        for job, box in self.boxes.items():
            if box.adjusted(-2, -4, 2, 4).contains(spot):
                self.pressed(job)
                return

    # --- painting --------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if self._plan is None or not self._when.slots:
                return
            days = axis(self._when, self._hours, NAMES, self.across - 4)
            self._draw_days(painter, days)
            for row, name in enumerate(LANES):
                top = HEAD + row * LANE
                write(painter, name, QPointF(0, top + 26), size=16, weight=600, color=T.ink)
                painter.setPen(pen(T.hair, 1))
                painter.drawLine(QPointF(0, top + LANE), QPointF(self.across, top + LANE))
            self._draw_waits(painter, days)
            self.boxes = {}
            for slot in self._when.slots:
                self._draw_slot(painter, days, slot)
            circuits = list(dict.fromkeys(one.circuit for one in self._when.standing))
            for row, circuit in enumerate(circuits):
                self._draw_circuit(painter, days, circuit, HEAD + LANE * len(LANES) + row * BAR + 4)

    def _draw_days(self, painter: QPainter, days: Axis) -> None:
        bottom = self.down
        for left, right in days.nights:
            painter.fillRect(QRectF(left, HEAD - 4, right - left, bottom), QColor(T.grid))
            write(painter, "night", QPointF((left + right) / 2, 14), size=13, side="middle")
        for one in days.stretches:
            words = f"{one.start:%a} {one.start.day} {one.start:%b}"
            if width(words, 16, 600) + 6 < one.right - one.left:
                write(painter, words, QPointF(one.left, 16), size=16, weight=600, color=T.ink)
            else:
                write(painter, f"{one.start.day}", QPointF(one.left, 16), size=16, weight=600,
                      color=T.ink)  # fmt: skip
            per = (one.right - one.left) / ((one.end - one.start) / HOUR)
            step = next(n for n in (1, 2, 3, 6, 12, 24) if n * per >= TICK or n == 24)
            at = one.start
            while at <= one.end:
                x = days.x(at)
                painter.setPen(pen(T.grid, 1))
                painter.drawLine(QPointF(x, HEAD - 4), QPointF(x, bottom))
                if x + 16 < one.right or at == one.start:
                    write(painter, f"{at.hour}", QPointF(x, 34), size=13)
                at += step * HOUR

    def _draw_waits(self, painter: QPainter, days: Axis) -> None:
        top = HEAD + LANES.index("waiting") * LANE + (LANE - 26) / 2
        boxes = [QRectF(days.x(w.start), top, max(days.x(w.end) - days.x(w.start), 4), 26)
                 for w in self._when.waits]  # fmt: skip
        for box in boxes:
            ink(painter, pen(T.muted, 1, Qt.PenStyle.DashLine), hatch(T.hair))
            painter.drawRoundedRect(box, 3, 3)
        taken = [(box.left(), box.right()) for box in boxes]
        for box, wait in reversed([*zip(boxes, self._when.waits, strict=True)]):
            wide = width(wait.words, 15) + 8
            middle = box.center().x()
            lefts = [middle - wide / 2] if wide < box.width() else []
            lefts += [box.right() + 2, box.left() - wide - 2]
            inside = wide < box.width()
            free = [left for left in lefts if inside or _is_free(left, wide, taken, self.across)]
            if not free:
                continue  # its box has it as a tip of the list beside: the job that waits
            painter.fillRect(QRectF(free[0], top + 4, wide, 18), QColor(T.sheet))
            write(painter, wait.words, QPointF(free[0] + 4, top + 18), color=T.ink)
            taken.append((free[0], free[0] + wide))

    def _draw_slot(self, painter: QPainter, days: Axis, slot: Slot) -> None:
        assert self._plan is not None
        job = self._plan.jobs[slot.job]
        top = HEAD + LANES.index(job.lane) * LANE + (LANE - BOX) / 2
        left, right = days.x(slot.start), days.x(slot.end)
        box = QRectF(left + 1, top, max(right - left - 2, 3), BOX)
        self.boxes.setdefault(slot.job, box)
        chosen = slot.job == self.chosen
        ink(painter, pen(T.ink, 3 if chosen else 1.5), QColor(T.paper if chosen else T.steel))
        painter.drawRoundedRect(box, 3, 3)
        _stripe(painter, job, box)
        number = str(slot.job + 1)
        if width(number, 15, 700) + 2 <= box.width():
            write(painter, number, box.center() + QPointF(0, 3), weight=700, color=T.ink,
                  side="middle")  # fmt: skip
        else:
            write(painter, number, QPointF(box.center().x(), top - 1), size=13, weight=700,
                  color=T.ink, side="middle")  # fmt: skip
        if any(one.job == job.name for one in self._plan.missing):
            severity_mark(painter, Severity.WARNING, QPointF(box.right() - 4, top), 7)

    def _draw_circuit(self, painter: QPainter, days: Axis, circuit: str, top: float) -> None:
        color = getattr(T, COLORS.get(circuit, "ink"))
        middle = top + BAR / 2
        mark = {"front": disc, "rear": square}.get(circuit)
        if mark is not None:
            mark(painter, QPointF(7, middle), 5)
        name = "circuit" if circuit == "all" else circuit
        write(painter, name, QPointF(18 if mark else 0, middle + 5), weight=600, color=color)
        for one in self._when.standing:
            if one.circuit == circuit:
                self._draw_open(painter, days, one, color, middle)

    def _draw_open(
        self, painter: QPainter, days: Axis, interval: OpenInterval, color: str, middle: float
    ) -> None:
        left, right = days.x(interval.start), days.x(interval.end)
        box = QRectF(left, middle - 9, max(right - left, 3), 18)
        ink(painter, pen(color, 1), hatch(color) if interval.circuit == "rear" else QColor(color))
        painter.drawRect(box)
        hours = clock_words(round((interval.end - interval.start).total_seconds() / 60))
        nights = (
            f", {interval.nights} night{'s' if interval.nights > 1 else ''}"
            if interval.nights
            else ""
        )
        words = f"open {hours}{nights}"
        if width(words, 14, 600) + 8 < box.width():
            painter.fillRect(
                QRectF(left, middle - 9, width(words, 14, 600) + 10, 18), QColor(color)
            )
            write(painter, words, QPointF(left + 5, middle + 5), size=14, weight=600,
                  color=T.sheet)  # fmt: skip
            words = "bled"
        else:
            words = f"{words}, bled"
        room = self.across - right > width(words, 14) + 26
        severity_mark(painter, None, QPointF(right + (10 if room else -10), middle), 7)
        at = QPointF(right + 21, middle + 5) if room else QPointF(left - 5, middle + 5)
        write(painter, words, at, size=14, color=T.good, side="left" if room else "right")


def _is_free(left: float, wide: float, taken: list[tuple[float, float]], across: float) -> bool:
    """Tell whether words of a width stand clear of what is there, and of both ends."""
    if left < NAMES or left + wide > across:
        return False
    return not any(left < end and left + wide > start for start, end in taken)


def _stripe(painter: QPainter, job: Job, box: QRectF) -> None:
    """Draw which circuits a job opens, along the foot of its box."""
    shown = [name for name in job.opens if name in COLORS] or [*job.opens[:1]]
    wide = (box.width() - 4) / max(len(shown), 1)
    for place, circuit in enumerate(shown):
        part = QRectF(box.left() + 2 + place * wide, box.bottom() - 8, wide, 6)
        color = getattr(T, COLORS.get(circuit, "ink"))
        painter.fillRect(part, QColor(T.sheet))
        painter.fillRect(part, hatch(color) if circuit == "rear" else QColor(color))


def _slot_words(plan: WorkPlan, slot: Slot) -> str:
    named = plan.jobs[slot.job].name
    return f"{slot.job + 1}, {named}: {slot.start:%a %H:%M} to {slot.end:%H:%M}"


def clock_words(minutes: int) -> str:
    """Return minutes as hours and minutes; minutes: of work [min]."""
    return f"{minutes // 60} h {minutes % 60:02d}"
