"""Other kinds of part: what a builder chooses from the head of a drawing."""

from collections.abc import Iterator

from PySide6.QtWidgets import QMenu, QToolButton

from urgens.document import BuildChange
from urgens.document.kinds.boosters import BOOSTERS
from urgens.document.kinds.boosters.kind import FittedBooster
from urgens.document.kinds.brakes import BRAKES, brake_kind
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.brakes.drum import Drum
from urgens.document.kinds.cylinders import CYLINDERS
from urgens.document.pad_ways import pad_ways
from urgens.guidance.thresholds import USUAL_SHOES
from urgens.physics.axle import AXLES, Axle
from urgens.ui.session import Session
from urgens.ui.stations.measure.shoes import ShoeDialog
from urgens.ui.widgets.bodies import BODIES
from urgens.ui.widgets.side_view import body_kind

MOST_PISTONS = 6
PRESSURES = {
    "uniform-wear": "Wear even over the pad: run in",
    "uniform-pressure": "Pressure even over the pad: new",
}
USES = ("street", "track", "drag", "restoration", "truck")
HOLDERS = {
    "retainer": "Pushrod held by a retainer",
    "insert": "Pushrod held by an insert",
    "none": "Pushrod held by nothing",
}


def brake_changes(session: Session, axle: Axle) -> Iterator[BuildChange]:
    """Yield what one axle's brakes can be made into."""
    place, brake = f"{axle}.brake", session.build.axle(axle).brake
    if isinstance(brake, Disc):
        yield from _disc_changes(place, brake)
        yield from pad_ways(session.build, axle, session.units)
    if isinstance(brake, Drum):
        yield from _drum_changes(place, brake)
    for record in BRAKES:
        if record.kind != brake.kind:
            words = f"{record.name}s instead (usual figures)"
            yield BuildChange.planning(words, {place: record.new})


def _disc_changes(place: str, brake: Disc) -> Iterator[BuildChange]:
    for caliper in ("sliding", "opposed"):
        if brake.caliper != caliper:
            yield BuildChange(f"{caliper.capitalize()} caliper", {f"{place}.caliper": caliper})
    pistons, sizes = f"{place}.piston_diameters", [d.text for d in brake.piston_diameters]
    if len(sizes) < MOST_PISTONS:
        yield BuildChange.planning("One more piston", {pistons: [*sizes, sizes[-1]]})
    if len(sizes) > 1:
        yield BuildChange("One piston fewer", {pistons: sizes[:-1]})
    if brake.pad_inner_radius is None or brake.effective_radius is not None:
        return
    for pressure, words in PRESSURES.items():
        if brake.pad_pressure != pressure:
            yield BuildChange(words, {f"{place}.pad_pressure": pressure})


def _drum_changes(place: str, brake: Drum) -> Iterator[BuildChange]:
    for layout, (low, high, *_) in USUAL_SHOES.items():
        if brake.layout == layout:
            continue
        values: dict[str, object] = {f"{place}.layout": layout}
        if brake.shoe_factor is not None:
            values[f"{place}.shoe_factor"] = round((low + high) / 2, 2)
        words = layout.replace("-", " and ") if layout == "leading-trailing" else layout
        yield BuildChange.planning(f"{words.capitalize()} shoes", values)


def _outlets(session: Session) -> Iterator[BuildChange]:
    """Yield where each circuit can leave the cylinder."""
    master = session.build.master
    now = [outlet.model_dump(mode="json", exclude_unset=True) for outlet in master.outlets]
    for circuit in AXLES:
        others = [outlet for outlet in now if outlet["circuit"] != circuit]
        for position in ("left", "right", "end"):
            outlet = {"circuit": circuit, "position": position}
            if outlet not in now:
                where = "at the end" if position == "end" else f"on the {position}"
                words = f"{circuit.capitalize()} outlet {where}"
                yield BuildChange(words, {"master.outlets": [*others, outlet]})


def pedal_changes(session: Session) -> Iterator[BuildChange]:
    """Yield what booster and cylinder can be made into."""
    build, master = session.build, session.build.master
    for record in BOOSTERS:
        if build.booster.kind != record.kind:
            usual = " (usual figures)" if record.assist is not None else ""
            yield BuildChange.planning(f"{record.name}{usual}", {"booster": record.new})
    if isinstance(build.booster, FittedBooster):
        lost = build.booster.working
        words = "Booster lost" if lost else "Booster working"
        yield BuildChange(words, {"booster.working": not lost})
    for holder, held in HOLDERS.items():
        if master.pushrod_held_by != holder:
            yield BuildChange(held, {"master.pushrod_held_by": holder})
    for pedal in ("manual", "booster"):
        if master.made_for != pedal:
            words = f"Cylinder made for a {pedal.replace('manual', 'manual pedal')}"
            yield BuildChange(words, {"master.made_for": pedal})
    yield from _outlets(session)
    for cylinder in CYLINDERS:
        if master.kind != cylinder.kind:
            part, split = {"master": cylinder.new(master)}, cylinder.circuits[0]
            yield BuildChange.planning(cylinder.name, part, circuits=split)


class BodyButton(QToolButton):
    """Which outline stands for the vehicle, and what it is used for."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.setProperty("role", "kind")
        self.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self)
        for kind in BODIES:
            self._add(menu, BuildChange(f"Drawn as a {kind}", {"vehicle.body": kind}))
        menu.addSeparator()
        for use in USES:
            self._add(menu, BuildChange(f"Used for {use}", {"vehicle.use": use}))
        self.setMenu(menu)
        session.solution_changed.connect(self.refresh)
        self.refresh()

    def _add(self, menu: QMenu, change: BuildChange) -> None:
        menu.addAction(change.label).triggered.connect(lambda: self._session.make(change))

    def refresh(self) -> None:
        """Say what is drawn now."""
        kind = body_kind(self._session.build)
        self.setText(kind)
        self.setAccessibleName(f"Vehicle drawn as a {kind}; choose another outline, or its use")


class KindButton(QToolButton):
    """The head of a drawing: what is fitted, and a menu of what it could be."""

    def __init__(self, session: Session, axle: Axle | None) -> None:
        super().__init__()
        self._session, self._axle = session, axle
        self.setProperty("role", "kind")
        self.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self)
        menu.aboutToShow.connect(self.fill)
        self.setMenu(menu)
        session.solution_changed.connect(self.refresh)
        self.refresh()

    @property
    def words(self) -> str:
        """What is fitted, in a few words."""
        build = self._session.build
        if self._axle is None:
            boost = "no booster" if not build.booster.fitted else f"{build.booster.kind} booster"
            return f"{boost}, {build.master.kind} cylinder"
        brake = build.axle(self._axle).brake
        return brake_kind(brake).words(brake)

    def refresh(self) -> None:
        """Say what is fitted now."""
        self.setText(self.words)
        name = "Pedal" if self._axle is None else f"{self._axle.capitalize()} brake"
        self.setAccessibleName(f"{name}: {self.words}; choose another kind")

    def fill(self) -> None:
        """Offer what it could be."""
        menu = self.menu()
        menu.clear()
        session, axle = self._session, self._axle
        changes = pedal_changes(session) if axle is None else brake_changes(session, axle)
        for change in changes:
            action = menu.addAction(change.label)
            action.triggered.connect(lambda _=False, one=change: session.make(one))
        if axle is not None and session.build.axle(axle).brake.has_shoes:
            action = menu.addAction("Factor against friction, and the shoes…")
            action.triggered.connect(lambda: ShoeDialog(session, axle, self.window()).exec())
