"""The command line as a builder types it."""

import argparse
import gc
import json
import os
import re
import signal
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from tests.builds import bed, bed_text
from tests.plumbing.layouts import layout, with_layout
from urgens.cli.arguments import parser
from urgens.cli.main import main
from urgens.data import BUILDS, SUFFIX
from urgens.document import edited, load
from urgens.document.edits.edit import dumped
from urgens.guidance.procedures.proving import PROOFS
from urgens.printed.solution import printed_solution
from urgens.quantity import QuantityError
from urgens.quantity.limits import looked_at, road
from urgens.sheet.chapters import CHAPTERS
from urgens.solve import solve

LBF = 4.4482216152605  # N


def demo_file(name: str) -> Path:
    return BUILDS / f"{name}{SUFFIX}"


@pytest.fixture
def file(tmp_path: Path) -> str:
    path = tmp_path / "truck.urgens.json"
    path.write_text(bed_text("bakery"), encoding="utf-8")
    return str(path)


def test_solve_prints_the_solution(file: str, capsys: Any) -> None:
    assert main(["solve", file]) == 0

    row = json.loads(capsys.readouterr().out)
    findings = row.pop("findings")
    assert row == printed_solution(solve(bed("bakery")))
    assert findings[0]["code"] == "rear-locks-first"


def test_solve_takes_load_case_surface_and_efforts(file: str, capsys: Any) -> None:
    arguments = ["--load-case", "Full load", "--surface", "0.4", "--speed", "60 mph"]
    assert main(["solve", file, *arguments, "--effort", "40 lbf", "--effort", "300 N"]) == 0

    row = json.loads(capsys.readouterr().out)
    assert (row["load_case"], row["surface"]) == ("Full load", 0.4)
    assert [press["effort"] for press in row["presses"]] == pytest.approx([40 * LBF, 300])


def test_a_corner_the_road_cannot_give_is_refused_with_place_and_remedy(
    file: str, tmp_path: Path, capsys: Any
) -> None:
    row = json.loads(Path(file).read_text(encoding="utf-8"))
    row["targets"] = {**row.get("targets", {}), "surface": 0.8, "corner": 0.9}
    fast = tmp_path / "fast.urgens.json"
    fast.write_text(json.dumps(row), encoding="utf-8")

    assert main(["solve", str(fast)]) == 2
    said = capsys.readouterr().err
    assert "targets.corner: 0.9 g to the side leaves no grip to brake with" in said
    assert "write a number below 0.8" in said

    row["targets"]["corner"] = 0.5
    fast.write_text(json.dumps(row), encoding="utf-8")
    assert main(["solve", str(fast)]) == 0
    assert json.loads(capsys.readouterr().out)["corner"] is not None


def test_check_tells_danger_by_its_exit_code(file: str, tmp_path: Path, capsys: Any) -> None:
    assert main(["check", file]) == 1
    assert capsys.readouterr().out.startswith("danger  rear-locks-first  “Empty, driver” on ")

    calm = tmp_path / "calm.urgens.json"
    calm.write_text(bed_text("roadster"), encoding="utf-8")
    assert main(["check", str(calm), "--json"]) == 0
    assert json.loads(capsys.readouterr().out) == []


def test_schema_is_printed(capsys: Any) -> None:
    assert main(["schema"]) == 0
    assert json.loads(capsys.readouterr().out)["title"] == "Urgens build"


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["--load-case", "x"], 'vehicle.load_cases: there is no load case "x"'),
        (["--effort", "40"], '"40" has no unit; write a force with its unit'),
        (["--effort", "-3 N"], '"-3 N" is negative; write zero or more'),
        (["--surface", "ice"], '"ice" is no tyre-road coefficient; write a number from 0.01 to 5'),
        (["--surface", "nan"], '"nan" is no tyre-road coefficient'),
        (["--speed", "fast"], '"fast" is not a figure; write a speed'),
    ],
)
def test_bad_arguments_are_answered_in_words(
    file: str, arguments: list[str], words: str, capsys: Any
) -> None:
    try:
        code = main(["solve", file, *arguments])
    except SystemExit as stopped:
        code = int(stopped.code or 0)

    assert code == 2
    assert words in capsys.readouterr().err


def test_unknown_demo_and_broken_file_do_not_open_a_window(tmp_path: Path, capsys: Any) -> None:
    broken = tmp_path / "broken.urgens.json"
    broken.write_text("{", encoding="utf-8")

    assert main(["demo", "boat"]) == 2
    assert main([str(broken)]) == 2
    assert gc.isenabled()
    err = capsys.readouterr().err
    assert "boat: is no demo build; choose library or roadster or tender or tractor" in err
    assert "the file ends too early" in err


def test_sheet_wants_an_ending_and_a_place(file: str, tmp_path: Path, capsys: Any) -> None:
    assert main(["sheet", file, "-o", str(tmp_path / "sheet.doc")]) == 2
    assert main(["sheet", file, "-o", str(tmp_path / "none" / "sheet.html")]) == 2

    err = capsys.readouterr().err
    assert "has no ending of a sheet; end it .pdf, .html or .csv" in err
    assert "cannot be written (No such file or directory); choose another place" in err


def test_the_module_runs_as_a_process(file: str) -> None:
    run = subprocess.run(
        [sys.executable, "-m", "urgens", "solve", file], capture_output=True, check=False, text=True
    )

    assert run.returncode == 0
    assert run.stderr == ""
    assert json.loads(run.stdout)["build"] == "Wexcombe"


def test_solving_imports_neither_interface_nor_slow_libraries(file: str) -> None:
    code = (
        "import sys; from urgens.cli.main import main; main(['solve', sys.argv[1]]); "
        "slow = {'PySide6', 'pyqtgraph', 'matplotlib', 'scipy', 'jinja2'} & set(sys.modules); "
        "print(sorted(slow), file=sys.stderr)"
    )
    run = subprocess.run(
        [sys.executable, "-c", code, file], capture_output=True, check=True, text=True
    )

    assert run.stderr == "[]\n"


def test_a_reader_that_stops_early_is_no_failure(file: str) -> None:
    command = f"{sys.executable} -m urgens schema | head -n 1"
    run = subprocess.run(["/bin/sh", "-c", command], capture_output=True, check=True, text=True)

    assert run.stdout == "{\n"
    assert run.stderr == ""


# --- where it runs -------------------------------------------------------------------------------


def run(*arguments: str, **environment: str) -> subprocess.CompletedProcess[bytes]:
    command = [sys.executable, "-m", "urgens", *arguments]
    environment = {**os.environ, **environment}
    return subprocess.run(command, capture_output=True, check=False, env=environment)


def test_nothing_found_is_said(tmp_path: Path, capsys: Any) -> None:
    calm = tmp_path / "calm.urgens.json"
    calm.write_text(bed_text("roadster"), encoding="utf-8")

    assert main(["check", str(calm)]) == 0
    assert capsys.readouterr().out.startswith("nothing found: ")


def every_parser(made: argparse.ArgumentParser) -> Iterator[argparse.ArgumentParser]:
    yield made
    for action in made._actions:
        if isinstance(action, argparse._SubParsersAction):
            for inner in action.choices.values():
                yield from every_parser(inner)


def test_every_option_of_every_command_has_a_help() -> None:
    actions = [action for one in every_parser(parser()) for action in one._actions]

    assert len(actions) > 30
    assert [action.dest for action in actions if not action.help and action.dest != "command"] == []


@pytest.mark.parametrize("arguments", [["--help"], ["solve", "--help"], ["--version"]])
def test_help_loads_nothing_that_computes(arguments: list[str]) -> None:
    code = (
        "import sys, urgens.cli.main\n"
        f"try: urgens.cli.main.main({arguments!r})\n"
        "except SystemExit: pass\n"
        "print([m for m in ('numpy', 'pydantic', 'PySide6') if m in sys.modules])"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, check=True, text=True)

    assert done.stdout.endswith("[]\n")


def test_a_terminal_without_greek_is_no_failure(file: str) -> None:
    done = run("check", file, PYTHONIOENCODING="latin-1")
    assert (done.returncode, done.stderr) == (1, b"")
    assert rb"\u03bc 0.90" in done.stdout

    printed = run("solve", file, PYTHONIOENCODING="ascii")
    assert json.loads(printed.stdout.decode("ascii"))["findings"]


@pytest.mark.parametrize("command", [["solve"], ["check"]])
def test_a_full_disk_is_said_in_words(file: str, command: list[str]) -> None:
    with Path("/dev/full").open("wb") as full:
        done = subprocess.run(
            [sys.executable, "-m", "urgens", *command, file],
            stdout=full, stderr=subprocess.PIPE, check=False, text=True,
        )  # fmt: skip

    assert done.returncode == 2
    assert done.stderr == "urgens: cannot be written (No space left on device); make room\n"


@pytest.mark.parametrize(
    ("typed", "code", "said"),
    [
        ("solve FILE >&-", 2, "urgens: there is nowhere to print to: standard output is closed;"),
        ("check FILE >&-", 2, "urgens: there is nowhere to print to: standard output is closed;"),
        ("schema >&-", 2, "urgens: there is nowhere to print to: standard output is closed;"),
        ("check NONE 2>&-", 2, ""),
        ("check NONE 2>/dev/full", 2, ""),
        ("check FILE >&- 2>&-", 2, ""),
        ("solve --nix 2>/dev/full", 2, ""),
        ("sheet FILE -o OUT.csv >&-", 0, ""),
    ],
)
def test_a_stream_that_is_closed_or_full_never_means_danger(
    file: str, tmp_path: Path, typed: str, code: int, said: str
) -> None:
    """1 would say that a danger was found."""
    typed = typed.replace("FILE", file).replace("NONE", str(tmp_path / "none"))
    typed = typed.replace("OUT", str(tmp_path / "out"))
    command = f"{sys.executable} -m urgens {typed}"
    done = subprocess.run(["/bin/sh", "-c", command], capture_output=True, check=False, text=True)

    assert done.returncode == code
    assert done.stderr.startswith(said)
    assert "Traceback" not in done.stderr
    assert done.stdout == ""


@pytest.mark.parametrize(
    "typed", ["--surface 1e308", "--surface 1e-300", "--surface nan", "--speed 541km/h",
              "--effort 1e300N", "--effort=-3N"],
)  # fmt: skip
def test_figures_beyond_any_road_are_refused_and_no_library_warns(file: str, typed: str) -> None:
    done = run("solve", file, *typed.split())

    assert done.returncode == 2
    assert b"; write " in done.stderr
    assert b"Warning" not in done.stderr


def test_the_window_and_the_command_line_have_one_limit() -> None:
    assert road("5") == road("μ 5") == 5.0
    assert looked_at(150.0) == 150.0
    for refused in ("5.01", "0.009", "ice"):
        with pytest.raises(QuantityError, match="is no tyre-road coefficient"):
            road(refused)


@pytest.mark.parametrize("form", ["pdf", "html", "csv"])
def test_a_sheet_that_cannot_be_written_is_said_in_words(
    file: str, tmp_path: Path, form: str, capsys: Any, qapp: Any
) -> None:
    out = tmp_path / f"sheet.{form}"
    out.symlink_to("/dev/full")
    assert main(["sheet", file, "-o", str(out)]) == 2
    assert "cannot be written (No space left on device)" in capsys.readouterr().err


@pytest.mark.parametrize("command", ["sheet", "window"])
def test_a_library_of_the_system_that_is_missing_is_named(
    file: str, tmp_path: Path, command: str
) -> None:
    """A stand-in for PySide6 fails as the real one does without the library."""
    (tmp_path / "PySide6").mkdir()
    said = "libEGL.so.1: cannot open shared object file: No such file or directory"
    (tmp_path / "PySide6" / "__init__.py").write_text(f"raise ImportError({said!r})\n")
    wanted = ["sheet", file, "-o", str(tmp_path / "x.pdf")] if command == "sheet" else [file]
    done = run(*wanted, PYTHONPATH=str(tmp_path))

    assert done.returncode == 2
    assert done.stderr.startswith(b"urgens: Qt cannot be loaded here (libEGL.so.1: ")
    assert b"Traceback" not in done.stderr


def test_a_display_that_cannot_be_used_is_said_in_words(file: str) -> None:
    done = run(file, QT_QPA_PLATFORM="xcb", DISPLAY=":4777")

    assert done.returncode == 2
    assert b"the window cannot be shown on this display (:4777): " in done.stderr
    assert b"Traceback" not in done.stderr


def test_lines_are_printed_as_bend_sheets_and_as_json(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "laid.urgens.json"
    path.write_text(json.dumps(dumped(with_layout(layout()))), encoding="utf-8")

    assert main(["lines", str(path), "--json", "--stock", "60 in"]) == 0
    found = json.loads(capsys.readouterr().out)
    first = found["lines"][0]
    assert first["bends"] == [{"feed": pytest.approx(0.187), "rotation": 0.0,
                               "angle": pytest.approx(1.5708, abs=1e-4),
                               "set": pytest.approx(1.5708, abs=1e-4)}]  # fmt: skip
    assert first["before_flare"] == ["nut 3/8-24", "nut 3/8-24"]
    assert sum(length for _, length in found["stock"][0]["pieces"]) + found["stock"][0][
        "left"
    ] == pytest.approx(1.524, abs=0.003)
    assert found["parts"] == [{"part": "nut 3/8-24", "count": 4}]

    assert main(["lines", str(path)]) == 0
    said = capsys.readouterr().out
    assert "bend 1: feed 7.36 in, turn 0.0 deg, bend 90.0 deg" in said


@pytest.mark.parametrize(
    ("arguments", "words"),
    [([], "this build has no layout"), (["--stock", "10 in"], "longer than the stock")],
)
def test_lines_that_cannot_be_made_are_said(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], arguments: list[str], words: str
) -> None:
    build = with_layout(layout()) if arguments else bed("bakery")
    path = tmp_path / "laid.urgens.json"
    path.write_text(json.dumps(dumped(build)), encoding="utf-8")

    assert main(["lines", str(path), *arguments]) == 2
    assert words in capsys.readouterr().err


def test_a_layout_is_drafted_and_read_again(
    file: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    out = tmp_path / "laid.urgens.json"
    assert main(["plumb", file, "--draft", "-o", str(out)]) == 0
    assert main(["plumb", file, "--draft"]) == 0
    printed = json.loads(capsys.readouterr().out)
    written = json.loads(out.read_text(encoding="utf-8"))
    assert written == printed
    wheels = [p["wheel"] for p in written["plumbing"]["parts"] if p["kind"] == "wheel-brake"]
    assert sorted(wheels) == ["front-left", "front-right", "rear-left", "rear-right"]
    assert written["evidence"]["plumbing.lines[0].tube"] == {"state": "planned"}

    assert main(["check", str(out)]) == 1  # the rear locks first, as without it
    assert "wheel-not-fed" not in capsys.readouterr().out
    assert main(["lines", str(out), "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["lines"] == []  # no route is measured yet
    assert {"part": "hose", "count": 3} in found["parts"]


def test_what_could_be_laid_instead_is_printed_and_drafted(
    file: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["plumb", file, "--alternatives"]) == 0
    found = {one["name"]: one for one in json.loads(capsys.readouterr().out)}
    assert found["combination"]["joints"] < found["all-three"]["joints"]
    assert "valves.rear" in found["load-sensing"]["changes"]

    assert main(["plumb", file, "--draft", "--alternative", "diagonal"]) == 0
    assert json.loads(capsys.readouterr().out)["circuits"] == "diagonal"

    assert main(["plumb", file, "--draft", "--alternative", "nine-wheels"]) == 2
    said = capsys.readouterr().err
    assert 'there is no way "nine-wheels"' in said
    assert "diagonal" in said


def test_a_conversion_is_the_difference_of_two_set_ups(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    bare = {"name": "no valves", "changes": {"valves.front": [], "valves.rear": []}}
    path = tmp_path / "truck.urgens.json"
    build = edited(bed("bakery"), "setups", [bare])
    path.write_text(json.dumps(dumped(build)), encoding="utf-8")

    assert main(["plumb", str(path), "--to", "no valves"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["goes"] == ["cv"]
    assert "sw" in found["new"]
    assert found["lost"][0].startswith("metering")
    assert main(["plumb", str(path), "--to", "nothing"]) == 2
    assert "nothing" in capsys.readouterr().err


def test_a_procedure_is_printed_in_words_and_as_json(capsys: Any) -> None:
    build = demo_file("roadster")
    assert main(["procedure", str(build), "bleed", "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert (found["name"], found["method"], found["allowed"]) == ("bleed", "open-stroke", True)
    told = {"text", "why", "wheels", "action", "record", "thing", "says", "after"}
    assert told == set(found["steps"][0])
    strokes = next(step for step in found["steps"] if step["action"] == "stroke")
    assert strokes["after"]["foot"] == "stroking"
    assert strokes["after"]["open"] == ["front-right", "rear-right"]
    assert strokes["after"]["block"] is True
    assert set(strokes["says"]) == {"pedal", "front", "rear"}  # as many as it is best with
    assert main(["procedure", str(build), "bleed"]) == 0
    said = capsys.readouterr().out
    assert "1. " in said
    assert "Caution: " in said
    assert main(["procedure", str(demo_file("library")), "rebleed", "--from", "load-sensing"]) == 0
    assert "Open the screw of right rear" in capsys.readouterr().out
    assert main(["procedure", str(build), "switch-test"]) == 0


def test_bleeding_under_pressure_says_what_stands_and_what_is_done_until_clear(capsys: Any) -> None:
    build = str(demo_file("library"))
    assert main(["procedure", build, "bleed", "--method", "pressure", "--json"]) == 0
    steps = json.loads(capsys.readouterr().out)["steps"]
    flows = [step for step in steps if step["action"] == "look"]
    assert {step["after"]["pressure"] > 0.5e5 for step in flows} == {True}  # 15 psi, in pascals
    assert steps[-1]["after"] == {
        "pressure": 0.0, "block": False, "caps": "on", "foot": "off", "open": [], "fitted": [],
    }  # fmt: skip
    assert main(["procedure", build, "bleed", "--method", "pedal", "--json", "--people", "4"]) == 0
    steps = json.loads(capsys.readouterr().out)["steps"]
    back = next(step["loop"]["back_to"] for step in steps if "loop" in step)
    assert steps[back - 1]["action"] == "hold"
    assert len(steps[0]["says"]) == 4


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["reset-switch"], "Which end gets little"),
        (["bleed", "--method", "gravity"], "residual valve"),
        (["bleed", "--method", "pedal", "--people", "1"], "it takes two"),
    ],
)
def test_what_is_refused_is_said_and_writes_nothing(
    tmp_path: Path, capsys: Any, arguments: list[str], words: str
) -> None:
    name = "tender" if "gravity" in arguments else "library"
    command = ["procedure", str(demo_file(name)), *arguments]
    assert main(command) == 0
    assert words in capsys.readouterr().out
    out = tmp_path / "cards.pdf"
    assert main([*command, "-o", str(out)]) == 2
    assert words in capsys.readouterr().err
    assert not out.exists()


def test_a_switch_is_reset_from_the_end_that_gets_little(capsys: Any) -> None:
    build = str(demo_file("library"))
    assert main(["procedure", build, "reset-switch", "--end", "front"]) == 0
    said = capsys.readouterr().out
    assert "Open the rear screw" in said
    assert "Open the front screw" not in said


def test_a_procedure_goes_out_as_cards(tmp_path: Path, capsys: Any, qapp: Any) -> None:
    build, sizes = str(demo_file("roadster")), []
    for people in ("2", "4"):
        out = tmp_path / f"{people}.pdf"
        assert main(["procedure", build, "bleed", "-o", str(out), "--people", people]) == 0
        assert out.read_bytes().startswith(b"%PDF")
        sizes.append(out.stat().st_size)
    assert sizes[0] < sizes[1]
    assert main(["procedure", build, "bleed", "-o", str(tmp_path / "cards.txt")]) == 2
    assert "end it .pdf" in capsys.readouterr().err
    assert main(["procedure", build, "bleed", "-o", str(tmp_path / "no" / "cards.pdf")]) == 2
    assert "cannot be written" in capsys.readouterr().err


def test_a_procedure_that_is_ruled_out_says_so_and_is_no_error(capsys: Any) -> None:
    assert main(["procedure", str(demo_file("tender")), "half-lost-test"]) == 0
    assert capsys.readouterr().out.startswith("Not so: one circuit feeds all brakes")
    assert main(["procedure", str(demo_file("tender")), "dance"]) == 2
    assert "strip-record" in capsys.readouterr().err


def test_the_plan_of_a_layout_is_drawn(file: str, tmp_path: Path, capsys: Any) -> None:
    out = tmp_path / "plan.svg"
    assert main(["plumb", file, "-o", str(out)]) == 0
    assert "Combination valve" in out.read_text(encoding="utf-8")
    assert main(["plumb", file, "-o", str(tmp_path / "plan.txt")]) == 2
    assert "end it .svg or .png" in capsys.readouterr().err
    assert main(["plumb", file, "-o", str(tmp_path / "nowhere" / "plan.svg")]) == 2
    assert "cannot be written" in capsys.readouterr().err
    assert main(["plumb", file]) == 2
    assert "nothing is asked for" in capsys.readouterr().err


def test_what_has_been_proved_is_printed(capsys: Any) -> None:
    build = str(demo_file("roadster"))
    assert main(["prove", build, "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert {one["state"] for one in found["proofs"]} == {"done", "not-needed"}
    stands = found["condition"]
    assert set(stands["wheels"].values()) == {"bled"}
    assert (stands["holds"], stands["may_move"]) == ([], True)
    assert {(one["outcome"], one["asked"] - one["answered"]) for one in stands["runs"]} == {
        ("finished", 0)
    }
    assert found["valves"][0]["verdict"] == "reduces"
    assert found["valves"][0]["within"] is True
    assert found["brakes"]["stops"] == 5
    assert found["next_stop"]["done"] is True
    assert found["next_stop"]["rear_first"] < 0.05
    low, high = found["split"]["limits"]
    assert low < found["split"]["computed"] < high
    assert main(["prove", build]) == 0
    assert "done  valves.rear[0].turns" in capsys.readouterr().out


def test_a_build_on_which_nothing_is_proved_or_set(capsys: Any) -> None:
    assert main(["prove", str(demo_file("tractor"))]) == 0
    words = capsys.readouterr().out
    assert "open  leak-test  not on record" in words
    assert main(["prove", str(demo_file("tractor")), "--json"]) == 0
    assert json.loads(capsys.readouterr().out)["condition"]["may_move"] is None
    assert "nothing to set" in words


def test_a_stop_on_the_test_road_and_its_log(tmp_path: Path, capsys: Any) -> None:
    build, log = str(demo_file("roadster")), tmp_path / "stop.csv"
    arguments = ["drive", build, "--speed", "15 m/s", "--to-lock", "--surface", "0.8"]
    assert main([*arguments, "--seed", "3", "-o", str(log)]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["locked"][0]["axle"] == "front"
    assert 10.0 < found["distance"] < 40.0
    assert found["energy_error"] < 0.005
    assert main(["log", str(log), "--build", build, "--json"]) == 0
    read = json.loads(capsys.readouterr().out)
    assert read["channels"]["foot"] == {"column": "foot", "unit": "N"}
    assert len(read["presses"]) == 1
    assert {row["figure"] for row in read["model"]} >= {"rear pressure"}
    out = tmp_path / "anew.csv"
    assert main(["log", str(log), "--against", str(log), "-o", str(out)]) == 0
    assert "press 1:" in capsys.readouterr().out
    assert out.read_text().startswith("# simulated, written anew")


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["log", "gone.csv"], "cannot be read"),
        (["log", "gone.csv", "--channel", "foot"], "is no channel"),
        (["drive", "FILE", "--speed", "20 m/s"], "required"),
        (["drive", "FILE", "--speed", "0.5 m/s", "--effort", "100 N"], "no speed to stop from"),
        (["drive", "FILE", "--speed", "9 m/s", "--effort", "9 N", "--load-case", "x"], "no \"x\""),
        (["device", "FILE", "--fault", "hiccup"], "choose one of valve-stuck-open"),
        (["device", "FILE", "--valve", "front[3]"], "cannot be gauged"),
    ],
)  # fmt: skip
def test_what_the_bench_cannot_do_is_said(arguments: list[str], words: str, capsys: Any) -> None:
    given = [str(demo_file("roadster")) if one == "FILE" else one for one in arguments]
    assert main(given) == 2
    assert words in capsys.readouterr().err


def test_the_gauge_box_says_its_port_and_ends_with_an_interrupt() -> None:
    command = [sys.executable, "-m", "urgens", "device", str(demo_file("library"))]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None
        port = process.stdout.readline().strip()
        assert port.startswith("/dev/")
        process.send_signal(signal.SIGINT)
        assert process.wait(timeout=20) == 0


# --- a build to start from, and what is refused -----------------------------------------------


def test_a_small_build_to_start_from_is_written_and_none_is_replaced(
    tmp_path: Path, capsys: Any
) -> None:
    out = tmp_path / "mine.urgens.json"
    assert main(["new", str(out)]) == 0
    assert "every figure in it is assumed" in capsys.readouterr().err
    assert out.stat().st_size < 8_000
    assert main(["check", str(out)]) in (0, 1)
    before = out.read_bytes()
    capsys.readouterr()
    assert main(["new", str(out)]) == 2
    assert "is there already; name a file that is not there yet" in capsys.readouterr().err
    assert out.read_bytes() == before
    assert main(["new", str(tmp_path / "nowhere" / "mine.urgens.json")]) == 2
    assert "No such file or directory" in capsys.readouterr().err


@pytest.mark.parametrize("extra", [[], ["--json"]])
def test_a_procedure_that_is_refused_writes_nothing(
    tmp_path: Path, capsys: Any, extra: list[str]
) -> None:
    file, out = str(demo_file("roadster")), tmp_path / "cards.pdf"
    code = main(["procedure", file, "booster-test", "-o", str(out), *extra])
    assert code == 2
    assert "urgens: not so, and nothing is written: " in capsys.readouterr().err
    assert not out.exists()
    assert main(["procedure", file, "booster-test"]) == 0


def test_two_bores_of_one_cylinder_are_refused(file: str, capsys: Any) -> None:
    assert main(["size", file, "--bore", "19 mm:16 mm"]) == 2
    said = capsys.readouterr().err
    assert "--bore: names a front and a rear bore, and this build has one tandem cylinder" in said


def test_what_was_opened_never_swallows_the_file(capsys: Any) -> None:
    file = str(demo_file("library"))
    assert main(["procedure", "--opened", "cv", "--opened", "fl", file, "rebleed"]) == 0
    assert "1. " in capsys.readouterr().out


def test_what_is_left_out_of_a_fault_has_to_be_on_record(capsys: Any) -> None:
    assert main(["trace", str(demo_file("roadster")), "--leave-out", "nosuch"]) == 2
    said = capsys.readouterr().err
    assert '--leave-out: there is no "nosuch" on record; choose of "' in said


@pytest.mark.parametrize("name", ["x" * 300 + ".pdf", "x" * 250 + ".csv"])
def test_a_name_too_long_or_nearly_so(
    file: str, tmp_path: Path, name: str, capsys: Any, qapp: Any
) -> None:
    done = main(["sheet", file, "-o", str(tmp_path / name)])
    said = capsys.readouterr().err
    assert "make room" not in said
    assert (done, "File name too long" in said) in ((0, False), (2, True))
    assert (done == 0) == (len(name) <= 255)


@pytest.mark.parametrize("command", ["", "solve", "trace", "new", "install-desktop", "log"])
def test_help_says_exit_codes_and_has_a_line_for_every_command(command: str, capsys: Any) -> None:
    assert main([*command.split(), "--help"]) == 0
    said = capsys.readouterr().out
    assert "Exit status: 0 done; 1 done, with a danger found" in " ".join(said.split())


def test_help_lists_procedures_and_chapters_from_their_tables(capsys: Any) -> None:
    main(["procedure", "--help"])
    said = " ".join(capsys.readouterr().out.split())
    assert set(PROOFS) | {"strip-record", "pedal-height"} <= set(re.split(r"[ ,]+", said))
    main(["sheet", "--help"])
    assert ", ".join(CHAPTERS) in " ".join(capsys.readouterr().out.split())


def test_a_log_beside_a_build_says_its_figures_with_units(tmp_path: Path, capsys: Any) -> None:
    build, log = str(demo_file("roadster")), tmp_path / "log.csv"
    stop = ["--speed", "60 mph", "--effort", "300 N", "-o", str(log)]
    assert main(["drive", build, *stop]) == 0
    capsys.readouterr()
    assert main(["log", str(log), "--build", build]) == 0
    rows = [line for line in capsys.readouterr().out.splitlines() if " computed: " in line]
    assert rows
    for line in rows:
        assert (" bar logged, " in line) != line.startswith("slope: "), line


def test_an_end_goes_with_the_reset_alone(capsys: Any) -> None:
    assert main(["procedure", str(demo_file("library")), "bleed", "--end", "front"]) == 2
    assert "--end" in capsys.readouterr().err


def test_a_conversion_is_added_as_a_set_up_and_says_what_is_bought(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path, out = tmp_path / "van.urgens.json", tmp_path / "one.urgens.json"
    path.write_text(json.dumps(dumped(bed("bakery"))), encoding="utf-8")
    assert main(["plumb", str(path), "--convert", "one circuit", "-o", str(out)]) == 0
    assert load(path).setups != load(out).setups
    assert main(["plumb", str(out), "--to", "one circuit"]) == 0
    found = json.loads(capsys.readouterr().out)
    bought = {row["item"]: row for row in found["buy"]}
    assert {"cylinder", "block", "3/16 in tube", "bottle of fluid, 0.5 l"} <= set(bought)
    assert "estimated" in bought["3/16 in tube"]["why"]
    assert any("grommet" in words for words in found["not_counted"])
    assert main(["plumb", str(path), "--convert", "three circuits"]) == 2
    assert "choose one of: one circuit" in capsys.readouterr().err
