"""Set-ups as a ladder: what each rung changes and costs, when it is enough, what is proved."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from urgens.document import Build, with_setup
from urgens.document.edits.past import changes_between, figure_words, layout_last
from urgens.guidance.condition.deeds import MOVING
from urgens.guidance.condition.proofs import standing_proofs
from urgens.guidance.rules.finding import Severity
from urgens.guidance.rules.registry import findings
from urgens.solve import solve
from urgens.solve.first_rise import AxleName

MOST = 3  # figures that are told of a rung


@dataclass(frozen=True)
class Rung:
    """One set-up: what it changes in a line, its price, when it is enough, and what it comes to.

    `rear_first` counts loads and roads with the rear first, `dangers` findings; `proved` is when
    the standing proofs with it ended, `moved` when it was proved moving, None where neither is on
    record.
    """

    name: str
    changes: str
    price: float | None
    enough_if: str
    rear_first: int
    dangers: int
    proved: datetime | None
    moved: datetime | None

    @property
    def done(self) -> bool:
        """Whether both proofs are on record."""
        return self.proved is not None and self.moved is not None


def ladder(build: Build) -> tuple[Rung, ...]:
    """Return the set-ups of a build in their order."""
    return tuple(_rungs(build))


def _rungs(build: Build) -> Iterator[Rung]:
    for setup in build.setups:
        laid = with_setup(build, setup.name)
        solution = solve(laid)
        axles = solution.lock.axle[:, list(solution.roads)]
        found = findings(solution)
        yield Rung(
            setup.name,
            _changes(build, laid),
            setup.price,
            setup.enough_if,
            int(np.count_nonzero(axles == AxleName.REAR)),
            sum(one.severity is Severity.DANGER for one in found),
            _proved(laid, setup.name),
            _moved(laid, setup.name),
        )


def _changes(build: Build, laid: Build) -> str:
    changes = changes_between(build, laid)
    rows = [f"{name} {words}" for name, words in figure_words((laid, build), layout_last(changes))]
    more = f"; and {len(rows) - MOST} more" if len(rows) > MOST else ""
    return f"{'; '.join(rows[:MOST])}{more}" if rows else "nothing yet"


def _proved(laid: Build, name: str) -> datetime | None:
    """Return when the last standing proof with a set-up was made, None while one is open."""
    own = laid.model_copy(
        update={"records": tuple(one for one in laid.records if one.setup == name)}
    )
    proofs = [one for one in standing_proofs(own) if one.state != "not-needed"]
    if any(one.state != "done" for one in proofs):
        return None
    return max((one.at for one in proofs if one.at is not None), default=None)


def _moved(laid: Build, name: str) -> datetime | None:
    """Return when it was last proved moving with a set-up, and no step said no."""
    runs = [
        one.ended
        for one in laid.records
        if one.procedure == MOVING and one.setup == name and one.ended is not None
        if not any(entry.value is False for entry in one.entries)
    ]
    return max(runs, default=None)
