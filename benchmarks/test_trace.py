"""Tracing in absolute time: causes simulated, ranked, and the next test, wanted under 50 ms."""

from typing import Any

import pytest

from urgens.document import demo
from urgens.guidance.sayings import tried
from urgens.guidance.tracing.ranking import TraceEvidence
from urgens.guidance.tracing.readings import reading
from urgens.guidance.tracing.trace import traced
from urgens.solve import solve


@pytest.mark.benchmark(group="trace")
def test_causes_ranked_and_the_next_test(benchmark: Any) -> None:
    read = (
        reading("travel-1", "95 mm", "300 N"), reading("travel-3", "80 mm", "300 N"),
        reading("rear-pressure", "30 bar", "300 N"), reading("deceleration", "0.4", "200 N"),
    )  # fmt: skip
    known = TraceEvidence({"spongy": True, "sinks": False}, {"level": "as-marked"}, read)
    found = benchmark(traced, demo("library"), known)
    assert found.tests


@pytest.mark.benchmark(group="trace")
def test_all_sayings_tried(benchmark: Any) -> None:
    assert len(benchmark.pedantic(tried, (solve(demo("library")),), rounds=5)) > 20
