"""A conversion: what stays of one layout, what goes, what is new, plugged, and lost."""

from dataclasses import dataclass

from urgens.document import Build, edited
from urgens.document.circuits import TWO_SIDED
from urgens.document.layout.layout import BrakeLine, FittedPart, Plumbing
from urgens.physics.axle import Axle
from urgens.plumbing.draft import drafted

WAS_METERING = "front-metering"  # of a body whose metering part is out, and plugged
LIGHTS = "a switch for the brake lights that pressure closes"
LAMP = "the lamp that warns of a lost circuit"
SHUTTLE = "the shuttle between the circuits"
METERING = "metering: drums behind before discs in front"
LESS_BEHIND = "less pressure behind above a knee"


# What is set, measured or screwed to a cylinder: another figure of it makes no other cylinder.
SET_ON_CYLINDER = (
    "bar_offset", "efficiency", "spring_preload", "port_travel", "pushrod_length",
    "pushrod_held_by", "primary_feeds", "reservoir_volume", "outlets",
)  # fmt: skip
BOOSTER = "booster"
ASSIST = "the booster's help: all of the effort comes from the leg"


@dataclass(frozen=True)
class Conversion:
    """Parts by id, and in words what the other layout cannot do any more."""

    stays: tuple[str, ...]
    goes: tuple[str, ...]
    new: tuple[str, ...]
    plugged: tuple[str, ...]
    lost: tuple[str, ...]


_last: tuple[Build, Plumbing] | None = None


def layout_of(build: Build) -> Plumbing:
    """Return a build's layout, the usual one where it has none.

    The one drawn for the build that was asked last is kept: a plan asks for it many times.
    """
    global _last
    if build.plumbing is not None:
        return build.plumbing
    last = _last
    if last is None or last[0] is not build:
        laid = edited(build, "plumbing", drafted(build)).plumbing
        assert laid is not None
        last = _last = build, laid
    return last[1]


def conversion(now: Build, then: Build) -> Conversion:
    """Return what it takes to make one layout of another.

    now, then: as it is and as it is to be.
    A part stays where it has its id, its kind and its ports in both, a cylinder, a booster and a
    brake where the build has the same one; a port is plugged where a plug is new on it.
    Source: common practice.
    """
    before, after = layout_of(now), layout_of(then)
    mine, its = ({part.id: part for part in one.parts} for one in (before, after))
    stays = tuple(
        name
        for name, part in mine.items()
        if _same(part, its.get(name)) and _stays(now, then, part)
    )
    new = tuple(name for name in its if name not in stays)
    plugs = {name for name in new if its[name].kind == "plug"}
    boosters = [(BOOSTER,) if build.booster.fitted else () for build in (now, then)]
    kept, gone, come = _between(*boosters, same=same_booster(now, then))
    return Conversion(
        stays=(*stays, *kept),
        goes=(*(name for name in mine if name not in stays), *gone),
        new=(*(name for name in new if name not in plugs), *come),
        plugged=_plugged(after, plugs),
        lost=(*_lost(now, then), *((ASSIST,) if gone and not come else ())),
    )


def new_lines(now: Build, then: Build) -> tuple[BrakeLine, ...]:
    """Return the lines of tube of a layout that are not on the vehicle; now, then: the builds.

    One stays where it goes from the same port to the same with the same tube and ends.
    Source: by definition.
    """
    there = {_joins(line) for line in layout_of(now).lines}
    return tuple(
        line for line in layout_of(then).lines if not line.direct and _joins(line) not in there
    )


def _joins(line: BrakeLine) -> tuple[object, ...]:
    ends = frozenset((line.start, str(line.to)))
    return ends, line.tube, frozenset(line.ends), line.route, line.material


def brake_items(now: Build, then: Build, axle: Axle) -> str:
    """Return what of an axle's brakes another build takes new, empty where all of it stays.

    now, then: the builds; axle: which [-].
    Source: by definition.
    """
    before, after = now.axle(axle).brake, then.axle(axle).brake
    if before == after:
        return ""
    if before.kind != after.kind:
        return "brakes"
    fields = set(type(after).model_fields)
    differs = {name for name in fields if getattr(before, name, None) != getattr(after, name)}
    if any(name.startswith(("piston", "cylinder", "caliper")) for name in differs):
        return "calipers" if after.has_pads else "wheel cylinders"
    return "pads and discs" if after.has_pads else "shoes and drums"


def _same(part: FittedPart, other: FittedPart | None) -> bool:
    if other is None or part.kind != other.kind:
        return False
    mine, its = ({name: port for name, port in one.ports.items() if name != WAS_METERING}
                 for one in (part, other))  # fmt: skip
    return mine == its


def _stays(now: Build, then: Build, part: FittedPart) -> bool:
    """Tell whether what is where a part of the layout is stays: a cylinder, a wheel's brake."""
    if part.kind == "master":
        return same_cylinder(now, then)
    if part.wheel is not None:
        axle = Axle(part.wheel.partition("-")[0])
        return brake_items(now, then, axle) not in ("brakes", "calipers", "wheel cylinders")
    return True


def same_cylinder(now: Build, then: Build) -> bool:
    """Tell whether two builds have one cylinder, whatever is set or measured on it.

    now, then: the builds. Where its outlets sit counts, what is behind their seats does not.
    Source: by definition.
    """
    one, other = (
        {name: getattr(part, name) for name in type(part).model_fields
         if name not in SET_ON_CYLINDER} | {f"{at.circuit} outlet": at.position
                                            for at in part.outlets}
        for part in (now.master, then.master)
    )  # fmt: skip
    return one == other


def same_booster(now: Build, then: Build) -> bool:
    """Tell whether two builds have one booster, or neither has; the vacuum makes no other one.

    now, then: the builds. Source: by definition.
    """
    one, other = (
        (build.booster.kind, getattr(build.booster, "diaphragm_diameters", None))
        for build in (now, then)
    )
    return one == other


def _between(
    before: tuple[str, ...], after: tuple[str, ...], *, same: bool
) -> tuple[tuple[str, ...], ...]:
    """Return what stays, goes and comes of two; same: of both."""
    if same and before:
        return before, (), ()
    return (), before, after


def _plugged(layout: Plumbing, plugs: set[str]) -> tuple[str, ...]:
    """Return the ports that new plugs are screwed into."""
    ends = [(line.start, line.to) for line in layout.lines]
    both = [pair for start, to in ends for pair in ((start, to), (to, start))]
    return tuple(other for end, other in both if end.partition(".")[0] in plugs)


def _abilities(build: Build) -> dict[str, bool]:
    """Return what a system can do besides braking, in words."""
    kinds = {part.kind for part in layout_of(build).parts}
    told = build.warning_switch in ("warns", "shuts") and build.plumbing is None
    shuttle = bool(kinds & {*TWO_SIDED}) or told
    return {
        LAMP: shuttle, SHUTTLE: shuttle,
        METERING: any(valve.holds_front_back for valve in build.valves.front),
        LESS_BEHIND: any(valve.reduces for valve in build.valves.rear),
        LIGHTS: "light-switch" in kinds,
    }  # fmt: skip


def _lost(now: Build, then: Build) -> tuple[str, ...]:
    had, has = _abilities(now), _abilities(then)
    return tuple(words for words, could in had.items() if could and not has[words])
