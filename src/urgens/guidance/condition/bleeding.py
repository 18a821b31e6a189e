"""Whether a vehicle is bled: every wheel, a leak check after it, and a travel within its limits."""

from dataclasses import dataclass

from urgens.guidance.condition.holds import Condition

AGAINST = {"leak": "it leaks", "pedal-long": "travel long", "air-shows-late": "travel grew"}


@dataclass(frozen=True)
class Bleeding:
    """How far the bleeding of a vehicle is, in a few words; `done`: nothing of it is left."""

    words: str
    done: bool = False


def bleeding(found: Condition) -> Bleeding:
    """Return how far the bleeding is; found: the condition of the vehicle.

    Source: common practice: what ran clear is bled once nothing weeps and the pedal is right.
    """
    codes = {one.code for one in found.holds}
    for code, words in AGAINST.items():
        if code in codes:
            return Bleeding(words)
    bled = list(found.standing.wheels.values()).count("bled")
    if bled < len(found.standing.wheels):
        return Bleeding(f"{bled} of {len(found.standing.wheels)} bled" if bled else "not yet")
    since, limits = found.standing.fold.since_bled, found.standing.limits
    if not any(one.hold and one.value is True for one in since):
        return Bleeding("no leak check")
    travels = [one.entry for one in since if one.field == "travel" and one.entry]
    if not travels:
        return Bleeding("travel not read")
    if all(one.when == "stroke-1" or limits.computed_travel(one) is None for one in travels):
        return Bleeding("travel not judged")
    return Bleeding("bled", done=True)
