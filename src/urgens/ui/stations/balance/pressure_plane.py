"""Rear against front line pressure: the ideal band, the line as built, knee, slope and foot."""

from collections.abc import Callable

import numpy as np
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QFocusEvent, QKeyEvent
from PySide6.QtWidgets import QWidget

from urgens.solve import AxleName
from urgens.ui.session import Session
from urgens.ui.stations.balance.pressure_curves import (
    IDEAL_POINTS,
    PressureCurves,
    corners,
    pressure_curves,
)
from urgens.ui.stations.balance.pressure_notes import foot_note, notes, z_marks
from urgens.ui.stations.balance.valve_setting import (
    ValveSetting,
    knee_moved,
    knee_stepped,
    sloped,
    valve_setting,
)
from urgens.ui.theme.paint import T, faint
from urgens.ui.widgets.curve import Area, PlotCurve
from urgens.ui.widgets.drag import WidgetDrag
from urgens.ui.widgets.follows import Follows
from urgens.ui.widgets.handle import Handle
from urgens.ui.widgets.markers import Marker, MarkerShape
from urgens.ui.widgets.plane import CACHED, Plane

TITLE = "Rear line pressure against front line pressure"
SLOPE_AT = 0.9  # of the line: where the slope's handle sits


class PressurePlane(Plane):
    """The plane the valve is set in."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(TITLE, parent)
        self._session = session
        self._setting: ValveSetting | None = None
        self._curves: PressureCurves | None = None
        self._chosen = -1
        self._add_items()
        self._follows = Follows(
            self,
            session,
            curves=self._show_solution,
            words=self._show_notes,
            press=self._show_press,
        )

    def _add_items(self) -> None:
        self._band = Area(T.band)
        self._band.setZValue(-50)
        self._band.setCacheMode(CACHED)
        self.plotItem.addItem(self._band, ignoreBounds=True)
        self._tolerance = Area(faint(T.rear))
        self._tolerance.setZValue(-40)
        self.plotItem.addItem(self._tolerance, ignoreBounds=True)
        self._cases: list[PlotCurve] = []
        self._plain = self.add_curve(T.rear, 1, Qt.PenStyle.DotLine, name="no valve")
        self._guide = self.add_curve(T.rear, 1, Qt.PenStyle.DotLine, name="knee")
        self._line = self.add_curve(T.rear, 3, name="these brakes")
        self.knee = self._handle(self._drag_knee, diamond=True)
        self.slope = self._handle(self._drag_slope, diamond=False)

    def _handle(self, moved: Callable[[QPointF], None], *, diamond: bool) -> Handle:
        drag = WidgetDrag(self, self._session, moved=moved, left=self._let_go)
        handle = Handle(self.box, drag, T.rear, diamond=diamond)
        handle.started.connect(self._focus)
        self.plotItem.addItem(handle)
        return handle

    # --- showing ---------------------------------------------------------------------------

    def _show_solution(self) -> None:
        session = self._session
        self._setting = valve_setting(session)
        before, curves = self._curves, pressure_curves(session, self._setting)
        self._curves = curves
        chosen = session.solution.case
        # A valve does not move the ideal lines: while one is dragged they stay as they are.
        if (
            before is None
            or chosen != self._chosen
            or not np.array_equal(before.ideal_front, curves.ideal_front)
            or not np.array_equal(before.ideal_rear, curves.ideal_rear)
        ):
            self._chosen = chosen
            self._show_cases(curves)
        self._line.set_points(*corners(curves.front, curves.rear))
        self._plain.set_points(*corners(curves.front, curves.arriving))
        for curve in (self._plain, self._tolerance):
            curve.setVisible(self._setting is not None)
        self._tolerance.set_between(curves.front, curves.low, curves.high)
        self._show_markers()
        if not session.dragging:
            self.set_range((0.0, curves.right), (0.0, curves.top))
        self._show_handles(curves)

    def _show_cases(self, curves: PressureCurves) -> None:
        count = len(curves.ideal_front)
        while len(self._cases) < count:
            self._cases.append(self.add_curve(T.ink))
            self._cases[-1].setCacheMode(CACHED)
        for index, curve in enumerate(self._cases):
            curve.setVisible(index < count)
            if index < count:
                own = index == self._chosen
                style = Qt.PenStyle.SolidLine if own else Qt.PenStyle.DashLine
                curve.set_look(T.ink, 2 if own else 1, style)
                curve.set_points(curves.ideal_front[index], curves.ideal_rear[index])
        grid = np.linspace(0.0, curves.ideal_front.max(), IDEAL_POINTS)
        lines = zip(curves.ideal_front, curves.ideal_rear, strict=True)
        on_grid = np.array([np.interp(grid, front, rear) for front, rear in lines])
        self._band.set_between(grid, on_grid.min(axis=0), on_grid.max(axis=0))

    def _show_handles(self, curves: PressureCurves) -> None:
        setting = self._setting
        reached = setting is not None and setting.reached
        for item in (self.knee, self._guide):
            item.setVisible(reached)
        self.slope.setVisible(reached and setting is not None and setting.kind.has_slope)
        by_tab = Qt.FocusPolicy.StrongFocus if reached else Qt.FocusPolicy.ClickFocus
        self.setFocusPolicy(by_tab)
        if setting is None or not reached:
            return
        (_, right), (_, top) = self.box.viewRange()
        knee = setting.knee / curves.scale
        x = float(np.interp(knee, curves.arriving, curves.front))
        self.knee.setPos(min(x, right), min(knee, top))
        self._guide.set_points(np.array([0.0, x, x]), np.array([knee, knee, 0.0]))
        at = SLOPE_AT * min(right, float(curves.front.max()))
        self.slope.setPos(at, float(np.interp(at, curves.front, curves.rear)))

    def _show_markers(self) -> None:
        curves = self._curves
        assert curves is not None
        front, rear, _ = z_marks(curves, self._chosen)
        shown = [
            Marker(MarkerShape.DOT, (float(x), float(y))) for x, y in zip(front, rear, strict=True)
        ]
        if curves.lock is not None:
            axle, x, y, _ = curves.lock
            shown.append(
                Marker(MarkerShape.FRONT if axle is AxleName.FRONT else MarkerShape.REAR, (x, y))
            )
        self.set_markers([*shown, Marker(MarkerShape.FOOT, self._foot_point())])

    def _show_notes(self) -> None:
        curves = self._curves
        assert curves is not None
        reduced = self._setting is not None
        names = self._session.solution.system.case_names
        written = notes(curves, names, self._chosen, reduced=reduced)
        lines = [(curves.front, curves.rear)]
        lines += list(zip(curves.ideal_front, curves.ideal_rear, strict=True))
        handles = [curves.lock[1:3]] if curves.lock is not None else []
        if reduced:
            lines.append((curves.front, curves.arriving))
            held = [handle for handle in (self.knee, self.slope) if handle.isVisible()]
            handles += [(handle.pos().x(), handle.pos().y()) for handle in held]
        self.set_notes(written, lines, [*handles, self._foot_point()])
        self.set_moving_note(foot_note(self._foot_point()))

    def _foot_point(self) -> tuple[float, float]:
        assert self._curves is not None
        pressed, scale = self._session.presses, self._curves.scale
        return float(pressed.front_pressure) / scale, float(pressed.rear_pressure) / scale

    def _show_press(self) -> None:
        x, y = self._foot_point()
        self._show_markers()
        if self.covers_a_note((x, y)) and not self._session.telling:
            self._show_notes()  # they make way for the foot
        else:
            self.set_moving_note(foot_note((x, y)))

    # --- the hand --------------------------------------------------------------------------

    def _focus(self) -> None:
        """Let the arrow keys move the handle that is taken hold of."""
        self.setFocus()
        self._hold(self.knee if self.sender() is self.knee else self.slope)

    def _hold(self, held: Handle | None) -> None:
        for handle, name in ((self.knee, "knee"), (self.slope, "slope")):
            handle.set_focused(handle is held)
            if handle is held:
                self.setAccessibleName(f"{TITLE}; the {name}'s handle, arrow keys move it")
        if held is None:
            self.setAccessibleName(TITLE)

    @property
    def _shown(self) -> list[Handle]:
        return [handle for handle in (self.knee, self.slope) if handle.isVisible()]

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        ends = {Qt.FocusReason.TabFocusReason: 0, Qt.FocusReason.BacktabFocusReason: -1}
        if event.reason() in ends and self._shown:
            self._hold(self._shown[ends[event.reason()]])

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        if event.reason() not in (
            Qt.FocusReason.ActiveWindowFocusReason,
            Qt.FocusReason.PopupFocusReason,
        ):
            self._hold(None)

    def focusNextPrevChild(self, forward: bool) -> bool:
        """Go from handle to handle before leaving the plot."""
        shown = self._shown
        held = next((i for i, handle in enumerate(shown) if handle.focused), None)
        to = None if held is None else held + (1 if forward else -1)
        if to is None or not 0 <= to < len(shown):
            return bool(super().focusNextPrevChild(forward))
        self._hold(shown[to])
        return True

    def _let_go(self) -> None:
        if self._curves is not None:
            self.set_range((0.0, self._curves.right), (0.0, self._curves.top))
            self._show_handles(self._curves)

    def _drag_knee(self, to: QPointF) -> None:
        if self._setting is not None and self._curves is not None:
            knee = to.y() * self._curves.scale
            self._session.make(knee_moved(self._session, self._setting, knee))

    def _drag_slope(self, to: QPointF) -> None:
        setting, curves = self._setting, self._curves
        if setting is None or curves is None:
            return
        knee = setting.knee / curves.scale
        at = SLOPE_AT * float(curves.front.max())
        inlet = float(np.interp(at, curves.front, curves.arriving))
        if inlet > knee:
            self._session.make(sloped(setting, (to.y() - knee) / (inlet - knee)))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}.get(Qt.Key(event.key()))
        if event.key() == Qt.Key.Key_Escape and (self.knee.focused or self.slope.focused):
            self._hold(None)
        elif steps is not None and self._setting is not None and self.knee.focused:
            change = knee_stepped(self._session, self._setting, steps)
            if change is not None:
                self._session.make(change)
        elif steps is not None and self._setting is not None and self.slope.focused:
            self._session.make(sloped(self._setting, self._setting.slope + 0.01 * steps))
        else:
            super().keyPressEvent(event)
