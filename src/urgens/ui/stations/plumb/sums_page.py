"""Room, reach and small sums: figures that are typed for a moment and answered in words."""

from collections.abc import Mapping
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from urgens.guidance.advice.small_sums import bore_words, reach_words, room_words, switch_words
from urgens.quantity import LENGTH, PRESSURE, QuantityKind
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped

NAME = 250  # px of a name
CHECK = (
    "To be looked at on the vehicle: caps reachable and the rear chamber fillable, or through a "
    "tube; nothing near exhaust or moving parts; a grommet where a panel is crossed; clips at the "
    "usual distance; a tee, a sensor and a long line fixed to the body."
)


class SumsPage(Page):
    """Sums one under the other: name, what is typed, what it comes to."""

    kept = ("typed",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.labels: dict[str, TypedLabel] = {}
        self.answers: dict[str, Any] = {}
        self._inner = QVBoxLayout()
        self._sum("Which bore is it?", {"Caliper reads": (LENGTH, "22.2 mm"),
                                        "give or take": (LENGTH, "0.2 mm")}, "bore")  # fmt: skip
        self._sum("A hydraulic brake-light switch", {"It closes at": (PRESSURE, "80 psi")},
                  "switch")  # fmt: skip
        self._sum("Room for the cylinder", {
            "Long, with reservoir and booster": (LENGTH, ""),
            "Room ahead of the wall": (LENGTH, ""),
            "High, with its caps off": (LENGTH, ""), "Room under the bonnet": (LENGTH, ""),
        }, "room")  # fmt: skip
        self._sum("A valve in the cabin", {"From the belted shoulder": (LENGTH, "")}, "reach")
        self._inner.addStretch()
        inner = QWidget()
        inner.setLayout(self._inner)
        area = rolled(inner, across=True)
        self.head("Needs your eye")
        self.column.addWidget(wrapped("muted", CHECK))
        self.column.addStretch()
        self.lay_out(area)
        self.said.hide()

    def _sum(self, title: str, typed: Mapping[str, tuple[QuantityKind, str]], name: str) -> None:
        """Put one sum: its heading, what is typed, and the place of its answer."""
        self._inner.addWidget(worded(title, "heading"))
        for words, (kind, start) in typed.items():
            label = TypedLabel(words, kind, self.session.units, self._changed, start=start, size=19)
            self.labels[words] = label
            row = QHBoxLayout()
            called = worded(words, "muted")
            called.setFixedWidth(round(NAME * T.scale))
            row.addWidget(called)
            row.addWidget(label)
            row.addStretch()
            self._inner.addLayout(row)
        self.answers[name] = wrapped()
        self._inner.addWidget(self.answers[name])
        self._inner.addSpacing(14)

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
        return "sums for a moment: nothing of it goes into the build"

    def _changed(self) -> None:
        if len(self.answers) == len(SUMS):
            self.show_figures()

    def _value(self, name: str) -> float | None:
        quantity = self.labels[name].quantity
        return None if quantity is None else quantity.value

    def show_figures(self) -> None:
        """Answer each sum whose figures are typed."""
        units, solution = self.session.units, self.session.solution
        for label in self.labels.values():
            label.show_in(units)
        reading, doubt = self._value("Caliper reads"), self._value("give or take") or 0.0
        said = [] if reading is None else bore_words(solution, reading, doubt, units)
        self.answers["bore"].setText("\n".join(said))
        closes = self._value("It closes at")
        self.answers["switch"].setText(
            "" if closes is None else switch_words(solution, closes, units)
        )
        rooms = []
        for what, needed, there in (
            ("Length", "Long, with reservoir and booster", "Room ahead of the wall"),
            ("Height", "High, with its caps off", "Room under the bonnet"),
        ):
            one, other = self._value(needed), self._value(there)
            if one is not None and other is not None:
                rooms.append(room_words(one, other, what, units))
        self.answers["room"].setText("\n".join(rooms))
        away = self._value("From the belted shoulder")
        self.answers["reach"].setText("" if away is None else reach_words(away, units))


SUMS = ("bore", "switch", "room", "reach")
