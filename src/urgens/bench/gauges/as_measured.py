"""What gauges found, taken into the build: figures with their limits as spread."""

from typing import Any

from urgens.document import Build, BuildChange
from urgens.document.ledger.proof import GaugeRun
from urgens.physics.axle import Axle
from urgens.quantity import PRESSURE, Units, retype
from urgens.studies.expected_pressures import place_of
from urgens.studies.valve_verdict import ValveRead

LEAST = 1e3  # Pa: no gauge is read closer


def valve_at(build: Build, valve: str) -> Any:
    """Return the valve at a place; valve: "rear[0]" [text]."""
    axle, index = place_of(valve)
    return (build.valves.front if axle == Axle.FRONT else build.valves.rear)[index]


def as_measured(build: Build, read: ValveRead, units: Units, run: GaugeRun) -> BuildChange | None:
    """Return the edit that takes a fit into the build, None where there is nothing to take.

    read: what gauges say; run:
    of readings.

    The fit's figures with their limits; all knees of a table by the same share.
    """
    valve = read.expected.valve
    part, place = valve_at(build, valve), f"valves.{valve}"
    note = f"two gauges, {run.at:%Y-%m-%d}"
    label = f"{valve.partition('[')[0].capitalize()} valve as measured"
    if read.metered is not None:
        return _metered(read, place, label, note, units) if part.holds_front_back else None
    fit = read.fitted
    if fit is None or not read.knows_line:
        return None
    off = fit.knee_off
    values: dict[str, object] = {}
    known: dict[str, object] = {}
    rows = _rows(part, place)
    for path, knee in rows:
        values[path] = retype(knee * fit.knee / (read.expected.knee or fit.knee), PRESSURE, units)
        known[path] = _measured(f"{100.0 * off / fit.knee:.1f} %", note)
    if not rows and hasattr(part, "knee"):
        values[f"{place}.knee"] = retype(fit.knee, PRESSURE, units)
        known[f"{place}.knee"] = _measured(retype(max(off, LEAST), PRESSURE, units), note)
    if hasattr(part, "slope"):
        wide = max(fit.slope - fit.slope_limits[0], fit.slope_limits[1] - fit.slope)
        values[f"{place}.slope"] = round(min(max(fit.slope, 0.0), 0.99), 3)
        known[f"{place}.slope"] = _measured(f"{wide:.3f}", note)
    return BuildChange(label, values, known)


def _rows(part: Any, place: str) -> list[tuple[str, float]]:
    """Return the knees of a valve that has several, each with its path [Pa]."""
    if part.set_by_hand:
        return [(f"{place}.table[{row}][1]", one[1].value) for row, one in enumerate(part.table)]
    if part.feels_load and part.points is not None:
        return [(f"{place}.points[{row}][1]", one[1].value) for row, one in enumerate(part.points)]
    return []


def _metered(read: ValveRead, place: str, label: str, note: str, units: Units) -> BuildChange:
    found = read.metered
    assert found is not None  # asked for only then
    values: dict[str, object] = {}
    known: dict[str, object] = {}
    for name, at, (low, high) in zip(
        ("close", "open", "full"), found.at, found.limits, strict=True
    ):
        off = max(at - low, high - at, LEAST)
        values[f"{place}.{name}"] = retype(at, PRESSURE, units)
        known[f"{place}.{name}"] = _measured(retype(off, PRESSURE, units), note)
    return BuildChange(label, values, known)


def _measured(spread: str, note: str) -> dict[str, str]:
    return {"state": "measured", "spread": spread, "note": note}
