"""Two cylinders beside each other: what the other one changes, by hand."""

import pytest

from tests.builds import bed
from urgens.document import Build, BuildErrors, with_changes
from urgens.guidance.advice.two_cylinders import changes, look_alikes, other_build
from urgens.quantity import UnitSystem
from urgens.solve import solve

METRIC = UnitSystem.METRIC


def van(**facts: str) -> Build:
    return with_changes(bed("bakery"), {"setups": [], **{f"master.{n}": v
                        for n, v in facts.items()}})  # fmt: skip


def told(build: Build, **other: str) -> dict[str, tuple[str, str]]:
    found = changes(solve(build), other_build(build, other), METRIC)
    return {one.what: (one.words, one.tone) for one in found}


def test_a_look_alike_with_a_deeper_socket_is_caught() -> None:
    """30 mm for 8 mm: 22 mm more rod, 17⅝ turns of a millimetre and a quarter; common practice."""
    build = with_changes(van(socket_depth="8 mm", flange_bolts="83 mm"),
                         {"pedal.pushrod_thread": "M8 × 1.25"})  # fmt: skip
    other = other_build(build, {"socket_depth": "30 mm", "flange_bolts": "83 mm"})
    assert look_alikes(build.master, other.master)
    words, tone = told(build, socket_depth="30 mm", flange_bolts="83 mm")["Rod"]
    assert tone == "danger"
    assert words.startswith("They look alike, and are not")
    assert "22.0 mm longer" in words
    assert "17⅝ turns" in words


def test_a_shallower_socket_keeps_the_ports_covered() -> None:
    words, tone = told(van(socket_depth="12 mm"), socket_depth="9 mm")["Rod"]
    assert tone == "danger"
    assert "cannot come back" in words
    assert told(van(socket_depth="12 mm"), socket_depth="12.1 mm")["Rod"][1] == ""
    assert "not measured" in told(van(), socket_depth="12 mm")["Rod"][0]


def test_what_is_not_measured_of_the_other_is_not_taken_as_of_ones_own() -> None:
    """A depth of one's own says nothing of a look-alike's; common practice."""
    sits = [{"circuit": "front", "position": "left"}, {"circuit": "rear", "position": "end"}]
    facts = {"socket_depth": "8 mm", "flange_bolts": "83 mm", "body_length": "23 cm"}
    build = with_changes(van(**facts), {"master.outlets": sits, "room": {"ahead": "20 cm"}})
    found = told(build, bore="7/8 in")
    words, tone = found["Rod"]
    assert "of the other is not measured" in words
    reached = "were that foot reached" not in found["Pressure"][0]
    assert reached == ("ends before" not in found["Pad travel"][0])
    assert tone == "warning"
    assert not {"Flange", "Ahead"} & set(found)
    assert "not given of both" in found["Lines"][0]


def test_pressure_goes_with_the_area() -> None:
    """7/8 for 1 in at one foot: (8/7)² of the pressure, by hand."""
    build = with_changes(van(bore="1 in"), {"booster": {"kind": "none"},
                                            "master.spring_preload": "0 N"})  # fmt: skip
    words, _ = told(build, bore="7/8 in")["Pressure"]
    assert f"{100 * ((8 / 7) ** 2 - 1):.0f} % more" in words
    assert told(build, bore="1 in")["Pressure"][0].startswith("The same")


def test_bolts_and_room_are_compared() -> None:
    build = with_changes(van(flange_bolts="83 mm"), {"room": {"ahead": "20 cm"}})
    found = told(build, flange_bolts="86 mm", body_length="23 cm")
    assert found["Flange"] == ("Its bolts are 3.0 mm further apart: it does not bolt on.",
                               "warning")  # fmt: skip
    assert found["Ahead"] == ("30.0 mm too long for the room.", "warning")
    assert told(build, body_length="15 cm")["Ahead"][0] == "50.0 mm left."


def test_outlets_that_sit_elsewhere_have_their_lines_made_anew() -> None:
    sits = [{"circuit": "front", "position": "left"}, {"circuit": "rear", "position": "end"}]
    build = with_changes(van(), {"master.outlets": sits})
    moved = [{**sits[0], "position": "right"}, sits[1]]
    other = with_changes(build, {"master.outlets": moved})
    found = {one.what: one for one in changes(solve(build), other, METRIC)}
    assert found["Lines"].tone == "warning"
    assert "front, right" in found["Lines"].words


def test_what_hurts_stands_first_and_what_cannot_be_is_refused() -> None:
    found = list(changes(solve(van(socket_depth="8 mm")), other_build(van(), {"bore": "15/16 in",
                         "socket_depth": "30 mm"}), METRIC))  # fmt: skip
    tones = [one.tone for one in found]
    assert tones == sorted(tones, key=("danger", "warning", "").index)
    with pytest.raises(BuildErrors, match="bore"):
        other_build(van(), {"bore": "wide"})
