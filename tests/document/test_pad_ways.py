"""Rotor with pad height, effective radius, two radii: each is made from any other."""

from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.builds import bed
from urgens.document import Build, changed, edited
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.pad_ways import WAYS, pad_ways
from urgens.physics.axle import Axle
from urgens.quantity import UnitSystem

ROTOR = {"rotor_outer_diameter": "262 mm", "pad_height": "42 mm"}
GIVEN = {
    "Effective radius alone": {"effective_radius": "110 mm"},
    "Rotor with pad height": ROTOR,
    "Pad by its two radii": {"pad_inner_radius": "89 mm", "pad_outer_radius": "131 mm"},
}


def with_disc(given: dict[str, str]) -> Build:
    brake = {"kind": "disc", "caliper": "sliding", "piston_diameters": ["54 mm"]}
    return edited(bed("bakery"), "front.brake", {**brake, "pad_friction": 0.4, **given})


def turned(build: Build, words: str, units: UnitSystem = UnitSystem.METRIC) -> Build:
    change = next(one for one in pad_ways(build, Axle.FRONT, units) if one.label == words)
    return changed(build, change)


def disc(build: Build) -> Disc:
    brake = build.front.brake
    assert isinstance(brake, Disc)
    return brake


@pytest.mark.parametrize(("start", "end"), [p for p in product(GIVEN, GIVEN) if p[0] != p[1]])
@pytest.mark.parametrize("units", list(UnitSystem))
def test_each_way_turns_into_each_other(start: str, end: str, units: UnitSystem) -> None:
    """All three of these say 110 mm: 262 / 2 - 42 / 2, and (89 + 131) / 2."""
    made = turned(with_disc(GIVEN[start]), end, units)

    given = disc(made).model_dump(exclude_unset=True)
    assert GIVEN[end].keys() <= given.keys()
    assert not {name for name in given if name in ROTOR} - GIVEN[end].keys()
    assert disc(made).radius == pytest.approx(0.110, rel=2e-3)
    assert len(list(pad_ways(made, Axle.FRONT, units))) == len(WAYS) - 1


def test_what_is_measured_of_the_pad_is_not_lost_on_the_way() -> None:
    made = turned(with_disc(GIVEN["Pad by its two radii"]), "Rotor with pad height")

    assert disc(made).rotor_outer_diameter.value == pytest.approx(0.262)  # type: ignore[union-attr]
    assert disc(made).pad_height.value == pytest.approx(0.042)  # type: ignore[union-attr]


def test_only_an_effective_radius_is_known_as_well_as_what_it_follows_from() -> None:
    typed = with_disc(ROTOR)
    radius = "front.brake.effective_radius"
    assert radius not in turned(typed, "Effective radius alone").evidence
    radii = turned(typed, "Pad by its two radii")
    assert radii.evidence["front.brake.pad_outer_radius"].state == "assumed"
    assert turned(radii, "Effective radius alone").evidence[radius].state == "assumed"


@given(st.floats(80.0, 200.0), st.floats(0.05, 0.9))
def test_there_and_back_the_radius_stays(rotor: float, share: float) -> None:
    build = with_disc(
        {"rotor_outer_diameter": f"{2 * rotor:.1f} mm", "pad_height": f"{share * rotor:.1f} mm"}
    )
    before = disc(build).radius
    for words in ("Effective radius alone", "Pad by its two radii", "Rotor with pad height"):
        build = turned(build, words)
        assert disc(build).radius == pytest.approx(before, rel=3e-3)
