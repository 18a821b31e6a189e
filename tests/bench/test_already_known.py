"""What is on record and bears on a fault: travels, proofs, gauges, stops, logs."""

from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

import pytest

from tests.builds import bed, whole_run
from urgens.bench.evidence_on_record import already_known, counting, evidence_of, of_logs, of_run
from urgens.data import logs_folder
from urgens.document import Build, with_changes
from urgens.document.ledger.traces import ReadFigure, SeenSign, TestDone, TraceRun
from urgens.guidance.tracing.ranking import TraceEvidence

AT = "2026-05-03T10:00:00"
RUN = {"procedure": "three-strokes", "started": AT, "ended": AT}


def travels(*entries: dict[str, Any]) -> Build:
    rows = [{"at": AT, "step": 1, "field": "travel", **one} for one in entries]
    return with_changes(bed("library"), {"records": [{**RUN, "entries": rows}], "proof": None})


def test_travels_read_at_a_foot_are_readings() -> None:
    build = travels(
        {"value": 80.0, "effort": "300 N", "when": "stroke-1", "booster": "working"},
        {"value": 61.0, "effort": "300 N", "when": "stroke-3", "booster": "working"},
        {"value": 66.0, "effort": "300 N", "when": "now", "booster": "out"},
        {"value": 61.0, "effort": "300 N", "when": "now"},  # with which help nobody noted
        {"value": 61.0},  # at no foot
        {"value": 61.0, "effort": "a kick"},
        {"value": 900.0, "effort": "300 N", "booster": "working"},  # beyond any vehicle
    )
    found = [one.reading for one in already_known(build) if one.reading is not None]
    assert [(one.kind, one.value, one.effort, one.stroke) for one in found] == [
        ("travel", pytest.approx(0.08), 300.0, 1), ("travel", pytest.approx(0.061), 300.0, 3),
        ("travel", pytest.approx(0.066), 300.0, 1),
    ]  # fmt: skip
    assert [one.how.engine for one in found] == [True, True, False]


def test_a_proof_that_was_done_well_is_an_outcome() -> None:
    done = whole_run(bed("library"), "leak-test")
    build = with_changes(bed("library"), {"records": [done], "proof": None})
    assert ("hold", "holds") in [one.outcome for one in already_known(build)]


@pytest.mark.parametrize(
    ("points", "outcome"),
    [
        ([(10, 10), (20, 20), (30, 30), (40, 40), (50, 50), (60, 60)], ("gauges", "rear-high")),
        ([(10, 0), (20, 0), (30, 0), (40, 0), (50, 0), (60, 0)], ("gauges", "rear-none")),
        ([(4, 4), (6, 6), (8, 8), (20, 10), (40, 13), (60, 16)], ("gauges", "rear-low")),
    ],
)
def test_what_gauges_say_is_an_outcome(
    points: list[tuple[int, int]], outcome: tuple[str, str]
) -> None:
    """Common practice: the same on both does not reduce; nothing behind is blocked."""
    rows = [[f"{into} bar", f"{out} bar", "rising"] for into, out in points]
    run = {"at": AT, "valve": "rear[0]", "full_scale": "100 bar", "points": rows}
    build = with_changes(bed("roadster"), {"proof": {"gauges": [run]}, "records": []})
    assert [one.outcome for one in already_known(build)] == [outcome]


def test_stops_tell_who_locked_or_how_hard_it_was() -> None:
    stop = {"at": AT, "load_case": "Driver, half tank", "surface": 1.1}
    rows = [
        {**stop, "locked": "rear"},
        {**stop, "locked": "none", "deceleration": 0.5, "effort": "200 N"},
        {**stop, "locked": "rear", "counts": False},
    ]
    build = with_changes(bed("roadster"), {"proof": {"stops": rows}, "records": []})
    first, second = already_known(build)
    assert first.sign == "rear-first"
    assert second.reading is not None
    assert second.reading.how.moving
    rows = [{**stop, "locked": "none", "pull": "left"}]
    pulled = with_changes(build, {"proof": {"stops": rows}})
    (told,) = already_known(pulled)
    assert (told.sign, told.answers) == ("pulls", ("left",))
    found = evidence_of(pulled, TraceEvidence(), (told,))
    assert (found.signs, found.answers) == ({"pulls": True}, {"pulls": ("left",)})
    assert second.reading is not None
    assert (second.reading.kind, second.reading.value) == ("deceleration", 0.5)


def test_logs_of_the_day_tell_their_hardest_press(tmp_path: Path) -> None:
    build = bed("roadster")
    assert build.proof is not None
    since = build.proof.logs[0].at
    found, said = of_logs(build, None, since)
    assert {one.reading.kind for one in found if one.reading is not None} >= {
        "front-pressure", "rear-pressure",
    }  # fmt: skip
    assert said == ()
    assert of_logs(build, None, since + timedelta(days=400)) == ((), ())
    gone = with_changes(build, {"proof.logs[0].file": "lost.csv"})
    assert of_logs(gone, None, since)[1] == ("lost.csv is gone: what it tells is left out",)
    own = tmp_path / "own.urgens.json"
    (tmp_path / "lost.csv").write_text("nothing but words\n")
    assert "no line of figures" in of_logs(gone, own, since)[1][0]


def test_a_simulated_log_tells_nothing_of_the_vehicle(tmp_path: Path) -> None:
    """Whether the build says that it is, or the file itself."""
    build = bed("roadster")
    assert build.proof is not None
    log = build.proof.logs[0]
    noted = with_changes(build, {"proof.logs[0].source": "simulated"})
    text = (logs_folder() / log.file).read_text()
    (tmp_path / log.file).write_text(f"# simulated, some vehicle\n{text}")
    for made, own in ((noted, None), (build, tmp_path / "own.urgens.json")):
        found, said = of_logs(made, own, log.at)
        assert not any(log.file in one.name for one in found)
        assert f"{log.file} is simulated: it tells nothing of the vehicle" in said


def test_a_run_is_evidence_with_the_last_word_on_each() -> None:
    run = TraceRun.model_validate({
        "started": AT,
        "signs": [{"at": AT, "sign": "sinks"}, {"at": AT, "sign": "sinks", "seen": False}],
        "tests": [{"at": AT, "test": "hold", "outcome": "holds"}],
        "readings": [{"at": AT, "reading": "travel-2", "value": "60 mm", "effort": "300 N"}],
    })  # fmt: skip
    assert isinstance(run.signs[0], SeenSign)
    assert isinstance(run.tests[0], TestDone)
    assert isinstance(run.readings[0], ReadFigure)
    found = of_run(run)
    assert found.signs == {"sinks": False}
    assert found.outcomes == {"hold": "holds"}
    assert found.readings[0].stroke == 2
    assert counting((), datetime.fromisoformat(AT)) == ()
