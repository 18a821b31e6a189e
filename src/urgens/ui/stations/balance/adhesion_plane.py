"""Grip used on each axle against deceleration."""

import math
from itertools import zip_longest

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtGui import QHideEvent, QShowEvent
from PySide6.QtWidgets import QWidget

from urgens.document.evidence import open_figures
from urgens.physics.arrays import Array
from urgens.physics.standards import ADHESION_RANGE
from urgens.solve.corner import cornering
from urgens.studies.settle import presses_at_both_ends
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, faint, hatch
from urgens.ui.widgets.curve import Area, Points
from urgens.ui.widgets.follows import Follows
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.timers import once

POINTS = 81
SPREAD_POINTS = 41
# Sides of a curve
UPPER = ((-1, -1), (0, -1), (-1, 0))
LOWER = ((1, 1), (0, 1), (1, 0))
NAMED_BELOW = 0.85  # of the plot's height: above it there is no room for a name
QUIET = 200  # ms without a change before the spread is computed


class AdhesionPlane(Plane):
    """Front and rear adhesion used, the tyre limit, and the line of a rule."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__("Grip used on each axle against deceleration", parent)
        self._session = session
        self._rule = Area(T.hair)
        self._rule.setBrush(hatch(T.hair))
        self.plotItem.addItem(self._rule, ignoreBounds=True)
        for side in ("left", "bottom"):
            self.plotItem.getAxis(side).setTickSpacing(levels=[(0.2, 0)])
        self._spreads = [self.add_curve(faint(color)) for color in (T.front, T.rear)]
        self._timer = once(self, QUIET, self.show_spread)
        self._even = self.add_curve(T.hair, name="both axles alike")
        self._limit = self.add_curve(T.danger, 2, Qt.PenStyle.DashLine, name="tyre limit")
        self._left = [
            self.add_curve(color, 2, Qt.PenStyle.DotLine, name=f"{name} in the corner")
            for name, color in (("front", T.front), ("rear", T.rear))
        ]
        self._now = self.add_curve(T.ink, name="your foot")
        self._front = self.add_curve(T.front, 3, name="front")
        self._rear = self.add_curve(T.rear, 3, Qt.PenStyle.DashLine, name="rear")
        self._follows = Follows(
            self,
            session,
            curves=self._show_solution,
            words=self._show_notes,
            press=self._show_press,
        )

    def _outside(self) -> tuple[Points, Points]:
        """Outline what uses more adhesion than the rule allows at its deceleration."""
        low, high = ADHESION_RANGE
        steep = self._session.solution.system.rule.steepness
        at_low, at_high = (0.1 + steep * (k - 0.2) for k in (low, high))
        z = np.array([0.0, at_low, at_high, 0.0, 0.0])
        return z, np.array([low, low, high, high, low])

    def _show_solution(self) -> None:
        solution = self._session.solution
        self._rule.set_points(*self._outside())
        self._top = 1.2 if solution.surface <= 1.0 else math.ceil(solution.surface * 5 + 1) / 5
        self.set_range((0.0, self._top), (0.0, self._top))
        pressed = solution.press(np.linspace(0.0, self._session.most_effort, POINTS))
        z, self._z = pressed.demand_z, pressed.demand_z
        self._used = (pressed.front_used, pressed.rear_used)
        for curve, used in zip((self._front, self._rear), self._used, strict=True):
            finite = np.isfinite(used)
            curve.set_points(z[finite], used[finite])
        ends = np.array([0.0, self._top])
        self._even.set_points(ends, ends)
        self._limit.set_points(ends, np.full(2, solution.surface))
        self._show_corner(ends)
        for curve in self._spreads:
            curve.setVisible(False)  # of another build; shown anew once the hand is still
        if self.isVisible():
            self._timer.start()

    def _show_corner(self, ends: Array) -> None:
        """Show what a corner leaves of the road to each axle, where one is asked for."""
        standing = self._session.solution.standing
        left = cornering(self._session.solution)
        self._corner: tuple[float, ...] = ()
        if left is not None:
            shares = (
                float(left.front_grip / standing.front_grip),
                float(left.rear_grip / standing.rear_grip),
            )
            self._corner = tuple(self._session.solution.surface * share for share in shares)
        for curve, mu in zip_longest(self._left, self._corner):
            curve.setVisible(mu is not None)
            if mu is not None:
                curve.set_points(ends, np.full(2, mu))

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self._timer.start()

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        self._timer.stop()

    def show_spread(self) -> None:
        """Show where the curves may lie: every open figure at both ends of its spread."""
        session, solution = self._session, self._session.solution
        figures = tuple(f for f in open_figures(solution.build) if f.half_width > 0)
        if not figures:
            return
        efforts = np.linspace(0.0, session.most_effort, SPREAD_POINTS)
        found = presses_at_both_ends(
            solution.build, figures, solution.case, efforts, solution.surface
        )
        rows = (2 * len(figures), efforts.size)
        z = np.broadcast_to(found.demand_z.reshape(-1, efforts.size), rows)
        for curve, used in zip(self._spreads, (found.front_used, found.rear_used), strict=True):
            used_rows = np.broadcast_to(used.reshape(-1, efforts.size), rows)
            gap = np.full((rows[0], 1), np.nan)  # between one variant's curve and the next
            curve.set_points(np.hstack((z, gap)).ravel(), np.hstack((used_rows, gap)).ravel())
            curve.setVisible(True)

    def _show_press(self) -> None:
        pressed = self._session.presses
        z = float(pressed.demand_z)
        self._now.set_points(np.array([z, z]), np.array([0.0, self._top]))
        used = (
            (MarkerShape.FRONT, float(pressed.front_used)),
            (MarkerShape.REAR, float(pressed.rear_used)),
        )
        self.set_markers([Marker(shape, (z, share)) for shape, share in used if share <= self._top])

    def _corner_notes(self) -> list[Note]:
        """Name what is left in the corner: one figure where it is the same for both axles."""
        if not self._corner:
            return []
        front, rear = (f"{mu:.2f}" for mu in self._corner)
        said = front if front == rear else f"front {front}, rear {rear}"
        words = f"left with {self._session.build.targets.corner:g} g to the side: {said}"
        return [Note(words, (0.02, min(self._corner)), T.muted, 13, 400, sides=((1, 1), (1, -1)))]

    def _show_notes(self) -> None:
        surface, z = self._session.solution.surface, self._z
        curves = []
        notes = [
            Note(
                f"tyre limit μ {surface:.2f}",
                (0.02, surface),
                T.danger,
                14,
                600,
                sides=((1, -1), (1, 1)),
            ),
            Note(
                f"outside {self._session.solution.system.rule.name}",
                (0.0, 0.74),
                T.muted,
                13,
                400,
                sides=((1, 0), (1, 1), (1, -1)),
            ),
        ]
        notes += self._corner_notes()
        front, rear = self._used
        both = (
            np.isfinite(front)
            & np.isfinite(rear)
            & (np.maximum(front, rear) <= NAMED_BELOW * self._top)
        )
        widest = int(np.argmax(np.where(both, np.abs(front - rear), -1.0)))
        for name, color, used, other in (
            ("Front", T.front, front, rear),
            ("Rear", T.rear, rear, front),
        ):
            shown = np.isfinite(used) & (used <= self._top) & (z <= self._top)
            if not shown.any() or z[shown][-1] <= 0:
                continue
            curves.append((z[shown], used[shown]))
            # Named where they are most apart, each on the side that is away from the other.
            at = widest if both.any() else int(np.flatnonzero(shown)[-1])
            sides = LOWER if used[at] < other[at] else UPPER
            notes.append(Note(name, (z[at], used[at]), color, 15, 600, sides=sides))
        self.set_notes(notes, curves, [])
