"""What of a build shapes its procedures: who feeds whom, what is in the way, what is far."""

from dataclasses import dataclass
from functools import cached_property

from urgens.document import Build
from urgens.document.circuits import SINKS, circuits_of, warned
from urgens.document.layout.line_sheets import routed
from urgens.document.residual_valves import behind_outlets
from urgens.guidance.procedures.step import Method, Wheel
from urgens.guidance.words.parts import part_name
from urgens.physics.axle import AXLES, Axle

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


@dataclass(frozen=True)
class Facts:
    """The facts of one build, and what was asked: a method of bleeding, what was opened."""

    build: Build
    method: Method | None = None
    opened: tuple[str, ...] = ()

    @property
    def bar(self) -> bool:
        """Whether twin cylinders with a bar press: both ends are bled together."""
        return self.build.master.has_bar

    @property
    def boosted(self) -> bool:
        """Whether a booster helps."""
        return self.build.booster.fitted

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
    def dead_ends(self) -> tuple[str, ...]:
        """Parts of the layout at which a line ends and nothing is bled, as they are called."""
        laid = circuits_of(self.build)
        if laid is None:
            return ()
        return tuple(
            f"the {part_name(laid, part).lower()} {part.id}"
            for part in laid.plumbing.parts
            if part.kind in SINKS and any(laid.joined[f"{part.id}.{port}"] for port in part.ports)
        )

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
        laid = circuits_of(self.build)
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
