"""What the rail says of each station."""

from urgens.build import Build
from urgens.guidance import Severity
from urgens.solve.settle import open_figures
from urgens.ui.rail import Stop
from urgens.ui.session import Session


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
            Stop("Size", self._size_fact, lambda: None, judged=lambda: False),
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

    def _size_fact(self) -> str:
        ratio = float(self._session.solution.system.pedal_ratio)
        return f"ratio {ratio:.1f}"

    def _balance_mark(self) -> Severity | None:
        return min((finding.severity for finding in self._session.findings), default=None)

    def _balance_fact(self) -> str:
        worst = self._balance_mark()
        if worst is None:
            return "front first"
        count = sum(finding.severity is worst for finding in self._session.findings)
        plural = "s" if count > 1 and worst is not Severity.ADVICE else ""
        return f"{count} {worst.word}{plural}"
