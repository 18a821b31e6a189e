"""Pressure in every line: the cylinder's before the valves, the brakes' own behind the last."""

from itertools import product

import numpy as np
import pytest

from tests.builds import bed
from tests.plumbing.test_draft import VALVES
from urgens.document import Build, edited, with_changes
from urgens.document.circuits import Circuits
from urgens.plumbing.draft import drafted
from urgens.plumbing.pressures import line_pressures
from urgens.solve import solve


def laid(split: str, valves: str) -> Build:
    kind = "single" if split == "single" else "tandem"
    changes = {"setups": [], "circuits": split, "master": {"kind": kind, "bore": "1 in"}}
    build = with_changes(bed("bakery"), {**changes, "valves": VALVES[valves]})
    return edited(build, "plumbing", drafted(build))


@pytest.mark.parametrize(
    ("split", "valves"), list(product(("single", "front-rear", "diagonal"), VALVES))
)
def test_brakes_get_what_is_worked_out_for_them(split: str, valves: str) -> None:
    if split == "diagonal" and "body" in valves:
        valves = "metering and reducing"  # a body has one front and one rear side
    build = laid(split, valves)
    assert build.plumbing is not None
    solution = solve(build, efforts=np.array([250.0]))
    pressed = solution.presses.at(0)
    circuits = Circuits(build, build.plumbing)
    found = line_pressures(circuits, solution, pressed)

    assert found.keys() == {line.id for line in build.plumbing.lines}
    for line in build.plumbing.lines:
        part = circuits.parts[line.to.partition(".")[0]]
        if part.wheel is not None:
            front = part.wheel.startswith("front")
            wanted = pressed.front_pressure if front else pressed.rear_pressure
            assert found[line.id] == pytest.approx(float(wanted)), (line.id, valves)
        if line.start.startswith("mc."):
            assert found[line.id] == pytest.approx(float(pressed.master_front))


def test_a_line_that_hangs_on_nothing_has_no_pressure() -> None:
    build = laid("front-rear", "reducing")
    plumbing = build.plumbing
    assert plumbing is not None
    kept = [line.model_dump(mode="json", exclude_unset=True) for line in plumbing.lines[1:]]
    build = edited(build, "plumbing.lines", kept)
    assert build.plumbing is not None
    solution = solve(build)
    found = line_pressures(Circuits(build, build.plumbing), solution, solution.presses.at(0))

    assert 0 < len(found) < len(kept)
