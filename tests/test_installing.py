"""Installed like any other application: entry, icon, file type, man page, completion, wheel."""

import configparser
import hashlib
import os
import shutil
import subprocess
import sys
import sysconfig
import venv
import zipfile
from pathlib import Path
from typing import Any
from xml.etree import ElementTree

import pytest

from tests.test_cli import demo_file
from urgens import __version__
from urgens.arguments import parser
from urgens.cli import main
from urgens.data import DESKTOP_ID as ID
from urgens.installing import completion, man_page, started_by

ROOT = Path(__file__).parents[1]
COMMANDS = sorted(next(a for a in parser()._actions if a.dest == "command").choices or ())  # type: ignore[call-overload]
# What desktops look with; setup installs them, and where one is not there the rules below hold.
LOOKS = (
    ("desktop-file-validate", (), f"share/applications/{ID}.desktop"),
    ("appstreamcli", ("validate", "--no-net"), f"share/metainfo/{ID}.metainfo.xml"),
)


@pytest.fixture(scope="module")
def installed(tmp_path_factory: pytest.TempPathFactory) -> Path:
    folder = tmp_path_factory.mktemp("prefix")
    assert main(["install-desktop", "--prefix", str(folder)]) == 0
    return folder


def test_what_a_desktop_validates_is_valid(installed: Path) -> None:
    """desktop-file-utils and AppStream, where they are."""
    for command, options, place in LOOKS:
        if shutil.which(command) is not None:
            run = subprocess.run([command, *options, str(installed / place)],
                                 capture_output=True, text=True, check=False)  # fmt: skip
            assert run.returncode == 0, run.stdout + run.stderr
    entry = configparser.RawConfigParser(strict=True)
    entry.optionxform = str  # type: ignore[assignment,method-assign]
    entry.read(installed / f"share/applications/{ID}.desktop")
    said = entry["Desktop Entry"]
    assert said["Type"] == "Application"
    assert said["Exec"] == f"{started_by()} %f"
    assert said["Icon"] == ID
    assert said["MimeType"] == "application/vnd.urgens.build+json;"
    told = ElementTree.parse(installed / f"share/metainfo/{ID}.metainfo.xml").getroot()
    assert told.findtext("id") == ID
    assert told.find("releases/release").attrib["version"] == __version__  # type: ignore[union-attr]
    icon = ElementTree.parse(installed / f"share/icons/hicolor/scalable/apps/{ID}.svg")
    assert icon.getroot().tag.endswith("svg")


def test_the_file_type_goes_before_plain_json(installed: Path) -> None:
    """shared-mime-info: a heavier glob wins; the demo builds begin with what is looked for."""
    kind = ElementTree.parse(installed / f"share/mime/packages/{ID}.xml").getroot()
    spaces = {"m": "http://www.freedesktop.org/standards/shared-mime-info"}
    glob = kind.find(".//m:glob", spaces)
    assert glob is not None
    assert glob.attrib == {"pattern": "*.urgens.json", "weight": "80"}
    assert b'"urgens.build"' in demo_file("library").read_bytes()[:80]
    if shutil.which("update-mime-database") is not None:
        globs = (installed / "share/mime/globs2").read_text()
        assert "80:application/vnd.urgens.build+json:*.urgens.json" in globs


@pytest.mark.parametrize("command", COMMANDS)
def test_man_page_and_completion_know_every_command(command: str) -> None:
    page = man_page()
    assert page.startswith('.TH URGENS "1"')
    assert command.replace("-", r"\-") in page
    assert command in completion("bash")
    assert command in completion("zsh")


def test_completion_is_a_script_that_bash_reads(installed: Path) -> None:
    script = installed / "share/bash-completion/completions/urgens"
    run = subprocess.run(["bash", "-n", str(script)], capture_output=True, text=True, check=False)
    assert (run.returncode, run.stderr) == (0, "")


def test_it_is_taken_out_again(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["install-desktop", "--prefix", str(tmp_path)]) == 0
    assert capsys.readouterr().out.count("written: ") == 7
    assert main(["install-desktop", "--prefix", str(tmp_path), "--remove"]) == 0
    assert capsys.readouterr().out.count("removed: ") == 7
    left = [one for one in tmp_path.rglob("*") if one.is_file() and "rgens" in one.name]
    assert left == []
    assert main(["install-desktop", "--prefix", str(tmp_path), "--remove"]) == 0
    assert "removed" not in capsys.readouterr().out


def test_what_cannot_be_written_or_told_is_said(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    (tmp_path / "share").write_text("a file in the way")
    assert main(["install-desktop", "--prefix", str(tmp_path)]) == 2
    assert "name another --prefix" in capsys.readouterr().err
    monkeypatch.setattr(shutil, "which", lambda name: None)
    assert main(["install-desktop", "--prefix", str(tmp_path / "other")]) == 0
    assert "update-mime-database is not here to be run" in capsys.readouterr().out


def test_man_and_completion_are_printed(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["man"]) == 0
    assert "a workbench for the brakes of one vehicle" in capsys.readouterr().out
    assert main(["completion", "bash"]) == 0
    assert "_shtab_urgens" in capsys.readouterr().out
    assert main(["completion", "fish"]) == 2


@pytest.mark.parametrize(
    ("path", "quoted"),
    [("/usr/bin/urgens", "/usr/bin/urgens"), ("/my builds/urgens", '"/my builds/urgens"'),
     ('/a"b', '"/a\\\\"b"'), ("/100%/x", '"/100%%/x"')],
)  # fmt: skip
def test_a_command_is_quoted_for_an_entry(path: str, quoted: str) -> None:
    """Desktop Entry Specification, "The Exec key"."""
    from urgens.installing import _quoted

    assert _quoted(path) == quoted


# --- the wheel ---------------------------------------------------------------------------------


def built(out: Path) -> Path:
    run = subprocess.run(
        [sys.executable, "-m", "build", "--wheel", "--no-isolation", "--outdir", str(out), "."],
        cwd=ROOT, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert run.returncode == 0, run.stdout + run.stderr
    (wheel,) = out.glob("*.whl")
    return wheel


def test_the_wheel_is_the_same_twice_and_starts_in_a_clean_place(tmp_path: Path) -> None:
    """Built twice it is the same to the byte; installed alone it computes, and shows its window."""
    wheels = [built(tmp_path / name) for name in ("one", "two")]
    digests = {hashlib.sha256(wheel.read_bytes()).hexdigest() for wheel in wheels}
    assert len(digests) == 1
    assert wheels[0].name == f"urgens-{__version__}-py3-none-any.whl"
    names = zipfile.ZipFile(wheels[0]).namelist()
    for wanted in (
        f"urgens/data/desktop/{ID}.desktop", "urgens/data/help/terms.toml",
        "urgens/data/sheet/document.html", "urgens/data/builds/library.urgens.json",
    ):  # fmt: skip
        assert wanted in names
    place = tmp_path / "clean"
    venv.create(place, with_pip=False)
    python = place / "bin" / "python"
    own = next((place / "lib").glob("python*")) / "site-packages"
    with zipfile.ZipFile(wheels[0]) as packed:
        packed.extractall(own)
    run_in(python, own, "-m", "urgens", "solve", str(demo_file("library")))
    said = run_in(python, own, "-c", "import urgens; print(urgens.__file__)")
    assert str(place) in said
    shown = run_in(python, own, "-c", WINDOW)
    assert "Bookmoor" in shown


WINDOW = """
from PySide6.QtWidgets import QApplication
from urgens.document import demo
from urgens.ui.application import dress
from urgens.ui.frame.window import Window
from urgens.ui.session import Session
application = QApplication([])
dress(application)
window = Window(Session(demo("library")))
window.show()
application.processEvents()
print(window.windowTitle())
window.close()
"""


def run_in(python: Path, own: Path, *arguments: str) -> str:
    """Run Python with its own packages, and the locked dependencies behind them."""
    others = sysconfig.get_paths()["purelib"]
    env: dict[str, Any] = {**os.environ, "PYTHONPATH": f"{own}{os.pathsep}{others}",
                           "QT_QPA_PLATFORM": "offscreen"}  # fmt: skip
    run = subprocess.run([str(python), *arguments], env=env, cwd=own.parent, capture_output=True,
                         text=True, check=False)  # fmt: skip
    assert run.returncode == 0, run.stderr
    return run.stdout
