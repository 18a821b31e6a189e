"""What stays, goes, is new, plugged and lost, by hand."""

from tests.builds import bed
from urgens.document import changed, edited, with_changes
from urgens.guidance.alternatives import alternatives
from urgens.plumbing.conversion import conversion


def test_nothing_changes_between_a_layout_and_itself() -> None:
    build = bed("pickup")
    found = conversion(build, build)
    assert found.goes == found.new == found.plugged == found.lost == ()
    assert {"mc", "cv", "fl", "rr"} <= set(found.stays)


def test_two_circuits_become_one_and_back() -> None:
    """Single to dual and back: lamp and shuttle go with the switch, metering with the body."""
    build = with_changes(bed("pickup"), {"setups": []})
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
    build = with_changes(bed("pickup"), {"setups": []})
    old = next(one for one in alternatives(build) if one.school.name == "old-block")
    found = conversion(build, changed(build, old.change))

    assert found.plugged == ("bl.rear",)
    assert "the lamp that warns of a lost circuit" in found.lost
    assert not any("knee" in words for words in found.lost)  # an adjustable valve has one


def test_metering_out_is_lost_and_nothing_else() -> None:
    """For discs all round the metering part comes out of the line."""
    build = with_changes(
        bed("pickup"),
        {"setups": [], "valves": {"front": [{"kind": "metering"}],
                                  "rear": [{"kind": "reducing", "knee": "300 psi", "slope": 0.3}]}},
    )  # fmt: skip
    found = conversion(build, edited(build, "valves.front", []))

    assert found.goes == ("fv1",)
    assert found.new == ()
    assert found.lost == ("metering: drums behind before discs in front",)
