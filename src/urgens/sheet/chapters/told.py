"""What every chapter is told: the solution, units, the day, and drawings made elsewhere."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from pathlib import Path

from urgens.document import Build
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import Units, UnitSystem
from urgens.sheet.content import Sheet, content
from urgens.solve import Solution


@dataclass(frozen=True)
class SheetContext:
    """One build on one day.

    `base` is the build without a set-up laid over it; `folder` where its file and photographs lie,
    None where it has no file yet. `drawings` are SVG by name, made by who can draw them.
    """

    solution: Solution
    units: UnitSystem | Units
    day: date
    base: Build
    folder: Path | None = None
    drawings: Mapping[str, bytes] = field(default_factory=dict)

    @property
    def build(self) -> Build:
        """The build that is solved."""
        return self.solution.build

    @cached_property
    def sheet(self) -> Sheet:
        """Its figures."""
        before = None if self.base is self.build else self.base
        return content(self.solution, self.units, self.day, before)

    @cached_property
    def words(self) -> FigureWords:
        """Figures in sentences, in the units shown."""
        return FigureWords(self.units)
