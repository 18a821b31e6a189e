"""What is wanted and what may change, as rows: a figure with its slider, a part with its sizes."""

from collections.abc import Callable

from PySide6.QtCore import QSignalBlocker, Qt, Signal
from PySide6.QtWidgets import QCheckBox, QGridLayout, QLineEdit, QSlider, QWidget

from urgens.guidance.advice.wish_cards import NAMES
from urgens.quantity import (
    QuantityError,
    ShownFigure,
    Units,
    completed,
    number_of,
    parse,
    retype,
    shown,
    written,
)
from urgens.quantity.spelling import items_of
from urgens.studies.wishes.freedom import MAY, USUALLY, Choices
from urgens.studies.wishes.wanted import KINDS
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.plain import point_out
from urgens.ui.widgets.worded import worded

STEPS = 100  # of a slider
PLACES = 2  # of a pure number
MAY_NAMES = {
    "cylinder": "Cylinder, its kind", "bore": "Bore", "ratio": "Pedal ratio",
    "booster": "Booster", "front-pistons": "Front pistons", "rear-pistons": "Rear pistons",
    "front-friction": "Front friction", "rear-friction": "Rear friction",
    "front-rotor": "Front rotor", "rear-rotor": "Rear rotor", "valve": "Valve behind",
    "bar": "Balance bar",
}  # fmt: skip


class WishRow(QWidget):
    """One wish: typed, or drawn by its slider; nothing typed is no wish."""

    changed = Signal()

    def __init__(self, name: str, units: Units, span: tuple[float, float]) -> None:
        super().__init__()
        self.name = name
        self.value: float | None = None
        self._units, self._span = units, span
        words = NAMES[name]
        self.label = DimensionLabel(f"{words[:1].upper()}{words[1:]}", self._type, size=18)
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setRange(0, STEPS)
        self.slider.setAccessibleName(f"Slider of {words}")
        self.slider.setFocusPolicy(Qt.FocusPolicy.ClickFocus)  # by keys the figure is stepped
        self.slider.valueChanged.connect(self._slide)
        self.label.stepped.connect(lambda steps: self.slider.setValue(self.slider.value() + steps))
        grid = spaced(QGridLayout(self), 0)
        grid.setColumnStretch(0, 1)
        grid.addWidget(worded(f"{words[:1].upper()}{words[1:]}", "muted"), 0, 0, 1, 2)
        grid.addWidget(self.slider, 1, 0)
        grid.addWidget(self.label, 1, 1, Qt.AlignmentFlag.AlignRight)

    def put(self, value: float | None, units: Units) -> None:
        """Show a wish [SI], None where nothing is wanted; nobody is told."""
        self.value, self._units = value, units
        kind = KINDS[self.name]
        if value is None:
            self.label.set_value(ShownFigure("—", ""), "")
            self.label.set_known(Knowledge.MISSING)
        elif kind is not None:
            quantity = parse(retype(value, kind, units), kind)
            self.label.set_value(shown(quantity, kind, units), quantity.text)
            self.label.set_known(Knowledge.YES)
        else:
            share = self.name == "rear-first-chance"
            number = written(100.0 * value, 1) if share else written(value, PLACES)
            self.label.set_value(ShownFigure(number, "of 100" if share else "g"), f"{value:g}")
            self.label.set_known(Knowledge.YES)
        low, high = self._span
        with QSignalBlocker(self.slider):
            at = 0.0 if value is None else (value - low) / (high - low)
            self.slider.setValue(round(STEPS * min(max(at, 0.0), 1.0)))

    @property
    def text(self) -> str | None:
        """The wish as typed, in full; None where nothing is wanted."""
        if self.value is None:
            return None
        kind = KINDS[self.name]
        return f"{self.value:.9g}" if kind is None else f"{self.value:.9g} {kind.si}"

    def _type(self, typed: str) -> None:
        """Take what is typed; raises QuantityError."""
        kind = KINDS[self.name]
        if not typed.strip():
            self.put(None, self._units)
        elif kind is not None:
            self.put(parse(completed(typed, kind, self._units), kind).value, self._units)
        else:
            value = number_of(typed)
            if value is None:
                raise QuantityError(f'"{typed}" is no number', "write one, such as 0.9")
            self.put(value, self._units)
        self.changed.emit()

    def _slide(self, place: int) -> None:
        low, high = self._span
        value = low + (high - low) * place / STEPS
        kind = KINDS[self.name]
        if kind is not None:
            value = parse(retype(value, kind, self._units), kind).value
        self.put(round(value, PLACES) if kind is None else value, self._units)
        self.changed.emit()


PRICED = "Sizes by semicolon; a price and hours behind an @: 3/4 in @ 45 / 0.5 h; 7/8 in @ 60"


class MayRows(QWidget):
    """What may change, each with its sizes: nothing typed is what is sold."""

    changed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.boxes: dict[str, QCheckBox] = {}
        self.sizes: dict[str, QLineEdit] = {}
        grid = spaced(QGridLayout(self), 4)
        grid.setColumnStretch(1, 1)
        for row, name in enumerate(MAY):
            box, sizes = QCheckBox(MAY_NAMES[name]), QLineEdit()
            box.setChecked(name in USUALLY)
            box.toggled.connect(self._tick)
            sizes.setPlaceholderText("as sold")
            point_out(sizes, PRICED)
            sizes.setAccessibleName(f"Sizes of {MAY_NAMES[name].lower()}")
            sizes.editingFinished.connect(self.changed)
            sizes.setEnabled(box.isChecked())
            self.boxes[name], self.sizes[name] = box, sizes
            grid.addWidget(box, row, 0)
            grid.addWidget(sizes, row, 1)

    def _tick(self) -> None:
        for name, box in self.boxes.items():
            self.sizes[name].setEnabled(box.isChecked())
        self.changed.emit()

    @property
    def state(self) -> dict[str, tuple[bool, str]]:
        """What is ticked and typed, of what is not as it is at first."""
        return {
            name: (box.isChecked(), self.sizes[name].text())
            for name, box in self.boxes.items()
            if box.isChecked() != (name in USUALLY) or self.sizes[name].text()
        }

    def put(self, state: dict[str, tuple[bool, str]]) -> None:
        """Show what is ticked and typed; nobody is told."""
        for name, box in self.boxes.items():
            ticked, text = state.get(name, (name in USUALLY, ""))
            with QSignalBlocker(box):
                box.setChecked(ticked)
            self.sizes[name].setText(text)
            self.sizes[name].setEnabled(ticked)

    @property
    def choices(self) -> Choices:
        """What may change, with the sizes that are typed."""
        return {
            name: [*items_of(self.sizes[name].text())] or None
            for name, box in self.boxes.items()
            if box.isChecked()
        }


def connected(rows: list[WishRow], may: MayRows, act: Callable[[], None]) -> None:
    """Let every row say that something is wanted otherwise."""
    for row in rows:
        row.changed.connect(act)
    may.changed.connect(act)
