"""The estimate of heat in words."""

from collections.abc import Mapping

from urgens.document import Build
from urgens.document.heat import Heat
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import SPEED, TEMPERATURE, Units, UnitSystem, in_units, show, unit_shown
from urgens.solve import Solution
from urgens.studies.heat import FLUID_SHARE, Heated, boiling_points

Found = Mapping[Axle, Heated | None]


def temperature(kelvin: float, units: Units | UnitSystem) -> str:
    """Return a temperature as a builder reads it."""
    return str(show(kelvin, TEMPERATURE, units))


def _rise(kelvin: float, units: Units | UnitSystem) -> str:
    """Return a difference of temperatures as a builder reads it."""
    number = kelvin / in_units(TEMPERATURE, units)
    return f"{number:.0f} {unit_shown(TEMPERATURE, units)}"


def heat_words(solution: Solution, estimate: Found, units: Units | UnitSystem) -> list[str]:
    """Return the heat of a series, the first sentence alone a summary."""
    series = solution.build.heat or Heat()
    known = {axle: one for axle, one in estimate.items() if one is not None}
    if not known:
        return ["weigh a rotor or a drum to estimate its heat", "No iron is weighed yet."]
    ends = ", ".join(
        f"{axle} {temperature(float(one.peaks[-1]), units)}" for axle, one in known.items()
    )
    speed = show(series.speed.value, SPEED, units)
    said = [f"{series.stops} stops from {speed}: {ends}, an estimate"]
    for axle, one in known.items():
        cools = "as measured" if one.settled else "assumed"
        said.append(
            f"{axle.capitalize()}: one stop warms it by {_rise(one.rise, units)} with "
            f"{100 * one.share:.0f} % of the energy; it loses 63 % in {one.cooling_time:.0f} s, "
            f"{cools}."
        )
        if one.unlike:
            said.append(
                f"No cooling explains the {axle} temperature measured: look at the mass, the "
                "series and the share again."
            )
    for axle in AXLES:
        if estimate[axle] is None:
            said.append(f"The {axle} iron is not weighed.")
    return said


def fluid_words(build: Build, estimate: Found, units: Units | UnitSystem) -> str:
    """Return how far the fluid is from boiling, in words."""
    hottest = max((one.fluid for one in estimate.values() if one is not None), default=None)
    if hottest is None:
        return ""
    points = boiling_points(build)
    if points is None:
        return "The fluid's class is not given: no margin to its boiling point can be said."
    assert build.fluid is not None
    margins = [point - hottest for point in points]
    said = [
        f"boils {name}" if margin <= 0 else f"{_rise(margin, units)} to spare {name}"
        for name, margin in zip(("dry", "wet"), margins, strict=True)
    ]
    return (
        f"{build.fluid.grade} at about {temperature(hottest, units)} in the hotter brake: "
        f"{said[0]}, {said[1]} (least boiling points, FMVSS 116, from memory). That "
        f"{100 * FLUID_SHARE:.0f} % of the iron's excess reaches it is assumed."
    )
