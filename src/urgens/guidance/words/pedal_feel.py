"""The pedal's feel in figures and words: as built, and with faults that are only supposed."""

from dataclasses import dataclass

from urgens.document import Build
from urgens.document.tables import fluid_table
from urgens.physics.axle import AXLES
from urgens.physics.line import pressure_drop
from urgens.quantity import FORCE, LENGTH, PRESSURE, Units, UnitSystem, in_units, show, unit_shown
from urgens.solve import Solution
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System
from urgens.solve.travel import axle_volume
from urgens.studies.feel import Feel, feel, worn_volume
from urgens.studies.what_if import WhatIf, supposed

COLD_DENSITY = 1100.0  # kg/m³ of glycol fluid at -40 °C (from memory)
THICKEST = "DOT 4"  # taken where the fluid is not known: its class may be the thickest when cold


@dataclass(frozen=True)
class ComparedRow:
    """One figure, as built and with the faults, as a builder reads it."""

    name: str
    sound: str
    supposed: str


@dataclass(frozen=True)
class FeelComparison:
    """All of them at one effort [N]."""

    effort: float
    rows: tuple[ComparedRow, ...]


def compared(
    solution: Solution, front: WhatIf, rear: WhatIf, units: Units | UnitSystem
) -> FeelComparison:
    """Return the feel at the comfortable effort, as built and with faults."""
    effort = solution.build.targets.comfortable_effort.value
    made = solution.system
    faulty = supposed(solution.build, made, front, rear)
    found = [feel(one, solution.standing, effort) for one in (made, faulty)]
    columns = [_figures(made, one, units) for one in found]
    rows = tuple(ComparedRow(name, columns[0][name], columns[1][name]) for name in columns[0])
    return FeelComparison(effort, rows)


def _figures(system: System, feel: Feel, units: Units | UnitSystem) -> dict[str, str]:
    per = in_units(LENGTH, units) / in_units(FORCE, units)
    slope = f"{feel.slope * per:.3g} {unit_shown(FORCE, units)}/{unit_shown(LENGTH, units)}"
    rows = {
        "Travel": str(show(feel.travel, LENGTH, units)),
        "Slope": slope,
        "Left to the floor": str(show(feel.left, LENGTH, units)) if feel.left > 0 else "none",
    }
    for name, stroke, used in zip(_chambers(system), feel.strokes, feel.used, strict=True):
        rows[name] = f"{show(stroke, LENGTH, units)}, {100 * used:.0f} %"
    return rows


def _chambers(system: System) -> tuple[str, ...]:
    if len(system.volumes.chambers) == 1:
        return ("Stroke used",)
    if system.split == "diagonal":
        return ("Primary stroke", "Secondary stroke")
    return ("Front's stroke", "Rear's stroke")


def reservoir_words(build: Build) -> str:
    """Return what the reservoir has to hold for pads that wear out, in words."""
    said = []
    given = build.master.reservoir_volume
    for axle in AXLES:
        need = worn_volume(build, axle)
        if need is None:
            continue
        words = f"The {axle} pads draw {_millilitres(need)} as they wear out"
        held = "" if given is None else _millilitres(given.value)
        if given is None:
            said.append(f"{words}; the reservoir is not measured.")
        elif need <= given.value:
            said.append(f"{words}, out of {held} a circuit: it holds them.")
        else:
            said.append(f"{words}, more than the {held} a circuit: it runs dry first.")
    if not said:
        return "No pad's thickness is known; shoes are adjusted and draw little."
    return " ".join(said)


def _millilitres(volume: float) -> str:
    """Return a volume as a reservoir's is read in either unit system."""
    return f"{volume * 1e6:.0f} ml"


def cold_line_words(
    solution: Solution, length: float, bore: float, time: float, units: Units | UnitSystem
) -> str:
    """Return how far the rear lags in a fast press in the cold, in words.

    length, bore: of the rear line [m]; time: of the press [s].
    """
    build, made = solution.build, solution.system
    effort = build.targets.comfortable_effort.value
    lines = rolling_lines(made, pushrod_force(made, effort), solution.standing)
    volume = float(axle_volume(made.volumes, made.volumes.axles.rear, lines.rear))
    grade = THICKEST if build.fluid is None else build.fluid.grade
    viscosity = fluid_table().fluids[grade].cold_viscosity * 1e-6 * COLD_DENSITY
    lag = float(pressure_drop(viscosity, length, volume / time, bore))
    assumed = " (fluid not given)" if build.fluid is None else ""
    if lag >= float(lines.rear):
        behind = "cannot flow that fast, and the rear comes late"
    else:
        behind = f"holds the rear back by {show(lag, PRESSURE, units)} while it flows"
    return (
        f"{grade}{assumed} at its thickest {behind}; once the pedal is held nothing is lost. "
        "Laminar flow."
    )
