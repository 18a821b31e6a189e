"""Valves in the lines: outlet pressure as a function of inlet pressure, on apply.

All are pressure balances of a stepped or spring-loaded piston; flow plays no part at a held pedal.
Source: Limpert, Brake Design and Safety, brake force regulating valves (from memory).
"""

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


def adjusted_knee(turns: Floats, table_turns: Floats, table_knees: Floats) -> Array:
    """Return the knee [Pa] of an adjustable valve at its setting.

    turns: of its adjuster [-].
    table_turns: rising settings, shape (n,) [-].
    table_knees: knees at those settings, shape (n,) [Pa].
    Linear between the rows, held at the ends.
    Source: the valve's own table.
    """
    return np.asarray(np.interp(turns, table_turns, table_knees))


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
