"""What belongs in which circuit."""

from collections.abc import Iterator

from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.brakes.drum import Drum
from urgens.document.kinds.valves import Valve, kind_of
from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.document.kinds.valves.metering import Metering
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.light_press import LIGHT, front_shares
from urgens.guidance.rules.registry import rule
from urgens.guidance.rules.valve_fixes import put_in, taken_out
from urgens.guidance.thresholds import METERING
from urgens.guidance.words.figures import FigureWords, listed
from urgens.physics.axle import AXLES, Axle
from urgens.physics.valve_law import InertiaSensingLaw, ValveLaw
from urgens.solve import Solution
from urgens.solve.ball import rolling
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.rolling_forces import felt_rolling


def _reducing(valves: tuple[Valve, ...]) -> list[int]:
    return [i for i, valve in enumerate(valves) if kind_of(valve).has_knee]


@rule("two-reducing-in-series", Severity.DANGER)
def two_reducing_in_series(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of two or more reducing valves in one circuit."""
    for circuit in AXLES:
        valves = solution.build.valves.of(circuit)
        found = _reducing(valves)
        if len(found) < 2:
            continue
        pressures = [_outlet(solution, circuit, count) for count in (0, len(valves))]
        yield Remark(
            message=f"The {circuit} circuit has {len(found)} reducing valves one behind the other: "
            f"of {words.pressure(pressures[0])} at the cylinder {words.pressure(pressures[1])} "
            f"reaches the {circuit} brakes.",
            why="Each takes its share of what the one before left, so hardly any is left.",
            where=f"valves.{circuit}[{found[1]}]",
            fixes=(
                taken_out(
                    solution.build,
                    circuit,
                    found[1],
                    f"Take out the {listed_place(found[1])} valve of the {circuit} circuit",
                ),
            ),
        )


def listed_place(index: int) -> str:
    """Return the place in flow order in words; index: from 0 [-]."""
    names = ("first", "second", "third", "fourth")
    return names[index] if index < len(names) else f"{index + 1}th"


def _outlet(solution: Solution, circuit: Axle, count: int) -> float:
    """Return the pressure [Pa] behind the first `count` valves at the comfortable effort."""
    effort = solution.build.targets.comfortable_effort.value
    pressed = solution.press(effort)
    return float((pressed.pressure if count else pressed.master)(circuit))


@rule("reducing-in-front", Severity.DANGER)
def reducing_in_front(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a reducing valve in the front list."""
    valves = solution.build.valves.front
    found = _reducing(valves)
    if not found or solution.build.split == "diagonal":  # there they stand in pairs
        return
    names = listed([f"the {listed_place(i)}" for i in found])
    verb = "reduces" if len(found) == 1 else "reduce"
    yield Remark(
        message=f"In the front circuit {names} valve {verb} pressure to the front brakes.",
        why="The front carries the load under braking; held back, it leaves the rear to lock "
        "first and the stop too long.",
        where=f"valves.front[{found[0]}]",
        fixes=(
            taken_out(solution.build, Axle.FRONT, found[0], "Take it out of the front circuit"),
        ),
    )


@rule("metering-with-rear-discs", Severity.ADVICE)
def metering_with_rear_discs(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a metering valve in front with discs behind."""
    build = solution.build
    found = [i for i, valve in enumerate(build.valves.front) if valve.holds_front_back]
    if not found or not build.rear.brake.has_pads:
        return
    yield Remark(
        message="The front circuit has a metering valve, and the rear brakes are discs.",
        why="It waits for rear shoes to overcome their springs; discs have none, so at a light "
        "pedal the rear does all the work.",
        where=f"valves.front[{found[0]}]",
        fixes=(taken_out(build, Axle.FRONT, found[0], "Take out the metering valve"),),
    )


@rule("no-metering-with-rear-drums", Severity.ADVICE)
def no_metering_with_rear_drums(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of front discs and rear drums with no metering valve."""
    build = solution.build
    front, rear = build.front.brake, build.rear.brake
    metered = any(isinstance(valve, Metering) for valve in build.valves.front)
    if metered or not isinstance(front, Disc) or not isinstance(rear, Drum):
        return
    held, without = front_shares(solution)
    if not without > held:
        return
    shuts, opens = (words.practice(f"metering_{does}") for does in ("shuts", "opens"))
    yield Remark(
        message=f"At {words.pressure(LIGHT)}, a light press as on ice, the front does "
        f"{100 * without:.0f} % of the braking; a metering valve would leave it "
        f"{100 * held:.0f} %. The rear shoes first move at "
        f"{words.pressure(rear.threshold.value)}.",
        why="At a light pedal the discs brake alone until the rear shoes have overcome their "
        "springs; it changes light braking and ice, not the hard stop.",
        where="valves.front",
        fixes=(
            put_in(
                build, Axle.FRONT, METERING, f"Fit a metering valve, {shuts} to {opens}", first=True
            ),
        ),
    )


@rule("height-feels-the-dive", Severity.ADVICE)
def height_feels_the_dive(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell that a valve worked out with the load at rest moves with the body all the same."""
    for axle, index, valve in solution.build.valves.placed():
        if isinstance(valve, LoadSensing) and valve.follows == "static":
            yield Remark(
                message=f"The {axle} circuit's load-sensing valve is worked out with the load at "
                "rest; a lever that feels the body's height moves with the dive as well.",
                why="The tail rises under braking, which such a lever takes for less load: its "
                "knee falls, and the rear does less than is worked out here, never more.",
                where=f"valves.{axle}[{index}].follows",
            )


@rule("knee-never-reached", Severity.ADVICE)
def knee_never_reached(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a knee above the pressure that the hardest press makes."""
    standing = solution.standing
    made = rolling(solution.system, standing)
    output = booster_output(made, pushrod_force(made, made.max_effort))
    felt = felt_rolling(made, output, standing)
    lines = line_pressures(made, output, felt)
    for circuit, inlet in zip(AXLES, (lines.master_front, lines.master_rear), strict=True):
        valves, laws = solution.build.valves.of(circuit), made.valves.of(circuit)
        for index, (valve, law) in enumerate(zip(valves, laws, strict=True)):
            outlet = law.outlet(inlet, felt)
            if kind_of(valve).has_knee and outlet >= inlet * (1 - 1e-12):
                yield Remark(
                    message=f"The {circuit} circuit's {valve.kind} valve never works: "
                    + _what_it_gets(solution, law, float(inlet), words),
                    why="Below its knee it passes all pressure, as a piece of tube would.",
                    basis="the valve's own knee",
                    where=f"valves.{circuit}[{index}]",
                )
            inlet = outlet


def _what_it_gets(solution: Solution, law: ValveLaw, inlet: float, words: FigureWords) -> str:
    """Say how far the hardest press takes a valve."""
    foot = words.force(solution.max_effort)
    if isinstance(law, InertiaSensingLaw):
        hardest = float(solution.press(solution.system.max_effort).demand_z)
        return f"{foot} of foot asks for {hardest:.2f} g, its ball rolls at {law.closes:.2f} g."
    return f"{foot} of foot brings it only {words.pressure(inlet)}."
