"""A fault that is being followed, and keeps the vehicle standing."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.document.ledger.traces import TraceRun
from urgens.guidance.condition.holds import condition
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
    """Say why the vehicle stands for a fault that was seen and is not mended."""
    for hold in condition(solution.build).holds:
        if hold.code == "fault-stops":
            yield Remark(
                message=hold.words,
                why="Wheels chocked; then follow it to its cause on Trace.",
                where=hold.place,
            )
