"""Figures as a builder reads them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from urgens.quantity import (
    DISTANCE,
    FORCE,
    LENGTH,
    LOAD,
    PRESSURE,
    QuantityKind,
    UnitSystem,
    parse,
    retype,
    show,
)

PSI = 6894.757293168362


@pytest.mark.parametrize(
    ("value", "kind", "system", "words"),
    [
        (1019 * PSI, PRESSURE, UnitSystem.INCH, "1,019 psi"),
        (31.26e5, PRESSURE, UnitSystem.METRIC, "31.3 bar"),
        (266.9, FORCE, UnitSystem.INCH, "60 lbf"),
        (318.4, FORCE, UnitSystem.METRIC, "318 N"),
        (0.0558, LENGTH, UnitSystem.INCH, "2.20 in"),
        (-0.0032, LENGTH, UnitSystem.METRIC, "−3.2 mm"),
        (-0.00001, LENGTH, UnitSystem.METRIC, "0.0 mm"),
        (64.0, DISTANCE, UnitSystem.INCH, "210 ft"),
        (9806.65, LOAD, UnitSystem.METRIC, "1,000 kg"),
        (9806.65, LOAD, UnitSystem.INCH, "2,205 lb"),
    ],
)
def test_shows(value: float, kind: QuantityKind, system: UnitSystem, words: str) -> None:
    assert str(show(value, kind, system)) == words


@given(st.floats(0, 2e7), st.sampled_from(list(UnitSystem)))
def test_what_is_retyped_reads_back(pressure: float, system: UnitSystem) -> None:
    typed = retype(pressure, PRESSURE, system)

    assert parse(typed, PRESSURE).value == pytest.approx(pressure, abs=5001)
