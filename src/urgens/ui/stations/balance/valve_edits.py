"""Edits of the valves in the circuits: each one step, and what is known of the others stays."""

import re
from collections.abc import Mapping, Sequence
from typing import Any

from urgens.document.facts import only_assumed
from urgens.document.valves import LoadSensing, Metering
from urgens.guidance.new_valves import NEW_NAMES, by_lever, by_points, is_by_lever, new_valve
from urgens.guidance.valve_words import NAMES
from urgens.ui.session import Session
from urgens.ui.stations.balance.circuit_view import Place

Kept = tuple[int | None, dict[str, Any]]  # the place it had, None where it is new; the valve
_VALVE = re.compile(r"valves\.(front|rear)\[(\d+)\](.*)")


def parts(session: Session, circuit: str) -> list[Kept]:
    """Return a circuit's valves as typed, each with its place."""
    valves = getattr(session.build.valves, circuit)
    dumped = [valve.model_dump(mode="json", exclude_unset=True) for valve in valves]
    return list(enumerate(dumped))


def put(session: Session, lists: Mapping[str, Sequence[Kept]], label: str) -> None:
    """Put other lists of valves into circuits; what is known of a valve follows it."""
    changes: dict[str, object] = {
        f"valves.{circuit}": [part for _, part in kept] for circuit, kept in lists.items()
    }
    session.try_all({**changes, "evidence": _known(session, lists)}, label)


def _known(session: Session, lists: Mapping[str, Sequence[Kept]]) -> dict[str, object]:
    """Return what is known, with the paths the valves have then; new figures are assumed."""
    known: dict[str, object] = {}
    now = {(c, old): new for c, kept in lists.items() for new, (old, _) in enumerate(kept)}
    for path, known_now in session.base.evidence.items():
        fact = known_now.model_dump(mode="json", exclude_unset=True)
        valve = _VALVE.fullmatch(path)
        if valve is None or valve[1] not in lists:
            known[path] = fact
        elif (place := now.get((valve[1], int(valve[2])))) is not None:
            known[f"valves.{valve[1]}[{place}]{valve[3]}"] = fact
    for circuit, kept in lists.items():
        for new, (old, part) in enumerate(kept):
            if old is None:
                known |= only_assumed(f"valves.{circuit}[{new}]", part)
    return known


def add(session: Session, circuit: str, kind: str) -> None:
    """Put a new valve at the end of a circuit, its figures assumed."""
    found = new_valve(session.build, circuit, kind)
    lists = {
        place: [*parts(session, place), *((None, part) for part in new)]
        for place, new in found.items()
    }
    into = "" if len(found) > 1 else f" in the {circuit}"
    put(session, lists, f"{NEW_NAMES[kind].partition(',')[0]}{into}")


def take_out(session: Session, place: Place) -> None:
    """Take one valve out of its circuit."""
    circuit, index = place
    kept = parts(session, circuit)
    _, gone = kept.pop(index)
    put(session, {circuit: kept}, f"{NAMES[gone['kind']]} taken out")


def move_forward(session: Session, place: Place) -> None:
    """Let a valve and the one before it change places."""
    circuit, index = place
    kept = parts(session, circuit)
    kept.insert(index - 1, kept.pop(index))
    put(session, {circuit: kept}, "Valve moved forward")


def metering_of(session: Session, place: Place) -> Place | None:
    """Return where the metering part of a valve's body is, None where it has none."""
    valves = session.build.valves
    body = getattr(valves, place[0])[place[1]].body
    if not body:
        return None
    for circuit in ("front", "rear"):
        for index, valve in enumerate(getattr(valves, circuit)):
            if isinstance(valve, Metering) and valve.body == body:
                return circuit, index
    return None


def redescribe(session: Session, place: Place) -> None:
    """Describe a load-sensing valve the other way: by its lever, or by two points."""
    circuit, index = place
    kept = parts(session, circuit)
    valve = getattr(session.build.valves, circuit)[index]
    assert isinstance(valve, LoadSensing)
    lever = is_by_lever(valve)
    kept[index] = (None, by_points(valve, session.build) if lever else by_lever(valve))
    put(session, {circuit: kept}, "By two points" if lever else "By lever and spring")
