"""Boosters in words, and cylinders made for one fitted to a manual pedal, or the reverse."""

import numpy as np

from urgens.document import Build
from urgens.document.kinds.boosters.kind import FittedBooster
from urgens.document.kinds.boosters.none import NoBooster
from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.guidance.thresholds import LOWEST_VACUUM
from urgens.guidance.words.figures import FigureWords
from urgens.physics.atmosphere import vacuum_at
from urgens.physics.cylinder import bore_area
from urgens.quantity import FORCE, LENGTH, Quantity, Units, UnitSystem, show
from urgens.solve import Solution
from urgens.solve.effort import run_out_effort

HOLDERS = {
    "retainer": "a retainer keeps the rod in",
    "insert": "an insert fills the socket",
    "none": "nothing keeps the rod in: it can fall out of a manual pedal",
}


def booster_words(solution: Solution, units: Units | UnitSystem) -> list[str]:
    """Return what a booster does for the foot, the first sentence alone a summary."""
    build = solution.build
    fitted, assist = build.booster, solution.system.booster
    if not isinstance(fitted, FittedBooster):
        return [
            "no booster: the pushrod's force is all there is",
            "Fit one under Measure, or add a boosted set-up under Set-ups and compare.",
        ]
    if not fitted.working:
        return ["booster lost: only the leg is left", *_altitude(build, fitted, units)]
    effort = run_out_effort(solution.system)
    most = show(float(assist.assist_limit), FORCE, units)
    after = f"runs out at {show(effort, FORCE, units)} of foot" if np.isfinite(effort) else "no end"
    return [
        f"{fitted.kind} booster: helps with up to {most}, {after}",
        *_altitude(build, fitted, units),
    ]


def _altitude(build: Build, fitted: FittedBooster, units: Units | UnitSystem) -> list[str]:
    """Return what thin air takes from an engine's vacuum, and what helps where it is low."""
    if not isinstance(fitted, VacuumBooster):
        return []
    found = []
    altitude, words = build.vehicle.altitude, FigureWords(units)
    if altitude.value > 0:
        at_sea = fitted.vacuum.value
        there = float(vacuum_at(at_sea, altitude.value))
        found.append(
            f"If {words.vacuum(at_sea)} was read at sea level, about "
            f"{words.vacuum(there)} are left at {altitude.text} (ISO 2533, the "
            "engine's own pressure unchanged: an estimate). Type what the gauge shows there."
        )
    if fitted.depression < LOWEST_VACUUM:
        found.append(
            f"Under {words.practice('vacuum_at_idle')} (common practice): a reservoir for "
            "some stops, a pump, a hydraulic booster, or a manual set-up with a smaller bore."
        )
    return found


def fit_words(build: Build, units: Units | UnitSystem) -> str:
    """Return whether a booster's shell goes into the room there is, in words; empty if unknown."""
    fitted = build.booster
    if not isinstance(fitted, FittedBooster) or fitted.envelope is None or fitted.room is None:
        return ""
    spare = {
        "across": fitted.room.diameter.value - fitted.envelope.diameter.value,
        "along": fitted.room.length.value - fitted.envelope.length.value,
    }
    short = {way: room for way, room in spare.items() if room < 0}
    if short:
        lacks = " and ".join(f"{show(-room, LENGTH, units)} {way}" for way, room in short.items())
        return f"The shell does not go in: {lacks} too large."
    left = " and ".join(f"{show(room, LENGTH, units)} {way}" for way, room in spare.items())
    return f"The shell goes in with {left} to spare."


def effort_factor(bore: float, other: float) -> float:
    """Return how many times the effort one bore takes that another takes [-]; bores [m].

    The same line pressure with the same pedal: bore areas compared.
    """
    return float(bore_area(bore) / bore_area(other))


def swap_words(build: Build, other: Quantity) -> str:
    """Return what it means that this cylinder stands where one of another bore belongs."""
    master = build.master
    bore = master.main_bore
    factor = effort_factor(bore.value, other.value)
    said = [
        f"This {bore.text} takes {factor:.2f} times the force on its pushrod that "
        f"{other.text} takes for the same pressure: bore over bore, squared."
    ]
    if isinstance(build.booster, NoBooster):
        said.append(
            "One made for a booster has the larger bore and the deeper socket: on a manual pedal "
            "it wants a longer rod or an insert, and a retainer that keeps it in."
        )
    else:
        said.append("One made for a manual pedal has a shallow socket: the booster's rod is short.")
    depth, rod = master.socket_depth, master.pushrod_length
    if depth is not None and rod is not None:
        out = show(rod.value - depth.value, LENGTH, build.natural_units)
        said.append(f"The rod stands {out} out of its {depth.text} deep socket.")
    else:
        said.append("Measure the socket's depth and the rod before it goes in.")
    if master.pushrod_held_by is not None:
        said.append(f"{HOLDERS[master.pushrod_held_by]}.".capitalize())
    return " ".join(said)
