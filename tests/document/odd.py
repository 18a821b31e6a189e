"""Odd documents, drawn: a demo build with things in it that a file should not hold, or hardly."""

import copy
import json
from collections.abc import Iterator
from typing import Any

from hypothesis import strategies as st

from tests.builds import bed_text
from urgens.document import demo_names

Way = tuple[str | int, ...]
SPREADS = ["10 %", "±10 %", "1e9 %", "9" * 300 + " %", "0 %", "0.05", "1 in", "", "nan", "-5 %"]
ODD: list[Any] = [
    None, True, False, 0, -0.0, 1, -1, 10**400, -(10**400), 1e308, 5e-324, "", " ", "\x00",
    "\x1b[31mred", "a\nb", "\u202eabc", "1e400 in", "9" * 400 + " in", "<img src=/dev/zero>",
    "$x^$", "_hidden", "=1+1", "é" * 10_000, [], {}, [[]], {"kind": "x"}, {"x" * 100_000: 1},
    {"": 1}, [None] * 100, "nan", "inf in", "-1 in", "1/0 in", "0/0", "1-1/16 in", "300 psi",
    "25 mm", "2 N", "1e-9 m", "3 deg", 0.5, 2.0, *SPREADS,
]  # fmt: skip
PLACES = [
    "rules", "__class__", "model_fields", "version", "name", "setups", "evidence", "vehicle",
    "vehicle.load_cases", "vehicle.load_cases[0].name", "targets.max_effort", "front.brake.kind",
    "booster.works", "pedal.pivot_to_pad.value", "x" * 10_000, "valves.rear[0]",
    "valves.rear[1000000000000].knee",
    "valves.rear[-1]", "valves.rear[0].knee]", "[", ".", "a\x00b",
]  # fmt: skip


def ways(here: Any, way: Way = ()) -> Iterator[Way]:
    """Every place in parsed JSON."""
    if isinstance(here, dict | list):
        for step, value in here.items() if isinstance(here, dict) else enumerate(here):
            yield (*way, step)
            yield from ways(value, (*way, step))


def written(way: Way) -> str:
    """A place as a path."""
    path = ""
    for step in way:
        path += f"[{step}]" if isinstance(step, int) else f".{step}" if path else step
    return path


@st.composite
def odd_documents(draw: st.DrawFn) -> dict[str, Any]:
    """A demo build's document, in which up to three things are odd."""
    document: dict[str, Any] = json.loads(bed_text(draw(st.sampled_from(demo_names()))))
    for _ in range(draw(st.integers(1, 3))):
        odd = copy.deepcopy(draw(st.sampled_from(ODD)))
        everywhere = list(ways(document))
        path = draw(st.sampled_from([*map(written, everywhere), *PLACES]))
        kind = draw(st.sampled_from(["value", "gone", "more", "known", "changed"]))
        if kind == "known" and isinstance(document.get("evidence", {}), dict):
            spread = draw(st.sampled_from(SPREADS))
            document.setdefault("evidence", {})[path] = {"state": "assumed", "spread": spread}
        elif kind == "changed" and isinstance(document.get("setups", []), list):
            setup = {"name": draw(st.sampled_from(["a", "b"])), "changes": {path: odd}}
            document.setdefault("setups", []).append(setup)
        else:
            _spoil(document, draw(st.sampled_from(everywhere)), kind, odd)
    return document


def _spoil(document: dict[str, Any], way: Way, kind: str, odd: Any) -> None:
    here: Any = document
    for step in way[:-1]:
        here = here[step]
    if kind == "gone":
        del here[way[-1]]
    elif kind == "more" and isinstance(here, list):
        here.append(odd)
    elif kind == "more":
        here["\x1b[2J"] = odd
    else:
        here[way[-1]] = odd
