"""What a schematic shows, worked out from the build: immutable, and without anything of Qt."""

from dataclasses import dataclass

Spot = tuple[float, float]  # px of the usual scale


@dataclass(frozen=True)
class SchematicPort:
    """A port of a part; `at` is from the part's middle."""

    name: str
    at: Spot


@dataclass(frozen=True)
class SchematicPart:
    """A part: `where` it stands in the build, its name, its middle, its size, its ports.

    One that is `movable` is dragged, and stepped with the arrow keys.
    """

    where: str
    name: str
    at: Spot
    size: Spot
    ports: tuple[SchematicPort, ...] = ()
    movable: bool = False

    def port(self, name: str) -> Spot:
        """Return where a port is; raises KeyError."""
        x, y = {port.name: port.at for port in self.ports}[name]
        return self.at[0] + x, self.at[1] + y


@dataclass(frozen=True)
class SchematicLine:
    """A line from a port of one part, by its `where`, to a port of another.

    `corners` are its way where that is known, its ends among them; at `hops`, in the order in which
    it comes to them, it goes over another line.
    """

    where: str
    name: str
    start: tuple[str, str]
    end: tuple[str, str]
    color: str = ""
    corners: tuple[Spot, ...] = ()
    hops: tuple[Spot, ...] = ()


@dataclass(frozen=True)
class Schematic:
    """All parts and lines, in the order in which keys go through them."""

    parts: tuple[SchematicPart, ...] = ()
    lines: tuple[SchematicLine, ...] = ()

    def part(self, where: str) -> SchematicPart:
        """Return the part that stands there in the build; raises KeyError."""
        return {part.where: part for part in self.parts}[where]

    def places(self) -> tuple[str, ...]:
        """Return where everything stands in the build, in the order of the keys."""
        parts = tuple(part.where for part in self.parts)
        return parts + tuple(line.where for line in self.lines)

    def route(self, line: SchematicLine) -> tuple[Spot, ...]:
        """Return the corners of a line, level and upright from port to port; raises KeyError."""
        if line.corners:
            return line.corners
        (x1, y1), (x2, y2) = (self.part(part).port(port) for part, port in (line.start, line.end))
        if x1 == x2 or y1 == y2:
            return (x1, y1), (x2, y2)
        middle = (x1 + x2) / 2
        return (x1, y1), (middle, y1), (middle, y2), (x2, y2)
