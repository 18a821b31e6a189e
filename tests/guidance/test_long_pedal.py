"""When a pedal is long: beyond 5 mm, 10 %, and what the spread of its figures allows."""

from typing import Any

import pytest

from tests.builds import bed, with_changes
from urgens.document import Build
from urgens.document.ledger.records import RecordEntry
from urgens.guidance.condition.limits import limits_of

FOOT = {"at": "2026-05-02T14:00", "step": 1, "field": "travel", "effort": "300 N", "when": "now"}


def read(value: float, **more: Any) -> RecordEntry:
    return RecordEntry.model_validate({**FOOT, "value": value, **more})


def known(spread: str) -> Build:
    """The tender, whose bore is known so well."""
    return with_changes(
        bed("tender"), {"evidence": {"master.bore": {"state": "measured", "spread": spread}}}
    )


def computed(build: Build) -> float:
    travel = limits_of(build).computed_travel(read(1.0))
    assert travel is not None
    return 1e3 * travel


def test_a_tenth_more_is_long() -> None:
    build = bed("tender")
    travel = computed(build)
    assert limits_of(build).long_by(read(1.09 * travel)) is None
    assert limits_of(build).long_by(read(1.11 * travel)) == pytest.approx(0.11e-3 * travel)


def test_a_bore_that_is_hardly_known_makes_no_pedal_long() -> None:
    """The same volume goes with the inverse of the bore's square, and pressure with it as well.

    Clearance takes the same volume whatever the pressure, elastic parts take more with it: between
    the second and the fourth power.
    """
    build = known("10 %")
    travel = computed(build)
    spread = 1e3 * limits_of(build).travel_spread(read(1.0))
    assert 1 / 0.9**2 - 1 < spread / travel < 1 / 0.9**4 - 1
    assert limits_of(build).long_by(read(1.15 * travel)) is None
    assert limits_of(build).long_by(read(1.35 * travel)) is not None


def test_a_bore_that_is_known_well_changes_nothing() -> None:
    build = known("0.1 %")
    assert limits_of(build).long_by(read(1.11 * computed(build))) is not None


@pytest.mark.parametrize("help_", ["working", "out"])
def test_the_spread_is_of_the_travel_with_the_help_it_was_read_with(help_: str) -> None:
    build = bed("bakery")
    assert limits_of(build).travel_spread(read(1.0, booster=help_)) >= 0.0
    assert limits_of(build).long_by(read(500.0, booster=help_)) is not None
