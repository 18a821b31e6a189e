"""The plan of a build: its jobs in order, what is not here, what holds the vehicle, what is due."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from urgens.document import Build, BuildChange
from urgens.document.edits.edit import dumped
from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.proofs import OPEN
from urgens.guidance.planning.converting import conversion_work
from urgens.guidance.planning.easy import EasyWhile, easy_while
from urgens.guidance.planning.held import ended_by
from urgens.guidance.planning.job import Job
from urgens.guidance.planning.order import Ordered, ordered
from urgens.guidance.planning.still_open import open_work
from urgens.guidance.planning.work import FITTED, Work, bleed_job
from urgens.guidance.procedures.records import title_of
from urgens.guidance.words.trade import item_name
from urgens.plumbing.cut_list import TooLongError
from urgens.plumbing.kit import buying_list
from urgens.plumbing.needed import SHELVES, Needed
from urgens.plumbing.shopping import SAW, STOCK

JOBS_OF_THEIR_OWN = SHELVES[:2]  # cylinder, booster and brakes: their own jobs bring them


@dataclass(frozen=True)
class Missing:
    """A part that is not here: how many, and the job that waits for it; `item` in the build."""

    item: str
    what: str
    count: int
    job: str


@dataclass(frozen=True)
class Held:
    """What holds the vehicle: it does not move before, and the job that does it, if one does."""

    what: str
    job: str


@dataclass(frozen=True)
class WorkPlan:
    """The work on one build in its order, and what stands beside it."""

    work: Work
    order: Ordered
    missing: tuple[Missing, ...]
    holds: tuple[Held, ...]

    @property
    def jobs(self) -> tuple[Job, ...]:
        """The jobs in their order, bleeding among them."""
        return self.order.jobs

    @property
    def easy(self) -> tuple[EasyWhile, ...]:
        """What is come at easily while something is out."""
        return easy_while(self.work.build)

    @property
    def minutes(self) -> int:
        """How long all of them take."""
        return sum(job.minutes for job in self.jobs)

    @property
    def together(self) -> int:
        """Minutes in which more than one person is needed."""
        return sum(job.minutes for job in self.jobs if job.people > 1)

    @property
    def renews(self) -> bool:
        """Whether every circuit is bled, and so all fluid new."""
        bled = {circuit for job in self.jobs for circuit in job.bleeds}
        return bool(bled) and bled >= {c for job in self.jobs for c in (*job.opens, *job.shut)}

    @property
    def claim(self) -> str:
        """What it comes to, as one claim."""
        if not self.jobs:
            return "Nothing is open"
        if not self.order.bleeds:
            return "Nothing that holds fluid is opened"
        times = "once" if self.order.bleeds == 1 else f"{self.order.bleeds} times"
        fewer = self.order.one_by_one > self.order.bleeds
        spared = f", not {self.order.one_by_one}" if fewer else ""
        circuits = {circuit for job in self.jobs for circuit in job.bleeds}
        once = self.order.bleeds == len(circuits)
        opened = "Opened once" if once else "Opened again in between"
        return f"{opened}: bled {times}{spared}"

    def place(self, name: str) -> int | None:
        """Return the place of a job, counted from 1; name: its own [text]."""
        return next((at for at, job in enumerate(self.jobs, 1) if job.name == name), None)


def plan(now: Build, then: Build | None = None) -> WorkPlan:
    """Return the plan of a build, or of the way to another; now, then: the documents."""
    work = open_work(now) if then is None else conversion_work(now, then)
    order = ordered(work.jobs, lambda names: bleed_job(work.build, names), work.begun)
    missing = tuple(_missing(now, work))
    return WorkPlan(work, order, missing, tuple(_holds(work.build, order)))


def _missing(now: Build, work: Work) -> Iterator[Missing]:
    """Yield what the layout takes that now does not have, and that did not come yet."""
    here: Counter[str] = Counter()
    for came in () if now.plumbing is None else now.plumbing.received:
        here[came.item] += came.count
    for one in work.jobs:
        for item in one.brings:
            if not here[item]:
                yield Missing(item, f"{item[:1].upper()}{item[1:]}", 1, one.name)
    yield from _missing_of_layout(now, work, here)


def _missing_of_layout(now: Build, work: Work, here: Counter[str]) -> Iterator[Missing]:
    job = next((one.name for one in work.jobs if one.name == FITTED), None)
    if job is None or work.build.plumbing is None:
        return
    before = None if work.build is now else now
    for one in _to_buy(work.build, before):
        told_by_job = one.shelf in JOBS_OF_THEIR_OWN
        lacks = one.count - here[one.item]
        if lacks > 0 and not told_by_job:
            yield Missing(one.item, item_name(one.item), lacks, job)


def came(build: Build, missing: Missing) -> BuildChange:
    """Return the edit that notes a missing part as here.

    build: one with a layout; missing: the part.
    """
    rows: list[dict[str, Any]] = dumped(build).get("plumbing", {}).get("received", [])
    known = sum(row["count"] for row in rows if row["item"] == missing.item)
    kept = [row for row in rows if row["item"] != missing.item]
    row = {"item": missing.item, "count": known + missing.count}
    return BuildChange(f"{missing.what} came", {"plumbing.received": [*kept, row]})


def _to_buy(build: Build, before: Build | None) -> tuple[Needed, ...]:
    """Return what is bought; nothing where a line is longer than the tube that is sold."""
    try:
        return buying_list(build, STOCK.value, SAW.value, before=before).rows
    except TooLongError:
        return ()


def _holds(build: Build, order: Ordered) -> Iterator[Held]:
    """Yield what holds the vehicle; on paper, what has to be before it moves the first time."""
    stands = condition(build)
    if stands.may_move is not None:
        items = {f"open_items[{index}]": one.what for index, one in enumerate(build.open_items)}
        for hold in stands.holds:
            yield Held(items.get(hold.place, hold.words), ended_by(build, hold, order.jobs))
        return
    proving = next((job.name for job in order.jobs if job.procedure == "prove-standing"), "")
    for one in stands.standing.proofs:
        if one.state in OPEN:
            yield Held(title_of(one.name), proving)
