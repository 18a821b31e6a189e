"""The one mutable object of the interface: the build that is open, and how it is looked at."""

import hashlib
from pathlib import Path

import numpy as np
from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtGui import QUndoStack

from urgens.document import Build, BuildErrors, Change, changed, load, save, with_setup
from urgens.document.files import is_read_only
from urgens.guidance import Finding, Fix, findings
from urgens.quantity import Kind, QuantityError, Units, UnitSystem
from urgens.solve import AxleName, Presses, Solution, solve
from urgens.ui.undo import Drag, Edit

FASTEST = 150.0  # m/s
READING = 80  # ms that words may lag behind a drag
Overrides = tuple[tuple[Kind, str], ...]  # kinds shown in units of their own


class Session(QObject):
    """The build, its solution, the press, load case, road and units.

    Everything that changes the build goes through `edit`. Load case, road and units are views of
    it and are not undone; none of them changes the effort. Plots and drawings that are worked on
    follow `solution_changed`; what is only read, and the press, follow `told` and `press_changed`,
    which wait a little while something is dragged.
    """

    solution_changed = Signal()
    told = Signal()
    press_changed = Signal()
    units_changed = Signal()
    file_changed = Signal()
    opened = Signal()
    refused = Signal(str)

    def __init__(self, build: Build, path: Path | None = None) -> None:
        super().__init__()
        self.undo_stack = QUndoStack(self)
        self.undo_stack.cleanChanged.connect(self._clean_changed)
        self._overrides: Overrides = ()
        self._drag: Drag | None = None
        self._findings: tuple[Finding, ...] | None = None  # not judged yet
        self._telling = QTimer(self, singleShot=True, interval=READING)
        self._telling.timeout.connect(self._tell_the_rest)
        self._start(build, path)

    def _clean_changed(self) -> None:
        self.file_changed.emit()

    def _start(self, build: Build, path: Path | None) -> None:
        self.path = path
        self.units = Units(build.natural_units, self._overrides)
        self.load_case: str | None = None
        self.setup: str | None = None
        self._surface: float | None = None
        self.speed = 0.0  # m/s, for downforce
        self._digest = _digest(path)
        self.effort = build.targets.comfortable_effort.value
        self._drag = None
        self._show(build)

    def open(self, build: Build, path: Path | None) -> None:
        """Show another build; raises nothing, since `build` is whole."""
        self.undo_stack.clear()
        self._start(build, path)
        self.units_changed.emit()
        self.file_changed.emit()
        self.opened.emit()

    def open_file(self, path: Path) -> None:
        """Show the build in a file; raises BuildErrors and then changes nothing."""
        self.open(load(path), path)

    def recover(self, build: Build, path: Path | None) -> None:
        """Show work that was never saved: the file is what is on disk, the rest is one edit."""
        before = build
        if path is not None and path.is_file():
            try:
                before = load(path)
            except BuildErrors:
                path = None
        self.open(before, path)
        self.undo_stack.push(Edit(self._show, self.base, build, "Recovered work", None))

    def save(self, path: Path) -> None:
        """Write the build to `path`, which becomes its file; raises OSError."""
        save(self.base, path)
        self.path = path
        self._digest = _digest(path)
        self.undo_stack.setClean()
        self.file_changed.emit()

    @property
    def changed_on_disk(self) -> bool:
        """Whether another program has changed the file since it was read or written here."""
        now = _digest(self.path)
        return self.path is not None and now is not None and now != self._digest

    def disk_digest(self) -> bytes | None:
        """Return a digest of the file as it is on the disk now."""
        return _digest(self.path)

    @property
    def read_only(self) -> bool:
        """Whether the file is marked as not to be written."""
        return self.path is not None and self.path.exists() and is_read_only(self.path)

    @property
    def modified(self) -> bool:
        """Whether there is something to save."""
        return not self.undo_stack.isClean()

    def edit(self, path: str, value: object, label: str = "") -> None:
        """Put `value` at `path` of the build as one step; as `make`."""
        self.make(Change(label or path, {path: value}))

    def make(self, change: Change, *, in_setup: bool = True) -> None:
        """Change the build as one step that can be undone; what is refused is said by itself.

        While a drag is under way all its edits are one step. With a set-up chosen they go into
        that, but for what belongs to the build itself. A refused change changes nothing.
        """
        try:
            self.take(change, in_setup=in_setup)
        except BuildErrors as errors:
            self.refused.emit("\n".join(str(error) for error in errors.errors))

    def take(self, change: Change, *, in_setup: bool = True) -> None:
        """Change the build as `make`, for who says himself what is refused: raises BuildErrors."""
        made = changed(self.base, change, self.setup if in_setup else None)
        if made != self.base:
            self.undo_stack.push(Edit(self._show, self.base, made, change.label, self._drag))

    def settle(self, path: str, state: str) -> None:
        """Say what is known about the figure at a path: its spread and note stay."""
        known = self.build.evidence.get(path)
        said = {} if known is None else known.model_dump(mode="json", exclude_unset=True)
        self.make(Change(f"{path} {state}", known={path: {**said, "state": state}}))

    def assumes(self, path: str) -> bool:
        """Tell whether the figure at a path is one the builder only assumes."""
        known = self.build.evidence.get(path)
        return known is not None and known.state == "assumed"

    def apply(self, fix: Fix) -> None:
        """Make the edit that a finding proposes."""
        if fix.order is None:
            self.edit(fix.path, fix.value, fix.label)
        else:
            self.make(Change(fix.label, orders={fix.path: fix.order}))

    def begin_drag(self) -> None:
        """From here on edits belong to one drag."""
        self._drag = Drag()

    def end_drag(self) -> None:
        """End the drag; what it did is one step."""
        self._drag = None
        self._told_at_last()

    def cancel_drag(self) -> None:
        """Put back what the drag changed, and leave no step behind."""
        command = self._drag.command if self._drag is not None else None
        self._drag = None
        if command is not None:
            command.cancelled = True
            self.undo_stack.undo()
        self._told_at_last()

    def _told_at_last(self) -> None:
        if self._telling.isActive():
            self._telling.stop()
            self._tell_the_rest()

    @property
    def dragging(self) -> bool:
        """Whether a drag is under way."""
        return self._drag is not None

    def set_effort(self, effort: float) -> None:
        """Press the pedal with `effort` [N], at least none and at most what the build allows."""
        self.effort = min(max(effort, 0.0), self.most_effort)
        self._press()

    @property
    def hardest(self) -> Presses:
        """The press with all the effort there can be, to which bars and colours are drawn."""
        return self.solution.presses.at(1)

    @property
    def most_effort(self) -> float:
        """The most the pedal can be pressed with [N]."""
        return float(self.solution.presses.effort[1])

    def look_at(self, name: str, surface: float | None) -> None:
        """Look at a load case on a road, both at once; as `set_load_case` and `set_surface`."""
        self.load_case, self._surface = name, surface
        self._show(self.base)

    def set_setup(self, name: str | None) -> None:
        """Look at a set-up of the build, None for the build itself; edits then go into it."""
        self.setup = name
        self._show(self.base)

    def set_load_case(self, name: str) -> None:
        """Look at another load case."""
        self.load_case = name
        self._show(self.base)

    def set_surface(self, surface: float | None) -> None:
        """Look at another road: a tyre-road coefficient [-], None for the build's own."""
        self._surface = surface
        self._show(self.base)

    def set_speed(self, speed: float) -> None:
        """Look at another speed [m/s], which presses a vehicle with downforce on its axles.

        Raises QuantityError where it is negative or beyond any vehicle.
        """
        if not 0.0 <= speed <= FASTEST:
            raise QuantityError(
                f"{speed * 3.6:.0f} km/h is no speed to look at",
                f"write one from 0 to {FASTEST * 3.6:.0f} km/h",
            )
        self.speed = speed
        self._show(self.base)

    @property
    def surface_is_own(self) -> bool:
        """Whether the road is the one the build aims at."""
        return self._surface is None

    def set_units(self, system: UnitSystem) -> None:
        """Show figures in another unit system; nothing in the build changes."""
        self._show_in(Units(system, self._overrides))

    def set_overrides(self, overrides: Overrides) -> None:
        """Show some kinds in units of their own, whichever system is chosen."""
        self._overrides = overrides
        self._show_in(Units(self.units.system, overrides))

    def _show_in(self, units: Units) -> None:
        self.units = units
        self._findings = None
        self.units_changed.emit()
        self._tell()

    def first_lock_effort(self) -> float | None:
        """Return the effort [N] of the first lock on the chosen road, None if nothing locks."""
        at = (self.solution.case, self.solution.road)
        if self.solution.lock.axle[at] == AxleName.NONE:
            return None
        return float(self.solution.lock.effort[at])

    def _show(self, build: Build) -> None:
        """Solve `build`, with the chosen set-up laid over it, and tell everyone."""
        self.base: Build = build
        if self.setup not in {setup.name for setup in build.setups}:
            self.setup = None
        build = build if self.setup is None else with_setup(build, self.setup)
        names = [case.name for case in build.vehicle.load_cases]
        if self.load_case is not None and self.load_case not in names:
            before = self.solution.system.case_names
            renamed = len(names) == len(before)
            self.load_case = names[before.index(self.load_case)] if renamed else None
        self.build: Build = build
        most = max(build.targets.max_effort.value, build.targets.comfortable_effort.value)
        self.solution: Solution = solve(
            build,
            load_case=self.load_case,
            surface=self._surface,
            speed=self.speed,
            efforts=np.array([self.effort, most]),
        )
        self._findings = None
        self.presses: Presses = self.solution.presses.at(0)
        self._tell()

    def _tell(self) -> None:
        self.solution_changed.emit()
        if not self.dragging:
            self._tell_the_rest()
        elif not self._telling.isActive():
            self._telling.start()

    def _tell_the_rest(self) -> None:
        self.told.emit()
        self.press_changed.emit()

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What is found in the build as it is now, the worst first."""
        if self._findings is None:
            self._findings = findings(self.solution, self.units)
        return self._findings

    def _press(self) -> None:
        self.presses = self.solution.press(self.effort)
        self.press_changed.emit()


def _digest(path: Path | None) -> bytes | None:
    """Return a digest of a file's content, None where there is none to read."""
    if path is None:
        return None
    try:
        return hashlib.sha256(path.read_bytes()).digest()
    except OSError:
        return None
