"""Every place where a tube, or a part, is screwed into a port, and whether the two go together."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from urgens.document.circuits import SINKS
from urgens.document.layout.layout import BrakeLine, LineEnd, Plumbing, Port
from urgens.document.layout.line_sheets import tube_of
from urgens.document.layout.threads import starts_and_strips, thread_table
from urgens.plumbing.adapters import AdapterStep, adapters, chain

Problem = Literal["thread", "strips", "seat", "taper", "nut"]


@dataclass(frozen=True)
class BadJoin:
    """Two things that do not go together: what is wrong, and the parts that mend it.

    `given` and `wanted` are thread and seat in words. `mend` is None where nothing sold does;
    `instead` is the other way, where there is one: adapters for a nut, a nut for adapters.
    """

    line: BrakeLine
    index: int
    end: int
    port: str
    problem: Problem
    given: str
    wanted: str
    mend: tuple[AdapterStep, ...] | None = None
    instead: tuple[AdapterStep, ...] | None = None


def bad_joins(plumbing: Plumbing) -> Iterator[BadJoin]:
    """Yield every join that leaks, strips, or cannot be made.

    What is not known of a port or of an end is not judged.

    Thread and seat have to match; `document.layout.threads`.
    """
    parts = {part.id: part for part in plumbing.parts}
    for index, line in enumerate(plumbing.lines):
        names = (line.start, line.to)
        ports = [parts[part].ports[port] for part, _, port in (n.partition(".") for n in names)]
        if line.direct:
            kinds = [parts[name.partition(".")[0]].kind for name in names]
            yield from _screwed(line, index, names, ports, kinds)
            continue
        for end, (flared, name, port) in enumerate(zip(line.ends, names, ports, strict=False)):
            tee = parts[name.partition(".")[0]].kind == "tee"
            yield from _of_end(line, index, end, flared, name, port, tee=tee)


def _of_end(
    line: BrakeLine, index: int, end: int, flared: LineEnd, name: str, port: Port, *, tee: bool
) -> Iterator[BadJoin]:
    tube = tube_of(line)
    given = f"{flared.nut} {flared.flare}"
    if tube is not None and not tube.takes(flared.nut, flared.flare):
        yield BadJoin(line, index, end, name, "nut", given, f"the {tube.name} tube")
    problem = _problem(flared.nut, flared.flare, port)
    if problem is None:
        return
    wanted = f"{port.thread or 'a thread not known'} {port.seat or ''}".strip()
    mend = instead = None
    if tube is not None and port.thread is not None and port.seat is not None:
        face, made = (port.thread, port.seat), line.made is True
        mend = chain(tube, flared, face, tee=tee, flared=made)
        other = chain(tube, flared, face, tee=tee, flared=not made)
        instead = None if other is None or _same(other, mend) else other
    yield BadJoin(line, index, end, name, problem, given, wanted, mend, instead)


def _same(steps: tuple[AdapterStep, ...], others: tuple[AdapterStep, ...] | None) -> bool:
    """Tell whether two chains take the same parts."""
    faces = [[(step.into, step.face) for step in one] for one in (steps, others or ())]
    return faces[0] == faces[1]


def _screwed(
    line: BrakeLine,
    index: int,
    names: tuple[str, str],
    ports: list[Port],
    kinds: list[str],
) -> Iterator[BadJoin]:
    """Yield what is wrong between two parts that are screwed into each other.

    What is screwed in comes first: a gauge, a plug, the outer end of an adapter. Which way the line
    is written says nothing of it.
    """
    inner = int(_goes_in(kinds[1], names[1]) and not _goes_in(kinds[0], names[0]))
    one, other = ports[inner], ports[1 - inner]
    if one.thread is None or one.seat is None:
        return
    problem = _problem(one.thread, one.seat, other)
    if problem is not None:
        wanted = f"{other.thread or ''} {other.seat or ''}".strip()
        mend = None
        if other.thread is not None and other.seat is not None:
            mend = adapters((one.thread, one.seat), (other.thread, other.seat))
        yield BadJoin(
            line, index, 1 - inner, names[1 - inner], problem, f"{one.thread} {one.seat}", wanted,
            mend,
        )  # fmt: skip


def _goes_in(kind: str, name: str) -> bool:
    """Tell whether a port is an outer thread, that goes into another; name: part and port."""
    port = name.partition(".")[2]
    return kind in (*SINKS, "plug") or (kind, port) in (("adapter", "out"), ("banjo", "bolt"))


def _problem(thread: str, seat: str, port: Port) -> Problem | None:
    """Return what keeps a thread and a seat from a port, None where both match."""
    if port.seat is not None and (seat == "taper") != (port.seat == "taper"):
        return "taper"
    if port.thread is not None and port.thread != thread:
        table = thread_table()
        mine, its = table.thread(thread), table.thread(port.thread)
        strips = mine is not None and its is not None and starts_and_strips(mine, its)
        return "strips" if strips else "thread"
    return "seat" if port.seat is not None and port.seat != seat else None
