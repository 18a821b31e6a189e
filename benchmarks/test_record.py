"""The record in absolute time: plan, thirty jobs in order, two builds compared, the sheet set."""

from datetime import datetime
from typing import Any

import pytest
from PySide6.QtWidgets import QApplication

from urgens.document import demo, with_changes, with_setup
from urgens.document.edits.past import as_of, with_history
from urgens.guidance.advice.build_comparison import compared
from urgens.guidance.planning.job import Job
from urgens.guidance.planning.order import ordered
from urgens.guidance.planning.plan import plan
from urgens.sheet.files import set_sheet
from urgens.solve import solve
from urgens.ui.application import dress

CIRCUITS = ("front", "rear", "third")


@pytest.mark.benchmark(group="record")
@pytest.mark.parametrize("aim", [None, "load-sensing"])
def test_plan(benchmark: Any, aim: str | None) -> None:
    van = demo("library")
    then = None if aim is None else with_setup(van, aim)
    assert benchmark.pedantic(plan, (van, then), rounds=10, warmup_rounds=1).jobs


@pytest.mark.benchmark(group="record")
def test_thirty_jobs_in_order(benchmark: Any) -> None:
    jobs = [Job(str(n), 10, "", opens=(CIRCUITS[n % 3],)) for n in range(30)]

    def bleed(names: tuple[str, ...]) -> Job:
        return Job("bleed", 30, "", bleeds=names)

    assert benchmark.pedantic(ordered, (jobs, bleed), rounds=3).bleeds == 3


@pytest.mark.benchmark(group="record")
def test_two_builds_compared(benchmark: Any) -> None:
    van = demo("library")
    other = with_setup(van, "load-sensing")
    assert benchmark.pedantic(compared, (van, other), rounds=10, warmup_rounds=1)


@pytest.mark.benchmark(group="record")
def test_saved_with_history_and_back(benchmark: Any) -> None:
    van = demo("library")
    changed = with_changes(van, {"front.brake.pad_friction": 0.37})
    now = datetime(2026, 5, 2, 14)

    def there_and_back() -> object:
        return as_of(with_history(van, changed, now), datetime(2026, 5, 1))

    assert benchmark(there_and_back)


@pytest.mark.benchmark(group="record")
def test_sheet_set_on_pages(benchmark: Any, qapp: QApplication) -> None:
    dress(qapp)
    solution = solve(demo("roadster"))
    units = solution.build.natural_units
    assert benchmark.pedantic(set_sheet, (solution, units), rounds=5, warmup_rounds=1).pages > 3
