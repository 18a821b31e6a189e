"""The heat's page: an estimate of a series of stops, and how far the fluid is from boiling."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QVBoxLayout, QWidget

from urgens.document.tables import fluid_table
from urgens.guidance.words.heat import fluid_words, heat_words
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import TEMPERATURE, unit_shown
from urgens.studies.heat import Heated, heated
from urgens.ui.session import Session
from urgens.ui.stations.size.heat_planes import FluidPlane, IronPlane
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.choice_button import ChoiceButton
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
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


class HeatPage(Page):
    """Heat of one stop and of a series; boiling margin, dry and wet."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.iron, self.fluid_plane = IronPlane(session), FluidPlane(session)
        self.axes = (worded("", "muted"), worded("", "muted"), worded("stop", "muted"))
        self.axes[2].setAlignment(Qt.AlignmentFlag.AlignRight)
        self.figures = FigureColumn(session, FIGURES, of_one_part=False)
        self.give = push_button("Give a series of stops", "quiet", self._give)
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
        column = tight(QVBoxLayout(drawing), 2)
        column.addWidget(self.axes[0])
        column.addWidget(self.iron, 3)
        column.addWidget(self.axes[1])
        column.addWidget(self.fluid_plane, 2)
        column.addWidget(self.axes[2])
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
        self.axes[0].setText(f"Rotors and drums at the end of each stop, {unit}, estimated")
        self.axes[1].setText(f"Fluid in the hotter brake, {unit}, estimated")
        self.give.setVisible(session.build.heat is None)
        self.figures.refresh()
        for button, axle in zip(self.chosen, (*AXLES, None), strict=True):
            button.refresh()
            if axle is not None:
                button.setVisible(session.build.axle(axle).brake.has_pads)
        known = {axle: one for axle, one in self.found.items() if one is not None}
        self.iron.show_heat(known)
        self.fluid_plane.show_heat(known)
        self.words.setText(" ".join(heat_words(session.solution, self.found, units)[1:]))
        self.fluid.setText(fluid_words(session.build, self.found, units))

    def _give(self) -> None:
        self.session.edit("heat", {}, "A series of stops")
