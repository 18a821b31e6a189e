"""What gauges say of a valve: each thing that can be wrong with it, on many vehicles."""

from collections import Counter

import numpy as np
import pytest

from tests.builds import bed, gauge_run
from urgens.bench.gauges.simulated_gauges import readings
from urgens.bench.plant.plant import plant
from urgens.bench.plant.valve_faults import CAUSES, cause
from urgens.bench.sentences import verdict_words
from urgens.document import Build, BuildErrors, demo, edited
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import UnitSystem
from urgens.studies.expected_pressures import expected, gauged_valves, schedule
from urgens.studies.valve_verdict import ValveVerdict, gauge_error, read_next, read_valve

PSI = 6894.757
SCALE = {"front[0]": 600 * PSI, "rear[0]": 1500 * PSI}
INCH = FigureWords(UnitSystem.INCH)


def verdicts(build: Build, valve: str, fault: str | None, count: int = 40) -> Counter[str]:
    wanted, scale = expected(build, valve), SCALE[valve]
    at = schedule(wanted, scale, PSI)
    found: Counter[str] = Counter()
    for seed in range(count):
        real = plant(build, seed, None if fault is None else cause(fault))
        chance = np.random.default_rng(seed)
        points = readings(real, valve, at, at[::-2], scale, 1.6, chance)
        read = read_valve(gauge_run(valve, scale, 1.6, points), wanted)
        found[str(read.verdict)] += 1
        headline, beneath = verdict_words(read, INCH)
        assert headline
        assert beneath.endswith(".")
    return found


@pytest.mark.parametrize(
    ("name", "valve", "fault", "verdict"),
    [
        ("library", "rear[0]", None, "reduces"),
        ("roadster", "rear[0]", None, "reduces"),
        ("library", "rear[0]", "valve-stuck-open", "does-not-reduce"),
        ("roadster", "rear[0]", "valve-stuck-open", "does-not-reduce"),
        ("library", "rear[0]", "valve-blocked", "blocked"),
        ("roadster", "rear[0]", "valve-limits", "limits"),
        ("roadster", "rear[0]", "valve-blocked", "blocked"),
        ("library", "rear[0]", "valve-stuck", "blocked"),
        ("roadster", "rear[0]", "valve-stuck", "blocked"),
        ("library", "rear[0]", "knee-high", "reduces"),
        ("library", "rear[0]", "knee-low", "reduces"),
        ("library", "front[0]", None, "meters"),
        ("library", "front[0]", "metering-open", "does-not-meter"),
        ("library", "front[0]", "metering-shut", "blocked"),
    ],
)
def test_each_fault_has_its_verdict(name: str, valve: str, fault: str | None, verdict: str) -> None:
    found = verdicts(demo(name), valve, fault)
    assert found[verdict] >= 0.9 * sum(found.values()), found


@pytest.mark.parametrize("name", ["library", "roadster"])
def test_a_second_valve_is_asked_for_unless_two_knees_show(name: str) -> None:
    """One whose knee is near the first's cannot be told from one of another slope."""
    build, wanted = demo(name), expected(demo(name), "rear[0]")
    at = schedule(wanted, SCALE["rear[0]"], PSI)
    for seed in range(20):
        real = plant(build, seed, cause("second-valve"))
        chance = np.random.default_rng(seed)
        points = readings(real, "rear[0]", at, np.empty(0), SCALE["rear[0]"], 1.6, chance)
        read = read_valve(gauge_run("rear[0]", SCALE["rear[0]"], 1.6, points), wanted)
        assert read.verdict is ValveVerdict.TWO or read.other_slope
        said = " ".join(verdict_words(read, INCH))
        assert "second valve" in said


def test_a_zero_is_taken_out_before_a_valve_is_called_blocked() -> None:
    """On 200 vehicles whose gauges are off by up to their class, nothing follows: it is blocked."""
    for fault in ("valve-blocked", "valve-stuck"):
        assert verdicts(demo("library"), "rear[0]", fault, 200) == {"blocked": 200}


def test_a_knee_that_is_off_is_outside_what_was_expected() -> None:
    build, at = bed("library"), "rear[0]"
    wanted = expected(build, at)
    inside = {}
    for fault in (None, "knee-high", "knee-low"):
        real = plant(build, None, None if fault is None else cause(fault))
        points = readings(real, at, schedule(wanted, SCALE[at], PSI), np.empty(0), SCALE[at], 1.6,
                          np.random.default_rng(3))  # fmt: skip
        inside[fault] = read_valve(gauge_run(at, SCALE[at], 1.6, points), wanted).within
    assert inside == {None: True, "knee-high": False, "knee-low": False}


def run_of(pairs: list[tuple[float, float]]) -> list[tuple[float, float, str]]:
    return [(into * PSI, out * PSI, "rising") for into, out in pairs]


HALF = [(p, min(p, 400 + 0.35 * (p - 400))) for p in range(100, 1300, 100)]


# By hand: behind the first a second valve of 0.5 from 480 psi on, which is 629 psi before both.
FINE = [(p, min(p, 400 + 0.35 * (p - 400))) for p in range(50, 1300, 50)]
TWICE = [(into, min(out, 480 + 0.5 * (out - 480))) for into, out in FINE]


@pytest.mark.parametrize(
    ("pairs", "verdict", "words"),
    [
        ([(out, into) for into, out in HALF], "gauges-differ", "swapped"),  # the other way round
        ([(into, out + 60) for into, out in HALF], "gauges-differ", "differ by more"),
        ([(into, out - 60) for into, out in HALF], "gauges-differ", "differ by more"),
        (HALF[:3], "too-few-points", "On by 0 psi at 300 psi"),
        ([HALF[5]], "too-few-points", "On by 130 psi at 600 psi"),  # one pair that was held
        (HALF[:5], "too-few-points", "On by 65 psi at 500 psi"),  # one reading above the knee
        ([(p, p) for p in range(100, 500, 80)], "too-few-points", "On by 0 psi at 420 psi"),
        (HALF, "reduces", "knee 400"),
        ([(p, 4.0) for p in range(100, 1300, 100)], "blocked", "Blocked"),
        ([(p, 40.0) for p in range(100, 1300, 100)], "blocked", "Blocked"),  # its zero, or kept in
        ([(p, 400.0) for p in range(500, 1300, 100)], "too-few-points", "On by 800 psi"),
        ([(p, min(p, 400 + 0.15 * (p - 400))) for p in range(100, 1300, 100)], "reduces", "0.15"),
        (TWICE, "two-in-series", "reduces twice"),
    ],
)
def test_a_hand_written_run_is_judged(
    pairs: list[tuple[float, float]], verdict: str, words: str
) -> None:
    wanted = expected(bed("library"), "rear[0]")
    read = read_valve(gauge_run("rear[0]", 1500 * PSI, 1.6, run_of(pairs)), wanted)
    assert read.verdict == verdict
    assert words in verdict_words(read, INCH)[0]


def test_the_outlet_stays_up_on_the_way_back() -> None:
    """Common practice: a reducing valve's outlet stays until the inlet has come down to it."""
    at, scale = "rear[0]", 1500 * PSI
    wanted = expected(bed("library"), at)
    steps = schedule(wanted, scale, PSI)
    points = readings(plant(bed("library")), at, steps, steps[::-1], scale, 0.1,
                      np.random.default_rng(0))  # fmt: skip
    read = read_valve(gauge_run(at, scale, 0.1, points), wanted)
    top = 400 + 0.35 * (1400 - 400)  # psi at the last reading: it stays there down to itself
    assert read.hysteresis is not None
    assert read.hysteresis / PSI == pytest.approx(top - (400 + 0.35 * (top - 400)), abs=100)


def test_what_to_read_next_goes_up_and_ends() -> None:
    at, scale = "rear[0]", 1500 * PSI
    wanted = expected(bed("library"), at)
    steps = schedule(wanted, scale, PSI)
    assert steps / PSI == pytest.approx(np.arange(100, 1500, 100))
    assert read_next(None, None, steps) == steps[0]
    so_far: list[tuple[float, float, str]] = []
    asked = []
    for _ in range(20):
        run = gauge_run(at, scale, 1.6, so_far)
        following = read_next(run, read_valve(run, wanted) if so_far else None, steps)
        if following is None:
            break
        asked.append(following)
        so_far.append((following, float(wanted.outlet(np.asarray(following))), "rising"))
    assert asked == sorted(asked)
    assert len(asked) == len(steps)


def test_only_valves_that_gauges_can_read_are_asked_for() -> None:
    build = bed("library")
    assert gauged_valves(build) == ("front[0]", "rear[0]")
    kept = edited(build, "valves.rear", [{"kind": "residual", "pressure": "10 psi"}])
    assert gauged_valves(kept) == ("front[0]",)
    with pytest.raises(BuildErrors, match="not in this build"):
        expected(kept, "rear[0]")
    with pytest.raises(BuildErrors, match="not in this build"):
        expected(build, "rear[4]")


def test_a_ball_passes_all_while_the_vehicle_stands() -> None:
    ball = [{"kind": "inertia-sensing", "ball_angle": "20 deg", "slope": 0.3}]
    build = edited(demo("tractor"), "valves.rear", ball)
    wanted = expected(build, "rear[0]")
    pairs = [(p, p) for p in range(100, 900, 100)]
    read = read_valve(gauge_run("rear[0]", 1500 * PSI, 1.6, run_of(pairs)), wanted)
    assert wanted.knee is None
    assert (read.verdict, read.within) == (ValveVerdict.PASSES_ALL, True)


def test_a_gauge_s_class_is_a_share_of_its_scale() -> None:
    """EN 837-1: class 1.6 of 100 bar is 1.6 bar."""
    assert gauge_error(gauge_run("rear[0]", 1e7, 1.6, [])) == pytest.approx(1.6e5)


def test_a_cause_asks_for_what_it_needs() -> None:
    build = edited(bed("library"), "valves", {"front": [], "rear": []})
    for one in CAUSES:
        if one.name.startswith(("valve", "knee", "second", "metering")):
            with pytest.raises(BuildErrors, match=one.name):
                plant(build, 1, one)
        else:
            assert plant(build, 1, one).cause is one
    with pytest.raises(BuildErrors, match="valve-blocked"):
        cause("valve-bloked")
