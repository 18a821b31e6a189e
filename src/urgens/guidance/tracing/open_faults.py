"""A fault that is being followed, and keeps the vehicle standing."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.document.ledger.traces import TraceRun
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.solve import Solution


def open_run(build: Build) -> tuple[int, TraceRun] | None:
    """Return the fault that is followed now, with its place; None where none is."""
    runs = [(place, one) for place, one in enumerate(build.traces) if one.ended is None]
    return runs[-1] if runs else None


@rule("fault-stops", Severity.DANGER)
def fault_stops(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Say why the vehicle stands while a fault is followed."""
    found = open_run(solution.build)
    if found is None:
        return
    from urgens.guidance.tracing.ranking import TraceEvidence  # the tables of tracing, late
    from urgens.guidance.tracing.together import stops

    place, run = found
    seen = {one.sign: one.seen for one in run.signs}
    for said in stops(TraceEvidence(seen, {one.test: one.outcome for one in run.tests}))[:1]:
        yield Remark(
            message=f"Do not drive: {said}",
            why="Wheels chocked; then follow it to its cause on Trace.",
            where=f"traces[{place}]",
        )
