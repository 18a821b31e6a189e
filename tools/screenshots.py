"""Takes the pictures of the README from the demo builds: screenshots.py FOLDER."""

import sys
from pathlib import Path

from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from urgens.build import demo
from urgens.ui.application import dress
from urgens.ui.session import Session
from urgens.ui.theme.switch import use_theme
from urgens.ui.window import BALANCE, SHEET, Window


def main() -> None:
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    application = QApplication(sys.argv[:1])
    dress(application)
    for name, station, file, dark in (
        ("pickup", BALANCE, "balance.png", False),
        ("roadster", BALANCE, "balance-twin.png", False),
        ("coupe", BALANCE, "balance-dark.png", True),
        ("pickup", SHEET, "sheet.png", False),
    ):
        use_theme(application, dark=dark)
        window = Window(Session(demo(name)))
        window.show_station(station)
        window.show()
        QTest.qWaitForWindowExposed(window)
        QTest.qWait(300)
        window.grab().save(str(folder / file))
        print(folder / file)
        window.close()


if __name__ == "__main__":
    main()
