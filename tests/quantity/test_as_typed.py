"""What builders type: spellings, fraction signs, quote marks, sums, bare numbers."""

import math
from pathlib import Path

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.builds import bed_text
from urgens.quantity import (
    FORCE,
    KINDS,
    LENGTH,
    LOAD,
    PRESSURE,
    SPEED,
    SPRING_RATE,
    TEMPERATURE,
    TORQUE,
    VOLUME,
    QuantityError,
    QuantityKind,
    UnitSystem,
    completed,
    in_words,
    number_of,
    parse,
    shown,
    unit_shown,
)

INCH, FOOT, POUND_FORCE = 0.0254, 0.3048, 4.4482216152605  # exact


@pytest.mark.parametrize(
    ("typed", "metres"),
    [
        ("9'7\"", 9 * FOOT + 7 * INCH),
        ("9’7”", 9 * FOOT + 7 * INCH),
        ("9′ 7″", 9 * FOOT + 7 * INCH),
        ("9 feet 7-1/2 inches", 9 * FOOT + 7.5 * INCH),
        ("1⅛ in", 1.125 * INCH),
        ("⅞”", 0.875 * INCH),
        ("15⁄16 in", 15 / 16 * INCH),
        ("1-1/16 Inch", 17 / 16 * INCH),
        ("3 FEET", 3 * FOOT),
        ("254 MM", 0.254),
    ],
)
def test_lengths_are_read_as_builders_write_them(typed: str, metres: float) -> None:
    found = parse(typed, LENGTH)
    assert found.value == pytest.approx(metres, rel=1e-12)
    assert found.text == typed


@pytest.mark.parametrize(
    ("typed", "kind", "as_pint"),
    [
        ("75 lbs", FORCE, "75 lbf"), ("75 lb", FORCE, "75 lbf"), ("300 Newton", FORCE, "300 N"),
        ("700 PSI", PRESSURE, "700 psi"), ("8 Bar", PRESSURE, "8 bar"),
        ("3 Mpa", PRESSURE, "3 MPa"), ("250 cc", VOLUME, "250 cm^3"), ("250 mL", VOLUME, "250 ml"),
        ("60 MPH", SPEED, "60 mph"), ("100 kph", SPEED, "100 km/hour"),
        ("300 lb/in", SPRING_RATE, "300 lbf/inch"), ("120 LBS/IN", SPRING_RATE, "120 lbf/inch"),
        ("5 ft-lb", TORQUE, "5 foot*lbf"), ("5 lb-ft", TORQUE, "5 foot*lbf"),
        ("5 Nm", TORQUE, "5 N*m"), ("12 in lbf", TORQUE, "12 inch*lbf"),
    ],
)  # fmt: skip
def test_spellings_mean_what_pint_means(typed: str, kind: QuantityKind, as_pint: str) -> None:
    reference = pint.get_application_registry()(as_pint).to_base_units().magnitude
    assert parse(typed, kind).value == pytest.approx(reference, rel=1e-9)


def test_mercury_and_degrees() -> None:
    """The conventional inch of mercury; the Celsius scale."""
    assert parse("18 in Hg", PRESSURE).value == pytest.approx(18 * 3386.389)
    assert parse("20 C", TEMPERATURE).value == pytest.approx(293.15)


def test_a_mass_is_a_load_and_no_force_but_in_pounds() -> None:
    assert parse("500 LB", LOAD).value == pytest.approx(500 * POUND_FORCE)
    with pytest.raises(QuantityError, match="is not a force"):
        parse("75 kg", FORCE)


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("12", "12 in"), ("7/8", "7/8 in"), ("1-1/16", "1-1/16 in"), ("1⅛", "1⅛ in"),
        ("10.2/2 in", "5.1 in"), ("3*25.4 mm", "76.2 mm"), ("2*(3+1/8)", "6.25 in"),
        ("1 1/8 + 1/16", "1.1875 in"), ("9'7\"", "9'7\""), ("-0.5", "-0.5 in"),
    ],
)  # fmt: skip
def test_what_is_typed_into_a_field_in_inches(typed: str, kept: str) -> None:
    assert completed(typed, LENGTH, UnitSystem.INCH) == kept


@pytest.mark.parametrize(
    ("typed", "units", "seen"),
    [
        ("9'7\"", UnitSystem.INCH, "9'7\""),
        ("9'7\"", UnitSystem.METRIC, "2,921 mm"),
        ("15/16 in", UnitSystem.INCH, "15/16 in"),
        ("1480 in", UnitSystem.INCH, "1,480 in"),
    ],
)
def test_a_figure_is_read_as_it_was_typed_in_the_units_shown(
    typed: str, units: UnitSystem, seen: str
) -> None:
    assert str(shown(parse(typed, LENGTH), LENGTH, units)).strip() == seen


def test_figures_in_braces_are_written_in_the_units_shown() -> None:
    """145.04 psi are 10 bar (NIST SP 811)."""
    words = "usual: {145.04 psi}, or {20 bar}"
    assert in_words(words, PRESSURE, UnitSystem.METRIC) == "usual: 10.0 bar, or 20.0 bar"
    assert in_words(words, PRESSURE, UnitSystem.INCH) == "usual: 145 psi, or 290 psi"


@pytest.mark.parametrize("typed", ["", "abc", "5/0", "2**9 in", "1,,5", "12 psi", "(", "3 3 3"])
def test_what_is_no_figure_is_refused_in_words(typed: str) -> None:
    with pytest.raises(QuantityError) as refused:
        completed(typed, LENGTH, UnitSystem.INCH)
    assert refused.value.problem
    assert "in" in refused.value.remedy


@given(st.sampled_from(KINDS), st.sampled_from(list(UnitSystem)), st.floats(1.0, 1e3))
def test_a_bare_number_is_in_the_unit_shown(
    kind: QuantityKind, units: UnitSystem, number: float
) -> None:
    bare = f"{number:.4f}"
    assert completed(bare, kind, units) == f"{bare} {unit_shown(kind, units)}"


@given(st.text(alphabet="0123456789./*+-() '\"inmft⅛−×", max_size=20))
def test_anything_typed_is_a_figure_or_refused(typed: str) -> None:
    try:
        kept = completed(typed, LENGTH, UnitSystem.METRIC)
    except QuantityError:
        return
    assert math.isfinite(parse(kept, LENGTH).value)
    assert completed(kept, LENGTH, UnitSystem.METRIC) == kept


@pytest.mark.parametrize("pasted", ["1" + "-" * 10_000 + "1", "1" + "+1" * 20_000, "(" * 5_000])
def test_what_is_too_deep_for_a_sum_is_none(pasted: str) -> None:
    assert number_of(pasted) is None
    with pytest.raises(QuantityError):
        completed(pasted, LENGTH, UnitSystem.INCH)


@given(st.integers(-99, 99), st.integers(1, 99), st.sampled_from("+-*/"))
def test_sums_come_to_what_python_says(one: int, other: int, sign: str) -> None:
    expected = {"+": one + other, "-": one - other, "*": one * other, "/": one / other}[sign]
    assert number_of(f"{one}.0 {sign} {other}") == pytest.approx(expected)


def test_a_file_that_holds_no_number_names_its_place(tmp_path: Path) -> None:
    from urgens.document import BuildErrors, loads

    broken = bed_text("bakery").replace('"pad_friction": 0.38', '"pad_friction": NaN', 1)
    with pytest.raises(BuildErrors) as refused:
        loads(broken)
    assert "front.brake.pad_friction" in str(refused.value)
