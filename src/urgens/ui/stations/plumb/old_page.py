"""Lines that are there already: tried on the layout's routes, or found again without a label."""

from collections.abc import Mapping
from dataclasses import asdict, replace
from functools import partial
from typing import Any

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QLineEdit, QVBoxLayout, QWidget

from urgens.document.layout.layout import LineEnd
from urgens.document.layout.line_sheets import FORMER, MadeLine, routed
from urgens.document.layout.threads import thread_table
from urgens.guidance.words.parts import line_name
from urgens.plumbing.old_lines import (
    OldBend,
    OldLine,
    ranked,
    sheet_in_hand,
    tried,
    tried_words,
)
from urgens.quantity import ANGLE, LENGTH, QuantityError, parse, show, whole_number
from urgens.ui.session import Session
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.stations.plumb.tape_board import TapeBoard
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.chooser import chooser
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped

UNKNOWN = "not looked at"
NOTHING = "No line of the layout has a route yet: draw them on the page Lines."
HOW = (
    "Lay a tape along it, and click where each bend begins. Without its bends the length and their "
    "number tell which line it was. At a bend over 90 degrees look for flattening."
)
FOLDED = "Only folded for the parcel"


class OldPage(Page):
    """What is in the hand along a tape, and the lines of the layout, the likeliest first."""

    kept = ("hand",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.laid = Laid(session)
        self.tape = TapeBoard()
        units = session.units
        self.length = TypedLabel("Its length, without flares", LENGTH, units, self._changed,
                                 zero=False)  # fmt: skip
        self.bend = {
            "at": TypedLabel("Bend begins at", LENGTH, units, partial(self._take, "at"), size=17),
            "turn": TypedLabel("Bend's turn", ANGLE, units, partial(self._take, "turn"), size=17,
                               signed=True),
            "angle": TypedLabel("Bend's angle", ANGLE, units, partial(self._take, "angle"),
                                size=17, zero=False),
        }  # fmt: skip
        self.folded = push_button(FOLDED, "small", self._fold)
        self.folded.setCheckable(True)
        self.gone = push_button("Take it out", "small", self.tape.remove)
        self.count, self.marking = QLineEdit(), QLineEdit()
        self.nuts = ["", ""]
        self.fault = wrapped("error")
        self.rows: list[tuple[MadeLine, str]] = []
        self._list = QVBoxLayout()
        self._nuts = QVBoxLayout()
        for name, field in (("How many bends", self.count), ("Marking on it", self.marking)):
            field.setAccessibleName(name)
            field.editingFinished.connect(self._changed)
        self.tape.changed.connect(self._changed)
        self.tape.chosen_changed.connect(self._show_bend)
        self._lay_out()

    def _lay_out(self) -> None:
        self.head("The line in the hand")
        for words, field in (("Its length, without flares", self.length),
                             ("How many bends, where none is picked", self.count),
                             ("Marking on it", self.marking)):  # fmt: skip
            self.column.addWidget(worded(words, "muted"))
            self.column.addWidget(field)
        self.column.addLayout(self._nuts)
        self.bend_head = worded("", "heading")
        self.column.addWidget(self.bend_head)
        self._bend_rows = QWidget()
        grid = tight(QGridLayout(self._bend_rows))
        for row, (words, name) in enumerate((("begins at", "at"), ("turned by", "turn"),
                                             ("bent by", "angle"))):  # fmt: skip
            grid.addWidget(worded(words, "muted"), row, 0)
            grid.addWidget(self.bend[name], row, 1)
        grid.addWidget(self.folded, 3, 0, 1, 2)
        grid.addWidget(self.gone, 4, 0, 1, 2)
        self.column.addWidget(self._bend_rows)
        self.column.addWidget(self.fault)
        self.column.addWidget(wrapped("muted", HOW))
        self.column.addStretch()
        inner = QWidget()
        column = QVBoxLayout(inner)
        column.setContentsMargins(0, 0, 8, 0)
        column.addWidget(self.tape)
        column.addLayout(self._list)
        column.addStretch()
        self.lay_out(rolled(inner, steady=True))
        self.said.hide()

    # --- what is kept ----------------------------------------------------------------------

    @property
    def hand(self) -> Mapping[str, Any]:
        """What is known of the line in the hand."""
        return {
            "length": "" if self.length.quantity is None else self.length.quantity.text,
            "bends": [asdict(bend) for bend in self.tape.bends],
            "count": self.count.text(), "marking": self.marking.text(), "nuts": list(self.nuts),
        }  # fmt: skip

    @hand.setter
    def hand(self, kept: Mapping[str, Any]) -> None:
        self.tape.bends = [OldBend(**bend) for bend in kept["bends"]]
        self.count.setText(kept["count"])
        self.marking.setText(kept["marking"])
        self.nuts = list(kept["nuts"])
        self.length.set_text(kept["length"])

    @property
    def summary(self) -> str:
        """Which line it most likely is."""
        if not self.rows:
            return "an old line on a new route, or one without a label"
        return f"most like line {self.rows[0][0].line.id.removeprefix('L')}: {self.rows[0][1]}"

    # --- the bend that is chosen -------------------------------------------------------------

    @property
    def chosen(self) -> OldBend | None:
        """The bend that is chosen on the tape."""
        bends, chosen = self.tape.bends, self.tape.chosen
        return bends[chosen] if 0 <= chosen < len(bends) else None

    def _show_bend(self) -> None:
        """Show the figures of the bend that is chosen."""
        bend = self.chosen
        self._bend_rows.setVisible(bend is not None)
        self.bend_head.setVisible(bend is not None)
        if bend is None:
            return
        self.bend_head.setText("The bend that is chosen")
        units = self.session.units
        for name, kind in (("at", LENGTH), ("turn", ANGLE), ("angle", ANGLE)):
            value = show(float(getattr(bend, name)), kind, units)
            self.bend[name].show_quantity(parse(str(value).replace("−", "-"), kind))
            self.bend[name].show_in(units)
        self.folded.setChecked(bend.folded)

    def _take(self, name: str) -> None:
        """Take a figure that is typed of the chosen bend."""
        bend = self.chosen if hasattr(self, "rows") else None
        value = self.bend[name].value if bend is not None else None
        if bend is not None and value is not None:
            if name == "angle" and not 0 < value < np.pi:
                raise QuantityError("that is no bend", "write an angle between 0 and 180 degrees")
            self.tape.put({
                "at": replace(bend, at=value), "turn": replace(bend, turn=value),
                "angle": replace(bend, angle=value),
            }[name])  # fmt: skip

    def _fold(self) -> None:
        bend = self.chosen
        if bend is not None:
            self.tape.put(replace(bend, folded=not bend.folded))

    # --- what is shown ---------------------------------------------------------------------

    def _changed(self) -> None:
        if hasattr(self, "rows"):
            self._show()

    def old(self) -> OldLine | None:
        """Return the line in the hand, None where nothing is typed; raises QuantityError."""
        length, bends = self.length.quantity, None
        if length is None:
            return None
        if self.tape.bends:
            bends = sheet_in_hand(self.tape.bends, length.value, FORMER.value)
        counted = self.count.text().strip()
        number = whole_number(counted)
        if counted and number is None:
            raise QuantityError(f'"{counted[:20]}" is no number of bends', "write a whole number")
        ends = tuple(
            LineEnd.model_validate({"nut": nut, "flare": "inverted"}) for nut in self.nuts if nut
        )
        return OldLine(
            length=length.value,
            bends=bends,
            count=number,
            ends=ends if len(ends) == len(self.nuts) else (),
            marking=self.marking.text(),
        )

    def show_figures(self) -> None:
        """Rank the layout's lines by what is in the hand."""
        self._show_nuts()
        units = self.session.units
        made = routed(self.laid.plumbing) if self.laid.own else ()
        self.fault.setText("")
        try:
            old = self.old()
        except QuantityError as error:
            self.fault.setText(f"{error.problem}; {error.remedy}")
            old = None
        self.fault.setVisible(bool(self.fault.text()))
        self.length.show_in(units)
        length = None if self.length.quantity is None else self.length.quantity.value
        self.tape.show_line(length, None if old is None else old.bends, units)
        self._show_bend()
        self.rows = [] if old is None else [
            (one, self._words(old, one)) for one, _ in ranked(old, made)
        ]  # fmt: skip
        clear(self._list)
        if not made:
            self._list.addWidget(wrapped("muted", NOTHING))
            draw = push_button("Draw lines", "quiet", lambda: self.place_asked.emit("drawn:"))
            self._list.addWidget(draw, 0, Qt.AlignmentFlag.AlignLeft)
            self._list.addWidget(Sample(self.session, "old-lines"))
        for place, (one, words) in enumerate(self.rows, start=1):
            number = one.line.id.removeprefix("L")
            name = f"{place}.  Line {number}, {line_name(self.laid.circuits, one.line)}"
            self._list.addWidget(worded(name, "heading"))
            self._list.addWidget(wrapped("muted", words))

    def _words(self, old: OldLine, line: MadeLine) -> str:
        """Say how the line in the hand does on one of the layout."""
        sheet = line.sheet
        assert sheet is not None
        units = self.session.units
        length = show(sheet.length, LENGTH, units)
        bends = f"{len(sheet.angle)} bend{'' if len(sheet.angle) == 1 else 's'}"
        said = [f"{length} without flares, {bends}"]
        found = tried(old, line)
        if found is not None and (old.bends is not None or found.short):
            said += tried_words(found, units)
        return "; ".join(said)

    def _show_nuts(self) -> None:
        clear(self._nuts)
        names = {"": UNKNOWN, **{one.name: one.name for one in thread_table().threads}}
        for end, name in enumerate(("Nut at one end", "Nut at the other")):
            words = f"{name}: {names[self.nuts[end]]}"
            take = partial(self._take_nut, end)
            self._nuts.addWidget(chooser(words, name, names, take))

    def _take_nut(self, end: int, nut: str) -> None:
        self.nuts[end] = nut
        self._show()
