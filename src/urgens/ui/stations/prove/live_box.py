"""The gauge box as the window sees it: a real port, or the simulated one, read while it speaks."""

from collections import deque

from PySide6.QtCore import QObject, Signal

from urgens.bench.gauges.box_protocol import BoxReading
from urgens.bench.gauges.box_reader import LiveGauges
from urgens.bench.gauges.simulated_box import Box, SimulatedBox
from urgens.bench.plant.plant import plant
from urgens.bench.plant.valve_faults import InjectedFault
from urgens.document import BuildErrors
from urgens.ui.session import Session
from urgens.ui.widgets.timers import again

EVERY = 50  # ms between two looks
STEADY = 0.3  # s over which a reading is averaged
STILL = 0.02, 4e4  # share of the pressure, and Pa, by which it may move meanwhile
SEED = 7  # of the simulated vehicle
MOVES = "The foot moves: hold it still."
NO_BOX = "No box speaks."


class LiveBox(QObject):
    """Opens a box, keeps what it says, and tells when it has gone."""

    spoke = Signal()
    ended = Signal(str)

    def __init__(self, session: Session, parent: QObject) -> None:
        super().__init__(parent)
        self._session = session
        self._box: SimulatedBox | None = None
        self._gauges: LiveGauges | None = None
        self._recent: deque[BoxReading] = deque(maxlen=3000)
        self.lever: float | None = None
        self.recorded: list[BoxReading] | None = None  # while it is recorded
        self._foot = 0.0
        self._timer = again(self, EVERY, self._look)
        session.press_changed.connect(self._follow)

    @property
    def open(self) -> bool:
        """Whether a box is read."""
        return self._gauges is not None

    @property
    def simulated(self) -> bool:
        """Whether it is a stand-in: its own, or one that says so over its line."""
        by_line = self._gauges is not None and self._gauges.lines.simulated
        return self._box is not None or by_line

    @property
    def now(self) -> BoxReading | None:
        """The last line it said."""
        return self._recent[-1] if self._recent else None

    @property
    def skipped(self) -> int:
        """How many broken lines were skipped."""
        return 0 if self._gauges is None else self._gauges.lines.skipped

    @property
    def said(self) -> str:
        """What the last broken lines were, in words."""
        return "" if self._gauges is None else "; ".join(self._gauges.lines.said[-2:])

    def simulate(self, valve: str, fault: InjectedFault | None = None) -> None:
        """Start the stand-in across a valve: an invented vehicle near this build, or a fault."""
        self.close()
        self._follow()
        made = plant(self._session.build, SEED, fault)
        self._box = SimulatedBox(Box(made, valve, SEED), lambda _: self._foot, lambda: self.lever)
        self.listen(self._box.port)

    def listen(self, port: str) -> None:
        """Read a port; raises BuildErrors where it cannot be opened."""
        if self._box is None:
            self.close()
        self._recent.clear()
        self.recorded = None
        self._gauges = LiveGauges(port)
        self._timer.start()

    def close(self) -> None:
        """Let go of the box."""
        self._timer.stop()
        if self._gauges is not None:
            self._gauges.close()
        if self._box is not None:
            self._box.close()
        self._gauges = self._box = None

    def steady(self) -> tuple[float, float]:
        """Return what both gauges show while the foot is held still [Pa]; raises BuildErrors."""
        last = self.now
        if last is None:
            raise BuildErrors.one("gauges", NO_BOX, "start it first")
        since = last.values["t"] - STEADY
        rows = [one for one in self._recent if one.values["t"] >= since]
        pairs = [(one.inlet, one.outlet) for one in rows]
        into = [pair[0] for pair in pairs if pair[0] is not None]
        out = [pair[1] for pair in pairs if pair[1] is not None]
        if not into or not out:
            raise BuildErrors.one("gauges", "it gives no two pressures", "look at its header")
        mean = sum(into) / len(into)
        if max(into) - min(into) > STILL[0] * mean + STILL[1]:
            raise BuildErrors.one("gauges", MOVES, "read again")
        return mean, sum(out) / len(out)

    def _follow(self) -> None:
        self._foot = self._session.effort

    def _look(self) -> None:
        if self._gauges is None:
            return
        came = self._gauges.taken()
        self._recent.extend(came)
        if self.recorded is not None:
            self.recorded.extend(came)
        if self._gauges.ended:
            words = self._gauges.ended
            self.close()
            self.ended.emit(words)
        elif came:
            self.spoke.emit()
