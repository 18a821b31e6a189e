"""Small decisions of the studies and of names in a layout."""

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.builds import bed, gauge_run
from urgens.document import BuildErrors, with_changes
from urgens.document.layout.layout import PortName
from urgens.guidance import findings
from urgens.solve import solve
from urgens.studies.expected_pressures import expected
from urgens.studies.real_split import Split
from urgens.studies.valve_line_fit import fit_two_hinges
from urgens.studies.valve_verdict import read_valve


@pytest.mark.parametrize("name", ["mc", ".front", "mc.", "mc.front.left", "."])
def test_a_port_is_a_part_and_a_port_of_it(name: str) -> None:
    with pytest.raises((BuildErrors, ValueError), match="names no port"):
        TypeAdapter(PortName).validate_python(name)


def test_a_share_stays_between_nothing_and_all() -> None:
    assert Split(0.95, 0.2, "wear").limits == (0.75, 1.0)
    assert Split(0.05, 0.2, "wear").limits == (0.0, 0.25)


def test_how_idle_the_rear_is_stands_in_its_finding() -> None:
    solution = solve(with_changes(bed("bakery"), {"rear.brake.shoe_factor": 1.5}))
    (one,) = [found for found in findings(solution) if found.code == "rear-idle"]
    at = (0, solution.surfaces.index(solution.build.targets.surface))

    share = solution.lock.rear_used[at] / solution.lock.front_used[at]
    assert f"uses {100 * share:.0f} % of the grip the front does" in one.message


def test_two_knees_of_exact_readings_are_found_where_they_are() -> None:
    inlet = np.linspace(2e5, 60e5, 59)
    after = np.maximum(inlet - 20e5, 0.0), np.maximum(inlet - 40e5, 0.0)
    outlet = inlet - 0.5 * after[0] - 0.3 * after[1]
    found = fit_two_hinges(inlet, outlet)

    assert found.knees == pytest.approx((20e5, 40e5), rel=0.03)
    assert found.slopes == pytest.approx((0.5, 0.2), abs=0.03)


def test_exact_readings_are_known_no_better_than_the_gauges_are_read() -> None:
    """A gauge of class 1.6 and 100 bar is off by 1.6 bar: EN 837-1 (from memory)."""
    build = with_changes(bed("bakery"), {
        "valves.rear": [{"kind": "reducing", "knee": "26 bar", "slope": 0.3}]
    })  # fmt: skip
    points = [
        (bar * 1e5, min(bar, 26 + 0.3 * (bar - 26)) * 1e5, "rising") for bar in range(4, 80, 4)
    ]
    read = read_valve(gauge_run("rear[0]", 100e5, 1.6, points), expected(build, "rear[0]"))

    assert read.fitted is not None
    low, high = read.fitted.knee_limits
    assert low < 26e5 < high
    assert 0.2e5 < high - low < 10e5
