"""The shuttle of a warning switch: brought back from the end that gets little, and only from it."""

from collections.abc import Iterator
from dataclasses import replace

from urgens.guidance.procedures.bleed import UNDER
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.making import maker
from urgens.guidance.procedures.records import records, title_of
from urgens.guidance.procedures.step import Procedure, ProcedureStep, StepReading, Wheel
from urgens.guidance.procedures.workshop import HOSE
from urgens.physics.axle import Axle

NAME, TELLS = "reset-switch", "which-end"


@maker(NAME)
def reset_switch(facts: Facts) -> Procedure:
    """Return how a shuttle is brought back to the middle; facts: of the build, and which end.

    Refused where the switch centres itself, and where nobody has said which end gets little.
    Source: common practice.
    """
    if facts.build.warning_switch_returns == "self-centring":
        return Procedure(NAME, refused_because="this switch centres itself; a lamp that stays lit "
                         "has another reason: trace it")  # fmt: skip
    if facts.end is None:
        return Procedure(
            NAME,
            refused_because="which end gets little has not been said, and the push is from that "
            f"side: “{title_of(TELLS)}” tells, an end at a time",
        )
    made = records()[NAME].made(facts, tuple(_steps(facts.end)))
    return replace(made, method=str(facts.end))


def _steps(end: Axle) -> Iterator[ProcedureStep]:
    """Yield the steps where an end gets little: the other one's screw is opened onto a foot."""
    good = Axle.REAR if end is Axle.FRONT else Axle.FRONT
    wheels: tuple[Wheel, ...] = ("rear-left",) if good is Axle.REAR else ("front-left",)
    only = f"Only where the {end} gets little:"
    yield ProcedureStep(
        f"Put a hose on a {good} screw; its end under clean fluid in a bottle.", UNDER, "fit",
        wheels, thing=HOSE,
    )  # fmt: skip
    yield ProcedureStep(
        "Press as hard as in a stop, and hold; call it.",
        f"The shuttle needs a push from the {end}'s side; the {end}'s screws stay shut.",
        "hold",
        wheels,
        press="hard",
        loop="begin",
        only=only,
    )
    yield ProcedureStep(
        f"Open the {good} screw for a moment.",
        f"Pressure on the {end}'s side alone moves it back.",
        "open",
        wheels,
        thing="bleed screw",
        only=only,
    )
    yield ProcedureStep(
        f"Shut the {good} screw.", "Before the foot comes up.", "close", wheels,
        thing="bleed screw", only=only,
    )  # fmt: skip
    yield ProcedureStep(
        "Let the pedal come up and look at the lamp; once more while it is lit, two or three "
        "times.",
        "It goes over by small steps.",
        "release",
        wheels,
        StepReading("lamp"),
        loop="end",
        only=only,
    )
    yield ProcedureStep(
        "Take hose and bottle off; cap the screw.", "What was fitted comes off.", "remove",
        wheels, thing=HOSE,
    )  # fmt: skip
    yield ProcedureStep(
        f"Bleed the {good} end again, by its own card; then the {end}, which may have got "
        "nothing so far.",
        "A screw was open.",
        "check",
        record=StepReading("ok"),
    )
