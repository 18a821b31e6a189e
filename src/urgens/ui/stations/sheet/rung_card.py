"""One rung of the ladder: what it changes, its price, when it is enough, what is proved."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLineEdit, QPushButton, QWidget

from urgens.guidance import Severity
from urgens.guidance.advice.setup_ladder import Rung
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.marked_row import SeverityMark
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.worded import worded, wrapped

ACTIONS = ("Look at it", "Plan it", "Up", "Down", "Take it out")


class RungCard(QWidget):
    """Two fields to type in, and what can be done with it; `asked` names the action."""

    asked = Signal(str, str)  # the set-up and the action
    typed = Signal(str, str, str)  # the set-up, the field and what stands in it

    def __init__(self, place: int, rung: Rung, *, chosen: bool) -> None:
        super().__init__()
        self.rung = rung
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 4, 8, 10)
        grid.setVerticalSpacing(4)
        grid.setColumnStretch(2, 1)
        grid.addWidget(SeverityMark(_mark(rung)), 0, 0)
        looked = ", looked at now" if chosen else ""
        grid.addWidget(worded(f"{place}  {rung.name}{looked}", "heading"), 0, 1, 1, 3)
        grid.addWidget(wrapped("muted", rung.changes), 1, 1, 1, 3)
        self.price, self.enough = QLineEdit(), QLineEdit()
        price = "" if rung.price is None else f"{rung.price:g}"
        for column, (field, name, words, text, hint) in enumerate(
            ((self.price, "price", f"Price of {rung.name}", price, "price"),
             (self.enough, "enough_if", f"{rung.name} is enough if", rung.enough_if,
              "enough if …")), start=1,
        ):  # fmt: skip
            field.setText(text)
            field.setPlaceholderText(hint)
            field.setAccessibleName(words)
            field.editingFinished.connect(
                lambda name=name, field=field: self.typed.emit(rung.name, name, field.text())
            )
            grid.addWidget(field, 2, column)
        self.price.setFixedWidth(90)
        grid.addWidget(wrapped("small", proofs_words(rung)), 3, 1, 1, 3)
        row = QHBoxLayout()
        self.buttons: dict[str, QPushButton] = {}
        for action in ACTIONS:
            button = push_button(button_words(action), "small")
            button.setAccessibleName(f"{action}: {rung.name}")
            button.clicked.connect(
                lambda _=False, action=action: self.asked.emit(rung.name, action)
            )
            self.buttons[action] = button
            row.addWidget(button)
        row.addStretch()
        grid.addLayout(row, 4, 1, 1, 3)


def _mark(rung: Rung) -> Severity | None:
    if rung.dangers or rung.rear_first:
        return Severity.DANGER
    return None if rung.done else Severity.WARNING


def proofs_words(rung: Rung) -> str:
    """Return what is judged of a rung, and what is proved."""
    said = []
    if rung.rear_first:
        said.append(f"the rear locks first on {rung.rear_first} loads and roads")
    if rung.dangers:
        said.append(f"{rung.dangers} danger{'s' if rung.dangers > 1 else ''} found")
    standing = (
        "not proved standing" if rung.proved is None else f"proved standing {rung.proved:%Y-%m-%d}"
    )
    moving = "not proved moving" if rung.moved is None else f"proved moving {rung.moved:%Y-%m-%d}"
    words = "; ".join([*said, standing, moving])
    return f"{words[:1].upper()}{words[1:]}."
