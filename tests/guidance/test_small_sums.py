"""Small sums at the bench, by hand."""

from math import pi

import pytest

from tests.builds import bed
from urgens.document import Build, edited, with_changes
from urgens.document.kinds.bores import met_bores
from urgens.guidance.advice.small_sums import (
    bore_words,
    hose_words,
    possible_bores,
    reach_words,
    rod_words,
    room_words,
    switch_words,
)
from urgens.quantity import Quantity, UnitSystem
from urgens.solve import solve

METRIC = UnitSystem.METRIC
PSI = 6894.757293168362


@pytest.fixture
def mailvan() -> Build:
    return bed("mailvan")


def test_a_reading_between_two_bores_says_what_the_doubt_is_worth(roadster: Build) -> None:
    """19.05 and 20 mm are sold: force over area, at the same foot."""
    said = list(bore_words(solve(roadster), 0.0195, 0.0006, METRIC))
    assert said[0].startswith("It may be: ")
    assert "3/4 in" in said[0]
    effort = roadster.targets.comfortable_effort.value
    force = effort * 5.2 * (0.5 + 3.2 / 62)  # twin cylinders: the front one's share of the bar
    expected = force / (pi / 4 * 0.01905**2) / 1e5
    line = next(one for one in said if one.startswith("3/4 in"))
    assert float(line.split(": ")[1].split(" bar")[0]) == pytest.approx(expected, rel=0.02)
    assert said[-1].startswith("The doubt is worth ")


def test_a_reading_near_no_bore_names_the_next(roadster: Build) -> None:
    said = list(bore_words(solve(roadster), 0.0500, 0.0001, METRIC))
    assert said[0].startswith("No bore that is met is so near")
    assert "1-1/2 in" in said[0]  # and a metric one beside it
    assert "32 mm" in said[0]


@pytest.mark.parametrize("bore", met_bores(), ids=lambda bore: bore.text)
@pytest.mark.parametrize("off", [-0.2, -0.1, 0.0, 0.1, 0.2])
def test_what_a_caliper_reads_of_a_bore_names_it(bore: Quantity, off: float) -> None:
    """A caliper of a fifth of a millimetre, and flat jaws that read a tenth small on top."""
    reading = bore.value + off * 1e-3
    assert bore in possible_bores(reading, 0.2e-3)
    assert bore in possible_bores(bore.value - 0.3e-3, 0.2e-3)


def test_seven_eighths_and_its_metric_neighbour_are_both_named() -> None:
    """22.0 mm by the jaws is 22 mm or 7/8 in, 22.225 mm: facts of the trade."""
    assert {bore.text for bore in possible_bores(22.0e-3, 0.2e-3)} == {"22 mm", "7/8 in"}
    assert "1-3/32 in" in {bore.text for bore in possible_bores(27.75e-3, 0.2e-3)}


def test_the_foot_that_closes_a_switch_is_read_off_the_press(roadster: Build) -> None:
    solution = solve(roadster)
    effort = 60.0
    pressure = float(solution.press(effort).master_front)
    said = switch_words(solution, pressure, METRIC)
    assert said.startswith("It closes at 60 N of foot")
    late = switch_words(solution, float(solution.press(200.0).master_front), METRIC)
    assert "sees it late" in late
    never = switch_words(solve(edited(roadster, "targets.max_effort", "60 N")), 900 * PSI, METRIC)
    assert never.startswith("It does not close up to ")


def test_room_and_reach_are_subtractions() -> None:
    assert room_words(0.30, 0.35, "Length", METRIC) == "Length: 50.0 mm left."
    assert room_words(0.35, 0.30, "Height", METRIC) == "Height: 50.0 mm too long for the room."
    assert reach_words(0.5, METRIC).startswith("Within 600.0 mm")
    assert reach_words(0.7, METRIC).startswith("100.0 mm further than")


def test_a_gap_at_the_rod_is_the_ratio_as_much_at_the_pad() -> None:
    """A millimetre at 5 to 1 is five; one turn of a millimetre and a quarter is not quite it."""
    build = with_changes(bed("bakery"), {"setups": [], "pedal.pivot_to_pad": "250 mm",
                         "pedal.pivot_to_pushrod": "50 mm"})  # fmt: skip
    said = rod_words(build, 0.00125, METRIC)
    assert said.startswith("6.2 mm of play at the pad; 1 turn of M8 × 1.25 or ")
    assert "own thread is not given" in said
    own = with_changes(build, {"pedal.pushrod_thread": "M8 × 1.25"})
    assert rod_words(own, 0.00125, METRIC) == "6.2 mm of play at the pad; 1 turn of M8 × 1.25."
    assert "no turn" in rod_words(own, 0.0, METRIC)


def test_a_hose_is_held_against_the_least_it_may_bend() -> None:
    assert "nothing is left" in hose_words(float("inf"), 0.05, METRIC)
    assert hose_words(0.04, 0.05, METRIC).endswith("it kinks or cracks there.")
    assert hose_words(0.06, 0.05, METRIC).endswith("is the least it may have.")
    assert "its maker" in hose_words(0.06, None, METRIC)


def test_a_caliper_is_read_in_the_units_shown(mailvan: Build) -> None:
    inch = list(bore_words(solve(mailvan), 0.0222, 0.0002, UnitSystem.INCH))
    assert any("0.875 in" in one for one in inch)
    assert "0.004 in" in inch[1]
    assert any("22.00 mm" in one for one in bore_words(solve(mailvan), 0.0222, 0.0002, METRIC))
