"""The feel's page: effort over travel, and what air, hoses, calipers and knock-back do to it."""

from collections.abc import Mapping
from functools import partial
from typing import Any, NamedTuple

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QMenu,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.document.tables import hose_table
from urgens.guidance.words.heat import temperature
from urgens.guidance.words.pedal_feel import (
    FeelComparison,
    cold_line_words,
    compared,
    reservoir_words,
)
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import (
    FORCE,
    HOSE_EXPANSION,
    LENGTH,
    TIME,
    QuantityError,
    ShownFigure,
    UnitSystem,
    completed,
    in_units,
    number_of,
    parse,
    printed,
    show,
    unit_shown,
)
from urgens.quantity.kinds import VOLUME, QuantityKind
from urgens.studies.what_if import SOUND, WhatIf
from urgens.ui.session import Session
from urgens.ui.stations.size.feel import FeelPlane
from urgens.ui.theme.paint import T
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.figure_column import AdjacentFigures, FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.stepper import Stepper
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped


class SupposedFault(NamedTuple):
    """What is supposed and does not change the build: words, kind, steps, least and most [SI]."""

    words: str
    kind: QuantityKind | None  # None for a number of times
    steps: Mapping[UnitSystem, float]
    least: float
    most: float


CUBIC_CENTIMETRE = 1e-6
CUBIC_INCH = 0.0254**3
INCH = 0.0254
TIMES = dict.fromkeys(UnitSystem, 0.25)
FAULTS = {
    "air": SupposedFault(
        "Air in the line",
        VOLUME,
        {UnitSystem.METRIC: 0.5 * CUBIC_CENTIMETRE, UnitSystem.INCH: 0.05 * CUBIC_INCH},
        0.0,
        50 * CUBIC_CENTIMETRE,
    ),
    "hose": SupposedFault("Hoses swell", None, TIMES, 0.25, 50.0),
    "brake": SupposedFault("Brakes flex", None, TIMES, 0.25, 50.0),
    "knock_back": SupposedFault(
        "Knocked back", LENGTH, {UnitSystem.METRIC: 1e-4, UnitSystem.INCH: 0.005 * INCH}, 0.0, 0.05
    ),
}
PADS = (
    AdjacentFigures("Front pad's lining", (Spot("front.brake.pad_thickness", 16),)),
    AdjacentFigures("Rear pad's lining", (Spot("rear.brake.pad_thickness", 16),)),
    AdjacentFigures("Reservoir, a circuit", (Spot("master.reservoir_volume", 16),)),
)
COLD = 233.15  # K, at which fluids are tested cold: −40 °C
LINE_WIDTH = 96  # px for a figure of the line


def _sound() -> dict[Axle, WhatIf]:
    return dict.fromkeys(AXLES, SOUND)


class FeelPage(Page):
    """Whole, each half lost, booster lost; and what if."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.plane = FeelPlane(session)
        self.axes = (worded("", "muted"), worded("", "muted"))
        self.axle = Axle.REAR
        self.faults = _sound()
        self.axles = {axle: segment(f"{axle.capitalize()} axle") for axle in AXLES}
        group = QButtonGroup(self)
        for axle, button in self.axles.items():
            group.addButton(button)
            button.clicked.connect(partial(self._look_at, axle))
        self.steppers = {}
        for name, fault in FAULTS.items():
            stepper = Stepper(fault.words, partial(self._type, name))
            stepper.stepped.connect(partial(self._step, name))
            self.steppers[name] = stepper
        self.sound = push_button("None of it", "quiet")
        self.sound.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.sound.clicked.connect(self._clear)
        self.pads = FigureColumn(session, PADS)
        self.hoses = self._hose_button()
        self.grid = QGridLayout()
        self.grid.setVerticalSpacing(3)
        self.cells: list[QLabel] = []
        self.reservoir, self.cold = wrapped(), wrapped()
        inch = session.build.natural_units is UnitSystem.INCH
        self.line = [
            TypedLabel(name, kind, session.units, self._show_cold, start=start, size=17)
            for name, kind, start in (
                ("Length of the rear line", LENGTH, "12 ft" if inch else "3.6 m"),
                ("Bore of the line", LENGTH, "0.13 in" if inch else "3.3 mm"),
                ("Time of the press", TIME, "0.2 s"),
            )
        ]
        session.opened.connect(self._forget)
        self._fill()

    def _fill(self) -> None:
        drawing = QWidget()
        column = tight(QVBoxLayout(drawing), 0)
        column.addWidget(self.axes[0])
        column.addWidget(self.plane, 1)
        foot = QHBoxLayout()
        foot.addWidget(self.axes[1])
        foot.addStretch()
        foot.addWidget(self.hoses)
        column.addLayout(foot)
        self.column.addWidget(worded("What if (the build does not change)", "heading"))
        row = spaced(QHBoxLayout(), 0)
        for button in self.axles.values():
            row.addWidget(button)
        row.addStretch()
        row.addWidget(self.sound)
        self.column.addLayout(row)
        faults = QGridLayout()
        faults.setVerticalSpacing(4)
        for index, stepper in enumerate(self.steppers.values()):
            faults.addWidget(stepper, index // 2, index % 2)
        self.column.addLayout(faults)
        self.column.addSpacing(4)
        self.column.addLayout(self.grid)
        self.head("Reservoir as the pads wear")
        self.column.addWidget(self.pads)
        self.column.addWidget(self.reservoir)
        self.cold_head = worded("", "heading")
        self.column.addSpacing(8)
        self.column.addWidget(self.cold_head)
        line = QGridLayout()
        line.setVerticalSpacing(0)
        line.setColumnStretch(0, 1)
        line.setColumnMinimumWidth(1, round(LINE_WIDTH * T.scale))
        for place, label in enumerate(self.line):
            line.addWidget(worded(label.name, "muted"), place, 0)
            line.addWidget(label, place, 1, Qt.AlignmentFlag.AlignLeft)
        self.column.addLayout(line)
        self.column.addWidget(self.cold)
        self.column.addStretch()
        self.lay_out(drawing, side=318)
        self.said.hide()  # the table says it

    def _hose_button(self) -> QToolButton:
        """Return the button whose menu puts a hose of the shipped table into the build."""
        button, table = QToolButton(), hose_table()
        button.setProperty("role", "kind")
        button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(button)
        for hose in table.hoses:
            edit, expansion = self.session.edit, table.expansion(hose).text
            words = f"{hose.name}, at most {expansion}"
            menu.addAction(
                words, partial(edit, "lines.hose_expansion", expansion, f"Hoses {hose.name}")
            )
        menu.addAction(table.source).setEnabled(False)
        button.setMenu(menu)
        return button

    def keep(self) -> dict[str, object]:
        """Return what is supposed, and the line that was typed."""
        typed = [label.quantity.text if label.quantity else "" for label in self.line]
        return {"axle": self.axle, "faults": self.faults, "line": typed}

    def give_back(self, kept: Mapping[str, Any]) -> None:
        """Suppose it again."""
        self.axle, self.faults = kept["axle"], kept["faults"]
        for label, typed in zip(self.line, kept["line"], strict=True):
            label.set_text(typed)

    def _forget(self) -> None:
        """Suppose nothing of another build."""
        self.faults = _sound()
        self.seen.ask()

    @property
    def summary(self) -> str:
        """Travel and slope at the comfortable foot."""
        found, units = self._compared(), self.session.units
        return (
            f"at {show(found.effort, FORCE, units)}: {found.rows[0].sound}, {found.rows[1].sound}"
        )

    def _compared(self) -> FeelComparison:
        faults = self.faults[Axle.FRONT], self.faults[Axle.REAR]
        return compared(self.session.solution, *faults, self.session.units)

    def show_figures(self) -> None:
        """Show the feel of the build as it is now."""
        units = self.session.units
        self.axes[0].setText(f"Foot, {unit_shown(FORCE, units)}")
        self.axes[1].setText(f"Pedal travel, {unit_shown(LENGTH, units)}")
        self.plane.supposed = (self.faults[Axle.FRONT], self.faults[Axle.REAR])
        self.plane.refresh()
        self.axles[self.axle].setChecked(True)
        self.sound.setEnabled(self.faults != _sound())
        for name, stepper in self.steppers.items():
            value, kind = getattr(self.faults[self.axle], name), FAULTS[name].kind
            number = f"{value if kind is None else value / in_units(kind, units):.4g}"
            unit = "×" if kind is None else printed(unit_shown(kind, units))
            stepper.set_value(ShownFigure(number, unit), number)
        self.cold_head.setText(f"A fast press at {temperature(COLD, units)}")
        self._show_rows(self._compared())
        self.pads.refresh()
        expansion = self.session.build.lines.hose_expansion
        self.hoses.setText(f"Hoses fitted: {show(expansion.value, HOSE_EXPANSION, units)}")
        self.reservoir.setText(reservoir_words(self.session.build))
        for label in self.line:
            label.show_in(units)
        self._show_cold()

    def _show_rows(self, comparison: FeelComparison) -> None:
        for cell in self.cells:
            cell.deleteLater()
        self.cells = []
        changed = self.faults != _sound()
        heads = [("", "as built", "what if" if changed else "")]
        rows = heads + [(r.name, r.sound, r.supposed if changed else "") for r in comparison.rows]
        for at, row in enumerate(rows):
            for column, words in enumerate(row):
                cell = worded(words, "heading" if column and at else "muted")
                if column == 2 and at:
                    cell.setStyleSheet(f"color: {T.warn}")
                self.cells.append(cell)
                self.grid.addWidget(cell, at, column)

    def _show_cold(self) -> None:
        length, bore, time = (label.value for label in self.line)
        if length and bore and time:
            words = cold_line_words(self.session.solution, length, bore, time, self.session.units)
            self.cold.setText(words)

    def _look_at(self, axle: Axle) -> None:
        self.axle = axle
        self.show_figures()

    def _suppose(self, name: str, value: float) -> None:
        value = min(max(value, FAULTS[name].least), FAULTS[name].most)
        before = self.faults[self.axle]
        self.faults[self.axle] = WhatIf(**{**vars(before), name: value})
        self.show_figures()

    def _step(self, name: str, steps: int) -> None:
        step = FAULTS[name].steps[self.session.units.system]
        self._suppose(name, (round(getattr(self.faults[self.axle], name) / step) + steps) * step)

    def _type(self, name: str, typed: str) -> None:
        """Take a typed fault; raises QuantityError."""
        kind = FAULTS[name].kind
        if kind is None:
            value = number_of(typed)
            if value is None:
                raise QuantityError(f'"{typed}" is no number', "write how many times")
        else:
            value = parse(completed(typed, kind, self.session.units), kind).value
        if value < 0:
            raise QuantityError(f'"{typed}" is negative', "write it without the minus")
        self._suppose(name, value)

    def _clear(self) -> None:
        self.faults = _sound()
        self.show_figures()
