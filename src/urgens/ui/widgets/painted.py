"""Widgets that paint themselves, at the usual scale or at the larger one for standing back."""

from PySide6.QtCore import QPointF, QRectF, QSize
from PySide6.QtGui import QMouseEvent, QPainter
from PySide6.QtWidgets import QWidget

from urgens.ui.theme.paint import T, outline


class Painted(QWidget):
    """Paints in px of the usual scale; what it measures and is told is turned into those."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.scale = T.scale

    def begin(self) -> QPainter:
        """Return a painter on this widget, smooth and to scale, for a `with` that ends it."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.scale(self.scale, self.scale)
        return painter

    @property
    def across(self) -> float:
        """Its width in px of the usual scale."""
        return self.width() / self.scale

    @property
    def down(self) -> float:
        """Its height in px of the usual scale."""
        return self.height() / self.scale

    def spot(self, event: QMouseEvent) -> QPointF:
        """Return where the mouse is, in px of the usual scale."""
        return event.position() * (1.0 / self.scale)

    def scaled(self, across: float, down: float) -> QSize:
        """Return a size that is given in px of the usual scale."""
        return QSize(round(across * self.scale), round(down * self.scale))


def ring(painter: QPainter, widget: Painted) -> None:
    """Draw the ring of the focus around all of a widget that has nothing in it to choose."""
    outline(painter, T.front, 2)
    painter.drawRect(QRectF(1, 1, widget.across - 2, widget.down - 2))
