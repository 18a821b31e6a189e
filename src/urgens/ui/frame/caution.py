"""The caution of the first run: it counts as read by its button alone."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QMessageBox, QWidget

from urgens.guidance.cautions import CAUTIONS

READ = "I have read this"


class CautionBox(QMessageBox):
    """Says what brakes can do; put away in any other way it comes again at the next start."""

    read = Signal()

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setIcon(QMessageBox.Icon.Warning)
        self.setWindowTitle("Brakes can kill")
        self.setText("Brakes can kill.")
        self.setInformativeText("\n\n".join(CAUTIONS))
        self._button = self.addButton(READ, QMessageBox.ButtonRole.AcceptRole)
        later = self.addButton("Later", QMessageBox.ButtonRole.RejectRole)
        self.setDefaultButton(later)
        self.setEscapeButton(later)
        self.buttonClicked.connect(self._clicked)

    def _clicked(self, button: object) -> None:
        if button is self._button:
            self.read.emit()
