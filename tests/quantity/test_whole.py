"""Whole numbers: digits, and nothing that only looks like them."""

import pytest

from urgens.quantity import whole_number


@pytest.mark.parametrize(
    ("typed", "number"),
    [("7", 7), (" 12 ", 12), ("0", 0), ("007", 7), ("²", None), ("1²", None), ("٣", None),
     ("-1", None), ("1.0", None), ("", None), ("9" * 5_000, None), ("1000000001", None),
     ("1000000000", 10**9)],
)  # fmt: skip
def test_a_whole_number_is_typed_in_plain_digits(typed: str, number: int | None) -> None:
    assert whole_number(typed) == number


def test_its_largest_is_named_where_it_is_asked_for() -> None:
    assert whole_number("23", 23) == 23
    assert whole_number("24", 23) is None
