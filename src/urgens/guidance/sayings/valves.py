"""Sayings about valves: what they do to pressure, and who needs one."""

import numpy as np

from urgens.document.edits.edit import dumped
from urgens.document.kinds.valves.metering import Metering
from urgens.guidance.sayings.saying import (
    Answer,
    SayingTrial,
    SayingVerdict,
    at_comfortable,
    bars,
    not_computed,
    rear_first,
    saying,
)
from urgens.physics.axle import AXLES, Axle
from urgens.physics.valve_law import at_rest
from urgens.solve import Solution

SPLIT = 2.0 / 3.0  # of the front's pressure: 60 to 40
MUCH = 8.0  # from where on it is nearly so
EXTRA = {"kind": "reducing", "knee": "20 bar", "slope": 0.3}
BEGUN = 0.15  # of the hardest pressure: below it a metering valve or a threshold has its say


def _reducers(trial: SayingTrial) -> int:
    return sum(valve.reduces for valve in trial.build.valves.rear)


@saying("slows-fluid", "The valve slows the fluid")
def slows_fluid(trial: SayingTrial) -> Answer:
    """Try it: a reducing valve takes pressure off above its knee; a metering valve holds back."""
    words = trial.words
    metering = [one for one in trial.build.valves.front if isinstance(one, Metering)]
    if metering:
        open_ = metering[0].open.value
        return Answer(
            SayingVerdict.WITHIN,
            f"The metering valve holds the front line until {words.pressure(open_)}; it waits for "
            "pressure, not for time.",
            "The one behind takes pressure off above its knee and slows nothing.",
        )
    if not _reducers(trial):
        return not_computed("There is no such valve on this build.")
    pressed = trial.solution.presses
    into, out = float(pressed.master_rear[0]), float(pressed.rear_pressure[0])
    told = bars(("into it", into, words.pressure(into)), ("out of it", out, words.pressure(out)))
    here = f"{words.pressure(into)} go in and {words.pressure(out)} come out, at rest as well."
    return Answer(SayingVerdict.NOT, here, "It takes pressure off above its knee.", told)


@saying("sixty-forty", "The valve splits 60 to 40")
def sixty_forty(trial: SayingTrial) -> Answer:
    """Try it: at one pressure it may; above and below it does not."""
    laws = trial.solution.system.valves.rear
    if not _reducers(trial):
        return not_computed("There is no such valve on this build.")
    most = trial.solution.press(np.linspace(1.0, trial.solution.max_effort, 400))
    share = most.rear_pressure / np.maximum(most.front_pressure, 1.0)
    begun = most.front_pressure >= BEGUN * most.front_pressure.max()
    share, fronts = share[begun], most.front_pressure[begun]
    words, standing = trial.words, trial.solution.standing
    knee = next(
        (law.knee(at_rest(standing)) for law in laws if law.knee(at_rest(standing)) is not None),
        None,
    )
    first, last = float(share[0]), float(share[-1])
    told = bars(
        ("light foot", first, f"{100 * first:.0f} %"), ("hardest foot", last, f"{100 * last:.0f} %")
    )
    begins = "" if knee is None else f" It begins at {words.pressure(float(np.ravel(knee)[0]))}."
    here = (
        f"The rear line has {100 * first:.0f} % of the front's pressure at a light foot and "
        f"{100 * last:.0f} % at the hardest.{begins}"
    )
    if last < SPLIT < first:
        at = float(np.interp(-SPLIT, -share, fronts))
        limit = f"60 to 40 at {words.pressure(at)} in front alone."
        return Answer(SayingVerdict.WITHIN, here, limit, told)
    return Answer(SayingVerdict.NOT, here, "It is never 60 to 40 here.", told)


@saying("discs-ten-times", "Discs need ten times a drum's pressure")
def discs_ten_times(trial: SayingTrial) -> Answer:
    """Try it: torque per pressure of the disc beside that of the drum."""
    ends = dict(zip(AXLES, trial.solution.system.ends, strict=True))
    kinds = {axle: trial.build.axle(axle).brake for axle in AXLES}
    disc = next((axle for axle, one in kinds.items() if one.has_pads), None)
    drum = next((axle for axle, one in kinds.items() if one.has_shoes), None)
    if disc is None or drum is None:
        return not_computed("This build has not both, a disc and a drum.")
    gain = {axle: float(np.ravel(ends[axle].torque_per_pressure)[0]) for axle in (disc, drum)}
    times = gain[drum] / gain[disc]
    told = bars(("disc", 1.0 / gain[disc], "1"), ("drum", 1.0 / gain[drum], f"1/{times:.1f}"))
    here = (
        f"For one torque the {disc} disc needs {times:.1f} times the {drum} drum's pressure here."
    )
    if times >= MUCH:
        return Answer(SayingVerdict.TRUE, here, "By bore, radius and shoes of this build.", told)
    return Answer(SayingVerdict.NOT, here, "By bore, radius and shoes of this build.", told)


def _without(trial: SayingTrial, more: dict[str, object] | None = None) -> Solution | None:
    return trial.other({"valves.rear": [], **(more or {})})


@saying("conversion-needs-valve", "Every disc conversion needs a valve")
def conversion_needs_valve(trial: SayingTrial) -> Answer:
    """Try it: true where the rear locks first without one."""
    if not any(trial.build.axle(axle).brake.has_pads for axle in AXLES):
        return not_computed("No axle has discs.")
    bare = _without(trial)
    if bare is None:
        return not_computed("The layout has that valve drawn in.")
    if rear_first(bare):
        return Answer(
            SayingVerdict.TRUE, "Without one the rear locks first on some road.", "Of this build."
        )
    return Answer(
        SayingVerdict.NOT, "Without one the front locks first on every road.", "Of this build."
    )


@saying("wide-tyres", "Wide rear tyres need none")
def wide_tyres(trial: SayingTrial) -> Answer:
    """Try it: a tenth more grip behind, and no valve."""
    grip = trial.build.rear.tyre.grip
    wide = _without(trial, {"rear.tyre.grip": round(grip * 1.1, 4)})
    if wide is None:
        return not_computed("The layout has that valve drawn in.")
    if rear_first(wide):
        return Answer(
            SayingVerdict.NOT,
            "With a tenth more grip behind the rear still locks first on some road.",
            "Of this build.",
        )
    return Answer(
        SayingVerdict.TRUE,
        "With a tenth more grip behind the front locks first without it.",
        "While that grip lasts: wet, cold or worn it does not.",
    )


@saying("valve-in-front", "A reducing valve in the front line does good")
def valve_in_front(trial: SayingTrial) -> Answer:
    """Try it: a reducing valve in front takes off where most of the braking is done."""
    front = [*dumped(trial.build).get("valves", {}).get("front", []), EXTRA]
    other = trial.other({"valves.front": front})
    if other is None:
        return not_computed("The layout would have to be drawn with it.")
    z = [at_comfortable(one, "demand_z") for one in (trial.solution, other)]
    told = bars(("as built", z[0], f"{z[0]:.2f} g"), ("with one in front", z[1], f"{z[1]:.2f} g"))
    here = f"With one in front the comfortable foot gives {z[1]:.2f} g, not {z[0]:.2f} g"
    if rear_first(other):
        return Answer(
            SayingVerdict.NOT,
            f"{here}, and the rear locks first.",
            "The vehicle then turns round.",
            told,
        )
    if z[1] >= z[0] - 5e-3:
        return Answer(
            SayingVerdict.WITHIN, f"{here}.", "Its knee is not reached at that foot.", told
        )
    return Answer(
        SayingVerdict.NOT,
        f"{here}.",
        "It is taken from the axle that most of the load is on.",
        told,
    )


@saying("two-valves", "Two valves are better than one")
def two_valves(trial: SayingTrial) -> Answer:
    """Try it: a half of a half behind; it may only do where one does not."""
    rear = [*dumped(trial.build).get("valves", {}).get("rear", []), EXTRA]
    other = trial.other({"valves.rear": rear})
    if not _reducers(trial):
        return not_computed("There is not even one on this build.")
    if other is None:
        return not_computed("The layout would have to be drawn with it.")
    hard = [one.press(one.max_effort) for one in (trial.solution, other)]
    rears = [float(np.ravel(one.rear_pressure)[0]) for one in hard]
    left = [trial.words.pressure(one) for one in rears]
    told = bars(("one", rears[0], left[0]), ("two", rears[1], left[1]))
    here = f"At the hardest foot {left[1]} are left behind, not {left[0]}."
    if rear_first(trial.solution) and not rear_first(other):
        return Answer(SayingVerdict.WITHIN, here, "One of the right knee does the same.", told)
    return Answer(SayingVerdict.NOT, here, "One of the right knee is enough.", told)


@saying("metering-dive", "The metering valve stops nose-dive")
def metering_dive(trial: SayingTrial) -> Answer:
    """Try it: dive follows the deceleration; a metering valve changes who begins."""
    rear = trial.build.axle(Axle.REAR).brake
    begins = float(np.ravel(trial.solution.system.ends.rear.threshold)[0])
    words = trial.words
    if not rear.has_shoes or begins <= 0.0:
        return Answer(
            SayingVerdict.NOT,
            "Both axles begin at once: the same deceleration dives as much.",
            "There are no shoes to wait for.",
        )
    return Answer(
        SayingVerdict.WITHIN,
        f"The rear shoes begin at {words.pressure(begins)}: until then the front brakes alone; "
        "a metering valve lets both begin together.",
        "At the same deceleration it dives as much with one as without.",
    )
