"""One valve: outlet over inlet, pressed and let go, and its production tolerance."""

import numpy as np
from PySide6.QtCore import Qt

from urgens.quantity import PRESSURE, in_units
from urgens.studies.valve_stages import loop, stages
from urgens.ui.session import Session
from urgens.ui.stations.balance.circuit_view import Place
from urgens.ui.theme.paint import T
from urgens.ui.widgets.curve import Area
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.seen import WhenSeen


class LoopPlane(Plane):
    """The loop of the valve chosen."""

    def __init__(self, session: Session) -> None:
        super().__init__("Outlet against inlet pressure of the valve chosen")
        self._session = session
        self.place: Place | None = None
        self.has_tolerance = False  # whether it has a knee that may be off
        self.band = Area(T.band)
        self.band.setZValue(-50)
        self.plotItem.addItem(self.band, ignoreBounds=True)
        self.even = self.add_curve(T.hair, 1)
        self.down = self.add_curve(T.muted, 2, Qt.PenStyle.DashLine)
        self.up = self.add_curve(T.ink, 3)
        session.press_changed.connect(WhenSeen(self, self.show_press, stale=False).ask)

    def show_valve(self, place: Place | None) -> None:
        """Draw a valve's loop up to the hardest press."""
        self.place = place
        self.has_tolerance = False
        for curve in (self.band, self.even, self.down, self.up):
            curve.setVisible(place is not None)
        if place is None:
            self.set_notes([], [], [])
            self.set_markers([])
            return
        circuit, index = place
        session, solution = self._session, self._session.solution
        scale = in_units(PRESSURE, session.units)
        hardest = stages(solution, session.hardest, circuit)[index]
        most = max(hardest.inlet, scale)
        found = loop(solution, session.presses, hardest.law, most)
        x = found.inlet / scale
        self.even.set_points(np.array([0.0, most / scale]), np.array([0.0, most / scale]))
        self.up.set_points(x, found.up / scale)
        self.down.set_points(x, found.down / scale)
        self.has_tolerance = found.low is not None
        low = found.up if found.low is None else found.low
        high = found.up if found.high is None else found.high
        self.band.set_between(x, low / scale, high / scale)
        self.set_range((0.0, 1.03 * most / scale), (0.0, 1.03 * most / scale))
        middle = x.size // 2
        notes = [
            Note("pressed", (float(x[-8]), float(found.up[-8] / scale)), T.ink, weight=600),
            Note("let go", (float(x[middle]), float(found.down[middle] / scale)), T.muted),
        ]
        self.set_notes(notes, [(x, found.up / scale), (x, found.down / scale)], [])
        self.show_press()

    def show_press(self) -> None:
        """Mark where the press is."""
        if self.place is None:
            return
        circuit, index = self.place
        found = stages(self._session.solution, self._session.presses, circuit)
        if index < len(found):
            scale = in_units(PRESSURE, self._session.units)
            at = (found[index].inlet / scale, found[index].outlet / scale)
            self.set_markers([Marker(MarkerShape.FOOT, at)])
