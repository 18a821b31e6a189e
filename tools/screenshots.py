"""Takes the pictures of the README from the demo builds: screenshots.py FOLDER."""

import sys
from pathlib import Path

from PySide6.QtCore import QEventLoop, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from urgens.document import demo
from urgens.ui.application import dress
from urgens.ui.session import Session
from urgens.ui.stations.balance.station import CHOOSE, SURE, VALVES
from urgens.ui.stations.size.station import BOOSTER, FEEL, HALF, LAUNCH, PEDAL, SETUPS
from urgens.ui.theme.switch import use_theme
from urgens.ui.window import BALANCE, MEASURE, SHEET, SIZE, Window

PAGES_OF_SIZE = {
    "size-pedal.png": PEDAL,
    "size-booster.png": BOOSTER,
    "size-feel.png": FEEL,
    "size-half.png": HALF,
    "size-launch.png": LAUNCH,
    "size-setups.png": SETUPS,
}
PAGES_OF_BALANCE = {
    "balance-choose.png": CHOOSE,
    "balance-sure.png": SURE,
    "balance-valves.png": VALVES,
}
WORKED = ("balance-choose.png", "balance-sure.png")  # worked out away from the hand
WORK = 6000  # ms
START = -1  # the page before any station


def wait(milliseconds: int) -> None:
    """Let the window live for a while."""
    loop = QEventLoop()
    QTimer.singleShot(milliseconds, loop.quit)
    loop.exec()


def main() -> None:
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    application = QApplication(sys.argv[:1])
    dress(application)
    for name, station, file, dark, far in (
        ("pickup", BALANCE, "balance.png", False, False),
        ("roadster", BALANCE, "balance-twin.png", False, False),
        ("coupe", BALANCE, "balance-dark.png", True, False),
        ("pickup", BALANCE, "balance-choose.png", False, False),
        ("pickup", BALANCE, "balance-sure.png", False, False),
        ("pickup", BALANCE, "balance-valves.png", False, False),
        ("pickup", BALANCE, "stand-back.png", False, True),
        ("pickup", MEASURE, "measure.png", False, False),
        ("roadster", MEASURE, "measure-roadster.png", False, False),
        ("roadster", SIZE, "size.png", False, False),
        ("pickup", SIZE, "size-pedal.png", False, False),
        ("pickup", SIZE, "size-booster.png", False, False),
        ("pickup", SIZE, "size-feel.png", False, False),
        ("pickup", SIZE, "size-half.png", False, False),
        ("coupe", SIZE, "size-launch.png", False, False),
        ("pickup", SIZE, "size-setups.png", False, False),
        ("pickup", SHEET, "sheet.png", False, False),
        ("pickup", START, "start.png", False, False),
    ):
        use_theme(application, dark=dark, stand_back=far)
        window = Window(Session(demo(name)))
        if station == START:
            window.show_start(first=True)
        else:
            window.show_station(station)
        if file in PAGES_OF_BALANCE:
            window.balance.show_page(PAGES_OF_BALANCE[file])
        if file in PAGES_OF_SIZE:
            window.size_station.show_page(PAGES_OF_SIZE[file])
        window.show()
        QTest.qWaitForWindowExposed(window)
        wait(WORK if file in WORKED else 300)
        window.grab().save(str(folder / file))
        print(folder / file)
        window.close()


if __name__ == "__main__":
    main()
