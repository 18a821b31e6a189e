"""Installed like any other application: entry, icon, file type, man page, completion, wheel."""

import ast
import configparser
import re
import shutil
import subprocess
import sys
import tomllib
import zipfile
from pathlib import Path
from xml.etree import ElementTree

import pytest
from packaging.requirements import Requirement
from tools.manual import signature

from tests.test_cli import demo_file
from urgens import __version__
from urgens.cli.arguments import parser
from urgens.cli.installing import RECEIPT, started_by
from urgens.cli.main import main
from urgens.data import DESKTOP_ID as ID
from urgens.data import manual_text, system_libraries
from urgens.missing_libraries import how_to_install

ROOT = Path(__file__).parents[1]
COMMANDS = sorted(next(a for a in parser()._actions if a.dest == "command").choices or ())  # type: ignore[call-overload]
# What desktops look with; setup installs them, and where one is not there the rules below hold.
# Urgens has no page in the net, and names none: AppStream 1.0 warns of that, 0.16 does not.
NO_PAGE = "url-homepage-missing"
LOOKS = (
    ("desktop-file-validate", (), f"share/applications/{ID}.desktop"),
    ("appstreamcli", ("validate", "--no-net"), f"share/metainfo/{ID}.metainfo.xml"),
)  # fmt: skip


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
            issues = re.findall(r"^\s*[EW]: .*: ([\w-]+)\s*$", run.stdout, re.MULTILINE)
            assert set(issues) <= {NO_PAGE}, run.stdout + run.stderr
            assert run.returncode == 0 or issues == [NO_PAGE], run.stdout + run.stderr
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
    page = manual_text("urgens.1")
    assert page.splitlines()[1].startswith('.TH URGENS "1"')
    assert command.replace("-", r"\-") in page
    assert command in manual_text("bash")
    assert command in manual_text("zsh")


@pytest.mark.parametrize("name", ["urgens.1", "bash", "zsh"])
def test_what_is_shipped_of_the_manual_is_of_what_can_be_typed_now(name: str) -> None:
    """Else `make manual` is to be run; it is not at run time, so that nothing is needed for it."""
    assert f"made from {signature()}" in "\n".join(manual_text(name).splitlines()[:2])


@pytest.mark.parametrize(
    ("typed", "wanted"),
    [("urgens solve lib", "lib.urgens.json"), ("urgens demo tr", "tractor"),
     ("urgens procedure lib.urgens.json boo", "booster-test"),
     ("urgens procedure lib.urgens.json bleed --method pr", "pressure"),
     ("urgens sheet lib.urgens.json -o li", "lib.urgens.json"), ("urgens so", "solve")],
)  # fmt: skip
def test_completion_knows_names_of_files_demos_and_procedures(
    typed: str, wanted: str, installed: Path, tmp_path: Path
) -> None:
    (tmp_path / "lib.urgens.json").write_text("{}")
    script = installed / "share/bash-completion/completions/urgens"
    words = typed.split()
    code = (
        f"source {script}; COMP_WORDS=({typed}); COMP_CWORD={len(words) - 1}; COMP_LINE='{typed}'; "
        f"COMP_POINT={len(typed)}; COMP_TYPE=9; _shtab_urgens urgens; "
        'printf "%s\\n" "${COMPREPLY[@]}"'
    )
    run = subprocess.run(["bash", "-c", code], cwd=tmp_path, capture_output=True, text=True,
                         check=False)  # fmt: skip
    assert run.stdout.split() == [wanted], run.stderr


def test_completion_is_a_script_that_bash_reads(installed: Path) -> None:
    script = installed / "share/bash-completion/completions/urgens"
    run = subprocess.run(["bash", "-n", str(script)], capture_output=True, text=True, check=False)
    assert (run.returncode, run.stderr) == (0, "")


def test_it_is_taken_out_again(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    """Nothing of it is left, no folder and no cache, and it may be installed twice before."""
    for _ in range(2):
        assert main(["install-desktop", "--prefix", str(tmp_path)]) == 0
        assert capsys.readouterr().out.count("written: ") == 7
    assert main(["install-desktop", "--prefix", str(tmp_path), "--remove"]) == 0
    assert capsys.readouterr().out.count("removed: ") == 7
    assert list(tmp_path.iterdir()) == []
    assert main(["install-desktop", "--prefix", str(tmp_path), "--remove"]) == 0
    assert capsys.readouterr().out == f"nothing of Urgens is installed below {tmp_path}\n"


def test_what_is_not_of_urgens_stays(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    """A file that somebody changed, and other applications' files and caches."""
    other = tmp_path / "share/applications/other.desktop"
    other.parent.mkdir(parents=True)
    other.write_text("[Desktop Entry]\nName=Other\nType=Application\nExec=true\n")
    assert main(["install-desktop", "--prefix", str(tmp_path)]) == 0
    entry = tmp_path / f"share/applications/{ID}.desktop"
    entry.write_text(entry.read_text() + "Comment=mine\n")
    capsys.readouterr()
    assert main(["install-desktop", "--prefix", str(tmp_path), "--remove"]) == 0
    assert f"left: {entry}, which was changed since" in capsys.readouterr().out
    assert other.exists()
    assert entry.exists()
    assert main(["install-desktop", "--prefix", str(tmp_path)]) == 2
    assert "is there already, not as Urgens wrote it" in capsys.readouterr().err
    assert not (tmp_path / "share/man").exists()  # nothing was written before that was seen


@pytest.mark.parametrize("place", [f"share/applications/{ID}.desktop", "share/man", RECEIPT])
def test_nothing_is_written_where_a_link_leads(
    place: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    elsewhere = tmp_path / "elsewhere"
    elsewhere.mkdir()
    (tmp_path / "prefix" / place).parent.mkdir(parents=True)
    (tmp_path / "prefix" / place).symlink_to(elsewhere / "target")
    assert main(["install-desktop", "--prefix", str(tmp_path / "prefix")]) == 2
    assert f"is a link to {elsewhere / 'target'}" in capsys.readouterr().err
    assert list(elsewhere.iterdir()) == []


@pytest.mark.parametrize(
    ("receipt", "words"),
    [("{", "cannot be read"), ("[]", "cannot be read"),
     ('{"format": "x"}', "it is no urgens.installed"),
     ('{"format": "urgens.installed", "files": {"../../a": "0"}, "folders": []}',
      'names "../../a", which is not below it')],
)  # fmt: skip
def test_a_receipt_that_was_touched_takes_nothing_out(
    receipt: str, words: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["install-desktop", "--prefix", str(tmp_path)]) == 0
    (tmp_path / RECEIPT).write_text(receipt)
    assert main(["install-desktop", "--prefix", str(tmp_path), "--remove"]) == 2
    assert words in capsys.readouterr().err
    assert (tmp_path / "share/man/man1/urgens.1").exists()


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
    from urgens.cli.installing import _quoted

    assert _quoted(path) == quoted


def test_the_libraries_of_the_system_are_named_without_the_source(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """Whoever installed the wheel has no `make`; Debian's names, from its own packages."""
    lines = system_libraries()
    assert ("libEGL.so.1", "libegl1", "always") in lines
    assert {one.needed for one in lines} == {"always", "screen"}
    monkeypatch.setattr("urgens.missing_libraries._loads", lambda name: name != "libEGL.so.1")
    assert how_to_install() == (
        "These packages of Debian, Ubuntu and their relatives are missing; install them with\n"
        "  sudo apt-get install -y --no-install-recommends libegl1"
    )
    source = (ROOT / "src/urgens").rglob("*.py")
    assert [one for one in source if "`make " in one.read_text(encoding="utf-8")] == []


def test_what_the_wheel_asks_for_is_locked() -> None:
    """Every requirement has a version in the lock that it admits; hatchling's as well."""
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))
    for wanted, lock in ((project["project"]["dependencies"], "base.txt"),
                         (project["build-system"]["requires"], "build.txt")):  # fmt: skip
        text = (ROOT / "requirements" / lock).read_text(encoding="utf-8")
        locked = dict(re.findall(r"^([A-Za-z0-9._-]+)(?:\[\w+\])?==([^ ]+)", text, re.MULTILINE))
        for one in map(Requirement, wanted):
            assert one.specifier.contains(locked[one.name.lower().replace("_", "-")]), one


def test_nothing_is_imported_that_is_not_asked_for() -> None:
    """Each package that the source imports is one of its own requirements, or an extra of them."""
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    extras = [one for group in project["optional-dependencies"].values() for one in group]
    asked = {Requirement(one).name.lower() for one in (*project["dependencies"], *extras)}
    known = {"PySide6": "pyside6-essentials", "serial": "pyserial"}
    imported: set[str] = set()
    for path in (ROOT / "src/urgens").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Import):
                imported |= {one.name.split(".")[0] for one in node.names}
            elif isinstance(node, ast.ImportFrom) and node.module and not node.level:
                imported.add(node.module.split(".")[0])
    foreign = imported - set(sys.stdlib_module_names) - {"urgens"}
    assert {known.get(one, one.replace("_", "-")).lower() for one in foreign} <= asked


# --- the wheel ---------------------------------------------------------------------------------


def built(out: Path) -> Path:
    run = subprocess.run(
        [sys.executable, "-m", "build", "--wheel", "--no-isolation", "--outdir", str(out), "."],
        cwd=ROOT, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert run.returncode == 0, run.stdout + run.stderr
    (wheel,) = out.glob("*.whl")
    return wheel


def test_the_wheel_holds_what_is_shipped(tmp_path: Path) -> None:
    """That it is the same twice, and starts where nothing else is, `make wheel` tells."""
    wheel = built(tmp_path)
    assert wheel.name == f"urgens-{__version__}-py3-none-any.whl"
    names = set(zipfile.ZipFile(wheel).namelist())
    here = {
        path.relative_to(ROOT / "src").as_posix()
        for path in (ROOT / "src/urgens").rglob("*")
        if path.is_file() and "__pycache__" not in path.parts
    }
    assert names >= here
