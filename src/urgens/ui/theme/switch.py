"""From one theme to the other."""

from PySide6.QtWidgets import QApplication

from urgens.ui.theme.icons import FOLDER
from urgens.ui.theme.paint import T
from urgens.ui.theme.stylesheet import stylesheet
from urgens.ui.theme.tokens import DARK, LIGHT


def use_theme(application: QApplication, *, dark: bool) -> None:
    """Paint in the dark or the light tokens; windows rebuild what they show."""
    T.use(DARK if dark else LIGHT)
    chevron = FOLDER / f"chevron-down-{'dark' if dark else 'light'}.svg"
    application.setStyleSheet(stylesheet(T).replace("{chevron}", chevron.as_posix()))
