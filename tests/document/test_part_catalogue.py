"""Catalogues of parts: what is shipped, a builder's own file, and files with faults."""

from pathlib import Path

import pytest

from urgens.document import BuildErrors
from urgens.document.layout.threads import thread_table
from urgens.document.part_catalogue import (
    CataloguePart,
    PartCatalogue,
    load_catalogue,
    save_catalogue,
    shipped_parts,
)

PORTS = {"in": {"thread": "3/8-24", "seat": "inverted"}, "out": {"thread": "M10x1.0"}}
PART = CataloguePart.model_validate({"name": "Odd union", "kind": "union", "ports": PORTS})


def test_shipped_parts_name_their_source_and_known_threads() -> None:
    catalogue = shipped_parts()
    assert "common practice" in catalogue.source
    assert len(catalogue.parts) > 10
    for part in catalogue.parts:
        for port in part.ports.values():
            assert thread_table().thread(port.thread or "") is not None, part.name


def test_a_part_is_kept_and_read_again_the_file_before_stays_beside(tmp_path: Path) -> None:
    path = tmp_path / "mine" / "parts.json"
    save_catalogue(PartCatalogue().with_part(PART), path)
    assert load_catalogue(path).parts == (PART,)
    other = PART.model_copy(update={"name": "Another"})
    save_catalogue(load_catalogue(path).with_part(other).with_part(PART), path)
    assert [part.name for part in load_catalogue(path).parts] == ["Another", "Odd union"]
    assert load_catalogue(path.with_name("parts.json.bak")).parts == (PART,)


@pytest.mark.parametrize(
    ("text", "place", "words"),
    [
        ('{"format": "urgens.parts", "version": 1,\n "parts": [{"name": "A", "kind": }]}',
         "line 2", "not JSON"),
        ('{"format": "urgens.parts", "parts": [{"kind": "union"}]}', "parts[0].name", "missing"),
        ('{"parts": [{"name": "A", "kind": "union", "ports": {"in": {}}}]}', "parts[0].ports",
         '"A" has 1 of the 2 ports'),
        ('{"parts": [{"name": "A", "kind": "plug", "ports": {"in": {}}},'
         ' {"name": "A", "kind": "plug", "ports": {"in": {}}}]}', "parts[1].name",
         "also the name of parts[0]"),
        ('{"parts": [{"name": "A", "kind": "sponge"}]}', "parts[0].kind", "sponge"),
        ('{"format": "urgens.build"}', "format", "urgens.build"),
        ("", "", "empty"),
    ],
)  # fmt: skip
def test_a_file_with_a_hole_names_part_and_place(
    tmp_path: Path, text: str, place: str, words: str
) -> None:
    path = tmp_path / "parts.json"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(BuildErrors) as refused:
        load_catalogue(path)
    assert any(fault.path.startswith(place) and words in str(fault)
               for fault in refused.value.errors)  # fmt: skip
