"""The launch's page: the driveline at the line, and what holds it."""

from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.quantity import PRESSURE, show
from urgens.ui.session import Session
from urgens.ui.stations.size.launch_view import LaunchView
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import wrapped

FIGURES = (
    Spot("vehicle.launch.stall_torque", 18),
    Spot("vehicle.launch.converter_ratio", 18),
    Spot("vehicle.launch.gear_ratio", 18),
    Spot("vehicle.launch.final_drive", 18),
    Spot("vehicle.launch.efficiency", 18),
    Spot("vehicle.launch.surface", 18),
    Spot("targets.max_effort", 18),
)
START = {"stall_torque": "250 lbf.ft", "gear_ratio": 2.0, "final_drive": 4.0, "driven": "rear"}


class LaunchPage(Page):
    """Which limit comes first, and the pressure and effort that hold."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = LaunchView(session)
        self.figures = FigureColumn(session, FIGURES)
        self.give = push_button("Give the driveline", "quiet", self._give)
        self.driven = {axle: segment(f"{axle.capitalize()} driven") for axle in ("rear", "front")}
        self.axles = QWidget()
        row = tight(QHBoxLayout(self.axles), 0)
        for axle, button in self.driven.items():
            button.clicked.connect(partial(self._drive, axle))
            row.addWidget(button)
        row.addStretch()
        self.words = wrapped()
        self.caution = wrapped(
            words="Static loads, no bounce, cold rotors: the road passes a force between the "
            "axles, and the driven tyres may spin first. Nobody stands in front of or behind the "
            "vehicle."
        )
        for widget in (self.give, self.axles, self.figures, self.words, self.caution):
            self.column.addWidget(widget)
        self.column.addStretch()
        self.lay_out(self.view)

    @property
    def summary(self) -> str:
        """Whether it holds."""
        return self.view.words

    def show_figures(self) -> None:
        """Show the build as it is now."""
        build, units = self.session.build, self.session.units
        launch, held = build.vehicle.launch, self.session.solution.hold
        self.figures.refresh()
        self.view.update()
        self.give.setVisible(launch is None)
        self.said.setVisible(launch is not None)  # else the drawing's place says it
        self.axles.setVisible(launch is not None)
        self.figures.setVisible(launch is not None)
        if launch is None or held is None:
            self.words.setText(
                "For a car that is held at the line on its brakes against the engine. The figures "
                "to start from are assumed: type yours."
            )
            return
        for axle, button in self.driven.items():
            button.setChecked(axle == launch.driven)
        if held.pressure is None:
            self.words.setText(
                "Smaller bore, larger ratio, larger pistons, or a line lock do not help where the "
                "driven tyres are what ends first; there only more driven brake does."
                if held.limited_by == "driven brakes"
                else "More force on the pads of the other axle helps, up to what its tyres carry."
            )
            return
        pressure = show(held.pressure, PRESSURE, units)
        where = f"{pressure} at the {launch.driven} brakes, behind the valves"
        self.words.setText(f"{where}. The map has a window for it.")

    def _give(self) -> None:
        self.session.make(BuildChange.assuming("A driveline, assumed", {"vehicle.launch": START}))

    def _drive(self, axle: str, _checked: bool = False) -> None:
        self.session.edit("vehicle.launch.driven", axle, f"{axle.capitalize()} driven")
