"""Labels never overlap, whatever they are."""

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from urgens.ui.widgets.label_placer import Label, overlap, place

BOUNDS = (0.0, 0.0, 400.0, 300.0)
coordinate = st.floats(0, 400)
labels = st.lists(
    st.builds(
        Label,
        st.just("words"),
        st.tuples(coordinate, st.floats(0, 300)),
        st.tuples(st.floats(10, 120), st.floats(10, 24)),
    ),
    max_size=14,
)


@settings(max_examples=80)
@given(
    labels, st.lists(st.tuples(coordinate, coordinate, st.just(24.0), st.just(24.0)), max_size=3)
)
def test_placed_labels_overlap_neither_each_other_nor_the_bounds(
    wanted: list[Label], taken: list[tuple[float, float, float, float]]
) -> None:
    boxes = place(wanted, BOUNDS, taken=taken)
    placed = [box for box in boxes if box is not None]

    assert len(boxes) == len(wanted)
    for index, box in enumerate(placed):
        assert not any(overlap(box, other) for other in (*placed[index + 1 :], *taken))
        assert box[0] >= 0
        assert box[0] + box[2] <= 400


def test_a_label_keeps_off_curves_and_handles() -> None:
    label = Label("words", (200.0, 150.0), (60.0, 16.0))
    line = np.column_stack((np.linspace(200, 400, 50), np.full(50, 150.0)))
    (free,) = place([label], BOUNDS)
    (off_line,) = place([label], BOUNDS, [line])
    (off_both,) = place([label], BOUNDS, [line], [(100.0, 140.0, 90.0, 20.0)])

    assert free is not None
    assert free[0] > 200
    assert off_line is not None
    assert off_line[0] + off_line[2] < 200
    assert off_both is not None
    assert not overlap(off_both, (100.0, 140.0, 90.0, 20.0))


def test_no_room_is_said() -> None:
    assert place([Label("words", (5.0, 5.0), (500.0, 16.0))], BOUNDS) == [None]
    assert place([], BOUNDS) == []
