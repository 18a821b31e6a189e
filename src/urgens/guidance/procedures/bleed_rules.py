"""What of a layout asks for what when it is bled: rules as data, each step with its reason."""

from collections.abc import Callable, Iterator
from typing import NamedTuple

from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.step import Method, ProcedureStep, StepReading

When = Callable[[Facts, Method], bool]
FOOT = ("pedal", "open-stroke")
CHECKED = "Have what was done looked at by a qualified person; local rules come first."
CAUTIONS = (
    "Brake fluid blinds and eats paint: eyes covered, wings covered, water at hand.",
    "Vehicle on stands, on level ground, wheels chocked; nobody under it while the pedal is "
    "pressed.",
    CHECKED,
)


class Rule(NamedTuple):
    """A step, and the layouts and methods that it is for."""

    when: When
    step: ProcedureStep


class Refusal(NamedTuple):
    """A method, and the layouts that rule it out by this reason."""

    method: Method
    when: Callable[[Facts], bool]
    reason: str


class Tool(NamedTuple):
    """Something to have at hand, and for whom."""

    when: When
    words: str


def _always(facts: Facts, method: Method) -> bool:
    return True


def _foot(facts: Facts, method: Method) -> bool:
    return method in FOOT


def _boosted(facts: Facts, method: Method) -> bool:
    return facts.boosted


def _shuttle(facts: Facts, method: Method) -> bool:
    return facts.shuttle


def _load_sensing(facts: Facts, method: Method) -> bool:
    return facts.load_sensing


def _pushed(facts: Facts, method: Method) -> bool:
    return method == "pressure"


def _metering_pushed(facts: Facts, method: Method) -> bool:
    return method == "pressure" and facts.metering


def _drawn(facts: Facts, method: Method) -> bool:
    return method == "vacuum"


REFUSALS = (
    Refusal(
        "vacuum",
        lambda facts: facts.load_sensing,
        "a load-sensing valve shuts while its axle hangs and nothing presses: vacuum draws "
        "nothing through it; bleed with the pedal or with pressure",
    ),
    Refusal(
        "gravity",
        lambda facts: bool(facts.residual),
        "the residual valve of the {axles} circuit holds back what only runs by itself",
    ),
)
TOOLS = (
    Tool(_always, "ring spanner for each screw"),
    Tool(_always, "clear hose and a bottle for each open screw"),
    Tool(_always, "fresh fluid"),
    Tool(_always, "rags and water"),
    Tool(_foot, "block under the pedal"),
    Tool(_pushed, "pressure bleeder with the cap that fits"),
    Tool(_metering_pushed, "holder for the metering valve's stem"),
    Tool(_drawn, "vacuum bleeder"),
    Tool(_shuttle, "centring tool for the switch"),
)


def _gone(thing: str) -> ProcedureStep:
    why = "What was fitted comes off again."
    return ProcedureStep(f"Take away the {thing}.", why, "remove", thing=thing)


BEFORE = (
    Rule(
        _always,
        ProcedureStep(
            "Check the bottle: a class that may top up what is in it, and not opened long ago.",
            "Silicone and glycol never mix; glycol draws water from the air, and boils earlier.",
            "check",
            record=StepReading("note"),
        ),
    ),
    Rule(
        _always,
        ProcedureStep(
            "Loosen the reservoir caps and rest them on top.",
            "A sealed bellows pulls a vacuum against the strokes.",
            "loosen",
            thing="caps",
        ),
    ),
    Rule(
        _always,
        ProcedureStep("Fill to the mark.", "It must not run low while anything is open.", "top-up"),
    ),
    Rule(
        _boosted,
        ProcedureStep(
            "Engine off; pump the pedal until it is hard.",
            "With vacuum left the feel is the booster's.",
            "check",
        ),
    ),
    Rule(
        _shuttle,
        ProcedureStep(
            "Fit the centring tool in place of the switch's wire.",
            "The shuttle would run over at the first open screw, and shut one side.",
            "fit",
            thing="centring tool",
        ),
    ),
    Rule(
        _load_sensing,
        ProcedureStep(
            "Bring the rear axle to ride height, or tie the valve's lever up.",
            "At droop the valve is nearly shut, and little comes.",
            "fit",
            thing="load-sensing lever's tie",
        ),
    ),
    Rule(
        _metering_pushed,
        ProcedureStep(
            "Fit the holder on the metering valve's stem.",
            "About 30 psi (2 bar) shut it; nothing reaches the front then.",
            "fit",
            thing="metering holder",
        ),
    ),
    Rule(
        _pushed,
        ProcedureStep(
            "Fit the pressure bleeder, up to 15 psi (1 bar).",
            "More lifts cups and bursts reservoirs.",
            "fit",
            thing="pressure bleeder",
        ),
    ),
    Rule(
        _foot,
        ProcedureStep(
            "Put a block under the pedal.",
            "On a used cylinder the cups must not run into the bore that was never worn.",
            "fit",
            thing="block under the pedal",
        ),
    ),
)
AFTER = (
    Rule(
        _always,
        ProcedureStep(
            "Press hard for 30 s; look at every joint.",
            "A joint that only weeps shows under a held pedal.",
            "check",
            record=StepReading("ok"),
            seconds=30,
        ),
    ),
    Rule(
        _always,
        ProcedureStep(
            "Read the pedal's travel at the usual foot, now; again after an hour and next morning.",
            "Air hides behind a firm pedal, and shows low after hours.",
            "record",
            record=StepReading("travel", "mm"),
        ),
    ),
    Rule(_foot, _gone("block under the pedal")),
    Rule(_pushed, _gone("pressure bleeder")),
    Rule(
        _metering_pushed,
        ProcedureStep(
            "Take the holder off the metering valve.",
            "Forgotten, full pressure can burst its diaphragm.",
            "remove",
            thing="metering holder",
        ),
    ),
    Rule(_load_sensing, _gone("load-sensing lever's tie")),
    Rule(
        _shuttle,
        ProcedureStep(
            "Take the centring tool out, and put the wire back.",
            "Without it the lamp tells of nothing.",
            "remove",
            thing="centring tool",
        ),
    ),
    Rule(
        _always,
        ProcedureStep(
            "Fill to the mark and tighten the caps.",
            "What was loosened is shut again.",
            "tighten",
            thing="caps",
        ),
    ),
)


def steps_of(rules: tuple[Rule, ...], facts: Facts, method: Method) -> Iterator[ProcedureStep]:
    """Yield the steps that a layout and a method ask for.

    rules: in order; method: of bleeding.
    Source: the rules; common practice.
    """
    for rule in rules:
        if rule.when(facts, method):
            yield rule.step
