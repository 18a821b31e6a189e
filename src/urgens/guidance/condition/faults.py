"""What holds the vehicle by a fault: one that stops it, one mended and not proved since."""

from collections.abc import Iterator
from datetime import datetime

from urgens.document.ledger.traces import TraceRun
from urgens.guidance.condition.hold import Hold
from urgens.guidance.condition.lapses import proved_after_mend
from urgens.guidance.condition.standing import Standing
from urgens.guidance.faults.together import stops
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.records import records, title_of


def fault_holds(stands: Standing) -> Iterator[Hold]:
    """Yield what the faults of a vehicle hold it by; stands: with them.

    Source: common practice: what stops a vehicle stops it until it is mended, and proved.
    """
    traces = stands.build.traces
    for index, run in enumerate(traces):
        told = _stops(run, stands.at)
        if told and not any(_mends(later, run, stands.at) for later in traces):
            open_ = "" if run.ended is None else " It was followed, and not mended."
            yield Hold("fault-stops", f"Do not drive: {told[0]}{open_}", run.started,
                       f"traces[{index}]", "follow it to its cause, mend it, prove it")  # fmt: skip
    yield from _unproved(stands)


def _stops(run: TraceRun, at: datetime) -> tuple[str, ...]:
    """Return why what was seen by a time is not to be driven, in words."""
    seen = {one.sign: one.seen for one in run.signs if one.at <= at}
    found = {one.test: one.outcome for one in run.tests if one.at <= at}
    return stops(seen, found) if run.started <= at else ()


def _mends(later: TraceRun, run: TraceRun, at: datetime) -> bool:
    """Return whether a run, the same or a later one of a sign in common, ended in a mend."""
    if not later.mended or later.ended is None or later.ended > at or later.started < run.started:
        return False
    seen = {one.sign for one in run.signs if one.seen}
    return later is run or bool(seen & {one.sign for one in later.signs if one.seen})


def _unproved(stands: Standing) -> Iterator[Hold]:
    facts, known = Facts(stands.build), {one.name: one for one in stands.proofs}
    for place, deed in stands.fold.mended.items():
        wanted = [
            name for name in proved_after_mend(stands.build, str(deed.value))
            if name in known and records()[name].refusal(facts) is None
            and not _proved_after(known[name].state, known[name].at, deed.at)
        ]  # fmt: skip
        if wanted:
            names = ", ".join(f"“{title_of(name)}”" for name in wanted)
            yield Hold("fault-mended-unproved", f"mended, and not proved since: {names}", deed.at,
                       place, f"{names} after the mend")  # fmt: skip


def _proved_after(state: str, at: datetime | None, mended: datetime | None) -> bool:
    return state == "done" and at is not None and mended is not None and at >= mended
