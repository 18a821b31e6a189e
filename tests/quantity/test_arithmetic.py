"""Small sums in a field: what a minus, a dash and a mixed fraction come to, by hand."""

import pytest

from urgens.quantity import FORCE, LENGTH, QuantityError, UnitSystem, parse
from urgens.quantity.arithmetic import completed


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("48 - 3/4 in", "47.25 in"),  # by hand
        ("48 − 3/4", "47.25 in"),
        ("20-1/2 in", "20-1/2 in"),
        ("1–1/16 in", "1–1/16 in"),  # en dash: a mixed fraction
        ("2*1 1/8 in", "2.25 in"),
        ("2*1-1/8 in", "2.25 in"),
    ],
)
def test_a_minus_behind_a_space_takes_off(typed: str, kept: str) -> None:
    assert completed(typed, LENGTH, UnitSystem.INCH) == kept


def test_what_may_be_a_size_or_a_difference_is_asked() -> None:
    with pytest.raises(QuantityError, match=r"two ways; write 1-1/16, or 15/16"):
        completed("1 - 1/16 in", LENGTH, UnitSystem.INCH)


def test_dashes_and_pounds_are_read() -> None:
    assert parse("1–1/16 in", LENGTH).value == pytest.approx(1.0625 * 0.0254)
    assert parse("75 pounds", FORCE).value == pytest.approx(75 * 4.4482216152605)
