"""Each recipe of CONTRIBUTING.md followed to the letter, on a copy of the source.

Kinds have theirs in `document/test_kinds.py`, causes in `guidance/test_tracing.py`.
"""

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from tests.builds import bed_text

ROOT = Path(__file__).parents[1]

# --- what is written, by the place it goes to --------------------------------------------------

FIGURE = """    spare_mass: Annotated[
        Mass, Entry("Spare wheel", "a scale", "The spare wheel with its tyre")
    ] | None = None
    wheelbase: Annotated["""
RULE = '''"""What is carried."""

from collections.abc import Iterator

from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.solve import Solution


@rule("spare-heavy", Severity.ADVICE)
def spare_heavy(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a spare wheel that weighs much."""
    spare = solution.build.vehicle.spare_mass
    if spare is not None and spare.value > 20.0:
        yield Remark("The spare wheel is heavy.", "It is carried behind.", "vehicle.spare_mass")
'''
STATION = '''"""The Pack station: what is carried."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind


def _fact(session: Session) -> str:
    return "spare in"


PACK = StationKind("Pack", "Alt+9", "pack.station:PackStation", _fact, areas=("carried",))
'''
ITS_CLASS = '''"""The Pack station: what is carried."""

from PySide6.QtWidgets import QLabel, QVBoxLayout, QWidget

from urgens.ui.session import Session
from urgens.ui.widgets.station import Station


class PackStation(Station):
    """The spare wheel."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.said = QLabel(session.build.vehicle.spare_mass.text)
        QVBoxLayout(self).addWidget(self.said)
'''
CHAPTER = '''"""What is carried."""

from collections.abc import Iterator

from urgens.sheet.blocks import Block, Paragraphs
from urgens.sheet.chapters.told import SheetContext


def carried(context: SheetContext) -> Iterator[Block]:
    """Yield what is carried."""
    yield Paragraphs((f"A spare wheel of {context.build.vehicle.spare_mass.text}.",), "plain")
'''
PROCEDURE = """
[[procedures]]
id = "stow-spare"
title = "Stow the spare wheel"
group = "assemble"
tools = ["strap"]
[[procedures.steps]]
text = "Strap the spare wheel down."
why = "What is loose comes forward."
action = "check"
read = "ok"
[[procedures.steps]]
text = "Look that no rear line is under it."
why = "It would be crushed."
action = "check"
when = ["laid-out"]
"""
JOB = '''

def _stowed(build: Build) -> Iterator[Job]:
    """Yield the stowing of a spare wheel."""
    if build.vehicle.spare_mass is not None:
        yield Job("Stow the spare wheel", 10, "assumed", "boot", procedure="stow-spare")
'''
WRITTEN = {
    "guidance/rules/carried.py": RULE,
    "ui/stations/pack/__init__.py": STATION,
    "ui/stations/pack/station.py": ITS_CLASS,
    "sheet/chapters/carried.py": CHAPTER,
}
# file: what stands there, and what takes its place
CHANGED = {
    "document/vehicle.py": [
        ("    wheelbase: Annotated[", FIGURE), ("    Load,\n", "    Load,\n    Mass,\n"),
    ],
    "guidance/rules/registry.py": [('    "travel",\n)', '    "travel", "carried",\n)')],
    "guidance/__init__.py": [("balance,\n    circuit,", "balance,\n    carried,\n    circuit,")],
    "ui/frame/stations.py": [
        ("from urgens.ui.stations.plumb", "from urgens.ui.stations.pack import PACK\n"
         "from urgens.ui.stations.plumb"),
        ("TRACE, SHEET)", "TRACE, SHEET, PACK)"),
    ],
    "sheet/chapters/__init__.py": [
        ("from urgens.sheet.chapters.closing", "from urgens.sheet.chapters.carried import carried\n"
         "from urgens.sheet.chapters.closing"),
        ('"wall": wall,', '"wall": wall, "carried": carried,'),
    ],
    "data/sheet/chapters.toml": [('balance = "', 'carried = "What is carried"\nbalance = "')],
    "guidance/planning/still_open.py": [("*_runs(build)]", "*_runs(build), *_stowed(build)]")],
}  # fmt: skip
ADDED = {
    "data/procedures/procedures.toml": PROCEDURE,
    "guidance/planning/still_open.py": JOB,
}
LOOK = """
import sys
from PySide6.QtWidgets import QApplication
from urgens.document import load
from urgens.ui.application import dress
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from pathlib import Path
application = QApplication([])
dress(application)
window = MainWindow(Session(load(Path(sys.argv[1]))))
window.show_station("Pack")
print(window.bench.name, window.station("Pack").said.text())
window.close()
"""


@pytest.fixture(scope="module")
def tree(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The source with everything added, and a build that has the new figure."""
    place = tmp_path_factory.mktemp("recipes")
    shutil.copytree(ROOT / "src", place / "src", ignore=shutil.ignore_patterns("__pycache__"))
    source = place / "src" / "urgens"
    for name, text in WRITTEN.items():
        (source / name).parent.mkdir(exist_ok=True)
        (source / name).write_text(text, encoding="utf-8")
    for name, changes in CHANGED.items():
        text = (source / name).read_text(encoding="utf-8")
        for there, new in changes:
            assert text.count(there) == 1, (name, there)
            text = text.replace(there, new)
        (source / name).write_text(text, encoding="utf-8")
    for name, text in ADDED.items():
        with (source / name).open("a", encoding="utf-8") as file:
            file.write(text)
    document = json.loads(bed_text("library"))
    document["vehicle"]["spare_mass"] = "24 kg"
    document["joints"] = [{"joint": "L6.b", "state": "tight", "at": "2026-05-03T10:00"}]
    (place / "own.urgens.json").write_text(json.dumps(document), encoding="utf-8")
    return place


def said(tree: Path, *arguments: str) -> str:
    """What Python says of the changed source."""
    run = subprocess.run(
        [sys.executable, *arguments], cwd=tree, capture_output=True, text=True, check=False,
        env={**os.environ, "PYTHONPATH": str(tree / "src"), "QT_QPA_PLATFORM": "offscreen"},
    )  # fmt: skip
    assert run.stderr == ""
    assert run.returncode < 2
    return run.stdout


def test_a_figure_and_a_rule(tree: Path) -> None:
    found = json.loads(said(tree, "-m", "urgens", "check", "own.urgens.json", "--json"))
    (remark,) = (one for one in found if one["code"] == "spare-heavy")
    assert (remark["severity"], remark["where"]) == ("advice", "vehicle.spare_mass")
    assert "The spare wheel is heavy." in remark["message"]


def test_a_procedure_and_a_job(tree: Path) -> None:
    card = said(tree, "-m", "urgens", "procedure", "own.urgens.json", "stow-spare")
    assert "Strap the spare wheel down." in card
    assert "Look that no rear line is under it." in card  # the library is laid out
    assert "Stow the spare wheel" in said(tree, "-m", "urgens", "plan", "own.urgens.json")


def test_a_chapter(tree: Path) -> None:
    said(tree, "-m", "urgens", "sheet", "own.urgens.json", "-o", "s.html", "--chapters", "carried")
    sheet = (tree / "s.html").read_text(encoding="utf-8")
    assert "What is carried" in sheet
    assert "A spare wheel of 24 kg." in sheet


def test_a_station(tree: Path) -> None:
    assert said(tree, "-c", LOOK, "own.urgens.json") == "Pack 24 kg\n"
