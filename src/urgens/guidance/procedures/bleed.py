"""Bleeding by each method, made for one layout: pairs with a bar, farthest first elsewhere."""

from collections.abc import Iterator
from typing import Literal

from urgens.guidance.procedures.facts import Facts, both, said
from urgens.guidance.procedures.step import Procedure, Reading, Step, Wheel
from urgens.physics.axle import Axle

Method = Literal["pedal", "open-stroke", "pressure", "gravity", "vacuum"]
METHODS: tuple[Method, ...] = ("pedal", "open-stroke", "pressure", "gravity", "vacuum")
BUBBLES, COLOUR, STROKES = Reading("bubbles"), Reading("colour"), Reading("strokes")
Screw = Literal["", "outer", "inner"]
CHECKED = "Have what was done looked at by a qualified person; local rules come first."
CAUTIONS = (
    "Brake fluid blinds and eats paint: eyes covered, wings covered, water at hand.",
    "Vehicle on stands, on level ground, wheels chocked; nobody under it while the pedal is "
    "pressed.",
    CHECKED,
)
UNDER = (
    "A hose end out of the fluid draws air on the way back: keep it under all the time.",
    "Less than one full turn open makes bubbles too small to leave.",
)


def default_method(facts: Facts) -> Method:
    """Return the method that suits a layout; facts: of the build [object].

    Source: common practice: open strokes with a bar, hold and crack elsewhere.
    """
    return "open-stroke" if facts.bar else "pedal"


def refusal(facts: Facts, method: Method) -> str | None:
    """Return why a layout rules a method out, None where it does not.

    facts: of the build [object]; method: of bleeding.
    Source: common practice.
    """
    if method == "vacuum" and facts.load_sensing:
        return (
            "a load-sensing valve shuts while its axle hangs and nothing presses: vacuum draws "
            "nothing through it; bleed with the pedal or with pressure"
        )
    if method == "gravity" and facts.residual:
        axles = " and ".join(facts.residual)
        return f"the residual valve of the {axles} circuit holds back what only runs by itself"
    return None


def bleed(facts: Facts, method: Method | None = None) -> Procedure:
    """Return how a build is bled; facts: of it [object]; method: its default where None.

    Source: common practice.
    """
    method = method or default_method(facts)
    refused = refusal(facts, method)
    if refused is not None:
        return Procedure("bleed", method, refused_because=refused)
    steps = (*_before(facts, method), *_wheels(facts, method), *_after(facts, method))
    return Procedure(
        "bleed",
        method,
        people=_people(facts, method),
        tools=_tools(facts, method),
        cautions=(*CAUTIONS, *UNDER),
        steps=steps,
    )


def _people(facts: Facts, method: Method) -> int:
    if method in ("pressure", "gravity", "vacuum"):
        return 2 if facts.bar else 1
    return 3 if facts.bar else 2


def _tools(facts: Facts, method: Method) -> tuple[str, ...]:
    found = [
        "ring spanner for each screw",
        "clear hose and a bottle for each open screw",
        "fresh fluid",
        "rags and water",
    ]
    if method in ("pedal", "open-stroke"):
        found.append("block under the pedal")
    if method == "pressure":
        found.append("pressure bleeder with the cap that fits")
        if facts.metering:
            found.append("holder for the metering valve's stem")
    if method == "vacuum":
        found.append("vacuum bleeder")
    if facts.shuttle:
        found.append("centring tool for the switch")
    return tuple(found)


def _before(facts: Facts, method: Method) -> Iterator[Step]:
    yield Step(
        "Check the bottle: class, and not opened long ago.",
        "Fluid draws water from the air, and boils earlier then.",
        "check",
        record=Reading("note"),
    )
    yield Step(
        "Loosen the reservoir caps and rest them on top.",
        "A sealed bellows pulls a vacuum against the strokes.",
        "loosen",
        thing="caps",
    )
    yield Step("Fill to the mark.", "It must not run low while anything is open.", "top-up")
    if facts.boosted:
        yield Step(
            "Engine off; pump the pedal until it is hard.",
            "With vacuum left the feel is the booster's.",
            "check",
        )
    if facts.shuttle:
        yield Step(
            "Fit the centring tool in place of the switch's wire.",
            "The shuttle would run over at the first open screw, and shut one side.",
            "fit",
            thing="centring tool",
        )
    if facts.load_sensing:
        yield Step(
            "Bring the rear axle to ride height, or tie the valve's lever up.",
            "At droop the valve is nearly shut, and little comes.",
            "fit",
            thing="load-sensing lever's tie",
        )
    if method == "pressure":
        if facts.metering:
            yield Step(
                "Fit the holder on the metering valve's stem.",
                "About 30 psi (2 bar) shut it; nothing reaches the front then.",
                "fit",
                thing="metering holder",
            )
        yield Step(
            "Fit the pressure bleeder, up to 15 psi (1 bar).",
            "More lifts cups and bursts reservoirs.",
            "fit",
            thing="pressure bleeder",
        )
    if method in ("pedal", "open-stroke"):
        yield Step(
            "Put a block under the pedal.",
            "On a used cylinder the cups must not run into the bore that was never worn.",
            "fit",
            thing="block under the pedal",
        )


def _dead_ends(facts: Facts) -> Iterator[Step]:
    """Yield how air is let out where nothing flows through: at a gauge, a sensor, a plug."""
    for name in facts.dead_ends:
        joint = f"joint of {name}"
        yield Step("Press and hold.", "What is let out is pushed out.", "hold")
        yield Step(
            f"Crack the joint of {name} until no bubbles come; a rag under it.",
            "Nothing flows through a dead end: its air stays there.",
            "loosen",
            thing=joint,
        )
        yield Step(f"Tighten the joint of {name}.", "The foot is still down.", "tighten",
                   thing=joint)  # fmt: skip
        yield Step("Let the pedal come up.", "The joint is tight.", "release")


def _after(facts: Facts, method: Method) -> Iterator[Step]:
    yield from _dead_ends(facts)
    yield Step(
        "Press hard for 30 s; look at every joint.",
        "A joint that only weeps shows under a held pedal.",
        "check",
        record=Reading("ok"),
        seconds=30,
    )
    yield Step(
        "Read the pedal's travel at the usual foot, now; again after an hour and next morning.",
        "Air hides behind a firm pedal, and shows low after hours.",
        "record",
        record=Reading("travel", "mm"),
    )
    if method in ("pedal", "open-stroke"):
        yield _gone("block under the pedal")
    if method == "pressure":
        yield _gone("pressure bleeder")
        if facts.metering:
            yield Step(
                "Take the holder off the metering valve.",
                "Forgotten, full pressure can burst its diaphragm.",
                "remove",
                thing="metering holder",
            )
    if facts.load_sensing:
        yield _gone("load-sensing lever's tie")
    if facts.shuttle:
        yield Step(
            "Take the centring tool out, and put the wire back.",
            "Without it the lamp tells of nothing.",
            "remove",
            thing="centring tool",
        )
    yield Step(
        "Fill to the mark and tighten the caps.",
        "What was loosened is shut again.",
        "tighten",
        thing="caps",
    )


def _gone(thing: str) -> Step:
    why = "What was fitted comes off again."
    return Step(f"Take away the {thing}.", why, "remove", thing=thing)


# --- wheels ------------------------------------------------------------------------------------


def _wheels(facts: Facts, method: Method) -> Iterator[Step]:
    for index, wheels in enumerate(facts.groups):
        for screws in _rounds(facts, wheels):
            yield from _round(facts, method, wheels, screws)
        if index + 1 < len(facts.groups):
            yield Step(
                "Top up the reservoir.",
                "A dry one means the cylinder again, then every wheel.",
                "top-up",
            )


def _rounds(facts: Facts, wheels: tuple[Wheel, ...]) -> Iterator[tuple[Screw, ...]]:
    """Yield which screw of each wheel is open in each round: outer first, single ones each time."""
    counts = [facts.screws(Axle(wheel.partition("-")[0])) for wheel in wheels]
    single: Screw = ""
    if max(counts) == 1:
        yield tuple(single for _ in wheels)
        return
    names: tuple[Screw, ...] = ("outer", "inner")
    for screw in names:
        yield tuple(screw if count > 1 else single for count in counts)


def _round(
    facts: Facts, method: Method, wheels: tuple[Wheel, ...], screws: tuple[Screw, ...]
) -> Iterator[Step]:
    """Yield one round of one wheel, or of a pair that is open together."""
    place = both(wheels)
    yield Step(
        f"Put a hose on the screw of {place}; its end under clean fluid in a bottle of its own.",
        UNDER[0],
        "fit",
        wheels,
        thing="hose and bottle",
    )
    rounds = {"pedal": _cracked, "open-stroke": _stroked}.get(method, _flowing)
    yield from rounds(method, wheels, screws)
    yield Step(
        f"Note bubbles and colour of {place}.",
        "What comes tells what is left in.",
        "record",
        wheels,
        BUBBLES,
    )
    yield Step(
        f"Take hose and bottle off {place}; cap the screw.",
        "Dirt in the screw is in the line next time.",
        "remove",
        wheels,
        thing="hose and bottle",
    )


def _screw(
    action: Literal["open", "close"],
    wheels: tuple[Wheel, ...],
    screws: tuple[Screw, ...],
    text: str,
    why: str,
) -> Iterator[Step]:
    """Yield opening or closing of each wheel's screw, one step each, so that none is forgotten."""
    for wheel, screw in zip(wheels, screws, strict=True):
        which = f"the {screw} screw" if screw else "the screw"
        words = text.format(screw=which, wheel=said(wheel))
        yield Step(words, why, action, (wheel,), thing="bleed screw", screw=screw)


def _cracked(
    method: Method, wheels: tuple[Wheel, ...], screws: tuple[Screw, ...]
) -> Iterator[Step]:
    """Yield hold and crack: a screw is open only while the foot goes down."""
    yield Step(
        "Press slowly and hold; call it.", "The screw is opened onto pressure.", "hold", wheels
    )
    yield from _screw("open", wheels, screws, "Open {screw} of {wheel} one full turn.", UNDER[1])
    yield Step(
        f"{both(wheels).capitalize()}: let the pedal go down, and hold it there.",
        "It must not come up while a screw is open.",
        "stroke",
        wheels,
        STROKES,
    )
    yield from _screw(
        "close",
        wheels,
        screws,
        "Shut {screw} of {wheel} before the foot comes up.",
        "On the way back it would draw air.",
    )
    yield Step(
        "Let the pedal come up slowly; again until five strokes run clear.",
        "The cylinder fills through its ports.",
        "release",
        wheels,
    )


def _stroked(
    method: Method, wheels: tuple[Wheel, ...], screws: tuple[Screw, ...]
) -> Iterator[Step]:
    """Yield open strokes: the screws stay open down and back, hose ends under fluid."""
    yield Step(f"Look at {both(wheels)}: hose ends under fluid.", UNDER[0], "check", wheels)
    yield from _screw("open", wheels, screws, "Open {screw} of {wheel} one full turn.", UNDER[1])
    yield Step(
        f"{both(wheels).capitalize()}: full slow strokes, down and back, until clear.",
        "Both stay open, so that a bar stays square.",
        "stroke",
        wheels,
        STROKES,
    )
    yield Step(
        "Hold the pedal down and pinch the hose.",
        "Nothing is drawn back while it is shut.",
        "hold",
        wheels,
    )
    yield from _screw(
        "close", wheels, screws, "Shut {screw} of {wheel}.", "The foot is still down."
    )
    yield Step("Let the pedal come up.", "All screws are shut.", "release", wheels)


def _flowing(
    method: Method, wheels: tuple[Wheel, ...], screws: tuple[Screw, ...]
) -> Iterator[Step]:
    """Yield what flows without a foot: pushed, drawn, or by itself."""
    yield from _screw("open", wheels, screws, "Open {screw} of {wheel} one full turn.", UNDER[1])
    how = {
        "pressure": "Let it be pushed through until it runs clear.",
        "vacuum": "Draw until it runs clear; bubbles past the thread of the screw do not count.",
        "gravity": "Let it run until it is clear; the higher the reservoir, the faster.",
    }[method]
    yield Step(
        how,
        "The old fluid and the air go out ahead of the new.",
        "look",
        wheels,
        Reading("amount", "ml"),
    )
    yield from _screw("close", wheels, screws, "Shut {screw} of {wheel}.", "While it still flows.")
