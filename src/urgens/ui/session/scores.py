"""What was reached in the trainer: kept with personal settings, never in a build."""

from typing import NamedTuple


class Score(NamedTuple):
    """One exercise that was ended: day, build, level, vehicle, minutes, the shortest way's."""

    day: str
    build: str
    level: int
    seed: int
    minutes: int
    best: int


MOST = 50  # scores that are kept
