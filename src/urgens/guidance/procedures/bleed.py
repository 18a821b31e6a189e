"""Bleeding by each method, made for one layout: pairs with a bar, farthest first elsewhere."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from urgens.guidance.procedures.facts import Facts, both, said
from urgens.guidance.procedures.making import maker
from urgens.guidance.procedures.records import CAUTIONS, records
from urgens.guidance.procedures.step import (
    Method,
    Procedure,
    ProcedureStep,
    Screw,
    StepReading,
    Wheel,
)
from urgens.physics.axle import Axle

BUBBLES = StepReading("bubbles")
STROKES = StepReading("strokes")
UNDER = CAUTIONS["hose-end"]
FULL_TURN = CAUTIONS["full-turn"]


def refusal(facts: Facts) -> str | None:
    """Return why a layout rules its method out, None where it does not.

    Source: common practice.
    """
    if facts.by == "vacuum" and facts.load_sensing:
        return (
            "a load-sensing valve shuts while its axle hangs and nothing presses: vacuum draws "
            "nothing through it; bleed with the pedal or with pressure"
        )
    if facts.by == "gravity" and facts.residual:
        axles = " and ".join(facts.residual)
        return f"the residual valve of the {axles} circuit holds back what only runs by itself"
    return None


@maker("bleed")
def bleed(facts: Facts) -> Procedure:
    """Return how a build is bled; facts: of it, and the method, its default where None.

    Source: common practice.
    """
    refused = refusal(facts)
    if refused is not None:
        return Procedure("bleed", facts.by, refused_because=refused)
    made = records()["bleed"].made(facts)
    before, after = made.steps, records()["bleed"].steps_for(facts, after=True)
    steps = (*before[: len(before) - len(after)], *_wheels(facts, facts.by), *after)
    steps = _with_dead_ends(facts, steps)
    by_pairs = (CAUTIONS["order"],) if facts.bar else ()
    cautions = (*_cut_off(facts), *(one for one in made.cautions if one not in by_pairs))
    return replace(
        made, method=facts.by, steps=steps, people=_people(facts, facts.by), cautions=cautions
    )


def _cut_off(facts: Facts) -> Iterator[str]:
    """Yield what the layout leaves open: nothing comes at a wheel that nothing is joined to."""
    if facts.cut_off:
        wheels = ", ".join(map(said, facts.cut_off))
        yield (
            f"Nothing in the layout joins {wheels} to an outlet of the cylinder: look in Plumb "
            "whether a line is missing before fluid is poured."
        )


def _people(facts: Facts, method: Method) -> int:
    if method in ("pressure", "gravity", "vacuum") and not facts.dead_ends:
        return 2 if facts.bar else 1
    return 3 if facts.bar else 2


def _with_dead_ends(facts: Facts, steps: tuple[ProcedureStep, ...]) -> tuple[ProcedureStep, ...]:
    """Return the steps with the dead ends let out once nothing is fitted that a foot would burst.

    Before the reservoir is filled for the last time: a crack costs fluid.
    """
    last = max(n for n, step in enumerate(steps) if step.action == "top-up")
    return (*steps[:last], *_dead_ends(facts), *steps[last:])


def _dead_ends(facts: Facts) -> Iterator[ProcedureStep]:
    """Yield how air is let out where nothing flows through: at a gauge, a sensor, a plug."""
    for end in facts.dead_ends:
        yield ProcedureStep(
            "Press slowly and hold; call it.", f"Air at {end.name} is pushed out.", "hold",
            thing=end.thing,
        )  # fmt: skip
        yield ProcedureStep(
            f"Crack {end.joint}, in a rag, until no bubbles come.",
            f"Nothing flows through {end.name}: its air stays there. A taper thread is never "
            "cracked: it would not seal again.",
            "loosen",
            thing=end.thing,
        )
        yield ProcedureStep(
            f"Tighten {end.joint}.", "The foot is still down.", "tighten", thing=end.thing
        )
        yield ProcedureStep("Let the pedal come up.", "The joint is tight.", "release")


# --- wheels ------------------------------------------------------------------------------------


def _wheels(facts: Facts, method: Method) -> Iterator[ProcedureStep]:
    for index, wheels in enumerate(facts.groups):
        for screws in _rounds(facts, wheels):
            yield from _round(facts, method, wheels, screws)
        if index + 1 < len(facts.groups) and method != "pressure":
            yield ProcedureStep(
                "Fill to the mark.",
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
) -> Iterator[ProcedureStep]:
    """Yield one round of one wheel, or of a pair that is open together."""
    place = both(wheels)
    yield ProcedureStep(
        f"Put a hose on the screw of {place}; its end under clean fluid in a bottle of its own.",
        UNDER,
        "fit",
        wheels,
        thing="hose and bottle",
    )
    rounds = {"pedal": _cracked, "open-stroke": _stroked}.get(method, _flowing)
    yield from rounds(method, wheels, screws)
    yield ProcedureStep(
        f"Note bubbles and colour of {place}.",
        "What comes tells what is left in.",
        "record",
        wheels,
        BUBBLES,
    )
    yield ProcedureStep(
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
) -> Iterator[ProcedureStep]:
    """Yield opening or closing of each wheel's screw, one step each, so that none is forgotten."""
    for wheel, screw in zip(wheels, screws, strict=True):
        which = f"the {screw} screw" if screw else "the screw"
        words = text.format(screw=which, wheel=said(wheel))
        yield ProcedureStep(words, why, action, (wheel,), thing="bleed screw", screw=screw)


def _cracked(
    method: Method, wheels: tuple[Wheel, ...], screws: tuple[Screw, ...]
) -> Iterator[ProcedureStep]:
    """Yield hold and crack: a screw is open only while the foot goes down."""
    yield ProcedureStep(
        "Press slowly and hold; call it.",
        "The screw is opened onto pressure.",
        "hold",
        wheels,
        loop="begin",
    )
    yield from _screw("open", wheels, screws, "Open {screw} of {wheel} one full turn.", FULL_TURN)
    yield ProcedureStep(
        f"{both(wheels).capitalize()}: let the pedal go down, and hold it there.",
        "It must not come up while a screw is open.",
        "stroke",
        wheels,
        STROKES,
        press="down",
    )
    yield from _screw(
        "close",
        wheels,
        screws,
        "Shut {screw} of {wheel} before the foot comes up.",
        "On the way back it would draw air.",
    )
    yield ProcedureStep(
        "Let the pedal come up slowly; once more until five strokes run clear.",
        "The cylinder fills through its ports.",
        "release",
        wheels,
        loop="end",
    )


def _stroked(
    method: Method, wheels: tuple[Wheel, ...], screws: tuple[Screw, ...]
) -> Iterator[ProcedureStep]:
    """Yield open strokes: the screws stay open down and back, hose ends under fluid."""
    yield ProcedureStep(f"Look at {both(wheels)}: hose ends under fluid.", UNDER, "check", wheels)
    yield from _screw("open", wheels, screws, "Open {screw} of {wheel} one full turn.", FULL_TURN)
    yield ProcedureStep(
        f"{both(wheels).capitalize()}: full slow strokes, down and back, until clear.",
        "Both stay open, so that a bar stays square.",
        "stroke",
        wheels,
        STROKES,
        press="full",
    )
    yield ProcedureStep(
        "Hold the pedal down and pinch the hose.",
        "Nothing is drawn back while it is shut.",
        "hold",
        wheels,
    )
    yield from _screw(
        "close", wheels, screws, "Shut {screw} of {wheel}.", "The foot is still down."
    )
    yield ProcedureStep("Let the pedal come up.", "All screws are shut.", "release", wheels)


def _flowing(
    method: Method, wheels: tuple[Wheel, ...], screws: tuple[Screw, ...]
) -> Iterator[ProcedureStep]:
    """Yield what flows without a foot: pushed, drawn, or by itself."""
    yield from _screw("open", wheels, screws, "Open {screw} of {wheel} one full turn.", FULL_TURN)
    how = {
        "pressure": "Let it be pushed through until it runs clear.",
        "vacuum": "Draw until it runs clear; bubbles past the thread of the screw do not count.",
        "gravity": "Let it run until it is clear; the higher the reservoir, the faster.",
    }[method]
    yield ProcedureStep(
        how,
        "The old fluid and the air go out ahead of the new.",
        "look",
        wheels,
        StepReading("amount", "ml"),
    )
    yield from _screw("close", wheels, screws, "Shut {screw} of {wheel}.", "While it still flows.")
