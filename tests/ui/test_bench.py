"""The cylinder on the bench, and taken apart: drawn as it stands, its cups the right way round."""

from collections.abc import Callable

import pytest

from tests.builds import bed
from tests.ui.test_bleed import ENTER, card, press
from urgens.document import Build, demo, with_changes
from urgens.guidance.procedures.workshop import at_first
from urgens.plumbing.draft import DraftShape, drafted
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.bleed.exploded import counted, parts_of
from urgens.ui.stations.bleed.stands_words import fitted_words

STATION = "Bleed"  # that its windows open at
Opener = Callable[[Build], MainWindow]


@pytest.mark.parametrize(
    ("chambers", "words"),
    [
        (1, "1 piston, 2 cups, 1 spring, 1 ring"),
        (2, "2 pistons, 4 cups, 2 springs, 1 stop screw, 1 ring"),
    ],
)
def test_a_kit_is_counted(chambers: int, words: str) -> None:
    """One chamber: a pressure cup and a rear cup; a tandem twice that: common practice."""
    assert counted(chambers) == words


def test_the_inner_pistons_other_cup_looks_at_the_outer_chamber() -> None:
    """It holds the pressure behind it: its lips look out of the bore; common practice."""
    parts = parts_of(2)
    inner = parts[: parts.index("stop")]
    assert inner == ("spring", "cup", "piston", "back-cup")
    assert "back-cup" not in parts_of(1)
    assert parts[-2:] == ("rear-cup", "ring")


def test_on_the_bench_the_cylinder_is_drawn_and_no_car(open_window: Opener) -> None:
    page = card(open_window(bed("library")))
    page.choose("bench-bleed")
    press(page, ENTER)
    while page.run.step is not None and page.run.step.action != "stroke":
        press(page, ENTER)
    assert page.plan.on_bench
    assert page.plan.accessibleName().startswith("The cylinder on the bench.")
    before = page.plan.grab().toImage()
    page.stroke()
    assert "the loops bring back" in page.counting.words.text()
    assert page.since == 0  # nothing is lost of the vehicle's reservoir
    page.choose("overhaul")
    press(page, ENTER)
    while page.run.step is not None and page.run.step.thing != "pistons":
        press(page, ENTER)
    assert page.plan.apart
    assert page.plan.grab().toImage() != before
    page.choose("three-strokes")
    assert not page.plan.on_bench


def test_what_is_fitted_loose_or_under_pressure_is_called_as_builders_do() -> None:
    assert fitted_words(at_first({})) == ()
    now = at_first({"caps": "off", "bleeder": "pressed"})
    assert fitted_words(now) == ("caps off", "bleeder UNDER PRESSURE")
    assert demo("library").name


def test_an_assembly_shows_what_is_on_what_goes_on_and_a_banjos_washers(
    open_window: Opener,
) -> None:
    build = bed("library")
    laid = with_changes(build, {"plumbing": drafted(build, DraftShape(banjo=True))})
    page = card(open_window(laid))
    page.choose("assemble")
    press(page, ENTER)
    shown: dict[str, frozenset[str]] = {}
    pictures = []
    while page.run.step is not None and not page.run.last:
        if page.plan.assembled is not None:
            there, thing = page.plan.assembled
            shown.setdefault(thing, there)
            pictures.append(page.plan.grab().toImage())
        press(page, ENTER)
    assert shown["cylinder"] == {"booster"}
    assert shown["lines"] == {"booster", "cylinder"}
    assert shown["banjo bolts"] == {"booster", "cylinder", "lines"}
    assert any(one != pictures[0] for one in pictures[1:])
