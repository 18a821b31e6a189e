"""The sheet as it will be printed."""

from dataclasses import replace
from functools import partial

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QColor, QHideEvent, QPainter, QPaintEvent, QPixmap
from PySide6.QtWidgets import QCheckBox, QGridLayout, QPushButton, QSizePolicy, QWidget

from urgens.sheet.blocks import Chapter
from urgens.sheet.chapters import CHAPTERS
from urgens.sheet.files import set_sheet
from urgens.sheet.pdf import SheetDocument
from urgens.ui.session import Session
from urgens.ui.session.paper import Size
from urgens.ui.theme.paint import T, pen
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.timers import once

QUIET = 250  # ms without a change before the page is set again
GAP = 16  # px between pages
SIDE = 252  # px of the column
SHEET_ACTIONS = (
    ("sheet-pdf", "Write PDF…"), ("sheet-html", "HTML…"), ("sheet-csv", "CSV…"),
    ("print", "Print…"),
)  # fmt: skip
PAPERS: dict[Size | None, str] = {None: "by units", "a4": "A4", "letter": "Letter"}


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

    @property
    def chapters(self) -> tuple[Chapter, ...]:
        """The chapters that are shown."""
        return () if self._document is None else self._document.bound.chapters

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
        with QPainter(self) as painter:
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
        with QPainter(pixmap) as painter:
            painter.setRenderHints(
                QPainter.RenderHint.Antialiasing | QPainter.RenderHint.TextAntialiasing
            )
            scale = size.width() / self._document.paper.width()
            painter.scale(scale, scale)
            self._document.paint(painter, page)
            return pixmap


class SheetPage(Page):
    """Preview of the sheet, set anew when the build has changed and is looked at."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._timer = once(self, QUIET, self._set)
        self.view = PageView()
        self.boxes: dict[str, QCheckBox] = {}
        self.column.setContentsMargins(0, 0, 10, 0)
        buttons = QGridLayout()
        for place, (command, words) in enumerate(SHEET_ACTIONS):
            button = QPushButton(words)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(partial(self.command_requested.emit, command))
            button.setProperty("role", "quiet" if place else "primary")
            row, column = divmod(place - 1, len(SHEET_ACTIONS) - 1) if place else (-1, 0)
            buttons.addWidget(button, row + 1, column, 1, 1 if place else len(SHEET_ACTIONS) - 1)
        self.column.addLayout(buttons)
        self.paper = SegmentRow()
        self.paper.chosen.connect(self._put_on)
        self.head("Paper")
        self.column.addWidget(self.paper)
        self.head("Chapters")
        for name, (title, _) in CHAPTERS.items():
            box = QCheckBox(title)
            box.clicked.connect(self._choose)
            self.boxes[name] = box
            self.column.addWidget(box)
        session.paper_changed.connect(self.seen.ask)
        self.column.addStretch()
        self.lay_out(scrolled(self.view, "The sheet", across=True), side=SIDE)
        self.said.hide()

    @property
    def summary(self) -> str:
        """What is on it."""
        return "what is fitted, its figures, what there is to say, and the cautions"

    def show_figures(self) -> None:
        """Set the page from the build as it is now: at once where nothing is shown yet."""
        if self.view.document is None:
            self._set()
        else:
            self._timer.start()

    def _set(self) -> None:
        session = self.session
        self.view.show_document(set_sheet(session.solution, session.units, session.sheet_asked))
        here = {chapter.name for chapter in self.view.chapters}
        chosen = session.paper.chapters
        for name, box in self.boxes.items():
            box.setChecked(name in (here if chosen is None else chosen))
            empty = chosen is None and name not in here
            box.setAccessibleDescription("nothing is on record for it" if empty else "")
        self.paper.show_choices(PAPERS, session.paper.size)

    def hideEvent(self, event: QHideEvent) -> None:
        if self._timer.isActive():  # it is set when it is seen again
            self._timer.stop()
            self.seen.forget()
        super().hideEvent(event)

    def _choose(self) -> None:
        """Take the chapters that are ticked."""
        names = tuple(name for name, box in self.boxes.items() if box.isChecked())
        self.session.choose_paper(replace(self.session.paper, chapters=names))

    def _put_on(self, size: object) -> None:
        chosen = next(one for one in PAPERS if one == size)
        self.session.choose_paper(replace(self.session.paper, size=chosen))
