"""What parts, ports and lines of a layout are called in words."""

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
CIRCUITS = {"front": "front circuit", "rear": "rear circuit", "all": "one circuit for all"}


def part_name(circuits: Circuits, part: FittedPart) -> str:
    """Return what a part is called: a wheel brake and its hose by the wheel.

    circuits: of the layout; part: of it.
    """
    if part.wheel is not None:
        return _wheel(part.wheel).capitalize()
    if part.kind == "hose":
        of = _hose_of(circuits, part)
        return f"{of} hose".capitalize() if of else KINDS[part.kind]
    return KINDS[part.kind]


def line_name(circuits: Circuits, line: BrakeLine) -> str:
    """Return where a line goes, from what; circuits: of the layout; line: of it."""
    names = [_short(circuits, end) for end in (line.start, str(line.to))]
    return f"{names[0].capitalize()} to {names[1]}"


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
                return _wheel(other.wheel)
            return "rear axle"
    return ""


def _wheel(wheel: str) -> str:
    axle, side = wheel.split("-")
    return f"{side} {axle}"
