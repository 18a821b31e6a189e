"""Edits of the valves in the circuits: each one step, and what is known of the others stays."""

from urgens.document.edits.change import BuildChange, Order
from urgens.document.kinds.valves import kind_of
from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.guidance.rules.starting_valves import (
    NEW_NAMES,
    by_lever,
    by_points,
    is_by_lever,
    new_valve,
)
from urgens.physics.axle import Axle
from urgens.ui.session import Session
from urgens.ui.stations.balance.circuit_view import Place


def _kept(session: Session, circuit: Axle) -> list[int]:
    return list(range(len(session.build.valves.of(circuit))))


def _put(session: Session, circuit: Axle, order: Order, label: str) -> None:
    session.make(BuildChange(label, orders={f"valves.{circuit}": order}))


def add(session: Session, circuit: Axle, kind: str) -> None:
    """Put a new valve at the end of a circuit, its figures planned."""
    orders: dict[str, Order] = {}
    planned: dict[str, object] = {}
    found = new_valve(session.build, circuit, kind)
    for axle, new in found.items():
        kept = _kept(session, axle)
        orders[f"valves.{axle}"] = [*kept, *new]
        for index, part in enumerate(new, len(kept)):
            planned[f"valves.{axle}[{index}]"] = part
    into = "" if len(found) > 1 else f" in the {circuit}"
    label = f"{NEW_NAMES[kind].partition(',')[0]}{into}"
    session.make(BuildChange(label, planned=planned, orders=orders))


def take_out(session: Session, place: Place) -> None:
    """Take one valve out of its circuit."""
    circuit, index = place
    kept = _kept(session, circuit)
    gone = session.build.valves.of(circuit)[kept.pop(index)]
    _put(session, circuit, kept, f"{kind_of(gone).name} taken out")


def move_forward(session: Session, place: Place) -> None:
    """Let a valve and the one before it change places."""
    circuit, index = place
    kept = _kept(session, circuit)
    kept.insert(index - 1, kept.pop(index))
    _put(session, circuit, kept, "Valve moved forward")


def metering_of(session: Session, place: Place) -> Place | None:
    """Return where the metering part of a valve's body is, None where it has none."""
    valves = session.build.valves
    body = valves.of(place[0])[place[1]].body
    if not body:
        return None
    parts = ((c, i) for c, i, v in valves.placed() if v.holds_front_back and v.body == body)
    return next(parts, None)


def redescribe(session: Session, place: Place) -> None:
    """Describe a load-sensing valve the other way: by its lever, or by two points."""
    circuit, index = place
    valve = session.build.valves.of(circuit)[index]
    assert isinstance(valve, LoadSensing)
    lever = is_by_lever(valve)
    part = by_points(valve, session.build) if lever else by_lever(valve)
    label = "By two points" if lever else "By lever and spring"
    path = f"valves.{circuit}[{index}]"
    session.make(BuildChange.assuming(label, {path: part}))
