"""Lines as they are made: lengths by hand, what the builder's tools take, what is bought."""

import numpy as np
import pytest

from tests.plumbing.layouts import FLARE, LEGS, layout, line, with_layout
from urgens.document import BuildErrors
from urgens.document.layout.layout import Plumbing
from urgens.document.layout.line_sheets import routed
from urgens.plumbing.shopping import counted, cut_from

ARC = 0.013 * np.pi / 2  # m, of a square bend with the usual former


def plumbing(**bench: str) -> Plumbing:
    made = with_layout({**layout(), "bench": bench}).plumbing
    assert made is not None
    return made


def test_the_developed_length_with_two_flares_by_hand() -> None:
    """200 and 300 mm less 13 mm each, the quarter circle, and 5 mm for each flare."""
    made = routed(plumbing())[0]
    assert made.length == pytest.approx(0.187 + ARC + 0.287 + 2 * 0.005)


def test_the_builders_own_flare_counts_instead() -> None:
    longer = routed(plumbing(inverted_flare="7 mm"))[0].length
    assert longer - routed(plumbing())[0].length == pytest.approx(2 * 0.002)


def test_a_tube_that_springs_back_is_bent_further() -> None:
    """Three degrees of ninety: a square bend is set to 93."""
    made = routed(plumbing(springback="3 deg"))[0]
    assert np.degrees(made.settings) == pytest.approx([93.0])
    assert made.sheet is not None
    assert np.degrees(made.sheet.angle) == pytest.approx([90.0])


def test_what_goes_on_first_stands_between_the_nuts() -> None:
    made = layout()
    made["lines"][0] |= {
        "slide_on_first": ["grommet"],
        "ends": [FLARE, {**FLARE, "nut": "7/16-24"}],
    }
    found = with_layout(made).plumbing
    assert found is not None
    assert routed(found)[0].before_flare == ("nut 3/8-24", "grommet", "nut 7/16-24")


def test_a_line_that_folds_back_says_why_and_is_not_cut() -> None:
    made = layout()
    made["lines"][0]["route"] = [LEGS[0], LEGS[1], ["50 mm", "0 mm", "0 mm"]]
    found = with_layout(made).plumbing
    assert found is not None
    lines = routed(found)
    assert "folds the line back on itself" in lines[0].fault
    ((tube, sticks),) = cut_from(lines, 7.62, 0.001)
    assert tube.text == "3/16 in"
    assert [name for stick in sticks for name, _ in stick.pieces] == ["L2"]


def test_a_line_without_a_route_is_no_bend_sheet() -> None:
    made = layout()
    made["lines"] = [line("L1", "mc.front", "fl.in", route=[])]
    found = with_layout(made).plumbing
    assert found is not None
    assert routed(found) == ()


def test_nuts_and_washers_are_counted() -> None:
    """Two lines have four nuts; washers go by the eyes on a bolt: one takes two, two take three.

    One eye may have two lines: two washers then as well. Common practice.
    """
    made = layout()
    made["parts"].append({"id": "b1", "kind": "banjo", "ports": {"bolt": {}, "eye": {}}})
    made["parts"].append({"id": "b2", "kind": "banjo", "ports": {"bolt": {}, "a": {}, "b": {}}})
    one = {"id": "b3", "kind": "banjo", "ports": {"bolt": {}, "a": {}, "b": {}}, "eyes": 1}
    made["parts"].append(one)
    found = with_layout(made).plumbing
    assert found is not None
    assert dict(counted(found)) == {"banjo": 3, "copper washer": 2 + 3 + 2, "nut 3/8-24": 4}
    one["eyes"] = 3
    with pytest.raises(BuildErrors, match="more eyes than lines"):
        with_layout(made)
