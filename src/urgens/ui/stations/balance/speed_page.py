"""What downforce does to the balance: who is first as the vehicle gets faster."""

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.physics.axle import AXLES
from urgens.quantity import (
    LOAD,
    SPEED,
    UnitSystem,
    completed,
    in_units,
    parse,
    retype,
    show,
    unit_shown,
)
from urgens.quantity.limits import FASTEST
from urgens.studies.balance_curves import SpeedLocks, lock_over_speed
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.curve import PlotCurve
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.stepper import Stepper
from urgens.ui.widgets.worded import worded, wrapped

POINTS = 41
TOP_SPEED = parse("250 km/h", SPEED).value
STEP = {
    UnitSystem.INCH: parse("5 mph", SPEED).value,
    UnitSystem.METRIC: parse("10 km/h", SPEED).value,
}
NEW = {"front_cl_area": "0.10 m^2", "rear_cl_area": "0.20 m^2"}
OUT = (
    "Drag is left out: it slows the vehicle and loads no axle here. The rules of UN R13-H are "
    "compared without downforce."
)


class LockSpeedPlane(Plane):
    """Deceleration at first lock over speed, a curve a load case; crimson where the rear is."""

    def __init__(self, session: Session) -> None:
        super().__init__("Deceleration at first lock against speed")
        self._session = session
        self.limit = self.add_curve(T.danger, 1.5, Qt.PenStyle.DashLine)
        self.now = self.add_curve(T.muted, 1)
        self.curves: list[tuple[PlotCurve, PlotCurve]] = []

    def show_locks(self, speeds: np.ndarray, locks: SpeedLocks) -> None:
        """Draw what was found."""
        session = self._session
        x = speeds / in_units(SPEED, session.units)
        while len(self.curves) < len(locks.z):
            self.curves.append((self.add_curve(T.ink, 2), self.add_curve(T.danger, 4)))
        chosen, notes, lines = session.solution.case, [], []
        every = np.append(locks.limit, locks.z)
        top = 1.08 * float(np.nanmax(every, initial=0.1))
        foot = 0.85 * float(np.nanmin(every, initial=top))
        for index, (curve, bad) in enumerate(self.curves):
            there = index < len(locks.z)
            curve.setVisible(there)
            bad.setVisible(there)
            if not there:
                continue
            own = index == chosen
            color = T.ink if own else T.muted
            curve.set_look(color, 3 if own else 1.5, Qt.PenStyle.SolidLine)
            z = locks.z[index]
            curve.set_points(x, z)
            bad.set_points(x, np.where(locks.rear_first[index], z, np.nan))
            known = np.flatnonzero(np.isfinite(z))
            if known.size:
                lines.append((x[known], z[known]))
                at = int(known[-1 if own else known.size // 2])
                name = session.solution.system.case_names[index]
                notes.append(Note(name, (float(x[at]), float(z[at])), color))
            if locks.rear_first[index].any():
                at = int(np.flatnonzero(locks.rear_first[index])[0])
                spot = (float(x[at]), float(z[at]))
                notes.append(Note("rear first", spot, T.danger, weight=600))
        self.limit.set_points(x, locks.limit[chosen])
        words = f"all the road gives, μ {session.solution.surface:.2f}"
        middle = POINTS // 3
        notes.append(Note(words, (float(x[middle]), float(locks.limit[chosen][middle])), T.danger))
        here = session.speed / in_units(SPEED, session.units)
        self.now.set_points(np.array([here, here]), np.array([foot, top]))
        self.set_range((0.0, float(x[-1])), (foot, top))
        self.set_notes(notes, [*lines, (x, locks.limit[chosen])], [])


class SpeedPage(Page):
    """Downforce typed, speed stepped; every other page then shows that speed too."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.plane = LockSpeedPlane(session)
        self.up, self.along = worded("", "muted"), worded("", "muted")
        self.along.setAlignment(Qt.AlignmentFlag.AlignRight)
        drawing = QWidget()
        column = tight(QVBoxLayout(drawing), 0)
        column.addWidget(self.up)
        column.addWidget(self.plane, 1)
        column.addWidget(self.along)
        self.speed = Stepper("Speed looked at", self._accept)
        self.speed.stepped.connect(self._step)
        self.figures = FigureColumn(
            session, [Spot(f"vehicle.downforce.{axle}_cl_area") for axle in AXLES]
        )
        self.loads = wrapped()
        self.describe = QPushButton()
        self.describe.setProperty("role", "quiet")
        self.describe.clicked.connect(self._describe)
        for widget in (self.speed, self.figures, self.loads, self.describe):
            self.column.addWidget(widget)
            self.column.addSpacing(6)
        self.column.addWidget(wrapped("muted", OUT))
        self.column.addStretch()
        self.lay_out(drawing)

    @property
    def summary(self) -> str:
        """How the first lock changes from standing to fast."""
        if self.session.build.vehicle.downforce is None:
            return "no downforce is described: speed moves nothing here"
        found = lock_over_speed(self.session.solution, np.array([0.0, TOP_SPEED]))
        slow, fast = (bool(found.rear_first[:, end].any()) for end in (0, 1))
        if slow or fast:
            when = "slow and fast" if slow and fast else "when slow" if slow else "when fast"
            return f"the rear locks first {when}, in some load case"
        return "the front locks first, slow and fast, in every load case"

    def show_figures(self) -> None:
        """Show the build as it is now."""
        session = self.session
        wings = session.build.vehicle.downforce
        self.up.setText("Deceleration at first lock, g")
        self.along.setText(f"Speed, {unit_shown(SPEED, session.units)}")
        self.speed.set_value(
            show(session.speed, SPEED, session.units), retype(session.speed, SPEED, session.units)
        )
        self.figures.refresh()
        for widget in (self.speed, self.loads):
            widget.setVisible(wings is not None)
        words = "Describe downforce (figures assumed)" if wings is None else "Without downforce"
        self.describe.setText(words)
        standing = session.solution.standing
        pressed = [
            show(float(force), LOAD, session.units)
            for force in (standing.front_press, standing.rear_press)
        ]
        self.loads.setText(f"The air presses {pressed[0]} on the front, {pressed[1]} on the rear.")
        speeds = np.linspace(0.0, max(TOP_SPEED, session.speed), POINTS)
        self.plane.show_locks(speeds, lock_over_speed(session.solution, speeds))

    def _accept(self, typed: str) -> None:
        self.session.set_speed(parse(completed(typed, SPEED, self.session.units), SPEED).value)

    def _step(self, steps: int) -> None:
        step = STEP[self.session.units.system]
        speed = (round(self.session.speed / step) + steps) * step
        self.session.set_speed(min(max(speed, 0.0), FASTEST))

    def _describe(self) -> None:
        session, place = self.session, "vehicle.downforce"
        if session.build.vehicle.downforce is not None:
            session.edit(place, None, "Without downforce")
        else:
            session.make(BuildChange.assuming("Downforce described", {place: dict(NEW)}))
