"""Which change did it: parts that add up, do not depend on the order, and are none for nothing."""

import itertools
import math
from datetime import datetime
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from urgens.document import Build, with_changes
from urgens.document.edits.past import as_of, with_history
from urgens.solve import solve
from urgens.studies.attribution import FIGURES, attributed
from urgens.studies.mixtures import Mixtures, OneChange, mixtures, of_figures, of_history
from urgens.studies.unlimited import unlimited

CHANGES: dict[str, Any] = {
    "front.brake.pad_friction": 0.45, "pedal.pivot_to_pushrod": "2.6 in", "master.bore": "1-1/8 in",
    "rear.tyre.rolling_radius": "300 mm", "valves.rear[0].knee": "500 psi",
    "vehicle.load_cases[0].cg_height": "700 mm", "targets.deceleration": 0.6,
}  # fmt: skip


def changed(paths: Any) -> Build:
    return with_changes(bed("bakery"), {path: CHANGES[path] for path in paths})


def value(build: Build, name: str) -> float:
    return float(getattr(unlimited(build), name)[0])


def by_orders(found: Mixtures, name: str) -> list[float]:
    """Each change's mean marginal effect, order after order: Shapley's own definition."""
    count = len(found.changes)
    parts = [0.0] * count
    for order in itertools.permutations(range(count)):
        taken: list[int] = []
        before = value(found.build(taken), name)
        for place in order:
            taken.append(place)
            now = value(found.build(taken), name)
            parts[place] += (now - before) / math.factorial(count)
            before = now
    return parts


@settings(max_examples=12)
@given(st.sets(st.sampled_from(sorted(CHANGES)), min_size=1, max_size=6))
def test_parts_add_up_to_the_whole(paths: set[str]) -> None:
    before, after = bed("bakery"), changed(paths)
    found = attributed(of_figures(before, after))

    assert found is not None
    assert found.exact
    for name in FIGURES:
        whole = value(after, name) - value(before, name)
        parts = [one.parts[name] for one in found.changes]
        assert math.fsum(p for p in parts if p is not None) == pytest.approx(whole, abs=1e-9)


def test_parts_are_those_of_every_order_by_hand() -> None:
    paths = ["front.brake.pad_friction", "pedal.pivot_to_pushrod", "rear.tyre.rolling_radius"]
    between = of_figures(bed("bakery"), changed(paths))
    found = attributed(between)

    assert found is not None
    for name in FIGURES:
        parts = [one.parts[name] for one in found.changes]
        assert parts == pytest.approx(by_orders(between, name), rel=1e-7, abs=1e-9)


def test_of_two_changes_each_is_half_of_its_effect_first_and_last() -> None:
    """Source: Shapley with two players (from memory)."""
    paths = ["front.brake.pad_friction", "master.bore"]
    both, (one, other) = changed(paths), (changed([path]) for path in paths)
    found = attributed(of_figures(bed("bakery"), both))

    assert found is not None
    none = value(bed("bakery"), "effort")
    first = value(one, "effort") - none
    last = value(both, "effort") - value(other, "effort")
    assert found.changes[0].parts["effort"] == pytest.approx((first + last) / 2, rel=1e-7)


def test_the_order_in_which_changes_are_told_does_not_count() -> None:
    before, after = bed("bakery"), changed(CHANGES)
    told = of_figures(before, after).changes
    one, other = (attributed(mixtures(before, after, way)) for way in (told, told[::-1]))

    assert one is not None
    assert other is not None
    again = {part.change.what: part.parts for part in other.changes}
    for part in one.changes:
        assert part.parts == pytest.approx(again[part.change.what], abs=1e-9)


def test_what_changes_nothing_has_no_part() -> None:
    """A warning switch's own volume is no part of travel with both halves alive."""
    after = with_changes(changed(["master.bore"]), {"targets.comfortable_effort": "55 lbf"})
    found = attributed(of_figures(bed("bakery"), after))

    assert found is not None
    idle = next(one for one in found.changes if "omfortable" in one.change.what)
    assert idle.parts == pytest.approx(dict.fromkeys(FIGURES, 0.0), abs=1e-9)


def test_figures_laid_over_are_those_of_the_builds_themselves() -> None:
    between = of_figures(bed("bakery"), changed(CHANGES))
    taken = np.random.default_rng(3).random((20, len(between.changes))) < 0.5
    found = between.figures(taken)

    for row, here in enumerate(taken):
        alone = unlimited(between.build(np.flatnonzero(here)))
        for name in FIGURES:
            assert getattr(found, name)[row] == pytest.approx(
                getattr(alone, name)[0], rel=1e-9, nan_ok=True
            )


def test_a_margin_is_the_first_lock_of_the_front_against_a_dense_press() -> None:
    """Pressed step by step: the worst of 1 − rear need over front need, on roads from ice on."""
    build = with_changes(bed("bakery"), {"targets.max_effort": "3000 N"})
    efforts, worst = np.linspace(1.0, 3000.0, 40_001), math.inf
    for case in build.vehicle.load_cases:
        run = solve(build, load_case=case.name, surface=3.0, efforts=efforts).presses
        front, rear = run.front_adhesion, run.rear_adhesion
        inside = (front >= 0.15) & (front <= build.targets.surface)
        worst = min(worst, float((1.0 - rear[inside] / front[inside]).min()))

    assert value(build, "margin") == pytest.approx(worst, abs=2e-3)


def test_effort_and_travel_are_those_of_the_solver() -> None:
    build = bed("bakery")
    solution = solve(build)
    effort = value(build, "effort")

    assert effort == pytest.approx(solution.wanted_effort, rel=1e-9)
    assert value(build, "travel") == pytest.approx(solution.press(effort).pedal_travel, rel=1e-9)


def test_other_kinds_of_parts_are_changes_too_and_what_needs_another_is_one_with_it() -> None:
    """Twin cylinders with two bores in place of one: neither its kind nor its bores stand alone."""
    twin = {"kind": "twin", "front_bore": "3/4 in", "rear_bore": "13/16 in"}
    changes = {"master": twin, "valves.rear": [], "front.brake.pad_friction": 0.5}
    after = with_changes(bed("bakery"), changes)
    between = of_figures(bed("bakery"), after)
    found = attributed(between)

    assert found is not None
    assert len(found.changes) >= 2
    assert any("friction" in one.change.what for one in found.changes)
    whole = value(after, "effort") - value(bed("bakery"), "effort")
    parts = [one.parts["effort"] for one in found.changes]
    assert math.fsum(p for p in parts if p is not None) == pytest.approx(whole, abs=1e-9)


def test_more_changes_than_orders_can_be_tried_are_drawn_with_their_error() -> None:
    before = bed("bakery")
    many = {
        **CHANGES, "rear.brake.shoe_factor": 2.7, "front.tyre.rolling_radius": "330 mm",
        "pedal.efficiency": 0.9, "master.efficiency": 0.93, "front.brake.efficiency": 0.97,
    }  # fmt: skip
    after = with_changes(before, many)
    found = attributed(of_figures(before, after))

    assert found is not None
    assert not found.exact
    assert len(found.changes) > 10
    for name in FIGURES:
        whole = value(after, name) - value(before, name)
        parts = [one.parts[name] for one in found.changes]
        assert math.fsum(p for p in parts if p is not None) == pytest.approx(whole, abs=1e-9)
    assert any(one.errors["effort"] > 0.0 for one in found.changes)


def test_the_change_that_crossed_the_line_is_named() -> None:
    before = with_changes(bed("bakery"), {"valves.rear[0].knee": "250 psi"})
    assert value(before, "margin") > 0.0
    after = with_changes(before, {"valves.rear[0].knee": "1200 psi", "pedal.efficiency": 0.95})
    found = attributed(of_figures(before, after))

    assert found is not None
    assert found.crossed is not None
    assert "nee" in found.changes[found.crossed].change.what


def test_a_figure_without_a_value_says_which_mixture_has_none() -> None:
    """With both circuits limited nothing comes to the wanted deceleration on any foot."""
    before = bed("bakery")
    limits = [{"kind": "limiting", "knee": "5 bar"}]
    after = with_changes(before, {"valves.front": limits, "valves.rear": limits})
    found = attributed(of_figures(before, after))

    assert found is not None
    assert found.after["effort"] is None
    assert all(one.parts["effort"] is None for one in found.changes)
    assert "alone" in found.missing["effort"]


def test_the_history_tells_its_changes_by_their_days() -> None:
    """Changed again on another day: the later value stands over the earlier one."""
    start = bed("bakery")
    first = with_history(start, with_changes(start, {"master.bore": "15/16 in"}),
                         datetime(2026, 5, 1, 10))  # fmt: skip
    second = with_history(
        first,
        with_changes(first, {"master.bore": "1-1/8 in", "front.brake.pad_friction": 0.45}),
        datetime(2026, 5, 9, 10),
    )
    day = datetime(2026, 4, 1)
    between = of_history(second, as_of(second, day).build, day)
    found = attributed(between)

    days = [one.at.day for one in between.changes if one.at is not None]
    assert days == [1, 9]
    assert found is not None
    whole = value(second, "effort") - value(start, "effort")
    parts = [one.parts["effort"] for one in found.changes]
    assert math.fsum(p for p in parts if p is not None) == pytest.approx(whole, abs=1e-9)


def test_chances_add_up_to_the_ends_that_are_drawn_in_full() -> None:
    paths = ["front.brake.pad_friction", "valves.rear[0].knee"]
    found = attributed(of_figures(bed("bakery"), changed(paths)), chance=True)

    assert found is not None
    parts = [one.parts["rear_first_chance"] for one in found.changes]
    ends = found.before["rear_first_chance"], found.after["rear_first_chance"]
    assert ends[0] is not None
    assert ends[1] is not None
    total = math.fsum(p for p in parts if p is not None)
    assert total == pytest.approx(ends[1] - ends[0], abs=1e-9)


def test_it_stops_when_it_is_told_to() -> None:
    between = of_figures(bed("bakery"), changed(["master.bore"]))

    assert attributed(between, chance=True, progress=lambda share: False) is None


def test_a_change_is_what_it_was_called() -> None:
    one = OneChange("softer pads", None, {"front.brake.pad_friction": 0.3})
    found = mixtures(bed("bakery"), with_changes(bed("bakery"), dict(one.values)), [one])

    assert [part.change.what for part in attributed(found).changes] == ["softer pads"]  # type: ignore[union-attr]
