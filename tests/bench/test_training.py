"""The trainer's core: same seed, same vehicle; minutes; the shortest way; right and wrong."""

import pytest

from tests.builds import bed
from urgens.bench.trainer.trainer import LEVELS, WRONG, debrief, exercise, rests
from urgens.document import demo, demo_names


@pytest.mark.parametrize("level", LEVELS)
def test_the_same_seed_is_the_same_vehicle(level: int) -> None:
    one, other = (exercise(bed("library"), level, 5) for _ in range(2))
    assert one.fault.causes == other.fault.causes
    assert one.evidence.signs == other.evidence.signs
    test = one.known().tests[0].test
    assert one.test(test).told == other.test(test).told
    assert one.read("travel", 250.0)[1] == other.read("travel", 250.0)[1]
    assert len(one.fault.causes) == LEVELS[level].causes
    assert (one.repaired is not None) == LEVELS[level].repaired


def test_every_look_costs_its_minutes() -> None:
    started = exercise(bed("library"), 1, 7)
    assert started.minutes == 0
    sign = next(one for one in started.fault.tracing.signs if one.id not in started.evidence.signs)
    looked = started.look(sign)
    test = looked.known().tests[0].test
    tested = looked.test(test)
    assert tested.minutes == 1 + test.minutes
    read, found = tested.read("front-pressure", 200.0)
    assert read.minutes == tested.minutes + 20
    assert found.value >= 0.0
    wrong = next(one.id for one in read.fault.tracing.causes if one not in read.fault.causes)
    named = read.name(wrong)
    assert named.minutes == read.minutes + WRONG
    assert named.wrong == (wrong,)
    assert not named.done


def test_the_cause_named_ends_it_and_the_shortest_way_is_told() -> None:
    started = exercise(demo("roadster"), 1, 3)
    [cause] = started.fault.causes
    ended = started.name(cause.id)
    assert ended.done
    assert rests(ended) == ()
    told = debrief(ended)
    assert told.minutes == sum(one.minutes for one in told.best)
    assert told.passed == tuple(one.test for one in told.best)  # none of it was made


def test_two_faults_are_named_one_after_another() -> None:
    started = exercise(bed("library"), 3, 11)
    first, second = started.fault.causes
    half = started.name(first.id)
    assert not half.done
    assert rests(half) == (second,)
    assert half.name(second.id).done


def test_following_the_best_tests_gets_there_in_most_vehicles() -> None:
    """A scripted apprentice: the best test each time, then the likeliest cause."""
    names, right = demo_names(), 0
    for seed in range(16):
        one = exercise(demo(names[seed % 4]), 1, seed)
        for _ in range(10):
            known = one.known()
            if known.ranked[0].share > 0.6 or not known.tests:
                break
            one = one.test(known.tests[0].test)
        right += one.name(one.known().ranked[0].cause.id).done
    assert right >= 12
