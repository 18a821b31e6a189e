"""A kind is one record: CONTRIBUTING's recipe, followed on a copy of the tree."""

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from tests.builds import bed_text
from urgens.document.kinds.boosters import BOOSTERS, booster_kind
from urgens.document.kinds.brakes import BRAKES, brake_kind
from urgens.document.kinds.cylinders import CYLINDERS, cylinder_kind
from urgens.document.kinds.valves import VALVES, kind_of

ROOT = Path(__file__).parents[2]
# A made-up valve: it opens only at a pressure, and passes everything from there on.
RECORD = '''"""The pop-open valve, made up for a test."""

from typing import Annotated, Any, Literal

from urgens.document.entry import VALVE_GAUGES, Entry
from urgens.document.model import Pressure
from urgens.document.numeric import NumericBuild
from urgens.document.kinds.valves.kind import InUnits, Loads, ValveKind, ValvePart
from urgens.physics.valve_law import MeteringLaw, ValveLaw


class PopOpen(ValvePart):
    """Holds all back up to a pressure."""

    kind: Literal["pop-open"]
    pops: Annotated[Pressure, Entry("Pops at", VALVE_GAUGES, "Pressure at which it opens")]


def _law(part: NumericBuild) -> ValveLaw:
    return MeteringLaw(0.0, part["pops"], 1.001 * part["pops"])


def _words(part: PopOpen, units: InUnits) -> str:
    return f"pops at {part.pops.text}"


def _new(loads: Loads) -> dict[str, Any]:
    return {"kind": "pop-open", "pops": "20 bar"}


POP_OPEN = ValveKind(
    model=PopOpen,
    name="Pop-open valve",
    what="Holds everything back, then nothing.",
    typical="usual: nowhere",
    law=_law,
    briefly=_words,
    new=_new,
    drawing=("poppet spring",),
    looks={"ins": (1,), "outs": (1,), "knob": (False,), "lever": (False,), "stem": (True,)},
    seen_by="a stem and nothing else: it opens at a pressure",
)
'''
TRY = """
import json, sys
from pathlib import Path
from PySide6.QtWidgets import QApplication
from urgens.document import load
from urgens.document.catalogue import named
from urgens.document.kinds.valves import kind_of
from urgens.guidance.words.block_key import verdict
from urgens.guidance.tracing.ranking import TraceEvidence
from urgens.guidance.tracing.trace import traced
from urgens.guidance.words.parts import KINDS
from urgens.plumbing.draft import drafted
from urgens.ui.stations.plumb.part_facts import FASTENED
from urgens.guidance.words.valves import fitted_words
from urgens.sheet.fitted import fitted
from urgens.solve import solve
from urgens.studies.robustness import robustness
from urgens.ui.application import dress
from urgens.ui.session import Session
from urgens.ui.frame.window import MainWindow
build = load(Path(sys.argv[1]))
application = QApplication([])
dress(application)
window = MainWindow(Session(build))
window.show()
window.show_station("Balance")
window.station("Balance").show_page_named("Valves")
page = window.station("Balance").page
menu = [action.text() for adder in page.add.values() for action in adder.menu().actions()]
pressed = solve(build, efforts=__import__("numpy").array([40.0, 400.0])).presses
print(json.dumps({
    "named": named(build, "valves.rear[0].pops"),
    "rear": pressed.rear_pressure.tolist(),
    "cylinder": pressed.master_rear.tolist(),
    "sheet": dict(dict(fitted(build, build.natural_units).parts)["Rear"])["Valve 1"],
    "words": fitted_words(build, build.natural_units),
    "draws": robustness(build, draws=50).draws,
    "menu": menu.count("Pop-open valve"),
    "page": page.name.text(),
    "labels": list(page.figures.labels),
    "body": list(verdict({"stem": True, "outs": 1, "knob": False})),
    "laid": [part["kind"] for part in drafted(build)["parts"] if part.get("valve") == "rear[0]"],
    "called": KINDS["pop-open"],
    "asked": "pop-open" in FASTENED,
    "causes": len(traced(build, TraceEvidence({"sinks": True}, {})).ranked) > 0,
}))
"""


@pytest.fixture
def tree(tmp_path: Path) -> Path:
    shutil.copytree(ROOT / "src", tmp_path / "src", ignore=shutil.ignore_patterns("__pycache__"))
    valves = tmp_path / "src/urgens/document/kinds/valves"
    (valves / "pop_open.py").write_text(RECORD, encoding="utf-8")
    table = (valves / "__init__.py").read_text(encoding="utf-8")
    table = table.replace(
        "from urgens.document.kinds.valves.reducing import REDUCING\n",
        "from urgens.document.kinds.valves.pop_open import POP_OPEN\n"
        "from urgens.document.kinds.valves.reducing import REDUCING\n",
    ).replace("    REDUCING,\n    LIMITING", "    POP_OPEN,\n    REDUCING,\n    LIMITING")
    (valves / "__init__.py").write_text(table, encoding="utf-8")
    return tmp_path


def test_a_new_kind_of_valve_is_one_record(tree: Path) -> None:
    """One file and its line in the table: document, solver, words, sheet, draws and window."""
    document = json.loads(bed_text("bakery"))
    document["valves"]["rear"] = [{"kind": "pop-open", "pops": "20 bar"}]
    file = tree / "truck.urgens.json"
    file.write_text(json.dumps(document), encoding="utf-8")
    run = subprocess.run(
        [sys.executable, "-c", TRY, str(file)],
        env={**os.environ, "PYTHONPATH": str(tree / "src"), "QT_QPA_PLATFORM": "offscreen"},
        capture_output=True, check=False, text=True, timeout=60,
    )  # fmt: skip
    assert run.returncode == 0, run.stderr
    said = json.loads(run.stdout)

    assert said["named"] == "Rear valve's pops at"
    assert said["rear"][0] == 0.0
    assert said["cylinder"][0] > 0.0
    assert said["rear"][1] == pytest.approx(said["cylinder"][1])
    assert said["sheet"] == "pop-open valve"
    assert said["words"] == "pop-open valve, pops at 20 bar"
    assert said["draws"] == 50
    assert said["menu"] == 2
    assert said["page"] == "Pop-open valve, rear"
    assert said["labels"] == ["valves.rear[0].pops"]
    assert "Pop-open valve: a stem and nothing else: it opens at a pressure." in said["body"]
    assert said["laid"] == ["pop-open"]
    assert said["called"] == "Pop-open valve"
    assert said["asked"] is True
    assert said["causes"] is True


def test_a_new_kind_is_laid_and_traced_on_the_command_line(tree: Path) -> None:
    document = json.loads(bed_text("bakery"))
    document["valves"]["rear"] = [{"kind": "pop-open", "pops": "20 bar"}]
    file, laid = tree / "truck.urgens.json", tree / "laid.urgens.json"
    file.write_text(json.dumps(document), encoding="utf-8")
    for arguments in (["plumb", str(file), "--draft", "-o", str(laid)], ["check", str(laid)],
                      ["trace", str(laid), "--sign", "sinks"]):  # fmt: skip
        run = subprocess.run(
            [sys.executable, "-m", "urgens", *arguments],
            env={**os.environ, "PYTHONPATH": str(tree / "src"), "QT_QPA_PLATFORM": "offscreen"},
            capture_output=True, check=False, text=True, timeout=60,
        )  # fmt: skip
        assert run.returncode < 2, run.stderr

    parts = json.loads(laid.read_text(encoding="utf-8"))["plumbing"]["parts"]
    assert [part["valve"] for part in parts if part["kind"] == "pop-open"] == ["rear[0]"]


def test_every_kind_is_found_by_its_name_in_the_file() -> None:
    for records, find in (
        (VALVES, kind_of),
        (BRAKES, brake_kind),
        (BOOSTERS, booster_kind),
        (CYLINDERS, cylinder_kind),
    ):
        for record in records:
            assert find(record.kind) is record  # type: ignore[operator]
        with pytest.raises(KeyError):
            find("steam")  # type: ignore[operator]
