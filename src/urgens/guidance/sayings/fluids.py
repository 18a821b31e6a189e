"""Sayings about units and fluids."""

import math

from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.document.kinds.brakes.disc import Disc
from urgens.guidance.sayings.saying import (
    Answer,
    SayingTrial,
    SayingVerdict,
    bars,
    not_computed,
    saying,
)
from urgens.physics.axle import AXLES
from urgens.quantity import UnitSystem

PSI = 6894.757  # Pa
INHG = 3386.389  # Pa
MBAR = 100.0  # Pa
BAR = 1e5  # Pa
MPA = 1e6  # Pa
LBF = 4.4482216
INCH = 0.0254


@saying("pressure-area-psi", "Pressure times area, in psi, is the force")
def pressure_area(trial: SayingTrial) -> Answer:
    """Try it: psi times square inches are pounds of force; bar and mm need factors of their own."""
    disc = next(
        (one for axle in AXLES if isinstance(one := trial.build.axle(axle).brake, Disc)), None
    )
    if disc is None:
        return not_computed("There is no caliper on this build.")
    area = sum(math.pi / 4.0 * one.value**2 for one in disc.piston_diameters)
    pressure = float(trial.solution.presses.front_pressure[0])
    square = area / INCH**2
    force = pressure * area
    sums = f"{pressure / PSI:.0f} psi on {square:.2f} in² are {force / LBF:.0f} lbf"
    if trial.build.natural_units is UnitSystem.INCH:
        return Answer(
            SayingVerdict.TRUE, f"{sums}: each side of a caliper.", "In inches and pounds of force."
        )
    metric = f"{pressure / 1e5:.1f} bar on {area * 1e6:.0f} mm² are {force:.0f} N: bar × mm² ÷ 10"
    return Answer(
        SayingVerdict.WITHIN, f"{metric}. {sums}.", "In other units a factor stands between."
    )


@saying("units", "A figure is the same in any unit, so the unit need not be said")
def units(trial: SayingTrial) -> Answer:
    """Try it: one pressure in three units, and its number read in another one."""
    booster = trial.build.booster
    vacuum = isinstance(booster, VacuumBooster)
    value = booster.vacuum.value if isinstance(booster, VacuumBooster) else (
        float(trial.solution.presses.front_pressure[0])
    )  # fmt: skip
    names = (("inHg", INHG), ("psi", PSI), ("mbar", MBAR)) if vacuum else (
        ("psi", PSI), ("bar", BAR), ("MPa", MPA)
    )  # fmt: skip
    read = [f"{value / unit:,.4g} {name}" for name, unit in names]
    (first, own), (second, taken) = names[:2]
    told = bars((first, own, f"1 {first}"), (second, taken, f"{taken / own:.2f} {first}"))
    what = "vacuum" if vacuum else "front pressure"
    here = (
        f"The {what} is {read[0]}, {read[1]} or {read[2]}; the first number read as {second} "
        f"would be {taken / own:.2g} times as much."
    )
    return Answer(SayingVerdict.NOT, here, "Say the unit with every reading.", told)


@saying("silicone", "Silicone fluid is better for everything")
def silicone(trial: SayingTrial) -> Answer:
    """Try it: it draws no water and spares paint; it holds air and gives more under pressure."""
    if trial.build.vehicle.use == "restoration":
        return Answer(
            SayingVerdict.WITHIN,
            "This one stands more than it drives: it draws no water and spares paint.",
            "It holds bubbles, gives more under pressure, mixes with nothing.",
        )
    return Answer(
        SayingVerdict.NOT,
        "This one is driven: it holds small bubbles and gives more under "
        "pressure, so the pedal is longer, and softer when hot.",
        "How much is not in the model; for what stands for long it has merits.",
    )
