"""Logs: which column is which, what is wrong with it, its presses, beside the model and a log."""

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import ClassVar

from PySide6.QtCore import Qt
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QFileDialog,
    QHBoxLayout,
    QMenu,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.bench.adjusting import adjuster, set_as
from urgens.bench.channels import CHANNELS, Mapped
from urgens.bench.log_compare import BeforeAfter, BesideModel, before_after, beside_model
from urgens.bench.log_file import LogFile, read_log
from urgens.bench.log_read import ReadLog, look_through, told_by
from urgens.document import BuildErrors
from urgens.document.proof import Log
from urgens.quantity import PRESSURE, show, unit_shown
from urgens.solve.system import system
from urgens.ui.session import Session
from urgens.ui.stations.prove.channel_map import NO_COLUMN, ChannelMap
from urgens.ui.stations.prove.log_files import LogFiles
from urgens.ui.stations.prove.log_planes import LinesPlane, TimePlane
from urgens.ui.stations.prove.number_label import NumberLabel
from urgens.ui.stations.prove.press_table import PressTable
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import worded, wrapped

EMPTY = (
    "No log yet. Open what a logger wrote (CSV; MDF4 and Parquet where their libraries are "
    "installed), or let the test road write one. A log stays a file of its own beside the build."
)
FILTER = "Logs (*.csv *.txt *.tsv *.mf4 *.mdf *.parquet);;All files (*)"
SIDE = 340


class LogsPage(Page):
    """One log at a time, another one beside it."""

    kept: ClassVar[tuple[str, ...]] = ("place", "other")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.place, self.other = 0, -1
        self.files = LogFiles(session)
        self.log: ReadLog | None = None
        self._cache: dict[tuple[str, float], LogFile] = {}
        self._asked: tuple[object, ...] = ()
        self.time, self.lines = TimePlane(session), LinesPlane(session)
        self.said_model, self.said_beside = wrapped("sentence"), wrapped("muted")
        self.faults, self.state = wrapped("warned"), wrapped("muted")
        self.empty = wrapped("muted", EMPTY)
        self.open, self.deeds = QPushButton("Open a log…"), QToolButton()
        self.setting = NumberLabel("Setting at this log", "", (0.0, 1e4), size=20, step=0.5,
                                   changed=self._set)  # fmt: skip
        self._which, self._others = QHBoxLayout(), QHBoxLayout()
        self.logs: list[QToolButton] = []
        self.others: list[QToolButton] = []
        self.map, self.presses = ChannelMap(), PressTable()
        self.map.column_told.connect(self.map_column)
        self.map.unit_told.connect(self.map_unit)
        self._work = Background(self)
        self._work.ended.connect(self._show_log)
        self._work.failed.connect(self._say_failed)
        self._beside()
        self.lay_out(self._drawing(), side=SIDE)
        self.said.hide()

    def _drawing(self) -> QWidget:
        whole = QWidget()
        column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        head = QHBoxLayout()
        head.addLayout(self._which)
        head.addStretch()
        self.deeds.setProperty("role", "kind")
        self.deeds.setText("This log")
        self.deeds.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self.deeds)
        menu.addAction("Write it anew…", self._write)
        self.copy = menu.addAction("Copy it beside the build", self._copy)
        menu.addAction("Take it out", self._drop)
        self.deeds.setMenu(menu)
        self.open.setProperty("role", "quiet")
        self.open.clicked.connect(self._open)
        head.addWidget(self.deeds)
        head.addWidget(self.open)
        column.addLayout(head)
        column.addWidget(self.empty)
        column.addWidget(self.state)
        column.addWidget(self.said_model)
        column.addWidget(self.said_beside)
        beside = QHBoxLayout()
        self.beside_word = worded("Beside it", "heading")
        beside.addWidget(self.beside_word)
        beside.addLayout(self._others)
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
        count = len(self.log.presses)
        return f"{count} press{'es' if count != 1 else ''}"

    def show_figures(self) -> None:
        """Show the log chosen; it is read away from the hand."""
        logs = self._logs
        self.place = min(max(self.place, 0), max(len(logs) - 1, 0))
        if self.other >= len(logs) or self.other == self.place:
            self.other = -1
        self._show_choice(logs)
        there = bool(logs)
        beside = (self.said_model, self.said_beside, self.deeds, self.faults, self.over_time)
        for widget in (self.time, self.lines, *self.axes, *beside):
            widget.setVisible(there)
        self.beside_word.setVisible(len(logs) > 1)
        self.empty.setVisible(not there)
        self.state.setVisible(there)
        unit = unit_shown(PRESSURE, self.session.units)
        self.over_time.setText(f"Pressures, {unit}, over time, s")
        rear, front = self.lines.axes
        self.axes[0].setText(rear)
        self.axes[1].setText(front)
        if not there:
            self.log = None
            self.map.show_log(None)
            self.presses.show_presses((), self.session.units)
            return
        self._ask(logs)

    def _show_choice(self, logs: tuple[Log, ...]) -> None:
        for row, buttons, chosen, act in (
            (self._which, self.logs, self.place, self.choose),
            (self._others, self.others, self.other, self.choose_other),
        ):
            clear(row)
            buttons.clear()
            if row is self._others and len(logs) < 2:
                continue
            group = QButtonGroup(self)
            for place, log in enumerate(logs):
                if row is self._others and place == self.place:
                    continue
                button = segment(button_words(log.file))
                button.setProperty("narrow", "true")
                button.setChecked(place == chosen)
                button.clicked.connect(partial(act, place))
                group.addButton(button)
                buttons.append(button)
                row.addWidget(button)

    def _ask(self, logs: tuple[Log, ...]) -> None:
        """Read the log, and the one beside it, where that is not what is shown."""
        log = logs[self.place]
        path = self.files.path_of(log)
        self.copy.setVisible(path is not None and not self.files.is_beside(log))
        if path is None:
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
        files, cache = self.files, self._cache

        def work(progress: Callable[[float], bool]) -> object:
            changed = files.is_changed(log, path)
            one = look_through(_cached(path, cache), told_by(log), log.left_out)
            progress(0.6)
            beside = None
            if other is not None and other_path is not None:
                second = look_through(_cached(other_path, cache), told_by(other), other.left_out)
                beside = before_after((second.signals, second.presses), (one.signals, one.presses))
            model = beside_model(build, case, one.presses, over)
            return one, beside, model, changed

        self._work.run(work, SOON)

    def _case(self, log: Log) -> int:
        names = [one.name for one in self.session.build.vehicle.load_cases]
        return names.index(log.load_case) if log.load_case in names else self.session.solution.case

    def _show_log(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        log, beside, model, changed = found
        self.log = log
        self.state.setText(
            "The file is another one than was noted: what is shown is of the file as it is now."
            if changed
            else ""
        )
        self.state.setVisible(changed)
        self.time.show_log(log)
        case = self._case(self._logs[self.place])
        noted = self._logs[self.place]
        made = system(self.session.build, over=set_as(self.session.build, noted.setting))
        self.lines.show_log(log, made, case, beside)
        self._show_setting(noted)
        self.said_model.setText(self._model_words(log, model))
        self.said_beside.setText(self._beside_words(beside))
        self.said_beside.setVisible(beside is not None)
        self.map.show_log(log)
        self._show_faults(log)
        self.presses.show_presses(log.presses, self.session.units)
        self.say()

    def _model_words(self, log: ReadLog, model: tuple[BesideModel, ...]) -> str:
        if not log.presses:
            return "No press in it: no pressure over 1 bar for 0.2 s."
        if not model:
            return f"{self.summary[:1].upper()}{self.summary[1:]}; no rear line to compare."
        off = [one for one in model if one.differs]
        if not off:
            return "As the build computes it, within both spreads."
        return "Differs from the build: " + "; ".join(self._off_words(one) for one in off) + "."

    def _off_words(self, one: BesideModel) -> str:
        if one.figure == "slope":
            return f"slope {one.logged:.2f}, computed {one.model:.2f} ± {one.spread:.2f}"
        units = self.session.units
        logged, model = (show(value, PRESSURE, units) for value in (one.logged, one.model))
        return f"{one.figure} {logged}, computed {model}"

    def _beside_words(self, beside: BeforeAfter | None) -> str:
        if beside is None or beside.apart is None:
            return "The other log has nothing to compare at the same foot or front pressure."
        way, other = "more" if beside.apart > 0.0 else "less", self._logs[self.other].file
        much = show(abs(beside.apart), PRESSURE, self.session.units)
        at = beside.before.by.replace("_", " ")
        clear_of = "clear of both spreads" if beside.clear else "within their spreads"
        return f"{much} {way} at the rear than in {other}, at the same {at}: {clear_of}."

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
        lines = [f"{'' if one.at is None else f'{one.at:.2f} s: '}{one.what}" for one in log.faults]
        self.faults.setText("\n".join(f"· {line}" for line in lines[:12]) or "Nothing is wrong.")
        self.faults.setProperty("role", "warned" if lines else "muted")
        self.faults.style().polish(self.faults)

    def _say_failed(self, words: str) -> None:
        self.log = None
        self.state.setText(words)
        self.state.show()
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
        name, _ = QFileDialog.getOpenFileName(self, "Open a log", "", FILTER)
        if name:
            self.open_file(Path(name))

    def open_file(self, path: Path) -> None:
        """Read a log and note it in the build; what keeps it from being read is said."""
        try:
            file = read_log(path)
            found = look_through(file, {})
            sure = {n: c for n, c in found.channels.items() if n not in found.questions}
            place = self.files.add(path, sure, self.session.solution.case_name)
        except BuildErrors as errors:
            self.state.setText("\n".join(str(one) for one in errors.errors))
            self.state.show()
            return
        except OSError as error:
            self.state.setText(f"{path.name} cannot be read ({error.strerror}).")
            self.state.show()
            return
        self.place, self._asked = place, ()
        self._show()

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
        from urgens.bench.log_write import write_csv

        if self.log is None:
            return
        name, _ = QFileDialog.getSaveFileName(self, "Write it anew", "log.csv", "CSV (*.csv)")
        if not name:
            return
        said = (f"written anew from {self._logs[self.place].file}",)
        try:
            write_csv(Path(name), self.log.signals, said)
            self.state.setText(f"Written to {Path(name).name}.")
        except OSError as error:
            self.state.setText(f"It could not be written ({error.strerror}).")
        self.state.show()

    def _copy(self) -> None:
        words = self.files.copy_beside(self._logs[self.place])
        self._show()
        self.state.setText(words)
        self.state.show()

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


def _cached(path: Path, cache: dict[tuple[str, float], LogFile]) -> LogFile:
    """Return a log's file, read once as long as it stays the same."""
    key = (str(path), path.stat().st_mtime)
    if key not in cache:
        cache[key] = read_log(path)
    return cache[key]
