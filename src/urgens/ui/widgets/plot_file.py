"""A plot taken out of the window: as a picture, as a drawing, or as the figures behind it."""

import csv
import io
from collections.abc import Iterator
from contextlib import contextmanager
from itertools import zip_longest

from PySide6.QtCore import QBuffer, QIODevice, QRectF
from PySide6.QtGui import QGuiApplication, QPainter
from PySide6.QtSvg import QSvgGenerator
from PySide6.QtWidgets import QGraphicsItem, QMenu

from urgens.ui.widgets.curve import Area, PlotCurve
from urgens.ui.widgets.plotting import pg
from urgens.ui.widgets.write_out import write_out

FORMS = (
    (".svg", "Save as a drawing (SVG)…"),
    (".png", "Save as a picture (PNG)…"),
    (".csv", "Save the figures behind it (CSV)…"),
)


def plot_menu(plane: pg.PlotWidget) -> QMenu:
    """Return what can be done with a plot: copy it, or write it to a file."""
    menu = QMenu(plane)
    menu.addAction("Copy as a picture", lambda: QGuiApplication.clipboard().setPixmap(plane.grab()))
    for form, words in FORMS:
        menu.addAction(words, lambda f=form: ask_and_write(plane, f))
    return menu


def ask_and_write(plane: pg.PlotWidget, form: str) -> None:
    """Ask for a place and write the plot there; what goes wrong is said."""
    title = plane.accessibleName()
    write_out(plane, title, title, form, lambda: content(plane, form))


def content(plane: pg.PlotWidget, form: str) -> bytes:
    """Return a plot as SVG, PNG or CSV."""
    if form == ".csv":
        return _figures(plane)
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    if form == ".png":
        plane.grab().save(buffer, "PNG")
    else:
        drawing = QSvgGenerator()
        drawing.setOutputDevice(buffer)
        drawing.setSize(plane.size())
        drawing.setViewBox(plane.rect())
        drawing.setTitle(plane.accessibleName())
        with QPainter(drawing) as painter:
            painter.fillRect(plane.rect(), plane.backgroundBrush())
            with _uncached(plane):
                plane.scene().render(painter, QRectF(plane.rect()), plane.sceneRect())
    return bytes(buffer.data().data())


@contextmanager
def _uncached(plane: pg.PlotWidget) -> Iterator[None]:
    """Let everything be painted anew: what is cached would come out as a picture."""
    modes = [(item, item.cacheMode()) for item in plane.scene().items()]
    for item, _ in modes:
        item.setCacheMode(QGraphicsItem.CacheMode.NoCache)
    try:
        yield
    finally:
        for item, mode in modes:
            item.setCacheMode(mode)


def _figures(plane: pg.PlotWidget) -> bytes:
    """Return the points of every curve that is seen, two columns each."""
    curves = [
        item
        for item in plane.plotItem.items
        if isinstance(item, PlotCurve) and not isinstance(item, Area) and item.isVisible()
    ]
    columns: list[list[str]] = []
    for index, curve in enumerate(curves, start=1):
        x, y = curve.points
        if x.size:
            name = curve.name or f"curve {index}"
            columns.append([f"{name}, across", *(f"{value:.9g}" for value in x)])
            columns.append([f"{name}, up", *(f"{value:.9g}" for value in y)])
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow([plane.accessibleName()])
    writer.writerows(zip_longest(*columns, fillvalue=""))
    return text.getvalue().encode()
