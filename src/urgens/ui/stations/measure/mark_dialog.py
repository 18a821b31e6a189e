"""Many figures marked at once: where from they are known, with a note and a date."""

from collections.abc import Iterator
from datetime import date

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QWidget,
)

from urgens.document import Build
from urgens.document.catalogue import figure, is_figure, named
from urgens.document.edits.edit import dumped
from urgens.document.facts import UNSEEN, given
from urgens.quantity import shown
from urgens.ui.session import Session
from urgens.ui.widgets.evidence_keys import STATES
from urgens.ui.widgets.plain import plain_label

# what is marked, and the places it stands at
PARTS = (
    ("The front brake", ("front.brake",)),
    ("The rear brake", ("rear.brake",)),
    ("Both tyres", ("front.tyre", "rear.tyre")),
    ("Pedal and cylinder", ("pedal", "master", "booster")),
    ("Loads, wheelbase and heights", ("vehicle",)),
    ("All valves", ("valves",)),
    ("Everything on this page", ("front", "rear", "pedal", "master", "booster", "vehicle")),
)


def to_mark(build: Build, places: tuple[str, ...]) -> tuple[str, ...]:
    """Return the paths of the figures that stand at some places in the file: no wishes."""
    return tuple(path for place in places for path in _written(build, place))


def _written(build: Build, place: str) -> Iterator[str]:
    part = dumped(build)
    for step in place.split("."):
        part = part.get(step, {})
    for path in given(place, part):
        if is_figure(build, path) and not figure(build, path).entry.wish:
            yield path


class MarkDialog(QDialog):
    """Which figures, how they are known, when, and a word about it; one step that can be undone.

    Those that somebody typed are ticked; what is assumed or planned is marked only where a hand
    ticks it.
    """

    def __init__(self, session: Session, parent: QWidget) -> None:
        super().__init__(parent)
        self._session = session
        self.setWindowTitle("Mark many figures at once")
        self.part, self.state = QComboBox(), QComboBox()
        for words, places in PARTS:
            self.part.addItem(words, places)
        for state, words, _ in STATES:
            self.state.addItem(words, state)
        self.when, self.note = QLineEdit(date.today().isoformat()), QLineEdit()
        self.note.setPlaceholderText("with what, by whom")
        self.list = QListWidget()
        self.list.setMinimumSize(460, 260)
        self.list.setAccessibleName("Figures to mark: Space ticks one")
        self.count = plain_label()
        self.count.setProperty("role", "muted")
        form = QFormLayout(self)
        form.setSpacing(8)
        for words, widget in (
            ("What", self.part), ("Figures", self.list), ("How it is known", self.state),
            ("When", self.when), ("Note", self.note),
        ):  # fmt: skip
            widget.setAccessibleName(words)
            form.addRow(plain_label(words), widget)
        form.addRow(self.count)
        box = QDialogButtonBox(QDialogButtonBox.StandardButton.Cancel)
        self.mark = box.addButton("Mark them", QDialogButtonBox.ButtonRole.AcceptRole)
        box.accepted.connect(self._mark)
        box.rejected.connect(self.reject)
        form.addRow(box)
        self.part.currentIndexChanged.connect(self._list)
        self.list.itemChanged.connect(self._show_count)
        self._list()

    @property
    def paths(self) -> tuple[str, ...]:
        """The figures that are ticked."""
        items = (self.list.item(row) for row in range(self.list.count()))
        return tuple(
            item.data(Qt.ItemDataRole.UserRole)
            for item in items
            if item.checkState() is Qt.CheckState.Checked
        )

    def _list(self) -> None:
        """List the figures of the part that is chosen."""
        session = self._session
        self.list.clear()
        for path in to_mark(session.build, tuple(self.part.currentData())):
            one, said = figure(session.build, path), session.said_of(path)
            read = str(shown(one.value, one.kind, one.shown_in(session.units))).strip()
            words = f"{named(session.build, path)}  {read}" + (f", {said}" if said else "")
            item = QListWidgetItem(words, self.list)
            item.setData(Qt.ItemDataRole.UserRole, path)
            ticked = Qt.CheckState.Unchecked if said in UNSEEN else Qt.CheckState.Checked
            item.setCheckState(ticked)
        self._show_count()

    def _show_count(self) -> None:
        ticked, count = len(self.paths), self.list.count()
        self.count.setText(
            f"{ticked} of {count} ticked. What nobody typed is not: tick only what was found out."
        )
        self.mark.setEnabled(ticked > 0)

    def _mark(self) -> None:
        parts = (self.when.text().strip(), self.note.text().strip())
        note = ", ".join(part for part in parts if part)
        state = str(self.state.currentData())
        label = f"{self.part.currentText()}: {self.state.currentText().lower()}"
        self._session.mark(self.paths, state, note, label)
        self.accept()
