"""A lever swept by hand: common practice, it follows both ways, sticks, or is seized."""

import pytest

from tests.builds import bed
from urgens.document import Build, edited, with_changes
from urgens.document.ledger.proof import GaugeRun
from urgens.quantity import PRESSURE, parse
from urgens.studies.expected_pressures import expected
from urgens.studies.lever_verdict import LeverVerdict, expected_ends, read_lever

POINTS = [["300 kg", "20 bar"], ["700 kg", "60 bar"]]
WAY_UP = [(0.0, 45.0), (0.3, 58.0), (0.6, 70.0), (1.0, 85.0)]


def fitted() -> Build:
    sensing = {"kind": "load-sensing", "slope": 0.5, "follows": "static", "points": POINTS}
    return edited(bed("library"), "valves.rear", [sensing])


def swept(points: list[tuple[float, float]]) -> GaugeRun:
    lever = [[place, "100 bar", f"{out} bar"] for place, out in points]
    run = {
        "at": "2026-05-02",
        "valve": "rear[0]",
        "full_scale": "160 bar",
        "class": 1.6,
        "points": [],
        "lever": lever,
    }
    built = with_changes(bed("library"), {"proof": {"gauges": [run]}})
    assert built.proof is not None
    return built.proof.gauges[0]


@pytest.mark.parametrize(
    ("points", "verdict"),
    [
        ([*WAY_UP, (0.6, 68.0), (0.2, 52.0)], LeverVerdict.FOLLOWS),
        ([(place, 55.0) for place in (0.0, 0.3, 0.6, 1.0)], LeverVerdict.SEIZED),
        ([*WAY_UP, (0.6, 84.0), (0.2, 80.0), (0.0, 60.0)], LeverVerdict.STICKS),
        (WAY_UP[:3], LeverVerdict.TOO_FEW),
        ([(0.4, 55.0), (0.5, 60.0), (0.6, 65.0), (0.7, 70.0)], LeverVerdict.TOO_FEW),
    ],
)
def test_what_a_sweep_says(points: list[tuple[float, float]], verdict: LeverVerdict) -> None:
    read = read_lever(swept(points), expected(fitted(), "rear[0]"))
    assert read is not None
    assert read.verdict is verdict


def test_the_ends_are_those_of_the_two_knees() -> None:
    """By hand: 20 + (100 − 20)·0.5 = 60 bar, and 60 + (100 − 60)·0.5 = 80 bar, of 100 in."""
    held = parse("100 bar", PRESSURE).value
    ends = expected_ends(expected(fitted(), "rear[0]"), held)
    assert ends == pytest.approx((0.6, 0.8), abs=1e-6)
    assert expected_ends(expected(bed("library"), "rear[0]"), held) is None


def test_nothing_swept_says_nothing() -> None:
    assert read_lever(swept([]), expected(fitted(), "rear[0]")) is None
