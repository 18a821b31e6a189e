"""What is only set makes no part new: the way, the list and the plan say the same of it."""

from typing import Any

import pytest

from tests.builds import bed
from urgens.document import Build, edited, with_changes
from urgens.guidance.planning.converting import conversion_work
from urgens.plumbing.conversion import conversion
from urgens.plumbing.draft import drafted
from urgens.plumbing.kit import buying_list

BARE: dict[str, Any] = {"setups": [], "evidence": {}}
STOCK = 7.62  # m, 25 ft
BARE_BAKERY = with_changes(bed("bakery"), BARE)
BAKERY = edited(BARE_BAKERY, "plumbing", drafted(BARE_BAKERY))
BOOSTED = with_changes(
    BAKERY,
    {"booster": {"kind": "vacuum", "diaphragm_diameters": ["8 in"], "vacuum": "18 inHg",
                 "gain": 3.0}},
)  # fmt: skip


def told(now: Build, then: Build) -> tuple[set[str], set[str], set[str]]:
    """Return what is new on the way, what the list has, and what the plan's jobs bring."""
    listed = {row.item for row in buying_list(then, STOCK, before=now).rows}
    work = conversion_work(now, then)
    return set(conversion(now, then).new), listed, {it for job in work.jobs for it in job.brings}


@pytest.mark.parametrize(
    ("now", "figure"),
    [
        (BAKERY, {"master.pushrod_held_by": "retainer"}),
        (BAKERY, {"master.spring_preload": "30 N"}),
        (BOOSTED, {"booster.vacuum": "15 inHg"}),
    ],
)
def test_what_is_set_is_not_bought(now: Build, figure: dict[str, Any]) -> None:
    """A rod that is held, a spring that is weighed, another vacuum: by definition."""
    new, listed, brought = told(now, with_changes(now, figure))
    assert not new
    assert not {"cylinder", "booster"} & (listed | brought)
    assert not any("fluid" in item for item in listed)


def test_another_bore_is_another_cylinder_and_takes_fluid() -> None:
    """Nothing of the layout changes, and it is opened all the same; common practice."""
    new, listed, brought = told(BAKERY, with_changes(BAKERY, {"master.bore": "7/8 in"}))
    assert "mc" in new
    assert "cylinder" in listed
    assert "cylinder" in brought
    assert any("fluid" in item for item in listed)


def test_another_booster_is_new_everywhere() -> None:
    """A diaphragm of another size is another booster: by definition."""
    other = with_changes(BOOSTED, {"booster.diaphragm_diameters": ["10 in"]})
    new, listed, brought = told(BOOSTED, other)
    assert "booster" in new
    assert "booster" in listed
    assert "booster" in brought
    assert not any("help" in words for words in conversion(BOOSTED, other).lost)
