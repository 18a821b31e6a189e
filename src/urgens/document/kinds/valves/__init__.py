"""The valves of each circuit, in flow order from the cylinder; one record for each kind."""

from collections.abc import Iterator
from typing import TYPE_CHECKING

from urgens.document.kinds.one_of import one_of, record_of
from urgens.document.kinds.valves.adjustable import ADJUSTABLE
from urgens.document.kinds.valves.inertia_sensing import INERTIA_SENSING, InertiaSensing
from urgens.document.kinds.valves.kind import ValveKind, ValvePart
from urgens.document.kinds.valves.limiting import LIMITING
from urgens.document.kinds.valves.load_sensing import LOAD_SENSING
from urgens.document.kinds.valves.metering import METERING
from urgens.document.kinds.valves.reducing import REDUCING
from urgens.document.kinds.valves.residual import RESIDUAL
from urgens.document.model import DocumentModel, PartFault
from urgens.physics.axle import AXLES, Axle

VALVES: tuple[ValveKind, ...] = (  # in the order in which they are offered
    REDUCING,
    LIMITING,
    ADJUSTABLE,
    LOAD_SENSING,
    INERTIA_SENSING,
    METERING,
    RESIDUAL,
)
LAID = tuple(record.kind for record in VALVES if not record.laid_as)  # parts of a layout
kind_of = record_of(VALVES)  # of a part, or of the kind so called

if TYPE_CHECKING:
    Valve = ValvePart
else:
    Valve = one_of(VALVES)


class Valves(DocumentModel):
    """Both circuits' valves."""

    front: tuple[Valve, ...] = ()
    rear: tuple[Valve, ...] = ()

    def of(self, axle: Axle) -> tuple[Valve, ...]:
        """Return the valves of one axle's circuit, from the cylinder on."""
        return self.front if axle == Axle.FRONT else self.rear

    def placed(self) -> Iterator[tuple[Axle, int, Valve]]:
        """Yield every valve with its circuit and its place in it."""
        for axle in AXLES:
            for index, valve in enumerate(self.of(axle)):
                yield axle, index, valve

    def rules(self) -> Iterator[PartFault]:
        """Check that no two balls are to feel the same deceleration one after the other."""
        balls = [f"{a}[{i}]" for a, i, valve in self.placed() if isinstance(valve, InertiaSensing)]
        for place in balls[1:]:
            yield PartFault(
                place,
                f"is a second inertia-sensing valve beside {balls[0]}",
                "keep one: both would feel the same deceleration",
            )


__all__ = ["LAID", "VALVES", "Valve", "ValveKind", "Valves", "kind_of"]
