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
    return edited(bed("bakery"), "plumbing", plumbing)


def sound() -> dict[str, Any]:
    """The bakery's whole layout: combination body, a hose at each front wheel, one behind."""
    ports = dict.fromkeys(("front-in", "front-left", "front-right", "rear-in", "rear-out"), PORT)
    parts = [
        {"id": "mc", "kind": "master", "ports": {"front": PORT, "rear": PORT}},
        {"id": "cv", "kind": "combination", "ports": ports},
        *({"id": name, "kind": "hose", "ports": {"a": PORT, "b": PORT}} for name in HOSES),
        {"id": "rt", "kind": "tee", "ports": {"in": PORT, "left": PORT, "right": PORT}},
        *map(wheel, WHEELS),
    ]
    pipes = [
        ("L1", "mc.front", "cv.front-in"), ("L2", "mc.rear", "cv.rear-in"),
        ("L3", "cv.front-left", "hfl.a"), ("L4", "cv.front-right", "hfr.a"),
        ("L5", "cv.rear-out", "hr.a"), ("L6", "rt.left", "rl.in"), ("L7", "rt.right", "rr.in"),
    ]  # fmt: skip
    screwed = [("D1", "hfl.b", "fl.in"), ("D2", "hfr.b", "fr.in"), ("D3", "hr.b", "rt.in")]
    lines = [line(*pipe) for pipe in pipes]
    lines += [{"id": i, "from": a, "to": b, "direct": True} for i, a, b in screwed]
    return json.loads(json.dumps({"parts": parts, "lines": lines}))


HOSES = ("hfl", "hfr", "hr")


def part_of(made: dict[str, Any], name: str) -> dict[str, Any]:
    return next(one for one in made["parts"] if one["id"] == name)


def line_of(made: dict[str, Any], name: str) -> dict[str, Any]:
    return next(one for one in made["lines"] if one["id"] == name)


def _damaged(code: str) -> dict[str, Any]:
    made = sound()
    match code:
        case "thread-mismatch":
            line_of(made, "L6")["ends"][1] = {"nut": "M10x1.0", "flare": "inverted"}
        case "seat-mismatch":
            part_of(made, "rl")["ports"]["in"] = {"thread": "3/8-24", "seat": "37-degree"}
        case "taper-in-flare-port":
            made["parts"].append({"id": "g", "kind": "gauge", "ports": {"in": NPT}})
            made["lines"].append({"id": "D4", "from": "g.in", "to": "mc.front-2", "direct": True})
            part_of(made, "mc")["ports"]["front-2"] = PORT
        case "nut-does-not-fit-tube":
            line_of(made, "L7")["ends"][1] = {"nut": "7/16-20", "flare": "inverted"}
        case "port-open":
            part_of(made, "mc")["ports"]["front-2"] = PORT
        case "port-joined-twice":
            line_of(made, "L7")["from"] = "rt.left"
        case "wheel-not-fed":
            made["lines"].remove(line_of(made, "L7"))
        case "wheel-fed-twice" | "outlet-feeds-other-axle":
            part_of(made, "rr")["ports"]["in-2"] = PORT
            part_of(made, "cv")["ports"]["front-3"] = PORT
            made["lines"].append(line("L8", "cv.front-3", "rr.in-2"))
        case "circuits-joined":
            part_of(made, "cv").update(id="cv", kind="block")
        case "valve-feeds-both-axles":
            made["parts"].append(
                {"id": "rv", "kind": "reducing", "ports": {"in": PORT, "out": PORT}}
            )
            part_of(made, "cv").update(kind="block")
            made["lines"].remove(line_of(made, "L2"))
            line_of(made, "L1")["to"] = "rv.in"
            made["lines"].append(line("L8", "rv.out", "cv.front-in"))
        case "loop":
            part_of(made, "rt")["ports"]["x"] = part_of(made, "hr")["ports"]["x"] = PORT
            made["lines"].append(line("L8", "rt.x", "hr.x"))
        case "hose-missing":
            made["lines"].remove(line_of(made, "D3"))
            line_of(made, "L5")["to"] = "rt.in"
        case "switch-absent":
            part_of(made, "cv").update(kind="union")
        case "valve-not-in-build":
            made["parts"].append(
                {"id": "rv", "kind": "reducing", "ports": {"in": PORT, "out": PORT}}
            )
        case "gauge-range-low":
            part_of(made, "cv")["full_scale"] = "500 psi"
        case "part-unfixed":
            part_of(made, "rt")["fixed"] = False
        case "compression-fitting":
            part_of(made, "rt")["compression"] = True
        case "washer-missing":
            part_of(made, "rt").update(kind="banjo", washers=2)  # of two eyes
        case "bleeder-low":
            part_of(made, "rl")["bleeder_at_top"] = False
        case "hose-too-short":
            part_of(made, "hfl").update(free_length="12 in", reach="11 in")
    return made


VALVE = {"id": "rv", "kind": "reducing", "ports": {"in": PORT, "out": PORT}}
NPT = {"thread": "1/8-27 NPT", "seat": "taper"}
DAMAGED = {
    code: _damaged(code)
    for code in (
        "thread-mismatch", "seat-mismatch", "taper-in-flare-port", "nut-does-not-fit-tube",
        "port-open", "port-joined-twice", "wheel-not-fed", "wheel-fed-twice", "circuits-joined",
        "outlet-feeds-other-axle", "valve-feeds-both-axles", "loop", "hose-missing",
        "switch-absent", "valve-not-in-build", "gauge-range-low", "part-unfixed",
        "compression-fitting", "washer-missing", "bleeder-low", "hose-too-short",
    )
}  # fmt: skip
DANGERS = {
    "thread-mismatch", "seat-mismatch", "taper-in-flare-port", "wheel-not-fed", "wheel-fed-twice",
    "circuits-joined", "outlet-feeds-other-axle", "valve-feeds-both-axles", "compression-fitting",
}  # fmt: skip
ADVICE = {"switch-absent", "part-unfixed"}
