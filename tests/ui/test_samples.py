"""Pages that are empty show what will stand on them, in grey, and what to do."""

from collections.abc import Callable

import pytest
from PySide6.QtWidgets import QApplication, QPushButton

from tests.builds import bed
from urgens.document import Build, demo
from urgens.document.demo import own_vehicle
from urgens.ui.frame.window import MainWindow
from urgens.ui.theme import paint
from urgens.ui.widgets import sample
from urgens.ui.widgets.sample import CAPTION, Sample

Opener = Callable[[Build], MainWindow]
PLACES = (
    "Sheet/History", "Sheet/Compare", "Sheet/Ladder", "Sheet/Photographs", "Prove/Logs",
    "Prove/Real split", "Prove/Gauges", "Plumb/Old lines", "Trace/Before",
)  # fmt: skip


def samples_on(window: MainWindow, place: str) -> list[Sample]:
    name, _, page = place.partition("/")
    window.show_station(name)
    window.station(name).show_page_named(page)
    QApplication.processEvents()  # what is put into a layout is shown a little later
    return [one for one in window.station(name).page.findChildren(Sample) if one.isVisible()]


@pytest.mark.parametrize("place", PLACES)
def test_an_empty_page_shows_what_it_will_look_like_and_says_that_it_is_invented(
    open_window: Opener, place: str
) -> None:
    (shown,) = samples_on(open_window(own_vehicle()), place)
    assert shown.accessibleName() == CAPTION
    assert "nothing of this vehicle" in CAPTION
    assert len(shown.words) >= 3
    assert shown.accessibleDescription() == "; ".join(shown.words)
    assert not any("{" in one for one in shown.words)


@pytest.mark.parametrize(
    ("name", "place"),
    [("roadster", "Sheet/History"), ("roadster", "Prove/Gauges"), ("roadster", "Prove/Real split"),
     ("library", "Sheet/Ladder"), ("library", "Sheet/Compare"), ("library", "Plumb/Old lines")],
)  # fmt: skip
def test_none_is_left_where_there_is_something(open_window: Opener, name: str, place: str) -> None:
    assert samples_on(open_window(demo(name)), place) == []


def test_its_figures_are_in_the_units_of_the_window(open_window: Opener) -> None:
    window = open_window(own_vehicle())
    (shown,) = samples_on(window, "Sheet/Compare")
    assert "97 lbf" in shown.words  # 430 N over 4.448 N a pound, by hand
    window.session.set_units(bed("roadster").natural_units)
    assert "430 N" in shown.words


@pytest.mark.parametrize("place", PLACES)
def test_nothing_of_it_is_cut_in_the_smallest_window(
    open_window: Opener, monkeypatch: pytest.MonkeyPatch, place: str
) -> None:
    asked: list[tuple[str, str]] = []

    def seen(text: str, *room: int) -> str:
        asked.append((text, paint.shortened(text, *room)))
        return asked[-1][1]

    monkeypatch.setattr(sample, "shortened", seen)
    window = open_window(own_vehicle())
    window.resize(1024, 700)
    (shown,) = samples_on(window, place)
    shown.grab()
    assert asked
    assert [text for text, cut in asked if text != cut] == []


@pytest.mark.parametrize(
    ("place", "button", "station", "page"),
    [("Plumb/Old lines", "Draw lines", "Plumb", "Lines"),
     ("Trace/Before", "Follow a fault", "Trace", "Fault")],
)  # fmt: skip
def test_the_one_thing_to_do_leads_there(
    open_window: Opener, place: str, button: str, station: str, page: str
) -> None:
    window = open_window(own_vehicle())
    samples_on(window, place)
    here = window.station(place.partition("/")[0]).page
    next(one for one in here.findChildren(QPushButton) if one.text() == button).click()
    assert window.bench.name == station
    assert window.station(station).page_name == page
