"""Cards of wished systems: a few unlike each other, and what each gives and gives up."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from urgens.document import Build, BuildChange, with_changes
from urgens.document.catalogue import is_figure
from urgens.document.facts import given
from urgens.guidance.advice.brought import Brought, brought
from urgens.guidance.advice.conversions import with_layout
from urgens.guidance.rules.finding import Finding
from urgens.guidance.rules.registry import findings
from urgens.quantity import FORCE, LENGTH, PRESSURE, Units, UnitSystem, parse, show, written
from urgens.solve import solve
from urgens.studies.wishes.combinations import WishedSystem
from urgens.studies.wishes.relaxing import NEARLY, Progress, Relaxed, WishAnswer, sure
from urgens.studies.wishes.survey import short
from urgens.studies.wishes.systems import asked
from urgens.studies.wishes.wanted import KINDS, Wishes, with_wishes

CARDS = 5
NAMES: Mapping[str, str] = {
    "effort": "foot for the wanted deceleration", "deceleration": "wanted deceleration",
    "travel": "pedal then", "floor": "pedal left above the floor",
    "half-lost": "left with the worse half lost", "unboosted": "left without the booster",
    "rear-first-chance": "chance of the rear first", "hold": "foot that holds at the line",
    "pressure": "pressure at the comfortable foot", "stroke": "stroke kept in reserve",
    "ratio": "pedal ratio for the booster, or for none", "front-first": "front first on every road",
}  # fmt: skip
_PRESSURE = re.compile(r"[\d.]+ (?:psi|bar)")
TARGETS = "targets."  # are wishes, and no part
FIRST_SHOWN = (4, 0, 1, 3, 2)  # criteria whose best has a card: parts, foot, pedal, margin, chance
NOTABLE = (0.5, 0.0005, 0.0005, 0.005, 0.5)  # of each criterion: less is not told, as it reads 0
# Of each criterion: what the least of it is called.
_BEST = ("lightest foot", "shortest pedal", "surest", "largest margin", "fewest parts")


@dataclass(frozen=True)
class WishCard:
    """One system to choose: what it gives, and what it gives up beside the other cards."""

    system: WishedSystem
    gives: str
    gives_up: str


@dataclass(frozen=True)
class Offer:
    """A few cards, and what was refused on a closer look, with the reason, the evenest first."""

    cards: tuple[WishCard, ...]
    refused: tuple[tuple[WishedSystem, str], ...] = ()


def figure_words(name: str, value: float | None, units: Units | UnitSystem) -> str:
    """Return a figure of a wish as it is read; name: of `NAMES` [text]; value: [SI], None: none."""
    if value is None or not np.isfinite(value):
        return "none"
    kind = KINDS.get(name)
    if kind is not None:
        return str(show(value, kind, units))
    if name == "rear-first-chance":
        return f"{written(100.0 * value, 1)} of 100"
    return f"{written(value, 2)} g"


def system_words(system: WishedSystem, units: Units | UnitSystem) -> str:
    """Return what a system is called: bores as they are sold, pressures in the units shown.

    system: of a search. Source: by definition.
    """
    return _PRESSURE.sub(
        lambda found: str(show(parse(found[0], PRESSURE).value, PRESSURE, units)), system.words
    )


def bought_words(system: WishedSystem) -> str:
    """Return how many parts are bought for a system, and what they cost where that is known.

    system: of a search. Source: by definition.
    """
    parts = f"{system.parts} {'part' if system.parts == 1 else 'parts'} to buy"
    if system.cost is None or not system.parts:
        return parts
    hours = f", {written(system.cost.hours, 1)} h" if system.cost.hours else ""
    return f"{parts} for {written(system.cost.price, 2)}{hours}"


def chosen(systems: Sequence[WishedSystem], most: int = CARDS) -> list[WishedSystem]:
    """Return a few systems unlike each other, the evenest first; most: how many [-].

    systems: none of which another beats. The evenest is nearest to the best of everything; then
    come the best of each criterion, then what is farthest from those before it. Source: by
    definition.
    """
    if not systems:
        return []
    table = np.array([one.criteria for one in systems])
    low, span = table.min(axis=0), np.ptp(table, axis=0)
    scaled = (table - low) / np.where(span > 0.0, span, 1.0)
    picked = [int(np.argmin(np.linalg.norm(scaled, axis=1)))]
    for criterion in FIRST_SHOWN:
        ties = np.lexsort((np.linalg.norm(scaled, axis=1), scaled[:, criterion]))
        if span[criterion] > 0.0 and int(ties[0]) not in picked and len(picked) < most:
            picked.append(int(ties[0]))
    while len(picked) < min(most, len(systems)):
        apart = np.min([np.linalg.norm(scaled - scaled[one], axis=1) for one in picked], axis=0)
        following = int(np.argmax(apart))
        if apart[following] <= 0.0:
            break
        picked.append(following)
    return [systems[one] for one in picked]


def cards(systems: Sequence[WishedSystem], units: Units | UnitSystem) -> list[WishCard]:
    """Return what each of a few systems gives and gives up beside the others; systems: of them."""
    return [WishCard(one, _gives(one, systems), _gives_up(one, systems, units)) for one in systems]


def _gives(one: WishedSystem, systems: Sequence[WishedSystem]) -> str:
    table = np.array([each.criteria for each in systems])
    own = np.array(one.criteria)
    best = [name for name, least, mine, most in
            zip(_BEST, table.min(axis=0), own, table.max(axis=0), strict=True)
            if mine <= least + 1e-9 and most > least + 1e-9]  # fmt: skip
    return f"{', '.join(best)} of these" if best else "between the others in everything"


def _gives_up(one: WishedSystem, systems: Sequence[WishedSystem], units: Units | UnitSystem) -> str:
    """Return what a system gives up most beside the best of the others."""
    table = np.array([each.criteria for each in systems])
    low, span = table.min(axis=0), np.ptp(table, axis=0)
    more = np.array(one.criteria) - low
    share = np.where(span > 1e-9, more / np.where(span > 0.0, span, 1.0), 0.0)
    most = (int(at) for at in np.argsort(-share) if share[at] > 0.0)
    words = (_more(at, float(more[at]), units) for at in most if more[at] > NOTABLE[at])
    told = [*words][:2]
    return " and ".join(told) if told else "nothing beside these"


def _more(criterion: int, more: float, units: Units | UnitSystem) -> str:
    if criterion == 0:
        return f"{show(more, FORCE, units)} more foot"
    if criterion == 1:
        return f"{show(more, LENGTH, units)} more pedal"
    if criterion == 2:
        return f"the rear first in {written(100.0 * more, 1)} more of 100"
    if criterion == 3:
        return f"{written(100.0 * more, 0)} % less margin"
    parts = "part" if round(more) == 1 else "parts"
    return f"{more:.0f} more {parts} to buy"


def relax_words(relax: Sequence[Relaxed], units: Units | UnitSystem) -> str:
    """Return what wishes would have to give, in a sentence; relax: the least."""
    told = [
        f"{NAMES[one.want]} {figure_words(one.want, one.end, units)} in place of "
        f"{figure_words(one.want, one.start, units)}"
        for one in relax
    ]
    return "; ".join(told)


def why_not(
    build: Build, wishes: Wishes, typed: Mapping[str, str], units: Units | UnitSystem
) -> str:
    """Return why a part or figure is not among the systems, or that nothing is against it.

    build: as it is; wishes: that are wanted; typed: of what may change, by name of `MAY`; units: of
    the words. Raises BuildErrors where there is no such part.
    """
    one, windows = asked(build, wishes, typed)
    figures = dict(one.figures) | {"rear-first-chance": one.chance or 0.0}
    told = [NAMES[name] for name in windows]
    for name, value in figures.items():
        wish = wishes.of(name)
        if wish is not None and short(name, np.array([value]), wish)[0] > NEARLY:
            got, wanted = (figure_words(name, each, units) for each in (value, wish))
            told.append(f"{NAMES[name]} {got} where {wanted} is wanted")
    told += [new.message.rstrip(".") for new in brings(build, wishes, one).new]
    words = system_words(one, units)
    words = f"{words[:1].upper()}{words[1:]}"
    if not told:
        return f"{words} keeps every wish. Where it is no card, others stand for it, or beat it."
    return f"{words} misses {'; '.join(told)}."


def by_price(systems: list[WishedSystem]) -> list[WishedSystem]:
    """Return systems as they cost, where all of them have a price; else as they are.

    systems: that are shown. Source: by definition.
    """
    costs = [one.cost for one in systems]
    if any(cost is None for cost in costs):
        return systems
    return sorted(systems, key=lambda one: (one.cost.price, one.cost.hours) if one.cost else (0, 0))


def offered(
    build: Build,
    wishes: Wishes,
    systems: Sequence[WishedSystem],
    units: Units | UnitSystem,
    progress: Progress | None = None,
) -> Offer | None:
    """Return the cards of systems that bring nothing bad; None where it was told to stop.

    build: that they change; wishes: that are wanted; systems: none of which another beats; units:
    of the words; progress: told the share done, answers whether to go on [callable].
    How sure each is is drawn in full, as everywhere; what then is less sure than is wanted, or
    raises a warning or danger, is refused.
    """
    left, shown = list(systems), dict[str, WishedSystem]()
    refused: list[tuple[WishedSystem, str]] = []
    before = findings(solve(with_wishes(build, wishes)))
    while True:
        few = chosen(left)
        new = [one for one in few if one.words not in shown]
        if not new:
            told = by_price([shown[one.words] for one in few])
            return Offer(tuple(cards(told, units)), tuple(refused))
        for one in new:
            if progress is not None and not progress(len(shown) / CARDS):
                return None
            found = brings(build, wishes, one, before)
            drawn = one if found.new else sure(build, one)  # which takes longer
            why = _against(drawn, wishes, found, units)
            if why:
                left.remove(one)
                refused.append((one, why))
            else:
                shown[one.words] = drawn


def _against(drawn: WishedSystem, wishes: Wishes, found: Brought, units: Units | UnitSystem) -> str:
    """Return what keeps a system from being a card, empty where nothing does."""
    if found.new:
        return found.words.rstrip(". ")
    if (drawn.chance or 0.0) > wishes.rear_first_chance:
        often = figure_words("rear-first-chance", drawn.chance, units)
        return f"the rear is first in {often}"
    return ""


def brings(
    build: Build,
    wishes: Wishes,
    system: WishedSystem,
    before: tuple[Finding, ...] | None = None,
) -> Brought:
    """Return what a system brings beside the build with the same wishes.

    build: that it changes; wishes: that are wanted; before: what is found of that, where it is
    known. Raises BuildErrors.
    """
    return brought(with_wishes(build, wishes), BuildChange(system.words, system.changes), before)


def as_setup(
    build: Build, system: WishedSystem, under: Mapping[str, Any] | None = None
) -> dict[str, Any]:
    """Return the changes of a set-up that is a system: its layout with it, all figures planned.

    build: that has no such set-up yet; system: of it; under: changes by path of the set-up that
    the system was worked out on, none where it was the build itself. Raises BuildErrors.
    """
    known_before = {path: one for path, one in (under or {}).items() if path.startswith("evidence")}
    changes: dict[str, object] = {
        path: one
        for path, one in {**(under or {}), **system.changes}.items()
        if path not in known_before
    }
    if not changes:
        return {}
    then = with_changes(build, {**changes, "setups": [], "plumbing": None, "evidence": {}})
    told = (path for place, part in changes.items() for path in given(place, part))
    known = {
        f'evidence["{path}"]': {"state": "planned"}
        for path in told
        if not path.startswith(TARGETS) and is_figure(then, path)
    }
    return {**known_before, **with_layout(build, changes), **known}


def wish_words(answer: WishAnswer, offer: Offer, units: Units | UnitSystem) -> Iterator[str]:
    """Yield what came of wishes, a line each; answer: of the search; offer: its cards."""
    for card in offer.cards:
        one = card.system
        yield system_words(one, units)
        yield (
            f"  {figure_words('effort', one.figures['effort'], units)} of foot, "
            f"{figure_words('travel', one.figures['travel'], units)} of pedal, "
            f"margin {written(100.0 * one.margin, 0)} %, rear first "
            f"{figure_words('rear-first-chance', one.chance, units)}, "
            f"{bought_words(one)}"
        )
        yield f"  {card.gives}; gives up {card.gives_up}"
    yield claim(answer, offer, units)


def claim(answer: WishAnswer, offer: Offer, units: Units | UnitSystem) -> str:
    """Return what came of wishes in a sentence; answer: of the search; offer: its cards."""
    tried = f"{answer.tried:,} systems were worked out"
    if offer.cards:
        count = len(answer.systems) - len(offer.refused)
        return (
            f"{tried}; {count} keep every wish, by few draws, and nobody beats them. The cards "
            "keep them drawn in full."
            if count > len(offer.cards)
            else f"{tried}; these keep every wish, drawn in full."
        )
    if offer.refused:
        one, why = offer.refused[0]
        return (
            f"{tried}; none that seemed to keep the wishes does on a closer look. The evenest, "
            f"{system_words(one, units)}: {why}."
        )
    if answer.relax:
        return f"{tried}; none keeps every wish. The least that lets one in: " + (
            f"{relax_words(answer.relax, units)}."
        )
    if answer.in_the_way is not None:
        return f"{tried}; whatever is chosen, one thing stays missed: {NAMES[answer.in_the_way]}."
    return f"{tried}; none keeps every window together, whatever the wishes."
