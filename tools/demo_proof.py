"""Makes what a demo build carries as measured: gauges, stops and logs of an invented vehicle.

The vehicle is the test bench's own stand-in, its deviations seeded. Prints the sections for the
build file, and writes the logs beside it: demo_proof.py NAME.
"""

import hashlib
import json
import sys
from datetime import datetime, timedelta

import numpy as np

from urgens.bench.gauges.simulated_gauges import readings
from urgens.bench.logs.channels import Signals, propose
from urgens.bench.logs.file import read_log
from urgens.bench.logs.write import sensed, write_csv
from urgens.bench.plant.plant import plant
from urgens.bench.road.drives import drives, trial
from urgens.bench.road.torque import Foot
from urgens.bench.stops.next_setting import next_stop
from urgens.bench.stops.posterior import posterior
from urgens.bench.stops.simulated_stops import TrueVehicle
from urgens.data import logs_folder
from urgens.document import Build, demo, with_changes
from urgens.physics.axle import AXLES
from urgens.solve import solve
from urgens.studies.expected_pressures import expected, schedule
from urgens.studies.real_split import computed_split, lining_area

VALVE, TURNS = "rear[0]", "valves.rear[0].turns"
FACTORS, ROAD, SEED = (1.02, 0.9), 0.97, 11  # of the invented vehicle
START = 1.0
SHARES = (0.75, 1.0, 0.8, 0.85, 1.0)  # of the foot that locks, stop by stop
DAY = datetime(2026, 5, 9, 10, 30)
WORN, USUAL = 2.6, (0.3, 0.9)  # mm at the front; g between which it is braked on the track
SCALE, GRADE = 100e5, 1.6  # Pa, EN 837-1
LASTS = 4.4  # s of each log
PRESSES = Foot(
    np.array([0.0, 0.4, 1.1, 1.7, 2.0, 2.6, 3.1, 3.6, 3.9]),
    np.array([0.0, 0.0, 220.0, 220.0, 0.0, 0.0, 235.0, 235.0, 0.0]),
)


def gauge_section(build: Build) -> dict[str, object]:
    """Readings of two gauges across the valve, up and back."""
    at = schedule(expected(build, VALVE), SCALE, 1e5)
    points = readings(plant(build, SEED), VALVE, at, at[::-3], SCALE, GRADE,
                      np.random.default_rng(SEED))  # fmt: skip
    rows = [[f"{i / 1e5:.1f} bar", f"{o / 1e5:.1f} bar", way] for i, o, way in points]
    return {"at": DAY.isoformat(), "valve": VALVE, "kind": "adjustable", "full_scale": "100 bar",
            "class": GRADE, "points": rows}  # fmt: skip


def stop_sections(build: Build) -> list[dict[str, object]]:
    """Stops as the advice went, each to the first lock."""
    vehicle, chance = TrueVehicle(build, {}, FACTORS, ROAD), np.random.default_rng(SEED)
    made: list[dict[str, object]] = []
    turned = with_changes(build, {TURNS: START})
    stops = ()
    for number, share in enumerate(SHARES):
        advice = next_stop(turned, stops, posterior(turned, stops))
        assert advice is not None
        stop = vehicle.stop(
            advice, build.targets.surface * (0.55 if advice.wet else 1.0), chance, share
        )
        stops = (*stops, stop)
        assert stop.effort is not None
        made.append({
            "at": (DAY + timedelta(hours=3, minutes=14 * number)).isoformat(),
            "load_case": stop.load_case, "surface": round(stop.surface, 2),
            "setting": {TURNS: advice.setting}, "speed": "70 km/h",
            "deceleration": round(stop.deceleration or 0.0, 2),
            "effort": f"{stop.effort.value:.0f} N", "locked": stop.locked,
            "front_temperature": f"{118 + 6 * number} °C",
            "rear_temperature": f"{84 + 4 * number} °C", "wet": advice.wet,
        })  # fmt: skip
    return made


def log_section(build: Build, name: str, turns: float, at: datetime) -> dict[str, object]:
    """A log of two presses at a setting, written beside the shipped builds."""
    made = TrueVehicle(build, {}, FACTORS, ROAD).at(TURNS, turns)
    [went] = drives([trial(build, made, 0, build.targets.surface * ROAD, 33.0, PRESSES)])
    path = logs_folder() / name
    path.parent.mkdir(exist_ok=True)
    whole = sensed(went, SEED)
    rows = whole.time < LASTS
    cut = Signals({channel: values[rows] for channel, values in whole.channels.items()})
    write_csv(path, cut, (f"{build.name}, invented; test road, {turns:g} turns",))
    channels = {n: {"column": c.column, "unit": c.unit}
                for n, c in propose(read_log(path)).channels.items()}  # fmt: skip
    digest = hashlib.sha256(path.read_bytes()).hexdigest()
    case = build.vehicle.load_cases[0].name
    return {"at": at.isoformat(), "file": name, "sha256": digest, "channels": channels,
            "load_case": case, "setting": {TURNS: turns}}  # fmt: skip


def wear_section(build: Build) -> dict[str, object]:
    """What the pads of each wheel have lost since the stops, the rear's share that of the vehicle.

    Work follows worn volume; every pad read to a tenth.
    """
    share = computed_split(solve(with_changes(build, {TURNS: 3.0})), USUAL).rear_share
    front, rear = (1.0 - share) * FACTORS[0], share * FACTORS[1]
    areas = [lining_area(build, axle) for axle in AXLES]
    assert areas[0] is not None
    assert areas[1] is not None
    lost = WORN, WORN * rear / front * areas[0] / areas[1]
    chance = np.random.default_rng(SEED)
    read = [[f"{one + chance.normal(0.0, 0.05):.1f} mm" for _ in range(2)] for one in lost]
    at = DAY + timedelta(days=70)
    return {"at": at.isoformat(), "since": f"{DAY:%Y-%m-%d}", "front": read[0], "rear": read[1],
            "note": "after three track days"}  # fmt: skip


def main() -> None:
    build = demo(sys.argv[1])
    stops = stop_sections(build)
    later = DAY + timedelta(hours=5)
    logs = [log_section(build, "tarn-1-turn.csv", START, DAY + timedelta(hours=3)),
            log_section(build, "tarn-3-turns.csv", 3.0, later)]  # fmt: skip
    proof = {"gauges": [gauge_section(build)], "stops": stops, "logs": logs,
             "wear": [wear_section(build)], "usual_stops": USUAL}  # fmt: skip
    print(json.dumps(proof, indent=1, ensure_ascii=False))


if __name__ == "__main__":
    main()
