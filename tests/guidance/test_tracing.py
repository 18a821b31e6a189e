"""Tracing: order, entropy, layouts, mends, contradictions; hidden causes found by their tests."""

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
from urgens.guidance.tracing.simulated import effects, figures, rows_of
from urgens.guidance.tracing.trace import last_change, raised_by, traced
from urgens.guidance.words.figures import FigureWords
from urgens.printed.tracing import why
from urgens.quantity import UnitSystem
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


def test_what_is_on_record_counts_where_it_is_fresh_and_not_left_out() -> None:
    build = bed("roadster")
    known = already_known(build)
    assert build.proof is not None
    last = build.proof.stops[-1].at
    fresh = counting(known, last, ())
    assert {one.outcome for one in fresh} >= {("gauges", "as-reckoned")}
    assert any(one.reading is not None and one.reading.kind == "deceleration" for one in fresh)
    assert counting(known, last, tuple(one.name for one in known)) == ()
    assert counting(known, last.replace(year=last.year + 1), ()) == ()
    found = evidence_of(build, TraceEvidence({"pulls": True}, {"gauges": "rear-high"}), fresh)
    assert found.outcomes["gauges"] == "rear-high"  # what was seen now has the last word
    assert found.signs == {"pulls": True}


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
