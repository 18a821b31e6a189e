"""The buying list of a layout, counted by hand, and what came of it."""

from datetime import date
from math import ceil, pi

import pytest

from tests.document.test_laid_fluid import LENGTH, drawn
from tests.plumbing.layouts import sound, with_layout
from urgens.document.layout.layout import Received
from urgens.document.layout.line_sheets import routed
from urgens.plumbing.kit import Needed, audit, buying_list
from urgens.plumbing.shopping import cut_from

STOCK = 7.62  # m, 25 ft
DAY = date(2026, 11, 26)


def came(item: str, count: int, **more: str) -> Received:
    return Received.model_validate({"item": item, "count": count, **more})


def test_the_list_is_what_the_layout_takes_with_its_spares() -> None:
    """Seven lines of one length each: tube, 14 nuts and 2 spare, 3 hoses, clips each 300 mm."""
    build = drawn()
    assert build.plumbing is not None
    cut = cut_from(routed(build.plumbing), STOCK, 0.0)
    found = {one.item: one.count for one in buying_list(build, cut, STOCK)}
    assert found["3/16 in tube"] == ceil(7 * LENGTH * 1.1 / STOCK)
    assert found["nut 3/8-24"] == 16
    assert (found["hose"], found["tee"], found["combination"]) == (3, 1, 1)
    assert found["clip"] == 7 * int(LENGTH // 0.3)
    held = 7 * pi / 4 * 0.0033**2 * LENGTH + pi / 4 * 0.0032**2 * 1.02
    assert found["bottle of fluid, 0.5 l"] == max(ceil(3 * held / 0.5e-3), 1)
    assert "master" not in found
    assert "wheel-brake" not in found


def test_fluid_is_not_counted_where_what_is_held_is_not_known() -> None:
    build = with_layout(sound())
    found = {one.item for one in buying_list(build, (), STOCK)}
    assert not any("fluid" in item for item in found)


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
