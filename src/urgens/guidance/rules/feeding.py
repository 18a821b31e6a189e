"""Whether every wheel is fed, by one circuit, through what belongs there."""

from collections.abc import Iterator

from urgens.document.circuits import REDUCING, TWO_SIDED, WHEELS, Circuits, circuits_of
from urgens.document.kinds.valves import LAID
from urgens.document.layout.layout import FittedPart, Plumbing
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.layout_fixes import (
    circuits_parted,
    one_circuit,
    other_axle_left,
    part_set,
    ring_opened,
    switch_put_in,
    valve_made_known,
    valve_moved,
    valve_put_in,
    wheel_joined,
)
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.guidance.words.parts import thing_called
from urgens.physics.axle import Axle
from urgens.plumbing.edits import with_part_in
from urgens.solve import Solution

GEOMETRY = "what the layout joins"
GAUGES = (60, 100, 160, 250, 400)  # bar; EN 837-1, from memory
BAR = 1e5  # Pa


def _axle(wheel: str) -> Axle:
    return Axle(wheel.partition("-")[0])


@rule("wheel-not-fed", Severity.DANGER)
def wheel_not_fed(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of wheels that no outlet of the cylinder reaches."""
    laid = circuits_of(solution.build)
    for wheel in () if laid is None else WHEELS:
        assert laid is not None
        part = laid.wheels.get(wheel)
        if part is not None and laid.fed_by(part):
            continue
        reached = "is not in the layout" if part is None else "is reached by no outlet"
        yield Remark(
            message=f"The {wheel.replace('-', ' ')} brake {reached}.",
            why="A wheel without pressure does not brake, and the other side pulls the vehicle "
            "round.",
            basis=GEOMETRY,
            where=wheel if part is None else part.id,
            fixes=wheel_joined(laid, wheel),
        )


@rule("wheel-fed-twice", Severity.DANGER)
def wheel_fed_twice(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of wheels at which two circuits meet."""
    laid = circuits_of(solution.build)
    for wheel, part in {} if laid is None else laid.wheels.items():
        assert laid is not None
        fed = laid.fed_by(part)
        if len(fed) > 1:
            yield Remark(
                message=f"The {wheel.replace('-', ' ')} brake is fed by the "
                f"{' and the '.join(sorted(fed))} circuit.",
                why="One leak empties both circuits: what two are for is lost.",
                basis=GEOMETRY,
                where=part.id,
                fixes=one_circuit(laid, part),
            )


@rule("circuits-joined", Severity.DANGER)
def circuits_joined(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of circuits that are open to each other before the wheels."""
    laid = circuits_of(solution.build)
    if laid is None:
        return
    outlets = list(laid.outlets.items())
    for place, (one, circuit) in enumerate(outlets):
        for other, its in outlets[place + 1 :]:
            if circuit != its and other in laid.reached(one):
                yield Remark(
                    message=f"{one.part}.{one.side} and {other.part}.{other.side} are open to "
                    "each other.",
                    why="Two circuits that are joined are one: one leak takes all braking away.",
                    basis=GEOMETRY,
                    where=one.part,
                    fixes=circuits_parted(laid, one, other),
                )


@rule("outlet-feeds-other-axle", Severity.DANGER)
def outlet_feeds_other_axle(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of an outlet that goes to the axle which the build says it does not feed."""
    laid = circuits_of(solution.build)
    if laid is None or laid.build.split != "front-rear":
        return
    for outlet, circuit in laid.outlets.items():
        ids = {there.part for there in laid.reached(outlet)}
        others = [w for w, p in laid.wheels.items() if p.id in ids and _axle(w) != circuit]
        if others:
            yield Remark(
                message=f"The {circuit} circuit's outlet of the cylinder goes to the "
                f"{' and the '.join(sorted(w.replace('-', ' ') for w in others))} brake.",
                why="Volumes, valves and travel are worked out for the other way about, and a "
                "half that is lost is not the half one thinks.",
                basis=GEOMETRY,
                where=outlet.part,
                fixes=other_axle_left(laid, outlet, others),
            )


@rule("valve-feeds-both-axles", Severity.DANGER)
def valve_feeds_both_axles(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a reducing valve in a line that both axles hang on."""
    laid = circuits_of(solution.build)
    if laid is None or laid.build.split == "diagonal":
        return
    for part in laid.plumbing.parts:
        if part.kind not in REDUCING:
            continue
        axles = {_axle(wheel) for wheel in laid.behind(part)}
        if len(axles) > 1:
            yield Remark(
                message=f"The {thing_called(laid, part.id)} is in a line that feeds both axles.",
                why="It takes pressure from the front as well: the balance stays as it was and "
                "the vehicle stops later.",
                where=part.id,
                fixes=valve_moved(laid, part),
            )


@rule("loop", Severity.WARNING)
def loop(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of lines that close a ring."""
    laid = circuits_of(solution.build)
    for ring in () if laid is None else laid.loops:
        assert laid is not None
        yield Remark(
            message=f"{_ring(laid, ring)} close a ring.",
            why="Air stays in a ring, since fluid takes both ways round it at once.",
            where=ring[-1],
            fixes=ring_opened(laid, ring),
        )


@rule("hose-missing", Severity.WARNING)
def hose_missing(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of wheels that only rigid tube leads to."""
    laid = circuits_of(solution.build)
    if laid is None:
        return
    rigid = [part for part in laid.wheels.values() if laid.hoses_to(part) is False]
    if rigid:
        named = " and the ".join(str(part.wheel).replace("-", " ") for part in rigid)
        yield Remark(
            message=f"No hose is in the way to the {named} brake.",
            why="The axle or the wheel moves against the body: a rigid tube between them breaks.",
            where=rigid[0].id,
            fixes=_hose_before(laid, {str(part.wheel) for part in rigid}),
        )


def _called(solution: Solution, part: FittedPart) -> str:
    return thing_called(circuits_of(solution.build), part.id)


def _ring(laid: Circuits, ring: tuple[str, ...]) -> str:
    words = ", ".join(thing_called(laid, line) for line in ring)
    return f"{words[:1].upper()}{words[1:]}"


def _hose_before(laid: Circuits, wheels: set[str]) -> tuple[Fix, ...]:
    """Return the fix that puts a hose into a line that feeds these wheels and no others."""
    pipes = [line.id for line in laid.plumbing.lines if not line.direct]
    behind = {line: laid.wheels_behind(line) for line in pipes}
    fitting = [line for line in pipes if behind[line] and behind[line] <= wheels]
    for line in sorted(fitting, key=lambda one: -len(behind[one])):
        section, _ = with_part_in(laid.plumbing, line, "hose")
        after = Circuits(laid.build, Plumbing.model_validate(section))
        if all(after.hoses_to(after.wheels[wheel]) for wheel in behind[line]):
            return (Fix(f"Put a hose into {thing_called(laid, line)}", "plumbing", section),)
    return ()


@rule("switch-absent", Severity.ADVICE)
def switch_absent(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of two circuits without a switch that warns of a lost one."""
    laid = circuits_of(solution.build)
    if laid is None or laid.build.split == "single":
        return
    if not any(part.kind in TWO_SIDED for part in laid.plumbing.parts):
        yield Remark(
            message="No switch warns of a lost circuit.",
            why="With one half lost the pedal still holds, and nobody looks until the other goes.",
            where="plumbing.parts",
            fixes=switch_put_in(laid),
        )


@rule("valve-not-in-layout", Severity.WARNING)
def valve_not_in_layout(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of valves of the build that are in no line."""
    laid = circuits_of(solution.build)
    if laid is None:
        return
    placed = {part.valve for part in laid.plumbing.parts}
    for axle in Axle:
        for index, valve in enumerate(laid.build.valves.of(axle)):
            name = f"{axle}[{index}]"
            if name not in placed and not valve.body:
                yield Remark(
                    message=f"The {axle} circuit's {valve.kind} valve is in no line of the layout.",
                    why="What is worked out has a valve that the lines go past.",
                    basis=GEOMETRY,
                    where=f"valves.{name}",
                    fixes=valve_put_in(laid, axle, index),
                )


@rule("valve-not-in-build", Severity.WARNING)
def valve_not_in_build(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of valves of the layout that the build knows nothing of."""
    laid = circuits_of(solution.build)
    if laid is None:
        return
    known = {f"{a}[{i}]" for a in Axle for i, _ in enumerate(laid.build.valves.of(a))}
    for part in laid.plumbing.parts:
        if part.kind in LAID and part.valve not in known:
            yield Remark(
                message=f"The {thing_called(laid, part.id)} is none of the build's.",
                why="The lines go through a valve that nothing is worked out with.",
                basis=GEOMETRY,
                where=part.id,
                fixes=valve_made_known(laid, part),
            )


@rule("gauge-range-low", Severity.WARNING)
def gauge_range_low(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of gauges that the hardest press goes beyond."""
    layout = solution.build.plumbing
    hardest = solution.press(solution.max_effort)
    most = max(float(hardest.master_front), float(hardest.master_rear))
    for part in () if layout is None else layout.parts:
        if part.full_scale is not None and part.full_scale.value < most:
            yield Remark(
                message=f"The {_called(solution, part)} reads to "
                f"{words.pressure(part.full_scale.value)}, and the "
                f"hardest press makes {words.pressure(most)}.",
                why="A gauge beyond its scale is bent, and reads wrong ever after.",
                where=part.id,
                fixes=_wider_gauge(solution, part, most, words),
            )


def _wider_gauge(
    solution: Solution, part: FittedPart, most: float, words: FigureWords
) -> tuple[Fix, ...]:
    """Return the fix that takes the next wider gauge that is sold."""
    sold = next((bar for bar in GAUGES if bar * BAR >= most), None)
    if sold is None:
        return ()
    label = f"Take a gauge that reads to {words.pressure(sold * BAR)}"
    return part_set(solution.build, part, "full_scale", f"{sold} bar", label)


@rule("part-unfixed", Severity.ADVICE)
def part_unfixed(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of parts that hang on their lines."""
    layout = solution.build.plumbing
    for part in () if layout is None else layout.parts:
        if part.fixed is False:
            yield Remark(
                message=f"The {_called(solution, part)} is not fixed to the body.",
                why="What hangs on its lines shakes them until a flare cracks.",
                where=part.id,
                fixes=part_set(
                    solution.build,
                    part,
                    "fixed",
                    True,
                    f"It is fixed to the body now: {_called(solution, part)}",
                ),
            )
