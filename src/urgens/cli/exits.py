"""Exit codes, and the word that goes with one that is not zero."""

import sys
from contextlib import suppress

DONE = 0
DANGER = 1
BAD_INPUT = 2


def say(message: str) -> None:
    """Say something is wrong, if there is anywhere to say it."""
    if sys.stderr is not None:
        with suppress(OSError):
            print(message, file=sys.stderr, flush=True)
