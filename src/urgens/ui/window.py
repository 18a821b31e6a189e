"""The window: top bar, rail, stations, press, finding line."""

from pathlib import Path

from PySide6.QtCore import QEvent, Qt, QThreadPool, QTimer
from PySide6.QtGui import (
    QAction,
    QCloseEvent,
    QDragEnterEvent,
    QDropEvent,
    QKeyEvent,
    QResizeEvent,
    QShowEvent,
)
from PySide6.QtWidgets import (
    QApplication,
    QFrame,
    QHBoxLayout,
    QMainWindow,
    QMessageBox,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from urgens.sheet.content import CAUTIONS
from urgens.ui.actions import ALL_DEEDS, HAND_KEYS
from urgens.ui.dialogs import CommandFinder, KeyList
from urgens.ui.files import FileDesk
from urgens.ui.finding_line import FindingLine
from urgens.ui.menu import actions, build_menu, undo_actions
from urgens.ui.press.panel import PressPanel
from urgens.ui.rail import Rail
from urgens.ui.recovery import Recovery, found
from urgens.ui.session import Session
from urgens.ui.settings import Settings
from urgens.ui.start_page import StartPage
from urgens.ui.stations.balance.station import BalanceStation
from urgens.ui.stations.measure.station import MeasureStation
from urgens.ui.stations.sheet.station import SheetStation
from urgens.ui.stations.size.station import BOOSTER, LAUNCH, MAP, WHY, SizeStation
from urgens.ui.stops import Stops
from urgens.ui.theme.paint import T
from urgens.ui.theme.switch import use_theme
from urgens.ui.topbar import TopBar
from urgens.ui.units_dialog import UnitsDialog
from urgens.ui.widgets.dimension_label import DimensionLabel, Known

PRESS_WIDTH, WIDE_PRESS_WIDTH, WIDE_FROM = 272, 320, 1600
FAR_PRESS_WIDTH = 760  # px: standing back its two halves stand side by side
FOLDED_BELOW = 1240  # px, below which the rail shows marks only
SMALLEST = (1200, 740)  # px, below which figures would be cut
CLOSING = 5000  # ms that work under way has to stop
MEASURE, SIZE, BALANCE, SHEET = 0, 1, 2, 3
SIZE_PAGES = {"vehicle.launch": LAUNCH, "booster": BOOSTER, "master": MAP}  # where findings point
_EFFORT_KEYS = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}


class Window(QMainWindow):
    """One build, one window."""

    def __init__(
        self,
        session: Session,
        settings: Settings | None = None,
        recovery_folder: Path | None = None,
    ) -> None:
        super().__init__()
        self.session: Session = session
        self.settings = settings
        self.files: FileDesk = FileDesk(session, self, settings)
        self.stops = Stops(session)
        self.recovery: Recovery | None = None
        if recovery_folder is not None:
            self.recovery = Recovery(session, recovery_folder, self)
        self._recovery_folder = recovery_folder
        self.start: StartPage | None = None
        self.deeds: dict[str, QAction] = actions(self)
        self._undo, self._redo = undo_actions(self)
        self._build(BALANCE)
        session.opened.connect(self.leave_start)
        session.refused.connect(self.files.say_refused)
        session.file_changed.connect(self._title)
        session.told.connect(self._title)
        self._title()
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self.setMinimumSize(*SMALLEST)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)

    def _build(self, station: int, finding: int = 0) -> None:
        """Make everything that is shown; a change of theme or size makes it anew."""
        session = self.session
        self.top = TopBar(session, build_menu(self))
        self.top.set_actions(self._undo, self._redo)
        self.measure = MeasureStation(session)
        self.size_station = SizeStation(session)
        self._asked_from = (SIZE, MAP)  # station and page of Size from which why was asked
        self.balance = BalanceStation(session)
        self.sheet = SheetStation(session)
        self.sheet.export_asked.connect(self.files.write_sheet)
        self.stations = QStackedWidget()
        self.stations.setObjectName("bench")
        self.stations.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        for page in (self.measure, self.size_station, self.balance, self.sheet):
            self.stations.addWidget(page)
        self.rail = Rail(self.stops.all())
        self.rail.chosen.connect(self.show_station)
        self.press = PressPanel(session)
        self.finding_line: FindingLine = FindingLine(session)
        self.finding_line.show_asked.connect(self._show_place)
        session.told.connect(self.rail.refresh)
        self.finding_line.go_to(finding)
        self._lay_out()
        self._fit_width()
        self.show_station(station)

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
        self._pages = QStackedWidget()
        self._pages.addWidget(whole)
        self.setCentralWidget(self._pages)

    def show_station(self, index: int) -> None:
        """Bring a station to the bench."""
        self.stations.setCurrentIndex(index)
        self.rail.set_current(index)

    def ask_why(self) -> None:
        """Show why, drawn with this build; asked again, go back to where it was asked."""
        now, size = self.stations.currentIndex(), self.size_station
        if now == SIZE and size.index == WHY:
            station, page = self._asked_from
            size.show_page(page)
            self.show_station(station)
            return
        self._asked_from = (now, size.index)
        size.show_page(WHY)
        self.show_station(SIZE)

    @property
    def starting(self) -> bool:
        """Whether a builder is choosing what to work on, and no build is shown."""
        return self.start is not None

    def show_start(self, *, first: bool = False) -> None:
        """Offer demo builds, an own vehicle and files; `first`: there is nothing to go back to."""
        if self.start is not None:
            return
        recent = self.settings.recent if self.settings is not None else ()
        unread = self.settings is not None and not self.settings.caution_read
        page = self.start = StartPage(recent, caution=unread)
        page.back.setVisible(not first)
        page.demo_chosen.connect(self.files.open_demo)
        page.own_chosen.connect(self._start_own)
        page.open_asked.connect(self.files.open)
        page.recent_chosen.connect(self.files.open_path)
        page.left.connect(self.leave_start)
        if self.settings is not None:
            page.caution_read.connect(self.settings.set_caution_read)
        self._pages.addWidget(page)
        self._pages.setCurrentWidget(page)
        for action in (self._undo, self._redo):
            self.removeAction(action)
        page.cards[0].setFocus()
        self._title()

    def _start_own(self) -> None:
        """Open the builder's own vehicle where its figures are typed."""
        self.files.open_own()
        if not self.starting:
            self.show_station(MEASURE)

    def leave_start(self) -> None:
        """Show the build."""
        page, self.start = self.start, None
        if page is None:
            return
        self._pages.removeWidget(page)
        page.deleteLater()
        self.addActions([self._undo, self._redo])
        self._title()
        self.setFocus()

    def next_setup(self) -> None:
        """Look at the next set-up of the build, from the last at the first again."""
        names = [setup.name for setup in self.session.base.setups]
        if names:
            now = self.session.setup
            index = (names.index(now) + 1) % len(names) if now in names else 0
            self.session.set_setup(names[index])

    def next_open(self) -> None:
        """Go to the next figure of the station that is assumed or missing."""
        labels = self.stations.currentWidget().findChildren(DimensionLabel)
        still_open = [w for w in labels if w.isVisible() and w.known is not Known.YES]
        if still_open:
            now = self.focusWidget()
            at = next((i for i, label in enumerate(still_open) if label is now), -1)
            label = still_open[(at + 1) % len(still_open)]
            label.setFocus(Qt.FocusReason.ShortcutFocusReason)

    def switch_theme(self) -> None:
        """Go from light to dark or back; nothing else changes."""
        self._dress(dark=not T.dark, stand_back=T.stands_back)
        if self.settings is not None:
            self.settings.set_dark(T.dark)

    def stand_back(self) -> None:
        """Make everything larger, to be read from two metres, or as it was before."""
        self._dress(dark=T.dark, stand_back=not T.stands_back)

    def _dress(self, *, dark: bool, stand_back: bool) -> None:
        """Make all that is shown anew in another theme or size."""
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        use_theme(application, dark=dark, stand_back=stand_back)
        starting, first = self.starting, self.start is not None and self.start.back.isHidden()
        self.start = None
        self._build(self.stations.currentIndex(), self.finding_line.index)
        if starting:
            self.show_start(first=first)
        else:
            self.setFocus()

    def show_keys(self) -> None:
        """Show the list of keys."""
        rows = [(", ".join(deed.keys), deed.title) for deed in ALL_DEEDS if deed.keys]
        KeyList([*HAND_KEYS, *rows], self).exec()

    def choose_units(self) -> None:
        """Ask for units of the builder's own."""
        dialog = UnitsDialog(self.session.units, self)
        dialog.chosen.connect(self.session.set_overrides)
        dialog.exec()
        if self.settings is not None:
            self.settings.set_unit_overrides(dialog.overrides)

    def find_command(self) -> None:
        """Ask for a command by its words and do it."""
        finder = CommandFinder(list(self.deeds.values()), self)
        if finder.exec() and finder.chosen is not None:
            finder.chosen.trigger()

    def show_caution(self) -> QMessageBox | None:
        """Show the caution on the first run, and never again once it has been read."""
        settings = self.settings
        if settings is None or settings.caution_read or self.starting:
            return None
        box = QMessageBox(self)
        box.setIcon(QMessageBox.Icon.Warning)
        box.setWindowTitle("Brakes can kill")
        box.setText("Brakes can kill.")
        box.setInformativeText("\n\n".join(CAUTIONS))
        box.addButton("I have read this", QMessageBox.ButtonRole.AcceptRole)
        box.finished.connect(lambda _: settings.set_caution_read())
        box.open()
        return box

    def offer_recovery(self) -> None:
        """Offer the work that a window which was killed has left."""
        if self._recovery_folder is None:
            return
        for left in found(self._recovery_folder):
            if self.files.wants(left):
                self.session.recover(left.build, left.path)
                if self.recovery is not None:
                    self.recovery.keep()
                left.kept.unlink(missing_ok=True)
                return

    def press_to_first_lock(self) -> None:
        """Press as hard as the first lock takes on this road."""
        effort = self.session.first_lock_effort()
        if effort is not None:
            self.session.set_effort(effort)

    def _show_place(self, where: str) -> None:
        """Go to where a finding points."""
        if where in SIZE_PAGES:
            self.size_station.show_page(SIZE_PAGES[where])
            self.show_station(SIZE)
            return
        if not where.startswith("valves") and self.measure.label(where) is not None:
            self.show_station(MEASURE)
            self.measure.go_to(where)
            return
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
        if self.starting:
            self.setWindowTitle("Urgens")
            self.setWindowModified(False)
            return
        path = self.session.path
        place = path.name if path is not None else "not saved to a file yet"
        if self.session.read_only:
            place += ", read-only"
        self.setWindowTitle(f"{self.session.build.name}[*] ({place}): Urgens")
        self.setWindowModified(self.session.modified)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self.starting:
            super().keyPressEvent(event)
            return
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

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._fit_width()

    def _fit_width(self) -> None:
        wide = self.width() >= WIDE_FROM
        self.press.setFixedWidth(WIDE_PRESS_WIDTH if wide else PRESS_WIDTH)
        if T.stands_back:
            self.press.setFixedWidth(FAR_PRESS_WIDTH)
        for widget in (self.top, self.rail):
            widget.setHidden(T.stands_back)
        self.rail.set_folded(self.width() < FOLDED_BELOW)

    def changeEvent(self, event: QEvent) -> None:
        super().changeEvent(event)
        if event.type() == QEvent.Type.ActivationChange and self.isActiveWindow():
            QTimer.singleShot(0, self.files.look_at_disk)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if any(url.isLocalFile() for url in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        for url in event.mimeData().urls():
            if url.isLocalFile():
                event.acceptProposedAction()
                self.files.open_path(Path(url.toLocalFile()))
                return

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        if not self.starting:
            self.setFocus()  # so that the keys are the press's until something else is chosen

    def closeEvent(self, event: QCloseEvent) -> None:
        if self.files.may_leave():
            if self.recovery is not None:
                self.recovery.clear()
            self.stations.hide()  # what works for a page is told to stop
            QThreadPool.globalInstance().waitForDone(CLOSING)
            event.accept()
        else:
            event.ignore()
