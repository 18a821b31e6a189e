"""All combinations of what may change, and rows of them as systems."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array
from urgens.solve.bracket import Places
from urgens.studies.wishes.freedom import (
    Choices,
    Cost,
    Costs,
    PartOption,
    Variable,
    priced,
    solid_options,
    variables,
)
from urgens.studies.wishes.survey import QUICK, Quick, Slow, short
from urgens.studies.wishes.valves import ValveWay, fitted, valve_ways
from urgens.studies.wishes.wanted import Wishes

CHUNK = 20_000  # combinations at a time


@dataclass(frozen=True)
class WishedSystem:
    """One system: its changes by path, as typed; what they are called; what it does.

    `figures` by name of wish [SI], NaN where it has none or it was not asked for; `margin` [-];
    `chance` of the rear first [-], None until it is drawn, of `drawn` draws; `parts` that are
    bought, and their `cost`, None where one of them has none.
    """

    words: str
    changes: dict[str, Any]
    figures: dict[str, float]
    margin: float
    parts: int
    cost: Cost | None = None
    chance: float | None = None
    drawn: int = 0

    @property
    def criteria(self) -> tuple[float, ...]:
        """What systems are beaten in, less is better: foot, travel, chance, margin and parts."""
        chance = 0.0 if self.chance is None else self.chance
        return (
            self.figures["effort"], self.figures["travel"], chance, -self.margin, float(self.parts)
        )  # fmt: skip


@dataclass(frozen=True)
class Combinations:
    """All combinations of figures on one build of one kind of parts, with one kind of valve."""

    solid: PartOption
    way: ValveWay
    variables: tuple[Variable, ...]
    costs: Costs

    @property
    def count(self) -> int:
        """How many there are."""
        return int(np.prod([len(one.options) for one in self.variables], dtype=np.int64))

    def options(self, rows: Places) -> list[Places]:
        """Return which option each row has, variable by variable (m,) [-].

        rows: which (m,) [-]. Source: by definition.
        """
        shape = tuple(len(one.options) for one in self.variables)
        return [*np.unravel_index(rows, shape)] if shape else []

    def numbers(self, rows: Places) -> dict[str, Array]:
        """Return the figures of rows, by path (m,) [SI].

        rows: which (m,) [-]. Source: by definition.
        """
        found = {}
        for variable, at in zip(self.variables, self.options(rows), strict=True):
            for path in variable.options[0].numbers:
                found[path] = np.array([one.numbers[path] for one in variable.options])[at]
        return found

    def parts(self, rows: Places) -> Array:
        """Return how many parts are bought for rows (m,) [-].

        rows: which (m,) [-]. Source: by definition.
        """
        found = np.full(len(rows), self.solid.parts + self.way.parts, dtype=float)
        for variable, at in zip(self.variables, self.options(rows), strict=True):
            counts = np.array([one.parts for one in variable.options], dtype=float)
            if variable.name == "bore" and "master" in self.solid.values:
                counts[:] = 0.0  # it comes with the cylinder
            found += counts[at]
        return found

    def system(
        self, row: int, setting: int, figures: dict[str, float], margin: float
    ) -> WishedSystem:
        """Return a row as a system.

        row: which [-]; setting: of its valve [-]; figures: by name of wish [SI]; margin: [-].
        Source: by definition.
        """
        at = np.array([row])
        chosen = [
            one.options[int(which[0])]
            for one, which in zip(self.variables, self.options(at), strict=True)
        ]
        valve = self.way.settings[setting]
        changes = dict(self.solid.values)
        for part in chosen:
            changes |= part.values
        changes |= valve.values
        words = [self.solid.words, *(part.words for part in chosen), valve.words]
        told = ", ".join(word for word in words if word) or "as it is"
        parts = int(self.parts(at)[0])
        return WishedSystem(told, changes, figures, margin, parts, self._cost(chosen))

    def _cost(self, chosen: list[PartOption]) -> Cost | None:
        """Return what the parts of a system cost, None where one that is bought has no price."""
        bought = [*self.solid.named] + [("valve", self.way.kind)] * (self.way.parts > 0)
        for variable, one in zip(self.variables, chosen, strict=True):
            with_it = variable.name == "bore" and "master" in self.solid.values
            bought += [named for named in one.named if one.parts and not with_it]
        known = [cost for named in bought if (cost := self.costs.get(named)) is not None]
        if not self.costs or len(known) < len(bought):
            return None
        return Cost(sum(one.price for one in known), sum(one.hours for one in known))


def combinations(build: Build, typed: Choices) -> Iterator[Combinations]:
    """Yield all combinations, by the kinds of parts and valves; build: with the wishes.

    typed: what may change, by name of `MAY`, sizes with prices or without. Raises BuildErrors.
    Source: by definition.
    """
    choices, costs = priced(typed)
    kinds = choices.get("valve") if "valve" in choices else ("own",)
    for solid, made in solid_options(build, choices):
        if made.master.has_bar and not build.master.has_bar:
            choices = {"bar": None, **choices}  # where it stands is part of such a cylinder
        for way in valve_ways(made, kinds):
            yield Combinations(solid, way, variables(made, choices), costs)


def chunks(count: int) -> Iterator[Places]:
    """Yield the rows of a group, some at a time; count: of them [-]. Source: by definition."""
    for start in range(0, count, CHUNK):
        yield np.arange(start, min(start + CHUNK, count))


def quick_short(found: Quick, wishes: Wishes) -> Array:
    """Return by how much rows miss the wishes that are known at once (m,) [-].

    found: of the rows; wishes: that are wanted. Source: `survey.short`, added up.
    """
    misses = np.zeros(len(found.holds))
    for name in QUICK:
        wish = wishes.of(name)
        if wish is not None:
            misses = misses + short(name, found.figures[name], wish)
    return np.where(found.holds, misses, np.inf)


def slow_short(found: Slow, wishes: Wishes) -> Array:
    """Return by how much rows miss the wishes that take longer (m,) [-].

    found: of the rows; wishes: that are wanted. Source: `survey.short`, added up.
    """
    misses = np.zeros(len(found.holds))
    for name, values in found.figures.items():
        wish = wishes.of(name)
        if wish is not None:
            misses = misses + short(name, values, wish)
    return np.where(found.holds, misses, np.inf)


def valved(group: Combinations, rows: Places) -> tuple[dict[str, Array], Places]:
    """Return the figures of rows with their valves (m,) [SI], and which setting each has (m,) [-].

    group: of the rows; rows: which (m,) [-]. Source: by definition, as `valves.fitted`.
    """
    numbers = group.numbers(rows)
    setting = fitted(group.way, numbers, len(rows))
    for path in group.way.settings[0].numbers:
        numbers[path] = np.array([one.numbers[path] for one in group.way.settings])[setting]
    return numbers, setting
