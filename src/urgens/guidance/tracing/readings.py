"""Readings against simulated causes of this build: how likely each cause shows so."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from urgens.document import Build, BuildErrors
from urgens.guidance.tracing.simulated import Figures, Simulated, at_feet, figures, rows_of
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


class Read(NamedTuple):
    """One kind of reading: in words, its dimension, its own error [SI] and share, its figure."""

    words: str
    exponents: QuantityKind | None
    error: float
    share: float
    figure: Callable[[Figures], Array]
    foot: bool = True  # whether it is read at a foot


# Errors of a ruler at the pad, of a gauge, of a decelerometer: common practice.
KINDS: Mapping[str, Read] = {
    "travel": Read("pad travel", LENGTH, 3e-3, 0.0, lambda f: f.travel),
    "front-pressure": Read("pressure in front", PRESSURE, 1e5, 0.02, lambda f: f.front),
    "rear-pressure": Read("pressure behind", PRESSURE, 1e5, 0.02, lambda f: f.rear),
    "deceleration": Read("deceleration", None, 0.03, 0.05, lambda f: f.deceleration),
    "front-flow": Read("a stroke in front", VOLUME, 5e-7, 0.3, lambda f: f.front_flow, foot=False),
    "rear-flow": Read("a stroke behind", VOLUME, 5e-7, 0.3, lambda f: f.rear_flow, foot=False),
    "heat-ratio": Read(
        "the front's rise over the rear's, air at 20 °C assumed",
        None,
        0.1,
        0.2,
        lambda f: _ratio(f),
        foot=False,
    ),
}
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
    """What was read [SI] at a foot [N]: its kind, at which stroke, and where it comes from."""

    kind: str
    value: float
    effort: float
    stroke: int = 1
    source: str = "typed"


def reading(name: str, typed: str, effort: str) -> TraceReading:
    """Return a reading as it is typed.

    name: of its kind, a travel's with its stroke behind ("travel-3") [text]; typed: what was read
    [text]; effort: the foot [text].
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
    return TraceReading(kind, value, foot, int(stroke))


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

    `best` (c, readings) is what the size of each cause that fits best would show [SI].
    """

    causes: Array
    other: float
    best: Array
    as_built: Array


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
        return Weighed(np.ones(len(causes)), 1.0, none, np.empty(0))
    shown = _shown(build, rows, readings, case)
    read = np.array([one.value for one in readings])
    error = _errors(build, readings, shown[0], case)
    far = (read - shown) / error
    wide = np.hypot(4.0 * error, WIDE * np.abs(shown[0]))
    stray = np.exp(-0.5 * np.square((read - shown[0]) / wide)) * error / wide
    each = np.exp(-0.5 * np.square(np.minimum(np.abs(far), 30.0)))
    whole = np.prod((1.0 - STRAYS) * each + STRAYS * stray, axis=1) + LITTLE
    found, best = np.empty(len(causes)), np.empty((len(causes), len(readings)))
    names = np.array(rows.causes)
    for place, cause in enumerate(causes):
        own = np.flatnonzero(names == cause)
        found[place] = whole[own].mean()
        best[place] = shown[own[np.argmax(whole[own])]]
    return Weighed(found, float(np.prod(stray)) + LITTLE, best, shown[0])


def _shown(build: Build, rows: Simulated, readings: Sequence[TraceReading], case: int) -> Array:
    """Return what every row would show, shape (r, readings) [SI]."""
    columns = np.empty((len(rows.causes), len(readings)))
    for stroke in {one.stroke for one in readings}:
        own = [place for place, one in enumerate(readings) if one.stroke == stroke]
        efforts = np.array([readings[place].effort for place in own])
        found = figures(build, rows, efforts, case, stroke)
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
    spread = _spread(build, efforts, case)
    found = []
    for place, (one, value) in enumerate(zip(readings, shown.tolist(), strict=True)):
        kind = KINDS[one.kind]
        off = np.std(kind.figure(spread)[:, place]) * _by_mass(build, one.kind)
        found.append(float(np.hypot(np.hypot(kind.error, kind.share * value), off)))
    return np.array(found)


def _spread(build: Build, efforts: tuple[float, ...], case: int) -> Figures:
    """Return the figures of draws of what is known of the build, shape (draws, e)."""
    known = spreads(build, case)
    standing = system(build).case(case)
    if not known:
        return at_feet(system(build), standing, np.array(efforts)[None, :])
    values = drawn(build, known, DRAWS, np.random.default_rng(SEED))
    made = system(build, over=laid(build, known, values[:, :, None]))
    return at_feet(made, standing, np.array(efforts))
