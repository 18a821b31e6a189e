"""A solve and a sweep beside the same formulas in bare NumPy; whole processes beside imports."""

import subprocess
import sys
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest

from benchmarks.bare import Bare
from benchmarks.conftest import fastest, median
from urgens.build import demo, demo_text, edited
from urgens.guidance import findings
from urgens.solve import press, solve, system

Report = Callable[..., None]


def test_the_bare_formulas_are_the_same() -> None:
    """A benchmark beside other formulas would mean nothing."""
    solution = solve(demo("pickup"))
    bare = Bare(solution.system)
    efforts = np.linspace(0, 450, 400)
    ours = press(solution.system, efforts, solution.standing, 0.9)

    assert bare.sweep(efforts, 0.9)[-2] == pytest.approx(ours.achieved_z)
    moved = ours.rear_force > 0  # below it the force does not tell the pressure
    travel = bare.sweep(efforts, 0.9)[-1][moved]
    assert travel == pytest.approx(ours.pedal_travel[moved], nan_ok=True)
    # One secant in a bracket: exact but where a knee lies in it.
    lock = bare.solve(np.array(solution.surfaces))[9]
    assert lock == pytest.approx(solution.lock.effort, rel=1e-3)


def test_one_solve(report: Report) -> None:
    build = demo("pickup")
    bare = Bare(system(build))
    surfaces = np.array([0.15, 0.5, 0.9])
    report(
        "one solve",
        fastest(lambda: solve(build)),
        fastest(lambda: bare.solve(surfaces)),
        "under 2 ms and 3 times",
    )


def test_a_sweep_of_400_presses(report: Report) -> None:
    solution = solve(demo("pickup"))
    bare = Bare(solution.system)
    efforts = np.linspace(0, 450, 400)
    report(
        "400 presses",
        fastest(lambda: press(solution.system, efforts, solution.standing, 0.9)),
        fastest(lambda: bare.sweep(efforts, 0.9)),
        "3 times",
    )


def test_edit_and_findings(report: Report) -> None:
    build = demo("pickup")
    knees = iter(range(200, 10_000))
    solution = solve(build)
    report(
        "one edit, validated",
        fastest(lambda: edited(build, "valves.rear[0].knee", f"{next(knees)} psi")),
    )
    report("all findings", fastest(lambda: findings(solution)))


def test_solve_as_a_process(report: Report, tmp_path: Path) -> None:
    path = tmp_path / "truck.urgens.json"
    path.write_text(demo_text("pickup"), encoding="utf-8")

    def run(*arguments: str) -> None:
        subprocess.run([sys.executable, *arguments], check=True, capture_output=True)

    report(
        "urgens solve, whole process",
        median(lambda: run("-m", "urgens", "solve", str(path)), 9),
        median(lambda: run("-c", "import numpy, pydantic, scipy.optimize"), 9),
        "1.3 times the imports",
    )
