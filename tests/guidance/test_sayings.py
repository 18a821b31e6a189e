"""Sayings: each verdict flips between two builds, chosen by hand calculation."""

from typing import Any

import pytest

from tests.builds import bakery_with, bed
from urgens.document import Build, demo
from urgens.guidance.sayings import SayingVerdict, known, tried
from urgens.solve import solve

TRUE, NOT, WITHIN, SILENT = (
    SayingVerdict.TRUE, SayingVerdict.NOT, SayingVerdict.WITHIN, SayingVerdict.NOT_COMPUTED,
)  # fmt: skip
DISCS = {"kind": "disc", "caliper": "sliding", "piston_diameters": ["40 mm"], "pad_friction": 0.38,
         "effective_radius": "110 mm"}  # fmt: skip
PLAIN = {"booster": {"kind": "none"}, "valves.front": [], "valves.rear": []}
SHUT = {"kind": "metering", "close": "10 psi", "open": "130 psi"}
LEVER = {
    "kind": "load-sensing", "slope": 0.3, "follows": "static",
    "lever": {"arm": "150 mm", "piston_arm": "25 mm", "piston_diameter": "15 mm",
              "spring_rate": "4 N/mm", "preload": "150 N", "at_load": "800 kg",
              "suspension_rate": "50 N/mm", "bump": "80 mm", "droop": "80 mm"},
}  # fmt: skip


def said(build: Build, name: str) -> Any:
    return next(one.answer for one in tried(solve(build)) if one.id == name)


# By hand, beside each pair why it flips. The bakery: bore 1-1/8 in, ratio 4, travel 4.6 in, 60 lbf;
# pressure is foot × ratio over the bore's area, travel the fluid taken over it times the ratio.
FLIPS: list[tuple[str, dict[str, Any], SayingVerdict, dict[str, Any], SayingVerdict]] = [
    # the front takes 6.2 ml at 43 bar (2.1 ml of clearance, 2 × 0.28 ml/MPa, hoses, the rest):
    # 9.6 mm and 1.5 mm to the port; a bore a quarter larger in area makes 34 bar and asks for
    # 8.1 mm in all: a stroke of 10 mm is between
    ("biggest-bore", {}, NOT, {"master.stroke": "20 mm"}, TRUE),
    # a bore a quarter smaller in area takes a third more stroke
    ("smaller-bore", {}, WITHIN, {"pedal.travel_available": "62 mm"}, NOT),
    # the wanted 0.7 g is asked of a driver of 500 N, or of one who has hardly enough
    ("bore-cures-soft", {}, WITHIN, {"targets.max_effort": "270 N"}, NOT),
    ("more-ratio", {}, WITHIN, {"pedal.travel_available": "62 mm"}, NOT),
    # 2 ml over 6.4 cm² times 4 are 12 mm; over a bore of 2 in and ratio 2 they are 2 mm
    ("firm-no-air", {}, WITHIN, {"master.bore": "2 in", "pedal.pivot_to_pushrod": "6-3/4 in"}, NOT),
    # inches typed, or newtons
    ("pressure-area-psi", {}, TRUE, {"targets.comfortable_effort": "270 N"}, WITHIN),
    ("units", {}, NOT, {"booster": {"kind": "none"}}, NOT),
    ("silicone", {}, NOT, {"vehicle.use": "restoration"}, WITHIN),
    # one that locks, and one whose hardest foot of 60 N cannot
    ("drilled", {}, NOT, {"targets.max_effort": "60 N", "targets.comfortable_effort": "50 N"},
     SILENT),
    ("four-discs", {}, NOT, {"targets.max_effort": "60 N", "targets.comfortable_effort": "50 N"},
     WITHIN),
    ("mostly-front", {}, TRUE, {"front.brake.pad_friction": 0.1, "valves.rear": []}, NOT),
    # springs stand in no formula of load transfer; a lever reads them
    ("stiff-springs", {}, NOT, {"valves.rear": [LEVER]}, WITHIN),
    # the metering valve waits for pressure; a reducing one alone only takes off
    ("slows-fluid", {}, WITHIN, {"valves.front": []}, NOT),
    # knee 375 psi, slope 0.3: rear = 2/3 of the front at 375 × 0.7 / (2/3 − 0.3) = 716 psi, which
    # the driver reaches; a slope of 0.9 never gets there
    ("sixty-forty", {}, WITHIN,
     {"valves.rear": [{"kind": "reducing", "knee": "375 psi", "slope": 0.9}]}, NOT),
    # C* 4.5 on 7/8 in and 11 in, against 2-15/16 in and 0.38: 0.6; a C* of 75 would be ten times it
    ("discs-ten-times", {}, NOT, {"rear.brake.shoe_factor": 75.0}, TRUE),
    # a rear disc that does a third of the front's, and one that does twice as much
    ("conversion-needs-valve", {**PLAIN, "rear.brake": {**DISCS, "piston_diameters": ["25 mm"]}},
     NOT, {**PLAIN, "rear.brake": {**DISCS, "piston_diameters": ["70 mm"]}}, TRUE),
    ("wide-tyres", {**PLAIN, "rear.brake": {**DISCS, "piston_diameters": ["25 mm"]}},
     TRUE, {**PLAIN, "rear.brake": {**DISCS, "piston_diameters": ["70 mm"]}}, NOT),
    # 20 bar are passed at 60 lbf with a booster; at 15 N they are not
    ("valve-in-front", {"valves.front": []}, NOT,
     {"valves.front": [], "rear.brake.shoe_factor": 0.5, "targets.comfortable_effort": "15 N"},
     WITHIN),
    # the bakery's knee is too high for its empty bed, a second valve makes up for it; a knee of
    # 10 bar is low enough alone
    ("two-valves", {}, WITHIN,
     {"valves.rear": [{"kind": "reducing", "knee": "10 bar", "slope": 0.1}]}, NOT),
    # shoes that begin at 70 psi, or discs behind that begin at once
    ("metering-dive", {}, WITHIN, {"rear.brake": DISCS}, NOT),
    # the front locks at nearly all that the road gives, or a front four times as strong at half
    ("front-never-first", {}, NOT,
     {"front.brake.pad_friction": 0.55, "rear.brake.shoe_factor": 0.4}, WITHIN),
]  # fmt: skip


@pytest.mark.parametrize(
    ("name", "first", "says", "other", "then"), FLIPS, ids=lambda v: str(v)[:24]
)
def test_a_verdict_flips_between_two_builds(
    name: str,
    first: dict[str, Any],
    says: SayingVerdict,
    other: dict[str, Any],
    then: SayingVerdict,
) -> None:
    assert said(bakery_with(first), name).verdict is says
    assert said(bakery_with(other), name).verdict is then


def test_lowering_helps_who_locks_behind_and_hurts_who_locks_in_front() -> None:
    """By hand: less load moves forward, so a front at its limit locks sooner, a rear later."""
    assert said(demo("roadster"), "lower-car").verdict is NOT
    assert said(bed("library"), "lower-car").verdict is TRUE


def test_all_of_the_trade_s_are_there_and_answered() -> None:
    assert len(known()) >= 21
    for build in (bed("sprint"), demo("tractor"), demo("roadster")):
        for one in tried(solve(build)):
            assert one.answer.here
            assert one.answer.limit or one.answer.verdict is SayingVerdict.NOT_COMPUTED
            assert len(one.answer.bars) in (0, 2)
            assert all(0.0 <= bar.length <= 1.0 for bar in one.answer.bars)
