"""Logs: which column is which, what is wrong with it, its presses, beside the model and a log."""

from collections.abc import Callable
from pathlib import Path
from typing import ClassVar

from PySide6.QtCore import Qt
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QVBoxLayout, QWidget

from urgens.bench.logs.channels import CHANNELS, Mapped
from urgens.bench.logs.compare import PRESSURES, before_after, beside_model
from urgens.bench.logs.read import ReadLog, look_through, told_by
from urgens.bench.logs.table import SIMULATED
from urgens.bench.stops.adjusters import adjuster, set_as
from urgens.document.ledger.proof import Log
from urgens.quantity import PRESSURE, unit_shown
from urgens.solve.system import system
from urgens.ui.session import Session
from urgens.ui.stations.prove.channel_map import NO_COLUMN, ChannelMap
from urgens.ui.stations.prove.log_files import LogFiles
from urgens.ui.stations.prove.log_opening import LogOpening, ReadFiles
from urgens.ui.stations.prove.log_planes import LinesPlane, TimePlane
from urgens.ui.stations.prove.log_words import beside_words, count_words, fault_lines, model_words
from urgens.ui.stations.prove.number_label import NumberLabel
from urgens.ui.stations.prove.press_table import PressTable
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.file_choice import CSV, file_to_read, file_to_write
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import worded, wrapped

EMPTY = (
    "No log yet. Open what a logger wrote (CSV; MDF4 and Parquet where their libraries are "
    "installed), or let the test road write one. A log stays a file of its own beside the build."
)
FILTER = "Logs (*.csv *.txt *.tsv *.mf4 *.mdf *.parquet);;All files (*)"
SIDE = 340
FAKE = "Simulated: it says nothing of the vehicle, and proves nothing."
ANOTHER = "The file is another one than was noted: what is shown is of the file as it is now."


class LogsPage(Page):
    """One log at a time, another one beside it."""

    kept: ClassVar[tuple[str, ...]] = ("place", "other")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.place, self.other = 0, -1
        self.files = LogFiles(session)
        self.log: ReadLog | None = None
        self._read = ReadFiles()
        self.opening = LogOpening(session, self.files, self._read, self)
        self.opening.opened.connect(self._show_opened)
        self.opening.failed.connect(self._say_state)
        self._asked: tuple[object, ...] = ()
        self.time, self.lines = TimePlane(session), LinesPlane(session)
        self.said_model, self.said_beside = wrapped("sentence"), wrapped("muted")
        self.faults, self.state = wrapped("warned"), wrapped("muted")
        self.empty = wrapped("muted", EMPTY)
        self.open, self.menu_actions = QPushButton("Open a log…"), QToolButton()
        self.setting = NumberLabel("Setting at this log", "", (0.0, 1e4), size=20, step=0.5,
                                   changed=self._set)  # fmt: skip
        self.which, self.beside = SegmentRow(), SegmentRow()
        self.which.chosen.connect(self.choose)
        self.beside.chosen.connect(self.choose_other)
        self.map, self.presses = ChannelMap(), PressTable()
        self.map.column_told.connect(self.map_column)
        self.map.unit_told.connect(self.map_unit)
        self._work = Background(self)
        self._work.ended.connect(self._show_log)
        self._work.failed.connect(self._say_failed)
        self._beside()
        self.lay_out(self._drawing(), side=SIDE)
        self.said.hide()

    def _head(self) -> QHBoxLayout:
        head = QHBoxLayout()
        head.addWidget(self.which)
        head.addStretch()
        self.menu_actions.setProperty("role", "kind")
        self.menu_actions.setText("This log")
        self.menu_actions.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self.menu_actions)
        menu.addAction("Write it anew…", self._write)
        self.copy = menu.addAction("Copy it beside the build", self._copy)
        menu.addAction("Take it out", self._drop)
        self.menu_actions.setMenu(menu)
        self.open.setProperty("role", "quiet")
        self.open.clicked.connect(self._open)
        head.addWidget(self.menu_actions)
        head.addWidget(self.open)
        return head

    def _drawing(self) -> QWidget:
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 4)
        column.addLayout(self._head())
        column.addWidget(self.empty)
        self.sample = Sample(self.session, "logs")
        column.addWidget(self.sample)
        column.addWidget(self.state)
        column.addWidget(self.said_model)
        column.addWidget(self.said_beside)
        beside = QHBoxLayout()
        self.beside_word = worded("Beside it", "heading")
        beside.addWidget(self.beside_word)
        beside.addWidget(self.beside)
        beside.addStretch()
        column.addLayout(beside)
        self.axes = worded("", "heading"), worded("", "heading")
        self.axes[1].setAlignment(Qt.AlignmentFlag.AlignRight)
        self.over_time = worded("", "heading")
        column.addWidget(self.over_time)
        column.addWidget(self.time, 2)
        column.addWidget(self.axes[0])
        column.addWidget(self.lines, 3)
        column.addWidget(self.axes[1])
        column.addStretch()
        return whole

    def _beside(self) -> None:
        self.head("Which column is which")
        self.column.addWidget(self.map)
        self.set_word = worded("Set at this log, turns or notches", "small")
        self.column.addWidget(self.set_word)
        self.column.addWidget(self.setting)
        self.head("Look at")
        self.column.addWidget(self.faults)
        self.head("Presses")
        self.column.addWidget(scrolled(self.presses, "The presses", across=True), 1)

    # --- what is shown -----------------------------------------------------------------------

    @property
    def _logs(self) -> tuple[Log, ...]:
        proof = self.session.base.proof
        return () if proof is None else proof.logs

    @property
    def summary(self) -> str:
        """How many presses there are."""
        if self.log is None:
            return "no log"
        return count_words(self.log)

    def show_figures(self) -> None:
        """Show the log chosen; it is read away from the hand."""
        logs = self._logs
        self.place = min(max(self.place, 0), max(len(logs) - 1, 0))
        if self.other >= len(logs) or self.other == self.place:
            self.other = -1
        self._show_choice(logs)
        there = bool(logs)
        beside = (self.said_model, self.said_beside, self.menu_actions, self.faults, self.over_time)
        for widget in (self.time, self.lines, *self.axes, *beside):
            widget.setVisible(there)
        self.beside_word.setVisible(len(logs) > 1)
        self.empty.setVisible(not there)
        self.sample.setVisible(not there)
        self.state.setVisible(there)
        unit = unit_shown(PRESSURE, self.session.units)
        self.over_time.setText(f"Pressures, {unit}, over time, s")
        rear, front = self.lines.axes
        self.axes[0].setText(rear)
        self.axes[1].setText(front)
        if not there:
            self._work.stop()
            self._asked = ()
            self.log = None
            self.map.show_log(None)
            self.presses.show_presses((), self.session.units)
            return
        self._ask(logs)

    def _show_choice(self, logs: tuple[Log, ...]) -> None:
        names = {place: log.file for place, log in enumerate(logs)}
        self.which.show_choices(names, self.place)
        others = {place: name for place, name in names.items() if place != self.place}
        self.beside.show_choices(others, self.other)

    def _ask(self, logs: tuple[Log, ...]) -> None:
        """Read the log, and the one beside it, where that is not what is shown."""
        log = logs[self.place]
        path = self.files.path_of(log)
        self.copy.setVisible(path is not None and not self.files.is_beside(log))
        if path is None:
            self._work.stop()
            self._asked = ()
            self.log = None
            self.state.setText(
                f"{log.file} is gone: it lay beside the build. What the build has of it stays; put "
                "it back, or take it out."
            )
            return
        other = logs[self.other] if self.other >= 0 else None
        other_path = None if other is None else self.files.path_of(other)
        build, case = self.session.build, self._case(log)
        over = set_as(build, log.setting)
        asked = (path, told_by(log), log.left_out, other_path, build, case, self.session.units)
        if asked == self._asked and self.log is not None:
            return
        self._asked = asked
        self.state.setText("Reading…")
        files, read = self.files, self._read

        def work(progress: Callable[[float], bool]) -> object:
            changed = files.is_changed(log, path)
            one = look_through(read.read(path), told_by(log), log.left_out)
            progress(0.6)
            beside = None
            if other is not None and other_path is not None:
                second = look_through(read.read(other_path), told_by(other), other.left_out)
                beside = before_after((second.signals, second.presses), (one.signals, one.presses))
            model = beside_model(build, case, one.presses, over)
            return log, one, beside, model, changed

        self._work.run(work, SOON)

    def _case(self, log: Log) -> int:
        names = [one.name for one in self.session.build.vehicle.load_cases]
        return names.index(log.load_case) if log.load_case in names else self.session.solution.case

    def _show_log(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        noted, log, beside, model, changed = found
        if noted not in self._logs:  # it was taken out meanwhile
            return
        self.log = log
        simulated = log.file.simulated or noted.source == SIMULATED
        told = [words for words, so in ((FAKE, simulated), (ANOTHER, changed)) if so]
        self.state.setText(" ".join(told))
        self.state.setVisible(bool(told))
        self.time.show_log(log)
        case = self._case(noted)
        made = system(self.session.build, over=set_as(self.session.build, noted.setting))
        self.lines.show_log(log, made, case, beside)
        self._show_setting(noted)
        units = self.session.units
        self.said_model.setText(model_words(log, model, units))
        there = 0 <= self.other < len(self._logs)
        other = self._logs[self.other].file if there else ""
        self.said_beside.setText(beside_words(beside, other, units))
        self.said_beside.setVisible(beside is not None)
        known = bool(set(PRESSURES) & set(log.channels))
        if not known:  # they are chosen first
            self.map.wanted |= set(PRESSURES)
        for widget in (self.over_time, self.time, *self.axes, self.lines):
            widget.setVisible(known)
        self.map.show_log(log)
        self._show_faults(log)
        self.presses.show_presses(log.presses, units)
        self.say()

    def _show_setting(self, log: Log) -> None:
        turned = adjuster(self.session.build)
        there = turned is not None and turned.counted != "length"
        self.set_word.setVisible(there)
        self.setting.setVisible(there)
        if turned is not None and there:
            self.setting.set_number(turned.laid(log.setting.get(turned.path)))

    def _set(self) -> None:
        turned = adjuster(self.session.build)
        if turned is not None and self._logs:
            self.files.set(self.place, turned.path, self.setting.value)

    def _show_faults(self, log: ReadLog) -> None:
        lines = fault_lines(log)
        nothing = "Nothing is wrong." if log.presses else "Nothing else is wrong."
        self.faults.setText("\n".join(f"· {line}" for line in lines) or nothing)
        self.faults.setProperty("role", "warned" if lines else "muted")
        self.faults.style().polish(self.faults)

    def _say_failed(self, words: str) -> None:
        self.log = None
        self._say_state(words)
        self.said_model.setText("This log cannot be read as it is mapped.")
        self.map.show_log(self.log)

    # --- what is done ------------------------------------------------------------------------

    def choose(self, place: int) -> None:
        """Look at another log."""
        self.place = place
        self._asked = ()
        self._show()

    def choose_other(self, place: int) -> None:
        """Set another log beside it, or take it away again."""
        self.other = -1 if place == self.other else place
        self._show()

    def _open(self) -> None:
        path = file_to_read(self, "Open a log", self._folder, FILTER)
        if path is not None:
            self.open_file(path)

    @property
    def _folder(self) -> Path | None:
        return self.session.path.parent if self.session.path else None

    def open_file(self, path: Path) -> None:
        """Read a log and note it in the build; what keeps it from being read is said."""
        self.opening.open(path)
        self._say_state(f"Reading {path.name}…")

    def _show_opened(self, place: int) -> None:
        self.place, self._asked = place, ()
        self._show()

    def _say_state(self, words: str) -> None:
        self.state.setText(words)
        self.state.show()

    def map_column(self, name: str, column: str) -> None:
        """Say which column a channel stands in, or that it has none."""
        if self.log is None:
            return
        noted = self._logs[self.place]
        channels = {n: c for n, c in told_by(noted).items() if n != name and c.column != column}
        if column != NO_COLUMN:
            file = self.log.file
            told = file.units[file.names.index(column)]
            channels[name] = Mapped(column, told or CHANNELS[name].units[0])
        left_out: set[str] = {one for one in noted.left_out if one != name}
        if column == NO_COLUMN:
            left_out.add(name)
            self.map.wanted.add(name)
        self.files.map(self.place, channels, tuple(sorted(left_out)))
        self._show()

    def map_unit(self, name: str, unit: str) -> None:
        """Say which unit a channel is in."""
        if self.log is None:
            return
        noted = self._logs[self.place]
        channels = {**told_by(noted), name: Mapped(self.log.channels[name].column, unit)}
        self.files.map(self.place, channels, noted.left_out)
        self._show()

    def _write(self) -> None:
        from urgens.bench.logs.write import write_csv, written_anew

        if self.log is None:
            return
        path = file_to_write(self, "Write it anew", "log", ".csv", CSV, self._folder)
        if path is None:
            return
        said = written_anew(self.log.file, self._logs[self.place].file)
        try:
            write_csv(path, self.log.signals, said)
            self._say_state(f"Written to {path.name}.")
        except OSError as error:
            self._say_state(f"It could not be written ({error.strerror}).")

    def _copy(self) -> None:
        words = self.files.copy_beside(self._logs[self.place])
        self._show()
        self._say_state(words)

    def _drop(self) -> None:
        if self._logs:
            self.files.drop(self.place)
            self._asked = ()
            self._show()

    def hideEvent(self, event: QHideEvent) -> None:
        self._work.stop()
        self._asked = ()
        self.seen.forget()
        super().hideEvent(event)
