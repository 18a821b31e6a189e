"""The one way to change a build: a path and what goes there."""

import copy
from collections.abc import Mapping
from itertools import pairwise
from typing import Any

from urgens.document.build import Build
from urgens.document.errors import BuildErrors
from urgens.document.paths import entered, steps
from urgens.document.validation import validated


def edited(build: Build, path: str, value: object) -> Build:
    """Return `build` with `value`, as typed or as JSON, at `path`.

    Raises BuildErrors where the result is no valid build; `build` itself never changes.
    """
    return with_changes(build, {path: value})


def with_changes(build: Build, changes: Mapping[str, object]) -> Build:
    """Return `build` with several values laid over it by path; as `edited`."""
    document = dumped(build)
    for path, value in changes.items():
        lay(document, path, copy.deepcopy(value))
    return validated(document)


def dumped(build: Build) -> dict[str, Any]:
    """Return `build` as parsed JSON: what was given, as it was typed."""
    return build.model_dump(mode="json", exclude_unset=True, by_alias=True)


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
