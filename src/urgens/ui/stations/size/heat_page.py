"""The heat's page: an estimate of a series of stops, and how far the fluid is from boiling."""

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from urgens.document.brakes.disc import Disc
from urgens.document.tables import fluid_table
from urgens.guidance.heating import fluid_words, heat_words
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import (
    TEMPERATURE,
    Units,
    UnitSystem,
    in_units,
    parse,
    unit_shown,
)
from urgens.studies.heat import Heated, boiling_points, fluid_at, heated
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.choice_button import ChoiceButton
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.markers import Marker, Shape
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.worded import worded, wrapped

FIGURES = (
    Spot("heat.speed", 18),
    Spot("heat.stops", 18),
    Spot("heat.between", 18),
    Spot("heat.air", 18),
    Spot("front.brake.rotor_mass", 18),
    Spot("front.brake.drum_mass", 18),
    Spot("rear.brake.rotor_mass", 18),
    Spot("rear.brake.drum_mass", 18),
    Spot("heat.front_measured", 18),
    Spot("heat.rear_measured", 18),
)


COOLING = {"open": "open", "ducted": "air led to it", "inboard": "inboard"}
FLUIDS = {grade: grade for grade in fluid_table().fluids}


def degrees(kelvin: float | np.ndarray, units: Units | UnitSystem) -> np.ndarray:
    """Return temperatures in the degrees that are shown."""
    nought = parse(f"0 {unit_shown(TEMPERATURE, units)}", TEMPERATURE).value
    return np.asarray((kelvin - nought) / in_units(TEMPERATURE, units))


class HeatPlane(Plane):
    """Rotor temperatures at the end of each stop, and where the fluid boils."""

    def __init__(self, session: Session) -> None:
        super().__init__("Rotor temperature at the end of each stop, an estimate")
        self._session = session
        dash = Qt.PenStyle.DashLine
        self.axles = {
            Axle.FRONT: self.add_curve(T.front, 3),
            Axle.REAR: self.add_curve(T.rear, 3, dash),
        }
        self.fluid = self.add_curve(T.fluid[2], 2)
        self.boils = [self.add_curve(T.danger, 2, dash) for _ in range(2)]

    def show_heat(self, found: dict[Axle, Heated | None]) -> None:
        """Draw what is found."""
        units = self._session.units
        known = {axle: one for axle, one in found.items() if one is not None}
        stops = max((one.peaks.size for one in known.values()), default=10)
        notes, markers, curves, top = [], [], [], 300.0
        for axle, curve in self.axles.items():
            curve.setVisible(axle in known)
            if axle not in known:
                continue
            x = np.arange(1.0, stops + 1)
            y = np.asarray(degrees(known[axle].peaks, units))
            curve.set_points(x, y)
            curves.append((x, y))
            top = max(top, float(y[-1]))
            front = axle is Axle.FRONT
            color, shape = (T.front, Shape.FRONT) if front else (T.rear, Shape.REAR)
            notes.append(Note(axle, (float(x[-1]), float(y[-1])), color, weight=600))
            if stops <= 20:
                markers += [Marker(shape, (float(a), float(b))) for a, b in zip(x, y, strict=True)]
        self.fluid.setVisible(bool(known))
        if known:
            hotter_axle = max(known, key=lambda one: known[one].fluid)
            hotter = known[hotter_axle]
            x = np.arange(1.0, stops + 1)
            y = np.asarray(degrees(fluid_at(hotter.peaks, self._session.solution), units))
            self.fluid.set_points(x, y)
            curves.append((x, y))
            notes.append(Note(f"fluid at the {hotter_axle}", (float(x[-2]), float(y[-2])), T.warn))
        points = boiling_points(self._session.build)
        for index, curve in enumerate(self.boils):
            curve.setVisible(points is not None and bool(known))
            if points is not None and known:
                y_boil = float(degrees(points[index], units))
                curve.set_points(np.array([0.0, stops + 1.0]), np.full(2, y_boil))
                words = ("fluid boils, dry", "fluid boils, wet")[index]
                notes.append(Note(words, (0.4, y_boil), T.danger, leader=False))
        self.set_range((0.0, stops + 1.0), (0.0, 1.12 * top))
        self.set_notes(notes, curves, [])
        self.set_markers(markers)


class HeatPage(Page):
    """Heat of one stop and of a series; boiling margin, dry and wet."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.plane = HeatPlane(session)
        self.axes = (worded("", "muted"), worded("stop", "muted"))
        self.axes[1].setAlignment(Qt.AlignmentFlag.AlignRight)
        self.figures = FigureColumn(session, FIGURES, of_one_part=False)
        self.give = QPushButton("Give a series of stops")
        self.give.setProperty("role", "quiet")
        self.give.clicked.connect(self._give)
        self.chosen = [
            *(
                ChoiceButton(
                    session, f"{axle.capitalize()} rotor", f"{axle}.brake.cooling", COOLING,
                    none="open, not said",
                )
                for axle in AXLES
            ),
            ChoiceButton(session, "Fluid", "fluid.class", FLUIDS, read="fluid.grade"),
        ]  # fmt: skip
        self.found: dict[Axle, Heated | None] = {}
        self.words, self.fluid, self.estimate = wrapped(), wrapped(), wrapped()
        drawing = QWidget()
        column = QVBoxLayout(drawing)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        column.addWidget(self.axes[0])
        column.addWidget(self.plane, 1)
        column.addWidget(self.axes[1])
        for widget in (
            self.give,
            self.figures,
            *self.chosen,
            self.words,
            self.fluid,
            self.estimate,
        ):
            self.column.addWidget(widget)
        self.estimate.setText(
            "An estimate: each rotor or drum one lump of iron, all energy into it, cooling and the "
            "fluid's share assumed until a temperature is measured (paint, probe, infrared)."
        )
        self.column.addStretch()
        self.lay_out(drawing)

    @property
    def summary(self) -> str:
        """The estimate in a few words."""
        return heat_words(self.session.solution, self.found, self.session.units)[0]

    def show_figures(self) -> None:
        """Show the build as it is now."""
        session, units = self.session, self.session.units
        self.found = {axle: heated(session.solution, axle) for axle in AXLES}
        unit = unit_shown(TEMPERATURE, units)
        self.axes[0].setText(f"At the end of each stop, {unit}, estimated")
        self.give.setVisible(session.build.heat is None)
        self.figures.refresh()
        for button, axle in zip(self.chosen, (*AXLES, None), strict=True):
            button.refresh()
            if axle is not None:
                button.setVisible(isinstance(session.build.axle(axle).brake, Disc))
        self.plane.show_heat(self.found)
        self.words.setText(" ".join(heat_words(session.solution, self.found, units)[1:]))
        self.fluid.setText(fluid_words(session.build, self.found, units))

    def _give(self) -> None:
        self.session.edit("heat", {}, "A series of stops")
