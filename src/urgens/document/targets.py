"""What the builder wants of the brakes."""

from collections.abc import Iterator
from typing import Annotated

from pydantic import Field

from urgens.document.entry import wish
from urgens.document.model import (
    DocumentModel,
    Force,
    LengthOrZero,
    PartFault,
    PositiveNumber,
    Pressure,
    Share,
)
from urgens.quantity import FORCE, LENGTH, PRESSURE, parse


class Targets(DocumentModel):
    """Wanted effort, deceleration [g], line pressure and road (tyre-road coefficient [-]).

    `pedal_reserve` is what is to stay between pad and floor, `stroke_reserve` the share of each
    chamber's stroke that is to stay unused.
    """

    comfortable_effort: Annotated[
        Force, wish("Comfortable foot", "Foot force of an everyday hard stop")
    ] = parse("75 lbf", FORCE)
    deceleration: Annotated[
        PositiveNumber,
        wish(
            "Wanted deceleration, g", "Deceleration the comfortable foot is to ask for", step=0.01
        ),
    ] = 0.9
    pressure_window: tuple[
        Annotated[Pressure, wish("Pressure at least", "Lowest wanted pressure at that foot")],
        Annotated[Pressure, wish("Pressure at most", "Highest wanted pressure at that foot")],
    ] = (parse("700 psi", PRESSURE), parse("1200 psi", PRESSURE))
    surface: Annotated[
        PositiveNumber,
        wish("Road, coefficient", "Tyre-road coefficient the brakes are set for", step=0.05),
    ] = 0.9
    max_effort: Annotated[Force, wish("Hardest foot", "The most the driver can press")] = parse(
        "500 N", FORCE
    )
    pedal_reserve: Annotated[
        LengthOrZero,
        wish("Pedal kept above the floor", "Travel left to the floor at the wanted deceleration"),
    ] = parse("25 mm", LENGTH)
    stroke_reserve: Annotated[
        Share,
        wish(
            "Share of the stroke kept in reserve",
            "Share of each chamber's stroke that stays unused",
            step=0.01,
        ),
    ] = 0.0
    locked_grip: Annotated[
        float,
        Field(strict=True, allow_inf_nan=False, ge=0.5, le=1.0),
        wish(
            "Grip that a locked wheel keeps",
            "Share of its coefficient that a sliding tyre keeps: 0.75 to 0.85 on dry roads",
            step=0.01,
        ),
    ] = 0.8
    corner: Annotated[
        float,
        Field(strict=True, allow_inf_nan=False, ge=0.0, le=1e3),
        wish("Kept for cornering, g", "Acceleration to the side that grip is kept for", step=0.05),
    ] = 0.0

    def rules(self) -> Iterator[PartFault]:
        """Check that the window has its lower end first."""
        low, high = self.pressure_window
        if low.value >= high.value:
            yield PartFault(
                "pressure_window",
                f'"{low.text}" is not below "{high.text}"',
                "write the lower pressure first",
            )
