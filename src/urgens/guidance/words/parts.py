"""What parts, ports, joints and lines of a layout are called in words."""

from collections import Counter

from urgens.document.circuits import Circuits
from urgens.document.kinds.valves import LAID, kind_of
from urgens.document.layout.layout import BrakeLine, FittedPart

KINDS = {
    "master": "Master cylinder",
    "reservoir": "Reservoir",
    "block": "Distribution block",
    "tee": "Tee",
    "union": "Union",
    "adapter": "Adapter",
    "plug": "Plug",
    "switch": "Pressure-differential switch",
    "combination": "Combination valve",
    **{kind: kind_of(kind).name for kind in LAID},
    "banjo": "Banjo",
    "hose": "Hose",
    "wheel-brake": "Wheel brake",
    "gauge": "Gauge",
    "sensor": "Pressure sensor",
    "light-switch": "Brake-light switch",
}
ON_PLAN = {**KINDS, "switch": "Switch", "light-switch": "Light switch"}  # where room is dear
SEATS = {
    "inverted": "inverted flare",
    "bubble": "bubble flare",
    "37-degree": "37° flare",
    "taper": "taper thread",
    "banjo": "banjo eye",
}
MATERIALS = {
    "copper-nickel": "copper-nickel",
    "coated-steel": "coated steel",
    "stainless": "stainless steel",
    "plain-copper": "plain copper",
}
SHORT = {"combination": "valve body", "switch": "switch", "block": "block"}
AT = {"master": "cylinder", "wheel-brake": "brake", **SHORT}  # at which end of a line
AXLE_NAMES = ("front", "rear")
CIRCUITS = {"front": "front circuit", "rear": "rear circuit", "all": "one circuit for all"}


MANY_PORTS = 2  # a part with more is named with the port
GROUPS = {
    frozenset({"front-left", "front-right"}): "front",
    frozenset({"rear-left", "rear-right"}): "rear",
    frozenset({"front-left", "rear-right"}): "left front and right rear",
    frozenset({"front-right", "rear-left"}): "right front and left rear",
}
_last: tuple[Circuits, dict[str, str]] | None = None


def part_name(circuits: Circuits, part: FittedPart) -> str:
    """Return what a part is called: a wheel brake and its hose by the wheel.

    circuits: of the layout; part: of it.
    Where a layout has several of a kind each is called by what it leads to, or is screwed into.
    """
    global _last
    last = _last
    if last is None or last[0] is not circuits:
        last = _last = circuits, _names(circuits)
    return last[1].get(part.id) or _plain(circuits, part)


def line_name(circuits: Circuits, line: BrakeLine) -> str:
    """Return where a line goes, from what; circuits: of the layout; line: of it.

    Of two between the same parts each is called by its circuit as well.
    """
    global _last_lines
    last = _last_lines
    if last is None or last[0] is not circuits:
        last = _last_lines = circuits, _line_names(circuits)
    return last[1].get(line.id) or _from_to(circuits, line)


_last_lines: tuple[Circuits, dict[str, str]] | None = None


def _from_to(circuits: Circuits, line: BrakeLine) -> str:
    names = [_short(circuits, end) for end in (line.start, str(line.to))]
    return f"{names[0].capitalize()} to {names[1]}"


def _line_names(circuits: Circuits) -> dict[str, str]:
    """Return what every line of tube is called, no two alike."""
    lines = [line for line in circuits.plumbing.lines if not line.direct]
    found = {line.id: _from_to(circuits, line) for line in lines}
    for name, count in Counter(found.values()).items():
        alike = [line for line in lines if found[line.id] == name] if count > 1 else []
        fed = [circuits.fed[line.id] for line in alike]
        told = [next(iter(one)) if len(one) == 1 else "" for one in fed]
        apart = all(one in AXLE_NAMES for one in told) and len({*told}) == count
        for number, (line, circuit) in enumerate(zip(alike, told, strict=True), start=1):
            found[line.id] = f"{name}, {circuit}" if apart else f"{name} {number}"
    return found


def line_called(circuits: Circuits, line: BrakeLine) -> str:
    """Return a line by its number on the plan and where it goes; circuits: of it; line: of it."""
    name = line_name(circuits, line)
    name = f"{name[:1].lower()}{name[1:]}"
    if line.direct:
        return joint_name(circuits, line, 1)
    return f"line {line.id.removeprefix('L')}, {name}"


def port_name(circuits: Circuits, name: str) -> str:
    """Return a port by its part, with what it is on a part of many; name: as mc.front [text].

    circuits: of the layout.
    """
    part, _, port = name.partition(".")
    if part not in circuits.parts:
        return name
    found = circuits.parts[part]
    short = _short(circuits, name)
    if len(found.ports) > MANY_PORTS or found.kind == "master":
        return f"{short}, {port.replace('-', ' ')}"
    return short


def joint_name(circuits: Circuits, line: BrakeLine, end: int) -> str:
    """Return a joint as a builder says it; circuits: of the layout; line: of it; end: 0, 1 [-]."""
    start, to = line.start, str(line.to)
    if line.direct:
        return f"{_short(circuits, start)} screwed into the {port_name(circuits, to)}"
    name = line_name(circuits, line)
    kinds = [circuits.parts[port.partition(".")[0]].kind for port in (start, to)]
    at = AT.get(kinds[end], KINDS[kinds[end]].lower())
    if kinds[0] == kinds[1]:
        at = port_name(circuits, (start, to)[end])
    return f"{name[:1].lower()}{name[1:]}, at the {at}"


def joint_called(circuits: Circuits | None, joint: str) -> str:
    """Return a joint that is called as in a file, as L6.a or rt.in, in words; joint: of it [text].

    circuits: of the layout, None without one. As it is written where the layout has none so called.
    """
    line, _, end = joint.rpartition(".")
    for one in () if circuits is None else circuits.plumbing.lines:
        assert circuits is not None
        if one.direct and str(one.to) == joint:
            return joint_name(circuits, one, 1)
        if not one.direct and one.id == line and end in ("a", "b"):
            return joint_name(circuits, one, "ab".index(end))
    return joint


def thing_called(circuits: Circuits | None, name: str) -> str:
    """Return what a part or a line of a layout is called; name: its id [text].

    circuits: of the layout, None without one. As it is written where the layout has none so called.
    """
    if circuits is not None and name in circuits.parts:
        part = part_name(circuits, circuits.parts[name])
        return f"{part[:1].lower()}{part[1:]}"
    for line in () if circuits is None else circuits.plumbing.lines:
        if line.id == name:
            assert circuits is not None
            return line_called(circuits, line)
    return name


def _plain(circuits: Circuits, part: FittedPart) -> str:
    if part.wheel is not None:
        return wheel_name(part.wheel).capitalize()
    if part.kind == "hose":
        of = _hose_of(circuits, part)
        return f"{of} hose".capitalize() if of else KINDS[part.kind]
    return KINDS[part.kind]


def _names(circuits: Circuits) -> dict[str, str]:
    """Return what every part is called, no two alike."""
    found = {part.id: _plain(circuits, part) for part in circuits.plumbing.parts}
    for name, count in Counter(found.values()).items():
        if count == 1:
            continue
        alike = [part for part in circuits.plumbing.parts if found[part.id] == name]
        told = {part.id: _told_by(circuits, part, name) for part in alike}
        seen = Counter[str]()
        for part in alike:
            words = told[part.id]
            seen[words] += 1
            found[part.id] = words if seen[words] == 1 else f"{words} {seen[words]}"
    return found


def _told_by(circuits: Circuits, part: FittedPart, name: str) -> str:
    """Return a name with what tells one part from others: wheels, what it is in, its circuit."""
    wheels = frozenset(circuits.behind(part)) if part.wheel is None else frozenset()
    of = GROUPS.get(wheels, wheel_name(next(iter(wheels))) if len(wheels) == 1 else "")
    if of:
        return f"{of} {name[:1].lower()}{name[1:]}".capitalize()
    within = _screwed_into(circuits, part)
    if within:
        return f"{name} in the {within}"
    fed = circuits.fed_circuits(part)
    if len(fed) == 1 and (circuit := next(iter(fed))) in AXLE_NAMES:
        return f"{circuit} {name[:1].lower()}{name[1:]}".capitalize()
    return name


def _screwed_into(circuits: Circuits, part: FittedPart) -> str:
    """Return the body that a part is screwed into, as its kind is called."""
    for line in circuits.plumbing.lines:
        ends = [one.partition(".")[0] for one in (line.start, str(line.to))]
        if line.direct and part.id in ends:
            other = circuits.parts[ends[1 - ends.index(part.id)]]
            short = {"master": "cylinder", **SHORT}.get(other.kind)
            return short or _plain(circuits, other).lower()
    return ""


def _short(circuits: Circuits, port: str) -> str:
    part = circuits.parts[port.partition(".")[0]]
    if part.kind == "master":
        return "cylinder"
    if part.kind in SHORT:
        return SHORT[part.kind]
    name = part_name(circuits, part)
    return name[:1].lower() + name[1:]


def _hose_of(circuits: Circuits, hose: FittedPart) -> str:
    """Return what a hose leads to: the wheel it is screwed into, else the axle it moves with."""
    for line in circuits.plumbing.lines:
        ends = [name.partition(".")[0] for name in (line.start, str(line.to))]
        if line.direct and hose.id in ends:
            other = circuits.parts[ends[1 - ends.index(hose.id)]]
            if other.wheel is not None:
                return wheel_name(other.wheel)
            return "rear axle"
    return ""


def wheel_name(wheel: str) -> str:
    """Return what a wheel is called, as "left front"; wheel: as in a layout [text]."""
    axle, side = wheel.split("-")
    return f"{side} {axle}"
