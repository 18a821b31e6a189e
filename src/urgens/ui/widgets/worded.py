"""Words in one of the roles the stylesheet knows."""

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QLabel, QSizePolicy

from urgens.guidance.words.terms import term_in
from urgens.ui.widgets.plain import plain_label, point_out


def worded(words: str, role: str) -> QLabel:
    """Return a label with words in a role: title, summary, heading, muted, small, danger."""
    label = plain_label(words)
    label.setProperty("role", role)
    term = term_in(words) if words else None
    if term is not None:  # it is explained where it stands
        point_out(label, term.words)
    return label


def wrapped(role: str = "muted", words: str = "") -> QLabel:
    """Return a label whose words go over several lines."""
    label = worded(words, role)
    label.setWordWrap(True)
    return label


class _Passing(QLabel):
    """Is there only while it has something to say."""

    def setText(self, words: str) -> None:
        super().setText(words)
        self.setVisible(bool(words))


def passing(role: str = "danger") -> QLabel:
    """Return a label over several lines that is hidden while nothing is said, as a refusal."""
    label = _Passing()
    label.setTextFormat(Qt.TextFormat.PlainText)
    label.setProperty("role", role)
    label.setWordWrap(True)
    label.hide()
    return label


class _Elided(QLabel):
    """Leaves out the end of what does not fit, and says all of it to who points at it."""

    def minimumSizeHint(self) -> QSize:
        return QSize(0, super().minimumSizeHint().height())

    def paintEvent(self, event: QPaintEvent) -> None:
        with QPainter(self) as painter:
            painter.setFont(self.font())
            painter.setPen(self.palette().color(self.foregroundRole()))
            words = self.fontMetrics().elidedText(
                self.text(), Qt.TextElideMode.ElideRight, self.width()
            )
            point_out(self, "" if words == self.text() else self.text())
            painter.drawText(self.rect(), self.alignment(), words)


def elided(role: str) -> QLabel:
    """Return a label of one line whose end is left out where it does not fit."""
    label = _Elided()
    label.setTextFormat(Qt.TextFormat.PlainText)
    label.setProperty("role", role)
    label.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
    return label
