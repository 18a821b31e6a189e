"""What is asked of the test road: builds, road, foot; driven away from the hand."""

from collections.abc import Callable
from typing import NamedTuple

from urgens.bench.road.drives import Drive, StopTrial, drives, foot_over_lock, foot_to_lock, trial
from urgens.bench.road.simulation import StoppedError
from urgens.bench.road.torque import Foot, hold
from urgens.document import Build
from urgens.solve.system import system

FEET = {"press": "the press's foot", "lock": "until one locks", "over": "a little over it",
        "typed": "as typed", "stamp": "stamped: there at once"}  # fmt: skip


class DriveRequest(NamedTuple):
    """One stop of each build; `foot` one of FEET, `pressed` the foot of the press or as typed."""

    builds: tuple[Build, ...]
    case: int
    surface: float
    speed: float
    foot: str
    pressed: Foot

    def same(self, other: "DriveRequest | None") -> bool:
        """Tell whether another one asks for the same."""
        return other is not None and self._key() == other._key()

    def _key(self) -> tuple[object, ...]:
        return (*self[:5], tuple(self.pressed.efforts), tuple(self.pressed.times))


def driven(request: DriveRequest, progress: Callable[[float], bool]) -> tuple[Drive, ...]:
    """Return how the stops went, none where they were stopped; progress: whether to go on."""

    def goes_on() -> bool:
        return progress(0.5)

    try:
        trials = [_trial(request, build, goes_on) for build in request.builds]
        return drives(trials, goes_on=goes_on)
    except StoppedError:
        return ()


def _trial(request: DriveRequest, build: Build, goes_on: Callable[[], bool]) -> StopTrial:
    """Return one stop of a build with the foot that is asked for."""
    case = min(request.case, len(build.vehicle.load_cases) - 1)
    one = trial(build, system(build), case, request.surface, request.speed, request.pressed)
    if request.foot in ("press", "typed"):
        return one
    if request.foot == "lock":
        return one._replace(foot=foot_to_lock(one, goes_on))
    over = foot_over_lock(one, goes_on)
    if request.foot == "over":
        return one._replace(foot=over)
    return one._replace(foot=hold(float(over.efforts[-1]), 0.0))
