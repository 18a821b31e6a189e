"""Which valve goes behind rows of systems: fitted once for each pair of brakes and pressures."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from urgens.document import Build, BuildErrors, with_changes
from urgens.document.tables import reducing_valve_table
from urgens.physics.arrays import Array
from urgens.quantity import Quantity
from urgens.solve.bracket import Places
from urgens.solve.system import system
from urgens.studies.balance_verdict import MARGIN
from urgens.studies.unlimited import margin_of
from urgens.studies.valve_fits import LOADS_APART, PARTS, without_valve
from urgens.studies.wishes.freedom import VALVES
from urgens.studies.wishes.survey import Numbers, rows_of

MARGINS = (MARGIN, 0.15, 0.25)  # each is tried: the surer ones take more foot
ALIKE = 6  # digits in which pairs of brakes are one
CHUNK = 20_000  # pairs and settings looked at together


@dataclass(frozen=True)
class ValveSetting:
    """One valve as it is sold and set: what it is called, as typed, its figures as numbers."""

    words: str
    values: dict[str, Any]
    numbers: dict[str, float]


@dataclass(frozen=True)
class ValveWay:
    """One kind of valve behind, in a build, with its settings; parts that are bought for it.

    `margin` is what a setting has to leave, of the road's coefficient: more of it makes it surer.
    """

    kind: str
    build: Build
    settings: tuple[ValveSetting, ...]
    parts: int
    margin: float = MARGIN


def valve_ways(build: Build, kinds: Sequence[str] | None) -> list[ValveWay]:
    """Return what may stand behind; kinds: of `VALVES`, None for all of them.

    build: one whose valves are taken out for another. Raises BuildErrors.
    Source: knees and slopes as sold (common practice).
    """
    found = []
    for kind in VALVES if kinds is None else kinds:
        if kind not in VALVES:
            raise BuildErrors.one(
                "may valve", f'"{kind}" is none of them', f"write {', '.join(VALVES)}"
            )
        if kind == "own":
            found.append(ValveWay(kind, build, (ValveSetting("", {}, {}),), 0))
            continue
        bare = without_valve(build)
        settings = [*_settings(build, kind, bare)]
        if settings and (kind != "none" or build.valves.rear or kinds == [kind]):
            made = with_changes(build, settings[0].values)
            parts = PARTS[kind]  # type: ignore[index]
            margins = MARGINS if len(settings) > 1 else MARGINS[:1]
            found += [ValveWay(kind, made, tuple(settings), parts, one) for one in margins]
    if not found:
        raise BuildErrors.one(
            "may valve", "none of them can stand behind here", f"write {', '.join(VALVES)}"
        )
    return found


def _settings(build: Build, kind: str, bare: dict[str, object]) -> list[ValveSetting]:
    """Return the settings of a kind, behind what stays in the rear circuit."""
    kept = bare["valves.rear"]
    assert isinstance(kept, list)
    if kind == "none":
        return [ValveSetting("no valve", dict(bare), {})]
    table, place = reducing_valve_table(), f"valves.rear[{len(kept)}]"

    def setting(words: str, valve: dict[str, Any], numbers: dict[str, float]) -> ValveSetting:
        figures = {f"{place}.{name}": value for name, value in numbers.items()}
        return ValveSetting(words, {"valves.rear": [*kept, valve]}, figures)

    apart = _loads_apart(build)
    if kind == "limiting":
        return [
            setting(f"limiting valve {knee.text}", {"kind": kind, "knee": knee.text},
                    {"knee": knee.value})
            for knee in table.knees
        ]  # fmt: skip
    if kind == "reducing":
        return [
            setting(f"reducing valve {knee.text}, {slope:g}",
                    {"kind": kind, "knee": knee.text, "slope": slope},
                    {"knee": knee.value, "slope": slope})
            for knee in table.knees for slope in table.slopes
        ]  # fmt: skip
    return [
        setting(f"load-sensing valve {low.text} to {high.text}, {slope:g}",
                _load_sensing(build, (low, high), slope),
                {"points[0][1]": low.value, "points[1][1]": high.value, "slope": slope})
        for low in table.knees for high in table.knees for slope in table.slopes
        if apart and low.value < high.value
    ]  # fmt: skip


def _loads_apart(build: Build) -> bool:
    loads = np.asarray(system(build).standing.rear_weight)
    return float(loads.max() - loads.min()) >= LOADS_APART


def _load_sensing(build: Build, knees: tuple[Quantity, Quantity], slope: float) -> dict[str, Any]:
    loads = np.asarray(system(build).standing.rear_weight)
    ends = (loads.min(), loads.max())
    points = [[f"{load:.1f} N", knee.text] for load, knee in zip(ends, knees, strict=True)]
    return {"kind": "load-sensing", "points": points, "slope": slope, "follows": "static"}


def fitted(way: ValveWay, numbers: Numbers, count: int) -> Places:
    """Return which setting goes with each row (m,) [-].

    way: the kind; numbers: of the rows (m,) [SI]; count: m [-].
    The one that leaves the least margin of those that leave its own, else the largest margin, for
    each pair of brakes and pressures. Source: by definition, the first lock of `margin_of`.
    """
    if len(way.settings) == 1:
        return np.zeros(count, dtype=np.intp)
    kinds, which = np.unique(_pairs(way.build, numbers, count), axis=0, return_inverse=True)
    rows = np.zeros(len(kinds), dtype=np.intp)
    rows[np.reshape(which, -1)] = np.arange(count)  # one row stands for all of a pair
    best = np.zeros(len(kinds), dtype=np.intp)
    at_once = max(CHUNK // len(way.settings), 1)
    for start in range(0, len(kinds), at_once):
        part = rows[start : start + at_once]
        best[start : start + at_once] = _best(way, numbers, part)
    return np.asarray(best[np.reshape(which, -1)])


def _best(way: ValveWay, numbers: Numbers, rows: Places) -> Places:
    laid = {path: np.repeat(values[rows], len(way.settings)) for path, values in numbers.items()}
    for path in way.settings[0].numbers:
        each = np.array([setting.numbers[path] for setting in way.settings])
        laid[path] = np.tile(each, len(rows))
    made, standing = rows_of(way.build, laid)
    margin = margin_of(made, standing, way.build.targets.surface)[0]
    apart = np.broadcast_to(margin, (len(rows) * len(way.settings),)).reshape(len(rows), -1)
    apart = np.where(np.isnan(apart), -np.inf, apart)
    enough = np.where(apart >= way.margin, apart, np.inf)
    chosen = np.where(np.isfinite(enough).any(axis=1), enough.argmin(axis=1), apart.argmax(axis=1))
    return np.asarray(chosen, dtype=np.intp)


def _pairs(build: Build, numbers: Numbers, count: int) -> Array:
    """Return what the balance of rows depends on beside the valve (m, n), in a few digits."""
    made, _ = rows_of(build, numbers)
    front, rear = made.ends
    cylinders = made.cylinders
    ratio = np.divide(cylinders.rear.share, cylinders.rear.area) / np.divide(
        cylinders.front.share, cylinders.front.area
    )
    step = 0.0 if cylinders.front.step is None else cylinders.front.step.relief
    figures = [
        front.torque_per_pressure, rear.torque_per_pressure, front.threshold, rear.threshold,
        front.rolling_radius, rear.rolling_radius, ratio, step,
        np.divide(cylinders.front.spring_preload, cylinders.front.area),
    ]  # fmt: skip
    columns = [np.broadcast_to(np.asarray(one, dtype=float), (count, 1))[:, 0] for one in figures]
    table = np.stack(columns, axis=1)
    scale = np.max(np.abs(table), axis=0)
    return np.asarray(np.round(table / np.where(scale > 0.0, scale, 1.0), ALIKE))
