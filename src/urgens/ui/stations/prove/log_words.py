"""What a log says beside the model and beside another log, in words."""

from urgens.bench.logs.compare import BeforeAfter, BesideModel
from urgens.bench.logs.read import ReadLog
from urgens.quantity import PRESSURE, Units, show

FAULTS = 12  # that are told one by one


def count_words(log: ReadLog) -> str:
    """Return how many presses there are."""
    count = len(log.presses)
    return f"{count} press{'es' if count != 1 else ''}"


def model_words(log: ReadLog, model: tuple[BesideModel, ...], units: Units) -> str:
    """Return how a log stands beside the build."""
    if not {"front_pressure", "rear_pressure"} & set(log.channels):
        return "Say first which column is a pressure: no name or unit tells it."
    if not log.presses:
        return "No press in it: no pressure over 1 bar for 0.2 s."
    if not model:
        said = count_words(log)
        return f"{said[:1].upper()}{said[1:]}; no rear line to compare."
    off = [one for one in model if one.differs]
    if not off:
        return "As the build computes it, within both spreads."
    return "Differs from the build: " + "; ".join(_off_words(one, units) for one in off) + "."


def _off_words(one: BesideModel, units: Units) -> str:
    if one.figure == "slope":
        return f"slope {one.logged:.2f}, computed {one.model:.2f} ± {one.spread:.2f}"
    logged, model = (show(value, PRESSURE, units) for value in (one.logged, one.model))
    return f"{one.figure} {logged}, computed {model}"


def beside_words(beside: BeforeAfter | None, other: str, units: Units) -> str:
    """Return how a log stands beside another one, which is named."""
    if beside is None:
        return ""
    if beside.why_not or beside.apart is None:
        return f"Not compared with {other}: {beside.why_not}."
    way = "more" if beside.apart > 0.0 else "less"
    much = show(abs(beside.apart), PRESSURE, units)
    by, line = beside.before.by.replace("_", " "), beside.what.partition("_")[0]
    at = "peak by peak: were they pressed alike?" if by == "peak" else f"at the same {by}:"
    clear_of = "clear of both spreads" if beside.clear else "within their spreads"
    where = "at the rear" if line == "rear" else "in front"
    return f"{much} {way} {where} than in {other}, {at} {clear_of}."


def fault_lines(log: ReadLog) -> tuple[str, ...]:
    """Return what is wrong with a log, a line each, the most telling ones."""
    lines = [f"{'' if one.at is None else f'{one.at:.2f} s: '}{one.what}" for one in log.faults]
    more = len(lines) - FAULTS
    return (*lines[:FAULTS], *((f"and {more} more",) if more > 0 else ()))
