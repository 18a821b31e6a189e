"""Draws go by the same rules as what is typed: whatever the one refuses, so does the other."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.builds import EVERYTHING, bakery_with, bed
from urgens.document import Build, BuildErrors, with_changes
from urgens.document.catalogue import Figure, figures
from urgens.document.numeric import NumericBuild
from urgens.document.possible import possible
from urgens.quantity import Quantity

PADS = {
    "kind": "disc",
    "caliper": "sliding",
    "piston_diameters": ["1.5 in"],
    "pad_friction": 0.37,
}
BY_RADII = PADS | {"pad_inner_radius": "3.5 in", "pad_outer_radius": "5 in"}
BY_ROTOR = PADS | {"rotor_outer_diameter": "9 in", "pad_height": "3 in"}
METERING = {"kind": "metering", "close": "30 psi", "open": "60 psi"}
BUILDS = {
    "pad by its radii": bakery_with({"front.brake": BY_RADII, "valves.front": [METERING]}),
    "pad by its rotor": bakery_with({"front.brake": BY_ROTOR}),
    "parts of every kind": bakery_with(EVERYTHING),
    "an adjustable valve": bed("roadster"),
    "an engine that drags": bakery_with({"vehicle.engine_drag": "2000 N.m"}),
    "a tandem cylinder": bakery_with({"master.primary_stroke": "0.7 in"}),
}
WITH_RULES = ("pad_", "rotor_", "close", "open", "vacuum", "pump", "altitude", "shoe.", "bar_",
              "stroke", "knee", "turns", "lever.", "engine_drag", "rear_axle")  # fmt: skip


def typed(figure: Figure, number: float) -> object:
    """The number as a builder types it."""
    if isinstance(figure.value, Quantity):
        assert figure.kind is not None
        assert not isinstance(figure.kind, str)
        return f"{number:.17g} {figure.kind.si}"
    return number


def within(figure: Figure, number: float) -> bool:
    return figure.low < number < figure.high


def taken(build: Build, changes: dict[str, Any]) -> bool:
    try:
        with_changes(build, changes)
    except BuildErrors:
        return False
    return True


@pytest.mark.parametrize("build", BUILDS.values(), ids=BUILDS)
@given(data=st.data())
def test_what_is_possible_is_what_the_document_takes(build: Build, data: st.DataObject) -> None:
    ruled = [
        one
        for one in figures(build)
        if any(part in one.path for part in WITH_RULES)
        and isinstance(one.value, Quantity | float)
        and not one.whole
    ]
    some = data.draw(st.lists(st.sampled_from(ruled), min_size=1, max_size=4, unique_by=id))
    numbers = {
        one.path: one.number * data.draw(st.floats(0.2, 4.0), label=one.path) for one in some
    }
    if not all(within(one, numbers[one.path]) for one in some):
        return
    over = {path: np.array([number]) for path, number in numbers.items()}

    assert bool(np.all(possible(NumericBuild(build, over)))) == taken(
        build, {one.path: typed(one, numbers[one.path]) for one in some}
    )
