"""A solve and a sweep beside the same formulas in bare NumPy; whole processes beside imports.

Wanted: one solve under 2 ms and at most 3 times the bare formulas, a sizing map of 30 by 120
under 50 ms and at most 3 times, a sweep of 400 presses at most 3 times and at most 4 where the
rear valve follows the load or holds a ball, `urgens solve` as a process at most 1.3 times its bare
imports. The table of a group gives the ratio in brackets.
"""

import subprocess
import sys
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from tests.builds import bed, bed_text

from benchmarks.bare import Bare
from urgens.document import Build, edited, with_changes
from urgens.guidance import findings
from urgens.guidance.advice.ranked_ways import ranked_ways
from urgens.physics.vehicle import StaticVehicle
from urgens.solve import first_lock, press, solve, system
from urgens.solve.rear_first import rear_first_anywhere
from urgens.solve.solution import Solution
from urgens.studies.robustness import robustness
from urgens.studies.settle import open_figures, still_to_settle
from urgens.studies.sizing import sizing_map
from urgens.studies.sizing_regions import regions
from urgens.studies.valve_choice import candidates

SURFACES = np.arange(0.15, 0.901, 0.05)
EFFORTS = np.linspace(0, 450, 400)
IMPORTS = "import numpy, pydantic, scipy.optimize"


@pytest.fixture
def bakery() -> Build:
    return bed("bakery")


@pytest.fixture
def richest(bakery: Build) -> Build:
    """A build whose rear valve feels the load as it moves: an equilibrium in every press."""
    valve = {
        "kind": "load-sensing",
        "points": [["400 kg", "30 bar"], ["900 kg", "80 bar"]],
        "slope": 0.3,
        "follows": "dynamic",
    }
    downforce = {"front_cl_area": "0.1 m^2", "rear_cl_area": "0.2 m^2"}
    changes = {"valves.rear[0]": valve, "vehicle.downforce": downforce}
    return with_changes(bakery, changes)


def test_the_bare_formulas_are_the_same(bakery: Build) -> None:
    """A benchmark beside other formulas would mean nothing."""
    solution = solve(bakery)
    bare = Bare(solution.system)
    ours = press(solution.system, EFFORTS, solution.standing, 0.9)
    *_, achieved, travel = bare.sweep(EFFORTS, 0.9)
    moved = ours.rear_force > 0  # below it the force does not tell the pressure

    assert achieved == pytest.approx(ours.achieved_z)
    assert travel[moved] == pytest.approx(ours.pedal_travel[moved], nan_ok=True)
    # One secant in a bracket: exact but where a knee lies in it.
    assert bare.solve(SURFACES)[9] == pytest.approx(solution.lock.effort, rel=1e-3)


def whole(build: Build) -> Solution:
    """A solution of which every part has been asked for."""
    found = solve(build)
    for part in ("presses", "lock", "crossings", "regulation", "half_failed", "wanted_effort",
                 "hold"):  # fmt: skip
        getattr(found, part)
    return found


@pytest.mark.benchmark(group="one whole solve: 3 times bare at most")
def test_one_solve(benchmark: Any, bakery: Build) -> None:
    assert benchmark(whole, bakery).build is bakery


@pytest.mark.benchmark(group="one whole solve: 3 times bare at most")
def test_one_solve_of_the_richest(benchmark: Any, richest: Build) -> None:
    assert benchmark(whole, richest).build is richest


@pytest.mark.benchmark(group="one whole solve: 3 times bare at most")
def test_one_solve_bare(benchmark: Any, bakery: Build) -> None:
    assert len(benchmark(Bare(system(bakery)).solve, SURFACES)) > 9


@pytest.mark.benchmark(group="a sweep of 400 presses")
def test_sweep(benchmark: Any, bakery: Build) -> None:
    solution = solve(bakery)
    swept = benchmark(press, solution.system, EFFORTS, solution.standing, 0.9)
    assert swept.effort.shape == EFFORTS.shape


@pytest.mark.benchmark(group="a sweep of 400 presses")
def test_sweep_of_the_richest(benchmark: Any, richest: Build) -> None:
    solution = solve(richest)
    swept = benchmark(press, solution.system, EFFORTS, solution.standing, 0.9)
    assert swept.effort.shape == EFFORTS.shape


@pytest.mark.benchmark(group="a sweep of 400 presses")
def test_sweep_with_a_ball(benchmark: Any, bakery: Build) -> None:
    valve = {"kind": "inertia-sensing", "slope": 0.3, "ball_angle": "15 deg"}
    solution = solve(with_changes(bakery, {"valves.rear[0]": valve}))
    swept = benchmark(press, solution.system, EFFORTS, solution.standing, 0.9)
    assert swept.effort.shape == EFFORTS.shape


@pytest.mark.benchmark(group="a sweep of 400 presses")
def test_sweep_bare(benchmark: Any, bakery: Build) -> None:
    assert benchmark(Bare(system(bakery)).sweep, EFFORTS, 0.9)[0].shape == EFFORTS.shape


@pytest.mark.benchmark(group="beside a solve")
def test_edit(benchmark: Any, bakery: Build) -> None:
    knees = iter(range(200, 1_000_000))
    changed = benchmark(lambda: edited(bakery, "valves.rear[0].knee", f"{next(knees)} psi"))
    assert changed != bakery


@pytest.mark.benchmark(group="beside a solve")
def test_findings(benchmark: Any, bakery: Build) -> None:
    assert benchmark(findings, solve(bakery))


@pytest.mark.benchmark(group="a whole process")
def test_solve_as_a_process(benchmark: Any, tmp_path: Path) -> None:
    path = tmp_path / "truck.urgens.json"
    path.write_text(bed_text("bakery"), encoding="utf-8")
    command = [sys.executable, "-m", "urgens", "solve", str(path)]
    run = benchmark.pedantic(subprocess.run, (command,), {"capture_output": True}, rounds=9)
    assert run.returncode == 0


@pytest.mark.benchmark(group="a whole process")
def test_imports_as_a_process(benchmark: Any) -> None:
    command = [sys.executable, "-c", IMPORTS]
    run = benchmark.pedantic(subprocess.run, (command,), {"capture_output": True}, rounds=9)
    assert run.returncode == 0


@pytest.mark.benchmark(group="what is still to settle")
def test_ranking(benchmark: Any, bakery: Build) -> None:
    assert benchmark(still_to_settle, bakery)


@pytest.mark.benchmark(group="what is still to settle")
def test_one_solve_of_as_many_variants(benchmark: Any, bakery: Build) -> None:
    figures = open_figures(bakery)
    whole = system(bakery)
    standing = StaticVehicle(
        *(np.repeat(np.asarray(v)[None, :, None], 2 * len(figures), 0) for v in whole.standing)
    )
    assert benchmark(first_lock, whole, standing, np.array([0.9])).axle.size > 1


MAP = np.linspace(0.012, 0.04, 30), np.linspace(3.0, 9.0, 120)


def _window(build: Build) -> tuple[float, float, float, float]:
    targets = build.targets
    low, high = (end.value for end in targets.pressure_window)
    return targets.comfortable_effort.value, targets.deceleration, low, high


def test_the_bare_map_is_the_same(bakery: Build) -> None:
    ours = sizing_map(bakery, 0, MAP[0], MAP[0], MAP[1])
    pressure, effort, pad, used, *_ = Bare(system(bakery)).sizing(*MAP, _window(bakery))
    kept = np.isfinite(effort) & np.isfinite(ours.effort)

    assert (kept == np.isfinite(ours.effort)).mean() > 0.99
    assert pressure == pytest.approx(ours.pressure)
    assert effort[kept] == pytest.approx(ours.effort[kept], rel=1e-3)
    assert used[kept] == pytest.approx(ours.stroke_used[kept], rel=1e-3)
    shown = kept & np.isfinite(ours.pedal_travel)
    assert pad[shown] == pytest.approx(ours.pedal_travel[shown], rel=1e-3)


@pytest.mark.benchmark(group="a map of 30 bores and 120 ratios")
def test_sizing_map(benchmark: Any, bakery: Build) -> None:
    bores, ratios = MAP
    assert benchmark(sizing_map, bakery, 0, bores, bores, ratios).verdict.shape == (30, 120)


@pytest.mark.benchmark(group="a map of 30 bores and 120 ratios")
def test_sizing_map_bare(benchmark: Any, bakery: Build) -> None:
    bare, window = Bare(system(bakery)), _window(bakery)
    assert benchmark(bare.sizing, *MAP, window)[0].shape == (30, 120)


@pytest.mark.benchmark(group="a map of 30 bores and 120 ratios")
def test_exact_regions(benchmark: Any, bakery: Build) -> None:
    found = benchmark(regions, bakery, 0, MAP[0], MAP[0], (3.0, 9.0))
    assert found.verdict.shape[0] == 30


@pytest.mark.benchmark(group="a whole process")
def test_size_as_a_process(benchmark: Any, tmp_path: Path) -> None:
    path = tmp_path / "truck.urgens.json"
    path.write_text(bed_text("bakery"), encoding="utf-8")
    command = [sys.executable, "-m", "urgens", "size", str(path)]
    run = benchmark.pedantic(subprocess.run, (command,), {"capture_output": True}, rounds=9)
    assert run.returncode == 0


@pytest.mark.benchmark(group="100,000 draws")
@pytest.mark.parametrize("name", ["bakery", "roadster"])
def test_robustness(benchmark: Any, name: str) -> None:
    build = bed(name)
    found = benchmark.pedantic(robustness, (build,), rounds=3)
    assert found is not None
    assert found.draws == 100_000


@pytest.mark.benchmark(group="ways to balance: first within 0.3 s, how sure within 3 s")
@pytest.mark.parametrize("sure", [False, True])
def test_candidates(benchmark: Any, bakery: Build, *, sure: bool) -> None:
    """The first cards, and ranked by how sure they are: 20,000 draws of each."""
    found = benchmark.pedantic(candidates, (bakery,), {"sure": sure}, rounds=3)
    assert found[0].kind != "none"


@pytest.mark.benchmark(group="ways to balance: first within 0.3 s, how sure within 3 s")
def test_ranked_ways(benchmark: Any, bakery: Build) -> None:
    """What Choose shows in the end: with what each brings, and how sure the build is as it is."""
    found = benchmark.pedantic(ranked_ways, (bakery,), rounds=3)
    assert found.recommended is not None


@pytest.mark.benchmark(group="every road: one sweep of efforts beside first locks of all")
@pytest.mark.parametrize("way", [rear_first_anywhere, first_lock])
def test_every_road(benchmark: Any, bakery: Build, way: Any) -> None:
    made = system(bakery)
    asked = (made, made.cases, SURFACES) if way is first_lock else (made, made.cases, 0.15, 0.9)
    assert benchmark(way, *asked) is not None


@pytest.mark.benchmark(group="one solve, all of it")
def test_whole_solve(benchmark: Any, bakery: Build) -> None:
    """Every part asked for: wanted at most 3 times the bare arrays."""

    def whole() -> object:
        found = solve(bakery)
        parts = found.lock, found.crossings, found.regulation, found.half_failed, found.shown
        return *parts, found.wanted_effort, found.hold

    assert benchmark(whole)


@pytest.mark.benchmark(group="one solve, all of it")
def test_bare_arrays_of_a_whole_solve(benchmark: Any, bakery: Build) -> None:
    bare = Bare(solve(bakery).system)
    assert benchmark(bare.solve, SURFACES)
