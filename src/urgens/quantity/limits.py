"""Roads and speeds that can be looked at: one limit for what is typed anywhere."""

from urgens.quantity.quantity import QuantityError, decimal

ROADS = (0.01, 5.0)  # tyre-road coefficients, from wet ice to a warm slick on a prepared strip
FASTEST = 150.0  # m/s


def road(text: str) -> float:
    """Return the tyre-road coefficient that is typed [-]; raises QuantityError.

    text: a bare number, a μ before it or not [text].
    Source: common practice, from memory.
    """
    low, high = ROADS
    try:
        surface = decimal(text.replace("μ", ""))
    except ValueError:
        surface = float("nan")
    if not low <= surface <= high:
        raise QuantityError(
            f'"{text}" is no tyre-road coefficient',
            f"write a number from {low:g} to {high:g}, such as 0.9, about that of dry asphalt",
        )
    return surface


def looked_at(speed: float) -> float:
    """Return a speed [m/s] that can be looked at; raises QuantityError.

    speed: [m/s].
    """
    if not 0.0 <= speed <= FASTEST:
        raise QuantityError(
            f"{speed * 3.6:.0f} km/h is no speed to look at",
            f"write one from 0 to {FASTEST * 3.6:.0f} km/h",
        )
    return speed
