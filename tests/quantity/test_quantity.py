"""What a builder types is read, kept, and refused in words."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from urgens.quantity import (
    FORCE,
    LENGTH,
    LOAD,
    PRESSURE,
    VOLUME,
    QuantityError,
    QuantityKind,
    inch_fraction,
    nearest_fraction,
    parse,
)

INCH = 0.0254


@pytest.mark.parametrize(
    ("typed", "kind", "value"),
    [
        ("15/16 in", LENGTH, 15 / 16 * INCH),
        ("1-1/16 in", LENGTH, 17 / 16 * INCH),
        ("1 1/16 in", LENGTH, 17 / 16 * INCH),
        ('1 1/16"', LENGTH, 17 / 16 * INCH),
        ("48 - 3/4 in", LENGTH, 47.25 * INCH),
        ("12,5 mm", LENGTH, 0.0125),
        ("0,375 in", LENGTH, 0.375 * INCH),
        ("1,25 in", LENGTH, 1.25 * INCH),
        ("20-1/2 in", LENGTH, 20.5 * INCH),
        ("0.700 in", LENGTH, 0.7 * INCH),
        (".5in", LENGTH, 0.5 * INCH),
        ("9 ft 7 in", LENGTH, 115 * INCH),
        ("9' 7-1/2\"", LENGTH, 115.5 * INCH),
        ("23.8 mm", LENGTH, 0.0238),
        ("-3.2 mm", LENGTH, -0.0032),
        ("−3.2 mm", LENGTH, -0.0032),
        ("1e2 mm", LENGTH, 0.1),
        ("75 lbf", FORCE, 333.6166211445375),
        ("372 kg", LOAD, 372 * 9.80665),
        ("3648 N", LOAD, 3648.0),
        ("8.2 bar", PRESSURE, 8.2e5),
        ("18 inHg", PRESSURE, 18 * 3386.389),
        ("250 cm^3", VOLUME, 250e-6),
    ],
)
def test_reads_what_is_typed_and_keeps_it(typed: str, kind: QuantityKind, value: float) -> None:
    quantity = parse(typed, kind)

    assert quantity.value == pytest.approx(value, rel=1e-9)
    assert quantity.text == typed


LENGTH_REMEDY = 'write a length with its unit (in, mm, cm, m or ft), for example "1-1/16 in"'


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("", f"nothing is typed here; {LENGTH_REMEDY}"),
        ("garbage", f'"garbage" is not a figure; {LENGTH_REMEDY}'),
        ("12", f'"12" has no unit; {LENGTH_REMEDY}'),
        ("12 furlong", f'"furlong" is not a unit known here; {LENGTH_REMEDY}'),
        ("12 psi", f'"12 psi" is not a length; {LENGTH_REMEDY}'),
        ("1/0 in", f'"1/0 in" divides by zero; {LENGTH_REMEDY}'),
        ("1-1/0 in", f'"1-1/0 in" divides by zero; {LENGTH_REMEDY}'),
        ("1e999 mm", f'"1e999 mm" is larger than anything on a vehicle; {LENGTH_REMEDY}'),
        ("20 km", f'"20 km" is larger than anything on a vehicle; {LENGTH_REMEDY}'),
        ("1e-9 mm", f'"1e-9 mm" is smaller than anything on a vehicle; {LENGTH_REMEDY}'),
        ("nan mm", f'"nan mm" is not a figure; {LENGTH_REMEDY}'),
        ("1--2 mm", f'"--2 mm" is not a unit known here; {LENGTH_REMEDY}'),
        ("9" * 61, f'"{"9" * 20}…" is 61 characters long; {LENGTH_REMEDY}'),
        (
            "1,500 N",
            '"1,500" can be read in two ways; write 1500, or 1.500',
        ),
    ],
)
def test_refuses_in_words(typed: str, words: str) -> None:
    with pytest.raises(QuantityError) as refused:
        parse(typed, LENGTH)

    assert str(refused.value) == words


@given(st.integers(0, 40), st.integers(1, 63), st.sampled_from([2, 4, 8, 16, 32, 64]))
def test_mixed_fractions_are_exact(whole: int, over: int, under: int) -> None:
    typed = f"{whole}-{over}/{under} in" if whole else f"{over}/{under} in"

    expected = (whole + Fraction(over, under)) * Fraction(254, 10000)

    assert parse(typed, LENGTH).value == pytest.approx(float(expected), rel=1e-15)


@given(st.integers(1, 64 * 12))
def test_fractions_come_back_as_they_were_typed(sixty_fourths: int) -> None:
    length = sixty_fourths / 64 * INCH
    fraction = inch_fraction(length)

    assert fraction is not None
    assert parse(f"{fraction} in", LENGTH).value == pytest.approx(length, rel=1e-12)


@pytest.mark.parametrize(
    ("length", "words"), [(0.0, None), (0.0236, None), (0.0238125, "15/16"), (0.0269875, "1-1/16")]
)
def test_nearest_fraction_only_where_it_is_near(length: float, words: str | None) -> None:
    assert inch_fraction(length) == words


@pytest.mark.parametrize(
    ("length", "words"), [(0.0571, "2-1/4"), (0.0508, "2"), (0.0127, "1/2"), (0.0575, "2-1/4")]
)
def test_nearest_fraction_on_a_rule(length: float, words: str) -> None:
    assert nearest_fraction(length) == words


@given(st.text(max_size=30))
def test_any_text_is_read_or_refused(text: str) -> None:
    try:
        kept = parse(text, LENGTH).text
    except QuantityError as refused:
        kept = text if refused.problem and refused.remedy else ""

    assert kept == text
