"""Older documents brought to the present version, a step at a time, in memory only."""

from collections.abc import Callable
from typing import Any

from urgens.document.errors import BuildErrors

Document = dict[str, Any]
Step = Callable[[Document], Document]
_STEPS: dict[int, Step] = {}


def step(version: int, steps: dict[int, Step] | None = None) -> Callable[[Step], Step]:
    """Register the step that turns a document of `version` into one of the next version."""
    known = _STEPS if steps is None else steps

    def register(function: Step) -> Step:
        if version in known:
            raise KeyError(f"two steps lead from version {version}")
        known[version] = function
        return function

    return register


def migrated(document: Document, newest: int, steps: dict[int, Step] | None = None) -> Document:
    """Return `document` brought up to version `newest`; the one given is left as it is.

    Raises BuildErrors where a step is missing. A version that is no whole number is left to
    validation, which has the words for it.
    """
    known = _STEPS if steps is None else steps
    version = document.get("version")
    if not isinstance(version, int) or isinstance(version, bool):
        return document
    while version < newest:
        if version not in known:
            raise BuildErrors.one(
                "version",
                f"files of version {version} cannot be read by this Urgens",
                "open it with an older one and save it anew",
            )
        document = {**known[version](dict(document)), "version": version + 1}
        version += 1
    return document
