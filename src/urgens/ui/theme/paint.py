"""Pens, brushes and faces for painted widgets, made from the tokens."""

from collections.abc import Iterator
from contextlib import contextmanager
from functools import lru_cache

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QFont, QFontMetricsF, QPainter, QPen, QStaticText

from urgens.ui.theme.tokens import LIGHT, Theme

PLAIN = "IBM Plex Sans"
CONDENSED = "IBM Plex Sans Condensed"
T = Theme(LIGHT)


@contextmanager
def on_paper() -> Iterator[None]:
    """Paint in the light tokens, at the usual scale, whatever the window shows."""
    before, scale = T.tokens, T.scale
    T.use(LIGHT)
    T.scale = 1.0
    try:
        yield
    finally:
        T.use(before)
        T.scale = scale


@lru_cache(maxsize=256)
def face(size: int, weight: int = 400, *, condensed: bool = True) -> QFont:
    """Return a face; `size` in px, `weight` 400, 500, 600 or 700."""
    font = QFont(CONDENSED if condensed else PLAIN)
    font.setPixelSize(size)
    font.setWeight(QFont.Weight(weight))
    return font


@lru_cache(maxsize=256)
def metrics(size: int, weight: int = 400, *, condensed: bool = True) -> QFontMetricsF:
    """Return the metrics of `face` with the same arguments."""
    return QFontMetricsF(face(size, weight, condensed=condensed))


@lru_cache(maxsize=4096)
def width(text: str, size: int, weight: int = 400, *, condensed: bool = True) -> float:
    """Return how wide `text` is in `face` with the same arguments [px]."""
    return metrics(size, weight, condensed=condensed).horizontalAdvance(text)


@lru_cache(maxsize=512)
def shortened(text: str, size: int, weight: int, across: int, down: int) -> str:
    """Return `text` with its end cut so that wrapped it fits a box [px]."""
    box = QRectF(0, 0, across, 10_000)
    wrapped, cut = Qt.TextFlag.TextWordWrap, text
    while cut.strip("…") and metrics(size, weight).boundingRect(box, wrapped, cut).height() > down:
        cut = cut.rstrip("…")[:-1].rstrip() + "…"
    return cut


@lru_cache(maxsize=2048)
def laid_out(text: str, size: int, weight: int = 400, *, condensed: bool = True) -> QStaticText:
    """Return text laid out once; shaping it at every repaint is what costs."""
    laid = QStaticText(text)
    laid.setTextFormat(Qt.TextFormat.PlainText)
    laid.setPerformanceHint(QStaticText.PerformanceHint.AggressiveCaching)
    laid.prepare(font=face(size, weight, condensed=condensed))
    return laid


@lru_cache(maxsize=512)
def pen(color: str, width: float = 1.0, style: Qt.PenStyle = Qt.PenStyle.SolidLine) -> QPen:
    """Return a pen with round joins, `width` in px; not to be changed, since it is shared."""
    made = QPen(QColor(color), width, style)
    made.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
    made.setCapStyle(Qt.PenCapStyle.FlatCap)
    return made


def outline(
    painter: QPainter, color: str, width: float = 1.0, style: Qt.PenStyle = Qt.PenStyle.SolidLine
) -> None:
    """Let what is drawn next have an outline alone, in the pen of these."""
    ink(painter, pen(color, width, style), Qt.BrushStyle.NoBrush)


def ink(painter: QPainter, line: QPen | Qt.PenStyle, fill: QBrush | QColor | Qt.BrushStyle) -> None:
    """Let what is drawn next have this outline and this fill."""
    painter.setPen(line)
    painter.setBrush(fill)


@lru_cache(maxsize=512)
def curve_pen(color: str, width: float, style: Qt.PenStyle, ratio: float) -> QPen:
    """Return a pen that is `width` px wide whatever the plot is scaled by.

    Such a pen counts the screen's own pixels, of which there are `ratio` to a px.
    """
    made = QPen(pen(color, width * ratio, style))
    made.setCosmetic(True)
    return made


def hatch(color: str) -> QBrush:
    """Return the diagonal hatch that marks what belongs to the rear, or lies behind a limit."""
    return QBrush(QColor(color), Qt.BrushStyle.BDiagPattern)


def faint(color: str) -> str:
    """Return a colour that lets what is behind it through."""
    return f"#38{color.removeprefix('#')}"


def fluid(share: float) -> QColor:
    """Return the colour of fluid at a share of full pressure, 0 to 1."""
    share = min(max(share, 0.0), 1.0)
    low, mid, high = (QColor(c) for c in T.fluid)
    start, end, part = (low, mid, share * 2) if share < 0.5 else (mid, high, share * 2 - 1)

    def between(one: int, other: int) -> int:
        return round(one + (other - one) * part)

    return QColor(
        between(start.red(), end.red()),
        between(start.green(), end.green()),
        between(start.blue(), end.blue()),
    )
