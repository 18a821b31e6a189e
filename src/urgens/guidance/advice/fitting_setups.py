"""What set-ups change has to go with a step: what does not is left out, and said."""

import copy
import re
from dataclasses import replace
from typing import Any

from urgens.document import Build, BuildChange, BuildErrors, changed
from urgens.document.edits.edit import dumped

SETUPS = "setups"
_PLACE = re.compile(r'setups\[(\d+)\]\.changes\["(.*)"\]')
MOST = 20  # rounds: leaving one change out may show the next that does not fit


def with_fitting_setups(build: Build, change: BuildChange) -> BuildChange:
    """Return a step with set-ups whose changes all go with it; its label says what is left out.

    build: as it is; change: of it. Raises BuildErrors where something else stands against it.
    """
    for _ in range(MOST):
        try:
            made = changed(build, change)
        except BuildErrors as errors:
            places = [_PLACE.fullmatch(error.path) for error in errors.errors]
            if not all(places):
                raise
            less = _without(build, change, [one for one in places if one is not None])
            if less == change:
                raise
            change = less
        else:
            break
    else:
        raise BuildErrors.one(SETUPS, "do not go with this step", "look at them one by one")
    left_out = [
        f"{path} of set-up “{was.name}”"
        for was, now in zip(build.setups, made.setups, strict=True)
        for path in was.changes
        if path not in now.changes
    ]
    if not left_out:
        return change
    return replace(change, label=f"{change.label}; left out: {', '.join(left_out)}")


def _without(build: Build, change: BuildChange, places: list[re.Match[str]]) -> BuildChange:
    """Return a step with some changes of set-ups left out."""
    setups: Any = copy.deepcopy(change.values.get(SETUPS, dumped(build).get(SETUPS, [])))
    for place in places:
        setup, path = setups[int(place[1])], place[2]
        # What is wrong may stand inside what the set-up writes, or above it.
        for written in [one for one in setup["changes"] if _touch(one, path)]:
            del setup["changes"][written]
    return replace(change, values={**change.values, SETUPS: setups})


def _touch(one: str, other: str) -> bool:
    """Tell whether one path is the other, or lies inside it, either way round."""
    return any(a == b or a.startswith((f"{b}.", f"{b}[")) for a, b in ((one, other), (other, one)))
