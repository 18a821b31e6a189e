"""Fluid and strokes of bleeding, against volumes worked out here."""

import json
from math import ceil, pi
from typing import Any

import pytest

from tests.builds import bed
from urgens.document import Build, demo, dumps, edited, loads
from urgens.document.kinds.brakes.disc import Disc
from urgens.guidance.procedures.amounts import amounts
from urgens.physics.axle import Axle

# The roadster's pipes on the way to a wheel, its hoses [m] and bodies, as joined in its file.
WAYS = {"front-left": (3, 0.300, 2), "front-right": (3, 0.300, 2),
        "rear-left": (4, 0.420, 3), "rear-right": (4, 0.420, 3)}  # fmt: skip
FLARES = 2 * 0.003  # m, what the file's own bench says
TUBE, HOSE = pi / 4 * 3.3e-3**2, pi / 4 * 3.0e-3**2  # m², inside of both
FRONT, REAR = pi / 4 * 19.05e-3**2 * 25e-3, pi / 4 * 15.9e-3**2 * 25e-3  # m³ at a full stroke


BODY = 0.5e-6  # m³ in each switch side, tee and valve, assumed


def behind(wheel: str) -> float:
    """What stands behind the pistons of the roadster's brake: 5 mm of each, assumed."""
    brake = demo("roadster").axle(Axle(wheel.partition("-")[0])).brake
    assert isinstance(brake, Disc)
    sides = 2 if brake.caliper == "opposed" else 1
    return 5e-3 * sides * sum(pi / 4 * one.value**2 for one in brake.piston_diameters)


def with_straight_pipes(length: str) -> Build:
    document: dict[str, Any] = json.loads(dumps(demo("roadster")))
    for line in document["plumbing"]["lines"]:
        if not line.get("direct"):
            line["route"] = [["0 m", "0 m", "0 m"], [length, "0 m", "0 m"]]
    return loads(json.dumps(document))


@pytest.mark.parametrize("metres", [0.4, 1.0, 2.5])
def test_a_wheel_takes_twice_what_stands_in_its_way(metres: float) -> None:
    found = amounts(with_straight_pipes(f"{metres} m"))
    held = {
        wheel: pipes * (metres + FLARES) * TUBE + hose * HOSE + bodies * BODY + behind(wheel)
        for wheel, (pipes, hose, bodies) in WAYS.items()
    }
    assert found.strokes == {
        wheel: ceil(2 * volume / (FRONT if wheel.startswith("front") else REAR))
        for wheel, volume in held.items()
    }
    assert found.fluid == pytest.approx(3 * sum(held.values()), rel=1e-3)


def test_far_wheels_take_more_strokes_than_near_ones() -> None:
    found = amounts(bed("library")).strokes
    assert found["rear-right"]
    assert found["front-left"]
    assert found["rear-right"] > found["front-left"]


def test_the_reservoir_is_low_after_the_strokes_of_its_larger_cylinder() -> None:
    assert amounts(demo("roadster")).until_low is None  # it does not say what it holds
    build = edited(demo("roadster"), "master.reservoir_volume", "100 cc")
    assert amounts(build).until_low == int(0.6 * 100e-6 / FRONT)


def test_without_drawn_lines_no_amount_is_invented() -> None:
    document: dict[str, Any] = json.loads(dumps(demo("roadster")))
    del document["plumbing"]
    found = amounts(loads(json.dumps(document)))
    assert set(found.strokes.values()) == {None}
    assert found.fluid is None
