"""Where the regions of the sizing map end: exact pedal ratios, bore by bore."""

from dataclasses import dataclass, replace

import numpy as np

from urgens.document import Build
from urgens.physics import booster
from urgens.physics.arrays import Array
from urgens.physics.cylinder import force_for
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System, system
from urgens.solve.travel import strokes, travel
from urgens.studies.sizing import (
    force_that_holds,
    force_wanted,
    holds_are_wanted,
    of_all,
    pair_windows,
)
from urgens.studies.sizing_windows import Ends, MissedWindow, Turns, half_turns, ratio_ends


@dataclass(frozen=True)
class Regions:
    """Stretches of ratios with one verdict each, bore by bore.

    `edges` (b, n + 1) [-] rise along a row, and may coincide; `verdict` (b, n) of Verdict holds
    between two of them.
    """

    bores: Array
    edges: Array
    verdict: Array

    def row(self, index: int) -> list[tuple[float, float, MissedWindow]]:
        """Return a bore's stretches from ratio to ratio, neighbours of one verdict made one.

        index: of the bore [-].
        """
        found: list[tuple[float, float, MissedWindow]] = []
        edges, verdicts = self.edges[index], self.verdict[index]
        for start, end, value in zip(edges[:-1], edges[1:], verdicts, strict=True):
            verdict = MissedWindow(int(value))
            if found and found[-1][2] is verdict:
                found[-1] = (found[-1][0], float(end), verdict)
            elif end > start:
                found.append((float(start), float(end), verdict))
        return found

    def at(self, index: int, ratio: float) -> MissedWindow:
        """Return the verdict of a bore at a ratio of its stretches.

        index: of the bore [-]; ratio: [-].
        """
        return next(kind for start, end, kind in self.row(index) if start <= ratio <= end)


def regions(
    build: Build, case: int, bores: Array, rear_bores: Array, span: tuple[float, float]
) -> Regions:
    """Return where each window of the sizing map is met, exactly.

    case: place of the load case [-]; bores, rear_bores: (b,) [m].
    span: lowest and highest ratio [-].
    Source: each window but one half lost is met from a ratio on, or up to one: the force for the
    wanted deceleration is the same at any ratio, and so are the strokes there; pressure rises with
    the ratio.
    """
    base = system(build)
    standing = base.case(case)
    made = of_all(base, bores, rear_bores, np.array([1.0]))
    made = replace(made, pedal_ratio=1.0)
    force = force_wanted(build, made, standing, span[1])
    foot = base.max_effort * float(base.pedal_efficiency)
    used, floor = _stroke_and_floor(build, made, standing, force)
    low, high = _pressure_ends(build, base, made)
    none, free = np.full((bores.size, 1), -np.inf), np.full((bores.size, 1), np.inf)
    windows: dict[MissedWindow, Ends | Turns] = {
        MissedWindow.EFFORT: Ends(np.nan_to_num(force / foot, nan=np.inf), free),
        MissedWindow.PRESSURE: Ends(low, high),
        MissedWindow.TRAVEL: Ends(none, floor),
        MissedWindow.STROKE: Ends(
            np.where(used <= 1.0 - build.targets.stroke_reserve, none, free), free
        ),
    }
    if not build.master.one_chamber:
        half = half_turns(made, standing, build.targets.surface, span)
        windows[MissedWindow.HALF_FAILED] = half
    comfortable = build.targets.comfortable_effort.value * float(base.pedal_efficiency)
    windows[MissedWindow.RATIO] = ratio_ends(build, comfortable, force)
    if holds_are_wanted(build):
        held = force_that_holds(build, made, standing, span[1])
        windows[MissedWindow.HOLD] = Ends(np.nan_to_num(held / foot, nan=np.inf), free)
    windows |= pair_windows(build, made, standing)
    return _stretches(bores, windows, span)


def _stroke_and_floor(
    build: Build, system: System, standing: StaticVehicle, force: Array
) -> tuple[Array, Array]:
    """Return the share of stroke used, and the ratio at which too little pedal is left (b, 1)."""
    pushed = np.nan_to_num(force, nan=0.0)
    lines = rolling_lines(system, pushed, standing)
    rod = travel(system, np.ones_like(pushed), lines.front, lines.rear).pad  # at a ratio of 1
    chambers = zip(strokes(system, lines.front, lines.rear), system.volumes.chambers, strict=True)
    used = np.max([np.broadcast_to(s / c.stroke, pushed.shape) for s, c in chambers], axis=0)
    furthest = system.volumes.floor - build.targets.pedal_reserve.value
    return used, np.asarray(furthest / rod)


def _pressure_ends(build: Build, base: System, system: System) -> tuple[Array, Array]:
    """Return the ratios between which the pressure is in its window (b, 1)."""
    part, assist = system.cylinders.front, base.booster
    foot = build.targets.comfortable_effort.value * float(base.pedal_efficiency)
    low, high = (
        booster.input_force(
            force_for(part, quantity.value) / part.share,
            crack_force=assist.crack_force,
            jump_in=assist.jump_in,
            gain=assist.gain,
            assist_limit=assist.assist_limit,
        )
        / foot
        for quantity in build.targets.pressure_window
    )
    return low, high


def _stretches(
    bores: Array, windows: dict[MissedWindow, Ends | Turns], span: tuple[float, float]
) -> Regions:
    columns = [np.full((bores.size, 1), end) for end in span]
    columns += [np.clip(window.edges, *span) for window in windows.values()]
    edges = np.sort(np.concatenate(columns, axis=1), axis=1)
    middle = (edges[:, :-1] + edges[:, 1:]) / 2.0
    verdict = np.full(middle.shape, int(MissedWindow.FITS))
    for kind, window in sorted(windows.items(), reverse=True):  # the first one missed counts
        verdict = np.where(window.holds(middle), verdict, int(kind))
    return Regions(bores, edges, verdict)
