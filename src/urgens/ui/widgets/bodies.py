"""Side views of vehicles, from their table: each stands for a kind of car, not for a car."""

from dataclasses import dataclass
from typing import Any, Literal

from urgens.data import body_table

Kind = Literal[
    "roadster", "saloon", "coupe", "pickup", "dragster", "van", "tractor", "tender", "generic"
]
Corner = tuple[float, float, float]  # x, y, how far it is rounded
Point = tuple[float, float]


@dataclass(frozen=True)
class VehicleOutline:
    """An outline from the front's foot over the roof, its windows, and lines on its flank.

    `extent` is left, right and top of what is drawn. All are shares of the wheelbase: x from the
    front axle backwards, y up from the road.
    """

    outline: tuple[Corner, ...]
    glass: tuple[tuple[Point, ...], ...]
    lines: tuple[tuple[Point, ...], ...]
    extent: tuple[float, float, float]
    lamp: Point | None = None
    open_wheels: bool = False


def _frozen(value: Any) -> Any:
    return tuple(map(_frozen, value)) if isinstance(value, list) else value


BODIES: dict[Kind, VehicleOutline] = {
    kind: VehicleOutline(**{name: _frozen(value) for name, value in row.items()})
    for kind, row in body_table().items()
}
