"""The document: one vehicle's brake system."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field, model_validator

from urgens.document.engine_drag import drag_at_road, driven_axle, passed_at_rest
from urgens.document.entry import Entry
from urgens.document.facts import Fluid, Known, SetUp, ShownUnits, twin_names
from urgens.document.heat import Heat
from urgens.document.kinds.boosters import Booster
from urgens.document.kinds.boosters.none import NoBooster
from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.document.kinds.cylinders import Master, cylinder_kind
from urgens.document.kinds.cylinders.kind import Split
from urgens.document.kinds.valves import Valves
from urgens.document.layout.layout import Id, Plumbing
from urgens.document.layout.volumes import LineVolumes
from urgens.document.ledger.history import HistoryEntry
from urgens.document.ledger.photographs import Photograph
from urgens.document.ledger.proof import Proof
from urgens.document.ledger.records import Joint, Noted, OpenItem, ProcedureRun
from urgens.document.ledger.traces import TraceRun
from urgens.document.model import DocumentModel, FluidVolume, Name, PartFault, Text
from urgens.document.numeric import NumericBuild
from urgens.document.pedal import Pedal
from urgens.document.room import Room
from urgens.document.targets import Targets
from urgens.document.vehicle import VehicleSection
from urgens.document.wheel_ends import WheelEnds, rolling_radius
from urgens.physics.atmosphere import air_pressure
from urgens.physics.axle import Axle
from urgens.quantity import PRESSURE, TORQUE, UnitSystem, retype

FORMAT = "urgens.build"
VERSION = 2
ROUNDING = 1e-9  # of a product of figures as typed: 0.75 × 0.8 is a little above 0.6

ShuttleVolume = Annotated[
    FluidVolume,
    Entry(
        "Fluid that shuts it",
        "push it with a rod, weigh what comes out",
        "Fluid that moves the switch's shuttle until it shuts the failed side",
    ),
]


class Build(DocumentModel):
    """One vehicle's brake system, as the builder typed it."""

    format: Literal["urgens.build"]
    version: Literal[2]
    name: Name
    notes: Text = ""
    vehicle: VehicleSection
    front: WheelEnds
    rear: WheelEnds
    pedal: Pedal
    booster: Booster = NoBooster()
    master: Master
    circuits: Split | None = None
    valves: Valves = Valves()
    lines: LineVolumes = LineVolumes()
    plumbing: Plumbing | None = None
    targets: Targets = Targets()
    fluid: Fluid | None = None
    brake_light_switch: Literal["pedal", "hydraulic", "none"] | None = None
    brake_light_switch_part: Id | None = None
    warning_switch: Literal["none", "warns", "shuts"] | None = None
    warning_switch_returns: Literal["self-centring", "latching"] | None = None
    shuttle_volume: ShuttleVolume | None = None
    parking_brake: Literal["rear", "front", "transmission", "none"] | None = None
    heat: Heat | None = None
    room: Room = Room()
    records: tuple[ProcedureRun, ...] = ()
    joints: tuple[Joint, ...] = ()
    open_items: tuple[OpenItem, ...] = ()
    noted: tuple[Noted, ...] = ()
    proof: Proof | None = None
    traces: tuple[TraceRun, ...] = ()
    history: tuple[HistoryEntry, ...] = ()
    photographs: tuple[Photograph, ...] = ()
    evidence: Known = Field(default_factory=dict, validate_default=True)
    setups: tuple[SetUp, ...] = ()
    units: ShownUnits = Field(default_factory=dict, validate_default=True)

    @model_validator(mode="before")
    @classmethod
    def _switch_in_two(cls, given: object) -> object:
        """Take switches that are written as records: what they do, and one thing more of each."""
        if not isinstance(given, dict):
            return given
        for name, first, more, beside in (
            ("warning_switch", "does", "returns", "warning_switch_returns"),
            ("brake_light_switch", "kind", "part", "brake_light_switch_part"),
        ):
            switch = given.get(name)
            if not isinstance(switch, dict) or switch.keys() - {first, more}:
                continue  # refused where it is looked at
            own = {} if switch.get(more) is None else {beside: switch[more]}
            given = {**given, name: switch.get(first), **own}
        return given

    def rules(self) -> Iterator[PartFault]:
        """Check that cylinder and circuits, vacuum and air go together."""
        fits = cylinder_kind(self.master).circuits
        if self.circuits is not None and self.circuits not in fits:
            wanted = " or ".join(f'"{circuits}"' for circuits in fits)
            yield PartFault(
                "circuits",
                f'"{self.circuits}" does not go with a {self.master.kind} cylinder',
                f"write {wanted}, or choose another cylinder",
            )
        yield from twin_names(self.setups)
        yield from self._corner_fits()
        yield from self._drag_fits()
        if isinstance(self.booster, VacuumBooster):
            yield from self._vacuum_fits(self.booster)

    def _corner_fits(self) -> Iterator[PartFault]:
        least = min(self.front.tyre.grip, self.rear.tyre.grip) * self.targets.surface
        if self.targets.corner >= least * (1.0 - ROUNDING):
            yield PartFault(
                "targets.corner",
                f"{self.targets.corner:g} g to the side leaves no grip to brake with: the tyres "
                f"have {least:g} on the target road",
                f"write a number below {least:g}",
            )

    def _drag_fits(self) -> Iterator[PartFault]:
        if not self.vehicle.engine_drag.value:
            return
        reading = NumericBuild(self)
        if drag_at_road(reading) >= passed_at_rest(reading) * (1.0 - ROUNDING):
            radius = rolling_radius(NumericBuild(self.axle(driven_axle(self.vehicle)).tyre))
            most = retype(float(passed_at_rest(reading) * radius), TORQUE, UnitSystem.METRIC, 3)
            yield PartFault(
                "vehicle.engine_drag",
                f'"{self.vehicle.engine_drag.text}" locks the driven wheels by itself on the '
                "target road",
                f'write the torque at the axle, below "{most}"',
            )

    def _vacuum_fits(self, booster: VacuumBooster) -> Iterator[PartFault]:
        ambient = float(air_pressure(self.vehicle.altitude.value))
        for name, vacuum in (("vacuum", booster.vacuum), ("pump", booster.pump)):
            if vacuum is None or vacuum.value <= ambient:
                continue
            most = retype(ambient, PRESSURE, UnitSystem.METRIC, 2)
            yield PartFault(
                f"booster.{name}",
                f'"{vacuum.text}" is more than the air presses at '
                f'"{self.vehicle.altitude.text}" of altitude',
                f'write the depression at idle, below "{most}"',
            )

    @property
    def split(self) -> Split:
        """The circuits, whether given or following from the cylinder."""
        return self.circuits or cylinder_kind(self.master).circuits[0]

    def axle(self, axle: Axle) -> WheelEnds:
        """Return the tyre and the brake at both ends of an axle."""
        return self.front if axle == Axle.FRONT else self.rear

    @property
    def natural_units(self) -> UnitSystem:
        """The units its builder thinks in, judged by the effort that was typed."""
        typed = self.targets.comfortable_effort.text.rstrip().lower()
        imperial = typed.endswith(("lbf", "lb", "lbs", "pounds", "pound"))
        return UnitSystem.INCH if imperial else UnitSystem.METRIC
