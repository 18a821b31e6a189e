"""A series of stops, for an estimate of the heat."""

from typing import Annotated

from pydantic import Field

from urgens.document.entry import Entry, wish
from urgens.document.model import Distance, DocumentModel, Speed, Temperature
from urgens.physics.axle import Axle
from urgens.quantity import DISTANCE, SPEED, TEMPERATURE, Quantity, parse

Stops = Annotated[
    int, Field(strict=True, ge=1, le=200), wish("How many", "Stops in the series", step=1.0)
]
AT_END = ("contact thermometer, straight after", "Rotor or drum at the end of the series")
FrontMeasured = Annotated[Temperature, Entry("Front measured, at the end", *AT_END)]
RearMeasured = Annotated[Temperature, Entry("Rear measured, at the end", *AT_END)]


class Heat(DocumentModel):
    """So many stops from a speed, so far apart at that speed.

    A temperature measured on a rotor or drum at the end of such a series settles how it cools.
    """

    speed: Annotated[Speed, wish("Stops from", "Speed from which each stop is made")] = parse(
        "60 mph", SPEED
    )
    stops: Stops = 10
    between: Annotated[Distance, wish("One every", "Way at that speed between two stops")] = parse(
        "800 m", DISTANCE
    )
    air: Annotated[Temperature, Entry("Air", "thermometer", "Air around the brakes")] = parse(
        "20 °C", TEMPERATURE
    )
    front_measured: FrontMeasured | None = None
    rear_measured: RearMeasured | None = None

    def measured(self, axle: Axle) -> Quantity | None:
        """Return the temperature measured at one axle."""
        return self.front_measured if axle == Axle.FRONT else self.rear_measured
