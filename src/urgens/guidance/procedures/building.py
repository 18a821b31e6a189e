"""Putting together: cylinder, booster and lines; the pushrod's clearance; the pedal's height."""

from collections.abc import Iterator

from urgens.document.circuits import circuits_of
from urgens.guidance.procedures.bleed_rules import CAUTIONS
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.making import maker
from urgens.guidance.procedures.step import Procedure, ProcedureStep, StepReading

OK = StepReading("ok")


@maker("assemble")
def assemble(facts: Facts) -> Procedure:
    """Return how cylinder, booster and lines go together.

    Source: common practice.
    """
    steps = [*_pedal_and_cylinder(facts), *_reservoir()]
    steps += [
        ProcedureStep(
            "Start every line by hand before any is tightened; ends capped until then.",
            "A nut that is pulled in askew strips the port.",
            "fit",
            record=StepReading("ok"),
            thing="lines",
        ),
        ProcedureStep(
            "Tighten with a flare-nut wrench, two wrenches on a hose.",
            "An open spanner rounds the nut, one wrench twists the hose.",
            "tighten",
            record=OK,
        ),
    ]
    laid = circuits_of(facts.build)
    if laid is not None and any(part.kind == "banjo" for part in laid.plumbing.parts):
        steps.append(
            ProcedureStep(
                "Banjo bolts last, once the angles are known: two new washers an eye, the larger "
                "under the head where they differ; note a torque where one is given.",
                "Washers seal once; too tight marks the seat.",
                "tighten",
                record=OK,
            )
        )
    steps += _inspected()
    return Procedure(
        "assemble",
        tools=("flare-nut wrenches", "two spanners for hoses", "caps"),
        cautions=CAUTIONS,
        steps=tuple(steps),
    )


def _reservoir() -> Iterator[ProcedureStep]:
    """Yield how a reservoir comes onto its cylinder, before lines are near."""
    yield ProcedureStep(
        "Reservoir feet: washer in the bore, grommet wet, pushed until it clicks; wiggle it.",
        "A foot that is only half in drops out under way.",
        "check",
        record=OK,
    )
    yield ProcedureStep(
        "Fill feeds and cylinder on the bench and watch them: no foot weeps.",
        "Under the bonnet it is seen too late.",
        "check",
        record=OK,
    )


def _inspected() -> tuple[ProcedureStep, ...]:
    """Return what is looked at once all is in its place: what only an eye can see."""
    looks = (
        ("Turn to full lock both ways and let the axle droop: no hose is taut, twisted or near a "
         "wheel.", "It is pulled out of its end there."),
        ("Look at every old hose: age, cracks, swelling, and whether it flows.",
         "One that has swollen inside lets fluid out and not back; in doubt it is new."),
        ("Look at clips, each foot (300 mm) or so; a grommet, its split down, in every panel that "
         "a line crosses.", "What rubs is through in a year."),
        ("Look at exhaust, steering and suspension through all their travel.",
         "Heat boils a line, a moving part saws it through."),
        ("Reach the filler caps and the rear chamber with a bottle; the cabin valve from the seat.",
         "What cannot be reached is not topped up."),
        ("Parking cable free, and its lamp goes out.", "It may share the brake's lamp."),
    )  # fmt: skip
    return tuple(ProcedureStep(text, why, "check", record=OK) for text, why in looks)


def _pedal_and_cylinder(facts: Facts) -> Iterator[ProcedureStep]:
    ratio = facts.build.pedal
    yield ProcedureStep(
        f"Pin in the hole {ratio.pivot_to_pushrod.text} from the pivot.",
        "That is the ratio everything is worked out with.",
        "check",
        record=OK,
    )
    if facts.boosted:
        yield ProcedureStep(
            "Set the booster's clevis on the bench until the pin drops in; then pedal box, "
            "booster, pin, nuts, insert, cylinder.",
            "In another order the pin is not reached.",
            "fit",
            thing="booster",
        )
        yield ProcedureStep(
            "Measure socket depth, rod stand-out and gasket: rod clearance is depth and "
            "gasket less stand-out, about 0.02 in (0.5 mm).",
            "Too long keeps the ports shut, too short lowers the pedal.",
            "record",
            record=StepReading("gap", "mm"),
        )
    else:
        yield ProcedureStep(
            "New retainer on the rod; press once to seat it, then pull: it must hold.",
            "A rod that leaves its socket is no brake at all.",
            "check",
            record=OK,
        )
    yield ProcedureStep(
        "Extend the rod until it just touches; back off half a turn; lock nut.",
        "About 0.04 in (1 mm) at the piston: the port opens at rest.",
        "record",
        record=StepReading("gap", "mm"),
    )
    yield ProcedureStep(
        "Pedal at the throttle's height; brake-light switch closes before anything brakes.",
        "A pedal pulled up against its switch stands too high.",
        "check",
        record=StepReading("lamp"),
    )


@maker("pushrod-clearance")
def pushrod_clearance(facts: Facts) -> Procedure:
    """Return how the rod's clearance is worked out and then felt.

    Source: common practice: depth and gasket less stand-out, then by hand.
    """
    gap = StepReading("gap", "mm")
    rod = "booster's rod" if facts.boosted else "pedal's rod"
    face = "booster" if facts.boosted else "firewall"
    steps = (
        ProcedureStep(
            "Measure how deep the socket in the piston lies behind the cylinder's flange.",
            "The rod's end goes that far in.",
            "record",
            record=gap,
        ),
        ProcedureStep(
            f"Measure how far the {rod} stands out of the {face}, pulled back as far as it comes.",
            "Pushed in it would read too little.",
            "record",
            record=gap,
        ),
        ProcedureStep(
            "Measure the gasket, or what stands between both faces; none is 0.",
            "It holds the cylinder off.",
            "record",
            record=gap,
        ),
        ProcedureStep(
            "Set the rod so that depth and gasket less stand-out leave about 0.04 in (1 mm).",
            "Too long keeps the ports shut and the brakes on, too short lowers the pedal.",
            "check",
            record=OK,
        ),
        ProcedureStep(
            "By hand: extend until it just touches, back off half a turn, lock nut.",
            "What was worked out is only as good as three readings.",
            "record",
            record=gap,
        ),
        ProcedureStep(
            "Press once lightly: fluid squirts in the reservoir at the very start.",
            "A port that is shut at rest shows here.",
            "check",
            record=OK,
        ),
    )
    return Procedure(
        "pushrod-clearance", tools=("depth rule or caliper",), cautions=CAUTIONS[1:], steps=steps
    )
