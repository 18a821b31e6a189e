"""Changes of a layout that take a fault of its joins away: adapters, tees, plugs, other lines."""

import copy
from collections.abc import Callable, Iterable, Iterator

from urgens.document.build import Build
from urgens.document.circuits import Circuits, Passage, passage
from urgens.document.layout.layout import Plumbing
from urgens.document.layout.threads import Face
from urgens.plumbing.adapters import AdapterStep
from urgens.plumbing.branches import BadJoin
from urgens.plumbing.edits import Json, index_of, new_id, section_of, with_part_in, with_plug

USUAL_LINE = {"tube": "3/16 in", "material": "copper-nickel"}  # common practice
MOST_TRIED = 24  # lines that are tried to be left out, one by one


def face_of(port: Json) -> Face | None:
    """Return thread and seat of a port, None where either is not known; port: as written [JSON]."""
    return (port["thread"], port["seat"]) if {"thread", "seat"} <= port.keys() else None


def port_of(section: Json, name: str) -> Json:
    """Return a port as written; section: a layout [JSON]; name: part and port [text]."""
    part, _, port = name.partition(".")
    found: Json = section["parts"][index_of(section["parts"], part, "part")]["ports"][port]
    return found


# --- at one port -----------------------------------------------------------------------------


def with_chain(plumbing: Plumbing, bad: BadJoin, steps: Iterable[AdapterStep]) -> Json:
    """Return a layout in which a line comes into its port by a chain of parts.

    bad: the join; steps: from the port outward.
    """
    made = section_of(plumbing)
    key, port = ("from", "to")[bad.end], bad.port
    for step in steps:
        if step.face is None:  # another tee stands there, whose port is the line's own
            end = made["lines"][bad.index]["ends"][bad.end]
            port_of(made, port).update({"thread": end["nut"], "seat": end["flare"]})
        elif step.into is None:
            nut, flare = step.face
            made["lines"][bad.index]["ends"][bad.end] = {"nut": nut, "flare": flare}
        else:
            port = screwed_in(made, "adapter", port, step.into, {"in": step.face})
    made["lines"][bad.index][key] = port
    return made


def screwed_in(
    section: Json, kind: str, port: str, into: Face | None, others: dict[str, Face | None]
) -> str:
    """Screw a new part into a port by its `out`; return the first of its other ports.

    section: a layout, that is changed [JSON]; kind: of the part [text]; port: part and port [text];
    into: thread and seat of its `out`; others: of its other ports, by name.
    """
    name = new_id(section, kind[:2])
    faces = {"out": into, **others}
    ports = {way: {} if f is None else {"thread": f[0], "seat": f[1]} for way, f in faces.items()}
    section["parts"].append({"id": name, "kind": kind, "ports": ports})
    row = {"id": new_id(section, "D"), "from": f"{name}.out", "to": port, "direct": True}
    section["lines"].append(row)
    return f"{name}.{next(iter(others))}"


def with_tee_at(plumbing: Plumbing, port: str) -> Json:
    """Return a layout in which the lines that end in one port end in a tee screwed into it.

    port: part and port, as rt.left [text].
    Source: common practice: all its ports as the one that it is screwed into.
    """
    made = section_of(plumbing)
    ends = [(line, key) for line in made["lines"] for key in ("from", "to") if line[key] == port]
    face = face_of(port_of(made, port))
    ways = {f"branch-{n}": face for n in range(1, len(ends) + 1)}
    first = screwed_in(made, "tee", port, face, dict(ways))
    tee = first.partition(".")[0]
    for (line, key), way in zip(ends, ways, strict=True):
        line[key] = f"{tee}.{way}"
    return made


def with_lines_swapped(plumbing: Plumbing, one: str, other: str) -> Json:
    """Return a layout in which what is screwed into two ports has changed places.

    one, other: part and port [text].
    Source: by definition; the nuts stay as they are.
    """
    made = section_of(plumbing)
    swap = {one: other, other: one}
    for line in made["lines"]:
        for key in ("from", "to"):
            line[key] = swap.get(line[key], line[key])
    return made


# --- lines too many --------------------------------------------------------------------------


def without_line(plumbing: Plumbing, line: str) -> Json:
    """Return a layout without a line, a plug in both ports that it leaves.

    line: its id [text].
    Source: common practice; no plug in a port that another line ends in.
    """
    made = section_of(plumbing)
    gone = made["lines"].pop(index_of(made["lines"], line, "line"))
    left = {row[key] for row in made["lines"] for key in ("from", "to")}
    for port in (gone["from"], gone["to"]):
        if port not in left:
            made = with_plug(Plumbing.model_validate(made), port)
    return made


def line_to_leave_out(
    build: Build, lines: Iterable[str], mended: Callable[[Circuits], bool]
) -> tuple[str, Json] | None:
    """Return the first line without which a fault is gone, and the layout then; None: no line.

    lines: their ids, those to try first in front [text]; mended:
    tells of the circuits that are left whether the fault is gone [function].
    Every wheel that is fed stays so.
    """
    assert build.plumbing is not None
    before = Circuits(build, build.plumbing)
    fed = {wheel for wheel, part in before.wheels.items() if before.fed_by(part)}
    for line in list(lines)[:MOST_TRIED]:
        kept = tuple(one for one in build.plumbing.lines if one.id != line)
        left = Circuits(build, build.plumbing.model_copy(update={"lines": kept}))
        if mended(left) and all(left.fed_by(left.wheels[wheel]) for wheel in fed):
            return line, without_line(build.plumbing, line)
    return None


def way_between(laid: Circuits, start: Passage, goals: set[Passage]) -> list[str]:
    """Return the lines from a passage to the nearest of some, the last first; [] where no way is.

    laid: the circuits; start: a passage; goals: others.
    """
    came: dict[Passage, tuple[Passage, str]] = {}
    waiting, seen = [start], {start}
    for here in waiting:  # grows as it goes
        if here in goals and here != start:
            lines = []
            while here != start:
                here, line = came[here]
                lines.append(line)
            return lines
        for there, line in laid.neighbours[here]:
            if there not in seen:
                seen.add(there)
                came[there] = here, line
                waiting.append(there)
    return []


# --- wheels that nothing reaches -------------------------------------------------------------


def with_wheel_joined(build: Build, wheel: str) -> Json | None:
    """Return a layout in which a wheel that nothing reaches is fed, None where no port is left.

    wheel: its name [text].
    A line is laid from an open port of the circuit that feeds the axle's other wheel, else from a
    tee in it, else from the cylinder's outlet of that axle, to the nearest open port that is open
    to the wheel.
    """
    assert build.plumbing is not None
    made = section_of(build.plumbing)
    laid = Circuits(build, build.plumbing)
    if wheel not in laid.wheels:
        made = _with_wheel(made, laid, wheel)
        laid = Circuits(build, Plumbing.model_validate(made))
    goal = _open_near(laid, laid.wheels[wheel].id)
    if goal is None:
        return None
    for start, section in _sources(laid, made, wheel):
        tried = _with_line(section, start, goal)
        after = Circuits(build, Plumbing.model_validate(tried))
        if len(after.fed_by(after.wheels[wheel])) == 1 and not after.loops:
            return tried
    return None


def _with_wheel(section: Json, laid: Circuits, wheel: str) -> Json:
    """Add a wheel brake, its ports as those of the axle's other wheel."""
    axle, _, side = wheel.partition("-")
    beside = laid.wheels.get(f"{axle}-{'left' if side == 'right' else 'right'}")
    ports = {"in": {}} if beside is None else _written_ports(section, beside.id)
    name = new_id(section, f"{axle[0]}{side[0]}-")
    section["parts"].append({"id": name, "kind": "wheel-brake", "wheel": wheel, "ports": ports})
    return section


def _written_ports(section: Json, part: str) -> Json:
    rows = section["parts"]
    return copy.deepcopy(rows[index_of(rows, part, "part")].get("ports", {})) or {"in": {}}


def _open_near(laid: Circuits, part: str) -> str | None:
    """Return an open port that a wheel brake is open to, those farthest from it first."""
    own = {passage(laid.parts[part], port) for port in laid.parts[part].ports}
    there = set().union(*(laid.reached(one) for one in own)) if own else set()
    ports = [name for name in laid.open_ports if place_of(laid, name) in there | own]
    ports.sort(key=lambda name: (name.partition(".")[0] == part, name))
    return ports[0] if ports else None


def place_of(laid: Circuits, name: str) -> Passage:
    """Return the passage of a port; laid: the circuits; name: part and port [text]."""
    part, _, port = name.partition(".")
    return passage(laid.parts[part], port)


def _sources(laid: Circuits, made: Json, wheel: str) -> Iterator[tuple[str, Json]]:
    """Yield ports that a line to a wheel could start from, and the layout that has them."""
    axle = wheel.partition("-")[0]
    wanted = sorted(laid.outlets.items(), key=lambda item: item[1] not in (axle, "all"))
    for outlet, _ in wanted:
        there = laid.reached(outlet)
        for name in laid.open_ports:
            kind = laid.parts[name.partition(".")[0]].kind
            if place_of(laid, name) in there and kind != "wheel-brake":
                yield name, made
        beside = {
            Passage(part.id)
            for other, part in laid.wheels.items()
            if other.startswith(axle) and other != wheel and Passage(part.id) in there
        }
        for line in way_between(laid, outlet, beside or there):
            row = next(row for row in made["lines"] if row["id"] == line)
            if not row.get("direct", False):
                section, tee = with_part_in(Plumbing.model_validate(made), line, "tee")
                yield f"{tee}.branch", section


def _with_line(section: Json, start: str, goal: str) -> Json:
    """Return a layout with one more line, as the others are, its nuts those of its ports."""
    section = copy.deepcopy(section)
    like = next((row for row in section["lines"] if row.get("tube")), USUAL_LINE)
    faces = [face_of(port_of(section, port)) for port in (start, goal)]
    row: Json = {"id": new_id(section, "L"), "from": start, "to": goal, "tube": like["tube"]}
    if like.get("material"):
        row["material"] = like["material"]
    if None not in faces:
        row["ends"] = [{"nut": face[0], "flare": face[1]} for face in faces if face is not None]
    section["lines"].append(row)
    return section
