"""What stops say, beside a finer grid, beside sampling, and beside what was planted."""

import math
from typing import Any

import numpy as np
import pytest
from scipy.stats import norm

from tests.builds import bed
from urgens.bench.road.drives import drives, trial
from urgens.bench.road.torque import hold
from urgens.bench.stops.posterior import (
    Prior,
    deceleration_of,
    posterior,
    prior,
    scaled,
    summed_up,
    why_not_counted,
)
from urgens.document import Build, demo, edited
from urgens.document.ledger.proof import MeasuredStop
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.lock import first_lock
from urgens.solve.rolling_forces import axle_forces
from urgens.solve.system import system

AT = "2026-05-02T14:10"
TURNS = "valves.rear[0].turns"
G = 9.80665


def stop(**given: Any) -> MeasuredStop:
    case = demo("roadster").vehicle.load_cases[0].name
    usual = {"at": AT, "load_case": case, "surface": 1.1, "setting": {TURNS: 3.0}}
    return MeasuredStop.model_validate({**usual, **given})


STOPS = (
    stop(setting={TURNS: 1.0}, deceleration=0.71, effort="196 N", locked="none"),
    stop(setting={TURNS: 2.0}, deceleration=0.93, effort="265 N", locked="front"),
    stop(deceleration=0.96, effort="266 N", locked="front"),
    stop(setting={TURNS: 3.5}, deceleration=0.97, locked="front"),
    stop(setting={TURNS: 4.0}, deceleration=0.55, effort="150 N", surface=0.6, locked="unknown"),
)


def test_a_finer_grid_says_the_same() -> None:
    build = demo("roadster")
    coarse = posterior(build, STOPS)
    fine = posterior(build, STOPS, steps=(81, 61))
    for one, other in ((coarse.of_front, fine.of_front), (coarse.of_rear, fine.of_rear)):
        assert one[0] == pytest.approx(other[0], abs=0.003)
        assert one[1] == pytest.approx(other[1], abs=0.008)
    assert coarse.weights.sum() == pytest.approx(1.0)
    assert set(coarse.roads) == {1.1, 0.6}


def log_density(
    build: Build, known: Prior, stops: tuple[MeasuredStop, ...], x: np.ndarray
) -> float:
    """Bayes' rule written out plainly for one point: factors, then a road for each coefficient."""
    front, rear, *roads = x
    if min(front, rear, *roads) <= 0.05:
        return -math.inf
    off = np.array([front, rear]) - known.mean
    total = -0.5 * float(off @ np.linalg.inv(known.covariance) @ off)
    surfaces = list(dict.fromkeys(one.surface for one in stops))
    for surface, road in zip(surfaces, roads, strict=True):
        total += norm.logpdf(road, surface, 0.1)
    for one in stops:
        road = roads[surfaces.index(one.surface)]
        made = scaled(system(build, over={TURNS: float(one.setting[TURNS])}), front, rear)
        standing = made.case(0)
        assert one.effort is not None
        effort = one.effort.value
        f, r = (float(a) for a in axle_forces(made, pushrod_force(made, effort), standing))
        weight = float(standing.weight)
        moved = float(standing.transfer) * (f + r)
        used = f / (float(standing.front_weight) + moved), r / (float(standing.rear_weight) - moved)
        z = min(f + r, weight * 9.0) / weight
        # The brakes stop two wheels of 1.2 kg·m² an axle as well, as long as they turn
        turning = [2.4 * G / weight / float(end.rolling_radius) ** 2 for end in made.ends]
        slips, h = build.targets.locked_grip * road, float(standing.transfer)
        if used[0] > road >= used[1]:  # the front slides, by hand
            z = (slips * float(standing.front_weight) + r) / weight / (1.0 - slips * h)
        elif max(used) > road:
            rear = (f + slips * float(standing.rear_weight)) / weight / (1.0 + slips * h)
            z = slips if min(used) > road else rear
        rolls = [need <= road for need in used]
        z /= 1.0 + sum(share for share, rolling in zip(turning, rolls, strict=True) if rolling)
        total += norm.logpdf(one.deceleration, z, 0.03)
        if one.locked == "none":
            total += norm.logcdf((road - max(used)) / 0.03)
        elif one.locked == "front":
            total += norm.logcdf((used[0] - used[1]) / 0.03) + norm.logcdf((used[0] - road) / 0.03)
    return total


def test_sampling_says_the_same() -> None:
    """Affine-invariant walkers, Goodman and Weare 2010 (from memory), on the rule written out."""
    build = demo("roadster")
    stops = STOPS[:3]
    known = prior(build)
    chance = np.random.default_rng(5)
    walkers = np.array([1.0, 1.0, 1.1]) + 0.03 * chance.standard_normal((24, 3))
    levels = np.array([log_density(build, known, stops, x) for x in walkers])
    kept = []
    for turn in range(56):
        for half in (slice(0, 12), slice(12, 24)):
            others = walkers[12:] if half.start == 0 else walkers[:12]
            z = np.square(chance.random(12) + 1.0) / 2.0
            partners = others[chance.integers(0, 12, 12)]
            tried = partners + z[:, None] * (walkers[half] - partners)
            found = np.array([log_density(build, known, stops, x) for x in tried])
            take = np.log(chance.random(12)) < 2.0 * np.log(z) + found - levels[half]
            walkers[half] = np.where(take[:, None], tried, walkers[half])
            levels[half] = np.where(take, found, levels[half])
        if turn >= 26:
            kept.append(walkers.copy())
    drawn = np.concatenate(kept)
    told = posterior(build, stops)
    (road, _) = summed_up(*told.roads[1.1])
    means = np.array([told.of_front[0], told.of_rear[0], road])
    assert drawn.mean(axis=0) == pytest.approx(means, abs=0.015)
    spread = (told.of_front[1][1] - told.of_front[1][0]) / 3.92
    assert drawn[:, 0].std() == pytest.approx(spread, rel=0.35)


def test_a_stop_of_the_test_road_says_that_the_brakes_are_as_reckoned() -> None:
    """Wheels turn there as well: what they take is counted once, and not as weak brakes."""
    build = demo("roadster")
    made, stops = system(build), []
    for effort in (120.0, 160.0, 200.0, 220.0):
        [went] = drives([trial(build, made, 0, 1.1, 28.0, hold(effort))])
        assert went.mean_deceleration is not None
        stops.append(stop(setting={TURNS: 3.5}, deceleration=round(went.mean_deceleration, 4),
                          effort=f"{effort} N", locked="none"))  # fmt: skip
    told = posterior(edited(build, "valves.rear[0].turns", 3.5), tuple(stops))
    whole = [0.7 * told.of_front[0] + 0.3 * told.of_rear[0]]
    assert whole == pytest.approx([1.0], abs=0.02)


@pytest.mark.parametrize("planted", [(1.06, 0.98), (0.95, 1.03)])
def test_what_was_planted_is_found_within_its_limits(planted: tuple[float, float]) -> None:
    build = demo("roadster")
    made = scaled(system(build), *planted)
    standing = made.case(0)
    # What two wheels of 1.2 kg·m² an axle take of a stop
    weight = float(standing.weight)
    turning = sum(2.4 * G / weight / float(end.rolling_radius) ** 2 for end in made.ends)
    chance = np.random.default_rng(2)
    stops = []
    for effort in (120.0, 150.0, 180.0, 200.0, 220.0, 230.0):
        front, rear = axle_forces(made, pushrod_force(made, effort), standing)
        z = float((front + rear) / standing.weight) / (1.0 + turning) + chance.normal(0.0, 0.01)
        stops.append(stop(setting={TURNS: 3.5}, deceleration=z, effort=f"{effort} N",
                          locked="none"))  # fmt: skip
    told = posterior(build, tuple(stops))
    together = told.of_front[0] + told.of_rear[0]
    assert told.of_front[1][0] < planted[0] < told.of_front[1][1]
    assert told.of_rear[1][0] < planted[1] < told.of_rear[1][1]
    assert together == pytest.approx(sum(planted), abs=0.06)


def test_who_locked_moves_the_axles_against_each_other() -> None:
    """Common practice: a rear that locks first does more than it was reckoned to."""
    build = edited(demo("roadster"), TURNS, 3.5)
    made = system(build)
    lock = first_lock(made, made.case(0), np.array([1.1]))
    effort = f"{float(lock.effort[0]):.1f} N"
    told = {
        who: posterior(build, (stop(setting={TURNS: 3.5}, effort=effort, locked=who),))
        for who in ("front", "rear")
    }
    ratio = {who: one.of_rear[0] / one.of_front[0] for who, one in told.items()}
    assert ratio["rear"] > 1.0 > ratio["front"]
    assert told["rear"].of_rear[0] > told["front"].of_rear[0] + 0.02


def test_a_distance_is_a_deceleration_by_kinematics() -> None:
    """z = v²/(2 g (s − v t)): 20 m/s in 30 m, of which 3 m before the brakes act."""
    one = stop(speed="20 m/s", distance="30 m", distance_error="1 m", locked="none")
    found = deceleration_of(one, 0.15)
    assert found is not None
    assert found[0] == pytest.approx(400.0 / (2.0 * G * 27.0))
    assert found[1] == pytest.approx(found[0] / 2.0 / 27.0)
    assert deceleration_of(stop(speed="20 m/s", distance="2 m", locked="none"), 0.15) is None
    assert deceleration_of(stop(deceleration=0.7), 0.15) == (0.7, 0.03)


@pytest.mark.parametrize(
    ("given", "words"),
    [
        ({"counts": False}, "by hand"),
        ({"load_case": "Circus"}, "Circus"),
        ({"setting": {}, "locked": "front"}, "setting"),
        ({"deceleration": 0.7}, "neither foot nor who"),
        ({"effort": "200 N"}, "neither deceleration"),
    ],
)
def test_a_stop_that_says_nothing_is_left_out_in_words(given: dict[str, Any], words: str) -> None:
    build = demo("roadster")
    one = stop(**given)
    assert words in (why_not_counted(build, one) or "")
    told = posterior(build, (one,))
    assert told.counted == 0
    assert told.left_out[0].startswith("Stop 1: ")
    nothing = posterior(build, ())
    assert told.weights == pytest.approx(nothing.weights)


def test_before_any_stop_it_says_what_the_evidence_says() -> None:
    build = edited(demo("roadster"), "evidence", {
        "front.brake.pad_friction": {"state": "measured", "spread": "20 %"},
    })  # fmt: skip
    told = posterior(build, ())
    low, high = told.of_front[1]
    assert (high - low) / 2.0 == pytest.approx(0.2, rel=0.15)  # 20 % is two standard deviations


def test_a_build_without_anything_to_set_is_judged_all_the_same() -> None:
    build = bed("sprint")
    case = build.vehicle.load_cases[0].name
    one = stop(load_case=case, setting={}, surface=0.9, deceleration=0.5, effort="200 N",
               locked="none")  # fmt: skip
    assert posterior(build, (one,)).counted == 1


def test_draws_are_spread_as_the_posterior_is() -> None:
    told = posterior(demo("roadster"), STOPS)
    front, rear = told.draws(20_000)
    assert front.mean() == pytest.approx(told.of_front[0], abs=0.003)
    assert np.quantile(rear, (0.025, 0.975)) == pytest.approx(told.of_rear[1], abs=0.006)
