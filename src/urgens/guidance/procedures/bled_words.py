"""What is expected while a vehicle is bled, in words: strokes, what comes, the pedal's travel."""

from math import isfinite

import numpy as np

from urgens.document.practice import practice
from urgens.guidance.procedures.bled_run import MILLILITRE, ExpectedBleeding
from urgens.guidance.procedures.bled_vehicle import with_air
from urgens.guidance.procedures.facts import said
from urgens.guidance.procedures.step import Method, ProcedureStep, Wheel
from urgens.guidance.words.figures import FigureWords
from urgens.physics.purge import flow_by_pressure, head
from urgens.physics.valve_law import at_rest
from urgens.solve import Solution
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.travel import pedal_travel

# Assumed; said where they are counted.
VISCOSITY = 0.015  # Pa·s of glycol fluid at 20 °C (from memory)
DENSITY = 1060.0  # kg/m³ of it (from memory)
NOTHING = 0.05e-6  # m³ of air that nobody would see come


def bleeding_words(
    found: ExpectedBleeding, step: ProcedureStep, method: str | None, words: FigureWords
) -> str:
    """Return what is expected at a step of bleeding, empty where nothing is.

    found: of the run; method: of bleeding [text]. Source: `bled_run`.
    """
    if step.action == "stroke" and step.wheels:
        return "; ".join(_strokes(found, wheel) for wheel in step.wheels)
    if step.action == "look" and step.wheels:
        return "; ".join(_flow(found, wheel, method, words) for wheel in step.wheels)
    if step.record is not None and step.record.field == "bubbles" and step.wheels:
        return "; ".join(_left(found, wheel) for wheel in step.wheels)
    return ""


def _ml(volume: float) -> str:
    millilitres = volume / MILLILITRE
    return f"{millilitres:.0f} ml" if millilitres >= 9.5 else f"{millilitres:.1f} ml"


def _strokes(found: ExpectedBleeding, wheel: Wheel) -> str:
    count, each = found.strokes(wheel), _ml(found.swept[wheel])
    if not count:
        return f"{said(wheel)}: by the figures no air comes any more, {each} a stroke"
    more = "stroke" if count == 1 else "strokes"
    return f"{said(wheel)}: about {count} {more} until no air comes, {each} each"


def _flow(found: ExpectedBleeding, wheel: Wheel, method: str | None, words: FigureWords) -> str:
    wanted = found.now.until_clear(wheel)
    told = f"{said(wheel)}: about {_ml(wanted)} until no air comes"
    minutes = minutes_until_clear(found, wheel, method)
    if minutes is None:
        return told
    height = words.practice("reservoir_height")
    how = f"with the reservoir {height} above" if method == "gravity" else "at that pressure"
    time = f"{minutes:.0f} min" if minutes >= 1.5 else f"{max(minutes * 60.0, 5.0):.0f} s"
    return f"{told}, some {time} {how}, the fluid cool, assumed"


def minutes_until_clear(found: ExpectedBleeding, wheel: Wheel, method: str | None) -> float | None:
    """Return how long it runs until no air comes [min], None by other methods.

    wheel: whose screw is open; method: of bleeding [text]. Source: Hagen–Poiseuille's law through
    the tubes and hoses of the way; what a screw, a valve or a bend takes is not counted.
    """
    pressures: dict[Method, float] = {
        "gravity": float(head(practice()["reservoir_height"].value, DENSITY)),
        "pressure": practice()["bleeder_pressure"].value,
    }
    pressure = next((value for name, value in pressures.items() if name == method), None)
    lengths, bores = found.now.ways.tubes[wheel]
    if pressure is None or not lengths.size:
        return None
    flow = float(flow_by_pressure(pressure, lengths, bores, VISCOSITY))
    return found.now.until_clear(wheel) / flow / 60.0


def _left(found: ExpectedBleeding, wheel: Wheel) -> str:
    air, kept = found.now.air_to(wheel), found.now.kept[wheel]
    if air > NOTHING:
        count = found.strokes(wheel)
        more = "stroke" if count == 1 else "strokes"
        return f"{said(wheel)}: by the figures {_ml(air)} of air are left, {count} {more} more"
    if kept > NOTHING:
        return f"{said(wheel)}: about {_ml(kept)} stay above a screw that is not at the top"
    return f"{said(wheel)}: by the figures no air is left"


def travel_words(
    solution: Solution, found: ExpectedBleeding, effort: float, words: FigureWords
) -> str:
    """Return the pedal's travel with the air that is left by the figures, empty without any.

    effort: of the foot [N]. Source: `solve.travel`.
    """
    air = found.now.air()
    if air.front + air.rear <= NOTHING:
        return ""
    travel = travel_with_air(solution, found, effort)
    told = words.typed_length(travel) if isfinite(travel) else "to the floor"
    left, foot = _ml(air.front + air.rear), words.force(effort)
    return f"by the figures {left} of air are left: the pedal goes {told} at {foot}"


def travel_with_air(solution: Solution, found: ExpectedBleeding, effort: float) -> float:
    """Return the pedal's travel with the air that is left [m], NaN at the floor.

    effort: of the foot [N]. Source: `solve.travel`.
    """
    system = with_air(solution.system, found.now.air())
    output = booster_output(system, pushrod_force(system, effort))
    lines = line_pressures(system, output, at_rest(solution.standing))
    return float(pedal_travel(system, np.asarray(effort), lines.front, lines.rear))
