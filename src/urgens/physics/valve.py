"""Valves in the lines: outlet pressure as a function of inlet pressure, on apply.

All are pressure balances of a stepped or spring-loaded piston; flow plays no part at a held pedal.
Source: Limpert, Brake Design and Safety, brake force regulating valves (from memory).
"""

from collections.abc import Sequence

import numpy as np

from urgens.physics.arrays import Array, Floats


def reducing(inlet: Floats, knee: Floats, slope: Floats) -> Array:
    """Return the outlet pressure [Pa] of a pressure-reducing valve.

    inlet: [Pa].
    knee: pressure from which it reduces [Pa].
    slope: outlet rise over inlet rise above the knee [-].
    Source: force balance of its stepped piston.
    """
    return np.asarray(np.minimum(inlet, knee + slope * np.subtract(inlet, knee)))


def adjusted_knee(
    turns: Floats, table_turns: Sequence[Floats] | Array, table_knees: Sequence[Floats] | Array
) -> Array:
    """Return the knee [Pa] of an adjustable valve at its setting.

    turns: of its adjuster [-]; table_turns: settings, rising from row to row [-]; table_knees:
    knees at those settings [Pa].
    Linear between the rows, held at the ends.
    """
    knee = np.asarray(table_knees[0], dtype=float)
    for row in range(1, len(table_turns)):
        low, high = table_turns[row - 1], table_turns[row]
        with np.errstate(over="ignore"):  # rows next to each other: all the way to the next
            share = np.clip(np.subtract(turns, low) / np.subtract(high, low), 0.0, 1.0)
        knee = knee + share * np.subtract(table_knees[row], table_knees[row - 1])
    return np.asarray(knee)


def metering(inlet: Floats, closing: Floats, opening: Floats, full: Floats) -> Array:
    """Return the outlet pressure [Pa] of a metering (hold-off) valve.

    inlet: [Pa].
    closing: inlet pressure at which it shuts [Pa].
    opening: inlet pressure at which it starts to let through again [Pa].
    full: inlet pressure from which all passes [Pa], above `opening`.
    Source: force balance of its spring-loaded poppet, linear while it opens.
    """
    rate = np.subtract(full, closing) / np.subtract(full, opening)
    # The opening line is the steeper one: below `full` it lies under the inlet, above it over.
    return np.asarray(
        np.minimum(inlet, np.maximum(closing, closing + rate * np.subtract(inlet, opening)))
    )


def load_sensed_knee(
    load: Floats, light: Floats, heavy: Floats, light_knee: Floats, heavy_knee: Floats
) -> Array:
    """Return the knee [Pa] of a load-sensing valve.

    load: on the rear axle [N]; light: calibrated load [N]; heavy: the other, larger one [N];
    light_knee: knee at the light load [Pa]; heavy_knee: at the heavy one [Pa].
    Linear between the two points, held at them outside.
    Source: spring and lever of the valve, common practice.
    """
    share = np.clip(np.subtract(load, light) / np.subtract(heavy, light), 0.0, 1.0)
    return np.asarray(light_knee + share * np.subtract(heavy_knee, light_knee))


def ball_closes(angle: Floats) -> Array:
    """Return the deceleration [g] at which an inertia-sensing valve's ball rolls up its ramp.

    angle: of the ramp, the vehicle standing level [rad].
    Source: statics of a ball on a ramp: its tangent.
    """
    return np.asarray(np.tan(angle))


def spring_force(load: Floats, set_load: Floats, preload: Floats, rates: Floats) -> Array:
    """Return the force [N] of a load-sensing valve's spring.

    load: on the rear axle [N]; set_load: the load at which it was set [N]; preload: its force
    there [N]; rates: of the valve's spring over the suspension's, both sides [-].
    A slack spring does not push.
    Source: the suspension moves by load over rate, and the spring with it.
    """
    return np.asarray(np.maximum(preload + rates * np.subtract(load, set_load), 0.0))


def lever_knee(
    force: Floats, arm: Floats, piston_arm: Floats, piston_area: Floats, slope: Floats
) -> Array:
    """Return the knee [Pa] at which a lever's push on a stepped piston gives way.

    force: of the spring at the lever's end [N]; arm: from pivot to spring [m]; piston_arm: from
    pivot to piston [m]; piston_area: of the piston's outlet end [m²]; slope: inlet face over
    outlet end, so that the pressure acts on the rest [-].
    Source: moments about the lever's pivot, force balance of the stepped piston.
    """
    return np.asarray(force * np.divide(arm, piston_arm) / (piston_area * np.subtract(1.0, slope)))


def released(inlet: Floats, peak: Floats) -> Array:
    """Return the outlet pressure [Pa] while the inlet falls.

    inlet: falling [Pa]; peak: outlet pressure at the end of the apply [Pa].
    Source: the piston stays until the inlet has come down to the outlet, then it opens.
    """
    return np.asarray(np.minimum(inlet, peak))


def residual_released(inlet: Floats, kept: Floats, peak: Floats) -> Array:
    """Return the pressure [Pa] a residual valve leaves while the inlet falls.

    inlet: falling [Pa]; kept: its pressure [Pa]; peak: outlet at the end of the apply [Pa].
    Source: a check valve with a spring: it keeps no more than there was.
    """
    return np.asarray(np.maximum(np.minimum(inlet, peak), np.minimum(kept, peak)))


def reducing_inlet(outlet: Floats, knee: Floats, slope: Floats) -> Array:
    """Return the smallest inlet pressure [Pa] that gives an outlet's; inf where none does.

    outlet: [Pa]; knee: pressure from which it reduces [Pa]; slope: outlet rise over inlet rise
    above the knee [-].
    """
    above = np.subtract(outlet, knee)
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        more = np.asarray(knee + above / np.asarray(slope, dtype=float))
    return np.where(above > 0.0, more, outlet)


def metering_inlet(outlet: Floats, closing: Floats, opening: Floats, full: Floats) -> Array:
    """Return the smallest inlet pressure [Pa] that gives an outlet's.

    outlet: [Pa]; closing: inlet pressure at which it shuts [Pa]; opening: at which it starts to
    let through again [Pa]; full: from which all passes [Pa].
    """
    rate = np.subtract(full, closing) / np.subtract(full, opening)
    opened = np.asarray(opening + np.subtract(outlet, closing) / rate)
    held = np.greater(outlet, closing) & np.less(outlet, full)
    return np.where(held, opened, outlet)
