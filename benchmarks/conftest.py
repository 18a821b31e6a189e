"""Prints each benchmark's ratio to its bare counterpart: machines differ, ratios less so."""

import statistics
import time
from collections.abc import Callable
from typing import Any

import pytest


def fastest(function: Callable[[], object], rounds: int = 30, repeats: int = 10) -> float:
    """Seconds one call takes in the quietest of many rounds."""
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        for _ in range(repeats):
            function()
        times.append((time.perf_counter() - start) / repeats)
    return min(times)


def median(function: Callable[[], object], rounds: int = 40) -> float:
    """Seconds one call takes, in the middle of all rounds."""
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        function()
        times.append(time.perf_counter() - start)
    return statistics.median(times)


@pytest.fixture
def report(capsys: Any) -> Callable[..., None]:
    """Print a line even where output is captured."""

    def say(name: str, seconds: float, bare: float | None = None, wanted: str = "") -> None:
        ratio = f", {seconds / bare:.2f} times the bare {bare * 1e3:.2f} ms" if bare else ""
        with capsys.disabled():
            print(
                f"\n  {name}: {seconds * 1e3:.2f} ms{ratio}{f'; wanted {wanted}' if wanted else ''}"
            )

    return say
