"""The caution of the first run: it counts as read by its button alone."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QMessageBox, QWidget

from urgens.guidance.words.cautions import CAUTIONS
from urgens.ui.widgets.message import Message

READ = "I have read this"


class CautionBox(Message):
    """Says what brakes can do; put away in any other way it comes again at the next start."""

    read = Signal()

    def __init__(self, parent: QWidget) -> None:
        more = "\n\n".join(CAUTIONS)
        super().__init__(
            QMessageBox.Icon.Warning, "Brakes can kill", "Brakes can kill.", more, parent
        )
        self._button = self.addButton(READ, QMessageBox.ButtonRole.AcceptRole)
        later = self.addButton("Later", QMessageBox.ButtonRole.RejectRole)
        self.setDefaultButton(later)
        self.setEscapeButton(later)
        self.buttonClicked.connect(self._clicked)

    def _clicked(self, button: object) -> None:
        if button is self._button:
            self.read.emit()
