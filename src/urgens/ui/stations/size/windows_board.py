"""What is wanted as windows: each a bar with the figure the choice gives, its edges dragged."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QColor, QPainter

from urgens.document import value_at
from urgens.document.tables import window_table
from urgens.guidance import Severity
from urgens.guidance.words.setups import locks_first_words
from urgens.quantity import FORCE, LENGTH, PRESSURE, QuantityKind, natural_step, retype, show
from urgens.studies.sizing import SizingMap
from urgens.studies.sizing_windows import MissedWindow
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, ink, outline, pen, width
from urgens.ui.widgets.board import Board, write
from urgens.ui.widgets.drag import PaintedDrag
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.marks import open_mark, severity_mark

ROW = 56.0  # px
LINE = 30.0  # px of a row without a bar
BAR = 9.0  # px of the bar's height
NOTE = 17.0  # px of a line under the first window, where there is something to say
AFTER = (
    (0, "targets.deceleration", "g"), (3, "targets.stroke_reserve", "of it free"),
)  # fmt: skip
IN_LINE = ("targets.stroke_reserve", "targets.pedal_reserve")  # which stand in the first line
GRIP = 12.0  # px around an edge that take hold of it
Source = Callable[[], tuple[SizingMap, tuple[int, int]]]


@dataclass(frozen=True)
class SizingWindow:
    """One window: its name, what of the map it looks at, its ends, which are paths or figures.

    `most` is the end of the bar's scale in SI.
    """

    name: str
    kind: QuantityKind | None
    value: float
    met: bool
    low: str | float
    high: str | float
    most: float
    lost: str  # said where there is no figure
    note: str = ""  # what is to be known beside it: then it has no tick
    factor: bool = False  # a ratio, not a share

    @property
    def plain(self) -> bool:
        """Whether it is a line alone, without a bar."""
        return self.factor or (self.kind is None and not np.isfinite(self.value))


class WindowsBoard(Board):
    """One row a window, in the order in which the map looks at them."""

    said = "What is wanted, a window a row"
    follows = False  # the page refreshes it once the map is worked out

    def __init__(self, session: Session, source: Source) -> None:
        self._source = source
        self._grip: tuple[SizingWindow, str] | None = None  # what was last taken hold of
        self._rows: list[SizingWindow] = []
        super().__init__(session)
        self.drag = PaintedDrag(
            self, session, taken=self._taken, moved=self._pull, left=self.seen.now
        )
        self.setMouseTracking(True)

    def spots(self) -> list[Spot]:
        """Return the ends of the windows, and what they are for."""
        return [
            Spot("targets.deceleration", 17),
            Spot("targets.max_effort", 16),
            Spot("targets.comfortable_effort", 17),
            Spot("targets.pressure_window[0]", 16),
            Spot("targets.pressure_window[1]", 16),
            Spot("targets.pedal_reserve", 17),
            Spot("targets.stroke_reserve", 16),
        ]

    def read(self) -> None:
        """Hold each figure against its window."""
        self._rows = self._windows()
        self.setFixedHeight(round(self._top(len(self._rows)) * self.scale))

    @property
    def _locks_before(self) -> str:
        """What locks before the wanted deceleration, of what is fitted or only looked at."""
        before = self.session.pressed_solution.locks_before_wanted
        return "" if before is None else locks_first_words(before, self.session.units)

    def _windows(self) -> list[SizingWindow]:
        """Return the windows of a cell of the map, each as met as the map says."""
        found, at = self._source()
        rows = [*self._of_foot_and_pedal(found, at), *self._of_practice(found, at)]
        if self._held is not None:  # the scale stands still under the hand
            held = self._held[0]
            rows = [replace(row, most=held.most) if row.name == held.name else row for row in rows]
        return rows

    def _of_foot_and_pedal(self, found: SizingMap, at: tuple[int, int]) -> Iterator[SizingWindow]:
        """Yield what is wanted of foot, pressure, pedal and stroke."""
        build, kinds = self.session.build, MissedWindow
        floor, most = build.pedal.travel_available.value, build.targets.max_effort.value
        high = build.targets.pressure_window[1].value

        def row(name: str, kind: QuantityKind | None, of: str, window: MissedWindow,
                ends: tuple[str | float, str | float], scale: float, lost: str = "",
                note: str = "") -> SizingWindow:  # fmt: skip
            figures = getattr(found, of)
            return SizingWindow(name, kind, float(figures[at]), found.keeps(window, at), *ends,
                                scale, lost, note)  # fmt: skip

        yield row("Foot for", FORCE, "effort", kinds.EFFORT, (0.0, "targets.max_effort"),
                  1.25 * most, "out of reach", self._locks_before)  # fmt: skip
        ends = "targets.pressure_window[0]", "targets.pressure_window[1]"
        yield row("Pressure at", PRESSURE, "pressure", kinds.PRESSURE, ends, 1.6 * high)
        yield row("Pedal travel, keep", LENGTH, "pedal_travel", kinds.TRAVEL,
                  (0.0, "targets.pedal_reserve"), 1.25 * floor, "on the floor")  # fmt: skip
        yield row("Stroke used, keep", None, "stroke_used", kinds.STROKE,
                  (0.0, "targets.stroke_reserve"), 1.25)  # fmt: skip
        if not build.master.one_chamber:
            yield row("One half lost", LENGTH, "half_failed_travel", kinds.HALF_FAILED,
                      (0.0, floor), 1.25 * floor, "no pedal left")  # fmt: skip
        if found.hold_effort is not None:
            yield row("Holds the launch", FORCE, "hold_effort", kinds.HOLD, (0.0, most),
                      1.25 * most, "not held")  # fmt: skip

    def _of_practice(self, found: SizingMap, at: tuple[int, int]) -> Iterator[SizingWindow]:
        """Yield what a ratio has to be for its booster, and what twin cylinders have to keep."""
        ratio = float(found.ratios[at[1]])
        lines = [("Pedal ratio", MissedWindow.RATIO, ratio, "")]
        if found.bar_ratio is not None:
            lines.append(("Ratio for the bar's angle", MissedWindow.BAR, ratio, ""))
        if found.in_balance is not None:
            said = "front first" if found.keeps(MissedWindow.BALANCE, at) else "rear first"
            lines.append(("Balance of the pair", MissedWindow.BALANCE, np.nan, said))
        for name, window, value, said in lines:
            met = found.keeps(window, at)
            yield SizingWindow(name, None, value, met, 0.0, 1.0, 1.0, said, factor=not said)

    # --- where things are ------------------------------------------------------------------

    @property
    def _noted(self) -> float:
        """Return how much room a note takes."""
        return NOTE if self._rows and self._rows[0].note else 0.0

    def _top(self, index: int) -> float:
        """Return where a row begins: under the note, but for the first."""
        above = sum(LINE if row.plain else ROW for row in self._rows[:index])
        return above + (self._noted if index else 0.0)

    @property
    def _bar_y(self) -> float:
        """Return where a bar is under its row's top."""
        return ROW - 21.0

    @property
    def _bar(self) -> tuple[float, float]:
        """Return from where to where bars go: between the widest ends that stand beside them."""
        left, right = (
            max((self._wide(end) + 10 for end in ends), default=0.0)
            for ends in zip(*((row.low, row.high) for row in self._rows), strict=True)
        )
        return max(left, 24.0), self.across - max(right, 24.0)

    def _wide(self, end: str | float) -> float:
        """Return how wide an end's figure is that stands beside its bar [px]."""
        label = self.labels.get(end) if isinstance(end, str) else None
        beside = label is not None and end not in IN_LINE
        return label.sizeHint().width() / self.scale if label is not None and beside else 0.0

    def place(self) -> None:
        """Put what a window is for into its first line, its ends beside its bar."""
        if not self.labels:
            return
        left, right = self._bar
        for index, row in enumerate(self._rows):
            top = self._top(index)
            for end, at, side in ((row.low, left - 6, "right"), (row.high, right + 6, "left")):
                if isinstance(end, str) and end not in IN_LINE:
                    self.put(end, at, top + self._bar_y - 11, side)  # type: ignore[arg-type]
        for index, path in (
            (0, "targets.deceleration"),
            (1, "targets.comfortable_effort"),
            (2, "targets.pedal_reserve"),
            (3, "targets.stroke_reserve"),
        ):
            name = self._rows[index].name if self._rows else ""
            self.put(path, 24 + width(name, 15) + 2, self._top(index))

    def _x(self, row: SizingWindow, value: float) -> float:
        left, right = self._bar
        return left + min(max(value / row.most, 0.0), 1.0) * (right - left)

    def _end(self, end: str | float) -> float:
        """Return where a window ends [SI]."""
        if isinstance(end, float):
            return end
        if end == "targets.stroke_reserve":
            return 1.0 - self.session.build.targets.stroke_reserve
        if end == "targets.pedal_reserve":
            build = self.session.build
            return build.pedal.travel_available.value - build.targets.pedal_reserve.value
        return float(value_at(self.session.build, end).value)

    # --- what is drawn ---------------------------------------------------------------------

    def draw(self, painter: QPainter) -> None:
        """Paint names, figures and bars."""
        units = self.session.units
        for index, row in enumerate(self._rows):
            top = self._top(index)
            color = T.good if row.met else T.warn
            if row.met and row.note:  # no tick
                open_mark(painter, QPointF(9, top + 13), 8)
            else:
                severity = None if row.met else Severity.WARNING
                severity_mark(painter, severity, QPointF(9, top + 13), 8)
            if row.note:
                write(painter, row.note, QPointF(24, top + ROW + 11), size=14)
            write(painter, row.name, QPointF(24, top + 18), color=T.ink)
            known = np.isfinite(row.value)
            figure = f"{100 * row.value:.0f} %" if row.kind is None else row.lost
            if row.factor:
                figure = f"{row.value:.2f} : 1"
            if not known:
                figure = row.lost
            if row.kind is not None and known:
                figure = str(show(row.value, row.kind, units))
            for at, path, unit in AFTER:
                if index == at:
                    write(painter, unit, QPointF(self.box(path).right() + 2, top + 18))
            ink = T.ink if row.met else color
            write(painter, figure, QPointF(self.across - 4, top + 19), size=20, weight=700,
                  color=ink, side="right")  # fmt: skip
            if not row.plain:
                self._draw_bar(painter, row, top + self._bar_y)

    def _draw_bar(self, painter: QPainter, row: SizingWindow, y: float) -> None:
        left, right = self._bar
        ends = [self._x(row, self._end(end)) for end in (row.low, row.high)]
        painter.fillRect(QRectF(left, y, right - left, BAR), QColor(T.band))
        painter.fillRect(QRectF(ends[0], y, ends[1] - ends[0], BAR), QColor(T.good_ground))
        outline(painter, T.good, 1)
        painter.drawRect(QRectF(ends[0], y, ends[1] - ends[0], BAR))
        for end, x in zip((row.low, row.high), ends, strict=True):
            if not isinstance(end, str):
                continue
            held = self._held is not None and self._held[1] == end
            ink(painter, pen(T.front if held else T.ink, 2), QColor(T.sheet))
            painter.drawRoundedRect(QRectF(x - 4, y - 4, 8, BAR + 8), 2, 2)
        if np.isfinite(row.value):
            x = self._x(row, row.value)
            painter.setPen(pen(T.ink if row.met else T.warn, 3))
            painter.drawLine(QPointF(x, y - 5), QPointF(x, y + BAR + 5))

    # --- the hand --------------------------------------------------------------------------

    def edge(self, path: str) -> QPointF:
        """Return where the edge of a window is that a path tells."""
        index, row = next((i, r) for i, r in enumerate(self._rows) if path in (r.low, r.high))
        return QPointF(self._x(row, self._end(path)), self._top(index) + self._bar_y + BAR / 2)

    @property
    def _held(self) -> tuple[SizingWindow, str] | None:
        """Return the window and its edge that are held now."""
        return self._grip if self.drag.held else None

    def _taken(self, spot: QPointF) -> bool:
        edges = [(row, end) for row in self._rows for end in (row.low, row.high)]
        near = (
            (row, end)
            for row, end in edges
            if isinstance(end, str) and (self.edge(end) - spot).manhattanLength() < GRIP
        )
        self._grip = next(near, None)
        return self._grip is not None

    def _pull(self, spot: QPointF) -> None:
        assert self._grip is not None
        row, path = self._grip
        left, right = self._bar
        share = min(max((spot.x() - left) / (right - left), 0.0), 1.0)
        self._take(row, path, share * row.most)

    def _take(self, row: SizingWindow, path: str, value: float) -> None:
        """Put an edge where it is dragged, at a whole step, inside what can be."""
        session = self.session
        if row.kind is None:
            typed: object = round(min(max(1.0 - value, 0.0), 0.9), 2)
            session.edit(path, typed, f"Stroke kept in reserve {typed}")
            return
        if path == "targets.pedal_reserve":
            value = max(session.build.pedal.travel_available.value - value, 0.0)
            kept = round(value / natural_step(LENGTH, session.units)) * natural_step(
                LENGTH, session.units
            )
            session.edit(path, retype(kept, LENGTH, session.units), "Pedal kept above the floor")
            return
        step = natural_step(row.kind, session.units)
        if row.kind is PRESSURE:
            step *= 5  # a window is no finer than tens of psi
        least = step
        if path.endswith("[1]"):
            least += self._end("targets.pressure_window[0]")
        value = max(round(value / step) * step, least)
        if path.endswith("[0]"):
            value = min(value, self._end("targets.pressure_window[1]") - step)
        text = retype(value, row.kind, session.units)
        session.edit(path, text, f"{self.labels[path].name} {text}")


def presets(session: Session) -> list[tuple[str, Callable[[], None]]]:
    """Return the windows to start from: words and what takes each into the build."""
    use, units = session.build.vehicle.use, session.units
    found: list[tuple[str, Callable[[], None]]] = []
    for window in window_table().windows:
        low, high = (show(end.value, PRESSURE, units) for end in window.pressure)
        usual = f"; usual for {use}" if use in window.uses else ""
        words = f"{window.name}: {low.number} to {high}{usual}"
        texts = [end.text for end in window.pressure]
        label = f"Window for {window.name.lower()}"
        found.append((words, partial(session.edit, "targets.pressure_window", texts, label)))
    return found
