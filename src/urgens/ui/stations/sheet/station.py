"""The Sheet station: the page as it will be printed."""

from PySide6.QtCore import QRectF, QSize, Qt, QTimer
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPixmap
from PySide6.QtWidgets import (
    QHBoxLayout,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from urgens.sheet.files import set_sheet
from urgens.sheet.pdf import SheetDocument
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, pen
from urgens.ui.widgets.plain import plain_label
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.seen import WhenSeen
from urgens.ui.widgets.station import Station

QUIET = 250  # ms without a change before the page is set again
GAP = 16  # px between pages


class PageView(QWidget):
    """Paints the pages of a document one below the other, as wide as there is room."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._document: SheetDocument | None = None
        self._pixmaps: list[QPixmap] = []
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName("The build sheet as it will be printed")

    def show_document(self, document: SheetDocument) -> None:
        self._document = document
        self._pixmaps = []
        self._fit()

    @property
    def document(self) -> SheetDocument | None:
        """The document shown, if it has been set."""
        return self._document

    def _page_width(self) -> int:
        return min(self.width() - 4, 860)

    def _page_height(self) -> int:
        assert self._document is not None
        paper = self._document.paper
        return round(self._page_width() * paper.height() / paper.width())

    def _fit(self) -> None:
        if self._document is not None:
            self.setFixedHeight((self._page_height() + GAP) * self._document.pages)
        self.update()

    def resizeEvent(self, event: object) -> None:
        self._pixmaps = []
        self._fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._document is None:
            return
        painter = QPainter(self)
        if not self._pixmaps:
            self._pixmaps = [self._rendered(page) for page in range(self._document.pages)]
        left = (self.width() - self._page_width()) // 2
        for page, pixmap in enumerate(self._pixmaps):
            top = page * (self._page_height() + GAP) + 1
            painter.drawPixmap(left, top, pixmap)
            painter.setPen(pen(T.hair))
            painter.drawRect(
                QRectF(left - 0.5, top - 0.5, self._page_width() + 1, self._page_height() + 1)
            )

    def _rendered(self, page: int) -> QPixmap:
        assert self._document is not None
        ratio = self.devicePixelRatioF()
        size = QSize(self._page_width(), self._page_height())
        pixmap = QPixmap(size * ratio)
        pixmap.setDevicePixelRatio(ratio)
        pixmap.fill(QColor("white"))
        painter = QPainter(pixmap)
        painter.setRenderHints(
            QPainter.RenderHint.Antialiasing | QPainter.RenderHint.TextAntialiasing
        )
        scale = size.width() / self._document.paper.width()
        painter.scale(scale, scale)
        self._document.paint(painter, page)
        painter.end()
        return pixmap


class SheetStation(Station):
    """Preview of the sheet, set anew when the build has changed and is looked at."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.seen = WhenSeen(self, self._set)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(QUIET)
        self._timer.timeout.connect(self.seen.now)
        self.page = PageView()
        self._lay_out()
        session.solution_changed.connect(self._ask)  # a method, which goes with the station

    def _lay_out(self) -> None:
        title = plain_label("Sheet")
        title.setProperty("role", "title")
        summary = plain_label("what is fitted, its figures, what there is to say, and the cautions")
        summary.setProperty("role", "summary")
        summary.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        head = QHBoxLayout()
        head.setSpacing(14)
        head.addWidget(title)
        head.addWidget(summary, 1, Qt.AlignmentFlag.AlignBottom)
        for deed, words in (
            ("print", "Print…"),
            ("sheet-html", "Write HTML…"),
            ("sheet-pdf", "Write PDF…"),
        ):
            button = QPushButton(words)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(lambda _=False, asked=deed: self.deed_asked.emit(asked))
            if deed == "sheet-pdf":
                button.setProperty("role", "primary")
            head.addWidget(button)
        area = scrolled(self.page, "The sheet", across=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 12, 24, 0)
        column.setSpacing(12)
        column.addLayout(head)
        column.addWidget(area, 1)

    def _ask(self) -> None:
        self.seen.ask_for(self._timer.start)

    def _set(self) -> None:
        """Set the page from the build as it is now."""
        self.page.show_document(set_sheet(self._session.solution, self._session.units))
