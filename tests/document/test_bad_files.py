"""Damaged and mistaken build files: the whole text, exit code 2, never a traceback."""

import json
import os
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed_text
from urgens.cli.main import main
from urgens.document import BuildErrors, demo_names, load, loads

Change = Callable[[dict[str, Any]], object]
LENGTH_REMEDY = (
    'write a length in quotes with its unit (in, mm, cm, m, ft), for example "1-1/16 in"'
)
START = 'a build file starts {"format": "urgens.build", "version": 2, …'
SCHEMA = "`urgens new OUT.urgens.json` writes a small build to look at"


def _set(path: str, value: object) -> Change:
    """A change that puts `value` at a path of fields and indices apart by dots."""

    def change(document: dict[str, Any]) -> None:
        here: Any = document
        *way, last = (int(step) if step.isdigit() else step for step in path.split("."))
        for step in way:
            here = here[step]
        if value is None:
            del here[last]
        else:
            here[last] = value

    return change


DRUM: dict[str, Any] = {
    "kind": "drum",
    "layout": "leading-trailing",
    "cylinder_diameter": "22 mm",
    "drum_diameter": "300 mm",
}
# the lining of Shigley's internal expanding rim brake, which grabs at about 0.32 × 787 / 304
SHOE: dict[str, Any] = {
    "lining_friction": 0.32,
    "hinge_distance": "122.7 mm",
    "arm": "212 mm",
    "heel_angle": "0 deg",
    "toe_angle": "126 deg",
}
BAD: dict[str, tuple[Change, str]] = {
    "bare number": (
        _set("front.brake.piston_diameters", ["3 in", 4]),
        "front.brake.piston_diameters[1]: is the bare number 4, without a unit; " + LENGTH_REMEDY,
    ),
    "wrong dimension": (
        _set("master.bore", "15 psi"),
        'master.bore: "15 psi" is not a length; write a length with its unit (in, mm, cm, m or '
        'ft), for example "1-1/16 in"',
    ),
    "negative": (
        _set("vehicle.wheelbase", "-2.3 m"),
        'vehicle.wheelbase: "-2.3 m" is negative; write a length above zero, for example '
        '"1-1/16 in"',
    ),
    "zero": (
        _set("front.tyre.rolling_radius", "0 mm"),
        'front.tyre.rolling_radius: "0 mm" is zero; write a length above zero, for example '
        '"1-1/16 in"',
    ),
    "true for a quantity": (
        _set("master.bore", True),
        "master.bore: is true, not a quantity; " + LENGTH_REMEDY,
    ),
    "unknown field": (
        _set("pedal.pivot_to_pda", "12 in"),
        'pedal.pivot_to_pda: is not a field known here; write "pivot_to_pad"',
    ),
    "unknown field, like none": (
        _set("pedal.colour", "red"),
        f"pedal.colour: is not a field known here; take it out; {SCHEMA}",
    ),
    "unknown kind": (
        _set("rear.brake.kind", "hub"),
        'rear.brake: is of the unknown kind "hub"; write "disc" or "drum"',
    ),
    "no kind": (
        _set("master.kind", None),
        'master: has no kind; add "kind": "single", "tandem", "twin" or "stepped"',
    ),
    "missing field": (
        _set("pedal.pivot_to_pad", None),
        f"pedal.pivot_to_pad: is missing; add it; {SCHEMA}",
    ),
    "empty list": (
        _set("vehicle.load_cases", []),
        "vehicle.load_cases: is empty; give at least one",
    ),
    "empty name": (_set("name", ""), "name: is empty; write a name"),
    "null": (
        _set("valves.rear", [None]),
        "valves.rear[0]: is null; write an object in braces",
    ),
    "text for a number": (
        _set("front.brake.pad_friction", "0.4"),
        'front.brake.pad_friction: is the text "0.4"; write a plain number, without quotes',
    ),
    "out of range": (
        _set("valves.rear.0.slope", 1.0),
        "valves.rear[0].slope: is the number 1; write a number below 1",
    ),
    "gain below 1": (
        _set("booster.gain", 0.5),
        "booster.gain: is the number 0.5; write a number of at least 1",
    ),
    "unknown word": (
        _set("vehicle.use", "boat"),
        "vehicle.use: is the text \"boat\", which is not known here; write 'street', 'track', "
        "'drag', 'restoration' or 'truck'",
    ),
    "two load cases of one name": (
        _set("vehicle.load_cases.1.name", "Empty, driver"),
        'vehicle.load_cases[1].name: "Empty, driver" is also the name of load case 1; give each '
        "load case a name of its own",
    ),
    "table that does not rise": (
        _set(
            "valves.rear",
            [
                {
                    "kind": "adjustable",
                    "slope": 0.3,
                    "turns": 1,
                    "table": [[0, "10 bar"], [2, "30 bar"], [2, "20 bar"]],
                }
            ],
        ),
        "valves.rear[0].table[2][0]: 2 turns do not come after 2; order the rows by rising turns, "
        'each once\nvalves.rear[0].table[2][1]: the knee falls from "30 bar" to "20 bar"; write '
        "knees that rise with the turns; count turns the other way if need be",
    ),
    "metering that opens before it shuts": (
        _set("valves.front.0.close", "200 psi"),
        'valves.front[0].close: "200 psi" is above the opening pressure "130 psi"; write a closing '
        "pressure at or below open",
    ),
    "metering full before it opens": (
        _set("valves.front.0.full", "130 psi"),
        'valves.front[0].full: "130 psi" is not above the opening pressure "130 psi"; write a '
        "pressure above open, or leave full out (it is then twice open)",
    ),
    "bearing beyond the bar": (
        _set(
            "master",
            {
                "kind": "twin",
                "front_bore": "19 mm",
                "rear_bore": "19 mm",
                "bar_length": "60 mm",
                "bar_offset": "30 mm",
            },
        ),
        'master.bar_offset: "30 mm" puts the bearing at or beyond a rod of a bar "60 mm" long; '
        "write less than half of bar_length, towards the front cylinder positive",
    ),
    "circuits that do not go with the cylinder": (
        _set("circuits", "single"),
        'circuits: "single" does not go with a tandem cylinder; write "front-rear" or "diagonal", '
        "or choose another cylinder",
    ),
    "load-sensing valve upside down": (
        _set(
            "valves.rear",
            [
                {
                    "kind": "load-sensing",
                    "points": [["900 kg", "60 bar"], ["400 kg", "20 bar"]],
                    "slope": 0.3,
                    "follows": "static",
                }
            ],
        ),
        'valves.rear[0].points[1][0]: the load "400 kg" does not come after "900 kg"; write the '
        'lighter load first\nvalves.rear[0].points[1][1]: the knee falls from "60 bar" to '
        '"20 bar"; write a knee that rises with the load',
    ),
    "shoes of a duo-servo": (
        _set("rear.brake", {**DRUM, "layout": "duo-servo", "shoe": SHOE}),
        "rear.brake.shoe: does not describe a duo-servo brake, whose shoes push each other; give "
        "its shoe_factor; 4.5 to 6 is usual",
    ),
    "a shoe that grabs": (
        _set("rear.brake", {**DRUM, "shoe": {**SHOE, "lining_friction": 1.2}}),
        "rear.brake.shoe.lining_friction: 1.2 makes the leading shoe grab: it locks by itself; "
        "write a friction below 0.83, or another geometry",
    ),
    "a hinge outside the drum": (
        _set("rear.brake", {**DRUM, "shoe": {**SHOE, "hinge_distance": "160 mm"}}),
        'rear.brake.shoe.hinge_distance: "160 mm" is not less than the drum\'s radius; write the '
        "distance from the hinge to the drum's centre",
    ),
    "a lining that ends before it starts": (
        _set("rear.brake", {**DRUM, "shoe": {**SHOE, "heel_angle": "130 deg"}}),
        'rear.brake.shoe.toe_angle: "126 deg" is not between "130 deg" and "180 deg"; write where '
        "the lining ends, seen from the hinge",
    ),
    "a lining longer than half the drum": (
        _set("rear.brake", {**DRUM, "shoe": {**SHOE, "toe_angle": "190 deg"}}),
        'rear.brake.shoe.toe_angle: "190 deg" is not between "0 deg" and "180 deg"; write where '
        "the lining ends, seen from the hinge",
    ),
    "neither factor nor shoe": (
        _set("rear.brake", DRUM),
        'rear.brake.shoe_factor: is missing, and so is shoe; give "shoe_factor": 2.3, or the '
        "geometry of its shoes",
    ),
    "vacuum above the air": (
        _set("booster.vacuum", "31 inHg"),
        'booster.vacuum: "31 inHg" is more than the air presses at "0 m" of altitude; write the '
        'depression at idle, below "1.01 bar"',
    ),
    "no radius": (
        _set("front.brake.pad_height", None),
        "front.brake.effective_radius: is missing, and so is rotor_outer_diameter or pad_height; "
        'give "effective_radius": "115 mm", or both rotor_outer_diameter and pad_height',
    ),
    "pad wider than the rotor": (
        _set("front.brake.pad_height", "7 in"),
        'front.brake.pad_height: "7 in" is not less than the rotor\'s radius; write a height below '
        'half of "11-7/8 in"',
    ),
    "no tyre": (
        _set("rear.tyre", {}),
        'rear.tyre: has neither rolling_radius nor size; give "rolling_radius": "285 mm" or '
        '"size": "185/60R14"',
    ),
    "tyre code": (
        _set("rear.tyre", {"size": "wide"}),
        'rear.tyre.size: is the text "wide", not a tyre size known here; write it like '
        '"185/60R14" or "28x10.50-15", or give rolling_radius',
    ),
    "window upside down": (
        _set("targets.pressure_window", ["900 psi", "500 psi"]),
        'targets.pressure_window: "900 psi" is not below "500 psi"; write the lower pressure first',
    ),
    "chamber with the whole stroke": (
        _set("master.primary_stroke", "1.4 in"),
        'master.primary_stroke: "1.4 in" leaves nothing of the whole stroke "1.4 in"; write less '
        "than the whole stroke, or give both chambers' strokes",
    ),
    "newer version": (
        _set("version", 7),
        "version: the file is of version 7, made by a newer Urgens; this one reads version 2; "
        "open it with the newer Urgens; nothing in it was changed",
    ),
    "another format": (_set("format", "x"), f'format: is not "urgens.build"; {START}'),
    "no version": (_set("version", None), f"version: is missing; add it; {SCHEMA}"),
}


@pytest.mark.parametrize("case", BAD)
def test_a_mistaken_document(
    case: str, document: dict[str, Any], tmp_path: Path, capsys: Any
) -> None:
    change, words = BAD[case]
    change(document)
    path = tmp_path / "bad.urgens.json"
    path.write_text(json.dumps(document), encoding="utf-8")

    assert main(["solve", str(path)]) == 2

    out, err = capsys.readouterr()
    lines = words.split("\n")
    count = f"{len(lines)} problem{'s' if len(lines) > 1 else ''}"
    assert out == ""
    assert err == f"urgens: {path}: {count}\n" + "".join(f"  {line}\n" for line in lines)


DAMAGED: dict[str, tuple[bytes, str]] = {
    "not JSON": (
        b"wheelbase: 2 m",
        "line 1, column 1: it is not JSON (expecting value); mend it there, or open its .bak",
    ),
    "empty": (b" \n", f"the file is empty; {START}"),
    "a list": (b"[]", f"the file holds no JSON object; {START}"),
    "cut off": (
        bed_text("bakery").encode()[:900],
        "line 19, column 7: the file ends too early "
        "(unterminated string starting at); it may be cut off: look for its .bak",
    ),
    "NaN": (b'{"format": NaN}', "format: NaN is not a figure; write a finite number or a quantity"),
    "Infinity": (
        b'{"a": -Infinity}',
        "a: -Infinity is not a figure; write a finite number or a quantity",
    ),
    "10 MB of brackets": (
        b"[" * 10_000_000,
        "brackets are nested too deeply; a build is nested eight deep at most",
    ),
    "1 MB of brackets": (
        b"[" * 1_000_000,
        "brackets are nested too deeply; a build is nested eight deep at most",
    ),
    "bytes": (b"\xff\xfe\x00", "byte 1 is not UTF-8 text; save it as UTF-8"),
    "twice": (b'{"name": 1, "name": 2}', "name: is given twice in one object; keep one of the two"),
}


@pytest.mark.parametrize("case", DAMAGED)
def test_a_damaged_file(case: str, tmp_path: Path, capsys: Any) -> None:
    raw, words = DAMAGED[case]
    path = tmp_path / "damaged.urgens.json"
    path.write_bytes(raw)

    assert main(["check", str(path)]) == 2

    assert capsys.readouterr().err == f"urgens: {path}: 1 problem\n  {words}\n"


def test_a_huge_integer_is_refused_in_words() -> None:
    with pytest.raises(BuildErrors, match="a number cannot be read"):
        loads('{"format": ' + "9" * 5000 + "}")


def test_a_directory_and_a_missing_file(tmp_path: Path, capsys: Any) -> None:
    assert main(["solve", str(tmp_path)]) == 2
    assert main(["solve", str(tmp_path / "none")]) == 2

    assert capsys.readouterr().err == (
        f"urgens: {tmp_path}: 1 problem\n  it is a directory; name a file in it\n"
        f"urgens: {tmp_path / 'none'}: 1 problem\n"
        "  there is no such file; check the name and folder\n"
    )


def test_what_is_no_file_on_a_disk_is_not_waited_for(tmp_path: Path) -> None:
    os.mkfifo(tmp_path / "pipe")
    (tmp_path / "loop").symlink_to("loop")
    for path, words in (
        (tmp_path / "pipe", "it is no file; name one that is stored on a disk"),
        (Path("/dev/zero"), "it is no file; name one that is stored on a disk"),
        (tmp_path / "loop", "it cannot be read .Too many levels of symbolic links.; check"),
    ):
        with pytest.raises(BuildErrors, match=words):
            load(path)


def test_a_file_larger_than_any_build_is_not_read(tmp_path: Path) -> None:
    path = tmp_path / "large.urgens.json"
    with path.open("wb") as file:
        file.truncate(64 * 1024 * 1024 + 1)

    with pytest.raises(BuildErrors, match="it is larger than 64 MiB"):
        load(path)


def test_a_thousand_load_cases_are_the_most(document: dict[str, Any]) -> None:
    case = document["vehicle"]["load_cases"][0]
    document["vehicle"]["load_cases"] = [case | {"name": f"{index}"} for index in range(1001)]

    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps(document))
    assert str(refused.value) == ("vehicle.load_cases: has too many entries; give at most 1000")


def test_errors_are_cut_with_a_count(document: dict[str, Any]) -> None:
    document |= {f"x{index}": 1 for index in range(2_000)} | {"k" * 100_000: 1}

    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps(document))
    lines = str(refused.value).splitlines()
    assert len(refused.value.errors) == 2_001
    assert lines[-1] == "… and 1981 more"
    assert len(lines) == 21
    long = next(error for error in refused.value.errors if len(error.path) > 1000)
    assert len(str(long)) < 450
    assert "letters" in str(long)


def test_what_an_error_says_does_nothing_to_a_terminal(document: dict[str, Any]) -> None:
    document |= {"\x1b[2J": 1, "\u202ebackwards": 1}

    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps(document))
    assert str(refused.value).splitlines()[0].startswith("\u241b[2J: is not a field known here")
    assert "\u202e" not in str(refused.value)


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        ("name", "red \x1b[31m", "name: holds the control character U+001B; take it out"),
        ("name", "two\nlines", "name: holds the control character U+000A; take it out"),
        ("notes", "two\nlines\x00", "notes: holds the control character U+0000; take it out"),
        ("version", True, "version: is true; write 2"),
        ("version", 1.0, "version: is the number 1; write 2"),
        ("front.brake.pad_friction", 10**400, "is the number 1000… of 401 digits; write"),
        ("master.bore", 10**400, "is the bare number 1000… of 401 digits, without a unit; write"),
        ("evidence", {"rules": {"state": "assumed"}}, "is not in this build"),
        ("evidence", {"__class__": {"state": "assumed"}}, "is not in this build"),
        ("evidence", {"front.brake": {"state": "assumed"}}, "is no figure; name one of the"),
    ],
)
def test_odd_values_are_refused_in_words(
    document: dict[str, Any], path: str, value: object, words: str
) -> None:
    here = document
    *way, last = path.split(".")
    for step in way:
        here = here[step]
    here[last] = value

    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps(document))
    assert words in str(refused.value)


def test_notes_of_several_lines_are_notes(document: dict[str, Any]) -> None:
    assert loads(json.dumps(document | {"notes": "one\n\ttwo"})).notes == "one\n\ttwo"


def test_faults_are_gathered(document: dict[str, Any]) -> None:
    document["master"]["bore"] = "-1 in"
    document["frnt"] = {}
    document["valves"]["rear"][0]["slope"] = 2

    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps(document))

    assert [error.path for error in refused.value.errors] == [
        "master.bore",
        "valves.rear[0].slope",
        "frnt",
    ]


@pytest.mark.parametrize("name", demo_names())
@settings(max_examples=100)
@given(data=st.data())
def test_any_damage_is_answered_in_words(name: str, data: st.DataObject) -> None:
    """A piece of a good file replaced by rubbish gives a build or BuildErrors, nothing else."""
    text = bed_text(name)
    start = data.draw(st.integers(0, len(text)))
    end = data.draw(st.integers(start, min(start + 40, len(text))))
    rubbish = data.draw(st.sampled_from(["", "null", "[]", "{}", '"x"', "-1", "1e400", ",", "}"]))
    try:
        said = [loads(text[:start] + rubbish + text[end:]).format]
    except BuildErrors as refused:
        said = [error.problem and error.remedy for error in refused.errors]

    assert said
    assert all(said)
