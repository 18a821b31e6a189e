"""Sayings about bores, ratios and firm pedals."""

import math

import numpy as np

from urgens.guidance.sayings.saying import (
    Answer,
    SayingTrial,
    SayingVerdict,
    at_comfortable,
    bars,
    bores,
    not_computed,
    saying,
)
from urgens.solve import Solution

# Of a bore, a size either way; of a ratio
BIGGER = 1.125
SMALLER = 0.875
MORE = 1.2
FELT = 5e-3  # m of travel that a foot tells apart: common practice
LITTLE_AIR = "2 ml"  # m³
AIR = 2e-6  # m³
CANNOT = "This build cannot be made so: a limit of its parts is in the way."


def _travel(solution: Solution) -> float:
    return at_comfortable(solution, "pedal_travel")


def _travel_words(trial: SayingTrial, value: float) -> str:
    return "out of travel" if math.isnan(value) else trial.words.length(value)


@saying("biggest-bore", "Fit the biggest bore there is")
def biggest_bore(trial: SayingTrial) -> Answer:
    """Try it: true where the present bore runs out of travel and a bigger one does not."""
    other = trial.other(bores(trial.build, BIGGER))
    if other is None:
        return not_computed(CANNOT)
    pressures = [at_comfortable(one, "master_front") for one in (trial.solution, other)]
    travels = [_travel(one) for one in (trial.solution, other)]
    words = trial.words
    told = bars(
        ("as built", pressures[0], words.pressure(pressures[0])),
        ("a size bigger", pressures[1], words.pressure(pressures[1])),
    )
    here = (
        f"A size bigger makes {words.pressure(pressures[1])} of {words.pressure(pressures[0])} for "
        f"the same foot; travel {_travel_words(trial, travels[1])}, not "
        f"{_travel_words(trial, travels[0])}."
    )
    if math.isnan(travels[0]) and not math.isnan(travels[1]):
        return Answer(SayingVerdict.TRUE, here, "As built the travel ends first.", told)
    return Answer(SayingVerdict.NOT, here, "Only where travel runs out.", told)


@saying("smaller-bore", "A smaller bore gives more pressure")
def smaller_bore(trial: SayingTrial) -> Answer:
    """Try it: true while there is travel for it."""
    other = trial.other(bores(trial.build, SMALLER))
    if other is None:
        return not_computed(CANNOT)
    pressures = [at_comfortable(one, "master_front") for one in (trial.solution, other)]
    travel, words = _travel(other), trial.words
    told = bars(
        ("as built", pressures[0], words.pressure(pressures[0])),
        ("a size smaller", pressures[1], words.pressure(pressures[1])),
    )
    here = (
        f"A size smaller makes {words.pressure(pressures[1])} instead of "
        f"{words.pressure(pressures[0])} for the same foot."
    )
    if math.isnan(travel):
        return Answer(SayingVerdict.NOT, here, "But the travel ends before that foot.", told)
    return Answer(
        SayingVerdict.WITHIN, here, f"Until travel ends: {words.length(travel)} then.", told
    )


@saying("bore-cures-soft", "More master bore cures a soft pedal")
def bore_cures_soft(trial: SayingTrial) -> Answer:
    """Try it: less travel, more foot; within limits while the wanted stop stays possible."""
    other = trial.other(bores(trial.build, BIGGER))
    if other is None:
        return not_computed(CANNOT)
    travels = [_travel(one) for one in (trial.solution, other)]
    efforts = [one.wanted_effort for one in (trial.solution, other)]
    words = trial.words
    if math.isnan(travels[1]) or math.isnan(efforts[0]):
        return not_computed("Either the travel or the wanted stop is out of reach as it is.")
    told = bars(
        ("foot, as built", efforts[0], words.force(efforts[0])),
        ("foot, a size bigger", _or(efforts[1], other.max_effort), _force_words(trial, efforts[1])),
    )
    here = (
        f"A size bigger takes {_travel_words(trial, travels[1])} instead of "
        f"{_travel_words(trial, travels[0])}, and {_force_words(trial, efforts[1])} of foot for "
        f"the wanted stop. Air, flex and clearance are still there."
    )
    if math.isnan(efforts[1]):
        return Answer(SayingVerdict.NOT, here, "The wanted stop is out of reach then.", told)
    limit = "It hides what is soft; bleed and adjust first."
    return Answer(SayingVerdict.WITHIN, here, limit, told)


@saying("more-ratio", "More pedal ratio is always better")
def more_ratio(trial: SayingTrial) -> Answer:
    """Try it: better until the pad meets the floor, or a stroke ends."""
    arm = trial.build.pedal.pivot_to_pushrod.value / MORE
    other = trial.other({"pedal.pivot_to_pushrod": f"{arm * 1e3:.4f} mm"})
    if other is None:
        return not_computed(CANNOT)
    pressures = [at_comfortable(one, "master_front") for one in (trial.solution, other)]
    travels, words = [_travel(one) for one in (trial.solution, other)], trial.words
    told = bars(
        ("as built", pressures[0], words.pressure(pressures[0])),
        ("a fifth more", pressures[1], words.pressure(pressures[1])),
    )
    here = (
        f"A fifth more ratio makes {words.pressure(pressures[1])} instead of "
        f"{words.pressure(pressures[0])}; travel {_travel_words(trial, travels[1])} instead of "
        f"{_travel_words(trial, travels[0])}."
    )
    if math.isnan(travels[1]):
        return Answer(SayingVerdict.NOT, here, "The travel ends first.", told)
    return Answer(SayingVerdict.WITHIN, here, "Until the travel ends.", told)


@saying("firm-no-air", "A firm pedal has no air in it")
def firm_no_air(trial: SayingTrial) -> Answer:
    """Try it: a little air shows only where it moves the pad by more than a foot tells apart.

    Never just true: less air than that is not felt in any pedal.
    """
    lines = trial.build.lines
    added = lines.trapped_air_rear.value + AIR
    other = trial.other({"lines.trapped_air_rear": f"{added * 1e6:.4f} cm^3"})
    if other is None:
        return not_computed(CANNOT)
    travels = [_travel(one) for one in (trial.solution, other)]
    if any(math.isnan(one) for one in travels):
        return not_computed("The travel ends at the comfortable foot as it is.")
    apart, words = travels[1] - travels[0], trial.words
    told = bars(
        ("as built", travels[0], words.length(travels[0])),
        (f"with {LITTLE_AIR} of air", travels[1], words.length(travels[1])),
    )
    here = f"{LITTLE_AIR} of air behind take {words.length(apart)} at the comfortable foot."
    if apart > FELT:
        return Answer(
            SayingVerdict.WITHIN, here, "So much is felt here; less is not, and some shows only "
            "after hours: read the travel by a ruler, and once more next morning.", told
        )  # fmt: skip
    return Answer(
        SayingVerdict.NOT, here, "So little is not felt: read the travel by a ruler.", told
    )


def _or(value: float, other: float) -> float:
    return other if math.isnan(value) else value


def _force_words(trial: SayingTrial, value: float) -> str:
    return "more than the driver has" if np.isnan(value) else trial.words.force(value)
