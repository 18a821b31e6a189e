"""Valves in words: what each kind is, what it does now, and what it starts from."""

from urgens.document import Build
from urgens.document.kinds.valves import Valve, kind_of
from urgens.physics.axle import Axle
from urgens.quantity import PRESSURE, Units, UnitSystem, show
from urgens.solve import Presses, Solution
from urgens.studies.valve_stages import felt, stages

NOTHING = (
    "A distribution block or a tee may hold a switch; it never changes balance, so it is not here. "
    "A combination valve is its metering part in front and its reducing part behind, in one body."
)


def state(valve: Valve, inlet: float, outlet: float, units: Units | UnitSystem) -> str:
    """Return what a valve does at an inlet and outlet pressure [Pa], in a few words."""
    if inlet <= 0:
        return "at rest"
    if outlet >= inlet * (1 - 1e-9):
        return kind_of(valve).passes(valve, units)
    return kind_of(valve).holds(valve, inlet, outlet, units)


def pair_words(
    solution: Solution, pressed: Presses, place: tuple[Axle, int], units: Units | UnitSystem
) -> str:
    """Return what a valve of a diagonal split has beside it, nothing in another split.

    pressed: one press; place: circuit and place in it; units: to
    show figures in.
    Source: production tolerance, common practice; a diagonal circuit feeds one wheel of each axle.
    """
    if solution.build.split != "diagonal":
        return ""
    circuit, index = place
    said = f"One of a pair, one for each {circuit} wheel: they have to be alike."
    stage = stages(solution, pressed, circuit)[index]
    load = felt(solution, pressed)
    ends = stage.law.tolerance(load)
    if ends is None or circuit == Axle.FRONT:
        return said
    low, high = (float(end.outlet(stage.inlet, load)) for end in ends)
    apart = show(high - low, PRESSURE, units)
    return f"{said} Two at the ends of their tolerance are {apart} apart, side to side, now."


def fitted_words(build: Build, units: Units | UnitSystem) -> str:
    """Return what the rear circuit has now, in a few words.

    units: to show figures in.
    """
    said = (
        f"{kind_of(valve).name.lower()}, {kind_of(valve).briefly(valve, units)}".rstrip(", ")
        for valve in build.valves.rear
    )
    return ", then ".join(said) or "no valve"
