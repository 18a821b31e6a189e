"""Figures of public standards; from memory where the module or test says so."""

import numpy as np
import pint
import pytest
import scipy.constants
from hypothesis import given
from hypothesis import strategies as st

from urgens.physics.atmosphere import air_pressure
from urgens.physics.standards import (
    CARS,
    SERVICE_DECELERATION,
    TRUCKS,
    mean_fully_developed_deceleration,
    stopping_distance_allowed,
)
from urgens.quantity import LENGTH, PRESSURE, TEMPERATURE, Units, UnitSystem, parse, show
from urgens.quantity.units import INCH_OF_MERCURY, POUND_FORCE, PSI, unit

REGISTRY = pint.get_application_registry()  # made once: it takes a while


@pytest.mark.parametrize(
    ("altitude", "kilopascals"), [(0, 101.325), (1000, 89.87), (2000, 79.50), (3000, 70.11)]
)
def test_iso_2533_standard_atmosphere(altitude: float, kilopascals: float) -> None:
    assert air_pressure(altitude) / 1000 == pytest.approx(kilopascals, abs=0.01)


def test_pound_force_is_exact() -> None:
    """International pound (1959) times standard gravity (CGPM 1901)."""
    assert pytest.approx(4.4482216152605, rel=1e-15) == POUND_FORCE
    assert pytest.approx(scipy.constants.pound_force, rel=1e-14) == POUND_FORCE


def test_psi() -> None:
    assert pytest.approx(6894.757293, abs=1e-6) == PSI
    assert pytest.approx(scipy.constants.psi, rel=1e-14) == PSI


def test_inch_of_mercury_at_0_celsius() -> None:
    assert pytest.approx(3386.389, abs=1e-9) == INCH_OF_MERCURY


def test_rounded_conversions_of_the_trade() -> None:
    """Common practice: 14.5038 psi a bar, 68.95 mbar a psi."""
    assert pytest.approx(14.5038, rel=1e-4) == 1e5 / PSI
    assert pytest.approx(68.95, rel=1e-4) == PSI / 100


@pytest.mark.parametrize(
    ("ours", "theirs"),
    [
        ("in", "inch"), ("ft", "foot"), ("mm", "mm"), ("lb", "pound"), ("kN", "kN"),
        ("lbf", "force_pound"), ("kgf", "kilogram_force"), ("psi", "psi"), ("bar", "bar"),
        ("mbar", "mbar"), ("GPa", "GPa"), ("in^2", "inch**2"), ("cm^3", "cm**3"),
        ("ml", "milliliter"), ("fl_oz", "fluid_ounce"), ("cm^3/MPa", "cm**3/MPa"),
        ("cm^3/m/MPa", "cm**3/m/MPa"), ("in^3/psi", "inch**3/psi"), ("mph", "mile/hour"),
        ("km/h", "km/hour"), ("lbf.ft", "force_pound*foot"), ("N.m", "N*m"), ("deg", "degree"),
    ],
)  # fmt: skip
def test_units_against_pint(ours: str, theirs: str) -> None:
    found = unit(ours)
    assert found is not None

    expected = REGISTRY.Quantity(1, theirs).to_base_units().magnitude

    assert found.factor == pytest.approx(expected, rel=1e-12)


def test_un_r13h_annex_5_line() -> None:
    """UN Regulation No. 13-H, Annex 5 (from memory): z ≥ 0.1 + 0.7 (k − 0.2) for k 0.2 to 0.8."""
    k = np.linspace(0.2, 0.8, 7)

    assert CARS.allows(0.1 + 0.7 * (k - 0.2)) == pytest.approx(k)


@pytest.mark.parametrize(
    ("used", "z", "above"),
    [(0.19, 0.05, False), (0.5, 0.30, True), (0.5, 0.32, False), (0.85, 0.3, False)],
)
def test_un_r13h_annex_5_counts_between_its_ends(used: float, z: float, *, above: bool) -> None:
    assert bool(CARS.broken(np.array(used), np.array(z))) is above


def test_un_r13h_annex_3_stopping_distances() -> None:
    """UN R13-H Annex 3 and 49 CFR 571.135 (from memory): 70 m and 168 m from 100 km/h."""
    assert stopping_distance_allowed(100 / 3.6) == pytest.approx(70)
    assert stopping_distance_allowed(100 / 3.6, failed=True) == pytest.approx(168)
    assert SERVICE_DECELERATION == 6.43
    assert (CARS.failed.deceleration, CARS.failed.effort) == (2.44, 500.0)


@pytest.mark.parametrize("deceleration", [2.44, 6.43])
def test_mfdd_of_a_constant_deceleration_is_itself(deceleration: float) -> None:
    """UN R13-H Annex 3 (from memory): a constant 6.43 m/s² gives 6.43."""
    start = 100 / 3.6
    speeds = 0.8 * start, 0.1 * start
    distances = [(start**2 - speed**2) / (2 * deceleration) for speed in speeds]

    found = mean_fully_developed_deceleration(*speeds, *distances)

    assert found == pytest.approx(deceleration, rel=1e-4)


def test_un_r13_stricter_line() -> None:
    """UN R13 (from memory): z ≥ 0.1 + 0.85 (k − 0.2)."""
    k = np.linspace(0.2, 0.8, 7)

    assert TRUCKS.allows(0.1 + 0.85 * (k - 0.2)) == pytest.approx(k)


def test_un_r13_secondary_braking_of_goods_vehicles() -> None:
    """UN R13 Annex 4 (from memory): s ≤ 0.15 v + 2 v²/115, 2.2 m/s², 700 N of foot.

    The square's share is what so much deceleration takes, v²/(25.92 d), within what it rounds.
    """
    assert (TRUCKS.failed.deceleration, TRUCKS.failed.effort) == (2.2, 700.0)
    taken = 115 / 2 / 25.92
    assert taken == pytest.approx(TRUCKS.failed.deceleration, rel=0.01)


def test_temperatures_against_pint() -> None:
    registry = REGISTRY
    for text, degrees, name in (("230 °C", 230, "degC"), ("446 °F", 446, "degF")):
        expected = registry.Quantity(degrees, name).to("kelvin").magnitude
        assert parse(text, TEMPERATURE).value == pytest.approx(expected)


SIMPLE = {
    "m": "m", "mm": "mm", "cm": "cm", "in": "inch", "ft": "foot", "kg": "kg", "lb": "pound",
    "N": "N", "kN": "kN", "lbf": "force_pound", "Pa": "Pa", "kPa": "kPa", "MPa": "MPa",
    "bar": "bar", "psi": "psi", "l": "liter", "ml": "ml", "s": "s", "deg": "degree", "rad": "rad",
}  # fmt: skip


@given(
    st.lists(
        st.tuples(st.sampled_from(sorted(SIMPLE)), st.integers(1, 3), st.sampled_from("/.")),
        min_size=1,
        max_size=4,
    )
)
def test_any_product_or_quotient_against_pint(parts: list[tuple[str, int, str]]) -> None:
    """The reader of units against pint, on products and quotients nobody would write."""
    ours, theirs = "", REGISTRY.Quantity(1.0)
    for index, (name, power, sign) in enumerate(parts):
        ours += (sign if index else "") + (f"{name}^{power}" if power > 1 else name)
        factor = REGISTRY.Quantity(1.0, SIMPLE[name]) ** power
        theirs = theirs / factor if index and sign == "/" else theirs * factor
    found = unit(ours)
    assert found is not None

    expected = theirs.to_base_units()

    assert found.factor == pytest.approx(expected.magnitude, rel=1e-9)


@given(
    st.floats(1e-3, 1e6), st.sampled_from(list(UnitSystem)), st.sampled_from(["bar", "kPa", "psi"])
)
def test_a_kind_s_unit_may_be_overridden(value: float, system: UnitSystem, name: str) -> None:
    """Shown in the unit chosen for the kind, whatever the system; the rest as ever (pint)."""
    units = Units(system, ((PRESSURE, name),))
    shown = show(value * 1e3, PRESSURE, units)

    expected = REGISTRY.Quantity(value * 1e3, "Pa").to(name).magnitude
    assert shown.unit == name
    assert float(shown.number.replace(",", "")) == pytest.approx(expected, rel=0.01, abs=1.0)
    assert show(0.1, LENGTH, units) == show(0.1, LENGTH, system)


def test_a_unit_that_does_not_fit_a_kind_is_refused() -> None:
    for name in ("mm", "furlong", "°C"):
        with pytest.raises(LookupError):
            show(1.0, PRESSURE, Units(UnitSystem.INCH, ((PRESSURE, name),)))
