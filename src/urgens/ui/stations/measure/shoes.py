"""The shoe factor against the lining's friction, and the shoes it may come from."""

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.document.kinds.brakes.drum import Drum
from urgens.guidance.thresholds import USUAL_SHOES
from urgens.physics.drum import pinned_shoe_factor
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.figure_label import FigureLabel, Spot
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plain import plain_label
from urgens.ui.widgets.plane import Note, Plane

USUAL_FRICTION = 0.38  # lining friction that published factors are for; common practice
# Of the plot
LOWEST = 0.10
HIGHEST = 0.60
NEAR_LIMIT = 0.98  # of the friction at which the shoe grabs; beyond it the factor runs away
NEW_SHOE = {  # of a drum's radius, and angles: a common pinned shoe
    "hinge_distance": 0.8,
    "arm": 1.6,
    "heel_angle": "20 deg",
    "toe_angle": "125 deg",
}
_NAMES = {
    "lining_friction": "lining friction μ",
    "hinge_distance": "hinge to centre",
    "arm": "hinge to cylinder",
    "heel_angle": "lining begins at",
    "toe_angle": "lining ends at",
    "shoe_factor": "shoe factor",
}


class FactorPlane(Plane):
    """Factor over friction: from the shoes, or between the usual sensitivities."""

    def __init__(self, session: Session, axle: str) -> None:
        super().__init__("Shoe factor against lining friction")
        self._session, self._axle = session, axle
        self._low = self.add_curve(T.ink, 2)
        self._high = self.add_curve(T.ink, 2, Qt.PenStyle.DashLine)
        self._limit = self.add_curve(T.danger, 2, Qt.PenStyle.DashLine)
        self.setMinimumSize(430, 320)
        session.solution_changed.connect(self.refresh)
        self.refresh()

    def lines(self, brake: Drum) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return friction [-], and the factor by the lower and the upper of its laws [-]."""
        limit = brake.grabs_from or HIGHEST / NEAR_LIMIT
        friction = np.linspace(LOWEST, min(HIGHEST, NEAR_LIMIT * limit), 81)
        shoe = brake.shoe
        if brake.shoe_factor is not None or shoe is None:
            *_, least, most = USUAL_SHOES[brake.layout]
            share, factor = friction / USUAL_FRICTION, brake.factor
            return friction, factor * share**least, factor * share**most
        factor_at = pinned_shoe_factor(
            friction,
            brake.drum_diameter.value / 2,
            shoe.hinge_distance.value,
            shoe.arm.value,
            shoe.heel_angle.value,
            shoe.toe_angle.value,
            two_leading=brake.layout == "two-leading",
        )
        return friction, factor_at, factor_at

    def refresh(self) -> None:
        """Draw the brake as it is now."""
        brake = getattr(self._session.build, self._axle).brake
        if not brake.has_shoes:
            return
        friction, low, high = self.lines(brake)
        factor = brake.factor
        typed = brake.shoe_factor is not None or brake.shoe is None
        at = USUAL_FRICTION if typed or brake.shoe is None else brake.shoe.lining_friction
        top = min(float(max(high.max(), 1.2 * factor)), 3.0 * factor)
        self.set_range((0.0, HIGHEST), (0.0, top))
        self._low.set_points(friction, low)
        self._high.set_points(friction, high)
        limit = None if typed else brake.grabs_from
        shown = limit is not None and limit < HIGHEST
        self._limit.setVisible(shown)
        notes = [Note(f"{factor:.2f} at μ {at:.2f}", (at, factor), weight=600)]
        if shown and limit is not None:
            self._limit.set_points(np.array([limit, limit]), np.array([0.0, top]))
            notes.append(Note(f"grabs by itself from μ {limit:.2f}", (limit, top * 0.9), T.danger))
        self.set_markers([Marker(MarkerShape.DOT, (at, factor))])
        self.set_notes(notes, [(friction, low), (friction, high)], [(at, factor)])


class ShoeDialog(QDialog):
    """What the factor does when friction moves, and the figures of the shoes."""

    def __init__(self, session: Session, axle: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(f"{axle.capitalize()} shoe factor against friction")
        self._session, self._axle = session, axle
        self.plane = FactorPlane(session, axle)
        self.labels: dict[str, FigureLabel] = {}
        self._grid = QGridLayout()
        self._said = plain_label()
        self._said.setWordWrap(True)
        self._said.setProperty("role", "muted")
        self.change = QPushButton()
        self.change.setAutoDefault(False)
        self.change.clicked.connect(self._other_way)
        close = push_button("Close", "", self.reject)
        right = QVBoxLayout()
        right.addLayout(self._grid)
        right.addWidget(self.change)
        right.addWidget(self._said)
        right.addStretch()
        right.addWidget(close)
        left = QVBoxLayout()
        left.addWidget(plain_label("shoe factor, against lining friction μ"))
        left.addWidget(self.plane, 1)
        row = spaced(QHBoxLayout(self), 24)
        row.addLayout(left, 1)
        row.addLayout(right)
        self.resize(860, 440)
        session.solution_changed.connect(self.refresh)
        self.refresh()

    @property
    def _brake(self) -> Drum | None:
        brake = getattr(self._session.build, self._axle).brake
        return brake if brake.has_shoes else None

    def _figures(self, brake: Drum) -> list[Spot]:
        place = f"{self._axle}.brake"
        if brake.shoe_factor is not None or brake.shoe is None:
            return [Spot(f"{place}.shoe_factor")]
        shoe = f"{place}.shoe"
        return [
            Spot(f"{shoe}.lining_friction"),
            Spot(f"{shoe}.hinge_distance"),
            Spot(f"{shoe}.arm"),
            Spot(f"{shoe}.heel_angle"),
            Spot(f"{shoe}.toe_angle"),
        ]

    def refresh(self) -> None:
        """Show the figures there are now."""
        brake = self._brake
        if brake is None:
            return
        figures = self._figures(brake)
        if [f.path for f in figures] != list(self.labels):
            while self._grid.count():
                gone = self._grid.takeAt(0)
                widget = gone.widget() if gone is not None else None
                if widget is not None:
                    widget.hide()
                    widget.deleteLater()
            self.labels = {}
            for row, figure in enumerate(figures):
                label = FigureLabel(self._session, figure, self)
                self._grid.addWidget(plain_label(_NAMES[figure.path.rpartition(".")[2]]), row, 0)
                self._grid.addWidget(label, row, 1)
                self.labels[figure.path] = label
        for label in self.labels.values():
            label.refresh()
        typed = brake.shoe_factor is not None
        self.change.setText("Describe the shoes instead" if typed else "Type the factor instead")
        self.change.setVisible(brake.layout != "duo-servo")
        low, high, *_ = USUAL_SHOES[brake.layout]
        self._said.setText(
            f"Between the lines: how far the factor of such brakes usually moves (common practice; "
            f"usual factor {low:g} to {high:g} at μ {USUAL_FRICTION})."
            if typed
            else "From the shoes' geometry: rigid shoes on fixed hinges, pressure as the sine of "
            "the angle."
        )

    def _other_way(self) -> None:
        """Describe the shoes where the factor was typed, or type the factor they come to."""
        session, brake, place = self._session, self._brake, f"{self._axle}.brake"
        if brake is None:
            return
        part = brake.model_dump(mode="json", exclude_unset=True)
        if brake.shoe_factor is None:
            part["shoe_factor"] = round(brake.factor, 3)
            del part["shoe"]
            session.make(BuildChange("Shoe factor typed", {place: part}))
        else:
            radius = brake.drum_diameter.value / 2 * 1000
            part["shoe"] = {
                "lining_friction": USUAL_FRICTION,
                "hinge_distance": f"{NEW_SHOE['hinge_distance'] * radius:.0f} mm",  # type: ignore[operator]
                "arm": f"{NEW_SHOE['arm'] * radius:.0f} mm",  # type: ignore[operator]
                "heel_angle": NEW_SHOE["heel_angle"],
                "toe_angle": NEW_SHOE["toe_angle"],
            }
            del part["shoe_factor"]
            new = {f"{place}.shoe": part["shoe"]}
            session.make(BuildChange("Shoes described", {place: part}, assumed=new))
