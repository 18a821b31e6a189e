"""Lines that are there already: tried on the layout's routes, or found again without a label."""

from functools import partial

from PySide6.QtWidgets import QLineEdit, QVBoxLayout, QWidget

from urgens.document.layout.layout import LineEnd
from urgens.document.layout.line_sheets import FORMER, MadeLine, routed
from urgens.document.layout.threads import thread_table
from urgens.guidance.words.parts import line_name
from urgens.plumbing.old_lines import OldLine, bends_typed, ranked, tried, tried_words
from urgens.quantity import LENGTH, QuantityError, show, whole_number
from urgens.ui.session import Session
from urgens.ui.stations.plumb.chooser import chooser
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped

UNKNOWN = "not looked at"
EXAMPLES = (0.0762, 0.1016)  # m
NOTHING = "No line of the layout has a route yet: draw them on the page Lines."
HOW = (
    "Bends one after another, each its feed, turn and angle with commas, a semicolon between: "
    "{feed}, 0, 90; {other}, 90, 45. A tape along the outside and an angle gauge are enough. "
    "Without them the length and the number of bends tell which line it was."
)


class OldPage(Page):
    """What is in the hand, and the lines of the layout, the likeliest first."""

    kept = ("hand",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.laid = Laid(session)
        units = session.units
        self.length = TypedLabel("Its length, without flares", LENGTH, units, self._changed)
        self.last = TypedLabel("Straight behind the last bend", LENGTH, units, self._changed)
        self.count, self.bends, self.marking = QLineEdit(), QLineEdit(), QLineEdit()
        self.nuts = ["", ""]
        self.fault = wrapped("error")
        self.rows: list[tuple[MadeLine, str]] = []
        self._list = QVBoxLayout()
        self._list.setContentsMargins(0, 0, 8, 0)
        self._nuts = QVBoxLayout()
        for name, field in (("How many bends", self.count), ("Its bends", self.bends),
                            ("Marking on it", self.marking)):  # fmt: skip
            field.setAccessibleName(name)
            field.editingFinished.connect(self._changed)
        self._lay_out()

    def _lay_out(self) -> None:
        fields: tuple[tuple[str, QWidget], ...] = (
            ("Its length, without flares", self.length), ("How many bends", self.count),
            ("Its bends, where measured", self.bends), ("Straight behind the last", self.last),
            ("Marking on it", self.marking),
        )  # fmt: skip
        self.head("The line in the hand")
        for words, field in fields:
            self.column.addWidget(worded(words, "muted"))
            self.column.addWidget(field)
        self.column.addLayout(self._nuts)
        self.column.addWidget(self.fault)
        self.how = wrapped("muted")
        self.column.addWidget(self.how)
        self.column.addStretch()
        inner = QWidget()
        inner.setLayout(self._list)
        area = rolled(inner, across=True)
        self.lay_out(area)
        self.said.hide()

    # --- what is kept ----------------------------------------------------------------------

    @property
    def hand(self) -> tuple[str, ...]:
        """What is typed of the line in the hand."""
        texts = ("" if one.quantity is None else one.quantity.text for one in self._labels)
        fields = (self.count.text(), self.bends.text(), self.marking.text())
        return (*texts, *fields, *self.nuts)

    @hand.setter
    def hand(self, typed: tuple[str, ...]) -> None:
        for label, text in zip(self._labels, typed, strict=False):
            label.set_text(text)
        for field, text in zip((self.count, self.bends, self.marking), typed[2:], strict=False):
            field.setText(text)
        self.nuts = list(typed[5:7])

    @property
    def _labels(self) -> tuple[TypedLabel, TypedLabel]:
        return self.length, self.last

    @property
    def summary(self) -> str:
        """Which line it most likely is."""
        if not self.rows:
            return "an old line on a new route, or one without a label"
        return f"most like line {self.rows[0][0].line.id.removeprefix('L')}: {self.rows[0][1]}"

    # --- what is shown ---------------------------------------------------------------------

    def _changed(self) -> None:
        if hasattr(self, "rows"):
            self._show()

    def old(self) -> OldLine | None:
        """Return the line in the hand, None where nothing is typed; raises QuantityError."""
        length, bends = self.length.quantity, None
        if self.bends.text().strip():
            last = "0 mm" if self.last.quantity is None else self.last.quantity.text
            bends = bends_typed(self.bends.text(), self.session.units, last, FORMER.value)
        if length is None and bends is None:
            return None
        counted = self.count.text().strip()
        number = whole_number(counted)
        if counted and number is None:
            raise QuantityError(f'"{counted[:20]}" is no number of bends', "write a whole number")
        ends = tuple(
            LineEnd.model_validate({"nut": nut, "flare": "inverted"}) for nut in self.nuts if nut
        )
        known = 0.0 if length is None else length.value
        return OldLine(
            length=known if bends is None else bends.length,
            bends=bends,
            count=number,
            ends=ends if len(ends) == len(self.nuts) else (),
            marking=self.marking.text(),
        )

    def show_figures(self) -> None:
        """Rank the layout's lines by what is in the hand."""
        self._show_nuts()
        feeds = (str(show(one, LENGTH, self.session.units)) for one in EXAMPLES)
        self.how.setText(HOW.format(feed=next(feeds), other=next(feeds)))
        made = routed(self.laid.plumbing) if self.laid.own else ()
        self.fault.setText("")
        try:
            old = self.old()
        except QuantityError as error:
            self.fault.setText(f"{error.problem}; {error.remedy}")
            old = None
        self.fault.setVisible(bool(self.fault.text()))
        for label in self._labels:
            label.show_in(self.session.units)
        self.rows = [] if old is None else [
            (one, self._words(old, one)) for one, _ in ranked(old, made)
        ]  # fmt: skip
        clear(self._list)
        if not made:
            self._list.addWidget(wrapped("muted", NOTHING))
        for place, (one, words) in enumerate(self.rows, start=1):
            number = one.line.id.removeprefix("L")
            name = f"{place}.  Line {number}, {line_name(self.laid.circuits, one.line)}"
            self._list.addWidget(worded(name, "heading"))
            self._list.addWidget(wrapped("muted", words))
        self._list.addStretch()

    def _words(self, old: OldLine, line: MadeLine) -> str:
        """Say how the line in the hand does on one of the layout."""
        sheet = line.sheet
        assert sheet is not None
        units = self.session.units
        length = show(sheet.length, LENGTH, units)
        said = [f"{length} without flares, {len(sheet.angle)} bends"]
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
