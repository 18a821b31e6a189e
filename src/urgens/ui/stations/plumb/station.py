"""The Plumb station: what is joined to what, and how each line is made."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.plumb import PAGES
from urgens.ui.stations.plumb.layout_page import LayoutPage
from urgens.ui.widgets.paged import PagedStation

NAMED = {"buy": "Buy", "drawn": "Lines"}


class PlumbStation(PagedStation):
    """The layout as a plan, and the pages of what is made and bought for it."""

    title, kinds, seldom = "Plumb", PAGES, ("Room and sums",)

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, parent)
        page = self.page_at(0)
        assert isinstance(page, LayoutPage)
        self.layout_page = page

    def go_to(self, where: str) -> bool:
        """Choose the part or the line that a finding names, or take a part into the hand."""
        word, _, kind = where.partition(":")
        if word in NAMED:
            self.show_page_named(NAMED[word])
            return True
        if word == "put":
            self.show_page(0)
            if self.layout_page.view.placing.kind != kind:  # asked again it stays in the hand
                self.layout_page.take_up(kind)
            return True
        plumbing = self._session.build.plumbing
        if plumbing is None:
            return False
        ids = {part.id for part in plumbing.parts} | {line.id for line in plumbing.lines}
        if where in ids:
            self.show_page(0)
            self.layout_page.look_at(where)
            return True
        if where.startswith("plumbing"):
            self.show_page(0)
            return True
        return False
