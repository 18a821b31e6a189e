"""Speeds of a stop over time, with where it has got."""

import numpy as np
from PySide6.QtCore import Qt

from urgens.bench.road.drives import Drive
from urgens.physics.axle import Axle
from urgens.quantity import SPEED, Units, in_units
from urgens.ui.theme.paint import T
from urgens.ui.widgets.plane import Note, Plane


class WheelSpeedPlane(Plane):
    """Speeds of the vehicle and of its wheels over time."""

    def __init__(self) -> None:
        super().__init__("Speed of the vehicle and of its wheels over time")
        self.vehicle = self.add_curve(T.ink, 2, name="vehicle")
        self.front = self.add_curve(T.front, 2.5, name="front wheels")
        self.rear = self.add_curve(T.rear, 2.5, Qt.PenStyle.DashLine, name="rear wheels")
        self.now = self.add_curve(T.muted, 1, name="now")

    def show_drive(self, drive: Drive, units: Units) -> None:
        """Draw one stop."""
        scale = in_units(SPEED, units)
        top = 1.08 * float(drive.speed[0]) / scale
        self.set_range((0.0, float(drive.time[-1])), (0.0, top))
        for curve, values in ((self.vehicle, drive.speed), (self.front, drive.front_speed),
                              (self.rear, drive.rear_speed)):  # fmt: skip
            curve.set_points(drive.time, values / scale)
        notes = []
        for axle, at in drive.locked:
            color = T.front if axle == Axle.FRONT else T.rear
            notes.append(Note(f"{axle} locks", (at, 0.06 * top), color, weight=600))
        half = int(0.3 * drive.time.size)
        middle = (float(drive.time[half]), float(drive.speed[half]) / scale)
        notes.append(Note("vehicle", middle, T.ink))
        locked = {axle for axle, _ in drive.locked}
        for axle, color, values in ((Axle.FRONT, T.front, drive.front_speed),
                                    (Axle.REAR, T.rear, drive.rear_speed)):  # fmt: skip
            if axle not in locked:
                at = int(0.6 * drive.time.size)
                place = (float(drive.time[at]), float(values[at]) / scale)
                notes.append(Note(f"{axle} wheels", place, color, weight=600))
        self.set_notes(notes, [self.vehicle.points, self.front.points, self.rear.points], [])

    def show_moment(self, moment: float) -> None:
        """Mark where the stop has got."""
        _, (low, high) = self.box.viewRange()
        self.now.set_points(np.array([moment, moment]), np.array([low, high]))
