"""Parts that a builder puts in and takes out by hand: where each may go, and the step it is."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from urgens.document import Build, BuildChange, BuildErrors
from urgens.document.circuits import REDUCING, SINKS, TWO_SIDED, Circuits, circuits_of, passage
from urgens.document.kinds.valves import LAID, kind_of
from urgens.document.part_catalogue import CataloguePart
from urgens.guidance.rules.starting_valves import new_valve
from urgens.guidance.words.parts import KINDS, port_name, thing_called
from urgens.physics.axle import Axle
from urgens.plumbing.edits import (
    INSERTED,
    index_of,
    with_part_in,
    with_plug,
    without_hanging,
)
from urgens.plumbing.sinks import (
    with_banjo_at,
    with_reservoir_at,
    with_sink_at,
    with_sink_on_line,
)
from urgens.plumbing.valve_mends import with_switch

# What can be put in, in the order in which it is offered.
OFFERED = (
    "tee", "union", "adapter", "hose", "sensor", "gauge", "light-switch", "plug", "switch",
    "metering", "reducing", "adjustable", "limiting", "load-sensing", "residual", "banjo",
    "reservoir",
)  # fmt: skip
FOLLOW = ("master", "wheel-brake")  # from the build, and are not taken out by hand
FRONT_ONLY = ("metering",)
NOWHERE = {
    "switch": "it goes behind two outlets, front and rear, and there is none yet",
    "plug": "no port is open",
    "banjo": "no line ends in a cylinder or a block",
    "reservoir": "there is no cylinder that has none of its own",
}
Json = dict[str, Any]


@dataclass(frozen=True)
class PlacesFor:
    """Where a part may go: lines by id, ports as part.port; `why` where it may go nowhere."""

    lines: tuple[str, ...] = ()
    ports: tuple[str, ...] = ()
    why: str = ""

    @property
    def every(self) -> tuple[str, ...]:
        """Lines and ports, in one row."""
        return (*self.lines, *self.ports)


def places_for(build: Build, kind: str) -> PlacesFor:
    """Return where in a layout a part may be put.

    build: with a layout; kind: of `OFFERED` [text].
    Valves that take pressure away go where only rear wheels are behind, metering where only front
    ones are; all else into any line of tube. Source: common practice.
    """
    laid = circuits_of(build)
    if laid is None:
        return PlacesFor(why="this build has no layout of its own yet")
    lines = tuple(_lines_for(laid, kind))
    ports = tuple(_ports_for(laid, kind))
    why = "" if lines or ports else NOWHERE.get(kind, "no line of tube is for it alone")
    return PlacesFor(lines, ports, why)


def _lines_for(laid: Circuits, kind: str) -> Iterator[str]:
    for line in laid.plumbing.lines:
        if line.direct:
            continue
        wheels = laid.wheels_behind(line.id)
        axles = {wheel.partition("-")[0] for wheel in wheels}
        if kind in REDUCING:
            may = axles == {"rear"}
        elif kind in FRONT_ONLY:
            may = axles == {"front"}
        elif kind in LAID:
            may = len(axles) == 1
        else:
            may = kind in INSERTED or kind in SINKS
        if may:
            yield line.id


def _ports_for(laid: Circuits, kind: str) -> Iterator[str]:
    if kind == "plug" or kind in SINKS:
        yield from laid.open_ports
    elif kind == "switch":
        if with_switch(laid.build) is not None and laid.build.split == "front-rear":
            yield from (f"{outlet.part}.{outlet.side}" for outlet in laid.outlets)
    elif kind == "banjo":
        for line in laid.plumbing.lines:
            for name in (line.start, str(line.to)) if not line.direct else ():
                if laid.parts[name.partition(".")[0]].kind in ("master", "block"):
                    yield name
    elif kind == "reservoir":
        for part in laid.plumbing.parts:
            ports = (f"{part.id}.{port}" for port in part.ports if port.startswith("reservoir"))
            if part.kind == "master" and not any(laid.joined[name] for name in ports):
                yield from (f"{part.id}.{port}" for port in list(part.ports)[:1])


def put_in(
    build: Build, place: str, kind: str, of: CataloguePart | None = None
) -> tuple[BuildChange, str]:
    """Return the step that puts a part where a builder wants it, and the part's id.

    build: with a layout; place: a line's id, or part.port [text]; kind: of `OFFERED` [text];
    of: a catalogue, with its own ports, else with those of the place.
    A valve is counted in the build's list as well, its figures assumed.
    Raises BuildErrors where it may not go there, with the reason.
    Source: common practice.
    """
    laid = circuits_of(build)
    places = places_for(build, kind)
    if laid is None or place not in places.every:
        why = places.why or "it would take pressure from wheels it is not for"
        name = KINDS[kind].lower()
        raise BuildErrors.one(place, f"a {name} may not go there: {why}", "choose a place shown")
    section, name = _with(laid, place, kind, of)
    where = port_name(laid, place) if "." in place else thing_called(laid, place)
    label = f"{KINDS[kind] if of is None else of.name} put in: {where}"
    values: Json = {"plumbing": section}
    if kind == "light-switch":
        values |= {"brake_light_switch": "hydraulic", "brake_light_switch_part": name}
    if kind == "switch" and build.warning_switch in (None, "none"):
        values["warning_switch"] = "warns"
    if kind not in LAID:
        return BuildChange(label, values), name
    return _counted(laid, place, kind, label, values, name), name


def _with(laid: Circuits, place: str, kind: str, of: CataloguePart | None) -> tuple[Json, str]:
    plumbing = laid.plumbing
    if kind in SINKS:
        put = with_sink_at if "." in place else with_sink_on_line
        return put(plumbing, place, kind, of)
    if kind == "plug":
        made = with_plug(plumbing, place)
        return made, made["parts"][-1]["id"]
    if kind == "switch":
        found = with_switch(laid.build)
        assert found is not None
        return found, found["parts"][-1]["id"]
    if kind == "banjo":
        return with_banjo_at(plumbing, place)
    if kind == "reservoir":
        return with_reservoir_at(plumbing, place.partition(".")[0])
    return with_part_in(plumbing, place, kind, of)


def _counted(
    laid: Circuits, line: str, kind: str, label: str, values: Json, name: str
) -> BuildChange:
    """Return the step that also counts a valve in its axle's list, where fluid comes to it."""
    axle = Axle(next(iter(laid.wheels_behind(line))).partition("-")[0])
    own, path = laid.build.valves.of(axle), f"valves.{axle}"
    section = values["plumbing"]
    row = section["parts"][index_of(section["parts"], name, "part")]
    laid_out = {part.valve for part in laid.plumbing.parts}
    alike = [
        i for i, valve in enumerate(own)
        if (kind_of(valve).laid_as or valve.kind) == kind and not valve.body
    ]  # fmt: skip
    index = next((i for i in alike if f"{axle}[{i}]" not in laid_out), None)
    if index is None and laid.build.split == "diagonal":  # its other half is on the other wheel
        wheels = laid.wheels_behind(line)
        index = next((i for i in alike if not _stands_before(laid, f"{axle}[{i}]", wheels)), None)
    if index is not None:
        row["valve"] = f"{axle}[{index}]"
        return BuildChange(label, values)
    (new,) = new_valve(laid.build, axle, kind)[axle]
    index = sum(_comes_before(laid, axle, i, line) for i in range(len(own)))
    for part in section["parts"]:
        _renumber(part, axle, index, 1)
    row["valve"] = f"{axle}[{index}]"
    order = [*range(index), new, *range(index, len(own))]
    return BuildChange(
        label, values, orders={path: order}, assumed={f"{path}[{index}]": new}
    )  # fmt: skip


def _stands_before(laid: Circuits, valve: str, wheels: Iterable[str]) -> bool:
    """Tell whether a valve of the build has a body in the way to one of some wheels."""
    bodies = [part for part in laid.plumbing.parts if part.valve == valve]
    return any(wheel in laid.behind(part) for part in bodies for wheel in wheels)


def _renumber(part: Json, axle: Axle, start: int, by: int) -> None:
    """Let a part name its valve where it stands after one came or went at a place of the list."""
    valve = str(part.get("valve", ""))
    if valve.startswith(f"{axle}["):
        at = int(valve.removeprefix(f"{axle}[").removesuffix("]"))
        if at >= start:
            part["valve"] = f"{axle}[{at + by}]"


def _comes_before(laid: Circuits, axle: Axle, index: int, line: str) -> bool:
    """Tell whether a valve of an axle's list is between the cylinder and a line."""
    valve, name = laid.build.valves.of(axle)[index], f"{axle}[{index}]"
    part = next(
        (part for part in laid.plumbing.parts
         if part.valve == name or (valve.body and part.kind == "combination")), None,
    )  # fmt: skip
    if part is None:
        return True  # it is in no line: what is put in by hand comes behind it
    own = {passage(part, port) for port in part.ports}
    row = next(one for one in laid.plumbing.lines if one.id == line)
    ends = [name.partition(".") for name in (row.start, str(row.to))]
    places = {passage(laid.parts[at], port) for at, _, port in ends}
    before = (laid.reached(outlet, own) for outlet in laid.outlets)
    return not any(places <= own | reached and places & reached for reached in before)


def taken_out(build: Build, part: str) -> BuildChange:
    """Return the step that takes a part out of the layout, and what only holds it.

    build: with a layout; part: its id [text].
    A valve leaves the build's list too; what carried the brake lights' switch is named no longer,
    and a finding says that nothing carries it.
    Raises BuildErrors where it joins three lines or more, or comes with the build.
    Source: by definition.
    """
    laid = circuits_of(build)
    assert laid is not None
    gone = laid.parts[part]
    called = thing_called(laid, part)
    if gone.kind in FOLLOW:
        raise BuildErrors.one(part, f"the {called} comes with the vehicle", "change it on Measure")
    section = without_hanging(laid.plumbing, part)
    label = f"{called[:1].upper()}{called[1:]} taken out"
    values: Json = {"plumbing": section}
    if build.brake_light_switch_part == part:
        values["brake_light_switch_part"] = None
    if gone.kind in TWO_SIDED and build.warning_switch in ("warns", "shuts"):
        values["warning_switch"] = "none"
    found = next(
        (one for one in build.valves.placed() if f"{one[0]}[{one[1]}]" == gone.valve), None
    )
    others = any(one.valve == gone.valve for one in laid.plumbing.parts if one.id != part)
    if found is None or others:  # of a pair the other half stays, and is counted still
        return BuildChange(label, values)
    axle, index, _ = found
    for row in section["parts"]:
        _renumber(row, axle, index + 1, -1)
    kept = [i for i in range(len(build.valves.of(axle))) if i != index]
    return BuildChange(label, values, orders={f"valves.{axle}": kept})
