"""The layers hold, and the contracts that say so can fail."""

import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent


def lint(root: Path) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-c", "from importlinter.cli import lint_imports_command; "
         "lint_imports_command()", "--no-cache"],
        cwd=root, env={"PYTHONPATH": str(root / "src"), "PATH": "/usr/bin:/bin"},
        capture_output=True, check=False, text=True,
    )  # fmt: skip


@pytest.fixture
def tree(tmp_path: Path) -> Path:
    """A copy of the tree that may be damaged."""
    return copied(tmp_path)


def copied(root: Path) -> Path:
    shutil.copytree(
        ROOT / "src", root / "src", ignore=shutil.ignore_patterns("*.ttf", "__pycache__")
    )
    shutil.copy(ROOT / "pyproject.toml", root)
    return root


def test_the_contracts_hold(tree: Path) -> None:
    run = lint(tree)

    assert run.returncode == 0, run.stdout
    assert "Contracts: 10 kept, 0 broken." in run.stdout


# A file, what is planted in it, and the contract that it breaks.
PLANTED = [
    ("document/files.py", "import urgens.ui.session", "Imports point one way"),
    ("floating.py", "", "Imports point one way"),
    ("document/build.py", "import urgens.document.edits",
     "Inside the document imports point one way"),
    ("document/floating.py", "", "Inside the document imports point one way"),
    ("guidance/rules/travel.py", "import urgens.guidance.advice",
     "Inside guidance imports point one way"),
    ("bench/road/drives.py", "import urgens.bench.logs", "Inside the bench imports point one way"),
    ("sheet/content.py", "import PySide6.QtGui",
     "Qt is drawn with in the interface, and written with in the files that are named"),
    ("solve/press.py", "import PySide6.QtCore", "The core and the document know no interface"),
    ("physics/disc.py", "import urgens.document", "Physics stands alone"),
    ("sheet/content.py", "import pyqtgraph", "The sheet knows no widgets"),
    ("ui/widgets/page.py", "import urgens.ui.stations.measure",
     "Inside the interface imports point one way"),
    ("ui/stations/size/half_page.py", "import urgens.ui.stations.measure.kinds",
     "Stations do not know each other"),
    ("ui/stations/ninth.py", "import urgens.ui.stations.bleed", "Stations do not know each other"),
]  # fmt: skip


@pytest.fixture(scope="module")
def told(tmp_path_factory: pytest.TempPathFactory) -> str:
    """What is said of a tree in which everything is planted."""
    root = copied(tmp_path_factory.mktemp("planted"))
    for file, planted, _ in PLANTED:
        with (root / "src" / "urgens" / file).open("a", encoding="utf-8") as source:
            source.write(f"\n{planted}\n")
    run = lint(root)
    assert run.returncode == 1
    return run.stdout


@pytest.mark.parametrize(("file", "planted", "contract"), PLANTED)
def test_a_planted_import_is_seen(told: str, file: str, planted: str, contract: str) -> None:
    importer = f"urgens.{file.removesuffix('.py').replace('/', '.')}"
    imported = planted.removeprefix("import ").removesuffix(".QtGui").removesuffix(".QtCore")
    own = told.partition(f"\n{contract}\n---")[2].partition("\n---")[0]

    assert f"{contract} BROKEN" in told
    assert (f"{importer} -> {imported} " if planted else f"- {importer}\n") in own


WRITES_A_SHEET = """
import sys
from pathlib import Path
{planted}
from tests.builds import bed
from urgens.document import demo
from urgens.sheet import write
write(bed("bakery"), Path(sys.argv[1]))
print([name for name in ("PySide6.QtWidgets", "urgens.ui", "pyqtgraph") if name in sys.modules])
"""


@pytest.mark.parametrize(
    ("planted", "found"), [("", "[]"), ("import PySide6.QtWidgets", "['PySide6.QtWidgets']")]
)
def test_a_sheet_is_written_without_widgets(tmp_path: Path, planted: str, found: str) -> None:
    code = WRITES_A_SHEET.format(planted=planted)
    run = subprocess.run(
        [sys.executable, "-c", code, str(tmp_path / "sheet.pdf")],
        capture_output=True, check=True, text=True,
    )  # fmt: skip

    assert run.stdout.strip() == found
