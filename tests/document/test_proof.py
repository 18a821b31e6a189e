"""What was measured stands in the file as it was typed, and follows the valves it was read at."""

import json
from typing import Any

import pytest

from tests.builds import bed
from urgens.document import Build, BuildChange, BuildErrors, changed, demo, dumps, loads
from urgens.document.edits.edit import edited

AT = "2026-05-02T14:10:00"
GAUGES = {
    "at": AT, "valve": "rear[0]", "full_scale": "1500 psi", "class": 1.6,
    "points": [["300 psi", "290 psi", "rising"]],
}  # fmt: skip
STOP = {
    "at": AT, "load_case": "Driver", "surface": 0.9, "setting": {"valves.rear[0].turns": 3.5},
    "speed": "45 mph", "distance": None, "deceleration": 0.72, "effort": "60 lbf",
    "locked": "front", "pull": "none", "front_temperature": None, "rear_temperature": None,
    "note": "",
}  # fmt: skip
LOG = {
    "at": AT, "file": "run-3.csv", "sha256": "0" * 64,
    "channels": {"front_pressure": {"column": "P1", "unit": "bar"}}, "note": "",
}  # fmt: skip
WEAR = {"at": AT, "since": "2026-01-01", "front": ["1.2 mm", "1.1 mm"], "rear": ["0.4 mm"]}
PROOF: dict[str, Any] = {"gauges": [GAUGES], "stops": [STOP], "logs": [LOG], "wear": [WEAR]}


def proved(**sections: Any) -> Build:
    return edited(bed("bakery"), "proof", {**PROOF, **sections})


def test_the_contract_s_example_is_read_and_written_as_it_stands() -> None:
    assert json.loads(dumps(loads(dumps(proved()))))["proof"] == PROOF


@pytest.mark.parametrize(
    ("path", "value", "place", "words"),
    [
        ("proof.gauges[0].points[0][0]", "3000 psi", "gauges[0].points", "more than the gauge"),
        ("proof.gauges[0].points[0][0]", 300, "gauges[0].points[0][0]", "without a unit"),
        ("proof.gauges[0].valve", "boot", "gauges[0].valve", "is no valve"),
        ("proof.gauges[0].class", 0, "gauges[0].class", "number 0"),
        ("proof.stops[0].locked", "left", "stops[0].locked", "not known here"),
        ("proof.stops[0].deceleration", "0.7", "stops[0].deceleration", "text"),
        ("proof.stops[0].at", "yesterday", "stops[0].at", "not a time"),
        ("proof.logs[0].file", "../run.csv", "logs[0].file", "beside the build"),
        ("proof.logs[0].sha256", "12", "logs[0].sha256", ""),
        (
            "proof.logs[0].channels.boost",
            {"column": "x", "unit": "bar"},
            "logs[0].channels",
            "boost",
        ),
        ("proof.wear[0].front", [], "wear[0].front", "empty"),
        ("proof.wear[0].since", "spring", "wear[0].since", "not a date"),
        ("proof.usual_stops", [0.4, 0.1], "usual_stops", "do not rise"),
    ],
)
def test_what_is_wrong_is_said_at_its_place(path: str, value: Any, place: str, words: str) -> None:
    with pytest.raises(BuildErrors) as refused:
        edited(proved(), path, value)

    [error] = refused.value.errors
    assert error.path.startswith(f"proof.{place}")
    assert words in f"{error.path} {error.problem}"
    assert error.remedy


def test_a_distance_without_its_speed_is_refused() -> None:
    with pytest.raises(BuildErrors, match="speed"):
        proved(stops=[{**STOP, "speed": None, "distance": "30 m"}])


def test_gauges_and_settings_follow_their_valve_to_its_new_place() -> None:
    new = {"kind": "reducing", "knee": "300 psi", "slope": 0.4}
    before = edited(proved(), "valves.rear", [new])

    moved = changed(before, BuildChange("Another first", orders={"valves.rear": [new, 0]}))
    gone = changed(moved, BuildChange("Taken out", orders={"valves.rear": [0]}))

    assert moved.proof is not None
    assert moved.proof.gauges[0].valve == "rear[1]"
    assert dict(moved.proof.stops[0].setting) == {"valves.rear[1].turns": 3.5}
    assert gone.proof is not None
    assert gone.proof.gauges[0].valve == ""
    assert dict(gone.proof.stops[0].setting) == {}
    assert len(gone.proof.gauges) == len(gone.proof.stops) == 1


@pytest.mark.parametrize(
    ("setting", "fits"),
    [(2.0, True), ("4 mm", True), ("300 psi", True), ("two turns", False), ("", False)],
)
def test_a_stop_is_set_to_figures_and_to_no_words(setting: object, fits: bool) -> None:
    stop = {"at": "2026-05-02T10:00", "load_case": "Driver", "surface": 0.9,
            "setting": {"valves.rear[0].turns": setting}}  # fmt: skip
    if fits:
        assert edited(demo("roadster"), "proof", {"stops": [stop]}).proof is not None
        return
    with pytest.raises(BuildErrors) as refused:
        edited(demo("roadster"), "proof", {"stops": [stop]})
    assert str(refused.value) == (
        f'proof.stops[0].setting: valves.rear[0].turns is set to "{setting}", which is not a '
        'figure; write turns or notches as a number, such as 2, else a quantity, such as "4 mm"'
    )
