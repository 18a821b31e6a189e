"""What gauges, stops and roads say, in sentences."""

from collections.abc import Sequence

import numpy as np

from urgens.bench.stops.adjusters import Adjuster
from urgens.bench.stops.next_setting import NextStop
from urgens.bench.stops.posterior import Posterior, summed_up
from urgens.guidance.words.figures import FigureWords
from urgens.studies.valve_verdict import ValveRead, ValveVerdict

WHOLE = 100.0


def of_hundred(chance: float) -> str:
    """Return a chance as so many of 100; chance: [-]. Source: by definition."""
    count = chance * WHOLE
    if count < 0.5:
        return "less than 1 of 100"
    return f"{count:.0f} of 100"


def counted_words(turned: Adjuster, setting: float, words: FigureWords) -> str:
    """Return a setting as a builder says it.

    turned: what is turned; setting: [SI]; words: in the units shown.
    """
    if turned.counted == "length":
        return words.length(setting)
    return f"{setting:g} {turned.counted.removesuffix('s') if setting == 1 else turned.counted}"


def headline(advice: NextStop, words: FigureWords, held: Sequence[str] = ()) -> str:
    """Return what to do next, shortly.

    advice, words: as above; held: what is open before the vehicle moves, in words [text]. A setting
    that was found is not done while something is open.
    """
    setting = counted_words(advice.turned, advice.setting, words)
    match advice.kind:
        case "done" if held:
            return f"Found: {setting}. Not done: something is open."
        case "done":
            return f"Done: {setting}."
        case "again":
            return f"Again, wet: {setting}."
        case "first":
            return f"Start: {setting}."
    return f"Next: {setting}."


def advice_words(advice: NextStop, words: FigureWords) -> str:
    """Return why that is next and its chance, in sentences; advice, words: as above."""
    setting = counted_words(advice.turned, advice.setting, words)
    chance = f"{of_hundred(advice.chance)} that the rear locks first"
    return f"{advice_reason(advice)} At {setting} it is {chance}."


def advice_reason(advice: NextStop) -> str:
    """Return why that is next, in a sentence; advice: of it."""
    if advice.risky:
        return (
            "No setting stays under 5 of 100: less at the rear first, by another valve or smaller "
            "rear brakes; nothing on the road before that."
        )
    match advice.kind:
        case "done":
            return "Nothing nearer to the rear is worth its risk."
        case "again":
            return "Nothing nearer to the rear stays under 5 of 100; one wet stop settles it."
        case "first":
            if advice.setting == advice.before:
                return "As it stands: under 5 of 100."
            return "Further to the front than it stands: there it is under 5 of 100 at last."
        case "forward":
            return "Back towards the front at once."
    return "A step towards the rear, no more at a time."


def brakes_words(posterior: Posterior, surface: float) -> str:
    """Return what stops said of the brakes.

    posterior: of them; surface: of the target [-]. Source: means of the posterior.
    """
    if not posterior.counted:
        return "No stop counts yet: what is said here rests on the build's own figures."
    parts = [
        f"the {name} did {_more(mean)}"
        for name, (mean, _) in (("front", posterior.of_front), ("rear", posterior.of_rear))
    ]
    stops = "one stop" if posterior.counted == 1 else f"{posterior.counted} stops"
    nearest = min(posterior.roads, key=lambda mu: abs(mu - surface))
    road = summed_up(*posterior.roads[nearest])[0]
    inertia = "The wheels’ own inertia (assumed) is counted in."
    return f"In {stops} {parts[0]}, {parts[1]}; the road gives {road:.2f}. {inertia}"


def _more(mean: float) -> str:
    off = round((mean - 1.0) * WHOLE)
    if not off:
        return "as much as reckoned"
    return f"{abs(off)} % {'more' if off > 0 else 'less'} than reckoned"


OTHER_SLOPE = (
    "Is there a second valve in this line, or one of another slope? Its knee is where it should "
    "be, its slope is not."
)


def verdict_words(read: ValveRead, words: FigureWords) -> tuple[str, str]:
    """Return what gauges say of a valve, and what stands behind it or what to do.

    read: by gauges; words: in the units shown.
    """
    fit, wanted = read.fitted, read.expected
    told = _sold(read, words)
    match read.verdict:
        case ValveVerdict.REDUCES | ValveVerdict.LIMITS if fit is not None:
            knee = _with_limits(fit.knee, fit.knee_limits, words)
            off = max(fit.slope - fit.slope_limits[0], fit.slope_limits[1] - fit.slope)
            if read.other_slope:
                told = f"{told} {OTHER_SLOPE}"
            if read.verdict is ValveVerdict.LIMITS:
                return f"Limits: nothing more above {knee}", told
            return f"Reduces: knee {knee}, slope {fit.slope:.2f} ± {off:.2f}", told
        case ValveVerdict.PASSES_ALL:
            if wanted.knee is None:
                return (
                    "Passes all, as it is to do standing",
                    "Its ball rolls only while the vehicle slows: it is proved on the road.",
                )
            return (
                "Does not reduce: the same on both gauges",
                "It is stuck, or turned fully open: take it out before the next drive.",
            )
        case ValveVerdict.BLOCKED:
            kept = "" if not read.kept else (
                f" Its gauge stays at {words.pressure(read.kept)}: its zero, or pressure that is "
                "kept in; open a screw behind it and look again."
            )  # fmt: skip
            return (
                "Blocked: next to nothing comes through",
                f"A plugged valve or line, a shuttle across, or a lever at droop.{kept}",
            )
        case ValveVerdict.TWO:
            return (
                "Two in series: it reduces twice",
                "About a half of a half: look for a second valve in this line, in a body or a "
                "cylinder's outlet.",
            )
        case ValveVerdict.GAUGES_DIFFER:
            return _gauges_differ(read)
        case ValveVerdict.METERS if read.metered is not None:
            closing, opening, full = (words.pressure(one) for one in read.metered.at)
            return f"Meters: holds at {closing}, opens from {opening}, all from {full}", told
        case ValveVerdict.DOES_NOT_METER:
            return (
                "Does not meter: all passes at once",
                "Its stem is held, or its spring is gone: the front bites at the first touch.",
            )
    need = "above its knee" if read.wants_more else "below its knee"
    if read.held is None:
        return "Too few readings to tell", f"More are wanted {need}."
    return _on_by(read, read.held, words), f"Too few readings to tell more: wanted {need}."


def _on_by(read: ValveRead, held: tuple[float, float], words: FigureWords) -> str:
    """Return by how much a valve is on at one pair that was held, and what the build's is there."""
    into, out = held
    takes = into - float(read.expected.outlet(np.asarray(into)))
    at, off = words.pressure(into), words.pressure(abs(into - out))
    build = f"the build's takes off {words.pressure(takes)}"
    if out > into:
        return f"At {at}: {off} more comes out; {build}"
    return f"On by {off} at {at}; {build}"


def _gauges_differ(read: ValveRead) -> tuple[str, str]:
    if read.swapped:
        return (
            "More comes out than goes in: the gauges are swapped",
            "Change their lines over, or what they are called, and read again.",
        )
    return (
        "The gauges differ by more than their class",
        "Swap them and read again: what stays on its side is the valve's.",
    )


def _with_limits(value: float, limits: tuple[float, float], words: FigureWords) -> str:
    off = max(value - limits[0], limits[1] - value)
    number, _, unit = words.pressure(value).rpartition(" ")
    return f"{number} ± {words.pressure(off).rpartition(' ')[0]} {unit}"


def _sold(read: ValveRead, words: FigureWords) -> str:
    wanted = read.expected
    inside = "within its tolerance" if read.within else "outside its tolerance"
    if wanted.knee is not None and wanted.slope is not None:
        return f"In the build as {words.pressure(wanted.knee)}, {wanted.slope:.2f}: {inside}."
    if wanted.meters is not None:
        at = (float(one) for one in (wanted.meters.closing, wanted.meters.opening))
        closing, opening = (words.pressure(one) for one in at)
        near = "as in the build" if read.within else "other than in the build"
        return f"{near}: {closing} and {opening}.".capitalize()
    return "The build has no knee here."
