"""What the pages of Size and Balance say: each sentence follows the build's own figures."""

import math

import numpy as np
import pytest

from tests.builds import bakery_with, bed
from urgens.document import Build, demo_names, edited
from urgens.document.kinds.valves import VALVES
from urgens.guidance.advice.disagreements import schools
from urgens.guidance.rules.starting_valves import NEW_NAMES, new_valve
from urgens.guidance.words.boosters import booster_words, fit_words, swap_words
from urgens.guidance.words.half_lost import dead_is_primary, lost_halves
from urgens.guidance.words.heat import fluid_words, heat_words
from urgens.guidance.words.pedal_feel import cold_line_words, compared, reservoir_words
from urgens.guidance.words.pushrod_pin import consequences, edge_caution, stands_in, where_to_drill
from urgens.guidance.words.reasons import bore_rows, clamp
from urgens.guidance.words.valves import fitted_words, state
from urgens.quantity import LENGTH, UnitSystem, parse
from urgens.solve import solve
from urgens.studies.heat import heated
from urgens.studies.valve_choice import candidates
from urgens.studies.what_if import SOUND, WhatIf

INCH, METRIC = UnitSystem.INCH, UnitSystem.METRIC
PSI = 6894.757293


# --- the pedal ---


def test_where_to_drill_is_the_lever_law() -> None:
    """b = a / R."""
    assert where_to_drill(bed("bakery"), 6.0) == pytest.approx(13.5 * 0.0254 / 6.0)


@pytest.mark.parametrize(
    ("pin", "words"),
    [
        ("1.5 in", "0.63 in of metal stay"),  # a hole of 3/8 in, the next at 2-1/2 in
        ("2.4 in", "Too near: nothing of metal"),
        ("0.6 in", "Too near: 0.23 in of metal left to the pivot"),
        ("4.5 in", "metal stay to the hole at 3-3/8 in"),
    ],
)
def test_metal_is_kept_between_holes(pin: str, words: str) -> None:
    """Common practice: a hole's width of it."""
    said = edge_caution(bed("bakery"), parse(pin, LENGTH).value, INCH)

    assert words in said
    unknown = edge_caution(bakery_with({"pedal.hole_diameter": None}), 0.04, INCH)
    assert "Give the hole's diameter" in unknown


def test_consequences_follow_the_hole_the_pin_stands_in() -> None:
    build = bed("bakery")
    assert stands_in(build) == 0
    assert consequences(build, INCH) == (
        "The pin stands in the hole it came in: nothing else moves.",
    )
    other = edited(build, "pedal.pivot_to_pushrod", "2-1/2 in")
    assert stands_in(other) == 1
    said = " ".join(consequences(other, INCH))
    assert "brake-light switch" in said
    assert "the pad rests" in said
    hydraulic = edited(other, "brake_light_switch", "hydraulic")
    assert "brake-light switch" not in " ".join(consequences(hydraulic, INCH))
    loose = edited(other, "pedal.rod_length", None)
    assert "give the arms' angles and the rod's length" in " ".join(consequences(loose, INCH))
    short = edited(other, "pedal.rod_length", "0.5 in")
    assert "does not reach" in " ".join(consequences(short, INCH))
    bare = edited(other, "pedal.holes", [])
    assert stands_in(bare) is None
    assert consequences(bare, INCH)[0].startswith("Give the holes")


# --- boosters and cylinders ---


def test_boosters_in_words() -> None:
    whole = booster_words(solve(bed("bakery")), INCH)
    assert whole == ["vacuum booster: helps with up to 502 lbf, runs out at 78 lbf of foot"]
    lost = booster_words(solve(bakery_with({"booster.working": False})), INCH)
    assert lost[0] == "booster lost: only the leg is left"
    weak = booster_words(solve(bakery_with({"booster.vacuum": "12 inHg"})), INCH)
    assert any("a hydraulic booster, or a manual set-up" in said for said in weak)
    none = booster_words(solve(bed("sprint")), INCH)
    assert none[0].startswith("no booster")
    pumped = bakery_with({"booster.vacuum": "12 inHg", "booster.pump": "20 inHg"})
    assert not any("15 inHg" in said for said in booster_words(solve(pumped), INCH))


@pytest.mark.parametrize(
    ("room", "words"),
    [("10-1/4 in", "goes in with 0.75 in across"), ("9 in", "0.50 in across too large")],
)
def test_a_shell_goes_in_or_not(room: str, words: str) -> None:
    assert words in fit_words(bakery_with({"booster.room.diameter": room}), INCH)
    assert fit_words(bed("sprint"), INCH) == ""


def test_a_swapped_cylinder_is_told_by_factor_socket_and_holder() -> None:
    bare = swap_words(bed("sprint"), parse("1-1/8 in", LENGTH))
    assert "0.79 times" in bare
    assert "a longer rod or an insert, and a retainer" in bare
    assert "a retainer keeps the rod in" in bare.lower()
    known = {"master.socket_depth": "1 in", "master.pushrod_length": "5 in"}
    assert "stands 4.00 in out" in swap_words(bakery_with(known), parse("1 in", LENGTH))
    loose = swap_words(
        edited(bed("sprint"), "master.pushrod_held_by", "none"), parse("1 in", LENGTH)
    )
    assert "fall out" in loose


# --- the feel ---


def test_what_air_does_is_more_travel_at_nearly_the_same_slope() -> None:
    """Air is squeezed early: the pedal sinks, then holds (physics section 5)."""
    found = compared(solve(bed("bakery")), SOUND, WhatIf(air=3e-6), INCH)
    rows = {row.name: row for row in found.rows}

    assert rows["Travel"].sound == "2.81 in"
    assert rows["Travel"].supposed > rows["Travel"].sound
    assert rows["Front's stroke"].sound == rows["Front's stroke"].supposed
    assert rows["Rear's stroke"].sound != rows["Rear's stroke"].supposed
    same = compared(solve(bed("bakery")), SOUND, SOUND, INCH)
    assert all(row.sound == row.supposed for row in same.rows)


def test_chambers_are_called_by_what_they_feed() -> None:
    single = compared(solve(bed("mailvan")), SOUND, SOUND, METRIC)
    diagonal = compared(solve(bakery_with({"circuits": "diagonal"})), SOUND, SOUND, INCH)

    assert "Stroke used" in {row.name for row in single.rows}
    assert "Primary stroke" in {row.name for row in diagonal.rows}


def test_reservoirs_run_dry_or_hold() -> None:
    assert "it holds them" in reservoir_words(bed("bakery"))
    assert "runs dry" in reservoir_words(bakery_with({"master.reservoir_volume": "60 ml"}))
    unknown = bakery_with({"master.reservoir_volume": None})
    assert "is not measured" in reservoir_words(unknown)
    assert "No pad's thickness" in reservoir_words(bed("mailvan"))


def test_a_cold_line_is_an_estimate_with_its_assumptions() -> None:
    solution = solve(bed("sprint"))
    said = cold_line_words(solution, 1.0, 6e-3, 5.0, INCH)

    assert "fluid not given" in said
    assert "once the pedal is held nothing is lost" in said


# --- one half lost ---


def test_the_order_in_which_pistons_bottom_follows_what_feeds_what() -> None:
    solution = solve(bed("bakery"))
    front, rear = lost_halves(solution, INCH)
    assert dead_is_primary(solution, 0)
    assert "until it touches the other" in front.steps[0]
    assert "to the end of the bore" in rear.steps[0]
    swapped = solve(bakery_with({"master.primary_feeds": "rear"}))
    front, rear = lost_halves(swapped, INCH)
    assert not dead_is_primary(swapped, 0)
    assert "to the end of the bore" in front.steps[0]
    assert "until it touches the other" in rear.steps[0]


def test_halves_of_other_layouts() -> None:
    diagonal = lost_halves(solve(bakery_with({"circuits": "diagonal"})), INCH)
    assert [half.name for half in diagonal] == ["Primary circuit lost", "Secondary circuit lost"]
    twin = lost_halves(solve(bed("roadster")), METRIC)
    assert all("bar tips" in half.steps[0] for half in twin)
    stopped = solve(edited(bed("roadster"), "master.bar_max_angle", "9 deg"))
    assert "meets its stop at 9 deg" in lost_halves(stopped, METRIC)[0].steps[0]
    assert lost_halves(solve(bed("mailvan")), METRIC) == ()


# --- heat ---


def test_heat_is_told_as_an_estimate() -> None:
    solution = solve(bed("bakery"))
    found = {axle: heated(solution, axle) for axle in ("front", "rear")}
    said = heat_words(solution, found, INCH)

    assert said[0].endswith("an estimate")
    assert "assumed" in said[1]
    assert "FMVSS 116" in fluid_words(solution.build, found, INCH)
    nothing = {"front": None, "rear": None}
    assert "weigh" in heat_words(solution, nothing, INCH)[0]
    assert fluid_words(solution.build, nothing, INCH) == ""
    hot = solve(bakery_with({"heat.front_measured": "900 °F", "front.brake.rotor_mass": "8 lb"}))
    warm = {axle: heated(hot, axle) for axle in ("front", "rear")}
    assert "boils wet" in fluid_words(hot.build, warm, INCH)


# --- reasons and schools ---


@pytest.mark.parametrize("name", demo_names())
def test_a_smaller_bore_gives_more_pressure_and_takes_more_travel(name: str) -> None:
    """Pascal's law; the trade's "biggest bore" pays for its travel with the leg."""
    solution = solve(bed(name))
    bores = [("5/8 in", 0.015875), ("3/4 in", 0.01905), ("1 in", 0.0254)]
    rows = bore_rows(solution, 200.0, bores)
    pressures = [row.pressure for row in rows]
    efforts = [row.effort for row in rows if math.isfinite(row.effort)]

    assert pressures == sorted(pressures, reverse=True)
    assert efforts == sorted(efforts)
    assert sum(row.own for row in rows) == 1
    travels = [row.travel for row in rows]
    assert travels == sorted(travels, reverse=True)


def test_a_clamp_is_pressure_times_area_in_pounds() -> None:
    """Common practice: 4 in² at 700 psi gives 2,800 lbf of clamp, not psi."""
    brake = {
        "kind": "disc", "caliper": "opposed", "piston_diameters": ["2.2567583 in"],
        "pad_friction": 0.4, "effective_radius": "5 in",
    }  # fmt: skip
    changes = {"front.brake": brake, "valves.front": [], "booster": {"kind": "none"}}
    build = bakery_with({**changes, "evidence": {}, "setups": []})
    area = build.master.bore.value**2 * math.pi / 4  # type: ignore[union-attr]
    solution = solve(build, efforts=np.array([700 * PSI * area / 4.0]))
    front, _ = clamp(solution, solution.presses.at(0))

    assert front.force == pytest.approx(2800 * 4.4482216, rel=1e-5)
    assert front.gives == "clamp on each pad"


def here(build: Build, question: str) -> str:
    """What is said of a build to a question, nothing where it is not asked."""
    said = schools(solve(build), candidates(build, sure=False), INCH)
    return next((school.here for school in said if school.question.startswith(question)), "")


@pytest.mark.parametrize("name", demo_names())
def test_schools_are_answered_with_the_builds_own_figures(name: str) -> None:
    said = schools(solve(bed(name)), candidates(bed(name), sure=False), METRIC)

    assert all(school.here.startswith("Here") for school in said)
    assert {"Is a rear valve needed?", "Why one at all?", "Which end should act first?"} < {
        school.question for school in said
    }


def test_load_and_drums_each_have_their_part() -> None:
    """Common practice: duo-servo drums give 25 to 35 % more for a tenth of friction more."""
    assert "none is needed" in here(bed("sprint"), "Is a rear valve needed?")
    said = schools(solve(bed("sprint")), candidates(bed("sprint")), INCH)  # how sure, as well
    needed = next(school.here for school in said if school.question.startswith("Is a rear"))
    assert "without one the front is first" in needed
    assert "of 100 such builds" in needed
    # moments about the tyre contact, by hand, at the deceleration wanted
    bakery = bed("bakery")
    case = bakery.vehicle.load_cases[0]
    weight = case.front_axle.value + case.rear_axle.value
    z = bakery.targets.deceleration
    moved = z * weight * case.cg_height.value / bakery.vehicle.wheelbase.value
    behind = 100 * (case.rear_axle.value - moved) / weight
    assert f"{behind:.0f} % at {z:g} g" in here(bakery, "Why one at all?")
    assert "duo-servo drums give 25 to 35 % more" in here(bakery, "Why one at all?")
    assert here(bed("roadster"), "Why one at all?").endswith("it is the load.")


def test_what_bites_first_is_not_what_locks_first() -> None:
    """A metering valve lets the rear bite first; the front locks first all the same."""
    said = here(bakery_with({"valves.rear[0].knee": "200 psi"}), "Which end")
    assert "the front locks first" in said
    plain = {"front.brake.threshold": "0 psi", "rear.brake.threshold": "0 psi"}
    assert "both bite at" in here(bakery_with({**plain, "valves.front": []}), "Which end")


def test_a_reducing_half_is_compared_with_new_rear_discs() -> None:
    disc = {"kind": "disc", "caliper": "sliding", "piston_diameters": ["38 mm"],
            "pad_friction": 0.4, "effective_radius": "120 mm"}  # fmt: skip
    calm = bakery_with({"rear.brake": disc, "evidence": {}, "setups": []})
    assert here(bed("bakery"), "Rear discs behind") == ""
    assert "its own, 375 psi" in here(calm, "Rear discs behind")


# --- valves ---


def test_every_kind_of_valve_has_its_words() -> None:
    assert all(record.what and record.typical for record in VALVES)
    assert {record.kind for record in VALVES} < set(NEW_NAMES)


@pytest.mark.parametrize(
    ("kind", "words"),
    [
        ("reducing", "reducing valve, knee 300 psi, slope 0.50"),
        ("limiting", "limiting valve, 450 psi"),
        ("notched", "adjustable valve, 4 notches, slope 0.40"),
        ("inertia-sensing", "inertia-sensing valve, ramp 17 deg, slope 0.40"),
        ("load-sensing", "load-sensing valve, slope 0.40"),
        ("residual", "residual valve"),
    ],
)
def test_what_is_fitted_is_named_with_its_setting(kind: str, words: str) -> None:
    assert fitted_words(bakery_with({"valves.rear": [fresh(kind)]}), INCH) == words
    assert fitted_words(bed("sprint"), INCH) == "no valve"


def fresh(kind: str) -> dict[str, object]:
    (valve,) = new_valve(bed("bakery"), "rear", kind)["rear"]
    return valve


@pytest.mark.parametrize(
    ("valve", "pressures", "words"),
    [
        (fresh("reducing"), (200, 200), "open: passes all"),
        (fresh("reducing"), (500, 400), "reduces by 100 psi"),
        (fresh("limiting"), (600, 450), "shut: 150 psi kept back"),
        (fresh("metering"), (60, 10), "shut: holds the front off"),
        (fresh("metering"), (200, 120), "opening"),
        (fresh("residual"), (100, 100), "passes all, keeps 15 psi"),
        (fresh("reducing"), (0, 0), "at rest"),
    ],
)
def test_a_valve_says_what_it_does_now(
    valve: dict[str, object], pressures: tuple[float, float], words: str
) -> None:
    """Common practice: a knee of 300 psi and a slope of one half let 400 of 500 psi out."""
    build = bakery_with({"valves.rear": [valve]})
    part = build.valves.rear[0]

    assert state(part, pressures[0] * PSI, pressures[1] * PSI, INCH) == words
