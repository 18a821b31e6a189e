"""`urgens plan` and `urgens compare`, as their contract says."""

import json
from datetime import date, datetime, timedelta
from itertools import pairwise
from pathlib import Path
from typing import Any

import pytest
from icalendar import Calendar

from tests.builds import bed, on_record
from tests.test_cli import demo_file
from urgens.cli.main import main
from urgens.document import demo, save, with_changes


def printed(capsys: pytest.CaptureFixture[str], *arguments: str) -> dict[str, object]:
    assert main([*arguments]) == 0
    found = json.loads(capsys.readouterr().out)
    assert isinstance(found, dict)
    return found


@pytest.fixture(scope="module")
def van(tmp_path_factory: pytest.TempPathFactory) -> str:
    """The van before anything was done on it."""
    path = tmp_path_factory.mktemp("van") / "van.urgens.json"
    save(bed("library"), path)
    return str(path)


def test_a_plan_has_what_the_contract_names(capsys: pytest.CaptureFixture[str], van: str) -> None:
    found = printed(capsys, "plan", van, "--to", "load-sensing", "--json", "--start", "2026-05-01")
    jobs = found["jobs"]
    assert isinstance(jobs, list)
    assert {"name", "minutes", "people", "opens", "after", "why"} <= jobs[0].keys()
    assert jobs[0]["start"] == "2026-05-01T09:00"
    assert found["bleeds"] == 1
    due = found["due"]
    assert isinstance(due, list)
    assert {"what", "when", "why"} <= due[0].keys()


def test_a_plan_in_words_says_what_it_supposes(
    capsys: pytest.CaptureFixture[str], van: str
) -> None:
    assert main(["plan", van]) == 0
    out = capsys.readouterr().out
    assert out.startswith("Neither a joint nor a bleeding is on record")
    assert "Bleeds: 2, one by one 4." in out
    assert main(["plan", str(demo_file("roadster"))]) == 0
    assert capsys.readouterr().out.startswith("Nothing is open.\n")


def test_what_is_due_is_a_calendar_that_is_read_back(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    """RFC 5545 by the library icalendar: commas and line breaks of a name come back whole."""
    item = {"what": "Clip, at the axle; both", "due": "2026-06-01"}
    build = with_changes(bed("library"), {"open_items": [item]})
    file, out = tmp_path / "van.urgens.json", tmp_path / "due.ics"
    save(build, file)
    assert main(["plan", str(file), "-o", str(out)]) == 0
    assert "days, each with an alarm" in capsys.readouterr().err
    events = Calendar.from_ical(out.read_bytes()).walk("VEVENT")
    found = {str(one["SUMMARY"]): one for one in events}
    event = found["Bookmoor: Clip, at the axle; both"]
    assert event["DTSTART"].dt == date(2026, 6, 1)
    assert event["DTEND"].dt == date(2026, 6, 2)
    assert str(event["DESCRIPTION"]) == "noted by you"
    (alarm,) = event.walk("VALARM")
    assert alarm["TRIGGER"].dt == timedelta(hours=9)  # of that day
    again = tmp_path / "again.ics"
    assert main(["plan", str(file), "-o", str(again)]) == 0
    ids = [str(one["UID"]) for one in Calendar.from_ical(again.read_bytes()).walk("VEVENT")]
    assert ids == [str(one["UID"]) for one in events]
    assert len(set(ids)) == len(ids)


def test_jobs_stand_in_the_calendar_when_the_plan_does_them(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, van: str
) -> None:
    """Each at its time of the wall's clock with an alarm, and no two at once; a later start moves
    the same jobs, which a calendar that has them already takes as moved (RFC 5545: by UID)."""

    def jobs(start: str) -> dict[str, Any]:
        out = tmp_path / "plan.ics"
        assert main(["plan", van, "--start", start, "-o", str(out)]) == 0
        events = Calendar.from_ical(out.read_bytes()).walk("VEVENT")
        return {str(one["UID"]): one for one in events if isinstance(one["DTSTART"].dt, datetime)}

    first, later = jobs("2026-06-01T09:00"), jobs("2026-06-08T09:00")
    assert set(first) == set(later)
    times = sorted((one["DTSTART"].dt, one["DTEND"].dt) for one in first.values())
    assert times[0][0] == datetime(2026, 6, 1, 9)
    assert all(end <= start for (_, end), (start, _) in pairwise(times))
    planned = printed(capsys, "plan", van, "--json", "--start", "2026-06-01T09:00")["jobs"]
    assert isinstance(planned, list)
    assert len({str(one["SUMMARY"]) for one in first.values()}) >= len(planned)
    for uid, one in first.items():
        assert later[uid]["DTSTART"].dt - one["DTSTART"].dt == timedelta(days=7)
        (alarm,) = one.walk("VALARM")
        assert alarm["TRIGGER"].dt == timedelta(minutes=-15)


@pytest.mark.parametrize(
    ("name", "words"),
    [("due.txt", "has no ending of a calendar; end it .ics"),
     ("nowhere/due.ics", "cannot be written (No such file or directory); choose another place")],
)  # fmt: skip
def test_a_calendar_that_cannot_be_is_said(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, van: str, name: str, words: str
) -> None:
    assert main(["plan", van, "-o", str(tmp_path / name)]) == 2
    assert words in capsys.readouterr().err


def test_a_calendar_without_a_day_is_said(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    whole = on_record(bed("library"))
    records = [dict(one) for one in whole["records"]]
    bled = next(one for one in records if one["procedure"] == "bleed")
    step = next(n for n, one in enumerate(bled["steps"], 1) if one.get("asks") == "travel")
    read = {"at": bled["ended"], "step": step, "field": "travel", "value": 60.0, "when": "morning"}
    bled["entries"] = [*bled["entries"], read]  # else the travel of the morning after is due
    file = tmp_path / "van.urgens.json"
    save(with_changes(bed("library"), {**whole, "records": records}), file)
    assert main(["plan", str(file), "-o", str(tmp_path / "due.ics")]) == 2
    assert "nothing that is due has a day to reckon from" in capsys.readouterr().err


def test_a_build_compared_with_itself_is_empty(
    capsys: pytest.CaptureFixture[str], van: str
) -> None:
    assert printed(capsys, "compare", van, van)["figures"] == []
    assert main(["compare", van, van, "--words"]) == 0
    assert capsys.readouterr().out == "No figure differs.\n"


def test_a_set_up_is_compared_in_si(capsys: pytest.CaptureFixture[str], van: str) -> None:
    found = printed(capsys, "compare", van, "--setup", "load-sensing")
    assert (found["here"], found["other"]) == ("as it is", "load-sensing")
    figures = found["figures"]
    assert isinstance(figures, list)
    rows = {row["figure"]: row for row in figures}
    assert rows["Foot at first lock"]["unit"] == "N"
    assert rows["Locks first"]["better"] == "other"
    assert rows["Rear valve's kind"]["path"] == "valves.rear[0].kind"
    assert main(["compare", van, "--setup", "load-sensing", "--words"]) == 0
    assert "Locks first: rear → front  (better load-sensing: " in capsys.readouterr().out


def test_two_dates_are_compared_and_strange_paths_named(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    changes = {"targets.surface": [0.7, 0.85], "front.paint": ["red", "blue"]}
    entry = {"at": "2026-05-02T10:00", "what": "By hand", "changes": changes}
    file = tmp_path / "van.urgens.json"
    save(with_changes(bed("library"), {"history": [entry]}), file)
    found = printed(capsys, "compare", str(file), "--on", "2026-05-01")
    assert found["unknown"] == ["front.paint"]
    figures = found["figures"]
    assert isinstance(figures, list)
    assert (figures[0]["path"], figures[0]["here"], figures[0]["other"]) == (
        "targets.surface", "0.85", "0.7",
    )  # fmt: skip
    assert printed(capsys, "compare", str(file), "--on", "2026-05-02")["figures"] == []
    both = ("--from", "2026-05-01", "--on", "2026-05-02")
    then = printed(capsys, "compare", str(file), *both)
    assert (then["here"], then["other"]) == ("on 2026-05-01", "on 2026-05-02")
    assert then["figures"]
    assert main(["compare", str(file), "--on", "2026-05-01", "--words"]) == 0
    assert "the history names front.paint, which this build has not" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("arguments", "words"),
    [([], "it is compared with one thing"), (["--setup", "wet"], 'there is no set-up "wet"'),
     (["--on", "yesterday"], '"yesterday" is no day; write year-month-day'),
     (["--on", "9999-12-31"], '"9999-12-31" is no day')],
)  # fmt: skip
def test_what_cannot_be_compared_is_said(
    capsys: pytest.CaptureFixture[str], van: str, arguments: list[str], words: str
) -> None:
    assert main(["compare", van, *arguments]) == 2
    assert words in capsys.readouterr().err


def test_a_broken_other_file_is_named(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, van: str
) -> None:
    other = tmp_path / "other.urgens.json"
    other.write_text(Path(van).read_text().replace('"version": 2', '"version": 99'))
    assert main(["compare", van, str(other)]) == 2
    assert "other.urgens.json version: the file is of version 99" in capsys.readouterr().err


def test_what_holds_the_vehicle_and_what_is_not_yet_is_said(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    """The tender as it ships: a leak holds it, a typed reason lifted one proof; and a slip."""
    assert main(["prove", str(demo_file("tender"))]) == 0
    said = capsys.readouterr().out
    assert "holds  “No leaks” says no: it leaks; ends by: the same check again" in said
    assert "holds  “Three strokes”" not in said
    late = {"procedure": "leak-test", "started": "2199-01-01T10:00"}
    file = tmp_path / "late.urgens.json"
    save(with_changes(demo("tender"), {"records": [late]}), file)
    assert main(["prove", str(file)]) == 0
    assert "proves nothing: records[0]" in capsys.readouterr().out


def test_each_changes_part_is_printed_and_they_add_up(
    capsys: pytest.CaptureFixture[str], van: str
) -> None:
    found = printed(capsys, "compare", van, "--setup", "load-sensing", "--why")

    for name in ("margin", "effort", "travel", "rear_first_chance"):
        whole = found["why_to"][name] - found["why_from"][name]
        assert sum(one[name] for one in found["why"]) == pytest.approx(whole, abs=1e-9)
    kind = next(one for one in found["why"] if "valves.rear[0].kind" in one["paths"])
    assert kind["at"] is None
    assert found["why_exact"]
    assert main(["compare", van, "--setup", "load-sensing", "--why", "--words"]) == 0
    said = capsys.readouterr().out
    assert "Margin behind the front, load-sensing to as it is: " in said
    assert "Rear valve's kind load-sensing → reducing: that put the rear first" in said
