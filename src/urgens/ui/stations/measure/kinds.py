"""Other kinds of part: what a builder chooses from the head of a drawing."""

from collections.abc import Iterator, Mapping

from PySide6.QtWidgets import QMenu, QToolButton

from urgens.document.booster import HydraulicBooster, VacuumBooster
from urgens.document.facts import only_assumed
from urgens.document.master import TwinMaster
from urgens.document.wheel import Disc, Drum
from urgens.guidance.practice import USUAL_SHOES
from urgens.quantity import LENGTH, retype
from urgens.solve.system import disc_radius
from urgens.ui.session import Session
from urgens.ui.stations.measure.shoes import ShoeDialog
from urgens.ui.widgets.bodies import BODIES
from urgens.ui.widgets.side_view import body_kind

Change = tuple[str, dict[str, object]]  # what it is called, and the edits

MOST_PISTONS = 6
NEW_DISC = {
    "kind": "disc",
    "caliper": "sliding",
    "piston_diameters": ["54 mm"],
    "pad_friction": 0.40,
    "effective_radius": "110 mm",
}
NEW_DRUM = {
    "kind": "drum",
    "layout": "leading-trailing",
    "cylinder_diameter": "3/4 in",
    "drum_diameter": "9 in",
    "shoe_factor": 2.2,
}
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
NEW_BOOSTERS: dict[str, dict[str, object]] = {
    "none": {"kind": "none"},
    "vacuum": {
        "kind": "vacuum",
        "diaphragm_diameters": ["8 in"],
        "vacuum": "18 inHg",
        "gain": 3.0,
    },
    "hydraulic": {"kind": "hydraulic", "gain": 4.0, "max_assist": "2500 N"},
}


def brake_changes(session: Session, axle: str) -> Iterator[Change]:
    """Yield what one axle's brakes can be made into."""
    place, brake = f"{axle}.brake", getattr(session.build, axle).brake
    if isinstance(brake, Disc):
        for caliper in ("sliding", "opposed"):
            if brake.caliper != caliper:
                yield f"{caliper.capitalize()} caliper", {f"{place}.caliper": caliper}
        sizes = [d.text for d in brake.piston_diameters]
        if len(sizes) < MOST_PISTONS:
            yield "One more piston", {f"{place}.piston_diameters": [*sizes, sizes[-1]]}
        if len(sizes) > 1:
            last = f"{place}.piston_diameters[{len(sizes) - 1}]"
            yield (
                "One piston fewer",
                {f"{place}.piston_diameters": sizes[:-1], "evidence": session.known_but(last)},
            )
        if brake.pad_inner_radius is None:
            yield "Pad by its two radii", _annulus(session, place, brake)
        else:
            for pressure, words in PRESSURES.items():
                if brake.pad_pressure != pressure:
                    yield words, {f"{place}.pad_pressure": pressure}
        yield "Drum brakes instead (figures assumed)", _instead(session, place, NEW_DRUM)
        return
    for layout, (low, high, *_) in USUAL_SHOES.items():
        if brake.layout != layout:
            changes: dict[str, object] = {f"{place}.layout": layout}
            if brake.shoe_factor is not None:
                changes[f"{place}.shoe_factor"] = round((low + high) / 2, 2)
                changes[f'evidence["{place}.shoe_factor"]'] = {"state": "assumed"}
            words = layout.replace("-", " and ") if layout == "leading-trailing" else layout
            yield f"{words.capitalize()} shoes", changes
    yield "Disc brakes instead (figures assumed)", _instead(session, place, NEW_DISC)


def _annulus(session: Session, place: str, brake: Disc) -> dict[str, object]:
    """Return the edits that describe a pad by its radii, about those it had."""
    radius = disc_radius(brake)
    high = brake.pad_height.value if brake.pad_height is not None else 0.3 * radius
    dropped = ("effective_radius", "rotor_outer_diameter", "pad_height")
    part = brake.model_dump(mode="json", exclude_unset=True)
    kept = {name: value for name, value in part.items() if name not in dropped}
    units, known = session.units, session.known_but(f"{place}.")
    for path, said in session.base.evidence.items():
        if path.startswith(f"{place}.") and path.rpartition(".")[2] not in dropped:
            known[path] = said.model_dump(mode="json", exclude_unset=True)
    for end, at in (("inner", radius - high / 2), ("outer", radius + high / 2)):
        kept[f"pad_{end}_radius"] = retype(at, LENGTH, units)
        known[f"{place}.pad_{end}_radius"] = {"state": "assumed"}
    return {place: kept, "evidence": known}


def _instead(session: Session, place: str, part: Mapping[str, object]) -> dict[str, object]:
    """Return the edits that put a part in a place, and forget what was known about the old one."""
    return {
        place: part,
        "evidence": {**session.known_but(f"{place}."), **only_assumed(place, part)},
    }


def _outlets(session: Session) -> Iterator[Change]:
    """Yield where each circuit can leave the cylinder."""
    master = session.build.master
    now = [outlet.model_dump(mode="json", exclude_unset=True) for outlet in master.outlets]
    for circuit in ("front", "rear"):
        others = [outlet for outlet in now if outlet["circuit"] != circuit]
        for position in ("left", "right", "end"):
            outlet = {"circuit": circuit, "position": position}
            if outlet not in now:
                where = "at the end" if position == "end" else f"on the {position}"
                words = f"{circuit.capitalize()} outlet {where}"
                yield words, {"master.outlets": [*others, outlet]}


def pedal_changes(session: Session) -> Iterator[Change]:
    """Yield what booster and cylinder can be made into."""
    build = session.build
    for kind, part in NEW_BOOSTERS.items():
        if build.booster.kind != kind:
            words = {"none": "No booster", "vacuum": "Vacuum booster (figures assumed)"}
            yield (
                words.get(kind, "Hydraulic booster (figures assumed)"),
                _instead(session, "booster", part),
            )
    if isinstance(build.booster, VacuumBooster | HydraulicBooster):
        lost = build.booster.working
        yield ("Booster lost" if lost else "Booster working"), {"booster.working": not lost}
    master = build.master
    for holder, held in HOLDERS.items():
        if master.pushrod_held_by != holder:
            yield held, {"master.pushrod_held_by": holder}
    for pedal in ("manual", "booster"):
        if master.made_for != pedal:
            yield (
                f"Cylinder made for a {pedal.replace('manual', 'manual pedal')}",
                {"master.made_for": pedal},
            )
    yield from _outlets(session)
    bore = master.front_bore.text if isinstance(master, TwinMaster) else master.bore.text
    for kind in ("single", "tandem"):
        if master.kind != kind:
            split = "single" if kind == "single" else "front-rear"
            one_bore = {"kind": kind, "bore": bore, "stroke": master.stroke.text}
            changes = _instead(session, "master", one_bore)
            yield f"{kind.capitalize()} cylinder", {"circuits": split, **changes}
    if not isinstance(master, TwinMaster):
        twin = {"kind": "twin", "front_bore": bore, "rear_bore": bore}
        changes = _instead(session, "master", twin)
        yield "Twin cylinders with a bar", {"circuits": "front-rear", **changes}


class BodyButton(QToolButton):
    """Which outline stands for the vehicle, and what it is used for."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.setProperty("role", "kind")
        self.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self)
        for kind in BODIES:
            self._add(menu, f"Drawn as a {kind}", {"vehicle.body": kind})
        menu.addSeparator()
        for use in USES:
            self._add(menu, f"Used for {use}", {"vehicle.use": use})
        self.setMenu(menu)
        session.told.connect(self.refresh)
        self.refresh()

    def _add(self, menu: QMenu, words: str, changes: dict[str, object]) -> None:
        menu.addAction(words).triggered.connect(lambda: self._session.try_all(changes, words))

    def refresh(self) -> None:
        """Say what is drawn now."""
        kind = body_kind(self._session.build)
        self.setText(kind)
        self.setAccessibleName(f"Vehicle drawn as a {kind}; choose another outline, or its use")


class KindButton(QToolButton):
    """The head of a drawing: what is fitted, and a menu of what it could be."""

    def __init__(self, session: Session, axle: str | None) -> None:
        super().__init__()
        self._session, self._axle = session, axle
        self.setProperty("role", "kind")
        self.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self)
        menu.aboutToShow.connect(self.fill)
        self.setMenu(menu)
        session.told.connect(self.refresh)
        self.refresh()

    @property
    def words(self) -> str:
        """What is fitted, in a few words."""
        build = self._session.build
        if self._axle is None:
            boost = (
                "no booster" if build.booster.kind == "none" else f"{build.booster.kind} booster"
            )
            return f"{boost}, {build.master.kind} cylinder"
        brake = getattr(build, self._axle).brake
        if isinstance(brake, Disc):
            count = len(brake.piston_diameters) * (2 if brake.caliper == "opposed" else 1)
            return f"{brake.caliper}, {count} piston{'s' if count > 1 else ''}"
        return f"drum, {brake.layout}"

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
        for words, edits in changes:
            action = menu.addAction(words)
            action.triggered.connect(lambda _=False, e=edits, w=words: session.try_all(e, w))
        if axle is not None and isinstance(getattr(session.build, axle).brake, Drum):
            action = menu.addAction("Factor against friction, and the shoes…")
            action.triggered.connect(lambda: ShoeDialog(session, axle, self.window()).exec())
