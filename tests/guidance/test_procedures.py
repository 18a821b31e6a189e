"""Procedures of every layout hold what keeps the air out and the fluid in; common practice."""

from collections.abc import Iterator
from itertools import pairwise, product
from typing import Any

import pytest

from tests.builds import bed
from tests.plumbing.layouts import sound, with_layout
from urgens.document import Build, BuildErrors, demo, demo_names, with_changes
from urgens.guidance.condition.proofs import procedure_now
from urgens.guidance.procedures import METHODS, NAMES, Facts, Procedure, ProcedureStep, procedure
from urgens.guidance.procedures.amounts import amounts
from urgens.physics.axle import Axle

REDUCING = {"kind": "reducing", "knee": "300 psi", "slope": 0.3}
LOAD_SENSING = {"kind": "load-sensing", "points": [["1500 lb", "200 psi"], ["3000 lb", "600 psi"]],
                "slope": 0.3, "follows": "static"}  # fmt: skip
RESIDUAL = {"kind": "residual", "pressure": "10 psi"}
CYLINDERS: dict[str, tuple[dict[str, Any], str]] = {
    "single": ({"kind": "single", "bore": "1 in"}, "single"),
    "tandem": ({"kind": "tandem", "bore": "1 in"}, "front-rear"),
    "diagonal": ({"kind": "tandem", "bore": "1 in"}, "diagonal"),
    "twin": ({"kind": "twin", "front_bore": "3/4 in", "rear_bore": "3/4 in"}, "front-rear"),
}
VALVES: dict[str, dict[str, Any]] = {
    "none": {"front": [], "rear": []},
    "metering": {"front": [{"kind": "metering"}], "rear": [REDUCING]},
    "load-sensing": {"front": [], "rear": [LOAD_SENSING]},
    "residual": {"front": [], "rear": [RESIDUAL, REDUCING]},
}
DISC = {"kind": "disc", "caliper": "opposed", "piston_diameters": ["1.5 in"], "pad_friction": 0.38,
        "effective_radius": "5 in"}  # fmt: skip


def layouts() -> Iterator[tuple[str, Build]]:
    """Cylinder by valves by bleeders by switch."""
    for (name, (master, split)), (valves, laws), screws, switch in product(
        CYLINDERS.items(), VALVES.items(), (1, 2), ("none", "warns")
    ):
        changes = {
            "setups": [], "master": master, "circuits": split, "valves": laws,
            "warning_switch": switch, "front.brake": {**DISC, "bleeders": screws},
        }  # fmt: skip
        yield f"{name}, {valves}, {screws}, {switch}", with_changes(bed("bakery"), changes)


LAYOUTS = dict(layouts())
GRID = [(name, method) for name in LAYOUTS for method in METHODS]


def allowed(name: str, method: str) -> Procedure:
    return procedure(LAYOUTS[name], "bleed", method)


def look_over(steps: tuple[ProcedureStep, ...]) -> None:
    """Every screw opened is shut; what is fitted is removed, what is loosened tightened."""
    open_, fitted, loose = set(), set(), set()
    for step in steps:
        place = (step.wheels, step.thing, step.screw)
        match step.action:
            case "open":
                assert place not in open_
                open_.add(place)
            case "close":
                open_.remove(place)
            case "fit" if step.thing in COMES_OFF:
                assert place not in fitted
                fitted.add(place)
            case "remove" if step.thing in COMES_OFF:
                fitted.remove(place)
            case "remove":
                loose.add(step.thing)
            case "fit" if step.thing in loose:
                loose.remove(step.thing)
            case "loosen":
                loose.add(step.thing)
            case "tighten" if step.thing:
                loose.remove(step.thing)
            case "release" if not step.thing:
                assert not open_, "the pedal comes up on an open screw"
    assert open_ == fitted == loose == set()


COMES_OFF = ("centring tool", "lever tie", "metering holder", "pressure bleeder", "pedal block",
             "hose and bottle", "loops", "gauges")  # fmt: skip


@pytest.mark.parametrize(("name", "method"), GRID)
def test_what_is_opened_is_shut_and_what_is_fitted_comes_off(name: str, method: str) -> None:
    found = allowed(name, method)
    assert found.allowed == (found.refused_because is None) == bool(found.steps)
    look_over(found.steps)
    for step in found.steps:
        assert step.text.endswith((".", "."))
        assert step.why.endswith(".")


@pytest.mark.parametrize(("name", "method"), GRID)
def test_every_wheel_is_bled_and_has_a_hose_under_fluid_while_it_is_open(
    name: str, method: str
) -> None:
    found = allowed(name, method)
    if not found.allowed:
        return
    hosed: set[str] = set()
    opened: list[str] = []
    for step in found.steps:
        if step.thing == "hose and bottle":
            hosed = set(step.wheels) if step.action == "fit" else set()
        if step.action == "open":
            assert set(step.wheels) <= hosed
            opened += step.wheels
    assert set(opened) == {"front-left", "front-right", "rear-left", "rear-right"}
    screws = 2 if ", 2, " in name else 1
    assert opened.count("front-left") == screws


@pytest.mark.parametrize("name", LAYOUTS)
def test_hold_and_crack_opens_only_while_the_foot_goes_down(name: str) -> None:
    actions = [step.action for step in allowed(name, "pedal").steps
               if step.action in ("hold", "open", "stroke", "close", "release")]  # fmt: skip
    state = "up"
    for action in actions:
        if action == "open":
            assert state in ("held", "open")
            state = "open"
        elif action == "close":
            assert state in ("down", "closing")
            state = "closing"
        else:
            state = {"hold": "held", "stroke": "down", "release": "up"}[action]
    assert state == "up"


@pytest.mark.parametrize("name", LAYOUTS)
def test_open_strokes_look_first_and_hold_while_shutting(name: str) -> None:
    steps = [s for s in allowed(name, "open-stroke").steps
             if s.action in ("check", "hold", "open", "stroke", "close") and s.wheels]  # fmt: skip
    for before, step in pairwise(steps):
        if step.action == "open":
            assert before.action in ("check", "open")
        if step.action == "close":
            assert before.action in ("hold", "close")


@pytest.mark.parametrize(("name", "method"), GRID)
def test_pairs_with_a_bar_the_outer_screw_first_the_single_one_each_time(
    name: str, method: str
) -> None:
    found = allowed(name, method)
    if not found.allowed:
        return
    rounds: list[list[ProcedureStep]] = []
    for step in found.steps:
        if step.thing == "hose and bottle" and step.action == "fit":
            rounds.append([])
        if step.action == "open":
            rounds[-1].append(step)
    bar, screws = name.startswith("twin"), 2 if ", 2, " in name else 1
    for one in rounds:
        wheels = [wheel for step in one for wheel in step.wheels]
        assert len(wheels) == (2 if bar else 1)
        if bar:
            assert len({wheel.partition("-")[0] for wheel in wheels}) == 2  # front and rear
            assert len({wheel.partition("-")[2] for wheel in wheels}) == 1  # of one side
    order = [step.screw for one in rounds for step in one if step.wheels == ("front-left",)]
    assert order == (["outer", "inner"] if screws == 2 else [""])
    rear = sum(step.wheels == ("rear-left",) for one in rounds for step in one)
    assert rear == (screws if bar else 1)


def test_farthest_first_and_one_circuit_after_the_other() -> None:
    """RR, LR, RF, LF with the cylinder on the left; RR, LF, LR, RF of a diagonal split."""
    wheels = [step.wheels[0] for step in allowed("tandem, none, 1, none", "pedal").steps
              if step.action == "open"]  # fmt: skip
    assert wheels == ["rear-right", "rear-left", "front-right", "front-left"]
    wheels = [step.wheels[0] for step in allowed("diagonal, none, 1, none", "pedal").steps
              if step.action == "open"]  # fmt: skip
    assert wheels == ["rear-right", "front-left", "rear-left", "front-right"]


def test_by_the_length_of_the_lines_where_they_are_drawn() -> None:
    made = sound()
    zero = "0 mm"
    for line, length in (("L6", "4 m"), ("L7", "1 m"), ("L4", "2.9 m"), ("L3", "0.3 m")):
        row = next(one for one in made["lines"] if one["id"] == line)
        row["route"] = [[zero, zero, zero], [length, zero, zero]]
    groups = Facts(with_layout(made)).groups
    assert [wheel for (wheel,) in groups] == ["rear-left", "front-right", "rear-right",
                                              "front-left"]  # fmt: skip


@pytest.mark.parametrize(
    ("name", "method", "reason"),
    [
        ("tandem, load-sensing, 1, none", "vacuum", "vacuum draws nothing"),
        ("tandem, residual, 1, none", "gravity", "residual valve of the rear circuit"),
    ],
)
def test_a_method_that_the_layout_rules_out_says_why(name: str, method: str, reason: str) -> None:
    found = allowed(name, method)
    assert not found.allowed
    assert reason in str(found.refused_because)
    assert found.printed()["steps"] == []


def test_metering_is_held_for_pressure_and_let_go() -> None:
    found = allowed("tandem, metering, 1, none", "pressure")
    things = [(step.action, step.thing) for step in found.steps]
    assert things.index(("fit", "metering holder")) < things.index(("remove", "metering holder"))
    other = allowed("tandem, metering, 1, none", "pedal")
    assert "metering holder" not in {step.thing for step in other.steps}


@pytest.mark.parametrize("build", [*map(demo, demo_names())], ids=lambda build: build.name)
@pytest.mark.parametrize("name", [name for name in NAMES if name != "rebleed"])
def test_every_procedure_of_every_demo_holds_the_same(build: Build, name: str) -> None:
    found = procedure(build, name)
    assert found.allowed == bool(found.steps)
    look_over_loosely(found)
    assert all(set(step) == {"text", "why", "wheels", "action", "record"}
               for step in found.printed()["steps"])  # fmt: skip


def look_over_loosely(found: Procedure) -> None:
    """Screws are shut; what assembly puts in stays in."""
    open_ = [step.wheels for step in found.steps if step.action == "open"]
    shut = [step.wheels for step in found.steps if step.action == "close"]
    assert sorted(open_) == sorted(shut)
    fitted = sorted(step.thing for step in found.steps
                    if step.action == "fit" and step.thing in COMES_OFF)  # fmt: skip
    removed = sorted(step.thing for step in found.steps
                     if step.action == "remove" and step.thing in COMES_OFF)  # fmt: skip
    assert fitted == removed


def test_what_was_opened_says_what_is_bled_again() -> None:
    build = with_layout(sound())
    rear = procedure(build, "rebleed", opened=("hr",))
    wheels = {wheel for step in rear.steps for wheel in step.wheels}
    assert wheels == {"rear-left", "rear-right"}
    whole = procedure(build, "rebleed", opened=("mc",))
    assert whole.steps[2].text.startswith("Bench-bleed")
    assert len({wheel for step in whole.steps for wheel in step.wheels}) == 4
    nothing = procedure(build, "rebleed", opened=("booster",))
    assert not nothing.allowed
    with pytest.raises(BuildErrors, match="no part or line"):
        procedure(build, "rebleed", opened=("sponge",))


@pytest.mark.parametrize(
    ("name", "method", "words"),
    [("bled", None, 'write "bleed"'), ("bleed", "suction", "choose one of"),
     ("bleed", "open_stroke", 'write "open-stroke"')],
)  # fmt: skip
def test_what_is_not_known_is_said_with_the_nearest(
    name: str, method: str | None, words: str
) -> None:
    with pytest.raises(BuildErrors, match=words):
        procedure(bed("bakery"), name, method)


def test_the_axle_of_a_brake_counts_its_screws() -> None:
    assert Facts(LAYOUTS["twin, none, 2, none"]).screws(Axle.FRONT) == 2


@pytest.mark.parametrize("bar", [False, True])
def test_at_the_cylinder_no_line_is_open_while_the_foot_comes_up(bar: bool) -> None:
    """Crack, stroke, tighten before letting go: common practice."""
    build = demo("roadster") if bar else bed("library")
    loose: set[str] = set()
    held = False
    for step in procedure(build, "bleed-at-cylinder").steps:
        if step.action == "loosen":
            assert held
            loose.add(step.thing)
        elif step.action == "tighten":
            assert held
            loose.remove(step.thing)
        elif step.action == "release":
            assert not loose
        held = {"hold": True, "release": False}.get(step.action, held)
    assert not loose


def test_a_dead_end_is_cracked_onto_a_held_pedal() -> None:
    """A sensor on a tee holds air that nothing flushes: common practice."""
    made = sound()
    face = {"thread": "3/8-24", "seat": "inverted"}
    made["parts"].append({"id": "pr", "kind": "sensor", "ports": {"in": face}})
    next(p for p in made["parts"] if p["id"] == "cv")["ports"]["front-3"] = face
    made["lines"].append({"id": "D9", "from": "cv.front-3", "to": "pr.in", "direct": True})
    steps = procedure(with_layout(made), "bleed").steps
    at = next(i for i, step in enumerate(steps) if step.action == "loosen")
    assert "its air stays" in steps[at].why
    assert [step.action for step in steps[at - 1 : at + 3]] == [
        "hold", "loosen", "tighten", "release"]  # fmt: skip
    bare = procedure(with_layout(sound()), "bleed").steps
    assert len(steps) == len(bare) + 4


@pytest.mark.parametrize("name", NAMES)
def test_local_rules_and_a_qualified_check_stand_at_the_start(name: str) -> None:
    for build in (bed("library"), demo("roadster")):
        made = procedure(build, name)
        if made.allowed:
            assert any("qualified" in caution for caution in made.cautions)


def test_moving_tells_what_is_not_proved_yet() -> None:
    made = procedure_now(bed("library"), "prove-moving")
    assert made.cautions[0].startswith(
        "Not yet: nothing is on record, neither “No leaks”, “See the ports open”"
    )


def test_an_empty_layout_is_bled_as_usual_and_its_amounts_are_not_told() -> None:
    empty = with_layout({"parts": [], "lines": []})
    assert procedure(empty, "bleed").allowed
    assert amounts(empty).fluid is None
    assert set(amounts(empty).strokes.values()) == {None}


def test_what_is_bled_again_is_refused_by_the_method_as_bleeding_is() -> None:
    """One circuit with a residual valve: gravity is ruled out for all of it, and for a part."""
    build = bed("tender")
    whole, again = (procedure(build, name, "gravity", opened)
                    for name, opened in (("bleed", ()), ("rebleed", ("fl",))))  # fmt: skip

    assert not whole.allowed
    assert (again.name, again.refused_because) == ("rebleed", whole.refused_because)
    assert again.steps == ()
    assert procedure(build, "rebleed", None, ("fl",)).steps


@pytest.mark.parametrize(
    ("name", "build", "there", "gone"),
    [
        ("assemble", "library", "booster's clevis", "new retainer on the rod"),
        ("assemble", "roadster", "new retainer on the rod", "booster's clevis"),
        ("pushrod-clearance", "library", "booster's rod stands out", "pedal's rod stands out"),
        ("metering-test", "library", "Engine running; press gently", "\nPress gently"),
        ("bleed-at-cylinder", "roadster", "front cylinder's lines", "Crack the cylinder's lines"),
        ("bleed-at-cylinder", "library", "Crack the cylinder's lines", "front cylinder's lines"),
        ("ports-test", "library", "a swirl in each chamber", "squirts in the reservoir"),
        ("prove-moving", "roadster", "Valve at full restriction", "in the dry only"),
    ],
)
def test_a_step_is_there_for_those_it_is_for(name: str, build: str, there: str, gone: str) -> None:
    texts = "\n".join(["", *(step.text for step in procedure(demo(build), name).steps)])
    if procedure(demo(build), name).allowed:
        assert there in texts
        assert gone not in texts


def test_an_opened_cylinder_is_bled_first_and_an_opened_line_alone_is_not() -> None:
    library = bed("library")
    cylinder = next(p.id for p in library.plumbing.parts if p.kind == "master")  # type: ignore[union-attr]
    first = procedure(library, "rebleed", None, (cylinder, "L6")).steps[2]
    assert first.text.startswith("Bench-bleed the cylinder first")
    again = procedure(library, "rebleed", None, ("L6",))
    assert not any(step.text.startswith("Bench-bleed") for step in again.steps)


def test_all_standing_proofs_end_with_what_any_open_screw_would_undo() -> None:
    owners = [
        step.proof for step in procedure(bed("library"), "prove-standing").steps if step.proof
    ]
    assert list(dict.fromkeys(owners))[-2:] == ["leak-test", "three-strokes"]
    assert len(set(owners)) == len(dict.fromkeys(owners))
