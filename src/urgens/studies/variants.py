"""Many builds that differ in single figures, as one system of arrays."""

from collections.abc import Sequence
from dataclasses import fields, is_dataclass
from typing import Any

import numpy as np

from urgens.document import Build
from urgens.document.edit import steps
from urgens.physics.arrays import Floats
from urgens.quantity import Quantity
from urgens.solve.system import System


def varied(build: Build, path: str, value: Floats) -> Build:
    """Return `build` with another figure at `path`, not checked.

    build: the document [object]; path: of a figure in it [text]; value: in its SI unit, a number
    or an array of draws [SI].
    For variants near a build that is whole: `edited` checks, which takes ten times as long.
    Raises TypeError where there is no figure at the path.
    Source: copies of the parts along the path.
    """
    changed: Build = _replaced(build, steps(path), value)
    return changed


def _replaced(here: Any, way: Sequence[str | int], value: Floats) -> Any:
    if not way:
        if isinstance(here, Quantity):
            text = f"{value:.9g} {here.kind.si}" if np.ndim(value) == 0 else "drawn"
            return Quantity(text, value, here.kind)  # type: ignore[arg-type]
        if isinstance(here, bool) or not isinstance(here, float | int):
            raise TypeError(f"{here!r} is no figure")
        return value
    step, rest = way[0], way[1:]
    if isinstance(step, int):
        return (*here[:step], _replaced(here[step], rest, value), *here[step + 1 :])
    return here.model_copy(update={step: _replaced(getattr(here, step), rest, value)})


def stacked(systems: Sequence[System]) -> System:
    """Return one system whose figures are arrays of one row a system, where they differ.

    systems: of builds of one kind, one or more [objects]. Its `standing` has the shape
    (systems, load cases, 1), its other arrays (systems, 1, 1), the last axis for surfaces; what is
    the same in all stays as it is.
    Raises ValueError where they are of different kinds.
    Source: broadcasting.
    """
    made: System = _stacked(systems)
    return made


def _stacked(values: Sequence[Any]) -> Any:
    first = values[0]
    if all(value is first for value in values) and not isinstance(first, np.ndarray):
        return first
    if is_dataclass(first) and not isinstance(first, type):
        if any(type(value) is not type(first) for value in values):
            raise ValueError("systems of different kinds cannot be stacked")
        if not isinstance(first, System) and all(value == first for value in values):
            return first  # most parts are the same in most variants
        columns = {f.name: _stacked([getattr(v, f.name) for v in values]) for f in fields(first)}
        return type(first)(**columns)
    if isinstance(first, tuple):
        if any(len(value) != len(first) for value in values):
            raise ValueError("systems of different kinds cannot be stacked")
        columns_of = [_stacked(column) for column in zip(*values, strict=True)]
        return type(first)(*columns_of) if hasattr(first, "_fields") else tuple(columns_of)
    if isinstance(first, np.ndarray):
        return np.stack(values)[..., None]
    if all(value == first for value in values):
        return first
    if isinstance(first, float):
        return np.array(values, dtype=float)[:, None, None]
    raise ValueError("systems of different kinds cannot be stacked")
