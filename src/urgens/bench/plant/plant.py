"""The stand-in for the vehicle: a build with deviations that nobody has told."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from urgens.bench.plant.valve_faults import InjectedFault
from urgens.document import Build, BuildErrors
from urgens.physics.arrays import Array
from urgens.physics.axle import Axle, Pair
from urgens.physics.valve_law import Felt, ResidualLaw, ValveLaw
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.system import System, system
from urgens.studies.draws import Spread, drawn, laid, spreads


@dataclass(frozen=True)
class Plant:
    """One vehicle as it really is: what it was built as, its numbers, what differs [SI] by path."""

    build: Build
    system: System
    figures: Mapping[str, float]
    cause: InjectedFault | None = None

    def standing(self, case: str) -> StaticVehicle:
        """Return the loads of a case [N]; case: its name [text].

        Raises BuildErrors for another.
        """
        return self.system.case(self.case_index(case))

    def case_index(self, case: str) -> int:
        """Return the place of a load case; case: its name [text].

        Raises BuildErrors for another.
        """
        names = self.system.case_names
        if case not in names:
            known = ", ".join(f'"{name}"' for name in names)
            raise BuildErrors.one("load case", f'there is no "{case}"', f"choose one of {known}")
        return names.index(case)


def plant(build: Build, seed: int | None = None, cause: InjectedFault | None = None) -> Plant:
    """Return a vehicle of a build.

    seed: of the draw of every figure that spreads [-], None for the
    build as it stands; cause: that is laid over it.
    Raises BuildErrors where the cause needs what the build has not.
    Source: draws of `studies.draws`; every load case its own.
    """
    over: dict[str, float] = {}
    if seed is not None:
        figures = _all_spreads(build)
        values = drawn(build, figures, 1, np.random.default_rng(seed))[:, 0]
        over = {path: float(value) for path, value in laid(build, figures, values).items()}
    made = system(build, over=over)
    if cause is not None:
        if not cause.fits(made):
            remedy = "choose another, or fit one"
            raise BuildErrors.one("--fault", f"{cause.name}: no such valve is fitted", remedy)
        made = cause.laid(made)
    return Plant(build, made, over, cause)


def _all_spreads(build: Build) -> tuple[Spread, ...]:
    found: dict[str, Spread] = {}
    for case in range(len(build.vehicle.load_cases)):
        found.update({one.path: one for one in spreads(build, case)})
    return tuple(found.values())


def cylinder_pressures(system: System, effort: Array) -> tuple[Array, Array]:
    """Return front and rear pressure at the cylinder [Pa].

    system: the system; effort: any shape [N].
    """
    output = booster_output(system, pushrod_force(system, effort))
    lines = line_pressures(replace(system, valves=Pair((), ())), output, Felt(0.0, 0.0))
    return lines.master_front, lines.master_rear


def followed(law: ValveLaw, inlet: Array, felt: Felt) -> Array:
    """Return a valve's outlet pressure while the inlet rises and falls.

    law: of the valve; inlet: over time, shape (t,) [Pa]; felt: of the vehicle.
    On the way back the outlet stays until the inlet has come down to it; a residual valve keeps
    what it keeps.

    Physics.valve; what was pressed before counts, step by step.
    """
    applied = inlet if isinstance(law, ResidualLaw) else np.asarray(law.outlet(inlet, felt))
    kept = float(law.kept) if isinstance(law, ResidualLaw) else 0.0
    made, before = np.empty_like(inlet), 0.0
    for step, (most, least) in enumerate(zip(inlet.tolist(), applied.tolist(), strict=True)):
        before = max(least, min(before, max(most, kept)))
        made[step] = before
    return made


def across(
    system: System, axle: Axle, place: int, effort: Array, felt: Felt
) -> tuple[Array, Array]:
    """Return the pressures before and behind a valve while the foot moves.

    system: the system; axle: whose line [-]; place: of the valve in it [-]; effort: over time (t,)
    [N]; felt: of the vehicle.
    """
    inlet = cylinder_pressures(system, effort)[0 if axle == Axle.FRONT else 1]
    laws = system.valves.of(axle)
    for law in laws[:place]:
        inlet = followed(law, inlet, felt)
    return inlet, followed(laws[place], inlet, felt)
