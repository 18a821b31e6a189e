"""The cut list beside the plan: a row for each line, lit up with the line on the drawing."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

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
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.painted import Painted

ROW, FOOT = 46.0, 52.0  # px


class CutList(Painted):
    """Rows of lines; a click or the arrow keys choose one."""

    chosen = Signal(str)

    def __init__(self, session: Session, laid: Laid, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session, self._laid = session, laid
        self.where = ""
        self.marks: dict[str, Severity] = {}
        self._lines: tuple[BrakeLine, ...] = ()
        self._made: dict[str, MadeLine] = {}
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return self.scaled(280, ROW * len(self._lines) + FOOT)

    def show_lines(self, where: str) -> None:
        """Show the lines as they are now, one of them chosen."""
        self.where = where
        self._lines = tuple(line for line in self._laid.plumbing.lines if not line.direct)
        self._made = {one.line.id: one for one in routed(self._laid.plumbing)}
        rows = "; ".join(f"{line.id} {self._name(line)}" for line in self._lines)
        self.setAccessibleName(f"Cut list. {rows}")
        self.updateGeometry()
        self.update()

    def _name(self, line: BrakeLine) -> str:
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

    def row_box(self, index: int) -> QRectF:
        """Return where a row is [px of the usual scale]."""
        return QRectF(0, index * ROW, self.across, ROW)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            for index, line in enumerate(self._lines):
                self._paint_row(painter, self.row_box(index), line)
            top = ROW * len(self._lines)
            painter.setPen(pen(T.ink, 2))
            painter.drawLine(QPointF(0, top + 2), QPointF(self.across, top + 2))
            self._paint_foot(painter, top)
            if self.hasFocus() and not self.where:
                painter.setPen(pen(T.front, 2))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(QRectF(1, 1, self.across - 2, self.down - 2))

    def _paint_row(self, painter: QPainter, box: QRectF, line: BrakeLine) -> None:
        own, mark = line.id == self.where, self.marks.get(line.id)
        bad = mark is Severity.DANGER
        if own or bad:
            painter.fillRect(box.adjusted(0, 1, 0, -1), QColor(T.danger_ground if bad else T.paper))
        if own and self.hasFocus():
            painter.setPen(pen(T.front, 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box.adjusted(1, 2, -1, -2))
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
        name = shortened(self._name(line), 16, 500, round(room), 22)
        write(painter, name, QPointF(36, box.top() + 20), size=16, weight=500, color=color)
        write(painter, self.more(line), QPointF(36, box.top() + 38), size=14, color=T.muted)
        if mark is not None and mark is not Severity.ADVICE:
            severity_mark(painter, mark, QPointF(box.right() - 14, box.top() + 33), 8)
        painter.setPen(pen(T.hair))
        painter.drawLine(box.bottomLeft(), box.bottomRight())

    def _paint_foot(self, painter: QPainter, top: float) -> None:
        known = [one for one in self._made.values() if one.sheet is not None]
        write(painter, "In all", QPointF(0, top + 24), size=16, weight=600, color=T.ink)
        if known:
            whole = show(sum(one.length for one in known), LENGTH, self._session.units)
            write(painter, str(whole), QPointF(self.across - 6, top + 24), size=19, weight=600,
                  color=T.ink, side="right")  # fmt: skip
        open_ = len(self._lines) - len(known)
        said = f"{open_} of {len(self._lines)} lines have no route yet" if open_ else (
            "developed, with what the flares take"
        )  # fmt: skip
        write(painter, said, QPointF(0, top + 44), size=14)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        index = int(self.spot(event).y() // ROW)
        if 0 <= index < len(self._lines):
            self.chosen.emit(self._lines[index].id)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
        names = [line.id for line in self._lines]
        if step is None or not names:
            event.ignore()
            return
        now = names.index(self.where) if self.where in names else (-1 if step > 0 else len(names))
        self.chosen.emit(names[min(max(now + step, 0), len(names) - 1)])
