"""Parts taken over from another build."""

from typing import Any

from urgens.document.build import Build

# what is taken, and where it stands in the document
PARTS: dict[str, tuple[str, ...]] = {
    "front brakes": ("front.brake",),
    "rear brakes": ("rear.brake",),
    "pedal, booster and cylinder": ("pedal", "booster", "master", "circuits"),
    "vehicle": ("vehicle",),
}


def borrowed(build: Build, other: Build, part: str) -> dict[str, object]:
    """Return the edits that take a part of `other` into `build`, with what is known about it.

    `part` is one of PARTS. Raises KeyError for any other.
    """
    places = PARTS[part]
    document: Any = other.model_dump(mode="json", exclude_unset=True, by_alias=True)
    changes: dict[str, object] = {}
    for place in places:
        here = document
        for step in place.split("."):
            here = here.get(step) if here is not None else None
        if here is not None:
            changes[place] = here
    if "circuits" in places:
        changes["circuits"] = other.split
    if "booster" in places and "booster" not in changes:
        changes["booster"] = {"kind": "none"}

    def belongs(path: str) -> bool:
        return any(path == place or path.startswith(f"{place}.") for place in places)

    mine = {path: known for path, known in build.evidence.items() if not belongs(path)}
    theirs = {path: known for path, known in other.evidence.items() if belongs(path)}
    changes["evidence"] = {
        path: known.model_dump(mode="json", exclude_unset=True)
        for path, known in (mine | theirs).items()
    }
    return changes
