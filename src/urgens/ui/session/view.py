"""How the build is looked at: in which units, with which load, on which road, how hard pressed."""

from PySide6.QtCore import QObject, Signal

from urgens.document import Build, with_setup
from urgens.quantity import QuantityKind, Units, UnitSystem
from urgens.quantity.limits import looked_at

Overrides = tuple[tuple[QuantityKind, str], ...]  # kinds shown in units of their own


class View(QObject):
    """Views of a build: none of them is undone, and none changes the effort.

    `load_case`, `setup` None are the first case and the build itself; `surface` None is its own
    road [-]; `speed` [m/s] is for downforce, `effort` [N] the foot's.
    """

    changed = Signal()
    units_changed = Signal()

    def __init__(self, build: Build, parent: QObject) -> None:
        super().__init__(parent)
        self._overrides: Overrides = ()
        self.start(build)

    def start(self, build: Build) -> None:
        """Look at another build from the beginning; the builder's own units stay."""
        self.units = Units(build.natural_units, self._overrides)
        self.load_case: str | None = None
        self.setup: str | None = None
        self.surface: float | None = None
        self.speed = 0.0
        self.effort = build.targets.comfortable_effort.value

    def fitted(self, base: Build, names_before: tuple[str, ...]) -> Build:
        """Return the build as it is looked at; a set-up or a load case that is gone is let go.

        A load case that was renamed, the others still there, is looked at under its new name.
        """
        if self.setup not in {setup.name for setup in base.setups}:
            self.setup = None
        build = base if self.setup is None else with_setup(base, self.setup)
        names = [case.name for case in build.vehicle.load_cases]
        if self.load_case is not None and self.load_case not in names:
            renamed = len(names) == len(names_before) and self.load_case in names_before
            self.load_case = names[names_before.index(self.load_case)] if renamed else None
        return build

    def look_at(self, name: str, surface: float | None) -> None:
        """Look at a load case on a road, both at once."""
        self.load_case, self.surface = name, surface
        self.changed.emit()

    def set_setup(self, name: str | None) -> None:
        """Look at a set-up of the build, None for the build itself; edits then go into it."""
        self.setup = name
        self.changed.emit()

    def set_load_case(self, name: str) -> None:
        """Look at another load case."""
        self.load_case = name
        self.changed.emit()

    def set_surface(self, surface: float | None) -> None:
        """Look at another road: a tyre-road coefficient [-], None for the build's own."""
        self.surface = surface
        self.changed.emit()

    def set_speed(self, speed: float) -> None:
        """Look at another speed [m/s], which presses a vehicle with downforce on its axles.

        Raises QuantityError where it is negative or beyond any vehicle.
        """
        self.speed = looked_at(speed)
        self.changed.emit()

    def set_units(self, system: UnitSystem) -> None:
        """Show figures in another unit system; nothing in the build changes."""
        self._show_in(Units(system, self._overrides))

    def set_overrides(self, overrides: Overrides) -> None:
        """Show some kinds in units of their own, whichever system is chosen."""
        self._overrides = overrides
        self._show_in(Units(self.units.system, overrides))

    def _show_in(self, units: Units) -> None:
        self.units = units
        self.units_changed.emit()
