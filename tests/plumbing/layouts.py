"""A small layout: cylinder, two calipers, two lines."""

import json
from typing import Any

from tests.builds import bed
from urgens.document import Build, edited

FLARE = {"nut": "3/8-24", "flare": "inverted"}
PORT = {"thread": "3/8-24", "seat": "inverted"}
LEGS = [["0 mm"] * 3, ["200 mm", "0 mm", "0 mm"], ["200 mm", "300 mm", "0 mm"]]


def wheel(name: str) -> dict[str, Any]:
    return {"id": name, "kind": "wheel-brake", "wheel": WHEELS[name], "ports": {"in": PORT}}


WHEELS = {"fl": "front-left", "fr": "front-right", "rl": "rear-left", "rr": "rear-right"}


def line(name: str, start: str, end: str, **more: Any) -> dict[str, Any]:
    made = {"id": name, "from": start, "to": end, "tube": "3/16 in", "ends": [FLARE, FLARE]}
    return {**made, "route": LEGS, **more}


def layout() -> dict[str, Any]:
    """As JSON, to be damaged."""
    master = {"id": "mc", "kind": "master", "ports": {"front": PORT, "rear": PORT}}
    return json.loads(json.dumps({
        "parts": [master, wheel("fl"), wheel("rl")],
        "lines": [line("L1", "mc.front", "fl.in"), line("L2", "mc.rear", "rl.in")],
    }))  # fmt: skip


def with_layout(plumbing: dict[str, Any]) -> Build:
    return edited(bed("pickup"), "plumbing", plumbing)
