"""The schools of plumbing: what could be laid instead, what each takes, and what it loses."""

from collections import Counter
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from urgens.document import Build, BuildChange, BuildErrors, changed
from urgens.document.edits.change import Order
from urgens.document.kinds.cylinders import CYLINDERS
from urgens.guidance.rules.starting_valves import COMBINATION, new_valve
from urgens.guidance.thresholds import DRUM_RESIDUAL, UNDER_FLOOR_RESIDUAL
from urgens.physics.axle import AXLES, Axle
from urgens.plumbing.draft import USUAL, DraftShape, Json, drafted
from urgens.plumbing.edits import section_of

Changes = dict[str, Any]
# Minutes, common practice: a line bent, flared at both ends and fitted; a part fitted.
PER_LINE = 25
PER_PART = 15
NOT_FITTED = ("wheel-brake", "master")


@dataclass(frozen=True)
class School:
    """One way to lay it: its name and words, what it changes, what it loses, how it is laid."""

    name: str
    words: str
    changes: Callable[[Build], Changes]
    loses: str
    shape: DraftShape = USUAL


@dataclass(frozen=True)
class Alternative:
    """A school laid for one build: the change that it is, and what it takes."""

    school: School
    change: BuildChange
    joints: int
    parts: int
    minutes: int
    kinds: Mapping[str, int]  # how many of each kind of part it takes, and lines

    def price(self, prices: Mapping[str, float]) -> tuple[float, tuple[str, ...]]:
        """Return what it costs, and what in it has no price yet.

        prices: of a kind of part, and of a line, in one money [-].
        """
        known = sum(count * prices[kind] for kind, count in self.kinds.items() if kind in prices)
        return known, tuple(kind for kind in self.kinds if kind not in prices)


def _valves(build: Build, *, front: bool, rear: str | None) -> Changes:
    """Return both lists of valves: a metering valve in front or none, and one kind behind."""
    made: Changes = {"valves.front": [], "valves.rear": []}
    if front:
        made["valves.front"] = list(new_valve(build, Axle.FRONT, "metering")[Axle.FRONT])
    if rear is not None:
        made["valves.rear"] = list(new_valve(build, Axle.REAR, rear)[Axle.REAR])
    return made


def _two(build: Build) -> Changes:
    """Return what makes two circuits of one, front and rear."""
    if build.split == "front-rear":
        return {}
    kind = "tandem" if build.master.one_chamber else build.master.kind
    return {"circuits": "front-rear", **_cylinder(build, kind)}


def _cylinder(build: Build, kind: str) -> Changes:
    if build.master.kind == kind:
        return {}
    record = next(one for one in CYLINDERS if one.kind == kind)
    return {"master": record.new(build.master)}


def _with(front: bool, rear: str | None, **more: Any) -> Callable[[Build], Changes]:
    """Return what sets the valves, and more, of two circuits."""
    return lambda build: {**_two(build), **_valves(build, front=front, rear=rear), **more}


def _one_body(build: Build) -> Changes:
    made = new_valve(build, Axle.REAR, COMBINATION)
    return {**_two(build), **{f"valves.{axle}": list(made[axle]) for axle in AXLES}}


def _twin(build: Build) -> Changes:
    return {
        "circuits": "front-rear",
        **_cylinder(build, "twin"),
        **_valves(build, front=False, rear=None),
    }


def _under_floor(build: Build) -> Changes:
    """Return what a cylinder below the brakes takes: a residual valve in each circuit."""
    made: Changes = {**_two(build), "master.mounting": "under-floor"}
    for axle in AXLES:
        kept = [v.model_dump(mode="json", exclude_unset=True) for v in build.valves.of(axle)]
        keeps = UNDER_FLOOR_RESIDUAL if build.axle(axle).brake.has_pads else DRUM_RESIDUAL
        if not any(valve["kind"] == "residual" for valve in kept):
            kept.insert(0, {"kind": "residual", "pressure": keeps})
        made[f"valves.{axle}"] = kept
    return made


def _diagonal(build: Build) -> Changes:
    rear = _valves(build, front=False, rear="reducing")
    return {**_cylinder(build, "tandem"), "circuits": "diagonal", **rear}


WARNS = {"warning_switch": "warns"}
NONE = {"warning_switch": "none"}
SCHOOLS = (
    School("block", "One circuit through a block without a valve",
           lambda build: {**_cylinder(build, "single"), "circuits": "single", **NONE,
                          **_valves(build, front=False, rear=None)},
           "the second circuit: one leak takes all braking away; lamp and every valve"),
    School("switch", "Switch, no valve", _with(False, None, **WARNS),
           "metering and reducing: the brakes alone decide which axle locks first"),
    School("switch-reducing", "Switch, and a reducing valve between it and the rear",
           _with(False, "reducing", **WARNS), "metering: with drums behind the front acts first"),
    School("switch-metering", "Switch, and a metering valve as the front's tee",
           _with(True, None, **WARNS), "reducing: nothing holds the rear back",
           DraftShape(metering_tee=True)),
    School("all-three", "Switch, metering and reducing valve, three bodies",
           _with(True, "reducing", **WARNS), "nothing; it has the most joints"),
    School("combination", "All three in one body", _one_body,
           "each part by itself: what fails in the body takes the whole body"),
    School("old-block", "The old block for the fronts, an adjustable valve for the rear",
           _with(False, "adjustable", **NONE), "shuttle and lamp; metering",
           DraftShape(old_block=True)),
    School("load-sensing", "A valve on the rear axle that feels the load",
           _with(False, "load-sensing", **WARNS), "metering; it has to be set with every change of "
           "springs"),
    School("twin", "Twin cylinders with a bar, reservoirs away from them", _twin,
           "the booster's usual place, and the lamp unless a switch is kept",
           DraftShape(remote=True)),
    School("under-floor", "Cylinder under the floor, a residual valve in each circuit",
           _under_floor,
           "fluid that runs back by itself: it is bled and filled through a tube"),
    School("diagonal", "Each circuit a front and the opposite rear wheel", _diagonal,
           "metering; with a front lost the vehicle pulls, unless its steering is made for it"),
    School("banjo", "Both front lines on one bolt at the cylinder",
           _with(False, None, **NONE), "shuttle and lamp, metering and reducing",
           DraftShape(banjo=True)),
)  # fmt: skip


def alternatives(build: Build) -> Iterator[Alternative]:
    """Yield every school that can be laid for a build, in order of its joints.

    Its own figures stay where a school does not touch them; what is
    new is planned. A school that the build refuses is left out.
    Source: common practice.
    """
    found = (_laid(build, school) for school in SCHOOLS)
    yield from sorted((one for one in found if one is not None), key=lambda one: one.joints)


def _laid(build: Build, school: School) -> Alternative | None:
    values, orders, new = _parted(build, school.changes(build))
    try:
        made = changed(build, BuildChange(school.words, values, orders=orders))
    except BuildErrors:
        return None
    section = {**_own(build), **drafted(made, school.shape)}
    change = BuildChange(
        school.words,
        {**values, "plumbing": section},
        orders=orders,
        planned={**new, "plumbing": section},
        anew=("plumbing", *new),
    )
    return Alternative(school, change, *_takes(section))


def _own(build: Build) -> Json:
    """Return what of a layout is the builder's own: his tools, and what he was asked for."""
    if build.plumbing is None:
        return {}
    made = section_of(build.plumbing)
    return {name: made[name] for name in ("bench", "prices") if name in made}


def _parted(build: Build, values: Changes) -> tuple[Changes, dict[str, Order], Changes]:
    """Return values, lists of valves as orders, and what is new of both by its place.

    A valve that was there is named by its place, so that what is known of it goes with it.
    """
    rest = {path: value for path, value in values.items() if not path.startswith("valves.")}
    orders: dict[str, Order] = {}
    new = {"master": rest["master"]} if "master" in rest else {}
    for axle in AXLES:
        path = f"valves.{axle}"
        if path not in values:
            continue
        before = [v.model_dump(mode="json", exclude_unset=True) for v in build.valves.of(axle)]
        orders[path] = [before.index(one) if one in before else one for one in values[path]]
        new |= {f"{path}[{i}]": one for i, one in enumerate(values[path]) if one not in before}
    return rest, orders, new


def _takes(section: Json) -> tuple[int, int, int, Mapping[str, int]]:
    """Return joints, parts to fit, minutes and the kinds of a drafted section."""
    pipes = sum(not line.get("direct", False) for line in section["lines"])
    screwed = len(section["lines"]) - pipes
    kinds = Counter(part["kind"] for part in section["parts"] if part["kind"] not in NOT_FITTED)
    parts = kinds.total()
    minutes = pipes * PER_LINE + parts * PER_PART
    return 2 * pipes + screwed, parts, minutes, {"line": pipes, **kinds}
