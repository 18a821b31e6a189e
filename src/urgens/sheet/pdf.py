"""The sheet on paper: a Qt document, set once for PDF and preview alike."""

import uuid
from typing import TYPE_CHECKING

from PySide6.QtCore import QBuffer, QMarginsF, QRect, QRectF, QSizeF, Qt
from PySide6.QtGui import (
    QAbstractTextDocumentLayout,
    QFont,
    QFontDatabase,
    QGuiApplication,
    QPageLayout,
    QPageSize,
    QPainter,
    QPdfWriter,
    QPyTextObject,
    QTextCharFormat,
    QTextDocument,
    QTextFormat,
)
from PySide6.QtSvg import QSvgRenderer

from urgens.data import font_files
from urgens.sheet.content import Sheet
from urgens.sheet.markup import rich_text

if TYPE_CHECKING:
    from PySide6.QtPrintSupport import QPrinter

CHART = QTextFormat.ObjectTypes.UserObject + 1
DOTS = 300  # per inch, of the layout
MARGIN = 14.0  # mm
CHART_SIZE = QSizeF(3.55 * DOTS, 3.6 * DOTS)
FACE = "IBM Plex Sans Condensed"


def gui() -> QGuiApplication:
    """Return the running Qt application, or a new one that needs no screen."""
    running = QGuiApplication.instance()
    if isinstance(running, QGuiApplication):
        return running
    application = QGuiApplication(["urgens", "-platform", "offscreen"])
    for path in font_files():
        QFontDatabase.addApplicationFont(str(path))
    return application


class _Chart(QPyTextObject):
    """Draws the chart inside the document as vectors."""

    def __init__(self, document: QTextDocument, svg: bytes) -> None:
        super().__init__(document)
        self._renderer = QSvgRenderer(svg, self)

    def intrinsicSize(self, document: QTextDocument, position: int, format_: QTextFormat) -> QSizeF:
        return CHART_SIZE

    def drawObject(
        self,
        painter: QPainter,
        rect: QRectF | QRect,
        document: QTextDocument,
        position: int,
        format_: QTextFormat,
    ) -> None:
        self._renderer.render(painter, rect)


class Pages:
    """Markup set on pages of A4 or Letter: `title` and `what` it is stand on each."""

    def __init__(self, title: str, what: str, *, points: int = 8, letter: bool = False) -> None:
        self._title, self._what = title, what
        self._layout = QPageLayout(
            QPageSize(QPageSize.PageSizeId.Letter if letter else QPageSize.PageSizeId.A4),
            QPageLayout.Orientation.Portrait,
            QMarginsF(MARGIN, MARGIN, MARGIN, MARGIN),
            QPageLayout.Unit.Millimeter,
        )
        self.document = QTextDocument()
        self.document.setDocumentMargin(0)
        self._metrics = self._writer(QBuffer())
        self.document.documentLayout().setPaintDevice(self._metrics)
        self.document.setDefaultFont(QFont(FACE, points))
        self.document.setPageSize(QSizeF(self._layout.paintRectPixels(DOTS).size()))

    @property
    def pages(self) -> int:
        """How many pages it takes."""
        return self.document.pageCount()

    @property
    def paper(self) -> QSizeF:
        """Size of the paper in dots."""
        return QSizeF(self._layout.fullRectPixels(DOTS).size())

    def paint(self, painter: QPainter, page: int) -> None:
        """Paint one page, in dots of the paper from its upper left corner."""
        box = self._layout.paintRectPixels(DOTS)
        painter.save()
        painter.translate(box.topLeft())
        self._paint_foot(painter, page)
        painter.translate(0, -page * box.height())
        context = QAbstractTextDocumentLayout.PaintContext()
        context.clip = QRectF(0, page * box.height(), box.width(), box.height())
        self.document.documentLayout().draw(painter, context)
        painter.restore()

    def pdf(self) -> bytes:
        """Return all pages as the content of a PDF file."""
        buffer = QBuffer()
        buffer.open(QBuffer.OpenModeFlag.WriteOnly)
        writer = self._writer(buffer)
        painter = QPainter(writer)
        box = self._layout.paintRectPixels(DOTS)
        for page in range(self.pages):
            if page:
                writer.newPage()
            painter.translate(-box.topLeft())
            self.paint(painter, page)
            painter.translate(box.topLeft())
        painter.end()
        return bytes(buffer.data().data())

    def printer(self) -> "QPrinter":
        """Return the usual printer, with such paper in it."""
        from PySide6.QtPrintSupport import QPrinter  # with all widgets, which a file needs not

        printer = QPrinter()
        printer.setPageSize(self._layout.pageSize())
        printer.setDocName(f"{self._title}: {self._what}")
        return printer

    def print_on(self, printer: "QPrinter") -> None:
        """Print the pages that are asked for, as large as the paper in the printer lets them be.

        Raises OSError where the printer takes nothing.
        """
        printer.setFullPage(True)
        first = max(printer.fromPage(), 1)
        last = min(printer.toPage() or self.pages, self.pages)
        painter = QPainter()
        if not painter.begin(printer):
            raise OSError(f"{printer.printerName() or 'the printer'} takes nothing")
        paper, own = printer.paperRect(type(printer).Unit.DevicePixel), self.paper
        scale = min(paper.width() / own.width(), paper.height() / own.height())
        painter.translate((paper.width() - scale * own.width()) / 2, 0)
        painter.scale(scale, scale)
        for page in range(first - 1, last):
            if page >= first:
                printer.newPage()
            self.paint(painter, page)
        painter.end()

    def _writer(self, device: QBuffer) -> QPdfWriter:
        writer = QPdfWriter(device)
        writer.setResolution(DOTS)
        writer.setPageLayout(self._layout)
        writer.setTitle(f"{self._title}: {self._what}")
        writer.setCreator("Urgens")
        return writer

    def _paint_foot(self, painter: QPainter, page: int) -> None:
        box = self._layout.paintRectPixels(DOTS)
        painter.setFont(QFont(FACE, 7))
        painter.setPen("#5C574B")
        foot = QRectF(0, box.height() + DOTS * 0.1, box.width(), DOTS * 0.3)
        flags = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop
        painter.drawText(foot, flags, f"{self._title}, page {page + 1} of {self.pages}")


class SheetDocument(Pages):
    """A sheet with its chart."""

    def __init__(self, sheet: Sheet, chart: bytes, *, letter: bool = False) -> None:
        super().__init__(sheet.title, "brake build sheet", letter=letter)
        mark = f"\N{LOZENGE}{uuid.uuid4().hex}\N{LOZENGE}"  # which no name can hold
        self.document.setHtml(rich_text(sheet, mark))
        self.document.documentLayout().registerHandler(CHART, _Chart(self.document, chart))
        self._place_chart(mark)
        # WORKAROUND: what stands behind a replaced mark is otherwise never laid out.
        self.document.markContentsDirty(0, self.document.characterCount())

    def _place_chart(self, mark: str) -> None:
        cursor = self.document.find(mark)
        form = QTextCharFormat()
        form.setObjectType(CHART)
        cursor.insertText("\N{OBJECT REPLACEMENT CHARACTER}", form)
