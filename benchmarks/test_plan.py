"""The plan of a layout: laid out, and painted again at the press.

Wanted: 300 parts laid out in under 1 s; the plan of a demo follows the press within 16 ms. The
table of the first group gives the ratio to so many shortest paths by scipy alone, which is what
routing is made of.
"""

from collections.abc import Iterator
from typing import Any

import numpy as np
import pytest
from PySide6.QtWidgets import QApplication
from scipy.sparse import csr_array
from scipy.sparse.csgraph import dijkstra
from tests.plumbing.layouts import with_layout
from tests.plumbing.test_plan import crowd
from tests.waiting import rest

from benchmarks.repaint import opened
from urgens.document import Build, demo
from urgens.document.circuits import Circuits
from urgens.plumbing.drawing import plan_of
from urgens.ui.frame.window import MainWindow

PARTS = 300


@pytest.fixture(scope="module")
def crowded() -> Build:
    return with_layout(crowd(PARTS))


@pytest.mark.benchmark(group="a plan of 300 parts, at most 1 s")
def test_plan(benchmark: Any, crowded: Build) -> None:
    assert crowded.plumbing is not None
    circuits = Circuits(crowded, crowded.plumbing)
    plan = benchmark.pedantic(plan_of, (circuits,), rounds=5, warmup_rounds=1)
    assert len(plan.parts) == PARTS


@pytest.mark.benchmark(group="a plan of 300 parts, at most 1 s")
def test_as_many_shortest_paths_bare(benchmark: Any) -> None:
    """On a grid of 24 by 24 spots, level and upright: what a line looks at around itself."""
    side = 24
    spots = np.arange(side * side).reshape(side, side)
    pairs = [(spots[:, :-1], spots[:, 1:]), (spots[:-1], spots[1:])]
    one, other = (np.concatenate([pair[end].ravel() for pair in pairs]) for end in (0, 1))
    both = np.concatenate((one, other)), np.concatenate((other, one))
    graph = csr_array((np.ones(2 * one.size), both), shape=(spots.size,) * 2)

    def paths() -> int:
        for _ in range(PARTS):
            found, _ = dijkstra(graph, indices=0, return_predecessors=True)
        return int(np.isfinite(found).sum())

    assert benchmark.pedantic(paths, rounds=5, warmup_rounds=1) == spots.size


@pytest.fixture
def plumbed(qapp: QApplication) -> Iterator[MainWindow]:
    for window in opened(demo("library"), qapp):
        window.show_station("Plumb")
        rest(200)
        yield window


@pytest.mark.benchmark(group="to the repainted window")
def test_press_to_repainted_plan(benchmark: Any, plumbed: MainWindow, qapp: QApplication) -> None:
    efforts = iter([100.0, 120.0] * 100_000)

    def press() -> None:
        plumbed.session.set_effort(next(efforts))
        qapp.processEvents()

    benchmark(press)
    assert plumbed.session.effort in (100.0, 120.0)
