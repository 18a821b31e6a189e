"""Sayings about springs and the load that moves."""

from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.guidance.sayings.saying import Answer, SayingTrial, SayingVerdict, bars, saying


@saying("stiff-springs", "Stiffer front springs stop weight moving")
def stiff_springs(trial: SayingTrial) -> Answer:
    """Try it: height over wheelbase moves the load; springs tell how far the nose goes down."""
    case = trial.build.vehicle.load_cases[trial.solution.case]
    wheelbase = trial.build.vehicle.wheelbase.value
    share = case.cg_height.value / wheelbase
    weight = case.front_axle.value + case.rear_axle.value
    moved = 0.5 * share * weight
    words = trial.words
    told = bars(
        ("soft springs", moved, words.force(moved)), ("stiff springs", moved, words.force(moved))
    )
    here = (
        f"At 0.5 g {words.force(moved)} move forward: the height over the wheelbase, "
        f"{share:.2f}, times 0.5 times the weight. No spring stands in it."
    )
    felt = any(
        isinstance(one, LoadSensing) and one.lever is not None for one in trial.build.valves.rear
    )
    if felt:
        limit = "But the load-sensing valve's lever reads the springs behind: others set it anew."
        return Answer(SayingVerdict.WITHIN, here, limit, told)
    return Answer(SayingVerdict.NOT, here, "They change how far the nose goes down.", told)
