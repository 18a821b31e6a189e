"""Every procedure is carried out against the rules of the workshop; a planted fault breaks one.

The rules are common practice; each planted fault is one that would hurt somebody or let air in.
"""

from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.guidance.test_procedures import LAYOUTS
from tests.plumbing.layouts import sound, with_layout
from urgens.document import Build, BuildErrors, demo, demo_names, with_changes
from urgens.guidance.procedures import (
    METHODS,
    NAMES,
    WAYS,
    Facts,
    Procedure,
    ProcedureStep,
    procedure,
    tried,
)
from urgens.guidance.procedures.dry_run import CHECKS, broken_by, dry_run, why_here
from urgens.guidance.procedures.people import duties, roles, too_few
from urgens.guidance.procedures.workshop import (
    at_first,
    deeds_of,
    is_joint,
    standing_before,
    workshop,
)
from urgens.quantity import UnitSystem

PRESSING = ("Presses", "strokes", "Lets it go down", "Holds it down")
BUILDS = {**LAYOUTS, **{name: demo(name) for name in demo_names()}}
Steps = list[ProcedureStep]


def ways(name: str) -> tuple[str | None, ...]:
    return METHODS if name == "rebleed" else WAYS.get(name, (None,))


def every(build: Build) -> list[Procedure]:
    """Every procedure of a build by every way of it; of what is bled again, one wheel's line."""
    opened = () if build.plumbing is None else (build.plumbing.lines[-1].id,)
    return [
        procedure(build, name, way, opened if name == "rebleed" else ())
        for name in NAMES for way in ways(name)
    ]  # fmt: skip


@pytest.mark.parametrize("name", BUILDS)
def test_no_procedure_of_any_layout_breaks_a_rule(name: str) -> None:
    for made in every(BUILDS[name]):
        assert dry_run(made, made.begins) == ()
        assert "rule of the workshop" not in str(made.refused_because)
        assert made.allowed == bool(made.steps)


# --- what each person is told, from the same state -----------------------------------------------


@pytest.mark.parametrize("name", list(BUILDS)[::3])
def test_as_many_lines_as_people_one_presses_and_none_asks_for_what_is_forbidden(name: str) -> None:
    build = BUILDS[name]
    for made in every(build):
        for people in (1, 2, 3, 4):
            who = roles(made, people, bar=build.master.has_bar)
            assert len(who) == len(set(who)) == people
            now = at_first(made.begins)
            for step in made.steps:
                said = duties(who, step, now)
                assert tuple(said) == who
                assert all(words.endswith((".", "?")) for words in said.values())
                if people > 1:
                    _look_over_lines(said, step, now.held)
                now = now.after(step)


def _look_over_lines(said: dict[str, str], step: ProcedureStep, held: bool) -> None:
    pressing = [role for role, words in said.items() if any(one in words for one in PRESSING)]
    foot = step.action in ("hold", "stroke") or step.press != "" or held
    comes_up = "release foot" in deeds_of(step)
    assert pressing == (["pedal"] if foot and not comes_up else [])
    if step.press == "down":  # "hold it there" is no stroking
        assert "strokes" not in said["pedal"]
        assert "holds it there" in said["pedal"]
    if step.press == "hard" and step.action != "hold":
        assert all("Looks" in words or "Reads" in words
                   for role, words in said.items() if role != "pedal")  # fmt: skip
    if step.press == "usual":
        assert "Foot off" not in said["pedal"]
    if step.action in ("open", "close") and step.wheels:
        assert sum("screw" in words for words in said.values()) == 1


def test_alone_a_foot_that_holds_is_not_at_the_screw() -> None:
    """Hold and crack takes two; pressure, gravity and vacuum go alone: common practice."""
    build = LAYOUTS["tandem, none, 1, none"]
    for method in METHODS:
        alone = too_few(procedure(build, "bleed", method), 1)
        assert (alone is None) == (method in ("pressure", "gravity", "vacuum"))
        assert too_few(procedure(build, "bleed", method), 2) is None
    assert "go alone" in str(too_few(procedure(build, "bleed", "pedal"), 1))


# --- faults that are planted ---------------------------------------------------------------------


def base(name: str, layout: str, method: str | None = None) -> Procedure:
    made = procedure(LAYOUTS[layout], name, method)
    assert made.allowed
    return made


PEDAL = base("bleed", "tandem, metering, 1, warns", "pedal")
OPEN = base("bleed", "twin, none, 1, none", "open-stroke")
PRESSURE = base("bleed", "tandem, metering, 1, none", "pressure")
CYLINDER = base("bleed-at-cylinder", "tandem, none, 1, none")


def at(made: Procedure, deed: str) -> int:
    return next(n for n, step in enumerate(made.steps) if deed in deeds_of(step))


def without(made: Procedure, deed: str) -> Procedure:
    return replace(made, steps=tuple(s for s in made.steps if deed not in deeds_of(s)))


def before(made: Procedure, deed: str, wanted: str) -> Procedure:
    """Return it with the step that does something moved before another."""
    steps = list(made.steps)
    moved = steps.pop(at(made, deed))
    there = next(n for n, step in enumerate(steps) if wanted in deeds_of(step))
    return replace(made, steps=(*steps[:there], moved, *steps[there:]))


def twice(made: Procedure, deed: str) -> Procedure:
    there = at(made, deed)
    return replace(made, steps=(*made.steps[: there + 1], *made.steps[there:]))


def changed(made: Procedure, deed: str, **to: object) -> Procedure:
    steps = list(made.steps)
    steps[at(made, deed)] = replace(steps[at(made, deed)], **to)  # type: ignore[arg-type]
    return replace(made, steps=tuple(steps))


FAULTS: dict[str, Callable[[], Procedure]] = {
    # A bleeder that is never let down; one that is left on while it is pressed hard.
    "let-down": lambda: without(PRESSURE, "release pressure bleeder"),
    "open-neck": lambda: without(PRESSURE, "remove caps"),
    "holder-off": lambda: without(PRESSURE, "remove metering holder"),
    "bleeder-off": lambda: without(
        without(PRESSURE, "release pressure bleeder"), "remove pressure bleeder"
    ),
    "caps-on": lambda: before(PEDAL, "press hard", "fit caps"),
    # The block stays under the pedal during leak check and travel.
    "block-out": lambda: before(PEDAL, "press usual", "remove pedal block"),
    "block-in": lambda: without(PEDAL, "fit pedal block"),
    "covered": lambda: without(PEDAL, "check cover"),
    "stands": lambda: without(PEDAL, "check stands"),
    # The cylinder goes on, and reservoir feet and bench bleeding follow on the bench.
    "on-the-bench": lambda: before(
        base("assemble", "tandem, none, 1, none"), "fit cylinder", "at bench"
    ),
    "on-the-vehicle": lambda: before(
        procedure(demo("roadster"), "assemble"), "at vehicle", "fit cylinder"
    ),
    "shut-before-up": lambda: without(PEDAL, "close"),
    "onto-pressure": lambda: without(PEDAL, "hold"),
    "back-with-hoses": lambda: changed(PEDAL, "stroke down", press="full"),
    "hose-on": lambda: without(PEDAL, "fit hose and bottle"),
    "hose-stays": lambda: before(OPEN, "remove hose and bottle", "close"),
    "tight": lambda: changed(CYLINDER, "stroke down", press="full"),
    "one-joint": lambda: without(CYLINDER, "hold"),
    "not-twice": lambda: twice(PEDAL, "top-up"),
    "put-back": lambda: without(PEDAL, "remove centring tool"),
}


@pytest.mark.parametrize("rule", [*(one.id for one in workshop().rules), *(c.id for c in CHECKS),
                                  "put-back"])  # fmt: skip
def test_a_planted_fault_breaks_its_rule_and_is_refused_in_words(rule: str) -> None:
    made = FAULTS[rule]()
    broken = dry_run(made, made.begins)
    assert rule in {one.rule for one in broken}
    refused = tried(made)
    assert not refused.allowed
    assert refused.steps == ()
    assert broken[0].sentence in str(refused.refused_because)
    assert all(one.step in made.steps[one.number - 1].text for one in broken if one.number)


@pytest.mark.parametrize(
    ("made", "deed"),
    [
        (PRESSURE, "top-up"), (PEDAL, "hold"), (PEDAL, "release foot"), (PEDAL, "open"),
        (PEDAL, "close"), (PEDAL, "fit pedal block"), (PEDAL, "remove pedal block"),
        (PEDAL, "fit caps"), (PEDAL, "check caps"), (PRESSURE, "release pressure bleeder"),
        (PEDAL, "check stands"), (PEDAL, "check cover"), (CYLINDER, "loosen"),
    ],
)  # fmt: skip
def test_nothing_is_done_twice_to_the_same_end(made: Procedure, deed: str) -> None:
    again = twice(made, deed)
    assert "not-twice" in {one.rule for one in dry_run(again, again.begins)}


@given(st.data())
def test_a_step_that_is_left_out_is_seen_or_does_no_harm(data: st.DataObject) -> None:
    """Whatever one step is left out: a rule is broken, or nothing stands otherwise at the end."""
    made = data.draw(st.sampled_from((PEDAL, OPEN, PRESSURE, CYLINDER)))
    left = data.draw(st.integers(0, len(made.steps) - 1))
    less = replace(made, steps=(*made.steps[:left], *made.steps[left + 1 :]))
    ends = [standing_before(one.steps, len(one.steps) + 1, one.begins) for one in (made, less)]
    same = all(getattr(ends[0], name) == getattr(ends[1], name)
               for name in ("open_", "hosed", "joints", "fitted", "away"))  # fmt: skip
    assert dry_run(less, less.begins) or same


# --- what the workshop's table says --------------------------------------------------------------


def test_the_table_names_only_what_there_is() -> None:
    table = workshop()
    deeds = {deed for made in every(demo("library")) + every(demo("roadster"))
             for step in made.steps for deed in deeds_of(step)}  # fmt: skip
    deeds |= {deed for one in (PRESSURE, PEDAL, OPEN, CYLINDER) for step in one.steps
              for deed in deeds_of(step)}  # fmt: skip
    deeds |= {deed for made in every(LAYOUTS["tandem, load-sensing, 1, none"])
              for step in made.steps for deed in deeds_of(step)}  # fmt: skip
    named = {deed for one in (*table.effects,) for deed in one.deeds}
    named |= {deed for rule in table.rules for deed in rule.before}
    assert named <= deeds
    assert len({rule.id for rule in table.rules}) == len(table.rules)
    with pytest.raises(ValueError, match="no weather"):
        at_first({"weather": "rain"})


def test_a_step_says_why_it_stands_where_it_does() -> None:
    told = why_here(PEDAL, at(PEDAL, "press hard") + 1)
    assert any("block is out" in sentence for sentence in told)
    assert not any("bleeder" in sentence for sentence in told)  # there is none
    told = why_here(PEDAL, at(PEDAL, "open") + 1)
    assert any("opened onto a foot that holds" in sentence for sentence in told)
    assert why_here(PEDAL, at(PEDAL, "check cover") + 1) == ()


def test_a_rule_looks_at_what_stands_not_at_words() -> None:
    step = ProcedureStep("Say nothing of it.", "", "check", press="hard")
    assert {one.id for one in broken_by(at_first({}), step, None)} == set()
    assert {one.id for one in broken_by(at_first({"block": "in"}), step, None)} == {"block-out"}


def test_a_taper_joint_is_never_cracked() -> None:
    """A sensor that is screwed in is let out at the flared joint before it: common practice."""
    assert is_joint("joint of L3 at cv")
    build = demo("library")
    assert build.plumbing is not None
    direct = {line.id for line in build.plumbing.lines if line.direct}
    cracked = {step.thing.split()[2] for made in every(build) for step in made.steps
               if step.thing.startswith("joint of")}  # fmt: skip
    assert not cracked & direct


# --- the switch ----------------------------------------------------------------------------------


def test_a_reset_is_asked_which_end_and_leaves_the_other_shut() -> None:
    build = with_changes(LAYOUTS["tandem, none, 1, warns"], {"warning_switch_returns": "latching"})
    unknown = procedure(build, "reset-switch")
    assert not unknown.allowed
    assert "Which end gets little" in str(unknown.refused_because)
    for end, good in (("front", "rear"), ("rear", "front")):
        made = procedure(build, "reset-switch", end)
        assert {w for step in made.steps for w in step.wheels} == {f"{good}-left"}
        who = roles(made, 3, bar=False)
        now = at_first(made.begins)
        for step in made.steps:
            if step.action in ("hold", "open"):
                assert all(words.startswith(f"Only where the {end} gets little:")
                           for words in duties(who, step, now).values())  # fmt: skip
            now = now.after(step)


@pytest.mark.parametrize(("returns", "tools"), [("self-centring", 0), ("latching", 1), (None, 1)])
def test_a_switch_that_centres_itself_needs_no_tool_and_no_reset(
    returns: str | None, tools: int
) -> None:
    changes = {"warning_switch_returns": returns} if returns else {}
    build = with_changes(LAYOUTS["tandem, none, 1, warns"], changes)
    made = procedure(build, "bleed")
    assert [step.thing for step in made.steps if step.action == "fit"].count(
        "centring tool"
    ) == tools
    if returns == "self-centring":
        assert "centres itself" in str(procedure(build, "reset-switch", "front").refused_because)


# --- what is done until clear ---------------------------------------------------------------------


def test_what_is_done_until_clear_says_where_it_begins_again() -> None:
    numbers = [n for n, step in enumerate(PEDAL.steps, start=1) if step.loop == "end"]
    assert len(numbers) == 4  # a wheel each
    for number in numbers:
        begin = PEDAL.back_to(number)
        assert begin is not None
        assert PEDAL.steps[begin - 1].action == "hold"
        once_more = (*PEDAL.steps[:number], *PEDAL.steps[begin - 1 :])
        assert dry_run(replace(PEDAL, steps=once_more), PEDAL.begins) == ()
    assert PEDAL.back_to(1) is None


def test_a_switch_that_is_written_as_a_record_is_read_as_its_words_are() -> None:
    written = {"warning_switch": {"does": "shuts", "returns": "latching"}}
    build = with_changes(LAYOUTS["tandem, none, 1, none"], written)
    assert (build.warning_switch, build.warning_switch_returns) == ("shuts", "latching")
    with pytest.raises(BuildErrors, match="warning_switch"):
        with_changes(build, {"warning_switch": {"does": "shuts", "rings": "twice"}})


def test_a_layout_that_is_cut_in_two_says_which_wheels_nothing_comes_at() -> None:
    made = sound()
    cut = next(one for one in made["lines"] if one["from"].startswith("mc.rear"))
    made["lines"].remove(cut)
    found = procedure(with_layout(made), "bleed")
    assert found.cautions[0].startswith("Nothing in the layout joins right rear, left rear to")
    assert not any("joins" in one for one in procedure(with_layout(sound()), "bleed").cautions)
    made["parts"] = [one for one in made["parts"] if one["kind"] != "master"]
    made["lines"] = [one for one in made["lines"] if "mc." not in f"{one['from']} {one['to']}"]
    without = procedure(with_layout(made), "bleed")
    assert "right rear, left rear, right front, left front" in without.cautions[0]


def test_only_the_circuit_that_was_opened_is_bled_again_and_its_dead_end_with_it() -> None:
    """A sensor in front keeps its air where the rear was opened: common practice."""
    made = sound()
    face = {"thread": "3/8-24", "seat": "inverted"}
    made["parts"].append({"id": "pr", "kind": "sensor", "ports": {"in": face}})
    next(p for p in made["parts"] if p["id"] == "cv")["ports"]["front-3"] = face
    made["lines"].append({"id": "D9", "from": "cv.front-3", "to": "pr.in", "direct": True})
    build = with_layout(made)
    for opened, cracks in (("hr", False), ("hfl", True), ("mc", True)):
        again = procedure(build, "rebleed", None, (opened,))
        joints = [step.thing for step in again.steps if step.action == "loosen"]
        assert bool(joints) == cracks
        assert dry_run(again, again.begins) == ()
        axles = {wheel.partition("-")[0] for step in again.steps for wheel in step.wheels}
        assert axles == {"hr": {"rear"}, "hfl": {"front"}, "mc": {"front", "rear"}}[opened]
        fills = [step.action for step in again.steps if step.action in ("top-up", "open", "loosen")]
        assert ("top-up", "top-up") not in set(pairwise(fills))


def test_a_torque_is_said_where_somebody_has_given_one_in_the_units_shown() -> None:
    made = sound()
    next(one for one in made["lines"] if one["id"] == "L1")["torque"] = "16 N.m"
    build = with_layout(made)
    given = procedure(build, "assemble")
    bare = procedure(with_layout(sound()), "assemble")
    assert len(given.steps) == len(bare.steps) + 1
    said = {units: next(step.text for step in given.spelt(Facts(build).figures(units)).steps
                        if "torque that is given" in step.text)
            for units in UnitSystem}  # fmt: skip
    assert "line 1, cylinder to valve body, front: 16 N" in said[UnitSystem.METRIC]
    assert (
        "line 1, cylinder to valve body, front: 12 lbf" in said[UnitSystem.INCH]
    )  # 16 N·m / 1.356 = 11.8; by hand


def test_who_presses_for_a_reset_presses_hard_and_who_holds_for_a_reading_is_read() -> None:
    """The shuttle needs a push as hard as in a stop: common practice."""
    build = LAYOUTS["tandem, none, 1, warns"]
    for name, way, words in (("reset-switch", "front", "Presses hard"),
                             ("half-lost-test", None, "Presses slowly")):  # fmt: skip
        made = procedure(build, name, way)
        number = next(n for n, step in enumerate(made.steps, 1) if step.action == "hold")
        step, now = made.steps[number - 1], standing_before(made.steps, number, made.begins)
        said = duties(("pedal", "screws"), step, now)
        assert words in said["pedal"]
        assert "hand on the spanner" in said["screws"]
        assert ("reads what is asked" in said["screws"]) == (name == "half-lost-test")


@pytest.mark.parametrize(
    ("layout", "squirts"), [("single", True), ("twin", True), ("tandem", False)]
)
def test_a_cylinder_of_one_chamber_squirts_and_a_tandem_need_not(
    layout: str, squirts: bool
) -> None:
    """Twin cylinders are two of one chamber: each squirts at a light press; common practice."""
    build = LAYOUTS[f"{layout}, none, 1, none"]
    assert Facts(build).chambers == (1 if squirts else 2)
    texts = " ".join(step.text for step in procedure(build, "ports-test").steps)
    assert ("squirts" in texts) == squirts
    assert ("very slowly" in texts) != squirts
