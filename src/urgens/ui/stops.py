"""What the rail says of each station."""

from urgens.document import Build
from urgens.document.known import open_figures
from urgens.guidance import Finding, Severity, area_of
from urgens.ui.rail import Stop
from urgens.ui.session import Session

SIZED = ("sizing", "travel")  # areas of findings that Size can mend


class Stops:
    """Marks and facts of the stations, each of at most twelve letters."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._counted_of: Build | None = None
        self._counts = (0, 0)

    def all(self) -> tuple[Stop, ...]:
        """Return the stations in the order of the work."""
        return (
            Stop("Measure", self.measure_fact, self._measure_mark, judged=self._measured),
            Stop("Size", self._size_fact, self._size_mark),
            Stop("Balance", self._balance_fact, self._balance_mark),
            Stop("Sheet", lambda: "to print", lambda: None, judged=lambda: False),
        )

    def _open(self) -> tuple[int, int]:
        """Return how many figures are assumed, and how many are open in all."""
        build = self._session.build
        if self._counted_of is not build:
            figures = open_figures(build)
            self._counted_of = build
            self._counts = sum(f.state == "assumed" for f in figures), len(figures)
        return self._counts

    def _measured(self) -> bool:
        assumed, still_open = self._open()
        return assumed > 0 or still_open == 0

    def _measure_mark(self) -> Severity | None:
        return Severity.WARNING if self._open()[0] else None

    def measure_fact(self) -> str:
        """Return how many figures are still to settle."""
        assumed, still_open = self._open()
        if assumed:
            return f"{assumed} assumed"
        return f"{still_open} open" if still_open else "all settled"

    def _worst(self, *, size: bool) -> Severity | None:
        """Return the worst finding of Size, or of all else."""
        found = self._of(size=size)
        return min((finding.severity for finding in found), default=None)

    def _of(self, *, size: bool) -> list[Finding]:
        return [f for f in self._session.findings if (area_of(f.code) in SIZED) is size]

    def _counted(self, good: str, *, size: bool) -> str:
        worst = self._worst(size=size)
        if worst is None:
            return good
        count = sum(finding.severity is worst for finding in self._of(size=size))
        plural = "s" if count > 1 and worst is not Severity.ADVICE else ""
        return f"{count} {worst.word}{plural}"

    def _size_mark(self) -> Severity | None:
        return self._worst(size=True)

    def _size_fact(self) -> str:
        ratio = float(self._session.solution.system.pedal_ratio)
        return self._counted(f"ratio {ratio:.1f}", size=True)

    def _balance_mark(self) -> Severity | None:
        return self._worst(size=False)

    def _balance_fact(self) -> str:
        return self._counted("front first", size=False)
