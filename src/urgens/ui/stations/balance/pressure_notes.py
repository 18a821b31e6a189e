"""What the pressure plane writes beside its curves."""

import numpy as np
from PySide6.QtCore import Qt

from urgens.solve import AxleName
from urgens.ui.stations.balance.pressure_curves import IDEAL_Z, Curve, PressureCurves
from urgens.ui.theme.paint import T, metrics
from urgens.ui.widgets.plane import Note

Z_MARKS = (0.3, 0.5, 0.7, 0.9)  # g, dots on the chosen ideal line
NAMES_AT = 0.97  # of the front axis
MOST_NAMED = 4  # load cases; more would hide the curves
NAME_WIDTH = 150  # px
NO_VALVE_AT = 0.93  # of what is seen of that line


def foot_note(foot: tuple[float, float]) -> Note:
    """Name the point where the press is."""
    return Note("your foot", foot, weight=600, sides=((1, 1), (0, 1), (1, 0), (-1, -1)))


def z_marks(curves: PressureCurves, case: int) -> tuple[Curve, Curve, list[float]]:
    """Return where decelerations lie on a load case's ideal line, and which ones."""
    front = np.interp(Z_MARKS, IDEAL_Z, curves.ideal_front[case])
    rear = np.interp(Z_MARKS, IDEAL_Z, curves.ideal_rear[case])
    shown = front < curves.right
    return front[shown], rear[shown], list(np.array(Z_MARKS)[shown])


def notes(
    curves: PressureCurves, names: tuple[str, ...], chosen: int, *, reduced: bool
) -> list[Note]:
    """Return the notes of the plane, most wanted first."""
    written: list[Note] = []
    if curves.lock is not None:
        axle, front, rear, z = curves.lock
        color = T.front if axle is AxleName.FRONT else T.danger
        words = f"{axle.name.lower()} locks, {z:.2f} g"
        sides = ((1, 1), (0, 1), (-1, -1), (1, 0))
        written.append(Note(words, (front, rear), color, weight=600, sides=sides))
    above = "Above its curve the rear locks first"
    corner = (0.0, curves.top)
    written.append(Note(above, corner, T.danger, sides=((1, 1),), leader=False))
    if reduced and not T.stands_back:
        written.append(_no_valve(curves))
    written += [_case(curves, index, names[index], chosen) for index in _named(curves, chosen)]
    if T.stands_back:
        return written
    sides = ((-1, -1), (0, -1), (1, 1), (0, 1))
    front_marks, rear_marks, marks = z_marks(curves, chosen)
    written += [
        Note(f"{z:.1f} g", (float(x), float(y)), size=14, sides=sides)
        for x, y, z in zip(front_marks, rear_marks, marks, strict=True)
    ]
    return written


def _no_valve(curves: PressureCurves) -> Note:
    steepness = float(curves.arriving.max()) / max(float(curves.front.max()), 1e-9)
    at = NO_VALVE_AT * min(curves.top / max(steepness, 1e-9), curves.right)
    across = float(np.interp(at, curves.front, curves.arriving))
    return Note("no valve", (at, across), T.rear, 14, sides=((-1, 0), (-1, -1), (1, 1)))


def _named(curves: PressureCurves, chosen: int) -> list[int]:
    """Return the load cases named on the plot: of many only the chosen one and the outer two."""
    count = len(curves.ideal_rear)
    if count <= MOST_NAMED:
        return list(range(count))
    highest = curves.ideal_rear.max(axis=1)
    return sorted({chosen, int(np.argmin(highest)), int(np.argmax(highest))})


def _case(curves: PressureCurves, index: int, name: str, chosen: int) -> Note:
    at = curves.right * NAMES_AT
    across = float(np.interp(at, curves.ideal_front[index], curves.ideal_rear[index]))
    color, weight = (T.ink, 600) if index == chosen else (T.muted, 400)
    sides = ((-1, -1), (-1, 1), (0, -1), (-1, 0))
    shown = metrics(14, 600).elidedText(name, Qt.TextElideMode.ElideRight, NAME_WIDTH)
    return Note(shown, (at, across), color, 14, weight, sides=sides)
