"""The pedal's feel: effort over travel, whole, with each half lost, and with the booster lost."""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from urgens.quantity import FORCE, LENGTH, in_units
from urgens.solve.half_failed import half_lost_travel
from urgens.solve.press import press
from urgens.solve.system import System
from urgens.studies.what_if import SOUND, WhatIf, supposed
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.curve import PlotCurve
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.seen import WhenSeen

POINTS = 121
Points = tuple[np.ndarray, np.ndarray]


class FeelPlane(Plane):
    """Travel of the pad across, effort up; the foot is a point on it."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__("Foot effort against pedal travel", parent)
        self._session = session
        self._floor = self.add_curve(T.danger, 2, Qt.PenStyle.DashLine, name="floor")
        self._unboosted = self.add_curve(T.muted, 2, Qt.PenStyle.DotLine, name="booster lost")
        self.halves: tuple[PlotCurve, PlotCurve] = (
            self.add_curve(T.front, 2, Qt.PenStyle.DashLine),
            self.add_curve(T.rear, 2, Qt.PenStyle.DashLine),
        )
        self.faulty = self.add_curve(T.warn, 2.5, name="what if")
        self.whole = self.add_curve(T.ink, 3, name="whole")
        self.supposed: tuple[WhatIf, WhatIf] = (SOUND, SOUND)
        session.press_changed.connect(WhenSeen(self, self._show_press, stale=False).ask)

    @property
    def scales(self) -> tuple[float, float]:
        """SI units of travel and of effort in one unit shown."""
        units = self._session.units
        return in_units(LENGTH, units), in_units(FORCE, units)

    def refresh(self) -> None:
        """Draw the build as it is now."""
        session, volumes = self._session, self._session.solution.system.volumes
        scale_x, scale_y = self.scales
        effort = np.linspace(0.0, session.most_effort, POINTS)
        floor = float(volumes.floor)
        self.set_range((0.0, 1.06 * floor / scale_x), (0.0, 1.04 * effort[-1] / scale_y))
        top = np.array([0.0, 1.04 * effort[-1] / scale_y])
        self._floor.set_points(np.full(2, floor / scale_x), top)
        notes = [Note("floor", (floor / scale_x, top[1] * 0.96), T.danger, sides=((-1, 1),))]
        shown = []
        for curve, name, color, travel in self._curves(effort):
            known = np.isfinite(travel)
            points = travel[known] / scale_x, effort[known] / scale_y
            curve.set_points(*points)
            if points[0].size:
                shown.append(points)
            if points[0].size > 2:
                middle = (2 * points[0].size) // 3
                at = (float(points[0][middle]), float(points[1][middle]))
                notes.append(Note(name, at, color, weight=600))
            elif "lost" in name and curve in self.halves:
                notes.append(Note(f"{name}: no pedal", (0.0, top[1] * 0.5), color, leader=False))
        self.set_notes(notes, shown, [])
        self._show_press()

    def _curves(self, effort: np.ndarray) -> Iterator[tuple[PlotCurve, str, str, np.ndarray]]:
        """Yield each curve that is shown with its name, colour and pad travel [m]."""
        session, solution = self._session, self._session.solution
        made, standing, surface = solution.system, solution.standing, solution.surface

        def travel(system: System) -> np.ndarray:
            return press(system, effort, standing, surface).pedal_travel

        yield self.whole, "all of it", T.ink, travel(made)
        what_if = self.supposed != (SOUND, SOUND)
        self.faulty.setVisible(what_if)
        if what_if:
            worse = supposed(session.build, made, *self.supposed)
            yield self.faulty, "what if", T.warn, travel(worse)
        boosted = session.build.booster.fitted
        self._unboosted.setVisible(boosted)
        if boosted:
            lost = replace(made, booster=replace(made.booster, assist_limit=0.0))
            yield self._unboosted, "booster lost", T.muted, travel(lost)
        two = len(made.volumes.chambers) == 2
        road = self._session.solution.build.targets.surface
        diagonal = made.split == "diagonal"
        words = (
            ("one half lost", "the other half lost") if diagonal else ("front lost", "rear lost")
        )
        for dead, curve in enumerate(self.halves):
            curve.setVisible(two)
            if two:
                half = half_lost_travel(made, effort, standing, road, dead)
                yield curve, words[dead], (T.front, T.rear)[dead], half

    def _show_press(self) -> None:
        travel = float(self._session.presses.pedal_travel)
        scale_x, scale_y = self.scales
        at = (travel / scale_x, self._session.effort / scale_y)
        self.set_markers([Marker(MarkerShape.FOOT, at)] if np.isfinite(travel) else [])
