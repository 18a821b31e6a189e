"""A figure that is changed where it stands: click or Tab, type, Enter."""

from collections.abc import Callable
from enum import Enum

from PySide6.QtCore import QEvent, QObject, QPoint, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QFocusEvent,
    QGuiApplication,
    QHideEvent,
    QKeyEvent,
    QKeySequence,
    QMouseEvent,
    QPaintEvent,
    QShowEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QLabel, QLineEdit, QScrollArea, QSizePolicy, QToolTip, QWidget

from urgens.document import BuildErrors
from urgens.document.errors import plainly
from urgens.quantity import QuantityError, ShownFigure
from urgens.ui.theme.paint import T, face, laid_out, metrics, pen, width
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.plain import plain_label, point_out


class Knowledge(Enum):
    """What is known about a figure: typed, found out, only assumed or planned, or not there."""

    YES = "known"
    SETTLED = "settled"
    ASSUMED = "assumed"
    PLANNED = "planned"
    MISSING = "missing"


# What a build says of a figure, as its label shows it.
SAID = {
    "assumed": Knowledge.ASSUMED, "planned": Knowledge.PLANNED, "measured": Knowledge.SETTLED,
    "stamped": Knowledge.SETTLED, "published": Knowledge.SETTLED,
}  # fmt: skip


UNIT_SHARE = 0.62
LEAST_UNIT = 11
_STEP_KEYS = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}


class DimensionLabel(Painted):
    """Shows a figure with its unit over dots; `accept` is asked to take what is typed.

    `accept` raises QuantityError or BuildErrors with the words that then stand under the label.
    `stepped` is emitted with +1 or -1 (times ten with Shift) by wheel and arrow keys on focus.
    """

    stepped = Signal(int)

    def __init__(
        self,
        name: str,
        accept: Callable[[str], None],
        *,
        size: int = 26,
        weight: int = 600,
        color: str | None = None,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(parent)
        self._name = name
        self._accept = accept
        self._size, self._weight, self._color = size, weight, color or str(T.ink)
        self._shown = ShownFigure("—", "")
        self._known, self._said, self._explained = Knowledge.YES, "", ""
        self._typed = ""
        self._widest = 0
        self._editor: QLineEdit | None = None
        self._error: QLabel | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.IBeamCursor)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)

    @property
    def name(self) -> str:
        """What the figure is called."""
        return self._name

    def rename(self, name: str) -> None:
        """Call the figure something else from now on."""
        self._name = name

    def set_value(self, figure: ShownFigure, typed: str) -> None:
        """Show a figure; `typed` is what the editor starts with."""
        self._shown, self._typed = figure, typed
        self._name_it()
        widest = self._widest
        self.sizeHint()
        if self._widest > widest:
            self.updateGeometry()
        self.update()

    def set_known(self, knowledge: Knowledge, words: str = "") -> None:
        """Show what is known about the figure; `words` say it to who points at it or listens."""
        if (knowledge, words) != (self._known, self._said):
            self._known, self._said = knowledge, words
            self._explain_it()
            self._name_it()
            self.update()

    def explain(self, words: str) -> None:
        """Say what the figure is, to who points at it or listens."""
        self._explained = words
        self.setAccessibleDescription(words)
        self._explain_it()

    def _explain_it(self) -> None:
        point_out(self, "\n".join(words for words in (self._explained, self._said) if words))

    @property
    def takes_the_same(self) -> bool:
        """Whether typing what stands there already changes something."""
        return False

    @property
    def known(self) -> Knowledge:
        """What is known about the figure."""
        return self._known

    def _name_it(self) -> None:
        state = "" if self._known is Knowledge.YES else f", {self._said or self._known.value}"
        self.setAccessibleName(f"{self._name} {self._shown}".strip() + state)

    @property
    def text(self) -> str:
        """The figure as shown, with its unit."""
        return str(self._shown).strip()

    @property
    def error(self) -> str:
        """The words under the label, empty where nothing is wrong."""
        return self._error.text() if self._error is not None else ""

    @property
    def editor(self) -> QLineEdit | None:
        """The line that is being typed in, if any."""
        return self._editor

    @property
    def _unit_size(self) -> int:
        return max(round(self._size * UNIT_SHARE), LEAST_UNIT)

    def sizeHint(self) -> QSize:
        figure = metrics(self._size, self._weight, condensed=False)
        across = width(self._shown.number, self._size, self._weight, condensed=False)
        if self._shown.unit:
            unit = width(self._shown.unit, self._unit_size)
            across += unit + self._size * 0.22
        self._widest = max(self._widest, round(across) + 10)  # so that nothing around it moves
        return self.scaled(self._widest, round(figure.height()) + 6)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if self._editor is not None:
                return
            size, weight, unit = self._size, self._weight, self._unit_size
            baseline = 1 + metrics(size, weight, condensed=False).ascent()
            painter.setFont(face(size, weight, condensed=False))
            painter.setPen(pen(self._color))
            number = laid_out(self._shown.number, size, weight, condensed=False)
            painter.drawStaticText(QPointF(5, 1), number)
            painter.setFont(face(unit))
            painter.setPen(pen(T.muted))
            top = baseline - metrics(unit).ascent()
            painter.drawStaticText(
                QPointF(round(self.unit_starts), top), laid_out(self._shown.unit, unit)
            )
            dots, dashes = Qt.PenStyle.DotLine, Qt.PenStyle.DashLine
            under = {
                Knowledge.YES: (T.muted, 2, dots),
                Knowledge.SETTLED: (T.good, 1.5, Qt.PenStyle.SolidLine),
                Knowledge.ASSUMED: (T.warn, 2.5, dashes),
                Knowledge.PLANNED: (T.ink, 2.0, Qt.PenStyle.DashDotLine),
                Knowledge.MISSING: (T.danger, 2.5, dashes),
            }
            painter.setPen(pen(*under[self._known]))
            foot = self.down - 3
            painter.drawLine(QPointF(5, foot), QPointF(self.across - 5, foot))
            if self.hasFocus():
                painter.setPen(pen(T.front, 2))
                painter.drawRoundedRect(QRectF(1, 1, self.across - 2, self.down - 2), 3, 3)

    @property
    def unit_starts(self) -> float:
        """How far along its unit stands [px]."""
        number = width(self._shown.number, self._size, self._weight, condensed=False)
        return 5 + number + self._size * 0.22

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.begin_edit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy):
            QGuiApplication.clipboard().setText(self.text)
            return
        many = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
        if event.key() in _STEP_KEYS:
            self.stepped.emit(_STEP_KEYS[Qt.Key(event.key())] * many)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.begin_edit()
        elif event.text() and event.text() in "0123456789.-−":
            self.begin_edit(event.text())
        else:
            event.ignore()

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self.hasFocus() and event.angleDelta().y():
            self.stepped.emit(1 if event.angleDelta().y() > 0 else -1)
        else:
            event.ignore()

    def focusInEvent(self, event: QFocusEvent) -> None:
        QToolTip.hideText()  # a figure is read, not what is said of another
        area = self._area()
        if area is not None:
            area.ensureWidgetVisible(self)
        self.update()

    def _area(self) -> QScrollArea | None:
        """Return what it is scrolled in, None where that is nothing."""
        above: QWidget | None = self.parentWidget()
        while above is not None and not isinstance(above, QScrollArea):
            above = above.parentWidget()
        return above

    def hideEvent(self, event: QHideEvent) -> None:
        if self._error is not None:  # its words go with its page, what is typed stays
            self._error.hide()

    def showEvent(self, event: QShowEvent) -> None:
        if self._error is not None:
            self._place_error(self._error)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        if self._editor is None:
            self._clear_error()
        self.update()

    def begin_edit(self, start: str | None = None) -> None:
        """Open the line for typing, with `start` instead of the present figure."""
        parent = self.parentWidget()
        if self._editor is not None or parent is None:
            return
        editor = QLineEdit(parent)
        size = round(max(16, self._size * 0.8) * self.scale)
        editor.setStyleSheet(f'font: 600 {size}px "IBM Plex Sans"')  # the theme's is for forms
        editor.setAccessibleName(self._name)
        wide = max(self.width() + 24, round(128 * self.scale))
        height = max(self.height(), round(36 * self.scale))
        top = self.y() + (self.height() - height) // 2
        room = parent.width()
        editor.setGeometry(max(0, min(self.x(), room - wide)), top, min(wide, room), height)
        editor.setText(self._typed if start is None else start)
        if start is None:
            editor.selectAll()
        editor.installEventFilter(self)
        editor.textEdited.connect(self._clear_error)
        editor.show()
        editor.setFocus()
        self._editor = editor
        self.update()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if watched is self._editor:
            if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
                if event.key() == Qt.Key.Key_Escape:
                    self._close()
                    return True
                if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                    self._try()
                    return True  # else a dialog would take it for its default button
                if event.key() in (Qt.Key.Key_Tab, Qt.Key.Key_Backtab):
                    back = event.key() == Qt.Key.Key_Backtab
                    if self._try():
                        self.focusNextPrevChild(not back)
                    return True
            if event.type() == QEvent.Type.FocusOut and not self._error:
                self._try(leaving=True)
        return super().eventFilter(watched, event)

    def leave_out(self) -> None:
        """Take back what is typed and not entered, if anything is."""
        if self._editor is not None:
            self._close(focus=False)

    def enter(self) -> bool:
        """Enter what is typed, if anything is; tell whether it was taken, else it says why."""
        return self._try(leaving=True)

    def _try(self, *, leaving: bool = False) -> bool:
        """Hand over what is typed; tell whether it was taken."""
        editor = self._editor
        if editor is None:
            return True
        text = editor.text()
        if text == self._typed and not (editor.isModified() and self.takes_the_same):
            self._close(focus=not leaving)
            return True
        if not self.attempt(lambda: self._accept(text)):
            return False
        self._close(focus=not leaving)
        return True

    def attempt(self, act: Callable[[], None]) -> bool:
        """Do what may be refused, whose words then stand under the label; tell whether it was done.

        `act` raises QuantityError or BuildErrors where it is refused.
        """
        try:
            act()
        except QuantityError as error:
            self._show_error(f"{error.problem}; {error.remedy}")
            return False
        except BuildErrors as errors:
            self._show_error("\n".join(f"{e.problem}; {e.remedy}" for e in errors.errors))
            return False
        self._clear_error()
        return True

    def _close(self, *, focus: bool = True) -> None:
        editor, self._editor = self._editor, None
        self._clear_error()
        if editor is not None:
            editor.removeEventFilter(self)
            editor.hide()
            editor.deleteLater()
        if focus:
            self.setFocus()
        self.update()

    def _show_error(self, words: str) -> None:
        window = self.window()
        self._clear_error()
        # What was pasted is quoted, its middle left out where it is long.
        said = "\n".join(plainly(line) for line in words.split("\n"))
        label = plain_label(said, window)
        label.setProperty("role", "error")
        label.setWordWrap(True)
        label.setFixedWidth(min(420, window.width() - 24))
        label.adjustSize()
        self._place_error(label)
        self._error = label

    def _place_error(self, label: QLabel) -> None:
        window = self.window()
        anchor = self._editor or self
        below = anchor.mapTo(window, QPoint(0, anchor.height() + 4))
        left = max(12, min(below.x(), window.width() - label.width() - 12))
        top = below.y()
        if top + label.height() > window.height() - 8:
            top = anchor.mapTo(window, QPoint(0, -label.height() - 4)).y()
        label.move(left, top)
        label.show()
        label.raise_()

    def _clear_error(self) -> None:
        if self._error is not None:
            self._error.hide()
            self._error.deleteLater()
            self._error = None


def not_entered(window: QWidget) -> DimensionLabel | None:
    """Enter what is typed somewhere in a window; return the label that refuses it, if one does."""
    typed = [label for label in window.findChildren(DimensionLabel) if label.editor is not None]
    return next((label for label in typed if not label.enter()), None)
