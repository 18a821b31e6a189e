"""Two builds compared in every figure, with what is better and what is worse."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from urgens.document import Build
from urgens.document.edits.past import changes_between, figure_words
from urgens.guidance.rules.finding import Severity
from urgens.guidance.rules.registry import findings
from urgens.guidance.words.setups import SetupRow, rows
from urgens.quantity import FORCE, QuantityKind
from urgens.solve.first_rise import AxleName
from urgens.studies.compare import Column, column

Value = float | str
Better = Literal["here", "other", ""]
EQUAL = 1e-6  # of a figure: what differs by less is the same
REAR_FIRST = "Loads and roads with the rear first"
NOTABLE = 0.01  # of a figure: what differs by less is neither better nor worse
Judge = Callable[[float, float, Column, Column], bool]


@dataclass(frozen=True)
class ComparedFigure:
    """One figure in two builds: a quantity of its kind, else a pure number or words.

    `path` leads to it where it was typed, and is empty where it is worked out. `better` says which
    of the two is, empty where neither is, and `why` by which measure.
    """

    name: str
    path: str
    kind: QuantityKind | None
    unit: str
    decimals: int
    here: Value
    other: Value
    better: Better = ""
    why: str = ""


def compared(
    here: Build, other: Build, load_case: str | None = None, surface: float | None = None
) -> tuple[ComparedFigure, ...]:
    """Return every figure that differs between two builds, typed ones first; none is none.

    here, other: the documents, each with a set-up laid over it or not; load_case: name
    of one that both have, else each one's first [text]; surface: coefficient, None for each one's
    own [-].
    """
    one, two = (column(build, None, load_case, surface) for build in (here, other))
    return (*_typed(here, other), *_worked_out(one, two), *_locks(one, two), *_found(one, two))


def _typed(here: Build, other: Build) -> Iterator[ComparedFigure]:
    """Yield what is fitted, set or wanted otherwise."""
    changes = changes_between(here, other)
    for (path, pair), (name, _) in zip(
        changes.items(), figure_words((other, here), changes), strict=True
    ):
        yield ComparedFigure(name, path, None, "", 2, _said(pair[0]), _said(pair[1]))


def _said(value: object) -> Value:
    """Return a typed value as words, a pure number as it is."""
    if value is None:
        return "none"
    if isinstance(value, list):
        return f"{len(value)} of them" if value else "none"
    if isinstance(value, dict):
        return str(value.get("kind", "another"))
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:g}" if isinstance(value, float | int) else str(value)


def _worked_out(here: Column, other: Column) -> Iterator[ComparedFigure]:
    for row in rows((here, other)):
        one, two = row.values
        if not _same(one, two):
            better, why = _judged(row, one, two, here, other)
            yield ComparedFigure(
                row.name, "", row.kind, row.unit, row.decimals, one, two, better, why
            )  # fmt: skip


def _same(one: Value, two: Value) -> bool:
    if isinstance(one, str) or isinstance(two, str):
        return one == two
    return math.isclose(one, two, rel_tol=EQUAL, abs_tol=1e-12) or (
        math.isnan(one) and math.isnan(two)
    )


def _less(one: float, two: float, *_: Column) -> bool:
    return one < two


def _more(one: float, two: float, *_: Column) -> bool:
    return one > two


def _nearer_foot(one: float, two: float, here: Column, other: Column) -> bool:
    return abs(one - here.comfortable) < abs(two - other.comfortable)


def _nearer_middle(one: float, two: float, here: Column, other: Column) -> bool:
    return _beside_middle(one, here) < _beside_middle(two, other)


def _beside_middle(pressure: float, of: Column) -> float:
    low, high = (end.value for end in of.solution.build.targets.pressure_window)
    return abs(pressure - (low + high) / 2.0)


# Which of two figures is the better one, and by which measure.
JUDGED: dict[str, tuple[Judge, str]] = {
    "pressure": (_nearer_middle, "nearer the middle of the pressures wanted"),
    "wanted": (_nearer_foot, "nearer the comfortable foot"),
    "travel": (_less, "less pedal for the same foot"),
    "left": (_more, "more pedal left"),
    "fullest": (_less, "more stroke left"),
    "lock_z": (_more, "stops harder before a wheel locks"),
    "lock_grip": (_more, "uses more of the road before a wheel locks"),
    "half_lost": (_more, "stops harder with a half lost"),
    "half_lost_pedal": (_more, "more pedal left with a half lost"),
    "booster_lost": (_more, "stops harder without its help"),
    "hold": (_less, "a lighter foot holds it"),
}
AT_LOCK = ("lock_z", "lock_grip")  # of the same axle only
FRONT_FIRST = ("locks_first", "corner_locks_first")


def _judged(
    row: SetupRow, one: Value, two: Value, here: Column, other: Column
) -> tuple[Better, str]:  # fmt: skip
    if row.field in FRONT_FIRST:
        ranks = [("rear", "front", "nothing").index(str(value)) for value in (one, two)]
        if min(ranks) > 0:
            return "", ""
        return ("here" if ranks[0] > ranks[1] else "other"), "the rear does not lock first"
    other_axle = here.locks_first is not other.locks_first
    if row.field not in JUDGED or (row.field in AT_LOCK and other_axle):
        return "", ""
    judge, why = JUDGED[row.field]
    if isinstance(one, str) or isinstance(two, str) or math.isnan(one) or math.isnan(two):
        return _there(one, two), why  # what cannot be reached at all is worse
    if math.isclose(one, two, rel_tol=NOTABLE):
        return "", ""
    if judge(one, two, here, other):
        return "here", why
    return ("other", why) if judge(two, one, other, here) else ("", "")


def _there(one: Value, two: Value) -> Better:
    missing = [isinstance(value, str) or math.isnan(value) for value in (one, two)]
    if missing[0] == missing[1]:
        return ""
    return "other" if missing[0] else "here"


# --- every load on every road ------------------------------------------------------------------


def _locks(here: Column, other: Column) -> Iterator[ComparedFigure]:
    """Yield first locks that differ, of each load case that both have on each road of both."""
    mine, its = here.solution, other.solution
    for name in mine.system.case_names:
        if name not in its.system.case_names:
            continue
        for surface in sorted({mine.surfaces[at] for at in (*mine.named, *mine.shown)}):
            if surface in its.surfaces:
                yield from _lock(here, other, name, surface)


def _lock(here: Column, other: Column, name: str, surface: float) -> Iterator[ComparedFigure]:
    at = [
        (one.solution.system.case_names.index(name), one.solution.surfaces.index(surface))
        for one in (here, other)
    ]
    locks = [one.solution.lock for one in (here, other)]
    axles = [AxleName(int(lock.axle[place])) for lock, place in zip(locks, at, strict=True)]
    label = f"First lock, {name}, μ {surface:.2f}"
    if axles[0] is not axles[1]:
        words = ["nothing" if one is AxleName.NONE else one.name.lower() for one in axles]
        rear = [one is AxleName.REAR for one in axles]
        better: Better = "" if rear[0] == rear[1] else "other" if rear[0] else "here"
        why = "the rear does not lock first" if better else ""
        yield ComparedFigure(label, "", None, "", 0, words[0], words[1], better, why)
    efforts = [float(lock.effort[place]) for lock, place in zip(locks, at, strict=True)]
    if not _same(*efforts):
        yield ComparedFigure(f"{label}, foot", "", FORCE, "", 0, efforts[0], efforts[1])
    used = [float(lock.efficiency[place]) for lock, place in zip(locks, at, strict=True)]
    if not _same(*used):
        apart = axles[0] is not axles[1] or bool(np.isnan(used).any())
        apart = apart or math.isclose(used[0], used[1], rel_tol=NOTABLE)
        more: Better = "" if apart else "here" if used[0] > used[1] else "other"
        why = "uses more of the road before a wheel locks" if more else ""
        one, two = (100.0 * share for share in used)
        yield ComparedFigure(f"{label}, grip used", "", None, "%", 0, one, two, more, why)


def _found(here: Column, other: Column) -> Iterator[ComparedFigure]:
    """Yield how many loads and roads have the rear first, and what there is to say of each."""
    counts = [_rear_first(one) for one in (here, other)]
    yield from _counted(REAR_FIRST, counts, "it locks behind on fewer")
    found = [findings(one.solution) for one in (here, other)]
    for severity in Severity:
        counts = [sum(f.severity is severity for f in each) for each in found]
        word = f"Findings: {severity.word}"
        yield from _counted(word, counts, "fewer", judged=severity is not Severity.ADVICE)


def _rear_first(column: Column) -> int:
    axles = column.solution.lock.axle[:, list(column.solution.roads)]
    return int(np.count_nonzero(axles == AxleName.REAR))


def _counted(
    name: str, counts: list[int], why: str, *, judged: bool = True
) -> Iterator[ComparedFigure]:
    one, two = counts
    if one != two:
        better: Better = "" if not judged else "here" if one < two else "other"
        yield ComparedFigure(
            name, "", None, "", 0, float(one), float(two), better, why if judged else ""
        )
