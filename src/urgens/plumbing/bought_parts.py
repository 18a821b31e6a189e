"""What is bought of cylinder, booster, brakes and the parts of a layout, with what goes with it."""

from collections import Counter
from collections.abc import Iterator, Sequence

from urgens.document.build import Build
from urgens.document.circuits import SINKS, Circuits
from urgens.document.kinds.valves import kind_of
from urgens.document.layout.layout import FittedPart
from urgens.physics.axle import AXLES
from urgens.plumbing.conversion import brake_items, layout_of, same_booster, same_cylinder
from urgens.plumbing.needed import SHELF_OF, SHELVES, Needed
from urgens.quantity import PRESSURE, show

FOLLOWS_PEDAL = ("pivot_to_pushrod", "pivot_to_pad")


# --- cylinder, booster, brakes ---------------------------------------------------------------


def of_vehicle(build: Build, before: Build | None) -> Iterator[Needed]:
    """Yield what is new of cylinder, booster and brakes, with what goes with it.

    build: as it is to be; before: as it is, None where only what is said to be new counts.
    Source: common practice.
    """
    marked = [part for part in layout_of(build).parts if part.stays is False]
    first = SHELVES[0]
    cylinder = any(part.kind == "master" for part in marked)
    booster = False
    if before is not None:
        cylinder = cylinder or not same_cylinder(before, build)
        booster = build.booster.fitted and not same_booster(before, build)
    if cylinder:
        count = 2 if build.master.has_bar else 1
        yield Needed("cylinder", count, "", "", first, _of_cylinder(build))
        if build.master.has_bar:
            yield Needed("balance bar", 1, "", "between the two rods", first)
    if booster:
        yield Needed("booster", 1, "", "", first, "its rod's reach against the cylinder's socket")
        yield Needed("booster's link", 1, "", "from its rod to the pedal", first)
    if cylinder or booster or _pin_moved(before, build):
        yield Needed("clevis pin", 1, "", "with its clip; never a bolt", SHELVES[6])
    if cylinder or booster:
        yield from _rod_parts(build)
    if before is not None and build.brake_light_switch == "pedal" != before.brake_light_switch:
        yield Needed("brake-light switch at the pedal", 1, "", "", SHELVES[2])
        yield Needed("bracket of the brake-light switch", 1, "", "", SHELVES[6])
    for axle in AXLES:
        brakes = [p for p in marked if p.wheel is not None and p.wheel.startswith(axle)]
        item = brake_items(before, build, axle) if before is not None else ""
        if not item and brakes:
            item = "calipers" if build.axle(axle).brake.has_pads else "wheel cylinders"
        if item:
            side = "left and right: a bleed screw has to come to the top"
            yield Needed(f"{axle} {item}", 1, "axle sets", "", SHELVES[1], side)
        if before is not None and before.axle(axle).tyre != build.axle(axle).tyre:
            yield Needed(f"{axle} tyres", 2, "", "", SHELVES[1])


def _rod_parts(build: Build) -> Iterator[Needed]:
    """Yield what keeps a pushrod in its cylinder: common practice."""
    master = build.master
    if build.booster.fitted:
        return
    if master.made_for == "booster" and master.pushrod_held_by != "insert":
        yield Needed("socket insert", 1, "", "the socket is a booster's: deep, for a manual rod",
                     SHELVES[6])  # fmt: skip
    if master.pushrod_held_by in (None, "none"):
        yield Needed("pushrod retainer", 1, "", "without it the rod falls out as the pedal is "
                     "pulled up", SHELVES[6])  # fmt: skip


def _pin_moved(before: Build | None, build: Build) -> bool:
    return before is not None and any(
        getattr(before.pedal, name) != getattr(build.pedal, name) for name in FOLLOWS_PEDAL
    )


def _of_cylinder(build: Build) -> str:
    part = next((p for p in layout_of(build).parts if p.kind == "master"), None)
    return "bore, stroke, socket, flange" + ("" if part is None else f"; {_faces(part)}")


# --- the layout's own --------------------------------------------------------------------------


def of_parts(laid: Circuits, parts: Sequence[FittedPart]) -> Iterator[Needed]:
    """Yield what is new of the layout: alike of a kind together, unlike ones apart.

    laid: the layout; parts: of it, that are new. Source: by definition.
    """
    groups: dict[tuple[str, str], list[FittedPart]] = {}
    for part in parts:
        groups.setdefault((part.kind, _what(laid, part)), []).append(part)
    kinds = Counter(kind for kind, _ in groups)
    for (kind, what), alike in groups.items():
        item = kind if kinds[kind] == 1 else f"{kind} {what}"
        yield Needed(item, len(alike), "", "", SHELF_OF.get(kind, "Fittings"), what)


def _what(laid: Circuits, part: FittedPart) -> str:
    """Return what one part is told from others of its kind by: its ports, its figure."""
    told = [_faces(part)]
    if part.kind == "hose" and part.free_length is not None:
        told.append(f"{part.free_length.text} free")
    if part.kind in SINKS and part.full_scale is not None:
        told.append(f"to {part.full_scale.text}")
    figures = _valve_figures(laid.build, part)
    return ", ".join(filter(None, (*told, figures)))


def _faces(part: FittedPart) -> str:
    """Return the threads and seats of a part's ports, alike ones counted."""
    faces = Counter(f"{port.thread} {port.seat or ''}".strip() for port in part.ports.values()
                    if port.thread is not None)  # fmt: skip
    return ", ".join(f"{count} × {face}" if count > 1 else face for face, count in faces.items())


def _valve_figures(build: Build, part: FittedPart) -> str:
    """Return the figures by which a valve is matched: its knee and slope, or what it keeps."""
    for axle, index, valve in build.valves.placed():
        if part.valve == f"{axle}[{index}]":
            units = build.natural_units
            knee, slope = getattr(valve, "knee", None), getattr(valve, "slope", None)
            keeps = getattr(valve, "pressure", None)
            told = [f"knee {show(knee.value, PRESSURE, units)}"] if knee is not None else []
            told += [f"slope {slope:g}"] if slope is not None else []
            told += [f"keeps {show(keeps.value, PRESSURE, units)}"] if keeps is not None else []
            return ", ".join(told) or kind_of(valve).name.lower()
    return ""
