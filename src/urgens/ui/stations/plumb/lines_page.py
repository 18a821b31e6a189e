"""One line at a time: its route in two views, its bend sheet, and how it is made."""

from functools import partial

import numpy as np
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QWidget

from urgens.document import BuildChange, BuildErrors
from urgens.document.layout.layout import BrakeLine
from urgens.document.layout.line_sheets import MadeLine, radius_of, routed
from urgens.guidance import Severity, area_of
from urgens.guidance.advice.line_steps import line_work
from urgens.guidance.words.parts import line_name, thing_called
from urgens.physics.arrays import Array
from urgens.physics.bends import RouteError
from urgens.plumbing.edits import section_of
from urgens.plumbing.route_edits import (
    Figure,
    as_written,
    moved,
    new_route,
    other_side,
    points_of,
    with_bend,
    with_new_bend,
    with_point,
    without_point,
)
from urgens.quantity import LENGTH, show
from urgens.ui.session import Session
from urgens.ui.stations.plumb import AREAS
from urgens.ui.stations.plumb.bend_sheet import BendRows
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.stations.plumb.line_file import line_pdf
from urgens.ui.stations.plumb.route_board import RouteBoard
from urgens.ui.widgets.buttons import menu_button, push_button
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import button_words, point_out
from urgens.ui.widgets.worded import worded, wrapped
from urgens.ui.widgets.write_out import write_out

BENCH = tuple(
    Spot(f"plumbing.bench.{name}", 17)
    for name in ("springback", "nut_and_grip", "former_grip", "inverted_flare", "bubble_flare")
)
COLUMN = 340  # px: its bends are read at arm's length
NOTHING = "This build has no layout of its own yet: take one on the page Layout, then its lines."
NO_ROUTE = (
    "No route yet. Begin with a straight and drag its ends, or type the bends as they are measured "
    "on a line that fits."
)


class LinesPage(Page):
    """A line's route and its bend sheet, each made from the other."""

    kept = ("where",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.where = ""
        self.laid = Laid(session)
        self.board = RouteBoard(session)
        self.board.moved.connect(self._move)
        self.board.added.connect(self._add)
        self.board.removed.connect(self._remove)
        self.choose = menu_button()
        self.choose.setMenu(QMenu(self.choose))
        self.length = worded("", "title")
        self.fault = wrapped("error")
        self.rows = BendRows(self._type)
        self.begin = push_button("Begin its route", "primary", self._begin)
        self.nothing = wrapped("muted")
        self.work = wrapped()
        self.figures = FigureColumn(session, BENCH, of_one_part=False)
        self.acts: dict[str, QPushButton] = {}
        self._lay_out()

    def _lay_out(self) -> None:
        column = self.column
        for widget in (self.choose, self.nothing, self.begin, self.length, self.fault, self.rows):
            column.addWidget(widget)
        column.addLayout(self._actions())
        self.mirror = QToolButton()
        self.mirror.setText("Mirror it onto another line")
        self.mirror.setProperty("role", "kind")
        self.mirror.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.mirror.setMenu(QMenu(self.mirror))
        column.addWidget(self.mirror)
        self.paper = push_button("Its sheet on a page (PDF)…", "quiet", self._save)
        column.addWidget(self.paper)
        self.work_head = worded("In the order of the work", "heading")
        column.addWidget(self.work_head)
        column.addWidget(self.work)
        self.bench_head = worded("Your own tools", "heading")
        column.addWidget(self.bench_head)
        column.addWidget(self.figures)
        column.addStretch()
        self.lay_out(self.board, side=COLUMN)
        self.said.hide()

    def _actions(self) -> QHBoxLayout:
        row = spaced(QHBoxLayout(), 4)
        acts = {
            "Point +": lambda: self._add(self.board.chosen),
            "Point −": lambda: self._remove(self.board.chosen),
            "Bend +": self._bend,
            "Turn round": self._turn_round,
        }
        names = {
            "Point +": "Put a point behind the one chosen (Insert)",
            "Point −": "Take the point out (Delete)",
            "Bend +": "One more bend at the end, to be typed",
            "Turn round": "Let the line begin at its other end",
        }
        for words, act in acts.items():
            button = push_button(words, "small")
            point_out(button, names[words])
            button.setAccessibleName(names[words])
            button.clicked.connect(act)
            self.acts[words] = button
            row.addWidget(button)
        return row

    # --- what is shown ---------------------------------------------------------------------

    @property
    def summary(self) -> str:
        """How many lines can be bent from their sheets."""
        lines = [line for line in self.laid.plumbing.lines if not line.direct]
        known = sum(len(line.route) > 1 for line in lines)
        return f"{known} of {len(lines)} lines have a route"

    def look_at(self, where: str) -> None:
        """Look at a line."""
        self.where = where
        self.board.chosen = 0
        self.show_figures()

    def _line(self) -> BrakeLine | None:
        if not self.laid.own:
            return None
        lines = [line for line in self.laid.plumbing.lines if not line.direct]
        found = next((line for line in lines if line.id == self.where), None)
        if found is None and lines:
            found = next((line for line in lines if len(line.route) > 1), lines[0])
            self.where = found.id
        return found

    def _made(self) -> MadeLine | None:
        return next((m for m in routed(self.laid.plumbing) if m.line.id == self.where), None)

    def show_figures(self) -> None:
        """Show the line as it is now."""
        line = self._line()
        made = None if line is None else self._made()
        self._show_choices()
        self.nothing.setVisible(line is None or made is None)
        self.nothing.setText(NOTHING if line is None else NO_ROUTE)
        self.begin.setVisible(line is not None and made is None)
        of_made: tuple[QWidget, ...] = (
            self.rows, self.length, self.mirror, self.paper, self.work, self.work_head,
            *self.acts.values(),
        )  # fmt: skip
        for widget in of_made:
            widget.setVisible(made is not None)
        of_line: tuple[QWidget, ...] = (self.choose, self.figures, self.bench_head)
        for widget in of_line:
            widget.setVisible(line is not None)
        self.figures.refresh()
        points = np.empty((0, 3)) if line is None else points_of(line)
        radius = 0.0 if line is None else radius_of(line).value
        self.board.show_route(points, radius)
        self.rows.show_sheet(made, self.session.units)
        self._show_made(made)

    def _show_choices(self) -> None:
        menu = self.choose.menu()
        menu.clear()
        self.mirror.menu().clear()
        for line in self.laid.plumbing.lines:
            if line.direct:
                continue
            number = line.id.removeprefix("L")
            said = button_words(f"{number}  {line_name(self.laid.circuits, line)}")
            menu.addAction(said, partial(self.look_at, line.id))
            if line.id == self.where:
                self.choose.setText(said)
            else:
                self.mirror.menu().addAction(said, partial(self._mirror, line.id))

    def _save(self) -> None:
        """Write the sheet of the line to a file."""
        made = self._made()
        if made is not None and made.sheet is not None:
            name = f"line-{self.where.removeprefix('L')}"
            write_out(self, "The line's sheet", name, ".pdf", lambda: line_pdf(self.session, made))

    def _show_made(self, line: MadeLine | None) -> None:
        said = []
        if line is not None and line.sheet is not None:
            self.length.setText(f"Cut {show(line.length, LENGTH, self.session.units)}")
        elif line is not None:
            self.length.setText("Cannot be bent")
            self.paper.hide()
            said.append(f"Cannot be bent: {line.fault}.")
        for finding in self.session.findings if line is not None else ():
            own = finding.where == self.where and area_of(finding.code) in AREAS
            if own and finding.severity is not Severity.ADVICE:
                said.append(finding.message)
        self.fault.setText("\n".join(dict.fromkeys(said)))
        self.fault.setVisible(bool(said))
        bench = self.laid.plumbing.bench
        steps = [] if line is None else line_work(line, bench, self.session.units)
        self.work.setText("\n".join(f"{n}. {step}" for n, step in enumerate(steps, start=1)))

    # --- what is changed -------------------------------------------------------------------

    def _points(self) -> Array:
        line = self._line()
        return np.empty((0, 3)) if line is None else points_of(line)

    def _write(self, points: Array, said: str, where: str | None = None) -> None:
        """Write a route into the build."""
        where = where or self.where
        index = [line.id for line in self.laid.plumbing.lines].index(where)
        path = f"plumbing.lines[{index}].route"
        written = as_written(points, self.session.units)
        self.session.make(
            BuildChange(f"{said} of {thing_called(self.laid.circuits, where)}", {path: written})
        )

    def _refuse(self, error: RouteError) -> None:
        self.session.refused.emit(str(error))

    def _begin(self) -> None:
        self._write(new_route(), "Route")
        self.board.setFocus()

    def _move(self, corner: int, to: Array) -> None:
        try:
            self._write(moved(self._points(), corner, to), f"Point {corner + 1}")
        except RouteError as error:
            if not self.session.dragging:  # a hand that passes over a corner goes on
                self._refuse(error)

    def _add(self, corner: int) -> None:
        points = self._points()
        self._write(with_point(points, corner), "Point put in")
        self.board.choose(min(corner, len(points) - 2) + 1)

    def _remove(self, corner: int) -> None:
        try:
            self._write(without_point(self._points(), corner), "Point taken out")
        except RouteError as error:
            self._refuse(error)

    def _bend(self) -> None:
        made = self._made()
        if made is not None and made.sheet is not None:
            self._write(with_new_bend(self._points(), made.sheet), "Bend added")

    def _type(self, bend: int, figure: Figure, value: float) -> None:
        made = self._made()
        if made is None or made.sheet is None:
            return
        self._write(with_bend(self._points(), made.sheet, bend, figure, value), f"Bend {bend + 1}")

    def _turn_round(self) -> None:
        """Let the line begin at its other end: ends and route the other way round."""
        plumbing = self.laid.plumbing
        index = [line.id for line in plumbing.lines].index(self.where)
        line = plumbing.lines[index]
        path = f"plumbing.lines[{index}]"
        written = section_of(plumbing)["lines"][index]
        values: dict[str, object] = {f"{path}.from": line.to, f"{path}.to": line.start}
        for name in ("route", "ends"):
            if name in written:
                values[f"{path}.{name}"] = written[name][::-1]
        self.session.make(
            BuildChange(f"{thing_called(self.laid.circuits, self.where)} turned round", values)
        )

    def _mirror(self, onto: str) -> None:
        """Give another line the route of this one, on the other side of the vehicle."""
        try:
            self._write(other_side(self._points()), "Mirrored route", onto)
        except BuildErrors as errors:
            self.session.refused.emit(str(errors))
            return
        self.look_at(onto)
