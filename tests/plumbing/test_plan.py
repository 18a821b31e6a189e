"""The plan of a layout: nothing on anything else, lines at right angles from port to port."""

from itertools import combinations, pairwise
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import BEDS, bed
from tests.plumbing.layouts import DAMAGED, sound, with_layout
from urgens.document import Build, changed, demo, demo_names, edited, with_changes
from urgens.document.circuits import Circuits
from urgens.document.layout.layout import Plumbing
from urgens.guidance.advice.layouts import alternatives
from urgens.plumbing.draft import drafted
from urgens.plumbing.drawing import plan_of
from urgens.plumbing.edits import drawn, section_of
from urgens.plumbing.plan_shapes import LayoutPlan, PlanPart, PlanRun

# Crossings in a drawing of each demo's usual layout made by hand, with its parts where they are on
# the vehicle: each can be drawn without one.
BY_HAND = {"library": 0, "roadster": 0, "tender": 0, "tractor": 0}


def planned(build: Build) -> tuple[Circuits, LayoutPlan]:
    if build.plumbing is None:
        build = edited(build, "plumbing", drafted(build))
    assert build.plumbing is not None
    circuits = Circuits(build, build.plumbing)
    return circuits, plan_of(circuits)


def moved_to(plumbing: Plumbing, where: dict[str, tuple[float, float]]) -> Build:
    return with_changes(with_layout(section_of(plumbing)), drawn(plumbing, where))


def spots(run: PlanRun) -> set[tuple[int, int]]:
    """All spots of the grid that a line goes over."""
    found = set()
    for (x1, y1), (x2, y2) in pairwise(run.corners):
        assert x1 == x2 or y1 == y2
        steps = max(abs(x2 - x1), abs(y2 - y1))
        found |= {(x1 + (x2 - x1) * i // steps, y1 + (y2 - y1) * i // steps)
                  for i in range(steps + 1)}  # fmt: skip
    return found


def inside(part: PlanPart, spot: tuple[int, int]) -> bool:
    (x, y), (wide, high) = part.at, part.size
    return x <= spot[0] <= x + wide and y <= spot[1] <= y + high


def look_over(circuits: Circuits, plan: LayoutPlan) -> None:
    """No part on another or over the edge; each line from its port to its port, round all parts."""
    for one, other in combinations(plan.parts.values(), 2):
        (x1, y1), (w1, h1), (x2, y2), (w2, h2) = one.at, one.size, other.at, other.size
        apart = x1 + w1 < x2 or x2 + w2 < x1 or y1 + h1 < y2 or y2 + h2 < y1
        assert apart, (one, other)
    for part in plan.parts.values():
        assert 0 <= part.at[0] <= plan.size[0] - part.size[0]
        assert 0 <= part.at[1] <= plan.size[1] - part.size[1]
        assert len({port.at for port in part.ports.values()}) == len(part.ports), part
    for line in circuits.plumbing.lines:
        run = plan.runs[line.id]
        ends = [name.partition(".") for name in (line.start, str(line.to))]
        ports = [plan.parts[part].ports[port] for part, _, port in ends]
        assert (run.corners[0], run.corners[-1]) == tuple(port.at for port in ports)
        between = spots(run) - {port.at for port in ports}
        assert not [p.id for p in plan.parts.values() for spot in between if inside(p, spot)]


@pytest.mark.parametrize("name", demo_names())
def test_a_demos_layout_has_no_more_crossings_than_drawn_by_hand(name: str) -> None:
    circuits, plan = planned(demo(name))
    look_over(circuits, plan)
    assert plan.crossings <= BY_HAND[name]


@pytest.mark.parametrize("name", BEDS)
def test_every_way_to_lay_it_can_be_drawn(name: str) -> None:
    build = bed(name)
    for one in alternatives(build):
        circuits, plan = planned(changed(build, one.change))
        look_over(circuits, plan)
        assert plan.crossings <= 2, one.school.name


@pytest.mark.parametrize("code", DAMAGED)
def test_a_layout_with_a_fault_is_drawn_as_well(code: str) -> None:
    circuits, plan = planned(with_layout(DAMAGED[code]))
    assert set(plan.parts) == set(circuits.parts)
    assert set(plan.runs) == {line.id for line in circuits.plumbing.lines}


def test_wheels_are_at_their_corners_and_the_front_is_on_the_left() -> None:
    _, plan = planned(bed("bakery"))
    across, down = plan.size
    for name, (left, low) in {"fl": (True, True), "fr": (True, False), "rl": (False, True)}.items():
        x, y = plan.parts[name].middle
        assert (x < across / 2) is left
        assert (y > down / 2) is low


def test_a_line_hops_exactly_where_it_goes_over_another() -> None:
    """Two lines between two parts each, set crosswise: one crossing, on the level one."""
    made = sound()
    circuits, plan = planned(with_layout(made))
    where = {"cv": (0.5, 0.5), "mc": (0.5, 0.75), "hfl": (0.12, 0.2), "hfr": (0.12, 0.8)}
    plumbing = circuits.plumbing
    plan = planned(moved_to(plumbing, where))[1]
    crossed = 0
    runs = list(plan.runs.values())
    for one, other in combinations(runs, 2):
        ends = {one.corners[0], one.corners[-1], other.corners[0], other.corners[-1]}
        crossed += len((spots(one) & spots(other)) - ends)
    assert plan.crossings == crossed > 0


@settings(max_examples=25, deadline=None)
@given(st.sampled_from(["cv", "mc", "rt", "hfl", "fl"]), st.floats(0, 0.99), st.floats(0, 0.99))
def test_what_is_drawn_somewhere_is_there_or_as_near_as_there_is_room(
    name: str, x: float, y: float
) -> None:
    circuits, plan = planned(with_layout(sound()))
    across, down = plan.size
    kept = {one: (p.middle[0] / across, p.middle[1] / down) for one, p in plan.parts.items()}
    circuits, moved = planned(moved_to(circuits.plumbing, {**kept, name: (x, y)}))
    look_over(circuits, moved)
    middle = moved.parts[name].middle
    assert abs(middle[0] - x * across) < across / 3
    assert abs(middle[1] - y * down) < down / 3


def test_others_stay_when_one_is_drawn_elsewhere() -> None:
    circuits, plan = planned(with_layout(sound()))
    across, down = plan.size
    kept = {one: (p.middle[0] / across, p.middle[1] / down) for one, p in plan.parts.items()}
    again = planned(moved_to(circuits.plumbing, kept))[1]
    assert {n: p.at for n, p in again.parts.items()} == {n: p.at for n, p in plan.parts.items()}


def crowd(count: int) -> dict[str, Any]:
    """The bakery's layout with unions in all its lines, until there are so many parts."""
    made = sound()
    pipes = [line for line in made["lines"] if not line.get("direct")]
    face = {"thread": "3/8-24", "seat": "inverted"}
    for number in range(count - len(made["parts"])):
        line, name = pipes[number % len(pipes)], f"u{number}"
        made["parts"].append({"id": name, "kind": "union", "ports": {"in": face, "out": face}})
        more = {**line, "id": f"X{number}", "from": f"{name}.out"}
        line["to"] = f"{name}.in"
        made["lines"].append(more)
        pipes.append(more)
    return made


def test_many_parts_have_room_and_stay_in_order() -> None:
    circuits, plan = planned(with_layout(crowd(120)))
    look_over(circuits, plan)
    assert plan.crossings <= 12  # a tenth of what scattered parts have
