"""The document: one vehicle's brake system."""

from collections.abc import Iterator
from typing import Literal

from urgens.document.booster import Booster, NoBooster, VacuumBooster
from urgens.document.facts import Evidence, Fluid, SetUp, twin_names
from urgens.document.heat import Heat
from urgens.document.lines import Lines
from urgens.document.master import Master
from urgens.document.part import Fault, FluidVolume, Name, Part, Text
from urgens.document.pedal import Pedal
from urgens.document.targets import Targets
from urgens.document.valves import Valves
from urgens.document.vehicle import Vehicle
from urgens.document.wheel import Axle
from urgens.physics.atmosphere import air_pressure
from urgens.quantity import PRESSURE, UnitSystem, retype

FITTING_CIRCUITS = {
    "single": ("single",),
    "tandem": ("front-rear", "diagonal"),
    "twin": ("front-rear",),
}
FORMAT = "urgens.build"
VERSION = 1


class Build(Part):
    """One vehicle's brake system, as the builder typed it."""

    format: Literal["urgens.build"]
    version: Literal[1]
    name: Name
    notes: Text = ""
    vehicle: Vehicle
    front: Axle
    rear: Axle
    pedal: Pedal
    booster: Booster = NoBooster()
    master: Master
    circuits: Literal["front-rear", "diagonal", "single"] | None = None
    valves: Valves = Valves()
    lines: Lines = Lines()
    targets: Targets = Targets()
    fluid: Fluid | None = None
    brake_light_switch: Literal["pedal", "hydraulic", "none"] | None = None
    warning_switch: Literal["none", "warns", "shuts"] | None = None
    shuttle_volume: FluidVolume | None = None
    parking_brake: Literal["rear", "front", "transmission", "none"] | None = None
    heat: Heat | None = None
    evidence: dict[str, Evidence] = {}  # noqa: RUF012 - pydantic copies it
    setups: tuple[SetUp, ...] = ()

    def rules(self) -> Iterator[Fault]:
        """Check that cylinder and circuits, vacuum and air go together."""
        fits = FITTING_CIRCUITS[self.master.kind]
        if self.circuits is not None and self.circuits not in fits:
            wanted = " or ".join(f'"{circuits}"' for circuits in fits)
            yield Fault(
                "circuits",
                f'"{self.circuits}" does not go with a {self.master.kind} cylinder',
                f"write {wanted}, or choose another cylinder",
            )
        yield from twin_names(self.setups)
        if isinstance(self.booster, VacuumBooster):
            yield from self._vacuum_fits(self.booster)

    def _vacuum_fits(self, booster: VacuumBooster) -> Iterator[Fault]:
        ambient = float(air_pressure(self.vehicle.altitude.value))
        for name, vacuum in (("vacuum", booster.vacuum), ("pump", booster.pump)):
            if vacuum is None or vacuum.value <= ambient:
                continue
            most = retype(ambient, PRESSURE, UnitSystem.METRIC, 2)
            yield Fault(
                f"booster.{name}",
                f'"{vacuum.text}" is more than the air presses at '
                f'"{self.vehicle.altitude.text}" of altitude',
                f'write the depression at idle, below "{most}"',
            )

    @property
    def split(self) -> Literal["front-rear", "diagonal", "single"]:
        """The circuits, whether given or following from the cylinder."""
        if self.circuits is not None:
            return self.circuits
        return "single" if self.master.kind == "single" else "front-rear"

    @property
    def natural_units(self) -> UnitSystem:
        """The units its builder thinks in, judged by the effort that was typed."""
        imperial = self.targets.comfortable_effort.text.rstrip().endswith("lbf")
        return UnitSystem.INCH if imperial else UnitSystem.METRIC
