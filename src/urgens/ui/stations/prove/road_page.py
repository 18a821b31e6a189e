"""To come."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.widgets.page import Page


class RoadPage(Page):
    """To come."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.lay_out(QWidget())

    @property
    def summary(self) -> str:
        return "to come"

    def show_figures(self) -> None:
        return
