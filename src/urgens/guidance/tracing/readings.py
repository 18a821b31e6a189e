"""Readings against simulated causes of this build: how likely each cause shows so."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from math import hypot
from typing import NamedTuple

import numpy as np

from urgens.document import Build, BuildErrors
from urgens.guidance.tracing.simulated import (
    AT_REST,
    Figures,
    HowRead,
    Simulated,
    as_read,
    at_feet,
    figures,
    rows_of,
)
from urgens.physics.arrays import Array
from urgens.physics.axle import AXLES
from urgens.quantity import (
    FORCE,
    LENGTH,
    PRESSURE,
    TEMPERATURE,
    VOLUME,
    QuantityError,
    QuantityKind,
    decimal,
    parse,
)
from urgens.solve.system import system
from urgens.studies.draws import drawn, laid, spreads
from urgens.studies.heat import mass_heated

DRAWS = 120
SEED = 1
STRAYS = 0.05  # of readings that are not of their cause: misread, or two things wrong; assumed
WIDE = 0.5  # of the computed figure: how far a stray lies; assumed
LITTLE = 1e-12
FADES = 0.15  # of the friction, by heat: assumed


class Read(NamedTuple):
    """One kind of reading: in words, its dimension, its own error [SI] and share, its figure."""

    words: str
    exponents: QuantityKind | None
    error: float
    share: float
    figure: Callable[[Figures], Array]
    foot: bool = True  # whether it is read at a foot
    moving: bool = False  # whether only a vehicle that moves shows it
    fades: float = 0.0  # share that heat may do to it, which nobody has told


# Errors of a ruler at the pad, of a gauge, of a decelerometer: common practice.
KINDS: Mapping[str, Read] = {
    "travel": Read("pad travel", LENGTH, 3e-3, 0.0, lambda f: f.travel),
    "front-pressure": Read("pressure in front", PRESSURE, 1e5, 0.02, lambda f: f.front),
    "rear-pressure": Read("pressure behind", PRESSURE, 1e5, 0.02, lambda f: f.rear),
    "deceleration": Read(
        "deceleration", None, 0.03, 0.05, lambda f: f.deceleration, moving=True, fades=FADES
    ),
    "front-flow": Read("a stroke in front", VOLUME, 5e-7, 0.3, lambda f: f.front_flow, foot=False),
    "rear-flow": Read("a stroke behind", VOLUME, 5e-7, 0.3, lambda f: f.rear_flow, foot=False),
    "heat-ratio": Read(
        "the front's rise over the rear's, air at 20 °C assumed",
        None,
        0.1,
        0.2,
        lambda f: _ratio(f),
        foot=False,
        moving=True,
    ),
}
# How a vehicle may have been as something was read; standing unless that shows nothing.
HOW: Mapping[str, str] = {
    "standing": "standing", "moving": "moving", "engine-off": "engine off, vacuum pumped out",
    "hot": "brakes hot",
}  # fmt: skip
AIR = 293.15  # K, around the vehicle: assumed
NO_FOOT = 200.0  # N: of what is read without one, an ordinary one
MOST_FOOT = 3000.0  # N
MOST: Mapping[str, float] = {
    "travel": 0.6, "front-pressure": 4e7, "rear-pressure": 4e7, "deceleration": 3.0,
    "heat-ratio": 50.0, "front-flow": 1e-4, "rear-flow": 1e-4,
}  # fmt: skip


def _ratio(figures: Figures) -> Array:
    return np.asarray(figures.front_force / np.maximum(figures.rear_force, 1.0))


@dataclass(frozen=True)
class TraceReading:
    """What was read [SI] at a foot [N]: its kind, at which stroke, how, and where it comes from."""

    kind: str
    value: float
    effort: float
    stroke: int = 1
    source: str = "typed"
    how: HowRead = AT_REST


def reading(name: str, typed: str, effort: str, how: Sequence[str] = ()) -> TraceReading:
    """Return a reading as it is typed.

    name: of its kind, a travel's with its stroke behind ("travel-3") [text]; typed: what was read
    [text]; effort: the foot [text]; how: the vehicle was, of HOW [text].
    Raises BuildErrors where it is none, or beyond any vehicle.
    """
    kind, _, stroke = name.rpartition("-") if name[-2:] in ("-1", "-2", "-3") else (name, "", "1")
    if kind not in KINDS:
        raise BuildErrors.one(name, "is no reading", f"choose one of {', '.join(KINDS)}")
    try:
        value = _value(kind, typed)
        asks = KINDS[kind].foot
        foot = parse(effort, FORCE).value if asks else NO_FOOT
    except (QuantityError, ValueError) as error:
        raise BuildErrors.one(name, f"cannot be read ({error})", 'write "60 mm"@"300 N"') from None
    if not 0.0 < foot <= MOST_FOOT:
        raise BuildErrors.one(name, f"no foot presses {effort}", "read it again")
    if not 0.0 <= value <= MOST[kind]:
        raise BuildErrors.one(name, f"{typed} is beyond any vehicle", "read it again")
    return TraceReading(kind, value, foot, int(stroke), how=_how(name, KINDS[kind], how))


def _how(name: str, kind: Read, how: Sequence[str]) -> HowRead:
    """Return how a vehicle was; raises BuildErrors where it cannot have been so."""
    for one in how:
        if one not in HOW:
            raise BuildErrors.one(name, f'"{one}" is no way to read', f"choose of {', '.join(HOW)}")
    if "standing" in how and "moving" in how:
        raise BuildErrors.one(name, "is read standing and moving", "write one of them")
    if "standing" in how and kind.moving:
        raise BuildErrors.one(name, "is not read on a vehicle that stands", "leave standing away")
    return HowRead(kind.moving or "moving" in how, "engine-off" not in how, "hot" in how)


def _value(kind: str, typed: str) -> float:
    """Return a reading as typed [SI]; two temperatures are the ratio of what both rose by."""
    exponents = KINDS[kind].exponents
    if exponents is not None:
        return parse(typed, exponents).value
    if kind != "heat-ratio":
        return decimal(typed)
    front, both, rear = typed.partition("/")
    if not both:
        raise QuantityError("there is one temperature", "write 210 °C / 150 °C")
    rises = [parse(one, TEMPERATURE).value - AIR for one in (front, rear)]
    if min(rises) <= 0.0:
        raise QuantityError("both are not warmer than the air", "write 210 °C / 150 °C")
    return rises[0] / rises[1]


class Weighed(NamedTuple):
    """How likely readings are of each cause (c,) and of something else [-], and the best figure.

    `best` (c, readings) is what the size of each cause that fits best would show [SI]; `each`
    (c, readings) how likely that cause makes every reading by itself [-].
    """

    causes: Array
    other: float
    best: Array
    as_built: Array
    each: Array


def weighed(
    build: Build, causes: tuple[str, ...], readings: Sequence[TraceReading], case: int
) -> Weighed:
    """Return how likely readings are of each cause, up to one factor.

    causes: by id [text]; readings: of it; case: place of the load
    case [-].
    Source: normal errors of reading and of what is known of the build; a share of strays.
    """
    rows = rows_of(causes)
    if not readings:
        none = np.empty((len(causes), 0))
        return Weighed(np.ones(len(causes)), 1.0, none, np.empty(0), none)
    shown = _shown(build, rows, readings, case)
    read = np.array([one.value for one in readings])
    error = _errors(build, readings, shown[0], case)
    far = (read - shown) / error
    wide = np.hypot(4.0 * error, WIDE * np.abs(shown[0]))
    stray = np.exp(-0.5 * np.square((read - shown[0]) / wide)) * error / wide
    each = np.exp(-0.5 * np.square(np.minimum(np.abs(far), 30.0)))
    mixed = (1.0 - STRAYS) * each + STRAYS * stray
    whole = np.prod(mixed, axis=1) + LITTLE
    found, best = np.empty(len(causes)), np.empty((len(causes), len(readings)))
    alone = np.empty_like(best)
    names = np.array(rows.causes)
    for place, cause in enumerate(causes):
        own = np.flatnonzero(names == cause)
        found[place] = whole[own].mean()
        best[place] = shown[own[np.argmax(whole[own])]]
        alone[place] = mixed[own].mean(axis=0)
    return Weighed(found, float(np.prod(stray)) + LITTLE, best, shown[0], alone)


def _shown(build: Build, rows: Simulated, readings: Sequence[TraceReading], case: int) -> Array:
    """Return what every row would show, shape (r, readings) [SI]."""
    columns = np.empty((len(rows.causes), len(readings)))
    for stroke, how in {(one.stroke, one.how) for one in readings}:
        own = [
            place for place, one in enumerate(readings) if (one.stroke, one.how) == (stroke, how)
        ]
        efforts = np.array([readings[place].effort for place in own])
        found = figures(build, rows, efforts, case, stroke, how)
        for column, place in enumerate(own):
            kind = readings[place].kind
            columns[:, place] = KINDS[kind].figure(found)[:, column] * _by_mass(build, kind)
    return columns


def _by_mass(build: Build, kind: str) -> float:
    """Return by how much the same work heats the front more than the rear [-].

    Source: heat over mass; where a mass is not known both are taken as equal.
    """
    if kind != "heat-ratio":
        return 1.0
    masses = [mass_heated(build, axle) for axle in AXLES]
    return 1.0 if masses[0] is None or masses[1] is None else masses[1] / masses[0]


def _errors(build: Build, readings: Sequence[TraceReading], shown: Array, case: int) -> Array:
    """Return the error of each reading beside what is computed (readings,) [SI]."""
    efforts = tuple(one.effort for one in readings)
    spread = {how: _spread(build, efforts, case, how) for how in {one.how for one in readings}}
    found = []
    for place, (one, value) in enumerate(zip(readings, shown.tolist(), strict=True)):
        kind = KINDS[one.kind]
        off = np.std(kind.figure(spread[one.how])[:, place]) * _by_mass(build, one.kind)
        fades = kind.fades * value if one.how.hot else 0.0
        found.append(hypot(kind.error, kind.share * value, float(off), fades))
    return np.array(found)


def _spread(build: Build, efforts: tuple[float, ...], case: int, how: HowRead) -> Figures:
    """Return the figures of draws of what is known of the build, shape (draws, e)."""
    known = spreads(build, case)
    standing, at = system(build).case(case), np.array(efforts)
    if not known:
        return at_feet(as_read(system(build), build, how), standing, at[None, :], moving=how.moving)
    values = drawn(build, known, DRAWS, np.random.default_rng(SEED))
    made = as_read(system(build, over=laid(build, known, values[:, :, None])), build, how)
    return at_feet(made, standing, at, moving=how.moving)
