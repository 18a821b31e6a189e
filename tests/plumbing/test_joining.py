"""Threads against published sizes; chains of parts against every chain there is."""

from itertools import product

import pytest

from urgens.document.layout.layout import LineEnd, Seat
from urgens.document.layout.threads import Face, starts_and_strips, thread_table
from urgens.plumbing import adapters
from urgens.plumbing.adapters import chain

TABLE = thread_table()
SEATS: tuple[Seat, ...] = ("inverted", "bubble", "37-degree", "taper")
PUBLISHED = {  # name: major diameter [mm], pitch [mm]; from memory
    "3/8-24": (9.525, 1.0583),  # ASME B1.1
    "7/16-24": (11.1125, 1.0583),  # ASME B1.1 (UNS)
    "7/16-20": (11.1125, 1.27),  # ASME B1.1
    "1/2-20": (12.7, 1.27),  # ASME B1.1
    "9/16-18": (14.2875, 1.4111),  # ASME B1.1
    "M10x1.0": (10.0, 1.0),  # ISO 261, ISO 724
    "M12x1.0": (12.0, 1.0),  # ISO 261
    "M14x1.5": (14.0, 1.5),  # ISO 261
    "1/8-27 NPT": (10.287, 0.9407),  # ASME B1.20.1
}


def tube(name: str):  # type: ignore[no-untyped-def]
    return next(one for one in TABLE.tubes if one.name == name)


def test_the_threads_are_the_published_ones() -> None:
    found = {one.name: (one.diameter.value * 1e3, one.rise * 1e3) for one in TABLE.threads}
    assert found.keys() == PUBLISHED.keys()
    for name, (diameter, pitch) in PUBLISHED.items():
        assert found[name] == pytest.approx((diameter, pitch), abs=2e-3), name


def test_every_nut_and_adapter_has_a_thread_of_the_table() -> None:
    names = {one.name for one in TABLE.threads}
    nuts = {nut for one in TABLE.tubes for nuts in one.flares.values() for nut in nuts}
    faces = {thread for one in TABLE.adapters for thread, _ in (one.into, one.takes)}
    assert nuts | faces <= names
    assert "memory" in TABLE.source


def test_ten_millimetres_start_in_three_eighths_and_strip() -> None:
    """Facts of the trade: 9.53 mm of 24 turns, and 10 mm of one millimetre."""
    by_name = {one.name: one for one in TABLE.threads}
    assert starts_and_strips(by_name["M10x1.0"], by_name["3/8-24"])
    assert not starts_and_strips(by_name["3/8-24"], by_name["3/8-24"])
    assert not starts_and_strips(by_name["3/8-24"], by_name["1/2-20"])


def cheapest(name: str, end: LineEnd | None, port: Face, deep: int = 3) -> float | None:
    """Every chain of up to so many adapters, each tried: another way than a shortest path."""
    found: list[float] = []

    def go(face: Face, spent: float, left: int) -> None:
        thread, seat = face
        if tube(name).takes(thread, seat):
            nut = 1.0 if end is None or end.flare == seat else 1.5
            same = end is not None and (end.nut, end.flare) == (thread, seat)
            found.append(spent + (0.0 if same else nut))
        if left:
            for one in TABLE.adapters:
                if one.into == face:
                    go(one.takes, spent + 4.0, left - 1)

    go(port, 0.0, deep)
    return min(found, default=None)


@pytest.mark.parametrize("name", [one.name for one in TABLE.tubes])
def test_no_chain_is_cheaper(name: str) -> None:
    ends = [None, LineEnd(nut="3/8-24", flare="inverted"), LineEnd(nut="M10x1.0", flare="bubble")]
    reached = 0
    for thread, seat, end in product([one.name for one in TABLE.threads], SEATS, ends):
        found = chain(tube(name), end, (thread, seat))
        best = cheapest(name, end, (thread, seat))
        assert (found is None) == (best is None), (thread, seat)
        if found is not None:
            assert sum(step.cost for step in found) == pytest.approx(best)
            reached += 1
    assert reached > 5


def test_the_right_nut_needs_nothing_and_another_one_is_a_nut() -> None:
    end = LineEnd(nut="3/8-24", flare="inverted")
    assert chain(tube("3/16 in"), end, ("3/8-24", "inverted")) == ()
    (step,) = chain(tube("3/16 in"), end, ("9/16-18", "inverted")) or ()
    assert step.words == "nut 9/16-18 on the 3/16 in tube"
    (step,) = chain(tube("3/16 in"), end, ("M10x1.0", "bubble")) or ()
    assert step.words == "nut M10x1.0 on the 3/16 in tube, flared bubble"


def test_the_same_thread_on_another_seat_takes_another_flare() -> None:
    """3/8-24 inverted and AN-3 share the thread and not the seat: it would leak."""
    end = LineEnd(nut="3/8-24", flare="inverted")
    (step,) = chain(tube("3/16 in"), end, ("3/8-24", "37-degree")) or ()
    assert "flared 37-degree" in step.words


def test_a_quarter_inch_port_takes_a_smaller_tube_through_an_adapter() -> None:
    """M12 bubble takes no 3/16 in nut: an adapter, then a nut."""
    steps = chain(tube("3/16 in"), None, ("M12x1.0", "bubble")) or ()
    assert [step.words.split()[0] for step in steps] == ["adapter", "nut"]


def test_where_nothing_is_sold_only_another_tee_helps() -> None:
    end = LineEnd(nut="3/8-24", flare="inverted")
    assert chain(tube("5/16 in"), end, ("3/8-24", "inverted")) is None
    (step,) = chain(tube("5/16 in"), end, ("3/8-24", "inverted"), tee=True) or ()
    assert step == adapters.AdapterStep("tee with a port for the 5/16 in tube", adapters.OTHER_TEE)


def fewest(face: Face, port: Face, deep: int = 4) -> int | None:
    """How many adapters bring a part into a port, each row of the table tried in every order."""
    seen, here = {port}, {port}
    for count in range(deep + 1):
        if face in here:
            return count
        here = {one.takes for one in TABLE.adapters if one.into in here} - seen
        seen |= here
    return None


def test_from_a_part_to_a_port_no_list_of_adapters_is_shorter() -> None:
    """Every pair of thread and seat that the table names, tried from either."""
    faces = {face for one in TABLE.adapters for face in (one.into, one.takes)}
    faces |= {(nut, flare) for tube in TABLE.tubes for flare, nuts in tube.flares.items()
              for nut in nuts}  # fmt: skip
    reached = 0
    for face, port in product(sorted(faces), repeat=2):
        found, best = adapters.adapters(face, port), fewest(face, port)
        assert (None if found is None else len(found)) == best, (face, port)
        if found:
            reached += 1
            assert found[0].into == port
            assert found[-1].face == face
    assert reached > 40


def test_a_sensor_in_a_metric_line_takes_one_common_part() -> None:
    """M10x1.0 inverted to 1/8-27 NPT is one ordinary part: common practice."""
    found = adapters.adapters(("1/8-27 NPT", "taper"), ("M10x1.0", "inverted"))
    assert found is not None
    assert [step.words for step in found] == ["adapter M10x1.0 inverted to 1/8-27 NPT taper"]


def test_a_line_that_is_flared_keeps_its_flare_where_an_adapter_does() -> None:
    """Another nut is another flare: it is cut off for it. Common practice."""
    end = LineEnd(nut="M10x1.0", flare="bubble")
    new = chain(tube("3/16 in"), end, ("3/8-24", "inverted"))
    made = chain(tube("3/16 in"), end, ("3/8-24", "inverted"), flared=True)
    assert new is not None
    assert made is not None
    assert new[0].into is None  # a nut
    assert [step.words for step in made] == ["adapter 3/8-24 inverted to M10x1.0 bubble"]
