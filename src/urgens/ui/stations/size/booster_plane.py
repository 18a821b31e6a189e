"""The booster's line: force on the cylinder over force on the pushrod."""

import numpy as np
from PySide6.QtCore import Qt

from urgens.quantity import FORCE, in_units
from urgens.solve.effort import run_out_effort
from urgens.solve.line_pressure import booster_output, pushrod_force
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.seen import WhenSeen

POINTS = 241


class BoosterPlane(Plane):
    """Output with the booster and without, where it cracks, jumps in and runs out."""

    def __init__(self, session: Session) -> None:
        super().__init__("Force on the cylinder against force on the pushrod")
        self._session = session
        self.lost = self.add_curve(T.danger, 2, Qt.PenStyle.DashLine, name="booster lost")
        self.fitted = self.add_curve(T.ink, 3, name="as fitted")
        session.press_changed.connect(WhenSeen(self, self._show_press, stale=False).ask)

    def refresh(self) -> None:
        """Draw the build as it is now."""
        session, made = self._session, self._session.solution.system
        scale = in_units(FORCE, session.units)
        most = float(pushrod_force(made, session.most_effort))
        crack = float(made.booster.crack_force)
        pushrod = np.unique(np.append(np.linspace(0.0, most, POINTS), [crack, crack + 1e-6]))
        output = booster_output(made, pushrod)
        alone = np.maximum(pushrod - crack, 0.0)
        self.fitted.set_points(pushrod / scale, output / scale)
        self.lost.set_points(pushrod / scale, alone / scale)
        boosted = session.build.booster.fitted
        self.lost.setVisible(boosted)
        self.set_range((0.0, 1.02 * most / scale), (0.0, 1.08 * float(output[-1]) / scale))
        notes = [Note("no booster", (most * 0.7 / scale, output[-1] * 0.7 / scale))]
        if boosted:
            notes = self._said(crack, scale, most)
        curves = [self.fitted.points, *([self.lost.points] if boosted else [])]
        self.set_notes(notes, curves, [])
        self._show_press()

    def _said(self, crack: float, scale: float, most: float) -> list[Note]:
        made = self._session.solution.system
        assist = made.booster
        jump = float(booster_output(made, np.asarray(crack + 1e-6)))
        notes = [Note("booster lost", (0.8 * most / scale, (0.8 * most - crack) / scale), T.danger)]
        if float(assist.assist_limit) <= 0:
            return notes
        foot = run_out_effort(made)
        end = float(pushrod_force(made, foot))
        notes.append(Note(f"cracks, jumps in to {jump / scale:.0f}", (crack / scale, jump / scale)))
        if end < most:
            there = float(booster_output(made, np.asarray(end)))
            words = f"runs out at {foot / scale:.0f} of foot"
            notes.append(Note(words, (end / scale, there / scale), weight=600))
        return notes

    def _show_press(self) -> None:
        scale, pressed = in_units(FORCE, self._session.units), self._session.presses
        at = (float(pressed.pushrod_force) / scale, float(pressed.booster_output) / scale)
        self.set_markers([Marker(MarkerShape.FOOT, at)])
