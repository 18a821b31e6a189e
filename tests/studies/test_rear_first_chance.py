"""How sure it is: chances against plain draws, one vehicle after another."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from tests.builds import bed
from urgens.document import Build, with_changes
from urgens.physics.vehicle import StaticVehicle
from urgens.printed.robustness import printed_robustness
from urgens.solve.first_rise import AxleName
from urgens.solve.lock import first_lock
from urgens.solve.roads import every_road
from urgens.solve.system import system
from urgens.studies.draws import drawn, laid, spreads
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.robustness import robustness
from urgens.studies.valve_choice import candidates

PLAIN = 600
REDUCING = {"kind": "reducing", "knee": "25 bar", "slope": 0.35}
VALVES: dict[str, list[Any]] = {
    "none": [],
    "reducing": [REDUCING],
    "limiting": [{"kind": "limiting", "knee": "30 bar"}],
    "at rest": [{"kind": "load-sensing", "points": [["400 kg", "20 bar"], ["900 kg", "45 bar"]],
                 "slope": 0.3, "follows": "static"}],
    "as it moves": [{"kind": "load-sensing", "points": [["400 kg", "20 bar"], ["900 kg", "45 bar"]],
                     "slope": 0.3, "follows": "dynamic"}],
    "ball": [{"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.3}],
    "two": [REDUCING, {"kind": "residual", "pressure": "10 psi"}],
}  # fmt: skip


def plain(build: Build) -> float:
    """Draw vehicles by another seed, and look at each on forty roads by its first lock."""
    figures = spreads(build)
    values = drawn(build, figures, PLAIN, np.random.default_rng(20261201))
    ends = every_road(build)
    roads = np.linspace(ends[0], ends[-1], 40)
    made = system(build, over=laid(build, figures, values[:, :, None, None]))
    cases = len(build.vehicle.load_cases)
    standing = StaticVehicle(*(_across(np.asarray(one), cases) for one in made.standing))
    lock = first_lock(replace(made, standing=standing), standing, roads)
    rear = (lock.axle == AxleName.REAR) | lock.lifted
    return float(np.broadcast_to(rear, (PLAIN, cases, roads.size)).any(axis=(1, 2)).mean())


def _across(one: np.ndarray, cases: int) -> np.ndarray:
    """Draws down, load cases across, roads behind: of what no draw changes the cases alone."""
    if one.ndim > 1:
        return one.reshape(PLAIN, -1, 1)
    return one.reshape(1, -1, 1) if one.size == cases else one


@pytest.mark.parametrize("kind", VALVES)
def test_a_chance_is_that_of_plain_draws(kind: str) -> None:
    """Within four standard errors of both (JCGM 101, from memory)."""
    build = with_changes(bed("bakery"), {"valves.rear": VALVES[kind]})
    (chance,) = rear_first_chances([build])
    expected = plain(build)
    error = np.sqrt(max(expected * (1 - expected), 1 / PLAIN) * (1 / PLAIN + 1 / 20_000))
    # Forty roads may step over a short stretch, so that they never find more.
    assert expected - 4 * error <= chance <= expected + 4 * error + 0.01


def test_builds_that_share_figures_share_draws() -> None:
    """A valve that gives the rear less is never less sure: draw by draw it is the same vehicle."""
    knees = [with_changes(bed("bakery"), {"valves.rear": [{**REDUCING, "knee": f"{bar} bar"}]})
             for bar in (40, 32, 25, 20, 16)]  # fmt: skip
    chances = rear_first_chances(knees, 4000)
    assert list(chances) == sorted(chances, reverse=True)
    assert rear_first_chances([knees[2]], 4000) == chances[2:3]


def test_it_is_stopped_where_it_is_told_to() -> None:
    asked: list[float] = []

    def stop(share: float) -> bool:
        asked.append(share)
        return len(asked) < 2

    assert rear_first_chances([bed("bakery")] * 3, 500, progress=stop) == ()
    assert asked == [0.0, pytest.approx(1 / 3)]


def test_the_card_and_how_sure_give_one_figure() -> None:
    build = bed("roadster")
    best = candidates(build)[0]
    made = with_changes(build, best.to_take[0].changes)
    assert rear_first_chances([made]) == (best.chance,)
    sure = robustness(made, draws=500)
    assert sure is not None
    assert printed_robustness(sure, *rear_first_chances([made]))["rear_first_anywhere"] == (
        best.chance
    )
