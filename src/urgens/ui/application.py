"""Starting the window."""

import gc
import os
import signal
import sys
from pathlib import Path

from PySide6.QtCore import (
    QMessageLogContext,
    QStandardPaths,
    Qt,
    QTimer,
    QtMsgType,
    qInstallMessageHandler,
)
from PySide6.QtGui import QFontDatabase, QIcon
from PySide6.QtWidgets import QApplication

from urgens.data import DESKTOP_ID, ICON, demo_names, font_files
from urgens.document import Build, demo
from urgens.missing_libraries import how_to_install
from urgens.ui.frame.focus_tips import FocusTips
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from urgens.ui.theme.paint import face
from urgens.ui.theme.switch import use_theme
from urgens.ui.widgets.garbage import collect_between_events

NO_DISPLAY = 2  # exit code


def dress(application: QApplication) -> None:
    """Give the application its faces and the light theme, and let it collect its garbage."""
    for path in font_files():
        QFontDatabase.addApplicationFont(str(path))
    application.setApplicationName("Urgens")
    application.setDesktopFileName(DESKTOP_ID)
    application.setWindowIcon(QIcon(str(ICON)))
    application.setStyle("Fusion")
    # Files are chosen in the theme of everything else.
    application.setAttribute(Qt.ApplicationAttribute.AA_DontUseNativeDialogs)
    application.setFont(face(16))
    use_theme(application, dark=False)
    collect_between_events(application)


def offscreen() -> QApplication:
    """Return the running application, or a dressed one that needs no screen."""
    running = QApplication.instance()
    if isinstance(running, QApplication):
        return running
    application = QApplication(["urgens", "-platform", "offscreen"])
    dress(application)
    return application


def started() -> QApplication:
    """Return the application on its display; where that cannot be used, say so and exit with 2.

    Qt ends the process itself then, by SIGABRT, after a last word to its message handler.
    """
    told: list[str] = []

    def listen(kind: QtMsgType, context: QMessageLogContext, words: str) -> None:
        told.append(words)
        if kind == QtMsgType.QtFatalMsg:
            why = next((one for one in told if "display" in one or "needed" in one), words)
            shown = os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY") or "none"
            sys.stderr.write(
                f"urgens: the window cannot be shown on this display ({shown}): "
                f"{' '.join(why.split())}\n"
                "  Log in on a screen, or set DISPLAY to one that can be used. All commands but "
                f"demo work without a screen.\n  {how_to_install()}\n"
            )
            sys.stderr.flush()
            os._exit(NO_DISPLAY)

    qInstallMessageHandler(listen)
    application = QApplication(["urgens"])  # by which the window manager knows it
    qInstallMessageHandler(None)
    sys.stderr.writelines(f"{words}\n" for words in told)
    return application


def run(build: Build | None, path: Path | None) -> int:
    """Show the window on `build`, else what there is to start from, until it is closed."""
    application = started()
    dress(application)
    FocusTips(application)
    settings = Settings()
    use_theme(application, dark=settings.dark)
    state = Path(QStandardPaths.writableLocation(QStandardPaths.StandardLocation.AppDataLocation))
    session = Session(build or demo(demo_names()[0]), path)
    session.set_overrides(settings.unit_overrides)
    session.scores = settings.scores
    session.scored.connect(lambda: settings.set_scores(session.scores))
    window = MainWindow(session, settings, state / "recovery")
    window.mishaps.listen()
    if build is None:
        window.show_start(first=True)
    window.show()
    window.offer_recovery()
    window.show_caution()
    signal.signal(signal.SIGINT, lambda *_: application.quit())
    heartbeat = QTimer()  # lets Python see Ctrl+C while Qt waits
    heartbeat.start(200)
    heartbeat.timeout.connect(lambda: None)
    gc.freeze()  # what has been made by now stays: it is not looked through again
    return application.exec()
