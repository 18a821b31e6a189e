"""What two gauges across a valve of this build are to show, before anything is read."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from urgens.document import Build, BuildErrors
from urgens.document.ledger.proof import VALVE
from urgens.document.numeric import NOTHING
from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import Axle
from urgens.physics.valve_law import Felt, MeteringLaw, ResidualLaw, ValveLaw, at_rest
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System, system

PSI = 6894.757  # Pa
BAR = 1e5  # Pa
STEPS = 16  # readings up to the hardest press, at most
NICE = (1.0, 2.0, 2.5, 5.0, 10.0)


@dataclass(frozen=True)
class Expected:
    """A valve's line on the stand, its tolerance on both sides, and how far a foot takes it.

    `knee`, `reach` [Pa], `slope` [-]; knee and slope None where standing it takes nothing off.
    """

    valve: str
    law: ValveLaw
    felt: Felt
    knee: float | None
    slope: float | None
    knee_limits: tuple[float, float] | None
    slope_limits: tuple[float, float] | None
    reach: float

    def outlet(self, inlet: Array) -> Array:
        """Return the outlet pressure [Pa]; inlet: any shape [Pa]."""
        return np.asarray(self.law.outlet(inlet, self.felt))

    def band(self, inlet: Array) -> tuple[Array, Array]:
        """Return the outlet at both ends of the tolerance [Pa]; inlet: any shape [Pa].

        The valve's law at both ends; the same line twice where none is usual.
        """
        ends = self.law.tolerance(self.felt)
        if ends is None:
            same = self.outlet(inlet)
            return same, same
        low, high = (np.asarray(end.outlet(inlet, self.felt)) for end in ends)
        return low, high

    @property
    def meters(self) -> MeteringLaw | None:
        """The law of a metering valve, None for any other."""
        return self.law if isinstance(self.law, MeteringLaw) else None


def place_of(valve: str) -> tuple[Axle, int]:
    """Return the line and the place in it of a valve; valve: "rear[0]" [text].

    Raises ValueError.
    """
    found = VALVE.fullmatch(valve)
    if found is None:
        raise ValueError(f"{valve!r} is no valve")
    return Axle(found[1]), int(found[2])


def gauged_valves(build: Build) -> tuple[str, ...]:
    """Return the places of the valves that gauges can read.

    Source: by definition: a residual valve shows on the way back alone.
    """
    return tuple(
        f"{circuit}[{index}]"
        for circuit, index, valve in build.valves.placed()
        if valve.kind != "residual"
    )


def expected(
    build: Build, valve: str, case: int = 0, over: Mapping[str, Floats] = NOTHING
) -> Expected:
    """Return what a valve is to show on the stand.

    valve: its place, "rear[0]"; case: place of the load case it stands in [-].
    over: figures laid over its own, by path [SI].
    Raises BuildErrors where no such valve is fitted.
    Source: the build's own law; the pressures that its hardest foot makes.
    """
    axle, index = place_of(valve)
    made = system(build, over=over)
    laws = made.valves.of(axle)
    if index >= len(laws) or isinstance(laws[index], ResidualLaw):
        raise BuildErrors.one(f"valves.{valve}", "is not in this build", "choose one that is")
    standing = made.case(case)
    felt, law = at_rest(standing), laws[index]
    knee, slope = _line_of(law, felt)
    ends = law.tolerance(felt)
    limits = [_line_of(end, felt) for end in ends] if ends is not None else None
    return Expected(
        valve=valve,
        law=law,
        felt=felt,
        knee=knee,
        slope=slope,
        knee_limits=_between(limits, 0),
        slope_limits=_between(limits, 1),
        reach=_reach(made, axle, index, felt),
    )


def _line_of(law: ValveLaw, felt: Felt) -> tuple[float | None, float | None]:
    knee = law.knee(felt)
    if knee is None or not np.isfinite(knee):
        return None, None
    slope = law.outlet(knee + 1e6, felt) - law.outlet(knee, felt)
    return float(knee), float(slope) / 1e6


def _between(
    ends: list[tuple[float | None, float | None]] | None, which: int
) -> tuple[float, float] | None:
    found = [end[which] for end in ends or []]
    if len(found) != 2 or found[0] is None or found[1] is None:
        return None
    return found[0], found[1]


def _reach(system: System, axle: Axle, index: int, felt: Felt) -> float:
    """Return the pressure before a valve at the hardest foot [Pa]."""
    lines = rolling_lines(system, pushrod_force(system, system.max_effort), system.case(0))
    inlet = np.asarray(lines.master_front if axle == Axle.FRONT else lines.master_rear)
    for law in system.valves.of(axle)[:index]:
        inlet = np.asarray(law.outlet(inlet, felt))
    return float(inlet)


def usual_scale(unit: float) -> float:
    """Return where a gauge for brakes usually ends [Pa]; unit: of the figures shown [Pa].

    Source: common practice: 1,500 psi, or 100 bar.
    """
    return 1500.0 * unit if abs(unit / PSI - 1.0) < 1e-3 else 100.0 * BAR


def schedule(wanted: Expected, full_scale: float, unit: float) -> Array:
    """Return the inlet pressures to read at, rising [Pa].

    wanted: of the valve; full_scale: of the gauges [Pa]; unit: of the figures shown [Pa].
    Source: common practice: round figures in even steps, no further than the foot or the gauge.
    """
    most = min(wanted.reach, full_scale)
    if wanted.meters is not None:
        most = min(most, 1.5 * float(wanted.meters.full))
    if not most > 0.0:  # the hardest foot moves nothing
        return np.empty(0)
    step = _nice(most / STEPS / unit) * unit
    return np.asarray(np.arange(1.0, int(most / step + 1e-9) + 1) * step, dtype=float)


def _nice(step: float) -> float:
    power = 10.0 ** np.floor(np.log10(step))
    return float(min(nice for nice in NICE if nice * power >= step * (1.0 - 1e-9)) * power)
