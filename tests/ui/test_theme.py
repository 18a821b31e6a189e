"""Colours that can be read, and a Qt that counts its references."""

import sys

import numpy as np
import pytest
from PySide6.QtCore import QObject
from PySide6.QtGui import QColor, QFontInfo, QPainter, QPixmap
from PySide6.QtWidgets import QApplication, QStyleOptionGraphicsItem

from urgens.ui.theme.paint import CONDENSED, PLAIN, face
from urgens.ui.theme.tokens import DARK, LIGHT, Tokens
from urgens.ui.widgets.curve import PlotCurve


def luminance(color: str) -> float:
    """Relative luminance, WCAG 2.1."""
    parts = [int(color[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    linear = [p / 12.92 if p <= 0.04045 else ((p + 0.055) / 1.055) ** 2.4 for p in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one: str, other: str) -> float:
    high, low = sorted((luminance(one), luminance(other)), reverse=True)
    return (high + 0.05) / (low + 0.05)


def test_contrast_of_black_on_white() -> None:
    """WCAG 2.1: 21 to 1."""
    assert contrast("#000000", "#FFFFFF") == pytest.approx(21)


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
@pytest.mark.parametrize("ground", ["paper", "sheet"])
@pytest.mark.parametrize("name", ["ink", "muted", "front", "rear", "danger", "warn", "good"])
def test_text_is_readable(name: str, ground: str, theme: Tokens) -> None:
    assert contrast(getattr(theme, name), getattr(theme, ground)) >= 4.7


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
@pytest.mark.parametrize("name", ["danger", "warn", "good"])
def test_severities_are_readable_on_their_ground(name: str, theme: Tokens) -> None:
    assert contrast(getattr(theme, name), getattr(theme, f"{name}_ground")) >= 4.7


@pytest.mark.parametrize("family", [PLAIN, CONDENSED])
def test_the_shipped_faces_are_used(dressed: QApplication, family: str) -> None:
    made = QFontInfo(face(16, 600, condensed=family == CONDENSED))

    assert made.family() == family


@pytest.mark.parametrize("ratio", [1, 2])
def test_a_curve_is_as_wide_on_a_dense_screen(dressed: QApplication, ratio: int) -> None:
    """A line of 3 px is three times the screen's pixels to a px."""
    picture = QPixmap(40 * ratio, 40 * ratio)
    picture.setDevicePixelRatio(ratio)
    picture.fill(QColor("white"))
    curve = PlotCurve("#000000", 3)
    curve.set_points(np.array([0.0, 1.0]), np.array([0.5, 0.5]))
    painter = QPainter(picture)
    painter.scale(40, 40)  # from data to px
    curve.paint(painter, QStyleOptionGraphicsItem())
    painter.end()
    column = [picture.toImage().pixelColor(20, y).lightnessF() for y in range(40 * ratio)]

    assert sum(1 - light for light in column) == pytest.approx(3 * ratio, abs=0.2)


def test_the_reference_count_of_none_never_falls(qapp: QApplication) -> None:
    """A release of Qt's bindings once lost a reference with every void call."""
    thing = QObject()
    before = sys.getrefcount(None)
    for _ in range(100_000):
        thing.setObjectName("x")

    assert sys.getrefcount(None) >= before - 50
