"""The line at the bottom: what there is to say, why, and the one thing to do."""

from dataclasses import dataclass, replace

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QColor, QHideEvent, QPainter, QPaintEvent, QResizeEvent, QShowEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from urgens.document import Build
from urgens.guidance import Finding, Severity
from urgens.guidance.advice.recommendation import offered
from urgens.guidance.rules.finding import Fix
from urgens.quantity import Units
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, metrics, pen
from urgens.ui.widgets.background import Background
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.plain import button_words, plain_label, point_out
from urgens.ui.widgets.sentence import Sentence
from urgens.ui.widgets.timers import once

HEIGHT = 52
ROOM = 830  # px that the rest of the line has first
LEAST = 220  # that a fix has at least
QUIET = 400  # ms without an edit before what to propose is worked out
NOTHING_FOUND = (
    "in what is computed here. Figures do not prove brakes: have them checked, and prove them "
    "standing first."
)


def _colors(severity: Severity) -> tuple[str, str]:
    """Return the colour of the words and of the ground of a severity."""
    return {
        Severity.DANGER: (T.danger, T.danger_ground),
        Severity.WARNING: (T.warn, T.warn_ground),
        Severity.ADVICE: (T.good, T.good_ground),
    }[severity]


@dataclass(frozen=True)
class _Offer:
    """What is offered, once it is known, and what it was asked for."""

    build: Build
    units: Units
    finding: Finding
    fix: Fix | None = None


class FindingLine(QWidget):
    """Shows one finding at a time, worst first."""

    show_asked = Signal(str)

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self._index = 0
        self._shown: tuple[Finding | None, int, int] | None = None
        self.setFixedHeight(round(HEIGHT * T.scale))
        self._word = plain_label()
        self.message = Sentence()
        # Queued: a height set while the row is laid out would leave half of it as it was.
        self.message.height_wanted.connect(self._fit, Qt.ConnectionType.QueuedConnection)
        self.count = plain_label()
        self.count.setProperty("role", "muted")
        self.next = QPushButton("Next")
        point_out(self.next, "F")
        self.next.clicked.connect(self.advance)
        self.show_place = push_button("Show", "", self._ask_to_show)
        self.fix = QPushButton("Mend it")  # until it has something to do, which it then names
        self.fix.setProperty("role", "primary")
        self.fix.clicked.connect(self.apply_fix)
        row = spaced(QHBoxLayout(self), 12, (round(44 * T.scale), 4, 20, 4))
        row.addWidget(self._word)
        row.addWidget(self.message, 1)
        row.addWidget(self.count)
        for button in (self.next, self.show_place, self.fix):
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            row.addWidget(button)
        self._quiet = once(self, QUIET, self._begin)
        self._work = Background(self)
        self._work.ended.connect(self._offer)
        self._work.failed.connect(self._fail)
        self._offered: _Offer | None = None
        session.told.connect(self._refresh)
        session.opened.connect(self._lead)
        self._refresh()

    @property
    def finding(self) -> Finding | None:
        """The finding that is shown, None where there is none."""
        found = self._session.findings
        return found[min(self._index, len(found) - 1)] if found else None

    @property
    def index(self) -> int:
        """The place of the finding that is shown."""
        return self._index

    def _lead(self) -> None:
        """Begin with the worst of what another build has."""
        self.go_to(0)

    def go_to(self, index: int) -> None:
        """Show the finding at a place, or the last one."""
        self._index = index
        self._refresh()

    def advance(self) -> None:
        """Go to the next finding, from the last to the first."""
        if self._session.findings:
            self._index = (self._index + 1) % len(self._session.findings)
            self._refresh()

    def apply_fix(self) -> None:
        """Make the first edit the finding proposes."""
        if self._fix is not None:
            self._session.apply(self._fix)

    def _ask_to_show(self) -> None:
        if self.finding is not None:
            self.show_asked.emit(self.finding.where)

    def _refresh(self) -> None:
        found = self._session.findings
        self._index = min(self._index, max(len(found) - 1, 0))
        shown = (self.finding, self._index, len(found))
        if self.finding is not None and (self.finding.chosen or self.finding.fixes):
            self._choose(self.finding)
        if shown == self._shown:
            return
        self._shown = shown
        finding = self.finding
        self.next.setVisible(len(found) > 1)
        self.count.setText(f"{self._index + 1} of {len(found)}" if found else "")
        self.show_place.setVisible(finding is not None)
        if finding is None:
            self._say("Nothing found", T.good, "", NOTHING_FOUND)
        else:
            word = finding.severity.word.capitalize()
            self._say(word, _colors(finding.severity)[0], finding.message, finding.why)
        self._show_fix()
        self.update()

    @property
    def _fix(self) -> Fix | None:
        """What the finding that is shown proposes, once it is known."""
        return self._offered.fix if self._offered is not None and self._is_current() else None

    def _is_current(self) -> bool:
        """Tell whether what is offered is so for the finding that is shown, of the build now."""
        offer, session = self._offered, self._session
        if offer is None or self.finding is None:
            return False
        asked = offer.build, offer.units, offer.finding
        return asked[0] is session.build and asked[1:] == (session.units, self.finding)

    def _choose(self, finding: Finding) -> None:
        """Ask away from the hand for what is offered against a finding, unless it is known."""
        if self._is_current() or self._session.dragging:
            return
        self._offered = _Offer(self._session.build, self._session.units, finding)
        self._show_fix()
        self._work.stop()
        if self.isVisible():
            self._quiet.start()

    def _begin(self) -> None:
        """Work out what to propose for the build as it is, now that the hand is still."""
        asked = self._offered
        if asked is not None and self._is_current():
            self._work.run(
                lambda progress: offered(asked.build, asked.finding, asked.units, progress)
            )

    def _offer(self, fixes: tuple[Fix, ...]) -> None:
        """Offer what was found, where it was found for the build as it is."""
        if self._offered is not None and self._is_current():
            self._offered = replace(self._offered, fix=next(iter(fixes), None))
            self._show_fix()

    def _fail(self, words: str) -> None:
        """Say why there is nothing to offer."""
        if self.finding is not None and self.finding.chosen:
            self.message.set_words(self.finding.message, f"What to fit is not known. {words}")

    def _show_fix(self) -> None:
        fix = self._fix
        self.fix.setVisible(fix is not None)
        if fix is None:
            return
        room = round(max(self.width() - ROOM * T.scale, LEAST * T.scale))
        fits = metrics(round(16 * T.scale), 600).elidedText(
            fix.label, Qt.TextElideMode.ElideRight, room
        )
        self.fix.setText(button_words(fits))
        self.fix.setAccessibleName(fix.label)
        point_out(self.fix, f"{fix.label}\nShift+F; can be undone")

    def _say(self, word: str, color: str, message: str, why: str) -> None:
        self._word.setText(word)
        self._word.setStyleSheet(f"color: {color}; font-weight: 700")
        self.message.set_words(message, "" if T.stands_back else why)

    def _fit(self, height: int) -> None:
        if height != self.height():
            self.setFixedHeight(max(height, round(HEIGHT * T.scale)))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if event.size().width() != event.oldSize().width():
            self._show_fix()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        if self._offered is not None and self._offered.fix is None:
            self._quiet.start()

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        self._quiet.stop()
        self._work.stop()

    def paintEvent(self, event: QPaintEvent) -> None:
        with QPainter(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            finding = self.finding
            color, ground = _colors(finding.severity) if finding else (T.hair, T.paper)
            painter.fillRect(self.rect(), QColor(ground))
            painter.setPen(pen(color, 2))
            painter.drawLine(0, 1, self.width(), 1)
            severity = finding.severity if finding else None
            severity_mark(painter, severity, QPointF(24 * T.scale, self.height() / 2), 11 * T.scale)
            found = self._session.findings
            if found and found[0].severity is Severity.DANGER and severity is not Severity.DANGER:
                # Whatever is read, a danger is not out of sight.
                painter.fillRect(0, 0, round(10 * T.scale), self.height(), QColor(T.danger))
