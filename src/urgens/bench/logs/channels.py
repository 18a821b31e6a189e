"""Which column of a log is what: proposed by name, unit and range, and turned into SI."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np

from urgens.bench.logs.table import LogFile
from urgens.document import BuildErrors
from urgens.physics.arrays import Array
from urgens.physics.atmosphere import GRAVITY
from urgens.quantity.units import KELVIN, METRE, METRE_PER_SECOND, NEWTON, PASCAL, Unit, unit

ABSURD = 1e9  # times the most that a vehicle has: a figure so large is an error of writing
PRESSED = 5e5  # Pa: from there on a vehicle surely slows
_APART = 9.0, 60.0  # times one line's pressure over the other's: no valve does that
SECONDS = (0, 0, 1, 0)
ACCELERATION = (1, 0, -2, 0)


@dataclass(frozen=True)
class Channel:
    """What a channel measures: its dimension, its words in a name, its usual unit and range [SI].

    `largest` is more than any vehicle has, `least_peak` less than any log worth reading.
    """

    title: str
    exponents: tuple[int, int, int, int]
    words: tuple[str, ...]
    units: tuple[str, ...]
    least_peak: float
    largest: float


CHANNELS: dict[str, Channel] = {
    "time": Channel("Time", SECONDS, ("time", "t", "zeit", "secs", "seconds", "timestamp"),
                    ("s", "ms", "min"), 0.0, 1e6),
    "front_pressure": Channel("Front pressure", PASCAL, ("front", "frt", "fr", "f", "p1", "pf"),
                              ("bar", "psi", "kPa", "MPa"), 2e5, 2.5e7),
    "rear_pressure": Channel("Rear pressure", PASCAL, ("rear", "rr", "r", "p2", "pr"),
                             ("bar", "psi", "kPa", "MPa"), 1e5, 2.5e7),
    "foot": Channel("Foot", NEWTON, ("foot", "effort", "pedal force", "force", "load"),
                    ("N", "lbf", "kN", "kgf"), 5.0, 3e3),
    "travel": Channel("Pedal travel", METRE, ("travel", "stroke", "pedal pos", "position"),
                      ("mm", "in", "cm", "m"), 1e-3, 0.4),
    "deceleration": Channel("Deceleration", ACCELERATION, ("decel", "accel", "acc", "ax", "g"),
                            ("g", "m/s²"), 0.5, 30.0),
    "speed": Channel("Speed", METRE_PER_SECOND, ("speed", "vehicle speed", "gps", "velocity", "v"),
                     ("km/h", "mph", "m/s"), 1.0, 120.0),
    "front_speed": Channel("Front wheels", METRE_PER_SECOND, ("front wheel", "ws front"),
                           ("km/h", "mph", "m/s"), 1.0, 120.0),
    "rear_speed": Channel("Rear wheels", METRE_PER_SECOND, ("rear wheel", "ws rear"),
                          ("km/h", "mph", "m/s"), 1.0, 120.0),
    "front_temperature": Channel("Front brakes", KELVIN, ("front temp", "temp front", "front disc"),
                                 ("°C", "°F", "K"), 250.0, 1300.0),
    "rear_temperature": Channel("Rear brakes", KELVIN, ("rear temp", "temp rear", "rear drum"),
                                ("°C", "°F", "K"), 250.0, 1300.0),
}  # fmt: skip
_G = Unit(GRAVITY, ACCELERATION)
_MINUTES = Unit(60.0, SECONDS)
_SPELT = re.compile(r"[^a-z0-9]+")


@dataclass(frozen=True)
class Mapped:
    """One channel: its column, and the unit its numbers are in."""

    column: str
    unit: str


@dataclass(frozen=True)
class Proposal:
    """Channels of a log as they seem to be, and what to ask about each, by its name."""

    channels: Mapping[str, Mapped]
    questions: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Signals:
    """A log's channels in SI, by name, each of shape (n,); deceleration in g."""

    channels: Mapping[str, Array]

    @property
    def time(self) -> Array:
        """The times [s]."""
        return self.channels["time"]

    def get(self, name: str) -> Array | None:
        """Return a channel, None where the log has none; name: of it [text]."""
        return self.channels.get(name)


def unit_of(kind: Channel, text: str) -> Unit | None:
    """Return the unit that a text means for a channel, None where it is none.

    kind, text: of it.

    Quantity.units; g is the standard acceleration here, not a gram.
    """
    spelt = text.strip().replace("^2", "²").replace("s2", "s²")
    if kind.exponents == ACCELERATION and spelt.lower() in ("g", "g's", "gs"):
        return _G
    if kind.exponents == SECONDS and spelt.lower() in ("min", "minutes"):
        return _MINUTES
    found = unit(spelt)
    return found if found is not None and found.exponents == kind.exponents else None


def propose(log: LogFile) -> Proposal:
    """Return which column is which; log: as read.

    Names first, then units, then what is left in the order in which loggers write it.
    """
    found: dict[str, Mapped] = {}
    questions: dict[str, str] = {}
    taken: set[str] = set()
    for name in _ORDER:
        column = _best_column(log, name, taken)
        if column is None:
            continue
        taken.add(column)
        mapped, question = _in_unit(log, name, column)
        found[name] = mapped
        if question is not None:
            questions[name] = question
    _by_range(log, found, questions, taken)
    questions.update(_unlike(log, found))
    return Proposal({name: found[name] for name in CHANNELS if name in found}, questions)


def _by_range(
    log: LogFile, found: dict[str, Mapped], questions: dict[str, str], taken: set[str]
) -> None:
    """Propose what no name tells: the time by how it rises, pressures by their unit; and ask."""
    left = [name for name in log.names if name not in taken]
    if "time" not in found:
        column = next((name for name in left if _rises(log.column(name))), None)
        if column is not None:
            left.remove(column)
            step = _median_step(log.column(column))
            found["time"] = Mapped(column, "s" if step < 1.0 else "ms")
            questions["time"] = f"no name says so: is “{column}” the time?"
    kind = CHANNELS["front_pressure"]
    pressures = [name for name in left
                 if (unit := log.units[log.names.index(name)]) and unit_of(kind, unit)]  # fmt: skip
    lines = [name for name in ("front_pressure", "rear_pressure") if name not in found]
    for name, column in zip(lines, pressures, strict=False):
        found[name] = Mapped(column, log.units[log.names.index(column)])
        side = name.partition("_")[0]
        questions[name] = f"“{column}” is a pressure: is it the {side} line's?"


def _rises(values: Array) -> bool:
    """Tell whether a column rises in nearly even steps, as a clock does."""
    steps = np.diff(values[np.isfinite(values)])
    if steps.size < 2 or not np.all(steps > 0.0):
        return False
    usual = float(np.median(steps))
    return bool(np.mean(np.abs(steps - usual) < 0.5 * usual) > 0.9)


_ORDER = (
    "time", "front_temperature", "rear_temperature", "front_speed", "rear_speed", "speed",
    "foot", "travel", "deceleration", "front_pressure", "rear_pressure",
)  # fmt: skip


def _best_column(log: LogFile, name: str, taken: set[str]) -> str | None:
    scores = [
        (_score(name, CHANNELS[name], title, told), -place, title)
        for place, (title, told) in enumerate(zip(log.names, log.units, strict=True))
        if title not in taken
    ]
    best = max(scores, default=(0, 0, ""))
    return best[2] if best[0] > 0 else None


def _score(name: str, kind: Channel, title: str, told: str) -> int:
    """Return how well a column's name and unit fit a channel; nought where they do not."""
    spelt = _SPELT.sub(" ", re.sub(r"(?<=[a-z])(?=[A-Z])", " ", title).lower()).strip()
    if spelt in (name.replace("_", " "), kind.title.lower()):
        return 100
    if told and unit_of(kind, told) is None:
        return 0
    words = set(spelt.split())
    hits = [len(one) for one in kind.words if set(one.split()) <= words]
    if not hits:
        return 0
    sided = name.partition("_")[0]
    if sided in ("front", "rear") and {"front": "rear", "rear": "front"}[sided] in words:
        return 0
    return max(hits) + (50 if told else 0)


def _in_unit(log: LogFile, name: str, column: str) -> tuple[Mapped, str | None]:
    """Return a column with its unit, and what to ask where that is not told, or not likely."""
    kind = CHANNELS[name]
    told = log.units[log.names.index(column)]
    values = log.column(column)
    peak = _peak(values)
    if told and (known := unit_of(kind, told)) is not None:
        likely = _likely(kind, known, peak)
        if likely:
            return Mapped(column, told), None
        other = _fitting(kind, peak)
        question = f"“{column}” reaches {peak:,.4g} {told}, which no vehicle has"
        return Mapped(column, told), question + (f": is it in {other}?" if other else "")
    if name == "time":
        return Mapped(column, "s" if _median_step(values) < 1.0 else "ms"), None
    guess = _fitting(kind, peak) or kind.units[0]
    return Mapped(column, guess), f"no unit stands with “{column}”: is it in {guess}?"


def _peak(values: Array) -> float:
    least, most = np.fmin.reduce(values), np.fmax.reduce(values)  # no copy of a long column
    if not (np.isfinite(least) and np.isfinite(most)):
        values = values[np.isfinite(values)]
        least, most = values.min(initial=0.0), values.max(initial=0.0)
    return float(abs(max(-least, most)))


def _median_step(values: Array) -> float:
    steps = np.diff(values[np.isfinite(values)])
    return float(np.median(steps)) if steps.size else 0.0


def _likely(kind: Channel, of: Unit, peak: float) -> bool:
    value = peak * of.factor + of.offset
    return bool(kind.least_peak <= value <= kind.largest or peak == 0.0)


def _fitting(kind: Channel, peak: float) -> str | None:
    for one in kind.units:
        known = unit_of(kind, one)
        if known is not None and _likely(kind, known, peak):
            return one
    return None


def _unlike(log: LogFile, mapped: Mapping[str, Mapped]) -> dict[str, str]:
    """Return what to ask where front and rear pressure are 14.5 times apart: bar beside psi."""
    pair = [mapped.get("front_pressure"), mapped.get("rear_pressure")]
    if pair[0] is None or pair[1] is None:
        return {}
    peaks = [
        _peak(log.column(one.column)) * known.factor
        for name, one in zip(("front_pressure", "rear_pressure"), pair, strict=True)
        if one is not None and (known := unit_of(CHANNELS[name], one.unit)) is not None
    ]
    if len(peaks) < 2 or not min(peaks):
        return {}
    ratio = peaks[0] / peaks[1]
    for far, name, other in ((ratio, "front_pressure", 0), (1.0 / ratio, "rear_pressure", 1)):
        if _APART[0] < far < _APART[1]:
            beside = pair[other]
            assert beside is not None
            words = f"“{beside.column}” is {far:.0f} times the other line's"
            return {name: f"{words}: bar and psi are 14.5 apart; which unit is it in?"}
    return {}


def signals(log: LogFile, channels: Mapping[str, Mapped]) -> Signals:
    """Return a log's channels in SI; log: as read; channels: by name.

    Raises BuildErrors where a column is not there, a unit does not fit, or the time is missing.

    Quantity.units; a deceleration is counted positive while the vehicle slows.
    """
    if "time" not in channels:
        raise BuildErrors.one("time", "no column is named as the time", "name one: time=COLUMN:s")
    found = {}
    for name, mapped in channels.items():
        if name not in CHANNELS:
            known = ", ".join(CHANNELS)
            raise BuildErrors.one(name, "is no channel", f"choose one of {known}")
        if mapped.column not in log.names:
            columns = ", ".join(log.names)
            raise BuildErrors.one(
                name, f"there is no column “{mapped.column}”", f"choose one of {columns}"
            )
        of = unit_of(CHANNELS[name], mapped.unit)
        if of is None:
            units = ", ".join(CHANNELS[name].units)
            raise BuildErrors.one(
                name, f"“{mapped.unit}” is no unit of it", f"write one of {units}"
            )
        with np.errstate(over="ignore"):
            values = log.column(mapped.column) * of.factor + of.offset
        values = np.where(np.abs(values) <= ABSURD * CHANNELS[name].largest, values, np.nan)
        found[name] = values / GRAVITY if name == "deceleration" else values
    if "deceleration" in found:
        found["deceleration"] = _positive_while_slowing(found)
    return Signals(found)


def _positive_while_slowing(arraies: Mapping[str, Array]) -> Array:
    """Return a deceleration turned round where it falls while the pedal is pressed."""
    z = arraies["deceleration"]
    pressure = arraies.get("front_pressure", arraies.get("rear_pressure"))
    if pressure is None:
        return z
    pressed = pressure > PRESSED
    return -z if pressed.any() and np.nanmedian(z[pressed]) < 0.0 else z
