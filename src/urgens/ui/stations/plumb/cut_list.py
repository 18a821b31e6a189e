"""The cut list beside the plan: a row for each line, lit up with the line on the drawing."""

from collections.abc import Mapping

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from urgens.document.layout.layout import BrakeLine
from urgens.document.layout.line_sheets import MadeLine, routed
from urgens.guidance import Severity
from urgens.guidance.words.parts import line_name
from urgens.quantity import LENGTH, show
from urgens.ui.session import Session
from urgens.ui.stations.plumb import plan_art
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.theme.paint import T, pen, shortened, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.row_list import RowList

ROW = 46.0  # px
FOOT = 52.0  # px


class _Rows(RowList):
    """A row a line; one of them is lit up with its line on the drawing."""

    def __init__(self, session: Session, laid: Laid) -> None:
        self._session, self._laid = session, laid
        self.where = ""
        self.marks: Mapping[str, Severity] = {}
        self._pipes: tuple[BrakeLine, ...] = ()
        self._made: dict[str, MadeLine] = {}
        super().__init__("Cut list", "No line is laid.", lambda _: ROW, self._draw)
        self.viewport().setCursor(Qt.CursorShape.PointingHandCursor)

    def show_lines(self, where: str) -> None:
        """Show the lines as they are now, one of them chosen."""
        self.where = where
        self._pipes = tuple(line for line in self._laid.plumbing.lines if not line.direct)
        self._made = {one.line.id: one for one in routed(self._laid.plumbing)}
        names = [line.id for line in self._pipes]
        lines = [f"{line.id} {self._called(line)}, {self.length(line)}" for line in self._pipes]
        self.show_rows(lines, names.index(where) if where in names else -1)
        self.fit()

    def id_of(self, row: int) -> str:
        """Return the id of a row's line."""
        return self._pipes[row].id

    def _called(self, line: BrakeLine) -> str:
        return line_name(self._laid.circuits, line)

    def length(self, line: BrakeLine) -> str:
        """Return the developed length of a line, or that its route is not known."""
        made = self._made.get(line.id)
        if made is None:
            return "no route"
        if made.sheet is None:
            return "cannot bend"
        return str(show(made.length, LENGTH, self._session.units))

    def more(self, line: BrakeLine) -> str:
        """Return its bends and ends in words."""
        made = self._made.get(line.id)
        ends = " – ".join(end.nut for end in line.ends) or "ends not known"
        if made is None or made.sheet is None:
            return ends
        bends = len(made.sheet.angle)
        return f"{bends} bend{'s' if bends != 1 else ''}  ·  {ends}"

    def _draw(self, painter: QPainter, box: QRectF, row: int) -> None:
        line = self._pipes[row]
        own, mark = line.id == self.where, self.marks.get(line.id)
        bad = mark is Severity.DANGER
        if own or bad:
            painter.fillRect(box.adjusted(0, 1, 0, -1), QColor(T.danger_ground if bad else T.paper))
        fed = self._laid.circuits.fed[line.id]
        circuit = next(iter(fed)) if len(fed) == 1 else ""
        at = QPointF(box.left() + 16, box.center().y())
        plan_art.number(painter, at, line.id.removeprefix("L"), circuit, chosen=own)
        length, color = self.length(line), T.danger if bad else T.ink
        known = line.id in self._made
        size, weight = (17, 600) if known else (14, 400)
        write(painter, length, QPointF(box.right() - 6, box.top() + 20), size=size, weight=weight,
              color=color if known else T.muted, side="right")  # fmt: skip
        room = box.width() - 46 - width(length, size, weight)
        name = shortened(self._called(line), 16, 500, round(room), 22)
        write(painter, name, QPointF(36, box.top() + 20), size=16, weight=500, color=color)
        write(painter, self.more(line), QPointF(36, box.top() + 38), size=14, color=T.muted)
        if mark is not None and mark is not Severity.ADVICE:
            severity_mark(painter, mark, QPointF(box.right() - 14, box.top() + 33), 8)
        painter.setPen(pen(T.hair))
        painter.drawLine(box.bottomLeft(), box.bottomRight())

    def sum_words(self) -> tuple[str, str]:
        """Return what all lines come to, and what of it is not known."""
        known = [one for one in self._made.values() if one.sheet is not None]
        whole = str(show(sum(one.length for one in known), LENGTH, self._session.units))
        open_ = len(self._pipes) - len(known)
        more = f"{open_} of {len(self._pipes)} lines have no route yet"
        return whole if known else "", more if open_ else "developed, with what the flares take"

    def draw_foot(self, painter: QPainter, across: float) -> None:
        """Draw what all lines come to."""
        whole, more = self.sum_words()
        write(painter, "In all", QPointF(0, 24), size=16, weight=600, color=T.ink)
        at = QPointF(across - 6, 24)
        write(painter, whole, at, size=19, weight=600, color=T.ink, side="right")
        write(painter, more, QPointF(0, 44), size=14)


class _Foot(Painted):
    """What all lines come to, under them."""

    def __init__(self, rows: _Rows) -> None:
        super().__init__()
        self._rows = rows
        self.setFixedHeight(round(FOOT * self.scale))

    def show_sum(self) -> None:
        """Show what all lines come to now."""
        self.setAccessibleName(f"In all {', '.join(self._rows.sum_words())}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            painter.setPen(pen(T.ink, 2))
            painter.drawLine(QPointF(0, 2), QPointF(self.across, 2))
            self._rows.draw_foot(painter, self.across)


class CutList(QWidget):
    """Rows of lines over their sum; a click or the arrow keys choose one."""

    chosen = Signal(str)

    def __init__(self, session: Session, laid: Laid) -> None:
        super().__init__()
        self.rows = _Rows(session, laid)
        self._foot = _Foot(self.rows)
        for signal in (self.rows.chose, self.rows.entered):
            signal.connect(lambda row: self.chosen.emit(self.rows.id_of(row)))
        column = tight(QVBoxLayout(self), 0)
        column.addWidget(self.rows)
        column.addWidget(self._foot)

    @property
    def where(self) -> str:
        """The line that is chosen."""
        return self.rows.where

    def show_lines(self, where: str, marks: Mapping[str, Severity]) -> None:
        """Show the lines as they are now, one of them chosen, some marked."""
        self.rows.marks = marks
        self.rows.show_lines(where)
        self._foot.show_sum()
