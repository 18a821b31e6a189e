"""Units of the builder's own for single kinds of figure."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QComboBox, QDialog, QDialogButtonBox, QGridLayout, QWidget

from urgens.quantity import KINDS, Units, printed, unit_shown
from urgens.ui.session import Overrides
from urgens.ui.widgets.plain import plain_label


class UnitsDialog(QDialog):
    """One line for each kind: as the unit system has it, or a unit chosen here.

    Each choice shows at once; nothing in the build changes.
    """

    chosen = Signal(object)

    def __init__(self, units: Units, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Units of my own")
        self.boxes: list[QComboBox] = []
        grid = QGridLayout(self)
        grid.setHorizontalSpacing(24)
        grid.setVerticalSpacing(4)
        said = plain_label(
            "Chosen here, a unit is shown in both unit systems. The build stays as typed."
        )
        said.setProperty("role", "muted")
        grid.addWidget(said, 0, 0, 1, 2)
        own = dict(units.overrides)
        for row, kind in enumerate(KINDS, start=1):
            noun = kind.noun.split(" ", 1)[1]  # without its article
            box = QComboBox()
            box.setAccessibleName(f"Unit of {kind.noun}")
            box.addItem(f"as the system: {printed(unit_shown(kind, units.system))}", None)
            for name in kind.units:
                box.addItem(name, name)
            box.setCurrentIndex(max(box.findData(own.get(kind)), 0))
            box.activated.connect(self._choose)
            grid.addWidget(plain_label(noun[0].upper() + noun[1:]), row, 0)
            grid.addWidget(box, row, 1)
            self.boxes.append(box)
        close = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        close.rejected.connect(self.reject)
        grid.addWidget(close, len(KINDS) + 1, 0, 1, 2)

    @property
    def overrides(self) -> Overrides:
        """The kinds that have a unit of their own, and which."""
        picked = ((k, box.currentData()) for k, box in zip(KINDS, self.boxes, strict=True))
        return tuple((kind, name) for kind, name in picked if name is not None)

    def _choose(self) -> None:
        self.chosen.emit(self.overrides)
