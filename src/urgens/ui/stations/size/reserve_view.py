"""Stops left in the vacuum reservoir with the engine dead: vacuum and effort of each."""

import numpy as np
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.quantity import FORCE, Units, show
from urgens.quantity.units import INCH_OF_MERCURY
from urgens.studies.vacuum_reserve import Reserve, reserve
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

SHOWN = 6  # applications
# px around the bars
LEFT = 92.0
HEAD = 30.0
FOOT = 46.0


class ReserveView(Painted):
    """One bar an application, as high as the vacuum before it, a line in it at its stroke's end."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.found: Reserve | None = None
        self.setMinimumHeight(round(170 * self.scale))

    def refresh(self) -> None:
        """Work it out for the build as it is now."""
        solution = self._session.solution
        self.found = reserve(solution.build, solution.system, solution.standing)
        self.setAccessibleName(self.words)
        self.update()

    @property
    def words(self) -> str:
        """What the reservoir keeps."""
        if self.found is None:
            return "No reservoir"
        fitted = self._session.build.booster
        assert isinstance(fitted, VacuumBooster)
        assert fitted.reservoir is not None
        least = fitted.reservoir.least.text
        stops = self.found.stops
        if np.isinf(stops):
            return f"The vacuum never falls under {least}"
        plural = "" if stops == 1 else "s"
        return f"Engine dead: {stops:.0f} stop{plural} leave at least {least}"

    def paintEvent(self, event: QPaintEvent) -> None:
        found = self.found
        with self.begin() as painter:
            write(painter, self.words, QPointF(0, 16), size=16, weight=600, color=T.ink)
            if found is None:
                return
            wanted = self._session.build.targets.deceleration
            foot = self.down - FOOT
            write(painter, "before stop", QPointF(0, foot + 18), size=15)
            write(painter, f"foot, {wanted:g} g", QPointF(0, foot + 38), size=15)
            wide = (self.across - LEFT) / SHOWN
            most = max(float(found.vacuum[0]), 1.0)
            fitted = self._session.build.booster
            assert isinstance(fitted, VacuumBooster)
            assert fitted.reservoir is not None
            least = fitted.reservoir.least.value
            for index in range(SHOWN):
                self._draw_bar(painter, found, index, (wide, foot, most, least))
            y = foot - (foot - HEAD) * least / most
            if y >= HEAD:
                painter.setPen(pen(T.danger, 2))
                painter.drawLine(QPointF(LEFT - 8, y), QPointF(self.across, y))
                write(painter, "wanted", QPointF(LEFT - 12, y + 5), color=T.danger, side="right")

    def _draw_bar(
        self,
        painter: QPainter,
        reserve: Reserve,
        index: int,
        sizes: tuple[float, float, float, float],
    ) -> None:
        wide, foot, most, least = sizes
        units: Units = self._session.units
        vacuum, effort = float(reserve.vacuum[index]), float(reserve.effort[index])
        at_end = float(reserve.at_end[index])
        middle = LEFT + (index + 0.5) * wide
        high = (foot - HEAD) * vacuum / most
        enough = vacuum >= least
        painter.fillRect(
            QRectF(middle - wide * 0.32, foot - high, wide * 0.64, high),
            QColor(T.good_ground if enough else T.warn_ground),
        )
        painter.setPen(pen(T.good if enough else T.warn, 1.5))
        painter.drawLine(
            QPointF(middle - wide * 0.32, foot - high), QPointF(middle + wide * 0.32, foot - high)
        )
        end = foot - (foot - HEAD) * at_end / most  # the assist there is when it is wanted
        painter.drawLine(QPointF(middle - wide * 0.32, end), QPointF(middle + wide * 0.32, end))
        inches = f"{vacuum / INCH_OF_MERCURY:.0f}, {at_end / INCH_OF_MERCURY:.0f} inHg"
        inches = inches if vacuum > 0 else "none"
        inside = foot - high + 18 if high > 26 else foot - high - 5
        write(painter, inches, QPointF(middle, inside), size=15, color=T.ink, side="middle")
        write(painter, str(index + 1), QPointF(middle, foot + 18), side="middle")
        words = "too much" if np.isnan(effort) else str(show(effort, FORCE, units))
        color = T.warn if np.isnan(effort) else T.ink
        write(painter, words, QPointF(middle, foot + 38), weight=600, color=color, side="middle")
