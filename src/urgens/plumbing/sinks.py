"""Gauges, sensors and brake-light switches put onto lines and ports, with what joins them."""

import copy

from urgens.document.build import Build
from urgens.document.circuits import SINKS, Circuits
from urgens.document.errors import BuildErrors
from urgens.document.layout.layout import Plumbing
from urgens.document.layout.threads import Face
from urgens.document.part_catalogue import CataloguePart
from urgens.plumbing.adapters import adapters
from urgens.plumbing.edits import Json, index_of, new_id, section_of, with_part_in
from urgens.plumbing.mends import face_of, port_of, screwed_in

# Thread of a sensor, a gauge or a switch, where it is not known: common practice.
USUAL: Face = ("1/8-27 NPT", "taper")


def with_sink_on_line(
    plumbing: Plumbing, line: str, kind: str, of: CataloguePart | None = None
) -> tuple[Json, str]:
    """Return a layout with a tee in a line and a gauge, sensor or switch on it, and its id.

    line: its id [text]; kind: of `SINKS` [text]; of: a catalogue, with its thread, else the usual.
    What joins the two is put between them, where something sold does; else the mismatch is found.
    Raises BuildErrors where there is no such line, or it is no rigid one.
    Source: common practice.
    """
    row = section_of(plumbing)["lines"]
    if row[index_of(row, line, "line")].get("direct", False):
        raise BuildErrors.one(line, "is no line that could be cut", "choose a line of tube")
    section, tee = with_part_in(plumbing, line, "tee")
    return with_sink_at(Plumbing.model_validate(section), f"{tee}.branch", kind, of)


def with_sink_at(
    plumbing: Plumbing, port: str, kind: str, of: CataloguePart | None = None
) -> tuple[Json, str]:
    """Return a layout with a gauge, sensor or switch in a port that nothing is in, and its id.

    port: part and port, as t1.branch [text]; kind: of `SINKS` [text]; of: a catalogue, else the
    usual thread. Source: common practice.
    """
    made = section_of(plumbing)
    name = new_id(made, {"light-switch": "ls", "sensor": "se"}.get(kind, kind[:2]))
    face = _own_face(of)
    faces = {"thread": face[0], "seat": face[1]}
    part: Json = {"id": name, "kind": kind, "ports": {"in": faces}}
    if of is not None and of.marking:
        part["marking"] = of.marking
    if kind == "sensor":
        part["attitude"] = "hangs"
    into = face_of(port_of(made, port))
    for step in (adapters(face, into) or ()) if into is not None else ():
        assert step.face is not None
        port = screwed_in(made, "adapter", port, step.into, {"in": step.face})
    made["parts"].append(part)
    row = {"id": new_id(made, "D"), "from": f"{name}.in", "to": port, "direct": True}
    made["lines"].append(row)
    return made, name


def _own_face(of: CataloguePart | None) -> Face:
    port = None if of is None else next(iter(of.ports.values()))
    if port is None or port.thread is None or port.seat is None:
        return USUAL
    return port.thread, port.seat


def with_sink_near_cylinder(build: Build, kind: str) -> tuple[Json, str] | None:
    """Return a layout with a gauge, sensor or switch on a tee at the cylinder, None: no line.

    kind: of `SINKS` [text]. In the first line of tube from an outlet. Source: common practice.
    """
    if build.plumbing is None or kind not in SINKS:
        return None
    laid = Circuits(build, build.plumbing)
    for line in laid.plumbing.lines:
        ends = {name.partition(".")[0] for name in (line.start, str(line.to))}
        if not line.direct and any(laid.parts[part].kind == "master" for part in ends):
            return with_sink_on_line(build.plumbing, line.id, kind)
    return None


def with_banjo_at(plumbing: Plumbing, port: str) -> tuple[Json, str]:
    """Return a layout in which what ends in a port sits on one bolt in it, and the bolt's id.

    port: part and port, as mc.front [text]. Each line keeps an eye of its own.
    Raises BuildErrors where no line ends there. Source: common practice.
    """
    made = section_of(plumbing)
    ends = [
        (line, key) for line in made["lines"] for key in ("from", "to")
        if line[key] == port and not line.get("direct", False)
    ]  # fmt: skip
    if not ends:
        raise BuildErrors.one(
            port, "has no line of tube in it", "choose a port that a line ends in"
        )
    name = new_id(made, "bj")
    face = copy.deepcopy(port_of(made, port))
    ways = {f"eye-{n}": copy.deepcopy(face) for n in range(1, len(ends) + 1)}
    made["parts"].append({"id": name, "kind": "banjo", "ports": {"bolt": face, **ways}})
    for (line, key), way in zip(ends, ways, strict=True):
        line[key] = f"{name}.{way}"
    row = {"id": new_id(made, "D"), "from": f"{name}.bolt", "to": port, "direct": True}
    made["lines"].append(row)
    return made, name


def with_reservoir_at(plumbing: Plumbing, master: str, circuit: str = "") -> tuple[Json, str]:
    """Return a layout with a reservoir of its own on a cylinder, and its id.

    master: the cylinder's id [text]; circuit: that it is for, empty for all [text].
    Raises BuildErrors where it has one already. Source: common practice.
    """
    made = section_of(plumbing)
    ports = made["parts"][index_of(made["parts"], master, "part")]["ports"]
    way = f"reservoir-{circuit}" if circuit else "reservoir"
    taken = {line[key] for line in made["lines"] for key in ("from", "to")}
    if f"{master}.{way}" in taken:
        raise BuildErrors.one(master, "has a reservoir there already", "take that one out first")
    ports.setdefault(way, {})
    name = new_id(made, "tank")
    made["parts"].append({"id": name, "kind": "reservoir", "ports": {"supply": {}}})
    row = {
        "id": new_id(made, "D"),
        "from": f"{name}.supply",
        "to": f"{master}.{way}",
        "direct": True,
    }
    made["lines"].append(row)
    return made, name
