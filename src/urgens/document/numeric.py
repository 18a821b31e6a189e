"""The build as numbers: its figures in SI, or what is laid over them for a moment."""

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

from urgens.physics.arrays import Floats
from urgens.quantity import Quantity

Laid = Mapping[str, Floats]  # by path: a number, or an array of draws [SI]
NOTHING: Laid = MappingProxyType({})


class NumericBuild:
    """One part of a build as numbers; what is laid over a path counts before its own figure.

    The document itself never holds an array, nor a figure that was not typed.
    """

    __slots__ = ("_over", "part", "place")

    def __init__(self, part: Any, over: Laid = NOTHING, place: str = "") -> None:
        self.part, self.place, self._over = part, place, over

    def _path(self, name: str) -> str:
        return f"{self.place}.{name}" if self.place else name

    def get(self, name: str) -> Floats | None:
        """Return the figure of a field in SI, None where it is not given."""
        return self._figure(getattr(self.part, name), name)

    def __getitem__(self, name: str) -> Floats:
        """Return the figure of a field in SI; raises LookupError where it is not given."""
        found = self.get(name)
        if found is None:
            raise LookupError(f"{self._path(name)} is not given")
        return found

    def of(self, name: str) -> "NumericBuild":
        """Return the part in a field as numbers."""
        return NumericBuild(getattr(self.part, name), self._over, self._path(name))

    def each(self, name: str) -> tuple["NumericBuild", ...]:
        """Return the parts in a list as numbers."""
        return tuple(
            NumericBuild(part, self._over, f"{self._path(name)}[{index}]")
            for index, part in enumerate(getattr(self.part, name))
        )

    def row(self, name: str) -> tuple[Floats, ...]:
        """Return a list of figures in SI."""
        return self._row(getattr(self.part, name), name)

    def table(self, name: str) -> tuple[tuple[Floats, ...], ...]:
        """Return a list of rows of figures in SI."""
        rows = enumerate(getattr(self.part, name))
        return tuple(self._row(row, f"{name}[{index}]") for index, row in rows)

    def _row(self, values: Any, name: str) -> tuple[Floats, ...]:
        found = (self._figure(value, f"{name}[{i}]") for i, value in enumerate(values))
        return tuple(figure for figure in found if figure is not None)

    def _figure(self, value: Any, name: str) -> Floats | None:
        if self._over and (laid := self._over.get(self._path(name))) is not None:
            return laid
        if isinstance(value, Quantity):
            return value.value
        if value is None or (isinstance(value, int | float) and not isinstance(value, bool)):
            return value
        raise TypeError(f"{self._path(name)} is no figure")
