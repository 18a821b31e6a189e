"""What is read at a step: taken as typed, refused where it cannot be, and what it should be."""

from math import isfinite
from typing import NamedTuple

from urgens.document import Build
from urgens.document.ledger.records import WORDS, ProcedureRun
from urgens.guidance.procedures.step import ProcedureStep
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import (
    LENGTH,
    PRESSURE,
    TEMPERATURE,
    VOLUME,
    QuantityError,
    QuantityKind,
    ShownFigure,
    Units,
    UnitSystem,
    completed,
    decimal,
    number_of,
    parse,
    show,
    unit_shown,
)
from urgens.solve import Presses, Solution

YES_NO = {"yes": True, "no": False}
TOLD = ("ok", "lamp")  # by yes or no
HALF_LOST = "half-lost-test"
CLEARANCE = "pushrod-clearance"
WANTED_CLEARANCE = 1e-3  # m at the piston
CLOSE = 0.25e-3  # how near is near enough
ABSOLUTE = 273.15  # K at 0 °C


class Measure(NamedTuple):
    """How a figure is recorded: its kind, its unit's size and zero, the most there is [SI].

    A bare figure is in the unit that is shown, but for what a bottle is marked with.
    """

    kind: QuantityKind
    unit: float
    name: str
    most: float
    zero: float = 0.0
    bare: str = ""


# Units of the record are those of the contract; the most is beyond anything that is met.
MEASURES = {
    "travel": Measure(LENGTH, 1e-3, "mm", 0.6),
    "gap": Measure(LENGTH, 1e-3, "mm", 1.0),
    "pressure": Measure(PRESSURE, 1e5, "bar", 4e7),
    "temperature": Measure(TEMPERATURE, 1.0, "°C", 1600.0, ABSOLUTE),
    "amount": Measure(VOLUME, 1e-6, "ml", 0.02, bare="ml"),
}
COUNTS = ("strokes", "clicks")


def taken(
    build: Build, field: str, typed: str, units: UnitSystem | Units
) -> float | str | bool | None:
    """Return what was typed or chosen as a record keeps it; None where nothing was.

    field: of the record [text]; typed: by hand [text]; units: a bare
    figure is in.
    Raises QuantityError with the remedy where it is no such reading, or one that cannot be.

    The contract's units; bounds beyond what is met on a vehicle.
    """
    text = typed.strip()
    if not text:
        return None
    if field in TOLD:
        return YES_NO[text]
    if field in WORDS or field == "note":
        return text
    if field in COUNTS:
        return _counted(field, text)
    measure = MEASURES[field]
    bare = number_of(text) is not None and measure.bare
    whole = f"{text} {measure.bare}" if bare else completed(text, measure.kind, units)
    value = parse(whole, measure.kind).value
    most = build.pedal.travel_available.value if field == "travel" else measure.most
    if value < 0.0:
        raise QuantityError(f'"{text}" is less than nothing', "read it again")
    if value > most:
        beyond = "the floor" if field == "travel" else "anything that is met"
        raise QuantityError(f'"{text}" is beyond {beyond}', "read it again, and look at its unit")
    return round((value - measure.zero) / measure.unit, 4)


def unit_of(field: str, units: UnitSystem | Units) -> str:
    """Return the unit that a bare figure of a reading is in, empty where it has none.

    field: of the record [text]; units: shown.
    """
    measure = MEASURES.get(field)
    if measure is None:
        return ""
    return measure.bare or unit_shown(measure.kind, units)


def shown_reading(field: str, value: float | str | bool, units: UnitSystem | Units) -> ShownFigure:
    """Return a reading of a record as it is read, its unit apart.

    field: of the record [text]; value: as recorded; units: to show it in.
    """
    if isinstance(value, bool):
        return ShownFigure("yes" if value else "no", "")
    measure = MEASURES.get(field)
    if isinstance(value, str) or measure is None:
        return ShownFigure(value if isinstance(value, str) else f"{value:g}", "")
    if measure.bare:
        return ShownFigure(f"{value:g}", measure.bare)
    return show(value * measure.unit + measure.zero, measure.kind, units)


def _counted(field: str, text: str) -> float:
    try:
        count = decimal(text)
    except ValueError:
        raise QuantityError(f'"{text}" is no number of {field}', "write a whole number") from None
    if not isfinite(count) or count < 0 or count != int(count) or count > 1e4:
        raise QuantityError(f'"{text}" is no number of {field}', "write a whole number")
    return count


def clearance_words(record: ProcedureRun | None, words: FigureWords) -> str:
    """Return what three depths of a record leave for the rod, empty where one is not read.

    record: of `pushrod-clearance`.
    Source: socket depth and gasket less stand-out; pad travel is that times the pedal's ratio.
    """
    found = {} if record is None else {
        entry.step: float(entry.value) for entry in record.entries
        if entry.field == "gap" and isinstance(entry.value, float)
    }  # fmt: skip
    depths = _depths(record)
    if not set(depths) <= found.keys():
        return "worked out once depth, stand-out and gasket are read"
    depth, stand_out, gasket = (found[step] for step in depths)
    left = (depth + gasket - stand_out) * MEASURES["gap"].unit
    more = left - WANTED_CLEARANCE
    if left < 0.0:
        return f"{words.length(-left)} too long: it holds the ports shut; shorten it"
    if abs(more) <= CLOSE:
        return f"leaves {words.length(left)}: as it is wanted"
    act = "lengthen" if more > 0 else "shorten"
    return f"leaves {words.length(left)}: {act} it by {words.length(abs(more))}"


def _depths(record: ProcedureRun | None) -> list[int]:
    """Return the steps at which socket, stand-out and gasket are measured, in this order."""
    shown = () if record is None else record.steps
    asks = [number for number, step in enumerate(shown, start=1) if step.asks == "gap"]
    return asks[:3] or [1, 2, 3]


def expected(
    solution: Solution, pressed: Presses, procedure: str, step: ProcedureStep, words: FigureWords
) -> str:
    """Return what a step's reading should be with the foot as it presses now; empty: not told.

    pressed: one press; procedure: its name [text].
    """
    field = "" if step.record is None else step.record.field
    foot = f"at {words.force(float(pressed.effort))}"
    if field == "travel" and procedure == HALF_LOST and len(solution.half_failed) > 1:
        dead = 0 if step.wheels[0].startswith("front") else 1
        travel = float(solution.half_failed[dead].pedal_travel[solution.case])
        if not isfinite(travel):
            return "should be: the pedal reaches the floor"
        return f"should be about {words.typed_length(travel)} at the hardest foot"
    if field == "travel":
        travel = float(pressed.pedal_travel)
        if not isfinite(travel):
            return f"should be: the pedal reaches the floor {foot}"
        return f"should be about {words.typed_length(travel)} {foot}"
    if step.action == "hold" or (step.seconds and field == "ok"):
        travel, pressures = float(pressed.pedal_travel), _pressures(pressed, words)
        at = words.typed_length(travel) if isfinite(travel) else "the floor"
        return f"should hold at {at}, {pressures}, {foot}"
    if field == "pressure":
        return f"should be {_pressures(pressed, words)} {foot}"
    return ""


def _pressures(pressed: Presses, words: FigureWords) -> str:
    front, rear = float(pressed.front_pressure), float(pressed.rear_pressure)
    return f"{words.pressure(front)} front, {words.pressure(rear)} rear"
