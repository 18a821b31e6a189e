"""Set-ups side by side in words: what each figure is called, and what stands where it has none."""

import math
from collections.abc import Callable
from dataclasses import dataclass

from urgens.document.kinds.cylinders import cylinder_kind
from urgens.quantity import FORCE, LENGTH, PRESSURE, QuantityKind, Units, UnitSystem, show
from urgens.solve.corner import corner_locks
from urgens.solve.first_rise import AxleName
from urgens.studies.compare import Column

ON_FLOOR = "none: on the floor"


@dataclass(frozen=True)
class SetupRow:
    """One figure of all columns, by its field: a kind of quantity, else a pure number or words."""

    field: str
    name: str
    kind: QuantityKind | None
    values: tuple[float | str, ...]
    unit: str = ""
    decimals: int = 2


def rows(columns: tuple[Column, ...]) -> tuple[SetupRow, ...]:
    """Return the figures of all columns, in the order of the work."""
    return tuple(
        SetupRow(field, name, kind, tuple(of(column) for column in columns), unit, decimals)
        for field, name, kind, unit, decimals, of in _FIGURES
        if any(of(column) != "" for column in columns)
    )


def _bore(column: Column) -> str:
    master = column.solution.build.master
    return " / ".join(getattr(master, bore).text for bore in cylinder_kind(master).bores)


def _booster(column: Column) -> str:
    fitted = column.solution.build.booster
    return f"{fitted.kind}, lost" if not fitted.works else fitted.kind


def _travel(column: Column) -> float | str:
    return column.feel.travel if column.feel.left > 0 else "on the floor"


def _on_its_feet(value: float | None) -> float | str:
    """Return what one half lost leaves, in words where the pedal reaches nothing."""
    return ON_FLOOR if value is not None and math.isnan(value) else _known(value)


def _known(value: float | None) -> float | str:
    return "" if value is None else value


def _lock(column: Column) -> str:
    axle = column.locks_first
    return "nothing" if axle is AxleName.NONE else axle.name.lower()


def locks_first_words(before: tuple[AxleName, float, float], units: Units | UnitSystem) -> str:
    """Return which axle locks first, at which foot and deceleration; before: those [N, g]."""
    axle, effort, z = before
    return f"{axle.name.lower()} locks first, at {show(effort, FORCE, units)} and {z:.2f} g"


def _locks_before(column: Column) -> str:
    before = column.solution.locks_before_wanted
    return "" if before is None else f"{before[0].name.lower()}, at {before[2]:.2f} g"


def _in_corner(column: Column) -> str:
    found = corner_locks(column.solution, (column.solution.surface,))
    if found is None:
        return ""
    axle = AxleName(int(found[1].axle[column.solution.case, 0]))
    return "nothing" if axle is AxleName.NONE else axle.name.lower()


def _hold(column: Column) -> float | str:
    held = column.solution.hold
    if held is None:
        return ""
    return float("nan") if held.effort is None else held.effort


_Figure = tuple[str, str, QuantityKind | None, str, int, Callable[[Column], float | str]]
_FIGURES: tuple[_Figure, ...] = (
    ("bore", "Bore", None, "", 0, _bore),
    ("ratio", "Pedal ratio", None, ": 1", 2, lambda c: float(c.made.pedal_ratio)),
    ("booster", "Booster", None, "", 0, _booster),
    ("comfortable", "Comfortable foot", FORCE, "", 0, lambda c: c.comfortable),
    ("pressure", "Pressure at the comfortable foot", PRESSURE, "", 0, lambda c: c.pressure),
    ("wanted", "Foot for the wanted deceleration", FORCE, "", 0, lambda c: c.wanted),
    ("locks_before", "Locks before that deceleration", None, "", 0, _locks_before),
    ("travel", "Pedal travel at the comfortable foot", LENGTH, "", 0, _travel),
    ("left", "Left above the floor", LENGTH, "", 0, lambda c: max(c.feel.left, 0.0)),
    ("fullest", "Fullest chamber", None, "% of its stroke", 0, lambda c: 100 * max(c.feel.used)),
    ("locks_first", "Locks first", None, "", 0, _lock),
    ("lock_foot", "Foot at first lock", FORCE, "", 0, lambda c: c.at_lock("effort")),
    ("lock_z", "Deceleration at first lock", None, "g", 2, lambda c: c.at_lock("z")),
    ("lock_grip", "Grip used at first lock", None, "%", 0, lambda c: 100 * c.at_lock("efficiency")),
    ("corner_locks_first", "Locks first in the corner", None, "", 0, _in_corner),
    ("half_lost", "One half lost leaves", None, "g", 2, lambda c: _on_its_feet(c.half_lost)),
    (
        "half_lost_pedal",
        "Pedal left with a half lost",
        LENGTH,
        "",
        0,
        lambda c: _on_its_feet(c.half_lost_height),
    ),
    ("booster_lost", "Booster lost leaves", None, "g", 2, lambda c: _known(c.booster_lost)),
    ("hold", "Foot that holds the launch", FORCE, "", 0, _hold),
)
