"""The shipped tables of tracing: signs, causes, tests; validated as one."""

from collections.abc import Iterator, Mapping
from functools import lru_cache
from typing import Annotated, Literal

from pydantic import Field, model_validator

from urgens.data import trace_table
from urgens.document.model import TableRow
from urgens.guidance.procedures.records import records

Link = Literal["nearly-always", "often", "sometimes", "seldom", "never"]
Common = Literal["often", "sometimes", "seldom"]
Need = Literal[
    "two-circuits", "axle-circuits", "diagonal-circuits",
    "booster", "vacuum-booster", "no-booster", "front-disc", "rear-disc",
    "front-drum", "rear-drum", "discs", "drums", "reducing", "no-reducing", "adjustable",
    "load-sensing", "metering", "no-metering", "residual", "no-residual", "front-residual",
    "rear-residual", "switch", "light-switch", "parking-brake",
]  # fmt: skip
Place = Literal[
    "reservoir", "cylinder", "rod", "booster", "lines", "joints", "hose", "brake", "valve", "switch"
]
Share = Annotated[float, Field(gt=0, lt=1)]


class Linked(TableRow):
    """Causes by how often they show so, in the order of the table."""

    nearly_always: tuple[str, ...] = Field((), alias="nearly-always")
    often: tuple[str, ...] = ()
    sometimes: tuple[str, ...] = ()
    never: tuple[str, ...] = ()

    def links(self) -> Iterator[tuple[str, Link]]:
        """Yield every cause that is named with how often."""
        rows: tuple[tuple[Link, tuple[str, ...]], ...] = (
            ("nearly-always", self.nearly_always), ("often", self.often),
            ("sometimes", self.sometimes), ("never", self.never),
        )  # fmt: skip
        for link, causes in rows:
            for cause in causes:
                yield cause, link


class TraceSign(TableRow):
    """Something seen, felt or heard: in words, how to look, why it stops the vehicle if it does.

    `when` tells that it is not what is seen but when it came.
    """

    id: str
    words: str
    look: str
    stops: str = ""
    when: bool = False
    causes: Linked


class TraceCause(TableRow):
    """What it may come from: why it shows so, how common, where, what it needs, what mends it.

    `effect` is what it changes of the figures, each from the least size to the most; None where
    nothing of it is simulated.
    """

    id: str
    words: str
    why: str
    common: Common
    place: Place
    axle: Literal["front", "rear", "parking"] | None = None
    needs: tuple[Need, ...] = ()
    mend: str
    effect: Mapping[str, tuple[float, float]] | None = None


class TestOutcome(Linked):
    """What a test can show, what it would mean, and which causes show so."""

    id: str
    words: str
    means: str
    needs: tuple[Need, ...] = ()


class TraceTest(TableRow):
    """A test: minutes and people it takes, whether a joint is opened, its outcomes.

    `usual` is the outcome of causes that none of them names; `answers` the signs that say the same.
    """

    id: str
    words: str
    minutes: Annotated[int, Field(ge=1, le=120)]
    people: Annotated[int, Field(ge=1, le=3)]
    opens: bool = False
    needs: tuple[Need, ...] = ()
    procedure: str | None = None
    answers: tuple[str, ...] = ()
    usual: str
    outcomes: tuple[TestOutcome, ...] = Field(min_length=2)


class Tables(TableRow):
    """All of it, each in the order of the table, with what the words of how often count for."""

    links: Mapping[Link, Share]
    common: Mapping[Common, Annotated[float, Field(gt=0)]]
    signs: tuple[TraceSign, ...]
    causes: tuple[TraceCause, ...]
    tests: tuple[TraceTest, ...]

    @model_validator(mode="after")
    def _whole(self) -> "Tables":
        """Say what is named and not there, named twice, or told by nothing."""
        known = _once([one.id for one in self.causes], "cause")
        _once([one.id for one in self.signs], "sign")
        _once([one.id for one in self.tests], "test")
        told: set[str] = set()
        for sign in self.signs:
            _once([cause for cause, _ in sign.causes.links()], f"cause of {sign.id}", known)
        for test in self.tests:
            outcomes = _once([one.id for one in test.outcomes], f"outcome of {test.id}")
            if test.usual not in outcomes:
                raise ValueError(f"{test.id}: its usual outcome {test.usual} is none of its own")
            for outcome in test.outcomes:
                named = [cause for cause, _ in outcome.links()]
                _once(named, f"cause of {test.id}, {outcome.id}", known)
                told |= set(named) if outcome.id != test.usual else set()
        for cause in self.causes:
            if cause.mend not in records():
                raise ValueError(f"{cause.id}: there is no procedure {cause.mend} to mend it")
        if known - told:
            raise ValueError(f"no test tells {', '.join(sorted(known - told))}")
        return self


def _once(names: list[str], what: str, known: set[str] | None = None) -> set[str]:
    for name in names:
        if names.count(name) > 1:
            raise ValueError(f"{what}: {name} is there twice")
        if known is not None and name not in known:
            raise ValueError(f"{what}: there is no {name}")
    return set(names)


@lru_cache(maxsize=1)
def tables() -> Tables:
    """Return signs, causes and tests. Source: common practice, as the files say."""
    whole = {**trace_table("signs"), **trace_table("causes"), **trace_table("tests")}
    return Tables.model_validate(whole)
