"""Terms explained, and what is computed and what is not."""

from PySide6.QtWidgets import QDialog, QHBoxLayout, QLineEdit, QListWidget, QVBoxLayout, QWidget

from urgens.document.practice import practice_words
from urgens.guidance.procedures.step import filled
from urgens.guidance.words.scope import COMPUTES, COMPUTES_NOT
from urgens.guidance.words.terms import Term, matching
from urgens.quantity import Units
from urgens.ui.frame.term_drawing import TermDrawing
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import worded, wrapped

NOTHING = "No term has these letters; try fewer of them."


class TermsPanel(QDialog):
    """Type some letters of a term, choose it with the arrows, read what it means."""

    def __init__(self, parent: QWidget, units: Units, term: Term | None = None) -> None:
        super().__init__(parent)
        self._units = units
        self.setWindowTitle("Terms")
        self.found: tuple[Term, ...] = ()
        self.line, self.list = QLineEdit(), QListWidget()
        self.line.setPlaceholderText("which term?")
        self.line.setAccessibleName("Term")
        self.list.setAccessibleName("Terms")
        self.name, self.meaning, self.usual, self.beside = (
            wrapped("sentence"), wrapped(""), wrapped(""), wrapped("muted"),
        )  # fmt: skip
        self.drawing = TermDrawing()
        right = QVBoxLayout()
        for widget in (self.name, self.meaning, self.usual, self.drawing, self.beside):
            right.addWidget(widget)
        right.addStretch()
        left = QVBoxLayout()
        left.addWidget(self.line)
        left.addWidget(self.list)
        row = QHBoxLayout(self)
        row.addLayout(left, 2)
        row.addLayout(right, 3)
        self.line.textChanged.connect(self._filter)
        self.line.returnPressed.connect(self.list.setFocus)
        self.list.currentRowChanged.connect(self._show)
        self.resize(720, 440)
        self._filter("")
        if term is not None:
            if term not in self.found:  # what shops say stands behind what is meant by it
                self.line.setText(term.said[0])
            self.list.setCurrentRow(self.found.index(term))
            self.list.setFocus()

    def _filter(self, typed: str) -> None:
        self.found = matching(typed)
        self.list.clear()
        self.list.addItems([", ".join(one.said) for one in self.found])
        self.list.setCurrentRow(0)
        if not self.found:
            self._show(-1)

    def _show(self, row: int) -> None:
        one = self.found[row] if 0 <= row < len(self.found) else None
        self.name.setText(NOTHING if one is None else ", ".join(one.said))
        self.meaning.setText("" if one is None else f"{one.meaning[:1].upper()}{one.meaning[1:]}.")
        usual = "" if one is None else filled(one.usual, practice_words(self._units))
        self.usual.setText(f"Usual: {usual}.")
        self.usual.setVisible(bool(usual))
        self.drawing.show_drawing("" if one is None else one.drawing)
        said = [] if one is None else [
            f"{head}: {text}" for head, text in
            (("Symbol", one.symbol), ("Unit", one.unit))
            if text.strip("–, ")
        ]  # fmt: skip
        self.beside.setText("\n".join(said))


class ScopePanel(QDialog):
    """What Urgens computes, and what it does not."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("What it computes, and what it does not")
        page = QWidget()
        column = QVBoxLayout(page)
        for title, rows in (("It computes", COMPUTES), ("It does not", COMPUTES_NOT)):
            column.addWidget(worded(title, "sentence"))
            for words in rows:
                column.addWidget(wrapped("", f"· {words}"))
            column.addSpacing(12)
        column.addStretch()
        outer = QVBoxLayout(self)
        outer.addWidget(scrolled(page, "What it computes"))
        self.resize(680, 560)


def explained(widget: QWidget | None) -> str:
    """Return what is said of a control: its name, its words and its tip."""
    if widget is None:
        return ""
    text = getattr(widget, "text", None)
    said = str(text()) if callable(text) else ""
    return " ".join((widget.accessibleName(), said)).strip()
