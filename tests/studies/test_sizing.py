"""Every bore with every ratio: cells against the scalar second way, windows, order, extremes."""

import json
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed, bed_text
from tests.solve import second_way
from tests.strategies import documents
from urgens.cli.main import main
from urgens.document import Build, demo_names, edited, loads, with_changes
from urgens.document.kinds.bores import bore_table, sold_bores
from urgens.solve import solve
from urgens.studies.sizing import RATIOS, SizingMap, rear_bores_of, sizing_map
from urgens.studies.sizing_regions import regions
from urgens.studies.sizing_windows import MissedWindow

BORES = np.array([0.0175, 0.019, 0.0222, 0.0254, 0.0286])
FEW = np.array([3.5, 4.8, 6.0, 7.2])


def of(build: Build, bores: np.ndarray = BORES, ratios: np.ndarray = FEW) -> SizingMap:
    rears = rear_bores_of(build, bores)
    return sizing_map(build, 0, bores[rears > 0], rears[rears > 0], ratios)


def cell_build(build: Build, front: float, rear: float, ratio: float) -> Build:
    """The build with one bore and one ratio, through the document."""
    pad = build.pedal.pivot_to_pad.value
    changes: dict[str, object] = {"pedal.pivot_to_pushrod": f"{pad / ratio:.12g} m"}
    if build.master.kind == "twin":
        changes |= {"master.front_bore": f"{front:.12g} m", "master.rear_bore": f"{rear:.12g} m"}
    elif build.master.kind == "stepped":
        large = build.master.large_bore.value * front / build.master.small_bore.value
        changes |= {"master.small_bore": f"{front:.12g} m", "master.large_bore": f"{large:.12g} m"}
    else:
        changes["master.bore"] = f"{front:.12g} m"
    return with_changes(build, changes)


@settings(max_examples=25)
@given(documents(), st.integers(0, 4), st.integers(0, 3))
def test_a_cell_is_the_scalar_way_through_an_edited_document(
    document: dict[str, Any], row: int, column: int
) -> None:
    build = loads(json.dumps(document))
    found = of(build)
    row = min(row, found.bores.size - 1)
    at = (row, column)
    one = cell_build(build, found.bores[row], found.rear_bores[row], FEW[column])
    comfortable = build.targets.comfortable_effort.value
    pressure = second_way.cylinder_pressures(one, comfortable)[0]
    assert found.pressure[at] == pytest.approx(pressure, rel=1e-9)
    effort = found.effort[at]
    if np.isfinite(effort):
        z = second_way.axle_forces(one, 0, float(effort) * (1 + 1e-7))[2]
        assert z >= build.targets.deceleration - 1e-5
        z = second_way.axle_forces(one, 0, float(effort) * (1 - 1e-4))[2]
        assert z <= build.targets.deceleration + 1e-9
    else:
        z = second_way.axle_forces(one, 0, build.targets.max_effort.value)[2]
        assert z < build.targets.deceleration + 1e-9


@pytest.mark.parametrize("name", demo_names())
def test_travel_and_halves_are_those_of_the_edited_build(name: str) -> None:
    build = bed(name)
    found = of(build)
    for at in ((0, 0), (2, 1), (found.bores.size - 1, 3)):
        one = cell_build(build, found.bores[at[0]], found.rear_bores[at[0]], FEW[at[1]])
        effort = found.effort[at]
        effort = build.targets.comfortable_effort.value if np.isnan(effort) else effort
        solution = solve(one, efforts=np.array([effort]))
        if found.stroke_used[at] <= 1:
            assert found.pedal_travel[at] == pytest.approx(
                float(solution.presses.pedal_travel[0]), rel=1e-6, nan_ok=True
            )
        halves = [float(half.pedal_travel[0]) for half in solution.half_failed]
        assert found.half_failed_travel[at] == pytest.approx(
            float("nan") if len(halves) < 2 else np.max(halves), rel=1e-6, nan_ok=True
        )


@pytest.mark.parametrize("name", demo_names())
def test_smaller_bores_and_larger_ratios_give_more_pressure(name: str) -> None:
    """Pascal's law and the lever; "fit the biggest bore you can" is the trade's oldest mistake."""
    found = of(bed(name))

    assert (np.diff(found.pressure, axis=0) < 0).all()
    assert (np.diff(found.pressure, axis=1) > 0).all()
    efforts = np.nan_to_num(found.effort, nan=np.inf)
    assert (efforts[1:] >= efforts[:-1]).all()


@pytest.mark.parametrize("name", demo_names())
def test_the_verdict_names_the_first_window_that_is_missed(name: str) -> None:
    build = bed(name)
    found = of(build)
    low, high = (quantity.value for quantity in build.targets.pressure_window)
    furthest = build.pedal.travel_available.value - 0.025  # 25 mm left; common practice
    comfortable = build.targets.comfortable_effort.value
    helped = build.booster.kind != "none" and build.booster.works
    for at in np.ndindex(found.verdict.shape):
        ratio = found.ratios[at[1]]
        missed = [
            np.isnan(found.effort[at]),
            not low <= found.pressure[at] <= high,
            not found.pedal_travel[at] <= furthest,
            found.stroke_used[at] > 1,
            build.master.kind != "single" and not found.half_failed_holds[at],
            ratio > 5.5 if helped else ratio < 5 and not found.effort[at] <= comfortable,
            found.hold_effort is not None and np.isnan(found.hold_effort[at]),
            found.bar_ratio is not None and ratio > found.bar_ratio[at[0], 0],
            found.in_balance is not None and not found.in_balance[at[0], 0],
        ]
        assert [bool(found.misses[at] & 1 << kind) for kind in range(1, 10)] == missed
        wanted = missed.index(True) + 1 if True in missed else 0
        assert found.verdict[at] == wanted, at
        assert 0.0 <= found.score[at] <= 1.0


@settings(max_examples=25)
@given(documents(), st.floats(3.0, 9.0))
def test_regions_end_where_the_verdict_of_the_map_changes(
    document: dict[str, Any], ratio: float
) -> None:
    """At any ratio, and on both sides of every edge, region and cell say the same."""
    build = loads(json.dumps(document))
    rears = rear_bores_of(build, BORES)
    pairs = BORES[rears > 0], rears[rears > 0]
    found = regions(build, 0, *pairs, (3.0, 9.0))
    for row in range(pairs[0].size):
        stretches = found.row(row)
        assert stretches[0][0] == 3.0
        assert stretches[-1][1] == 9.0
        inner = [end for _, end, _ in stretches[:-1]]
        beside = [x * (1 + side * 1e-6) for x in inner for side in (-1, 1)]
        tried = np.array(sorted({ratio, *(x for x in beside if 3.0 < x < 9.0)}))
        cells = sizing_map(build, 0, *(p[row : row + 1] for p in pairs), tried).verdict[0]
        for at, cell in zip(tried, cells, strict=True):
            near = {kind for start, end, kind in stretches if start - 1e-9 <= at <= end + 1e-9}
            narrow = {
                kind for start, end, kind in stretches
                if end - start < 1e-4 and start - 1e-4 < at < end + 1e-4
            }  # fmt: skip
            assert MissedWindow(int(cell)) in near | narrow, (row, at)


@pytest.mark.parametrize(("circuits", "turns"), [("front-rear", 2), ("diagonal", 3)])
def test_one_half_lost_may_hold_and_not_hold_by_turns(circuits: str, turns: int) -> None:
    """What is left rises with the ratio, falls as an axle locks and keeps half, and rises again.

    Source: a sliding tyre passes less than one that rolls (Gillespie, from memory). The map and
    the exact regions, which work it out apart, say the same at every ratio.
    """
    build = with_changes(bed("sprint"), {"circuits": circuits, "targets.locked_grip": 0.5})
    rears = rear_bores_of(build, BORES)
    pairs = BORES[rears > 0], rears[rears > 0]
    tried = np.linspace(3.0, 9.0, 1201)[1:-1]
    cells = sizing_map(build, 0, *pairs, tried)
    held = cells.half_failed_holds
    found = regions(build, 0, *pairs, (3.0, 9.0))

    assert np.abs(np.diff(held.astype(int), axis=1)).sum(axis=1).max() == turns
    for row, verdicts in enumerate(cells.verdict):
        for at, verdict in zip(tried, verdicts, strict=True):
            near = {kind for start, end, kind in found.row(row) if start <= at <= end}
            assert MissedWindow(int(verdict)) in near, (row, at)


def test_a_reserve_of_stroke_is_a_window_of_its_own() -> None:
    build = bed("bakery")
    most = float(of(build).stroke_used.max())
    keen = edited(build, "targets.stroke_reserve", 0.6)
    found = of(keen)
    fuller = found.stroke_used > 0.4

    assert fuller.any()
    assert most == float(found.stroke_used.max())
    earlier = np.isin(
        found.verdict, [MissedWindow.EFFORT, MissedWindow.PRESSURE, MissedWindow.TRAVEL]
    )
    assert (found.verdict[fuller & ~earlier] == MissedWindow.STROKE).all()
    assert not (found.verdict[~fuller] == MissedWindow.STROKE).any()


def test_a_driveline_to_hold_has_a_window_on_the_map() -> None:
    """Each cell holds if its build does, as solved alone."""
    build = bed("sprint")
    found = of(build)
    assert found.hold_effort is not None
    for at in np.ndindex(found.verdict.shape):
        one = cell_build(build, found.bores[at[0]], found.rear_bores[at[0]], FEW[at[1]])
        held = solve(one, surface=build.targets.surface).hold
        assert held is not None
        effort = np.nan if held.effort is None else held.effort
        assert found.hold_effort[at] == pytest.approx(effort, rel=1e-6, nan_ok=True)
        if found.verdict[at] in (MissedWindow.FITS, MissedWindow.HOLD):
            assert (found.verdict[at] == MissedWindow.FITS) == held.holds
    assert of(bed("bakery")).hold_effort is None
    assert of(edited(build, "vehicle.use", "street")).hold_effort is not None


def test_only_what_fits_is_ranked_best_first() -> None:
    build = bed("mailvan")
    found = of(build, np.array([b.value for b in sold_bores()]), RATIOS)
    scores = [found.score[at] for at in found.ranked()]

    assert scores == sorted(scores, reverse=True)
    assert len(scores) == (found.verdict == MissedWindow.FITS).sum() > 0


def test_a_bar_whose_stop_holds_in_some_cells_only_is_told_apart() -> None:
    """Each cell has its own bar: what stops in one does not stop in another."""
    build = edited(bed("roadster"), "master.bar_max_angle", "9 deg")
    found = of(build)
    for at in np.ndindex(found.verdict.shape):
        one = cell_build(build, found.bores[at[0]], found.rear_bores[at[0]], FEW[at[1]])
        halves = [float(half.pedal_travel[0]) for half in solve(one).half_failed]
        assert found.half_failed_travel[at] == pytest.approx(np.max(halves), nan_ok=True), at


def test_the_shipped_bores_are_those_the_trade_names() -> None:
    """Common practice: 5/8, 0.700, 3/4 … 1-1/4 in and their metric neighbours."""
    texts = {bore.text for bore in sold_bores()}
    named = [
        "5/8",
        "0.700",
        "3/4",
        "13/16",
        "7/8",
        "15/16",
        "1",
        "1-1/32",
        "1-1/16",
        "1-1/8",
        "1-1/4",
    ]

    assert {f"{size} in" for size in named} <= texts
    assert bore_table().source
    values = [bore.value for bore in sold_bores()]
    assert values == sorted(values)


# --- on the command line ---


@pytest.fixture
def truck(tmp_path: Any) -> str:
    path = tmp_path / "truck.urgens.json"
    path.write_text(bed_text("bakery"), encoding="utf-8")
    return str(path)


def test_the_map_is_printed_as_the_contract_says(truck: str, capsys: Any) -> None:
    assert main(["size", truck, "--bore", "1-1/8 in", "--bore", "1 in", "--ratio", "4"]) == 0
    printed = json.loads(capsys.readouterr().out)

    assert printed["bores"] == pytest.approx([1.125 * 0.0254, 0.0254])
    assert printed["ratios"] == [4.0]
    for name in ("pressure", "effort", "pedal_travel", "stroke_used", "half_failed_travel"):
        assert len(printed[name]) == 2
        assert len(printed[name][0]) == 1
    assert {word for row in printed["verdict"] for word in row} <= {
        "fits",
        "effort",
        "pressure",
        "travel",
        "stroke",
        "half-failed",
    }
    assert all({"bore", "ratio", "score", "why"} == set(row) for row in printed["ranked"])


def test_all_bores_and_ratios_are_the_default(truck: str, capsys: Any) -> None:
    assert main(["size", truck]) == 0
    printed = json.loads(capsys.readouterr().out)

    assert len(printed["bores"]) == len(sold_bores())
    assert printed["ratios"][0] == 3.0
    assert printed["ratios"][-1] == 8.0
    assert len(printed["ratios"]) == 51


@pytest.mark.parametrize(
    ("given", "words"),
    [
        (["--bore", "5"], "has no unit"),
        (["--bore", "0 in"], "is zero"),
        (["--ratio", "steep"], "no pedal ratio"),
        (["--load-case", "Nobody"], 'no load case "Nobody"'),
    ],
)
def test_what_cannot_be_sized_is_said(
    truck: str, capsys: Any, given: list[str], words: str
) -> None:
    try:
        code = main(["size", truck, *given])
    except SystemExit as ended:
        code = int(str(ended.code))

    assert code == 2
    assert words in capsys.readouterr().err


def test_twin_cylinders_are_sized_in_pairs(tmp_path: Any, capsys: Any) -> None:
    path = tmp_path / "hill.urgens.json"
    path.write_text(bed_text("roadster"), encoding="utf-8")
    assert main(["size", str(path), "--bore", "20 mm", "--bore", "20 mm:17 mm"]) == 0
    printed = json.loads(capsys.readouterr().out)

    assert printed["bores"] == [0.02, 0.02]
    assert printed["rear_bores"] == pytest.approx([0.02 - 0.01905 + 0.0159, 0.017])
