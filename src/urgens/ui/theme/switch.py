"""From one theme to the other."""

import re

from PySide6.QtWidgets import QApplication

from urgens.ui.theme.icons import FOLDER
from urgens.ui.theme.paint import T
from urgens.ui.theme.stylesheet import stylesheet
from urgens.ui.theme.tokens import DARK, LIGHT

STANDING_BACK = 1.5  # times the usual size
_PIXELS = re.compile(r"(\d+)px")


def use_theme(application: QApplication, *, dark: bool, stand_back: bool = False) -> None:
    """Paint in the dark or the light tokens, near or far; windows rebuild what they show."""
    T.use(DARK if dark else LIGHT)
    T.scale = STANDING_BACK if stand_back else 1.0
    chevron = FOLDER / f"chevron-down-{'dark' if dark else 'light'}.svg"
    sheet = _PIXELS.sub(lambda found: f"{round(int(found[1]) * T.scale)}px", stylesheet(T))
    application.setStyleSheet(sheet.replace("{chevron}", chevron.as_posix()))
