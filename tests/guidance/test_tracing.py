"""Tracing: order, entropy, layouts, mends, contradictions; hidden causes found by their tests."""

import random
from datetime import datetime, timedelta
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.builds import EVERYTHING, bakery_with, bed
from tests.strategies import documents
from urgens.bench.evidence_on_record import already_known, counting, evidence_of
from urgens.bench.trainer.hidden_fault import with_causes
from urgens.document import Build, BuildErrors, demo, demo_names, loads, with_changes
from urgens.document.validation import validated
from urgens.guidance.faults.tables import Tables, tables
from urgens.guidance.faults.way_back import lit, way_back
from urgens.guidance.procedures import NAMES, procedure
from urgens.guidance.tracing.fault_places import fault_places, places_of
from urgens.guidance.tracing.foreman import sentences
from urgens.guidance.tracing.ranking import (
    OPENING,
    OTHER,
    SECOND,
    TraceEvidence,
    Tracing,
    costs,
    entropy,
    with_readings,
)
from urgens.guidance.tracing.readings import TraceReading, _by_mass, reading
from urgens.guidance.tracing.simulated import HowRead, effects, figures, rows_of
from urgens.guidance.tracing.trace import last_change, raised_by, traced
from urgens.guidance.words.figures import FigureWords
from urgens.printed.tracing import why
from urgens.quantity import UnitSystem
from urgens.quantity.day import time_ago
from urgens.solve import solve

# The trade's tracing table, row by row, causes in the order of cheap checks: common practice.
ORDER = {
    "spongy": "low-fluid air-front air-rear hose-soft-front hose-soft-rear caliper-flexes-front "
    "caliper-flexes-rear shoes-far-front shoes-far-rear",
    "sinks": "leak-joint hose-leaks-front hose-leaks-rear cup-bypass",
    "pumps-up": "shoes-far-front shoes-far-rear knock-back-front knock-back-rear air-front "
    "air-rear rod-short bore-small lost-front lost-rear",
    "morning": "air-front air-rear no-residual",
    "hard-weak": "ratio-hole bore-big booster-dead booster-valve vacuum-low glazed-front "
    "glazed-rear hose-blocked-front hose-blocked-rear",
    "drags": "rod-long residual-disc-front residual-disc-rear vent-blocked hose-check-front "
    "hose-check-rear switch-holds seized-front seized-rear parking-cable",
    "rear-first": "valve-missing valve-open knee-high adjustable-open load-sensing-high "
    "drums-grab lost-front tyres-changed rear-unloaded",
    "front-early": "glazed-rear hose-blocked-rear knee-low metering-open metering-missing road-wet",
    "reservoir-wet": "grommet washer-missing retaining-screw",
    "rear-weak": "second-valve load-sensing-low shuttle-across knee-low hose-blocked-rear",
    "one-axle-bleeds": "shuttle-across metering-shut load-sensing-low residual-gravity",
    "pulls": "side-air side-seized side-wet hose-blocked-side tyres-unequal line-pinched "
    "shoes-uneven linings-new",
    "front-grabs": "metering-missing metering-open shoes-far-rear",
    "lamp": "leak-joint pads-worn-front pads-worn-rear shuttle-across vacuum-low parking-on",
    "booster-wet": "rear-seal",
    "never-clears": "screw-little thread-air screw-low cylinder-tilted",
    "none-after-rebuild": "insert-missing rod-out lines-wrong",
}
WORDS = FigureWords(UnitSystem.METRIC)
BUILDS = [*(demo(name) for name in demo_names()), bakery_with(EVERYTHING)]


@pytest.mark.parametrize("build", BUILDS, ids=lambda one: one.name)
@pytest.mark.parametrize("sign", ORDER)
def test_with_one_sign_the_order_is_that_of_cheap_checks(build: Build, sign: str) -> None:
    tracing = Tracing(build)
    wanted = [cause for cause in ORDER[sign].split() if cause in tracing.ids]
    if sign not in [one.id for one in tracing.signs]:
        assert wanted == []
        return
    found = traced(build, TraceEvidence({sign: True}))
    listed = [one.cause.id for one in found.ranked if one.cause.id in wanted]
    assert listed == wanted
    unlisted = max(one.share for one in found.ranked
                   if one.cause.id not in dict(tracing.sign(sign).causes.links()))  # fmt: skip
    assert all(one.share > unlisted for one in found.ranked if one.cause.id in wanted)
    assert found.other == pytest.approx(OTHER)


def evidence(build: Build, draw: st.DataObject) -> TraceEvidence:
    tracing = Tracing(build)
    signs = draw.draw(st.dictionaries(st.sampled_from([s.id for s in tracing.signs]),
                                      st.booleans(), max_size=4))  # fmt: skip
    tests = draw.draw(st.lists(st.sampled_from(tracing.tests), max_size=4, unique=True))
    outcomes = {one.id: draw.draw(st.sampled_from(tracing.outcomes(one))).id for one in tests}
    return TraceEvidence(signs, outcomes)


@settings(max_examples=40)
@given(st.sampled_from(BUILDS), st.data())
def test_expected_entropy_never_rises(build: Build, draw: st.DataObject) -> None:
    """Shannon: an outcome tells nothing at worst, on the average."""
    known = evidence(build, draw)
    found = traced(build, known)
    assert found.shares.sum() == pytest.approx(1.0)
    for one in found.tests:
        assert one.gain > -1e-9
        assert one.chances.sum() == pytest.approx(1.0)
        after = float(one.chances @ entropy(one.then))
        assert after <= float(entropy(found.shares)) + 1e-9
        assert one.chances @ one.then == pytest.approx(found.shares)
    gains = [one.gain for one in found.tests]
    assert gains == sorted(gains, reverse=True) or np.allclose(gains, sorted(gains)[::-1])


def followed(build: Build, cause: Any, seed: int) -> tuple[int, int]:
    """The place of a hidden cause after its own best tests, and how many those were."""
    tracing = Tracing(build)
    fault = with_causes(tracing, (cause,), seed)
    signs = {fault.signs()[0].id: True}
    read = tuple(fault.read("travel", 250.0, stroke) for stroke in (1, 3))
    weights, outcomes = with_readings(tracing, read, 0), {}
    for _ in range(9):
        known = TraceEvidence(signs, dict(outcomes), read)
        shares = tracing.shares(known, weights)
        if shares.max() > 0.7 or len(outcomes) == 8:
            break
        test = tracing.next_tests(known, shares)[0].test
        outcomes[test.id] = fault.outcome(test).id
    places = [one.cause.id for one in tracing.ranked(shares, known)]
    return places.index(cause.id), len(outcomes)


def test_a_hundred_vehicles_have_their_cause_among_the_first_three() -> None:
    builds, good = [demo(name) for name in demo_names()], 0
    for seed in range(100):
        build = builds[seed % len(builds)]
        told = [one for one in Tracing(build).causes if one.id in effects()]
        place, _ = followed(build, told[(seed // len(builds)) % len(told)], seed)
        good += place < 3
    assert good >= 90


def test_every_cause_is_told_and_every_mend_is_a_procedure() -> None:
    assert {one.mend for one in tables().causes} <= set(NAMES)
    assert set(effects()) <= {one.id for one in tables().causes}
    whole = tables().model_dump(by_alias=True)
    silent = {**whole["causes"][0], "id": "gremlin"}
    with pytest.raises(ValidationError, match="no test tells gremlin"):
        Tables.model_validate({**whole, "causes": [*whole["causes"], silent]})
    broken = {**whole["signs"][0], "causes": {"often": ["nobody"]}}
    with pytest.raises(ValidationError, match="there is no nobody"):
        Tables.model_validate({**whole, "signs": [broken]})
    with pytest.raises(ValidationError, match="is there twice"):
        Tables.model_validate({**whole, "signs": [whole["signs"][0], whole["signs"][0]]})


@settings(max_examples=25)
@given(documents())
def test_no_cause_is_offered_whose_part_is_not_there(document: dict[str, Any]) -> None:
    """By the document alone: the parts it names, and no others, can be at fault."""
    build = validated(document)
    ids = Tracing(build).ids
    kinds = [one["kind"] for axle in ("front", "rear") for one in document["valves"][axle]]
    boosted = document["booster"]["kind"] != "none"
    assert ("booster-dead" in ids) == boosted
    assert ("ratio-hole" in ids) != boosted
    assert ("metering-shut" in ids) == ("metering" in kinds)
    assert ("load-sensing-low" in ids) == ("load-sensing" in kinds)
    assert ("shoes-far-rear" in ids) == (document["rear"]["brake"]["kind"] == "drum")
    assert ("knock-back-front" in ids) == (document["front"]["brake"]["kind"] == "disc")
    assert ("lost-front" in ids) == (build.split == "front-rear")
    assert ("lost-half" in ids) == (build.split == "diagonal")
    for one in Tracing(build).causes:
        made = procedure(build, one.mend)
        assert made.allowed, one.id
        assert all(procedure(build, name).allowed for name in way_back(build, one).proves)


def test_what_stops_the_vehicle_comes_first() -> None:
    library = bed("library")
    sinks = traced(library, TraceEvidence({"sinks": True}))
    assert sinks.stops[0].startswith("It sinks under a steady foot.")
    assert traced(library, TraceEvidence({"lamp": True})).stops == ()
    falls = traced(library, TraceEvidence({"lamp": True, "pumps-up": True}))
    assert any("one half is going" in words for words in falls.stops)
    wet = traced(library, TraceEvidence({}, {"paper": "joint"}))
    assert any("leak" in words for words in wet.stops)


def test_what_excludes_each_other_is_said() -> None:
    found = traced(bed("library"), TraceEvidence({"sinks": True}, {"hold": "holds"}))
    assert found.contradictions == ("It sinks under a steady foot, and it holds for 30 s.",)
    assert (
        traced(bed("library"), TraceEvidence({"sinks": True}, {"hold": "sinks"})).contradictions
        == ()
    )


def test_something_else_grows_where_everything_listed_is_ruled_out() -> None:
    build, outcomes = bed("library"), {}
    for test in Tracing(build).tests:
        outcomes[test.id] = test.usual
    found = traced(build, TraceEvidence({"spongy": True}, outcomes))
    assert found.other > 2.0 * OTHER


@pytest.mark.parametrize(
    ("name", "value", "foot", "words"),
    [
        ("travle", "60 mm", "300 N", "is no reading"),
        ("travel", "60 bar", "300 N", "cannot be read"),
        ("travel", "2 m", "300 N", "beyond any vehicle"),
        ("travel", "60 mm", "0 N", "no foot presses"),
        ("travel", "60 mm", "9 kN", "no foot presses"),
        ("deceleration", "4", "300 N", "beyond any vehicle"),
        ("deceleration", "nan", "300 N", "beyond any vehicle"),
        ("heat-ratio", "210 °C", "", "cannot be read"),
        ("heat-ratio", "210 °C / 10 °C", "", "cannot be read"),
        ("front-flow", "2 l", "", "beyond any vehicle"),
    ],
)
def test_a_reading_that_cannot_be_is_refused(name: str, value: str, foot: str, words: str) -> None:
    with pytest.raises(BuildErrors, match=words):
        reading(name, value, foot)


def test_readings_raise_what_would_show_them() -> None:
    """By the table of the trade: travel that falls stroke by stroke is clearance."""
    build = bed("library")
    figures = [with_causes(Tracing(build), (cause,), 4)
               for cause in Tracing(build).causes if cause.id == "shoes-far-rear"]  # fmt: skip
    [fault] = figures
    read = tuple(fault.read("travel", 250.0, stroke) for stroke in (1, 2, 3))
    assert read[0].value > read[2].value
    before = traced(build, TraceEvidence({"pumps-up": True}))
    after = traced(build, TraceEvidence({"pumps-up": True}, {}, read))
    share = {one.cause.id: one.share for one in before.ranked}
    found = {one.cause.id: one.share for one in after.ranked}
    assert found["shoes-far-rear"] > share["shoes-far-rear"]
    assert "Pad travel at" in after.reason(after.ranked[0], WORDS)


def test_a_change_raises_what_it_can_have_brought() -> None:
    entry = {"at": "2026-05-03T10:00", "what": "new rear shoes",
             "changes": {"rear.brake.shoe_factor": [2.0, 2.4]}}  # fmt: skip
    note = {"at": "2026-06-03T10:00", "what": "washed", "kind": "note"}
    build = with_changes(bed("library"), {"history": [entry, note]})
    change = last_change(build)
    assert change is not None
    assert change.what == "new rear shoes"
    raised = raised_by(change)
    assert "air-rear" in raised
    assert "air-front" not in raised
    plain = traced(build, TraceEvidence({"spongy": True}))
    found = traced(build, TraceEvidence({"spongy": True}, raised=raised))
    assert found.ranked[0].cause.id == "air-rear"
    assert plain.ranked[0].cause.id != "air-rear"
    assert raised_by(None) == {}


def test_a_history_that_is_no_pair_is_refused() -> None:
    text = with_changes(bed("library"), {}).model_dump_json(exclude_unset=True)
    entry = '{"at": "2026-05-03T10:00", "what": "x", "changes": {"master.bore": 3}}'
    with pytest.raises(BuildErrors, match="is no pair"):
        loads(text[:-1] + f', "history": [{entry}]}}')


def test_what_is_on_record_counts_from_when_it_began_or_by_hand() -> None:
    """What was read before a fault began says nothing of it: common practice."""
    build = bed("roadster")
    known = already_known(build)
    assert build.proof is not None
    first, last = known[0].at, build.proof.stops[-1].at
    fresh = counting(known, first)
    assert {one.outcome for one in fresh} >= {("gauges", "as-reckoned")}
    assert any(one.reading is not None and one.reading.kind == "deceleration" for one in fresh)
    assert counting(known, first, tuple(one.name for one in known)) == ()
    assert counting(known, last.replace(year=last.year + 1)) == ()
    assert counting(known, None) == ()
    assert counting(known, None, (), (known[0].name,)) == known[:1]
    assert all(one.at >= last for one in counting(known, last))
    found = evidence_of(build, TraceEvidence({"pulls": True}, {"gauges": "rear-high"}), fresh)
    assert found.outcomes["gauges"] == "rear-high"  # what was seen now has the last word
    assert found.signs == {"pulls": True}


def test_stops_from_before_the_fault_do_not_take_the_cause_away() -> None:
    """A wheel that pulls and is hot: seized or blocked lead, whatever was stopped before."""
    build = bed("roadster")
    signs = {"pulls": True, "one-wheel-hot": True}
    assert build.proof is not None
    began = build.proof.stops[-1].at + timedelta(days=1)
    known = counting(already_known(build), began)
    ranked = traced(build, evidence_of(build, TraceEvidence(signs), known)).ranked
    assert {one.cause.id for one in ranked[:2]} == {"side-seized", "hose-blocked-side"}


@pytest.mark.parametrize(
    ("typed", "wanted"),
    [
        ("2026-05-31", "2026-05-31T00:00"),
        ("2026-05-31 14:10", "2026-05-31T14:10"),
        ("Sunday", "2026-11-29T00:00"),
        ("since sun", "2026-11-29T00:00"),
        ("Wednesday", "2026-12-02T00:00"),
        ("last week", "2026-11-25T00:00"),
        ("yesterday", "2026-12-01T00:00"),
        ("today", "2026-12-02T00:00"),
        ("3 days ago", "2026-11-29T00:00"),
        ("a week ago", "2026-11-25T00:00"),
        ("2 hours", "2026-12-02T13:30"),
        ("s", None), ("", None), ("soon", None), ("2027-01-01", None), ("40 lbf", None),
        ("9999 years ago", None),
    ],
)  # fmt: skip
def test_since_when_is_read_as_it_is_said(typed: str, wanted: str | None) -> None:
    """By the calendar: 2026-12-02 is a Wednesday."""
    now = datetime(2026, 12, 2, 15, 30)
    if wanted is None:
        with pytest.raises(ValueError, match=r"is (no day|yet to come); write a day"):
            time_ago(typed, now)
        return
    assert time_ago(typed, now) == datetime.fromisoformat(wanted)


def test_the_way_back_opens_bleeds_and_proves_what_it_should() -> None:
    build = bed("library")
    causes = {one.id: one for one in Tracing(build).causes}
    hose = way_back(build, causes["hose-soft-front"])
    assert hose.mend == "renew-hose"
    assert hose.bleeds
    assert "leak-test" in hose.proves
    assert procedure(build, "rebleed", opened=hose.opened).allowed
    assert hose.opened == lit(build, causes["hose-soft-front"])
    assert not way_back(build, causes["shoes-far-rear"]).bleeds


def test_a_question_is_one_that_tells_something() -> None:
    found = traced(bed("library"), TraceEvidence({"sinks": True}))
    asked = found.question()
    assert asked is not None
    assert asked.id not in ("sinks", "slowly")
    yes = traced(bed("library"), TraceEvidence({"sinks": True, asked.id: True}))
    no = traced(bed("library"), TraceEvidence({"sinks": True, asked.id: False}))
    assert yes.ranked[0].cause != no.ranked[0].cause or yes.ranked[0].share != no.ranked[0].share


def test_readings_of_no_build_at_all_leave_no_nan() -> None:
    wild = (TraceReading("travel", 0.59, 3000.0), TraceReading("rear-pressure", 3.9e7, 1.0))
    found = traced(bed("tender"), TraceEvidence({}, {}, wild))
    assert np.all(np.isfinite(found.shares))
    assert found.shares.sum() == pytest.approx(1.0)


def test_little_at_the_rear_screw_is_a_blocked_line_and_heat_tells_the_share() -> None:
    """Common practice: what does not flow is blocked; the axle that does more gets hotter."""
    build = bed("library")
    dry = traced(
        build, TraceEvidence({"rear-weak": True}, {}, (reading("rear-flow", "0.2 ml", ""),))
    )
    assert dry.ranked[0].cause.id in ("shuttle-across", "hose-blocked-rear")
    even = reading("heat-ratio", "420 °C / 60 °C", "")
    assert even.value == pytest.approx(400.0 / 40.0)
    hot = traced(build, TraceEvidence({"front-early": True}, {}, (even,)))
    assert hot.ranked[0].cause.id in ("glazed-rear", "hose-blocked-rear", "knee-low")


# --- what decides what is asked next -------------------------------------------------------------


def test_an_open_joint_and_a_second_person_count_as_minutes() -> None:
    for test in tables().tests:
        more = OPENING * test.opens + SECOND * (test.people > 1)
        assert costs(test) == test.minutes + more
    assert min(OPENING, SECOND) > 0.0
    assert any(test.people > 1 for test in tables().tests)
    assert any(test.opens for test in tables().tests)


def test_a_test_whose_sign_was_answered_is_not_asked_again() -> None:
    tracing = Tracing(bed("library"))
    answering = [test for test in tracing.tests if test.answers]
    assert answering
    for test in answering:
        for seen in (True, False):
            known = TraceEvidence({test.answers[0]: seen}, {})
            shares = tracing.shares(known, with_readings(tracing, (), 0))
            assert test.id not in [one.test.id for one in tracing.next_tests(known, shares)]


def test_the_next_test_is_the_one_that_tells_most_a_minute() -> None:
    tracing = Tracing(bed("library"))
    known = TraceEvidence({"sinks": True}, {})
    found = tracing.next_tests(known, tracing.shares(known, with_readings(tracing, (), 0)))

    gains = [one.gain for one in found]
    assert gains == sorted(gains, reverse=True)
    assert gains[0] > gains[-1]


def test_heat_is_work_over_mass() -> None:
    """Twice the iron in front gets half as warm by the same work."""
    iron = {"front.brake.rotor_mass": "4 kg", "rear.brake.rotor_mass": "4 kg"}
    build = with_changes(demo("roadster"), iron)
    heavy = with_changes(build, {"front.brake.rotor_mass": "8 kg"})

    assert _by_mass(build, "heat-ratio") == pytest.approx(1.0)
    assert _by_mass(heavy, "heat-ratio") == pytest.approx(0.5)
    assert _by_mass(heavy, "travel") == 1.0


def test_a_cause_that_is_bled_away_says_that_a_circuit_is_bled() -> None:
    build = bed("library")
    bled = [one for one in Tracing(build).causes if one.mend == "bleed"]
    assert bled
    for cause in bled:
        back = way_back(build, cause)
        assert (back.bleeds, back.opened) == (True, ())
        assert back.proves == ("leak-test", "three-strokes")


def test_what_a_test_costs_is_said_with_the_people_it_takes() -> None:
    costs = {one.people: why(one) for one in tables().tests}
    assert set(costs) >= {1, 2}
    assert "people" not in costs[1]
    assert ", 2 people, " in costs[2]


FELT = {"kind": "load-sensing", "points": [["400 kg", "20 bar"], ["900 kg", "45 bar"]],
        "slope": 0.3, "follows": "dynamic"}  # fmt: skip
BALL = {"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.3}


@pytest.mark.parametrize("valve", [FELT, BALL])
def test_gauges_are_read_at_rest_and_decelerations_moving(valve: dict[str, Any]) -> None:
    """By hand: at rest the axle's own load sets the knee, and no ball has rolled."""
    build = with_changes(bed("bakery"), {"valves.rear": [valve]})
    efforts = np.array([100.0, 200.0, 300.0])
    healthy = figures(build, rows_of([]), efforts, 0)
    presses = solve(build, efforts=efforts).presses
    assert healthy.deceleration[0] == pytest.approx(presses.demand_z)
    inlet = presses.master_rear
    if valve is FELT:
        load = build.vehicle.load_cases[0].rear_axle.value
        knee = 20e5 + (load / 9.80665 - 400.0) / 500.0 * 25e5
        inlet = np.where(inlet > knee, knee + 0.3 * (inlet - knee), inlet)
    assert healthy.rear[0] == pytest.approx(inlet)
    assert healthy.rear[0][-1] > presses.rear_pressure[-1]  # moving it does less


# --- what a sign asks besides --------------------------------------------------------------------


def test_which_axle_gives_nothing_is_asked_and_sends_to_the_right_end() -> None:
    """A metering valve holds the front off, a lever at droop the rear: facts of the trade."""
    build = bakery_with(EVERYTHING)
    for axle, wanted, other in (
        ("front", "metering-shut", "load-sensing-low"),
        ("rear", "load-sensing-low", "metering-shut"),
    ):
        known = TraceEvidence({"one-axle-bleeds": True}, answers={"one-axle-bleeds": (axle,)})
        found = traced(build, known)
        assert found.ranked[0].cause.id == wanted
        shares = {one.cause.id: one.share for one in found.ranked}
        assert shares[wanted] > 10.0 * shares[other]
    asked = traced(build, TraceEvidence({"one-axle-bleeds": True}))
    assert [one.id for one in asked.asks(asked.tracing.sign("one-axle-bleeds"))] == ["axle"]


def test_a_lamp_is_told_apart() -> None:
    """A float lights with worn pads, a shuttle with a lost half: common practice."""
    build = bakery_with(EVERYTHING)
    level = traced(build, TraceEvidence({"lamp": True}, answers={"lamp": ("level",)}))
    assert level.ranked[0].cause.id in ("pads-worn-front", "pads-worn-rear", "low-fluid")
    across = traced(build, TraceEvidence({"lamp": True}, answers={"lamp": ("circuits",)}))
    assert across.ranked[0].cause.id == "shuttle-across"


def test_only_what_tells_something_is_asked() -> None:
    for build in BUILDS:
        for sign in Tracing(build).signs:
            found = traced(build, TraceEvidence({sign.id: True}))
            for ask in found.asks(sign):
                told = [traced(build, TraceEvidence({sign.id: True}, answers={sign.id: (one.id,)}))
                        for one in ask.answers]  # fmt: skip
                moved = [np.ptp([each.shares[place] for each in told])
                         for place in range(len(found.tracing.ids))]  # fmt: skip
                sided = [places_of(build, each, one.cause) for each in told for one in each.ranked
                         if one.cause.wheel]  # fmt: skip
                assert max(moved) > 1e-3 or len(set(sided)) > 1, (sign.id, ask.id)


def test_an_answer_is_the_sign_that_says_the_same_and_counts_once() -> None:
    build = bed("library")
    answered = traced(build, TraceEvidence({"spongy": True}, answers={"spongy": ("hot",)}))
    seen = traced(build, TraceEvidence({"spongy": True, "when-hot": True}))
    assert answered.shares == pytest.approx(seen.shares)
    both = TraceEvidence({"spongy": True, "when-hot": True}, answers={"spongy": ("hot",)})
    assert traced(build, both).shares == pytest.approx(seen.shares)
    with pytest.raises(BuildErrors, match='there is no "left"'):
        traced(build, TraceEvidence({"spongy": True}, answers={"spongy": ("left",)}))


def test_on_what_was_worked_is_asked_where_the_history_does_not_say() -> None:
    build = bed("library")
    bare = build.model_copy(update={"history": ()})
    sign = Tracing(build).sign("after-work")
    known = evidence_of(bare, TraceEvidence({"after-work": True}), ())
    assert [one.id for one in traced(bare, known).asks(sign)] == ["worked"]
    pedal = TraceEvidence({"after-work": True}, answers={"after-work": ("pedal",)})
    found = traced(bare, evidence_of(bare, pedal, ()))
    named = {one.cause.id for one in found.ranked[:4]}
    assert named <= {"rod-long", "rod-short", "switch-holds", "rod-out", "insert-missing"}


def test_a_cylinder_without_a_booster_leaks_at_its_rod() -> None:
    manual, boosted = bed("tractor"), bed("bakery")
    assert "rod-wet" in [one.id for one in Tracing(manual).signs]
    assert "rod-wet" not in [one.id for one in Tracing(boosted).signs]
    found = traced(manual, TraceEvidence({"rod-wet": True}))
    assert (found.ranked[0].cause.id, found.ranked[0].cause.mend) == ("rod-seal", "overhaul")
    assert found.stops


def test_a_vent_is_looked_at_before_anything_is_overhauled() -> None:
    build = bed("library")
    found = traced(build, TraceEvidence({"drags": True}))
    minutes = {one.test.id: one.test.minutes for one in found.tests}
    assert minutes["cap"] <= min(minutes["vent"], minutes["rod"], minutes["spin"])
    blocked = traced(build, TraceEvidence({"drags": True}, {"cap": "blocked"}))
    assert (blocked.ranked[0].cause.id, blocked.ranked[0].cause.mend) == (
        "vent-blocked",
        "clear-vent",
    )
    assert procedure(build, "clear-vent").allowed


@pytest.mark.parametrize("valve", [FELT, BALL])
def test_a_reading_is_compared_with_a_vehicle_that_was_as_it_was(valve: dict[str, Any]) -> None:
    """What a moving vehicle shows is no fault of a moving one, whatever one at rest would show."""
    build = with_changes(bed("bakery"), {"valves.rear": [valve]})
    shown = solve(build, efforts=np.array([300.0])).presses.rear_pressure[0]
    read = f"{shown / 1e5:.3f} bar"
    moving = traced(build, TraceEvidence({"rear-weak": True}, {}, (
        reading("rear-pressure", read, "300 N", ("moving",)),)))  # fmt: skip
    still = traced(build, TraceEvidence({"rear-weak": True}, {}, (
        reading("rear-pressure", read, "300 N"),)))  # fmt: skip
    assert moving.weights.as_built[0] == pytest.approx(shown, rel=1e-4)
    assert still.weights.as_built[0] > shown
    place = moving.tracing.ids.index("low-fluid")  # which leaves pressures as they are
    assert moving.weights.causes[place] > 10.0 * still.weights.causes[place]


def test_without_its_engine_a_booster_helps_nothing_and_a_hot_drum_is_larger() -> None:
    """By hand: a ring of 250 mm is 0.2 mm larger in radius when 150 K warmer (11e-6 per kelvin)."""
    build = bed("bakery")
    manual = with_changes(build, {"booster": {"kind": "none"}})
    off = HowRead(engine=False)
    feet = np.array([300.0])
    dead = figures(build, rows_of([]), feet, 0, 1, off).front[0]
    assert dead == pytest.approx(figures(manual, rows_of([]), feet, 0).front[0], rel=0.05)
    drum = with_changes(build, {"rear.brake.drum_diameter": "250 mm"})
    cold = drum.rear.brake.clearance.value
    assert (drum.rear.brake.grown(150.0) - 1.0) * cold == pytest.approx(0.206e-3, abs=1e-6)
    hot = figures(drum, rows_of([]), feet, 0, 1, HowRead(hot=True))
    assert hot.travel[0, 0] > figures(drum, rows_of([]), feet, 0).travel[0, 0]
    assert drum.front.brake.grown(150.0) == 1.0


def test_vapour_is_there_only_when_it_is_hot() -> None:
    build, feet = bed("library"), np.array([250.0])
    rows = rows_of(["fluid-boils"])
    cold = figures(build, rows, feet, 0).travel[:, 0]
    hot = figures(build, rows, feet, 0, 1, HowRead(hot=True)).travel[:, 0]
    assert np.ptp(cold) < 1e-12
    assert hot[-1] > hot[0] + 1e-3


@pytest.mark.parametrize(
    ("how", "words"),
    [(("asleep",), "is no way to read"), (("standing", "moving"), "standing and moving"),
     (("standing",), "is not read on a vehicle that stands")],
)  # fmt: skip
def test_how_a_reading_cannot_have_been_is_refused(how: tuple[str, ...], words: str) -> None:
    with pytest.raises(BuildErrors, match=words):
        reading("deceleration", "0.5", "200 N", how)


# --- where it sits ------------------------------------------------------------------------------


def anything(build: Build, seed: int) -> TraceEvidence:
    """Some signs, seen or not, and what some tests showed."""
    chance, tracing = random.Random(seed), Tracing(build)
    signs = chance.sample(tracing.signs, chance.randrange(5))
    tests = chance.sample(tracing.tests, chance.randrange(5))
    outcomes = {one.id: chance.choice(tracing.outcomes(one)).id for one in tests}
    return TraceEvidence({one.id: chance.random() < 0.6 for one in signs}, outcomes)


@settings(max_examples=40)
@given(st.sampled_from(BUILDS), st.integers(0, 2**32 - 1))
def test_places_have_all_shares_and_a_reason_where_one_is_out(build: Build, seed: int) -> None:
    found = traced(build, anything(build, seed))
    places = fault_places(build, found)
    whole = sum(one.share for one in found.ranked)
    assert sum(one.share for one in places) == pytest.approx(whole)
    kept = np.array([one.share for one in places if not one.out])
    assert (np.diff(kept) <= 1e-9).all()  # Equal ones differ by how they were summed
    assert all(one.share < 0.03 for one in places if one.out)
    for said in sentences(found, places):
        assert said.endswith(".")


def test_a_foreman_says_what_to_leave_alone() -> None:
    build = bed("bakery")
    known = TraceEvidence({"pulls": True}, {"tyres": "as-reckoned"}, answers={"pulls": ("left",)})
    found = traced(build, known)
    likely, following, leave = sentences(found, fault_places(build, found))
    assert found.ranked[0].cause.words in likely
    assert found.tests[0].test.words in following
    assert leave == "Leave tyres, load, road alone: as reckoned with."
    assert not any("tyres" in one.words for one in fault_places(build, found)[:-1])
