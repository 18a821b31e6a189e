"""The one way to change a build: a path and what goes there."""

import copy
from collections.abc import Collection, Iterable, Mapping
from itertools import pairwise
from operator import is_
from typing import Any

from urgens.document.build import Build
from urgens.document.errors import BuildErrors
from urgens.document.paths import entered, steps
from urgens.document.validation import validated

EVIDENCE, UNITS = "evidence", "units"
# What grows with the work on a vehicle, and hangs on nothing else of the build.
LISTS = ("records", "joints", "noted", "open_items", "traces", "history", "photographs")


def same_figures(one: Build, other: Build) -> bool:
    """Tell whether two builds share everything but what is done and read on the vehicle.

    It is told by what an edit of records left as it was: others may be the same all the same.
    """
    return one is other or all(
        same_part(getattr(one, name), getattr(other, name))
        for name in Build.model_fields
        if name not in LISTS
    )


def same_part(one: object, other: object) -> bool:
    """Tell whether two parts of builds are the same one, lists and tables by every entry."""
    if isinstance(one, tuple) and isinstance(other, tuple):
        return len(one) == len(other) and all(map(is_, one, other))
    if isinstance(one, Mapping) and isinstance(other, Mapping):
        return [*one] == [*other] and all(map(is_, one.values(), other.values()))
    return one is other


def reused(build: Build, before: Mapping[str, Any], document: dict[str, Any]) -> dict[str, Any]:
    """Return the long lists that an edit wrote, each entry that is as it was made already.

    before: the build as parsed JSON; document: after the edit, in which only what is new is left to
    be looked at. Source: by definition.
    """
    found: dict[str, Any] = {}
    for name in LISTS:
        was, now = before.get(name), document.get(name)
        if isinstance(was, list) and isinstance(now, list):
            made = getattr(build, name)
            found[name] = [
                made[place] if place < len(was) and row == was[place] else row
                for place, row in enumerate(now)
            ]
            document[name] = [row for row in found[name] if isinstance(row, dict)]
    return found


def edited(build: Build, path: str, value: object) -> Build:
    """Return `build` with `value`, as typed or as JSON, at `path`.

    Raises BuildErrors where the result is no valid build; `build` itself never changes.
    """
    return with_changes(build, {path: value})


def with_changes(build: Build, changes: Mapping[str, object]) -> Build:
    """Return `build` with several values laid over it by path; as `edited`."""
    kept = untouched(build, changes)
    document = dumped(build, kept)
    for path, value in changes.items():
        lay(document, path, copy.deepcopy(value))
    return validated(document, kept)


def dumped(build: Build, but: Collection[str] = ()) -> dict[str, Any]:
    """Return `build` as parsed JSON: what was given, as it was typed; but: fields left out."""
    return build.model_dump(mode="json", exclude_unset=True, by_alias=True, exclude={*but})


def untouched(
    build: Build, paths: Iterable[str], orders: Collection[str] = ()
) -> dict[str, object]:
    """Return the parts of a build that changes at some paths leave as they are, by name.

    They are neither written out nor read again for an edit beside them. What is known of figures
    hangs on every figure; on the order of a list hangs whatever names its entries.
    """
    changed = {str(steps(path)[0]) for path in (*paths, *orders)}
    stay = build.model_fields_set - changed
    if not changed <= {*LISTS}:
        stay = stay & {*LISTS} if orders else stay - {EVIDENCE}
    return {name: getattr(build, name) for name in stay}


def lay(document: dict[str, Any], path: str, value: object) -> None:
    """Lay a value into parsed JSON, which changes; raises BuildErrors where the path leads nowhere.

    Parts on the way that are not there yet are made.
    """
    here: Any = document
    way = steps(path)
    for step, following in pairwise(way):
        if isinstance(step, int) or (isinstance(here, dict) and step in here):
            here = entered(here, step, path)
        elif isinstance(here, dict):
            here[step] = [] if isinstance(following, int) else {}
            here = here[step]
        else:
            raise BuildErrors.one(path, "leads nowhere", "choose a field that is there")
    last = way[-1]
    if isinstance(last, int):
        entered(here, last, path)
    elif not isinstance(here, dict):
        raise BuildErrors.one(path, "leads nowhere", "choose a field that is there")
    here[last] = value
