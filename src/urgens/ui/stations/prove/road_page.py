"""The test road: why the front is to lock first, seen and not believed."""

from functools import partial
from pathlib import Path
from typing import ClassVar

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QHideEvent, QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.bench.logs.write import sensed, write_csv
from urgens.bench.road.drives import Drive
from urgens.bench.road.torque import RAMP, Foot, hold
from urgens.document import Build, BuildErrors, load, with_setup
from urgens.physics.axle import Axle
from urgens.quantity import DISTANCE, FORCE, SPEED, show, unit_shown
from urgens.ui.session import Session
from urgens.ui.stations.prove.from_above import FromAbove, Lane, lane_words
from urgens.ui.stations.prove.number_label import NumberLabel
from urgens.ui.stations.prove.player import Player
from urgens.ui.stations.prove.road_asked import FEET, DriveRequest, driven
from urgens.ui.stations.prove.speed_plane import WheelSpeedPlane
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.file_choice import BUILDS, CSV, file_to_read, file_to_write
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped

AS_BUILT = "as built"
MODEL = (
    "One track, level road, brakes as built: mass and loads of the load case, tyres of one curve "
    "(assumed), the inertia of wheels and 0.15 s of build-up (assumed). The brakes stop the wheels "
    "too, so that an axle locks at a harder foot than Balance says, most of all on a light "
    "vehicle. An axle "
    "counts as locked from twice the slip of its tyres’ peak on, until the vehicle has turned 10°."
)
STAMP = (
    "A stamp is there before the load has moved: it overloads the front, and may hide a rear that "
    "locks first. Judge by a foot that is built up."
)
SIDE = 260


class RoadPage(Page):
    """A stop in time for one build or two: from above, with plots, at any speed of play."""

    kept: ClassVar[tuple[str, ...]] = ("foot", "other")
    log_written = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.drives: tuple[Drive, ...] = ()
        self.foot, self.other = "over", ""
        self._asked: DriveRequest | None = None
        self._units = session.units
        self.above, self.plane = FromAbove(row=110), WheelSpeedPlane()
        self.result, self.beneath = wrapped("sentence"), wrapped("muted")
        self.speed = TypedLabel("From", SPEED, session.units, self._ask, start="100 km/h", size=24)
        self.effort = TypedLabel("Foot", FORCE, session.units, self._ask, start="250 N", size=18)
        self.ramp = NumberLabel("Ramp", "s", (0.0, 5.0), size=18, step=0.1, changed=self._ask)
        self.ramp.set_number(RAMP)
        column = Qt.Orientation.Vertical
        self.feet, self.others = SegmentRow(column), SegmentRow(column)
        self.feet.chosen.connect(self.choose_foot)
        self.others.chosen.connect(self.choose_other)
        self.another = QPushButton("Another build…")
        self._opened: dict[str, Build] = {}  # other files' builds, by name
        self.player = Player()
        self.player.moved.connect(self._show_moment)
        self.save = QPushButton("Write and open it…")
        self._work = Background(self)
        self._work.ended.connect(self._show_drives)
        self._work.failed.connect(self._say_failed)
        self._beside()
        self.lay_out(self._drawing(), side=SIDE)
        self.said.hide()
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        session.press_changed.connect(self._follow_press)

    def _drawing(self) -> QWidget:
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 6)
        column.addWidget(self.result)
        column.addWidget(self.beneath)
        column.addWidget(self.above)
        column.addWidget(self.player)
        self.axes = worded("", "heading"), worded("Time, s", "heading")
        self.axes[1].setAlignment(Qt.AlignmentFlag.AlignRight)
        column.addWidget(self.axes[0])
        column.addWidget(self.plane, 1)
        column.addWidget(self.axes[1])
        return whole

    def _beside(self) -> None:
        self.head("From")
        self.column.addWidget(self.speed)
        self.head("Foot")
        self.column.addWidget(self.feet)
        row = QHBoxLayout()
        row.addWidget(self.effort)
        self.within = worded("in", "small")
        row.addWidget(self.within)
        row.addWidget(self.ramp)
        row.addStretch()
        self.column.addLayout(row)
        self.stamped = wrapped("small", STAMP)
        self.column.addWidget(self.stamped)
        self.head("Beside it")
        self.column.addWidget(self.others)
        self.another.setProperty("role", "quiet")
        self.another.clicked.connect(self._open_another)
        self.column.addWidget(self.another)
        self.head("Its log")
        self.save.setProperty("role", "quiet")
        self.save.clicked.connect(self._write)
        self.column.addWidget(self.save)
        self.head("What it computes")
        self.column.addWidget(wrapped("small", MODEL))
        self.column.addStretch()

    # --- what is shown -----------------------------------------------------------------------

    @property
    def summary(self) -> str:
        """How the stop went."""
        return "simulated" if not self.drives else f"simulated: {lane_words(self.drives[0])}"

    def show_figures(self) -> None:
        """Drive this build, and the one beside it."""
        self.speed.show_in(self.session.units)
        self.effort.show_in(self.session.units)
        self.feet.show_choices(FEET, self.foot)
        self.effort.setVisible(self.foot == "typed")
        for label in (self.within, self.ramp):
            label.setVisible(self.foot != "stamp")
        self.stamped.setVisible(self.foot == "stamp")
        self._show_others()
        self.axes[0].setText(f"Speed, {unit_shown(SPEED, self.session.units)}")
        self._ask()

    def _show_others(self) -> None:
        names = ["", *(one.name for one in self.session.base.setups)]
        if self.session.setup is not None:
            names = ["", AS_BUILT, *(n for n in names[1:] if n != self.session.setup)]
        names += list(self._opened)
        if self.other not in names:
            self.other = ""
        self.others.show_choices({name: name or "nothing" for name in names}, self.other)

    def _ask(self) -> None:
        """Drive anew where something of it is another."""
        session = self.session
        if not self.isVisible() or (speed := self.speed.value) is None:
            return
        solution = session.solution
        builds = (session.build, *self._beside_it())
        asked = DriveRequest(
            builds, solution.case, solution.surface, speed, self.foot, self._pressed()
        )
        if asked.same(self._asked):
            if session.units != self._units:
                self._show_drives(self.drives)
            return
        self._asked = asked
        self.beneath.setText("Driving…")
        self._work.run(partial(driven, asked), SOON)

    def _pressed(self) -> Foot:
        """Return the foot of the press, or as it is typed."""
        typed, ramp = self.effort.value, self.ramp.value or 0.0
        if self.foot == "typed" and typed is not None:
            return hold(typed, ramp)
        return hold(self.session.effort if self.foot == "press" else 0.0, ramp)

    def _beside_it(self) -> list[Build]:
        base = self.session.base
        if not self.other:
            return []
        if self.other in self._opened:
            return [self._opened[self.other]]
        return [base if self.other == AS_BUILT else with_setup(base, self.other)]

    def _follow_press(self) -> None:
        if self.foot == "press" and self.isVisible() and not self.session.dragging:
            self._ask()

    def _show_drives(self, found: object) -> None:
        if not isinstance(found, tuple) or not found:
            return
        self.drives, self._units = found, self.session.units
        names = [self.session.setup or AS_BUILT, self.other]
        lanes = tuple(self._lane(d, name) for d, name in zip(self.drives, names, strict=False))
        units = self.session.units
        self.above.show_lanes(lanes, units)
        first = self.drives[0]
        self.plane.show_drive(first, units)
        self.player.show_end(self.above.longest)
        self.result.setText(self._result(first))
        self.beneath.setText(" ".join(self._words(d, n) for d, n in zip(self.drives, names,
                                                                        strict=False)))  # fmt: skip
        self.save.setEnabled(True)
        self.say()

    def _lane(self, drive: Drive, name: str) -> Lane:
        axle = drive.locked[0][0] if drive.locked else None
        first = {Axle.FRONT: "front first", Axle.REAR: "rear first", None: "none locks"}[axle]
        return Lane(first, name, drive, axle, lane_words(drive))

    def _result(self, drive: Drive) -> str:
        if not drive.stands:
            return "It does not stop within 15 s."
        way = show(drive.distance, DISTANCE, self.session.units)
        if abs(drive.turned) > 0.52:
            return f"It spins, and stops after {way}."
        if drive.locked:
            axle = drive.locked[0][0]
            return f"The {axle} locks first; it stops after {way}, {lane_words(drive)}."
        return f"Nothing locks; it stops after {way}."

    def _words(self, drive: Drive, name: str) -> str:
        units = self.session.units
        mean = "" if drive.mean_deceleration is None else f"{drive.mean_deceleration:.2f} g, "
        foot = show(float(drive.foot.max()), FORCE, units)
        locks = ", ".join(f"{axle} at {at:.1f} s" for axle, at in drive.locked) or "none locks"
        return f"{name[:1].upper() + name[1:]}: {mean}foot {foot}, {locks}."

    def _say_failed(self, words: str) -> None:
        self.beneath.setText(words)

    # --- what is done ------------------------------------------------------------------------

    def choose_foot(self, foot: str) -> None:
        """Press in another way."""
        self.foot = foot
        self.show_figures()

    def choose_other(self, other: str) -> None:
        """Set another set-up beside it, or nothing."""
        self.other = other
        self.show_figures()

    def _open_another(self) -> None:
        folder = self.session.path.parent if self.session.path else None
        path = file_to_read(self, "Another build", folder, BUILDS)
        if path is not None:
            self.set_beside(path)

    def set_beside(self, path: Path) -> None:
        """Set the build of a file beside this one; what keeps it from being read is said."""
        try:
            build = load(path)
        except BuildErrors as errors:
            self.beneath.setText("\n".join(f"{path.name}: {one}" for one in errors.lines()))
            return
        self._opened[build.name] = build
        self.choose_other(build.name)

    def _show_moment(self, share: float) -> None:
        moment = self.above.longest * share
        self.above.show_moment(None if share >= 1.0 else moment)
        self.plane.show_moment(moment)

    def _write(self) -> None:
        """Write the log of the stop to a file, which opens like a real one."""
        folder = self.session.path.parent if self.session.path else None
        path = file_to_write(self, "Write its log", "test-road", ".csv", CSV, folder)
        if path is not None:
            self.write_log(path)

    def write_log(self, path: Path) -> None:
        """Write the log of the first stop and open it; what keeps it from that is said."""
        if not self.drives:
            return
        try:
            write_csv(path, sensed(self.drives[0], 1), (f"simulated, {self.session.base.name}",))
        except OSError as error:
            self.beneath.setText(
                f"It could not be written ({error.strerror}); choose another place."
            )
            return
        self.log_written.emit(path)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_P:
            self.player.start_or_stop()
        else:
            super().keyPressEvent(event)

    def hideEvent(self, event: QHideEvent) -> None:
        self._work.stop()
        self._asked = None
        self.seen.forget()
        super().hideEvent(event)
