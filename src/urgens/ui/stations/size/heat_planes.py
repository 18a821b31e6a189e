"""Temperatures over a series of stops: the iron's, and the fluid's with its boiling points."""

import numpy as np
from PySide6.QtCore import Qt

from urgens.physics.axle import Axle
from urgens.quantity import TEMPERATURE, Units, UnitSystem, in_units, parse, unit_shown
from urgens.studies.heat import Heated, boiling_points, fluid_at
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import Note, Plane

DASH = Qt.PenStyle.DashLine
BOILS = ("boils, dry", "boils, wet")
MOST_MARKED = 20  # stops that are marked one by one
USUAL = 10  # stops shown while none are given
LEAST_TOP = (300.0, 150.0)  # degrees shown at least: of iron, of fluid


def degrees(kelvin: float | np.ndarray, units: Units | UnitSystem) -> np.ndarray:
    """Return temperatures in the degrees that are shown."""
    nought = parse(f"0 {unit_shown(TEMPERATURE, units)}", TEMPERATURE).value
    return np.asarray((kelvin - nought) / in_units(TEMPERATURE, units))


def _stops(heateds: dict[Axle, Heated]) -> int:
    return max((one.peaks.size for one in heateds.values()), default=USUAL)


class IronPlane(Plane):
    """Rotors and drums at the end of each stop."""

    def __init__(self, session: Session) -> None:
        super().__init__("Rotor or drum at the end of each stop, an estimate")
        self._session = session
        self.axles = {
            Axle.FRONT: self.add_curve(T.front, 3, name="front"),
            Axle.REAR: self.add_curve(T.rear, 3, DASH, name="rear"),
        }

    def show_heat(self, heateds: dict[Axle, Heated]) -> None:
        """Draw the axles whose iron is known."""
        stops, units = _stops(heateds), self._session.units
        x = np.arange(1.0, stops + 1)
        notes, markers, curves, top = [], [], [], LEAST_TOP[0]
        for axle, curve in self.axles.items():
            curve.setVisible(axle in heateds)
            if axle not in heateds:
                continue
            y = np.asarray(degrees(heateds[axle].peaks, units))
            curve.set_points(x, y)
            curves.append((x, y))
            top = max(top, float(y[-1]))
            front = axle is Axle.FRONT
            color, shape = (T.front, MarkerShape.FRONT) if front else (T.rear, MarkerShape.REAR)
            notes.append(Note(axle, (float(x[-1]), float(y[-1])), color, weight=600))
            if stops <= MOST_MARKED:
                markers += [Marker(shape, (float(a), float(b))) for a, b in zip(x, y, strict=True)]
        self.set_range((0.0, stops + 1.0), (0.0, 1.12 * top))
        self.set_notes(notes, curves, [])
        self.set_markers(markers)


class FluidPlane(Plane):
    """The fluid in the hotter brake at the end of each stop, and where it boils."""

    def __init__(self, session: Session) -> None:
        super().__init__("Fluid in the hotter brake at the end of each stop, an estimate")
        self._session = session
        self.fluid = self.add_curve(T.fluid[2], 2, name="fluid")
        self.boils = [self.add_curve(T.danger, 2, DASH, name=name) for name in BOILS]

    def show_heat(self, heateds: dict[Axle, Heated]) -> None:
        """Draw the fluid of the hotter brake."""
        stops, units, top = _stops(heateds), self._session.units, LEAST_TOP[1]
        notes, curves = [], []
        self.fluid.setVisible(bool(heateds))
        if heateds:
            hotter = max(heateds, key=lambda one: heateds[one].fluid)
            x = np.arange(1.0, stops + 1)
            y = np.asarray(degrees(fluid_at(heateds[hotter].peaks, self._session.solution), units))
            self.fluid.set_points(x, y)
            curves.append((x, y))
            notes.append(Note(f"{hotter} fluid", (float(x[-1]), float(y[-1])), T.warn, weight=600))
            top = max(top, float(y[-1]))
        points = boiling_points(self._session.build) if heateds else None
        for index, curve in enumerate(self.boils):
            curve.setVisible(points is not None)
            if points is not None:
                boils = float(degrees(points[index], units))
                top = max(top, boils)
                curve.set_points(np.array([0.0, stops + 1.0]), np.full(2, boils))
                words = BOILS[index]
                notes.append(Note(words, (0.4, boils), T.danger, leader=False))
        self.set_range((0.0, stops + 1.0), (0.0, 1.12 * top))
        self.set_notes(notes, curves, [])
