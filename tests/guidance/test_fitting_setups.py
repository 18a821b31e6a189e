"""Set-ups beside a way that leaves no place for what they change."""

import pytest

from tests.builds import bed
from urgens.document import Build, BuildChange, BuildErrors, changed, with_changes, with_setup
from urgens.guidance.advice.fitting_setups import with_fitting_setups
from urgens.guidance.advice.ranked_ways import ranked_ways
from urgens.guidance.advice.valve_choice import fitting

SMALL = {"name": "small bore", "changes": {"master.bore": "15/16 in", "targets.surface": 0.8}}


def build() -> Build:
    return with_changes(bed("bakery"), {"setups": [SMALL]})


def test_what_a_way_has_no_place_for_is_left_out_and_said() -> None:
    ways = ranked_ways(build(), sure=False, twin=True)
    assert ways is not None
    twin = next(one for one in ways.found if one.fitted.kind == "bar")
    change = fitting(build(), twin.to_take[0], build().natural_units)
    assert "left out: master.bore of set-up “small bore”" in change.label
    made = changed(build(), change)
    assert dict(made.setups[0].changes) == {"targets.surface": 0.8}
    assert with_setup(made, "small bore").targets.surface == 0.8
    others = [fitting(build(), one.to_take[0], build().natural_units)
              for one in ways.found if one is not twin]  # fmt: skip
    assert not any("left out" in one.label for one in others)


def test_what_is_wrong_otherwise_is_said_as_it_is() -> None:
    with pytest.raises(BuildErrors, match="is negative"):
        with_fitting_setups(build(), BuildChange("x", {"master.bore": "-1 in"}))
