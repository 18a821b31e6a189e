"""Logs: whatever they look like, what is wrong with them, and the presses in them."""

import math
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builds import bed
from urgens.bench.logs.channels import Mapped, Signals, propose, signals
from urgens.bench.logs.compare import before_after, model_rear
from urgens.bench.logs.faults import faults_of, rising
from urgens.bench.logs.file import read_log
from urgens.bench.logs.press_line import press_line
from urgens.bench.logs.presses import presses
from urgens.bench.logs.read import read_through
from urgens.bench.logs.write import csv_of, of_drive, sensed, write_csv, written_anew
from urgens.bench.road.drives import drives, trial
from urgens.bench.road.torque import Foot, hold
from urgens.document import BuildErrors, demo, edited
from urgens.solve.system import system

ROWS = [[0.0, 0.1, 0.1], [0.01, 12.5, 11.25], [0.02, 30.0, 20.0]]


def written(path: Path, text: str) -> Path:
    path.write_text(text, encoding="utf-8")
    return path


@pytest.mark.parametrize(
    "text",
    [
        "time [s],front pressure [bar],rear pressure [bar]\n0,0.1,0.1\n0.01,12.5,11.25\n"
        "0.02,30,20\n",
        "time;front pressure;rear pressure\ns;bar;bar\n0;0,1;0,1\n0,01;12,5;11,25\n0,02;30;20\n",
        "# by hand\n# twice\ntime (s)\tfront pressure (bar)\trear pressure (bar)\n0\t.1\t.1\n"
        "0.01\t12.5\t11.25\n0.02\t30\t20\n",
        "time front_pressure rear_pressure\n0 0.1 0.1\n0.01 12.5 11.25\n0.02 30 20\n",
        '"time","front pressure","rear pressure"\n"s","bar","bar"\n0,1e-1,0.1\n1e-2,12.5,11.25\n'
        "0.02,30,20\n",
        "\ufefftime,front pressure,rear pressure\r\n0,0.1,0.1\r\n0.01,12.5,11.25\r\n0.02,30,20\r\n",
        "a line about the logger, its number\ntime,front pressure,rear pressure\n"
        "0,0.1,0.1\n0.01,12.5,11.25\n# a remark\n0.02,30,20\n",
    ],
)
def test_one_log_in_many_forms(text: str, tmp_path: Path) -> None:
    log = read_log(written(tmp_path / "log.csv", text))
    assert log.rows == pytest.approx(np.array(ROWS))
    found = propose(log).channels
    assert set(found) == {"time", "front_pressure", "rear_pressure"}
    in_si = signals(log, {**found, "front_pressure": Mapped(found["front_pressure"].column, "bar")})
    assert in_si.channels["front_pressure"] == pytest.approx([1e4, 1.25e6, 3e6])


def test_text_in_the_middle_is_named_by_its_line_and_skipped(tmp_path: Path) -> None:
    text = (
        "time [s],front pressure [bar]\n0,1\n0.01,2\nlogger restarted\n0.02,x\n0.03,4,5\n0.04,5\n"
        "0.05,\n"
    )
    log = read_log(written(tmp_path / "log.csv", text))
    assert log.rows[:, 0] == pytest.approx([0.0, 0.01, 0.04, 0.05])
    assert [line for line, _ in log.skipped] == [4, 5, 6]
    assert "x" in log.skipped[1][1]
    assert math.isnan(log.rows[-1, 1])
    said = faults_of(log, rising(signals(log, propose(log).channels))[0])
    assert any("line 4 is skipped" in one.what for one in said)
    assert any("empty" in one.what for one in said)


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "no figures"),
        (b"only words\nand more\n", "no line of figures"),
        (b"\x00\xff\xfe\x01" * 50, "no"),
        (b"time,p\n", "no line of figures"),
    ],
)
def test_what_is_no_log_is_refused_in_words(content: bytes, words: str, tmp_path: Path) -> None:
    path = tmp_path / "log.csv"
    path.write_bytes(content)
    with pytest.raises(BuildErrors, match=words):
        read_log(path)


def test_a_log_that_is_not_there_or_no_file(tmp_path: Path) -> None:
    with pytest.raises(BuildErrors, match="cannot be read"):
        read_log(tmp_path / "gone.csv")
    with pytest.raises(BuildErrors, match="no file"):
        read_log(tmp_path)


@pytest.mark.parametrize(("name", "extra"), [("log.mf4", "mdf"), ("log.parquet", "parquet")])
def test_a_library_that_is_not_there_is_named(name: str, extra: str, tmp_path: Path) -> None:
    path = tmp_path / name
    path.write_bytes(b"MDF     4.10")
    with pytest.raises(BuildErrors, match="not installed") as refused:
        read_log(path)
    assert f"urgens[{extra}]" in refused.value.errors[0].remedy


@settings(max_examples=150)
@given(st.binary(max_size=400))
def test_any_bytes_are_read_or_refused_in_words(content: bytes) -> None:
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "log.csv"
        path.write_bytes(content)
        try:
            log = read_log(path)
        except BuildErrors:
            return
        assert log.rows.shape[1] == len(log.names) == len(log.units)


def columns(**given: str) -> str:
    heads = ",".join(given.values())
    return heads + "\n" + "\n".join(",".join(["1"] * len(given)) for _ in range(3)) + "\n"


@pytest.mark.parametrize(
    ("heads", "channels"),
    [
        ("Time [s],P1 [bar],P2 [bar]", {"time": 0, "front_pressure": 1, "rear_pressure": 2}),
        ("t [ms],Brake Press Front [kPa],Brake Press Rear [kPa],Pedal Force [N]",
         {"time": 0, "front_pressure": 1, "rear_pressure": 2, "foot": 3}),
        ("Time [s],WS Front [km/h],WS Rear [km/h],GPS speed [km/h],Decel [g]",
         {"time": 0, "front_speed": 1, "rear_speed": 2, "speed": 3, "deceleration": 4}),
        ("Time [s],Front Temp [°C],Rear Temp [°C],Pedal Travel [mm]",
         {"time": 0, "front_temperature": 1, "rear_temperature": 2, "travel": 3}),
        ("secs,FrontPressure [psi],RearPressure [psi]",
         {"time": 0, "front_pressure": 1, "rear_pressure": 2}),
    ],
)  # fmt: skip
def test_channels_are_proposed_by_name_and_unit(
    heads: str, channels: dict[str, int], tmp_path: Path
) -> None:
    rows = "\n".join(",".join(str(30 * k) for _ in heads.split(",")) for k in range(4))
    log = read_log(written(tmp_path / "log.csv", f"{heads}\n{rows}\n"))
    found = propose(log).channels
    assert {name: log.names.index(one.column) for name, one in found.items()} == channels


def logged(tmp_path: Path, front: np.ndarray, rear: np.ndarray, units: tuple[str, str]) -> Path:
    time = np.arange(front.size) * 0.01
    lines = [f"time [s],front pressure{units[0]},rear pressure{units[1]}"]
    lines += [f"{t:.2f},{f:.3f},{r:.3f}" for t, f, r in zip(time, front, rear, strict=True)]
    return written(tmp_path / "log.csv", "\n".join(lines))


@pytest.mark.parametrize(
    ("factor", "units", "asked", "words"),
    [
        ((1.0, 1.0), (" [bar]", " [bar]"), None, ""),
        ((14.5, 14.5), (" [bar]", " [bar]"), "front_pressure", "psi"),  # 870 bar: no vehicle has it
        ((14.5, 1.0), (" [bar]", " [bar]"), "front_pressure", "bar and psi|psi"),
        ((3.0, 43.5), (" [bar]", " [bar]"), "rear_pressure", "psi"),
        ((1.0, 1.0), ("", ""), "front_pressure", "bar"),
        ((14.5, 14.5), ("", ""), "front_pressure", "psi"),
    ],
)
def test_a_unit_that_cannot_be_is_asked_about(
    factor: tuple[float, float], units: tuple[str, str], asked: str | None, words: str,
    tmp_path: Path,
) -> None:  # fmt: skip
    front = 60.0 * np.sin(np.linspace(0.0, 3.0, 200))
    rear = np.minimum(front, 25.0 + 0.4 * (front - 25.0))
    path = logged(tmp_path, front * factor[0], rear * factor[1], units)
    questions = propose(read_log(path)).questions
    if asked is None:
        assert not questions
    else:
        assert any(word in questions[asked] for word in words.split("|"))


def test_clocks_and_gaps_are_named_with_their_place(tmp_path: Path) -> None:
    time = np.arange(400) * 0.01
    time[100:110] = time[99]  # it stood
    time[200:] += 1.0  # a gap of a second
    time[300] = time[280]  # went back
    rows = "\n".join(f"{t:.3f},{5 + math.sin(t):.4f}" for t in time)
    log = read_log(written(tmp_path / "log.csv", f"time [s],front pressure [bar]\n{rows}\n"))
    found, clock = rising(signals(log, propose(log).channels))
    said = [*clock, *faults_of(log, found)]
    assert np.all(np.diff(found.time) > 0.0)
    assert any("stands for 10 rows" in one.what and one.at == pytest.approx(0.99) for one in said)
    assert any("goes back" in one.what for one in said)
    assert any("nothing for 1.01 s" in one.what and one.at == pytest.approx(1.99) for one in said)


def test_a_sensor_at_its_limit_or_dead_is_named(tmp_path: Path) -> None:
    front = np.minimum(80.0 * np.sin(np.linspace(0.0, 3.0, 400)), 60.0)
    path = logged(tmp_path, front, np.full(400, 0.3), (" [bar]", " [bar]"))
    log = read_log(path)
    said = faults_of(log, signals(log, propose(log).channels))
    assert any(one.what.startswith("Front pressure: at its limit") for one in said)
    assert any(one.what.startswith("Rear pressure: dead") for one in said)


@pytest.mark.parametrize(
    ("channels", "words"),
    [
        ({}, "no column is named as the time"),
        ({"time": Mapped("t", "s")}, "no column"),
        ({"time": Mapped("time", "bar")}, "no unit"),
        ({"time": Mapped("time", "s"), "boost": Mapped("time", "s")}, "no channel"),
    ],
)
def test_a_channel_that_does_not_fit_is_refused(
    channels: dict[str, Mapped], words: str, tmp_path: Path
) -> None:
    log = read_log(written(tmp_path / "log.csv", "time [s],p [bar]\n0,1\n1,2\n"))
    with pytest.raises(BuildErrors, match=words):
        signals(log, channels)


def test_presses_are_found_where_the_foot_made_them(tmp_path: Path) -> None:
    """Three presses of the stand-in, with their own times; written, read again, found."""
    build = demo("roadster")
    foot = Foot(np.array([0.0, 0.5, 0.9, 2.0, 2.2, 4.0]), np.array([0, 0, 180, 180, 0, 0.0]))
    [went] = drives([trial(build, system(build), 0, 0.9, 40.0, foot)])
    write_csv(tmp_path / "log.csv", sensed(went, 3), ("simulated",))
    log = read_log(tmp_path / "log.csv")
    found, faults = rising(signals(log, propose(log).channels))
    [press] = presses(found)
    begins = float(went.time[np.argmax(went.front > 1e5)])
    ends = float(went.time[went.time.size - 1 - np.argmax(went.front[::-1] > 0.5e5)])
    assert faults == ()
    assert press.start == pytest.approx(begins, abs=0.02)
    assert press.end == pytest.approx(ends, abs=0.02)
    assert press.front_peak == pytest.approx(went.front.max(), rel=0.01)
    assert press.effort == pytest.approx(180.0, rel=0.03)
    assert press.rise is not None
    assert 0.2 < press.rise < 0.6
    assert press.locked == ()
    wanted = np.interp(1.5, went.time, of_drive(went).channels["deceleration"])
    assert press.deceleration == pytest.approx(wanted, rel=0.15)


def test_knee_slope_and_lock_of_a_press() -> None:
    build = edited(demo("roadster"), "valves.rear[0].turns", 2.0)  # 17 bar, slope 0.35 by its table
    [went] = drives([trial(build, system(build), 0, 0.9, 25.0, hold(330.0, 0.8))])
    [press] = presses(sensed(went, 1))
    assert press.knee == pytest.approx(17e5, rel=0.06)
    assert press.slope == pytest.approx(0.35, abs=0.05)
    assert press.locked[0][0] == "front"
    # The road counts from past the tyre's peak on, a log from where a wheel nearly stands
    assert went.locked[0][1] < press.locked[0][1] < went.locked[0][1] + 0.25
    assert press.front_slip is not None
    assert press.front_slip > 0.95


def test_a_rear_line_that_comes_later_is_told() -> None:
    time = np.arange(0.0, 3.0, 0.005)
    front = 40e5 * np.clip((time - 0.3) / 0.2, 0.0, 1.0) * (time < 2.5)
    late = 40e5 * np.clip((time - 0.42) / 0.2, 0.0, 1.0) * (time < 2.5)
    from urgens.bench.logs.channels import Signals

    [press] = presses(Signals({"time": time, "front_pressure": front, "rear_pressure": late}))
    assert press.rear_delay == pytest.approx(0.12, abs=0.011)


def test_short_knocks_and_noise_are_no_presses() -> None:
    from urgens.bench.logs.channels import Signals

    time = np.arange(0.0, 5.0, 0.01)
    chance = np.random.default_rng(1)
    noise = 0.2e5 * chance.standard_normal(time.size)
    knock = np.where((time > 1.0) & (time < 1.1), 5e5, 0.0)
    assert presses(Signals({"time": time, "front_pressure": noise + knock})) == ()
    assert presses(Signals({"time": time})) == ()


def test_before_and_after_are_compared_at_the_same_foot() -> None:
    made = {}
    for turns in (0.0, 6.0):
        build = edited(demo("roadster"), "valves.rear[0].turns", turns)
        [went] = drives([trial(build, system(build), 0, 1.1, 25.0, hold(240.0, 1.0))])
        log = sensed(went, 1)
        made[turns] = log, presses(log)
    found = before_after(made[0.0], made[6.0])
    assert found.why_not == ""
    assert found.before.by == "foot"
    assert found.apart is not None
    assert found.apart > 0.5e5
    same = before_after(made[6.0], made[6.0])
    assert same.apart == 0.0
    assert not same.clear


def test_the_model_s_rear_line_is_that_of_the_solver() -> None:
    build = bed("library")
    made = system(build)
    front = np.array([5e5, 40e5, 80e5])
    closing, opening, full = (p * 6894.757 for p in (10, 130, 260))  # psi, of its metering valve
    into = front.copy()
    into[0] = opening + (front[0] - closing) * (full - opening) / (full - closing)
    knee, slope = 400 * 6894.757, 0.35
    wanted = np.minimum(into, knee + slope * (into - knee))
    assert model_rear(made, 0, front) == pytest.approx(wanted, rel=0.02)


def test_what_is_written_is_read_again() -> None:
    build = demo("roadster")
    [went] = drives([trial(build, system(build), 0, 1.1, 20.0, hold(150.0))])
    text = csv_of(of_drive(went), ("one", "two"))
    assert text.startswith("# one\n# two\ntime [s],front pressure [bar]")
    assert text.count("\n") == went.time.size + 3


@pytest.mark.parametrize(("above", "simulated"), [("simulated, mine", True), ("a dry run", False)])
def test_what_a_stand_in_wrote_stays_known_as_such(
    above: str, simulated: bool, tmp_path: Path
) -> None:
    path = tmp_path / "log.csv"
    for comments in ((above,), None):
        rows = Signals({"time": np.arange(20.0), "front_pressure": np.full(20, 1e6)})
        said = written_anew(read_log(path), path.name) if comments is None else comments
        write_csv(path, rows, said)
        assert read_log(path).simulated is simulated


# --- what loggers and hands put into files ----------------------------------------------------


def test_a_heading_in_quotes_may_hold_what_separates(tmp_path: Path) -> None:
    """RFC 4180, section 2.6; a quotation mark is doubled."""
    text = (
        '"time, since start [s]","front ""A"" pressure [bar]",rear\tpressure [bar]\n'
        "0,1,1\n0.01,2,2\n0.02,3,3\n"
    )
    log = read_log(written(tmp_path / "log.csv", text))
    assert log.names == ("time, since start", 'front "A" pressure', "rear pressure")
    assert log.units == ("s", "bar", "bar")
    assert log.rows[:, 1].tolist() == [1.0, 2.0, 3.0]


def test_control_characters_in_names_are_left_out(tmp_path: Path) -> None:
    """So that a build, whose names are one line, can note the column."""
    text = "time [s],front\x07 pres\x00sure [bar]\n0,1\n0.01,2\n0.02,3\n"
    log = read_log(written(tmp_path / "log.csv", text))
    assert all(name.isprintable() for name in log.names)
    name = propose(log).channels["front_pressure"].column
    row = {"at": "2026-05-02T10:00", "file": "log.csv", "sha256": "0" * 64,
           "channels": {"front_pressure": {"column": name, "unit": "bar"}}}  # fmt: skip
    build = edited(bed("library"), "proof", {"logs": [row]})
    assert build.proof is not None
    assert build.proof.logs[0].channels["front_pressure"].column == name


def test_columns_of_one_name_are_told_apart(tmp_path: Path) -> None:
    heads = ["time", "p", "p", "p (2)", "p"]
    text = ",".join(heads) + "\n" + "\n".join(f"{n},1,1,1,1" for n in range(4)) + "\n"
    log = read_log(written(tmp_path / "log.csv", text))
    assert len(set(log.names)) == len(heads)
    assert log.names[:2] == ("time", "p")


def test_more_columns_than_any_logger_writes_are_refused_at_once(tmp_path: Path) -> None:
    text = ",".join(f"c{n}" for n in range(100_000)) + "\n" + ",".join(["1"] * 100_000) + "\n"
    with pytest.raises(BuildErrors) as refused:
        read_log(written(tmp_path / "log.csv", text))
    assert str(refused.value) == (
        "log.csv: has more than 4,000 columns; export the channels of the brakes alone"
    )


@pytest.mark.parametrize("time", ["", "1e308", "-1e308", "nan"])
def test_a_log_in_which_no_time_is_known_says_so(time: str, tmp_path: Path) -> None:
    text = "time [s],front pressure [bar],rear pressure [bar]\n" + f"{time},1,1\n" * 4
    found = read_through(written(tmp_path / "log.csv", text), {})
    assert found.presses == ()
    assert "no row has a time: say which column is the time" in [one.what for one in found.faults]


def test_figures_beyond_any_sensor_are_left_out_and_told(tmp_path: Path) -> None:
    rows = "\n".join(f"{n / 100},{1e308 if n == 7 else 20},10" for n in range(60))
    text = f"time [s],front pressure [bar],rear pressure [bar]\n{rows}\n"
    found = read_through(written(tmp_path / "log.csv", text), {})
    assert np.nanmax(found.signals.channels["front_pressure"]) == pytest.approx(2e6)
    assert any("Front pressure: 1 cells are empty" in one.what for one in found.faults)


def test_a_name_with_a_line_break_breaks_no_log_that_is_written_anew(tmp_path: Path) -> None:
    log = read_log(written(tmp_path / "log.csv", "time [s],front pressure [bar]\n0,1\n1,2\n"))
    text = csv_of(signals(log, propose(log).channels), ("written anew from a\nb.csv",))
    assert text.splitlines()[0] == "# written anew from a b.csv"


# --- a late rear line, and what one sensor tells ------------------------------------------------

PSI = 6894.757


def pressed(
    chance: np.random.Generator, knee: float, slope: float, late: float, noise: float, rise: float
) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Time, front and rear pressure of one press of 100 rows a second; the rear comes late."""
    time = np.arange(0.0, rise + 1.2, 0.01)
    peak = knee + 35e5

    def front(at: np.ndarray) -> np.ndarray:
        share = np.clip((at - 0.1) / rise, 0.0, 1.0)
        return peak * (3.0 * share**2 - 2.0 * share**3)

    before = front(time - late)
    rear = np.minimum(before, knee) + slope * np.maximum(before - knee, 0.0)
    return (time, *(one + chance.normal(0.0, noise, time.size) for one in (front(time), rear)))


@pytest.mark.parametrize("noise", [2.0, 6.0, 15.0])
def test_a_late_line_s_knee_and_slope_lie_within_their_limits(noise: float) -> None:
    """Limits of 95 % hold the truth in 90 to 99 of 100, whatever the delay up to 0.1 s."""
    chance, told = np.random.default_rng(4), 0
    held: list[bool] = []
    wide: list[float] = []
    off: list[float] = []
    for late in (0.0, 0.03, 0.06, 0.1):
        for rise in (0.3, 0.5, 0.8):
            for _ in range(12):
                knee, slope = chance.uniform(25e5, 50e5), chance.uniform(0.2, 0.6)
                line = press_line(*pressed(chance, knee, slope, late, noise * PSI, rise))
                assert line is not None
                told += 1
                if line.fit is None:  # too quick to tell
                    continue
                off.append(abs(line.delay - late))
                limits = line.fit.knee_limits, line.fit.slope_limits
                held += [low <= truth <= high for truth, (low, high)
                         in zip((knee, slope), limits, strict=True)]  # fmt: skip
                wide.append(np.ptp(line.fit.knee_limits))
    assert 0.90 <= np.mean(held) <= 0.995
    assert len(held) > 1.9 * told
    assert np.median(off) < 0.01
    assert np.median(wide) < 4.5 * noise * PSI + 1.5e5


def test_a_press_too_quick_says_so_and_a_line_that_does_not_follow_tells_nothing() -> None:
    chance = np.random.default_rng(1)
    quick = press_line(*pressed(chance, 40e5, 0.3, 0.08, 400 * PSI, 0.15))
    assert quick is None or quick.fit is None
    time, front, rear = pressed(chance, 40e5, 0.3, 0.0, 2 * PSI, 0.5)
    assert press_line(time, front, np.zeros_like(rear)) is None
    assert press_line(time[:9], front[:9], rear[:9]) is None


def one_sensor(peaks: list[float], name: str = "rear_pressure") -> tuple[Signals, tuple[Any, ...]]:
    time = np.arange(0.0, 2.0 * len(peaks), 0.01)
    line = np.zeros_like(time)
    for number, peak in enumerate(peaks):
        line += np.where(np.abs(time - 2.0 * number - 1.0) < 0.5, peak, 0.0)
    log = Signals({"time": time, name: line})
    return log, presses(log)


def test_one_sensor_is_compared_peak_by_peak_and_what_cannot_be_says_why() -> None:
    """By hand: medians of 30 and of 42 bar are 12 apart."""
    before, after = one_sensor([28e5, 30e5, 31e5]), one_sensor([41e5, 42e5, 44e5])
    found = before_after(before, after)
    assert (found.before.by, found.what) == ("peak", "rear_pressure")
    assert found.apart == pytest.approx(12e5)
    assert found.clear
    other = one_sensor([30e5], "front_pressure")
    assert before_after(before, other).why_not == "the two logs have no pressure of the same line"
    still = Signals({"time": np.arange(0.0, 1.0, 0.01), "rear_pressure": np.zeros(100)})
    assert before_after(before, (still, ())).why_not == "there is no press in the second log"
    assert before_after(before, (still, ())).apart is None


@pytest.mark.parametrize(
    ("text", "names", "rows"),
    [
        ("pressure\n1,2\n1,4\n", ("pressure",), [[1.2], [1.4]]),
        ("time p\n0,01 12,5\n0,02 13,5\n", ("time", "p"), [[0.01, 12.5], [0.02, 13.5]]),
        ("a,b\n1,2\n3,4\n", ("a", "b"), [[1.0, 2.0], [3.0, 4.0]]),
    ],
)  # fmt: skip
def test_a_decimal_comma_is_told_by_the_names_above(
    text: str, names: tuple[str, ...], rows: list[list[float]], tmp_path: Path
) -> None:
    log = read_log(written(tmp_path / "log.csv", text))
    assert log.names == names
    assert log.rows == pytest.approx(np.array(rows))
    assert log.said == ()


def test_a_comma_that_nobody_can_tell_is_said(tmp_path: Path) -> None:
    log = read_log(written(tmp_path / "log.csv", "1,2\n3,4\n"))
    assert log.rows.shape == (2, 2)
    said = faults_of(log, Signals({"time": np.arange(2.0)}))
    assert "one comma stands in every line" in said[0].what


def test_what_no_name_tells_is_proposed_by_range_and_asked(tmp_path: Path) -> None:
    rows = "\n".join(f"{n * 0.01:.2f},{n},{0.6 * n}" for n in range(60))
    log = read_log(written(tmp_path / "log.csv", f"k1 [],q7 [bar],q8 [bar]\n{rows}\n"))
    found = propose(log)
    assert {name: one.column for name, one in found.channels.items()} == {
        "time": "k1", "front_pressure": "q7", "rear_pressure": "q8"
    }  # fmt: skip
    assert "is “k1” the time?" in found.questions["time"]
    assert "is it the rear line's?" in found.questions["rear_pressure"]
