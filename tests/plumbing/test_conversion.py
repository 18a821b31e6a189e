"""What stays, goes, is new, plugged and lost, by hand."""

from tests.builds import bed
from urgens.document import changed, edited, with_changes
from urgens.guidance.advice.layouts import alternatives
from urgens.plumbing.conversion import conversion


def test_nothing_changes_between_a_layout_and_itself() -> None:
    build = bed("bakery")
    found = conversion(build, build)
    assert found.goes == found.new == found.plugged == found.lost == ()
    assert {"mc", "cv", "fl", "rr"} <= set(found.stays)


def test_two_circuits_become_one_and_back() -> None:
    """Single to dual and back: lamp and shuttle go with the switch, metering with the body."""
    build = with_changes(bed("bakery"), {"setups": []})
    single = next(one for one in alternatives(build) if one.school.name == "block")
    one = changed(build, single.change)
    found = conversion(build, one)

    assert "cv" in found.goes
    assert "bl" in found.new
    assert {"fl", "fr", "rl", "rr", "hfl", "hfr", "hr", "rt"} <= set(found.stays)
    assert len(found.lost) == 4
    back = conversion(one, build)
    assert (set(back.new), set(back.goes)) == (set(found.goes), set(found.new))
    assert back.lost == ()


def test_the_old_block_stays_and_its_rear_port_is_plugged() -> None:
    build = with_changes(bed("bakery"), {"setups": []})
    old = next(one for one in alternatives(build) if one.school.name == "old-block")
    found = conversion(build, changed(build, old.change))

    assert found.plugged == ("bl.rear",)
    assert "the lamp that warns of a lost circuit" in found.lost
    assert not any("knee" in words for words in found.lost)  # an adjustable valve has one


def test_metering_out_is_lost_and_nothing_else() -> None:
    """For discs all round the metering part comes out of the line."""
    build = with_changes(
        bed("bakery"),
        {"setups": [], "valves": {"front": [{"kind": "metering"}],
                                  "rear": [{"kind": "reducing", "knee": "300 psi", "slope": 0.3}]}},
    )  # fmt: skip
    found = conversion(build, edited(build, "valves.front", []))

    assert found.goes == ("fv1",)
    assert found.new == ()
    assert found.lost == ("metering: drums behind before discs in front",)


DISC = {"kind": "disc", "caliper": "sliding", "piston_diameters": ["1.5 in"], "pad_friction": 0.38,
        "effective_radius": "5 in"}  # fmt: skip


def test_rear_drums_become_discs_and_back() -> None:
    """The brakes go, the layout stays; with discs behind nothing of it is lost by itself."""
    drums = with_changes(bed("bakery"), {"setups": []})
    discs = with_changes(drums, {"rear.brake": DISC})
    found = conversion(drums, discs)
    assert set(found.goes) == set(found.new) == {"rl", "rr"}
    assert {"fl", "fr", "cv", "mc"} <= set(found.stays)
    assert found.lost == ()
    assert set(conversion(discs, drums).goes) == {"rl", "rr"}


def test_a_booster_goes_with_its_help_and_comes_back_without_a_loss() -> None:
    boosted = with_changes(bed("bakery"), {"setups": []})
    manual = with_changes(boosted, {"booster": {"kind": "none"}})
    found = conversion(boosted, manual)
    assert found.goes == ("booster",)
    assert found.lost == ("the booster's help: all of the effort comes from the leg",)
    back = conversion(manual, boosted)
    assert (back.new, back.lost) == (("booster",), ())


def test_another_bore_is_another_cylinder() -> None:
    build = with_changes(bed("bakery"), {"setups": []})
    found = conversion(build, with_changes(build, {"master.bore": "15/16 in"}))
    assert found.goes == found.new == ("mc",)
