"""The command line as a builder types it."""

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from urgens.cli import main
from urgens.document import demo, demo_text
from urgens.printed.solution import printed_solution
from urgens.solve import solve

LBF = 4.4482216152605  # N


@pytest.fixture
def file(tmp_path: Path) -> str:
    path = tmp_path / "truck.urgens.json"
    path.write_text(demo_text("pickup"), encoding="utf-8")
    return str(path)


def test_solve_prints_the_solution(file: str, capsys: Any) -> None:
    assert main(["solve", file]) == 0

    row = json.loads(capsys.readouterr().out)
    findings = row.pop("findings")
    assert row == printed_solution(solve(demo("pickup")))
    assert findings[0]["code"] == "rear-locks-first"


def test_solve_takes_load_case_surface_and_efforts(file: str, capsys: Any) -> None:
    arguments = ["--load-case", "Full load", "--surface", "0.4", "--speed", "60 mph"]
    assert main(["solve", file, *arguments, "--effort", "40 lbf", "--effort", "300 N"]) == 0

    row = json.loads(capsys.readouterr().out)
    assert (row["load_case"], row["surface"]) == ("Full load", 0.4)
    assert [press["effort"] for press in row["presses"]] == pytest.approx([40 * LBF, 300])


def test_check_tells_danger_by_its_exit_code(file: str, tmp_path: Path, capsys: Any) -> None:
    assert main(["check", file]) == 1
    assert capsys.readouterr().out.startswith("danger  rear-locks-first  “Empty, driver” on ")

    calm = tmp_path / "calm.urgens.json"
    calm.write_text(demo_text("roadster"), encoding="utf-8")
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
        (["--surface", "ice"], '"ice" is no tyre-road coefficient; write a number above zero'),
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
    err = capsys.readouterr().err
    assert "boat: is no demo build; choose pickup or coupe or roadster or saloon" in err
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
        "import sys; from urgens.cli import main; main(['solve', sys.argv[1]]); "
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
