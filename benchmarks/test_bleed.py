"""A procedure with its dry run, and a stroke to the repainted card.

Wanted: any procedure with its dry run at most 30 ms, one stroke to the repaint under 16 ms.
"""

from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from tests.builds import bed, with_changes

from benchmarks.repaint import opened, time_edits
from urgens.document import Build, demo, edited
from urgens.guidance.procedures import procedure
from urgens.guidance.procedures.bled_run import expected_bleeding
from urgens.ui.stations.bleed.card_page import CardPage

NAMES = ("bleed", "prove-standing", "assemble")


@pytest.mark.benchmark(group="a procedure with its dry run: 30 ms at most")
@pytest.mark.parametrize("name", NAMES)
def test_procedure(benchmark: Any, name: str) -> None:
    builds = iter([edited(bed("library"), "notes", f"{n}") for n in range(2000)])
    made = benchmark.pedantic(lambda: procedure(next(builds), name), rounds=200, warmup_rounds=3)
    assert made.allowed


@pytest.mark.benchmark(group="the fluid of a run so far")
def test_expected(benchmark: Any) -> None:
    build = demo("library")
    steps = procedure(build, "bleed", "pedal").steps
    assert benchmark(expected_bleeding, build, steps, build.records[0]) is not None


@pytest.mark.benchmark(group="one stroke to the repaint: under 16 ms")
def test_stroke_to_repaint(benchmark: Any, qapp: QApplication) -> None:
    build: Build = with_changes(bed("library"), {"records": [], "joints": []})
    for window in opened(build, qapp):
        window.show_station("Bleed")
        page = window.station("Bleed").page
        assert isinstance(page, CardPage)
        QTest.keyClick(page.plan, Qt.Key.Key_Return)
        while page.run.step is not None and page.run.step.action != "stroke":
            QTest.keyClick(page.plan, Qt.Key.Key_Return)

        time_edits(benchmark, qapp, page.stroke)
        assert page.strokes > 1
