"""Proofs, standing and moving, each by itself; expected figures come from the build."""

from collections.abc import Iterator

from urgens.guidance.procedures.bleed_rules import CAUTIONS
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.making import made_for, maker
from urgens.guidance.procedures.records import named, records
from urgens.guidance.procedures.step import Procedure, ProcedureStep, StepReading, Wheel

ALL = "prove-standing"
PROOFS = tuple(name for name in named("prove") if name != ALL)
OK, LAMP = StepReading("ok"), StepReading("lamp")
MOVING = (
    "Private, closed, level, empty ground; belts; nobody in the way; somebody who can help at "
    "hand.",
    "No measured stop before every standing proof is done.",
    "Local rules and a qualified check come first.",
)


@maker("ports-test")
def ports_test(facts: Facts) -> Procedure:
    """Return how open ports are seen;  Source: common practice."""
    single = facts.build.master.one_chamber
    look = (
        "a squirt in the reservoir at a light press"
        if single
        else ("a swirl in each chamber of the reservoir as the pedal comes back slowly")
    )
    steps = (
        ProcedureStep("Take the caps off.", "The fluid is watched.", "loosen", thing="caps"),
        ProcedureStep(
            f"Press and let go, and look for {look}; look twice.",
            "None: the rod is too long, or a port is blocked, and the brakes stay on.",
            "check",
            record=OK,
        ),
        ProcedureStep("Caps back.", "What was loosened is shut again.", "tighten", thing="caps"),
    )
    return Procedure("ports-test", people=2, cautions=CAUTIONS[:1], steps=steps)


@maker("metering-test")
def metering_test(facts: Facts) -> Procedure:
    """Return how a metering valve is felt.

    Source: common practice.
    """
    engine = "Engine running; press" if facts.boosted else "Press"
    steps = (
        ProcedureStep(
            f"{engine} gently: a slight bump after about an inch, and the stem moves.",
            "It closes, and opens once the rear is on.",
            "check",
            record=OK,
        ),
    )
    return Procedure("metering-test", people=2, cautions=CAUTIONS, steps=steps)


@maker("switch-test")
def switch_test(facts: Facts) -> Procedure:
    """Return how the warning switch is proved.

    Source: common practice.
    """
    steps = [
        ProcedureStep(
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
            ProcedureStep("Press and hold.", "The shuttle moves by the difference.", "hold"),
            ProcedureStep(
                f"Crack a {axle} screw for an instant, hose under fluid: the lamp comes on.",
                "That circuit is lost for the moment.",
                "open",
                (wheel,),
                LAMP,
                thing="bleed screw",
            ),
            ProcedureStep(
                f"Shut the {axle} screw.",
                "Before the foot comes up.",
                "close",
                (wheel,),
                thing="bleed screw",
            ),
            ProcedureStep("Let the pedal come up.", "All screws are shut.", "release"),
        ]
    steps.append(
        ProcedureStep("Reset the switch.", "It stays where it went.", "check", record=LAMP)
    )
    return Procedure("switch-test", people=2, cautions=CAUTIONS, steps=tuple(steps))


@maker("half-lost-test")
def half_lost_test(facts: Facts) -> Procedure:
    """Return how one half lost is tried standing.

    Source: common practice.
    """
    steps: list[ProcedureStep] = []
    wheels: tuple[Wheel, ...] = ("front-left", "rear-left")
    for wheel in wheels:
        axle = wheel.split("-")[0]
        steps += [
            ProcedureStep(
                f"Hose from a {axle} screw into a bottle, its end under fluid.",
                "It is pressed out there.",
                "fit",
                (wheel,),
                thing="hose and bottle",
            ),
            ProcedureStep(
                f"Open the {axle} screw.",
                "That circuit is lost.",
                "open",
                (wheel,),
                thing="bleed screw",
            ),
            ProcedureStep(
                "Press: the pedal falls and then holds; read how far.",
                "About as far as Size tells.",
                "stroke",
                (wheel,),
                StepReading("travel", "mm"),
            ),
            ProcedureStep("Hold it there.", "Nothing is drawn back.", "hold", (wheel,)),
            ProcedureStep(
                f"Shut the {axle} screw.",
                "The foot is still down.",
                "close",
                (wheel,),
                thing="bleed screw",
            ),
            ProcedureStep("Let the pedal come up.", "All screws are shut.", "release", (wheel,)),
            ProcedureStep(
                "Take hose and bottle off.",
                "What was fitted comes off.",
                "remove",
                (wheel,),
                thing="hose and bottle",
            ),
        ]
    steps.append(ProcedureStep("Bleed again.", "Screws were open.", "check", record=OK))
    return Procedure("half-lost-test", people=2, cautions=CAUTIONS, steps=tuple(steps))


@maker(ALL)
def prove_standing(facts: Facts) -> Procedure:
    """Return all standing proofs that a build has.

    Source: common practice.
    """
    steps: list[ProcedureStep] = []
    for name in PROOFS:
        steps += made_for(records()[name], facts).steps
    steps += [
        ProcedureStep(
            "Brake lights come on, and before anything brakes.",
            "Who follows sees it.",
            "check",
            record=LAMP,
        ),
        ProcedureStep(
            "Each wheel turns free after the pedal is let go.",
            "What drags gets hot.",
            "check",
            record=OK,
        ),
    ]
    return Procedure(ALL, people=2, cautions=CAUTIONS, steps=tuple(steps))


@maker("prove-moving")
def prove_moving(facts: Facts) -> Procedure:
    """Return the moving proofs of a build;  Source: common practice."""
    return Procedure(
        "prove-moving",
        people=2,
        tools=("marks", "helper outside", "thermometer"),
        cautions=MOVING,
        steps=tuple(_moving(facts)),
    )


def _moving(facts: Facts) -> Iterator[ProcedureStep]:
    yield ProcedureStep(
        "Every standing proof is recorded.",
        "What does not hold standing does not hold moving.",
        "check",
        record=OK,
    )
    yield ProcedureStep(
        "Walking pace: stop; then 20 mph (30 km/h): stop.",
        "The first stops are short.",
        "record",
        record=OK,
    )
    yield ProcedureStep(
        "Bed the linings as their maker says; let them cool.",
        "New ones pull and fade.",
        "check",
        record=OK,
    )
    if facts.adjustable:
        yield ProcedureStep(
            "Valve at full restriction, or its maker's start.",
            "With least the rear is the last to lock.",
            "check",
            record=StepReading("note"),
        )
    yield ProcedureStep(
        "Measured stops, all from one speed that the ground has room for twice over; nothing but "
        "one setting differs from stop to stop. Somebody outside notes which wheels lock.",
        "The driver feels the front, not the rear.",
        "record",
        record=StepReading("note"),
    )
    if facts.adjustable:
        yield ProcedureStep(
            "A step toward more rear until the rear is just behind the front; one step "
            "back; again in the wet.",
            "The margin is kept for the road that was not tried.",
            "record",
            record=StepReading("note"),
        )
    yield ProcedureStep(
        "Temperatures front and rear; hubs; pedal again.",
        "Heat tells the real split.",
        "record",
        record=StepReading("temperature", "°C"),
    )
