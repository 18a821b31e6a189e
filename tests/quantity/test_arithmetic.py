"""Small sums in a field: what a minus, a dash and a mixed fraction come to, by hand."""

import pytest

from urgens.quantity import (
    FORCE,
    LENGTH,
    QuantityError,
    UnitSystem,
    decimal,
    items_of,
    number_of,
    parse,
)
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


def test_a_comma_between_digits_is_a_decimal_one_unless_it_may_part_thousands() -> None:
    """ISO 80000-1: point or comma for decimals; a list has semicolons, or a comma and a blank."""
    assert completed("12,5", LENGTH, UnitSystem.METRIC) == "12,5 mm"
    assert completed("2*12,5", LENGTH, UnitSystem.METRIC) == "25 mm"
    assert number_of("0,38") == pytest.approx(0.38)
    assert number_of("1,500") is None
    assert decimal("−2,5") == pytest.approx(-2.5)
    with pytest.raises(QuantityError, match=r"two ways; write 1500, or 1\.500"):
        completed("1,500", LENGTH, UnitSystem.METRIC)
    with pytest.raises(QuantityError, match="write 2150000"):
        decimal("2,150,000")
    assert items_of("1,2; 1,1;") == ["1,2", "1,1"]
    assert items_of("1.2, 1,1 , 3 in,2 in") == ["1.2", "1,1", "3 in", "2 in"]
