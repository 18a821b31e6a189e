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
    "reservoir",
    "cylinder",
    "rod",
    "booster",
    "lines",
    "joints",
    "hose",
    "brake",
    "valve",
    "switch",
    "vehicle",
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


class TraceAnswer(Linked):
    """An answer: in words; what shows so, by axle, as another sign that is seen, or by how often.

    `paths` are where in a build a change tells the same.
    """

    id: str
    words: str
    axle: Literal["front", "rear"] | None = None
    sign: str = Field("", alias="as")
    paths: tuple[str, ...] = ()

    @property
    def ranks(self) -> bool:
        """Whether it tells causes apart."""
        return bool(self.axle or self.sign or any(True for _ in self.links()))


class TraceAsk(TableRow):
    """What is asked of a sign besides, and its answers.

    One that `raises` makes causes likelier; one without a link tells where to look, and no more.
    """

    id: str
    words: str
    raises: bool = False
    answers: tuple[TraceAnswer, ...] = Field(min_length=2)

    @property
    def ranks(self) -> bool:
        """Whether an answer tells causes apart."""
        return any(one.ranks for one in self.answers)


class TraceSign(TableRow):
    """Something seen, felt or heard: in words, how to look, why it stops the vehicle if it does.

    `when` tells that it is not what is seen but when it came; `asks` what is asked besides, in
    words of its own where `asked` has them.
    """

    id: str
    words: str
    look: str
    stops: str = ""
    when: bool = False
    asks: tuple[str, ...] = ()
    asked: Mapping[str, str] = {}
    causes: Linked


class TraceCause(TableRow):
    """What it may come from: why it shows so, how common, where, what it needs, what mends it.

    `wheel` tells that it sits at one wheel, and which way the vehicle pulls then: to the other
    side, to its own, or to either; `hot` that it is there only when hot. `effect` is what it
    changes of the figures, each from the least size to the most; None where nothing of it is
    simulated.
    """

    id: str
    words: str
    why: str
    common: Common
    place: Place
    axle: Literal["front", "rear", "parking"] | None = None
    needs: tuple[Need, ...] = ()
    mend: str
    wheel: Literal["away", "towards", "either"] | None = None
    hot: bool = False
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
    asks: tuple[TraceAsk, ...]

    def ask(self, name: str) -> TraceAsk:
        """Return what is asked; name: its id [text]. Raises KeyError."""
        return {one.id: one for one in self.asks}[name]

    def asking(self, answer: str) -> tuple[TraceAsk, TraceAnswer] | None:
        """Return an answer with what asks for it; answer: its id [text]; None where none does."""
        found = ((ask, one) for ask in self.asks for one in ask.answers if one.id == answer)
        return next(found, None)

    @model_validator(mode="after")
    def _whole(self) -> "Tables":
        """Say what is named and not there, named twice, or told by nothing."""
        known = _once([one.id for one in self.causes], "cause")
        _once([one.id for one in self.signs], "sign")
        _once([one.id for one in self.tests], "test")
        told: set[str] = set()
        signs, asks = {one.id for one in self.signs}, {one.id for one in self.asks}
        for sign in self.signs:
            _once([cause for cause, _ in sign.causes.links()], f"cause of {sign.id}", known)
            _once([*sign.asks], f"ask of {sign.id}", asks)
            _once([*sign.asked], f"ask of {sign.id}", set(sign.asks))
        answers = [one for ask in self.asks for one in ask.answers]
        _once([one.id for one in answers], "answer")
        for one in answers:
            _once([cause for cause, _ in one.links()], f"cause of {one.id}", known)
            _once([one.sign] if one.sign else [], f"sign of {one.id}", signs)
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
    """Return signs, causes, tests and what is asked. Source: common practice, as the files say."""
    files = ("signs", "causes", "tests", "asks")
    return Tables.model_validate(
        {key: rows for one in files for key, rows in trace_table(one).items()}
    )
