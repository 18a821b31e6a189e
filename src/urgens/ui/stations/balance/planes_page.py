"""Four more views of the balance: forces, low pressures, the front's share, efficiency by road."""

from dataclasses import replace

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from urgens.physics.axle import Pair
from urgens.physics.valve_law import MeteringLaw
from urgens.quantity import PRESSURE, in_units, parse, unit_shown
from urgens.solve.corner import cornering
from urgens.studies.balance_curves import (
    at_tolerance,
    efficiency_by_surface,
    efficiency_in_corner,
    ideal_band,
    ideal_line,
    line,
    lock_lines,
)
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, faint
from urgens.ui.widgets.curve import Area, PlotCurve
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.seen import WhenSeen
from urgens.ui.widgets.worded import worded

POINTS = 201
SURFACES = np.linspace(0.1, 1.2, 56)
CONTOURS = (0.2, 0.4, 0.6, 0.8, 1.0, 1.2)  # g
LOW = parse("260 psi", PRESSURE).value  # what is magnified
DASH = Qt.PenStyle.DashLine
DOT = Qt.PenStyle.DotLine


class ForcePlane(Plane):
    """Axle forces over the vehicle's weight: contours of deceleration, lock lines, the ideal."""

    def __init__(self, session: Session) -> None:
        super().__init__("Rear against front braking force, over the weight")
        self._session = session
        self.contours = [self.add_curve(T.grid, 1) for _ in CONTOURS]
        self.locks: list[tuple[PlotCurve, PlotCurve]] = []
        self.corner = (self.add_curve(T.front, 2, DOT), self.add_curve(T.rear, 2, DOT))
        self.band = Area(T.band)
        self.made = Area(faint(T.rear))
        for depth, area in ((-50, self.band), (-40, self.made)):
            area.setZValue(depth)
            self.plotItem.addItem(area, ignoreBounds=True)
        self.ideal = self.add_curve(T.ink, 2, name="ideal")
        self.actual = self.add_curve(T.rear, 3, name="these brakes")

    def refresh(self) -> None:
        """Draw the load case chosen."""
        session, solution = self._session, self._session.solution
        weight = float(solution.standing.weight)
        found = line(solution, np.linspace(0.0, session.most_effort, POINTS))
        x, y = found.front_force / weight, found.rear_force / weight
        z = np.linspace(0.0, 1.6, POINTS)
        ideal = ideal_line(solution, z)
        right = max(0.9, 1.05 * float(x[-1]))
        top = max(0.35, 1.25 * float(np.max(ideal[1])), 1.05 * float(y[-1]))
        self.set_range((0.0, right), (0.0, top))
        for contour, level in zip(self.contours, CONTOURS, strict=True):
            contour.set_points(np.array([0.0, level]), np.array([level, 0.0]))
        self.ideal.set_points(*ideal)
        grid, low, high = ideal_band(solution, z)
        self.band.set_between(grid, low, high)
        self.actual.set_points(x, y)
        self._show_tolerance(found.effort, weight)
        notes = [
            Note("ideal", _inside(*ideal, right, top), T.ink),
            Note("these brakes", (float(x[-1]), float(y[-1])), T.rear, weight=600),
            *(
                Note(f"{level:g} g", _on_contour(level, top), T.muted, size=13, leader=False)
                for level in CONTOURS
                if level < right + top
            ),
        ]
        notes += self._show_locks(right, top) + self._show_corner(right, top)
        self.set_notes(notes, [ideal, (x, y)], [])
        self.show_press()

    def _show_tolerance(self, efforts: np.ndarray, weight: float) -> None:
        """Shade where the rear lies with its valve at the ends of its production tolerance."""
        found = at_tolerance(self._session.solution, efforts)
        self.made.setVisible(found is not None)
        if found is not None:
            low, high = found
            self.made.set_between(
                low.front_force / weight, low.rear_force / weight, high.rear_force / weight
            )

    def _show_locks(self, right: float, top: float) -> list[Note]:
        """Draw where each axle locks on each road."""
        solution = self._session.solution
        shown = [solution.surfaces[road] for road in solution.shown]
        while len(self.locks) < len(shown):
            self.locks.append(
                (self.add_curve(T.front, 1.5, DASH), self.add_curve(T.rear, 1.5, DOT))
            )
        notes = []
        for index, pair in enumerate(self.locks):
            for curve in pair:
                curve.setVisible(index < len(shown))
            if index >= len(shown):
                continue
            surface = shown[index]
            grid = np.linspace(0.0, 1.6, POINTS)
            at_front, at_rear = lock_lines(solution, surface, grid)
            pair[0].set_points(at_front, grid)
            pair[1].set_points(grid, at_rear)
            x = float(at_front[0])
            if x < right:
                notes.append(Note(f"front locks, {surface:g}", (x, 0.02 * top), T.front, size=13))
        return notes

    def _show_corner(self, right: float, top: float) -> list[Note]:
        """Draw where each axle locks in the corner, where one is asked for."""
        solution = self._session.solution
        left = cornering(solution)
        for curve in self.corner:
            curve.setVisible(left is not None)
        if left is None:
            return []
        grid = np.linspace(0.0, 1.6, POINTS)
        at_front, at_rear = lock_lines(solution, solution.surface, grid, left)
        self.corner[0].set_points(at_front, grid)
        self.corner[1].set_points(grid, at_rear)
        x = float(at_front[0])
        words = f"with {solution.build.targets.corner:g} g to the side"
        return [Note(words, (x, 0.12 * top), T.front, size=13)] if x < right else []

    def show_press(self) -> None:
        weight = float(self._session.solution.standing.weight)
        pressed = self._session.presses
        at = (float(pressed.front_force) / weight, float(pressed.rear_force) / weight)
        self.set_markers([Marker(MarkerShape.FOOT, at)])


class LowPlane(Plane):
    """The lowest pressures magnified: what a metering valve holds back."""

    def __init__(self, session: Session) -> None:
        super().__init__("Pressure at the brakes against the cylinder's, lowest part")
        self._session = session
        self.even = self.add_curve(T.hair, 1.5)
        self.front = self.add_curve(T.front, 3, name="front")
        self.rear = self.add_curve(T.rear, 3, DASH, name="rear")

    def refresh(self) -> None:
        """Draw the build as it is now."""
        session, scale = self._session, in_units(PRESSURE, self._session.units)
        whole = line(session.solution, np.linspace(0.0, session.most_effort, 2401))
        some = whole.master <= 1.2 * LOW
        x = whole.master[some] / scale
        front, rear = whole.front_pressure[some] / scale, whole.rear_pressure[some] / scale
        self.set_range((0.0, LOW / scale), (0.0, LOW / scale))
        self.even.set_points(np.array([0.0, LOW / scale]), np.array([0.0, LOW / scale]))
        self.front.set_points(x, front)
        self.rear.set_points(x, rear)
        held = any(isinstance(v, MeteringLaw) for v in session.solution.system.valves.front)
        middle = int(0.45 * x.size)
        words = "front, held off" if held else "front"
        notes = []
        if x.size > 4:
            notes = [
                Note(words, (float(x[middle]), float(front[middle])), T.front, weight=600),
                Note("rear", (float(x[middle]), float(rear[middle])), T.rear, weight=600),
            ]
        self.set_notes(notes, [(x, front), (x, rear)], [])


class SharePlane(Plane):
    """The front's share of the braking over the cylinder's pressure; without metering, thin."""

    def __init__(self, session: Session) -> None:
        super().__init__("Share of the braking in front, against pressure")
        self._session = session
        self.bare = self.add_curve(T.front, 1.5, DOT, name="without metering")
        self.share = self.add_curve(T.front, 3, name="as built")

    def refresh(self) -> None:
        """Draw the build as it is now."""
        session, solution = self._session, self._session.solution
        scale = in_units(PRESSURE, session.units)
        efforts = np.linspace(0.0, session.most_effort, 801)
        found = line(solution, efforts)
        x, y = found.master / scale, 100.0 * found.front_share
        made = solution.system
        kept = tuple(v for v in made.valves.front if not isinstance(v, MeteringLaw))
        held = len(kept) < len(made.valves.front)
        bare = line(solution, efforts, replace(made, valves=Pair(kept, made.valves.rear)))
        self.bare.setVisible(held)
        self.bare.set_points(bare.master / scale, 100.0 * bare.front_share)
        self.share.set_points(x, y)
        self.set_range((0.0, max(float(x[-1]), 1.0)), (0.0, 100.0))
        known = np.flatnonzero(np.isfinite(y))
        notes = []
        if known.size:
            last = int(known[-1])
            notes.append(Note("as built", (float(x[last]), float(y[last])), T.front, weight=600))
            if held:
                at = int(known[known.size // 12])
                spot = (float(x[at]), float(100.0 * bare.front_share[at]))
                notes.append(Note("without metering", spot, T.front))
        self.set_notes(notes, [(x[known], y[known])], [])


class EfficiencyPlane(Plane):
    """How much of the road's grip is used when the first axle locks, one curve a load case."""

    def __init__(self, session: Session) -> None:
        super().__init__("Grip used at first lock, against the road")
        self._session = session
        self.whole: list[PlotCurve] = []
        self.rear: list[PlotCurve] = []
        self.corner = self.add_curve(T.ink, 2, DOT), self.add_curve(T.danger, 4, DOT)

    def _show_corner(self) -> tuple[list[Note], list[tuple[np.ndarray, np.ndarray]]]:
        """Draw the load case chosen in the corner, where one is asked for."""
        solution = self._session.solution
        found = efficiency_in_corner(solution, SURFACES)
        for curve in self.corner:
            curve.setVisible(found is not None)
        if found is None:
            return [], []
        y, rear = 100.0 * found[0], found[1]
        known = np.isfinite(y)
        self.corner[0].set_points(SURFACES[known], y[known])
        self.corner[1].set_points(SURFACES, np.where(rear, y, np.nan))
        if not known.any():
            return [], []
        at = int(np.flatnonzero(known)[0])
        words = f"with {solution.build.targets.corner:g} g to the side"
        spot = (float(SURFACES[at]), float(y[at]))
        return [Note(words, spot, T.danger if rear[at] else T.ink)], [(SURFACES[known], y[known])]

    def refresh(self) -> None:
        """Draw all load cases."""
        solution = self._session.solution
        efficiency, rear = efficiency_by_surface(solution, SURFACES)
        while len(self.whole) < len(efficiency):
            self.whole.append(self.add_curve(T.ink, 2))
            self.rear.append(self.add_curve(T.danger, 4))
        notes, curves = self._show_corner()
        for index, (curve, bad) in enumerate(zip(self.whole, self.rear, strict=True)):
            shown = index < len(efficiency)
            curve.setVisible(shown)
            bad.setVisible(shown)
            if not shown:
                continue
            own = index == solution.case
            curve.set_look(T.ink if own else T.muted, 3 if own else 1.5, Qt.PenStyle.SolidLine)
            y = 100.0 * efficiency[index]
            known = np.isfinite(y)
            curve.set_points(SURFACES[known], y[known])
            bad.set_points(SURFACES, np.where(rear[index], y, np.nan))
            if known.any():
                curves.append((SURFACES[known], y[known]))
                at = int(np.flatnonzero(known)[-1 if own else known.sum() // 3])
                name = solution.system.case_names[index]
                notes.append(
                    Note(name, (float(SURFACES[at]), float(y[at])), T.ink if own else T.muted)
                )
            if rear[index].any():
                at = int(np.flatnonzero(rear[index])[0])
                spot = (float(SURFACES[at]), float(y[at]))
                notes.append(Note("rear first", spot, T.danger, weight=600))
        self.set_range((float(SURFACES[0]), float(SURFACES[-1])), (40.0, 102.0))
        self.set_notes(notes, curves, [])


class PlanesPage(Page):
    """All four at once."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.forces, self.low = ForcePlane(session), LowPlane(session)
        self.share, self.roads = SharePlane(session), EfficiencyPlane(session)
        self.axes = [(worded("", "heading"), worded("", "small")) for _ in range(4)]
        grid = tight(QGridLayout(self))
        grid.setHorizontalSpacing(22)
        grid.setVerticalSpacing(10)
        planes = (self.forces, self.low, self.share, self.roads)
        for index, (plane, (title, across)) in enumerate(zip(planes, self.axes, strict=True)):
            cell = QWidget()
            column = tight(QVBoxLayout(cell), 0)
            column.addWidget(title)
            column.addWidget(plane, 1)
            across.setAlignment(Qt.AlignmentFlag.AlignRight)
            column.addWidget(across)
            grid.addWidget(cell, index // 2, index % 2)
            if T.stands_back:
                cell.setVisible(index == 0)
        self.press = WhenSeen(self.forces, self.forces.show_press, stale=False)
        session.press_changed.connect(self.press.ask)

    @property
    def summary(self) -> str:
        """Which load case is drawn."""
        return f"{self.session.solution.case_name}; crimson is where the rear is first"

    def show_figures(self) -> None:
        """Draw the build as it is now."""
        unit = unit_shown(PRESSURE, self.session.units)
        for (title, across), (words, axis) in zip(
            self.axes,
            (
                ("Rear force over front force, of the weight", "front force over weight"),
                (f"At the brakes, {unit}: the lowest pressures", f"at the cylinder, {unit}"),
                ("In front, % of the braking", f"at the cylinder, {unit}"),
                ("Grip used at first lock, %", "tyre-road coefficient"),
            ),
            strict=True,
        ):
            title.setText(words)
            across.setText(axis)
        for plane in (self.forces, self.low, self.share, self.roads):
            plane.refresh()


def _on_contour(level: float, top: float) -> tuple[float, float]:
    """Return where a contour of deceleration is named: at the left or at the upper edge."""
    x = max(level - 0.97 * top, 0.012)
    return x, level - x


def _inside(x: np.ndarray, y: np.ndarray, right: float, top: float) -> tuple[float, float]:
    """Return the last point of a curve that is seen."""
    seen = np.flatnonzero((x < 0.97 * right) & (y < 0.97 * top) & (y > 0))
    at = int(seen[-1]) if seen.size else 0
    return float(x[at]), float(y[at])
