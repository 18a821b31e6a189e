"""Starting the window."""

import signal
import sys
from pathlib import Path

from PySide6.QtCore import QStandardPaths, QTimer
from PySide6.QtGui import QFontDatabase
from PySide6.QtWidgets import QApplication

from urgens.data import font_files
from urgens.document import Build, demo, demo_names
from urgens.ui.session import Session
from urgens.ui.settings import Settings
from urgens.ui.theme.paint import face
from urgens.ui.theme.switch import use_theme
from urgens.ui.window import Window


def dress(application: QApplication) -> None:
    """Give the application its faces and the light theme."""
    for path in font_files():
        QFontDatabase.addApplicationFont(str(path))
    application.setApplicationName("Urgens")
    application.setStyle("Fusion")
    application.setFont(face(16))
    use_theme(application, dark=False)


def run(build: Build | None, path: Path | None) -> int:
    """Show the window on `build`, else what there is to start from, until it is closed."""
    application = QApplication(sys.argv[:1])
    dress(application)
    settings = Settings()
    use_theme(application, dark=settings.dark)
    state = Path(QStandardPaths.writableLocation(QStandardPaths.StandardLocation.AppDataLocation))
    session = Session(build or demo(demo_names()[0]), path)
    session.set_overrides(settings.unit_overrides)
    window = Window(session, settings, state / "recovery")
    if build is None:
        window.show_start(first=True)
    window.show()
    window.offer_recovery()
    window.show_caution()
    signal.signal(signal.SIGINT, lambda *_: application.quit())
    heartbeat = QTimer()  # lets Python see Ctrl+C while Qt waits
    heartbeat.start(200)
    heartbeat.timeout.connect(lambda: None)
    return application.exec()
