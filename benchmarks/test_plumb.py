"""From an edit of the layout to the repainted plan. Wanted: 16 ms on demos, 40 with 60 parts."""

from collections.abc import Callable, Iterator
from itertools import cycle
from typing import Any

import pytest
from PySide6.QtWidgets import QApplication
from tests.plumbing.layouts import with_layout
from tests.plumbing.test_plan import crowd
from tests.waiting import rest

from benchmarks.repaint import opened, time_edits
from urgens.document import Build, demo
from urgens.guidance.advice.by_hand import put_in, taken_out
from urgens.ui.frame.window import MainWindow

BUILDS: dict[str, Callable[[], Build]] = {
    "library": lambda: demo("library"),
    "tender": lambda: demo("tender"),
    "sixty": lambda: with_layout(crowd(60)),
}
STAND_BY = 400  # ms until what is only read has come


@pytest.fixture(params=BUILDS)
def laid(request: pytest.FixtureRequest, qapp: QApplication) -> Iterator[MainWindow]:
    yield from opened(BUILDS[request.param](), qapp)


def tube_of_a_line(window: MainWindow) -> Callable[[], object]:
    plumbing = window.session.build.plumbing
    assert plumbing is not None
    index = next(n for n, line in enumerate(plumbing.lines) if not line.direct)
    materials = cycle(("coated-steel", "copper-nickel"))
    return lambda: window.session.edit(f"plumbing.lines[{index}].material", next(materials))


def thread_of_a_port(window: MainWindow) -> Callable[[], object]:
    plumbing = window.session.build.plumbing
    assert plumbing is not None
    part = plumbing.parts[0]
    path = f'plumbing.parts[0].ports["{next(iter(part.ports))}"].thread'
    threads = cycle(("7/16-24", "3/8-24"))
    return lambda: window.session.edit(path, next(threads))


def part_in_and_out(window: MainWindow) -> Callable[[], object]:
    plumbing = window.session.build.plumbing
    assert plumbing is not None
    line = next(line.id for line in plumbing.lines if not line.direct)
    there: list[str] = []

    def edit() -> None:
        build = window.session.build
        if there:
            window.session.make(taken_out(build, there.pop()))
            return
        change, name = put_in(build, line, "union")
        there.append(name)
        window.session.make(change)

    return edit


EDITS = {
    "material": tube_of_a_line,
    "thread": thread_of_a_port,
    "part": part_in_and_out,
}


@pytest.mark.benchmark(group="layout to the repainted plan: 16 ms, with 60 parts 40")
@pytest.mark.parametrize("edit", EDITS)
def test_layout_edit_to_repaint(
    benchmark: Any, laid: MainWindow, qapp: QApplication, edit: str
) -> None:
    laid.show_station("Plumb")
    rest(STAND_BY)
    time_edits(benchmark, qapp, EDITS[edit](laid), rounds=30)
    assert laid.session.build.plumbing is not None
