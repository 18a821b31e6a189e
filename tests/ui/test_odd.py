"""Builds that are legal and odd, opened on every page, in both themes and from far away."""

import json
from collections.abc import Callable
from typing import Any

from hypothesis import HealthCheck, Phase, given, reject, settings
from hypothesis import strategies as st

from tests.builds import EVERYTHING, bakery_with, bed
from tests.document.odd import odd_documents
from tests.strategies import documents
from tests.ui.conftest import every_page
from tests.waiting import rest
from urgens.document import Build, BuildErrors, edited, loads
from urgens.document.catalogue import figures
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.background import wait_for_all

EXAMPLES = 2  # builds that can be read


def go_through(window: MainWindow) -> int:
    """Look at every page; tell how many there are."""
    seen = 0
    for _ in every_page(window, ms=1):
        assert not window.grab().isNull()
        seen += 1
    return seen


def with_every_figure_known(build: Build) -> Build:
    paths = [one.path for one in figures(build) if one.kind != "text"]
    return edited(
        build, "evidence", {path: {"state": "assumed", "spread": "4 %"} for path in paths}
    )


def test_evidence_on_every_figure_there_is_opens_on_every_page(
    open_window: Callable[[Build], MainWindow],
) -> None:
    known = with_every_figure_known(bakery_with(EVERYTHING))
    window = open_window(known)

    assert "targets.max_effort" in known.evidence
    assert go_through(window) > 15
    rest(400)
    wait_for_all(5.0)


def test_odd_builds_open_on_every_page(open_window: Callable[[Build], MainWindow]) -> None:
    window = open_window(bed("bakery"))
    opened = 0

    # A window takes its time: what fails is shown as it was drawn.
    @settings(
        max_examples=EXAMPLES,
        suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much],
        phases=[Phase.explicit, Phase.reuse, Phase.generate],
    )
    @given(st.one_of(documents(), documents(), odd_documents()))
    def look(document: dict[str, Any]) -> None:
        nonlocal opened
        try:
            build = loads(json.dumps(document))
        except BuildErrors:
            reject()
        opened += 1
        window.session.open(build, None)
        if opened % 3 == 0:
            window.switch_theme()
        if opened % 5 == 0:
            window.stand_back()
        go_through(window)

    look()
    assert opened >= EXAMPLES / 2  # others are drawn in place of what no file may say
    rest(400)
    wait_for_all(5.0)
