"""Procedures of taking apart and putting together: record, overhaul, assembly, bench-bleeding."""

from collections.abc import Iterator

from urgens.document.circuits import circuits_of
from urgens.guidance.part_words import part_name
from urgens.guidance.procedures.bleed import CAUTIONS
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.step import Procedure, Reading, Step, Wheel
from urgens.physics.axle import Axle

OK, NOTE = Reading("ok"), Reading("note")
COMPETENT = (
    "Only by someone who knows the work; otherwise a new cylinder. Have it looked at by a "
    "qualified person.",
)


def strip_record(facts: Facts) -> Procedure:
    """Return what is written down before anything comes off; facts: of the build [object].

    Source: common practice.
    """
    steps = [
        Step(
            "Photograph cylinder, valves, lines and levers from two sides.",
            "What has been taken apart is never as it was remembered.",
            "record",
            record=NOTE,
        ),
        Step(
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
            Step(
                f"Note marking and place of each body: {names}.",
                "Unmarked bodies look alike on the bench.",
                "record",
                record=NOTE,
            )
        )
    if facts.adjustable:
        steps.append(
            Step(
                "Note the valve's setting: turns out, or the notch.",
                "It is where the last stops were found.",
                "record",
                record=Reading("note"),
            )
        )
    if facts.load_sensing:
        steps.append(
            Step(
                "Note which hole carries the load-sensing lever's link, and its length.",
                "One hole is another knee.",
                "record",
                record=Reading("gap", "mm"),
            )
        )
    steps.append(
        Step(
            "Measure the pedal's height and the pushrod's length.",
            "They come back as they were, or are set anew.",
            "record",
            record=Reading("gap", "mm"),
        )
    )
    return Procedure("strip-record", tools=("camera", "labels", "rule"), steps=tuple(steps))


def overhaul(facts: Facts) -> Procedure:
    """Return how a cylinder is overhauled; facts: of the build [object].

    Source: common practice.
    """
    rod = [
        Step(
            "Rod off the pedal; cylinder on the bench, clear of paint.",
            "Fluid runs out wherever it is laid.",
            "remove",
            thing="pushrod",
        )
    ]
    steps = [
        *rod,
        Step(
            "Stop screw or ring out; pistons out in their order, tapped on soft wood.",
            "Air from a gun pushes the cup lips into the ports: those cups are scrap.",
            "remove",
            thing="pistons",
        ),
        Step(
            "Look at the bore under a bright light: no score, pit or crack.",
            "Honed away, the clearance is gone: replace the cylinder.",
            "check",
            record=OK,
        ),
        Step(
            "Clear every port with a fine wire.",
            "A blocked compensating port keeps the brakes on.",
            "check",
            record=OK,
        ),
    ]
    if facts.residual:
        steps.append(
            Step(
                "Pull the tube seats and fit new residual valves behind the outlets that have "
                "them.",
                "They age, and keep too little or all of it.",
                "check",
                record=OK,
            )
        )
    steps += [
        Step(
            "All rubber new, wet with brake fluid; lips towards the pressure.",
            "A lip the other way holds nothing.",
            "fit",
            thing="pistons",
        ),
        Step(
            "New retainer on the rod; rod back on the pedal, and pull: it must hold.",
            "A rod that leaves its socket is no brake at all.",
            "fit",
            thing="pushrod",
        ),
    ]
    return Procedure(
        "overhaul",
        tools=("soft wood", "fine wire", "circlip pliers", "new rubber"),
        cautions=(*COMPETENT, CAUTIONS[0]),
        steps=tuple(steps),
    )


def assemble(facts: Facts) -> Procedure:
    """Return how cylinder, booster and lines go together; facts: of the build [object].

    Source: common practice.
    """
    steps = [*_pedal_and_cylinder(facts), *_reservoir()]
    steps += [
        Step(
            "Start every line by hand before any is tightened; ends capped until then.",
            "A nut that is pulled in askew strips the port.",
            "fit",
            record=Reading("ok"),
            thing="lines",
        ),
        Step(
            "Tighten with a flare-nut wrench, two wrenches on a hose.",
            "An open spanner rounds the nut, one wrench twists the hose.",
            "tighten",
            record=OK,
        ),
    ]
    laid = circuits_of(facts.build)
    if laid is not None and any(part.kind == "banjo" for part in laid.plumbing.parts):
        steps.append(
            Step(
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


def _reservoir() -> Iterator[Step]:
    """Yield how a reservoir comes onto its cylinder, before lines are near."""
    yield Step(
        "Reservoir feet: washer in the bore, grommet wet, pushed until it clicks; wiggle it.",
        "A foot that is only half in drops out under way.",
        "check",
        record=OK,
    )
    yield Step(
        "Fill feeds and cylinder on the bench and watch them: no foot weeps.",
        "Under the bonnet it is seen too late.",
        "check",
        record=OK,
    )


def _inspected() -> tuple[Step, ...]:
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
    return tuple(Step(text, why, "check", record=OK) for text, why in looks)


def _pedal_and_cylinder(facts: Facts) -> Iterator[Step]:
    ratio = facts.build.pedal
    yield Step(
        f"Pin in the hole {ratio.pivot_to_pushrod.text} from the pivot.",
        "That is the ratio everything is worked out with.",
        "check",
        record=OK,
    )
    if facts.boosted:
        yield Step(
            "Set the booster's clevis on the bench until the pin drops in; then pedal box, "
            "booster, pin, nuts, insert, cylinder.",
            "In another order the pin is not reached.",
            "fit",
            thing="booster",
        )
        yield Step(
            "Measure socket depth, rod stand-out and gasket: rod clearance is depth and "
            "gasket less stand-out, about 0.02 in (0.5 mm).",
            "Too long keeps the ports shut, too short lowers the pedal.",
            "record",
            record=Reading("gap", "mm"),
        )
    else:
        yield Step(
            "New retainer on the rod; press once to seat it, then pull: it must hold.",
            "A rod that leaves its socket is no brake at all.",
            "check",
            record=OK,
        )
    yield Step(
        "Extend the rod until it just touches; back off half a turn; lock nut.",
        "About 0.04 in (1 mm) at the piston: the port opens at rest.",
        "record",
        record=Reading("gap", "mm"),
    )
    yield Step(
        "Pedal at the throttle's height; brake-light switch closes before anything brakes.",
        "A pedal pulled up against its switch stands too high.",
        "check",
        record=Reading("lamp"),
    )


def pushrod_clearance(facts: Facts) -> Procedure:
    """Return how the rod's clearance is worked out and then felt; facts: of the build [object].

    Source: common practice: depth and gasket less stand-out, then by hand.
    """
    gap = Reading("gap", "mm")
    rod = "booster's rod" if facts.boosted else "pedal's rod"
    face = "booster" if facts.boosted else "firewall"
    steps = (
        Step(
            "Measure how deep the socket in the piston lies behind the cylinder's flange.",
            "The rod's end goes that far in.",
            "record",
            record=gap,
        ),
        Step(
            f"Measure how far the {rod} stands out of the {face}, pulled back as far as it comes.",
            "Pushed in it would read too little.",
            "record",
            record=gap,
        ),
        Step(
            "Measure the gasket, or what stands between both faces; none is 0.",
            "It holds the cylinder off.",
            "record",
            record=gap,
        ),
        Step(
            "Set the rod so that depth and gasket less stand-out leave about 0.04 in (1 mm).",
            "Too long keeps the ports shut and the brakes on, too short lowers the pedal.",
            "check",
            record=OK,
        ),
        Step(
            "By hand: extend until it just touches, back off half a turn, lock nut.",
            "What was worked out is only as good as three readings.",
            "record",
            record=gap,
        ),
        Step(
            "Press once lightly: fluid squirts in the reservoir at the very start.",
            "A port that is shut at rest shows here.",
            "check",
            record=OK,
        ),
    )
    return Procedure(
        "pushrod-clearance", tools=("depth rule or caliper",), cautions=CAUTIONS[1:], steps=steps
    )


def pedal_height(facts: Facts) -> Procedure:
    """Return how pedal height and brake-light switch are set; facts: of the build [object].

    Source: common practice.
    """
    steps = (
        Step(
            "Measure the brake pad's height over the floor, and the throttle's.",
            "A foot that has to be lifted over comes late.",
            "record",
            record=Reading("gap", "mm"),
        ),
        Step(
            "Look what stops the pedal: its own stop, not the switch.",
            "A bracket may be missing after a change between manual and boosted.",
            "check",
            record=OK,
        ),
        Step(
            "Turn the switch until the lamp comes on before anything brakes, and goes out.",
            "Who follows sees it; one that holds the pedal keeps the brakes on.",
            "check",
            record=Reading("lamp"),
        ),
    )
    return Procedure("pedal-height", tools=("rule",), cautions=CAUTIONS[1:], steps=steps)


def bench_bleed(facts: Facts) -> Procedure:
    """Return how the cylinder is bled before it is fitted; facts: of the build [object].

    Source: common practice.
    """
    steps = (
        Step(
            "Cylinder level in a vice, clear of paint; filter out of the neck.",
            "Bubbles sit where it is high.",
            "remove",
            thing="filter",
        ),
        Step(
            "Loop a tube from each outlet back under the fluid; a third port plugged.",
            "An end in the air draws air.",
            "fit",
            thing="loops",
        ),
        Step("Fill half.", "Strokes throw a full reservoir over the bench.", "top-up"),
        Step(
            "20 to 30 full slow strokes until no bubbles come.",
            "Short ones move the air to and fro.",
            "stroke",
            record=Reading("strokes"),
        ),
        Step(
            "Let it stand; one last long stroke.",
            "Small bubbles need time.",
            "stroke",
            record=Reading("bubbles"),
        ),
        Step(
            "Take the loops off and cap each outlet until its line is fitted.",
            "It runs empty without.",
            "remove",
            thing="loops",
        ),
        Step("Filter back into the neck.", "Dirt shuts a port.", "fit", thing="filter"),
    )
    return Procedure(
        "bench-bleed",
        tools=("vice", "tubes with fittings", "caps", "fresh fluid"),
        cautions=CAUTIONS[:1],
        steps=steps,
    )


def bleed_at_cylinder(facts: Facts) -> Procedure:
    """Return how a dry cylinder is bled on the car, instead of on the bench.

    facts: of the build [object]. Source: common practice.
    """
    rounds: list[Step] = []
    outlets = ("front cylinder's", "rear cylinder's") if facts.bar else ("cylinder's",)
    for outlet in outlets:
        lines = f"{outlet} lines"
        rounds += [
            Step("Press slowly and hold; call it.", "They are cracked onto pressure.", "hold"),
            Step(f"Crack the {lines}, rags under them.", "The air at the outlets goes first.",
                 "loosen", thing=lines),
            Step("Let the pedal go down, and hold it there.", "It must not come up while a line "
                 "is open.", "stroke", record=Reading("strokes")),
            Step(f"Tighten the {lines} before the foot comes up.", "It would draw air.",
                 "tighten", thing=lines),
            Step("Let the pedal come up slowly; again until no bubbles come.",
                 "The cylinder fills through its ports.", "release"),
        ]  # fmt: skip
    steps = (
        Step("Cover what is under the cylinder; fill the reservoir to the mark.",
             "Fluid eats paint.", "top-up"),
        *rounds,
        Step("Flush what was spilled with water; then bleed every wheel.",
             "What is left goes to the wheels.", "check", record=OK),
    )  # fmt: skip
    return Procedure(
        "bleed-at-cylinder", people=2, tools=("flare-nut wrench", "rags and water", "fresh fluid"),
        cautions=CAUTIONS, steps=steps,
    )  # fmt: skip


LEFT: dict[Axle, tuple[Wheel]] = {Axle.FRONT: ("front-left",), Axle.REAR: ("rear-left",)}


def reset_switch(facts: Facts) -> Procedure:
    """Return how the warning switch's shuttle is brought back; facts: of the build [object].

    Source: common practice.
    """
    if not facts.shuttle:
        return Procedure("reset-switch", refused_because="no warning switch is in the lines")
    steps: list[Step] = []
    for stuck, other in ((Axle.REAR, Axle.FRONT), (Axle.FRONT, Axle.REAR)):
        wheel = LEFT[other]
        steps += [
            Step(
                f"Where the {stuck} is shut off: press five or six times, and hold the last.",
                "The shuttle needs a push from the side it went to.",
                "hold",
            ),
            Step(
                f"Open a {other} screw for a few seconds, its hose under fluid.",
                "Pressure on one side alone moves it back.",
                "open",
                wheel,
                thing="bleed screw",
            ),
            Step(
                f"Shut the {other} screw.",
                "Before the foot comes up.",
                "close",
                wheel,
                thing="bleed screw",
            ),
            Step(
                "Let the pedal come up; two or three rounds, until the lamp is out.",
                "It goes over by small steps.",
                "release",
                record=Reading("lamp"),
            ),
        ]
    steps.append(Step("Bleed again.", "A screw was open.", "check", record=OK))
    return Procedure(
        "reset-switch",
        people=2,
        tools=("hose and bottle", "spanner"),
        cautions=CAUTIONS,
        steps=tuple(steps),
    )
