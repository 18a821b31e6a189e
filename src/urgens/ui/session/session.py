"""The one mutable object of the interface: the document that is open, and how it is looked at."""

from collections.abc import Sequence
from pathlib import Path

import numpy as np
from PySide6.QtCore import QObject, QTimer, Signal

from urgens.document import Build, BuildChange, BuildErrors, changed, load
from urgens.document.evidence import KnownFigure, open_figures
from urgens.guidance import Finding, Fix, findings
from urgens.quantity import Units, UnitSystem
from urgens.sheet.files import SheetRequest
from urgens.solve import AxleName, Presses, Solution, solve
from urgens.solve.system import same_figures_solved
from urgens.ui.session.open_document import OpenDocument, as_saved
from urgens.ui.session.paper import Drawer, Paper, asked_for
from urgens.ui.session.scores import MOST, Score
from urgens.ui.session.view import Overrides, View

READING = 80  # ms that words may lag behind a drag


class Session(QObject):
    """A thin face of the document and the view: solves the build as it is looked at, and tells.

    What is worked on follows `solution_changed`; what is only read, and the press, follow `told`
    and `press_changed`, which wait after an edit until the page is painted, and a little longer
    while something is dragged.
    """

    solution_changed = Signal()
    told = Signal()
    press_changed = Signal()
    units_changed = Signal()
    file_changed = Signal()
    opened = Signal()
    refused = Signal(str)
    scored = Signal()
    paper_changed = Signal()

    def __init__(self, build: Build, path: Path | None = None) -> None:
        super().__init__()
        self._considered: tuple[str, Solution] | None = None  # what the press shows instead
        self.document = OpenDocument(build, path, self)
        self.view = View(build, self)
        self._telling = QTimer(self)
        self._telling.setSingleShot(True)
        self._telling.timeout.connect(self._tell_the_rest)
        self._case_names: tuple[str, ...] = ()
        self._looked_at: tuple[object, ...] | None = None
        self.build: Build
        self.solution: Solution
        self.presses: Presses
        self._solve()
        self.document.replaced.connect(self._show_edited)
        self.document.file_changed.connect(self.file_changed)
        self.view.changed.connect(self._show)
        self.view.units_changed.connect(self._show_in_units)
        self.undo_stack = self.document.undo_stack
        self.scores: tuple[Score, ...] = ()  # of the trainer: personal, of no build
        self.paper = Paper()
        self.drawers: dict[str, Drawer] = {}  # of the sheet: who can draw says so

    def note_score(self, score: Score) -> None:
        """Keep what was reached in the trainer."""
        self.scores = (*self.scores, score)[-MOST:]
        self.scored.emit()

    def choose_paper(self, paper: Paper) -> None:
        """Put the sheet on paper in another way."""
        self.paper = paper
        self.paper_changed.emit()

    @property
    def sheet_asked(self) -> SheetRequest:
        """How the sheet of the build is wanted, as it is looked at."""
        return asked_for(self.paper, self.build, self.base, self.path, self.drawers)

    # --- what is open ----------------------------------------------------------------------

    def open(self, build: Build, path: Path | None) -> None:
        """Show another build; raises nothing, since `build` is whole."""
        self.document.start(build, path)
        self.view.start(build)
        self._show()
        self.units_changed.emit()
        self.file_changed.emit()
        self.opened.emit()

    def open_file(self, path: Path) -> None:
        """Show the build in a file; raises BuildErrors and then changes nothing."""
        self.open(load(path), path)

    def recover(self, build: Build, path: Path | None) -> None:
        """Show work that was never saved: the file is what is on disk, the rest is one edit."""
        self.open(*as_saved(build, path))
        self.document.put(build, "Recovered work")

    def save(self, path: Path) -> None:
        """Write the build to `path`, which becomes its file; raises OSError."""
        self.document.save(path)

    @property
    def base(self) -> Build:
        """The build itself, no set-up laid over it."""
        return self.document.base

    @property
    def path(self) -> Path | None:
        """The build's file, None where it has none yet."""
        return self.document.path

    @property
    def modified(self) -> bool:
        """Whether there is something to save."""
        return self.document.modified

    # --- one way of change -----------------------------------------------------------------

    def edit(self, path: str, value: object, label: str = "") -> None:
        """Put `value` at `path` of the build as one step; as `make`."""
        self.make(BuildChange(label or path, {path: value}))

    def plan(self, path: str, value: object, label: str) -> None:
        """Put at `path` what was chosen on a drawing: nobody has measured it; as `make`."""
        self.make(BuildChange.planning(label, {path: value}))

    def make(self, change: BuildChange, *, in_setup: bool = True) -> None:
        """Change the build as one step that can be undone; what is refused is said by itself.

        While a drag is under way all its edits are one step. With a set-up chosen they go into
        that, but for what belongs to the build itself. A refused change changes nothing.
        """
        try:
            self.take(change, in_setup=in_setup)
        except BuildErrors as errors:
            self.refused.emit(str(errors))

    def take(self, change: BuildChange, *, in_setup: bool = True) -> None:
        """Change the build as `make`, for who says himself what is refused: raises BuildErrors."""
        self.document.take(change, self.view.setup if in_setup else None)

    def settle(self, path: str, state: str) -> None:
        """Say what is known about the figure at a path: its spread and note stay."""
        known = self.build.evidence.get(path)
        said = {} if known is None else known.model_dump(mode="json", exclude_unset=True)
        self.make(BuildChange(f"{path} {state}", known={path: {**said, "state": state}}))

    def mark(self, paths: Sequence[str], state: str, note: str, label: str) -> None:
        """Say what is known about many figures as one step: their spreads stay."""
        known = {}
        for path in paths:
            said = self.build.evidence.get(path)
            spread = {} if said is None or said.spread is None else {"spread": said.spread}
            known[path] = {"state": state, **spread, **({"note": note} if note else {})}
        self.make(BuildChange(label, known=known))

    def said_of(self, path: str) -> str:
        """Return what the build says of the figure at a path, empty where it says nothing."""
        known = self.build.evidence.get(path)
        return "" if known is None else known.state

    def apply(self, fix: Fix) -> None:
        """Make the edit that a finding proposes."""
        self.make(fix.change)

    def begin_drag(self) -> None:
        """From here on edits belong to one drag."""
        self.document.begin_drag()

    def end_drag(self) -> None:
        """End the drag; what it did is one step."""
        self.document.end_drag()
        self._told_at_last()

    def cancel_drag(self) -> None:
        """Put back what the drag changed, and leave no step behind."""
        self.document.cancel_drag()
        self._told_at_last()

    @property
    def dragging(self) -> bool:
        """Whether a drag is under way."""
        return self.document.drag is not None

    @property
    def telling(self) -> bool:
        """Whether what is only read is still to be told of the last edit."""
        return self._telling.isActive()

    # --- how it is looked at ---------------------------------------------------------------

    @property
    def units(self) -> Units:
        """The units figures are shown in."""
        return self.view.units

    @property
    def setup(self) -> str | None:
        """The set-up that is looked at, None for the build itself."""
        return self.view.setup

    @property
    def speed(self) -> float:
        """The speed that is looked at [m/s]."""
        return self.view.speed

    @property
    def effort(self) -> float:
        """The foot's effort [N]."""
        return self.view.effort

    def look_at(self, name: str, surface: float | None) -> None:
        """Look at a load case on a road, both at once."""
        self.view.look_at(name, surface)

    def set_setup(self, name: str | None) -> None:
        """Look at a set-up of the build, None for the build itself."""
        self.view.set_setup(name)

    def set_load_case(self, name: str) -> None:
        """Look at another load case."""
        self.view.set_load_case(name)

    def set_surface(self, surface: float | None) -> None:
        """Look at another road: a tyre-road coefficient [-], None for the build's own."""
        self.view.set_surface(surface)

    def set_speed(self, speed: float) -> None:
        """Look at another speed [m/s]; raises QuantityError where it is none."""
        self.view.set_speed(speed)

    @property
    def surface_is_own(self) -> bool:
        """Whether the road is the one the build aims at."""
        return self.view.surface is None

    def set_units(self, system: UnitSystem) -> None:
        """Show figures in another unit system; nothing in the build changes."""
        self.view.set_units(system)

    def set_overrides(self, overrides: Overrides) -> None:
        """Show some kinds in units of their own, whichever system is chosen."""
        self.view.set_overrides(overrides)

    # --- the press -------------------------------------------------------------------------

    def set_effort(self, effort: float) -> None:
        """Press the pedal with `effort` [N], at least none and at most what the build allows."""
        self.view.effort = min(max(effort, 0.0), self.most_effort)
        self.presses = self.solution.press(self.effort)
        self.press_changed.emit()

    @property
    def hardest(self) -> Presses:
        """The press with all the effort there can be, to which bars and colours are drawn."""
        return self.solution.presses.at(1)

    @property
    def most_effort(self) -> float:
        """The most the pedal can be pressed with [N]."""
        return float(self.solution.presses.effort[1])

    # --- what is only looked at ------------------------------------------------------------

    def consider(self, change: BuildChange | None) -> None:
        """Let the press show the build as it would be after a change; None lets it go.

        Nothing in the build changes. What cannot be is said by itself, as a refused edit is.
        """
        if change is None and self._considered is None:
            return
        self._considered = None
        if change is not None:
            try:
                build = changed(self.build, change)
            except BuildErrors as errors:
                self.refused.emit(str(errors))
                return
            self._considered = change.label, self._solved(build)
        self.press_changed.emit()

    @property
    def considered(self) -> str:
        """What the press shows that is not fitted, empty where it shows the build."""
        return "" if self._considered is None else self._considered[0]

    @property
    def pressed_solution(self) -> Solution:
        """What the pedal presses: the build, or what is only looked at."""
        return self.solution if self._considered is None else self._considered[1]

    @property
    def pressed(self) -> Presses:
        """The press on `pressed_solution`."""
        if self._considered is None:
            return self.presses
        return self._considered[1].press(self.effort)

    def first_lock_effort(self) -> float | None:
        """Return the effort [N] of the first lock on the chosen road, None if nothing locks."""
        at = (self.solution.case, self.solution.road)
        if self.solution.lock.axle[at] == AxleName.NONE:
            return None
        return float(self.solution.lock.effort[at])

    # --- one solve -------------------------------------------------------------------------

    def _solve(self) -> None:
        build = self.view.fitted(self.base, self._case_names)
        looked_at = self.view.load_case, self.view.surface, self.view.speed, self.view.effort
        if looked_at == self._looked_at and same_figures_solved(self.build, build):
            self.solution = self.solution.beside(build)
        else:
            self.solution = self._solved(build)
        self.build, self._looked_at = build, looked_at
        self._considered = None  # of another build
        self._case_names = self.solution.system.case_names
        self._findings: tuple[Finding, ...] | None = None  # not judged yet
        self._open: tuple[KnownFigure, ...] | None = None  # not gathered yet
        self.presses = self.solution.presses.at(0)

    def _solved(self, build: Build) -> Solution:
        """Solve a build as this one is looked at."""
        most = max(build.targets.max_effort.value, build.targets.comfortable_effort.value)
        return solve(
            build,
            load_case=self.view.load_case,
            surface=self.view.surface,
            speed=self.view.speed,
            efforts=np.array([self.view.effort, most]),
        )

    def _show(self) -> None:
        """Solve the build as it is looked at, and tell everyone."""
        self._solve()
        self.solution_changed.emit()
        self._tell_the_rest()

    def _show_edited(self) -> None:
        """Solve an edited build; tell what is worked on at once, the rest once that is painted."""
        if not self.dragging:
            self._telling.start(0)
        elif not self._telling.isActive():
            self._telling.start(READING)
        self._solve()
        self.solution_changed.emit()

    def _show_in_units(self) -> None:
        self._findings = None
        self.units_changed.emit()
        self.solution_changed.emit()
        self._tell_the_rest()

    def _told_at_last(self) -> None:
        if self._telling.isActive():
            self._tell_the_rest()

    def _tell_the_rest(self) -> None:
        self._telling.stop()
        self.told.emit()
        self.press_changed.emit()

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What is found in the build as it is now, the worst first."""
        if self._findings is None:
            self._findings = findings(self.solution, self.units)
        return self._findings

    @property
    def open_figures(self) -> tuple[KnownFigure, ...]:
        """The figures that are still to settle, in no order."""
        if self._open is None:
            self._open = open_figures(self.build)
        return self._open
