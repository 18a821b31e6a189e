"""Valves in words: what each kind is, what it does now, and what it starts from."""

from urgens.document import Build
from urgens.document.valves import (
    Adjustable,
    InertiaSensing,
    Limiting,
    LoadSensing,
    Reducing,
    Valve,
)
from urgens.quantity import PRESSURE, Units, UnitSystem, show
from urgens.solve import Presses, Solution
from urgens.studies.valve_stages import felt, stages, tolerance_ends

NAMES = {
    "reducing": "Reducing valve",
    "limiting": "Limiting valve",
    "adjustable": "Adjustable valve",
    "metering": "Metering valve",
    "load-sensing": "Load-sensing valve",
    "inertia-sensing": "Inertia-sensing valve",
    "residual": "Residual valve",
}
WHAT = {
    "reducing": "Passes pressure up to its knee, then a share of the rise. It reduces pressure; it "
    "slows nothing and stops nothing.",
    "limiting": "Passes pressure up to its knee and nothing of what comes on top.",
    "adjustable": "A reducing valve whose knee is set by turns or by notches, in the rear line "
    "only, never in a circuit that also feeds a front wheel.",
    "metering": "Holds the front discs back until the rear shoes have overcome their springs. With "
    "rear discs it is not wanted.",
    "load-sensing": "A reducing valve whose knee moves with the rear suspension. Other springs or "
    "another ride height change its setting; it can seize.",
    "inertia-sensing": "A ball rolls up a ramp and shuts it once the vehicle slows hard enough; "
    "then it reduces. A heavier load takes more pressure to slow, so its knee rises with it. On a "
    "road too slippery to roll the ball it stays open; and its angle is that of the body: rake "
    "and slopes count.",
    "residual": "Keeps a little pressure in the line when the pedal is up: for cups of drums, "
    "never for discs.",
}
TYPICAL = {  # common practice
    "reducing": "usual on older road cars: knee 250 to 300 psi, slope about one half",
    "limiting": "usual: 300 to 600 psi",
    "adjustable": "usual: slope about 0.3 to 0.6, knee by five or more turns, or "
    "about seven notches",
    "metering": "usual: shut at about 10 psi, open from about 130",
    "inertia-sensing": "usual: a ramp of 10 to 20 degrees, slope about 0.3 to 0.5",
    "load-sensing": "usual: the light knee a third to a half of the heavy one",
    "residual": "usual: about 15 psi for drums",
}
NOTHING = (
    "A distribution block or a tee may hold a switch; it never changes balance, so it is not here. "
    "A combination valve is its metering part in front and its reducing part behind, in one body."
)


def state(valve: Valve, inlet: float, outlet: float, units: Units | UnitSystem) -> str:
    """Return what a valve does at an inlet and outlet pressure [Pa], in a few words."""
    if inlet <= 0:
        return "at rest"
    if valve.kind == "residual":
        return f"passes all, keeps {show(valve.pressure.value, PRESSURE, units)}"
    if outlet >= inlet * (1 - 1e-9):
        return "open: passes all"
    if valve.kind == "metering":
        shut = outlet <= valve.close.value * (1 + 1e-9)
        return "shut: holds the front off" if shut else "opening"
    lost = show(inlet - outlet, PRESSURE, units)
    if valve.kind == "limiting":
        return f"shut: {lost} kept back"
    return f"reduces by {lost}"


def pair_words(
    solution: Solution, pressed: Presses, place: tuple[str, int], units: Units | UnitSystem
) -> str:
    """Return what a valve of a diagonal split has beside it, nothing in another split.

    solution: of a build; pressed: one press [object]; place: circuit and place in it; units: to
    show figures in.
    Source: production tolerance of solve.stages; a diagonal circuit feeds one wheel of each axle.
    """
    if solution.build.split != "diagonal":
        return ""
    circuit, index = place
    said = f"One of a pair, one for each {circuit} wheel: they have to be alike."
    stage = stages(solution, pressed, circuit)[index]
    load = felt(solution, pressed)
    ends = tolerance_ends(stage.law, load)
    if ends is None or circuit == "front":
        return said
    low, high = (float(end.outlet(stage.inlet, load)) for end in ends)
    apart = show(high - low, PRESSURE, units)
    return f"{said} Two at the ends of their tolerance are {apart} apart, side to side, now."


def fitted_words(build: Build, units: Units | UnitSystem) -> str:
    """Return what the rear circuit has now, in a few words.

    build: the document [object]; units: to show figures in.
    Source: the document.
    """
    return ", then ".join(_setting(valve, units) for valve in build.valves.rear) or "no valve"


def _setting(valve: Valve, units: Units | UnitSystem) -> str:
    """Return a valve's name with what it is set to."""
    name = NAMES[valve.kind].lower()
    match valve:
        case Reducing():
            knee = show(valve.knee.value, PRESSURE, units)
            return f"{name}, knee {knee}, slope {valve.slope:.2f}"
        case Limiting():
            return f"{name}, {show(valve.knee.value, PRESSURE, units)}"
        case Adjustable():
            return f"{name}, {valve.turns:g} {valve.counted}, slope {valve.slope:.2f}"
        case InertiaSensing():
            return f"{name}, ramp {valve.ball_angle.text}, slope {valve.slope:.2f}"
        case LoadSensing():
            return f"{name}, slope {valve.slope:.2f}"
    return name
