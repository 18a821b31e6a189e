"""Stock lengths: never less than the volume asks, never more than first fit, nothing lost."""

from collections import Counter
from math import ceil

import pytest
from hypothesis import given
from hypothesis import strategies as st

from urgens.plumbing.cut_list import Stick, TooLongError, nested, to_buy

STOCK = 7.62  # m: 25 ft (25 × 0.3048)
lengths = st.lists(st.floats(0.05, 7.5), max_size=40)
saws = st.sampled_from([0.0, 0.002, 0.01])


def named(values: list[float]) -> list[tuple[str, float]]:
    return [(f"L{place}", value) for place, value in enumerate(values)]


def first_fit(values: list[float], saw: float) -> int:
    """As one would at the bench: each piece from the first stick that still has it."""
    left: list[float] = []
    for value in values:
        for place, room in enumerate(left):
            if value <= room + 1e-9:
                left[place] = room - value - saw
                break
        else:
            left.append(STOCK - value - saw)
    return len(left)


@given(lengths, saws)
def test_between_the_volume_and_first_fit(values: list[float], saw: float) -> None:
    sticks = nested(named(values), STOCK, saw)

    assert len(sticks) >= ceil(sum(values) / STOCK - 1e-9)
    assert len(sticks) <= first_fit(values, saw)


@given(lengths, saws)
def test_every_piece_is_cut_once_and_none_overlaps(values: list[float], saw: float) -> None:
    sticks = nested(named(values), STOCK, saw)
    cut = Counter(piece for stick in sticks for piece in stick.pieces)

    assert cut == Counter(named(values))
    for stick in sticks:
        used = sum(length for _, length in stick.pieces)
        cuts = saw * len(stick.pieces)
        assert used + cuts + stick.left == pytest.approx(STOCK, abs=saw + 1e-6)
        assert used <= STOCK + 1e-6


def test_the_longest_go_first_by_hand() -> None:
    """5 and 2, 4 and 3: two sticks of seven; in the order 2, 3, 4, 5 it would take three."""
    sticks = nested(named([2.0, 3.0, 4.0, 5.0]), 7.0, 0.0)
    assert sticks == (
        Stick((("L3", 5.0), ("L0", 2.0)), 0.0),
        Stick((("L2", 4.0), ("L1", 3.0)), 0.0),
    )


def test_the_last_piece_of_a_stick_needs_no_cut() -> None:
    """Two of 3.81 m and a saw of 2 mm do not come from 7.62 m; one of 3.808 m and one do."""
    assert len(nested(named([3.81, 3.81]), STOCK, 0.002)) == 2
    assert len(nested(named([3.808, 3.81]), STOCK, 0.002)) == 1


def test_a_piece_longer_than_the_stock_is_named() -> None:
    with pytest.raises(TooLongError, match="L1 is longer than the stock"):
        nested(named([1.0, 8.0]), STOCK, 0.0)


def test_a_tenth_more_is_bought() -> None:
    """7 m of 7.62 m need one; with a tenth more it is 7.7 m, and so two."""
    assert to_buy(nested(named([7.0]), STOCK, 0.0), STOCK, 0.0) == 1
    assert to_buy(nested(named([7.0]), STOCK, 0.0), STOCK, 0.1) == 2
    assert to_buy((), STOCK, 0.1) == 0
