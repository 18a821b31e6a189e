"""Draws under real tolerances: against single builds, SciPy and themselves."""

import json
import tracemalloc
from typing import Any

import numpy as np
import pytest
from scipy.stats import spearmanr

from tests.builds import bakery_with, bed, bed_text
from urgens.cli.main import main
from urgens.document import demo_names, edited
from urgens.document.evidence import open_figures
from urgens.physics.axle import AXLES
from urgens.physics.valve_law import Felt
from urgens.printed.robustness import printed_robustness
from urgens.solve import AxleName, first_lock, system
from urgens.studies.draws import drawn, laid, spreads
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.robustness import Robustness, robustness


def of(name: str, draws: int = 4000, seed: int = 1) -> Robustness:
    found = robustness(bed(name), 0, draws, seed)
    assert found is not None
    return found


@pytest.mark.parametrize("name", demo_names())
def test_each_draw_is_the_first_lock_of_that_build(name: str) -> None:
    """A hundred draws put into the build one by one and solved in full."""
    build, count = bed(name), 100
    figures = spreads(build, 0)
    values = drawn(build, figures, count, np.random.default_rng(1))
    found = of(name, count)
    rear = np.zeros(len(found.surfaces))
    efficiency = []
    for draw in range(count):
        made = system(build, over=laid(build, figures, values[:, draw]))
        lock = first_lock(made, made.case(0), np.array(found.surfaces))
        rear += lock.axle == AxleName.REAR
        efficiency.append(lock.efficiency)

    assert found.rear_first == pytest.approx(rear / count, abs=1e-9)
    by_surface = np.array(efficiency).T
    for band, drawn_ in zip(found.efficiency, by_surface, strict=True):
        known = drawn_[np.isfinite(drawn_)]
        expected = np.percentile(known, [5, 50, 95]) if known.size else np.full(3, np.nan)
        assert band == pytest.approx(expected, abs=2e-3, nan_ok=True)


def test_the_same_seed_gives_the_same_answer_and_another_a_near_one() -> None:
    assert of("bakery") == of("bakery")
    other = of("bakery", seed=2)

    assert of("bakery") != other
    assert other.rear_first == pytest.approx(of("bakery").rear_first, abs=0.04)


def test_draws_go_in_blocks_and_take_no_more_memory(monkeypatch: pytest.MonkeyPatch) -> None:
    """Ten blocks of draws peak where one does; the first block is that of as many draws."""
    monkeypatch.setattr("urgens.studies.robustness.BLOCK", 2000)

    def peak(draws: int) -> tuple[Robustness, float]:
        tracemalloc.start()
        found = of("bakery", draws)
        high = tracemalloc.get_traced_memory()[1]
        tracemalloc.stop()
        return found, float(high)

    of("bakery", 10)  # what is loaded the first time counts for neither
    one, small = peak(2000)
    ten, large = peak(20_000)

    assert large < 1.3 * small
    assert ten.efficiency == one.efficiency
    assert ten.sensitivity == one.sensitivity
    assert ten.rear_first == pytest.approx(one.rear_first, abs=0.05)
    assert ten.rear_first != one.rear_first


def test_a_study_of_many_blocks_is_told_of_and_can_be_stopped(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr("urgens.studies.robustness.BLOCK", 100)
    told: list[float] = []

    def go_on(share: float) -> bool:
        told.append(share)
        return share < 0.5

    assert robustness(bed("bakery"), 0, 400, progress=go_on) is None
    assert told == [0.0, 0.25, 0.5]


@pytest.mark.parametrize(
    "path", ["targets.max_effort", "targets.surface", "pedal.travel_available"]
)
def test_a_spread_on_any_target_takes_memory_by_the_draws_not_their_square(path: str) -> None:
    known = {path: {"state": "assumed", "spread": "10 %"}}
    build = edited(bed("bakery"), "evidence", known)
    high = []
    robustness(build, draws=10)
    for draws in (1000, 4000):
        tracemalloc.start()
        assert robustness(build, draws=draws) is not None
        high.append(tracemalloc.get_traced_memory()[1])
        tracemalloc.stop()

    assert high[1] < 5.0 * high[0]


def test_where_no_draw_comes_near_the_limit_nothing_is_said_to_matter() -> None:
    found = robustness(edited(bed("roadster"), "targets.max_effort", "20 N"), draws=200)
    assert found is not None

    assert len(found.sensitivity) > 5
    assert {share for _, share in found.sensitivity} == {0.0}


def test_influence_is_squared_rank_correlation_as_scipy_has_it() -> None:
    """The margin near the limit written out: adhesion used at 0.8 of the surface, draw by draw."""
    build, count = bed("sprint"), 300
    figures = spreads(build, 0)
    values = drawn(build, figures, count, np.random.default_rng(1))
    margins = []
    for draw in range(count):
        made = system(build, over=laid(build, figures, values[:, draw]))
        standing = made.case(0)
        wanted = 0.8 * build.targets.surface
        # Discs without valves: forces in one proportion, whatever the pressure.
        front, rear = (
            end.torque_per_pressure / end.rolling_radius
            for end in (made.ends.front, made.ends.rear)
        )
        total = wanted * float(standing.weight)
        moved = total * float(standing.transfer)
        used = [
            total * share / (front + rear) / load
            for share, load in (
                (front, float(standing.front_weight) + moved),
                (rear, float(standing.rear_weight) - moved),
            )
        ]
        margins.append(used[1] - used[0])
    squared = np.array([spearmanr(row, margins).statistic ** 2 for row in values])
    expected = dict(zip([f.path for f in figures], squared / squared.sum(), strict=True))
    found = dict(of("sprint", count).sensitivity)

    assert found == pytest.approx(expected, abs=1e-3)
    assert sum(found.values()) == pytest.approx(1.0)


def test_friction_front_and_rear_goes_together_by_half() -> None:
    build = bed("sprint")
    figures = spreads(build, 0)
    values = drawn(build, figures, 40_000, np.random.default_rng(3))
    rows = {figure.path: row for figure, row in zip(figures, values, strict=True)}
    front, rear = rows["front.brake.pad_friction"], rows["rear.brake.pad_friction"]
    height = rows["vehicle.load_cases[0].cg_height"]

    assert np.corrcoef(front, rear)[0, 1] == pytest.approx(0.5, abs=0.02)
    assert np.corrcoef(front, height)[0, 1] == pytest.approx(0.0, abs=0.02)
    assert front.std() == pytest.approx(0.42 * 0.05, rel=0.02)  # 10 % is two deviations


def test_what_is_drawn_could_be() -> None:
    known = {"state": "assumed", "spread": "300 %"}
    build = bakery_with({'evidence["front.brake.pad_friction"]': known})
    figures = spreads(build, 0)
    values = drawn(build, figures, 5000, np.random.default_rng(1))

    assert (values > 0).all()
    slope = next(i for i, f in enumerate(figures) if f.path.endswith(".slope"))
    assert (values[slope] < 1).all()


def test_other_load_cases_do_not_spread_and_evidence_counts() -> None:
    known = {"state": "measured", "spread": "0.1 in"}
    build = bakery_with({'evidence["rear.brake.drum_diameter"]': known})
    paths = [figure.path for figure in spreads(build, 1)]

    assert "vehicle.load_cases[1].cg_height" in paths
    assert "vehicle.load_cases[0].cg_height" not in paths
    assert "rear.brake.drum_diameter" in paths


def test_it_tells_how_far_it_is_and_stops_when_told() -> None:
    shares: list[float] = []

    def progress(share: float) -> bool:
        shares.append(share)
        return share < 0.5

    assert robustness(bed("sprint"), draws=20_000, progress=progress) is None
    assert shares[0] == 0.0
    assert shares[-1] >= 0.5
    assert len(shares) < 20


def test_surely_front_first_and_surely_not() -> None:
    """A rear that carries nearly nothing always locks first; a rear brake that is tiny never."""
    tiny = edited(bed("sprint"), "rear.brake.effective_radius", "0.4 in")
    huge = edited(bed("sprint"), "rear.brake.effective_radius", "40 in")

    found = [robustness(build, draws=500) for build in (tiny, huge)]
    assert found[0] is not None
    assert found[1] is not None
    assert found[0].rear_first[-1] == 0.0
    assert found[1].rear_first[-1] == 1.0


@pytest.mark.parametrize("name", demo_names())
def test_a_system_of_arrays_is_the_stack_of_systems(name: str) -> None:
    """Figures laid over a build at once, and one after the other."""
    build = bed(name)
    open_ones = open_figures(build)
    assert len(open_ones) > 5
    for figure in open_ones:
        ends = np.array([0.97, 1.0, 1.02]) * figure.value
        together = system(build, over={figure.path: ends})
        apart = [system(build, over={figure.path: float(end)}) for end in ends]
        for row, one in enumerate(apart):
            weights = np.broadcast_to(together.standing.front_weight, (3, len(one.case_names)))
            assert weights[row] == pytest.approx(np.asarray(one.standing.front_weight))
            for axle in AXLES:
                gain = np.broadcast_to(together.ends.of(axle).torque_per_pressure, 3)
                assert gain[row] == pytest.approx(one.ends.of(axle).torque_per_pressure)


def test_a_knee_from_a_table_may_spread_too() -> None:
    build = bed("roadster")
    path = "valves.rear[0].table[1][1]"
    together = system(build, over={path: np.array([[15e5], [17e5]])})
    apart = [system(build, over={path: value}) for value in (15e5, 17e5)]

    felt = Felt(1.0, 1.0)
    knees = [float(np.asarray(made.valves.rear[0].knee(felt))) for made in apart]
    assert np.ravel(together.valves.rear[0].knee(felt)) == pytest.approx(knees)


def test_it_is_printed_as_the_contract_says(tmp_path: Any, capsys: Any) -> None:
    path = tmp_path / "sprint.urgens.json"
    path.write_text(bed_text("sprint"), encoding="utf-8")
    command = ["robustness", str(path), "--draws", "500", "--load-case", "Driver, last fuel"]
    assert main(command) == 0
    first = capsys.readouterr().out
    assert main(command) == 0
    row = json.loads(first)

    assert capsys.readouterr().out == first  # same seed, same answer
    assert row["draws"] == 500
    assert row["load_case"] == "Driver, last fuel"
    assert set(row["rear_first"]) == set(row["efficiency"])
    assert set(row["rear_first"]) == {f"{0.15 + 0.05 * step:g}" for step in range(16)}
    assert all(len(band) == 3 for band in row["efficiency"].values())
    assert {"input", "share"} == set(row["sensitivity"][0])
    (anywhere,) = rear_first_chances([bed("sprint")])
    assert row["rear_first_anywhere"] == anywhere
    assert printed_robustness(of("sprint", 500), anywhere)["draws"] == 500
