"""Marks that are drawn, never typed: axle markers and severities."""

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QPainter, QPolygonF

from urgens.guidance import Severity
from urgens.ui.theme.paint import T, face, ink, pen


def disc(painter: QPainter, center: QPointF, radius: float = 6.0) -> None:
    """Draw the front's marker."""
    ink(painter, Qt.PenStyle.NoPen, QBrush(QColor(T.front)))
    painter.drawEllipse(center, radius, radius)


def square(painter: QPainter, center: QPointF, half: float = 5.5) -> None:
    """Draw the rear's marker."""
    ink(painter, Qt.PenStyle.NoPen, QBrush(QColor(T.rear)))
    painter.drawRect(QRectF(center.x() - half, center.y() - half, 2 * half, 2 * half))


def open_mark(painter: QPainter, center: QPointF, radius: float) -> None:
    """Draw a ring: neither good nor bad, or not known yet."""
    painter.save()
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(pen(T.muted, max(1.5, radius / 4)))
    painter.drawEllipse(center, radius - 1, radius - 1)
    painter.restore()


def severity_mark(
    painter: QPainter, severity: Severity | None, center: QPointF, radius: float
) -> None:
    """Draw octagon, triangle, or round tick; None and advice are good."""
    painter.save()
    painter.setPen(Qt.PenStyle.NoPen)
    if severity is Severity.DANGER:
        painter.setBrush(QColor(T.danger))
        painter.drawPolygon(_polygon(8, center, radius, math.pi / 8))
    elif severity is Severity.WARNING:
        painter.setBrush(QColor(T.warn))
        painter.drawPolygon(
            _polygon(3, center + QPointF(0, radius * 0.2), radius * 1.2, -math.pi / 2)
        )
    else:
        painter.setBrush(QColor(T.good))
        painter.drawEllipse(center, radius, radius)
        painter.setPen(pen(T.sheet, max(1.5, radius / 5)))
        step = radius / 2
        painter.drawPolyline(
            QPolygonF(
                [
                    center + QPointF(-step, 0),
                    center + QPointF(-step * 0.2, step * 0.7),
                    center + QPointF(step, -step * 0.7),
                ]
            )
        )
        painter.restore()
        return
    painter.setPen(QColor(T.sheet))
    painter.setFont(face(round(radius * 1.5), 700))
    lowered = radius * 0.25 if severity is Severity.WARNING else 0.0
    box = QRectF(center.x() - radius, center.y() - radius + lowered, 2 * radius, 2 * radius)
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, "!")
    painter.restore()


def _polygon(corners: int, center: QPointF, radius: float, start: float) -> QPolygonF:
    turns = (start + 2 * math.pi * i / corners for i in range(corners))
    return QPolygonF([center + QPointF(math.cos(a), math.sin(a)) * radius for a in turns])
