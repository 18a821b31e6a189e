"""What of a system may change, as options by variable: typed for the document, and as numbers."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from math import isclose
from typing import Any

from urgens.document import Build, BuildErrors, with_changes
from urgens.document.catalogue import figure
from urgens.document.kinds.boosters import BOOSTERS
from urgens.document.kinds.bores import sold_bores
from urgens.document.kinds.brakes import brake_kind
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.cylinders import CYLINDERS
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.document.price_list import price_of
from urgens.physics.axle import Axle
from urgens.quantity import LENGTH, QuantityError, parse
from urgens.quantity.arithmetic import number_of

MAY = (
    "cylinder", "bore", "ratio", "booster", "front-pistons", "rear-pistons", "front-friction",
    "rear-friction", "front-rotor", "rear-rotor", "valve", "bar",
)  # fmt: skip
USUALLY = ("bore", "ratio", "valve")  # may change where nothing is said
VALVES = ("own", "none", "reducing", "limiting", "load-sensing")
RATIOS = tuple(f"{3.5 + 0.25 * step:g}" for step in range(15))  # to 7 : 1
FRICTIONS = ("0.3", "0.35", "0.4", "0.45", "0.5")  # of pads and linings by class; common practice
ROTORS_APART = (-0.0254, 0.0254, 0.0508)  # m; sizes that are usual beside one's own
DIAPHRAGMS = ("none", "7 in", "8 in", "9 in", "10 in")
SAME = 1e-6  # of a figure: what is nearer is what is there
PAIRED = (0.6, 1.7)  # rear bore to front bore of twin cylinders
BAR_STEPS = 8  # to each side of the middle, as far as a quarter of the bar

Choices = Mapping[str, Sequence[str] | None]  # None: what is usual


@dataclass(frozen=True)
class PartOption:
    """One option: what it is called, its changes as typed, the same as numbers, parts bought.

    `named` is each part of it as it stands on a shelf: of which variable, and which size.
    """

    words: str
    values: Mapping[str, Any] = field(default_factory=dict)
    numbers: Mapping[str, float] = field(default_factory=dict)
    parts: int = 0
    named: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class Cost:
    """What a part costs, in the builder's own money [-], and takes to fit [h]."""

    price: float
    hours: float = 0.0


Costs = Mapping[tuple[str, str], Cost]  # by variable and size


@dataclass(frozen=True)
class Variable:
    """One thing that may change; the first option is what is there."""

    name: str
    options: tuple[PartOption, ...]


def priced(choices: Choices) -> tuple[Choices, Costs]:
    """Return choices without what their sizes cost, and what those cost.

    choices: as typed, a size with its price, and hours if they are known: "3/4 in @ 45 / 0.5 h".
    Raises BuildErrors where a price or hours cannot be read. Source: by definition.
    """
    plain: dict[str, Sequence[str] | None] = {}
    costs: dict[tuple[str, str], Cost] = {}
    for name, sizes in choices.items():
        bare = []
        for text in sizes or ():
            size, at, cost = (one.strip() for one in text.partition("@"))
            bare.append(size)
            if at:
                price, _, hours = cost.partition("/")
                costs[name, size] = Cost(_amount(name, price), _hours(name, hours))
        plain[name] = bare or None
    return plain, costs


def _amount(name: str, typed: str) -> float:
    try:
        price = price_of(typed)
    except QuantityError as error:
        raise BuildErrors.one(f"may {name}", error.problem, error.remedy) from None
    if price is None:
        raise BuildErrors.one(f"may {name}", "has an @ without a price", "write it, as @ 45")
    return price


def _hours(name: str, typed: str) -> float:
    if not typed.strip():
        return 0.0
    hours = number_of(typed.strip().removesuffix("h").strip())
    if hours is None or hours < 0.0:
        raise BuildErrors.one(f"may {name}", f'"{typed.strip()}" is no time', "write it as 0.5 h")
    return hours


def solid_options(build: Build, choices: Choices) -> list[tuple[PartOption, Build]]:
    """Return a build with every cylinder and booster that may be, what is there first.

    choices: what may change, by name of `MAY`. Raises BuildErrors.
    """
    found = []
    for cylinder in _cylinders(build, choices):
        for booster in _boosters(build, choices):
            values = {**cylinder.values, **booster.values}
            words = ", ".join(one.words for one in (cylinder, booster) if one.words)
            parts = cylinder.parts + booster.parts
            made = with_changes(build, values) if values else build
            named = (*cylinder.named, *booster.named)
            found.append((PartOption(words, values, {}, parts, named), made))
    return found


def _cylinders(build: Build, choices: Choices) -> list[PartOption]:
    own = PartOption("")
    if "cylinder" not in choices:
        return [own]
    known = {kind.kind: kind for kind in CYLINDERS if not kind.model.one_chamber}
    found = [own]
    for name in choices["cylinder"] or known:
        if name == build.master.kind:
            continue
        if name not in known:
            raise _no_option("cylinder", name, tuple(known))
        kind = known[name]
        values: dict[str, Any] = {"master": kind.new(build.master)}
        if build.split not in kind.circuits:
            values["circuits"] = kind.circuits[0]
        parts = 3 if kind.model.has_bar else 1
        found.append(PartOption(kind.name, values, {}, parts, (("cylinder", name),)))
    return found


def _boosters(build: Build, choices: Choices) -> list[PartOption]:
    own = PartOption("")
    if "booster" not in choices:
        return [own]
    vacuum = next(kind for kind in BOOSTERS if kind.kind == "vacuum")
    found = [own]
    for size in choices["booster"] or DIAPHRAGMS:
        if size == "none":
            if build.booster.fitted:
                found.append(PartOption("no booster", {"booster": {"kind": "none"}}))
            continue
        _length("booster", size)
        if build.booster.kind == "vacuum":
            values: dict[str, Any] = {"booster.diaphragm_diameters": [size]}
        else:
            values = {"booster": {**vacuum.new, "diaphragm_diameters": [size]}}
        found.append(PartOption(f"booster {size}", values, {}, 1, (("booster", size),)))
    return found


def variables(build: Build, choices: Choices) -> tuple[Variable, ...]:
    """Return what may change of a build in figures alone, with options; what is there first.

    choices: what may change, by name of `MAY`. Raises BuildErrors.
    """
    makers: dict[str, Callable[[Build, Sequence[str] | None], list[PartOption]]] = {
        "bore": _bores, "ratio": _ratios, "bar": _bars,
        **{f"{axle}-{what}": _of_axle(axle, make) for axle in Axle for what, make in (
            ("pistons", _pistons), ("friction", _frictions), ("rotor", _rotors))},
    }  # fmt: skip
    found = []
    for name, make in makers.items():
        if name not in choices:
            continue
        options = make(build, choices[name])
        if options:
            own = {path: figure(build, path).number for path in options[0].numbers}
            others = [one for one in options if not _same(one.numbers, own)]
            found.append(Variable(name, (PartOption("", {}, own), *others)))
    return tuple(found)


def _same(one: Mapping[str, float], other: Mapping[str, float]) -> bool:
    """Tell whether an option is what is there."""
    return all(isclose(value, other[path], rel_tol=SAME) for path, value in one.items())


def _of_axle(
    axle: Axle, make: Callable[[Build, Axle, Sequence[str] | None], list[PartOption]]
) -> Callable[[Build, Sequence[str] | None], list[PartOption]]:
    return lambda build, texts: make(build, axle, texts)


def _bores(build: Build, texts: Sequence[str] | None) -> list[PartOption]:
    master = build.master
    sold = [_length("bore", text) for text in texts] if texts else list(sold_bores())
    if not isinstance(master, TwinMaster):
        return [
            _figures(f"bore {bore.text}", _in_master(master.of_bore(bore)), 1, ("bore", bore.text))
            for bore in sold
        ]
    return [
        _figures(f"bores {front.text} and {rear.text}",
                 {"master.front_bore": front.text, "master.rear_bore": rear.text}, 2,
                 ("bore", front.text), ("bore", rear.text))
        for front in sold for rear in sold
        if PAIRED[0] <= rear.value / front.value <= PAIRED[1]
    ]  # fmt: skip


def _in_master(fields: Mapping[str, str]) -> dict[str, str]:
    return {f"master.{name}": text for name, text in fields.items()}


def _figures(
    words: str, values: Mapping[str, str], parts: int, *named: tuple[str, str]
) -> PartOption:
    numbers = {path: parse(text, LENGTH).value for path, text in values.items()}
    return PartOption(words, values, numbers, parts, named)


def _ratios(build: Build, texts: Sequence[str] | None) -> list[PartOption]:
    pad, found = build.pedal.pivot_to_pad.value, []
    for text in texts or RATIOS:
        ratio = _number("ratio", text)
        pin = f"{pad / ratio * 1e3:.1f} mm"
        found.append(_figures(f"ratio {text}", {"pedal.pivot_to_pushrod": pin}, 0, ("ratio", text)))
    return found


def _bars(build: Build, texts: Sequence[str] | None) -> list[PartOption]:
    master = build.master
    if not isinstance(master, TwinMaster):
        return []
    step = master.bar_length.value / 4 / BAR_STEPS
    offsets = texts or [f"{step * at * 1e3:.1f} mm" for at in range(-BAR_STEPS, BAR_STEPS + 1)]
    return [
        _figures(f"bar {text}", {"master.bar_offset": text}, 0)
        for text in offsets
    ]  # fmt: skip


def _pistons(build: Build, axle: Axle, texts: Sequence[str] | None) -> list[PartOption]:
    brake = build.axle(axle).brake
    name = f"{axle}-pistons"
    sizes = [_length(name, text) for text in texts] if texts else brake_kind(brake).sold()
    place, found = f"{axle}.brake", []
    for size in sizes:
        words = f"{axle} pistons {size.text}" if brake.has_pads else f"{axle} cylinders {size.text}"
        if isinstance(brake, Disc):
            count = len(brake.piston_diameters)
            values: dict[str, Any] = {f"{place}.piston_diameters": [size.text] * count}
            paths = [f"{place}.piston_diameters[{index}]" for index in range(count)]
        else:
            values = {f"{place}.cylinder_diameter": size.text}
            paths = list(values)
        numbers = dict.fromkeys(paths, size.value)
        found.append(PartOption(words, values, numbers, 2, ((name, size.text),)))
    return found


def _frictions(build: Build, axle: Axle, texts: Sequence[str] | None) -> list[PartOption]:
    brake = build.axle(axle).brake
    path = f"{axle}.brake.{brake_kind(brake).friction(brake)}"
    if not path.endswith("friction"):
        if texts is None:
            return []
        raise BuildErrors.one(
            f"may {axle}-friction", "its shoes are given by their factor alone",
            "give the shoes themselves on Measure",
        )  # fmt: skip
    found = []
    for text in texts or FRICTIONS:
        value = _number(f"{axle}-friction", text)
        words, figures = f"{axle} friction {text}", {path: value}
        found.append(PartOption(words, figures, figures, 1, ((f"{axle}-friction", text),)))
    return found


def _rotors(build: Build, axle: Axle, texts: Sequence[str] | None) -> list[PartOption]:
    brake = build.axle(axle).brake
    known = isinstance(brake, Disc) and brake.rotor_outer_diameter is not None
    if not known or "rotor_outer_diameter" in getattr(brake, "idle", ()):
        if texts is None:
            return []
        raise BuildErrors.one(
            f"may {axle}-rotor", "its rotor's diameter does not count here",
            "give rotor and pad height on Measure",
        )  # fmt: skip
    assert isinstance(brake, Disc)
    assert brake.rotor_outer_diameter is not None
    own = brake.rotor_outer_diameter.value
    sizes = texts or [f"{(own + apart) * 1e3:.0f} mm" for apart in ROTORS_APART]
    path = f"{axle}.brake.rotor_outer_diameter"
    for text in sizes:
        _length(f"{axle}-rotor", text)
    name = f"{axle}-rotor"
    return [_figures(f"{axle} rotor {text}", {path: text}, 2, (name, text)) for text in sizes]


def _length(name: str, text: str) -> Any:
    try:
        return parse(text, LENGTH)
    except QuantityError as error:
        raise BuildErrors.one(f"may {name}", error.problem, error.remedy) from None


def _number(name: str, text: str) -> float:
    value = number_of(text)
    if value is None:
        raise BuildErrors.one(f"may {name}", f'"{text}" is no number', "write one, such as 0.4")
    if value <= 0.0:
        raise BuildErrors.one(f"may {name}", f'"{text}" is not above zero', "write another")
    return value


def _no_option(name: str, text: str, known: tuple[str, ...]) -> BuildErrors:
    return BuildErrors.one(f"may {name}", f'"{text}" is none of them', f"write {', '.join(known)}")
