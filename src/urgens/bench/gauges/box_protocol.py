"""What a gauge box says over its line: a greeting, a header, figures; anybody can build one."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field

from urgens.bench.logs.channels import CHANNELS, Channel, unit_of
from urgens.bench.logs.table import SIMULATED, titled
from urgens.quantity.units import Unit

GREETING = "# urgens-gauge"
VERSION = 1
LONGEST_LINE = 400  # bytes: what goes on without an end is no line
SAID = 20  # faults that are kept in words; all are counted
COLUMNS: dict[str, Channel] = {
    "t": CHANNELS["time"],
    "in": CHANNELS["front_pressure"],
    "out": CHANNELS["rear_pressure"],
    "front": CHANNELS["front_pressure"],
    "rear": CHANNELS["rear_pressure"],
    "foot": CHANNELS["foot"],
    "travel": CHANNELS["travel"],
    "lever": Channel("Lever", (0, 0, 0, 0), (), (), 0.0, 1.0),
}
CHANNEL_OF = {
    "t": "time", "in": "front_pressure", "out": "rear_pressure", "front": "front_pressure",
    "rear": "rear_pressure", "foot": "foot", "travel": "travel",
}  # fmt: skip


@dataclass(frozen=True)
class BoxReading:
    """One line of figures in SI, by the box's own names; `t` in s."""

    values: Mapping[str, float]

    def get(self, *names: str) -> float | None:
        """Return the first of several figures that the box gives.

        names: of them [text].
        """
        return next((self.values[name] for name in names if name in self.values), None)

    @property
    def inlet(self) -> float | None:
        """The pressure before the valve [Pa]."""
        return self.get("in", "front")

    @property
    def outlet(self) -> float | None:
        """The pressure behind the valve [Pa]."""
        return self.get("out", "rear")


@dataclass
class GaugeLines:
    """Turns bytes into readings; what is no line of figures is counted, kept in words, and skipped.

    `greeted` tells whether the box said what it is; until it has, lines are passed over: a port is
    opened in the middle of one. `simulated` tells whether it said that it is a stand-in.
    """

    greeted: bool = False
    simulated: bool = False
    names: tuple[str, ...] = ()
    units: tuple[Unit, ...] = ()
    read: int = 0
    skipped: int = 0
    said: list[str] = field(default_factory=list)
    _rest: bytes = b""

    def feed(self, given: bytes) -> list[BoxReading]:
        """Return the readings in what came; given: as it came, cut anywhere."""
        lines = (self._rest + given).split(b"\n")
        self._rest = lines.pop()
        if len(self._rest) > LONGEST_LINE:
            self._skip("a line without an end")
            self._rest = b""
        found = [self._line(line) for line in lines]
        return [one for one in found if one is not None]

    def _skip(self, why: str) -> None:
        self.skipped += 1
        if len(self.said) < SAID:
            self.said.append(why)

    def _line(self, raw: bytes) -> BoxReading | None:
        try:
            line = raw.decode("ascii").strip()
        except UnicodeDecodeError:
            self._skip("a line that is no text")
            return None
        if not line:
            return None
        if line.startswith("#"):
            self._greet(line)
            return None
        cells = [cell.strip() for cell in line.split(",")]
        if not self.names:
            self._head(cells)
            return None
        if len(cells) != len(self.names):
            self._skip(f"{len(cells)} figures, not {len(self.names)}")
            return None
        try:
            figures = [float(cell) for cell in cells]
        except ValueError:
            if cells[0].startswith("t"):
                self._head(cells)
            else:
                self._skip(f"“{line[:30]}” holds what is no figure")
            return None
        if not all(map(math.isfinite, figures)):
            self._skip(f"“{line[:30]}” holds what is no figure")
            return None
        self.read += 1
        return BoxReading({
            name: one * unit.factor + unit.offset
            for name, one, unit in zip(self.names, figures, self.units, strict=True)
        })  # fmt: skip

    def _greet(self, line: str) -> None:
        if not line.startswith(GREETING):
            return
        version, _, more = line.removeprefix(GREETING).strip().partition(" ")
        self.simulated = more.strip() == SIMULATED
        self.greeted = version == str(VERSION)
        if not self.greeted:
            self._skip(f"the box speaks version {version or '?'}; this reads {VERSION}")

    def _head(self, cells: list[str]) -> None:
        """Take a header; one that cannot be read leaves the box unread, and is said."""
        if not any(cell.startswith("t") for cell in cells):
            return
        names, units = titled(cells)
        if len(set(names)) < len(names) or "t" not in names:
            self._skip(f"the header “{', '.join(cells)[:60]}” names no time “t”, or a name twice")
            return
        found = []
        for name, unit in zip(names, units, strict=True):
            kind = COLUMNS.get(name)
            known = Unit(1.0, (0, 0, 0, 0)) if kind is None or not unit else unit_of(kind, unit)
            if known is None:
                self._skip(f"“{unit}” is no unit of {name}")
                return
            found.append(known)
        self.names, self.units = names, tuple(found)
