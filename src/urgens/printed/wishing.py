"""Systems out of wishes, as the JSON object the command line prints."""

from typing import Any

from urgens.guidance.advice.wish_cards import Offer
from urgens.printed.values import figure
from urgens.studies.wishes.combinations import WishedSystem
from urgens.studies.wishes.relaxing import WishAnswer


def printed_wishes(answer: WishAnswer, offer: Offer) -> dict[str, Any]:
    """Return what was tried, the cards first and then all else that nobody beats, SI.

    answer: of the search; offer: its cards; what was refused on a closer look is left out. A price
    is null where a part that is bought has none.
    """
    told = {card.system.words for card in offer.cards} | {one.words for one, _ in offer.refused}
    rest = [one for one in answer.systems if one.words not in told]
    return {
        "tried": answer.tried,
        "systems": [
            *(_system(card.system) | {"gives": card.gives, "gives_up": card.gives_up}
              for card in offer.cards),
            *(_system(one) | {"gives": None, "gives_up": None} for one in rest),
        ],
        "relax": [
            {"want": one.want, "from": figure(one.start), "to": figure(one.end)}
            for one in answer.relax
        ],
        "in_the_way": answer.in_the_way,
    }  # fmt: skip


def _system(one: WishedSystem) -> dict[str, Any]:
    figures = {name.replace("-", "_"): figure(value) for name, value in one.figures.items()}
    return {
        "system": one.words, "changes": one.changes, **figures, "margin": figure(one.margin),
        "rear_first_chance": one.chance, "draws": one.drawn, "parts_changed": one.parts,
        "price": None if one.cost is None else one.cost.price,
        "hours": None if one.cost is None else one.cost.hours,
    }  # fmt: skip
