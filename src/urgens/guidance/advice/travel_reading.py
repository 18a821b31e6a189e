"""What a pedal's travel, read at a known foot, tells beside what the build computes."""

from math import isfinite

from urgens.document.ledger.records import ProcedureRun, RecordEntry
from urgens.guidance.condition.limits import MILLIMETRE, Limits, grown
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import FORCE, QuantityError, parse
from urgens.studies.trapped_air import READ_WITHIN, trapped_air

MILLILITRE = 1e-6  # m³
LITTLE = 0.5  # shares of a full stroke: less is little, more cannot be
MOST = 1.3  # shares of a full stroke: common practice
MORE = (
    "Shoes or pads that stand off, or a flexing brake, take as much as air: what is gone on the "
    "second stroke was clearance, what stays was air or flex."
)
LESS = "the figures suppose more clearance or softer parts than there are"


def strokes_words(record: ProcedureRun, words: FigureWords) -> str:
    """Return what three strokes tell, clearance from air, empty where they were not read.

    record: of a run.
    Source: common practice: clearance is taken up by the first strokes, air is not.
    """
    first, last = (_travel(record, when) for when in ("stroke-1", "stroke-3"))
    if first is None or last is None:
        return ""
    fell = first - last
    if fell > READ_WITHIN:
        return (
            f"The travel falls by {words.typed_length(fell)} from stroke 1 to 3: that much was "
            "clearance (adjusters, pads knocked back); what stays over the computed is air or flex."
        )
    if fell < -READ_WITHIN:
        return (
            f"The travel grows by {words.typed_length(-fell)} from stroke 1 to 3: fluid goes "
            "somewhere. Look for a leak, outside or past a cup, before anything else."
        )
    return "The travel does not fall from stroke 1 to 3: what is too much of it is air or flex."


def later_words(record: ProcedureRun, words: FigureWords) -> str:
    """Return what a travel read again after hours tells, empty where it was not.

    record: of a run;  Source: common practice.
    """
    now = _entry(record, "now")
    for when, said in (("morning", "next morning"), ("hour", "after an hour")):
        later = _entry(record, when)
        if now is None or later is None:
            continue
        if (now.effort, now.booster) != (later.effort, later.booster):
            return f"The travel {said} was read at another foot or help: it tells nothing of air."
        by = words.typed_length(abs(_read(later) - _read(now)))
        if grown(now, later):
            return (
                f"The travel has grown by {by} {said}: air was hidden, or a residual valve or cup "
                "expander is absent on drums. Bleed again."
            )
        return f"The travel {said} is within {by} of the day's: no air shows."
    return ""


def _entry(record: ProcedureRun, when: str) -> RecordEntry | None:
    """Return the last travel read at a time of it, None where none was."""
    found = [
        entry for entry in record.entries
        if entry.field == "travel" and entry.when == when and isinstance(entry.value, float)
    ]  # fmt: skip
    return found[-1] if found else None


def _travel(record: ProcedureRun, when: str) -> float | None:
    entry = _entry(record, when)
    return None if entry is None else _read(entry)


def _read(entry: RecordEntry) -> float:
    return float(entry.value) * MILLIMETRE


def _sum(record: ProcedureRun, wheel: str, field: str) -> float | None:
    """Return what all rounds at a wheel have read together, None where none did."""
    found = [one.value for one in record.entries if one.wheel == wheel and one.field == field]
    figures = [value for value in found if isinstance(value, float)]
    return sum(figures) if figures else None


def flow_words(record: ProcedureRun, wheel: str, swept: float) -> str:
    """Return what the fluid caught at a wheel tells, empty where it or the strokes were not read.

    record: of a run; wheel: its name [text]; swept: by a full stroke, of what feeds the
    wheel [m³].
    Source: common practice: little comes past a block, all of it with bubbles brings air.
    """
    read = {entry.field: entry.value for entry in record.entries if entry.wheel == wheel}
    amount, strokes = (_sum(record, wheel, field) for field in ("amount", "strokes"))
    if amount is None or not strokes:
        return ""
    each = amount / strokes
    share = each * MILLILITRE / swept if swept > 0 else 0.0
    said = f"{each:.1f} ml a stroke, of {swept / MILLILITRE:.1f} ml that a full one moves"
    if share > MOST:
        return f"{said}: more than the cylinder moves; read both again"
    if share < LITTLE:
        return (
            f"{said}: little comes. A blocked hose, the shuttle across, or a load-sensing valve at "
            "droop; or the strokes were short"
        )
    bubbles = read.get("bubbles")
    if bubbles in ("fine", "large"):
        return f"{said}: all of it comes, with bubbles: air, or the screw's thread draws it"
    return f"{said}: all of it comes"


def travel_words(limits: Limits, entry: RecordEntry, words: FigureWords) -> str:
    """Return what a travel tells, empty where it was not read at a known foot.

    limits: of the build; entry: of a record.
    Source: `studies.trapped_air`; strokes that pump up: common practice.
    """
    if entry.field != "travel" or isinstance(entry.value, str | bool) or not entry.effort:
        return ""
    if entry.wheel is not None:  # with a screw open there, one half lost
        return ""
    try:
        effort = parse(entry.effort, FORCE).value
    except QuantityError:
        return f'the foot "{entry.effort}" is no force: write it as 300 N'
    if not effort > 0.0:
        return "no foot pressed it"
    system = limits.system_with(entry.booster)
    if system is None:
        return "not judged: whether the booster worked is not noted"
    standing, read = limits.solution.standing, entry.value * MILLIMETRE
    found = trapped_air(system, standing, effort, read, READ_WITHIN)
    help_ = " without the booster" if entry.booster == "out" else ""
    computed = (
        f"{words.typed_length(float(found.computed))} computed at {words.force(effort)}{help_}"
    )
    extra = float(found.extra)
    if abs(extra) <= READ_WITHIN:
        return f"as the {computed}, within {words.typed_length(READ_WITHIN)}"
    if extra < 0.0:
        return f"{words.typed_length(-extra)} less than the {computed}: {LESS}"
    air = " or ".join(
        f"{float(volume) * 1e6:.1f} ± {float(error) * 1e6:.1f} ml {place}"
        for volume, error, place in zip(
            found.air, found.error, ("in front", "at the rear"), strict=True
        )
        if isfinite(volume)
    )
    much = f"air of {air} takes that" if air else "no pressure reaches either axle"
    return f"{words.typed_length(extra)} more than the {computed}: {much}"
