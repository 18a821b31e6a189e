"""Which axle locks first, for every load case on every road; a click looks at that one."""

import math

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from urgens.guidance import Severity
from urgens.quantity import FORCE, show
from urgens.solve import ICE, WET, AxleName
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, face, ink, laid_out, pen, shortened, width
from urgens.ui.widgets.marks import disc, severity_mark
from urgens.ui.widgets.plain import point_out
from urgens.ui.widgets.seen import WhenSeen

HEAD = 28
ROW = 58
MOST_ROWS = 4  # seen at once


class LockTable(QWidget):
    """Rows are load cases, columns roads from slippery to grippy."""

    rows_changed = Signal()

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self._rows = 0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        point_out(self, "Click one to look at that load on that road")
        session.told.connect(WhenSeen(self, self._refresh).ask)
        self._refresh()

    def _refresh(self) -> None:
        solution = self._session.solution
        rows = [
            f"{name}: " + ", ".join(self.cell(case, road) for road in self._roads())
            for case, name in enumerate(solution.system.case_names)
        ]
        self.setAccessibleName("Which axle locks first. " + "; ".join(rows))
        if len(rows) != self._rows:
            self._rows = len(rows)
            self.updateGeometry()
            self.rows_changed.emit()
        self.update()

    def shown_height(self) -> int:
        """Return the height [px] of the rows that are seen at once; the rest is scrolled to."""
        return HEAD + ROW * min(self._rows, MOST_ROWS) + 2

    def _roads(self) -> tuple[int, ...]:
        return self._session.solution.shown

    def cell(self, case: int, road: int) -> str:
        """Return what one cell says; case, road: places in the solution."""
        lock = self._session.solution.lock
        axle = AxleName(int(lock.axle[case, road]))
        if axle is AxleName.NONE:
            return "none"
        effort = show(float(lock.effort[case, road]), FORCE, self._session.units)
        return f"{axle.name.lower()} {effort} {lock.z[case, road]:.2f} g"

    def sizeHint(self) -> QSize:
        return QSize(330, HEAD + ROW * len(self._session.solution.system.case_names))

    def _left(self) -> float:
        names = self._session.solution.system.case_names
        widest = max(width(name, 15, 500) for name in names)
        return min(widest + 12, self.width() * 0.29)

    def cell_box(self, case: int, column: int) -> QRectF:
        """Return where a cell is; column: from the left."""
        left = self._left()
        wide = (self.width() - left) / len(self._roads())
        return QRectF(left + column * wide, HEAD + case * ROW, wide, ROW)

    def paintEvent(self, event: QPaintEvent) -> None:
        with QPainter(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            solution = self._session.solution
            for column, road in enumerate(self._roads()):
                self._paint_head(painter, self.cell_box(0, column), solution.surfaces[road])
            for case, name in enumerate(solution.system.case_names):
                top = HEAD + case * ROW
                painter.setPen(pen(T.hair))
                painter.drawLine(0, top, self.width(), top)
                own = case == solution.case
                painter.setFont(face(15, 600 if own else 500))
                painter.setPen(QColor(T.ink if own else T.muted))
                box = QRectF(0, top, self._left() - 8, ROW)
                flags = Qt.AlignmentFlag.AlignVCenter | Qt.TextFlag.TextWordWrap
                shown = shortened(name, 15, 600, round(box.width()), ROW)
                painter.drawText(box, flags, shown)
                for column, road in enumerate(self._roads()):
                    self._paint_cell(painter, self.cell_box(case, column), case, road)

    def _paint_head(self, painter: QPainter, box: QRectF, surface: float) -> None:
        names = {ICE: "Ice", WET: "Wet", self._session.build.targets.surface: "Dry"}
        painter.setFont(face(15, 500))
        painter.setPen(QColor(T.muted))
        text = f"{names.get(surface, '')} {surface:.2f}".strip()
        at = QRectF(box.left() + 6, 0, box.width() - 6, HEAD)
        painter.drawText(at, Qt.AlignmentFlag.AlignVCenter, text)

    def _paint_cell(self, painter: QPainter, box: QRectF, case: int, road: int) -> None:
        solution = self._session.solution
        lock = solution.lock
        axle = AxleName(int(lock.axle[case, road]))
        if (case, road) == (solution.case, solution.road):
            ink(painter, Qt.PenStyle.NoPen, QColor(T.paper))
            painter.drawRect(box.adjusted(1, 1, 0, 0))
            painter.setBrush(QColor(T.ink))
            painter.drawRect(QRectF(box.left() + 1, box.top() + 1, 3, box.height() - 1))
        center = QPointF(box.left() + 14, box.top() + 15)
        said = {AxleName.NONE: "none", AxleName.FRONT: "front", AxleName.REAR: "rear"}[axle]
        color = {AxleName.NONE: T.muted, AxleName.FRONT: T.front, AxleName.REAR: T.danger}[axle]
        if axle is AxleName.REAR:
            severity_mark(painter, Severity.DANGER, center, 8)
        elif axle is AxleName.FRONT:
            disc(painter, center, 6)
        self._write(painter, QPointF(box.left() + 25, box.top() + 4), said, 16, 600, color)
        if axle is not AxleName.NONE:
            effort = show(float(lock.effort[case, road]), FORCE, self._session.units)
            z = f"{lock.z[case, road]:.2f} g"
            self._write(painter, QPointF(box.left() + 25, box.top() + 22), str(effort))
            self._write(painter, QPointF(box.left() + 25, box.top() + 38), z)

    @staticmethod
    def _write(
        painter: QPainter,
        at: QPointF,
        said: str,
        size: int = 14,
        weight: int = 400,
        color: str | None = None,
    ) -> None:
        painter.setFont(face(size, weight))
        painter.setPen(QColor(color or T.muted))
        painter.drawStaticText(at, laid_out(said, size, weight))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        case = math.floor((event.position().y() - HEAD) / ROW)
        for column, road in enumerate(self._roads()):
            if 0 <= case < len(self._session.solution.system.case_names) and self.cell_box(
                case, column
            ).contains(event.position()):
                solution = self._session.solution
                surface = solution.surfaces[road]
                own = surface == self._session.build.targets.surface
                self._session.look_at(solution.system.case_names[case], None if own else surface)
                return
