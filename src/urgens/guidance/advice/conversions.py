"""Conversions: the set-ups that make one system of another, with their layout."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

from urgens.document import Build, BuildErrors, with_changes
from urgens.document.circuits import Circuits
from urgens.document.facts import given
from urgens.document.kinds.brakes import BRAKES
from urgens.document.kinds.cylinders import CYLINDERS
from urgens.document.kinds.valves.residual import Residual
from urgens.guidance.advice.booster_setups import changed_for
from urgens.guidance.thresholds import DISC_RESIDUAL
from urgens.physics.axle import AXLES, Axle
from urgens.plumbing.conversion import WAS_METERING, layout_of
from urgens.plumbing.draft import drafted
from urgens.plumbing.edits import Json, new_id, section_of, without_part
from urgens.plumbing.merged import kept_in

Changes = dict[str, Any]
EVIDENCE = "evidence"


@dataclass(frozen=True)
class ConversionWay:
    """One conversion: its name, what it is in words, what it gives up; the changes of its set-up.

    `changes` is None where the build is so already, or it does not go with it.
    """

    name: str
    words: str
    gives_up: str
    changes: Callable[[Build], Changes | None]


def _dual(build: Build) -> Changes | None:
    if not build.master.one_chamber:
        return None
    return {"circuits": "front-rear", "master": _cylinder(build, "tandem"),
            "warning_switch": "warns"}  # fmt: skip


def _single(build: Build) -> Changes | None:
    if build.master.one_chamber:
        return None
    return {"circuits": "single", "master": _cylinder(build, "single"), "warning_switch": "none",
            "valves.front": [], "valves.rear": _without_bodies(build, Axle.REAR)}  # fmt: skip


def _without_bodies(build: Build, axle: Axle) -> list[Any]:
    """Return an axle's valves but for those in a body that goes."""
    return [v.model_dump(mode="json", exclude_unset=True) for v in build.valves.of(axle)
            if not v.body]  # fmt: skip


def _twin(build: Build) -> Changes | None:
    if build.master.has_bar:
        return None
    return {"circuits": "front-rear", "master": _cylinder(build, "twin")}


def _tandem(build: Build) -> Changes | None:
    if not build.master.has_bar:
        return None
    return {"master": _cylinder(build, "tandem"), "warning_switch": "warns"}


def _cylinder(build: Build, kind: str) -> Changes:
    return next(one for one in CYLINDERS if one.kind == kind).new(build.master)


def _assisted(name: str) -> Callable[[Build], Changes | None]:
    def changes(build: Build) -> Changes | None:
        if build.booster.fitted == (name == "boosted"):
            return None
        return dict(changed_for(build, name))

    return changes


def _brakes(axle: Axle, kind: str) -> Callable[[Build], Changes | None]:
    def changes(build: Build) -> Changes | None:
        if build.axle(axle).brake.kind == kind:
            return None
        made: Changes = {f"{axle}.brake": next(b for b in BRAKES if b.kind == kind).new}
        if kind == "disc":
            made |= _for_discs(build, axle)
        return made

    return changes


def _for_discs(build: Build, axle: Axle) -> Changes:
    """Return what goes where discs come: what keeps pressure, and metering for drums behind."""
    made: Changes = {}
    kept = [
        valve
        for valve in build.valves.of(axle)
        if not (isinstance(valve, Residual) and valve.pressure.value > DISC_RESIDUAL)
    ]
    if len(kept) < len(build.valves.of(axle)):
        made[f"valves.{axle}"] = [v.model_dump(mode="json", exclude_unset=True) for v in kept]
    if axle is Axle.REAR:
        made |= _metering_out(build) or {}
    return made


def _metering_out(build: Build) -> Changes | None:
    """Return what takes the metering part out: a body of several is plugged where it was."""
    fronts = [v for v in build.valves.front if not v.holds_front_back]
    if len(fronts) == len(build.valves.front):
        return None
    return {"valves.front": [v.model_dump(mode="json", exclude_unset=True) for v in fronts]}


CONVERSIONS = (
    ConversionWay("two circuits", "One circuit becomes two", "room: a longer cylinder, a switch "
                  "and more joints", _dual),
    ConversionWay("one circuit", "Two circuits become one", "the second circuit: one leak takes "
                  "all braking away", _single),
    ConversionWay("manual", "The booster goes", "its help: the leg does it all, and the pedal "
                  "moves further", _assisted("manual")),
    ConversionWay("boosted", "A booster comes", "room, and the feel of a manual pedal; it runs "
                  "out, and it can be lost", _assisted("boosted")),
    ConversionWay("twin", "Two cylinders with a bar", "the booster's usual place, and one pedal "
                  "box", _twin),
    ConversionWay("tandem", "One cylinder of two chambers", "the bar, by which the balance is set",
                  _tandem),
    *(ConversionWay(f"{axle} discs", f"{str(axle).capitalize()} drums become discs",
                    "the drum's own gain: more foot, and the parking brake in it",
                    _brakes(axle, "disc")) for axle in AXLES),
    *(ConversionWay(f"{axle} drums", f"{str(axle).capitalize()} discs become drums",
                    "steadiness when hot and wet", _brakes(axle, "drum")) for axle in AXLES),
    ConversionWay("metering out", "The metering part goes, a plug in its place",
                  "metering: the front waits for drums behind no more", _metering_out),
)  # fmt: skip


def conversions(build: Build) -> Iterator[tuple[ConversionWay, Changes]]:
    """Yield the conversions that a build can have, each with the changes of its set-up.

    build: as it is. What is new is planned; the layout goes with it, as far as it can keeping what
    is there. One that the build refuses is left out.
    Source: common practice.
    """
    taken = {setup.name for setup in build.setups}
    for way in CONVERSIONS:
        changes = way.changes(build)
        if changes is None or way.name in taken:
            continue
        try:
            yield way, with_layout(build, changes)
        except BuildErrors:
            continue


def with_layout(build: Build, changes: Changes) -> Changes:
    """Return the changes of a set-up with the layout that goes with them, new figures planned.

    build: as it is; changes: by path. Raises BuildErrors where the build refuses them.
    Source: common practice.
    """
    figures = {path: value for path, value in changes.items() if not path.startswith(EVIDENCE)}
    bare = with_changes(build, {**figures, "plumbing": None, "setups": [], "evidence": {}})
    laid = _laid(build, bare, figures)
    with_changes(build, {**figures, "plumbing": laid, "setups": [], "evidence": {}})
    told = (path for place, part in figures.items() for path in given(place, part))
    known = {f'{EVIDENCE}["{path}"]': {"state": "planned"} for path in told
             if _is_quantity(path)}  # fmt: skip
    return {**changes, **known, "plumbing": laid}


def _is_quantity(path: str) -> bool:
    return not path.endswith((".kind", ".layout", ".caliper", ".body", "circuits")) and (
        path.startswith(("master.", "front.brake.", "rear.brake."))
    )


def _laid(build: Build, then: Build, figures: Changes) -> Json:
    """Return the layout of the build as it is to be."""
    if build.plumbing is None:
        return drafted(then)
    if "circuits" in figures or "master" in figures:
        return kept_in(build, then, drafted(then))
    section = section_of(build.plumbing)
    if "valves.front" in figures:
        section = _without_metering(build, section)
    for axle in AXLES:
        if f"valves.{axle}" in figures:
            section = _renumbered(build, then, section, axle)
    return section


def _without_metering(build: Build, section: Json) -> Json:
    """Return a layout without its metering part: a plug, a tee, or a line where it was."""
    laid = Circuits(build, layout_of(build))
    for part in section["parts"]:
        if part["kind"] == "combination" and any(v.body for v in build.valves.front):
            part["ports"][WAS_METERING] = {}
            plug = new_id(section, "p")
            section["parts"].append({"id": plug, "kind": "plug", "ports": {"in": {}}})
            section["lines"].append(
                {
                    "id": new_id(section, "D"),
                    "from": f"{part['id']}.{WAS_METERING}",
                    "to": f"{plug}.in",
                    "direct": True,
                }
            )
            return section
        if part["kind"] == "metering":
            if len(laid.parts[part["id"]].ports) > 2:
                part["kind"] = "tee"
                part.pop("valve", None)
                return section
            return without_part(laid.plumbing, part["id"])
    return section


def _renumbered(build: Build, then: Build, section: Json, axle: Axle) -> Json:
    """Let the parts of an axle's valves name them where they stand now; what went comes out."""
    before, after = list(build.valves.of(axle)), list(then.valves.of(axle))
    places = {}
    left = list(range(len(after)))
    for index, valve in enumerate(before):
        at = next((one for one in left if after[one] == valve), None)
        if at is not None:
            left.remove(at)
            places[f"{axle}[{index}]"] = f"{axle}[{at}]"
    gone = []
    for part in section["parts"]:
        valve = part.get("valve")
        if valve is not None and valve.startswith(f"{axle}["):
            if valve in places:
                part["valve"] = places[valve]
            else:
                gone.append(part["id"])
    for name in gone:
        made = with_changes(then, {"plumbing": section}).plumbing
        assert made is not None
        section = without_part(made, name)
    return section
