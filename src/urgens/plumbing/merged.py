"""A layout drafted anew that keeps what is on the vehicle: parts by what they are there for."""

import copy
from collections.abc import Iterator

from urgens.document.build import Build
from urgens.document.circuits import Circuits
from urgens.document.edits.edit import edited
from urgens.document.layout.layout import FittedPart
from urgens.plumbing.edits import Json, new_id, section_of

Role = tuple[str, frozenset[str]]
ALIKE = ("wheel-brake", "hose", "tee", "union")  # their ports are alike, or but one
KEPT = ("bench", "received", "prices")


def kept_in(before: Build, after: Build, drafted: Json) -> Json:
    """Return a drafted layout in which what is there already keeps its name, ports, ends, route.

    before: the build with a layout of its own; after: as it is to be; drafted: its layout [JSON].
    A part is there where one of its kind feeds the same wheels; a line where both its ends are at
    the same ports. What the draft has no place for goes, gauges and sensors among it.
    Source: by definition.
    """
    assert before.plumbing is not None
    own = section_of(before.plumbing)
    names = _same_parts(before, after, drafted)
    made = copy.deepcopy(drafted)
    made |= {name: own[name] for name in KEPT if name in own}
    rows = {row["id"]: row for row in own["parts"]}
    ends: dict[str, str] = {}
    taken = set(names.values())
    for part in made["parts"]:
        there = names.get(part["id"])
        ports = dict(part["ports"])
        name = there or _free(part["id"], taken | set(rows))
        taken.add(name)
        if there is not None:
            row = copy.deepcopy(rows[there])
            found = _ports(part["kind"], list(ports), list(row.get("ports", {})))
            if part["kind"] == "master" and before.master.kind != after.master.kind:
                row["ports"], found = dict(ports), {port: port for port in ports}
            ends |= {f"{part['id']}.{port}": f"{name}.{its}" for port, its in found.items()}
            extra = {its: ports[port] for port, its in found.items()}
            used = row.get("ports", {})
            row["ports"] = {its: used.get(its, face) for its, face in extra.items()}
            row.pop("drawn_at", None)
            row.pop("valve", None)
            part |= {k: v for k, v in row.items() if k != "kind"}
        else:
            ends |= {f"{part['id']}.{port}": f"{name}.{port}" for port in ports}
            part["id"] = name
    made["lines"] = list(_lines(own, made, ends))
    return made


def _free(name: str, taken: set[str]) -> str:
    return name if name not in taken else next(
        f"{name}-{n}" for n in range(2, len(taken) + 3) if f"{name}-{n}" not in taken
    )  # fmt: skip


def _ports(kind: str, drafted: list[str], own: list[str]) -> dict[str, str]:
    """Return which of its own ports a part has for each that is drafted, by name.

    Of parts whose ports are alike in any order one that has another name is taken.
    """
    if kind not in ALIKE:
        return {port: port for port in drafted}
    found = {port: port for port in drafted if port in own}
    rest = iter([port for port in own if port not in found.values()])
    return {port: found.get(port) or next(rest, port) for port in drafted}


def _lines(own: Json, made: Json, ends: dict[str, str]) -> Iterator[Json]:
    """Yield the drafted lines, those that are there with their own tube, nuts and route."""
    there = {frozenset((line["from"], line["to"])): line for line in own["lines"]}
    ids = {line["id"] for line in own["lines"]}
    for line in made["lines"]:
        joined = ends[line["from"]], ends[line["to"]]
        known = there.get(frozenset(joined))
        if known is not None and known.get("direct", False) == line.get("direct", False):
            yield copy.deepcopy(known)
            continue
        name = line["id"]
        if name in ids:
            mark = "D" if line.get("direct", False) else "L"
            name = new_id({"parts": [], "lines": [{"id": one} for one in ids]}, mark)
        ids.add(name)
        yield {**line, "id": name, "from": joined[0], "to": joined[1]}


def _same_parts(before: Build, after: Build, drafted: Json) -> dict[str, str]:
    """Return the parts that are there already, own names by those drafted."""
    assert before.plumbing is not None
    laid = edited(after, "plumbing", drafted).plumbing
    assert laid is not None
    roles: dict[Role, list[str]] = {}
    now = Circuits(before, before.plumbing)
    for part in before.plumbing.parts:
        roles.setdefault(_role(now, part), []).append(part.id)
    then = Circuits(after, laid)
    found = {}
    for part in laid.parts:
        alike = roles.get(_role(then, part), [])
        if alike:
            found[part.id] = alike.pop(0)
    return found


def _role(circuits: Circuits, part: FittedPart) -> Role:
    """Return what a part is there for: its kind, and the wheels that it feeds or is at."""
    if part.wheel is not None:
        return part.kind, frozenset({part.wheel})
    if part.kind == "master":
        return part.kind, frozenset()
    return part.kind, frozenset(circuits.behind(part))
