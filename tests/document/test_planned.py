"""What the program chose is planned; what it changes is no longer what anybody measured."""

import pytest

from tests.builds import bed, with_changes
from urgens.document import Build, BuildChange, changed
from urgens.document.edits.setups import with_setup
from urgens.guidance.advice.booster_setups import changed_for
from urgens.guidance.rules.finding import Fix

PIN = "pedal.pivot_to_pushrod"


def stamped(build: Build, path: str, state: str = "stamped") -> Build:
    """The build with one figure said to be known so."""
    return changed(build, BuildChange("", known={path: {"state": state}}))


def state(build: Build, path: str) -> str:
    known = build.evidence.get(path)
    return "" if known is None else known.state


def test_a_figure_that_is_chosen_loses_what_was_stamped_on_it() -> None:
    build = stamped(bed("bakery"), "master.bore")
    made = changed(build, BuildChange.planning("", {"master.bore": "20 mm"}))
    assert state(made, "master.bore") == "planned"


def test_a_figure_that_the_choice_leaves_keeps_what_is_known_of_it() -> None:
    build = stamped(bed("bakery"), "master.bore", "measured")
    chosen = {"master.bore": build.master.main_bore.text, PIN: "61 mm"}
    made = changed(build, BuildChange.planning("", chosen))
    assert (state(made, "master.bore"), state(made, PIN)) == ("measured", "planned")


def test_what_is_typed_over_a_plan_is_planned_no_longer() -> None:
    build = stamped(bed("bakery"), PIN, "planned")
    assert state(changed(build, BuildChange("", {PIN: "61 mm"})), PIN) == ""


@pytest.mark.parametrize("setup", [None, "other"])
def test_a_fix_plans_what_it_writes(setup: str | None) -> None:
    build = with_changes(
        stamped(bed("bakery"), PIN), {"setups": [{"name": "other", "changes": {}}]}
    )
    made = changed(build, Fix("", PIN, "61 mm").change, setup)
    seen = made if setup is None else with_setup(made, setup)
    assert state(seen, PIN) == "planned"
    assert state(made, PIN) == ("planned" if setup is None else "stamped")


def test_of_a_list_only_the_new_entry_of_a_fix_is_planned() -> None:
    build = stamped(bed("bakery"), "valves.rear[0].knee", "measured")
    count = len(build.valves.rear)
    part = {"kind": "residual", "pressure": "10 psi"}
    fix = Fix("", "valves.rear", [], (part, *range(count)))
    made = changed(build, fix.change)
    assert state(made, "valves.rear[0].pressure") == "planned"
    assert state(made, "valves.rear[1].knee") == "measured"


@pytest.mark.parametrize("name", ["manual", "boosted"])
def test_a_set_up_that_is_started_is_planned(name: str) -> None:
    build = stamped(bed("bakery"), PIN)
    setups = [{"name": "new", "changes": changed_for(build, name)}]
    seen = with_setup(with_changes(build, {"setups": setups}), "new")
    wanted = {PIN} if name == "manual" else {
        PIN, "booster.diaphragm_diameters[0]", "booster.vacuum", "booster.gain"
    }  # fmt: skip
    assert {path for path in seen.evidence if state(seen, path) == "planned"} == wanted
