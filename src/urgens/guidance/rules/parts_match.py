"""Whether parts and facts go together: cylinder, pushrod, switch, pedal, fluid, load cases."""

import math
from collections.abc import Iterator
from datetime import date

from urgens.document.kinds.boosters.none import NoBooster
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.thresholds import FLUID_YEARS, PEDAL_STEP
from urgens.guidance.words.figures import FigureWords
from urgens.physics.axle import AXLES
from urgens.solve import Solution
from urgens.studies.feel import worn_volume


@rule("single-circuit", Severity.WARNING)
def single_circuit(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of one circuit for all brakes."""
    if solution.build.split != "single":
        return
    yield Remark(
        message="One circuit feeds all brakes.",
        why="One leak takes all braking away; dual circuits have been required on new cars for "
        "decades.",
        where="master",
    )


@rule("cylinder-made-for-booster", Severity.DANGER)
def cylinder_made_for_booster(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a boosted cylinder without a booster."""
    build = solution.build
    if build.master.made_for != "booster" or not isinstance(build.booster, NoBooster):
        return
    yield Remark(
        message="The cylinder is made for a booster, and there is none.",
        why="Its bore is larger and its socket deeper: the effort rises with the square of the "
        "bore, and a short pushrod may fall out.",
        where="master.made_for",
    )


@rule("cylinder-made-for-manual", Severity.WARNING)
def cylinder_made_for_manual(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a manual cylinder behind a booster."""
    build = solution.build
    if build.master.made_for != "manual" or isinstance(build.booster, NoBooster):
        return
    yield Remark(
        message="The cylinder is made for a pedal alone, and a booster pushes it.",
        why="Its bore is smaller: less effort but more travel, and the booster's rod may not fit "
        "its socket.",
        where="master.made_for",
    )


@rule("pushrod-not-held", Severity.DANGER)
def pushrod_not_held(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a manual pushrod that nothing holds."""
    build = solution.build
    if build.master.pushrod_held_by != "none" or not isinstance(build.booster, NoBooster):
        return
    yield Remark(
        message="Nothing holds the pushrod in the cylinder's socket.",
        why="A pedal pulled back lets it drop out, and the next press finds nothing.",
        where="master.pushrod_held_by",
        fixes=(Fix("A retainer is fitted", "master.pushrod_held_by", "retainer"),),
    )


@rule("booster-rod-not-held", Severity.DANGER)
def booster_rod_not_held(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a booster whose rod finds nothing to push."""
    booster, held_by = solution.build.booster, solution.build.master.pushrod_held_by
    if isinstance(booster, NoBooster) or not booster.works or held_by != "none":
        return
    yield Remark(
        message="The booster's rod stands in the cylinder's socket without the insert.",
        why="The socket of a boosted cylinder is deep: without its insert the rod finds nothing to "
        "push, and the pedal goes down.",
        where="master.pushrod_held_by",
        fixes=(Fix("The insert is fitted", "master.pushrod_held_by", "insert"),),
    )


@rule("rod-shorter-than-socket", Severity.DANGER)
def rod_shorter_than_socket(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a pushrod that cannot reach out of its socket."""
    rod, socket = solution.build.master.pushrod_length, solution.build.master.socket_depth
    if rod is None or socket is None or rod.value > socket.value:
        return
    yield Remark(
        message=f"The pushrod of {words.length(rod.value)} is no longer than its socket is deep, "
        f"{words.length(socket.value)}.",
        why="It stands in the socket and pushes nothing, or falls out of reach of the pedal.",
        where="master.pushrod_length",
    )


@rule("load-cases-missing", Severity.ADVICE)
def load_cases_missing(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a truck with a single load case."""
    vehicle = solution.build.vehicle
    if vehicle.use != "truck" or len(vehicle.load_cases) > 1:
        return
    yield Remark(
        message="A truck, and one load case only.",
        why="What is right empty may be wrong loaded: weigh it both ways.",
        where="vehicle.load_cases",
    )


@rule("pedal-above-throttle", Severity.WARNING)
def pedal_above_throttle(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a brake pedal that stands far above the throttle's."""
    pad, throttle = solution.build.pedal.pad_height, solution.build.pedal.throttle_height
    if pad is None or throttle is None or pad.value - throttle.value <= PEDAL_STEP:
        return
    yield Remark(
        message=f"The brake pad stands {words.length(pad.value - throttle.value)} above the "
        "throttle's.",
        why="The foot has to be lifted before it can brake; often the brake-light switch's bracket "
        "is missing and the pedal is pulled up against the switch.",
        where="pedal.pad_height",
    )


@rule("no-brake-light-switch", Severity.DANGER)
def no_brake_light_switch(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a road vehicle without brake lights."""
    build = solution.build
    if build.brake_light_switch != "none" or build.vehicle.use in ("track", "drag"):
        return
    yield Remark(
        message="There is no brake-light switch.",
        why="Who drives behind does not see the vehicle stop.",
        where="brake_light_switch",
        fixes=(Fix("A pedal switch is fitted", "brake_light_switch", "pedal"),),
    )


@rule("fluid-old", Severity.ADVICE)
def fluid_old(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of fluid that has been in for years."""
    fluid = solution.build.fluid
    if fluid is None or fluid.filled is None:
        return
    age = (date.today() - fluid.filled).days / 365.25
    if age <= FLUID_YEARS:
        return
    yield Remark(
        message=f"The fluid was filled {age:.1f} years ago.",
        why="Glycol fluid takes up water, which boils in a hot caliper and rusts what it touches.",
        where="fluid.filled",
    )


def _larger_reservoir(need: float) -> Fix:
    """Return the fix that takes a reservoir of the next whole ten millilitres; need: [m³]."""
    whole = math.ceil(need * 1e5) * 10
    return Fix(f"Take a reservoir of {whole} ml", "master.reservoir_volume", f"{whole} ml")


@rule("reservoir-small", Severity.WARNING)
def reservoir_small(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a reservoir that runs dry before the pads are worn."""
    build = solution.build
    holds = build.master.reservoir_volume
    if holds is None:
        return
    for axle in AXLES:
        need = worn_volume(build, axle)
        if need is not None and need > holds.value:
            yield Remark(
                message=f"The {axle} pads draw {need * 1e6:.0f} ml as they wear out, more than the "
                f"{holds.value * 1e6:.0f} ml of a circuit's reservoir.",
                why="It runs dry before the pads are worn, and the pedal draws air.",
                basis="piston area times what the pads lose",
                where="master.reservoir_volume",
                fixes=(_larger_reservoir(need),),
            )
