"""Heat of braking: an estimate, with each rotor or drum as one lump of one temperature."""

import numpy as np

from urgens.physics.arrays import Array, Floats

IRON = 460.0  # J/(kg·K), specific heat of grey cast iron near room temperature (from memory)


def rise_of_one_stop(mass: Floats, speed: Floats, share: Floats, rotor_mass: Floats) -> Array:
    """Return by how much one stop warms a rotor [K].

    mass: of the vehicle [kg]; speed: from which it stops [m/s]; share: of the energy that this
    axle takes [-]; rotor_mass: of one of its two rotors or drums [kg].
    Source: kinetic energy into two lumps of iron; nothing is lost during the stop.
    """
    energy = 0.5 * np.multiply(mass, np.square(speed))
    return np.asarray(np.multiply(share, energy) / (2.0 * np.asarray(rotor_mass) * IRON))


def peaks_of_a_series(rise: Floats, stops: int, between: Floats, cooling_time: Floats) -> Array:
    """Return how far above the air a rotor is at the end of each stop of a series [K].

    rise: of one stop [K], any shape; stops: how many [-]; between: time between two of them [s];
    cooling_time: in which a rotor loses 63 % of its excess [s]. Shape (stops, *rise).
    Source: Newton cooling of a lump between stops, summed as a geometric series.
    """
    kept = np.exp(-np.divide(between, cooling_time))
    count = np.arange(1, stops + 1, dtype=float).reshape(-1, *(1 for _ in np.shape(rise)))
    return np.asarray(rise * (1.0 - kept**count) / np.maximum(1.0 - kept, 1e-300))


def cooling_time_measured(rise: Floats, stops: Floats, between: Floats, measured: Floats) -> Array:
    """Return the cooling time [s] that a temperature at the end of a series tells.

    rise: of one stop [K]; stops: how many there were [-]; between: time between two of them [s];
    measured: how far above the air the rotor was at the end of the last [K].
    NaN where no cooling explains it: hotter than all the heat, or cooler than one stop makes.
    Source: the series of `peaks_of_a_series` by bisection; it rises with the cooling time.
    """
    rise, measured = np.asarray(rise, dtype=float), np.asarray(measured, dtype=float)
    possible = (measured > rise) & (measured < rise * stops)
    low, high = np.zeros(np.shape(measured)), np.ones(np.shape(measured))  # share kept
    for _ in range(60):
        kept = (low + high) / 2.0
        warm = rise * (1.0 - kept**stops) / np.maximum(1.0 - kept, 1e-300)
        low, high = np.where(warm < measured, kept, low), np.where(warm < measured, high, kept)
    with np.errstate(divide="ignore"):
        return np.asarray(np.where(possible, -np.asarray(between) / np.log(low), np.nan))
