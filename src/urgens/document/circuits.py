"""What a layout joins to what: from the cylinder's outlets to the wheels."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from typing import Any, NamedTuple

from urgens.document.build import Build
from urgens.document.kinds.valves import LAID, kind_of
from urgens.document.layout.layout import FittedPart, Plumbing
from urgens.physics.axle import Axle

REDUCING = tuple(kind for kind in LAID if kind_of(kind).model.reduces)
TWO_SIDED = ("switch", "combination")  # a shuttle between a front and a rear side
SINKS = ("gauge", "sensor", "light-switch")
WHEELS = ("front-left", "front-right", "rear-left", "rear-right")
UNJOINED = ("reservoir", "bleed", "breather")  # ports that no brake line goes to, by their names


class Passage(NamedTuple):
    """Ports of one part that are open to each other: its id, and which of its sides."""

    part: str
    side: str = ""


@dataclass(frozen=True)
class Circuits:
    """The layout of a build: its passages, and the lines that join them."""

    build: Build
    plumbing: Plumbing

    @cached_property
    def parts(self) -> dict[str, FittedPart]:
        """Parts by id."""
        return {part.id: part for part in self.plumbing.parts}

    @cached_property
    def neighbours(self) -> dict[Passage, list[tuple[Passage, str]]]:
        """What each passage is joined to, and by which line."""
        found: dict[Passage, list[tuple[Passage, str]]] = {
            passage(part, port): [] for part in self.plumbing.parts for port in part.ports
        }
        for line in self.plumbing.lines:
            one, other = (self._at(name) for name in (line.start, str(line.to)))
            found[one].append((other, line.id))
            found[other].append((one, line.id))
        return found

    def _rings(self) -> bool:
        """Return whether any line is one too many: most layouts have none, and are a forest."""
        joined = {place: place for place in self.neighbours}

        def root(place: Passage) -> Passage:
            while joined[place] != place:
                place = joined[place]
            return place

        for line in self.plumbing.lines:
            one, other = (root(self._at(name)) for name in (line.start, str(line.to)))
            if one == other:
                return True
            joined[one] = other
        return False

    def _graph(self) -> Any:
        """Return passages as nodes, and lines as edges called by their ids."""
        import networkx as nx

        graph = nx.MultiGraph()
        graph.add_nodes_from(self.neighbours)
        for line in self.plumbing.lines:
            graph.add_edge(self._at(line.start), self._at(str(line.to)), key=line.id)
        return graph

    def _at(self, name: str) -> Passage:
        part, _, port = name.partition(".")
        return passage(self.parts[part], port)

    @cached_property
    def joined(self) -> Counter[str]:
        """How many lines end in each port."""
        return Counter(name for line in self.plumbing.lines for name in (line.start, line.to))

    @property
    def open_ports(self) -> tuple[str, ...]:
        """Ports that nothing is screwed into, but for those that no brake line goes to."""
        names = (f"{part.id}.{port}" for part in self.plumbing.parts for port in part.ports)
        return tuple(n for n in names if not self.joined[n] and not _unjoined(n))

    @cached_property
    def outlets(self) -> dict[Passage, str]:
        """The cylinder's outlets, and the circuit of each: front, rear, or one for all."""
        found = {}
        for part in self.plumbing.parts:
            for port in part.ports if part.kind == "master" else ():
                if not _unjoined(port):
                    found[passage(part, port)] = self._circuit(port)
        return found

    def _circuit(self, port: str) -> str:
        """Return the circuit that an outlet so called feeds."""
        if self.build.split == "single":
            return "all"
        for axle in Axle:
            if port.startswith(axle):
                return str(axle)
        primary = str(getattr(self.build.master, "primary_feeds", Axle.FRONT))
        other = str(Axle.REAR if primary == Axle.FRONT else Axle.FRONT)
        return primary if port.startswith("primary") else other

    @cached_property
    def wheels(self) -> dict[str, FittedPart]:
        """Wheel brakes by their wheel."""
        return {p.wheel: p for p in self.plumbing.parts if p.wheel is not None}

    def reached(
        self, start: Passage, without: Iterable[Passage] = (), cut: str = ""
    ) -> set[Passage]:
        """Return what a passage is open to; without: passages that are shut.

        start: where to begin; cut: the id of a line that is taken away [text]. A wheel
        brake is an end: nothing goes on behind it.
        """
        shut, found, waiting = set(without), {start}, [start]
        while waiting:
            here = waiting.pop()
            if here != start and self.parts[here.part].kind == "wheel-brake":
                continue
            for there, line in self.neighbours[here]:
                if there not in found and there not in shut and line != cut:
                    found.add(there)
                    waiting.append(there)
        return found

    @cached_property
    def _fed_from(self) -> dict[Passage, set[Passage]]:
        """What each outlet is open to."""
        return {outlet: self.reached(outlet) for outlet in self.outlets}

    def fed_by(self, wheel: FittedPart) -> set[str]:
        """Return the circuits that a wheel brake is fed by; wheel: the part."""
        return {
            circuit
            for outlet, circuit in self.outlets.items()
            if any(there.part == wheel.id for there in self._fed_from[outlet])
        }

    @cached_property
    def fed(self) -> dict[str, frozenset[str]]:
        """The circuits that feed each line, by its id."""
        found: dict[str, set[str]] = {line.id: set() for line in self.plumbing.lines}
        for outlet, circuit in self.outlets.items():
            there = self._fed_from[outlet]
            for line in self.plumbing.lines:
                ends = {self._at(line.start), self._at(str(line.to))}
                ways = [end for end in ends & there if not self._ends_in(end)]
                if ways or outlet in ends:
                    found[line.id].add(circuit)
        return {name: frozenset(circuits) for name, circuits in found.items()}

    def fed_circuits(self, part: FittedPart) -> frozenset[str]:
        """Return the circuits of the lines that end in a part; part: of the layout."""
        found: set[str] = set()
        for line in self.plumbing.lines:
            if part.id in {name.partition(".")[0] for name in (line.start, str(line.to))}:
                found |= self.fed[line.id]
        return frozenset(found)

    def _ends_in(self, place: Passage) -> bool:
        return self.parts[place.part].kind in ("wheel-brake", "master")

    def behind(self, valve: FittedPart) -> set[str]:
        """Return the wheels that only a valve feeds; valve: the part.

        Those that no outlet reaches any more once the valve is shut.
        """
        own = {passage(valve, port) for port in valve.ports}
        cut = set[str]()
        for outlet in self.outlets:
            left = self.reached(outlet, own)
            cut |= {there.part for there in self._fed_from[outlet] - left}
        return {wheel for wheel, part in self.wheels.items() if part.id in cut}

    def wheels_behind(self, line: str) -> frozenset[str]:
        """Return the wheels that only a line feeds; line: its id [text].

        Those that no outlet reaches any more once the line is taken away.
        """
        if line not in self._behind_lines:
            far: set[str] = set()
            for outlet, there in self._fed_from.items():
                far |= {place.part for place in there - self.reached(outlet, cut=line)}
            wheels = (wheel for wheel, part in self.wheels.items() if part.id in far)
            self._behind_lines[line] = frozenset(wheels)
        return self._behind_lines[line]

    @cached_property
    def _behind_lines(self) -> dict[str, frozenset[str]]:
        return {}

    def hoses_to(self, wheel: FittedPart) -> bool | None:
        """Tell whether a hose is in the way to a wheel brake, None where it is not fed.

        wheel: the part.
        """
        if not self.fed_by(wheel):
            return None
        hoses = [p for p in self.plumbing.parts if p.kind == "hose"]
        shut = {passage(hose, port) for hose in hoses for port in hose.ports}
        left = (self.reached(outlet, shut) for outlet in self.outlets)
        return not any(there.part == wheel.id for found in left for there in found)

    @property
    def loops(self) -> tuple[tuple[str, ...], ...]:
        """Lines that close a ring, ring by ring, in order of their ids."""
        if not self._rings():
            return ()
        import networkx as nx

        found, graph = [], self._graph()
        for nodes in nx.connected_components(graph):
            ring = graph.subgraph(nodes)
            if ring.number_of_edges() >= ring.number_of_nodes():
                found.append(tuple(sorted(key for *_, key in nx.find_cycle(ring))))
        return tuple(found)


_last: tuple[Build, Circuits] | None = None


def circuits_of(build: Build) -> Circuits | None:
    """Return the circuits of a build's layout, None where it has none.

    Those of the build that was asked last are kept: every check asks for them.
    """
    global _last
    if build.plumbing is None:
        return None
    last = _last
    if last is None or last[0] is not build:
        last = _last = build, Circuits(build, build.plumbing)
    return last[1]


def warned(build: Build) -> bool:
    """Return whether a pressure-differential switch is in the lines, told or laid out.

    A layout drawn before anybody told its kind has one all the same.
    """
    parts = () if build.plumbing is None else build.plumbing.parts
    told = build.warning_switch in ("warns", "shuts")
    return told or any(part.kind in TWO_SIDED for part in parts)


def passage(part: FittedPart, port: str) -> Passage:
    """Return the passage that a port belongs to.

    part: of a layout; port: its name [text].
    A cylinder's outlets are apart, a shuttle keeps its sides apart, a valve for two circuits its
    pairs; in all other parts every port is open to every other.
    """
    if part.kind in ("master", "reservoir"):
        return Passage(part.id, port)
    if part.kind in TWO_SIDED:
        return Passage(part.id, "rear" if port.startswith("rear") else "front")
    if part.kind in LAID and sum(one.startswith("in") for one in part.ports) > 1:
        return Passage(part.id, port.removeprefix("in").removeprefix("out"))
    return Passage(part.id)


def _unjoined(name: str) -> bool:
    return name.rpartition(".")[2].startswith(UNJOINED)
