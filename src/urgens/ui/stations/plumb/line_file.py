"""A line taken out of the window: its sheet on one page, with its picture."""

from PySide6.QtCore import QBuffer, QIODevice, QRectF, QSize
from PySide6.QtGui import QColor, QPainter
from PySide6.QtSvg import QSvgGenerator

from urgens.document.layout.line_sheets import MadeLine, radius_of
from urgens.plumbing.route_edits import points_of
from urgens.quantity import UnitSystem
from urgens.sheet.line_sheet import line_pages
from urgens.ui.session import Session
from urgens.ui.stations.plumb.route_board import RouteBoard
from urgens.ui.theme.paint import T, on_paper

SIZE = QSize(792, 528)  # px of the picture, as wide to high as it is set


def route_drawing(session: Session, line: MadeLine) -> bytes:
    """Return the route of a line as SVG, in the colours of paper."""
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    with on_paper():
        board = RouteBoard(session)
        board.resize(SIZE * T.scale)
        board.show_route(points_of(line.line), radius_of(line.line).value)
        board.chosen = -1  # none of its corners
        drawing = QSvgGenerator()
        drawing.setOutputDevice(buffer)
        drawing.setSize(SIZE)
        drawing.setViewBox(QRectF(0, 0, SIZE.width(), SIZE.height()))
        with QPainter(drawing) as painter:
            painter.fillRect(QRectF(0, 0, SIZE.width(), SIZE.height()), QColor(T.sheet))
            board.paint_on(painter)
        board.deleteLater()
    return bytes(buffer.data().data())


def line_pdf(session: Session, line: MadeLine) -> bytes:
    """Return the sheet of a line as the content of a PDF file."""
    letter = session.units.system is UnitSystem.INCH
    drawn = route_drawing(session, line)
    return line_pages(session.build, line, drawn, session.units, letter=letter).pdf()
