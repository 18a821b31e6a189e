"""Each code: a build that has it and one that has not; and what its fix does."""

import json
from collections.abc import Callable
from datetime import date, timedelta
from typing import Any

import pytest
from hypothesis import given, settings

from tests.builds import bed, on_record, proved
from tests.plumbing.layouts import ADVICE, DAMAGED, DANGERS, line_of, sound
from tests.strategies import documents
from urgens.document import Build, changed, edited, loads, with_changes
from urgens.guidance import Finding, Severity, findings, known_codes
from urgens.guidance.advice.brought import OF_THE_CONDITION, Brought
from urgens.guidance.advice.recommendation import offered, recommended
from urgens.quantity import UnitSystem
from urgens.solve import AxleName, solve

REDUCING = {"kind": "reducing", "knee": "300 psi", "slope": 0.3}
METERING = {"kind": "metering"}
MANUAL = {"booster": {"kind": "none"}}
DISC = {
    "kind": "disc",
    "caliper": "sliding",
    "piston_diameters": ["1.5 in"],
    "pad_friction": 0.38,
    "effective_radius": "5 in",
}
CALM = {"valves.rear[0].knee": "275 psi"}
GRIPPY_FRONT = {"valves.rear[0].knee": "225 psi", "front.tyre.grip": 1.1}
SINGLE = {
    "circuits": None,
    "master": {"kind": "single", "bore": "1-1/8 in", "stroke": "1.4 in"},
}
TWIN = {"master": {"kind": "twin", "front_bore": "1 in", "rear_bore": "3/4 in"}}
CASE = {"name": "Empty", "front_axle": "2250 lb", "rear_axle": "1750 lb", "cg_height": "27 in"}
LAUNCH = {
    "stall_torque": "150 lbf.ft",
    "gear_ratio": 2.0,
    "final_drive": 3.5,
    "driven": "rear",
}
MASTER = {"id": "mc", "kind": "master", "ports": {"front": {}, "rear": {}}}
CALIPER = {"id": "fl", "kind": "wheel-brake", "wheel": "front-left", "ports": {"in": {}}}
LEGS = [["0 mm"] * 3, ["200 mm", "0 mm", "0 mm"], ["200 mm", "300 mm", "0 mm"]]


def layout(**line: Any) -> dict[str, Any]:
    """A cylinder, a caliper and one line of two good straights, but for what is changed."""
    drawn = {"id": "L1", "from": "mc.front", "to": "fl.in", "tube": "3/16 in", "route": LEGS}
    section = {"parts": [MASTER, CALIPER], "lines": [{**drawn, **line}]}
    return {**CALM, "plumbing": section}


Changes = dict[str, Any]
# code: severity, changes to the bakery that have it, changes that have not
LOAD_SENSING = {"kind": "load-sensing", "points": [["400 kg", "20 bar"], ["900 kg", "45 bar"]],
                "slope": 0.3, "follows": "static"}  # fmt: skip
CASES: dict[str, tuple[Severity, Changes, Changes]] = {
    "route-too-short": (
        Severity.WARNING,
        layout(route=[LEGS[0], ["10 mm", "0 mm", "0 mm"], ["10 mm", "300 mm", "0 mm"]]),
        layout(),
    ),
    "straight-too-short": (
        Severity.WARNING,
        layout(route=[*LEGS, ["200 mm", "300 mm", "40 mm"]]),
        layout(route=[*LEGS, ["200 mm", "300 mm", "44 mm"]]),  # 13 mm of bend, and 30
    ),
    "bend-too-sharp": (Severity.WARNING, layout(bend_radius="12 mm"), layout(bend_radius="13 mm")),
    "slide-on-first": (Severity.ADVICE, layout(slide_on_first=["grommet"]), layout()),
    "plain-copper": (
        Severity.DANGER,
        layout(material="plain-copper"),
        layout(material="copper-nickel"),
    ),
    "rear-locks-first": (Severity.DANGER, {}, {"valves.rear[0].knee": "275 psi"}),
    "rear-lifts": (Severity.DANGER, {"vehicle.load_cases[0].cg_height": "1.8 m"}, {}),
    "two-reducing-in-series": (Severity.DANGER, {"valves.rear": [REDUCING, REDUCING]}, {}),
    "reducing-in-front": (Severity.DANGER, {"valves.front": [METERING, REDUCING]}, {}),
    "pressure-outside-window": (
        Severity.WARNING,
        {"targets.pressure_window": ["700 psi", "1200 psi"]},
        {},
    ),
    "deceleration-not-reached": (Severity.WARNING, {"targets.deceleration": 0.85}, {}),
    "boosted-ratio-without-booster": (
        Severity.DANGER,
        {"booster.working": False},
        {**MANUAL, "pedal.pivot_to_pushrod": "2 in"},
    ),
    "manual-ratio-with-booster": (Severity.WARNING, {"pedal.pivot_to_pushrod": "2 in"}, {}),
    "metering-with-rear-discs": (Severity.ADVICE, {"rear.brake": DISC}, {}),
    "no-metering-with-rear-drums": (Severity.ADVICE, {"valves.front": []}, {}),
    "rear-overtakes": (
        Severity.WARNING,
        {
            "master.bar_offset": "0 mm",
            "valves.rear[0].turns": 3,
            "targets.surface": 0.9,
            "targets.max_effort": "60 N",
        },
        {},
    ),
    "rear-idle": (Severity.WARNING, {"rear.brake.shoe_factor": 1.5}, {}),
    "adhesion-limit": (Severity.ADVICE, {"front.brake.pad_friction": 0.02}, {}),
    "residual-in-disc-circuit": (
        Severity.WARNING,
        {"valves.front": [METERING, {"kind": "residual", "pressure": "10 psi"}]},
        {"valves.front": [METERING, {"kind": "residual", "pressure": "2 psi"}]},
    ),
    "residual-twice": (
        Severity.WARNING,
        {"valves.rear": [{"kind": "residual", "pressure": "12 psi"}] * 2},
        {"valves.rear": [{"kind": "residual", "pressure": "12 psi"}]},
    ),
    "height-feels-the-dive": (
        Severity.ADVICE,
        {"valves.rear": [LOAD_SENSING]},
        {"valves.rear": [{**LOAD_SENSING, "follows": "dynamic"}]},
    ),
    "knee-never-reached": (Severity.ADVICE, {"valves.rear[0].knee": "1500 psi"}, {}),
    "travel-ends": (Severity.DANGER, {"pedal.travel_available": "2 in"}, {}),
    "stroke-ends": (Severity.DANGER, {"master.stroke": "0.5 in"}, {}),
    "take-up": (
        Severity.ADVICE,
        {"front.brake.seal": "rolled-back"},
        {
            "front.brake.seal": "rolled-back",
            "master": {"kind": "stepped", "large_bore": "32 mm", "small_bore": "22 mm"},
        },
    ),
    "half-failed-weak": (
        Severity.WARNING,
        {},
        {"rear.brake.shoe_factor": 9.0, "pedal.travel_available": "6 in"},
    ),
    "single-circuit": (Severity.WARNING, SINGLE, {}),
    "cylinder-made-for-booster": (
        Severity.DANGER,
        {**MANUAL, "master.made_for": "booster"},
        {"master.made_for": "booster"},
    ),
    "cylinder-made-for-manual": (
        Severity.WARNING,
        {"master.made_for": "manual"},
        {**MANUAL, "master.made_for": "manual"},
    ),
    "pushrod-not-held": (
        Severity.DANGER,
        {**MANUAL, "master.pushrod_held_by": "none"},
        {**MANUAL, "master.pushrod_held_by": "retainer"},
    ),
    "vacuum-low": (
        Severity.WARNING,
        {"booster.vacuum": "14.9 inHg"},
        {"booster.vacuum": "15 inHg"},
    ),
    "booster-does-not-fit": (
        Severity.WARNING,
        {"booster.room.diameter": "9 in"},
        {"booster.room.diameter": "9-1/2 in"},
    ),
    "booster-runs-out": (Severity.WARNING, {"booster.vacuum": "5 inHg"}, {}),
    "booster-lost-weak": (
        Severity.WARNING,
        {"pedal.pivot_to_pushrod": "8 in"},
        {},
    ),
    "bar-angle": (
        Severity.WARNING,
        {**TWIN, "master.bar_max_angle": "0.5 deg"},
        {**TWIN, "master.bar_max_angle": "30 deg"},
    ),
    "booster-rod-not-held": (
        Severity.DANGER,
        {"master.pushrod_held_by": "none"},
        {"master.pushrod_held_by": "none", "booster.working": False},
    ),
    "rod-shorter-than-socket": (
        Severity.DANGER,
        {"master.pushrod_length": "1 in", "master.socket_depth": "1 in"},
        {"master.pushrod_length": "4 in", "master.socket_depth": "1 in"},
    ),
    "grip-decides": (
        Severity.ADVICE,
        {**CALM, "front.tyre.grip": 1.0, "rear.tyre.grip": 0.7},
        {**CALM, "front.tyre.grip": 1.1, "rear.tyre.grip": 1.1},
    ),
    "corner-rear-first": (
        Severity.WARNING,
        {**GRIPPY_FRONT, "targets.corner": 0.8},
        GRIPPY_FRONT,
    ),
    "load-cases-missing": (Severity.ADVICE, {"vehicle.load_cases": [CASE]}, {}),
    "assumed-figure-decides": (
        Severity.WARNING,
        {**CALM, "evidence": {"rear.brake.shoe_factor": {"state": "assumed"}}},
        {**CALM, "evidence": {"rear.brake.shoe_factor": {"state": "measured"}}},
    ),
    "hold-short": (
        Severity.WARNING,
        {"vehicle.launch": {**LAUNCH, "stall_torque": "900 lbf.ft"}},
        {"vehicle.launch": LAUNCH},
    ),
    "pedal-above-throttle": (
        Severity.WARNING,
        {"pedal.pad_height": "8 in", "pedal.throttle_height": "5-1/2 in"},
        {"pedal.pad_height": "7 in", "pedal.throttle_height": "5-1/2 in"},
    ),
    "no-brake-light-switch": (
        Severity.DANGER,
        {"brake_light_switch": "none"},
        {"brake_light_switch": "none", "vehicle.use": "drag"},
    ),
    "fluid-old": (
        Severity.ADVICE,
        {"fluid": {"class": "DOT 4", "filled": "2019-05-01"}},
        {"fluid": {"class": "DOT 4", "filled": date.today().isoformat()}},
    ),
}


def _severity(code: str) -> Severity:
    return (
        Severity.DANGER
        if code in DANGERS
        else Severity.ADVICE
        if code in ADVICE
        else Severity.WARNING
    )


def with_rear_line(length: str) -> dict[str, Any]:
    """The layout whose line to the rear axle is straight and so long."""
    made = sound()
    zero = "0 mm"
    line_of(made, "L5")["route"] = [[zero, zero, zero], [f"-{length}", zero, zero]]
    return made


CASES |= {
    code: (_severity(code), {**CALM, "plumbing": made}, {**CALM, "plumbing": sound()})
    for code, made in DAMAGED.items()
}
LOOSE = {"kind": "reducing", "knee": "300 psi", "slope": 0.3}
CASES["valve-not-in-layout"] = (
    Severity.WARNING,
    {"plumbing": sound(), "valves.rear": [LOOSE]},
    {"plumbing": sound()},
)
CASES["reservoir-small"] = (
    Severity.WARNING,
    {"front.brake.pad_thickness": "12 mm", "master.reservoir_volume": "20 ml"},
    {"front.brake.pad_thickness": "12 mm", "master.reservoir_volume": "300 ml"},
)
CASES["residual-missing"] = (  # common practice
    Severity.ADVICE,
    {**CALM, "rear.brake.cup_expanders": False},
    {**CALM, "rear.brake.cup_expanders": True},
)
CASES["rear-line-slow"] = (
    Severity.ADVICE,
    {**CALM, "plumbing": with_rear_line("3.4 m"), "fluid": {"class": "DOT 4"}},
    {**CALM, "plumbing": with_rear_line("0.4 m"), "fluid": {"class": "DOT 4"}},
)
PRESSED_LATER = [{"procedure": "bleed", "started": "2026-05-02T14:00", "entries": [
    {"at": "2026-05-02T14:22", "step": 3, "field": "strokes", "value": 12.0}]}]  # fmt: skip
CASES["joint-not-tight"] = (
    Severity.DANGER,
    {"records": PRESSED_LATER,
     "joints": [{"joint": "L1.a", "state": "started", "at": "2026-05-02T13:00"}]},
    {"records": PRESSED_LATER,
     "joints": [{"joint": "L1.a", "state": "started", "at": "2026-05-02T15:00"},
                {"joint": "L1.b", "state": "tight", "at": "2026-05-02T13:00"}]},
)  # fmt: skip
PROVED = on_record(bed("bakery"))
MOVED = {"procedure": "prove-moving", "started": "2026-05-03T09:00"}
CASES["proof-open"] = (
    Severity.WARNING,
    {**PROVED, "records": [*proved(bed("bakery"), 4), MOVED]},  # done only after
    {**PROVED, "records": [*PROVED["records"], MOVED]},
)
CASES["held"] = (
    Severity.WARNING,
    {**PROVED, "joints": [{"joint": "L1.a", "state": "started", "at": "2026-05-05T10:00"}]},
    PROVED,
)
FAULT = {"started": "2026-05-02T14:00", "signs": [{"at": "2026-05-02T14:05", "sign": "sinks"}]}
CASES["fault-stops"] = (
    Severity.DANGER,
    {"traces": [FAULT]},
    {"traces": [{**FAULT, "ended": "2026-05-02T16:00", "mended": True}]},
)
WORN = {"at": "2026-05-02T14:10", "front": ["1.0 mm"], "rear": ["1.0 mm"], "specific_wear": 1.0}
AREAS = {"front.brake.pad_area": "40 cm^2", "rear.brake.lining_area": "60 cm^2"}
CASES["real-split-rearward"] = (
    Severity.WARNING,
    {**AREAS, "proof": {"wear": [WORN]}},  # 60/(60 + 2·40/2) of the work: far beyond any van's rear
    {**AREAS, "proof": {"wear": [{**WORN, "rear": ["0.2 mm"]}]}},
)
NUTS = {"front": {"thread": "9/16-18", "seat": "inverted"},
        "rear": {"thread": "1/2-20", "seat": "inverted"}}  # fmt: skip


def with_parts(**more: dict[str, Any]) -> dict[str, Any]:
    """The sound layout with more said of some of its parts."""
    made = sound()
    for row in made["parts"]:
        row |= more.get(row["id"], {})
    return made


def with_unlike_outlets() -> dict[str, Any]:
    """The sound layout, made with another nut at each outlet of its cylinder."""
    made = with_parts(mc={"ports": NUTS})
    for name, axle in (("L1", "front"), ("L2", "rear")):
        line_of(made, name)["ends"][0] = {"nut": NUTS[axle]["thread"], "flare": "inverted"}
    return made


SWITCH = {"id": "ls", "kind": "light-switch", "ports": {"in": {}}}
HYDRAULIC = {"brake_light_switch": "hydraulic"}
CARRIED = sound()
CARRIED["parts"].append(SWITCH)
CASES["outlets-alike"] = (
    Severity.ADVICE, {**CALM, "plumbing": sound()}, {**CALM, "plumbing": with_unlike_outlets()},
)  # fmt: skip
CASES["light-switch-no-port"] = (
    Severity.DANGER,
    {**CALM, **HYDRAULIC, "plumbing": sound()},
    {**CALM, **HYDRAULIC, "plumbing": CARRIED},
)
CASES["light-switch-lost"] = (
    Severity.WARNING,
    {**CALM, **HYDRAULIC, "brake_light_switch_part": "old", "plumbing": sound()},
    {**CALM, **HYDRAULIC, "brake_light_switch_part": "ls", "plumbing": CARRIED},
)
CASES["body-open"] = (
    Severity.WARNING,
    {**CALM, "plumbing": with_parts(cv={"may_be": ["switch", "combination"]})},
    {**CALM, "plumbing": sound()},
)
CASES["thread-unknown"] = (
    Severity.WARNING,
    {**CALM, "plumbing": with_parts(rt={"ports": {"in": {"thread": "3/8-42"}, "left": {},
                                                  "right": {}}})},
    {**CALM, "plumbing": sound()},
)  # fmt: skip
CASES["hose-old"] = (
    Severity.ADVICE,
    {**CALM, "plumbing": with_parts(hr={"stays": True, "since": "2009-05-01"})},
    {**CALM, "plumbing": with_parts(hr={"stays": False, "since": "2009-05-01"})},
)
NO_FIX = set(CASES) - {
    "rear-locks-first", "two-reducing-in-series", "reducing-in-front",
    "boosted-ratio-without-booster", "manual-ratio-with-booster", "metering-with-rear-discs",
    "no-metering-with-rear-drums", "residual-in-disc-circuit", "residual-twice",
    "pushrod-not-held", "no-brake-light-switch", "pressure-outside-window",
    "booster-rod-not-held", "plain-copper", "bend-too-sharp", "joint-not-tight",
    "route-too-short", "straight-too-short", "valve-not-in-layout", "rear-line-slow",
    "reservoir-small", "residual-missing", "light-switch-no-port", "light-switch-lost", *DAMAGED,
}  # fmt: skip
LAID = {*DAMAGED, "valve-not-in-layout", "route-too-short", "straight-too-short"}


OF_THE_ROADSTER = {"rear-overtakes"}


def build_for(code: str, changes: Changes) -> Build:
    return with_changes(bed("roadster" if code in OF_THE_ROADSTER else "bakery"), changes)


def found(build: Build) -> dict[str, Finding]:
    return {finding.code: finding for finding in findings(solve(build))}


@pytest.mark.parametrize(
    ("comfortable", "most", "severity"),
    [("75 lbf", "110 lbf", Severity.ADVICE), ("30 lbf", "110 lbf", Severity.WARNING),
     ("20 lbf", "30 lbf", Severity.DANGER)],
)  # fmt: skip
def test_a_short_pedal_without_a_booster_is_as_bad_as_its_foot(
    comfortable: str, most: str, severity: Severity
) -> None:
    """A pound over the comfortable foot makes no danger: that is a foot nobody has."""
    changes = {**MANUAL, "pedal.pivot_to_pushrod": "3 in", "master.bore": "3/4 in",
               "targets.comfortable_effort": comfortable, "targets.max_effort": most,
               "targets.deceleration": 0.5}  # fmt: skip
    (said,) = [one for one in findings(solve(with_changes(bed("bakery"), changes)))
               if one.code == "boosted-ratio-without-booster"]  # fmt: skip
    assert said.severity is severity, said.message


def test_every_rule_has_a_case() -> None:
    assert set(known_codes()) == set(CASES)


@pytest.mark.parametrize("code", CASES)
def test_a_build_that_has_it(code: str) -> None:
    severity, has, _ = CASES[code]
    finding = found(build_for(code, has))[code]

    assert finding.severity is severity
    assert all((finding.message, finding.why, finding.basis, finding.where))
    assert finding.printed()["severity"] == severity.word


@pytest.mark.parametrize("code", CASES)
def test_a_build_that_has_it_not(code: str) -> None:
    _, _, has_not = CASES[code]

    assert code not in found(build_for(code, has_not))


@pytest.mark.parametrize("code", CASES)
def test_a_fix_takes_the_finding_away(code: str) -> None:
    build = build_for(code, CASES[code][1])
    (finding,) = (one for one in findings(solve(build)) if one.code == code)
    chosen = recommended(build, build.natural_units) if finding.chosen else None
    fixes = (*finding.fixes, *([] if chosen is None else [chosen]))
    for fix in fixes:
        assert code not in found(changed(build, fix.change))
    assert bool(fixes) is (code not in NO_FIX)


@settings(max_examples=5)
@given(documents())
def test_what_is_offered_is_taken_until_nothing_is_and_makes_nothing_worse(
    document: dict[str, Any],
) -> None:
    """It ends, raises no danger, and a warning only where a danger ends."""
    build, steps = loads(json.dumps(document)), 0
    while True:
        told = findings(solve(build))
        units = build.natural_units
        fix = next((fix for one in told for fix in offered(build, one, units, before=told)), None)
        if fix is None:
            break
        after = changed(build, fix.change)
        was, is_ = (_codes(each) for each in (build, after))
        assert is_[Severity.DANGER] <= was[Severity.DANGER]
        if is_[Severity.WARNING] - was[Severity.WARNING] - was[Severity.DANGER]:
            assert is_[Severity.DANGER] < was[Severity.DANGER]
        build, steps = after, steps + 1
        assert steps < 40


def _codes(build: Build) -> dict[Severity, set[str]]:
    """What is found of a build, without what nobody has seen or proved yet."""
    told = [one for one in findings(solve(build)) if one.code not in OF_THE_CONDITION]
    return {severity: {one.code for one in told if one.severity is severity}
            for severity in Severity}  # fmt: skip


@pytest.mark.parametrize("code", sorted(LAID))
def test_what_mends_a_layout_breaks_nothing_else_of_it(code: str) -> None:
    build = build_for(code, CASES[code][1])
    before = found(build)
    for fix in before[code].fixes:
        after = found(changed(build, fix.change))
        new = {one for one in after if one not in before and after[one].severity < Severity.ADVICE}
        assert not new, (fix.label, new)


@pytest.mark.parametrize(
    ("units", "newton", "unit"),
    [(UnitSystem.INCH, 4.4482216152605, "lbf"), (UnitSystem.METRIC, 1.0, "N")],
)
def test_what_is_said_of_the_bakery_s_van(units: UnitSystem, newton: float, unit: str) -> None:
    """Load case, road and figures of the worst state, in the units asked for."""
    solution = solve(bed("bakery"))
    road = solution.surfaces.index(0.9)
    effort, z = solution.lock.effort[0, road] / newton, solution.lock.z[0, road]
    finding = findings(solution, units)[0]

    assert finding.message == (
        f"“Empty, driver” on a road of μ 0.90: the rear wheels lock first, at {effort:.0f} "
        f"{unit} of foot and {z:.2f} g. Likewise “Empty, driver” on a wet "
        "road (μ 0.50) and on roads from μ 0.70 to 0.85."
    )
    assert finding.chosen


def test_a_hopeless_deceleration_is_a_danger(built: Callable[..., Build]) -> None:
    finding = found(built({**MANUAL, "front.brake.pad_friction": 0.1}))["deceleration-not-reached"]

    assert finding.severity is Severity.DANGER
    assert "even 112 lbf gives" in finding.message


def test_an_adjustable_valve_is_turned(roadster: Build) -> None:
    build = edited(roadster, "valves.rear[0].turns", 8)
    fix = recommended(build, UnitSystem.METRIC)

    assert fix is not None
    assert fix.path in ("valves.rear[0].turns", "valves.rear")
    assert "rear-locks-first" not in found(changed(build, fix.change))


@settings(max_examples=25)
@given(documents())
def test_findings_hold_on_any_vehicle(document: dict[str, Any]) -> None:
    """The worst comes first, and rear-locks-first says what the solution says."""
    import json

    solution = solve(loads(json.dumps(document)))
    said = findings(solution)
    judged = solution.lock.axle[:, list(solution.roads)]

    assert list(said) == sorted(said, key=lambda finding: finding.severity)
    rear_first = bool((judged == AxleName.REAR).any())
    assert ("rear-locks-first" in {finding.code for finding in said}) is rear_first


def test_two_years_make_fluid_old() -> None:
    """Common practice: glycol fluid is changed every two years."""
    for days, old in ((1.9 * 365.25, False), (2.1 * 365.25, True)):
        filled = (date.today() - timedelta(days=days)).isoformat()
        build = build_for("fluid-old", {"fluid": {"class": "DOT 4", "filled": filled}})
        assert ("fluid-old" in found(build)) is old


def test_discs_stand_two_pounds_of_residual_and_no_more() -> None:
    """Common practice: 2 psi keeps a low cylinder's discs filled, more makes them drag."""
    for psi, drags in ((2, False), (2.4, False), (2.6, True), (3, True), (10, True)):
        valves = [METERING, {"kind": "residual", "pressure": f"{psi} psi"}]
        codes = found(build_for("residual-in-disc-circuit", {"valves.front": valves}))
        assert ("residual-in-disc-circuit" in codes) is drags


def test_what_a_step_brings_is_counted_the_worst_first() -> None:
    def one(severity: Severity) -> Finding:
        return Finding("x", severity, "said", "why", "basis", "where")

    danger, warning = one(Severity.DANGER), one(Severity.WARNING)
    assert Brought().counted == ""
    assert Brought((danger,)).counted == "a danger"
    assert Brought((danger, warning, warning)).counted == "a danger and 2 warnings"
