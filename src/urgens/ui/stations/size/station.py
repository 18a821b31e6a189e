"""The Size station: bore and ratio chosen on a map, windows typed, what fits best."""

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QSizePolicy,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.quantity import FORCE, LENGTH, PRESSURE, show, unit_shown
from urgens.solve.sizing import Verdict
from urgens.ui.session import Session
from urgens.ui.stations.size.choices import RATIOS
from urgens.ui.stations.size.feel import FeelPlane
from urgens.ui.stations.size.map_view import WORDS, MapView
from urgens.ui.theme.paint import T
from urgens.ui.widgets.figure_label import Figure, FigureLabel
from urgens.ui.widgets.worded import worded

SIDE = 244
BEST = 4  # bores offered
PAGES = ("Map", "Feel")
WINDOWS = (
    Figure("targets.comfortable_effort", "Comfortable foot", FORCE, 18),
    Figure("targets.deceleration", "Wanted deceleration, g", size=18),
    Figure("targets.pressure_window[0]", "Pressure at least", PRESSURE, 18),
    Figure("targets.pressure_window[1]", "Pressure at most", PRESSURE, 18),
    Figure("targets.max_effort", "Hardest foot", FORCE, 18),
    Figure("pedal.travel_available", "Pad to floor", LENGTH, 18),
)


class SizeStation(QWidget):
    """Every real bore against every ratio, and what the choice gives."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.map = MapView(session)
        self.labels = {f.path: FigureLabel(session, f, self) for f in WINDOWS}
        self.verdict = QLabel()
        self.verdict.setWordWrap(True)
        self.verdict.setProperty("role", "heading")
        self.figures = QLabel()
        self.figures.setWordWrap(True)
        self.best = [QPushButton("nothing fits") for _ in range(BEST)]
        self._summary = QLabel()
        self._summary.setProperty("role", "summary")
        self._summary.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.feel = FeelPlane(session)
        self.pages = QStackedWidget()
        self.axes = (worded("", "muted"), worded("", "muted"))
        self.axes[1].setAlignment(Qt.AlignmentFlag.AlignRight)
        feel = QWidget()
        column = QVBoxLayout(feel)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        for widget in (self.axes[0], self.feel, self.axes[1]):
            column.addWidget(widget, 1 if widget is self.feel else 0)
        for page in (self.map, feel):
            self.pages.addWidget(page)
        self.choose = [_segment(words) for words in PAGES]
        for index, button in enumerate(self.choose):
            button.clicked.connect(lambda _=False, page=index: self.show_page(page))
        self._lay_out()
        self.show_page(0)
        session.solution_changed.connect(self._changed)

    def _lay_out(self) -> None:
        title = worded("Size", "title")
        head = QHBoxLayout()
        head.setSpacing(14)
        head.addWidget(title)
        head.addWidget(self._summary, 1, Qt.AlignmentFlag.AlignBottom)
        for button in self.choose:
            head.addWidget(button)
        body = QHBoxLayout()
        body.setSpacing(18)
        body.addWidget(self.pages, 1)
        side = self._side()
        if T.stands_back:
            side.setParent(self)
            side.hide()
        else:
            hairline = QFrame()
            hairline.setFixedWidth(1)
            hairline.setStyleSheet(f"background: {T.hair}")
            body.addWidget(hairline)
            body.addWidget(side)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 12, 24, 8)
        column.setSpacing(8)
        column.addLayout(head)
        column.addLayout(body, 1)

    def show_page(self, index: int) -> None:
        """Show the map, or the pedal's feel."""
        self.pages.setCurrentIndex(index)
        for page, button in enumerate(self.choose):
            button.setChecked(page == index)

    def _side(self) -> QWidget:
        side = QWidget()
        side.setFixedWidth(SIDE)
        column = QVBoxLayout(side)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(self.verdict)
        column.addWidget(self.figures)
        column.addSpacing(8)
        column.addWidget(worded("What is wanted", "heading"))
        grid = QGridLayout()
        grid.setVerticalSpacing(2)
        for row, (figure, label) in enumerate(zip(WINDOWS, self.labels.values(), strict=True)):
            grid.addWidget(worded(figure.name, "muted"), row, 0)
            grid.addWidget(label, row, 1)
        column.addLayout(grid)
        column.addSpacing(8)
        column.addWidget(worded("What fits best", "heading"))
        for button in self.best:
            button.setProperty("role", "quiet")
            column.addWidget(button)
            button.clicked.connect(
                lambda _=False, b=button: self.map.choices.choose(*b.property("at"))
            )
        column.addStretch()
        return side

    def _take_best(self) -> None:
        """Put the bore and ratio of the button that was pressed into the build."""
        row, ratio = self.sender().property("at")
        self.map.choices.choose(row, ratio)

    def showEvent(self, event: QShowEvent) -> None:
        self.refresh()

    def _changed(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """Work out the map of the build as it is now, and say what the choice gives."""
        self.map.refresh()
        for label in self.labels.values():
            label.refresh()
        choices, at = self.map.choices, self.map.own_cell
        verdict = Verdict(int(choices.map.verdict[at]))
        fits = verdict is Verdict.FITS
        words = WORDS[verdict]
        color = T.good if fits else T.danger if verdict is Verdict.HALF_FAILED else T.warn
        bore = choices.bores[choices.own].text
        self.verdict.setText(
            f'{bore} at {choices.ratio:.2f} : 1: <span style="color:{color}">{words}</span>'
        )
        self.figures.setText("<br>".join(self._lines(at)))
        count = len({row for row, _ in choices.map.ranked()})
        self._summary.setText(
            f"{count} of {len(choices.bores)} bores fit at some ratio"
            + ("" if T.stands_back else "; drag, click, or ↑ ↓ ← →")
        )
        units = self._session.units
        self.axes[0].setText(f"Foot, {unit_shown(FORCE, units)}")
        self.axes[1].setText(f"Pedal travel, {unit_shown(LENGTH, units)}")
        self._offer()

    def _lines(self, at: tuple[int, int]) -> list[str]:
        """Return what the choice gives, a line each."""
        found, units = self.map.choices.map, self._session.units
        floor = self._session.build.pedal.travel_available.value
        effort, pad, half = (
            float(values[at])
            for values in (found.effort, found.pedal_travel, found.half_failed_travel)
        )
        wanted = self._session.build.targets.deceleration
        return [
            f"{show(effort, FORCE, units)} of foot for {wanted:g} g"
            if np.isfinite(effort)
            else f"no foot reaches {wanted:g} g",
            f"{show(float(found.pressure[at]), PRESSURE, units)} at the comfortable foot",
            f"pedal {100 * pad / floor:.0f} % of the way to the floor"
            if np.isfinite(pad)
            else "the pedal meets the floor",
            f"{100 * float(found.stroke_used[at]):.0f} % of the stroke used",
            f"one half lost: pedal at {100 * half / floor:.0f} %"
            if np.isfinite(half)
            else "one half lost: no pedal left",
        ]

    def _offer(self) -> None:
        """Offer the best ratio of each of the best bores."""
        choices = self.map.choices
        seen: dict[int, int] = {}
        for row, column in choices.map.ranked():
            seen.setdefault(row, column)
        offers = list(seen.items())[:BEST]
        for index, button in enumerate(self.best):
            button.setVisible(index < len(offers))
            if index < len(offers):
                row, column = offers[index]
                ratio = float(RATIOS[column])
                button.setText(f"{choices.bores[row].text} at {ratio:.2f}")
                button.setProperty("at", (row, ratio))


def _segment(words: str) -> QToolButton:
    button = QToolButton()
    button.setText(words)
    button.setCheckable(True)
    button.setProperty("segment", "true")
    button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
    return button
