"""The benchmarks can be run, and the bare formulas they are held against are the same formulas."""

import os
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent


def test_benchmarks_are_found_and_the_bare_formulas_are_ours() -> None:
    command = [sys.executable, "-m", "pytest", "benchmarks", "-q", "-p", "no:xdist"]
    command.append("--benchmark-disable")
    own = {name: value for name, value in os.environ.items() if not name.startswith("PYTEST_")}
    shown = {**own, "QT_QPA_PLATFORM": "offscreen"}
    same = subprocess.run(
        [*command, "-k", "the_same"],
        cwd=ROOT, env=shown, capture_output=True, check=False, text=True,
    )  # fmt: skip

    assert same.returncode == 0, same.stdout
    assert "2 passed" in same.stdout
