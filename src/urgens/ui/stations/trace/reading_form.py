"""A reading is typed: what, how much, at which foot."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QCheckBox, QComboBox, QGridLayout, QLineEdit, QPushButton, QWidget

from urgens.document import BuildErrors
from urgens.guidance.tracing.readings import KINDS, Read, reading
from urgens.quantity import FORCE, QuantityError, Units, completed
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded, wrapped

CHOICES = {
    "travel-1": "pad travel, stroke 1",
    "travel-2": "pad travel, stroke 2",
    "travel-3": "pad travel, stroke 3",
    "front-pressure": "pressure in front",
    "rear-pressure": "pressure behind",
    "deceleration": "deceleration, g",
    "front-flow": "fluid a stroke, in front",
    "rear-flow": "fluid a stroke, behind",
    "heat-ratio": "front / rear hub, hot",
}
ASKED_HOW = {"moving": "moving", "engine-off": "engine off", "hot": "brakes hot"}
NONE = "no foot"  # as the build has it of what is read without one
EXAMPLES = {"heat-ratio": "210 °C / 150 °C"}  # fmt: skip


class ReadingForm(QWidget):
    """`typed` says a reading, its value, the foot and how; what is none is said here."""

    typed = Signal(str, str, str, tuple)

    def __init__(self) -> None:
        super().__init__()
        self.kind, self.value, self.foot = QComboBox(), QLineEdit(), QLineEdit()
        self.add, self.said = QPushButton("Add it"), wrapped("error")
        self._units: Units | None = None
        for name, words in CHOICES.items():
            self.kind.addItem(words, name)
        self.kind.setAccessibleName("What was read")
        self.value.setAccessibleName("How much")
        self.value.setPlaceholderText("how much")
        self.foot.setAccessibleName("At which foot")
        self.foot.setPlaceholderText("at a foot of")
        self.add.setProperty("role", "quiet")
        self.how = {name: QCheckBox(words) for name, words in ASKED_HOW.items()}
        self.said.hide()
        grid = tight(QGridLayout(self), 4)
        grid.addWidget(worded("A reading", "heading"), 0, 0, 1, 2)
        grid.addWidget(self.kind, 1, 0, 1, 2)
        grid.addWidget(self.value, 2, 0)
        grid.addWidget(self.foot, 2, 1)
        for place, box in enumerate(self.how.values()):
            grid.addWidget(box, 3 + place // 2, place % 2)
        grid.addWidget(self.add, 5, 0)
        grid.addWidget(self.said, 6, 0, 1, 2)
        self.kind.currentIndexChanged.connect(self._show_kind)
        self.add.clicked.connect(self._take)
        self.value.returnPressed.connect(self._take)
        self.foot.returnPressed.connect(self._take)

    def show_in(self, units: Units, *, boosted: bool) -> None:
        """Take bare numbers in these units; an engine counts where there is a booster."""
        self._units = units
        self.how["engine-off"].setVisible(boosted)

    def _show_kind(self) -> None:
        """Show what is typed for the kind that is chosen; some are read without a foot."""
        name = str(self.kind.currentData())
        self.value.setPlaceholderText(EXAMPLES.get(name, "how much"))
        self.foot.setVisible(_kind(name).foot)
        self.how["moving"].setVisible(not _kind(name).moving)

    def _take(self) -> None:
        assert self._units is not None  # it is shown
        name = str(self.kind.currentData())
        kind = _kind(name)
        value, foot = self.value.text().strip(), self.foot.text().strip()
        try:
            if foot:
                foot = completed(foot, FORCE, self._units)
            if kind.exponents is not None:
                value = completed(value, kind.exponents, self._units)
            reading(name, value, foot, self._how())
        except BuildErrors as errors:
            self._refuse("\n".join(f"{e.problem}; {e.remedy}." for e in errors.errors))
            return
        except QuantityError as error:
            self._refuse(f"{error}.")
            return
        self.said.hide()
        self.value.clear()
        self.typed.emit(name, value, foot or NONE, self._how())

    def _how(self) -> tuple[str, ...]:
        """Return how the vehicle was, of what is asked for this kind."""
        return tuple(
            name for name, box in self.how.items() if box.isChecked() and not box.isHidden()
        )

    def _refuse(self, words: str) -> None:
        """Say what is wrong with what is typed, which stays where it is."""
        self.said.setText(words)
        self.said.show()


def _kind(name: str) -> Read:
    return KINDS[name[:-2] if name.startswith("travel") else name]
