"""How the knee of the valve chosen follows what the vehicle carries."""

import numpy as np

from urgens.document.kinds.valves.load_sensing import Lever, LoadSensing
from urgens.physics.valve_law import LoadSensingLaw
from urgens.quantity import LENGTH, LOAD, PRESSURE, in_units, show, unit_shown
from urgens.studies.knees_by_load import KneeLine, knee_line
from urgens.studies.valve_stages import felt
from urgens.ui.session import Session
from urgens.ui.stations.balance.circuit_view import Place
from urgens.ui.stations.balance.pressure_curves import nice_above
from urgens.ui.theme.paint import T
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.seen import WhenSeen


class KneePlane(Plane):
    """Knee over load, every load case a point, and where the press has it."""

    def __init__(self, session: Session) -> None:
        super().__init__("Knee of the valve chosen against load")
        self._session = session
        self.line = self.add_curve(T.rear, 3)
        self._law: LoadSensingLaw | None = None  # one that moves with the press
        self._lever: Lever | None = None  # of a valve that is described by it
        self.by_travel = False  # of the suspension, where a lever says how that goes
        self._cases: list[Marker] = []
        session.press_changed.connect(WhenSeen(self, self.show_press, stale=False).ask)

    def show_valve(self, place: Place | None) -> KneeLine | None:
        """Draw a valve's knees; return them, None where they follow nothing."""
        solution = self._session.solution
        law, self._lever = None, None
        if place is not None:
            part = solution.build.valves.of(place[0])[place[1]]
            self._lever = part.lever if isinstance(part, LoadSensing) else None
            law = solution.system.valves.of(place[0])[place[1]]
        found = None if law is None else knee_line(solution, law)
        self._law = law if isinstance(law, LoadSensingLaw) and law.feels_load else None
        if found is not None:
            self._draw(found)
        return found

    def _draw(self, line: KneeLine) -> None:
        session = self._session
        scale = in_units(PRESSURE, session.units)
        x, y = self._along(line.load), line.knee / scale
        shuts = np.isfinite(y)
        self.line.set_points(x[shuts], y[shuts])
        at_cases = np.where(np.isfinite(line.case_knee), line.case_knee, np.nan) / scale
        highest = float(np.nanmax(np.append(y[shuts], at_cases), initial=1.0))
        self.set_range((float(x[0]), float(x[-1])), (0.0, nice_above(1.15 * highest)))
        self._cases, notes = [], []
        names = session.solution.system.case_names
        chosen = session.solution.case
        for index in sorted(range(len(names)), key=lambda i: i != chosen):  # it is named first
            knee = float(at_cases[index])
            if not np.isfinite(knee):
                continue
            at = (float(self._along(line.case_load)[index]), knee)
            self._cases.append(Marker(MarkerShape.DOT, at))
            words = f"{names[index]}: {show(float(line.case_knee[index]), PRESSURE, session.units)}"
            own = index == chosen
            notes.append(Note(words, at, T.ink if own else T.muted, weight=600 if own else 500))
        self.show_press()
        self.set_notes(notes, [], [marker.at for marker in self._markers])

    @property
    def has_travel(self) -> bool:
        """Whether it is known how far the suspension goes for a load."""
        return self._lever is not None

    def _along(self, load: np.ndarray) -> np.ndarray:
        """Return where loads [N] stand on the axis, in the unit shown."""
        units, lever = self._session.units, self._lever
        if lever is None or not self.by_travel:
            return load / in_units(LOAD, units)
        travel = (load - lever.at_load.value) / lever.suspension_rate.value
        return np.asarray(travel / in_units(LENGTH, units))

    def show_press(self) -> None:
        """Mark where a knee that moves with the press stands."""
        if self._law is None:
            self.set_markers(self._cases)
            return
        session = self._session
        now = float(felt(session.solution, session.presses).now)
        scale = in_units(PRESSURE, session.units)
        at = (float(self._along(np.asarray(now))), float(self._law.knee_at(now)) / scale)
        self.set_markers([*self._cases, Marker(MarkerShape.FOOT, at)])

    def in_words(self, line: KneeLine) -> str:
        """Return the knee of every load case."""
        session = self._session
        said = [
            f"{name} {show(float(knee), PRESSURE, session.units)}"
            if np.isfinite(knee)
            else f"{name} never"
            for name, knee in zip(session.solution.system.case_names, line.case_knee, strict=True)
        ]
        still = ", standing still" if self._law is not None else ""
        return f"Knees{still}: {'; '.join(said)}."

    def axis(self, line: KneeLine) -> str:
        """Return what the loads are."""
        if self.by_travel and self._lever is not None:
            unit = unit_shown(LENGTH, self._session.units)
            return f"Rear axle up from as set, {unit}"
        unit = unit_shown(LOAD, self._session.units)
        whose = "Weight of the vehicle" if line.of_vehicle else "Load on the rear axle"
        return f"{whose}, {unit}"
