"""The few icons used, drawn in the ink of the theme."""

from functools import lru_cache
from pathlib import Path

from PySide6.QtCore import QByteArray, QRectF, QSize, Qt
from PySide6.QtGui import QIcon, QPainter, QPixmap
from PySide6.QtSvg import QSvgRenderer

from urgens.ui.theme.paint import T

FOLDER = Path(__file__).parent / "icons"
SCALES = (1, 2)  # pixmaps for plain and dense screens


def icon(name: str, size: int = 20) -> QIcon:
    """Return the icon `name` in the ink of the theme, muted where it is disabled."""
    return _icon(name, size, T.ink, T.hair)


@lru_cache(maxsize=64)
def _icon(name: str, size: int, ink: str, hair: str) -> QIcon:
    made = QIcon()
    for mode, color in ((QIcon.Mode.Normal, ink), (QIcon.Mode.Disabled, hair)):
        for scale in SCALES:
            made.addPixmap(_pixmap(name, size, scale, color), mode)
    return made


def _pixmap(name: str, size: int, scale: int, color: str) -> QPixmap:
    svg = (FOLDER / f"{name}.svg").read_text(encoding="utf-8").replace("currentColor", color)
    renderer = QSvgRenderer(QByteArray(svg.encode()))
    pixmap = QPixmap(QSize(size, size) * scale)
    pixmap.fill(Qt.GlobalColor.transparent)
    with QPainter(pixmap) as painter:
        renderer.render(painter, QRectF(0, 0, size * scale, size * scale))
    pixmap.setDevicePixelRatio(scale)
    return pixmap
