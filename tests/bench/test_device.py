"""The gauge box: its lines, a hundred a second, none lost; and what goes wrong with it."""

import os
import time
import tty
from itertools import pairwise

import pytest

from tests.builds import bed
from urgens.bench.gauges.box_protocol import GaugeLines
from urgens.bench.gauges.box_reader import LiveGauges
from urgens.bench.gauges.simulated_box import Box, SimulatedBox, cycling
from urgens.bench.plant.plant import plant
from urgens.bench.plant.valve_faults import cause
from urgens.document import BuildErrors

HEAD = b"# urgens-gauge 1\nt [ms],front [kPa],rear [kPa],foot [N],travel [mm]\n"


def box(fault: str | None = None) -> Box:
    return Box(plant(bed("library"), 1, None if fault is None else cause(fault)), "rear[0]")


def test_the_documented_line_is_read_in_si() -> None:
    lines = GaugeLines()
    [reading] = lines.feed(HEAD + b"20,1500,1200,210.5,41\n")
    assert lines.greeted
    assert reading.values == pytest.approx(
        {"t": 0.02, "front": 1.5e6, "rear": 1.2e6, "foot": 210.5, "travel": 0.041}
    )
    assert (reading.inlet, reading.outlet) == (1.5e6, 1.2e6)


def test_lines_cut_anywhere_are_put_together() -> None:
    lines = GaugeLines()
    whole = HEAD + b"".join(b"%d,100,90,1,2\n" % (10 * k) for k in range(50))
    found = [one for at in range(0, len(whole), 7) for one in lines.feed(whole[at : at + 7])]
    assert len(found) == 50
    assert lines.skipped == 0


@pytest.mark.parametrize(
    ("line", "words"),
    [
        (b"30,1,2\n", "3 figures, not 5"),
        (b"30,1,2,3,4,5\n", "6 figures"),
        (b"30,1,2,x,4\n", "no figure"),
        (b"30,1,2,nan,4\n", "no figure"),
        (b"\xff\xfe,1,2,3,4\n", "no text"),
        (b"3" * 900, "without an end"),
        (b"# urgens-gauge 7\n", "version 7"),
        (b"t [ms],front [furlong],rear [kPa],foot [N],travel [mm]\n", "no unit"),
    ],
)
def test_a_broken_line_is_counted_said_and_skipped(line: bytes, words: str) -> None:
    lines = GaugeLines()
    assert len(lines.feed(HEAD + b"10,1,2,3,4\n")) == 1
    assert lines.feed(line) == []
    assert lines.skipped == 1
    assert words in lines.said[0]
    assert len(lines.feed(b"\n40,1,2,3,4\n")) == 1


def test_what_comes_before_the_header_is_passed_over() -> None:
    lines = GaugeLines()
    assert lines.feed(b"00,5,5\n10,1,2,3,4\n") == []
    assert lines.skipped == 0
    assert len(lines.feed(HEAD + b"20,1,2,3,4\n")) == 1


def test_a_hundred_a_second_and_none_lost() -> None:
    made = SimulatedBox(box(), cycling(400.0))
    try:
        gauges = LiveGauges(made.port)
        try:
            time.sleep(3.2)
            found = gauges.taken()
        finally:
            gauges.close()
    finally:
        made.close()
    times = [one.values["t"] for one in found]
    assert len(found) > 150
    assert gauges.lines.skipped == made.lost == 0
    assert [round((b - a) * 1000) for a, b in pairwise(times)] == [10] * (len(times) - 1)


def test_a_port_that_goes_away_is_said_and_what_was_read_is_kept() -> None:
    master, slave = os.openpty()
    tty.setraw(slave)
    gauges = LiveGauges(os.ttyname(slave))
    try:
        os.write(master, HEAD + b"10,1,2,3,4\n20,1,2,3,4\n")
        time.sleep(0.4)
        os.close(slave)
        os.close(master)
        for _ in range(100):
            if gauges.ended:
                break
            time.sleep(0.05)
        assert "went away" in gauges.ended
        assert len(gauges.taken()) == 2
    finally:
        gauges.close()


def test_a_port_that_is_not_there_is_refused_in_words() -> None:
    with pytest.raises(BuildErrors, match="cannot be opened"):
        LiveGauges("/dev/no-such-port")


def pressures(made: Box, feet: list[float], lever: float | None = None) -> list[float]:
    lines = GaugeLines()
    lines.feed(made.head().encode())
    found = [lines.feed((made.line(0.01 * k, foot, lever) + "\n").encode())[0]
             for k, foot in enumerate(feet)]  # fmt: skip
    return [one.values["out"] for one in found]


def test_its_outlet_stays_up_on_the_way_back() -> None:
    up = [4.0 * k for k in range(100)]
    found = pressures(box(), up + up[::-1])
    middle = 60
    assert found[-middle] > found[middle - 1] + 2e5


def test_a_fault_shows_at_its_outlet() -> None:
    up = [4.0 * k for k in range(100)]
    assert max(pressures(box("valve-blocked"), up)) < 0.3e5
    assert max(pressures(box("valve-stuck-open"), up)) > max(pressures(box(), up)) + 10e5


def test_a_lever_moved_by_hand_moves_its_knee() -> None:
    from urgens.document import with_setup

    sensing = with_setup(bed("library"), "load-sensing")
    held = [250.0] * 5
    low = pressures(Box(plant(sensing), "rear[0]"), held, 0.1)[-1]
    high = pressures(Box(plant(sensing), "rear[0]"), held, 0.9)[-1]
    assert high > low + 3e5


def test_a_stand_in_says_that_it_is_one_over_its_line() -> None:
    lines = GaugeLines()
    lines.feed(HEAD)
    assert not lines.simulated
    lines.feed(b"# urgens-gauge 1 simulated\n")
    assert (lines.greeted, lines.simulated) == (True, True)
