"""Jobs in the order in which every circuit is opened and bled as few times as can be."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

from urgens.guidance.planning.job import Job

MOST_STATES = 500  # that are followed at once: beyond it the cheapest so far are
Bleed = Callable[[tuple[str, ...]], Job]


@dataclass(frozen=True)
class Ordered:
    """Jobs in their order, bleeding among them; `bleeds` counts circuits each time one is bled.

    `one_by_one` is how many it would be with a bleed after each job that opens a circuit;
    `longest` minutes are what no number of hands can shorten.
    """

    jobs: tuple[Job, ...]
    bleeds: int
    one_by_one: int
    longest: int


class _State(NamedTuple):
    """Some of the jobs done: what that has cost so far, what counts most first, and what is open.

    Fewest bleeds come first, then the shortest time open, then the fewest ways between places.
    """

    bleeds: int
    open_minutes: int
    moves: int
    order: tuple[int, ...]
    done: int  # jobs, a bit each
    open: frozenset[str]


def ordered(jobs: Sequence[Job], bleed: Bleed, begun: Iterable[str] = ()) -> Ordered:
    """Return jobs in order, with the bleeding that they need.

    jobs: each after those it names; bleed: makes the job that bleeds circuits
    [function]; begun: circuits that are open already [text].
    Raises ValueError where jobs wait for each other in a ring.
    Source: every order is followed, equal ones once (dynamic programming); it is exact for as many
    as `MOST_STATES` states at a time.
    """
    names = [job.name for job in jobs]
    needs = _alike_in_order(
        jobs, [sum(1 << names.index(n) for n in {*job.after} if n in names) for job in jobs]
    )
    states: list[_State] = [_State(0, 0, 0, (), 0, frozenset(begun))]
    for _ in jobs:
        states = _followed(jobs, needs, states)
        if not states:
            raise ValueError("jobs wait for each other")
    best = min(states, key=lambda one: (one.bleeds + len(one.open), *one[1:4]))
    made = _direct(_with_bleeds([jobs[at] for at in best.order], bleed, frozenset(begun)))
    alone = sum(len(job.opens) for job in jobs) + len(set(begun))
    count = sum(len(job.bleeds) for job in made)
    return Ordered(tuple(made), count, alone, _longest(made))


def _alike_in_order(jobs: Sequence[Job], needs: Sequence[int]) -> list[int]:
    """Return what each job waits for, jobs that are alike one after another.

    They are alike where nothing but their names differs: any order of them costs the same, and
    only one has to be followed.
    """
    found = list(needs)
    last: dict[tuple[object, ...], int] = {}
    for at, job in enumerate(jobs):
        wanted_by = tuple(other for other, mask in enumerate(needs) if mask >> at & 1)
        key = (job.place, job.minutes, job.opens, job.shut, needs[at], wanted_by)
        if key in last:
            found[at] |= 1 << last[key]
        last[key] = at
    return found


def _followed(jobs: Sequence[Job], needs: Sequence[int], states: Sequence[_State]) -> list[_State]:
    """Return every state one job on, the cheapest of those that are equal."""
    found: dict[tuple[int, frozenset[str], str], _State] = {}
    for state in states:
        for at, job in enumerate(jobs):
            if state.done >> at & 1 or needs[at] & ~state.done:
                continue
            new = _after(state, at, jobs)
            key = (new.done, new.open, job.place)
            if key not in found or new < found[key]:
                found[key] = new
    return sorted(found.values())[:MOST_STATES]


def _after(state: _State, at: int, jobs: Sequence[Job]) -> _State:
    job = jobs[at]
    bled = state.open.intersection(job.shut)
    now = state.open.difference(bled).union(job.opens)
    before = jobs[state.order[-1]].place if state.order else job.place
    return _State(
        state.bleeds + len(bled),
        state.open_minutes + job.minutes * len(now),
        state.moves + (before != job.place),
        (*state.order, at),
        state.done | 1 << at,
        now,
    )


def _with_bleeds(jobs: Sequence[Job], bleed: Bleed, begun: frozenset[str]) -> list[Job]:
    """Return jobs with bleeding before what needs it, and at the end of what is still open."""
    made: list[Job] = []
    is_open, opened_by = set(begun), {name: [] for name in begun}  # type: ignore[var-annotated]
    for job in jobs:
        due = tuple(sorted(is_open & set(job.shut)))
        if due:
            made.append(_numbered(bleed(due), made, opened_by, due))
            is_open -= set(due)
            job = replace(job, after=(*job.after, made[-1].name))
        made.append(job)
        for circuit in job.opens:
            is_open.add(circuit)
            opened_by.setdefault(circuit, []).append(job.name)
    if is_open:
        due = tuple(sorted(is_open))
        made.append(_numbered(bleed(due), made, opened_by, due))
    return made


def _numbered(
    job: Job, before: Sequence[Job], opened_by: dict[str, list[str]], due: tuple[str, ...]
) -> Job:
    """Return a bleed after the jobs that opened its circuits, told from another one by number."""
    after = tuple(dict.fromkeys(name for circuit in due for name in opened_by.pop(circuit, [])))
    same = sum(one.name.startswith(job.name) for one in before)
    name = f"{job.name}, time {same + 1}" if same else job.name
    return replace(job, name=name, after=(*job.after, *after))


def _graph(jobs: Sequence[Job]) -> Any:
    """Return jobs as nodes by name, with an edge from each to those that come after it."""
    import networkx as nx

    minutes = {job.name: job.minutes for job in jobs}
    graph = nx.DiGraph()
    graph.add_nodes_from(minutes)
    for job in jobs:
        edges = ((name, job.name) for name in job.after if name in minutes)
        graph.add_edges_from(edges, minutes=job.minutes)
    return graph


def _direct(jobs: Sequence[Job]) -> list[Job]:
    """Return jobs that name only what comes straight before them."""
    import networkx as nx

    graph = nx.transitive_reduction(_graph(jobs))
    return [replace(job, after=tuple(n for n in job.after if (n, job.name) in graph.edges))
            for job in jobs]  # fmt: skip


def _longest(jobs: Sequence[Job]) -> int:
    """Return the minutes of the longest chain of jobs, waits left out."""
    import networkx as nx

    graph = _graph(jobs)
    for job in jobs:
        graph.add_edge("", job.name, minutes=job.minutes)
    return int(nx.dag_longest_path_length(graph, weight="minutes"))
