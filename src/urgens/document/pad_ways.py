"""Three ways to say where a pad presses, each made from the one that is given."""

from collections.abc import Iterator

from urgens.document.build import Build
from urgens.document.edits.change import BuildChange
from urgens.document.facts import UNSEEN
from urgens.document.kinds.brakes.disc import Disc
from urgens.physics.axle import Axle
from urgens.quantity import LENGTH, Units, UnitSystem, retype

USUAL_HEIGHT = 0.3  # of the effective radius, where the pad is not measured; common practice
EFFECTIVE = ("effective_radius",)
ROTOR = ("rotor_outer_diameter", "pad_height")
RADII = ("pad_inner_radius", "pad_outer_radius")
WAYS = {
    EFFECTIVE: "Effective radius alone",
    ROTOR: "Rotor with pad height",
    RADII: "Pad by its two radii",
}


def pad_ways(build: Build, axle: Axle, units: Units | UnitSystem) -> Iterator[BuildChange]:
    """Yield the other ways to give a disc's radius, with the figures that follow from its own.

    axle: of a disc brake [-]; units: to write new figures in.
    What nobody measured is assumed; an effective radius is known as well as what it follows from.

    The mean of the pad's two radii, as `document.kinds.brakes.disc`.
    """
    brake, place = build.axle(axle).brake, f"{axle}.brake"
    assert isinstance(brake, Disc)
    now = _given(brake)
    inner, outer = _edges(brake)
    found = {
        "effective_radius": brake.radius,
        "rotor_outer_diameter": 2.0 * outer,
        "pad_height": outer - inner,
        "pad_inner_radius": inner,
        "pad_outer_radius": outer,
    }
    said = [build.evidence.get(f"{place}.{name}") for name in now]
    told = {known.state for known in said if known is not None}
    guess = next((state for state in UNSEEN if state in told), None)
    for way, words in WAYS.items():
        if way == now:
            continue
        part = brake.model_dump(mode="json", exclude_unset=True)
        stays = {name: given for name, given in part.items() if name not in found or name in way}
        new = {name: retype(found[name], LENGTH, units) for name in way if name not in stays}
        # Where the pad ends is measured, or it is a guess.
        state = guess or ("assumed" if way != EFFECTIVE else None)
        known = {f"{place}.{name}": {"state": state} for name in new} if state else {}
        yield BuildChange(words, {place: {**stays, **new}}, known)


def _edges(brake: Disc) -> tuple[float, float]:
    """Return where a pad begins and ends, from the axle [m]."""
    inner, outer = brake.pad_inner_radius, brake.pad_outer_radius
    if inner is not None and outer is not None:
        return inner.value, outer.value
    rotor, height = brake.rotor_outer_diameter, brake.pad_height
    if rotor is not None and height is not None:
        return rotor.value / 2.0 - height.value, rotor.value / 2.0
    high = height.value if height is not None else USUAL_HEIGHT * brake.radius
    return brake.radius - high / 2.0, brake.radius + high / 2.0


def _given(brake: Disc) -> tuple[str, ...]:
    """Return the fields that count now."""
    if brake.effective_radius is not None:
        return EFFECTIVE
    return RADII if brake.pad_inner_radius is not None else ROTOR
