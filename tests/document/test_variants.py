"""Set-ups, evidence, migration: what hangs on the document."""

import json
from typing import Any

import pytest

from tests.builds import bed, bed_text
from urgens.cli.main import main
from urgens.document import (
    Build,
    BuildErrors,
    dumps,
    edited,
    loads,
    value_at,
    with_changes,
    with_setup,
)
from urgens.document.catalogue import figure
from urgens.document.edits.migrate import Document, migrated, step
from urgens.document.facts import half_width
from urgens.quantity import LENGTH, QuantityError, parse
from urgens.solve import solve


def test_a_setup_is_laid_over_the_build(bakery: Build) -> None:
    changes = {"booster": {"kind": "none"}, "pedal.pivot_to_pushrod": "2 in"}
    build = edited(bakery, "setups", [{"name": "manual", "changes": changes}])
    manual = with_setup(build, "manual")

    assert manual.booster.kind == "none"
    assert solve(manual).system.pedal_ratio == pytest.approx(6.75)
    assert build.booster.kind == "vacuum"
    assert loads(dumps(build)) == build
    with pytest.raises(BuildErrors) as refused:
        with_setup(build, "wet")
    assert str(refused.value) == 'setups: there is no set-up "wet"; choose one of "manual"'


def test_the_command_line_takes_a_setup(tmp_path: Any, capsys: Any, bakery: Build) -> None:
    path = tmp_path / "truck.urgens.json"
    build = edited(
        bakery, "setups", [{"name": "low", "changes": {"valves.rear[0].knee": "275 psi"}}]
    )
    path.write_text(dumps(build), encoding="utf-8")

    assert main(["check", str(path)]) == 1
    assert main(["check", str(path), "--setup", "low"]) == 0
    assert main(["solve", str(path), "--setup", "high"]) == 2
    assert 'there is no set-up "high"' in capsys.readouterr().err


@pytest.mark.parametrize(
    ("section", "words"),
    [
        (
            {"setups": [{"name": "a", "changes": {"master.bore": "-1 in"}}]},
            'setups[0].changes["master.bore"]: "-1 in" is negative; write a length above zero, '
            'for example "1-1/16 in"',
        ),
        (
            {"setups": [{"name": "a", "changes": {"name.x": 1}}]},
            'setups[0].changes["name.x"]: leads nowhere; choose a field that is there',
        ),
        (
            {"setups": [{"name": "a", "changes": {}}, {"name": "a", "changes": {}}]},
            'setups[1].name: "a" is also the name of set-up 1; give each set-up a name of its own',
        ),
        (
            {"evidence": {"pedal.seat": {"state": "assumed"}}},
            'evidence["pedal.seat"]: is not in this build; choose a field that is there',
        ),
        (
            {"evidence": {"master.bore": {"state": "assumed", "spread": "some"}}},
            'evidence["master.bore"].spread: "some" is not a figure; write a length with its unit '
            '(in, mm, cm, m or ft), for example "1-1/16 in"',
        ),
        (
            {"evidence": {"name": {"state": "assumed", "spread": "5 %"}}},
            'evidence["name"]: is no figure, so it has no spread; take the spread out',
        ),
        (
            {"evidence": {"master.bore": {"state": "guessed"}}},
            'evidence["master.bore"].state: is the text "guessed", which is not known here; '
            "write 'assumed', 'planned', 'measured', 'stamped' or 'published'",
        ),
        (
            {"fluid": {"class": "DOT 4", "filled": "May"}},
            'fluid.filled: is the text "May", not a date; write year-month-day: "2026-05-31"',
        ),
        (
            {"fluid": {"class": "oil"}},
            "fluid.class: is the text \"oil\", which is not known here; write 'DOT 3', 'DOT 4', "
            "'DOT 5' or 'DOT 5.1'",
        ),
    ],
)
def test_what_hangs_on_paths_is_checked(
    document: dict[str, Any], section: dict[str, Any], words: str
) -> None:
    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps({**document, **section}))

    assert str(refused.value) == words


def test_spreads_are_quantities_or_shares() -> None:
    bore = parse("1 in", LENGTH)

    assert half_width("10 %", bore) == pytest.approx(0.00254)
    assert half_width("±0.05", bore) == pytest.approx(0.05 * 0.0254)
    assert half_width("± 0.002 in", bore) == pytest.approx(0.002 * 0.0254)
    assert half_width("0.05", 0.38) == 0.05
    assert half_width("10 %", 0.38) == pytest.approx(0.038)
    with pytest.raises(QuantityError, match="is no spread"):
        half_width("1 mm", 0.38)


def test_a_spread_that_leaves_nothing_known_is_refused() -> None:
    document = json.loads(bed_text("bakery"))
    document["evidence"] = {"master.bore": {"state": "assumed", "spread": "1000 %"}}
    loads(json.dumps(document))
    document["evidence"]["master.bore"]["spread"] = "1001 %"
    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps(document))
    assert str(refused.value) == (
        'evidence["master.bore"].spread: "1001 %" is more than 10 times the figure itself; '
        "write a smaller spread"
    )


def test_usual_spreads_are_those_of_the_contract() -> None:
    """build-file.md, evidence: common practice."""
    bakery = bed("bakery")

    assert figure(bakery, "front.brake.pad_friction").usual_spread == "10 %"
    assert figure(bakery, "rear.brake.shoe_factor").usual_spread == "30 %"
    assert figure(bed("mailvan"), "front.brake.shoe_factor").usual_spread == "20 %"
    assert figure(bakery, "valves.rear[0].slope").usual_spread == "0.03"
    assert figure(bakery, "master.bore").usual_spread is None


def test_older_documents_are_brought_up_step_by_step() -> None:
    """Invented versions: 1 called the knee a split point, 2 counted feet in pounds."""
    steps: dict[int, Any] = {}

    @step(1, steps)
    def _(document: Document) -> Document:
        return {"knee": document.pop("split_point"), **document}

    @step(2, steps)
    def _(document: Document) -> Document:
        return {**document, "effort": f"{document['effort']} lbf"}

    old = {"version": 1, "split_point": "275 psi", "effort": 75}

    new = migrated(old, 3, steps)

    assert new == {"version": 3, "knee": "275 psi", "effort": "75 lbf"}
    assert old == {"version": 1, "split_point": "275 psi", "effort": 75}
    with pytest.raises(KeyError, match="two steps lead from version 2"):
        step(2, steps)(lambda document: document)


@pytest.mark.parametrize(
    ("typed", "kept", "inches"),
    [
        ("1 - 1/16 in", "1-1/16 in", 1.0625),
        ("48 - 3/4 in", "48-3/4 in", 48.75),
        ("20 – 1/2 in", "20-1/2 in", 20.5),
        ("20-1/2 in", "20-1/2 in", 20.5),
        ("4 ft 7 - 1/2 in", "4 ft 7-1/2 in", 55.5),
        ("4'7 - 1/2\"", "4'7-1/2\"", 55.5),
    ],
)
def test_an_older_file_means_what_it_meant(
    document: dict[str, Any], typed: str, kept: str, inches: float
) -> None:
    """A minus behind a space joined a size in version 1; from version 2 on it takes off."""
    old = {**document, "version": 1, "name": "1 - 1/16 in", "notes": "1 - 1/16 in"}
    old["pedal"] = {**document["pedal"], "travel_available": typed}
    build = loads(json.dumps(old))
    assert build.version == 2
    assert build.pedal.travel_available.text == kept
    assert build.pedal.travel_available.value == pytest.approx(inches * 0.0254)
    assert (build.name, build.notes) == ("1 - 1/16 in", "1 - 1/16 in")
    assert json.loads(dumps(build))["version"] == 2


def test_a_difference_in_a_new_file_is_one_or_is_asked(document: dict[str, Any]) -> None:
    def with_floor(typed: str) -> str:
        pedal = {**document["pedal"], "travel_available": typed}
        return json.dumps({**document, "pedal": pedal})

    assert loads(with_floor("6 - 1/4 in")).pedal.travel_available.value == pytest.approx(
        5.75 * 0.0254
    )
    with pytest.raises(BuildErrors, match="write 1-1/16, or 15/16"):
        loads(with_floor("1 - 1/16 in"))


def test_a_version_that_nothing_leads_from_is_refused(document: dict[str, Any]) -> None:
    with pytest.raises(BuildErrors) as refused:
        loads(json.dumps({**document, "version": 0}))

    assert str(refused.value) == (
        "version: files of version 0 cannot be read by this Urgens; open it with an older one and "
        "save it anew"
    )


def test_a_field_named_class_keeps_its_name(document: dict[str, Any]) -> None:
    build = loads(json.dumps({**document, "fluid": {"class": "DOT 4", "filled": "2026-01-31"}}))

    assert json.loads(dumps(build))["fluid"] == {"class": "DOT 4", "filled": "2026-01-31"}
    assert value_at(build, "fluid.grade") == "DOT 4"


def test_a_choice_may_be_said_to_be_assumed(bakery: Build) -> None:
    """Files from before have such entries, written with a new part: they open as they were."""
    launch = {"stall_torque": "250 lbf.ft", "gear_ratio": 2.0, "final_drive": 4.0, "driven": "rear"}
    known = {f"vehicle.launch.{name}": {"state": "assumed"} for name in launch}
    build = with_changes(bakery, {"vehicle.launch": launch, "evidence": known})

    assert loads(dumps(build)) == build
    assert set(build.evidence) == set(known)
