"""The sheet on paper: a Qt document, set once for PDF and preview alike."""

import io
import uuid
from collections.abc import Iterator
from typing import TYPE_CHECKING

from PySide6.QtCore import QBuffer, QByteArray, QMarginsF, QRect, QRectF, QSizeF, Qt, QUrl
from PySide6.QtGui import (
    QAbstractTextDocumentLayout,
    QFont,
    QFontDatabase,
    QGuiApplication,
    QImage,
    QPageLayout,
    QPageSize,
    QPainter,
    QPdfWriter,
    QPyTextObject,
    QTextBlock,
    QTextCharFormat,
    QTextCursor,
    QTextDocument,
    QTextFormat,
)
from PySide6.QtSvg import QSvgRenderer

from urgens.data import font_files
from urgens.sheet.blocks import Block, Bound, Drawing, Picture, Pictures
from urgens.sheet.markup import rich_text

if TYPE_CHECKING:
    from PySide6.QtPrintSupport import QPrinter

DRAWING = QTextFormat.ObjectTypes.UserObject + 1
NUMBER = QTextFormat.Property.UserProperty + 1  # of a drawing
DOTS = 300  # per inch, of the layout
MARGIN = 14.0  # mm
LINE = 4.0  # dots inside its first line
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


class _Drawings(QPyTextObject):
    """Draws what stands in the document as vectors, each by its number."""

    def __init__(self, document: QTextDocument, drawings: list[Drawing]) -> None:
        super().__init__(document)
        self._drawings = drawings
        self._renderers = [QSvgRenderer(one.svg, self) for one in drawings]

    def intrinsicSize(self, document: QTextDocument, position: int, format_: QTextFormat) -> QSizeF:
        one = self._drawings[format_.intProperty(NUMBER)]
        return QSizeF(one.wide * DOTS, one.high * DOTS)

    def drawObject(
        self,
        painter: QPainter,
        rect: QRectF | QRect,
        document: QTextDocument,
        position: int,
        format_: QTextFormat,
    ) -> None:
        renderer = self._renderers[format_.intProperty(NUMBER)]
        renderer.setAspectRatioMode(Qt.AspectRatioMode.KeepAspectRatio)
        renderer.render(painter, QRectF(rect))


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
        painter.setClipRect(QRectF(0, 0, box.width(), box.height()))  # of the page alone
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
        box = self._layout.paintRectPixels(DOTS)
        with QPainter(writer) as painter:
            for page in range(self.pages):
                if page:
                    writer.newPage()
                painter.translate(-box.topLeft())
                self.paint(painter, page)
                painter.translate(box.topLeft())
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
        with painter:
            paper, own = printer.paperRect(type(printer).Unit.DevicePixel), self.paper
            scale = min(paper.width() / own.width(), paper.height() / own.height())
            painter.translate((paper.width() - scale * own.width()) / 2, 0)
            painter.scale(scale, scale)
            for page in range(first - 1, last):
                if page >= first:
                    printer.newPage()
                self.paint(painter, page)

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
    """Chapters with their drawings and pictures."""

    def __init__(self, bound: Bound, *, letter: bool = False) -> None:
        super().__init__(bound.title, "brake build sheet", letter=letter)
        blocks = [block for chapter in bound.chapters for block in chapter.blocks]
        drawings = [block for block in blocks if isinstance(block, Drawing)]
        secret = uuid.uuid4().hex  # which no name can hold
        marks = {one: f"\N{LOZENGE}{secret}-{n}\N{LOZENGE}" for n, one in enumerate(drawings)}
        self._anchor = f"{secret}-"
        self.bound = bound
        sources = self._pictures(blocks)
        self.document.setHtml(rich_text(bound, marks, sources, self._anchor))
        handler = _Drawings(self.document, drawings)
        self.document.documentLayout().registerHandler(DRAWING, handler)
        for number, one in enumerate(drawings):
            self._place(marks[one], number)
        # WORKAROUND: what stands behind a replaced mark is otherwise never laid out.
        self.document.markContentsDirty(0, self.document.characterCount())
        self._keep_together()

    def _keep_together(self) -> None:
        """Begin a page with a heading that would else stay behind on the one before."""
        high = self.document.pageSize().height()
        block = self.document.begin()
        while block.isValid():
            first = block
            while _heads(block) and block.next().isValid():  # headings under each other stay so
                block = block.next()
            if block != first and int(self._top(first) // high) != int(self._top(block) // high):
                cursor = QTextCursor(first)
                form = cursor.blockFormat()
                form.setPageBreakPolicy(QTextFormat.PageBreakFlag.PageBreak_AlwaysBefore)
                cursor.setBlockFormat(form)
            block = block.next()

    def _top(self, block: QTextBlock) -> float:
        """Return where the first line of a block is: what does not fit a page goes to the next."""
        top = self.document.documentLayout().blockBoundingRect(block).top()
        lines = block.layout()
        return top + (lines.lineAt(0).y() if lines.lineCount() else 0.0) + LINE

    def _pictures(self, blocks: list[Block]) -> dict[Picture, str]:
        """Give the document the pictures; return what each is called in it."""
        pictures = [
            one for block in blocks if isinstance(block, Pictures) for one in block.pictures
        ]
        names = {one: f"picture:{number}" for number, one in enumerate(pictures)}
        for one, name in names.items():
            image = QImage.fromData(QByteArray(one.png))
            kind = QTextDocument.ResourceType.ImageResource.value
            self.document.addResource(kind, QUrl(name), image)
        return names

    def _place(self, mark: str, number: int) -> None:
        cursor = self.document.find(mark)
        form = QTextCharFormat()
        form.setObjectType(DRAWING)
        form.setProperty(NUMBER, number)
        cursor.insertText("\N{OBJECT REPLACEMENT CHARACTER}", form)

    @property
    def starts(self) -> tuple[tuple[str, int], ...]:
        """Each chapter's title, and the page it begins on, counted from 0."""
        layout, high = self.document.documentLayout(), self.document.pageSize().height()
        pages: dict[str, int] = {}
        block = self.document.begin()
        while block.isValid():
            for name in _anchors(block):
                if name.startswith(self._anchor):
                    top = layout.blockBoundingRect(block).top()
                    pages.setdefault(name.removeprefix(self._anchor), int(top // high))
            block = block.next()
        return tuple((one.title, pages[one.name]) for one in self.bound.chapters)

    def pdf(self) -> bytes:
        """Return all pages as the content of a PDF file, with the chapters as its outline."""
        from pypdf import PdfReader, PdfWriter

        writer = PdfWriter(clone_from=PdfReader(io.BytesIO(super().pdf())))
        for title, page in self.starts:
            writer.add_outline_item(title=title, page_number=page)
        out = io.BytesIO()
        writer.write(out)
        return out.getvalue()


def _heads(block: QTextBlock) -> bool:
    """Tell whether a block is a heading that stands alone, in no table."""
    return block.blockFormat().headingLevel() > 0 and QTextCursor(block).currentTable() is None


def _anchors(block: QTextBlock) -> Iterator[str]:
    place = block.begin()
    while not place.atEnd():
        yield from place.fragment().charFormat().anchorNames()
        place += 1
