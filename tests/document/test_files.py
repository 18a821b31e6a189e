"""Opening and saving: what was typed stays, and a file is never lost."""

import json
import os
import stat
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings

from tests.builds import bed
from tests.strategies import documents
from urgens.document import (
    Build,
    BuildErrors,
    demo_names,
    dumps,
    edited,
    load,
    loads,
    save,
    schema,
    value_at,
)


@pytest.mark.parametrize("name", demo_names())
def test_a_demo_build_is_kept_as_it_was_typed(name: str) -> None:
    build = bed(name)

    assert loads(dumps(build)) == build
    assert "9 ft 7 in" in dumps(bed("bakery"))


@settings(max_examples=40)
@given(documents())
def test_a_document_comes_back_as_it_was_given(document: dict[str, Any]) -> None:
    assert json.loads(dumps(loads(json.dumps(document)))) == document


def test_an_unknown_demo_build_is_refused() -> None:
    with pytest.raises(
        BuildErrors,
        match=r"^boat: is no demo build; choose library or roadster or tender or tractor$",
    ):
        bed("boat")


def test_save_keeps_the_file_before_as_bak(bakery: Build, tmp_path: Path) -> None:
    path = tmp_path / "truck.urgens.json"
    save(bakery, path)
    changed = edited(bakery, "name", "Changed")
    save(changed, path)

    assert load(path) == changed
    assert load(tmp_path / "truck.urgens.json.bak") == bakery
    assert sorted(p.name for p in tmp_path.iterdir()) == [path.name, path.name + ".bak"]


def test_save_keeps_mode_and_follows_links(bakery: Build, tmp_path: Path) -> None:
    path = tmp_path / "real.urgens.json"
    save(bakery, path)
    path.chmod(0o640)
    link = tmp_path / "link.urgens.json"
    link.symlink_to(path)
    save(edited(bakery, "name", "Changed"), link)

    assert link.is_symlink()
    assert stat.S_IMODE(path.stat().st_mode) == 0o640
    assert load(path).name == "Changed"


def test_a_failed_save_leaves_the_file_as_it_was(
    bakery: Build, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "truck.urgens.json"
    save(bakery, path)

    def full(_: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(OSError, match="No space left"):
        save(edited(bakery, "name", "Changed"), path)

    assert load(path) == bakery
    assert [p.name for p in tmp_path.iterdir()] == [path.name]


def test_an_edit_changes_only_what_it_names(bakery: Build) -> None:
    changed = edited(bakery, "valves.rear[0].knee", "275 psi")

    assert value_at(changed, "valves.rear[0].knee").text == "275 psi"
    assert edited(changed, "valves.rear[0].knee", "375 psi") == bakery
    assert edited(bakery, "lines.trapped_air_rear", "1 ml").lines.trapped_air_rear.value == 1e-6


def test_an_edit_makes_the_part_that_was_left_out(roadster: Build) -> None:
    assert edited(roadster, "booster.kind", "none").booster.kind == "none"
    assert edited(roadster, "valves.front", []).valves.front == ()


@pytest.mark.parametrize(
    ("path", "words"),
    [
        ("valves.rear[3].knee", "valves.rear[3].knee: has no entry 3; choose one that is there"),
        ("valves..rear", 'valves..rear: is not a path; write it like "valves.rear[0].knee"'),
        ("", ': is not a path; write it like "valves.rear[0].knee"'),
    ],
)
def test_an_edit_of_nothing_is_refused(bakery: Build, path: str, words: str) -> None:
    with pytest.raises(BuildErrors) as refused:
        edited(bakery, path, "275 psi")

    assert str(refused.value) == words.removeprefix(": ") if not path else words


def test_a_value_that_is_not_there_is_refused(bakery: Build) -> None:
    with pytest.raises(BuildErrors, match=r"^pedal\.seat: is not in this build"):
        value_at(bakery, "pedal.seat")


def test_the_schema_describes_quantities() -> None:
    described = schema()
    wheelbase = described["$defs"]["VehicleSection"]["properties"]["wheelbase"]

    assert wheelbase["type"] == "string"
    assert wheelbase["x-unit"] == "m"
    assert described["additionalProperties"] is False


def test_defaults_are_those_of_the_contract(bakery: Build, roadster: Build) -> None:
    """build-file.md, shape of version 1."""
    drawn = edited(bakery, "circuits", None)
    assert drawn.split == "front-rear"
    assert roadster.pedal.efficiency == 1
    assert roadster.valves.front == ()
    assert roadster.lines.fluid_bulk_modulus.text == "1.8 GPa"
    assert edited(bakery, "targets", {}).targets.comfortable_effort.text == "75 lbf"
    assert bakery.front.brake.threshold.text == "0 psi"
    assert bakery.valves.front[0].full_pressure == pytest.approx(260 * 6894.757293)
