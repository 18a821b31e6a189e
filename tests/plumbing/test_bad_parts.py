"""What is wrong in files of parts, ports and prices is said, with its place and a remedy."""

import json
from pathlib import Path
from typing import Any

import pytest

from tests.builds import bed_text
from tests.plumbing.layouts import part_of, sound, with_layout
from urgens.document import BuildErrors, changed, loads, with_setup
from urgens.document.part_catalogue import load_catalogue
from urgens.document.price_list import PriceList, load_prices, save_prices
from urgens.guidance import findings
from urgens.guidance.advice.by_hand import places_for, put_in
from urgens.solve import solve


def test_a_build_in_place_of_a_file_of_parts_is_said(tmp_path: Path) -> None:
    path = tmp_path / "parts.json"
    path.write_text(bed_text("bakery"), encoding="utf-8")
    with pytest.raises(BuildErrors, match=r"urgens\.parts"):
        load_catalogue(path)


def test_a_port_that_is_there_twice_is_said(tmp_path: Path) -> None:
    text = json.dumps({"format": "urgens.parts", "version": 2, "parts": []})
    twice = '[{"name": "T", "kind": "union", "ports": {"in": {}, "in": {}, "out": {}}}]'
    path = tmp_path / "parts.json"
    path.write_text(text.replace("[]", twice), encoding="utf-8")
    with pytest.raises(BuildErrors, match="in"):
        load_catalogue(path)
    document = bed_text("bakery").rstrip().removesuffix("}")
    document += (
        ', "plumbing": {"parts": [{"id": "t", "kind": "tee", "ports": {"in": {}, "in": {}}}]}}'
    )
    with pytest.raises(BuildErrors, match="in"):
        loads(document)


def test_a_thread_that_does_not_exist_is_said_and_the_nearest_is_named() -> None:
    made = sound()
    part_of(made, "rt")["ports"]["in"] = {"thread": "M10x1.1", "seat": "inverted"}
    found = {one.code: one for one in findings(solve(with_layout(made)))}
    assert "M10x1.1" in found["thread-unknown"].message
    assert "did you mean M10x1.0?" in found["thread-unknown"].why


@pytest.mark.parametrize(
    ("prices", "said"),
    [({"line": "dear"}, "number"), ({"wheel": 3}, "prices"), ({"line": -1}, "0"),
     ([1, 2], "prices")],
)  # fmt: skip
def test_a_price_that_is_none_is_said(tmp_path: Path, prices: Any, said: str) -> None:
    path = tmp_path / "prices.json"
    document = {"format": "urgens.prices", "version": 1, "prices": prices}
    path.write_text(json.dumps(document), encoding="utf-8")
    with pytest.raises(BuildErrors, match=said):
        load_prices(path)


def test_prices_come_back_as_they_were_kept(tmp_path: Path) -> None:
    path = tmp_path / "mine" / "prices.json"
    assert load_prices(path).prices == {}
    save_prices(PriceList().with_price("line", 12.5).with_price("tee", 8.0), path)
    assert dict(load_prices(path).prices) == {"line": 12.5, "tee": 8.0}
    save_prices(load_prices(path).with_price("tee", None), path)
    assert dict(load_prices(path).prices) == {"line": 12.5}


def test_a_part_is_not_put_where_its_line_is_gone() -> None:
    build = with_layout(sound())
    with pytest.raises(BuildErrors, match="may not go there"):
        put_in(build, "L99", "union")
    assert places_for(loads(bed_text("bakery")), "union").why


def test_a_set_up_whose_layout_names_a_valve_that_is_not_there_is_told() -> None:
    """A set-up takes the valve out and leaves its body in the line: a finding says so."""
    build = with_layout(sound())
    change, _ = put_in(build, "L5", "residual")
    made = changed(build, change)
    document = made.model_dump(mode="json", exclude_unset=True)
    document["setups"] = [{"name": "bare", "changes": {"valves.rear": []}}]
    bare = with_setup(loads(json.dumps(document)), "bare")
    assert "valve-not-in-build" in {one.code for one in findings(solve(bare))}
