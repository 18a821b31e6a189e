"""What a pedal's travel, read at a known foot, tells beside what the build computes."""

from math import isfinite

from urgens.document.records import Entry
from urgens.guidance.words import Words
from urgens.quantity import FORCE, QuantityError, parse
from urgens.solve import Solution
from urgens.studies.trapped_air import READ_WITHIN, trapped_air

MILLIMETRE = 1e-3  # m: what a travel is recorded in
MORE = (
    "shoes or pads that stand off, or a flexing brake, take as much: what is gone on the second "
    "stroke was clearance, what stays is air or flex"
)
LESS = "the figures suppose more clearance or softer parts than there are"


def travel_words(solution: Solution, entry: Entry, words: Words) -> str:
    """Return what a travel tells, empty where it was not read at a known foot.

    solution: of the build [object]; entry: of a record [object]; words: figures in units.
    Source: `studies.trapped_air`; strokes that pump up: common practice.
    """
    if entry.field != "travel" or isinstance(entry.value, str | bool) or not entry.effort:
        return ""
    try:
        effort = parse(entry.effort, FORCE).value
    except QuantityError:
        return f'the foot "{entry.effort}" is no force: write it as 300 N'
    if not effort > 0.0:
        return "no foot pressed it"
    found = trapped_air(
        solution.system, solution.standing, effort, entry.value * MILLIMETRE, READ_WITHIN
    )
    computed = f"{words.typed_length(float(found.computed))} computed at {words.force(effort)}"
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
    return f"{words.typed_length(extra)} more than the {computed}: {much}; {MORE}"
