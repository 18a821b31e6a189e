"""The buying list of a layout, counted by hand, and what came of it."""

from collections import Counter
from datetime import date
from math import ceil, pi
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from tests.document.test_laid_fluid import LENGTH, drawn
from tests.plumbing.layouts import line_of, part_of, sound, with_layout
from urgens.document import Build, changed, demo, with_changes
from urgens.document.circuits import Circuits
from urgens.document.layout.layout import Received
from urgens.guidance.advice.layouts import alternatives
from urgens.plumbing.conversion import conversion, layout_of, new_lines
from urgens.plumbing.estimate import estimated_lengths
from urgens.plumbing.kit import buying_list
from urgens.plumbing.needed import SHELVES, Needed
from urgens.plumbing.received import audit

STOCK = 7.62  # m, 25 ft
DAY = date(2026, 11, 26)


def came(item: str, count: int, **more: str) -> Received:
    return Received.model_validate({"item": item, "count": count, **more})


def items(build: Build, before: Build | None = None) -> dict[str, int]:
    return {one.item: one.count for one in buying_list(build, STOCK, before=before).rows}


def test_the_list_is_what_the_layout_takes_with_its_spares() -> None:
    """Seven lines of one length each: tube, 14 nuts and 2 spare, 3 hoses, clips each 300 mm."""
    found = items(drawn())
    assert found["3/16 in tube"] == ceil(7 * LENGTH * 1.1 / STOCK)
    assert found["nut 3/8-24"] == 16
    assert (found["tee"], found["combination"]) == (1, 1)
    assert sum(count for item, count in found.items() if item.startswith("hose")) == 3
    assert found["clip"] == 7 * int(LENGTH // 0.3)
    held = 7 * pi / 4 * 0.0033**2 * LENGTH + pi / 4 * 0.0032**2 * 1.02
    assert found["bottle of fluid, 0.5 l"] == max(ceil(3 * held / 0.5e-3), 1)
    assert "master" not in found
    assert "wheel-brake" not in found


def test_what_stays_and_what_is_made_already_is_left_out() -> None:
    made = sound()
    part_of(made, "hr")["stays"] = True
    line_of(made, "L5")["stays"] = True
    line_of(made, "L6")["made"] = True
    found = items(with_layout(made))
    assert found["hose"] == 2
    assert found["nut 3/8-24"] == ceil(2 * 5 * 1.1)
    part_of(made, "fl")["stays"] = False
    part_of(made, "mc")["stays"] = False
    found = items(with_layout(made))
    assert (found["cylinder"], found["front calipers"], found["clevis pin"]) == (1, 1, 1)


def test_lines_without_a_route_are_estimated_and_it_says_so() -> None:
    """From the firewall to the rear axle it is about as far as the wheelbase, or farther."""
    made = sound()
    for line in made["lines"]:
        line.pop("route", None)
    build = with_layout(made)
    assert build.plumbing is not None
    about = estimated_lengths(Circuits(build, build.plumbing))
    base = build.vehicle.wheelbase.value
    assert set(about) == {f"L{n}" for n in range(1, 8)}
    assert 0.5 * base < about["L2"] + about["L5"] < 2.0 * base
    rows = {one.item: one for one in buying_list(build, STOCK).rows}
    assert rows["3/16 in tube"].count == ceil(sum(about.values()) * 1.1 / STOCK)
    assert "estimated" in rows["3/16 in tube"].why
    assert rows["3/16 in tube"].counted_in == "length"
    assert "estimated" in rows["bottle of fluid, 0.5 l"].why
    assert any("grommet" in words for words in buying_list(build, STOCK).not_counted)


@pytest.mark.parametrize("name", ["library", "roadster", "tender"])
def test_three_demos_are_counted_by_hand(name: str) -> None:
    """Counted again from the layout, by another way than the list's: each end has a nut."""
    build = demo(name)
    plumbing = build.plumbing
    assert plumbing is not None
    found = items(build)
    ends = Counter(e.nut for line in plumbing.lines if not line.direct for e in line.ends)
    for nut, count in ends.items():
        assert found[f"nut {nut}"] == count + ceil(count * 0.1)
    kinds = Counter(part.kind for part in plumbing.parts)
    for kind, count in kinds.items():
        listed = sum(n for item, n in found.items() if item.partition(" ")[0] == kind)
        assert listed == (0 if kind in ("master", "wheel-brake") else count), kind


BAKERY = with_changes(bed("bakery"), {"setups": []})
WAYS = {one.school.name: changed(BAKERY, one.change) for one in alternatives(BAKERY)}


@settings(max_examples=40, deadline=None)
@given(st.sampled_from(sorted(WAYS)), st.sampled_from(sorted(WAYS)))
def test_all_that_is_new_is_on_the_list_once_and_nothing_that_stays(now: str, then: str) -> None:
    before, after = WAYS[now], WAYS[then]
    found = conversion(before, after)
    listed = buying_list(after, STOCK, before=before).rows
    assert len({row.item for row in listed}) == len(listed)
    kinds = {part.id: part.kind for part in layout_of(after).parts}
    new = Counter(kinds[name] for name in found.new
                  if name in kinds and kinds[name] not in ("master", "wheel-brake"))  # fmt: skip
    for part in layout_of(after).parts:
        if part.id in found.plugged:
            new["plug"] += 0
    plugs = sum(kind == "plug" and name not in found.stays for name, kind in kinds.items())
    new["plug"] = plugs
    told: Counter[str] = Counter()
    for row in listed:
        if row.item.partition(" ")[0] in set(kinds.values()):
            told[row.item.partition(" ")[0]] += row.count
    assert {k: n for k, n in new.items() if n} == dict(told)
    nuts = sum(row.count for row in listed if row.item.startswith("nut "))
    assert (nuts > 0) == bool(new_lines(before, after))
    assert [SHELVES.index(row.shelf) for row in listed] == sorted(
        SHELVES.index(row.shelf) for row in listed
    )


def test_single_to_dual_has_cylinder_tube_and_fluid_and_no_hose_that_stays() -> None:
    found = items(WAYS["switch"], WAYS["block"])
    assert found["cylinder"] == 1
    assert {"3/16 in tube", "bottle of fluid, 0.5 l", "switch", "clevis pin"} <= set(found)
    assert not any(item.startswith("hose") for item in found)
    assert items(WAYS["switch"], WAYS["switch"]) == {}


def test_a_booster_brings_its_link_and_a_manual_rod_its_retainer() -> None:
    manual: dict[str, Any] = {"booster": {"kind": "none"}, "master.pushrod_held_by": "none"}
    build = with_changes(BAKERY, {**manual, "plumbing": sound()})
    boosted = with_changes(BAKERY, {"plumbing": sound()})
    there = items(boosted, build)
    assert (there["booster"], there["booster's link"]) == (1, 1)
    deep = with_changes(build, {"master.bore": "15/16 in", "master.made_for": "booster"})
    back = items(deep, boosted)
    assert (back["socket insert"], back["pushrod retainer"], back["cylinder"]) == (1, 1, 1)


@pytest.mark.parametrize(
    ("arrived", "words", "wrong"),
    [
        ([], "to buy", False),
        ([came("hose", 3)], "all here", False),
        ([came("hose", 2)], "1 missing", True),
        ([came("hose", 5)], "2 more than needed", True),
        ([came("hose", 1, version="A"), came("hose", 2)],
         "two versions: A, none", True),
        ([came("hose", 4, back_by="2026-11-29")],
         "1 more than needed; may go back until 2026-11-29, 3 days left", True),
        ([came("hose", 4, back_by="2026-11-27")],
         "1 more than needed; may go back until 2026-11-27, one day left", True),
        ([came("hose", 2, back_by="2026-11-27"), came("hose", 2, back_by="2026-11-29")],
         "1 more than needed; may go back until 2026-11-27, one day left", True),
        ([came("hose", 4, back_by="2026-11-20")],
         "1 more than needed; could go back until 2026-11-20: too late", True),
    ],
)  # fmt: skip
def test_what_came_is_checked_against_the_list(
    arrived: list[Received], words: str, *, wrong: bool
) -> None:
    (row,) = audit((Needed("hose", 3),), tuple(arrived), DAY)
    assert (row.words, row.wrong) == (words, wrong)


def test_what_is_not_on_the_list_stands_last() -> None:
    rows = audit((Needed("hose", 1),), (came("compass", 1),), DAY)
    assert [row.item for row in rows] == ["hose", "compass"]
    assert (rows[1].words, rows[1].wrong) == ("not needed", True)
