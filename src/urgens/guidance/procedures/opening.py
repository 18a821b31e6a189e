"""The first cards: eyes and paint covered, the vehicle level, chocked and on stands."""

from collections.abc import Collection, Iterator

from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.step import ProcedureStep

FLUID, STANDS = "fluid", "stands"  # the cautions that are steps
COVER = "cover"


def is_opening(step: ProcedureStep) -> bool:
    """Return whether a step is one of the first cards; step: of a procedure."""
    return step.action == "check" and step.thing in (COVER, STANDS)


def opening(cautions: Collection[str], facts: Facts) -> Iterator[ProcedureStep]:
    """Yield what comes before anything is lifted or opened; cautions: by their names [text].

    facts: of the build. Source: common practice.
    """
    if FLUID in cautions:
        yield ProcedureStep(
            "Cover eyes, and what is painted; water and rags at hand.",
            "Brake fluid blinds, and eats paint.",
            "check",
            thing=COVER,
        )
    if STANDS in cautions:
        where = (
            "stands under the rear axle itself, so that the load-sensing valve sits as on the road"
            if facts.load_sensing
            else "stands under it where it is not to move"
        )
        yield ProcedureStep(
            f"Level ground; chock the wheels that stay down; {where}; shake it before anybody "
            "goes near.",
            "Nobody is under it while the pedal is pressed.",
            "check",
            thing=STANDS,
        )
