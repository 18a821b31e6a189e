"""At the cylinder: bled on the bench or on the car, and the warning switch brought back."""

from urgens.guidance.procedures.bleed_rules import CAUTIONS
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.making import maker
from urgens.guidance.procedures.step import Procedure, ProcedureStep, StepReading, Wheel
from urgens.physics.axle import Axle

OK = StepReading("ok")


@maker("bleed-at-cylinder")
def bleed_at_cylinder(facts: Facts) -> Procedure:
    """Return how a dry cylinder is bled on the car, instead of on the bench.

    Source: common practice.
    """
    rounds: list[ProcedureStep] = []
    outlets = ("front cylinder's", "rear cylinder's") if facts.bar else ("cylinder's",)
    for outlet in outlets:
        lines = f"{outlet} lines"
        rounds += [
            ProcedureStep(
                "Press slowly and hold; call it.", "They are cracked onto pressure.", "hold"
            ),
            ProcedureStep(
                f"Crack the {lines}, rags under them.",
                "The air at the outlets goes first.",
                "loosen",
                thing=lines,
            ),
            ProcedureStep(
                "Let the pedal go down, and hold it there.",
                "It must not come up while a line is open.",
                "stroke",
                record=StepReading("strokes"),
            ),
            ProcedureStep(
                f"Tighten the {lines} before the foot comes up.",
                "It would draw air.",
                "tighten",
                thing=lines,
            ),
            ProcedureStep(
                "Let the pedal come up slowly; again until no bubbles come.",
                "The cylinder fills through its ports.",
                "release",
            ),
        ]
    steps = (
        ProcedureStep("Cover what is under the cylinder; fill the reservoir to the mark.",
                      "Fluid eats paint.", "top-up"),
        *rounds,
        ProcedureStep("Flush what was spilled with water; then bleed every wheel.",
                      "What is left goes to the wheels.", "check", record=OK),
    )  # fmt: skip
    return Procedure(
        "bleed-at-cylinder", people=2, tools=("flare-nut wrench", "rags and water", "fresh fluid"),
        cautions=CAUTIONS, steps=steps,
    )  # fmt: skip


LEFT: dict[Axle, tuple[Wheel]] = {Axle.FRONT: ("front-left",), Axle.REAR: ("rear-left",)}


@maker("reset-switch")
def reset_switch(facts: Facts) -> Procedure:
    """Return how the warning switch's shuttle is brought back.

    Source: common practice.
    """
    steps: list[ProcedureStep] = []
    for stuck, other in ((Axle.REAR, Axle.FRONT), (Axle.FRONT, Axle.REAR)):
        wheel = LEFT[other]
        steps += [
            ProcedureStep(
                f"Where the {stuck} is shut off: press as hard as in a stop, and hold.",
                "The shuttle needs a push from the side it went to.",
                "hold",
            ),
            ProcedureStep(
                f"Open a {other} screw for a few seconds, its hose under fluid.",
                "Pressure on one side alone moves it back.",
                "open",
                wheel,
                thing="bleed screw",
            ),
            ProcedureStep(
                f"Shut the {other} screw.",
                "Before the foot comes up.",
                "close",
                wheel,
                thing="bleed screw",
            ),
            ProcedureStep(
                "Let the pedal come up; once more where the lamp is still lit.",
                "It goes over by small steps.",
                "release",
                record=StepReading("lamp"),
            ),
        ]
    steps.append(ProcedureStep("Bleed again.", "A screw was open.", "check", record=OK))
    return Procedure(
        "reset-switch",
        people=2,
        tools=("hose and bottle", "spanner"),
        cautions=CAUTIONS,
        steps=tuple(steps),
    )
