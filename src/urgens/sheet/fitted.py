"""What is fitted, part by part, in one unit system; what nobody found out is marked."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from urgens.document import Build, value_at
from urgens.document.catalogue import NOTHING, Figure, column_name, counting, named
from urgens.document.circuits import warned
from urgens.document.edits.edit import dumped
from urgens.document.facts import given
from urgens.document.kinds.boosters import booster_kind
from urgens.document.kinds.boosters.none import NoBooster
from urgens.document.kinds.brakes import brake_kind
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.brakes.drum import Drum
from urgens.document.kinds.cylinders import cylinder_kind
from urgens.document.kinds.valves import kind_of
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.physics.axle import Axle
from urgens.physics.valve import adjusted_knee
from urgens.quantity import PRESSURE, ShownFigure, Units, UnitSystem, show, shown
from urgens.sheet.table import MARKS, Cell

Row = tuple[str, str]
Parts = tuple[tuple[str, tuple[Row, ...]], ...]


@dataclass(frozen=True)
class FittedRows:
    """Parts by place with their rows; what nobody found out by path, and how many there are."""

    parts: Parts
    unseen: Mapping[str, str]  # assumed or planned
    figures: int

    def count(self, known: str) -> int:
        """Return how many figures are assumed, or planned."""
        return sum(one == known for one in self.unseen.values())


def fitted(build: Build, units: UnitSystem | Units) -> FittedRows:
    """Return the parts of `build` by place, each with its figures in `units`."""
    return _Said(build, units).all()


class _Said:
    """A build's figures in words, and what is known of each."""

    def __init__(self, build: Build, units: UnitSystem | Units) -> None:
        self.build = build
        self._units = units if isinstance(units, Units) else Units(units)
        self._typed = set(given("", dumped(build)))
        self._figures = [one for one in counting(build) if self._counts(one)]
        said = {one.path: self._said_of(one.path) for one in self._figures}
        self._unseen = {path: known for path, known in said.items() if known in MARKS}

    def all(self) -> FittedRows:
        """Return everything, in the order in which a builder goes through it."""
        parts = (
            ("Vehicle", (*self._vehicle(), *self._under("vehicle.", but=("vehicle.load_cases",)))),
            ("Pedal", tuple(self._under("pedal."))),
            ("Booster", tuple(self._booster())),
            ("Cylinder and circuits", tuple(self._cylinder())),
            ("Front", tuple(self._axle(Axle.FRONT))),
            ("Rear", tuple(self._axle(Axle.REAR))),
            ("Lines, fluid, switches", tuple(self._lines())),
            ("Layout", tuple(self._layout())),
            ("Wanted", tuple(self._under("targets."))),
            ("Heat", tuple(self._under("heat."))),
        )
        kept = tuple((place, rows) for place, rows in parts if rows)
        return FittedRows(kept, self._unseen, len(self._figures))

    # --- figures -----------------------------------------------------------------------------

    def _is_given(self, path: str) -> bool:
        return f".{path}" in self._typed

    def _counts(self, figure: Figure) -> bool:
        """Tell whether a figure says something: typed, marked, or a default that does something."""
        if figure.value is None or figure.path.endswith(".name") or ".route[" in figure.path:
            return False  # a route stands in the bend sheet
        if self._is_given(figure.path) or figure.path in self.build.evidence:
            return True
        return isinstance(figure.value, str) or figure.number not in NOTHING

    def _said_of(self, path: str) -> str:
        known = self.build.evidence.get(path)
        if known is not None:
            return known.state
        return "" if self._is_given(path) else "assumed"

    def figure(self, figure: Figure) -> str:
        """Return a figure in the units of the sheet, marked where nobody found it out."""
        read = shown(figure.value, figure.kind, figure.shown_in(self._units))
        counted = counted_in(self.build, figure.path)
        read = ShownFigure(read.number, counted) if counted else read
        return Cell(read, self._unseen.get(figure.path, ""))

    def _at(self, path: str) -> str:
        return self.figure(next(one for one in self._figures if one.path == path))

    def _under(self, place: str, but: Sequence[str] = ()) -> Iterator[Row]:
        """Yield the figures under a place, those of a list in one row."""
        rows: dict[str, list[str]] = {}
        for one in self._figures:
            if one.path.startswith(place) and not one.path.startswith(tuple(but) or ("\0",)):
                label = one.entry.column if one.path.endswith("]") else self._label(one.path)
                rows.setdefault(label, []).append(self.figure(one))
        for label, values in rows.items():
            yield label, values[0] if len(values) == 1 else ", ".join(values)

    def _label(self, path: str) -> str:
        """Return what a figure is called in its part; the booster and its room are two things."""
        whole = path.startswith("booster.") and path.count(".") > 1
        return named(self.build, path) if whole else column_name(self.build, path)

    def _choice(self, label: str, path: str) -> Iterator[Row]:
        """Yield what is chosen of a few words, where it is said."""
        found: Any = value_at(self.build, path)
        if found is not None:
            yield label, str(found)

    # --- parts -------------------------------------------------------------------------------

    def _vehicle(self) -> Iterator[Row]:
        yield "Used as", self.build.vehicle.use
        for index, case in enumerate(self.build.vehicle.load_cases):
            place = f"vehicle.load_cases[{index}]"
            front, rear, high = (
                self._at(f"{place}.{name}") for name in ("front_axle", "rear_axle", "cg_height")
            )
            yield case.name, f"{front} front, {rear} rear, centre of gravity {high} high"
        if self.build.vehicle.launch is not None:
            yield "Driven", self.build.vehicle.launch.driven

    def _booster(self) -> Iterator[Row]:
        booster = self.build.booster
        yield "Kind", booster_kind(booster).name
        if not isinstance(booster, NoBooster):
            if not booster.works:
                yield "State", "not working"
            yield from self._under("booster.")

    def _cylinder(self) -> Iterator[Row]:
        master = self.build.master
        yield "Kind", cylinder_kind(master).name
        yield "Circuits", self.build.split
        yield from self._under("master.", but=("master.outlets",))
        yield from self._choice("Made for", "master.made_for")
        yield from self._choice("Pushrod held by", "master.pushrod_held_by")
        yield from self._choice("Sits", "master.mounting")
        if "primary_feeds" in type(master).model_fields:
            yield from self._choice("Primary feeds", "master.primary_feeds")
        for index, outlet in enumerate(master.outlets):
            where = "" if outlet.position is None else f", at the {outlet.position}"
            kept = ""
            if outlet.residual is not None:
                kept = f", residual {self._at(f'master.outlets[{index}].residual')}"
            yield f"Outlet {index + 1}", f"{outlet.circuit} circuit{where}{kept}"

    def _axle(self, axle: Axle) -> Iterator[Row]:
        brake = self.build.axle(axle).brake
        yield from self._under(f"{axle}.tyre.")
        kind = brake_kind(brake)
        yield kind.name, kind.words(brake)
        yield from self._under(f"{axle}.brake.")
        if isinstance(brake, Drum) and brake.shoe_factor is None:
            yield "Shoe factor, from its shoes", f"{brake.factor:.3g}"
        if isinstance(brake, Drum):
            cups = {None: "not given", True: "fitted", False: "none"}
            yield "Cup expanders", cups[brake.cup_expanders]
        if isinstance(brake, Disc) and brake.pad_inner_radius is not None:
            yield "Pad pressed", brake.pad_pressure.replace("-", " ")
        if isinstance(brake, Disc) and brake.seal is not None:
            yield "Seals of the pistons", brake.seal.replace("-", " ")
        valves = self.build.valves.of(axle)
        for index, valve in enumerate(valves):
            body = f", in {valve.body}" if valve.body else ""
            place = f"valves.{axle}[{index}]"
            yield f"Valve {index + 1}", f"{kind_of(valve).name.lower()}{body}"
            yield from self._under(f"{place}.", but=(f"{place}.table",))
            if isinstance(valve, Adjustable):
                knees = [knee.value for _, knee in valve.table]
                knee = float(adjusted_knee(valve.turns, valve.settings, knees))
                yield (
                    f"Knee at {valve.turns:g} {valve.counted}",
                    Cell(show(knee, PRESSURE, self._units)),
                )
        if not valves:
            yield "Valve", "none"

    def _layout(self) -> Iterator[Row]:
        """Yield the figures of the layout's parts and of the bench; lines have a table."""
        for one in self._figures:
            if one.path.startswith("plumbing.") and not one.path.startswith("plumbing.lines["):
                yield named(self.build, one.path), self.figure(one)
        of_lines = (".bend_radius", ".torque")
        made = [
            one for one in self._figures
            if one.path.startswith("plumbing.lines[") and one.path.endswith(of_lines)
        ]  # fmt: skip
        for one in made:
            yield named(self.build, one.path), self.figure(one)

    def _lines(self) -> Iterator[Row]:
        build = self.build
        yield from self._under("lines.")
        if build.fluid is not None:
            since = "" if build.fluid.filled is None else f", filled {build.fluid.filled}"
            yield "Fluid", f"{build.fluid.grade}{since}"
        else:
            yield "Fluid", "not given"
        yield "Brake-light switch", build.brake_light_switch or "not given"
        laid = "in the layout, its kind not given" if warned(build) else "not given"
        returns = build.warning_switch_returns
        yield "Warning switch", (build.warning_switch or laid) + (f", {returns}" if returns else "")
        yield from self._under("shuttle_volume")
        yield "Parking brake", build.parking_brake or "not given"


def counted_in(build: Build, path: str) -> str:
    """Return what a setting counts, turns or notches; nothing for any other figure.

    path: of one of its figures [text].
    """
    return (
        str(value_at(build, path.removesuffix("turns") + "counted"))
        if path.endswith(".turns")
        else ""
    )


def known_words(rows: FittedRows) -> str:
    """Return what stands on top of the sheet about figures that nobody found out."""
    if not rows.unseen:
        return "Every figure on this sheet was typed by its builder."
    told = []
    assumed, planned = rows.count("assumed"), rows.count("planned")
    if assumed:
        told.append(
            f"{assumed} of {rows.figures} figures are only assumed, and marked{MARKS['assumed']}: "
            "what follows from them is a guess until they are measured."
        )
    if planned:
        told.append(
            f"{planned} of {rows.figures} are planned, and marked{MARKS['planned']}: chosen here, "
            "and seen by nobody on the vehicle."
        )
    return " ".join(told)
