"""The cheapest way to bring a tube into a port: another nut, adapters, another tee."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from urgens.document.plumbing import LineEnd, Seat
from urgens.document.threads import Face, ThreadTable, Tube, thread_table

# What each takes of trouble, in the order of preference: it is bought, and is one more joint.
SAME, OTHER_NUT, OTHER_FLARE, ADAPTER, OTHER_TEE = 0.0, 1.0, 1.5, 4.0, 20.0
DONE = "done"


@dataclass(frozen=True)
class Step:
    """One part of a chain, and what it costs of trouble [-]."""

    words: str
    cost: float


def chain(
    tube: Tube,
    end: LineEnd | None,
    port: Face,
    *,
    tee: bool = False,
    table: ThreadTable | None = None,
) -> tuple[Step, ...] | None:
    """Return the parts that bring a tube into a port, None where nothing sold does.

    tube: of the line [object]; end: its nut and flare now, None where it has none [object]; port:
    its thread and seat [-]; tee: whether another tee could stand there [-]; table: of what is
    sold, else the shipped one [object].
    Nothing is needed where the nut is the right one already. Adapters stand in order from the port.
    Source: shortest path; the order of preference is common practice: nut, adapter, tee.
    """
    import networkx as nx

    graph = nx.DiGraph()
    for start, goal, step in _steps(tube, end, port, table or thread_table(), tee=tee):
        now = graph.get_edge_data(start, goal)
        if now is None or step.cost < now["step"].cost:
            graph.add_edge(start, goal, step=step, weight=step.cost)
    if port not in graph or DONE not in graph or not nx.has_path(graph, port, DONE):
        return None
    path = nx.shortest_path(graph, port, DONE, weight="weight")
    found = (graph.edges[one, other]["step"] for one, other in pairwise(path))
    return tuple(step for step in found if step.cost > 0)


def _steps(
    tube: Tube, end: LineEnd | None, port: Face, table: ThreadTable, *, tee: bool
) -> Iterator[tuple[Face, Face | str, Step]]:
    """Yield what leads from one face to another, or to a tube that is in."""
    for adapter in table.adapters:
        words = f"adapter {_named(adapter.into)} to {_named(adapter.takes)}"
        yield adapter.into, adapter.takes, Step(words, ADAPTER)
    for flare, nuts in tube.flares.items():
        for nut in nuts:
            yield (nut, flare), DONE, _nut(tube, end, nut, flare)
    if tee:
        words = f"tee with a port for the {tube.name} tube"
        yield port, DONE, Step(words, OTHER_TEE)


def _nut(tube: Tube, end: LineEnd | None, nut: str, flare: Seat) -> Step:
    if end is not None and (end.nut, end.flare) == (nut, flare):
        return Step("", SAME)
    words = f"nut {nut} on the {tube.name} tube"
    if end is None or end.flare == flare:
        return Step(words, OTHER_NUT)
    return Step(f"{words}, flared {flare}", OTHER_FLARE)


def _named(face: Face) -> str:
    thread, seat = face
    return f"{thread} {seat}"
