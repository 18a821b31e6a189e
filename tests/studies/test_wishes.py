"""Systems from wishes: the same as one by one, none beaten, none left out, the least relaxed."""

import itertools
import json
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.builds import EVERYTHING, bakery_with, bed
from urgens.cli.main import main
from urgens.document import Build, BuildErrors, demo, dumps, own_vehicle, with_changes
from urgens.guidance.advice.wish_cards import (
    bought_words,
    brings,
    chosen,
    claim,
    offered,
    system_words,
    why_not,
)
from urgens.printed.wishing import printed_wishes
from urgens.quantity import LENGTH, parse
from urgens.solve import solve
from urgens.solve.half_failed import half_failed
from urgens.solve.rear_first import rear_first_spans
from urgens.solve.roads import every_road
from urgens.solve.system import system
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.sizing import sizing_map
from urgens.studies.sizing_windows import MissedWindow
from urgens.studies.unlimited import unlimited
from urgens.studies.wishes.combinations import combinations
from urgens.studies.wishes.freedom import Cost, variables
from urgens.studies.wishes.relaxing import WishAnswer
from urgens.studies.wishes.survey import quick, slow
from urgens.studies.wishes.systems import asked, search, unbeaten
from urgens.studies.wishes.wanted import Wishes, usual_wishes, wished, with_wishes

BORES, RATIOS = ("11/16 in", "3/4 in", "7/8 in"), ("4.5", "5", "6")
FRICTIONS = ("0.4", "0.5")
SHELF = {"bore": list(BORES), "ratio": list(RATIOS), "front-friction": list(FRICTIONS)}


def answered(build: Build, wishes: Wishes, choices: Any) -> WishAnswer:
    found = search(build, wishes, choices)
    assert found is not None
    return found


def one_by_one(build: Build, wishes: Wishes) -> dict[tuple[str, ...], dict[str, float]]:
    """Every combination of the shelf as a build of its own, solved; those that keep all."""
    base = with_wishes(build, wishes)
    pad, found = base.pedal.pivot_to_pad.value, {}
    own = [None, *BORES], [None, *RATIOS], [None, *FRICTIONS]
    for bore, ratio, friction in itertools.product(*own):
        changes: dict[str, Any] = {}
        if bore:
            changes["master.bore"] = bore
        if ratio:
            changes["pedal.pivot_to_pushrod"] = f"{pad / float(ratio) * 1e3:.1f} mm"
        if friction:
            changes["front.brake.pad_friction"] = float(friction)
        made = with_changes(base, changes) if changes else base
        solution, names = solve(made), tuple(map(str, (bore, ratio, friction)))
        at = np.array([made.master.main_bore.value])
        ratios = np.array([float(solution.system.pedal_ratio)])
        misses = int(sizing_map(made, 0, at, at, ratios).misses[0, 0])
        hard = (MissedWindow.PRESSURE, MissedWindow.STROKE, MissedWindow.RATIO)
        figures = unlimited(made)
        halves = half_failed(solution.system, solution.system.standing, made.targets.surface)
        left = min(float(np.where(h.reached, h.z, 0.0).min()) for h in halves)  # 0: on the floor
        effort, travel = float(figures.effort[0]), float(figures.travel[0])
        roads = every_road(made)
        spans = rear_first_spans(solution.system, solution.system.standing, roads[0], roads[-1])
        floor = made.pedal.travel_available.value - travel
        kept = not any(misses & window.bit for window in hard) and not spans
        kept = kept and effort <= wishes.effort and floor >= wishes.floor
        kept = kept and left >= wishes.half_lost
        if kept and (wishes.travel is None or travel <= wishes.travel):
            parts = float(bore in BORES[:-1]) + float(friction == "0.5")
            found[names] = {
                "effort": effort, "travel": travel, "margin": float(figures.margin[0]),
                "parts": parts,
            }  # fmt: skip
    return found


def test_the_survivors_are_those_of_one_by_one_and_nobody_beats_them() -> None:
    """A shelf of 48 systems; the chance is let go, so that all is decided by the rest."""
    build = own_vehicle()
    wishes = wished(build, {"rear-first-chance": "1", "half-lost": "0.2"})
    kept = one_by_one(build, wishes)
    assert 3 <= len(kept) < 48
    assert build.master.main_bore.text == BORES[-1]  # which is there already, as is a ratio of 6
    found = answered(build, wishes, SHELF)

    rows = [(k["effort"], k["travel"], -k["margin"], k["parts"]) for k in kept.values()]
    table = sorted({tuple(round(value, 9) for value in row) for row in rows})
    best = [
        one for one in table
        if not any(all(o <= m + 1e-9 for o, m in zip(other, one, strict=True)) and other != one
                   for other in table)
    ]  # fmt: skip
    told = [
        (one.figures["effort"], one.figures["travel"], -one.margin, float(one.parts))
        for one in found.systems
    ]
    assert found.tried == 3 * 3 * 2
    assert len(told) == len(best)
    for mine, expected in zip(sorted(told), sorted(best), strict=True):
        assert mine == pytest.approx(expected, rel=1e-6, abs=1e-9)


@given(st.lists(st.tuples(*[st.integers(0, 4)] * 3), min_size=1, max_size=30))
def test_unbeaten_is_what_pareto_says(rows: list[tuple[int, int, int]]) -> None:
    kept = unbeaten(np.array(rows, dtype=float))

    def beaten(one: tuple[int, ...]) -> bool:
        return any(
            all(o <= m for o, m in zip(other, one, strict=True)) and other != one for other in rows
        )

    assert {rows[i] for i in np.flatnonzero(kept)} == {one for one in rows if not beaten(one)}
    assert len({rows[i] for i in np.flatnonzero(kept)}) == int(kept.sum())


@pytest.mark.parametrize("name", ["own", "roadster", "library", "everything"])
def test_rows_of_figures_do_what_their_builds_do(name: str) -> None:
    build = {"own": own_vehicle, "everything": lambda: bakery_with(EVERYTHING)}.get(
        name, lambda: bed(name)
    )()
    base = with_wishes(build, usual_wishes(build))
    choices = {"bore": None, "ratio": None, "bar": None, "rear-pistons": None, "valve": None}
    chance = np.random.default_rng(5)
    for group in combinations(base, choices):
        rows = chance.integers(0, group.count, 3)
        numbers = group.numbers(rows)
        at_once = quick(group.way.build, numbers, 3)
        later = slow(group.way.build, numbers, 3, usual_wishes(build))
        for place, row in enumerate(rows):
            one = group.system(int(row), 0, {}, 0.0)
            made = with_changes(base, {**one.changes})
            alone = unlimited(made)
            effort = at_once.figures["effort"][place]
            if np.isfinite(effort):
                assert effort == pytest.approx(float(alone.effort[0]), rel=1e-6)
                assert at_once.figures["travel"][place] == pytest.approx(
                    float(alone.travel[0]), rel=1e-6
                )
            assert later.margin[place] == pytest.approx(
                float(alone.margin[0]), rel=1e-6, abs=1e-9, nan_ok=True
            )


def test_every_card_keeps_every_wish_and_raises_nothing_when_it_is_taken() -> None:
    build = own_vehicle()
    wishes = wished(build, {"effort": "70 lbf"})
    found = answered(build, wishes, {**SHELF, "valve": None, "rear-pistons": None})
    offer = offered(build, wishes, found.systems, build.natural_units)

    assert offer is not None
    few = offer.cards
    assert 2 <= len(few) <= 5
    assert len({card.system.words for card in few}) == len(few)
    for card in few:
        made = with_changes(build, card.system.changes)
        solution = solve(made)
        assert solution.wanted_effort <= wishes.effort * (1 + 1e-9)
        (chance,) = rear_first_chances([made])
        assert card.system.chance == chance <= wishes.rear_first_chance
        assert not brings(build, wishes, card.system).new
        assert made.targets == build.targets  # less foot is wanted than is comfortable


def test_the_cards_are_unlike_and_have_the_best_of_each() -> None:
    build = own_vehicle()
    wishes = usual_wishes(build)
    found = answered(build, wishes, {**SHELF, "rear-pistons": None})
    few = chosen(found.systems)

    fewest = min(one.parts for one in found.systems)
    lightest = min(one.figures["effort"] for one in found.systems)
    assert fewest in [one.parts for one in few]
    assert lightest in [one.figures["effort"] for one in few]


def test_what_is_relaxed_is_the_least_by_trying_every_system() -> None:
    build = own_vehicle()
    asked_for = {"effort": "40 lbf", "rear-first-chance": "1", "half-lost": "0.2"}
    wishes = wished(build, asked_for)
    found = answered(build, wishes, SHELF)

    assert found.systems == ()
    least = np.inf
    for efforts in np.linspace(wishes.effort, 3 * wishes.effort, 25):
        if one_by_one(build, wished(build, {**asked_for, "effort": f"{efforts:.6f} N"})):
            least = efforts
            break
    (relaxed,) = found.relax
    assert relaxed.want == found.in_the_way == "effort"
    assert relaxed.start == wishes.effort
    step = 2 * wishes.effort / 24
    assert least - step <= relaxed.end <= least
    again = wished(build, {**asked_for, "effort": f"{relaxed.end * 1.0001:.6f} N"})
    assert answered(build, again, SHELF).systems


def test_the_chance_gives_way_where_nothing_else_is_in_the_way() -> None:
    build = own_vehicle()
    wishes = wished(build, {"rear-first-chance": "0.01", "half-lost": "0.05"})
    found = answered(build, wishes, {"bore": ["3/4 in"], "ratio": ["5"]})

    assert [one.want for one in found.relax] == ["rear-first-chance"]
    assert found.relax[0].end == pytest.approx(0.2, abs=0.05)


def test_where_no_wish_can_help_the_window_is_named() -> None:
    build = own_vehicle()
    found = answered(build, usual_wishes(build), {"bore": ["1/2 in"], "ratio": ["20"]})

    assert found.systems == ()
    assert found.relax == () or found.in_the_way is not None


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ({"effort": "x"}, 'want effort: "x" is not a figure'),
        ({"effort": "-3 lbf"}, 'want effort: "-3 lbf" is not above zero; write more'),
        ({"wish": "3"}, "want wish: is no wish; write one of effort"),
        ({"floor": "9 in"}, "want floor: more than the whole pedal, which has 6 in to the floor"),
        ({"deceleration": "1.4"}, "want deceleration: 1.4 g is more than the road gives, 0.9"),
        ({"effort": "900 lbf"}, "want effort: is more than the hardest foot, "),
        ({"hold": "90 lbf"}, "want hold: nothing tells what there is to hold"),
        ({"rear-first-chance": "5"}, "want rear-first-chance: is a share of 1; write 0.05"),
        ({"half-lost": "none"}, 'want half-lost: "none" is no number; write one, such as 0.9'),
    ],
)
def test_wishes_that_cannot_be_are_refused_in_words(typed: dict[str, str], words: str) -> None:
    with pytest.raises(BuildErrors) as refused:
        wished(own_vehicle(), typed)

    assert words in str(refused.value)


@pytest.mark.parametrize(
    ("choices", "words"),
    [
        ({"bore": ["a bore"]}, "may bore: "),
        ({"ratio": ["none"]}, 'may ratio: "none" is no number'),
        ({"cylinder": ["quad"]}, 'may cylinder: "quad" is none of them; write tandem'),
        ({"valve": ["magic"]}, 'may valve: "magic" is none of them; write own, none'),
        ({"valve": ["load-sensing"]}, "may valve: none of them can stand behind here"),
        ({"front-friction": ["-1"]}, 'may front-friction: "-1" is not above zero'),
    ],
)
def test_a_shelf_that_cannot_be_read_is_refused_in_words(choices: Any, words: str) -> None:
    with pytest.raises(BuildErrors) as refused:
        answered(own_vehicle(), usual_wishes(own_vehicle()), choices)

    assert words in str(refused.value)


def test_too_many_combinations_are_refused_with_their_number() -> None:
    every = dict.fromkeys(
        ("cylinder", "bore", "ratio", "booster", "front-pistons", "rear-pistons", "valve", "bar")
    )
    with pytest.raises(BuildErrors, match="combinations, of which 1,000,000 are worked out"):
        answered(own_vehicle(), usual_wishes(own_vehicle()), every)


def test_an_empty_shelf_is_what_is_there() -> None:
    build = own_vehicle()

    found = answered(build, wished(build, {"rear-first-chance": "1", "half-lost": "0.01"}), {})

    assert found.tried == 1
    assert [one.words for one in found.systems] == ["as it is"]
    assert found.systems[0].changes == {}


def test_it_stops_when_it_is_told_to() -> None:
    assert search(own_vehicle(), usual_wishes(own_vehicle()), SHELF, lambda share: False) is None


def test_why_not_names_what_is_missed_and_by_how_much() -> None:
    build = own_vehicle()
    wishes = usual_wishes(build)
    words = why_not(build, wishes, {"bore": "5/8 in"}, build.natural_units)
    one, windows = asked(build, wishes, {"bore": "5/8 in"})

    assert words.startswith("Bore 5/8 in misses pressure at the comfortable foot; ")
    assert windows == ["pressure"]
    floor = build.pedal.travel_available.value - one.figures["travel"]
    assert one.figures["floor"] == pytest.approx(floor)
    assert "pedal left above the floor 0.39 in where 0.98 in is wanted" in words


def test_nothing_is_against_what_fits() -> None:
    build = own_vehicle()
    wishes = wished(build, {"rear-first-chance": "0.3"})

    words = why_not(build, wishes, {"ratio": "6"}, build.natural_units)

    assert words.endswith("keeps every wish. Where it is no card, others stand for it, or beat it.")


def test_bores_of_a_stepped_cylinder_keep_their_step() -> None:
    build = with_changes(own_vehicle(), {
        "master": {"kind": "stepped", "large_bore": "32 mm", "small_bore": "22 mm"},
    })  # fmt: skip
    (bores,) = variables(build, {"bore": ["20 mm"]})

    small = parse("20 mm", LENGTH).value
    assert bores.options[1].numbers["master.small_bore"] == small
    large = bores.options[1].numbers["master.large_bore"]
    assert large == pytest.approx(small * 32 / 22, rel=1e-5)


def test_the_command_line_prints_systems_and_what_to_relax(
    tmp_path: Any, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "own.urgens.json"
    file.write_text(dumps(own_vehicle()), encoding="utf-8")
    may = ["--may", "bore=3/4 in; 7/8 in", "--may", "ratio=5;6", "--may", "front-friction=0.5"]

    assert main(["wish", str(file), *may, "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["tried"] == 2 * 2 * 2
    assert found["relax"] == []
    assert found["in_the_way"] is None
    for one in found["systems"]:
        assert one["effort"] <= system(own_vehicle()).max_effort
        assert one["price"] is None
        assert {"travel", "floor", "half_lost", "margin", "rear_first_chance"} <= set(one)
    assert found["systems"][0]["gives"]

    assert main(["wish", str(file), "--want", "effort=20 lbf", "--may", "bore"]) == 0
    assert "none keeps every wish. The least that lets one in: " in capsys.readouterr().out
    assert main(["wish", str(file), "--may", "wheels"]) == 2
    assert "may wheels: is nothing that may change" in capsys.readouterr().err
    assert main(["wish", str(file), "--want", "effort"]) == 2
    assert '"effort" is not NAME=VALUE' in capsys.readouterr().err


def test_prices_and_hours_are_of_what_is_bought_and_order_the_cards() -> None:
    """By hand: a bore of 40 in half an hour and pads of 30 in one; what is there costs nothing."""
    build = own_vehicle()
    wishes = wished(build, {"rear-first-chance": "1"})
    shelf = {"bore": ["3/4 in @ 40 / 0.5 h"], "ratio": ["5"], "front-friction": ["0.5 @ 30 / 1 h"]}
    found = answered(build, wishes, shelf)
    offer = offered(build, wishes, found.systems, build.natural_units)

    assert offer is not None
    few = offer.cards
    told = {one.words: one.cost for one in found.systems}
    assert told["bore 3/4 in, ratio 5, front friction 0.5"] == Cost(70.0, 1.5)
    assert told["front friction 0.5"] == Cost(30.0, 1.0)
    prices = [card.system.cost.price for card in few if card.system.cost is not None]
    assert len(prices) == len(few)
    assert prices == sorted(prices)
    assert bought_words(found.systems[0]) == "2 parts to buy for 70.00, 1.5 h"
    some = {**shelf, "bore": ["3/4 in"]}
    assert any(one.cost is None for one in answered(build, wishes, some).systems)
    assert all(one.cost is None for one in answered(build, wishes, {"bore": None}).systems)


def test_where_no_card_is_left_the_evenest_says_why() -> None:
    """The tractor's best bring a warning, or have the rear first too often when drawn in full."""
    build = demo("tractor")
    choices = dict.fromkeys(("bore", "ratio", "valve", "rear-pistons"))
    wishes, units = usual_wishes(build), build.natural_units
    found = answered(build, wishes, choices)
    offer = offered(build, wishes, found.systems, units)

    assert offer is not None
    assert offer.cards == ()
    assert len(offer.refused) == len(found.systems) > 0
    one, why = offer.refused[0]
    assert why.startswith(("the rear is first in ", "It brings a warning: "))
    assert claim(found, offer, units).endswith(f"{system_words(one, units)}: {why}.")
    assert printed_wishes(found, offer)["systems"] == []


@pytest.mark.parametrize(
    ("size", "words"),
    [
        ("3/4 in @ dear", 'may bore: "dear" is no price; write a number'),
        ("3/4 in @", "may bore: has an @ without a price; write it, as @ 45"),
        ("3/4 in @ 40 / soon", 'may bore: "soon" is no time; write it as 0.5 h'),
        ("3/4 in @ -3", 'may bore: "-3" is no price'),
    ],
)
def test_a_price_that_is_no_number_is_refused_in_words(size: str, words: str) -> None:
    with pytest.raises(BuildErrors) as refused:
        answered(own_vehicle(), usual_wishes(own_vehicle()), {"bore": [size]})

    assert words in str(refused.value)


def test_what_is_usual_stands_in_for_sizes_that_nobody_types() -> None:
    """Rotors an inch smaller, one and two larger; a set of pads is one part, a pin is none."""
    build = bed("sprint")
    brake = {"rotor_outer_diameter": "280 mm", "pad_height": "40 mm", "effective_radius": None}
    own = with_changes(build, {f"front.brake.{name}": value for name, value in brake.items()})
    usual = {"front-rotor": None, "front-friction": None, "ratio": None, "front-pistons": None}
    found = {one.name: one.options for one in variables(own, usual)}

    assert [one.words for one in found["front-rotor"][1:]] == [
        "front rotor 255 mm", "front rotor 305 mm", "front rotor 331 mm"
    ]  # fmt: skip
    parts = {name: {one.parts for one in options[1:]} for name, options in found.items()}
    assert parts == {
        "front-rotor": {2}, "front-friction": {1}, "ratio": {0}, "front-pistons": {2}
    }  # fmt: skip
    assert all(options[0].parts == 0 and not options[0].values for options in found.values())
