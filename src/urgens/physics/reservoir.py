"""The vacuum reservoir: what is left of the vacuum after so many applications without an engine."""

import numpy as np

from urgens.physics.arrays import Array, Floats


def vacuum_left(
    vacuum: Floats,
    ambient: Floats,
    reservoir: Floats,
    swept: Floats,
    applications: Floats,
    *,
    rests_in_air: bool = False,
) -> Array:
    """Return the vacuum [Pa] left after assisted applications, each released again.

    vacuum: before the first [Pa]; ambient: pressure of the air [Pa]; reservoir: volume of
    reservoir and hose [m³]; swept: volume of the booster [m³]; applications: how many [-];
    rests_in_air: whether the booster rests with air on both sides, as the older kind does [-].
    Source: Boyle's law at constant temperature, one application after another. A booster that
    rests under vacuum gives its chamber of air to the reservoir each time, one that rests in air
    is evacuated anew each time.
    """
    ambient, count = np.asarray(ambient, dtype=float), np.asarray(applications, dtype=float)
    whole = np.add(reservoir, swept)
    if rests_in_air:
        return np.asarray(vacuum * np.divide(reservoir, whole) ** count)
    return np.asarray(np.maximum(vacuum - count * ambient * np.divide(swept, whole), 0.0))


def vacuum_at_end(
    vacuum: Floats,
    ambient: Floats,
    reservoir: Floats,
    swept: Floats,
    stroke: Floats = 1.0,
    *,
    rests_in_air: bool = False,
) -> Array:
    """Return the vacuum [Pa] that assists at the end of a stroke.

    vacuum: at rest before it [Pa]; ambient: pressure of the air [Pa]; reservoir: volume of
    reservoir and hose [m³]; swept: volume of the booster [m³]; stroke: share of the whole one [-];
    rests_in_air: as in `vacuum_left` [-].
    Source: Boyle's law: a diaphragm that rests under vacuum presses what is in front of it
    together before air comes in behind; one that rests in air has its front emptied first.
    """
    taken = np.multiply(swept, stroke)
    if rests_in_air:
        return np.asarray(vacuum * np.divide(reservoir, np.add(reservoir, taken)))
    inside = np.subtract(ambient, vacuum)
    whole = np.add(reservoir, swept)
    return np.asarray(np.maximum(ambient - inside * whole / (whole - taken), 0.0))


def assisted_stops(
    vacuum: Floats,
    least: Floats,
    ambient: Floats,
    reservoir: Floats,
    swept: Floats,
    *,
    rests_in_air: bool = False,
) -> Array:
    """Return how many applications [-] leave at least a wanted vacuum; inf where all do.

    vacuum: before the first [Pa]; least: wanted [Pa]; ambient: pressure of the air [Pa].
    reservoir: volume of reservoir and hose [m³]; swept: volume of the booster [m³]; rests_in_air:
    as in `vacuum_left` [-].
    """
    whole = np.add(reservoir, swept)
    with np.errstate(divide="ignore", invalid="ignore"):
        if rests_in_air:
            count = np.log(np.divide(least, vacuum)) / np.log(np.divide(reservoir, whole))
        else:
            count = np.subtract(vacuum, least) * whole / np.multiply(ambient, swept)
    # What leaves exactly the wanted vacuum still counts, whatever the last digit is.
    return np.asarray(np.where(np.less(vacuum, least), 0.0, np.floor(count + 1e-9)))
