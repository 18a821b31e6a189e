"""How long the fuzzers go on: once in the suite, with FUZZ_MINUTES set with new seeds till then."""

import os
import sys
import time
from collections.abc import Iterator

MINUTES = float(os.environ.get("FUZZ_MINUTES", "0"))  # `make fuzz MINUTES=30`
SHARE = 0.2  # of that for each fuzzer: two run at a time, and ten of them


def fuzzed(seed: int) -> Iterator[int]:
    """The seed of the suite, then others for as long as is asked for; each is printed."""
    until = time.monotonic() + 60.0 * SHARE * MINUTES
    yield seed
    while time.monotonic() < until:
        seed = time.time_ns() % 1_000_000_007
        sys.stderr.write(f"seed {seed}\n")  # shown where one fails
        yield seed
