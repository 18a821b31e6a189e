"""Parts taken over from another build."""

from typing import Any

from urgens.document.build import Build
from urgens.document.edits.change import BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.edits.setups import is_under

# what is taken, and where it stands in the document
PARTS: dict[str, tuple[str, ...]] = {
    "front brakes": ("front.brake",),
    "rear brakes": ("rear.brake",),
    "pedal, booster and cylinder": ("pedal", "booster", "master", "circuits"),
    "vehicle": ("vehicle",),
}


def borrowed(other: Build, part: str) -> BuildChange:
    """Return the change that takes a part of `other` over, with what is known about it.

    `part` is one of PARTS. Raises KeyError for any other.
    """
    places = PARTS[part]
    document = dumped(other)
    values: dict[str, object] = {}
    for place in places:
        here: Any = document
        for step in place.split("."):
            here = here.get(step) if here is not None else None
        if here is not None:
            values[place] = here
    if "circuits" in places:
        values["circuits"] = other.split
    if "booster" in places and "booster" not in values:
        values["booster"] = {"kind": "none"}
    known = {
        path: said.model_dump(mode="json", exclude_unset=True)
        for path, said in other.evidence.items()
        if any(is_under(path, place) for place in places)
    }
    return BuildChange(f"The {part} of {other.name}", values, known)
