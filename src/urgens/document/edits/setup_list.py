"""The list of set-ups: one renamed, taken out, and what one changes, in a line."""

from collections import Counter
from collections.abc import Iterator
from typing import Any

from urgens.document.build import Build
from urgens.document.edits.change import BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.edits.past import changes_between, figure_words
from urgens.document.edits.setups import with_setup
from urgens.document.kinds.valves import kind_of
from urgens.physics.axle import AXLES

MOST = 4  # changes that are told in a line


def renamed(build: Build, name: str, other: str) -> BuildChange:
    """Return the change that gives a set-up another name, in the records of its work as well.

    build: without a set-up laid over it; name: of one of its set-ups; other: the new one [text].
    """
    setups = setups_of(build)
    for one in setups:
        if one["name"] == name:
            one["name"] = other
    values: dict[str, Any] = {"setups": setups}
    values |= {
        f"records[{at}].setup": other
        for at, run in enumerate(build.records)
        if run.setup == name
    }  # fmt: skip
    return BuildChange(f"Set-up {name} is called {other}", values)


def taken_out(build: Build, name: str) -> BuildChange:
    """Return the change that takes a set-up out.

    build: without a set-up laid over it; name: of one of its set-ups [text].
    """
    left = [one for one in setups_of(build) if one["name"] != name]
    return BuildChange(f"Set-up {name} taken out", {"setups": left})


def setup_line(build: Build, name: str) -> str:
    """Return what a set-up changes, whole parts that come and go first.

    build: without a set-up laid over it; name: of one of its set-ups [text]. Raises BuildErrors
    where it does not go with the build.
    """
    made = with_setup(build, name)
    parts = dict(_parts(build, made))
    figures = {path: pair for path, pair in changes_between(build, made).items()
               if not path.startswith(tuple(parts))}  # fmt: skip
    rows = [*parts.values()]
    rows += [f"{what} {words}" for what, words in figure_words((build, made), figures)]
    if not rows:
        return f"“{name}” changes nothing yet."
    more = f"; and {len(rows) - MOST} more" if len(rows) > MOST else ""
    return f"“{name}” changes: {'; '.join(rows[:MOST])}{more}."


def _parts(build: Build, made: Build) -> Iterator[tuple[str, str]]:
    """Yield what comes and goes, by the path at which the figures of it stand."""
    for axle in AXLES:
        before, after = (Counter(kind_of(valve).name for valve in one.valves.of(axle))
                         for one in (build, made))  # fmt: skip
        gone, come = before - after, after - before
        words = [*(f"{name} out" for name in gone), *(f"{name} in" for name in come)]
        if words:
            yield f"valves.{axle}", f"{axle} {', '.join(words).lower()}"
    if build.booster.fitted is not made.booster.fitted:
        yield "booster", f"booster {'in' if made.booster.fitted else 'out'}"
    if build.plumbing != made.plumbing:
        yield "plumbing", "another layout"


def setups_of(build: Build) -> list[dict[str, Any]]:
    """Return the set-ups of a build as JSON, to be changed.

    build: without a set-up laid over it.
    """
    setups: list[dict[str, Any]] = dumped(build).get("setups", [])
    return setups
