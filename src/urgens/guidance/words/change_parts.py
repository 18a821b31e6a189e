"""Which change did it, in words and in the units shown."""

from collections.abc import Iterator
from dataclasses import dataclass

from urgens.quantity import FORCE, LENGTH, QuantityKind, Units, UnitSystem, show, written
from urgens.studies.attribution import CHANCE, Attribution, ChangePart

MINUS = "−"
NAMES = {
    "margin": "margin behind the front",
    "effort": "foot for the wanted deceleration",
    "travel": "pedal then",
    CHANCE: "rear first, of 100 such builds",
}
_KINDS: dict[str, QuantityKind | None] = {
    "margin": None, "effort": FORCE, "travel": LENGTH, CHANCE: None,
}  # fmt: skip
PERCENT = 100.0
NO_VALUE = "no value"


@dataclass(frozen=True)
class WaterfallRow:
    """One row: what it is called, the value or part [SI], that in words, its error, its day."""

    what: str
    value: float | None
    words: str
    error: str = ""
    when: str = ""


def figure_words(name: str, value: float | None, units: Units | UnitSystem) -> str:
    """Return a figure of a build; name: of `NAMES` [text]; value: [SI], None where it has none."""
    if value is None:
        return NO_VALUE
    kind = _KINDS[name]
    if kind is not None:
        return str(show(value, kind, units))
    if name == CHANCE:
        return f"{written(PERCENT * value, 1)} of 100"
    return f"{written(PERCENT * value, 1)} %"


def part_words(name: str, part: float | None, units: Units | UnitSystem) -> str:
    """Return a change's part with its sign; name: of `NAMES` [text]; part: [SI]."""
    if part is None:
        return NO_VALUE
    words = figure_words(name, abs(part), units)
    if float(words.split()[0].replace(",", "")) == 0.0:
        return words
    return f"{MINUS if part < 0.0 else '+'}{words}"


def rows(
    found: Attribution, name: str, units: Units | UnitSystem, ends: tuple[str, str]
) -> Iterator[WaterfallRow]:
    """Yield a waterfall of one figure: where it began, each change's part, where it ended.

    name: of `NAMES` [text]; ends: what the builds are called [text].
    """
    first, last = found.before[name], found.after[name]
    yield WaterfallRow(ends[0], first, figure_words(name, first, units))
    for one in found.changes:
        part = one.parts[name]
        error = "" if found.exact else f"± {figure_words(name, 2.0 * one.errors[name], units)}"
        at = one.change.at
        when = "" if at is None else f"{at.day} {at:%b %Y}"
        yield WaterfallRow(one.change.what, part, part_words(name, part, units), error, when)
    yield WaterfallRow(ends[1], last, figure_words(name, last, units))


def claim(found: Attribution, name: str, units: Units | UnitSystem) -> str:
    """Return what it comes to in a sentence; name: of `NAMES` [text]."""
    if not found.changes:
        return "No figure differs."
    if name in found.missing:
        return f"Parts of the {NAMES[name]} cannot be told: it has no value {found.missing[name]}."
    crossed = "" if found.crossed is None else _told(found.changes[found.crossed])
    if name == "margin" and crossed:
        after = found.after["margin"]
        behind = after is not None and after < 0.0
        way = "put the rear first on some load and road" if behind else "put the front first"
        return f"{crossed}: that {way}."
    most = max(found.changes, key=lambda one: abs(one.parts[name] or 0.0))
    part = most.parts[name]
    if part is None or part_words(name, part, units)[0] not in f"+{MINUS}":
        return f"None of the changes moves the {NAMES[name]}."
    by = part_words(name, part, units)
    return f"Most of it is one change: {_told(most)}, {by}."


def _told(one: ChangePart) -> str:
    """Return a change with its day."""
    at = one.change.at
    return one.change.what if at is None else f"{one.change.what}, {at.day} {at:%b %Y}"
