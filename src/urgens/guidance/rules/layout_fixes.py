"""What mends a fault of the layout, as one edit of the build."""

from collections.abc import Callable, Iterable, Iterator
from typing import Any

from urgens.document import Build, BuildErrors
from urgens.document.circuits import Circuits, Passage, circuits_of
from urgens.document.kinds.valves import kind_of
from urgens.document.layout.layout import FittedPart, Plumbing
from urgens.document.layout.line_sheets import tube_of
from urgens.document.layout.threads import thread_table
from urgens.guidance.rules.finding import Fix
from urgens.guidance.rules.starting_valves import new_valve
from urgens.guidance.words.parts import port_name, thing_called
from urgens.physics.axle import Axle
from urgens.plumbing.branches import BadJoin
from urgens.plumbing.edits import index_of, section_of, without_part
from urgens.plumbing.mends import (
    line_to_leave_out,
    way_between,
    with_chain,
    with_lines_swapped,
    with_tee_at,
    with_wheel_joined,
)
from urgens.plumbing.valve_mends import (
    line_of_axle,
    with_switch,
    with_switch_instead,
    with_valve,
    with_valve_moved,
)

Fixes = tuple[Fix, ...]
LAYOUT = "plumbing"
LEAST_PORTS = 4  # of a switch: in and out of both sides


def _laid(label: str, section: dict[str, Any] | None) -> Fixes:
    return () if section is None else (Fix(label, LAYOUT, section),)


def other_parts(build: Build, bad: BadJoin) -> Fixes:
    """Return the fixes that bring a line into its port by chains of what is sold, cheapest first.

    bad: the join.
    """
    assert build.plumbing is not None
    if bad.problem == "nut":
        return _right_nut(build, bad, build.plumbing)
    found: Fixes = ()
    for steps in (bad.mend, bad.instead):
        if steps:
            words = " and ".join(step.words for step in steps)
            found += _laid(words[:1].upper() + words[1:], with_chain(build.plumbing, bad, steps))
    return found


def _line(build: Build, bad: BadJoin) -> str:
    return thing_called(circuits_of(build), bad.line.id)


def _right_nut(build: Build, bad: BadJoin, plumbing: Plumbing) -> Fixes:
    """Return another nut of the tube, that of the port if it is one; else the tube of the nut."""
    tube, end = tube_of(bad.line), bad.line.ends[bad.end]
    place = f"plumbing.lines[{bad.index}]"
    for one in thread_table().tubes:
        if all(one.takes(its.nut, its.flare) for its in bad.line.ends):
            return (Fix(f"Make {_line(build, bad)} of {one.name} tube", f"{place}.tube", one.name),)
    nuts = () if tube is None else tube.flares.get(end.flare, ())
    if not nuts:
        return ()
    part, _, name = bad.port.partition(".")
    thread = next(one for one in plumbing.parts if one.id == part).ports[name].thread
    nut = thread if thread in nuts else nuts[0]
    value = {"nut": nut, "flare": end.flare}
    return (Fix(f"Put a {nut} nut on {_line(build, bad)}", f"{place}.ends[{bad.end}]", value),)


def tee_at(laid: Circuits, port: str) -> Fixes:
    """Return the fix that puts a tee into a port that two lines end in.

    laid: the circuits; port: part and port [text]. Source: common practice.
    """
    return _laid(f"Screw a tee into the {port_name(laid, port)}", with_tee_at(laid.plumbing, port))


def wheel_joined(laid: Circuits, wheel: str) -> Fixes:
    """Return the fix that lays a line to a wheel that nothing reaches.

    laid: the circuits; wheel: its name [text].
    """
    section = with_wheel_joined(laid.build, wheel)
    return _laid(f"Lay a line to the {wheel.replace('-', ' ')} brake", section)


def line_left_out(
    laid: Circuits, lines: Iterable[str], mended: Callable[[Circuits], bool]
) -> Fixes:
    """Return the fix that takes out one line, so that a fault is gone and every wheel still fed.

    laid: the circuits; lines: to be tried, in order [text]; mended: tells whether the
    fault is gone [function].
    """
    found = line_to_leave_out(laid.build, lines, mended)
    if found is None:
        return ()
    line, section = found
    return _laid(f"Take {thing_called(laid, line)} out, and plug what it leaves open", section)


def ring_opened(laid: Circuits, ring: tuple[str, ...]) -> Fixes:
    """Return the fix that takes one line out of a ring.

    laid: the circuits; ring: its lines, the last to be tried first [text].
    """
    rings = len(laid.loops)
    return line_left_out(laid, reversed(ring), lambda left: len(left.loops) < rings)


def one_circuit(laid: Circuits, part: FittedPart) -> Fixes:
    """Return the fix that leaves a wheel to the circuit of its axle alone.

    laid: the circuits; part: the wheel brake.
    """
    axle = str(part.wheel).partition("-")[0]
    fed = laid.fed_by(part)
    right = {axle} if laid.build.split == "front-rear" and axle in fed else None
    goals = {place for place in laid.neighbours if place.part == part.id}
    lines: list[str] = []
    for outlet, circuit in laid.outlets.items():
        if right is None or circuit not in right:
            lines += way_between(laid, outlet, goals)

    def mended(left: Circuits) -> bool:
        found = left.fed_by(part)
        return len(found) == 1 and (right is None or found == right)

    return line_left_out(laid, lines, mended)


def circuits_parted(laid: Circuits, passage: Passage, other: Passage) -> Fixes:
    """Return the fix that parts two outlets which are open to each other.

    laid: the circuits; passage, other: the outlets.
    """
    lines = way_between(laid, passage, {other})
    axles = {str(axle) for axle in Axle}

    def mended(left: Circuits) -> bool:
        own = all(
            left.fed_by(part) <= {wheel.partition("-")[0]} for wheel, part in left.wheels.items()
        )
        return other not in left.reached(passage) and (own or set(left.outlets.values()) != axles)

    found = line_left_out(laid, lines, mended)
    if found or laid.build.split != "front-rear":
        return found
    for part in _met_in(laid, lines):
        section = with_switch_instead(laid.build, part)
        left = Circuits(laid.build, Plumbing.model_validate(section))
        if mended(left):
            return _laid(
                f"Put a warning switch in place of the {thing_called(laid, part)}: its sides "
                f"are apart",
                section,
            )
    return ()


def _met_in(laid: Circuits, lines: Iterable[str]) -> Iterator[str]:
    """Yield parts between lines, in order, that could be a switch: four ports or more."""
    seen = set[str]()
    for line in laid.plumbing.lines:
        if line.id in lines:
            for part in (name.partition(".")[0] for name in (line.start, str(line.to))):
                joined = len(laid.parts[part].ports)
                if part not in seen and laid.parts[part].kind != "master" and joined >= LEAST_PORTS:
                    seen.add(part)
                    yield part


def other_axle_left(laid: Circuits, outlet: Passage, wheels: Iterable[str]) -> Fixes:
    """Return the fix that takes the other axle's wheels off an outlet.

    laid: the circuits; outlet: of the cylinder; wheels: that are not its [text].
    A line that goes too far is taken out; where all is laid the wrong way round, the lines at the
    outlets change places.
    """
    ids = {laid.wheels[wheel].id for wheel in wheels}
    lines = [
        line
        for wheel in ids
        for line in way_between(laid, outlet, {p for p in laid.neighbours if p.part == wheel})
    ]

    def mended(left: Circuits) -> bool:
        return not ids & {place.part for place in left.reached(outlet)}

    return line_left_out(laid, dict.fromkeys(lines), mended) or outlets_swapped(laid)


def outlets_swapped(laid: Circuits) -> Fixes:
    """Return the fix that lets the lines at the two outlets change places.

    laid: the circuits.
    It mends what is laid the wrong way round altogether; nuts of unlike size are then to be
    changed as well, which the next finding names. Source: by definition.
    """
    outlets = {circuit: outlet for outlet, circuit in laid.outlets.items()}
    if len(laid.outlets) != len(outlets) or set(outlets) != set(Axle):
        return ()
    for axle, outlet in outlets.items():
        there = {place.part for place in laid.reached(outlet)}
        wheels = {wheel for wheel, part in laid.wheels.items() if part.id in there}
        if any(wheel.startswith(axle) for wheel in wheels):
            return ()
    one, other = (f"{o.part}.{o.side}" for o in outlets.values())
    label = f"Let the lines at {port_name(laid, one)} and {port_name(laid, other)} change places"
    return _laid(label, with_lines_swapped(laid.plumbing, one, other))


def valve_moved(laid: Circuits, part: FittedPart) -> Fixes:
    """Return the fix that puts a valve into the line of the rear axle alone.

    laid: the circuits; part: the valve. Source: common practice.
    """
    try:
        section = with_valve_moved(laid.build, part.id, Axle.REAR)
    except BuildErrors:  # it joins more lines than two: no valve that can just be moved
        return ()
    return _laid(f"Move the {thing_called(laid, part.id)} into the line to the rear axle", section)


def switch_put_in(laid: Circuits) -> Fixes:
    """Return the fix that puts a warning switch behind the cylinder.

    laid: the circuits.
    """
    if laid.build.split != "front-rear":
        return ()
    return _laid(
        "Put a warning switch behind the cylinder: six joints more", with_switch(laid.build)
    )


def valve_put_in(laid: Circuits, axle: Axle, index: int) -> Fixes:
    """Return the fix that puts a valve of the build into the line of its axle.

    laid: the circuits; axle: [-]; index: its place in the axle's list.
    """
    kind = laid.build.valves.of(axle)[index].kind
    section = with_valve(laid.build, axle, index, kind_of(kind).laid_as or kind)
    line = line_of_axle(laid, axle)
    return _laid(f"Put the {kind} valve into {thing_called(laid, line or axle)}", section)


def valve_made_known(laid: Circuits, part: FittedPart) -> Fixes:
    """Return the fixes for a valve that the build knows nothing of: count it, or take it out.

    laid: the circuits; part: the valve.
    Its figures are then assumed.
    """
    out = _taken_out(laid, part)
    axles = {Axle(wheel.partition("-")[0]) for wheel in laid.behind(part)}
    if len(axles) != 1:
        return out
    (axle,) = axles
    (new,) = new_valve(laid.build, axle, part.kind)[axle]
    count = len(laid.build.valves.of(axle))
    section = section_of(laid.plumbing)
    row = section["parts"][index_of(section["parts"], part.id, "part")]
    row["valve"] = f"{axle}[{count}]"
    place = f"valves.{axle}"
    return (
        Fix(
            f"Count with the {thing_called(laid, part.id)}, of usual figures",
            place,
            [*(one.model_dump(mode="json", exclude_unset=True)
               for one in laid.build.valves.of(axle)), new],
            (*range(count), new),
            ((LAYOUT, section),),
        ),
        *out,
    )  # fmt: skip


def _taken_out(laid: Circuits, part: FittedPart) -> Fixes:
    try:
        return _laid(
            f"Take the {thing_called(laid, part.id)} out of the layout",
            without_part(laid.plumbing, part.id),
        )
    except BuildErrors:  # it joins more lines than two
        return ()


def part_set(build: Build, part: FittedPart, field: str, value: object, label: str) -> Fixes:
    """Return the fix that says one thing of a part otherwise.

    part: of its layout; field: its name [text]; value: as
    typed; label: what it does [text].
    """
    assert build.plumbing is not None
    index = build.plumbing.parts.index(part)
    return (Fix(label, f"plumbing.parts[{index}].{field}", value),)
