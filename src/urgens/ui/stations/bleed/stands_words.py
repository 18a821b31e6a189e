"""What stands in the workshop as the card draws it: what is fitted, and what the lines hold."""

from urgens.guidance.procedures.bled_vehicle import BledVehicle
from urgens.guidance.procedures.step import Wheel
from urgens.guidance.procedures.workshop import BLEEDER, Workshop, workshop

SAID = {
    "pedal block": "block under the pedal", "metering holder": "metering valve held open",
    "lever tie": "lever tied up", "loops": "loops on the outlets",
}  # fmt: skip
CAPS = {"loose": "caps rest on top", "off": "caps off"}
BLEEDERS = {"pressed": "bleeder UNDER PRESSURE", "let down": "bleeder let down"}
Shares = tuple[tuple[float, float], ...]  # of a way's volume from the cylinder, and of air in each


def fitted_words(stands: Workshop) -> tuple[str, ...]:
    """Return what is fitted, loose or off, as it is called; stands: the workshop now."""
    states = stands.states
    told = [CAPS.get(states["caps"], ""), BLEEDERS.get(states["bleeder"], "")]
    told += sorted(
        SAID.get(thing, thing) for thing, wheels in stands.fitted
        if not wheels and thing in workshop().things.tools and thing != BLEEDER
    )  # fmt: skip
    told += sorted(f"open: {joint}" for joint in stands.joints)
    return tuple(filter(None, told))


def contents(now: BledVehicle, wheel: Wheel) -> Shares:
    """Return what the way to a wheel holds, stretches that are alike as one."""
    slugs = [slug for line in now.way(wheel) for slug in line]
    whole = sum(slug.volume for slug in slugs)
    found: list[tuple[float, float]] = []
    for slug in slugs if whole else ():
        if found and found[-1][1] == slug.air:
            found[-1] = found[-1][0] + slug.volume / whole, slug.air
        else:
            found.append((slug.volume / whole, slug.air))
    return tuple(found)
