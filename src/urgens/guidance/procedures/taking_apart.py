"""What is written down before anything comes off, and a cylinder overhauled."""

from collections.abc import Iterator

from urgens.document.circuits import circuits_of
from urgens.guidance.procedures.bleed_rules import CAUTIONS
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.making import maker
from urgens.guidance.procedures.step import Procedure, ProcedureStep, StepReading
from urgens.guidance.words.parts import part_name

OK, NOTE = StepReading("ok"), StepReading("note")
COMPETENT = (
    "Only by someone who knows the work; otherwise a new cylinder. Have it looked at by a "
    "qualified person.",
)


@maker("strip-record")
def strip_record(facts: Facts) -> Procedure:
    """Return what is written down before anything comes off.

    Source: common practice.
    """
    steps = [
        ProcedureStep(
            "Photograph cylinder, valves, lines and levers from two sides.",
            "What has been taken apart is never as it was remembered.",
            "record",
            record=NOTE,
        ),
        ProcedureStep(
            "Tie a label to each outlet and each line, the same on both.",
            "Nuts of one size go on the wrong port as easily as on the right one.",
            "record",
            record=NOTE,
        ),
    ]
    laid = circuits_of(facts.build)
    if laid is not None:
        names = ", ".join(
            part_name(laid, part).lower()
            for part in laid.plumbing.parts
            if part.wheel is None and part.kind not in ("plug", "hose")
        )
        steps.append(
            ProcedureStep(
                f"Note marking and place of each body: {names}.",
                "Unmarked bodies look alike on the bench.",
                "record",
                record=NOTE,
            )
        )
    if facts.adjustable:
        steps.append(
            ProcedureStep(
                "Note the valve's setting: turns out, or the notch.",
                "It is where the last stops were found.",
                "record",
                record=StepReading("note"),
            )
        )
    if facts.load_sensing:
        steps.append(
            ProcedureStep(
                "Note which hole carries the load-sensing lever's link, and its length.",
                "One hole is another knee.",
                "record",
                record=StepReading("gap", "mm"),
            )
        )
    steps.append(
        ProcedureStep(
            "Measure the pedal's height and the pushrod's length.",
            "They come back as they were, or are set anew.",
            "record",
            record=StepReading("gap", "mm"),
        )
    )
    return Procedure("strip-record", tools=("camera", "labels", "rule"), steps=tuple(steps))


@maker("overhaul")
def overhaul(facts: Facts) -> Procedure:
    """Return how a cylinder is overhauled.

    Source: common practice.
    """
    return Procedure(
        "overhaul",
        tools=("soft wood", "fine wire", "circlip pliers", "new rubber"),
        cautions=(*COMPETENT, CAUTIONS[0]),
        steps=(*_taken_apart(), *_looked_at(facts), *_put_together()),
    )


def _taken_apart() -> Iterator[ProcedureStep]:
    yield ProcedureStep(
        "Rod off the pedal; cylinder on the bench, clear of paint.",
        "Fluid runs out wherever it is laid.",
        "remove",
        thing="pushrod",
    )
    yield ProcedureStep(
        "Stop screw or ring out; pistons out in their order, tapped on soft wood.",
        "Air from a gun pushes the cup lips into the ports: those cups are scrap.",
        "remove",
        thing="pistons",
    )


def _looked_at(facts: Facts) -> Iterator[ProcedureStep]:
    yield ProcedureStep(
        "Look at the bore under a bright light: no score, pit or crack.",
        "Honed away, the clearance is gone: replace the cylinder.",
        "check",
        record=OK,
    )
    yield ProcedureStep(
        "Clear every port with a fine wire.",
        "A blocked compensating port keeps the brakes on.",
        "check",
        record=OK,
    )
    if facts.residual:
        yield ProcedureStep(
            "Pull the tube seats and fit new residual valves behind the outlets that have them.",
            "They age, and keep too little or all of it.",
            "check",
            record=OK,
        )


def _put_together() -> Iterator[ProcedureStep]:
    yield ProcedureStep(
        "All rubber new, wet with brake fluid; lips towards the pressure.",
        "A lip the other way holds nothing.",
        "fit",
        thing="pistons",
    )
    yield ProcedureStep(
        "New retainer on the rod; rod back on the pedal, and pull: it must hold.",
        "A rod that leaves its socket is no brake at all.",
        "fit",
        thing="pushrod",
    )
