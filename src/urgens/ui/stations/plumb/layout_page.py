"""The layout as a plan: looked at under pressure, moved about, changed part by part."""

from collections.abc import Mapping
from functools import partial
from typing import Any

from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QToolButton, QVBoxLayout, QWidget

from urgens.document import BuildChange, BuildErrors
from urgens.document.part_catalogue import CataloguePart
from urgens.guidance import Severity, area_of
from urgens.guidance.advice.by_hand import put_in, taken_out
from urgens.guidance.words.parts import thing_called
from urgens.plumbing.edits import drawn, laid_anew
from urgens.ui.session import Session
from urgens.ui.stations.plumb import AREAS
from urgens.ui.stations.plumb.cut_list import CutList
from urgens.ui.stations.plumb.laid import Laid, draft_change
from urgens.ui.stations.plumb.parts_strip import PartsStrip, place_words
from urgens.ui.stations.plumb.plan_file import plan_menu
from urgens.ui.stations.plumb.plan_view import PlanView
from urgens.ui.stations.plumb.thing import Thing
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.worded import worded, wrapped

NOT_LOOKED = (
    "Drafted from the cylinder, the valves and the brakes. Threads and seats are as they usually "
    "are: nobody has looked at them yet."
)


IDLE = "Drag a part onto the plan, or press it and choose its place."


class LayoutPage(Page):
    """The plan, and beside it what is chosen and the cut list."""

    kept = ("where", "gauges")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.laid = Laid(session)
        self.view = PlanView(session, self.laid)
        self.strip = PartsStrip()
        self.hand = worded(IDLE, "small")
        self.thing = Thing(session, self.laid)
        self.cut = CutList(session, self.laid)
        self.drafted = wrapped("muted", NOT_LOOKED)
        self.take = push_button("Take this layout", "primary", self._take)
        self.view.chosen.connect(self.look_at)
        self.view.placed.connect(self._place)
        self.cut.chosen.connect(self.look_at)
        self.thing.gauge_asked.connect(self._gauge)
        self.thing.put_asked.connect(self._put_in)
        self.view.put_asked.connect(self._put)
        self.view.out_asked.connect(self._take_out)
        self.view.let_go_of.connect(self._let_go)
        self.strip.taken.connect(self.take_up)
        self.strip.carried.connect(self._carry)
        self.strip.dropped.connect(self._drop)
        self.thing.out_asked.connect(self._take_out)
        self.thing.keep_asked.connect(self._keep)
        for widget in (self.drafted, self.take, self.thing, self.cut):
            self.column.addWidget(widget)
        self.column.addStretch()
        self.lay_out(self._drawing())
        self.said.hide()
        session.press_changed.connect(self.thing.follow_press)
        session.told.connect(self._told)

    def _drawing(self) -> QWidget:
        drawing = QWidget()
        column = tight(QVBoxLayout(drawing), 2)
        column.addWidget(self.view, 1)
        row = spaced(QHBoxLayout(), 6)
        self.buttons: dict[str, QPushButton] = {}
        acts = {
            "Fit": partial(self.view.zoom, 0),
            "−": partial(self.view.zoom, -1),
            "+": partial(self.view.zoom, 1),
            "Lay out anew": self._anew,
        }
        names = {"Fit": "Let the plan fit", "−": "Draw it smaller", "+": "Draw it larger"}
        for words, act in acts.items():
            button = push_button(words, "small")
            button.setAccessibleName(names.get(words, words))
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(act)
            self.buttons[words] = button
            row.addWidget(button)
        row.addStretch()
        self.save = QToolButton()
        self.save.setText("Save the drawing")
        self.save.setProperty("role", "kind")
        self.save.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.save.setMenu(plan_menu(self.view))
        row.addWidget(self.save)
        column.addLayout(row)
        column.addWidget(self.hand)
        column.addWidget(self.strip)
        return drawing

    # --- what is shown ---------------------------------------------------------------------

    @property
    def where(self) -> str:
        """The part or line that is chosen."""
        return self.view.where

    @where.setter
    def where(self, where: str) -> None:
        self.look_at(where)

    @property
    def gauges(self) -> tuple[str, ...]:
        """The ports that have a gauge to look with."""
        return self.view.gauges

    @gauges.setter
    def gauges(self, names: tuple[str, ...]) -> None:
        self.view.set_gauges(names)

    def give_back(self, kept: Mapping[str, Any]) -> None:
        """Look at it again."""
        self.seen.if_stale()
        super().give_back(kept)

    @property
    def summary(self) -> str:
        """What it is, in one line."""
        if not self.laid.own:
            return "the usual layout, as a proposal"
        return "drag a part to where it sits, and the lines follow"

    def show_figures(self) -> None:
        """Show the layout as it is now."""
        if not self.session.telling:  # else what is found comes when it is told
            self.view.marks = self._found()
        self.view.show_layout()
        self.drafted.setText(NOT_LOOKED)
        for widget in (self.drafted, self.take):
            widget.setVisible(not self.laid.own)
        placed = any(part.drawn_at is not None for part in self.laid.plumbing.parts)
        self.buttons["Lay out anew"].setVisible(self.laid.own and placed)
        self.strip.setVisible(self.laid.own)
        self.hand.setVisible(self.laid.own)
        if self.view.placing.kind:
            self.view.begin_placing(self.view.placing.kind)  # its places may be others now
        self._show_chosen()

    def _told(self) -> None:
        self.seen.ask_for(self._mark)

    def _mark(self) -> None:
        """Mark what is found, and write what is written later."""
        self.view.write_due()
        marks = self._found()
        if marks != self.view.marks:
            self.view.marks = marks
            self.view.show_layout()
            self.cut.show_lines(self.view.where, marks)

    def _found(self) -> dict[str, Severity]:
        """Return the worst that is found of each part and line."""
        marks: dict[str, Severity] = {}
        for finding in self.session.findings if self.laid.own else ():
            if area_of(finding.code) in AREAS:
                marks.setdefault(finding.where, finding.severity)
        return marks

    def look_at(self, where: str) -> None:
        """Choose a part or a line."""
        self.view.mark(where)
        self._show_chosen()

    def _show_chosen(self) -> None:
        self.thing.show_thing(self.view.where, self.view.gauges)
        self.cut.show_lines(self.view.where, self.view.marks)

    # --- what is changed -------------------------------------------------------------------

    def _take(self) -> None:
        self.session.make(draft_change(self.session.build))

    def _place(self, where: str, x: float, y: float) -> None:
        """Draw a part elsewhere; all others stay where they are."""
        plan = self.laid.plan
        across, down = plan.size
        spots = {name: (part.middle[0] / across, part.middle[1] / down)
                 for name, part in plan.parts.items()}  # fmt: skip
        spots[where] = (x, y)
        values = drawn(self.laid.plumbing, spots)
        self.session.make(BuildChange(f"{self._called(where)} drawn elsewhere", values))

    def _called(self, where: str) -> str:
        words = thing_called(self.laid.circuits, where)
        return f"{words[:1].upper()}{words[1:]}"

    def _anew(self) -> None:
        section = laid_anew(self.laid.plumbing)
        self.session.make(BuildChange("Laid out anew", {"plumbing": section}))

    def _gauge(self, port: str) -> None:
        """Put a gauge on a port, or take it off; it changes nothing in the build."""
        names = self.view.gauges
        gone = port in names
        self.view.set_gauges(tuple(n for n in names if n != port) if gone else (*names, port))
        self._show_chosen()

    # --- parts put in by hand --------------------------------------------------------------

    def take_up(self, kind: str) -> None:
        """Take a part into the hand, or let it go where it is in it already."""
        if self.view.placing.kind == kind:
            self.view.end_placing()
            return
        self.view.begin_placing(kind)
        self.strip.show_taken(kind)
        self.hand.setText(place_words(kind, self.view.placing.places.why))
        self.view.setFocus(Qt.FocusReason.OtherFocusReason)

    def _carry(self, kind: str, at: QPoint) -> None:
        if self.view.placing.kind != kind:
            self.view.begin_placing(kind)
            self.strip.show_taken(kind)
        self.view.hover(self.view.viewport().mapFromGlobal(at))

    def _drop(self, kind: str, at: QPoint) -> None:
        self._carry(kind, at)
        inside = self.view.viewport().rect().contains(self.view.viewport().mapFromGlobal(at))
        if inside and self.view.placing.at:
            self.view.put()
        else:
            self.view.end_placing()

    def _let_go(self) -> None:
        self.strip.show_taken("")
        self.hand.setText(IDLE)

    def _put(self, kind: str, place: str) -> None:
        """Put a part where it is wanted, and choose it."""
        self._lay(place, kind, None)

    def _lay(self, place: str, kind: str, of: CataloguePart | None) -> None:
        self.view.end_placing()
        try:
            change, name = put_in(self.session.build, place, kind, of)
        except BuildErrors as errors:
            self.session.refused.emit(str(errors))
            return
        self.session.make(change)
        self.look_at(name)

    def _put_in(self, line: str, part: CataloguePart) -> None:
        self._lay(line, part.kind, part)

    def _keep(self, where: str) -> None:
        """Keep a part with its ports in the builder's own catalogue."""
        part = self.laid.circuits.parts[where]
        try:
            said = self.laid.parts.keep(part)
        except BuildErrors as errors:
            self.session.refused.emit(str(errors))
            return
        self.drafted.setText(said)
        self.drafted.show()

    def _take_out(self, part: str) -> None:
        try:
            change = taken_out(self.session.build, part)
        except BuildErrors as errors:
            self.session.refused.emit(str(errors))
            return
        self.session.make(change)
