"""Figures worked out from readings: kept with them, and worked out again."""

from typing import Any

import pytest

from tests.builds import bed, with_changes
from urgens.document import Build, BuildChange, BuildErrors, changed, dumps, loads
from urgens.document.readings import HeightEstimate, RaisedAxleReadings

HEIGHT = "vehicle.load_cases[0].cg_height"
# A weighing to work out by hand: a 1,000 kg vehicle, half on each axle, wheelbase 2.5 m, hubs
# raised by 0.7 m (7 : 24 : 25 by Pythagoras, tangent 7/24): 35 kg gained are 0.3 m over the hubs.
READ: dict[str, Any] = {
    "kind": "raised-axle", "raised": "front", "front_axle": "500 kg", "rear_axle": "500 kg",
    "liftings": [{"lift": "700 mm", "load": "535 kg"}],
    "scale_error": "1 kg", "lift_error": "3 mm",
}  # fmt: skip


def weighed(**more: Any) -> Build:
    """A vehicle whose height was worked out from one lifting."""
    known = {HEIGHT: {"state": "measured", "readings": {**READ, **more}}}
    changes = {"vehicle.wheelbase": "2500 mm", HEIGHT: "600 mm",
               "front.tyre": {"rolling_radius": "300 mm"},
               "rear.tyre": {"rolling_radius": "300 mm"}, "evidence": known}  # fmt: skip
    return with_changes(bed("bakery"), changes)


def test_a_height_follows_from_its_readings_by_moments() -> None:
    found = RaisedAxleReadings.model_validate(READ).height(2.5, (0.3, 0.3))
    assert isinstance(found, HeightEstimate)
    assert found.height == pytest.approx(0.6, rel=1e-12)


def test_with_another_tyre_the_height_is_worked_out_again() -> None:
    made = changed(weighed(), BuildChange("", {"front.tyre": {"rolling_radius": "320 mm"}}))
    case = made.vehicle.load_cases[0]
    assert case.cg_height.value == pytest.approx(0.61, abs=1e-3)  # half way between the axles
    assert made.evidence[HEIGHT].state == "measured"
    assert made.evidence[HEIGHT].readings is not None


def test_a_load_that_changes_later_was_not_on_the_scales() -> None:
    made = changed(weighed(), BuildChange("", {"vehicle.load_cases[0].front_axle": "560 kg"}))
    assert made.vehicle.load_cases[0].cg_height.text == "600 mm"


def test_a_height_that_is_typed_is_worked_out_no_longer() -> None:
    typed = changed(weighed(), BuildChange("", {HEIGHT: "580 mm"}))
    assert typed.evidence[HEIGHT].readings is None
    made = changed(typed, BuildChange("", {"front.tyre": {"rolling_radius": "320 mm"}}))
    assert made.vehicle.load_cases[0].cg_height.text == "580 mm"


def test_readings_that_give_nothing_any_more_leave_a_guess() -> None:
    made = changed(weighed(), BuildChange("", {"vehicle.wheelbase": "900 mm"}))
    assert made.vehicle.load_cases[0].cg_height.text == "600 mm"
    assert made.evidence[HEIGHT].state == "assumed"
    assert "no height" in made.evidence[HEIGHT].note


def test_in_a_set_up_the_height_is_worked_out_there_alone() -> None:
    build = with_changes(weighed(), {"setups": [{"name": "tall", "changes": {}}]})
    made = changed(build, BuildChange("", {"rear.tyre": {"rolling_radius": "320 mm"}}), "tall")
    assert made.vehicle.load_cases[0].cg_height.text == "600 mm"
    assert made.setups[0].changes[HEIGHT] == "610.0 mm"


def test_readings_of_another_figure_are_refused() -> None:
    known = {"master.bore": {"state": "measured", "readings": READ}}
    build = with_changes(bed("bakery"), {"evidence": known})
    with pytest.raises(BuildErrors, match="says nothing of this figure"):
        changed(build, BuildChange("", {"notes": "x"}))
    with pytest.raises(BuildErrors, match="says nothing of this figure"):
        loads(dumps(build))


@pytest.mark.parametrize(
    ("more", "place"),
    [
        ({"kind": "pendulum"}, "readings"),
        ({"liftings": []}, "liftings"),
        ({"liftings": [{"lift": "700 mm", "load": "400 kg"}]}, "liftings[0].load"),
    ],
)
def test_readings_that_cannot_be_are_named(more: dict[str, Any], place: str) -> None:
    with pytest.raises(BuildErrors, match=r"evidence") as refused:
        weighed(**more)
    assert any(place in error.path for error in refused.value.errors)
