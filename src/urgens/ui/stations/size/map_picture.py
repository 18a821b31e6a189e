"""The map's picture: regions to their exact ends, labelled in words, and its axes."""

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QPainter

from urgens.studies.sizing_windows import MissedWindow
from urgens.ui.stations.size.choices import HIGHEST, LOWEST, BoreRatioGrid
from urgens.ui.theme.paint import T, outline, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.label_placer import Box

Stretch = tuple[float, float, MissedWindow]
HATCHES = {  # besides colour, so that regions are told apart without it
    MissedWindow.EFFORT: Qt.BrushStyle.BDiagPattern,
    MissedWindow.PRESSURE: Qt.BrushStyle.Dense7Pattern,
    MissedWindow.TRAVEL: Qt.BrushStyle.HorPattern,
    MissedWindow.STROKE: Qt.BrushStyle.DiagCrossPattern,
}
WORDS = {
    MissedWindow.FITS: "fits",
    MissedWindow.EFFORT: "too much foot",
    MissedWindow.PRESSURE: "pressure outside its window",
    MissedWindow.TRAVEL: "too near the floor",
    MissedWindow.STROKE: "cylinder too short",
    MissedWindow.HALF_FAILED: "one half lost leaves too little",
    MissedWindow.RATIO: "ratio not for this booster",
    MissedWindow.HOLD: "does not hold the launch",
    MissedWindow.BAR: "the bar tilts too far",
    MissedWindow.BALANCE: "the pair locks the rear first",
}
SHORT = {
    MissedWindow.FITS: "fits",
    MissedWindow.EFFORT: "foot",
    MissedWindow.PRESSURE: "pressure",
    MissedWindow.TRAVEL: "floor",
    MissedWindow.STROKE: "stroke",
    MissedWindow.HALF_FAILED: "half lost",
    MissedWindow.RATIO: "ratio",
    MissedWindow.HOLD: "no hold",
    MissedWindow.BAR: "bar",
    MissedWindow.BALANCE: "rear first",
}


class MapPicture:
    """Paints what does not depend on the choice: rows are called `names`, over a `caption`."""

    def __init__(
        self, choices: BoreRatioGrid, cells: QRectF, names: list[str], caption: str
    ) -> None:
        self.choices, self.cells = choices, cells
        self.names, self.caption = names, caption
        self.words: list[Box] = []  # where regions' words were painted [px]

    def point(self, row: int, ratio: float) -> QPointF:
        """Return where a bore and a ratio are."""
        box, count = self.cells, len(self.names)
        share = (ratio - LOWEST) / (HIGHEST - LOWEST)
        return QPointF(
            box.left() + share * box.width(), box.top() + (row + 0.5) * box.height() / count
        )

    def paint(self, painter: QPainter) -> None:
        """Paint regions, their words, and both axes."""
        box, verdict = self.cells, self.choices.map.verdict
        rows, columns = verdict.shape
        tall, wide = box.height() / rows, box.width() / (columns - 1)
        grounds = {
            MissedWindow.FITS: T.good_ground,
            MissedWindow.EFFORT: T.steel,
            MissedWindow.PRESSURE: T.warn_ground,
            MissedWindow.TRAVEL: T.band,
            MissedWindow.STROKE: T.hair,
            MissedWindow.HALF_FAILED: T.danger_ground,
            MissedWindow.RATIO: T.band,
            MissedWindow.HOLD: T.grid,
            MissedWindow.BAR: T.hair,
            MissedWindow.BALANCE: T.danger_ground,
        }
        found = [self.choices.regions.row(row) for row in range(rows)]
        painter.setPen(Qt.PenStyle.NoPen)
        for row, stretches in enumerate(found):
            for start, end, kind in stretches:
                left, right = (self.point(row, ratio).x() for ratio in (start, end))
                cell = QRectF(left, box.top() + row * tall, right - left, tall + 0.5)
                painter.fillRect(cell, QColor(grounds[kind]))
                style = HATCHES.get(kind)
                if style is not None:
                    painter.fillRect(cell, QBrush(QColor(T.hair), style))
        self._paint_boundaries(painter, found, tall)
        self._paint_axes(painter, tall)
        self._paint_regions(painter, verdict, found, (tall, wide))

    def _paint_boundaries(self, painter: QPainter, found: list[list[Stretch]], tall: float) -> None:
        """Draw where one verdict ends: upright in a row, level between two rows."""
        box = self.cells
        painter.setPen(pen(T.muted, 1))
        for row, stretches in enumerate(found):
            y = box.top() + row * tall
            for start, *_ in stretches[1:]:
                x = self.point(row, start).x()
                painter.drawLine(QPointF(x, y), QPointF(x, y + tall))
            for left, right in _unlike(found[row - 1], stretches) if row else []:
                ends = (self.point(row, ratio).x() for ratio in (left, right))
                painter.drawLine(*(QPointF(x, y) for x in ends))
        outline(painter, T.ink, 1)
        painter.drawRect(box)

    def _paint_axes(self, painter: QPainter, tall: float) -> None:
        box = self.cells
        for row in range(len(self.choices.bores)):
            at = QPointF(box.left() - 8, box.top() + (row + 0.5) * tall + 5)
            write(painter, self.names[row], at, size=14, side="right")
        for ratio in range(int(LOWEST), int(HIGHEST) + 1):
            at = QPointF(self.point(0, ratio).x(), box.bottom() + 18)
            write(painter, str(ratio), at, size=14, side="middle")
        write(painter, "pedal ratio", QPointF(box.right(), box.bottom() + 36), side="right")
        write(painter, self.caption, QPointF(box.left() - 8, box.bottom() + 36), side="right")

    def _paint_regions(
        self,
        painter: QPainter,
        verdict: np.ndarray,
        stretches: list[list[Stretch]],
        cell: tuple[float, float],
    ) -> None:
        """Write each region's words where it is roomiest, short ones where long ones do not fit."""
        box, (tall, wide), runs = self.cells, cell, [_runs(row) for row in verdict]
        ink = {
            MissedWindow.FITS: T.good,
            MissedWindow.HALF_FAILED: T.danger,
            MissedWindow.BALANCE: T.danger,
            MissedWindow.PRESSURE: T.warn,
        }
        for kind in MissedWindow:
            for words in (WORDS[kind], SHORT[kind]):
                least = (width(words, 15, 600) + 10) / wide
                place = _roomiest(verdict == kind, runs, least, tall / wide)
                if place is None:
                    continue
                row, column = place
                at = QPointF(box.left() + column * wide, box.top() + (row + 0.5) * tall + 5)
                color = ink.get(kind, T.ink)
                write(painter, words, at, size=15, weight=600, color=color, side="middle")
                self._note(at, width(words, 15, 600))
                break
            else:
                self._paint_narrow(painter, kind, stretches, tall, ink.get(kind, T.ink))

    def _paint_narrow(
        self,
        painter: QPainter,
        kind: MissedWindow,
        found: list[list[Stretch]],
        tall: float,
        color: str,
    ) -> None:
        """Write a region's words over its widest stretch where none is wide enough for them."""
        widest = [
            (end - start, (start + end) / 2, row)
            for row, stretches in enumerate(found)
            for start, end, at in stretches
            if at is kind
        ]
        if not widest:
            return
        _, ratio, row = max(widest)
        at = self.point(row, ratio)
        half = width(SHORT[kind], 14, 600) / 2 + 3
        left = min(max(at.x(), self.cells.left() + half), self.cells.right() - half)
        ground = QColor(T.sheet)
        ground.setAlphaF(0.85)
        painter.fillRect(QRectF(left - half, at.y() - tall / 2, 2 * half, tall), ground)
        at = QPointF(left, at.y() + 5)
        write(painter, SHORT[kind], at, size=14, weight=600, color=color, side="middle")
        self._note(at, 2 * half)

    def _note(self, at: QPointF, wide: float) -> None:
        """Note where words were written, their baseline's middle at a point."""
        self.words.append((at.x() - wide / 2, at.y() - 16, wide, 20))


def _unlike(above: list[Stretch], below: list[Stretch]) -> list[tuple[float, float]]:
    """Return from where to where two neighbouring rows have different verdicts."""
    cuts = sorted({end for row in (above, below) for start, end, _ in row})
    found, at = [], LOWEST
    for cut in cuts:
        middle = (at + cut) / 2
        kinds = [
            next(k for start, end, k in row if start <= middle <= end) for row in (above, below)
        ]
        if cut > at and kinds[0] is not kinds[1]:
            found.append((at, cut))
        at = cut
    return found


def _runs(row: np.ndarray) -> list[tuple[int, int]]:
    """Return first and last columns of the stretches of one verdict."""
    ends = np.flatnonzero(row[1:] != row[:-1])
    starts = np.concatenate(([0], ends + 1))
    return list(zip(starts.tolist(), [*ends.tolist(), row.size - 1], strict=True))


def _roomiest(
    inside: np.ndarray, runs: list[list[tuple[int, int]]], least: float, tall: float
) -> tuple[int, float] | None:
    """Return row and column in the middle of the roomiest stretch of at least a width, in columns.

    `runs` are the stretches of one verdict, row by row, of any verdict; `tall` is a row's height in
    columns. None where no stretch is wide enough.
    """
    best, place = 0.0, None
    for row in range(inside.shape[0]):
        for start, end in runs[row]:
            if end - start + 1 < least or not inside[row, start]:
                continue
            column = (start + end) // 2
            up = int(np.argmin(np.append(inside[row::-1, column], False)))
            down = int(np.argmin(np.append(inside[row:, column], False)))
            room = min(float(end - start), 4 * tall * min(up, down))
            if room > best:
                best, place = room, (row, (start + end) / 2)
    return place
