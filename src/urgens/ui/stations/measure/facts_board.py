"""Facts that no drawing shows and that findings hang on: switches, fluid, rods, seats, wishes."""

from collections.abc import Mapping
from datetime import date

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.document.residual_valves import behind_outlets
from urgens.document.tables import fluid_table
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import PRESSURE, QuantityError, ShownFigure, completed, shown
from urgens.ui.session import Session
from urgens.ui.widgets.choice_button import ChoiceButton
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge
from urgens.ui.widgets.figure_label import FigureLabel, Spot
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.seen import WhenSeen
from urgens.ui.widgets.worded import worded

SIZE = 17
# name, path, what can be chosen
CHOICES: tuple[tuple[str, str, Mapping[str, str]], ...] = (
    ("Used as", "vehicle.use", {
        "street": "street", "track": "track", "drag": "drag", "restoration": "restoration",
        "truck": "truck",
    }),
    ("Brake-light switch", "brake_light_switch", {
        "pedal": "at the pedal", "hydraulic": "hydraulic", "none": "none",
    }),
    ("Warning switch", "warning_switch", {
        "warns": "warns", "shuts": "shuts the failed side", "none": "none",
    }),
    ("Its shuttle", "warning_switch_returns", {
        "self-centring": "centres itself", "latching": "stays where it went",
    }),
    ("Parking brake", "parking_brake", {
        "rear": "rear wheels", "front": "front wheels", "transmission": "transmission",
        "none": "none",
    }),
    ("Cylinder made for", "master.made_for", {"manual": "a pedal alone", "booster": "a booster"}),
    ("Pushrod held by", "master.pushrod_held_by", {
        "retainer": "a retainer", "insert": "an insert", "none": "nothing",
    }),
    ("Cylinder sits", "master.mounting", {
        "firewall": "on the firewall", "under-floor": "under the floor", "inside": "inside",
    }),
    ("Fluid", "fluid.class", {grade: grade for grade in fluid_table().fluids}),
)  # fmt: skip
CUPS = {True: "fitted", False: "none"}
SEALS = {"square": "square", "rolled-back": "rolled back"}
# what stands beside it, path
FIGURES = (
    ("brake pad, above the floor", "pedal.pad_height"),
    ("throttle, above the floor", "pedal.throttle_height"),
    ("pushrod’s play", "pedal.pushrod_clearance"),
    ("thread of the pushrod", "pedal.pushrod_thread"),
    ("bleed screws, a front wheel", "front.brake.bleeders"),
    ("bleed screws, a rear wheel", "rear.brake.bleeders"),
    ("grip of the front tyres", "front.tyre.grip"),
    ("grip of the rear tyres", "rear.tyre.grip"),
    ("grip a locked wheel keeps", "targets.locked_grip"),
    ("kept for cornering, g", "targets.corner"),
    ("engine’s drag", "vehicle.engine_drag"),
)


class FactsBoard(QWidget):
    """Choices on the left, figures on the right."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.choices = [
            ChoiceButton(
                session, name, path, words,
                read="fluid.grade" if path == "fluid.class" else path,
            )
            for name, path, words in CHOICES
        ]  # fmt: skip
        self.cups = {
            axle: ChoiceButton(
                session, f"Cup expanders, {axle} drums", f"{axle}.brake.cup_expanders", CUPS
            )
            for axle in AXLES
        }
        self.seals = {
            axle: ChoiceButton(session, f"Seals of the {axle} pistons", f"{axle}.brake.seal", SEALS)
            for axle in AXLES
        }
        inner = QWidget()
        self._grid = QGridLayout(inner)
        self._grid.setContentsMargins(0, 0, 8, 0)
        self._grid.setHorizontalSpacing(14)
        self._grid.setVerticalSpacing(0)
        self._grid.setColumnStretch(0, 1)
        column = spaced(QVBoxLayout(), 0)
        for button in (*self.choices, *self.cups.values(), *self.seals.values()):
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            column.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)
        self.labels = {path: FigureLabel(session, Spot(path, SIZE), inner) for _, path in FIGURES}
        self.filled = DimensionLabel("Fluid filled on", self._fill, size=SIZE, parent=inner)
        column.addLayout(_beside("fluid filled on", self.filled))
        column.addStretch()
        self._grid.addLayout(column, 0, 0, len(FIGURES) + 2, 1)
        for row, (words, path) in enumerate(FIGURES):
            self._put(row, words, self.labels[path])
        self.residuals = {axle: self._residual(axle, inner) for axle in AXLES}
        for row, axle in enumerate(AXLES, start=len(FIGURES)):
            self._put(row, f"kept behind the {axle} seat", self.residuals[axle])
        area = rolled(inner)
        body = tight(QVBoxLayout(self))
        body.addWidget(area)
        self.seen = WhenSeen(self, self._show)
        session.solution_changed.connect(self.seen.ask)

    def _put(self, row: int, words: str, label: DimensionLabel) -> None:
        side = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        self._grid.addWidget(worded(words, "muted"), row, 1, side)
        self._grid.addWidget(label, row, 2, Qt.AlignmentFlag.AlignLeft)

    def refresh(self) -> None:
        """Show the build as it is now, if it does not yet."""
        self.seen.if_stale()

    def _show(self) -> None:
        for button in (*self.choices, *self.cups.values(), *self.seals.values()):
            button.refresh()
        for axle in AXLES:
            brake = self._session.build.axle(axle).brake
            self.cups[axle].setVisible(brake.has_shoes)
            self.seals[axle].setVisible(brake.has_pads)
        for label in self.labels.values():
            label.refresh()
        fluid = self._session.build.fluid
        day = "" if fluid is None or fluid.filled is None else fluid.filled.isoformat()
        self.filled.set_value(ShownFigure(day or "—", ""), day)
        for axle, kept in self.residuals.items():
            self._show_residual(axle, kept)

    def choice(self, path: str) -> ChoiceButton | None:
        """Return the choice of what stands at a path, None where there is none now."""
        found = (*self.choices, *(one for one in self.cups.values() if not one.isHidden()))
        return next((one for one in found if one.path == path), None)

    # --- facts that are no plain figure ------------------------------------------------------

    def _fill(self, typed: str) -> None:
        """Take the day the fluid was filled; raises QuantityError or BuildErrors."""
        try:
            day = date.fromisoformat(typed.strip())
        except ValueError:
            remedy = "write year-month-day: 2026-05-31"
            raise QuantityError(f'"{typed}" is no date', remedy) from None
        if self._session.build.fluid is None:
            raise QuantityError("the fluid is not known yet", "choose its class first")
        self._session.take(BuildChange("Fluid filled", {"fluid.filled": day.isoformat()}))

    def _residual(self, axle: Axle, parent: QWidget) -> DimensionLabel:
        name = f"Residual pressure behind the {axle} seat"
        return DimensionLabel(name, lambda typed: self._keep(axle, typed), size=SIZE, parent=parent)

    def _show_residual(self, axle: Axle, label: DimensionLabel) -> None:
        found = next(behind_outlets(self._session.build, axle), None)
        kept = None if found is None else found[1]
        label.set_value(
            ShownFigure("none", "") if kept is None else shown(kept, PRESSURE, self._session.units),
            "" if kept is None else kept.text,
        )
        label.set_known(Knowledge.YES)

    def _keep(self, axle: Axle, typed: str) -> None:
        """Take what a valve behind a cylinder's seat keeps; raises QuantityError or BuildErrors."""
        build = self._session.build
        text = typed.strip()
        text = "0" if text in ("", "none") else text
        text = completed(text, PRESSURE, self._session.units)
        found = next(behind_outlets(build, axle), None)
        label = f"Behind the {axle} seat {text}"
        if found is not None:
            self._session.take(BuildChange(label, {found[0]: text}))
            return
        for index, outlet in enumerate(build.master.outlets):
            if outlet.circuit == axle:
                self._session.take(BuildChange(label, {f"master.outlets[{index}].residual": text}))
                return
        order = [*range(len(build.master.outlets)), {"circuit": str(axle), "residual": text}]
        self._session.take(BuildChange(label, orders={"master.outlets": order}))


def _beside(words: str, label: DimensionLabel) -> QHBoxLayout:
    row = spaced(QHBoxLayout(), 8, (6, 0, 0, 0))
    row.addWidget(worded(words, "muted"))
    row.addWidget(label)
    row.addStretch()
    return row
