"""The cylinder on the vehicle beside another one: drawn to scale, and what the other changes."""

from collections.abc import Mapping
from functools import partial
from typing import Any

from PySide6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from urgens.document import Build, BuildChange, BuildErrors
from urgens.document.catalogue import named
from urgens.document.kinds.cylinders import cylinder_kind
from urgens.guidance.advice.two_cylinders import (
    FIELDS,
    CylinderChange,
    changes,
    other_build,
    other_changes,
)
from urgens.physics.axle import AXLES
from urgens.quantity import LENGTH
from urgens.ui.session import Session
from urgens.ui.stations.size.cylinders_board import CylindersBoard
from urgens.ui.theme.paint import T
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.chooser import chooser
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.figure_label import FigureLabel, Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped

NAME = "other cylinder"
POSITIONS = {"": "not given", "left": "left", "right": "right", "end": "at the end",
             "top": "on top", "bottom": "at the bottom"}  # fmt: skip
NOTHING = "Type what is measured of the other one: only its bore and stroke are taken as of yours."
COLUMNS = (152, 92)  # px, words and what is on the vehicle
DOTTED = "Dotted: not measured, drawn as is usual."


class CylindersPage(Page):
    """A drawing of both, a row for each size, and beside it what the other one changes."""

    kept = ("typed", "sits")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.board = CylindersBoard()
        self.others: dict[str, TypedLabel] = {}
        self._sits: dict[str, str] = {}  # where the other's outlets are, by circuit
        self.mine: list[FigureLabel] = []
        self.found: tuple[CylinderChange, ...] = ()
        self._fields: tuple[str, ...] = ()
        self._grid = tight(QGridLayout())
        self._outlets = tight(QGridLayout())
        for rows in (self._grid, self._outlets):  # their columns stand under each other
            rows.setHorizontalSpacing(18)
            rows.setColumnStretch(3, 1)
            for place, width in enumerate(COLUMNS):
                rows.setColumnMinimumWidth(place, width)
        self.words = QVBoxLayout()
        self.fault = wrapped("error")
        self.add = push_button("Make it a set-up", "quiet", self._add)
        left = QWidget()
        column = tight(QVBoxLayout(left))
        column.addWidget(self.board, 1)
        column.addWidget(worded(DOTTED, "small"))
        column.addLayout(self._grid)
        column.addLayout(self._outlets)
        self.head("What the other one changes")
        self.column.addWidget(self.fault)
        self.column.addLayout(self.words)
        self.column.addWidget(self.add)
        self.column.addStretch()
        self.lay_out(rolled(left))
        self.said.hide()

    @property
    def typed(self) -> dict[str, str]:
        """What is typed of the other one, by field."""
        return {name: label.quantity.text for name, label in self.others.items()
                if label.quantity is not None}  # fmt: skip

    @typed.setter
    def typed(self, typed: Mapping[str, str]) -> None:
        self._show_rows()
        for name, text in typed.items():
            if name in self.others:
                self.others[name].set_text(text)

    @property
    def sits(self) -> dict[str, str]:
        """Where the outlets of the other one are, by circuit."""
        return self._sits

    @sits.setter
    def sits(self, sits: Mapping[str, str]) -> None:
        self._sits = dict(sits)
        self._show()

    @property
    def summary(self) -> str:
        """What the other one is, in one line."""
        if not self.figures:
            return "two cylinders that look alike may differ in the depth of their socket"
        worst = next((one for one in self.found if one.tone), None)
        return "nothing stands against the other one" if worst is None else (
            f"{worst.what.lower()}: look before it is bought"
        )  # fmt: skip

    # --- what is shown ---------------------------------------------------------------------

    def _show_rows(self) -> None:
        """Show a row for each size that this kind of cylinder has."""
        kind = cylinder_kind(self.session.build.master)
        fields = (*kind.bores, *(name for name in FIELDS if name != "bore"))
        if fields == self._fields:
            return
        self._fields = fields
        kept = self.typed
        clear(self._grid)
        self.others, self.mine = {}, []
        for column, head in enumerate(("", "on the vehicle", "the other")):
            self._grid.addWidget(worded(head, "small"), 0, column)
        for row, name in enumerate(fields, start=1):
            path = f"master.{name}"
            words = named(self.session.build, path)
            mine = FigureLabel(self.session, Spot(path, 17), self)
            other = TypedLabel(f"{words} of the other", LENGTH, self.session.units, self._typed,
                               start=kept.get(name, ""), zero=False, size=17)  # fmt: skip
            self.mine.append(mine)
            self.others[name] = other
            self._grid.addWidget(worded(words, "muted"), row, 0)
            self._grid.addWidget(mine, row, 1)
            self._grid.addWidget(other, row, 2)

    def _show_outlets(self) -> None:
        """Show where the outlets of both are, to be chosen."""
        clear(self._outlets)
        if self.session.build.master.one_chamber:
            return
        own: dict[str, str] = {
            one.circuit: one.position or "" for one in self.session.build.master.outlets
        }
        for row, circuit in enumerate(map(str, AXLES)):
            name = f"{circuit.capitalize()} outlet"
            self._outlets.addWidget(worded(name, "muted"), row, 0)
            for column, (whose, now, take) in enumerate((
                ("on the vehicle", own.get(circuit, ""), self._take_own),
                ("of the other", self._sits.get(circuit, ""), self._take_other),
            ), start=1):  # fmt: skip
                button = chooser(POSITIONS[now], f"{name} {whose}", POSITIONS,
                                 partial(take, circuit))  # fmt: skip
                self._outlets.addWidget(button, row, column)

    def _take_own(self, circuit: str, position: str) -> None:
        """Say where an outlet of the one on the vehicle is."""
        kept = [one.model_dump(mode="json", exclude_unset=True)
                for one in self.session.build.master.outlets]  # fmt: skip
        row = next((one for one in kept if one["circuit"] == circuit), None)
        if row is None:
            kept.append({"circuit": circuit, "position": position or None})
        else:
            row["position"] = position or None
        label = f"{circuit.capitalize()} outlet: {POSITIONS[position]}"
        self.session.edit("master.outlets", kept, label)

    def _take_other(self, circuit: str, position: str) -> None:
        """Say where an outlet of the other one is."""
        self._sits = {**self._sits, circuit: position}
        self._show()

    @property
    def figures(self) -> dict[str, Any]:
        """What is known of the other one, by its field in a build."""
        known: dict[str, Any] = dict(self.typed)
        sits = [{"circuit": circuit, "position": at} for circuit, at in self._sits.items() if at]
        return known | ({"outlets": sits} if sits else {})

    def show_figures(self) -> None:
        """Show both, and what the other one changes."""
        self._show_rows()
        self._show_outlets()
        units = self.session.units
        for label in self.mine:
            label.refresh()
        for other in self.others.values():
            other.show_in(units)
        made = self._made()
        self.board.show_cylinders(self.session.build.master, None if made is None else made.master)
        self.found = () if made is None else tuple(changes(self.session.solution, made, units))
        clear(self.words)
        if not self.found and not self.fault.text():
            self.words.addWidget(wrapped("muted", NOTHING))
        for one in self.found:
            told = wrapped("", f"{one.what}: {one.words}")
            if one.tone:
                color = T.danger if one.tone == "danger" else T.warn
                told.setStyleSheet(f"color: {color}; font-weight: 600")
            self.words.addWidget(told)
        self.add.setVisible(made is not None)

    def _made(self) -> Build | None:
        """Return the build with the other cylinder, None where nothing is typed or it cannot be."""
        self.fault.setText("")
        self.fault.hide()
        if not self.figures:
            return None
        try:
            return other_build(self.session.build, self.figures)
        except BuildErrors as errors:
            self.fault.setText(str(errors))
            self.fault.show()
            return None

    def _typed(self) -> None:
        if self.others:
            self._show()

    def _add(self) -> None:
        """Keep the other one as a set-up of this build."""
        base = self.session.base
        figures = other_changes(base.master, self.figures)
        kept = [index for index, one in enumerate(base.setups) if one.name != NAME]
        setup = {"name": NAME, "changes": figures}
        change = BuildChange(f"Set-up “{NAME}”", orders={"setups": [*kept, setup]})
        self.session.make(change, in_setup=False)
