"""Takes the pictures of the README from the demo builds: screenshots.py FOLDER."""

import sys
from pathlib import Path

from PySide6.QtCore import QEventLoop, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from urgens.document import demo
from urgens.ui.application import dress
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from urgens.ui.theme.switch import use_theme
from urgens.ui.widgets.background import any_running

BEGUN = 700  # ms in which long work begins
LAID_OUT = 300  # ms in which what it came to is laid out
STROKES = 7
START = ""  # the page before any station


def wait(milliseconds: int) -> None:
    """Let the window live for a while."""
    loop = QEventLoop()
    QTimer.singleShot(milliseconds, loop.quit)
    loop.exec()


def bleed(window: MainWindow) -> None:
    """Go on to the first strokes, so that something is open."""
    page = window.station("Bleed").page
    page.go_on()
    while page.run.step.action != "stroke":
        page.go_on()
    for _ in range(STROKES):
        page.stroke()
    wait(300)


def fault(window: MainWindow) -> None:
    """Follow a sinking pedal so far that something is ranked."""
    page = window.station("Trace").page
    page.run.see("sinks", True, "It sinks")
    page.run.see("level-falls", False, "The level stays")
    page.run.see("slowly", True, "Slowly")
    page.run.tell("paper", "dry", "Dry")
    wait(300)


def main() -> None:
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    application = QApplication(sys.argv[:1])
    dress(application)
    for name, place, file, dark, far in (
        ("library", "Balance", "balance.png", False, False),
        ("roadster", "Balance", "balance-twin.png", False, False),
        ("library", "Balance/Choose", "balance-choose.png", False, False),
        ("library", "Balance", "stand-back.png", False, True),
        ("library", "Measure", "measure.png", False, False),
        ("roadster", "Size", "size.png", False, False),
        ("roadster", "Size/Wishes", "size-wishes.png", False, False),
        ("library", "Plumb", "plumb.png", False, False),
        ("tender", "Plumb", "plumb-faults.png", True, False),
        ("library", "Plumb/Lines", "plumb-lines.png", False, False),
        ("roadster", "Bleed", "bleed.png", False, False),
        ("library", "Bleed/As it stands", "bleed-stands.png", False, False),
        ("roadster", "Prove/Gauges", "prove-gauges.png", False, False),
        ("roadster", "Prove/Stops", "prove-stops.png", False, False),
        ("roadster", "Prove/Test road", "prove-road.png", True, False),
        ("library", "Trace/Fault", "trace.png", False, False),
        ("roadster", "Sheet", "sheet.png", False, False),
        ("library", "Sheet/Plan", "sheet-plan.png", False, False),
        ("library", START, "start.png", False, False),
    ):
        use_theme(application, dark=dark, stand_back=far)
        window = MainWindow(Session(demo(name)))
        station, _, page = place.partition("/")
        if place == START:
            window.show_start(first=True)
        else:
            window.show_station(station)
        if page:
            window.station(station).show_page_named(page)
        window.show()
        QTest.qWaitForWindowExposed(window)
        wait(BEGUN)
        while any_running():  # what is worked out away from the hand, one after the other
            wait(BEGUN)
        wait(LAID_OUT)
        if place == "Bleed":
            bleed(window)
        if station == "Trace":
            fault(window)
        window.grab().save(str(folder / file))
        print(folder / file)
        window.session.undo_stack.setClean()  # so that nothing is asked about what was bled
        window.close()


if __name__ == "__main__":
    main()
