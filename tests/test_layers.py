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
    shutil.copytree(
        ROOT / "src", tmp_path / "src", ignore=shutil.ignore_patterns("*.ttf", "__pycache__")
    )
    shutil.copy(ROOT / "pyproject.toml", tmp_path)
    return tmp_path


def test_the_contracts_hold(tree: Path) -> None:
    run = lint(tree)

    assert run.returncode == 0, run.stdout
    assert "Contracts: 6 kept, 0 broken." in run.stdout


@pytest.mark.parametrize(
    ("file", "planted", "contract"),
    [
        ("physics/disc.py", "import urgens.document", "Physics stands alone BROKEN"),
        (
            "solve/press.py",
            "import PySide6.QtCore",
            "The core and the document know no interface BROKEN",
        ),
        ("document/files.py", "import urgens.ui.session", "Imports point one way BROKEN"),
        ("sheet/content.py", "import pyqtgraph", "The sheet knows no widgets BROKEN"),
        (
            "ui/widgets/page.py",
            "import urgens.ui.stations.table",
            "Inside the interface imports point one way BROKEN",
        ),
        (
            "ui/session/view.py",
            "import urgens.ui.widgets.seen",
            "Inside the interface imports point one way BROKEN",
        ),
        (
            "ui/stations/size/half_page.py",
            "import urgens.ui.stations.measure.kinds",
            "Stations do not know each other BROKEN",
        ),
    ],
)
def test_a_planted_import_is_seen(tree: Path, file: str, planted: str, contract: str) -> None:
    path = tree / "src" / "urgens" / file
    path.write_text(path.read_text(encoding="utf-8") + f"\n{planted}\n", encoding="utf-8")
    run = lint(tree)

    assert run.returncode == 1
    assert contract in run.stdout


WRITES_A_SHEET = """
import sys
from pathlib import Path
{planted}
from tests.builds import bed
from urgens.document import demo
from urgens.sheet import write
write(bed("pickup"), Path(sys.argv[1]))
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
