"""The cheapest way to bring a tube into a port: another nut, adapters, another tee."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import pairwise

from urgens.document.layout.layout import LineEnd, Seat
from urgens.document.layout.threads import Face, ThreadTable, Tube, thread_table

# What each takes of trouble, in the order of preference: it is bought, and is one more joint.
SAME = 0.0
OTHER_NUT = 1.0
OTHER_FLARE = 1.5
ADAPTER = 4.0
CUT_OFF = 10.0  # more: of another nut on a line that is flared, whose flare is cut off for it
OTHER_TEE = 20.0
DONE = "done"


@dataclass(frozen=True)
class AdapterStep:
    """One part of a chain, and what it costs of trouble [-].

    `into` and `face` of an adapter are what it is screwed into, and what it then takes; of a nut
    `face` alone is its thread and flare; another tee has neither.
    """

    words: str
    cost: float
    into: Face | None = None
    face: Face | None = None


def chain(
    tube: Tube,
    end: LineEnd | None,
    port: Face,
    *,
    tee: bool = False,
    flared: bool = False,
    table: ThreadTable | None = None,
) -> tuple[AdapterStep, ...] | None:
    """Return the parts that bring a tube into a port, None where nothing sold does.

    tube: of the line; end: its nut and flare now, None where it has none; port:
    its thread and seat [-]; tee: whether another tee could stand there [-]; flared: whether the
    line is made already, and keeps its flare where an adapter does [-]; table: of what is sold,
    else the shipped one.
    Nothing is needed where the nut is the right one already. Adapters stand in order from the port.
    Source: shortest path; the order of preference is common practice: nut, adapter, tee.
    """
    return _cheapest(port, _steps(tube, end, port, table or thread_table(), tee=tee, flared=flared))


def adapters(
    face: Face, port: Face, table: ThreadTable | None = None
) -> tuple[AdapterStep, ...] | None:
    """Return the adapters that bring a part into a port, None where nothing sold does.

    face: the thread and seat that the part is screwed in with [-]; port: those of the port [-];
    table: of what is sold, else the shipped one.
    They stand in order from the port. Source: shortest path.
    """
    through = [(face, DONE, AdapterStep("", SAME))]
    return _cheapest(port, [*_adapter_steps(table or thread_table()), *through])


def _cheapest(
    port: Face, steps: Iterable[tuple[Face, Face | str, AdapterStep]]
) -> tuple[AdapterStep, ...] | None:
    import networkx as nx

    graph = nx.DiGraph()
    for start, goal, step in steps:
        now = graph.get_edge_data(start, goal)
        if now is None or step.cost < now["step"].cost:
            graph.add_edge(start, goal, step=step, weight=step.cost)
    if port not in graph or DONE not in graph or not nx.has_path(graph, port, DONE):
        return None
    path = nx.shortest_path(graph, port, DONE, weight="weight")
    found = (graph.edges[one, other]["step"] for one, other in pairwise(path))
    return tuple(step for step in found if step.cost > 0)


def _steps(
    tube: Tube,
    end: LineEnd | None,
    port: Face,
    table: ThreadTable,
    *,
    tee: bool,
    flared: bool,
) -> Iterator[tuple[Face, Face | str, AdapterStep]]:
    """Yield what leads from one face to another, or to a tube that is in."""
    yield from _adapter_steps(table)
    for flare, nuts in tube.flares.items():
        for nut in nuts:
            yield (nut, flare), DONE, _nut(tube, end, nut, flare, flared=flared)
    if tee:
        words = f"tee with a port for the {tube.name} tube"
        yield port, DONE, AdapterStep(words, OTHER_TEE)


def _adapter_steps(table: ThreadTable) -> Iterator[tuple[Face, Face, AdapterStep]]:
    for adapter in table.adapters:
        words = f"adapter {_named(adapter.into)} to {_named(adapter.takes)}"
        yield adapter.into, adapter.takes, AdapterStep(words, ADAPTER, adapter.into, adapter.takes)


def _nut(tube: Tube, end: LineEnd | None, nut: str, flare: Seat, *, flared: bool) -> AdapterStep:
    if end is not None and (end.nut, end.flare) == (nut, flare):
        return AdapterStep("", SAME)
    words = f"nut {nut} on the {tube.name} tube"
    more = CUT_OFF if flared else 0.0
    if end is None or end.flare == flare:
        anew = ", its flare cut off and made anew" if flared else ""
        return AdapterStep(f"{words}{anew}", OTHER_NUT + more, face=(nut, flare))
    return AdapterStep(f"{words}, flared {flare}", OTHER_FLARE + more, face=(nut, flare))


def _named(face: Face) -> str:
    thread, seat = face
    return f"{thread} {seat}"
