"""The next setting: its risk, its steps, and where it leads many vehicles."""

from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from tests.bench.test_stops import AT, TURNS, stop
from tests.builds import bed, on_record, unproved
from tests.strategies import documents
from urgens.bench.plant.plant import plant
from urgens.bench.proof_state import cooling_wait, holding, on_road, stops_of
from urgens.bench.sentences import advice_reason, advice_words, brakes_words, headline, of_hundred
from urgens.bench.stops.adjusters import adjuster, set_as
from urgens.bench.stops.next_setting import RISK, choose, next_stop
from urgens.bench.stops.posterior import posterior, prior, scaled
from urgens.bench.stops.rear_first_chance import least_rear_factor
from urgens.bench.stops.simulated_stops import TrueVehicle, campaign, stops_left
from urgens.document import Build, demo, edited, with_changes
from urgens.document.validation import validated
from urgens.guidance.condition.proofs import standing_proofs
from urgens.guidance.words.figures import FigureWords
from urgens.physics.arrays import Array
from urgens.quantity import UnitSystem
from urgens.solve.first_rise import first_rise_of_either
from urgens.solve.roads import every_road
from urgens.solve.system import system

WORDS = FigureWords(UnitSystem.METRIC)

VEHICLES = 30


@st.composite
def rising(draw: st.DrawFn) -> dict[str, Any]:
    """Vehicles whose forces rise with the foot, without a jump: which locks first is sharp."""
    document = draw(documents())
    if "jump_in" in document["booster"]:
        document["booster"]["jump_in"] = "0 N"
    return {**document, "valves": {"front": [], "rear": document["valves"]["rear"]}}


@settings(max_examples=25)
@given(rising(), st.floats(0.8, 1.2), st.floats(0.2, 1.0))
def test_beyond_its_limit_the_rear_locks_first_and_below_it_does_not(
    document: dict[str, Any], front: float, road: float
) -> None:
    """The factor in closed form, beside the search over all efforts."""
    build = validated(document)
    made = system(build)
    standing = made.case(0)
    roads = np.array([road])
    least = float(least_rear_factor(made, standing, roads, np.array([front]))[0, 0])
    assume(0.05 < least < 7.5)
    for share, rear_first in ((0.98, False), (1.02, True)):
        found = first_rise_of_either(scaled(made, front, least * share), standing, roads)
        if not bool(found.locks[0]):
            assert not rear_first
        else:
            assert bool(found.rear_first[0]) is rear_first


def turned_to(turns: float) -> Build:
    return edited(unproved("roadster"), TURNS, turns)


def risks_of(build: Build) -> Array:
    advice = next_stop(build, (), posterior(build, ()))
    assert advice is not None
    return advice.chances


def test_more_turns_are_never_less_risk() -> None:
    assert np.all(np.diff(risks_of(turned_to(1.0))) >= -1e-9)


@pytest.mark.parametrize(
    ("stops", "risky_from", "kind", "setting"),
    [
        ([], 5.0, "first", 1.0),
        ([], 0.5, "first", 0.0),  # what stands is too far back: further to the front
        ([(1.0, "front")], 5.0, "rearward", 2.0),  # no more than a turn at a time
        ([(1.0, "front"), (2.0, "front")], 2.5, "again", 2.0),  # nothing beyond is allowed
        ([(3.0, "rear")], 5.0, "forward", 2.5),  # one step back at once
        ([(3.0, "rear"), (2.5, "front")], 5.0, "done", 2.5),  # bracketed, backed off
        ([(2.0, "front"), (2.0, "front", True)], 2.5, "done", 2.0),  # repeated wet
        ([(4.0, "front")], 2.5, "forward", 2.0),  # it was lucky
        ([(0.0, "rear")], 5.0, "forward", 0.0),  # no further to the front
        ([(3.0, "rear"), (2.0, "front")], 5.0, "rearward", 2.5),  # not bracketed: a step between
        ([(3.0, "rear"), (2.5, "none")], 5.0, "done", 2.5),  # bracketed by what did not lock
        ([(2.5, "front", True), (2.0, "front")], 2.5, "again", 2.0),  # the wet one was elsewhere
    ],
)
def test_the_steps(stops: list[Any], risky_from: float, kind: str, setting: float) -> None:
    turned = adjuster(demo("roadster"))
    assert turned is not None
    risks = np.where(np.array(turned.values) >= risky_from, 0.5, 0.01)
    made = tuple(stop(setting={TURNS: one[0]}, locked=one[1], wet=len(one) > 2) for one in stops)
    advice = choose(turned, made, risks, 1.0)
    assert (advice.kind, advice.setting) == (kind, setting)
    assert advice.wet is (kind == "again")
    assert headline(advice, WORDS)
    assert "of 100" in advice_words(advice, WORDS)


def test_where_no_setting_will_do_it_says_so_and_holds_the_stop() -> None:
    """Common practice: a rear brake that is far too strong is not mended by turns."""
    wild = turned_to(1.0)
    wild = edited(wild, "rear.brake.pad_friction", 3.0 * float(wild.rear.brake.pad_friction))
    road = on_road(wild, posterior(wild, ()))
    assert road is not None
    assert road.advice.risky
    assert "another valve" in advice_reason(road.advice)
    assert any("no setting" in held for held in road.held)


def test_the_reason_to_start_is_that_of_the_setting() -> None:
    turned = adjuster(demo("roadster"))
    assert turned is not None
    values = np.array(turned.values)
    stays = choose(turned, (), np.where(values >= 5.0, 0.5, 0.01), 1.0)
    assert advice_reason(stays) == "As it stands: under 5 of 100."
    back = choose(turned, (), np.where(values >= 0.5, 0.5, 0.01), 1.0)
    assert advice_reason(back).startswith("Further to the front")


def test_vehicles_get_there_and_stay_in_front() -> None:
    """From one turn, six at most from the end; on the true vehicle the rear is never first."""
    build = turned_to(1.0)
    known = prior(build)
    roads = np.array(every_road(build))
    done, rear_first = [], 0
    least: Array | None = None
    from urgens.bench.stops.rear_first_chance import least_factors

    turned = adjuster(build)
    assert turned is not None
    least = least_factors(build, turned, posterior(build, (), known).front)
    for seed in range(VEHICLES):
        drawn = plant(build, seed)
        over = {path: one for path, one in drawn.figures.items() if path != TURNS}
        chance = np.random.default_rng(seed)
        real = TrueVehicle(build, over, road=1.0 + chance.normal(0.0, 0.1))
        count, advice = campaign(real, (), known, chance, (41, 31), least)
        assert advice is not None
        done.append(advice.done and count <= 10)
        made = real.at(advice.turned.path, advice.setting)
        found = first_rise_of_either(made, made.cases, roads)
        rear_first += bool((found.rear_first & found.locks).any())
    assert np.mean(done) >= 0.9
    assert rear_first / VEHICLES <= RISK


def test_how_many_are_left_falls_with_the_stops() -> None:
    build = turned_to(1.0)
    none = posterior(build, ())
    some = tuple(
        stop(setting={TURNS: turns}, deceleration=0.9, effort="260 N", locked="front")
        for turns in (1.0, 2.0)
    )
    assert 1 <= stops_left(build, some, posterior(build, some)) < stops_left(build, (), none)


def test_a_bar_is_moved_by_a_quarter_of_the_way_at_most() -> None:
    build = edited(demo("roadster"), "valves.rear", [])
    turned = adjuster(build)
    assert turned is not None
    assert turned.path == "master.bar_offset"
    assert turned.values[0] == pytest.approx(0.062 / 4.0)  # towards the front first
    assert turned.values[0] == pytest.approx(-turned.values[-1])
    steps = np.abs(np.diff(turned.values))
    assert turned.most * steps.max() <= 0.062 / 4.0 / 4.0 * 1.01
    typed = turned.typed(turned.values[3])
    assert edited(build, turned.path, typed).master.bar_offset.value == pytest.approx(
        turned.values[3], abs=1e-5
    )


def test_notches_are_taken_one_at_a_time() -> None:
    rows = [[notch, f"{100 + 75 * notch} psi"] for notch in range(1, 8)]
    valve = {"kind": "adjustable", "table": rows, "slope": 0.4, "turns": 4, "counted": "notches"}
    turned = adjuster(edited(bed("bakery"), "valves.rear", [valve]))
    assert turned is not None
    assert (turned.values, turned.most) == (tuple(range(1, 8)), 1)


def test_nothing_to_set_is_said() -> None:
    build = bed("sprint")
    assert adjuster(build) is None
    assert on_road(build, posterior(build, ())) is None


PROVED = {"procedure": "prove-standing", "started": "2026-05-02T09:00", "ended": "2026-05-02T10:00"}
CASE = demo("roadster").vehicle.load_cases[0].name


def recorded(**more: Any) -> dict[str, Any]:
    return {"at": AT, "load_case": CASE, "surface": 1.1, "setting": {TURNS: 1.0},
            "locked": "front", **more}  # fmt: skip


def test_no_stop_is_proposed_while_something_holds_it() -> None:
    build = turned_to(1.0)
    turned = adjuster(build)
    assert any("on record" in reason for reason in holding(build, turned, 1.0))
    proved = with_changes(build, on_record(build))
    assert not any("not on record" in reason for reason in holding(proved, turned, 1.0))
    hot = edited(proved, "proof.stops", [recorded(front_temperature="240 °C")])
    assert any("to cool" in reason for reason in holding(hot, turned, 1.0))
    waived = edited(build, "proof", {"stops": [recorded(moved_without_proof="off the ramp")]})
    assert not any("not on record" in reason for reason in holding(waived, turned, 1.0))
    unsafe = edited(proved, "brake_light_switch", "none")
    assert len(holding(unsafe, turned, 1.0)) == len(holding(proved, turned, 1.0))  # a track car
    street = with_changes(unsafe, {"vehicle.use": "street"})
    assert any("light" in reason for reason in holding(street, turned, 1.0))


def test_brakes_cool_by_newton_s_law() -> None:
    """From 240 to 150 °C in air of 20: ln(220/130) times the time constant."""
    build = edited(demo("roadster"), "heat", {"air": "20 °C"})
    assert cooling_wait(build, 513.15) == pytest.approx(900.0 * np.log(220.0 / 130.0))
    assert cooling_wait(build, 400.0) == 0.0


def test_stops_are_taken_in_the_order_they_were_made() -> None:
    rows = [recorded(at="2026-05-02T15:00"), recorded(at="2026-05-02T14:00")]
    made = stops_of(edited(demo("roadster"), "proof", {"stops": rows}))
    assert [one.at.hour for one in made] == [14, 15]


def test_what_gauges_find_wrong_fails_its_proof() -> None:

    points = [[f"{p} bar", f"{p} bar", "rising"] for p in range(5, 60, 5)]
    run = {"at": AT, "valve": "rear[0]", "full_scale": "100 bar", "class": 1.6, "points": points}
    build = edited(demo("roadster"), "proof", {"gauges": [run]})
    states = {one.name: one for one in standing_proofs(build)}
    assert states["gauge-valve"].state == "failed"
    assert "does-not-reduce" in states["gauge-valve"].why
    assert states["booster-test"].state == "not-needed"


@pytest.mark.parametrize(
    ("chance", "words"), [(0.001, "less than 1"), (0.03, "3 of"), (1.0, "100")]
)
def test_a_chance_is_said_as_so_many_of_a_hundred(chance: float, words: str) -> None:
    assert of_hundred(chance).startswith(words)


def test_what_stops_said_is_said() -> None:
    told = posterior(demo("roadster"), (stop(deceleration=0.9, effort="230 N", locked="none"),))
    assert brakes_words(told, 1.1).startswith("In one stop the front did")
    assert "No stop counts" in brakes_words(posterior(demo("roadster"), ()), 1.1)


def test_a_build_is_looked_at_as_it_was_set_at_the_time() -> None:
    """A setting noted with a stop or a log lies over the build's own; none noted, none laid."""
    build = demo("roadster")
    assert set_as(build, {TURNS: 6.0}) == {TURNS: 6.0}
    assert set_as(build, {}) == {}
    assert set_as(build, {"master.bar_offset": "2 mm"}) == {}  # of another adjuster
    barred = with_changes(build, {"valves.rear": []})
    assert set_as(barred, {"master.bar_offset": "-2 mm"}) == {"master.bar_offset": -0.002}
    assert set_as(demo("tractor"), {TURNS: 6.0}) == {}  # has nothing to turn
