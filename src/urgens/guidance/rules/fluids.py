"""Brake fluids: what may go on top of what, and when one is old."""

from dataclasses import dataclass
from datetime import date

from urgens.document import Build
from urgens.document.tables import fluid_table
from urgens.guidance.thresholds import FLUID_YEARS

SILICONE = "DOT 5"
# What may top up what, not the other way down where the wet boiling point matters; common practice.
TOPS_UP = {
    "DOT 3": ("DOT 3", "DOT 4", "DOT 5.1"), "DOT 4": ("DOT 4", "DOT 5.1"),
    "DOT 5.1": ("DOT 5.1",), SILICONE: (SILICONE,),
}  # fmt: skip
MIXES = ("DOT 3", "DOT 4", "DOT 5.1")
CAUTION = (
    "Brake fluid blinds and eats paint: eyes covered, what is spilled is flushed with water at "
    "once. A bottle that was opened long ago has drawn water: it is not used, and goes where old "
    "fluid goes."
)


def may_top_up(there: str, new: str) -> str:
    """Return what comes of putting one class on top of another, in words.

    there: what is in the system [text]; new: what is poured in [text].
    Source: common practice: silicone and glycol never, a lower class takes the boiling point down.
    """
    if there == new:
        return "the same"
    if SILICONE in (there, new):
        return "never: silicone and glycol do not mix"
    if new in TOPS_UP[there]:
        return "may top it up"
    if there in MIXES and new in MIXES:
        return "mixes, and takes the boiling point down"
    return "not known"


@dataclass(frozen=True)
class FluidRow:
    """One class: least boiling points, dry and wet [°C], and what comes of topping up with it."""

    name: str
    dry: str
    wet: str
    top_up: str


def fluid_rows(build: Build) -> tuple[FluidRow, ...]:
    """Return the classes beside what is in a build.

    Source: FMVSS 116 (49 CFR 571.116), from memory; mixing: common practice.
    """
    there = None if build.fluid is None else build.fluid.grade
    return tuple(
        FluidRow(
            name, fluid.dry.text, fluid.wet.text, "" if there is None else may_top_up(there, name)
        )
        for name, fluid in fluid_table().fluids.items()
    )


def age_words(build: Build, today: date) -> str:
    """Return how old the fluid is and what that means.

    today: the day.
    Source: common practice: two years.
    """
    fluid = build.fluid
    if fluid is None:
        return "Which fluid is in it is not told: Measure, Facts."
    if fluid.filled is None:
        return f"{fluid.grade}; when it was filled is not told: Measure, Facts."
    days = (today - fluid.filled).days
    if days < 0:
        return f"{fluid.grade}, filled on {fluid.filled}: that day is still to come."
    months = days // 30
    age = f"{fluid.grade}, filled on {fluid.filled}, {months} months ago"
    if days > FLUID_YEARS * 365:
        return f"{age}: old, count with the wet boiling point and renew it."
    return f"{age}: renew it within {FLUID_YEARS} years."
