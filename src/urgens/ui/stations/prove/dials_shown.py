"""What the dials show: what a box says, or what this build computes at the press."""

import numpy as np

from urgens.bench.gauges.as_measured import valve_at
from urgens.bench.gauges.box_protocol import BoxReading
from urgens.bench.proof_state import Gauged
from urgens.document.kinds.valves import kind_of
from urgens.quantity import PRESSURE, in_units
from urgens.studies.expected_pressures import usual_scale
from urgens.studies.valve_verdict import gauge_error
from urgens.ui.session import Session
from urgens.ui.stations.prove.dials import DialReadings
from urgens.ui.stations.prove.gauge_scale import CLASS


def usual(session: Session) -> float:
    """Return the scale [Pa] that gauges usually have in the builder's units."""
    return usual_scale(in_units(PRESSURE, session.units))


def dials_shown(gauged: Gauged, live: BoxReading | None, session: Session) -> DialReadings:
    """Return what the dials show of a valve; `live` is what a box says, None without one."""
    full = usual(session) if gauged.run is None else gauged.run.full_scale.value
    error = CLASS / 100.0 * full if gauged.run is None else gauge_error(gauged.run)
    inlet, outlet = _computed(gauged, session) if live is None else (live.inlet, live.outlet)
    name = kind_of(valve_at(session.build, gauged.valve)).name
    front = gauged.valve.startswith("front")
    return DialReadings(inlet, outlet, full, error, gauged.next, live is None, name, front)


def _computed(gauged: Gauged, session: Session) -> tuple[float, float]:
    """Return what this build's valve would see of the press [Pa]."""
    presses = session.presses
    master = presses.master_front if gauged.valve.startswith("front") else presses.master_rear
    inlet = min(float(master), gauged.wanted.reach)
    return inlet, float(gauged.wanted.outlet(np.array(inlet)))
