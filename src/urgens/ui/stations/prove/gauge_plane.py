"""Outlet over inlet: what was read, what was expected, what is fitted."""

import numpy as np
from PySide6.QtCore import Qt

from urgens.bench.proof_state import Gauged
from urgens.quantity import PRESSURE, in_units, show, unit_shown
from urgens.studies.valve_verdict import ValveRead, falling, rising
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, faint
from urgens.ui.widgets.curve import Area
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import Note, Plane

POINTS = 160
FAKE = "simulated: says nothing of the vehicle"


class GaugePlane(Plane):
    """Filled dots pressed, open dots let go; the live reading in the press's marker."""

    def __init__(self, session: Session) -> None:
        super().__init__("Outlet pressure over inlet pressure, as read")
        self._session = session
        self.expected, self.fitted = Area(T.band), Area(faint(T.rear))
        for area in (self.expected, self.fitted):
            self.plotItem.addItem(area, ignoreBounds=True)
        self.line = self.add_curve(T.rear, 3, name="fitted outlet")
        self.back = self.add_curve(T.muted, 1, Qt.PenStyle.DashLine, name="let go")
        self.next = self.add_curve(T.ink, 1.5, Qt.PenStyle.DashLine, name="read next")
        self._dots: list[Marker] = []
        self._live: tuple[float, float] | None = None

    def show_read(self, gauged: Gauged) -> None:
        """Draw one valve: what it is to show, and what was read."""
        session, wanted = self._session, gauged.wanted
        scale = in_units(PRESSURE, session.units)
        scale_end = wanted.reach if gauged.run is None else min(
            max(wanted.reach, float(rising(gauged.run)[0].max(initial=0.0))),
            gauged.run.full_scale.value,
        )  # fmt: skip
        if wanted.meters is not None:
            scale_end = min(scale_end, 2.0 * float(wanted.meters.full))
        inlet = np.linspace(0.0, 1.05 * scale_end, POINTS)
        low, high = wanted.band(inlet)
        self.expected.set_between(inlet / scale, low / scale, high / scale)
        top = float(high.max())
        self._dots, notes = [], []
        self.line.set_points(np.empty(0), np.empty(0))
        self.fitted.set_between(np.empty(0), np.empty(0), np.empty(0))
        self.back.set_points(np.empty(0), np.empty(0))
        if gauged.run is not None:
            up, down = rising(gauged.run), falling(gauged.run)
            self._dots = [
                *(
                    Marker(MarkerShape.DOT, (float(x), float(y)))
                    for x, y in np.stack(up, 1) / scale
                ),
                *(
                    Marker(MarkerShape.OPEN, (float(x), float(y)))
                    for x, y in np.stack(down, 1) / scale
                ),
            ]
            if down[0].size > 1:
                order = np.argsort(down[0])
                self.back.set_points(down[0][order] / scale, down[1][order] / scale)
            top = max(top, float(up[1].max(initial=0.0)))
        if gauged.read is not None:
            notes = self._draw_fit(gauged.read, inlet, scale)
        if gauged.next is not None:
            x = gauged.next / scale
            self.next.set_points(np.array([x, x]), np.array([0.0, 1.02 * top / scale]))
            words = f"read next at {show(gauged.next, PRESSURE, session.units)}"
            notes.append(Note(words, (x, 0.1 * top / scale), T.ink, weight=600))
        else:
            self.next.set_points(np.empty(0), np.empty(0))
        notes += self._said(gauged, scale)
        self.set_range((0.0, 1.05 * scale_end / scale), (0.0, 1.08 * top / scale))
        self._mark()
        curves = [self.line.points, (inlet / scale, wanted.outlet(inlet) / scale)]
        self.set_notes(notes, [c for c in curves if c[0].size], [m.at for m in self._dots])

    def _draw_fit(self, read: ValveRead, inlet: np.ndarray, scale: float) -> list[Note]:
        session = self._session
        if read.metered is not None:
            self.line.set_points(inlet / scale, read.metered.outlet(inlet) / scale)
            return []
        fit = read.fitted
        if fit is None or not read.knows_line:
            return []
        self.line.set_points(inlet / scale, fit.outlet(inlet) / scale)
        above = np.maximum(inlet - fit.knee, 0.0)
        base = np.minimum(inlet, fit.knee) - fit.offset
        off = fit.knee_off
        low = base + fit.slope_limits[0] * above - off * (above > 0.0)
        high = base + fit.slope_limits[1] * above + off * (above > 0.0)
        self.fitted.set_between(inlet / scale, low / scale, np.minimum(high, inlet) / scale)
        knee = show(fit.knee, PRESSURE, session.units)
        at = (fit.knee / scale, (fit.knee - fit.offset) / scale)
        x = min(fit.knee * 1.8, float(inlet[-1]) * 0.8)
        over = (x / scale, float(fit.outlet(np.asarray(x))) / scale)
        return [
            Note(f"knee {knee}", at, T.rear, weight=600, leader=True),
            Note(f"slope {fit.slope:.2f}", over, T.rear, weight=600, leader=True),
        ]

    def _said(self, gauged: Gauged, scale: float) -> list[Note]:
        wanted = gauged.wanted
        end = 0.92 * wanted.reach
        if wanted.meters is not None:
            end = 1.6 * float(wanted.meters.full)
        at = (end / scale, float(wanted.band(np.asarray(end))[1]) / scale)
        words = "this build" if gauged.run is None else "expected"
        notes = [Note(words, at, T.muted, leader=True)]
        if gauged.run is not None and gauged.run.source == "simulated":
            notes.append(Note(FAKE, (0.03 * end / scale, at[1]), T.warn, weight=600))
        return notes

    def show_live(self, pair: tuple[float, float] | None) -> None:
        """Mark what the gauges show now [Pa], None where nothing is read."""
        scale = in_units(PRESSURE, self._session.units)
        self._live = None if pair is None else (pair[0] / scale, pair[1] / scale)
        self._mark()

    def _mark(self) -> None:
        live = [] if self._live is None else [Marker(MarkerShape.FOOT, self._live)]
        self.set_markers([*self._dots, *live])

    @property
    def axes(self) -> tuple[str, str]:
        """What both axes are, with the unit."""
        unit = unit_shown(PRESSURE, self._session.units)
        return f"Out of it, {unit}", f"Into it, {unit}"
