"""What hoses and lines of a drawn layout hold and stretch by, for each axle."""

from collections.abc import Set
from dataclasses import dataclass

import numpy as np

from urgens.document.build import Build
from urgens.document.circuits import Circuits, circuits_of
from urgens.document.layout.layout import BrakeLine, FittedPart
from urgens.document.layout.line_sheets import routed
from urgens.document.layout.threads import thread_table
from urgens.physics.axle import AXLES, Axle, Pair

HALF = 0.5


@dataclass(frozen=True)
class AxleLaid:
    """One axle's share of the layout; None where the layout does not tell.

    `hose_length` of all its hoses [m], of which `plain` are of no swelling of their own [m];
    `swells` what the others take [m³/Pa]; `fluid` what lines and hoses hold [m³].
    """

    hose_length: float | None
    plain: float
    swells: float
    fluid: float | None


NOT_LAID = AxleLaid(None, 0.0, 0.0, None)
_last: tuple[Build, Pair[AxleLaid]] | None = None


def laid_fluid(build: Build) -> Pair[AxleLaid]:
    """Return what the layout of a build tells of each axle's hoses and lines.

    Hoses count where all of them have a length, lines where all of them have a route and a tube
    that is sold. What feeds both axles counts half for each. What the last layout told is kept: an
    edit beside it leaves it as it is.

    The layout; the bore of the tube from the table of tubes.
    """
    global _last
    if build.plumbing is None:
        return Pair(NOT_LAID, NOT_LAID)
    if _last is None or not _same_layout(_last[0], build):
        circuits = circuits_of(build)
        assert circuits is not None
        _last = build, _told(circuits)
    return _last[1]


def _same_layout(one: Build, other: Build) -> bool:
    """Tell whether two builds share their layout, and the cylinder that feeds it."""
    shared = one.plumbing is other.plumbing and one.master is other.master
    return one is other or (shared and one.circuits == other.circuits)


def replaced(build: Build) -> frozenset[str]:
    """Return the paths of typed totals that the layout counts instead of."""
    laid = laid_fluid(build)
    found = {f"lines.{axle}_hose_length" for axle in AXLES if laid.of(axle).hose_length is not None}
    if all(one.fluid is not None for one in laid):
        found.add("lines.fluid_volume")
    if found and all(one.hose_length is not None and one.plain == 0.0 for one in laid):
        found.add("lines.hose_expansion")
    return frozenset(found)


def _told(circuits: Circuits) -> Pair[AxleLaid]:
    hoses = [part for part in circuits.plumbing.parts if part.kind == "hose"]
    pipes = [line for line in circuits.plumbing.lines if not line.direct]
    known = bool(hoses) and all(hose.free_length is not None for hose in hoses)
    shares = {hose.id: _share(circuits, hose) for hose in hoses}
    held = _held(circuits, pipes, hoses, shares) if known else None
    return Pair(*(_of_axle(axle, hoses, shares, held, known=known) for axle in AXLES))


def _of_axle(
    axle: Axle,
    hoses: list[FittedPart],
    shares: dict[str, Pair[float]],
    held: Pair[float] | None,
    *,
    known: bool,
) -> AxleLaid:
    if not known:
        return NOT_LAID
    length = plain = swells = 0.0
    for hose in hoses:
        assert hose.free_length is not None
        own = shares[hose.id].of(axle) * hose.free_length.value
        length += own
        if hose.expansion is None:
            plain += own
        else:
            swells += own * hose.expansion.value
    return AxleLaid(length, plain, swells, None if held is None else held.of(axle))


def _held(
    circuits: Circuits,
    pipes: list[BrakeLine],
    hoses: list[FittedPart],
    shares: dict[str, Pair[float]],
) -> Pair[float] | None:
    """Return what lines and hoses hold [m³], None where a line's route or tube is not known."""
    lengths = {one.line.id: one.length for one in routed(circuits.plumbing)}
    total = np.zeros(2)
    for line in pipes:
        tube = None if line.tube is None else thread_table().tube(line.tube)
        length = lengths.get(line.id, np.nan)
        if tube is None or not np.isfinite(length):
            return None
        total += _area(tube.bore.value) * length * np.array([*_share_of_line(circuits, line)])
    for hose in hoses:
        if hose.bore is not None and hose.free_length is not None:
            held = _area(hose.bore.value) * hose.free_length.value
            total += held * np.array([*shares[hose.id]])
    return Pair(*(float(one) for one in total))


def _area(bore: float) -> float:
    return float(np.pi / 4.0 * bore**2)


def _share(circuits: Circuits, part: FittedPart) -> Pair[float]:
    return _shared(circuits.behind(part), circuits.fed_circuits(part))


def _share_of_line(circuits: Circuits, line: BrakeLine) -> Pair[float]:
    """Return how much of a line is each axle's: by the wheels that only it feeds."""
    behind = circuits.wheels_behind(line.id)
    return _shared(behind, circuits.fed[line.id])


def _shared(behind: Set[str], fed: frozenset[str]) -> Pair[float]:
    """Return shares by the wheels behind, else by the circuit that feeds it."""
    axles = {wheel.partition("-")[0] for wheel in behind} or set(fed)
    if axles in ({"front"}, {"rear"}):
        return Pair(*(1.0 if {axle} == axles else 0.0 for axle in AXLES))
    return Pair(HALF, HALF)
