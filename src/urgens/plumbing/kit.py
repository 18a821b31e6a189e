"""What one takes to the counter for a layout: counted, estimated where it is not routed yet."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from math import ceil

from urgens.document.build import Build
from urgens.document.circuits import circuits_of
from urgens.document.laid_fluid import laid_fluid
from urgens.document.layout.layout import BrakeLine, FittedPart
from urgens.document.layout.line_sheets import MadeLine, routed, tube_of
from urgens.document.practice import practice
from urgens.physics.axle import AXLES
from urgens.plumbing.bought_parts import of_parts, of_vehicle
from urgens.plumbing.conversion import conversion, layout_of, new_lines
from urgens.plumbing.cut_list import to_buy
from urgens.plumbing.estimate import estimated_lengths
from urgens.plumbing.needed import SHELVES, Needed
from urgens.plumbing.plan_shapes import LayoutPlan
from urgens.plumbing.shopping import Cut, cut_from, fittings_on
from urgens.quantity import Quantity

CLIP_EACH = practice()["clip_spacing"].value  # m of line
SPARE = 0.1  # of nuts and tube; common practice: a line is spoilt now and then
FLUSH = 3.0  # times what lines and hoses hold: filled, bled and flushed; common practice
BOTTLE = 0.5e-3  # m³, as it is usually sold
SPARED = ("nut ", "copper washer")  # of which a spare is bought
ESTIMATED = "estimated from the drawing and the wheelbase"
OPENED = ("cylinder", "booster", "brakes", "calipers", "wheel cylinders")  # for which it is opened
NOT_BOUGHT = ("master", "wheel-brake")  # with the layout: they are told by the build


@dataclass(frozen=True)
class BuyingList:
    """Rows in the order of a shop, how tube is cut for them, and in words what is not counted."""

    rows: tuple[Needed, ...]
    cut: tuple[Cut, ...] = ()
    not_counted: tuple[str, ...] = ()


def buying_list(
    build: Build,
    stock: float,
    saw: float = 0.0,
    *,
    before: Build | None = None,
    plan: LayoutPlan | None = None,
) -> BuyingList:
    """Return everything that is bought for a layout.

    build: with a layout; stock: length that is sold [m]; saw: lost in a cut [m];
    before: what the vehicle is now, where this is what it is to be: what stays is left out; plan:
    of the layout, else it is laid out where a line has no route.
    What is said to stay, and lines that are made, are left out as well.
    Raises TooLongError where a line is longer than what is sold.
    Source: common practice for spares, clips and fluid; the layout for the rest.
    """
    laid = circuits_of(build)
    assert laid is not None
    lines = _lines(build, before)
    parts = _parts(build, before)
    made = tuple(one for one in routed(laid.plumbing) if one.line in lines)
    cut = cut_from(made, stock, saw)
    estimated = {k: v for k, v in estimated_lengths(laid, plan).items()
                 if k in {line.id for line in lines}}  # fmt: skip
    vehicle = tuple(of_vehicle(build, before))
    opened = before is None or lines or parts or any(row.item.endswith(OPENED) for row in vehicle)
    rows = [
        *vehicle,
        *of_parts(laid, parts),
        *_tube(lines, cut, estimated, stock),
        *_small(lines, parts, made, estimated),
        *_fluid(build, any_opened=bool(opened)),
    ]
    rows.sort(key=lambda row: SHELVES.index(row.shelf))
    return BuyingList(tuple(rows), cut, tuple(_not_counted(lines, made, estimated)))


def _lines(build: Build, before: Build | None) -> tuple[BrakeLine, ...]:
    """Return the lines of tube that are made for it."""
    found: Iterable[BrakeLine] = layout_of(build).lines if before is None else new_lines(
        before, build
    )  # fmt: skip
    return tuple(line for line in found if not (line.direct or line.stays or line.made))


def _parts(build: Build, before: Build | None) -> tuple[FittedPart, ...]:
    """Return the parts of the layout that are bought for it."""
    parts = layout_of(build).parts
    new = {part.id for part in parts}
    if before is not None:
        found = conversion(before, build)
        new -= set(found.stays)
    return tuple(
        part for part in parts
        if part.kind not in NOT_BOUGHT and (
            part.stays is False or (part.id in new and not part.stays)
        )
    )  # fmt: skip


# --- tube, small parts, fluid ------------------------------------------------------------------


def _tube(
    lines: Sequence[BrakeLine], cut: Sequence[Cut], estimated: Mapping[str, float], stock: float
) -> Iterator[Needed]:
    """Yield tube by its size: what is cut, and about what lines without a route will take."""
    sizes: dict[float, tuple[Quantity, int, float]] = {}
    for tube, sticks in cut:
        sizes[round(tube.value, 6)] = tube, to_buy(sticks, stock, SPARE), sum(
            length for stick in sticks for _, length in stick.pieces
        )  # fmt: skip
    more: dict[float, float] = {}
    for line in lines:
        if line.tube is not None and line.id in estimated:
            size = round(line.tube.value, 6)
            sizes.setdefault(size, (line.tube, 0, 0.0))
            more[size] = more.get(size, 0.0) + estimated[line.id]
    for size, (tube, sticks_, length) in sorted(sizes.items()):
        about = more.get(size, 0.0)
        count = max(sticks_, ceil((length + about) * (1.0 + SPARE) / stock - 1e-9))
        why = "with 10 % spare" if not about else f"with 10 % spare, {ESTIMATED}"
        yield Needed(f"{tube.text} tube", count, "lengths", why, "Tube and nuts",
                     "copper-nickel or coated steel, for brakes")  # fmt: skip
    for item, count in sorted(fittings_on(lines).items()):
        nut = item.startswith(SPARED)
        spare = ceil(count * SPARE) if nut else 0
        why = f"{spare} spare" if spare else ""
        yield Needed(item, count + spare, "", why, "Tube and nuts" if nut else "Small parts")


def _small(
    lines: Sequence[BrakeLine],
    parts: Sequence[FittedPart],
    made: Sequence[MadeLine],
    estimated: Mapping[str, float],
) -> Iterator[Needed]:
    """Yield washers and clips."""
    washers = sum(part.washers_wanted for part in parts if part.kind == "banjo")
    if washers:
        spare = ceil(washers * SPARE)
        yield Needed("copper washer", washers + spare, "", f"{spare} spare", "Small parts",
                     "soft, of the bolt's size")  # fmt: skip
    lengths = [one.length for one in made if one.sheet is not None]
    clips = sum(int(length // CLIP_EACH) for length in (*lengths, *estimated.values()))
    if clips:
        why = "spaced as is usual" + (f", {ESTIMATED}" if estimated else "")
        yield Needed("clip", clips, "", why, "Small parts")


def _fluid(build: Build, *, any_opened: bool) -> Iterator[Needed]:
    if not any_opened:
        return
    held = [laid_fluid(build).of(axle).fluid for axle in AXLES]
    known = [one for one in held if one is not None]
    told = len(known) == len(held)
    whole = sum(known) if told else len(held) * build.lines.fluid_volume.value / FLUSH
    grade = "" if build.fluid is None else build.fluid.grade
    why = "fill, bleed and flush" + ("" if told else ", estimated: not every line has a route")
    yield Needed("bottle of fluid, 0.5 l", max(ceil(FLUSH * whole / BOTTLE), 1), "", why, "Fluid",
                 f"{grade}, sealed, of this year".strip(", "))  # fmt: skip


def _not_counted(
    lines: Sequence[BrakeLine], made: Sequence[MadeLine], estimated: Mapping[str, float]
) -> Iterator[str]:
    """Yield in words what a list of this kind cannot have."""
    known = {one.line.id for one in made if one.sheet is not None} | set(estimated)
    lost = [line.id.removeprefix("L") for line in lines if line.id not in known]
    if lost:
        yield f"tube of line{'s' if len(lost) > 1 else ''} {', '.join(lost)}: no length is known"
    bare = [line.id.removeprefix("L") for line in lines if tube_of(line) is None]
    if bare:
        yield f"nuts and tube of line{'s' if len(bare) > 1 else ''} {', '.join(bare)}: its tube " \
              "is not known"  # fmt: skip
    if lines:
        yield "grommets where a line crosses a panel, but for those that are typed with a line"
