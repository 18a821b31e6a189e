"""Changes of a layout that keep it one: parts put into a line and taken out, ends made anew."""

import copy
from collections.abc import Mapping
from typing import Any

from urgens.document.errors import BuildErrors
from urgens.document.kinds.valves import LAID
from urgens.document.layout.layout import Plumbing
from urgens.document.part_catalogue import CataloguePart

Json = dict[str, Any]
# What can stand in a line, and its ports beside the two that the line goes through.
INSERTED: dict[str, tuple[str, ...]] = {
    "union": (), "adapter": (), "tee": ("branch",), "hose": (), **dict.fromkeys(LAID, ()),
}  # fmt: skip
THROUGH = ("in", "out")
HOSE = ("a", "b")


def section_of(plumbing: Plumbing) -> Json:
    """Return a layout as the JSON it is written as.

    Parts and lines are always lists; those that a file leaves out are empty.
    """
    return {"parts": [], "lines": []} | plumbing.model_dump(mode="json", exclude_unset=True)


def drawn(plumbing: Plumbing, spots: Mapping[str, tuple[float, float]]) -> dict[str, list[float]]:
    """Return what draws parts elsewhere, by the path of each in the build.

    spots: shares of the plan by part [-].
    Those that are drawn there already are left out.
    """
    found = {}
    for index, part in enumerate(plumbing.parts):
        if part.id not in spots:
            continue
        spot = tuple(round(along, 4) for along in spots[part.id])
        if spot != part.drawn_at:
            found[f"plumbing.parts[{index}].drawn_at"] = list(spot)
    return found


def laid_anew(plumbing: Plumbing) -> Json:
    """Return a layout that lays itself out again."""
    made = section_of(plumbing)
    for part in made["parts"]:
        part.pop("drawn_at", None)
    return made


def with_part_in(
    plumbing: Plumbing, line: str, kind: str, of: CataloguePart | None = None
) -> tuple[Json, str]:
    """Return a layout with a part put into a line, and the part's id.

    line: its id [text]; kind: of the part [text]; of: a catalogue,
    with the ports that it has, else it has those of the line.
    The line becomes two without routes; a branch that nothing goes on from is left open, and said.
    Raises BuildErrors where there is no such line.

    The nuts of the new ends are those of the line's own.
    """
    made = section_of(plumbing)
    index = index_of(made["lines"], line, "line")
    before = made["lines"][index]
    ends = before.get("ends") or []
    name = new_id(made, kind[:2])
    ways: tuple[str, ...] = HOSE if kind == "hose" else THROUGH
    faces = [{"thread": end["nut"], "seat": end["flare"]} for end in ends] or [{}, {}]
    ports = dict(zip(ways, faces, strict=True))
    part = {"id": name, "kind": kind, "ports": ports}
    if of is not None:
        part |= of.model_dump(mode="json", exclude_unset=True, include={"ports", "marking"})
        ways = tuple(of.ports)[: len(THROUGH)]
    else:
        ports |= {port: copy.deepcopy(faces[1]) for port in INSERTED[kind]}
    made["parts"].append(part)
    rest = {key: value for key, value in before.items() if key not in ("route", "marking")}
    halves = [
        {**rest, "to": f"{name}.{ways[0]}", "ends": ends[:1] * 2},
        {**rest, "id": new_id(made, "L"), "from": f"{name}.{ways[1]}", "ends": ends[1:] * 2},
    ]
    made["lines"][index : index + 1] = [
        {key: value for key, value in half.items() if key != "direct"} for half in halves
    ]
    return made, name


def with_plug(plumbing: Plumbing, port: str) -> Json:
    """Return a layout with a plug in a port.

    port: part and port, as bl.rear [text].
    """
    made = section_of(plumbing)
    part, _, name = port.partition(".")
    faces = made["parts"][index_of(made["parts"], part, "part")]["ports"]
    plug = new_id(made, "p")
    face = copy.deepcopy(faces[name])
    made["parts"].append({"id": plug, "kind": "plug", "ports": {"in": face}})
    line = {"id": new_id(made, "D"), "from": port, "to": f"{plug}.in", "direct": True}
    made["lines"].append(line)
    return made


def without_part(plumbing: Plumbing, part: str) -> Json:
    """Return a layout without a part; what it joined is joined by one line.

    part: its id [text].
    Raises BuildErrors where it joins three lines or more, and where there is no such part.

    The first of the two lines stays, without its route, with the far end of the other.
    """
    made = section_of(plumbing)
    place = index_of(made["parts"], part, "part")
    ends = _ends_at(made, part)
    if len(ends) > len(THROUGH):
        raise BuildErrors.one(
            part, f"joins {len(ends)} lines", "take lines off it first, until two are left"
        )
    del made["parts"][place]
    if len(ends) == len(THROUGH) and ends[0][0] != ends[1][0]:
        _join(made["lines"], ends)
    made["lines"] = [
        line
        for line in made["lines"]
        if part not in {line[key].partition(".")[0] for key in ("from", "to")}
    ]
    return made


def _ends_at(section: Json, part: str) -> list[tuple[int, str]]:
    return [
        (index, key)
        for index, line in enumerate(section["lines"])
        for key in ("from", "to")
        if line[key].partition(".")[0] == part
    ]


def without_hanging(plumbing: Plumbing, part: str) -> Json:
    """Return a layout without a part that hangs on another, and without what only holds it.

    part: the id of a gauge, a plug, a sensor, a reservoir, or of whatever joins two lines [text].
    Adapters go with it, and a tee whose other two ports join a line, which is one again.
    Raises BuildErrors as `without_part`.
    Source: by definition.
    """
    made = section_of(plumbing)
    ends = _ends_at(made, part)
    if len(ends) != 1:
        return without_part(plumbing, part)
    line = made["lines"][ends[0][0]]
    holder = next(
        name for name in (line[key].partition(".")[0] for key in ("from", "to")) if name != part
    )
    left = without_part(plumbing, part)
    row = left["parts"][index_of(left["parts"], holder, "part")]
    joined = len(_ends_at(left, holder))
    if row["kind"] == "adapter" and joined == 1:
        return without_hanging(Plumbing.model_validate(left), holder)
    if row["kind"] == "tee" and joined == len(THROUGH) < len(row["ports"]):
        return without_part(Plumbing.model_validate(left), holder)
    return left


def _join(lines: list[Json], ends: list[tuple[int, str]]) -> None:
    """Let the first of two lines go on to where the second went, and leave out the second."""
    (first, key), (second, other_key) = ends
    one, two = lines[first], lines[second]
    far = "to" if other_key == "from" else "from"
    at = {"from": 0, "to": -1}
    if len(one.get("ends") or ()) == len(two.get("ends") or ()) == len(THROUGH):
        kept = list(one["ends"])
        kept[at[key]] = two["ends"][at[far]]
        one["ends"] = kept
    elif two.get("ends"):
        one["ends"] = two["ends"]
        one.pop("direct", None)
        one |= {k: v for k, v in two.items() if k in ("tube", "material")}
    one[key] = two[far]
    one.pop("route", None)
    del lines[second]


def index_of(rows: list[Json], name: str, what: str) -> int:
    """Return the place of the row of an id; raises BuildErrors where there is none.

    rows: parts or lines [JSON]; name: the id [text]; what: it is, for a refusal [text].
    Source: by definition.
    """
    for index, row in enumerate(rows):
        if row["id"] == name:
            return index
    raise BuildErrors.one(name, f"there is no {what} of that name", "choose one that is there")


def new_id(section: Json, start: str) -> str:
    """Return an id that no part or line has yet; section: a layout [JSON]; start: of it [text].

    Source: by definition.
    """
    taken = {row["id"] for row in (*section["parts"], *section["lines"])}
    return next(f"{start}{n}" for n in range(1, len(taken) + 2) if f"{start}{n}" not in taken)
