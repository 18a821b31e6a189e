"""What holds the vehicle, row by row: in words, what ends it, and what a hand can do about it."""

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLineEdit, QPushButton, QWidget

from urgens.guidance.condition.fold import SCREW
from urgens.guidance.condition.hold import LIFTED_BY_REASON, Hold
from urgens.guidance.condition.holds import Condition
from urgens.guidance.condition.proofs import PROOFS
from urgens.guidance.procedures.facts import said
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.worded import worded, wrapped

# Where what ends a hold is done, by its code; a procedure is named by where the hold stands.
GOES = {
    "wheel-not-bled": "procedure:rebleed", "leak": "procedure:leak-test",
    "pedal-long": "procedure:rebleed", "air-shows-late": "procedure:rebleed",
    "clearance": "procedure:three-strokes", "joint-open": "joints", "joint-not-dry": "joints",
    "check-no": "records", "fault-stops": "traces", "fault-mended-unproved": "traces",
}  # fmt: skip


class HoldsList(QWidget):
    """A row a hold, numbered as on the drawing.

    `noted` tells what a hand has shut or taken off, and in words; `lifted` the hold, the place and
    the reason; `asked` where to go.
    """

    noted = Signal(dict, str)
    lifted = Signal(str, str, str)
    asked = Signal(str)
    typing = Signal(QWidget)  # a field that is to be seen

    def __init__(self) -> None:
        super().__init__()
        self.notes: dict[str, QPushButton] = {}  # of what is noted as shut or off, by its place
        self.lifts: dict[str, QPushButton] = {}
        self.ways: dict[int, QPushButton] = {}
        self.reason: QLineEdit | None = None
        self._shown: tuple[tuple[Hold, str], ...] = ()
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 8, 0)
        self._grid.setVerticalSpacing(2)

    def show_holds(self, found: Condition) -> None:
        """Show what holds the vehicle; rows are made anew only where something is another."""
        shown = tuple((hold, _now_it_is(hold, found)) for hold in found.holds)
        if shown == self._shown:
            return
        self._shown = shown
        clear(self._grid)
        self.notes, self.lifts, self.ways, self.reason = {}, {}, {}, None
        for place, hold in enumerate(found.holds):
            row = 2 * place
            self._grid.addWidget(worded(f"{place + 1}", "heading"), row, 0)
            since = f" Since {hold.since:%Y-%m-%d}." if hold.since is not None else ""
            words = f"{hold.words[:1].upper()}{hold.words[1:]}."
            self._grid.addWidget(wrapped("body", words), row, 1)
            self._grid.addWidget(wrapped("muted", f"Ends by: {hold.ends_by}.{since}"), row + 1, 1)
            self._grid.addLayout(self._hands(place, hold, found), row, 2, 2, 1)
        self._grid.setColumnStretch(1, 1)
        self._grid.setRowStretch(2 * len(found.holds), 1)

    def _hands(self, place: int, hold: Hold, found: Condition) -> QHBoxLayout:
        row = QHBoxLayout()
        now = _now_it_is(hold, found)
        if now:
            name = said(hold.place) if hold.code == "screw-open" else hold.place
            self.notes[hold.place] = self._button(
                row, f"Now {now}", f"{name}: {now}",
                partial(self.noted.emit, _note(hold), f"{name}: {now}"),
            )  # fmt: skip
        where = GOES.get(hold.code, "")
        if hold.code in PROOFS:
            where = f"procedure:{hold.place}"
        if where and not now:
            self.ways[place] = self._button(
                row, "Go to it", f"Go to {place + 1}: {hold.words}",
                partial(self.asked.emit, where),
            )  # fmt: skip
        if hold.code in LIFTED_BY_REASON:
            key = f"{hold.code} {hold.place}"
            self.lifts[key] = self._button(
                row, "Lift…", f"Lift {place + 1}, with a reason: {hold.words}",
                partial(self._ask_reason, hold, 2 * place + 1),
            )  # fmt: skip
        row.addStretch()
        return row

    def _button(self, row: QHBoxLayout, words: str, spoken: str, act: object) -> QPushButton:
        button = push_button(words, "small", act)  # type: ignore[arg-type]
        button.setAccessibleName(spoken)
        row.addWidget(button)
        return button

    def _ask_reason(self, hold: Hold, row: int) -> None:
        """Ask why a hold is lifted: without a reason it is not, and it is printed."""
        if self.reason is not None:
            self.reason.deleteLater()
        field = QLineEdit()
        field.setPlaceholderText("why it may move all the same; Enter lifts it, and it is printed")
        field.setAccessibleName(f"Why {hold.words} is lifted")
        field.returnPressed.connect(partial(self._lift, hold, field))
        self._grid.addWidget(field, row, 1)
        self.reason = field
        field.setFocus()
        self.typing.emit(field)

    def _lift(self, hold: Hold, field: QLineEdit) -> None:
        reason = field.text().strip()
        if reason:
            place = "" if hold.code == "clearance" else hold.place
            self.lifted.emit(hold.code, place, reason)


def _now_it_is(hold: Hold, found: Condition) -> str:
    """Return what a hand notes of a hold that it ends, empty where no hand alone does."""
    fold = found.standing.fold
    if hold.code == "screw-open":
        return "shut"
    if hold.place in {thing for thing, _ in fold.missing}:
        return "back"
    if hold.code == "tool-fitted":
        return "off"
    return "tight again" if hold.place in fold.loose else ""


def _note(hold: Hold) -> dict[str, str]:
    """Return what is noted of a hold that a hand has ended."""
    if hold.code == "screw-open":
        return {"what": "shut", "place": hold.place, "thing": SCREW}
    what = "off" if hold.code == "tool-fitted" else "shut"
    return {"what": what, "thing": hold.place}
