"""The sheet on paper: a Qt document, set once for PDF and preview alike."""

import io
import uuid
from collections.abc import Iterator
from typing import TYPE_CHECKING

from PySide6.QtCore import QBuffer, QByteArray, QLineF, QMarginsF, QRect, QRectF, QSizeF, Qt, QUrl
from PySide6.QtGui import (
    QAbstractTextDocumentLayout,
    QFont,
    QFontDatabase,
    QFontMetricsF,
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
    QTextTable,
)
from PySide6.QtSvg import QSvgRenderer

from urgens.data import font_files
from urgens.sheet.blocks import Block, Bound, Drawing, Picture, Pictures, drawings_in
from urgens.sheet.markup import rich_text
from urgens.sheet.plot import INK

if TYPE_CHECKING:
    from PySide6.QtPrintSupport import QPrinter

DRAWING = QTextFormat.ObjectTypes.UserObject + 1
NUMBER = QTextFormat.Property.UserProperty + 1  # of a drawing
DOTS = 300  # per inch, of the layout
MARGIN, TOP = 14.0, 21.0  # mm
SMALLEST = 8.5  # pt of any words
WALL = (1.6, 1.5, 1.4, 1.3, 1.2, 1.1, 1.0, 0.92, 0.85)  # of its size, the largest that fits a page
TITLED = 2  # rows of a table that is a row under its title
LINE = 4.0  # dots inside its first line
HEAD = 13.0  # pt of the vehicle's name on each page
MUTED = "#5C574B"
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
    """Markup set on pages of A4 or Letter: `title`, `what` it is and the `day` stand on each."""

    def __init__(
        self,
        title: str,
        what: str,
        *,
        day: str = "",
        points: float = SMALLEST,
        letter: bool = False,
    ) -> None:
        self._title, self._what, self._day = title, what, day
        self._layout = QPageLayout(
            QPageSize(QPageSize.PageSizeId.Letter if letter else QPageSize.PageSizeId.A4),
            QPageLayout.Orientation.Portrait,
            QMarginsF(MARGIN, TOP, MARGIN, MARGIN),
            QPageLayout.Unit.Millimeter,
        )
        self.document = QTextDocument()
        self.document.setDocumentMargin(0)
        self._metrics = self._writer(QBuffer())
        self.document.documentLayout().setPaintDevice(self._metrics)
        face = QFont(FACE)
        face.setPointSizeF(points)
        self.document.setDefaultFont(face)
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
        self._paint_edges(painter, page)
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

    def keep_whole(self) -> None:
        """Begin a page with what would else be cut by its end, or stay behind without its head.

        Tables in tables are what stands side by side: they are kept whole, as a row under its title
        is, where they are no higher than a page.
        """
        self._keep_tables_whole()
        self._keep_together()

    @property
    def overfull(self) -> bool:
        """Whether something that is to be kept whole is higher than a page."""
        layout, high = self.document.documentLayout(), self.document.pageSize().height()
        return any(layout.frameBoundingRect(one).height() > high for one in self._kept_whole())

    def _kept_whole(self) -> Iterator[QTextTable]:
        for frame in self.document.rootFrame().childFrames():
            if isinstance(frame, QTextTable) and (frame.childFrames() or frame.rows() <= TITLED):
                yield frame

    def _keep_tables_whole(self) -> None:
        """Begin a page with what stands side by side where it would else be cut by its end."""
        layout, high = self.document.documentLayout(), self.document.pageSize().height()
        for frame in self._kept_whole():
            box = layout.frameBoundingRect(frame)
            if int(box.top() // high) == int((box.bottom() - LINE) // high) or box.height() > high:
                continue
            before = frame.firstCursorPosition().block().previous()
            if _heads(before):  # which goes with it
                self._break_before(before)
            else:
                form = frame.frameFormat()
                form.setPageBreakPolicy(QTextFormat.PageBreakFlag.PageBreak_AlwaysBefore)
                frame.setFrameFormat(form)

    def _break_before(self, block: QTextBlock) -> None:
        cursor = QTextCursor(block)
        form = cursor.blockFormat()
        form.setPageBreakPolicy(QTextFormat.PageBreakFlag.PageBreak_AlwaysBefore)
        cursor.setBlockFormat(form)

    def _keep_together(self) -> None:
        """Begin a page with a heading that would else stay behind on the one before."""
        high = self.document.pageSize().height()
        block = self.document.begin()
        while block.isValid():
            first = block
            while _heads(block) and block.next().isValid():  # headings under each other stay so
                block = block.next()
            if block != first and int(self._top(first) // high) != int(self._top(block) // high):
                self._break_before(first)
            block = block.next()

    def _top(self, block: QTextBlock) -> float:
        """Return where the first line of a block is: what does not fit a page goes to the next."""
        top = self.document.documentLayout().blockBoundingRect(block).top()
        lines = block.layout()
        return top + (lines.lineAt(0).y() if lines.lineCount() else 0.0) + LINE

    def _writer(self, device: QBuffer) -> QPdfWriter:
        writer = QPdfWriter(device)
        writer.setResolution(DOTS)
        writer.setPageLayout(self._layout)
        writer.setTitle(f"{self._title}: {self._what}")
        writer.setCreator("Urgens")
        return writer

    def _paint_edges(self, painter: QPainter, page: int) -> None:
        """Paint over the page which vehicle it is of, what it is and the day; its number below."""
        box = self._layout.paintRectPixels(DOTS)
        right = Qt.AlignmentFlag.AlignRight
        head = QRectF(0, -DOTS * 0.31, box.width(), DOTS * 0.24)
        what = f"{self._what[:1].upper()}{self._what[1:]}"
        painter.setFont(_edge_face(SMALLEST))
        painter.setPen(MUTED)
        words = ", ".join(filter(None, (what, self._day)))
        painter.drawText(head, right | Qt.AlignmentFlag.AlignBottom, words)
        room = head.width() - QFontMetricsF(painter.font()).horizontalAdvance(words)
        foot = QRectF(0, box.height() + DOTS * 0.1, box.width(), DOTS * 0.3)
        painter.drawText(
            foot, right | Qt.AlignmentFlag.AlignTop, f"Page {page + 1} of {self.pages}"
        )
        painter.setFont(_edge_face(HEAD, bold=True))
        painter.setPen(INK)
        metrics = QFontMetricsF(painter.font())
        title = metrics.elidedText(self._title, Qt.TextElideMode.ElideRight, room - DOTS * 0.2)
        painter.drawText(head, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignBottom, title)
        painter.drawLine(QLineF(0, -DOTS * 0.05, box.width(), -DOTS * 0.05))


def _edge_face(points: float, *, bold: bool = False) -> QFont:
    """Return the face of what stands beside the page, in its dots on whatever it is painted."""
    face = QFont(FACE)
    face.setPixelSize(round(points * DOTS / 72.0))
    face.setBold(bold)
    return face


class SheetDocument(Pages):
    """Chapters with their drawings and pictures."""

    def __init__(self, bound: Bound, *, letter: bool = False) -> None:
        super().__init__(bound.title, "brake build sheet", day=bound.printed, letter=letter)
        self._anchor = f"{uuid.uuid4().hex}-"  # which no name can hold
        self.bound = bound
        sources = self._pictures(bound.blocks)
        if bound.chapters and bound.chapters[0].name == "wall":
            first = Bound(bound.title, bound.printed, bound.chapters[:1])
            for larger in WALL:
                self._set(first, sources, larger)
                if self.pages == 1:
                    break
        else:
            larger = 1.0
        self._set(bound, sources, larger)
        self.keep_whole()

    def _set(self, bound: Bound, sources: dict[Picture, str], larger: float) -> None:
        """Set chapters, and put their drawings where their marks stand."""
        drawings = [*drawings_in(bound.blocks)]
        marks = {one: f"\N{LOZENGE}{self._anchor}{n}\N{LOZENGE}" for n, one in enumerate(drawings)}
        self.document.setHtml(rich_text(bound, marks, sources, self._anchor, larger))
        handler = _Drawings(self.document, drawings)
        self.document.documentLayout().registerHandler(DRAWING, handler)
        edit = QTextCursor(self.document)
        edit.beginEditBlock()  # laid out once, not with each
        for number, one in enumerate(drawings):
            self._place(marks[one], number)
        edit.endEditBlock()
        # WORKAROUND: what stands behind a replaced mark is otherwise never laid out.
        self.document.markContentsDirty(0, self.document.characterCount())

    def _pictures(self, blocks: tuple[Block, ...]) -> dict[Picture, str]:
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
