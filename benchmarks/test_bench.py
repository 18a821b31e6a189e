"""What is measured, beside bare NumPy or in absolute time where the text gives one.

Wanted: a log of 1,000,000 rows read and its presses found at most 2 times `numpy.loadtxt` of the
file; a stop on the test road at most 0.5 s, 200 at once at most 5 s; a posterior under 50 ms.
"""

from pathlib import Path
from typing import Any

import numpy as np
import pytest

from urgens.bench.logs.channels import propose, signals
from urgens.bench.logs.faults import rising
from urgens.bench.logs.file import read_log
from urgens.bench.logs.presses import presses
from urgens.bench.proof_state import stops_of
from urgens.bench.road.drives import drives, trial
from urgens.bench.road.torque import hold
from urgens.bench.stops.posterior import posterior, prior
from urgens.document import demo
from urgens.solve.system import system

ROWS = 1_000_000


@pytest.fixture(scope="module")
def long_log(tmp_path_factory: Any) -> Path:
    chance = np.random.default_rng(0)
    time = np.arange(ROWS) * 0.001
    front = np.maximum(np.sin(time / 4.0), 0.0) * 60.0 + np.abs(chance.normal(0.0, 0.1, ROWS))
    rear = np.minimum(front, 25.0 + 0.4 * (front - 25.0))
    path = Path(tmp_path_factory.mktemp("logs")) / "long.csv"
    head = "time [s],front pressure [bar],rear pressure [bar],foot [N],deceleration [g]"
    columns = np.c_[time, front, rear, front * 5.0, front * 0.01]
    np.savetxt(path, columns, fmt="%.3f", delimiter=",", header=head, comments="")
    return path


@pytest.mark.benchmark(group="log of 1,000,000 rows")
def test_bare_loadtxt(benchmark: Any, long_log: Path) -> None:
    benchmark.pedantic(np.loadtxt, (long_log,), {"delimiter": ",", "skiprows": 1}, rounds=3)


@pytest.mark.benchmark(group="log of 1,000,000 rows")
def test_log_read_and_presses_found(benchmark: Any, long_log: Path) -> None:
    def whole() -> int:
        log = read_log(long_log)
        found, _ = rising(signals(log, propose(log).channels))
        return len(presses(found))

    assert benchmark.pedantic(whole, rounds=3) > 30


@pytest.mark.benchmark(group="test road")
@pytest.mark.parametrize("count", [1, 200])
def test_stops_on_the_test_road(benchmark: Any, count: int) -> None:
    build = demo("roadster")
    one = trial(build, system(build), 0, 1.1, 27.8, hold(270.0))
    benchmark.pedantic(drives, ([one] * count,), rounds=3)


@pytest.mark.benchmark(group="posterior")
def test_posterior_of_five_stops(benchmark: Any) -> None:
    build = demo("roadster")
    known, stops = prior(build), stops_of(build)
    assert benchmark(posterior, build, stops, known).counted == 5
