"""What a travel that was read tells, in words."""

import pytest

from urgens.document import demo
from urgens.document.ledger.records import RecordEntry
from urgens.guidance.advice.travel_reading import MORE, travel_words
from urgens.guidance.condition.limits import Limits
from urgens.guidance.words.figures import FigureWords
from urgens.solve import solve
from urgens.studies.trapped_air import trapped_air

SOLUTION = solve(demo("roadster"))
LIMITS = Limits(demo("roadster"))
WORDS = FigureWords(demo("roadster").natural_units)
COMPUTED = float(trapped_air(SOLUTION.system, SOLUTION.standing, 200.0, 0.0).computed) * 1e3  # mm


def told(value: float | str, effort: str = "200 N") -> str:
    at = {"at": "2026-05-02T14:22", "step": 29, "field": "travel", "value": value}
    return travel_words(LIMITS, RecordEntry.model_validate({**at, "effort": effort}), WORDS)


@pytest.mark.parametrize(
    ("beyond", "words"),
    [(0.0, "as the"), (12.0, "12 mm more than the"), (-9.0, "9 mm less than the")],
)
def test_it_is_told_beside_what_is_computed(beyond: float, words: str) -> None:
    assert told(COMPUTED + beyond).startswith(words)


def test_air_is_told_with_its_error_and_beside_what_looks_the_same() -> None:
    said = told(COMPUTED + 12.0)

    assert said.count("±") == 2
    assert "second stroke" in MORE


@pytest.mark.parametrize("effort", ["", "200 psi", "0 N"])
def test_without_a_foot_nothing_is_made_up(effort: str) -> None:
    said = told(COMPUTED + 12.0, effort)

    assert "±" not in said
    assert bool(said) is bool(effort)


def test_a_note_in_its_place_is_no_travel() -> None:
    assert told("soft") == ""
