"""From one theme to the other."""

import re
from dataclasses import asdict
from functools import cache
from pathlib import Path
from string import Template

from PySide6.QtGui import QColor, QPalette
from PySide6.QtWidgets import QApplication, QWidget

from urgens.ui.theme.icons import FOLDER
from urgens.ui.theme.paint import T
from urgens.ui.theme.tokens import DARK, LIGHT, Tokens

STANDING_BACK = 1.5  # times the usual size
SHEET = Path(__file__).with_name("widgets.qss")
_PIXELS = re.compile(r"(\d+)px")


def use_theme(application: QApplication, *, dark: bool, stand_back: bool = False) -> None:
    """Paint in the dark or the light tokens, near or far; windows rebuild what they show."""
    tokens = DARK if dark else LIGHT
    T.use(tokens)
    T.scale = STANDING_BACK if stand_back else 1.0
    application.setPalette(_palette(tokens))


def dress_window(window: QWidget) -> None:
    """Give a window, and all that belongs to it, the style sheet of the theme.

    A window's, as Qt goes through all of a part of the window again each time it is given a place
    in another while the application has one.
    """
    window.setStyleSheet(_style_sheet(T.dark, T.scale))


@cache
def _style_sheet(dark: bool, scale: float) -> str:
    tokens, name = (DARK, "dark") if dark else (LIGHT, "light")
    chevron, check = FOLDER / f"chevron-down-{name}.svg", FOLDER / f"check-{name}.svg"
    template = SHEET.read_text(encoding="utf-8")
    sized = _PIXELS.sub(lambda found: f"{round(int(found[1]) * scale)}px", template)
    return Template(sized).substitute(
        asdict(tokens),
        fluid_first=tokens.fluid[0],
        chevron=chevron.as_posix(),
        check=check.as_posix(),
    )


def _palette(tokens: Tokens) -> QPalette:
    """Return the colours of all that the style sheet does not name: lists, tables, choosers."""
    role, palette = QPalette.ColorRole, QPalette()
    for roles, color in (
        ((role.Window, role.Button, role.AlternateBase, role.Midlight), tokens.paper),
        ((role.Base, role.ToolTipBase, role.Light, role.HighlightedText), tokens.sheet),
        ((role.WindowText, role.Text, role.ButtonText, role.ToolTipText), tokens.ink),
        ((role.Highlight, role.BrightText), tokens.ink),
        ((role.Mid, role.Dark, role.Shadow), tokens.hair),
        ((role.PlaceholderText,), tokens.muted),
        ((role.Link, role.LinkVisited, role.Accent), tokens.front),
    ):
        for one in roles:
            palette.setColor(one, QColor(color))
    for one in (role.WindowText, role.Text, role.ButtonText):
        palette.setColor(QPalette.ColorGroup.Disabled, one, QColor(tokens.muted))
    return palette
