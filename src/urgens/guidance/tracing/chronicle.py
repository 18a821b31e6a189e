"""What happened to a vehicle, the latest first: changes, symptoms, services and notes together."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from itertools import groupby
from typing import Literal

from urgens.document import Build
from urgens.document.ledger.history import HistoryEntry
from urgens.document.ledger.proof import Proof
from urgens.guidance.condition.standing import outcome_of
from urgens.guidance.faults.tables import tables
from urgens.guidance.procedures.records import title_of

Kind = Literal["change", "symptom", "service", "note"]
KINDS: tuple[Kind, ...] = ("change", "symptom", "service", "note")


@dataclass(frozen=True)
class Happened:
    """One thing that happened: when, of which kind, what, and why or what came of it.

    `place` is where it stands in the build; `entry` is that of the history, None of what other
    sections tell: runs of procedures, faults, stops, gauges.
    """

    at: datetime
    kind: Kind
    what: str
    why: str
    place: str
    entry: HistoryEntry | None = None


def chronicle(build: Build) -> tuple[Happened, ...]:
    """Return what happened, the latest first."""
    found = [*_history(build), *_records(build), *_traces(build), *_proof(build.proof)]
    return tuple(sorted(found, key=lambda one: one.at, reverse=True))


def _history(build: Build) -> Iterator[Happened]:
    for index, one in enumerate(build.history):
        yield Happened(one.at, one.kind, one.what, one.why, f"history[{index}]", one)


def _records(build: Build) -> Iterator[Happened]:
    for index, one in enumerate(build.records):
        title = title_of(one.procedure)
        how = [one.method.replace("-", " ")] if one.method else []
        how += [f"with {one.setup}"] if one.setup else []
        left = outcome_of(build, one).words
        no = any(entry.value is False for entry in one.entries)
        said = [*([left] if left else []), *(["a step says no"] if no else [])]
        said += [f"checked by {one.checked_by}"] if one.checked_by else []
        words = ", ".join([title, *how])
        yield Happened(one.started, "service", words, "; ".join(said), f"records[{index}]")


def _traces(build: Build) -> Iterator[Happened]:
    whole = tables()
    signs = {one.id: one.words for one in whole.signs}
    causes = {one.id: one.words for one in whole.causes}
    for index, one in enumerate(build.traces):
        seen = [signs.get(sign.sign, sign.sign) for sign in one.signs if sign.seen]
        cause = causes.get(one.cause, one.cause)
        came = f"came from: {cause}" if cause else "not followed to its end"
        mended = ", mended" if one.mended else ""
        what = "; ".join(seen) or "a fault without a sign"
        yield Happened(one.started, "symptom", what, f"{came}{mended}", f"traces[{index}]")


def _proof(proof: Proof | None) -> Iterator[Happened]:
    """Yield what was measured: stops of a day are one thing."""
    if proof is None:
        return
    for index, run in enumerate(proof.gauges):
        which = f"the {valve_name(run.valve)}" if run.valve else "a valve that is gone"
        yield Happened(run.at, "service", f"Gauges across {which}", run.note,
                       f"proof.gauges[{index}]")  # fmt: skip
    stops = sorted(enumerate(proof.stops), key=lambda row: row[1].at)
    for _, rows in groupby(stops, key=lambda row: row[1].at.date()):
        day = list(rows)
        locked = [stop.locked for _, stop in day if stop.locked in ("rear", "both")]
        said = f"the rear locked in {len(locked)}" if locked else ""
        count = f"{len(day)} stop{'s' if len(day) > 1 else ''} on the road"
        yield Happened(day[0][1].at, "service", count, said, f"proof.stops[{day[0][0]}]")
    for index, wear in enumerate(proof.wear):
        yield Happened(wear.at, "service", "Pads and linings measured", wear.note,
                       f"proof.wear[{index}]")  # fmt: skip


def valve_name(place: str) -> str:
    """Return what a valve is called by its axle and its place in the flow.

    place: such as "rear[0]" [text].
    """
    axle, _, number = place.partition("[")
    at = int(number.removesuffix("]"))
    return f"{axle} valve {at + 1}" if at else f"{axle} valve"
