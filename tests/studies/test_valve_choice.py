"""Ways to balance a build: the fit against brute force, the order, and what is printed."""

import json
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings

from tests.builds import bakery_with, bed, bed_text
from tests.strategies import documents
from urgens.cli.main import main
from urgens.document import Build, demo_names, loads, with_changes
from urgens.physics.valve_law import ReducingLaw
from urgens.solve import Presses, every_road, first_lock, press, system
from urgens.studies.balance_verdict import verdict_of
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.twin_way import twin_way
from urgens.studies.valve_choice import candidates

MARGIN = 0.05


Rank = tuple[int, bool, bool, int, float]


def brute_force(build: Build, knees: np.ndarray, slopes: np.ndarray) -> Rank:
    """The best of a fine grid: rear first, short, rear above within reach, missed, efficiency."""
    made, surfaces = system(build), np.array(every_road(build))
    cases = made.cases
    efforts = np.linspace(0.0, build.targets.max_effort.value, 301)
    best: Rank = (10**6, True, True, 10**6, 0.0)
    for slope in slopes:
        law = ReducingLaw(knees[:, None, None], slope)
        lock = first_lock(made.with_rear_valves(law), cases, surfaces)
        wide = made.with_rear_valves(ReducingLaw(knees[:, None], slope))
        presses = [press(wide, efforts, made.case(c), 1.0) for c in range(len(cases[0]))]
        short = presses[0].demand_z[:, -1] < build.targets.deceleration
        above = np.any([_above(one) for one in presses], axis=0)
        for index in range(knees.size):
            rear = int((lock.axle[index] == 2).sum() + lock.lifted[index].sum())
            apart = (lock.front_used[index] - lock.rear_used[index]) / surfaces
            missed = int((apart[np.isfinite(apart)] < MARGIN).sum())
            mean = float(np.nanmean(lock.efficiency[index]))
            rank = (rear, bool(short[index]), bool(above[index]), missed, -mean)
            best = min(best, rank)
    return best


def _above(presses: Presses) -> np.ndarray:
    """Where the rear uses more grip than the front between 0.15 and 0.8 g."""
    inside = (presses.demand_z >= 0.15) & (presses.demand_z <= 0.8)
    return np.asarray((inside & (presses.rear_adhesion > presses.front_adhesion)).any(axis=-1))


@pytest.mark.parametrize(
    ("name", "kind"),
    [
        ("bakery", "reducing"),
        ("roadster", "reducing"),
        ("bakery", "limiting"),
        ("mailvan", "limiting"),
    ],
)
def test_the_fit_is_as_good_as_a_brute_force_grid(name: str, kind: str) -> None:
    """Knees from 5 to 70 bar by half a bar, slopes from 0.2 to 0.6 by 0.02; 0 of a limiting one."""
    build = bed(name)
    knees = np.arange(5.0, 70.01, 0.5) * 1e5
    slopes = np.array([0.0]) if kind == "limiting" else np.arange(0.2, 0.601, 0.02)
    best = brute_force(with_changes(build, {"valves.rear": []}), knees, slopes)
    (found,) = [one for one in candidates(build, sure=False) if one.kind == kind]
    verdict = found.verdict

    assert len(verdict.rear_first) == best[0]
    assert ("deceleration" in verdict.out_of_reach) is best[1]
    assert (not verdict.rear_below, verdict.missed) == (best[2], best[3])
    assert verdict.mean_efficiency >= -best[4] - 2e-3


@pytest.mark.parametrize("name", demo_names())
def test_what_a_candidate_says_is_what_its_build_does(name: str) -> None:
    build = bed(name)
    found = candidates(build)
    assert len(found) > 1
    for one in found:
        assert verdict_of(with_changes(build, one.fitted.changes)) == one.verdict
        knee = one.fitted.knee
        if knee is not None:
            assert 4.9e5 <= knee <= 70.1e5
        if one.fitted.bar_offset is not None:
            assert abs(one.fitted.bar_offset) <= build.master.bar_length.value / 4 + 1e-9  # type: ignore[union-attr]


@settings(max_examples=12)
@given(documents())
def test_no_way_with_the_rear_first_stands_before_one_without(document: dict[str, Any]) -> None:
    build = loads(json.dumps(document))
    found = candidates(build, sure=False)
    rear = [len(one.verdict.rear_first) > 0 for one in found]

    assert rear == sorted(rear)
    kinds = {one.kind for one in found}
    assert {"none", "reducing", "limiting", "pistons"} <= kinds
    assert ("bar" in kinds) == ("bores" in kinds) == (build.master.kind == "twin")


def test_no_valve_stands_first_where_it_is_as_good() -> None:
    """Common practice: not every car needs one; the drag sprint's rear tyres make it pointless."""
    assert candidates(bed("sprint"), sure=False)[0].kind == "none"


def test_of_ways_that_are_as_good_the_one_with_fewest_parts_stands_first() -> None:
    found = candidates(bed("roadster"))
    now = verdict_of(bed("roadster"))
    best = found[0]
    alike = [one for one in found if one.order(now)[:-1] == best.order(now)[:-1]]
    most = min(one.order(now)[-1] for one in alike)  # negative: the more the better
    near = [one for one in alike if one.order(now)[-1] <= most + 0.01]
    assert len(near) > 1
    assert best.to_take[0].parts == min(one.to_take[0].parts for one in near)


@pytest.mark.parametrize("name", ["bakery", "library"])
def test_the_first_is_sure_enough_where_any_is(name: str) -> None:
    """At most 5 of 100, but for what is lost; each drawn by an own loop, draw by draw."""
    found = candidates(bed(name))
    assert found[0].chance is not None
    assert found[0].chance <= 0.05
    assert not found[0].verdict.rear_first
    free = next(one for one in candidates(bed(name), sure=False) if one.kind == found[0].kind)
    (chance,) = rear_first_chances([with_changes(bed(name), free.to_take[0].changes)])
    assert chance > 0.05  # what it gives up efficiency for
    assert free.verdict.mean_efficiency > found[0].verdict.mean_efficiency


def test_a_larger_margin_costs_rear_braking() -> None:
    near, far = (
        next(
            one
            for one in candidates(bed("bakery"), margin=margin, sure=False)
            if one.kind == "reducing"
        )
        for margin in (0.0, 0.15)
    )

    assert near.verdict.mean_efficiency > far.verdict.mean_efficiency


def test_one_load_case_needs_no_load_sensing() -> None:
    case = {"name": "Empty", "front_axle": "2250 lb", "rear_axle": "1750 lb", "cg_height": "27 in"}
    found = candidates(bakery_with({"vehicle.load_cases": [case]}))

    assert "load-sensing" not in {one.kind for one in found}


# --- on the command line ---


def test_ways_are_printed_as_the_contract_says(tmp_path: Any, capsys: Any) -> None:
    path = tmp_path / "hill.urgens.json"
    path.write_text(bed_text("roadster"), encoding="utf-8")
    assert main(["valves", str(path), "--surface", "0.4", "--surface", "1.0"]) == 0
    printed = json.loads(capsys.readouterr().out)

    assert printed["recommended"] == 0
    wanted = {
        "kind", "knee", "slope", "bar_offset", "rear_first", "mean_efficiency",
        "worst_efficiency", "regulation", "sold", "lost", "changes", "why",
    }  # fmt: skip
    assert all(wanted <= set(row) for row in printed["candidates"])
    (none,) = [row for row in printed["candidates"] if row["kind"] == "none"]
    assert none["knee"] is None
    assert none["rear_first"][0] == {"load_case": "Driver, half tank", "surface": 1.0}
    assert set(none["regulation"]) == {"rear_below_front", "adhesion_limit"}
    (bar,) = [row for row in printed["candidates"] if row["kind"] == "bar"]
    assert abs(bar["bar_offset"]) <= 0.062 / 4


@pytest.mark.parametrize("given_", [["--margin", "2"], ["--surface", "0"], ["--setup", "Nobody"]])
def test_a_wrong_question_is_answered_in_words(
    tmp_path: Any, capsys: Any, given_: list[str]
) -> None:
    path = tmp_path / "hill.urgens.json"
    path.write_text(bed_text("roadster"), encoding="utf-8")
    try:
        code = main(["valves", str(path), *given_])
    except SystemExit as ended:
        code = int(str(ended.code))

    assert code == 2
    assert capsys.readouterr().err


def test_twin_cylinders_share_the_foot_and_are_fitted_like_a_bar() -> None:
    """Half the force on half the area, as near as bores are sold: the pressure stays."""
    build = bed("bakery")
    way = twin_way(build, MARGIN)
    assert way is not None
    made = with_changes(build, way.fitted.changes)
    assert made.master.kind == "twin"
    assert made.split == "front-rear"
    front, rear = (made.master.front_bore.value, made.master.rear_bore.value)  # type: ignore[union-attr]
    assert front == rear == pytest.approx(build.master.bore.value / 2**0.5, rel=0.06)  # type: ignore[union-attr]
    assert verdict_of(made) == way.verdict
    assert twin_way(bed("roadster"), MARGIN) is None
