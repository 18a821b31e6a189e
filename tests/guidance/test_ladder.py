"""Set-ups as a ladder; what was tried made one of them; what happened, in one list."""

from datetime import date, datetime

import pytest

from tests.builds import bed, on_record
from urgens.document import Build, BuildChange, BuildErrors, changed, demo, with_changes, with_setup
from urgens.document.edits.edit import dumped
from urgens.document.edits.past import changes_between
from urgens.document.edits.save_as import saved_as_setup
from urgens.guidance.advice.setup_ladder import ladder
from urgens.guidance.faults.tables import tables
from urgens.guidance.tracing.chronicle import chronicle, valve_name

RAN = {"started": "2026-05-02T10:00", "ended": "2026-05-02T11:00", "setup": "load-sensing"}


@pytest.fixture(scope="module")
def van() -> Build:
    return bed("library")


def test_a_rung_says_what_it_changes_costs_and_comes_to(van: Build) -> None:
    (rung,) = ladder(van)
    assert (rung.name, rung.price) == ("load-sensing", 310)
    assert rung.enough_if == "the van is driven bare as well as full"
    assert rung.changes.startswith("Rear valve's body combination block, taken out; ")
    assert rung.changes.endswith("; and 5 more")
    assert (rung.rear_first, rung.dangers) == (0, 0)
    assert not rung.done
    empty = with_changes(van, {"setups": [{"name": "same", "changes": {}}]})
    assert ladder(empty)[0].changes == "nothing yet"
    assert ladder(empty)[0].rear_first > 0
    assert ladder(with_changes(van, {"setups": []})) == ()


def test_a_rung_is_ticked_off_by_its_own_proofs_alone(van: Build) -> None:
    own = with_setup(van, str(RAN["setup"]))
    whole = on_record(own)
    standing = [one | {"setup": RAN["setup"]} for one in whole["records"]]
    moving = {**RAN, "procedure": "prove-moving", "ended": "2026-05-03T11:00"}
    gauged = with_changes(van, {"proof": whole["proof"]})
    (rung,) = ladder(with_changes(gauged, {"records": [*standing, moving]}))
    assert rung.proved is not None
    assert rung.proved.date() == date(2026, 5, 2)
    assert rung.moved == datetime(2026, 5, 3, 11)
    assert rung.done
    no = {"at": "2026-05-03T10:30", "step": 3, "field": "ok", "value": False}
    refused = {**moving, "entries": [no]}
    assert ladder(with_changes(gauged, {"records": [*standing, refused]}))[0].moved is None
    other = [*whole["records"], {**moving, "setup": None}]
    (rung,) = ladder(with_changes(van, {"records": other}))
    assert (rung.proved, rung.moved) == (None, None)


def test_what_was_tried_becomes_a_set_up_and_both_are_as_they_were(van: Build) -> None:
    tried = changed(
        van, BuildChange("x", {"valves.rear[0].knee": "300 psi", "targets.surface": 0.8},
                         known={"valves.rear[0].knee": {"state": "stamped"}}),
    )  # fmt: skip
    made = saved_as_setup(van, tried, "low", None)
    assert not [p for p in changes_between(van, made) if not p.startswith("setups")]
    laid = with_setup(made, "low")
    assert laid.valves.rear[0].knee.text == "300 psi"  # type: ignore[union-attr]
    assert laid.targets.surface == 0.8
    assert laid.evidence["valves.rear[0].knee"].state == "stamped"


def test_of_a_set_up_that_is_looked_at_a_copy_is_made(van: Build) -> None:
    made = saved_as_setup(van, van, "again", "load-sensing")
    assert [one.name for one in made.setups] == ["load-sensing", "again"]
    assert made.setups[1].changes == made.setups[0].changes
    assert made.setups[1].price == 310


def test_what_a_set_up_cannot_hold_is_said(van: Build) -> None:
    document = dumped(van)
    del document["parking_brake"]
    without = with_changes(van, {"parking_brake": None})
    assert "parking_brake" in document or without.parking_brake is None
    gone = type(van).model_validate(document)
    with pytest.raises(BuildErrors, match="was taken out since the build was saved"):
        saved_as_setup(van, gone, "none", None)
    with pytest.raises(BuildErrors, match="is also the name of set-up 1"):
        saved_as_setup(van, van, "load-sensing", None)


def test_what_happened_is_one_list_with_its_places() -> None:
    changes = {
        "history": [{"at": "2026-06-01T09:00", "what": "Softer", "kind": "change"}],
        "records": [{"procedure": "bleed", "method": "open-stroke", "started": "2026-05-02T10:00",
                     "step": 4, "checked_by": "C"}],
        "traces": [{"started": "2026-05-04T10:00", "signs": [
            {"at": "2026-05-04T10:00", "sign": "sinks"}], "cause": "cup-bypass", "mended": True,
                    "ended": "2026-05-04T12:00"}, {"started": "2026-05-05T10:00"}],
    }  # fmt: skip
    found = chronicle(with_changes(demo("roadster"), changes))
    assert [one.at for one in found] == sorted((one.at for one in found), reverse=True)
    said = {one.place: one for one in found}
    assert said["history[0]"].entry is not None
    assert said["records[0]"].what == "Bleed, open stroke"
    assert said["records[0]"].why == "at step 4, not ended; checked by C"
    words = next(one.words for one in tables().causes if one.id == "cup-bypass")
    assert said["traces[0]"].why == f"came from: {words}, mended"
    assert said["traces[1]"].what == "a fault without a sign"
    assert said["proof.gauges[0]"].what == "Gauges across the rear valve"
    assert said["proof.stops[0]"].what == "5 stops on the road"
    assert {one.kind for one in found} == {"change", "service", "symptom"}
    assert valve_name("front[1]") == "front valve 2"
