"""The window: top bar, rail, stations, press, finding line."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QCloseEvent, QKeyEvent, QKeySequence, QShowEvent
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QMainWindow,
    QMenu,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from urgens.guidance import Severity
from urgens.ui.actions import ALL_DEEDS, DEMO_DEEDS, FILE_DEEDS, LAST_DEEDS
from urgens.ui.files import FileDesk
from urgens.ui.finding_line import FindingLine
from urgens.ui.press.panel import PressPanel
from urgens.ui.rail import Rail, Stop
from urgens.ui.session import Session
from urgens.ui.stations.balance.station import BalanceStation
from urgens.ui.stations.sheet.station import SheetStation
from urgens.ui.topbar import TopBar

PRESS_WIDTH, WIDE_PRESS_WIDTH, WIDE_FROM = 272, 320, 1600
SMALLEST = (1240, 740)  # px, below which figures would be cut
BALANCE, SHEET = 0, 1
_EFFORT_KEYS = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}


class Window(QMainWindow):
    """One build, one window."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session: Session = session
        self.files: FileDesk = FileDesk(session, self)
        self.deeds: dict[str, QAction] = {}
        self._add_actions()
        self.top = TopBar(session, self._menu())
        self.top.set_actions(*self._undo_actions())
        self.balance = BalanceStation(session)
        self.sheet = SheetStation(session)
        self.sheet.export_asked.connect(self.files.write_sheet)
        self.stations = QStackedWidget()
        self.stations.setObjectName("bench")
        self.stations.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        for station in (self.balance, self.sheet):
            self.stations.addWidget(station)
        self.rail = Rail(self._stops())
        self.rail.chosen.connect(self.show_station)
        self.press = PressPanel(session)
        self.finding_line: FindingLine = FindingLine(session)
        self.finding_line.show_asked.connect(self._show_place)
        self._lay_out()
        session.solution_changed.connect(self.rail.refresh)
        session.file_changed.connect(self._title)
        session.solution_changed.connect(self._title)
        self._title()
        self.resize(1280, 800)
        self.setMinimumSize(*SMALLEST)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)

    def _lay_out(self) -> None:
        middle = QHBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.rail)
        middle.addWidget(self.stations, 1)
        middle.addWidget(self.press)
        column = QVBoxLayout()
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.top)
        column.addLayout(middle, 1)
        column.addWidget(self.finding_line)
        whole = QFrame()
        whole.setLayout(column)
        self.setCentralWidget(whole)

    def _add_actions(self) -> None:
        for deed in ALL_DEEDS:
            action = QAction(deed.title, self)
            action.setShortcuts([QKeySequence(keys) for keys in deed.keys])
            action.triggered.connect(lambda _=False, run=deed.run: run(self))
            self.addAction(action)
            self.deeds[deed.name] = action

    def _menu(self) -> QMenu:
        menu = QMenu(self)
        for group in (FILE_DEEDS, DEMO_DEEDS, LAST_DEEDS):
            for deed in group:
                menu.addAction(self.deeds[deed.name])
            menu.addSeparator()
        return menu

    def _undo_actions(self) -> tuple[QAction, QAction]:
        stack = self.session.undo_stack
        undo, redo = stack.createUndoAction(self, "Undo:"), stack.createRedoAction(self, "Redo:")
        undo.setShortcut(QKeySequence("Ctrl+Z"))
        redo.setShortcut(QKeySequence("Ctrl+Shift+Z"))
        self.addActions([undo, redo])
        return undo, redo

    def _stops(self) -> tuple[Stop, ...]:
        return (
            Stop("Balance", self._balance_fact, self._balance_severity),
            Stop("Sheet", lambda: "to print", lambda: None, judged=False),
        )

    def _balance_severity(self) -> Severity | None:
        found = self.session.findings
        return min((finding.severity for finding in found), default=None)

    def _balance_fact(self) -> str:
        """Return at most twelve letters on how Balance stands."""
        found = self.session.findings
        worst = self._balance_severity()
        count = sum(finding.severity is worst for finding in found)
        if worst is None:
            return "front first"
        plural = "s" if count > 1 and worst is not Severity.ADVICE else ""
        return f"{count} {worst.word}{plural}"

    def show_station(self, index: int) -> None:
        """Bring a station to the bench."""
        self.stations.setCurrentIndex(index)
        self.rail.set_current(index)

    def press_to_first_lock(self) -> None:
        """Press as hard as the first lock takes on this road."""
        effort = self.session.first_lock_effort()
        if effort is not None:
            self.session.set_effort(effort)

    def _show_place(self, where: str) -> None:
        """Go to where a finding points."""
        self.show_station(BALANCE)
        controls = self.balance.controls
        target: QWidget = controls.knee.label if controls.knee.isVisible() else controls.fit
        if where.startswith("valves.rear"):
            target.setFocus(Qt.FocusReason.ShortcutFocusReason)
        elif where.startswith("targets") or where.startswith("pedal") or where.startswith("master"):
            self.press.effort.setFocus(Qt.FocusReason.ShortcutFocusReason)
        else:
            self.balance.pressures.setFocus(Qt.FocusReason.ShortcutFocusReason)

    def _title(self) -> None:
        path = self.session.path
        place = path.name if path is not None else "not saved to a file yet"
        self.setWindowTitle(f"{self.session.build.name}[*] ({place}): Urgens")
        self.setWindowModified(self.session.modified)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = _EFFORT_KEYS.get(Qt.Key(event.key()))
        plain = not event.modifiers() & ~(
            Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.KeypadModifier
        )
        if step is not None and plain:
            many = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            self.press.step(step * many)
        elif plain and event.text() and event.text() in "0123456789":
            self.press.effort.begin_edit(event.text())
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: object) -> None:
        wide = self.width() >= WIDE_FROM
        self.press.setFixedWidth(WIDE_PRESS_WIDTH if wide else PRESS_WIDTH)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.setFocus()  # so that the keys are the press's until something else is chosen

    def closeEvent(self, event: QCloseEvent) -> None:
        if self.files.may_leave():
            event.accept()
        else:
            event.ignore()
