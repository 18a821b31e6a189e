"""Proofs, standing and moving, each by itself; expected figures come from the build."""

from collections.abc import Iterator

from urgens.guidance.procedures.bleed_rules import CAUTIONS
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.step import Procedure, Reading, Step, Wheel

OK, LAMP = Reading("ok"), Reading("lamp")
MOVING = (
    "Private, closed, level, empty ground; belts; nobody in the way; somebody who can help at "
    "hand.",
    "No measured stop before every standing proof is done.",
    "Local rules and a qualified check come first.",
)


def three_strokes(facts: Facts) -> Procedure:
    """Return how clearance is told from air; facts: of the build [object].

    Source: common practice: clearance is taken up by the first strokes, air is not.
    """
    steps = tuple(
        Step(
            f"Stroke {number} at the usual foot: read the pedal's travel.",
            "Clearance goes after the first strokes, air stays.",
            "record",
            record=Reading("travel", "mm"),
        )
        for number in (1, 2, 3)
    )
    return Procedure("three-strokes", tools=("rule at the pedal",), steps=steps)


def leak_test(facts: Facts) -> Procedure:
    """Return how leaks are looked for; facts: of the build [object]. Source: common practice."""
    steps = (
        Step(
            "Hard pedal for 30 s: travel does not grow; look at every joint.",
            "What sinks leaks, outside or past a cup.",
            "check",
            record=OK,
            seconds=30,
        ),
    )
    return Procedure("leak-test", people=2, cautions=CAUTIONS[:1], steps=steps)


def ports_test(facts: Facts) -> Procedure:
    """Return how open ports are seen; facts: of the build [object]. Source: common practice."""
    single = facts.build.master.kind == "single"
    look = (
        "a squirt in the reservoir at a light press"
        if single
        else ("a swirl in each chamber of the reservoir as the pedal comes back slowly")
    )
    steps = (
        Step("Take the caps off.", "The fluid is watched.", "loosen", thing="caps"),
        Step(
            f"Press and let go, and look for {look}; look twice.",
            "None: the rod is too long, or a port is blocked, and the brakes stay on.",
            "check",
            record=OK,
        ),
        Step("Caps back.", "What was loosened is shut again.", "tighten", thing="caps"),
    )
    return Procedure("ports-test", people=2, cautions=CAUTIONS[:1], steps=steps)


def gauge_valve(facts: Facts) -> Procedure:
    """Return how a reducing valve is read; facts: of the build [object].

    Source: common practice.
    """
    if not any(valve.kind not in ("metering", "residual") for valve in facts.build.valves.rear):
        return Procedure("gauge-valve", refused_because="no valve that reduces is fitted")
    steps = (
        Step(
            "Fit a gauge before and one behind the valve, each on a tee; bleed both.",
            "Air in a gauge's line reads low.",
            "fit",
            thing="gauges",
        ),
        Step(
            "Press slowly up to the hardest, hold at each tenth, read both; and back.",
            "The knee, the slope and what it keeps on the way back show.",
            "record",
            record=Reading("pressure", "bar"),
        ),
        Step(
            "Take the gauges out, close the ports and bleed that circuit again.",
            "It was open.",
            "remove",
            thing="gauges",
        ),
    )
    return Procedure(
        "gauge-valve", people=2, tools=("two gauges", "two tees"), cautions=CAUTIONS, steps=steps
    )


def load_sensing_test(facts: Facts) -> Procedure:
    """Return how a load-sensing valve is moved by hand; facts: of the build [object].

    Source: common practice.
    """
    if not facts.load_sensing:
        return Procedure("load-sensing-test", refused_because="no load-sensing valve is fitted")
    steps = (
        Step(
            "Fit two gauges, before and behind.", "One alone tells nothing.", "fit", thing="gauges"
        ),
        Step("Loosen the link at the lever.", "It is moved by hand.", "loosen", thing="link"),
        Step(
            "Hold the pedal; move the lever from droop to bump and back, and read behind it.",
            "From next to nothing, or its lowest knee, to as much as before it, both ways: else "
            "it is seized.",
            "record",
            record=Reading("pressure", "bar"),
        ),
        Step("Link back as it was.", "One hole is another knee.", "tighten", thing="link"),
        Step("Gauges out; bleed that circuit again.", "It was open.", "remove", thing="gauges"),
    )
    return Procedure(
        "load-sensing-test", people=2, tools=("two gauges",), cautions=CAUTIONS, steps=steps
    )


def metering_test(facts: Facts) -> Procedure:
    """Return how a metering valve is felt; facts: of the build [object].

    Source: common practice.
    """
    if not facts.metering:
        return Procedure("metering-test", refused_because="no metering valve is fitted")
    engine = "Engine running; press" if facts.boosted else "Press"
    steps = (
        Step(
            f"{engine} gently: a slight bump after about an inch, and the stem moves.",
            "It closes, and opens once the rear is on.",
            "check",
            record=OK,
        ),
    )
    return Procedure("metering-test", people=2, cautions=CAUTIONS, steps=steps)


def switch_test(facts: Facts) -> Procedure:
    """Return how the warning switch is proved; facts: of the build [object].

    Source: common practice.
    """
    if not facts.shuttle:
        return Procedure("switch-test", refused_because="no warning switch is in the lines")
    steps = [
        Step(
            "Ignition on, parking brake pulled: the bulb lights.",
            "A dead bulb proves nothing.",
            "check",
            record=LAMP,
        )
    ]
    wheels: tuple[Wheel, ...] = ("front-left", "rear-left")
    for wheel in wheels:
        axle = wheel.split("-")[0]
        steps += [
            Step("Press and hold.", "The shuttle moves by the difference.", "hold"),
            Step(
                f"Crack a {axle} screw for an instant, hose under fluid: the lamp comes on.",
                "That circuit is lost for the moment.",
                "open",
                (wheel,),
                LAMP,
                thing="bleed screw",
            ),
            Step(
                f"Shut the {axle} screw.",
                "Before the foot comes up.",
                "close",
                (wheel,),
                thing="bleed screw",
            ),
            Step("Let the pedal come up.", "All screws are shut.", "release"),
        ]
    steps.append(Step("Reset the switch.", "It stays where it went.", "check", record=LAMP))
    return Procedure("switch-test", people=2, cautions=CAUTIONS, steps=tuple(steps))


def booster_test(facts: Facts) -> Procedure:
    """Return how a booster is proved; facts: of the build [object]. Source: common practice."""
    if not facts.boosted:
        return Procedure("booster-test", refused_because="no booster is fitted")
    steps = (
        Step("Engine off; pump until the pedal is hard; hold it.", "No vacuum is left.", "hold"),
        Step(
            "Start the engine: the pedal sinks a little.",
            "The booster takes over.",
            "check",
            record=OK,
        ),
        Step(
            "Stop the engine, wait five minutes, count assisted strokes.",
            "The check valve holds what is left.",
            "record",
            record=Reading("strokes"),
            seconds=300,
        ),
        Step("Let go.", "", "release"),
    )
    return Procedure("booster-test", cautions=CAUTIONS[1:], steps=steps)


def half_lost_test(facts: Facts) -> Procedure:
    """Return how one half lost is tried standing; facts: of the build [object].

    Source: common practice.
    """
    if facts.build.split == "single":
        reason = "one circuit feeds all brakes: with it lost nothing is left to try"
        return Procedure("half-lost-test", refused_because=reason)
    steps: list[Step] = []
    wheels: tuple[Wheel, ...] = ("front-left", "rear-left")
    for wheel in wheels:
        axle = wheel.split("-")[0]
        steps += [
            Step(
                f"Hose from a {axle} screw into a bottle, its end under fluid.",
                "It is pressed out there.",
                "fit",
                (wheel,),
                thing="hose and bottle",
            ),
            Step(
                f"Open the {axle} screw.",
                "That circuit is lost.",
                "open",
                (wheel,),
                thing="bleed screw",
            ),
            Step(
                "Press: the pedal falls and then holds; read how far.",
                "About as far as Size tells.",
                "stroke",
                (wheel,),
                Reading("travel", "mm"),
            ),
            Step("Hold it there.", "Nothing is drawn back.", "hold", (wheel,)),
            Step(
                f"Shut the {axle} screw.",
                "The foot is still down.",
                "close",
                (wheel,),
                thing="bleed screw",
            ),
            Step("Let the pedal come up.", "All screws are shut.", "release", (wheel,)),
            Step(
                "Take hose and bottle off.",
                "What was fitted comes off.",
                "remove",
                (wheel,),
                thing="hose and bottle",
            ),
        ]
    steps.append(Step("Bleed again.", "Screws were open.", "check", record=OK))
    return Procedure("half-lost-test", people=2, cautions=CAUTIONS, steps=tuple(steps))


def prove_standing(facts: Facts) -> Procedure:
    """Return all standing proofs that a build has; facts: of it [object].

    Source: common practice.
    """
    steps: list[Step] = []
    tests = (
        leak_test,
        ports_test,
        gauge_valve,
        load_sensing_test,
        metering_test,
        switch_test,
        booster_test,
        half_lost_test,
        three_strokes,
    )
    for test in tests:
        steps += test(facts).steps
    steps += [
        Step(
            "Brake lights come on, and before anything brakes.",
            "Who follows sees it.",
            "check",
            record=LAMP,
        ),
        Step(
            "Each wheel turns free after the pedal is let go.",
            "What drags gets hot.",
            "check",
            record=OK,
        ),
    ]
    return Procedure("prove-standing", people=2, cautions=CAUTIONS, steps=tuple(steps))


def prove_moving(facts: Facts) -> Procedure:
    """Return the moving proofs of a build; facts: of it [object]. Source: common practice."""
    return Procedure(
        "prove-moving",
        people=2,
        tools=("marks", "helper outside", "thermometer"),
        cautions=MOVING,
        steps=tuple(_moving(facts)),
    )


def _moving(facts: Facts) -> Iterator[Step]:
    yield Step(
        "Every standing proof is recorded.",
        "What does not hold standing does not hold moving.",
        "check",
        record=OK,
    )
    yield Step(
        "Walking pace: stop; then 20 mph (30 km/h): stop.",
        "The first stops are short.",
        "record",
        record=OK,
    )
    yield Step(
        "Bed the linings as their maker says; let them cool.",
        "New ones pull and fade.",
        "check",
        record=OK,
    )
    if facts.adjustable:
        yield Step(
            "Valve at full restriction, or its maker's start.",
            "With least the rear is the last to lock.",
            "check",
            record=Reading("note"),
        )
    yield Step(
        "Four to eight stops from 40 to 50 mph (65 to 80 km/h), one change at a time: who locks "
        "first, seen from outside.",
        "The driver feels the front, not the rear.",
        "record",
        record=Reading("note"),
    )
    if facts.adjustable:
        yield Step(
            "A step toward more rear until the rear is just behind the front; one step "
            "back; again in the wet.",
            "The margin is kept for the road that was not tried.",
            "record",
            record=Reading("note"),
        )
    yield Step(
        "Temperatures front and rear; hubs; pedal again.",
        "Heat tells the real split.",
        "record",
        record=Reading("temperature", "°C"),
    )
