"""A gauge box that is not there: the stand-in's pressures over a pseudo-terminal, 100 a second."""

import contextlib
import errno
import os
import threading
import time
import tty
from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np
from numpy.random import Generator

from urgens.bench.gauges.box_protocol import GREETING, VERSION
from urgens.bench.logs.table import SIMULATED
from urgens.bench.plant.plant import Plant, cylinder_pressures
from urgens.physics.axle import Axle
from urgens.physics.valve_law import Felt, ResidualLaw, at_rest
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.travel import pedal_travel
from urgens.studies.expected_pressures import place_of

RATE = 100  # lines a second
NOISE = 4e3  # Pa of a pressure, standard deviation: assumed
FOOT_NOISE = 0.5  # N
TRAVEL_NOISE = 1e-4  # m
CYCLE = ((0.0, 0.0), (1.0, 0.0), (13.0, 1.0), (14.5, 1.0), (22.0, 0.0), (24.0, 0.0))  # s, of most
HEADER = "t [ms],in [kPa],out [kPa],front [kPa],rear [kPa],foot [N],travel [mm]"


@dataclass
class Box:
    """A box across one valve of the stand-in; its valve remembers how it was pressed."""

    made: Plant
    valve: str | None
    seed: int = 1
    _chance: Generator = field(init=False)
    _before: list[float] = field(default_factory=lambda: [0.0] * 16)

    def __post_init__(self) -> None:
        self._chance = np.random.default_rng(self.seed)

    def head(self) -> str:
        """Return the greeting and the header."""
        return f"{GREETING} {VERSION} {SIMULATED}\n{HEADER}\n"

    def line(self, at: float, foot: float, lever: float | None = None) -> str:
        """Return one line of figures.

        at: time [s]; foot: [N]; lever: of a load-sensing valve, from droop (0) to bump (1) [-],
        None where its link is on.
        """
        ends, across = self._pressures(foot, lever)
        inlet, outlet = across if across is not None else ends
        pressures = np.array([inlet, outlet, *ends])
        shown = [
            f"{max(one + self._chance.normal(0.0, NOISE), 0.0) / 1e3:.1f}" for one in pressures
        ]
        force = max(foot + self._chance.normal(0.0, FOOT_NOISE), 0.0)
        way = self._travel(foot) + self._chance.normal(0.0, TRAVEL_NOISE)
        return ",".join([f"{at * 1e3:.0f}", *shown, f"{force:.1f}", f"{max(way, 0.0) * 1e3:.2f}"])

    def _felt(self, lever: float | None) -> Felt:
        standing = self.made.system.case(0)
        rest = at_rest(standing)
        if lever is None:
            return rest
        heavy = 1.4 * float(standing.rear_weight)  # where bump is: assumed
        return Felt(lever * heavy, lever * heavy)

    def _pressures(
        self, foot: float, lever: float | None
    ) -> tuple[tuple[float, float], tuple[float, float] | None]:
        """Return the pressures at both axles' brakes, and across the valve [Pa]."""
        system, felt = self.made.system, self._felt(lever)
        found = cylinder_pressures(system, np.asarray(foot))
        ends, across, memory = [], None, 0
        for axle, pressure in zip(Axle, found, strict=True):
            here = float(pressure)
            for place, law in enumerate(system.valves.of(axle)):
                into, kept = here, float(law.kept) if isinstance(law, ResidualLaw) else 0.0
                applied = here if kept else float(law.outlet(here, felt))
                here = max(applied, min(self._before[memory], max(here, kept)))
                self._before[memory] = here
                memory += 1
                if self.valve is not None and (axle, place) == place_of(self.valve):
                    across = into, here
            ends.append(here)
        return (ends[0], ends[1]), across

    def _travel(self, foot: float) -> float:
        system = self.made.system
        effort = np.asarray(foot)
        lines = rolling_lines(system, pushrod_force(system, effort), system.case(0))
        found = float(pedal_travel(system, effort, lines.front, lines.rear))
        return found if np.isfinite(found) else float(system.volumes.floor)


def cycling(most: float) -> Callable[[float], float]:
    """Return a foot that presses and lets go by itself; most: the hardest [N].

    Source: by definition: slowly up, a hold, slowly down.
    """
    times, shares = np.array(CYCLE).T

    def foot(at: float) -> float:
        return most * float(np.interp(at % times[-1], times, shares))

    return foot


class SimulatedBox:
    """A box that runs in a thread of its own; `port` is where it is read."""

    def __init__(
        self,
        box: Box,
        foot: Callable[[float], float],
        lever: Callable[[], float | None] = lambda: None,
    ) -> None:
        self._box, self._foot, self._lever = box, foot, lever
        self._master, self._slave = os.openpty()
        tty.setraw(self._slave)
        os.set_blocking(self._master, False)
        self._handles: tuple[int, ...] = (self._master, self._slave)
        self.port = os.ttyname(self._slave)
        self.lost = 0  # lines nobody fetched in time
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._run, name="gauge box", daemon=True)
        self._thread.start()

    def close(self) -> None:
        """End it, as if its cable were pulled. Source: by definition."""
        self._stop.set()
        self._thread.join()
        for handle in self._handles:  # emptied at once: who closes it twice closes nothing else
            with contextlib.suppress(OSError):
                os.close(handle)
        self._handles = ()

    def _run(self) -> None:
        start, number = time.monotonic(), 0
        self._write(self._box.head())
        while not self._stop.wait(max(start + number / RATE - time.monotonic(), 0.0)):
            at = number / RATE
            self._write(self._box.line(at, self._foot(at), self._lever()) + "\n")
            number += 1
            if number % RATE == 0:  # whoever comes later is told what it is as well
                self._write(self._box.head())

    def _write(self, text: str) -> None:
        try:
            os.write(self._master, text.encode())
        except OSError as error:
            if error.errno != errno.EAGAIN:
                raise
            self.lost += text.count("\n")
