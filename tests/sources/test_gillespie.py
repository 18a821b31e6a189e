"""The brake proportioning example of Gillespie, Fundamentals of Vehicle Dynamics, ch. 3.

SAE, 1992. Figures from memory. Two brakes an axle; gains of 20 and 14 in-lb/psi per wheel.
"""

import json
from math import pi, sqrt
from typing import Any

import numpy as np
import pytest

from urgens.document import Build, loads
from urgens.solve import Solution, solve

LBF = 4.4482216152605  # N
PSI = LBF / 0.0254**2  # Pa

# applied psi, rear psi, front lb, rear lb, g, front load lb, rear load lb, coefficients, %
PROPORTIONING_EXAMPLE = np.array(
    [
        [100, 100, 330, 231, 0.138, 2316, 1758, 0.143, 0.132, 96.6],
        [200, 200, 661, 462, 0.276, 2422, 1652, 0.273, 0.280, 98.5],
        [300, 293, 991, 677, 0.410, 2525, 1549, 0.392, 0.437, 93.6],
        [400, 323, 1321, 747, 0.508, 2601, 1473, 0.508, 0.507, 99.9],
        [500, 353, 1652, 816, 0.606, 2676, 1398, 0.617, 0.584, 98.2],
        [600, 383, 1982, 886, 0.704, 2752, 1322, 0.720, 0.670, 97.7],
        [700, 413, 2312, 955, 0.802, 2827, 1247, 0.818, 0.766, 98.1],
    ]
)


def _disc(gain: float) -> dict[str, Any]:
    """A disc brake of `gain` in-lb/psi: 2 μ A r with μ 0.4 and a 2 in piston."""
    radius = gain / (2 * 0.4 * pi)
    return {
        "kind": "disc",
        "caliper": "sliding",
        "piston_diameters": ["2 in"],
        "pad_friction": 0.4,
        "effective_radius": f"{radius:.9f} in",
    }


@pytest.fixture(scope="module")
def build() -> Build:
    """Ratio 1:1 on a bore of 1 in²: a pound of foot is a psi of pressure."""
    document = {
        "format": "urgens.build",
        "version": 1,
        "name": "proportioning example",
        "vehicle": {
            "use": "street",
            "wheelbase": "108.5 in",
            "load_cases": [
                {
                    "name": "one",
                    "front_axle": "2210 lb",
                    "rear_axle": "1864 lb",
                    "cg_height": "20.5 in",
                }
            ],
        },
        "front": {"tyre": {"rolling_radius": "12.11 in"}, "brake": _disc(20)},
        "rear": {"tyre": {"rolling_radius": "12.11 in"}, "brake": _disc(14)},
        "pedal": {"pivot_to_pad": "6 in", "pivot_to_pushrod": "6 in"},
        "master": {"kind": "tandem", "bore": f"{sqrt(4 / pi):.9f} in"},
        "valves": {"rear": [{"kind": "reducing", "knee": "290 psi", "slope": 0.3}]},
        "targets": {"max_effort": "800 lbf"},
    }
    return loads(json.dumps(document))


@pytest.fixture(scope="module")
def solution(build: Build) -> Solution:
    return solve(build, surface=1.0, efforts=PROPORTIONING_EXAMPLE[:, 0] * LBF)


@pytest.mark.parametrize(
    ("figure", "column", "unit", "tolerance"),
    [
        ("front_pressure", 0, PSI, 0.01),
        ("rear_pressure", 1, PSI, 1),
        ("front_force", 2, LBF, 1),
        ("rear_force", 3, LBF, 1),
        ("demand_z", 4, 1, 0.001),
        ("front_load", 5, LBF, 1),
        ("rear_load", 6, LBF, 1),
        ("front_adhesion", 7, 1, 0.001),
        ("rear_adhesion", 8, 1, 0.001),
    ],
)
def test_proportioning_example(
    solution: Solution, figure: str, column: int, unit: float, tolerance: float
) -> None:
    published = PROPORTIONING_EXAMPLE[:, column]

    assert getattr(solution.presses, figure) / unit == pytest.approx(published, abs=tolerance)


def test_proportioning_example_efficiency(solution: Solution) -> None:
    presses = solution.presses
    used = np.maximum(presses.front_adhesion, presses.rear_adhesion)

    published = PROPORTIONING_EXAMPLE[:, 9]

    assert 100 * presses.demand_z / used == pytest.approx(published, abs=0.2)
