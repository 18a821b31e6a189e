"""What a saying is, and how it is tried on a build."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple

import numpy as np

from urgens.document import Build, BuildErrors, with_changes
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import LENGTH, Units, UnitSystem, parse
from urgens.solve import AxleName, Solution, solve


class SayingVerdict(StrEnum):
    """What this build says of a saying; the value is its name on the command line."""

    TRUE = "true"
    NOT = "not"
    WITHIN = "within-limits"
    NOT_COMPUTED = "not-computed"


SAID = {
    SayingVerdict.TRUE: "true here",
    SayingVerdict.NOT: "not here",
    SayingVerdict.WITHIN: "true within limits",
    SayingVerdict.NOT_COMPUTED: "not computed",
}


class Bar(NamedTuple):
    """One of two bars: what it is of, what it reads, and its length of the longer one [-]."""

    words: str
    reads: str
    length: float


class Answer(NamedTuple):
    """What a build says: verdict, its figures in a sentence, the limit, two bars or none."""

    verdict: SayingVerdict
    here: str
    limit: str = ""
    bars: tuple[Bar, ...] = ()


@dataclass(frozen=True)
class TriedSaying:
    """A saying as it was tried: its name and words, and what the build says of it."""

    id: str
    saying: str
    answer: Answer


class SayingTrial(NamedTuple):
    """What a saying is tried with: the build solved, and words in units."""

    solution: Solution
    words: FigureWords

    @property
    def build(self) -> Build:
        """The build that it is tried on."""
        return self.solution.build

    def other(self, changes: Mapping[str, object]) -> Solution | None:
        """Return the build with changes, solved as it is; None where it cannot be so.

        changes: by path.
        """
        try:
            made = with_changes(self.build, dict(changes))
        except BuildErrors:
            return None
        case = self.build.vehicle.load_cases[self.solution.case].name
        return solve(made, load_case=case, surface=self.solution.surface)


Try = Callable[[SayingTrial], Answer]
_SAYINGS: dict[str, tuple[str, Try]] = {}


def saying(name: str, words: str) -> Callable[[Try], Try]:
    """Register a function as the trial of a saying; name: its id; words: what is said [text]."""

    def register(function: Try) -> Try:
        _SAYINGS[name] = (words, function)
        return function

    return register


def known() -> Mapping[str, str]:
    """Return what is said, by the ids of the sayings."""
    return {name: words for name, (words, _) in _SAYINGS.items()}


def tried(solution: Solution, units: Units | UnitSystem | None = None) -> tuple[TriedSaying, ...]:
    """Return every saying tried; units: of the words."""
    trial = SayingTrial(solution, FigureWords(units or solution.build.natural_units))
    return tuple(
        TriedSaying(name, said, function(trial)) for name, (said, function) in _SAYINGS.items()
    )


def not_computed(why: str) -> Answer:
    """Return that the model cannot say; why: in a sentence [text]."""
    return Answer(SayingVerdict.NOT_COMPUTED, why)


def bars(first: tuple[str, float, str], other: tuple[str, float, str]) -> tuple[Bar, ...]:
    """Return two bars; first, other: words, length in one unit, what it reads."""
    longest = max(abs(first[1]), abs(other[1])) or 1.0
    return tuple(Bar(words, reads, abs(size) / longest) for words, size, reads in (first, other))


def bores(build: Build, by: float) -> dict[str, object]:
    """Return the changes that make the bores so many times as big; by: factor [-]."""
    master = build.master
    bore = parse(f"{master.main_bore.value * by * 1e3:.4f} mm", LENGTH)
    return {f"master.{name}": text for name, text in master.of_bore(bore).items()}


def rear_first(solution: Solution) -> bool:
    """Tell whether the rear locks first on any road, in any load case."""
    axles = solution.lock.axle[:, list(solution.roads)]
    return bool(np.any(axles == AxleName.REAR))


def at_comfortable(solution: Solution, field: str) -> float:
    """Return a figure at the comfortable foot [SI]; field: of the presses [text]."""
    return float(np.ravel(getattr(solution.presses, field))[0])
