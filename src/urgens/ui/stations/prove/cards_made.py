"""What stands on the cards of the stops, and on that of the next one."""

from urgens.bench.proof_state import NextOnRoad, stops_of
from urgens.bench.sentences import counted_words, headline
from urgens.bench.stops.adjusters import Adjuster, adjuster
from urgens.document import Build
from urgens.document.ledger.proof import MeasuredStop, Proof
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import FORCE, SPEED, Units, shown
from urgens.ui.stations.prove.stop_cards import StopFigures


def cards_made(
    base: Build, build: Build, road: NextOnRoad | None, units: Units
) -> list[StopFigures]:
    """Return a card a stop, and one of the next unless nothing is left to try.

    `base` holds the stops, `build` what is fitted in the set-up that is looked at.
    """
    turned, stops = adjuster(build), stops_of(base)
    cards = [_card(number, stop, turned, units) for number, stop in enumerate(stops, start=1)]
    if road is None or not road.advice.done:
        cards.append(_next_card(len(stops) + 1, road, base.proof or Proof(), units))
    return cards


def _card(number: int, stop: MeasuredStop, turned: Adjuster | None, units: Units) -> StopFigures:
    speed = "" if stop.speed is None else str(shown(stop.speed, SPEED, units))
    foot = "" if stop.effort is None else str(shown(stop.effort, FORCE, units))
    large = "—" if stop.deceleration is None else f"{stop.deceleration:.2f}"
    value = None if turned is None else turned.laid(stop.setting.get(turned.path))
    setting = (
        "" if turned is None or value is None else counted_words(turned, value, FigureWords(units))
    )
    wet = ", wet" if stop.wet else ""
    spoken = f"Stop {number}: {setting}, {large} g from {speed}, locked {stop.locked}{wet}"
    return StopFigures(f"{number}{wet}", setting, large, "g", speed, stop.locked, foot,
                       left_out=not stop.counts, spoken=spoken)  # fmt: skip


def _next_card(number: int, road: NextOnRoad | None, proof: Proof, units: Units) -> StopFigures:
    speed = str(shown(proof.speed, SPEED, units))
    setting = (
        ""
        if road is None
        else headline(road.advice, FigureWords(units)).partition(": ")[2].rstrip(".")
    )
    wet = ", wet" if road is not None and road.advice.wet else ""
    words = f"The next stop, {number}: {setting}{wet}"
    return StopFigures(
        f"{number}{wet}", setting, "next", "", speed, "", "", dashed=True, spoken=words
    )
