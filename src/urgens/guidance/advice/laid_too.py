"""A choice of valves goes into the layout as well: put in, made another, or taken out."""

from dataclasses import replace
from typing import Any

from urgens.document import Build, BuildChange, BuildErrors, changed, with_changes
from urgens.document.kinds.valves import LAID, kind_of
from urgens.physics.axle import AXLES
from urgens.plumbing.edits import section_of, without_part
from urgens.plumbing.valve_mends import with_valve

Json = dict[str, Any]
PLUMBING = "plumbing"


def laid_too(build: Build, change: BuildChange) -> BuildChange:
    """Return a change of valves that changes the layout as well, where there is one.

    build: as it is; change: of its valves. A valve that has no line of its axle alone to stand in
    is left out of the layout, which a finding then says. Source: by definition.
    """
    made = changed(build, change)
    if made.plumbing is None:
        return change
    section = _with_all_placed(_without_strangers(made))
    if section == section_of(made.plumbing):
        return change
    laid = {PLUMBING: section}
    return replace(change, values={**change.values, **laid}, planned={**change.planned, **laid})


def _kind_in_layout(kind: str) -> str:
    return kind_of(kind).laid_as or kind


def _wanted(build: Build) -> dict[str, str]:
    """Return the kind of part each valve of a build is in a layout, by the valve's place."""
    return {
        f"{axle}[{index}]": _kind_in_layout(valve.kind)
        for axle in AXLES
        for index, valve in enumerate(build.valves.of(axle))
        if not valve.body
    }


def _without_strangers(build: Build) -> Build:
    """Return a build whose layout has no valve that is none of its own, and each of its kind."""
    assert build.plumbing is not None
    wanted = _wanted(build)
    for part in build.plumbing.parts:
        if part.kind not in LAID or part.valve is None:
            continue
        if part.valve not in wanted:
            try:
                section = without_part(build.plumbing, part.id)
            except BuildErrors:  # more lines than two end in it: it cannot just be left out
                continue
        elif part.kind != wanted[part.valve]:
            section = section_of(build.plumbing)
            row = next(one for one in section["parts"] if one["id"] == part.id)
            row["kind"] = wanted[part.valve]
        else:
            continue
        build = with_changes(build, {PLUMBING: section})
    return build


def _with_all_placed(build: Build) -> Json:
    """Return the layout of a build with each of its valves in the line of its axle."""
    assert build.plumbing is not None
    placed = {part.valve for part in build.plumbing.parts}
    for place, kind in _wanted(build).items():
        axle, _, index = place.removesuffix("]").partition("[")
        if place not in placed and kind in LAID:
            found = with_valve(build, next(one for one in AXLES if one == axle), int(index), kind)
            if found is not None:
                build = with_changes(build, {PLUMBING: found})
    assert build.plumbing is not None
    return section_of(build.plumbing)
