"""Takes the pictures of the README from the demo builds: screenshots.py FOLDER."""

import sys
from pathlib import Path

from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from urgens.build import demo
from urgens.ui.application import dress
from urgens.ui.session import Session
from urgens.ui.theme.switch import use_theme
from urgens.ui.window import BALANCE, MEASURE, SHEET, SIZE, Window

START = -1  # the page before any station


def main() -> None:
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    application = QApplication(sys.argv[:1])
    dress(application)
    for name, station, file, dark, far in (
        ("pickup", BALANCE, "balance.png", False, False),
        ("roadster", BALANCE, "balance-twin.png", False, False),
        ("coupe", BALANCE, "balance-dark.png", True, False),
        ("pickup", BALANCE, "stand-back.png", False, True),
        ("pickup", MEASURE, "measure.png", False, False),
        ("roadster", MEASURE, "measure-roadster.png", False, False),
        ("roadster", SIZE, "size.png", False, False),
        ("pickup", SIZE, "size-feel.png", False, False),
        ("pickup", SHEET, "sheet.png", False, False),
        ("pickup", START, "start.png", False, False),
    ):
        use_theme(application, dark=dark, stand_back=far)
        window = Window(Session(demo(name)))
        if station == START:
            window.show_start(first=True)
        else:
            window.show_station(station)
        if file.startswith("size-feel"):
            window.size_station.show_page(1)
        window.show()
        QTest.qWaitForWindowExposed(window)
        QTest.qWait(300)
        window.grab().save(str(folder / file))
        print(folder / file)
        window.close()


if __name__ == "__main__":
    main()
