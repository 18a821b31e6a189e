"""Rear over front pressure: the brake line before and after the stops, and where each stop was."""

import numpy as np
from PySide6.QtCore import Qt

from urgens.bench.proof_state import stops_of
from urgens.bench.stops.posterior import stop_system, why_not_counted
from urgens.quantity import PRESSURE, in_units, unit_shown
from urgens.solve import ideal_pressures
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.ui.session import Session
from urgens.ui.stations.prove.stops_found import Band, StopsFound
from urgens.ui.theme.paint import T, faint
from urgens.ui.widgets.curve import Area
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import Note, Plane

Z = np.linspace(0.0, 1.6, 90)  # g
POINTS = 90
SHAPES = {"front": MarkerShape.FRONT, "both": MarkerShape.FRONT, "rear": MarkerShape.REAR}


class StopsPlane(Plane):
    """Above its curve the rear locks first."""

    def __init__(self, session: Session) -> None:
        super().__init__("Rear over front pressure, before and after the stops")
        self._session = session
        self.ideal, self.before, self.after = Area(T.band), Area(faint(T.rear)), Area(faint(T.rear))
        for area in (self.ideal, self.before, self.after):
            self.plotItem.addItem(area, ignoreBounds=True)
        self.curve = self.add_curve(T.ink, 2.5, name="ideal rear pressure")
        self.reckoned = self.add_curve(T.rear, 1, Qt.PenStyle.DotLine, name="as reckoned before")
        self.line = self.add_curve(T.rear, 3, name="after the stops")

    def show_found(self, stops: StopsFound) -> None:
        """Draw bands, ideal curves and stops."""
        session = self._session
        scale = in_units(PRESSURE, session.units)
        right = float(stops.after.front[-1])
        self._ideal(right, scale)
        for area, band in ((self.before, stops.before), (self.after, stops.after)):
            area.set_between(band.front / scale, band.low / scale, band.high / scale)
        self._line(self.reckoned, stops.before, scale)
        self._line(self.line, stops.after, scale)
        markers, notes = self._stops(scale)
        top = 1.12 * float(stops.before.high.max()) / scale
        self.set_range((0.0, right / scale), (0.0, top))
        self.set_markers(markers)
        words = "after the stops" if stops.known.counted else "as reckoned"
        at = 0.62
        x = at * right
        notes.append(Note(words, (x / scale, self._at(stops.after, x) / scale), T.rear, weight=600))
        if stops.known.counted:
            x = 0.86 * right
            y = float(np.interp(x, stops.before.front, stops.before.low)) / scale
            notes.append(Note("band as reckoned before", (x / scale, y), T.muted))
        corner = (0.3 * right / scale, 0.97 * top)
        words = "above its curve the rear locks first"
        notes.append(Note(words, corner, T.danger, weight=600, leader=False))
        self.set_notes(notes, [self.line.points, self.curve.points], [m.at for m in markers])

    def _at(self, band: Band, front: float) -> float:
        return float(np.interp(front, band.front, band.middle))

    def _line(self, curve: object, band: Band, scale: float) -> None:
        curve.set_points(band.front / scale, band.middle / scale)  # type: ignore[attr-defined]

    def _ideal(self, right: float, scale: float) -> None:
        solution = self._session.solution
        front, rear = ideal_pressures(solution.system, solution.system.cases, Z)
        grid = np.linspace(0.0, right, POINTS)
        lines = np.array([np.interp(grid, f, r) for f, r in zip(front, rear, strict=True)])
        self.ideal.set_between(grid / scale, lines.min(axis=0) / scale, lines.max(axis=0) / scale)
        self.curve.set_points(grid / scale, lines[solution.case] / scale)

    def _stops(self, scale: float) -> tuple[list[Marker], list[Note]]:
        build = self._session.build
        markers, notes = [], []
        for number, stop in enumerate(stops_of(build), start=1):
            if stop.effort is None or why_not_counted(build, stop) is not None:
                continue
            made, standing = stop_system(build, stop)
            effort = np.asarray(stop.effort.value)
            lines = rolling_lines(made, pushrod_force(made, effort), standing)
            at = (float(lines.front) / scale, float(lines.rear) / scale)
            markers.append(Marker(SHAPES.get(stop.locked, MarkerShape.OPEN), at))
            notes.append(Note(f"{number}", at, T.ink, weight=600))
        return markers, notes

    @property
    def axes(self) -> tuple[str, str]:
        """What both axes are, with the unit."""
        unit = unit_shown(PRESSURE, self._session.units)
        return f"Rear line, {unit}", f"Front line, {unit}"
