"""The pedal's feel: effort over travel, whole, with each half lost, and with the booster lost."""

from dataclasses import replace

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from urgens.quantity import FORCE, LENGTH, in_units
from urgens.solve.half_failed import half_lost_travel
from urgens.solve.press import press
from urgens.solve.what_if import SOUND, WhatIf, supposed
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.curve import Curve
from urgens.ui.widgets.markers import Marker, Shape
from urgens.ui.widgets.plane import Note, Plane

POINTS = 121
Points = tuple[np.ndarray, np.ndarray]


class FeelPlane(Plane):
    """Travel of the pad across, effort up; the foot is a point on it."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__("Foot effort against pedal travel", parent)
        self._session = session
        self._floor = self.add_curve(T.danger, 2, Qt.PenStyle.DashLine)
        self._unboosted = self.add_curve(T.muted, 2, Qt.PenStyle.DotLine)
        self.halves: tuple[Curve, Curve] = (
            self.add_curve(T.front, 2, Qt.PenStyle.DashLine),
            self.add_curve(T.rear, 2, Qt.PenStyle.DashLine),
        )
        self.faulty = self.add_curve(T.warn, 2.5)
        self.whole = self.add_curve(T.ink, 3)
        self.supposed: tuple[WhatIf, WhatIf] = (SOUND, SOUND)
        session.press_changed.connect(self._show_press)

    @property
    def scales(self) -> tuple[float, float]:
        """SI units of travel and of effort in one unit shown."""
        units = self._session.units
        return in_units(LENGTH, units), in_units(FORCE, units)

    def refresh(self) -> None:
        """Draw the build as it is now."""
        session, solution = self._session, self._session.solution
        made, standing, surface = solution.system, solution.standing, solution.surface
        scale_x, scale_y = self.scales
        effort = np.linspace(0.0, session.most_effort, POINTS)
        floor = float(made.volumes.floor)
        self.set_range((0.0, 1.06 * floor / scale_x), (0.0, 1.04 * effort[-1] / scale_y))

        def shown(travel: np.ndarray) -> Points:
            known = np.isfinite(travel)
            return travel[known] / scale_x, effort[known] / scale_y

        travel = press(made, effort, standing, surface).pedal_travel
        named: list[tuple[Curve, str, str, Points]] = [
            (self.whole, "all of it", T.ink, shown(travel))
        ]
        self.faulty.setVisible(self.supposed != (SOUND, SOUND))
        if self.supposed != (SOUND, SOUND):
            worse = supposed(session.build, made, *self.supposed)
            travel = press(worse, effort, standing, surface).pedal_travel
            named.append((self.faulty, "what if", T.warn, shown(travel)))
        boosted = session.build.booster.kind != "none"
        self._unboosted.setVisible(boosted)
        if boosted:
            lost = replace(made, booster=replace(made.booster, assist_limit=0.0))
            travel = press(lost, effort, standing, surface).pedal_travel
            named.append((self._unboosted, "booster lost", T.muted, shown(travel)))
        two = len(made.volumes.chambers) == 2
        words = (
            ("one half lost", "the other half lost")
            if made.split == "diagonal"
            else (
                "front lost",
                "rear lost",
            )
        )
        for dead, curve in enumerate(self.halves):
            curve.setVisible(two)
            if two:
                points = shown(half_lost_travel(made, effort, standing, dead))
                named.append((curve, words[dead], (T.front, T.rear)[dead], points))
        top = np.array([0.0, 1.04 * effort[-1] / scale_y])
        self._floor.set_points(np.full(2, floor / scale_x), top)
        notes = [Note("floor", (floor / scale_x, top[1] * 0.96), T.danger, sides=((-1, 1),))]
        for curve, name, color, points in named:
            curve.set_points(*points)
            if points[0].size > 2:
                middle = (2 * points[0].size) // 3
                at = (float(points[0][middle]), float(points[1][middle]))
                notes.append(Note(name, at, color, weight=600))
            elif two and "lost" in name:
                notes.append(Note(f"{name}: no pedal", (0.0, top[1] * 0.5), color, leader=False))
        self.set_notes(notes, [points for *_, points in named if points[0].size], [])
        self._show_press()

    def _show_press(self) -> None:
        if not self.isVisible():
            return
        travel = float(self._session.presses.pedal_travel)
        scale_x, scale_y = self.scales
        at = (travel / scale_x, self._session.effort / scale_y)
        self.set_markers([Marker(Shape.FOOT, at)] if np.isfinite(travel) else [])
