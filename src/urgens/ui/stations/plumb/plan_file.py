"""The plan taken out of the window, or made without one: as a drawing or as a picture."""

from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, QRectF, QSize
from PySide6.QtGui import QColor, QImage, QPainter
from PySide6.QtSvg import QSvgGenerator
from PySide6.QtWidgets import QMenu

from urgens.document import Build, BuildErrors
from urgens.document.whole_file import write_whole, written_to
from urgens.ui.session import Session
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.stations.plumb.plan_view import PlanView
from urgens.ui.theme.paint import T, on_paper
from urgens.ui.widgets.write_out import write_out

FORMS = {".svg": "Save as a drawing (SVG)…", ".png": "Save as a picture (PNG)…"}
PAGE = QSize(900, 980)  # px of a drawing that is made without a window
FINER = 2  # px of a picture to one of the plan


def plan_menu(view: PlanView) -> QMenu:
    """Return what can be done with the plan outside of the window."""
    menu = QMenu(view)
    for form, words in FORMS.items():
        menu.addAction(words, lambda f=form: _write(view, f))
    return menu


def _write(view: PlanView, form: str) -> None:
    write_out(view, "The layout", "layout", form, lambda: content(view, form))


def content(view: PlanView, form: str) -> bytes:
    """Return the plan as SVG or PNG."""
    size = QSize(*(round(along) for along in view.extent))
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    box = QRectF(0, 0, size.width(), size.height())
    if form == ".png":
        image = QImage(size * FINER, QImage.Format.Format_RGB32)
        image.fill(QColor(T.sheet))
        with QPainter(image) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            view.paint_whole(painter, QRectF(image.rect()))
        image.save(buffer, "PNG")  # type: ignore[call-overload]
    else:
        drawing = QSvgGenerator()
        drawing.setOutputDevice(buffer)
        drawing.setSize(size)
        drawing.setViewBox(box)
        drawing.setTitle(f"Layout of {view.build_name}")
        with QPainter(drawing) as painter:
            painter.fillRect(box, QColor(T.sheet))
            view.paint_whole(painter, box)
    return bytes(buffer.data().data())


def drawing(build: Build, form: str = ".svg") -> bytes:
    """Return the plan of a build's layout, made without a window and in the colours of paper."""
    with on_paper():
        session = Session(build)
        view = PlanView(session, Laid(session))
        view.resize(PAGE)
        view.show_layout()
        made = content(view, form)
        view.deleteLater()
        session.deleteLater()
    return made


def write_drawing(build: Build, path: Path) -> None:
    """Write the plan of a build's layout to a file, as its ending has it; without a window.

    Raises BuildErrors where the ending is none of them or the file cannot be written.
    """
    form = path.suffix.lower()
    if form not in FORMS:
        raise BuildErrors.one(str(path), "has no ending of a drawing", "end it .svg or .png")
    with written_to(path):
        write_whole(path, drawing(build, form))
