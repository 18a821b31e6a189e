"""What the builder wants of the brakes."""

from collections.abc import Iterator

from urgens.document.part import Fault, Force, Part, PositiveNumber, Pressure, Share
from urgens.quantity import FORCE, PRESSURE, parse


class Targets(Part):
    """Wanted effort, deceleration [g], line pressure and road (tyre-road coefficient [-]).

    `stroke_reserve` is the share of each chamber's stroke that is to stay unused.
    """

    comfortable_effort: Force = parse("75 lbf", FORCE)
    deceleration: PositiveNumber = 0.9
    pressure_window: tuple[Pressure, Pressure] = (
        parse("700 psi", PRESSURE),
        parse("1200 psi", PRESSURE),
    )
    surface: PositiveNumber = 0.9
    max_effort: Force = parse("500 N", FORCE)
    stroke_reserve: Share = 0.0

    def rules(self) -> Iterator[Fault]:
        """Check that the window has its lower end first."""
        low, high = self.pressure_window
        if low.value >= high.value:
            yield Fault(
                "pressure_window",
                f'"{low.text}" is not below "{high.text}"',
                "write the lower pressure first",
            )
