"""A series of stops, for an estimate of the heat."""

from typing import Annotated

from pydantic import Field

from urgens.document.part import Distance, Part, Speed, Temperature
from urgens.quantity import DISTANCE, SPEED, TEMPERATURE, parse

Stops = Annotated[int, Field(strict=True, ge=1, le=200)]


class Heat(Part):
    """So many stops from a speed, so far apart at that speed.

    A temperature measured on a rotor or drum at the end of such a series settles how it cools.
    """

    speed: Speed = parse("60 mph", SPEED)
    stops: Stops = 10
    between: Distance = parse("800 m", DISTANCE)
    air: Temperature = parse("20 °C", TEMPERATURE)
    front_measured: Temperature | None = None
    rear_measured: Temperature | None = None
