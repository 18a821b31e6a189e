"""Draws over every figure there is: none lies inside the document, none is impossible."""

from typing import Any

import numpy as np
import pytest

from tests.builds import EVERYTHING, bakery_with, bed
from urgens.document import Build, BuildErrors, demo, demo_names, dumps, edited, loads
from urgens.document.catalogue import figures
from urgens.document.evidence import known_figures
from urgens.document.kinds.brakes import BRAKES
from urgens.document.numeric import NumericBuild
from urgens.document.possible import possible
from urgens.guidance import findings
from urgens.solve import solve
from urgens.studies.draws import drawn, laid, spreads
from urgens.studies.robustness import robustness
from urgens.studies.settle import still_to_settle


def whole_vehicles() -> list[Build]:
    """Builds that between them have every kind of part there is."""
    rear = [{"kind": "load-sensing", "points": [["700 kg", "20 bar"], ["1300 kg", "50 bar"]],
             "slope": 0.3, "follows": "static"}]  # fmt: skip
    return [
        *(bed(name) for name in demo_names()),
        bakery_with(EVERYTHING),
        bakery_with({"valves.rear": rear, "master.primary_stroke": "0.7 in"}),
    ]


@pytest.mark.parametrize("build", whole_vehicles(), ids=lambda build: build.name)
def test_a_spread_on_any_figure_is_drawn_and_settled(build: Build) -> None:
    """Evidence on every path there is, all together and each by itself."""
    paths = [one.path for one in figures(build) if one.kind != "text"]
    every = {path: {"state": "assumed", "spread": "4 %"} for path in paths}
    text = dumps(build)

    found = robustness(edited(build, "evidence", every), draws=300)
    assert found is not None
    assert {path for path, _ in found.sensitivity} >= {
        path for path in paths if "load_cases[1]" not in path and "load_cases[2]" not in path
        and build_value(build, path)
    }  # fmt: skip
    assert all(0.0 <= share <= 1.0 for share in found.rear_first)
    for path in paths[:: max(len(paths) // 12, 1)]:
        alone = edited(build, "evidence", {path: {"state": "assumed", "spread": "10 %"}})
        assert robustness(alone, draws=60) is not None, path
        assert path in {row.figure.path for row in still_to_settle(alone)}
    assert dumps(build) == text


@pytest.mark.parametrize("build", whole_vehicles(), ids=lambda build: build.name)
def test_any_figure_that_is_only_assumed_is_judged(build: Build) -> None:
    """Each by itself: also the foot's limit, which alone moves where a scan ends."""
    paths = [one.path for one in figures(build) if one.kind != "text"]
    some = [path for path in paths if path.startswith("targets")] + paths[::5]
    judged = 0
    for path in some:
        alone = edited(build, "evidence", {path: {"state": "assumed", "spread": "10 %"}})
        judged += len(findings(solve(alone))) >= 0

    assert "targets.max_effort" in paths
    assert judged == len(some) > 15


def build_value(build: Build, path: str) -> float:
    """What a figure is, of which a share is its spread: nothing of nothing."""
    return next(one.number for one in figures(build) if one.path == path)


def test_the_foot_itself_may_spread() -> None:
    """A weak foot locks nothing, and counts as no."""
    known = {"targets.max_effort": {"state": "assumed", "spread": "400 N"}}
    build = edited(bed("bakery"), "evidence", known)
    firm = edited(bed("bakery"), "evidence", {})
    found, sure = (robustness(one, draws=4000) for one in (build, firm))

    assert found is not None
    assert sure is not None
    assert found.rear_first[-1] < sure.rear_first[-1] - 0.02


def test_the_deeper_of_engine_and_pump_counts_draw_by_draw() -> None:
    build = bakery_with(EVERYTHING)
    vacuum, pump = np.array([10e3, 60e3]), np.array([30e3, 30e3])
    over = {"booster.vacuum": vacuum, "booster.pump": pump}
    from urgens.solve.system import system

    areas = sum(np.pi / 4 * d.value**2 for d in build.booster.diaphragm_diameters)  # type: ignore[attr-defined]
    assert system(build, over=over).booster.assist_limit == pytest.approx(
        areas * np.array([30e3, 60e3])
    )


@pytest.mark.parametrize(
    ("changes", "spread"),
    [
        ({}, {"rear.brake.shoe.lining_friction": "200 %"}),
        ({}, {"rear.brake.shoe.hinge_distance": "40 mm", "rear.brake.shoe.toe_angle": "90 deg"}),
        ({}, {"valves.front[0].close": "100 psi", "valves.front[0].open": "100 psi"}),
        ({}, {"booster.vacuum": "20 inHg", "vehicle.altitude": "3000 m"}),
        ({}, {"pedal.efficiency": "50 %", "rear.brake.efficiency": "50 %"}),
        (
            {"master": {"kind": "twin", "front_bore": "16 mm", "rear_bore": "16 mm"}},
            {"master.bar_offset": "2 in"},
        ),
    ],
)
def test_no_draw_is_one_that_could_not_be(changes: dict[str, Any], spread: dict[str, str]) -> None:
    """Grabbing shoes, a vacuum deeper than the air, a bearing beyond its rod: drawn anew."""
    known = {path: {"state": "assumed", "spread": width} for path, width in spread.items()}
    build = bakery_with({**EVERYTHING, **changes, "evidence": known})
    figures_ = spreads(build, 0)
    values = drawn(build, figures_, 3000, np.random.default_rng(1))

    assert np.all(possible(NumericBuild(build, laid(build, figures_, values))))
    for figure, row in zip(figures_, values, strict=True):
        assert not figure.outside(row).any(), figure.path
    found = robustness(build, draws=300)
    assert found is not None
    assert np.all(np.isfinite(found.rear_first))


def test_a_spread_that_leaves_nothing_is_refused_in_words() -> None:
    known = {"rear.brake.pad_friction": {"state": "assumed", "spread": "99999999 %"}}
    build = edited(bed("roadster"), "evidence", known)

    with pytest.raises(BuildErrors) as refused:
        robustness(build, draws=2000)
    assert str(refused.value) == (
        'evidence["rear.brake.pad_friction"].spread: leaves hardly a figure that could be; '
        "write a smaller spread"
    )


def test_every_kind_of_brake_says_which_figure_grips() -> None:
    for record in BRAKES:
        build = bakery_with({"rear.brake": record.new})
        assert f"rear.brake.{record.friction(build.rear.brake)}" in {
            one.path for one in figures(build)
        }
        assert loads(dumps(build)) == build


def test_knees_that_are_measured_spread_by_that_and_no_more_by_what_is_usual() -> None:
    """Common practice: a valve off the shelf is off as a whole; a gauged one by the gauges."""
    build = edited(bed("roadster"), "evidence", {})
    table = "valves.rear[0].table"
    assert spread_of(build, table) == [table]
    rows = len(build.valves.rear[0].table)
    known = {f"{table}[{row}][1]": {"state": "measured", "spread": "2 %"} for row in range(rows)}
    gauged = edited(build, "evidence", known)
    assert spread_of(gauged, table) == list(known)
    part = dict(list(known.items())[1:])
    assert spread_of(edited(build, "evidence", part), table)[-1] == table


def spread_of(build: Build, place: str) -> list[str]:
    return [one.path for one in spreads(build, 0) if one.path.startswith(place)]


def test_a_figure_that_was_read_and_is_typed_anew_is_known_as_it_is_now() -> None:
    """What is kept of a build's figures is looked up anew where a stop is another."""
    build = demo("roadster")
    read = [one for one in figures(build) if one.path.startswith("proof.")]
    some = [one for one in known_figures(build) if one.path.startswith("proof.")]
    assert read
    for one in some[:6]:
        other = edited(build, one.path, f"1.01*{one.text}")
        known_figures(build)
        found = {known.path: known.value for known in known_figures(other)}
        assert found[one.path] == pytest.approx(1.01 * one.value)
