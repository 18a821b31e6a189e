"""Set-ups side by side: one column each, in every figure that sizing is judged by."""

import math
from functools import partial

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent

from urgens.document import BuildChange
from urgens.document.edits.setup_list import setup_line
from urgens.guidance.advice.booster_setups import changed_for
from urgens.guidance.words.setups import SetupRow, rows
from urgens.quantity import ShownFigure, show, written
from urgens.studies.compare import Column, columns
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, outline, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.setup_menu import SetupMenu
from urgens.ui.widgets.worded import wrapped

NAMES = 262.0  # px of the names
HEAD = 40.0  # of the head
LEAST = 22.0  # of a row at least


class SetUpsTable(Painted):
    """Rows are figures, columns the build and its set-ups; a click looks at one."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._columns: tuple[Column, ...] = ()
        self.rows: tuple[SetupRow, ...] = ()
        self._of: tuple[object, ...] | None = None
        self.setMinimumSize(self.scaled(420, 400))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    @property
    def names(self) -> list[str]:
        """What the columns are called."""
        return [column.name or "as it is" for column in self._columns]

    def refresh(self) -> None:
        """Solve every set-up of the build as it is now."""
        session = self._session
        surface = None if session.surface_is_own else session.solution.surface
        key: tuple[object, ...] = (session.base, session.view.load_case, surface)
        if self._of is None or self._of[0] is not session.base or self._of[1:] != key[1:]:
            self._of = key
            self._columns = columns(session.base, session.view.load_case, surface)
            self.rows = rows(self._columns)
        self.setAccessibleName(f"Set-ups side by side: {', '.join(self.names)}")
        self.update()

    def shown(self, row: SetupRow, index: int) -> ShownFigure:
        """Return one figure as a builder reads it."""
        value = row.values[index]
        if isinstance(value, str):
            return ShownFigure(value or "—", "")
        if not math.isfinite(value):
            return ShownFigure("none", "")
        if row.kind is not None:
            return show(value, row.kind, self._session.units)
        return ShownFigure(written(value, row.decimals), row.unit)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if not self._columns:
                return
            tall = max(LEAST, min((self.down - HEAD) / max(len(self.rows), 1), 36.0))
            across = self._across
            for index, name in enumerate(self.names):
                chosen = self._columns[index].name == self._session.setup
                x = NAMES + index * across
                if chosen:
                    box = QRectF(x - 8, 0, across - 4, HEAD + tall * len(self.rows))
                    painter.fillRect(box, QColor(T.paper))
                fits = painter.fontMetrics().elidedText(
                    name, Qt.TextElideMode.ElideRight, int(across - 16)
                )
                write(painter, fits, QPointF(x, 22), size=18, weight=700, color=T.ink)
            for number, row in enumerate(self.rows):
                y = HEAD + number * tall
                painter.setPen(pen(T.hair, 1))
                painter.drawLine(QPointF(0, y), QPointF(self.across, y))
                write(painter, row.name, QPointF(0, y + tall * 0.68), size=16)
                self._draw_row(painter, row, y + tall * 0.68, across)
            if self.hasFocus():
                outline(painter, T.front, 2)
                painter.drawRect(QRectF(1, 1, self.across - 2, self.down - 2))

    def _draw_row(self, painter: QPainter, row: SetupRow, y: float, across: float) -> None:
        """Write a row; what differs from the build as it is stands out."""
        first = self.shown(row, 0)
        for index in range(len(self._columns)):
            figure = self.shown(row, index)
            differs = index > 0 and figure != first
            x = NAMES + index * across
            weight = 700 if differs else 500
            write(painter, figure.number, QPointF(x, y), size=18, weight=weight, color=T.ink)
            at = QPointF(x + width(figure.number, 18, weight) + 5, y)
            write(painter, figure.unit, at, size=14)
            if differs:
                painter.setPen(pen(T.front, 3))
                painter.drawLine(QPointF(x - 7, y - 13), QPointF(x - 7, y + 3))

    @property
    def _across(self) -> float:
        return (self.across - NAMES) / max(len(self._columns), 1)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        spot = self.spot(event)
        index = int((spot.x() - NAMES) // self._across) if self._columns else -1
        if spot.x() >= NAMES and 0 <= index < len(self._columns):
            self._session.set_setup(self._columns[index].name)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}
        step = steps.get(Qt.Key(event.key()))
        if step is None or not self._columns:
            event.ignore()
            return
        names = [column.name for column in self._columns]
        index = min(max(names.index(self._session.setup) + step, 0), len(names) - 1)
        self._session.set_setup(names[index])


class SetUpsPage(Page):
    """The table, and a way to the first other set-up."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.table = SetUpsTable(session)
        self.add = {name: segment(f"Add “{name}”") for name in ("manual", "boosted")}
        self.words = wrapped(
            words="Every column is this build with a few figures changed. Choose one with a click, "
            "or with A and B: what you change then goes into it."
        )
        self.menu, self.told = SetupMenu(session, "Set-ups"), wrapped("muted")
        self.menu.setProperty("role", "kind")
        self.menu.said.connect(self.told.setText)
        self.menu.place_asked.connect(self.place_asked)
        self.column.addWidget(self.words)
        self.column.addWidget(self.menu)
        for name, button in self.add.items():
            button.setCheckable(False)
            button.clicked.connect(partial(self._add, name))
            self.column.addWidget(button)
        self.column.addWidget(self.told)
        self.column.addStretch()
        self.lay_out(self.table, side=200)

    @property
    def summary(self) -> str:
        """Which are compared."""
        names = self.table.names
        if len(names) < 2:
            return "no set-up yet to compare with"
        return " against ".join(names)

    def show_figures(self) -> None:
        """Solve them all."""
        self.table.refresh()
        boosted = self.session.base.booster.fitted
        taken = {setup.name for setup in self.session.base.setups}
        for name, button in self.add.items():
            other = (name == "manual") == boosted
            button.setVisible(other and name not in taken)

    def _add(self, name: str) -> None:
        setup = {"name": name, "changes": changed_for(self.session.base, name)}
        kept = range(len(self.session.base.setups))
        change = BuildChange(f"Set-up “{name}”", orders={"setups": [*kept, setup]})
        self.session.make(change, in_setup=False)
        if len(self.session.base.setups) > len(kept):  # it was not refused
            self.told.setText(setup_line(self.session.base, name))
