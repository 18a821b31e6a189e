"""What of a build shapes its procedures: who feeds whom, what is in the way, what is far."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from urgens.document import Build
from urgens.document.circuits import SINKS, Circuits, circuits_of, warned
from urgens.document.kinds.valves.metering import Metering
from urgens.document.layout.layout import BrakeLine, FittedPart
from urgens.document.layout.line_sheets import routed
from urgens.document.practice import USUAL_THREADS, practice, practice_words, turns_of
from urgens.document.residual_valves import behind_outlets
from urgens.guidance.procedures.step import Method, Wheel
from urgens.guidance.words.figures import FigureWords
from urgens.guidance.words.parts import line_called, line_name, part_name, thing_called
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import Units, UnitSystem

# With the cylinder on the left, farthest first; common practice.
FARTHEST: tuple[Wheel, ...] = ("rear-right", "rear-left", "front-right", "front-left")
DIAGONALS: tuple[tuple[Wheel, Wheel], ...] = (
    ("rear-right", "front-left"), ("rear-left", "front-right"),
)  # fmt: skip
SIDES: tuple[tuple[Wheel, Wheel], ...] = (
    ("front-right", "rear-right"), ("front-left", "rear-left"),
)  # fmt: skip


def said(wheel: str) -> str:
    """Return a wheel as builders say it; wheel: of the build [text]."""
    axle, side = wheel.split("-")
    return f"{side} {axle}"


def both(wheels: tuple[Wheel, ...]) -> str:
    """Return wheels in words; wheels: one or two [text]."""
    return " and ".join(said(wheel) for wheel in wheels)


METHODS: tuple[Method, ...] = ("pedal", "open-stroke", "pressure", "gravity", "vacuum")
When = Literal[
    "booster", "no-booster", "warning-switch", "latching-switch", "unknown-switch", "reducing",
    "load-sensing", "metering", "adjustable", "residual", "two-circuits", "one-chamber",
    "two-chambers", "balance-bar", "one-cylinder", "laid-out", "banjo", "by-foot", "by-pressure",
    "by-vacuum", "no-bleeder", "torque-given",
]  # fmt: skip


@dataclass(frozen=True)
class DeadEnd:
    """A part at the end of a line, the joint that is cracked before it, the wheels of its circuit.

    `thing` is what a record calls the joint.
    """

    name: str
    joint: str
    thing: str
    wheels: tuple[Wheel, ...]


def dead_end(laid: Circuits, part: FittedPart, port: str) -> DeadEnd:
    """Return how air is let out of a part that nothing flows through.

    laid: the layout; part: of it; port: that a line ends in, with the part's id [text].
    The flared joint before it is cracked: of its own tube where it has one, else, where it is
    screwed in, of a tube into what it is screwed into. Source: common practice.
    """
    name = f"the {thing_called(laid, part.id)}"
    own = next(line for line in laid.plumbing.lines if port in (line.start, line.to))
    at = part.id
    if own.direct:
        other = str(own.to) if own.start == port else own.start
        at = other.partition(".")[0]
        inlets = [line for line in laid.plumbing.lines if not line.direct and at in _ends(line)]
        own = next((line for line in inlets if str(line.to).startswith(f"{at}.")), None) or next(
            iter(inlets), own
        )
    fed = laid.fed[own.id]
    wheels = tuple(
        wheel for wheel in FARTHEST
        if wheel in laid.wheels and laid.fed_by(laid.wheels[wheel]) & fed
    )  # fmt: skip
    line = line_name(laid, own)
    where = f"{line[:1].lower()}{line[1:]}, at the {thing_called(laid, at)}"
    return DeadEnd(name, f"the nut of the line {where}", f"joint of {where}", wheels)


def _ends(line: BrakeLine) -> set[str]:
    return {name.partition(".")[0] for name in (line.start, str(line.to))}


@dataclass(frozen=True)
class Facts:
    """The facts of one build, and what was asked: a method of bleeding, what was opened.

    `end` is the one that a switch has shut off.
    """

    build: Build
    method: Method | None = None
    opened: tuple[str, ...] = ()
    end: Axle | None = None

    @property
    def bar(self) -> bool:
        """Whether twin cylinders with a bar press: both ends are bled together."""
        return self.build.master.has_bar

    @property
    def chambers(self) -> int:
        """How many chambers each cylinder has: of twin ones, one in either."""
        return 1 if self.build.master.one_chamber or self.bar else 2

    @property
    def boosted(self) -> bool:
        """Whether a booster helps."""
        return self.build.booster.fitted

    @property
    def by(self) -> Method:
        """The method of bleeding: what was asked for, else what suits the layout.

        Source: common practice: open strokes with a bar, hold and crack elsewhere.
        """
        return self.method or ("open-stroke" if self.bar else "pedal")

    def screws(self, axle: Axle) -> int:
        """Return how many bleed screws a brake has; axle: whose."""
        return self.build.axle(axle).brake.bleeders

    @cached_property
    def metering(self) -> bool:
        """Whether a metering valve holds the front off."""
        return any(valve.holds_front_back for valve in self.build.valves.front)

    @cached_property
    def reducing(self) -> bool:
        """Whether a valve behind reduces: one that gauges can tell something of."""
        return any(valve.reduces for valve in self.build.valves.rear)

    @cached_property
    def load_sensing(self) -> bool:
        """Whether a valve feels the rear axle's load."""
        return any(valve.feels_load for valve in self.build.valves.rear)

    @cached_property
    def adjustable(self) -> bool:
        """Whether a valve is set by hand."""
        return any(valve.set_by_hand for valve in self.build.valves.rear)

    @property
    def shuttle(self) -> bool:
        """Whether a pressure-differential switch is in the lines."""
        return warned(self.build)

    @cached_property
    def residual(self) -> tuple[Axle, ...]:
        """The axles with a residual valve, in a line or behind an outlet."""
        return tuple(
            axle
            for axle in AXLES
            if any(valve.keeps_pressure for valve in self.build.valves.of(axle))
            or any(True for _ in behind_outlets(self.build, axle))
        )

    @cached_property
    def laid(self) -> Circuits | None:
        """The layout with its circuits, None where there is none."""
        return circuits_of(self.build)

    @cached_property
    def words(self) -> dict[str, str]:
        """What the texts of steps name of this build."""
        laid = self.laid
        bodies = (
            part_name(laid, part).lower()
            for part in laid.plumbing.parts
            if part.wheel is None and part.kind not in ("plug", "hose")
        ) if laid else ()  # fmt: skip
        return {"bodies": ", ".join(bodies)}

    def figures(self, units: UnitSystem | Units) -> dict[str, str]:
        """Return the figures that the texts of steps name, of this build and of practice.

        units: to say them in.
        """
        rod = self.build.pedal
        ratio = rod.pivot_to_pad.value / rod.pivot_to_pushrod.value
        threads = USUAL_THREADS if rod.pushrod_thread is None else (rod.pushrod_thread,)
        gaps = {name: practice()[name].value for name in ("rod_gap_boosted", "rod_gap_manual")}
        turns = {
            f"{name}_turns": ", ".join(turns_of(gap, thread) for thread in threads)
            for name, gap in gaps.items()
        }
        words = FigureWords(units)
        own = {
            "pin": words.length(rod.pivot_to_pushrod.value),
            "pad_play": words.length(ratio * gaps["rod_gap_manual"]),
        }
        fitted = next((v for v in self.build.valves.front if isinstance(v, Metering)), None)
        if fitted is not None:  # its own figure, where there is one
            own["metering_shuts_range"] = words.pressure(fitted.close.value)
        own["torques"] = "; ".join(f"{name}: {words.torque(nm)}" for name, nm in self.torques)
        return {**practice_words(units), **turns, **own}

    @cached_property
    def torques(self) -> tuple[tuple[str, float], ...]:
        """What the builder or a part's maker has given: of which line or bolt, and how much [N·m].

        Nothing is assumed where nobody has.
        """
        laid = self.laid
        if laid is None:
            return ()
        lines = ((line_called(laid, line), line.torque) for line in laid.plumbing.lines)
        parts = ((thing_called(laid, part.id), part.torque) for part in laid.plumbing.parts)
        return tuple((name, one.value) for name, one in (*lines, *parts) if one is not None)

    @cached_property
    def dead_ends(self) -> tuple[DeadEnd, ...]:
        """Where a line of the layout ends and nothing is bled, and the flared joint before it."""
        laid = self.laid
        if laid is None:
            return ()
        ends = (part for part in laid.plumbing.parts if part.kind in SINKS)
        return tuple(
            dead_end(laid, part, f"{part.id}.{port}")
            for part in ends
            for port in part.ports
            if laid.joined[f"{part.id}.{port}"]
        )

    @property
    def cut_off(self) -> tuple[Wheel, ...]:
        """The wheels of the layout that no outlet of a cylinder is joined to."""
        laid = self.laid
        if laid is None or not laid.wheels:
            return ()
        return tuple(
            wheel for wheel in FARTHEST
            if wheel not in laid.wheels or not laid.fed_by(laid.wheels[wheel])
        )  # fmt: skip

    @cached_property
    def groups(self) -> tuple[tuple[Wheel, ...], ...]:
        """Wheels that are opened together, in the order in which they are bled."""
        if self.bar:
            return SIDES
        if self.build.split == "diagonal":
            return tuple((wheel,) for pair in DIAGONALS for wheel in pair)
        return tuple((wheel,) for wheel in self._farthest())

    def _farthest(self) -> tuple[Wheel, ...]:
        """Return the wheels by the length of their lines, as usual where that is not known."""
        laid = self.laid
        if laid is None:
            return FARTHEST
        made = {one.line.id: one.length for one in routed(laid.plumbing)}
        pipes = [line.id for line in laid.plumbing.lines if not line.direct]
        if any(line not in made for line in pipes):
            return FARTHEST
        far = {
            wheel: sum(made[line] for line in pipes if wheel in laid.wheels_behind(line))
            for wheel in FARTHEST
        }
        return tuple(sorted(FARTHEST, key=lambda wheel: -far[wheel]))


# What a build or a method has to be for a step, a tool or a whole procedure.
HOLDS: dict[When, Callable[[Facts], bool]] = {
    "booster": lambda facts: facts.boosted,
    "no-booster": lambda facts: not facts.boosted,
    "warning-switch": lambda facts: facts.shuttle,
    "latching-switch": lambda facts: (
        facts.shuttle and facts.build.warning_switch_returns == "latching"
    ),
    "unknown-switch": lambda facts: facts.shuttle and facts.build.warning_switch_returns is None,
    "reducing": lambda facts: facts.reducing,
    "load-sensing": lambda facts: facts.load_sensing,
    "metering": lambda facts: facts.metering,
    "adjustable": lambda facts: facts.adjustable,
    "residual": lambda facts: bool(facts.residual),
    "two-circuits": lambda facts: facts.build.split != "single",
    "one-chamber": lambda facts: facts.chambers == 1,
    "two-chambers": lambda facts: facts.chambers > 1,
    "balance-bar": lambda facts: facts.bar,
    "one-cylinder": lambda facts: not facts.bar,
    "laid-out": lambda facts: facts.laid is not None,
    "banjo": lambda facts: (
        facts.laid is not None and any(part.kind == "banjo" for part in facts.laid.plumbing.parts)
    ),
    "by-foot": lambda facts: facts.by in ("pedal", "open-stroke"),
    "by-pressure": lambda facts: facts.by == "pressure",
    "by-vacuum": lambda facts: facts.by == "vacuum",
    "no-bleeder": lambda facts: facts.by != "pressure",
    "torque-given": lambda facts: bool(facts.torques),
}
