"""The window: top bar, rail, stations, press, finding line."""

from pathlib import Path

from PySide6.QtCore import QEvent, Qt, QTimer
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
    QMenu,
    QMessageBox,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from urgens.document import demo_names
from urgens.ui.frame.bench import StationStack
from urgens.ui.frame.caution import CautionBox
from urgens.ui.frame.commands import Command
from urgens.ui.frame.dialogs import CommandFinder
from urgens.ui.frame.enter_presses import EnterPresses
from urgens.ui.frame.files import FileDesk
from urgens.ui.frame.findable import Findable, of_build, of_commands, of_pages, of_words, of_work
from urgens.ui.frame.finding_line import FindingLine
from urgens.ui.frame.help_panel import HelpPanel
from urgens.ui.frame.layout_drawing import drawing_of
from urgens.ui.frame.menu import actions, build_menu, undo_actions
from urgens.ui.frame.mishaps import Mishaps, MishapStrip
from urgens.ui.frame.rail import Rail
from urgens.ui.frame.recovery import Recovery, found
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.start_page import StartPage
from urgens.ui.frame.stations import FIRST, OWN, STATIONS, WISHES
from urgens.ui.frame.toast import Toast
from urgens.ui.frame.topbar import TopBar
from urgens.ui.frame.units_dialog import UnitsDialog
from urgens.ui.press.panel import PressPanel
from urgens.ui.press.strip import PressStrip
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.theme.switch import dress_window, use_theme
from urgens.ui.widgets.background import Background, wait_for_all
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.station import Station
from urgens.ui.widgets.tab_order import order_by_eye, stops

PRESS_WIDTH = 272
WIDE_PRESS_WIDTH = 320
WIDE_FROM = 1600
FAR_PRESS_WIDTH = 396  # px: room for four digits of a pressure, twice, standing back
FOLDED_BELOW = 1240  # px, below which the rail has names under its marks
STRIP_BELOW = 1200  # px, below which the press is a strip, and opens over the bench
SMALLEST = (1024, 700)  # px, below which figures would be cut
CLOSING = 1.0  # s that work under way has to stop
_EFFORT_KEYS = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}


class MainWindow(QMainWindow):
    """One build, one window; `first` is the station that it opens at."""

    def __init__(
        self,
        session: Session,
        settings: Settings | None = None,
        recovery_folder: Path | None = None,
        first: str = FIRST,
    ) -> None:
        super().__init__()
        self.session: Session = session
        self.settings = settings
        self.files: FileDesk = FileDesk(session, self, settings)
        self.help: HelpPanel = HelpPanel(self, session, settings)
        self.mishaps: Mishaps = Mishaps(self)
        self.recovery: Recovery | None = None
        if recovery_folder is not None:
            self.recovery = Recovery(session, recovery_folder, self)
            self.recovery.failed.connect(self.files.say_not_kept)
        self._recovery_folder = recovery_folder
        self.start: StartPage | None = None
        self.commands: dict[str, QAction] = actions(self, self._do)
        self._enter = EnterPresses(self)
        self._undo, self._redo = undo_actions(self, session.undo_stack)
        stack = session.undo_stack
        self._undo.triggered.connect(lambda: self.toast.say(f"Taken back: {stack.redoText()}"))
        self._redo.triggered.connect(lambda: self.toast.say(f"Done again: {stack.undoText()}"))
        session.drawers["layout"] = drawing_of
        self._build()
        self.bench.begin_at(first)
        session.opened.connect(self.leave_start)
        session.refused.connect(self.files.say_refused)
        session.file_changed.connect(self._title)
        session.told.connect(self._title)
        self._title()
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self.setMinimumSize(*SMALLEST)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)

    def _do(self, command: Command) -> None:
        """Do it; what belongs to the build waits while none is shown."""
        if command.anywhere or not self.starting:
            command.run(self)

    def _build(self) -> None:
        """Make everything that is shown; a change of theme or size makes it anew."""
        session = self.session
        self.top = TopBar(session, self._menu)
        self.top.set_actions(self._undo, self._redo)
        self.top.setup_menu.place_asked.connect(self._show_place)
        self.bench: StationStack = StationStack(session, STATIONS)
        self.bench.command_requested.connect(lambda name: self.commands[name].trigger())
        self.rail = Rail(session, STATIONS)
        self.rail.chosen.connect(self.go_to_station)
        self.bench.shown.connect(self.rail.set_current)
        self.press = PressPanel(session)
        self.press.nearer.clicked.connect(self.stand_back)
        self.bench.place_asked.connect(self._show_place)
        self.bench.shown.connect(self._show_standing)
        self.strip = PressStrip(session)
        self.strip.asked.connect(self.pull_press)
        self._pulled = False  # whether the press lies over the bench
        self.finding_line: FindingLine = FindingLine(session)
        self.finding_line.show_asked.connect(self._show_place)
        self.mishap_strip = MishapStrip(self.mishaps, session)
        self.mishap_strip.save_asked.connect(self.files.save)
        session.told.connect(self.rail.refresh)
        self._lay_out()
        self._fit_width()

    def _menu(self, parent: QWidget) -> QMenu:
        recent = self.settings
        return build_menu(
            parent,
            self.commands,
            lambda: recent.recent if recent is not None else (),
            self.files.open_path,
        )

    def _lay_out(self) -> None:
        middle = spaced(QHBoxLayout(), 0)
        middle.addWidget(self.rail)
        middle.addWidget(self.bench, 1)
        middle.addWidget(self.press)
        middle.addWidget(self.strip)
        self._middle = middle
        column = tight(QVBoxLayout(), 0)
        column.addWidget(self.top)
        column.addWidget(self.mishap_strip)
        column.addLayout(middle, 1)
        column.addWidget(self.finding_line)
        whole = QFrame()
        whole.setLayout(column)
        self._pages = QStackedWidget()
        self._pages.addWidget(whole)
        dress_window(self)
        self.setCentralWidget(self._pages)
        self.toast = Toast(self.bench)
        self.top.setup_menu.said.connect(self.toast.say)

    def station(self, name: str) -> Station:
        """Return a station by its name."""
        return self.bench.station(name)

    def show_station(self, name: str) -> None:
        """Bring a station to the bench."""
        self.bench.show_station(name)

    def go_to_station(self, name: str) -> None:
        """Bring a station, whose page has the keys from then on."""
        self.show_station(name)
        self.station(name).take_focus()

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
        page.wishes_chosen.connect(self._start_wishes)
        page.walk_asked.connect(self._start_walk)
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
            self.show_station(OWN)

    def _start_wishes(self) -> None:
        """Open the builder's own vehicle where it is said what it should do."""
        self.files.open_own()
        if not self.starting:
            station, page = WISHES
            self.show_station(station)
            self.station(station).show_page_named(page)

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
        """Go to the next figure of the station that is assumed or missing, as the eye goes."""
        labels = [one for one in stops(self.bench.current()) if isinstance(one, DimensionLabel)]
        now = self.focusWidget()
        at = next((i for i, one in enumerate(labels) if one is now or one.isAncestorOf(now)), -1)
        for label in (*labels[at + 1 :], *labels[: at + 1]):
            if label.known is not Knowledge.YES:
                label.setFocus(Qt.FocusReason.ShortcutFocusReason)
                return

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
        self.help.end_walk()
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        starting, first = self.starting, self.start is not None and self.start.back.isHidden()
        self.start = None
        kept, finding = self.bench.keep(), self.finding_line.index
        self.bench.forget_unseen()
        use_theme(application, dark=dark, stand_back=stand_back)
        self._build()
        self.bench.give_back(kept)
        self.finding_line.go_to(finding)
        if starting:
            self.show_start(first=first)
        else:
            self.setFocus()

    def _start_walk(self) -> None:
        """Go through the window on the first of the demo builds."""
        self.files.open_demo(demo_names()[0])
        if not self.starting:
            self.help.walk()

    def choose_units(self) -> None:
        """Ask for units of the builder's own."""
        dialog = UnitsDialog(self.session.units, self)
        dialog.chosen.connect(self.session.set_overrides)
        dialog.exec()
        if self.settings is not None:
            self.settings.set_unit_overrides(dialog.overrides)

    def find_command(self) -> None:
        """Ask for anything by its words, and go there or do it."""
        finder = CommandFinder(self.findable(), self)
        if finder.exec() and finder.chosen is not None:
            finder.chosen.act()

    def findable(self) -> list[Findable]:
        """Return all that can be found by typing, what can be done first."""
        found = [*of_commands(self.commands.values())]
        if self.starting:
            return found
        found += of_pages(self.go_to_page)
        found += of_build(self.session.build, self._show_place)
        return [*found, *of_work(self._show_place), *of_words(self.help.show_term)]

    def go_to_page(self, station: str, page: str) -> None:
        """Bring a page of a station, which has the keys from then on."""
        self.show_station(station)
        if page:
            self.station(station).show_page_named(page)
        self.station(station).take_focus()

    def show_caution(self) -> QMessageBox | None:
        """Show the caution on the first run, and never again once it has been read."""
        settings = self.settings
        if settings is None or settings.caution_read or self.starting:
            return None
        box = CautionBox(self)
        box.read.connect(settings.set_caution_read)
        box.open()
        return box

    def offer_recovery(self) -> None:
        """Offer the work that a window which was killed has left."""
        if self._recovery_folder is None:
            return
        lefts, unread = found(self._recovery_folder)
        if unread:
            self.files.say_unread(unread)
        for left in lefts:
            if self.files.wants(left):
                self.session.recover(left.build, left.path)
                if self.recovery is not None:
                    self.recovery.keep()
                left.forget()
                return

    def press_to_first_lock(self) -> None:
        """Press as hard as the first lock takes on this road."""
        effort = self.session.first_lock_effort()
        if effort is not None:
            self.session.set_effort(effort)

    def _show_standing(self) -> None:
        self.press.stand(stands=self.bench.standing)

    def _show_place(self, where: str) -> None:
        """Go to where a finding points; what no station has the press speaks of."""
        if not self.bench.go_to(where):
            if self.press.isHidden():
                self.pull_press()
            self.press.effort.setFocus(Qt.FocusReason.ShortcutFocusReason)

    def _title(self) -> None:
        if self.starting:
            self.setWindowTitle("Urgens")
            self.setWindowModified(False)
            return
        path = self.session.path
        place = path.name if path is not None else "not saved to a file yet"
        if self.session.document.read_only:
            place += ", read-only"
        self.setWindowTitle(f"{self.session.build.name}[*] ({place}): Urgens")
        self.setWindowModified(self.session.modified)

    def focusNextPrevChild(self, forward: bool) -> bool:
        order_by_eye(self)  # as it stands now: cards come and go
        return super().focusNextPrevChild(forward)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self._enter.took(event):
            return
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
        elif plain and event.text() and event.text() in "0123456789" and self.press_is_meant:
            self.press.effort.begin_edit(event.text())
        elif event.key() == Qt.Key.Key_Escape and self._pulled:
            self.pull_press()
        else:
            super().keyPressEvent(event)

    @property
    def press_is_meant(self) -> bool:
        """Whether the press has the focus: digits are the foot's then, and nobody else's."""
        focused = self.focusWidget()
        return focused is self.press or (focused is not None and self.press.isAncestorOf(focused))

    def show_sheet(self) -> None:
        """Bring the sheet's pages as they are printed."""
        self.show_station("Sheet")
        self.station("Sheet").show_page_named("Build sheet")

    def go_to_foot(self) -> None:
        """Give the press the focus, and bring it where it is a strip."""
        if self.press.isHidden():
            self.pull_press()
        self.press.effort.setFocus(Qt.FocusReason.ShortcutFocusReason)

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._fit_width()

    def pull_press(self) -> None:
        """Bring the press over the bench where there is no room beside it, or put it back."""
        self._pulled = not self._pulled
        self._fit_press()

    def _fit_press(self) -> None:
        """Let the press stand beside the bench, or be a strip that opens over it."""
        narrow = self.width() < STRIP_BELOW and not T.stands_back
        self.strip.setVisible(narrow)
        self._pulled = self._pulled and narrow
        self.strip.open.setChecked(self._pulled)
        if not narrow:
            if self._middle.indexOf(self.press) < 0:
                self._middle.insertWidget(2, self.press)
            self.press.show()
            return
        self._middle.removeWidget(self.press)
        self.press.setVisible(self._pulled)
        if self._pulled:
            bench = self.bench.geometry()
            left = bench.right() + 1 - self.press.width()
            self.press.setGeometry(left, bench.top(), self.press.width(), bench.height())
            self.press.raise_()

    def _fit_width(self) -> None:
        wide = self.width() >= WIDE_FROM
        self.press.setFixedWidth(WIDE_PRESS_WIDTH if wide else PRESS_WIDTH)
        if T.stands_back:
            self.press.setFixedWidth(FAR_PRESS_WIDTH)
        for widget in (self.top, self.rail):
            widget.setHidden(T.stands_back)
        self.rail.set_folded(self.width() < FOLDED_BELOW)
        self._fit_press()

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
                self._open_dropped(Path(url.toLocalFile()))
                return

    def _open_dropped(self, path: Path) -> None:
        """Open a file that was let go over the window: where its kind is at home, or as a build."""
        home = next((one.name for one in STATIONS if path.suffix.lower() in one.suffixes), None)
        if home is None:
            self.files.open_path(path)
            return
        self.show_station(home)
        self.station(home).take_file(path)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        if not self.starting:
            # the keys are the press's until something else is chosen
            (self if self.press.isHidden() else self.press.effort).setFocus()

    def closeEvent(self, event: QCloseEvent) -> None:
        event.ignore()  # what goes wrong from here on leaves the window, and the work in it
        if self.files.may_leave():
            event.accept()
            if self.recovery is not None:
                self.recovery.clear()
            self.bench.hide()
            for work in self.findChildren(Background):
                work.stop()
            wait_for_all(CLOSING)
            self.mishaps.leave_off()
