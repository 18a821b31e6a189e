"""The fields that sizing brought: read, kept as typed, refused in words."""

import json
from typing import Any

import pytest

from tests.builds import bakery_with, bed
from urgens.document import BuildErrors, demo_names, dumps, edited, loads, value_at
from urgens.document.kinds.pistons import piston_table
from urgens.document.tables import fluid_table, hose_table, window_table

GOOD: dict[str, object] = {
    "pedal.angles": {"pad": "30 deg", "pushrod": "-4 deg", "cylinder": "2 °"},
    "pedal.rod_length": "5-1/4 in",
    "pedal.axis": "60 mm",
    "pedal.holes": ["2 in", "3-3/8 in"],
    "pedal.hole_diameter": "3/8 in",
    "booster.pump": "20 inHg",
    "booster.reservoir": {"volume": "5 l", "swept": "0.9 l", "least": "12 inHg", "rests": "air"},
    "booster.envelope": {"diameter": "9 in", "length": "6 in"},
    "booster.room": {"diameter": "10 in", "length": "8 in"},
    "targets.stroke_reserve": 0.15,
    "front.brake.cooling": "ducted",
    "rear.brake.drum_mass": "12 kg",
    "rear.brake.cooling": "inboard",
    "heat": {"speed": "60 mph", "stops": 5, "between": "800 m", "air": "68 °F"},
    "shuttle_volume": "0.5 ml",
}


@pytest.mark.parametrize("path", GOOD)
def test_a_field_is_kept_as_it_was_typed(path: str) -> None:
    build = bakery_with({path: GOOD[path]})
    again = loads(dumps(build))

    assert again == build
    here: Any = json.loads(dumps(again))
    for step in path.split("."):
        here = here[step]
    assert here == GOOD[path]


BAD = [
    ("pedal.angles", {"pad": "30 deg"}, "pedal.angles.pushrod", "is missing"),
    ("pedal.angles.pad", "120 deg", "pedal.angles.pad", "larger than any vehicle has"),
    ("pedal.angles.pad", "30", "pedal.angles.pad", "has no unit"),
    ("pedal.rod_length", "0 in", "pedal.rod_length", "is zero"),
    ("pedal.holes", ["2 in", "-1 in"], "pedal.holes[1]", "is negative"),
    ("pedal.hole_diameter", 8, "pedal.hole_diameter", "bare number 8"),
    ("booster.pump", "31 inHg", "booster.pump", "more than the air presses"),
    ("booster.reservoir", {}, "booster.reservoir.volume", "is missing"),
    ("booster.reservoir", {"volume": "0 l"}, "booster.reservoir.volume", "is zero"),
    (
        "booster.reservoir",
        {"volume": "5 l", "rests": "oil"},
        "booster.reservoir.rests",
        "not known here",
    ),
    ("booster.envelope", {"diameter": "9 in"}, "booster.envelope.length", "is missing"),
    ("targets.stroke_reserve", 1.0, "targets.stroke_reserve", "is the number 1"),
    ("targets.stroke_reserve", -0.1, "targets.stroke_reserve", "is the number -0.1"),
    ("front.brake.cooling", "fan", "front.brake.cooling", "not known here"),
    ("rear.brake.drum_mass", "5 in", "rear.brake.drum_mass", "is not a mass"),
    ("heat", {"stops": 0}, "heat.stops", "is the number 0"),
    ("heat", {"stops": 2.5}, "heat.stops", "is the number 2.5"),
    ("heat", {"speed": "60 m"}, "heat.speed", "is not a speed"),
    ("heat", {"air": "20"}, "heat.air", "has no unit"),
    ("heat", {"wind": "10 mph"}, "heat.wind", "is not a field known here"),
    ("shuttle_volume", "-1 ml", "shuttle_volume", "is negative"),
]


@pytest.mark.parametrize(("path", "value", "place", "words"), BAD)
def test_what_cannot_be_is_refused_with_place_problem_and_remedy(
    path: str, value: object, place: str, words: str
) -> None:
    with pytest.raises(BuildErrors) as refused:
        edited(bed("bakery"), path, value)
    (error,) = [e for e in refused.value.errors if e.path == place]

    assert words in error.problem
    assert error.remedy


def test_a_pump_is_refused_where_the_air_is_too_thin_for_it() -> None:
    """ISO 2533: 79.5 kPa at 2,000 m is 23.5 inHg."""
    low = bakery_with({"vehicle.altitude": "2000 m", "booster.pump": "23 inHg"})
    assert low.booster.pump is not None  # type: ignore[union-attr]
    with pytest.raises(BuildErrors, match="2000 m"):
        bakery_with({"vehicle.altitude": "2000 m", "booster.pump": "24 inHg"})


@pytest.mark.parametrize("name", demo_names())
def test_none_of_them_is_needed(name: str) -> None:
    build = bed(name)
    for path in ("pedal.angles", "pedal.rod_length", "heat", "shuttle_volume", "fluid"):
        build = edited(build, path, None)
        assert value_at(build, path) is None
    assert build.targets.stroke_reserve == 0.0


def test_shipped_tables_say_where_they_are_from() -> None:
    tables = (fluid_table(), hose_table(), piston_table(), window_table())

    assert all(table.source for table in tables)
    pistons = piston_table()
    for sizes in (pistons.wheel_cylinders, pistons.calipers):
        values = [size.value for size in sizes]
        assert values == sorted(values)
