"""A log over time, and its rear line over its front one beside the model's."""

import numpy as np
from PySide6.QtCore import Qt

from urgens.bench.logs.compare import BINS, BeforeAfter, along, model_rear, rising_rows
from urgens.bench.logs.read import ReadLog
from urgens.quantity import PRESSURE, in_units, unit_shown
from urgens.solve.system import System
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, faint
from urgens.ui.widgets.curve import Area
from urgens.ui.widgets.plane import Note, Plane

WIDE = 0.012  # of what was pressed: half the ends of a knee's limits
MOST = 1500  # points that are drawn of a log: of each stretch its lowest and its highest


def thinned(time: np.ndarray, values: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return a log's line with no more points than a screen has."""
    if time.size <= MOST:
        return time, values
    parts = MOST // 2
    size = time.size // parts
    cut = np.nan_to_num(values[: parts * size]).reshape(parts, size)
    at = time[: parts * size].reshape(parts, size)[:, 0]
    pairs = np.stack([cut.min(axis=1), cut.max(axis=1)], axis=1).ravel()
    return np.repeat(at, 2), pairs


class TimePlane(Plane):
    """Front and rear pressure over time; where the pedal is pressed stands a band."""

    def __init__(self, session: Session) -> None:
        super().__init__("Pressures of the log over time")
        self._session = session
        self.pressed = Area(T.band)
        self.plotItem.addItem(self.pressed, ignoreBounds=True)
        self.front = self.add_curve(T.front, 1.5, name="front pressure")
        self.rear = self.add_curve(T.rear, 1.5, Qt.PenStyle.DashLine, name="rear pressure")

    def show_log(self, log: ReadLog) -> None:
        """Draw one log."""
        scale = in_units(PRESSURE, self._session.units)
        found = log.signals
        top = 1.0
        for curve, name in ((self.front, "front_pressure"), (self.rear, "rear_pressure")):
            values = found.get(name)
            if values is None:
                curve.set_points(np.empty(0), np.empty(0))
                continue
            curve.set_points(*thinned(found.time, values / scale))
            top = max(top, float(np.nanmax(values)) / scale)
        x, y = [], []
        for press in log.presses:
            x += [press.start, press.start, press.end, press.end]
            y += [0.0, 1.1 * top, 1.1 * top, 0.0]
        self.pressed.set_between(np.array(x), np.zeros(len(x)), np.array(y))
        first, last = float(found.time[0]), float(found.time[-1])
        self.set_range((first, max(last, first + 0.1)), (0.0, 1.1 * top))
        notes = [
            Note(f"{number}", (press.start, 1.02 * top), T.muted, leader=False)
            for number, press in enumerate(log.presses[:30], start=1)
        ]
        if log.file.simulated:
            notes.append(Note("simulated", (first, 0.9 * top), T.warn, leader=False, weight=600))
        self.set_notes(notes, [], [])


class LinesPlane(Plane):
    """Rear over front: the log's rising parts, the model's line, another log's beside it."""

    def __init__(self, session: Session) -> None:
        super().__init__("Rear over front pressure, as logged and as computed")
        self._session = session
        self.spread, self.other = Area(faint(T.rear)), Area(T.band)
        for area in (self.other, self.spread):
            self.plotItem.addItem(area, ignoreBounds=True)
        self.logged = self.add_curve(T.rear, 2.5, name="logged, median")
        self.before = self.add_curve(T.muted, 2, Qt.PenStyle.DashLine, name="other log, median")
        self.model = self.add_curve(T.ink, 2, name="computed")
        self.knee = self.add_curve(T.rear, 2, name="a press's knee, with its limits")

    def show_log(self, log: ReadLog, system: System, case: int, beside: BeforeAfter | None) -> None:
        """Draw one log beside the model as it was set, and beside another log."""
        session = self._session
        scale = in_units(PRESSURE, session.units)
        front = log.signals.get("front_pressure")
        for area in (self.spread, self.other):
            area.set_between(np.empty(0), np.empty(0), np.empty(0))
        self.before.set_points(np.empty(0), np.empty(0))
        if front is None or log.signals.get("rear_pressure") is None or not log.presses:
            for curve in (self.logged, self.model, self.knee):
                curve.set_points(np.empty(0), np.empty(0))
            return
        rows = rising_rows(log.signals, log.presses)
        right = float(np.nanmax(front[rows]))
        edges = np.linspace(0.0, right, 2 * BINS + 1)
        found = along(log.signals, log.presses, "front_pressure", edges)
        known = np.isfinite(found.quartiles[1])
        at = found.at[known] / scale
        self.spread.set_between(at, found.quartiles[0][known] / scale,
                                found.quartiles[2][known] / scale)  # fmt: skip
        self.logged.set_points(at, found.quartiles[1][known] / scale)
        grid = np.linspace(0.0, 1.05 * right, 120)
        line = model_rear(system, case, grid)
        self.model.set_points(grid / scale, line / scale)
        top = max(float(line.max()), float(np.nanmax(found.quartiles[2]))) / scale
        self.set_range((0.0, 1.05 * right / scale), (0.0, 1.15 * top))
        half = 60
        self._show_knee(log, scale, right)
        notes = [Note("computed", (float(grid[half]) / scale, float(line[half]) / scale), T.ink)]
        if known.any():
            place = int(0.7 * (at.size - 1))
            spot = (float(at[place]), float(found.quartiles[1][known][place]) / scale)
            notes.append(
                Note("simulated" if log.file.simulated else "logged", spot, T.rear, weight=600)
            )
        if beside is not None and beside.before.by == "front_pressure":
            self._show_other(beside, scale)
        self.set_notes(notes, [self.model.points], [])

    def _show_knee(self, log: ReadLog, scale: float, right: float) -> None:
        """Draw how well the knee of the hardest press that shows one is known: a bar with ends."""
        known = [one for one in log.presses if one.fit is not None and one.fit.bends]
        fit = max(known, key=lambda one: one.front_peak or 0.0).fit if known else None
        if fit is None:
            self.knee.set_points(np.empty(0), np.empty(0))
            return
        (low, high), wide = fit.knee_limits, WIDE * right
        x = np.array([-wide, wide, 0.0, 0.0, wide, -wide]) + fit.at
        self.knee.set_points(x / scale, np.array([low, low, low, high, high, high]) / scale)

    def _show_other(self, beside: BeforeAfter, scale: float) -> None:
        other = beside.before
        known = np.isfinite(other.quartiles[1])
        low, middle, high = (row[known] / scale for row in other.quartiles)
        self.other.set_between(other.at[known] / scale, low, high)
        self.before.set_points(other.at[known] / scale, middle)

    @property
    def axes(self) -> tuple[str, str]:
        """What both axes are, with the unit."""
        unit = unit_shown(PRESSURE, self._session.units)
        return f"Rear line, {unit}", f"Front line, {unit}"
