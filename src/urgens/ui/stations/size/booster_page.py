"""The booster's page: its line, its vacuum, its room, and what a cylinder made for it means."""

from collections.abc import Mapping

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.document.kinds.boosters.hydraulic import HydraulicBooster
from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.guidance.words.boosters import booster_words, fit_words, swap_words
from urgens.quantity import FORCE, LENGTH, unit_shown
from urgens.ui.session import Session
from urgens.ui.stations.size.booster_plane import BoosterPlane
from urgens.ui.stations.size.reserve_view import ReserveView
from urgens.ui.widgets.figure_column import AdjacentFigures, FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import plain_label
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped

FIGURES = (
    Spot("booster.diaphragm_diameters[0]", 15),
    Spot("booster.diaphragm_diameters[1]", 15),
    Spot("booster.vacuum", 15),
    Spot("booster.pump", 15),
    Spot("booster.max_assist", 15),
    Spot("booster.gain", 15),
    Spot("booster.crack_force", 15),
    Spot("booster.jump_in", 15),
    Spot("vehicle.altitude", 15),
    Spot("booster.reservoir.volume", 15),
    Spot("booster.reservoir.swept", 15),
    Spot("booster.reservoir.least", 15),
    AdjacentFigures(
        "Shell, across and along",
        (Spot("booster.envelope.diameter", 15), Spot("booster.envelope.length", 15)),
    ),
    AdjacentFigures(
        "Room, across and along",
        (Spot("booster.room.diameter", 15), Spot("booster.room.length", 15)),
    ),
)
RESERVOIR = {"volume": "5 l"}
ROOM = {"diameter": "10 in", "length": "8 in"}


class BoosterPage(Page):
    """Crack, jump-in, run-out; vacuum, pump, reservoir; lost; room; cylinders that look alike."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.plane, self.reserve = BoosterPlane(session), ReserveView(session)
        self.figures = FigureColumn(session, FIGURES)
        self.words, self.fits, self.swap = wrapped(), wrapped(), wrapped()
        self.lost = QPushButton()
        self.reservoir, self.room = QPushButton("Give a reservoir"), QPushButton("Give the room")
        for button, take in (
            (self.lost, self._lose),
            (self.reservoir, lambda: self._give("booster.reservoir", RESERVOIR)),
            (self.room, self._give_room),
        ):
            button.setProperty("role", "quiet")
            button.clicked.connect(take)
        self.other = TypedLabel(
            "Bore of the other cylinder", LENGTH, session.units, self._compare,
            start=self._likely(), zero=False, size=18, parent=self,
        )  # fmt: skip
        drawing = QWidget()
        column = tight(QVBoxLayout(drawing), 2)
        self.axes = (plain_label(), plain_label())
        for label in self.axes:
            label.setProperty("role", "muted")
        column.addWidget(self.axes[0])
        column.addWidget(self.plane, 3)
        column.addWidget(self.axes[1])
        column.addWidget(self.reserve, 2)
        self.column.addWidget(self.words)
        self.column.addWidget(self.figures)
        for button in (self.reservoir, self.room, self.lost):
            self.column.addWidget(button)
        self.column.addWidget(self.fits)
        self.column.addSpacing(8)
        beside = QHBoxLayout()
        beside.addWidget(worded("This cylinder in place of one of", "heading"), 1)
        beside.addWidget(self.other)
        self.column.addLayout(beside)
        self.column.addWidget(self.swap)
        self.column.addStretch()
        self.lay_out(drawing)
        session.opened.connect(self._compare_with_likely)

    def _compare_with_likely(self) -> None:
        self.other.set_text(self._likely())

    def _likely(self) -> str:
        """Return a bore to compare with: that of the other kind which is met most."""
        return "15/16 in" if self.session.build.booster.fitted else "1-1/8 in"

    def keep(self) -> dict[str, object]:
        """Return the other cylinder's bore."""
        return {"other": self.other.quantity.text if self.other.quantity else ""}

    def give_back(self, kept: Mapping[str, object]) -> None:
        """Compare with it again."""
        self.other.set_text(str(kept["other"]))

    @property
    def summary(self) -> str:
        """What helps the foot."""
        return booster_words(self.session.solution, self.session.units)[0]

    def show_figures(self) -> None:
        """Show the booster of the build as it is now."""
        session, fitted = self.session, self.session.build.booster
        force = unit_shown(FORCE, session.units)
        self.axes[0].setText(f"Force on the cylinder, {force}")
        self.axes[1].setText(f"Force on the pushrod, {force}")
        self.other.show_in(session.units)
        self.plane.refresh()
        self.reserve.refresh()
        self.reserve.setVisible(self.reserve.found is not None)
        self.figures.refresh()
        said = booster_words(session.solution, session.units)[1:]
        self.words.setText(" ".join(said))
        self.words.setVisible(bool(self.words.text()))
        boosted = isinstance(fitted, VacuumBooster | HydraulicBooster)
        self.lost.setVisible(boosted)
        if isinstance(fitted, VacuumBooster | HydraulicBooster):
            self.lost.setText("Booster lost: try it" if fitted.working else "Booster works again")
            self.room.setVisible(fitted.envelope is None or fitted.room is None)
        else:
            self.room.hide()
        vacuum = isinstance(fitted, VacuumBooster) and fitted.reservoir is None
        self.reservoir.setVisible(vacuum)
        self.fits.setText(fit_words(session.build, session.units))
        self.fits.setVisible(bool(self.fits.text()))
        self._compare()

    def _lose(self) -> None:
        fitted = self.session.build.booster
        if isinstance(fitted, VacuumBooster | HydraulicBooster):
            label = "Booster lost" if fitted.working else "Booster works"
            self.session.edit("booster.working", not fitted.working, label)

    def _give(self, path: str, part: dict[str, str]) -> None:
        label = f"{path.rpartition('.')[2].capitalize()}, assumed"
        self.session.make(BuildChange.assuming(label, {path: part}))

    def _give_room(self) -> None:
        parts = {"booster.envelope": ROOM, "booster.room": ROOM}
        self.session.make(BuildChange.assuming("Room for the booster, assumed", parts))

    def _compare(self) -> None:
        other = self.other.quantity
        if other is not None:
            self.swap.setText(swap_words(self.session.build, other))
