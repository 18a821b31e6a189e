"""On which side of its part each port is drawn, and in which order: towards what it joins."""

from collections.abc import Iterator, Mapping

from urgens.document.circuits import Circuits
from urgens.document.layout.layout import FittedPart
from urgens.plumbing.plan_shapes import PlanPart, PlanPort, Side, Spot

PASSES = 3  # the order of ports settles as that of the others does
Aim = tuple[float, float]


def with_ports(
    circuits: Circuits, corners: Mapping[str, Spot], sizes: Mapping[str, Spot], down: int
) -> dict[str, PlanPart]:
    """Return the parts with their ports on their edges.

    circuits: of the layout; corners: upper left of each part [steps]; sizes: of each
    [steps]; down: height of the plan [steps].

    Each port looks to where the other end of its line is, first to the part, then to the port.
    """
    made = {name: PlanPart(name, at, sizes[name], {}) for name, at in corners.items()}
    ends = _other_ends(circuits)
    for _ in range(PASSES):
        for part in circuits.plumbing.parts:
            aims = {port: _aim(made, ends.get(f"{part.id}.{port}")) for port in part.ports}
            made[part.id] = _faced(part, made[part.id], aims, down)
    return made


def _other_ends(circuits: Circuits) -> dict[str, str]:
    """Return the port at the other end of the line that is in a port."""
    found: dict[str, str] = {}
    for line in circuits.plumbing.lines:
        for here, there in ((line.start, str(line.to)), (str(line.to), line.start)):
            found.setdefault(here, there)
    return found


def _aim(parts: Mapping[str, PlanPart], end: str | None) -> Aim | None:
    if end is None:
        return None
    name, _, port = end.partition(".")
    part = parts[name]
    return part.ports[port].outside if port in part.ports else part.middle


def _faced(part: FittedPart, made: PlanPart, aims: Mapping[str, Aim | None], down: int) -> PlanPart:
    """Return a part with each port on the side that faces its aim, in the order of the aims."""
    sides: dict[Side, list[str]] = {side: [] for side in Side}
    for port, ways in _ways(part, made, aims, down):
        roomy = (side for side in ways if len(sides[side]) < _room(made, side))
        sides[next(roomy, ways[0])].append(port)
    ports = {}
    for side, names in sides.items():
        along = 0 if side.upright else 1
        ordered = sorted(names, key=lambda name: (aims[name] or made.middle)[along])
        near = [(aims[name] or made.middle)[along] - made.at[along] for name in ordered]
        if part.kind == "wheel-brake":
            near = [_length(made, side) / 2 for _ in near]
        for name, offset in zip(ordered, _offsets(_length(made, side), near), strict=True):
            ports[name] = PlanPort(name, _on_edge(made, side, offset), side)
    return PlanPart(made.id, made.at, made.size, ports)


def _ways(
    part: FittedPart, made: PlanPart, aims: Mapping[str, Aim | None], down: int
) -> Iterator[tuple[str, tuple[Side, ...]]]:
    """Yield each port with the sides it may be on, the best first."""
    if part.kind == "wheel-brake":
        inward = Side.FOOT if made.middle[1] < down / 2 else Side.TOP
        yield from ((port, (inward,)) for port in aims)
        return
    if part.kind == "hose" and len(aims) == len(_ENDS):
        first, last = (aim or made.middle for aim in aims.values())
        along = last[0] - first[0], last[1] - first[1]
        ends = _facing(along)[0]
        yield from zip(aims, ((_OPPOSITE[ends],), (ends,)), strict=True)
        return
    barred = (Side.RIGHT,) if part.kind == "master" else ()  # where the pushrod is
    for port, aim in aims.items():
        at = aim or (made.middle[0] - 1.0, made.middle[1])
        sides = _facing((at[0] - made.middle[0], at[1] - made.middle[1]))
        yield port, tuple(side for side in sides if side not in barred)


_ENDS = ("a", "b")
_OPPOSITE = {Side.LEFT: Side.RIGHT, Side.RIGHT: Side.LEFT, Side.TOP: Side.FOOT, Side.FOOT: Side.TOP}


def _facing(way: tuple[float, float]) -> tuple[Side, ...]:
    """Return the sides in the order in which they face a way."""
    across = Side.RIGHT if way[0] >= 0 else Side.LEFT
    down = Side.FOOT if way[1] >= 0 else Side.TOP
    first, second = (across, down) if abs(way[0]) >= abs(way[1]) else (down, across)
    return first, second, _OPPOSITE[second], _OPPOSITE[first]


def _length(part: PlanPart, side: Side) -> int:
    return part.size[0] if side.upright else part.size[1]


def _room(part: PlanPart, side: Side) -> int:
    return max(_length(part, side) - 1, 1)


def _offsets(length: int, near: list[float]) -> list[int]:
    """Return where ports are along a side: as near as may be to where each is wanted, in order.

    Two steps apart where there is room for that; none of two at one spot while there is room.
    """
    gap = 2 if length > 2 * len(near) else 1
    found: list[int] = []
    for index, wished in enumerate(near):
        last = length - 1 - gap * (len(near) - 1 - index)
        first = found[-1] + gap if found else 1
        found.append(max(min(round(wished), last), first))
    return [min(offset, length) for offset in found]


def _on_edge(part: PlanPart, side: Side, offset: int) -> Spot:
    (x, y), (wide, high) = part.at, part.size
    if side.upright:
        return x + offset, y if side is Side.TOP else y + high
    return x if side is Side.LEFT else x + wide, y + offset
