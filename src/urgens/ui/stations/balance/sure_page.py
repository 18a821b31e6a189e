"""How sure it is: draws under real tolerances, surface by surface, and what matters most."""

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QPushButton

from urgens.document import Build
from urgens.document.catalogue import named
from urgens.guidance.advice.valve_choice import how_sure
from urgens.quantity import written
from urgens.solve import WET
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.robustness import DRAWS, SEED, Robustness, robustness
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, face, pen
from urgens.ui.widgets.background import Background
from urgens.ui.widgets.board import write
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.timers import once
from urgens.ui.widgets.worded import wrapped

FIRST = 5000  # draws that are shown while the others are drawn
QUIET = 250  # ms without a change before drawing begins
ROW = 88.0  # px of a surface
SHOWN = 8  # inputs


def roads_to_show(robustness: Robustness) -> list[int]:
    """Return the places of ice, the target's road, and between them the worst, else a wet one."""
    last = len(robustness.surfaces) - 1
    worst = max(range(len(robustness.surfaces)), key=lambda road: robustness.rear_first[road])
    if worst in (0, last):
        worst = min(
            range(len(robustness.surfaces)), key=lambda road: abs(robustness.surfaces[road] - WET)
        )
    return sorted({0, worst, last})


def _asked(
    build: Build, case: int, draws: int, seed: int, progress: Callable[[float], bool]
) -> tuple[Robustness, float | None] | None:
    """Return what draws come to with a load case, and of all of them with any load on any road."""
    found = robustness(build, case, draws, seed, progress)
    if found is None:
        return None
    if draws < DRAWS:
        return found, None
    (anywhere,) = rear_first_chances([build])  # the one figure, whichever draws are looked at
    return found, anywhere


class SureView(Painted):
    """Shares and bands for each surface, then the inputs by influence."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.found: Robustness | None = None
        self.failure = ""
        self.share = 0.0
        self.setMinimumSize(self.scaled(420, 480))
        self.setAccessibleName("How sure it is: not drawn yet")

    def show_share(self, share: float) -> None:
        """Show how far the drawing is."""
        self.share, self.failure = share, ""
        self.update()

    def show_failure(self, words: str) -> None:
        """Say in words why nothing was drawn."""
        self.found, self.share, self.failure = None, 1.0, words
        self.setAccessibleName(f"Not drawn. {words}")
        self.update()

    def show_found(self, robustness: Robustness | None) -> None:
        """Show what was drawn."""
        self.found, self.share, self.failure = robustness, 1.0, ""
        if robustness is not None:
            said = (
                f"on {mu:g} the rear first in {100 * share:.1f} %"
                for mu, share in zip(robustness.surfaces, robustness.rear_first, strict=True)
            )
            self.setAccessibleName(f"Of {robustness.draws} draws: {', '.join(said)}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if self.share < 1.0:
                bar = QRectF(0, 0, self.across, 6)
                painter.fillRect(bar, QColor(T.band))
                painter.fillRect(QRectF(0, 0, self.across * self.share, 6), QColor(T.fluid[1]))
            if self.failure:
                box = QRectF(0, 20, self.across, self.down - 20)
                painter.setFont(face(17))
                painter.setPen(QColor(T.danger))
                painter.drawText(box, Qt.TextFlag.TextWordWrap, f"Not drawn. {self.failure}")
                return
            if self.found is None:
                write(painter, "drawing…", QPointF(0, 40), size=18)
                return
            half = self.across * 0.42
            write(painter, "Rear locks first", QPointF(0, 26), size=16, weight=600, color=T.ink)
            words = "Grip used: 5, 50, 95 of 100 vehicles"
            write(painter, words, QPointF(half, 26), size=16, weight=600, color=T.ink)
            y = 38.0
            for index in roads_to_show(self.found):
                self._draw_surface(painter, index, self.found.surfaces[index], y, half)
                y += ROW
            self._draw_inputs(painter, y + 12)

    def _draw_surface(
        self, painter: QPainter, index: int, surface: float, y: float, half: float
    ) -> None:
        assert self.found is not None
        share, band = self.found.rear_first[index], self.found.efficiency[index]
        color = T.good if share < 0.001 else T.warn if share < 0.05 else T.danger
        write(painter, f"road {surface:g}", QPointF(0, y + 34), size=16)
        figure = "never" if share == 0 else f"{100 * share:.1f} %"
        write(painter, figure, QPointF(84, y + 38), size=28, weight=700, color=color)
        bar = QRectF(84, y + 48, half - 120, 10)
        painter.fillRect(bar, QColor(T.band))
        painter.fillRect(QRectF(bar.left(), bar.top(), bar.width() * share, 10), QColor(color))
        scale = QRectF(half, y + 40, self.across - half - 12, 14)
        painter.fillRect(scale, QColor(T.band))
        if band[0] != band[0]:
            write(painter, "nothing locks", QPointF(half, y + 34), size=16)
            return
        low, middle, high = (scale.left() + scale.width() * (v - 0.5) / 0.5 for v in band)
        low = max(low, scale.left())
        painter.fillRect(QRectF(low, scale.top(), high - low, 14), QColor(T.good))
        painter.setPen(pen(T.ink, 3))
        middle = max(middle, scale.left())
        painter.drawLine(QPointF(middle, scale.top() - 5), QPointF(middle, scale.bottom() + 5))
        said = f"{100 * band[0]:.0f}, {100 * band[1]:.0f}, {100 * band[2]:.0f} %"
        write(painter, said, QPointF(half, y + 30), size=17, weight=600, color=T.ink)
        write(painter, "50 %", QPointF(scale.left(), y + 70), size=14)
        write(painter, "100 %", QPointF(scale.right(), y + 70), size=14, side="right")

    def _draw_inputs(self, painter: QPainter, y: float) -> None:
        assert self.found is not None
        build = self._session.build
        write(painter, "What moves it most", QPointF(0, y + 16), size=16, weight=600, color=T.ink)
        rows = self.found.sensitivity[:SHOWN]
        tall = min((self.down - y - 28) / max(len(rows), 1), 30.0)
        for index, (path, share) in enumerate(rows):
            top = y + 26 + index * tall
            write(painter, named(build, path), QPointF(0, top + tall * 0.65), size=15)
            bar = QRectF(self.across * 0.42, top + tall * 0.25, self.across * 0.48, tall * 0.5)
            painter.fillRect(bar, QColor(T.band))
            used = QRectF(bar.left(), bar.top(), bar.width() * share, bar.height())
            painter.fillRect(used, QColor(T.ink))
            figure = f"{100 * share:.0f} %"
            at = QPointF(self.across - 2, top + tall * 0.65)
            write(painter, figure, at, size=15, weight=600, color=T.ink, side="right")


class SurePage(Page):
    """Draws away from the hand; drawing anew is one press, and so is stopping."""

    kept = ("seed",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.seed = SEED
        self.view = SureView(session)
        self.work = Background(self)
        self.work.progressed.connect(self.view.show_share)
        self.work.ended.connect(self._take)
        self.work.failed.connect(self._fail)
        self._timer = once(self, QUIET, self.draw)
        self.words, self.how = wrapped(), wrapped()
        self.again, self.stop = QPushButton("Draw again"), QPushButton("Stop")
        self.again.clicked.connect(self._again)
        self.stop.clicked.connect(self._stop)
        for widget in (self.words, self.again, self.stop, self.how):
            self.column.addWidget(widget)
        self.how.setText(
            f"{written(DRAWS, 0)} vehicles like yours, each a little different: every figure drawn "
            "from its spread (normal, two standard deviations; friction front and rear half "
            "together, sizes kept positive). "
            "The load case chosen above. What is measured spreads less: settle the first of the "
            "list. It counts the figures, not what nobody measured or thought of."
        )
        self.column.addStretch()
        self.lay_out(self.view)

    @property
    def summary(self) -> str:
        """How often the rear is first where it is worst."""
        found = self.view.found
        if self.view.failure:
            return "it could not be drawn"
        if found is None:
            return "drawing"
        worst = max(range(len(found.surfaces)), key=lambda s: found.rear_first[s])
        share = found.rear_first[worst]
        if share == 0:
            return f"of {written(found.draws, 0)} vehicles like yours in none the rear is first"
        road = f"{found.surfaces[worst]:g}"
        return f"the rear is first in {100 * share:.1f} of 100 like yours, on {road}"

    def show_figures(self) -> None:
        """Draw once the hand is still."""
        self._timer.start()

    def draw(self) -> None:
        """Draw for the build as it is now: a few at first, which are there at once."""
        self.stop.setEnabled(True)
        self.view.show_share(0.0)
        self._draw(FIRST)

    def _draw(self, draws: int) -> None:
        build, case, seed = self.session.build, self.session.solution.case, self.seed
        self.work.run(lambda progress: _asked(build, case, draws, seed, progress))

    def _take(self, found: tuple[Robustness, float | None] | None) -> None:
        self.view.show_found(None if found is None else found[0])
        self.stop.setEnabled(False)
        self.say()
        if found is None:
            return
        drawn, anywhere = found
        if anywhere is None:
            self.words.setText(f"{written(drawn.draws, 0)} vehicles so far; more are drawn.")
            self.stop.setEnabled(True)
            self._draw(DRAWS)
            return
        self.words.setText(
            f"Load case “{drawn.load_case}”. {how_sure(anywhere)} That is with any load, on any "
            "road from ice to the target's: what Choose ranks by."
        )

    def _fail(self, words: str) -> None:
        """Say what kept it from being drawn."""
        self.view.show_failure(words)
        self.stop.setEnabled(False)
        self.say()

    def _again(self) -> None:
        self.seed += 1
        self.draw()

    def _stop(self) -> None:
        self.work.stop()
        self.view.show_share(1.0)
        self.stop.setEnabled(False)
        found = self.view.found
        few = found is not None and found.draws < DRAWS
        shown = f"{written(FIRST, 0)} vehicles" if few else "from before"
        self.words.setText(f"Stopped: what is shown is {shown}.")

    def hideEvent(self, event: Any) -> None:
        self._timer.stop()
        if self.work.busy:
            self.work.stop()
        self.seen.forget()
