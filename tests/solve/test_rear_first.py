"""Every road at once: the roads with the rear first, against a dense scan done another way."""

import json
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings

from tests.builds import bed
from tests.solve import second_way
from tests.strategies import documents
from urgens.document import Build, loads, with_changes
from urgens.guidance import findings
from urgens.solve import solve
from urgens.solve.first_rise import AxleName
from urgens.solve.lock import first_lock
from urgens.solve.rear_first import (
    RearFirstSpan,
    judged_roads,
    rear_first_anywhere,
    rear_first_spans,
    swept,
)
from urgens.solve.system import system
from urgens.studies.balance_verdict import verdict_of
from urgens.studies.vehicle_changes import outcome

ICE = 0.15
SCANNED = 901  # efforts of the second way
FAR = 10.0  # of a coefficient: beyond any road
EVEN = 1e-6  # of a coefficient: both axles need the same
CLOSE = 2e-3  # of a coefficient: ends of a span are as near as the scan is


def spans(build: Build) -> tuple[RearFirstSpan, ...]:
    made = system(build)
    return rear_first_spans(made, made.standing, ICE, build.targets.surface)


def inside(found: tuple[RearFirstSpan, ...], case: int, road: float, by: float) -> bool:
    """Whether a road is in a span of a load case that is wider by so much at either end."""
    return any(one.case == case and one.low - by <= road <= one.high + by for one in found)


@settings(max_examples=10)
@given(documents())
def test_spans_are_those_of_a_dense_scan_of_scalar_equations(document: dict[str, Any]) -> None:
    """Force and moment balance at each effort (Gillespie, from memory); the first need of a road.

    The rear is first on a road where the smallest effort at which an axle needs so much of it is
    the rear's.
    """
    build = loads(json.dumps(document))
    found, target = spans(build), build.targets.surface
    for case in range(len(build.vehicle.load_cases)):
        closing = second_way.rolling_closing(build, case)
        efforts = np.linspace(0.0, build.targets.max_effort.value, SCANNED)
        needs = np.array([_needs(build, case, float(e), closing) for e in efforts])
        most = np.maximum.accumulate(needs.max(axis=1))
        for road in np.linspace(ICE, target, 101):
            if most[-1] < road:
                continue
            first = int(np.argmax(most >= road))
            front, rear = needs[first]
            told = inside(found, case, road, 0.0)
            if abs(rear - front) > EVEN and told != (
                rear > front
            ):  # then it is as near an end as the scan is
                step = float(most[first] - most[max(first - 1, 0)]) + CLOSE
                outside = road < ICE + step or road > target - step
                if outside and abs(rear - front) < step:
                    continue  # it changes beyond the roads that are asked about
                edge = {inside(found, case, road, by) for by in (step, 0.0, -step)}
                assert len(edge) > 1, (case, road, front, rear, found)


def _needs(build: Build, case: int, effort: float, closing: float) -> tuple[float, float]:
    front, rear, z = second_way.axle_forces(build, case, effort, 0.0, closing)
    on_front, on_rear = second_way.loads(build, case, z, 0.0)
    grips = build.front.tyre.grip, build.rear.tyre.grip
    rear_need = np.inf if on_rear <= 0 else rear / on_rear / grips[1]
    return front / on_front / grips[0], float(rear_need)


@pytest.mark.parametrize("name", ["bakery", "library", "roadster", "sprint", "mailvan"])
def test_spans_are_the_first_locks_of_two_thousand_roads(name: str) -> None:
    build = bed(name)
    made, found = system(build), spans(build)
    roads = np.linspace(ICE, build.targets.surface, 2001)
    lock = first_lock(made, made.cases, roads)
    for (case, road), axle in np.ndenumerate(lock.axle):
        rear = axle == AxleName.REAR or lock.lifted[case, road]
        ends = [end for one in found if one.case == case for end in (one.low, one.high)]
        if all(abs(roads[road] - end) > 1e-6 for end in ends):
            assert inside(found, case, float(roads[road]), 0.0) == rear


@pytest.mark.parametrize("name", ["bakery", "library", "roadster", "sprint", "mailvan"])
@pytest.mark.parametrize("valves", [[], [{"kind": "limiting", "knee": "20 bar"}]])
def test_one_road_alone_is_asked_as_well(name: str, valves: list[dict[str, str]]) -> None:
    """As with `--surface 0.5`, or a target of ice; beside the first lock there."""
    build = with_changes(bed(name), {"valves.rear": valves})
    made = system(build)
    for road in (0.12, 0.15, 0.3, 0.5, 0.7, 0.8):
        lock = first_lock(made, made.standing, np.array(road))
        wanted = (lock.axle == AxleName.REAR) | lock.lifted
        assert list(rear_first_anywhere(made, made.standing, road, road)) == list(wanted)


def narrow() -> Build:
    """A van whose rear is first from 0.331 to 0.337, between two roads that are scanned."""
    valve = {"kind": "reducing", "knee": "23.284 bar", "slope": 0.2}
    return with_changes(bed("library"), {"valves.rear": [valve]})


def test_a_road_between_two_that_are_scanned_is_judged_and_told_everywhere() -> None:
    build = narrow()
    (one,) = spans(build)
    assert 0.30 < one.low < one.high < 0.35
    road = (one.low + one.high) / 2
    assert road in judged_roads(build, system(build))
    solution = solve(build)
    assert solution.lock.axle[one.case, solution.surfaces.index(road)] == AxleName.REAR
    assert road in [solution.surfaces[at] for at in solution.shown]
    assert {"rear-locks-first"} == {f.code for f in findings(solution) if f.severity == 0}
    assert verdict_of(build).rear_first == ((one.case, road),)
    assert outcome(build).rear_first == 1


def test_anywhere_is_whether_there_is_a_span_of_systems_side_by_side() -> None:
    build = bed("bakery")
    made, slopes = system(build), np.linspace(0.0, 0.6, 13)
    told = []
    for slope in slopes:
        one = with_changes(build, {"valves.rear[0].slope": round(float(slope), 3)})
        cases = range(len(build.vehicle.load_cases))
        told.append([any(span.case == case for span in spans(one)) for case in cases])
    rear = replace_slope(build, slopes)
    found = rear_first_anywhere(rear, made.cases, ICE, build.targets.surface)
    assert np.array_equal(found[..., 0], np.array(told))
    assert np.any(told)
    assert not np.all(told)


def replace_slope(build: Build, slopes: np.ndarray) -> Any:
    return system(build, over={"valves.rear[0].slope": slopes[:, None, None]})


@settings(max_examples=8)
@given(documents())
def test_the_rear_above_the_front_is_that_of_a_dense_scan(document: dict[str, Any]) -> None:
    """From 0.15 to 0.8 g (UN R13-H Annex 5, from memory), as far as the foot reaches."""
    build = loads(json.dumps(document))
    made = system(build)
    found = swept(made, made.standing).rear_above()
    for case in range(len(build.vehicle.load_cases)):
        closing = second_way.rolling_closing(build, case)
        efforts = np.linspace(0.0, build.targets.max_effort.value, SCANNED)
        needs = np.array([_needs(build, case, float(e), closing) for e in efforts])
        z = np.array([second_way.axle_forces(build, case, float(e), 0.0, closing)[2]
                      for e in efforts])  # fmt: skip
        lead = np.minimum(needs[:, 1] - needs[:, 0], FAR)  # a rear that lifts needs any road
        asked = (z >= ICE) & (z <= 0.8)
        # As far as it goes between two that are scanned, at a bend and at both ends as well.
        step = float(np.max(np.abs(np.diff(lead[lead < FAR])), initial=0.0)) + CLOSE
        most = float(np.max(lead[asked], initial=-np.inf))
        if abs(most) > step:
            assert bool(found[case]) == (most > 0)
