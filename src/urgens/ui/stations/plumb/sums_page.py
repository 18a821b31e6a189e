"""Room, reach, rod and hose: facts that are kept, sums that are made for a moment."""

from collections.abc import Mapping

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from urgens.document.practice import practice
from urgens.guidance.advice.small_sums import (
    bore_words,
    hose_words,
    reach_words,
    rod_words,
    room_words,
    switch_words,
)
from urgens.physics.hose_curve import HoseCurve, HoseTooShortError, hose_curve
from urgens.quantity import ANGLE, LENGTH, PRESSURE, Quantity, QuantityKind, show, unit_shown
from urgens.ui.session import Session
from urgens.ui.stations.plumb.room_board import HoseBoard, RoomBoard
from urgens.ui.theme.paint import T
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped

NAME = 250  # px of a name
ROOM = tuple(
    Spot(path, 17)
    for path in ("master.body_length", "room.ahead", "master.reservoir_height", "room.above",
                 "room.valve_reach")
)  # fmt: skip
CHECK = (
    "To be looked at on the vehicle: caps reachable and the rear chamber fillable, or through a "
    "tube; nothing near exhaust or moving parts; a grommet where a panel is crossed; clips at the "
    "usual distance; a tee, a sensor and a long line fixed to the body; no hose tied to a moving "
    "cable."
)
STRAIGHT = practice()["straight_ends"].value  # m of a hose's end that does not bend
APART, FREE, LEAST = "Ends apart", "Free length", "Least radius it may bend with"
LEAVES, COMES = "It leaves the first end", "It comes into the other"
KINDS: Mapping[str, tuple[str, Mapping[str, tuple[QuantityKind, str]]]] = {
    "bore": ("Which bore is it?", {"Caliper reads": (LENGTH, "22.2 mm"),
                                   "give or take": (LENGTH, "0.2 mm")}),
    "switch": ("A hydraulic brake-light switch", {"It closes at": (PRESSURE, "80 psi")}),
    "rod": ("Gap at the pushrod", {"Gap": (LENGTH, "1 mm")}),
    "hose": ("A hose between its two ends", {
        APART: (LENGTH, "220 mm"), FREE: (LENGTH, "320 mm"), LEAVES: (ANGLE, "60 deg"),
        COMES: (ANGLE, "-60 deg"), LEAST: (LENGTH, "")}),
}  # fmt: skip


# What the sums begin with where inches are shown: as one reads it then.
IN_INCHES = {"Caliper reads": "0.875 in", "give or take": "0.008 in", "Gap": "0.04 in",
             APART: "8-1/2 in", FREE: "12-1/2 in"}  # fmt: skip


class SumsPage(Page):
    """Facts of room with their drawing, then sums one under the other."""

    kept = ("typed",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.labels: dict[str, TypedLabel] = {}
        self.answers = {name: wrapped() for name in (*KINDS, "room", "reach")}
        self.board, self.hose = RoomBoard(), HoseBoard()
        self.facts = FigureColumn(session, ROOM, of_one_part=False)
        self._inner = QVBoxLayout()
        self._inner.addWidget(worded("Room for the cylinder, and a valve in the cabin", "heading"))
        row = QHBoxLayout()
        row.addWidget(self.facts, 1)
        row.addWidget(self.board, 1)
        self._inner.addLayout(row)
        for name in ("room", "reach"):
            self._inner.addWidget(self.answers[name])
        for name in KINDS:
            self._sum(name)
        self._inner.addWidget(self.hose)
        self._inner.addStretch()
        inner = QWidget()
        inner.setLayout(self._inner)
        area = rolled(inner)
        self.head("Needs your eye")
        self.column.addWidget(wrapped("muted", CHECK))
        self.column.addStretch()
        self.lay_out(area)
        self.said.hide()

    def _sum(self, name: str) -> None:
        """Put one sum: its heading, what is typed, and its answer."""
        title, typed = KINDS[name]
        self._inner.addSpacing(14)
        self._inner.addWidget(worded(title, "heading"))
        inches = unit_shown(LENGTH, self.session.units) == "in"
        for words, (kind, usual) in typed.items():
            start = IN_INCHES.get(words, usual) if inches else usual
            label = TypedLabel(words, kind, self.session.units, self._changed, start=start, size=19,
                               signed=kind is ANGLE)  # fmt: skip
            self.labels[words] = label
            row = QHBoxLayout()
            called = worded(words, "muted")
            called.setFixedWidth(round(NAME * T.scale))
            row.addWidget(called)
            row.addWidget(label)
            row.addStretch()
            self._inner.addLayout(row)
        self._inner.addWidget(self.answers[name])

    @property
    def typed(self) -> dict[str, str]:
        """What is typed, by what it is called."""
        return {
            name: "" if label.quantity is None else label.quantity.text
            for name, label in self.labels.items()
        }

    @typed.setter
    def typed(self, typed: Mapping[str, str]) -> None:
        for name, text in typed.items():
            self.labels[name].set_text(text)

    @property
    def summary(self) -> str:
        """What the page is for."""
        return "room and reach are kept with the build; the sums below are for a moment"

    def _changed(self) -> None:
        if len(self.labels) == sum(len(typed) for _, typed in KINDS.values()):
            self.show_figures()

    def _value(self, name: str) -> float | None:
        quantity = self.labels[name].quantity
        return None if quantity is None else quantity.value

    # --- what is shown ---------------------------------------------------------------------

    def show_figures(self) -> None:
        """Answer each sum whose figures are there."""
        units, solution = self.session.units, self.session.solution
        for label in self.labels.values():
            label.show_in(units)
        self.facts.refresh()
        self._show_room()
        reading, doubt = self._value("Caliper reads"), self._value("give or take") or 0.0
        said = [] if reading is None else bore_words(solution, reading, doubt, units)
        self.answers["bore"].setText("\n".join(said))
        closes = self._value("It closes at")
        self.answers["switch"].setText(
            "" if closes is None else switch_words(solution, closes, units)
        )
        gap = self._value("Gap")
        self.answers["rod"].setText(
            "" if gap is None else rod_words(self.session.build, gap, units)
        )
        self._show_hose()

    def _show_room(self) -> None:
        build, units = self.session.build, self.session.units
        long, high = build.master.body_length, build.master.reservoir_height
        room = build.room
        ahead, above, reach = room.ahead, room.above, room.valve_reach
        self.board.show_room(tuple(_si(one) for one in (long, ahead, high, above)), units)
        said = [
            room_words(needed.value, there.value, what, units)
            for what, needed, there in (("Length", long, ahead), ("Height", high, above))
            if needed is not None and there is not None
        ]
        self.answers["room"].setText("\n".join(said))
        self.answers["reach"].setText("" if reach is None else reach_words(reach.value, units))

    def _show_hose(self) -> None:
        apart, free, leaves, comes = (self._value(name) for name in (APART, FREE, LEAVES, COMES))
        curve: HoseCurve | None = None
        if apart is None or free is None or leaves is None or comes is None:
            said = "Type both ends and the free length."
        else:
            try:
                curve = hose_curve(apart, leaves, comes, free, STRAIGHT)
                said = hose_words(curve.least_radius, self._value(LEAST), self.session.units)
            except HoseTooShortError as error:
                by = show(error.by, LENGTH, self.session.units)
                said = f"It does not reach: {by} too short, with straight ends counted."
        self.answers["hose"].setText(said)
        self.hose.show_curve(curve)


def _si(quantity: Quantity | None) -> float | None:
    return None if quantity is None else quantity.value
