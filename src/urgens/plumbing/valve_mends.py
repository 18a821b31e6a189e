"""Valves and switches put where they belong in a layout."""

from urgens.document.build import Build
from urgens.document.circuits import TWO_SIDED, Circuits, Passage, passage
from urgens.document.layout.layout import Plumbing
from urgens.physics.axle import AXLES, Axle
from urgens.plumbing.edits import Json, index_of, new_id, section_of, with_part_in, without_part
from urgens.plumbing.mends import place_of


def line_of_axle(laid: Circuits, axle: Axle, without: str = "") -> str | None:
    """Return a rigid line that all wheels of an axle hang on, and no other; None: there is none.

    laid: the circuits; axle: which [-]; without: the id of a part that it
    does not end in [text].
    """
    wheels = frozenset(wheel for wheel in laid.wheels if wheel.startswith(axle))
    for line in laid.plumbing.lines:
        ends = {name.partition(".")[0] for name in (line.start, str(line.to))}
        if not line.direct and without not in ends and laid.wheels_behind(line.id) == wheels:
            return line.id
    return None


def with_valve_moved(build: Build, valve: str, axle: Axle) -> Json | None:
    """Return a layout in which a valve stands in the line of one axle only.

    valve: the part's id [text]; axle: which [-].
    None where no line is that axle's alone.
    Source: common practice.
    """
    assert build.plumbing is not None
    before = section_of(build.plumbing)
    part = before["parts"][index_of(before["parts"], valve, "part")]
    joined = sum(
        valve == row[key].partition(".")[0] for row in before["lines"] for key in ("from", "to")
    )
    if joined > 2:
        return None
    out = Plumbing.model_validate(without_part(build.plumbing, valve))
    line = line_of_axle(Circuits(build, out), axle)
    if line is None:
        return None
    made, name = with_part_in(out, line, part["kind"])
    return renamed(made, name, part)


def with_valve(build: Build, axle: Axle, index: int, kind: str) -> Json | None:
    """Return a layout with a valve of the build's list in the line of its axle.

    axle: which [-]; index: in its list [-]; kind: of the part [text].
    None where no line is that axle's alone.
    """
    assert build.plumbing is not None
    line = line_of_axle(Circuits(build, build.plumbing), axle)
    if line is None:
        return None
    made, name = with_part_in(build.plumbing, line, kind)
    made["parts"][index_of(made["parts"], name, "part")]["valve"] = f"{axle}[{index}]"
    return made


def renamed(section: Json, name: str, part: Json) -> Json:
    """Put back what a part had before it was put in anew, its id, valve and marking.

    section: the layout [JSON]; name: the id that it has in it [text]; part: as it was [JSON].
    Source: by definition.
    """
    row = section["parts"][index_of(section["parts"], name, "part")]
    row |= {key: value for key, value in part.items() if key not in ("ports", "drawn_at")}
    for line in section["lines"]:
        for key in ("from", "to"):
            there, _, port = line[key].partition(".")
            if there == name:
                line[key] = f"{part['id']}.{port}"
    return section


def with_switch_instead(build: Build, part: str) -> Json:
    """Return a layout with a switch of two sides in place of a part in which circuits meet.

    build: one of two circuits, front and rear; part: its id [text].
    Ports from which the rear outlet or a rear wheel is reached are the rear side's.
    """
    assert build.plumbing is not None
    made, laid = section_of(build.plumbing), Circuits(build, build.plumbing)
    row = made["parts"][index_of(made["parts"], part, "part")]
    own = {passage(laid.parts[part], port) for port in laid.parts[part].ports}
    rear = {outlet for outlet, circuit in laid.outlets.items() if circuit == Axle.REAR}
    rear |= {Passage(there.id) for wheel, there in laid.wheels.items() if wheel.startswith("rear")}
    names = {}
    for port in row["ports"]:
        beyond = set[Passage]()
        for line in made["lines"]:
            for key, far in (("from", "to"), ("to", "from")):
                if line[key] == f"{part}.{port}":
                    beyond |= laid.reached(place_of(laid, line[far]), own)
        side = "rear" if beyond & rear or port.startswith("rear") else "front"
        names[port] = port if port.startswith(side) else f"{side}-{port}"
    row |= {"kind": "switch", "ports": {names[old]: face for old, face in row["ports"].items()}}
    ends = {f"{part}.{old}": f"{part}.{new}" for old, new in names.items()}
    for line in made["lines"]:
        line |= {key: ends.get(line[key], line[key]) for key in ("from", "to")}
    return made


def with_switch(build: Build) -> Json | None:
    """Return a layout with a warning switch between the lines at the two outlets, None: none.

    build: one of two circuits, front and rear.

    The usual layout; its ports have the nuts of the lines that are cut for it.
    """
    assert build.plumbing is not None
    laid = Circuits(build, build.plumbing)
    if any(part.kind in TWO_SIDED for part in laid.plumbing.parts):
        return None
    made = section_of(build.plumbing)
    found = {
        axle: _line_at(laid, made, circuit)
        for axle, circuit in zip(AXLES, sorted(set(laid.outlets.values())), strict=False)
    }
    lines = {axle: line for axle, line in found.items() if line is not None}
    if len(lines) != len(AXLES):
        return None
    part: Json = {"id": new_id(made, "sw"), "kind": "switch", "ports": {}}
    for axle, line in lines.items():
        starts = laid.outlets.get(place_of(laid, line["from"])) is not None
        _cut_for(made, part, axle, line, backwards=not starts)
    made["parts"].append(part)
    return made


def _cut_for(section: Json, part: Json, axle: Axle, line: Json, *, backwards: bool) -> None:
    """Cut a line for one side of a part; backwards: where it leads towards the cylinder."""
    ends = line.get("ends") or []
    near, far = ("out", "in") if backwards else ("in", "out")
    for way, end in zip((near, far), ends or (None, None), strict=True):
        face = {} if end is None else {"thread": end["nut"], "seat": end["flare"]}
        part["ports"][f"{axle}-{way}"] = face
    rest = {key: value for key, value in line.items() if key not in ("id", "route", "marking")}
    behind = {
        "id": new_id(section, "L"),
        "from": f"{part['id']}.{axle}-{far}",
        "ends": ends[1:] * 2,
    }
    section["lines"].append(rest | behind)
    line |= {"to": f"{part['id']}.{axle}-{near}", "ends": ends[:1] * 2}
    line.pop("route", None)


def _line_at(laid: Circuits, section: Json, circuit: str) -> Json | None:
    """Return the rigid line at the outlet of a circuit, as JSON; None: there is none."""
    for row in section["lines"]:
        ends = (laid.outlets.get(place_of(laid, row[key])) for key in ("from", "to"))
        if not row.get("direct", False) and circuit in ends:
            found: Json = row
            return found
    return None
