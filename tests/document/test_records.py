"""Records in the build file: as written, and what cannot be."""

from typing import Any

import pytest

from tests.builds import bed
from urgens.document import BuildErrors, dumps, edited, loads

RUN: dict[str, Any] = {
    "procedure": "bleed", "method": "open-stroke", "started": "2026-05-02T14:10", "ended": None,
    "step": 7, "people": ["A", "B"], "fluid": {"class": "DOT 4", "opened": "2026-04-30"},
    "entries": [{"at": "2026-05-02T14:22", "step": 3, "field": "strokes", "wheel": "front-left",
                 "value": 12}],
}  # fmt: skip


def test_a_record_comes_back_as_it_was_written() -> None:
    build = edited(bed("bakery"), "records", [RUN])
    build = edited(build, "joints", [{"joint": "L1.a", "state": "tight", "at": "2026-05-02T15:00"}])
    build = edited(build, "open_items", [{"what": "clip at the frame", "holds_vehicle": True}])
    assert loads(dumps(build)) == build
    assert build.records[0].entries[0].value == 12.0
    assert build.open_items[0].holds_vehicle


@pytest.mark.parametrize(
    ("change", "place", "words"),
    [
        ({"started": "yesterday"}, "records[0].started", "not a time"),
        ({"started": "2026-05-02T14:10+02:00"}, "records[0].started", "not a time"),
        ({"ended": "2026-05-01T10:00"}, "records[0].ended", "before it was started"),
        ({"step": 0}, "records[0].step", "at least 1"),
        ({"fluid": {"class": "DOT 9"}}, "records[0].fluid.class", "DOT 9"),
        ({"entries": [{"at": "2026-05-02T14:22", "step": 1, "field": "colour", "value": "blue"}]},
         "records[0].entries[0].value", '"blue" is no colour'),
        ({"entries": [{"at": "2026-05-02T14:22", "step": 1, "field": "luck", "value": 1}]},
         "records[0].entries[0].field", "luck"),
        ({"outcome": "won"}, "records[0].outcome", "won"),
        ({"steps": [{"action": "check", "asks": "ok"}], "step": 2}, "records[0].step",
         "beyond the 1 steps"),
        ({"steps": [{"action": "check", "asks": "ok"}], "done": [1, 2]}, "records[0].step",
         "beyond the 1 steps"),
        ({"steps": [{"action": "check", "asks": "ok"}],
          "entries": [{"at": "2026-05-02T14:22", "step": 3, "field": "ok", "value": True}]},
         "records[0].entries[0].step", "beyond the 1 steps"),
        ({"done": [0]}, "records[0].done[0]", "at least 1"),
        ({"strokes": -1}, "records[0].strokes", "at least 0"),
    ],
)  # fmt: skip
def test_what_cannot_be_names_its_place(change: dict[str, Any], place: str, words: str) -> None:
    with pytest.raises(BuildErrors) as refused:
        edited(bed("bakery"), "records", [{**RUN, **change}])
    assert any(fault.path == place and words in str(fault) for fault in refused.value.errors)
