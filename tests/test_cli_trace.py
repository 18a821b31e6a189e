"""The command line of faults and sayings."""

import json
from datetime import datetime
from pathlib import Path
from typing import Any

import pytest

from tests.test_cli import demo_file
from urgens.cli.main import main
from urgens.document import demo, save, with_changes


def test_a_fault_is_traced_as_json(capsys: Any) -> None:
    build = str(demo_file("library"))
    told = ["--sign", "sinks", "--not-sign", "level-falls", "--test", "paper=dry"]
    assert main(["trace", build, *told, "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["stop_driving"] is True
    assert found["causes"][0]["id"] == "cup-bypass"
    assert found["causes"][0]["mend"] == "overhaul"
    assert set(found["next"][0]) == {"test", "minutes", "why", "gain"}
    assert sum(one["share"] for one in found["causes"]) + found["other"] <= 1.0 + 1e-9
    assert found["contradictions"] == []


def test_a_fault_is_traced_in_words(capsys: Any) -> None:
    build = str(demo_file("library"))
    reading = 'travel-1="95 mm"@"300 N"'
    assert main(["trace", build, "--sign", "pumps-up", "--reading", reading]) == 0
    said = capsys.readouterr().out
    assert "Pad travel at 67 lbf" in said
    assert "10 of 100  Something not in this list." in said
    assert "\nNext: " in said


def test_what_is_said_both_ways_is_a_contradiction(capsys: Any) -> None:
    build = str(demo_file("library"))
    told = ["--test", "hold=holds", "--test", "hold=sinks", "--sign", "lamp", "--not-sign", "lamp"]
    told += ["--sign", "pulls:left", "--sign", "pulls:right"]
    assert main(["trace", build, *told]) == 0
    said = capsys.readouterr().out
    assert "Contradiction: hold: holds and sinks exclude each other." in said
    assert "Contradiction: lamp: seen and not seen." in said
    assert "Contradiction: pulls: answered in two ways; the last one counts." in said


def test_all_there_is_to_see_is_listed(capsys: Any) -> None:
    assert main(["trace", "--list"]) == 0
    found = json.loads(capsys.readouterr().out)
    signs = {one["id"]: one for one in found["signs"]}
    assert {"spongy", "sinks"} <= set(signs)
    (which,) = signs["one-axle-bleeds"]["asks"]
    assert [one["id"] for one in which["answers"]] == ["front", "rear"]
    assert which["words"] == "Which gives nothing?"
    assert all(one["outcomes"] for one in found["tests"])


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["--sign", "spung"], 'write "spongy"'),
        (["--sign", "booster-wet"], "the layout has no such part"),
        (["--test", "hold=maybe"], "choose one of holds, sinks"),
        (["--test", "holt=sinks"], 'write "hold"'),
        (["--test", "hold"], "write TEST=OUTCOME"),
        (["--reading", "travel"], "write NAME=VALUE@FOOT"),
        (["--reading", "travel=9 m@300 N"], "beyond any vehicle"),
        (["--reading", "trawel=9 mm@300 N"], "choose one of travel"),
        (["--load-case", "nobody"], "choose one of"),
        (["--sign", "pulls:up"], "choose one of left, right"),
        (["--sign", "pulls:"], "write ID or ID:ANSWER"),
        (["--sign", "pulls:left:right"], "“left” and “right” answer one question"),
        (["--reading", "travel=60 mm@300 N;asleep"], "is no way to read"),
        (["--since", "soon"], "is no day"),
        (["--since", "9999 years ago"], "is no day"),
        (["--since", "2199-01-01"], "is yet to come"),
    ],
)
def test_a_fault_told_wrongly_is_answered_in_words(
    capsys: Any, arguments: list[str], words: str
) -> None:
    assert main(["trace", str(demo_file("roadster")), *arguments]) == 2
    assert words in capsys.readouterr().err


def test_a_trace_of_no_build_is_refused(capsys: Any) -> None:
    assert main(["trace", "--sign", "sinks"]) == 2
    assert "no build is named" in capsys.readouterr().err


def test_what_is_on_record_is_used_and_left_out(tmp_path: Path, capsys: Any) -> None:
    """A log that is gone is said beside what was printed, and nothing else stops."""
    now = datetime.now().isoformat(timespec="seconds")
    stop = {"at": now, "load_case": "Driver, half tank", "surface": 1.1, "locked": "rear"}
    log = {"at": now, "file": "gone.csv", "sha256": "0" * 64, "channels": {}}
    build = with_changes(demo("roadster"), {"proof": {"stops": [stop], "logs": [log]}})
    path = tmp_path / "own.urgens.json"
    save(build, path)
    assert main(["trace", str(path)]) == 0
    told = capsys.readouterr()
    assert "Do not drive" not in told.out  # nobody says when it began
    assert told.err == ""
    assert main(["trace", str(path), "--since", "yesterday"]) == 0
    told = capsys.readouterr()
    assert "Do not drive: The rear locks first in hard stops." in told.out
    assert "gone.csv is gone" in told.err
    assert main(["trace", str(path), "--since", "yesterday", "--leave-out", "stop 1"]) == 0
    assert "Do not drive" not in capsys.readouterr().out
    assert main(["trace", str(path), "--take-in", "stop 1"]) == 0
    assert "Do not drive" in capsys.readouterr().out
    for option in ("--take-in", "--leave-out"):
        assert main(["trace", str(path), option, "nosuch"]) == 2
        assert 'there is no "nosuch" on record' in capsys.readouterr().err


def test_answers_and_how_it_was_read_are_typed_behind(capsys: Any) -> None:
    build = str(demo_file("library"))
    told = [
        "--sign",
        "one-axle-bleeds:front",
        "--reading",
        'front-pressure="0 bar"@"100 N";engine-off',
    ]
    assert main(["trace", build, *told, "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["causes"][0]["id"] == "metering-shut"
    assert sum(one["share"] for one in found["causes"]) + found["other"] == pytest.approx(1.0)


def test_sayings_are_tried_on_the_command_line(capsys: Any) -> None:
    build = str(demo_file("tractor"))
    assert main(["sayings", build, "--json"]) == 0
    found = {one["id"]: one for one in json.loads(capsys.readouterr().out)}
    assert found["smaller-bore"]["verdict"] == "not"
    assert set(found["smaller-bore"]) == {"id", "saying", "verdict", "here", "limit"}
    assert main(["sayings", build]) == 0
    assert "so the unit need not be said: not here." in capsys.readouterr().out
